using NodaTime;
using Valtro.Core.Events;
using Valtro.Core.Recurrence;

namespace Valtro.Core.Clashes;

/// <summary>Why two dates should not be at the same time.</summary>
public enum ClashKind
{
    /// <summary>The same known place.</summary>
    Place,

    /// <summary>The same member.</summary>
    Person,

    /// <summary>Calendars that the same people read.</summary>
    Readership,
}

/// <summary>A date that overlaps another.</summary>
/// <param name="Date">The date of the event that is looked at.</param>
/// <param name="What">The place, the person or the readership that they share.</param>
public readonly record struct Clash(ClashKind Kind, Occurrence Date, EventDate With, string What);

/// <summary>Finds overlaps by place and by readership. They are shown, and never block.</summary>
public static class ClashFinder
{
    public const int Most = 50;

    /// <param name="dates">Of one event, ascending by start.</param>
    /// <param name="place">Where it is; words alone do not clash.</param>
    /// <param name="readerships">Who reads its calendar.</param>
    /// <param name="others">All other dates around, ascending by start.</param>
    /// <param name="readershipsOf">Who reads a calendar.</param>
    /// <param name="except">An event whose dates do not count: the one itself.</param>
    /// <param name="share">Whether of two places one is a part of the other.</param>
    /// <param name="content">Who is responsible for it, and how much longer it takes them and the place.</param>
    /// <param name="longest">Of the others, where many events are looked at among the same.</param>
    public static IReadOnlyList<Clash> Find(
        IEnumerable<Occurrence> dates,
        Place place,
        IReadOnlyList<string> readerships,
        IReadOnlyList<EventDate> others,
        Func<Guid, IReadOnlyList<string>> readershipsOf,
        Guid? except = null,
        Duration? longest = null,
        EventContent? content = null,
        Func<Guid, Guid, bool>? share = null)
    {
        var clashes = new List<Clash>();
        var most = longest ?? LongestOf(others);
        var before = Duration.FromMinutes(others.Count == 0 ? 0 : others.Max(other => other.Content.StaffSpan.Before));
        var (own, people) = (content?.StaffSpan ?? StaffSpan.None, content?.People ?? []);
        foreach (var date in dates)
        {
            var taken = own.Around(date, DateTimeZone.Utc);
            for (var index = FirstAfter(others, taken.Start - most); index < others.Count && clashes.Count < Most; index++)
            {
                var other = others[index];
                if (other.Occurrence.Start >= taken.End + before)
                    break;
                if (other.State == EventState.Cancelled || other.Event.Series.Timing.AllDay || other.Event.Id == except
                    || other.Event.Content.IsDeadline || !taken.Meets(TakenBy(other)))
                    continue;
                if (place.Id is { } here && other.Place.Id is { } there && (here == there || share?.Invoke(here, there) == true))
                    clashes.Add(new Clash(ClashKind.Place, date, other, place.Name));
                else if (Both(date, own, people, other) is { } person)
                    clashes.Add(new Clash(ClashKind.Person, date, other, person.Name));
                else if (!other.Content.TakesNoTime && date.Meets(other.Occurrence)
                    && readershipsOf(other.Event.HomeCalendarId).Intersect(readerships).FirstOrDefault() is { } shared)
                    clashes.Add(new Clash(ClashKind.Readership, date, other, shared));
            }
        }
        return clashes;
    }

    /// <summary>Somebody who would have to be in two places, by their own times where they have some.</summary>
    /// <remarks>Dates of both are looked at on the clocks of their own; what lasts a whole day takes nobody.</remarks>
    private static Involved? Both(in Occurrence date, StaffSpan own, IReadOnlyList<Involved> people, in EventDate other)
    {
        if (people.Count == 0 || other.Content.People.Count == 0)
            return null;
        foreach (var one in people)
        {
            if (one.MemberId is null)
                continue;
            foreach (var there in other.Content.People)
            {
                if (there.MemberId != one.MemberId)
                    continue;
                var (from, to) = Taken(one, date, own);
                var (start, end) = Taken(there, other.Occurrence, other.Content.StaffSpan);
                if (from < end && start < to)
                    return one;
            }
        }
        return null;
    }

    /// <summary>By their own times; where they have none, from set-up to clear-away.</summary>
    private static (Instant From, Instant To) Taken(Involved one, in Occurrence date, StaffSpan span)
    {
        var (from, to) = one.On(date.LocalStart, date.LocalEnd);
        return (
            one.From is null ? date.Start - Duration.FromMinutes(span.Before) : date.Start + (from - date.LocalStart).ToDuration(),
            one.To is null ? date.End + Duration.FromMinutes(span.After) : date.End + (to - date.LocalEnd).ToDuration());
    }

    public static Duration LongestOf(IReadOnlyList<EventDate> others) =>
        others.Count == 0 ? Duration.Zero : others.Max(other => TakenBy(other) is var taken ? taken.End - other.Occurrence.Start : default);

    /// <summary>With set-up and clear-away.</summary>
    private static Occurrence TakenBy(in EventDate other) => other.Content.StaffSpan.Around(other.Occurrence, DateTimeZone.Utc);

    /// <summary>The place of the first that starts later than an instant.</summary>
    private static int FirstAfter(IReadOnlyList<EventDate> others, Instant start)
    {
        var (from, to) = (0, others.Count);
        while (from < to)
        {
            var middle = (from + to) / 2;
            if (others[middle].Occurrence.Start <= start)
                from = middle + 1;
            else
                to = middle;
        }
        return from;
    }
}
