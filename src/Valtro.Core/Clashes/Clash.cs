using NodaTime;
using Valtro.Core.Events;
using Valtro.Core.Recurrence;

namespace Valtro.Core.Clashes;

/// <summary>Why two dates should not be at the same time.</summary>
public enum ClashKind
{
    /// <summary>The same known place.</summary>
    Place,

    /// <summary>Calendars that the same people read.</summary>
    Readership,
}

/// <summary>A date that overlaps another.</summary>
/// <param name="Date">The date of the event that is looked at.</param>
/// <param name="What">The place, or the readership, that they share.</param>
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
    /// <param name="longest">Of the others, where many events are looked at among the same.</param>
    public static IReadOnlyList<Clash> Find(
        IEnumerable<Occurrence> dates,
        Place place,
        IReadOnlyList<string> readerships,
        IReadOnlyList<EventDate> others,
        Func<Guid, IReadOnlyList<string>> readershipsOf,
        Guid? except = null,
        Duration? longest = null)
    {
        var clashes = new List<Clash>();
        var most = longest ?? LongestOf(others);
        foreach (var date in dates)
        {
            for (var index = FirstAfter(others, date.Start - most); index < others.Count && clashes.Count < Most; index++)
            {
                var other = others[index];
                if (other.Occurrence.Start >= date.End)
                    break;
                if (other.State == EventState.Cancelled || other.Event.Series.Timing.AllDay || other.Event.Id == except
                    || other.Event.Content.IsDeadline || !date.Meets(other.Occurrence))
                    continue;
                if (place.Id is not null && other.Place.Id == place.Id)
                    clashes.Add(new Clash(ClashKind.Place, date, other, place.Name));
                else if (!other.Content.TakesNoTime
                    && readershipsOf(other.Event.HomeCalendarId).Intersect(readerships).FirstOrDefault() is { } shared)
                    clashes.Add(new Clash(ClashKind.Readership, date, other, shared));
            }
        }
        return clashes;
    }

    public static Duration LongestOf(IReadOnlyList<EventDate> others) =>
        others.Count == 0 ? Duration.Zero : others.Max(other => other.Occurrence.End - other.Occurrence.Start);

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
