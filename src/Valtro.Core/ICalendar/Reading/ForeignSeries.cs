using NodaTime;
using Valtro.Core.Events;
using Valtro.Core.Recurrence;
using Valtro.Core.Speaking;
using Valtro.Core.Time;
using Valtro.Core.YearPlans;

namespace Valtro.Core.ICalendar.Reading;

/// <summary>Makes ours of when an event of a file is: its first date, rule, dates besides and dates that differ (RFC 5545 3.8.4.4,
/// 3.8.5).</summary>
/// <remarks>What no rule of ours says (several rules, rules that take dates away) becomes dates, and it is said so.</remarks>
public sealed class ForeignSeries
{
    /// <summary>How far a series without end is written down date by date.</summary>
    private static readonly Period Ahead = Period.FromYears(2);

    private readonly ForeignEvent _says;
    private readonly ForeignZones _zones;
    private readonly DateTimeZone _usual;
    private readonly List<Saying> _remarks;
    private readonly DateTimeZone _zone;

    private ForeignSeries(ForeignEvent says, ForeignZones zones, DateTimeZone usual)
    {
        (_says, _zones, _usual) = (says, zones, usual);
        _remarks = [.. says.Remarks];
        _zone = ZoneOf(says);
    }

    /// <param name="overrides">Components of the same name that say something else of one date each.</param>
    /// <param name="usual">Where times without a zone are meant, and where whole days are looked at from.</param>
    /// <returns>Several where a date cannot be part of its series.</returns>
    public static IReadOnlyList<ForeignEntry> Of(
        string uid, ForeignEvent says, IReadOnlyList<ForeignEvent> overrides, ForeignZones zones, DateTimeZone usual)
    {
        try
        {
            return new ForeignSeries(says, zones, usual).Entries(uid, overrides);
        }
        catch (RuleException refused)
        {
            return [ForeignEntry.Refused(uid, says.Line, says.Title, refused)];
        }
    }

    private List<ForeignEntry> Entries(string uid, IReadOnlyList<ForeignEvent> overrides)
    {
        var series = Whole();
        var dates = new SortedDictionary<LocalDateTime, ForeignDate>();
        foreach (var (date, length) in Periods(series))
            dates[date] = new ForeignDate(date, date, date.PlusSeconds(length), null, false);
        var apart = new List<ForeignEntry>();
        foreach (var own in overrides)
        {
            var date = DateOf(own.RecurrenceId!.Value, series.Timing);
            if (own.Start.IsDate != _says.Start.IsDate && !own.IsCancelled)
            {
                apart.AddRange(Of($"{uid}#{DateName.Of(date, series.Timing.AllDay)}", own with { RecurrenceId = null }, [], _zones, _usual));
                series = series with { Removed = [.. series.Removed.Append(date).Distinct().Order()] };
                continue;
            }
            if (!series.Gives(date, SchoolCalendar.Empty) && DayRange.Holds(date.Date))
                series = series with { Extra = [.. series.Extra.Append(date).Order()] };
            series = series with { Removed = [.. series.Removed.Where(one => one != date)] };
            dates[date] = Own(own, date, series.Timing);
        }
        if (series.Removed.Count > EventDraft.MostDays || series.Extra.Count > EventDraft.MostDays)
            throw new RuleException("RDATE", "event.tooManyOwnDates", ("most", EventDraft.MostDays));
        EventDraft.CheckDates(series, SchoolCalendar.Empty);
        if (!series.RuleGivesItsStart)
            _remarks.Add(Saying.Of("intake.offPattern", ("date", series.Timing.Start.Date)));
        return [new ForeignEntry(uid, _says.Line, _says.Title)
        {
            Says = _says,
            Series = series,
            Dates = [.. dates.Values],
            Remarks = [.. _remarks.Concat(overrides.SelectMany(own => own.Remarks)).Distinct()],
        }, .. apart];
    }

    private DateTimeZone ZoneOf(ForeignEvent says)
    {
        if (says.Start.IsDate || says.Start.Zone is not { } name)
            return _usual;
        // One moment needs no zone: it is shown as the clocks of the calendar say it. A series in UTC goes by UTC.
        if (name == "UTC")
            return says.Recurs ? DateTimeZone.Utc : _usual;
        var (zone, remark) = _zones.Named(name, says.Start.Local);
        if (remark is not null)
            _remarks.Add(remark);
        return zone;
    }

    private LocalDateTime Local(ForeignTime time, DateTimeZone zone)
    {
        if (time.IsDate || time.Zone is not { } name)
            return time.Local;
        var own = name == "UTC" ? DateTimeZone.Utc : _zones.Named(name, time.Local).Zone;
        if (own == zone || !DayRange.Holds(time.Local.Date))
            return time.Local;
        return LocalTimes.InZone(time.Local, own).ToInstant().InZone(zone).LocalDateTime;
    }

    private Series Whole()
    {
        var timing = TimingOf(_says);
        var series = new Series(timing);
        if (_says.Rules.Count == 1 && _says.ExceptRules.Count == 0)
            series = new Series(timing, RuleOf(_says.Rules[0], timing));
        else if (_says.Rules.Count > 0)
            series = new Series(timing, null, DatesOfRules(timing), []);
        if (series.Rule is { Until: not null } && !series.All(SchoolCalendar.Empty).Any())
        {
            _remarks.Add(Saying.Of("intake.endsBeforeItBegins"));
            series = new Series(timing);
        }
        var extra = _says.Extra.Select(one => DateOf(one.Start, timing)).Where(date => DayRange.Holds(date.Date) && date != timing.Start);
        series = series with { Extra = [.. series.Extra.Concat(extra).Distinct().Order()] };
        return series with { Removed = Removed(series) };
    }

    private Timing TimingOf(ForeignEvent says)
    {
        var start = Local(says.Start, _zone);
        DayRange.Check("DTSTART", start.Date);
        return says.Start.IsDate ? WholeDays(says, start.Date) : Timing.Timed(start, EndOf(says, start), _zone);
    }

    private Timing WholeDays(ForeignEvent says, LocalDate first)
    {
        var last = says.End is { } end
            // The end is the day after the last one; a time of day is in the last one.
            ? end.IsDate || end.Local.TimeOfDay == LocalTime.Midnight ? end.Local.Date.PlusDays(-1) : end.Local.Date
            : says.Length is { } length ? first.PlusDays((int)Math.Min(Timing.LongestDays + 1, length.TotalDays) - 1) : first;
        return Timing.WholeDays(first, says.Kind == EventKind.Deadline ? first : LocalDate.Max(first, last), _zone);
    }

    private LocalDateTime EndOf(ForeignEvent says, LocalDateTime start)
    {
        if (says.Kind == EventKind.Deadline)
            return start;
        var end = says.End is { } said ? Local(said, _zone)
            : says.Length is { } length ? start.PlusSeconds((long)Math.Min(length.TotalSeconds, 1e9))
            : start;
        if (end >= start)
            return end;
        if (says.End is not { IsDate: true })
            _remarks.Add(Saying.Of("intake.endBeforeStart"));
        return start;
    }

    /// <summary>As the file says it, put right where programs commonly go wrong: what ends it is written like the start.</summary>
    private static string Mended(string rule) => string.Join(';', rule.Trim().Trim(';').Split(';')
        .Select(part => part.Trim()).Where(part => !part.EndsWith('=') && !part.StartsWith("X-", StringComparison.OrdinalIgnoreCase)
            && !part.StartsWith("UNTIL", StringComparison.OrdinalIgnoreCase) && part.Length > 0));

    private RecurrenceRule RuleOf(string text, Timing timing)
    {
        var rule = RuleText.Parse(Mended(text));
        var said = Array.Find(text.Split(';'), part => part.Trim().StartsWith("UNTIL=", StringComparison.OrdinalIgnoreCase));
        if (said is null)
            return rule;
        if (ForeignValues.Time(said.Trim()[6..]) is not { } until)
            throw new RuleException("UNTIL", "rule.untilUnreadable", ("text", said));
        if (until.Local.Year > DayRange.Last.Year)
            return rule;
        if (until.IsDate != timing.AllDay || !until.IsDate && until.Zone is null)
            _remarks.Add(Saying.Of("intake.untilMended"));
        // A day takes in all of its dates; a time without a zone is meant where the series is.
        Until end = timing.AllDay ? new Until.Day(until.Local.Date)
            : until.IsDate ? Until.Including(until.Local.Date.PlusDays(1).AtMidnight().PlusSeconds(-1), timing)
            : until.Zone is null ? Until.Including(until.Local, timing)
            : new Until.Moment(until.Local.InUtc().ToInstant());
        return rule.Ending(rule.Count, end);
    }

    private LocalDateTime[] DatesOfRules(Timing timing)
    {
        var last = timing.Start.Plus(Ahead);
        var isEndless = false;
        SortedSet<LocalDateTime> Of(IReadOnlyList<string> rules)
        {
            var found = new SortedSet<LocalDateTime>();
            foreach (var text in rules)
            {
                var series = new Series(timing, RuleOf(text, timing));
                isEndless |= series.IsEndless;
                found.UnionWith(series.Pattern(timing.Start, SchoolCalendar.Empty).TakeWhile(date => date <= last)
                    .Take(EventDraft.MostDays + 1));
            }
            return found;
        }
        var dates = Of(_says.Rules);
        var isCut = isEndless;
        dates.ExceptWith(Of(_says.ExceptRules));
        dates.Remove(timing.Start);
        LocalDateTime[] taken = [.. dates.Take(EventDraft.MostDays)];
        isCut |= taken.Length < dates.Count;
        _remarks.Add(taken.Length > 0 && isCut
            ? Saying.Of("intake.asDatesUntil", ("count", taken.Length + 1), ("last", taken[^1].Date))
            : Saying.Of("intake.asDates", ("count", taken.Length + 1)));
        return taken;
    }

    /// <summary>Which date of the series a time names.</summary>
    private LocalDateTime DateOf(ForeignTime time, Timing timing)
    {
        var local = Local(time, _zone);
        return timing.AllDay ? local.Date.AtMidnight() : time.IsDate ? local.Date + timing.Start.TimeOfDay : local;
    }

    /// <summary>Those that the series has; one with another time of day is the date of that day.</summary>
    private LocalDateTime[] Removed(Series series)
    {
        var removed = new SortedSet<LocalDateTime>();
        foreach (var said in _says.Removed.Select(one => DateOf(one, series.Timing)).Where(date => DayRange.Holds(date.Date)))
        {
            if (series.Gives(said, SchoolCalendar.Empty))
                removed.Add(said);
            else if (OnDay(series, said.Date) is [var only])
                removed.Add(only);
        }
        return [.. removed];
    }

    private static LocalDateTime[] OnDay(Series series, LocalDate day) =>
        [.. series.Pattern(day.AtMidnight(), SchoolCalendar.Empty).TakeWhile(date => date.Date == day).Take(2)];

    private IEnumerable<(LocalDateTime Date, long Seconds)> Periods(Series series) =>
        from one in _says.Extra
        where one.Length is { } length && length > Duration.Zero && length != series.Timing.Duration
        let date = DateOf(one.Start, series.Timing)
        where series.Extra.Contains(date)
        select (date, (long)one.Length!.Value.TotalSeconds);

    private ForeignDate Own(ForeignEvent own, LocalDateTime date, Timing timing)
    {
        var there = own.Start.IsDate == _says.Start.IsDate ? TimingOf(own) : timing.MovedTo(date);
        var usual = timing.MovedTo(date);
        var isMoved = there.Start != usual.Start || there.End != usual.End;
        return new ForeignDate(date, isMoved ? there.Start : null, isMoved ? there.End : null, own, own.IsCancelled);
    }
}
