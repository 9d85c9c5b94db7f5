using NodaTime;
using Valtro.Application.Accounts;
using Valtro.Core.Calendars;
using Valtro.Core.Clashes;
using Valtro.Core.Disclosure;
using Valtro.Core.Events;
using Valtro.Core.Recurrence;
using Valtro.Core.YearPlans;
using Valtro.Store;

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
        var sameReaders = house.Calendars.Values.Where(other => other.Readerships.Intersect(calendar.Readerships).Any())
            .Select(other => other.Id).ToHashSet();
        var looksEverywhere = place.Id is not null || content.People.Any(one => one.MemberId is not null);
        if (content.IsDeadline || dates.Length == 0 || series.Timing.AllDay || (!looksEverywhere && sameReaders.Count == 0))
            return new ClashesAround([], house);
        var first = dates[0].LocalStart.Date.PlusDays(-1);
        var last = LocalDate.Min(dates[^1].LocalEnd.Date.PlusDays(2), first.PlusDays(LongestDays));
        var others = await occurrences.InAsync(viewer, first, last, looksEverywhere ? null : sameReaders);
        // A place is only told from the headline on; below it nobody learns by a clash where something is.
        return new ClashesAround([.. others.Where(seen => seen.Date.Event.Id != except).Select(Known)], house);
    }

    /// <summary>What is on while some dates of several events would be, these dates among them.</summary>
    /// <param name="dates">As they would be.</param>
    /// <param name="changed">Events that would not stay where they are.</param>
    public async Task<ClashesAround> AmongAsync(Viewer viewer, IReadOnlyList<EventDate> dates, IReadOnlySet<Guid> changed)
    {
        var house = await access.HouseAsync();
        var timed = dates.Where(date => !date.Event.Series.Timing.AllDay && date.State != EventState.Cancelled)
            .OrderBy(date => date.Occurrence.Start).ToArray();
        if (timed.Length == 0)
            return new ClashesAround([], house);
        var first = timed[0].Occurrence.LocalStart.Date.PlusDays(-1);
        var last = LocalDate.Min(timed[^1].Occurrence.LocalEnd.Date.PlusDays(2), first.PlusDays(LongestDays));
        var others = await occurrences.InAsync(viewer, first, last, null);
        return new ClashesAround(
            [.. others.Where(seen => !changed.Contains(seen.Date.Event.Id)).Select(Known).Concat(timed)
                .OrderBy(date => date.Occurrence.Start)],
            house);
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

public sealed class ClashesAround(IReadOnlyList<EventDate> others, House house)
{
    private const int MostFree = 3;

    /// <summary>Of so many dates it is said what could be done instead.</summary>
    private const int MostWaysOut = 3;

    private readonly ClashFinder _finder = new(others, id => house.Calendars[id].Readerships, house.PlaceTree.Share);

    /// <summary>For each date that clashes, by its start, with what; the worst first.</summary>
    /// <param name="except">The event itself, where it is among the others.</param>
    public IReadOnlyDictionary<Instant, IReadOnlyList<string>> Say(
        IReadOnlyList<Occurrence> dates, EventContent content, Calendar calendar, Guid? except = null)
    {
        var found = _finder.Find(dates, content, calendar.Readerships, except).GroupBy(clash => clash.Date.Start).ToArray();
        var taken = found.Select(group => group.FirstOrDefault(clash => clash.Kind == ClashKind.Place))
            .Where(clash => clash.With.Event is not null).Take(MostWaysOut).ToDictionary(clash => clash.Date.Start, clash => clash.Date);
        return found.ToDictionary(
            group => group.Key,
            group => (IReadOnlyList<string>)[
                .. group.OrderBy(clash => clash.Kind).Select(Say),
                .. taken.TryGetValue(group.Key, out var date) && WayOut(date, content, except) is { } way ? (string[])[way] : []]);
    }

    /// <summary>The first that is at the place already; null where it is free.</summary>
    public string? SayPlaces(IReadOnlyList<Occurrence> dates, EventContent content, Guid except) =>
        AtPlace(dates, content, except) is [var first, ..] ? Say(first) : null;

    private IReadOnlyList<Clash> AtPlace(IEnumerable<Occurrence> dates, EventContent content, Guid? except) =>
        _finder.Find(dates, content with { People = [] }, [], except);

    /// <summary>Where a place is taken: which others are free then, and from when on it is itself.</summary>
    private string? WayOut(in Occurrence date, EventContent content, Guid? except)
    {
        var asked = date;
        string[] free = [.. house.Places
            .Where(place => content.Place.Id is { } here && !house.PlaceTree.Share(here, place.Id)
                && AtPlace([asked], content with { Place = place.Place }, except).Count == 0)
            .Select(place => place.Name).Take(MostFree)];
        var later = FreeFrom(date, content, except)?.InZone(content.Series.Timing.Zone)
            .ToString("HH:mm", System.Globalization.CultureInfo.InvariantCulture);
        if (free.Length == 0 && later is null)
            return null;
        return Spoken.Now.Say(
            later is null ? "date.placesFree" : free.Length == 0 ? "date.placeFreeFrom" : "date.placesFreeOrFrom",
            ("places", string.Join(", ", free)), ("place", content.Place.Name), ("from", later));
    }

    /// <summary>The first moment that day from which on the place is free for as long.</summary>
    private Instant? FreeFrom(Occurrence date, EventContent content, Guid? except)
    {
        var (zone, at) = (content.Series.Timing.Zone, date);
        while (AtPlace([at], content, except) is { Count: > 0 } found)
        {
            var over = found.Max(clash => clash.With.Content.StaffSpan.Of(clash.With.Occurrence).End)
                + Duration.FromMinutes(content.StaffSpan.Before);
            if (over <= at.Start || over.InZone(zone).Date != date.Start.InZone(zone).Date)
                return null;
            at = at with { Start = over, End = over + (date.End - date.Start) };
        }
        return at.Start > date.Start ? at.Start : null;
    }

    private string Say(Clash clash)
    {
        var (code, what) = clash.Kind switch
        {
            ClashKind.Place => ("date.placeTaken", "place"),
            ClashKind.Person => ("date.personTaken", "person"),
            _ => ("date.sameReaders", "readers"),
        };
        return Spoken.Now.Say(
            code, (what, clash.What), ("title", clash.With.Title), ("plate", house.Calendars[clash.With.Event.HomeCalendarId].Plate.Code));
    }
}
