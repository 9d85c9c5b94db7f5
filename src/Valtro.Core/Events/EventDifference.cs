using Valtro.Core.Recurrence;
using Valtro.Core.Speaking;
using Valtro.Core.Time;

namespace Valtro.Core.Events;

/// <summary>One thing that two versions of an event say differently.</summary>
/// <param name="Field">As it is declared, or the part of what the event is besides.</param>
public sealed record EventDifference(string Field, string Was, string Is)
{
    /// <summary>What differs between two versions of a whole event, in words.</summary>
    public static IReadOnlyList<EventDifference> Between(
        CalendarEvent before, CalendarEvent after, RuleWords words, Func<Guid, string> calendarName)
    {
        var differences = Between(before.Content, after.Content, words.Speech);
        Add(differences, "calendarId", calendarName(before.HomeCalendarId), calendarName(after.HomeCalendarId));
        Add(differences, "placements", Names(before), Names(after));
        Add(differences, "state", State(before), State(after));
        Add(differences, "when", words.Say(before.Series), words.Say(after.Series));
        Add(differences, "extra", Count(before.Series.Extra.Count, words.Speech), Count(after.Series.Extra.Count, words.Speech));
        Add(differences, "removed", Count(before.Series.Removed.Count, words.Speech), Count(after.Series.Removed.Count, words.Speech));
        if (!before.Exceptions.SequenceEqual(after.Exceptions))
        {
            foreach (var exception in after.Exceptions.Except(before.Exceptions))
                differences.Add(
                    new EventDifference("exception", words.Day(exception.RecurrenceId.Date, withWeekday: true),
                        Say(exception, after.Series.Timing, words)));
            foreach (var exception in before.Exceptions.Where(one => after.Exceptions.All(other => other.RecurrenceId != one.RecurrenceId)))
                differences.Add(
                    new EventDifference(
                        "exception", words.Day(exception.RecurrenceId.Date, withWeekday: true), words.Speech.Say("own.asTheSeries")));
        }
        if (before.Series.Timing.Zone != after.Series.Timing.Zone)
            differences.Add(new EventDifference("zone", before.Series.Timing.Zone.Id, after.Series.Timing.Zone.Id));
        return differences;

        string State(CalendarEvent calendarEvent) => words.Speech.Say($"state.{calendarEvent.State.ToString().ToLowerInvariant()}");

        string Names(CalendarEvent calendarEvent) =>
            string.Join(", ", calendarEvent.Placements.Select(calendarName).Order(StringComparer.CurrentCulture));
    }

    /// <summary>What differs between a date as it was shown and as it was typed.</summary>
    public static IReadOnlyList<EventDifference> Between(EventDate seen, Series series, EventContent typed, RuleWords words)
    {
        var differences = Between(seen.Content, typed, words.Speech);
        Add(differences, "when", words.Say(seen.Timing), words.Say(typed.Series.Timing));
        Add(differences, "repeat", words.Say(series), words.Say(typed.Series with { Timing = series.Timing }));
        Add(differences, "extra", Count(series.Extra.Count, words.Speech), Count(typed.Series.Extra.Count, words.Speech));
        Add(differences, "removed", Count(series.Removed.Count, words.Speech), Count(typed.Series.Removed.Count, words.Speech));
        if (series.Timing.Zone != typed.Series.Timing.Zone)
            differences.Add(new EventDifference("zone", series.Timing.Zone.Id, typed.Series.Timing.Zone.Id));
        return differences;
    }

    /// <summary>What there is to be read of an event, as what a new one would say.</summary>
    public static IEnumerable<EventDifference> Told(EventContent seen, Speech speech) =>
        from field in EventField.All
        where field.Type != typeof(Series) && !field.IsUnsaid(seen)
        select new EventDifference(field.Name, "", FieldTexts.Say(field.Of(seen), speech));

    /// <summary>"cancelled", "moved to Tuesday 24 November 2026, 14:00 to 15:30".</summary>
    public static string Say(EventException exception, Timing timing, RuleWords words)
    {
        var parts = new List<string>();
        if (exception.IsCancelled)
            parts.Add(words.Speech.Say("own.cancelled"));
        if (exception.Start is { } start && exception.End is { } end)
            parts.Add(words.Speech.Say("own.movedTo", ("when", words.Say(timing.Between(start, end)))));
        parts.AddRange(exception.Own.Values.Select(own => Say(own.Key.Name, FieldTexts.Say(own.Value, words.Speech), words.Speech)));
        return string.Join(", ", parts);
    }

    private static string Say(string field, string own, Speech speech) =>
        speech.Say(own.Length > 0 ? $"own.{field}" : $"own.without.{field}", ("own", own));

    /// <remarks>When it happens is said in parts, by those who call.</remarks>
    private static List<EventDifference> Between(EventContent before, EventContent after, Speech speech)
    {
        var differences = new List<EventDifference>();
        foreach (var field in before.Differences(after).Where(field => field.Type != typeof(Series)))
            Add(differences, field.Name, FieldTexts.Say(field.Of(before), speech), FieldTexts.Say(field.Of(after), speech));
        return differences;
    }

    private static void Add(List<EventDifference> differences, string field, string was, string becomes)
    {
        if (was != becomes)
            differences.Add(new EventDifference(field, was, becomes));
    }

    private static string Count(int dates, Speech speech) =>
        dates == 0 ? speech.Say("own.noDates") : speech.Say("own.dates", ("count", dates));
}
