using Valtro.Core.Disclosure;
using Valtro.Core.Recurrence;
using Valtro.Core.Time;

namespace Valtro.Core.Events;

/// <summary>One thing that two versions of an event say differently.</summary>
/// <param name="Field">The form's field.</param>
public sealed record EventDifference(string Field, string Was, string Is)
{
    /// <summary>What differs between two versions of a whole event, in words.</summary>
    public static IReadOnlyList<EventDifference> Between(CalendarEvent before, CalendarEvent after, RuleWords words, Func<Guid, string> calendarName)
    {
        var differences = Between(before.Content, after.Content);
        Add(differences, "calendarId", calendarName(before.HomeCalendarId), calendarName(after.HomeCalendarId));
        Add(differences, "placements", Names(before), Names(after));
        Add(differences, "state", before.State.ToString(), after.State.ToString());
        Add(differences, "when", words.Say(before.Series), words.Say(after.Series));
        Add(differences, "extra", Count(before.Series.Extra.Count), Count(after.Series.Extra.Count));
        Add(differences, "removed", Count(before.Series.Removed.Count), Count(after.Series.Removed.Count));
        if (!before.Exceptions.SequenceEqual(after.Exceptions))
        {
            foreach (var exception in after.Exceptions.Except(before.Exceptions))
                differences.Add(new EventDifference("exception", words.Day(exception.RecurrenceId.Date, withWeekday: true), Say(exception, after.Series.Timing, words)));
            foreach (var exception in before.Exceptions.Where(one => after.Exceptions.All(other => other.RecurrenceId != one.RecurrenceId)))
                differences.Add(new EventDifference("exception", words.Day(exception.RecurrenceId.Date, withWeekday: true), "as the series"));
        }
        if (before.Series.Timing.Zone != after.Series.Timing.Zone)
            differences.Add(new EventDifference("zone", before.Series.Timing.Zone.Id, after.Series.Timing.Zone.Id));
        return differences;

        string Names(CalendarEvent happening) => string.Join(", ", happening.Placements.Select(calendarName).Order(StringComparer.CurrentCulture));
    }

    /// <summary>What differs between a date as it was shown and as it was typed.</summary>
    public static IReadOnlyList<EventDifference> Between(EventDate seen, Series series, EventContent typed, RuleWords words)
    {
        var differences = Between(seen.Event.Content with { Title = seen.Title, Place = seen.Place, Description = seen.Description }, typed);
        Add(differences, "when", words.Say(seen.Timing), words.Say(typed.Series.Timing));
        Add(differences, "repeat", words.Say(series), words.Say(typed.Series with { Timing = series.Timing }));
        Add(differences, "extra", Count(series.Extra.Count), Count(typed.Series.Extra.Count));
        Add(differences, "removed", Count(series.Removed.Count), Count(typed.Series.Removed.Count));
        if (series.Timing.Zone != typed.Series.Timing.Zone)
            differences.Add(new EventDifference("zone", series.Timing.Zone.Id, typed.Series.Timing.Zone.Id));
        return differences;
    }

    /// <summary>"cancelled", "moved to Tuesday 24 November 2026, 14:00 to 15:30".</summary>
    public static string Say(EventException exception, Timing timing, RuleWords words)
    {
        var parts = new List<string>();
        if (exception.IsCancelled)
            parts.Add("cancelled");
        if (exception.Start is { } start && exception.End is { } end)
            parts.Add($"moved to {words.Say(timing.Between(start, end))}");
        if (exception.Title is { } title)
            parts.Add($"called “{title}”");
        if (exception.Place is { } place)
            parts.Add(place.Length > 0 ? $"in {place}" : "without a place");
        if (exception.Description is not null)
            parts.Add("with its own text");
        return string.Join(", ", parts);
    }

    private static List<EventDifference> Between(EventContent before, EventContent after)
    {
        var differences = new List<EventDifference>();
        Add(differences, "title", before.Title, after.Title);
        Add(differences, "place", before.Place, after.Place);
        Add(differences, "description", before.Description.Text, after.Description.Text);
        Add(differences, "categoryId", before.Category?.Name ?? "", after.Category?.Name ?? "");
        Add(differences, "tags", string.Join(", ", before.Tags), string.Join(", ", after.Tags));
        Add(differences, "links", Links(before), Links(after));
        Add(differences, "files", string.Join(", ", before.Files.Select(file => file.Name)), string.Join(", ", after.Files.Select(file => file.Name)));
        Add(differences, "contact", before.Contact, after.Contact);
        Add(differences, "notes", before.Notes, after.Notes);
        Add(differences, "cap", Say(before.Cap), Say(after.Cap));
        Add(differences, "showing", Say(before.Showing), Say(after.Showing));
        return differences;
    }

    private static string Links(EventContent content) => string.Join(", ", content.Links.Select(link => $"{link.Label} ({link.Url})"));

    private static string Say(Cap cap)
    {
        if (cap.IsNone)
            return "as the calendar says";
        (string Name, Detail? Said)[] said = [("members", cap.Members), ("with the link", cap.Link), ("everyone", cap.Everyone)];
        return string.Join(", ", said.Where(one => one.Said is not null).Select(one => $"{one.Name}: {one.Said.ToString()!.ToLowerInvariant()}"));
    }

    private static string Say(ShowingSpan showing) => (showing.From, showing.Until) switch
    {
        (null, null) => "always",
        ({ } from, null) => $"from {from:uuuu-MM-dd}",
        (null, { } until) => $"until {until:uuuu-MM-dd}",
        ({ } from, { } until) => $"{from:uuuu-MM-dd} to {until:uuuu-MM-dd}",
    };

    private static void Add(List<EventDifference> differences, string field, string was, string becomes)
    {
        if (was != becomes)
            differences.Add(new EventDifference(field, was, becomes));
    }

    private static string Count(int dates) => dates switch
    {
        0 => "none",
        1 => "1 date",
        _ => $"{dates} dates",
    };
}
