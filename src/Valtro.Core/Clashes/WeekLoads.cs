using NodaTime;
using Valtro.Core.Events;
using Valtro.Core.Recurrence;

namespace Valtro.Core.Clashes;

/// <summary>A week in which some readers have more of a category than anybody wants for them.</summary>
/// <param name="Week">Its first day.</param>
/// <param name="Category">The id of the category.</param>
/// <param name="Readers">A readership; of a calendar without one, the calendar.</param>
/// <param name="Most">As many were wanted.</param>
/// <param name="Dates">Those that there are, ascending by start; without the ones that somebody asked about.</param>
/// <param name="Count">How many it would be with those.</param>
public sealed record Overload(LocalDate Week, Guid Category, string Readers, int Most, int Count, IReadOnlyList<EventDate> Dates);

/// <summary>Counts what readers have in each week of those categories of which a week should hold only so many. It is shown, and never
/// blocks.</summary>
/// <remarks>A deadline counts as what happens does; what was cancelled does not count. What lasts over a weekend counts in both
/// weeks.</remarks>
public sealed class WeekLoads
{
    private readonly SortedDictionary<(LocalDate Week, Guid Category, string Readers), List<EventDate>> _loads =
        new(Comparer<(LocalDate Week, Guid Category, string Readers)>.Create((one, other) =>
            one.Week != other.Week ? one.Week.CompareTo(other.Week)
            : one.Readers != other.Readers ? string.CompareOrdinal(one.Readers, other.Readers)
            : one.Category.CompareTo(other.Category)));

    private readonly IReadOnlyDictionary<Guid, int> _most;
    private readonly Func<Guid, IReadOnlyList<string>> _readersOf;
    private readonly IsoDayOfWeek _firstDayOfWeek;

    /// <param name="dates">All that there are, ascending by start.</param>
    /// <param name="most">How many a week should hold at most, by category.</param>
    /// <param name="readersOf">Who reads a calendar, by name.</param>
    public WeekLoads(
        IEnumerable<EventDate> dates, IReadOnlyDictionary<Guid, int> most, Func<Guid, IReadOnlyList<string>> readersOf,
        IsoDayOfWeek firstDayOfWeek)
    {
        (_most, _readersOf, _firstDayOfWeek) = (most, readersOf, firstDayOfWeek);
        foreach (var date in most.Count == 0 ? [] : dates)
        {
            if (date.State == EventState.Cancelled || !IsCounted(date.Content))
                continue;
            foreach (var key in KeysOf(date.Occurrence, date.Content.Category!.Id, date.Event.Calendars))
            {
                if (!_loads.TryGetValue(key, out var load))
                    _loads[key] = load = [];
                load.Add(date);
            }
        }
    }

    public bool IsCounted(EventContent content) => content.Category is { } category && _most.ContainsKey(category.Id);

    /// <summary>All weeks that hold too many, ascending.</summary>
    public IReadOnlyList<Overload> Find() =>
        [.. _loads.Where(load => load.Value.Count > _most[load.Key.Category])
            .Select(load => Of(load.Key, load.Value, load.Value.Count))];

    /// <summary>The weeks that would hold too many with some dates of an event.</summary>
    /// <param name="except">An event whose dates do not count: the one itself.</param>
    /// <returns>Each with the first of these dates in it.</returns>
    public IEnumerable<(Overload Overload, Occurrence First)> FindWith(
        IEnumerable<Occurrence> dates, EventContent content, IEnumerable<Guid> calendars, Guid? except = null)
    {
        if (!IsCounted(content))
            yield break;
        var own = dates.SelectMany(date => KeysOf(date, content.Category!.Id, calendars).Select(key => (key, date)))
            .GroupBy(one => one.key, one => one.date);
        foreach (var load in own)
        {
            EventDate[] others = [.. _loads.GetValueOrDefault(load.Key, []).Where(other => other.Event.Id != except)];
            if (others.Length + load.Count() > _most[load.Key.Category])
                yield return (Of(load.Key, others, others.Length + load.Count()), load.First());
        }
    }

    private Overload Of((LocalDate Week, Guid Category, string Readers) key, IReadOnlyList<EventDate> dates, int count) =>
        new(key.Week, key.Category, key.Readers, _most[key.Category], count, dates);

    private IEnumerable<(LocalDate Week, Guid Category, string Readers)> KeysOf(
        Occurrence date, Guid category, IEnumerable<Guid> calendars)
    {
        string[] readers = [.. calendars.SelectMany(_readersOf).Distinct()];
        var last = date.LocalEnd > date.LocalStart ? date.LocalEnd.PlusTicks(-1).Date : date.LocalStart.Date;
        for (var week = date.LocalStart.Date.With(DateAdjusters.PreviousOrSame(_firstDayOfWeek)); week <= last; week = week.PlusWeeks(1))
        {
            foreach (var one in readers)
                yield return (week, category, one);
        }
    }
}
