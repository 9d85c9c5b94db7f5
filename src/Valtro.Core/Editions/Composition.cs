using NodaTime;
using Valtro.Core.Calendars;
using Valtro.Core.Disclosure;
using Valtro.Core.Events;
using Valtro.Core.Recurrence;
using Valtro.Core.Time;
using Valtro.Core.YearPlans;

namespace Valtro.Core.Editions;

/// <summary>A calendar as an edition draws on it.</summary>
/// <param name="Events">Those at home there and those placed there.</param>
public sealed record Source(
    Guid CalendarId,
    Plate Plate,
    string Name,
    Hue Hue,
    Disclosure.Disclosure Disclosure,
    IReadOnlyList<CalendarEvent> Events);

/// <summary>One line of an edition: a date after disclosure.</summary>
public sealed record Entry(Source Source, Disclosed Event, Timing Timing, Occurrence Occurrence);

/// <summary>Composes what a readership gets, in named steps: in state, in its showing span, disclosure cap → in window → order.</summary>
/// <remarks>The standard edition of a calendar has that one source. The steps do not know how many there are.</remarks>
public static class Composition
{
    /// <summary>The entries that overlap the window, ascending by start, then by title.</summary>
    /// <param name="now">Decides about showing spans alone.</param>
    public static IReadOnlyList<Entry> Compose(IEnumerable<Source> sources, Audience audience, Window window, SchoolCalendar school, Instant now) =>
        Order(sources.SelectMany(source => source.Events.SelectMany(happening => Entries(source, happening, audience, window, school, now))));

    /// <summary>The events, unexpanded, that the audience gets of a source: for feeds, whose readers expand rules themselves.</summary>
    public static IEnumerable<(CalendarEvent Event, Disclosed Disclosed)> Disclose(Source source, Audience audience, Instant now)
    {
        foreach (var happening in source.Events)
        {
            if (Disclosed.ForReaders(happening, Visibility.Of(happening, source.Disclosure, audience, now)) is { } disclosed)
                yield return (happening, disclosed);
        }
    }

    /// <summary>Until when what was composed is right if nobody changes anything: the next time an event appears or disappears.</summary>
    public static Instant? NextTurn(IEnumerable<Source> sources, Audience audience, Instant now) => sources
        .SelectMany(source => source.Events.Where(happening => source.Disclosure.For(audience, happening.Content.Cap) > Detail.Nothing && Visibility.LeavesTheHouse(happening.State)))
        .Select(happening => happening.Content.Showing.NextTurn(now, happening.Series.Timing.Zone))
        .Min();

    /// <summary>What the audience sees of an event is the same for all its dates; of one that it does not see none is worked out.</summary>
    private static IEnumerable<Entry> Entries(Source source, CalendarEvent happening, Audience audience, Window window, SchoolCalendar school, Instant now)
    {
        var detail = Visibility.Of(happening, source.Disclosure, audience, now);
        if (detail == Detail.Nothing)
            yield break;
        foreach (var date in EventDates.In(happening, window, school))
        {
            if (Disclosed.ForReaders(date, detail) is { } disclosed)
                yield return new Entry(source, disclosed, happening.Series.Timing, date.Occurrence);
        }
    }

    private static Entry[] Order(IEnumerable<Entry> entries) =>
        entries
            .OrderBy(entry => entry.Occurrence.LocalStart.Date)
            .ThenBy(entry => !entry.Timing.AllDay)
            .ThenBy(entry => entry.Occurrence.Start)
            .ThenBy(entry => entry.Event.Title, StringComparer.Ordinal)
            .ThenBy(entry => entry.Event.Identity, StringComparer.Ordinal)
            .ToArray();
}
