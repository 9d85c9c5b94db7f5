using NodaTime;
using Valtro.Core.Disclosure;
using Valtro.Core.Events;
using Valtro.Core.Time;

namespace Valtro.Core.Editions;

/// <summary>What became of an entry.</summary>
public enum EntryChange
{
    /// <summary>It is at another time.</summary>
    Moved,

    /// <summary>It is somewhere else.</summary>
    Relocated,
    Cancelled,

    /// <summary>It was cancelled and takes place after all.</summary>
    TakesPlace,
}

/// <summary>An entry that is not as it was.</summary>
/// <param name="Before">As it was, told by what this audience may know now.</param>
/// <param name="At">When the event last changed as far as a headline tells it.</param>
/// <param name="More">Later dates of the same series to which the same happened.</param>
public sealed record ChangedEntry(Entry Entry, Entry Before, EntryChange Change, Instant At, int More);

/// <summary>Entries that moved or were cancelled lately: the edition as it is, held against the edition as it would be with the events as they were.</summary>
/// <remarks>Both sides are composed by the same steps, so a change is told only to those who may know both what was and what is.</remarks>
public static class LatelyChanged
{
    public static readonly Duration Lately = Duration.FromDays(14);

    private const int Most = 100;

    /// <param name="changed">Events that were changed since, as they are and as they were.</param>
    /// <returns>Latest change first.</returns>
    public static IReadOnlyList<ChangedEntry> Of(Composition composition, IReadOnlyList<(CalendarEvent Now, CalendarEvent Before)> changed, Window window) =>
        [.. changed
            .SelectMany(pair => Of(composition, pair.Now, pair.Before, window))
            .OrderByDescending(one => one.At)
            .ThenBy(one => one.Entry.Occurrence.Start)
            .ThenBy(one => one.Entry.Event.Identity, StringComparer.Ordinal)
            .Take(Most)];

    private static IEnumerable<ChangedEntry> Of(Composition composition, CalendarEvent now, CalendarEvent before, Window window)
    {
        var was = EntriesOf(composition, before, window);
        if (was.Count == 0)
            return [];
        var at = now.StampAt(Detail.Headline).Changed;
        return
            from pair in Paired(was, EntriesOf(composition, now, window), isOneTime: !now.Series.Recurs && !before.Series.Recurs)
            let change = ChangeOf(pair.Then, pair.Entry)
            where change is not null
            group pair by (Change: change.Value, Place: change == EntryChange.Relocated ? pair.Entry.Event.Place : "", By: Distance(pair.Then, pair.Entry)) into alike
            let first = alike.First()
            select new ChangedEntry(first.Entry, first.Then, alike.Key.Change, at, alike.Count() - 1);
    }

    /// <summary>Which date is which: by the name that the rule gives it; where the rule's time or day was changed, by its day, else by its week.</summary>
    private static IEnumerable<(Entry Then, Entry Entry)> Paired(List<Entry> was, List<Entry> now, bool isOneTime)
    {
        if (isOneTime)
            return was.Zip(now);
        var byName = was.ToDictionary(entry => entry.Occurrence.RecurrenceId);
        var byDay = was.ToLookup(entry => entry.Occurrence.RecurrenceId.Date);
        var names = now.Select(entry => entry.Occurrence.RecurrenceId).ToHashSet();
        var left = was.Where(entry => !names.Contains(entry.Occurrence.RecurrenceId)).ToLookup(WeekOf);
        var places = new Dictionary<LocalDate, int>();
        return now.SelectMany(entry => Earlier(entry).Take(1).Select(then => (then, entry)));

        IEnumerable<Entry> Earlier(Entry entry)
        {
            if (byName.TryGetValue(entry.Occurrence.RecurrenceId, out var then))
                return [then];
            if (byDay.Contains(entry.Occurrence.RecurrenceId.Date))
                return byDay[entry.Occurrence.RecurrenceId.Date];
            var place = places.GetValueOrDefault(WeekOf(entry));
            places[WeekOf(entry)] = place + 1;
            return left[WeekOf(entry)].Skip(place);
        }
    }

    private static LocalDate WeekOf(Entry entry) => entry.Occurrence.RecurrenceId.Date.With(DateAdjusters.PreviousOrSame(IsoDayOfWeek.Monday));

    /// <summary>By how much it moved: dates of a series that all moved alike are told as one change.</summary>
    private static (Period, Duration) Distance(Entry then, Entry entry) => (
        Period.Between(then.Occurrence.LocalStart, entry.Occurrence.LocalStart, PeriodUnits.Days | PeriodUnits.Minutes),
        (entry.Occurrence.End - entry.Occurrence.Start) - (then.Occurrence.End - then.Occurrence.Start));

    private static EntryChange? ChangeOf(Entry then, Entry entry)
    {
        var (was, isNow) = (then.Event.State == EventState.Cancelled, entry.Event.State == EventState.Cancelled);
        if (isNow)
            return was ? null : EntryChange.Cancelled;
        if (was)
            return EntryChange.TakesPlace;
        if (then.Occurrence.LocalStart != entry.Occurrence.LocalStart || then.Occurrence.LocalEnd != entry.Occurrence.LocalEnd || then.Timing.AllDay != entry.Timing.AllDay)
            return EntryChange.Moved;
        return then.Event.Place != entry.Event.Place ? EntryChange.Relocated : null;
    }

    private static List<Entry> EntriesOf(Composition composition, CalendarEvent happening, Window window) =>
        [.. composition.Dates(happening, window).Where(entry => entry.Event.Detail >= Detail.Headline)];
}
