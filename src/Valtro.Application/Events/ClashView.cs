using NodaTime;
using Valtro.Application.Accounts;
using Valtro.Core.Calendars;
using Valtro.Core.Clashes;
using Valtro.Core.Disclosure;
using Valtro.Core.Events;
using Valtro.Core.Recurrence;
using Valtro.Core.YearPlans;

namespace Valtro.Application.Events;

/// <summary>What else is on around a series, as one person may know it.</summary>
public sealed class ClashView(OccurrenceView occurrences, Access access)
{
    private const int LongestDays = 400;

    /// <remarks>Asked while somebody types: only what can clash at all is looked at.</remarks>
    public async Task<ClashesAround> AroundAsync(
        Viewer viewer, EventContent content, SchoolCalendar school, Calendar calendar, Guid? except)
    {
        var (series, place) = (content.Series, content.Place);
        var dates = series.All(school).Take(Consequences.Shown).ToArray();
        var house = await access.HouseAsync();
        var all = house.Calendars;
        var sameReaders =
            all.Values.Where(other => other.Readerships.Intersect(calendar.Readerships).Any()).Select(other => other.Id).ToHashSet();
        var looksEverywhere = place.Id is not null || content.People.Any(one => one.MemberId is not null);
        if (content.IsDeadline || dates.Length == 0 || series.Timing.AllDay || (!looksEverywhere && sameReaders.Count == 0))
            return new ClashesAround([], all);
        var first = dates[0].LocalStart.Date.PlusDays(-1);
        var last = LocalDate.Min(dates[^1].LocalEnd.Date.PlusDays(2), first.PlusDays(LongestDays));
        var others = await occurrences.InAsync(viewer, first, last, looksEverywhere ? null : sameReaders);
        // A place is only told from the headline on; below it nobody learns by a clash where something is.
        return new ClashesAround([.. others.Where(seen => seen.Date.Event.Id != except).Select(Known)], all);
    }

    /// <summary>What is on while some dates of several events would be, these dates among them.</summary>
    /// <param name="dates">As they would be.</param>
    /// <param name="changed">Events that would not stay where they are.</param>
    public async Task<ClashesAround> AmongAsync(Viewer viewer, IReadOnlyList<EventDate> dates, IReadOnlySet<Guid> changed)
    {
        var all = (await access.HouseAsync()).Calendars;
        var timed = dates.Where(date => !date.Event.Series.Timing.AllDay && date.State != EventState.Cancelled)
            .OrderBy(date => date.Occurrence.Start).ToArray();
        if (timed.Length == 0)
            return new ClashesAround([], all);
        var first = timed[0].Occurrence.LocalStart.Date.PlusDays(-1);
        var last = LocalDate.Min(timed[^1].Occurrence.LocalEnd.Date.PlusDays(2), first.PlusDays(LongestDays));
        var others = await occurrences.InAsync(viewer, first, last, null);
        return new ClashesAround(
            [.. others.Where(seen => !changed.Contains(seen.Date.Event.Id)).Select(Known).Concat(timed)
                .OrderBy(date => date.Occurrence.Start)],
            all);
    }

    /// <summary>With the title and place that the person may know, on a calendar on which they see it.</summary>
    private static EventDate Known(SeenOccurrence seen)
    {
        var (date, told) = (seen.Date, seen.Disclosed);
        return new EventDate(
            date.Event with
            {
                HomeCalendarId = seen.Sight.Calendars[0],
                Content = date.Event.Content with
                {
                    Title = told.Title,
                    Place = told.Content.Place,
                    StaffSpan = told.Content.StaffSpan,
                    People = told.Content.People,
                    Transparency = told.Content.Transparency,
                },
            },
            date.Occurrence,
            date.Exception is null ? null : date.Exception with { Own = OwnFields.None });
    }
}

public sealed record ClashesAround(IReadOnlyList<EventDate> Others, IReadOnlyDictionary<Guid, Calendar> Calendars)
{
    private readonly Duration _longest = ClashFinder.LongestOf(Others);

    /// <summary>For each date that clashes, by its start, with what; the worst first. A deadline never does, and nobody is busy for what
    /// takes no time.</summary>
    /// <param name="except">The event itself, where it is among the others.</param>
    public IReadOnlyDictionary<Instant, IReadOnlyList<string>> Say(
        IReadOnlyList<Occurrence> dates, EventContent content, Calendar calendar, Guid? except = null)
    {
        if (content.IsDeadline)
            return new Dictionary<Instant, IReadOnlyList<string>>();
        var readerships = content.TakesNoTime ? [] : calendar.Readerships;
        var found = ClashFinder.Find(dates, content.Place, readerships, Others, id => Calendars[id].Readerships, except, _longest,
            content);
        return found.GroupBy(clash => clash.Date.Start).ToDictionary(
            group => group.Key, group => (IReadOnlyList<string>)[.. group.OrderBy(clash => clash.Kind).Select(Say)]);
    }

    /// <summary>The first that is at the place already; null where it is free.</summary>
    public string? SayPlaces(IReadOnlyList<Occurrence> dates, Place place, Guid except) =>
        ClashFinder.Find(dates, place, [], Others, _ => [], except, _longest) is [var first, ..] ? Say(first) : null;

    private string Say(Clash clash)
    {
        var plate = Calendars[clash.With.Event.HomeCalendarId].Plate.Code;
        var with = (("title", (object?)clash.With.Title), ("plate", (object?)plate));
        return clash.Kind switch
        {
            ClashKind.Place => Spoken.Now.Say("date.placeTaken", ("place", clash.What), with.Item1, with.Item2),
            ClashKind.Person => Spoken.Now.Say("date.personTaken", ("person", clash.What), with.Item1, with.Item2),
            _ => Spoken.Now.Say("date.sameReaders", ("readers", clash.What), with.Item1, with.Item2),
        };
    }
}
