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
        var mayClash = !content.IsDeadline && !series.Timing.AllDay && (looksEverywhere || sameReaders.Count > 0);
        var isCounted = content.Category is { } category && house.MostInAWeek.ContainsKey(category.Id);
        if (dates.Length == 0 || !(mayClash || isCounted))
            return new ClashesAround([], house);
        // Of a week that holds too much, all of it is looked at.
        var beside = isCounted ? 6 : 1;
        looksEverywhere |= isCounted;
        var first = dates[0].LocalStart.Date.PlusDays(-beside);
        var last = LocalDate.Min(dates[^1].LocalEnd.Date.PlusDays(1 + beside), first.PlusDays(LongestDays));
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
        var becoming = dates.Where(date => date.State != EventState.Cancelled).OrderBy(date => date.Occurrence.Start).ToArray();
        if (becoming.Length == 0)
            return new ClashesAround([], house);
        var first = becoming[0].Occurrence.LocalStart.Date.PlusDays(-6);
        var last = LocalDate.Min(becoming[^1].Occurrence.LocalEnd.Date.PlusDays(7), first.PlusDays(LongestDays));
        var others = await occurrences.InAsync(viewer, first, last, null);
        return new ClashesAround(
            [.. others.Where(seen => !changed.Contains(seen.Date.Event.Id)).Select(Known).Concat(becoming)
                .OrderBy(date => date.Occurrence.Start)],
            house);
    }

    /// <summary>Weeks in which some readers have too much of a category, by what somebody sees.</summary>
    public static IEnumerable<(LocalDate Week, string Said)> Overloads(IEnumerable<SeenOccurrence> dates, House house) =>
        house.MostInAWeek.Count == 0 ? [] : house.LoadsOf(dates.Select(Known)).Find().Select(one => (one.Week, Spoken.Now.Say(
            "week.overload", ("count", one.Count), ("category", house.EveryCategory[one.Category].Name), ("readers", one.Readers),
            ("most", one.Most))));

    /// <summary>With the title and place that the person may know, on a calendar on which they see it.</summary>
    private static EventDate Known(SeenOccurrence seen)
    {
        var (date, told) = (seen.Date, seen.Disclosed);
        return new EventDate(
            date.Event with
            {
                HomeCalendarId = seen.Sight.Calendars[0],
                Placements = [.. seen.Sight.Calendars.Skip(1)],
                Content = date.Event.Content with
                {
                    Title = told.Title,
                    Place = told.Content.Place,
                    Category = told.Content.Category,
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

    /// <summary>Of a week that holds too much, so many are named.</summary>
    private const int MostNamed = 5;

    /// <summary>Of so many dates it is said what could be done instead.</summary>
    private const int MostWaysOut = 3;

    private readonly ClashFinder _finder = new(others, id => house.Calendars[id].Readerships, house.PlaceTree.Share);

    private readonly WeekLoads _loads = house.LoadsOf(others);

    /// <summary>For each date that clashes, by its start, with what; the worst first. Then, at the first date of a week, of what readers
    /// have too much in it.</summary>
    /// <param name="calendars">All on which it is, its home first.</param>
    /// <param name="except">The event itself, where it is among the others.</param>
    public IReadOnlyDictionary<Instant, IReadOnlyList<string>> Say(
        IReadOnlyList<Occurrence> dates, EventContent content, IEnumerable<Guid> calendars, Guid? except = null)
    {
        var loads = _loads.FindWith(dates, content, calendars, except)
            .Select(one => (At: one.First.Start, Said: Say(one.Overload, content.Category!)));
        return SayClashes(dates, content, house.Calendars[calendars.First()], except)
            .Concat(loads)
            .GroupBy(one => one.At, one => one.Said)
            .ToDictionary(date => date.Key, date => (IReadOnlyList<string>)[.. date]);
    }

    private string Say(Overload overload, Category category) => Spoken.Now.Say(
        "date.overload", ("count", overload.Count), ("category", category.Name), ("readers", overload.Readers), ("most", overload.Most),
        ("others", string.Join(", ", overload.Dates.Take(MostNamed).Select(date => $"{date.Title} ({PlateOf(date)})"))));

    private IEnumerable<(Instant At, string Said)> SayClashes(
        IReadOnlyList<Occurrence> dates, EventContent content, Calendar calendar, Guid? except)
    {
        if (content.Series.Timing.AllDay)
            yield break;
        var found = _finder.Find(dates, content, calendar.Readerships, except).GroupBy(clash => clash.Date.Start).ToArray();
        var taken = found.Select(group => group.FirstOrDefault(clash => clash.Kind == ClashKind.Place))
            .Where(clash => clash.With.Event is not null).Take(MostWaysOut).ToDictionary(clash => clash.Date.Start, clash => clash.Date);
        foreach (var group in found)
        {
            foreach (var clash in group.OrderBy(clash => clash.Kind))
                yield return (group.Key, Say(clash));
            if (taken.TryGetValue(group.Key, out var date) && WayOut(date, content, except) is { } way)
                yield return (group.Key, way);
        }
    }

    /// <summary>The first that is at the place already; null where it is free.</summary>
    public string? SayPlaces(IReadOnlyList<Occurrence> dates, EventContent content, Guid except) =>
        !content.Series.Timing.AllDay && AtPlace(dates, content, except) is [var first, ..] ? Say(first) : null;

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
            code, (what, clash.What), ("title", clash.With.Title), ("plate", PlateOf(clash.With)));
    }

    private string PlateOf(in EventDate date) => house.Calendars[date.Event.HomeCalendarId].Plate.Code;
}
