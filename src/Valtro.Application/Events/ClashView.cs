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
        var all = house.Calendars;
        var sameReaders =
            all.Values.Where(other => other.Readerships.Intersect(calendar.Readerships).Any()).Select(other => other.Id).ToHashSet();
        var looksEverywhere = place.Id is not null || content.People.Any(one => one.MemberId is not null);
        if (content.IsDeadline || dates.Length == 0 || series.Timing.AllDay || (!looksEverywhere && sameReaders.Count == 0))
            return new ClashesAround([], all, house.Places);
        var first = dates[0].LocalStart.Date.PlusDays(-1);
        var last = LocalDate.Min(dates[^1].LocalEnd.Date.PlusDays(2), first.PlusDays(LongestDays));
        var others = await occurrences.InAsync(viewer, first, last, looksEverywhere ? null : sameReaders);
        // A place is only told from the headline on; below it nobody learns by a clash where something is.
        return new ClashesAround([.. others.Where(seen => seen.Date.Event.Id != except).Select(Known)], all, house.Places);
    }

    /// <summary>What is on while some dates of several events would be, these dates among them.</summary>
    /// <param name="dates">As they would be.</param>
    /// <param name="changed">Events that would not stay where they are.</param>
    public async Task<ClashesAround> AmongAsync(Viewer viewer, IReadOnlyList<EventDate> dates, IReadOnlySet<Guid> changed)
    {
        var house = await access.HouseAsync();
        var all = house.Calendars;
        var timed = dates.Where(date => !date.Event.Series.Timing.AllDay && date.State != EventState.Cancelled)
            .OrderBy(date => date.Occurrence.Start).ToArray();
        if (timed.Length == 0)
            return new ClashesAround([], all, house.Places);
        var first = timed[0].Occurrence.LocalStart.Date.PlusDays(-1);
        var last = LocalDate.Min(timed[^1].Occurrence.LocalEnd.Date.PlusDays(2), first.PlusDays(LongestDays));
        var others = await occurrences.InAsync(viewer, first, last, null);
        return new ClashesAround(
            [.. others.Where(seen => !changed.Contains(seen.Date.Event.Id)).Select(Known).Concat(timed)
                .OrderBy(date => date.Occurrence.Start)],
            all, house.Places);
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

/// <param name="Places">Those that are offered.</param>
public sealed record ClashesAround(
    IReadOnlyList<EventDate> Others, IReadOnlyDictionary<Guid, Calendar> Calendars, IReadOnlyList<KnownPlace> Places)
{
    private const int MostFree = 3;

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
            content, Share);
        return found.GroupBy(clash => clash.Date.Start).ToDictionary(
            group => group.Key,
            group => (IReadOnlyList<string>)[.. group.OrderBy(clash => clash.Kind).Select(Say), .. WaysOut(group, content)]);
    }

    /// <summary>The first that is at the place already; null where it is free.</summary>
    public string? SayPlaces(IReadOnlyList<Occurrence> dates, Place place, Guid except) =>
        ClashFinder.Find(dates, place, [], Others, _ => [], except, _longest, share: Share) is [var first, ..] ? Say(first) : null;

    /// <summary>One is a part of the other, by however many between them.</summary>
    private bool Share(Guid one, Guid other) => IsPart(one, other) || IsPart(other, one);

    private bool IsPart(Guid part, Guid of)
    {
        for (var (at, steps) = (Places.FirstOrDefault(place => place.Id == part)?.PartOf, 0); at is { } id && steps < 20; steps++)
        {
            if (id == of)
                return true;
            at = Places.FirstOrDefault(place => place.Id == id)?.PartOf;
        }
        return false;
    }

    /// <summary>Where a place is taken: which others are free then, and from when on it is itself.</summary>
    private IEnumerable<string> WaysOut(IEnumerable<Clash> clashes, EventContent content)
    {
        if (clashes.FirstOrDefault(clash => clash.Kind == ClashKind.Place) is not { Kind: ClashKind.Place, What: not null } taken)
            yield break;
        string[] free = [.. Places.Where(place => place.Id != content.Place.Id && IsFree(place.Place, taken.Date, content))
            .Select(place => place.Name).Take(MostFree)];
        var later = FreeFrom(taken.Date, content);
        if (free.Length > 0 || later is not null)
            yield return (free.Length, later) switch
            {
                (_, null) => Spoken.Now.Say("date.placesFree", ("places", string.Join(", ", free))),
                (0, { } at) => Spoken.Now.Say("date.placeFreeFrom", ("place", content.Place.Name), ("from", At(at, content))),
                (_, { } at) => Spoken.Now.Say("date.placesFreeOrFrom", ("places", string.Join(", ", free)), ("place", content.Place.Name),
                    ("from", At(at, content))),
            };
    }

    private bool IsFree(Place place, in Occurrence date, EventContent content) => ClashFinder.Find(
        [date], place, [], Others, _ => [], longest: _longest, content: content with { People = [] }, share: Share).Count == 0;

    /// <summary>The first moment that day from which on the place is free for as long.</summary>
    private Instant? FreeFrom(Occurrence date, EventContent content)
    {
        var length = date.End - date.Start;
        for (var at = date; ;)
        {
            var found = ClashFinder.Find(
                [at], content.Place, [], Others, _ => [], longest: _longest, content: content with { People = [] }, share: Share);
            if (found.Count == 0)
                return at.Start > date.Start ? at.Start : null;
            var over = found.Max(clash => clash.With.Content.StaffSpan.Around(clash.With.Occurrence, DateTimeZone.Utc).End)
                + Duration.FromMinutes(content.StaffSpan.Before);
            var zone = content.Series.Timing.Zone;
            if (over <= at.Start || over.InZone(zone).Date != date.Start.InZone(zone).Date)
                return null;
            at = at with { Start = over, End = over + length };
        }
    }

    private static string At(Instant at, EventContent content) =>
        at.InZone(content.Series.Timing.Zone).TimeOfDay.ToString("HH:mm", System.Globalization.CultureInfo.InvariantCulture);

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
