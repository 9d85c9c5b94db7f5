using NodaTime;
using Valtro.Core.Recurrence;
using Valtro.Core.Speaking;
using Valtro.Core.Time;

namespace Valtro.Core.ICalendar.Checking;

/// <summary>A component as a whole, once it has ended: what it lacks, and what of it does not go together.</summary>
internal sealed class ComponentCheck(FaultList faults)
{
    public void Ended(OpenComponent open)
    {
        open.Parent?.Children.Add(open.Name);
        if (open.Kind is not { } kind)
            return;
        foreach (var name in kind.Needed.Where(name => !open.Has(name)).Order(StringComparer.Ordinal))
            faults.Add(open.Begin, 0, $"missing{PropertyCheck.Written(name)}", FaultSeverity.Error, kind.Clause,
                Saying.Of("check.missing", ("name", name), ("within", open.Name)));
        switch (open.Name)
        {
            case "VCALENDAR":
                Calendar(open);
                break;
            case "VEVENT" or "VTODO" or "VJOURNAL":
                Named(open);
                Span(open);
                Series(open);
                break;
            case "VTIMEZONE":
                Zone(open);
                break;
            case "STANDARD" or "DAYLIGHT":
                Observance(open);
                break;
            case "VALARM":
                Alarm(open);
                break;
        }
    }

    private void Add(CheckedLine at, string code, FaultSeverity severity, string clause, params ReadOnlySpan<(string, object?)> values) =>
        faults.Add(at, 0, code, severity, clause, values);

    private void Calendar(OpenComponent calendar)
    {
        if (calendar.Children.Count == 0)
            Add(calendar.Begin, "calendarEmpty", FaultSeverity.Error, "RFC 5545 3.6");
        foreach (var (zone, line) in calendar.ZonesNamed.Where(one => !calendar.ZonesDefined.ContainsKey(one.Key)))
            faults.Add(line, line.Parameter("TZID")?.At ?? 0, "zoneUndefined", FaultSeverity.Error, "RFC 5545 3.2.19", ("zone", LineCheck.Short(zone)));
        foreach (var (zone, line) in calendar.ZonesDefined.Where(one => !calendar.ZonesNamed.ContainsKey(one.Key)))
            Add(line, "zoneUnused", FaultSeverity.Note, "RFC 5545 3.6.5", ("zone", LineCheck.Short(zone)));
        foreach (var (_, (hasMaster, dates, line)) in calendar.Uids)
        {
            if (!hasMaster && dates.Count > 0)
                Add(line, "dateWithoutSeries", FaultSeverity.Note, "RFC 5545 3.8.4.4");
        }
    }

    private void Named(OpenComponent open)
    {
        if (open.First.GetValueOrDefault("UID") is not { } line)
            return;
        var uids = open.Calendar.Uids;
        var known = uids.TryGetValue((open.Name, line.Value), out var found) ? found : (HasMaster: false,
            Dates: new HashSet<string>(), First: line);
        var date = open.Value("RECURRENCE-ID");
        if (date is null ? known.HasMaster : !known.Dates.Add(date))
            Add(line, date is null ? "uidTwice" : "dateTwice", FaultSeverity.Error, date is null ? "RFC 5545 3.8.4.7" : "RFC 5545 3.8.4.4",
                ("uid", LineCheck.Short(line.Value)));
        uids[(open.Name, line.Value)] = known with { HasMaster = known.HasMaster || date is null };
        if (date is not null && open.Has("RRULE"))
            Add(open.First["RRULE"], "ruleOfOneDate", FaultSeverity.Warning, "RFC 5545 3.8.4.4");
    }

    private void Span(OpenComponent open)
    {
        var name = open.Name == "VTODO" ? "DUE" : "DTEND";
        var (start, end) = (open.First.GetValueOrDefault("DTSTART"), open.First.GetValueOrDefault(name));
        if (start is null && open.Name == "VEVENT" && !open.Calendar.Has("METHOD"))
            Add(open.Begin, "missingDtstart", FaultSeverity.Error, "RFC 5545 3.6.1");
        if (end is not null && open.First.GetValueOrDefault("DURATION") is { } both)
            Add(both, "endAndDuration", FaultSeverity.Error, open.Kind!.Clause, ("name", name));
        if (open.Name == "VTODO" && start is null && open.First.GetValueOrDefault("DURATION") is { } alone)
            Add(alone, "durationWithoutStart", FaultSeverity.Error, "RFC 5545 3.6.2");
        if (!open.Times.TryGetValue("DTSTART", out var from))
            return;
        if (end is not null && open.Times.TryGetValue(name, out var to))
            Ends(from, to, end, name);
        if (open.First.GetValueOrDefault("DURATION") is { } length && ValueCheck.Duration(length.Value) is { } lasts)
        {
            if (lasts.Seconds < 0)
                Add(length, "durationNegative", FaultSeverity.Error, "RFC 5545 3.8.2.5");
            if (from.IsDate && !lasts.IsOfDays)
                Add(length, "durationOfDate", FaultSeverity.Error, "RFC 5545 3.8.2.5");
        }
        if (open.Times.TryGetValue("RECURRENCE-ID", out var date) && date.IsDate != from.IsDate)
            Add(open.First["RECURRENCE-ID"], "dateOfOtherType", FaultSeverity.Warning, "RFC 5545 3.8.4.4");
        if (open.Times.TryGetValue("COMPLETED", out _) && open.Value("STATUS") is { } status
            && !status.Equals("COMPLETED", StringComparison.OrdinalIgnoreCase))
            Add(open.First["COMPLETED"], "completedAndNot", FaultSeverity.Warning, "RFC 5545 3.8.2.1", ("status", LineCheck.Short(status)));
    }

    private void Ends(CheckedTime from, CheckedTime to, CheckedLine line, string name)
    {
        var clause = Specifications.Properties[name].Clause;
        if (from.IsDate != to.IsDate)
            Add(line, "endOfOtherType", FaultSeverity.Error, clause, ("name", name));
        else if (from.IsUtc == to.IsUtc && from.Zone == to.Zone && to.Local < from.Local)
            Add(line, "endsBeforeStart", FaultSeverity.Error, clause, ("name", name));
        else if (from.IsDate && to.Local == from.Local && name == "DTEND")
            Add(line, "endsOnItsDay", FaultSeverity.Error, clause);
        else if ((from.IsUtc, from.Zone is null) != (to.IsUtc, to.Zone is null))
            Add(line, "endInOtherTime", FaultSeverity.Warning, clause, ("name", name));
    }

    private void Series(OpenComponent open)
    {
        if (!open.Times.TryGetValue("DTSTART", out var start))
        {
            // One that cannot be read is said at its own line.
            if (!open.First.ContainsKey("DTSTART") && open.First.GetValueOrDefault("RRULE") is { } alone)
                Add(alone, "ruleWithoutStart", FaultSeverity.Error, "RFC 5545 3.8.5.3");
            return;
        }
        foreach (var (line, time, at) in open.Excluded.Concat(open.Added))
        {
            if (time.IsDate != start.IsDate && line["VALUE"]?.ToUpperInvariant() != "PERIOD")
                faults.Add(line, at, line.Name == "EXDATE" ? "excludedOfOtherType" : "addedOfOtherType", FaultSeverity.Error,
                    Specifications.Properties[line.Name].Clause, ("name", line.Name));
        }
        if (open.Rule is { } rule)
            Rule(open, rule, start);
        else if (open.Added.Count > 0)
            Add(open.Added[0].Line, "misreadDates", FaultSeverity.Note, "RFC 5545 3.8.5.2");
        if (open.Excluded.Count > 0 && open.Rule is null && open.Added.Count == 0 && !open.Has("EXRULE"))
            Add(open.Excluded[0].Line, "excludedOfNothing", FaultSeverity.Note, "RFC 5545 3.8.5.1");
        if (!start.IsDate && start.Zone is { } name && DateTimeZoneProviders.Tzdb.GetZoneOrNull(name) is { } zone)
        {
            if (LocalTimes.EffectOf(start.Local, zone) == ClockEffect.Repeated)
                Add(open.First["DTSTART"], "misreadOverlap", FaultSeverity.Note, "RFC 5545 3.3.5");
            else if (LocalTimes.EffectOf(start.Local, zone) == ClockEffect.Skipped)
                // In a series it is one date of many, which only its start can name.
                Add(open.First["DTSTART"], "misreadGap",
                    open.Rule is null && open.Added.Count == 0 ? FaultSeverity.Warning : FaultSeverity.Note, "RFC 5545 3.3.5");
        }
    }

    private void Rule(OpenComponent open, RecurrenceRule rule, CheckedTime start)
    {
        var line = open.First["RRULE"];
        var zone = start.Zone is { } name ? DateTimeZoneProviders.Tzdb.GetZoneOrNull(name) : DateTimeZone.Utc;
        try
        {
            RuleChecks.CheckAgainst(rule, start.Local, start.IsDate ? null : zone ?? DateTimeZone.Utc);
        }
        catch (RuleException refused)
        {
            var said = refused.Refusals[0].Saying;
            // Of a zone that nobody knows it cannot be said when it is there.
            if (zone is null && said.Code == "rule.endsBeforeFirst")
                return;
            faults.Add(line, line.ValueAt, said.Code, FaultSeverity.Error, "RFC 5545 3.3.10", said);
            return;
        }
        if (rule.Parts.SetPositions.Count > 0)
            Add(line, "misreadPositions", FaultSeverity.Note, "RFC 5545 3.3.10");
        if (line.Value.Contains("RSCALE", StringComparison.OrdinalIgnoreCase))
            Add(line, "misreadSkip", FaultSeverity.Note, "RFC 7529 4");
        // Listed as well, it counts for everybody; taken out, for nobody.
        if (DayRange.Holds(start.Local.Date) && !open.Added.Concat(open.Excluded).Any(one => one.Time == start)
            && !GivesItsStart(rule, start))
            Add(line, "startNotOfRule", FaultSeverity.Warning, "RFC 5545 3.8.5.3");
    }

    private static bool GivesItsStart(RecurrenceRule rule, CheckedTime start) => new Series(
        start.IsDate
            ? Timing.WholeDays(start.Local.Date, start.Local.Date, DateTimeZone.Utc)
            : Timing.Timed(start.Local, start.Local, DateTimeZone.Utc), rule).RuleGivesItsStart;

    private void Zone(OpenComponent zone)
    {
        if (!zone.Children.Contains("STANDARD") && !zone.Children.Contains("DAYLIGHT"))
            Add(zone.Begin, "zoneWithoutObservance", FaultSeverity.Error, "RFC 5545 3.6.5");
        if (zone.First.GetValueOrDefault("TZID") is { } line && !zone.Calendar.ZonesDefined.TryAdd(line.Value, line))
            Add(line, "zoneTwice", FaultSeverity.Error, "RFC 5545 3.6.5", ("zone", LineCheck.Short(line.Value)));
    }

    private void Observance(OpenComponent open)
    {
        if (open.First.GetValueOrDefault("DTSTART") is { } start && (start["TZID"] is not null || start.Value.EndsWith('Z')))
            Add(start, "observanceNotLocal", FaultSeverity.Error, "RFC 5545 3.6.5");
        if (open.Parent?.Value("TZID") is not { } name || DateTimeZoneProviders.Tzdb.GetZoneOrNull(name) is not { } zone
            || open.First.GetValueOrDefault("TZOFFSETTO") is not { } to || ValueCheck.Offset(to.Value) is not { } seconds)
            return;
        var (from, until) = (Instant.FromUtc(1800, 1, 1, 0, 0), Instant.FromUtc(2040, 1, 1, 0, 0));
        if (!zone.GetZoneIntervals(from, until).Any(interval => interval.WallOffset.Seconds == seconds))
            Add(to, "zoneContradicts", FaultSeverity.Warning, "RFC 5545 3.6.5", ("zone", name), ("text", to.Value));
    }

    private void Alarm(OpenComponent alarm)
    {
        var action = alarm.Value("ACTION")?.Trim().ToUpperInvariant();
        string[] needed = action switch
        {
            "DISPLAY" => ["DESCRIPTION"],
            "EMAIL" => ["DESCRIPTION", "SUMMARY", "ATTENDEE"],
            _ => [],
        };
        foreach (var name in needed.Where(name => !alarm.Has(name)))
            Add(alarm.First["ACTION"], "alarmLacks", FaultSeverity.Error, "RFC 5545 3.6.6", ("name", name), ("action", action));
        if (alarm.Has("REPEAT") != alarm.Has("DURATION"))
            Add(alarm.First[alarm.Has("REPEAT") ? "REPEAT" : "DURATION"], "repeatAlone", FaultSeverity.Error, "RFC 5545 3.6.6");
        if (alarm.First.GetValueOrDefault("TRIGGER") is not { } trigger)
            return;
        if (alarm.Times.TryGetValue("TRIGGER", out var at) && !at.IsUtc)
            Add(trigger, "triggerNotUtc", FaultSeverity.Error, "RFC 5545 3.8.6.3");
        if (trigger["RELATED"] is not null && trigger["VALUE"]?.ToUpperInvariant() == "DATE-TIME")
            Add(trigger, "triggerRelatedToTime", FaultSeverity.Error, "RFC 5545 3.8.6.3");
        if (alarm.Parent is { } of && string.Equals(trigger["RELATED"], "END", StringComparison.OrdinalIgnoreCase)
            && !of.Has("DTEND") && !of.Has("DUE") && !of.Has("DURATION"))
            Add(trigger, "triggerOfNoEnd", FaultSeverity.Error, "RFC 5545 3.8.6.3");
    }
}
