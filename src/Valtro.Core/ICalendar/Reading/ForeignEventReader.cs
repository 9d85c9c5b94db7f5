using System.Globalization;
using NodaTime;
using Valtro.Core.Events;
using Valtro.Core.Speaking;

namespace Valtro.Core.ICalendar.Reading;

/// <summary>Reads what a component of somebody's file says of an event (RFC 5545 3.6.1, 3.6.2, 3.8).</summary>
/// <remarks>Tasks (VTODO) are deadlines. Who is invited is not read: those are names of people who were never asked.</remarks>
public static class ForeignEventReader
{
    private const int MostDates = 5_000;

    /// <exception cref="RuleException">It says no time at which it is, or is nothing of the kind; the field is the property's name.</exception>
    public static ForeignEvent Read(ForeignComponent component)
    {
        var isTask = component.Name == "VTODO";
        if (component.Name is not ("VEVENT" or "VTODO"))
            throw new RuleException(component.Name, component.Name == "VJOURNAL" ? "intake.journal" : "intake.otherComponent",
                ("name", component.Name));
        var remarks = new List<Saying>();
        var rules = Lines(component, "RRULE");
        var (start, end) = isTask ? TaskTimes(component, rules.Length > 0) : EventTimes(component, remarks);
        var (description, html) = Described(component);
        NoteWhatIsLeftOut(component, remarks);
        var title = Texts.Kept(Text(component, "SUMMARY"), Texts.LongestTitle);
        if (Text(component, "SUMMARY").Length > Texts.LongestTitle * 2 || component["SUMMARY"]?.IsCut == true)
            remarks.Add(Saying.Of("intake.titleCut"));
        if (title.Length == 0)
            remarks.Add(Saying.Of("intake.noTitle"));
        if (component["DESCRIPTION"] is { } said && (said.IsCut || said.Value.Length > Texts.LongestDescription))
            remarks.Add(Saying.Of("intake.descriptionCut", ("most", Texts.LongestDescription)));
        var status = component["STATUS"]?.Value.Trim().ToUpperInvariant();
        return new ForeignEvent(Texts.Kept(component["UID"]?.Value ?? "", 500), component.Line)
        {
            RecurrenceId = RecurrenceIdOf(component, remarks),
            Sequence = long.TryParse(component["SEQUENCE"]?.Value, CultureInfo.InvariantCulture, out var sequence) ? sequence : 0,
            Kind = isTask ? EventKind.Deadline : EventKind.Event,
            Title = title,
            Description = description,
            Html = html,
            Place = Texts.Kept(Text(component, "LOCATION"), Texts.LongestPlace),
            Categories = [.. component.All("CATEGORIES").SelectMany(line => ForeignValues.List(line.Value))
                .Select(one => Texts.Kept(ForeignValues.Text(one), 40)).Where(one => one.Length > 0)
                .Distinct(StringComparer.CurrentCultureIgnoreCase)],
            Links = LinksOf(component, remarks),
            Contact = Texts.Kept(Text(component, "CONTACT"), Texts.LongestPlace),
            Start = start,
            End = end,
            Length = component["DURATION"] is { } length && !isTask ? ForeignValues.Length(length.Value) : null,
            Rules = rules,
            ExceptRules = Lines(component, "EXRULE"),
            Extra = [.. Dates(component, "RDATE", ExtraOf, remarks)],
            Removed = [.. Dates(component, "EXDATE", ForeignValues.Times, remarks)],
            IsCancelled = status == "CANCELLED",
            Certainty = status == "TENTATIVE" ? Certainty.Tentative : Certainty.Certain,
            Transparency = component["TRANSP"]?.Value.Trim().ToUpperInvariant() == "TRANSPARENT" && !start.IsDate && !isTask
                ? Transparency.Free
                : Transparency.Usual,
            Secrecy = component["CLASS"]?.Value.Trim().ToUpperInvariant() switch
            {
                "PRIVATE" => Secrecy.Private,
                "CONFIDENTIAL" => Secrecy.Confidential,
                _ => Secrecy.Public,
            },
            Reminder = component.Inner.Where(one => one.Name == "VALARM").Select(ReminderOf).FirstOrDefault(one => one is not null),
            Remarks = remarks,
        };
    }

    private static string Text(ForeignComponent component, string name) =>
        component[name] is { } line ? ForeignValues.Text(line.Value) : "";

    private static string[] Lines(ForeignComponent component, string name) => [.. component.All(name).Select(line => line.Value).Take(20)];

    private static (ForeignTime Start, ForeignTime? End) EventTimes(ForeignComponent component, List<Saying> remarks)
    {
        var start = component["DTSTART"] is { } line
            ? TimeOf(line) ?? throw new RuleException("DTSTART", "intake.startUnreadable", ("text", Texts.Kept(line.Value, 60)))
            : throw new RuleException("DTSTART", "intake.noStart");
        var end = component["DTEND"] is { } last ? TimeOf(last) : null;
        if (component["DTEND"] is { } unread && end is null)
            remarks.Add(Saying.Of("intake.endUnreadable", ("text", Texts.Kept(unread.Value, 60))));
        if (end is { } read && read.IsDate != start.IsDate)
            remarks.Add(Saying.Of("intake.mixed"));
        return (start, end);
    }

    /// <summary>A task is due when DUE says so, else when it begins; one that recurs by its rule, which counts from DTSTART.</summary>
    private static (ForeignTime Start, ForeignTime? End) TaskTimes(ForeignComponent component, bool recurs)
    {
        var start = component["DTSTART"] is { } line ? TimeOf(line) : null;
        var due = component["DUE"] is { } last ? TimeOf(last) : null;
        if (due is null && start is { } begins && component["DURATION"] is { } length && ForeignValues.Length(length.Value) is { } lasts)
            due = begins with { Local = begins.Local.PlusSeconds((long)lasts.TotalSeconds) };
        var taken = recurs && start is { } first && due?.Local.Date != first.Local.Date ? start : due ?? start;
        return (taken ?? throw new RuleException("DUE", "intake.taskWithoutDay"), null);
    }

    private static ForeignTime? TimeOf(ForeignLine line) => ForeignValues.Time(line.Value, line.Parameter("TZID"));

    private static ForeignTime? RecurrenceIdOf(ForeignComponent component, List<Saying> remarks)
    {
        if (component["RECURRENCE-ID"] is not { } line)
            return null;
        if (line.Parameter("RANGE") is not null)
            remarks.Add(Saying.Of("intake.thisAndFuture"));
        return TimeOf(line) ?? throw new RuleException("RECURRENCE-ID", "intake.startUnreadable", ("text", Texts.Kept(line.Value, 60)));
    }

    /// <summary>What is written with marks counts more than the same without (RFC 9073 6.5, or as programs wrote it before).</summary>
    private static (string Text, string Html) Described(ForeignComponent component)
    {
        var html = component.All("STYLED-DESCRIPTION").Concat(component.All("X-ALT-DESC"))
            .FirstOrDefault(line => line.Parameter("FMTTYPE")?.StartsWith("text/html", StringComparison.OrdinalIgnoreCase) == true);
        return (Texts.KeptLines(Text(component, "DESCRIPTION"), Texts.LongestDescription / 4),
            html is null || html.IsCut || html.Value.Length > Texts.LongestDescription ? "" : ForeignValues.Text(html.Value));
    }

    private static List<EventLink> LinksOf(ForeignComponent component, List<Saying> remarks)
    {
        var links = new List<EventLink>();
        foreach (var line in component.Properties.Where(one => one.Name is "URL" or "CONFERENCE" or "ATTACH"))
        {
            if (line.Parameter("ENCODING") is not null || line.Parameter("VALUE") == "BINARY")
            {
                remarks.Add(Saying.Of("intake.fileWithin"));
                continue;
            }
            try
            {
                var label = Texts.Kept(
                    ForeignValues.Parameter(line.Parameter("LABEL") ?? line.Parameter("FILENAME") ?? ""), Texts.LongestName);
                links.Add(new EventLink(label, WebAddress.Check(line.Name, line.Value.Trim()),
                    line.Name == "CONFERENCE" ? LinkKind.VideoCall : LinkKind.Website));
            }
            catch (RuleException)
            {
                remarks.Add(Saying.Of("intake.linkLeftOut", ("url", Texts.Kept(line.Value, 80))));
            }
        }
        return [.. links.DistinctBy(link => link.Url).Take(EventDraft.MostLinks)];
    }

    private static void NoteWhatIsLeftOut(ForeignComponent component, List<Saying> remarks)
    {
        if (component.All("ATTENDEE").Any())
            remarks.Add(Saying.Of("intake.peopleLeftOut", ("count", component.All("ATTENDEE").Count())));
    }

    private static IEnumerable<T> Dates<T>(
        ForeignComponent component, string name, Func<ForeignLine, IEnumerable<T?>> read, List<Saying> remarks)
        where T : struct
    {
        var found = component.All(name).SelectMany(read).Take(MostDates).ToArray();
        if (found.Any(one => one is null))
            remarks.Add(Saying.Of("intake.datesUnreadable", ("count", found.Count(one => one is null))));
        return found.OfType<T>();
    }

    /// <summary>Dates, or periods: those have a length of their own (RFC 5545 3.3.9).</summary>
    private static IEnumerable<(ForeignTime, Duration?)?> ExtraOf(ForeignLine line)
    {
        foreach (var said in ForeignValues.List(line.Value))
        {
            var parts = said.Split('/');
            var zone = line.Parameter("TZID");
            if (ForeignValues.Time(parts[0], zone) is not { } start)
                yield return null;
            else if (parts.Length == 1)
                yield return (start, null);
            else
                yield return (start, ForeignValues.Length(parts[1]) ?? (ForeignValues.Time(parts[1], zone) is { } end
                    ? Duration.FromSeconds(Recurrence.DayNumbers.Moment(end.Local) - Recurrence.DayNumbers.Moment(start.Local))
                    : null));
        }
    }

    /// <summary>The first that reminds before it begins; what is said at another moment has no place here.</summary>
    private static Reminder? ReminderOf(ForeignComponent alarm)
    {
        if (alarm["TRIGGER"] is not { } trigger || trigger.Parameter("RELATED")?.ToUpperInvariant() == "END"
            || ForeignValues.Length(trigger.Value) is not { } length || length > Duration.Zero)
            return null;
        var minutes = (int)Math.Min(-length.TotalMinutes, int.MaxValue);
        var reminder = minutes % 1_440 == 0 && minutes > 0 ? new Reminder(minutes / 1_440, ReminderUnit.Days)
            : minutes % 60 == 0 && minutes > 0 ? new Reminder(minutes / 60, ReminderUnit.Hours)
            : new Reminder(minutes, ReminderUnit.Minutes);
        return minutes <= Reminder.MostDays * 1_440 ? reminder : null;
    }
}
