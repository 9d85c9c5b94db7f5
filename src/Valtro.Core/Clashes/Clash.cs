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
public readonly record struct Clash(ClashKind Kind, Occurrence Date, EventDate With, string What)
{
    /// <summary>The date that is looked at, where whoever asks says of which event it is.</summary>
    public EventDate Of { get; init; }
}

/// <summary>Finds overlaps by place, by person and by readership. They are shown, and never block.</summary>
/// <remarks>A deadline clashes with nothing, and what takes no time with no readers.</remarks>
public sealed class ClashFinder
{
    public const int Most = 50;

    private readonly IReadOnlyList<EventDate> _others;
    private readonly Func<Guid, IReadOnlyList<string>> _readershipsOf;
    private readonly Func<Guid, Guid, bool> _sharePlace;
    private readonly Stretch[] _widest;
    private readonly Duration _longest;
    private readonly Duration _before;

    /// <param name="others">All other dates around, ascending by start.</param>
    /// <param name="readershipsOf">Who reads a calendar.</param>
    /// <param name="sharePlace">Whether two places cannot be taken at once.</param>
    public ClashFinder(
        IReadOnlyList<EventDate> others, Func<Guid, IReadOnlyList<string>> readershipsOf, Func<Guid, Guid, bool> sharePlace)
    {
        (_others, _readershipsOf, _sharePlace) = (others, readershipsOf, sharePlace);
        _widest = new Stretch[others.Count];
        for (var index = 0; index < others.Count; index++)
        {
            var start = others[index].Occurrence.Start;
            _widest[index] = Widest(others[index].Occurrence, others[index].Content);
            _longest = Duration.Max(_longest, _widest[index].End - start);
            _before = Duration.Max(_before, start - _widest[index].Start);
        }
    }

    /// <summary>From a moment to another.</summary>
    private readonly record struct Stretch(Instant Start, Instant End)
    {
        public bool Meets(Stretch other) => Start < other.End && other.Start < End;
    }

    /// <param name="dates">Of one event, ascending by start.</param>
    /// <param name="content">Where it is (words alone do not clash), who is responsible for it, how long it takes them.</param>
    /// <param name="readerships">Who reads its calendar.</param>
    /// <param name="except">An event whose dates do not count: the one itself.</param>
    public IReadOnlyList<Clash> Find(
        IEnumerable<Occurrence> dates, EventContent content, IReadOnlyList<string> readerships, Guid? except = null)
    {
        var clashes = new List<Clash>();
        if (content.IsDeadline)
            return clashes;
        foreach (var date in dates)
        {
            var widest = Widest(date, content);
            for (var index = FirstAfter(widest.Start - _longest); index < _others.Count && clashes.Count < Most; index++)
            {
                var other = _others[index];
                if (other.Occurrence.Start >= widest.End + _before)
                    break;
                if (widest.Meets(_widest[index]) && other.Event.Id != except && Between(date, content, readerships, other) is { } clash)
                    clashes.Add(clash);
            }
        }
        return clashes;
    }

    private Clash? Between(in Occurrence date, EventContent content, IReadOnlyList<string> readerships, in EventDate other)
    {
        var theirs = other.Content;
        if (other.State == EventState.Cancelled || other.Event.Series.Timing.AllDay || theirs.IsDeadline)
            return null;
        if (content.Place.Id is { } here && theirs.Place.Id is { } there && _sharePlace(here, there)
            && Taken(date, content).Meets(Taken(other.Occurrence, theirs)))
            return new Clash(ClashKind.Place, date, other, content.Place.Name);
        if (Both(date, content, other.Occurrence, theirs) is { } person)
            return new Clash(ClashKind.Person, date, other, person.Name);
        return !content.TakesNoTime && !theirs.TakesNoTime && date.Meets(other.Occurrence)
            && _readershipsOf(other.Event.HomeCalendarId).Intersect(readerships).FirstOrDefault() is { } shared
                ? new Clash(ClashKind.Readership, date, other, shared)
                : null;
    }

    /// <summary>Somebody who would have to be in two places.</summary>
    private static Involved? Both(in Occurrence date, EventContent content, in Occurrence other, EventContent theirs)
    {
        if (content.People.Count == 0 || theirs.People.Count == 0)
            return null;
        foreach (var one in content.People)
        {
            foreach (var there in one.MemberId is null ? [] : theirs.People)
            {
                if (there.MemberId == one.MemberId && Taken(date, content, one).Meets(Taken(other, theirs, there)))
                    return one;
            }
        }
        return null;
    }

    /// <summary>From set-up to clear-away.</summary>
    private static Stretch Taken(in Occurrence date, EventContent content)
    {
        var (start, end) = content.StaffSpan.Of(date);
        return new(start, end);
    }

    /// <summary>By somebody's own times; where they have none, from set-up to clear-away.</summary>
    private static Stretch Taken(in Occurrence date, EventContent content, Involved one)
    {
        var (start, end) = one.TakenBy(date, content.StaffSpan);
        return new(start, end);
    }

    /// <summary>From when to when it takes anything at all: somebody may come before set-up.</summary>
    private static Stretch Widest(in Occurrence date, EventContent content)
    {
        var widest = Taken(date, content);
        if (content.People.Count == 0)
            return widest;
        foreach (var one in content.People)
        {
            var taken = Taken(date, content, one);
            widest = new(Instant.Min(widest.Start, taken.Start), Instant.Max(widest.End, taken.End));
        }
        return widest;
    }

    /// <summary>The place of the first that starts later than an instant.</summary>
    private int FirstAfter(Instant start)
    {
        var (from, to) = (0, _others.Count);
        while (from < to)
        {
            var middle = (from + to) / 2;
            if (_others[middle].Occurrence.Start <= start)
                from = middle + 1;
            else
                to = middle;
        }
        return from;
    }
}
