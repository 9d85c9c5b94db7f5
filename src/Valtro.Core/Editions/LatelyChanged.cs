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

    /// <summary>It was not there before.</summary>
    New,

    /// <summary>It is there no more.</summary>
    Removed,
}

/// <summary>An event that was saved lately.</summary>
/// <param name="Now">Null when it is in the bin.</param>
/// <param name="Before">As its readers knew it; null when they did not.</param>
/// <param name="At">When it was last saved.</param>
/// <param name="IsNew">It went out for the first time lately.</param>
public sealed record EventNews(CalendarEvent? Now, CalendarEvent? Before, Instant At, bool IsNew = false);

/// <summary>An entry that is not as it was.</summary>
/// <param name="Entry">As it is; what was removed as it was.</param>
/// <param name="Before">As it was, told by what this audience may know now; what is new as it is.</param>
/// <param name="At">When the event was last saved.</param>
/// <param name="More">Later dates of the same series to which the same happened.</param>
public sealed record ChangedEntry(Entry Entry, Entry Before, EntryChange Change, Instant At, int More);

/// <summary>What there is to tell.</summary>
/// <param name="HoldsBack">More has changed than is told: there are too many, or the audience gets no more than times of it.</param>
public sealed record ChangedEntries(IReadOnlyList<ChangedEntry> Entries, bool HoldsBack);

/// <summary>Entries that came, went, moved or were cancelled lately: the edition as it is, held against the edition as it would be with the
/// events as they were.</summary>
/// <remarks>Both sides are composed by the same steps, so a change is told only to those who may know both what was and what is.</remarks>
public static class LatelyChanged
{
    public static readonly Duration Lately = Duration.FromDays(14);

    private const int Most = 100;

    /// <param name="news">Events that were saved since.</param>
    /// <returns>Latest change first.</returns>
    public static ChangedEntries Of(Composition composition, IReadOnlyList<EventNews> news, Window window)
    {
        var holdsBack = false;
        var all = news.SelectMany(one => Of(composition, one, window, ref holdsBack))
            .OrderByDescending(one => one.At)
            .ThenBy(one => one.Entry.Occurrence.Start)
            .ThenBy(one => one.Entry.Event.Identity, StringComparer.Ordinal)
            .ToArray();
        return new ChangedEntries(all.Length > Most ? all[..Most] : all, holdsBack || all.Length > Most);
    }

    private static IEnumerable<ChangedEntry> Of(Composition composition, EventNews news, Window window, ref bool holdsBack)
    {
        var (was, isNow) =
            (EntriesOf(composition, news.Before, window, out var hadTimes), EntriesOf(composition, news.Now, window, out var hasTimes));
        holdsBack |= !hadTimes.SequenceEqual(hasTimes);
        if (was.Count + isNow.Count == 0)
            return [];
        var pairs = Paired(was, isNow, isOneTime: news.Now?.Series.Recurs != true && news.Before?.Series.Recurs != true).ToArray();
        // What was told as times only is not new, and what somebody hid is not told for the last time.
        var mayCome = hadTimes.Count == 0;
        var mayGo = news.Now is null || composition.TellsHeadlineOf(news.Now);
        var came = !mayCome
            ? []
            : isNow.ExceptBy(pairs.Select(pair => pair.Entry.Occurrence.RecurrenceId), entry => entry.Occurrence.RecurrenceId)
                .Select(entry => (Then: entry, Entry: entry, Change: (EntryChange?)EntryChange.New));
        var went = !mayGo
            ? []
            : was.ExceptBy(pairs.Select(pair => pair.Then.Occurrence.RecurrenceId), entry => entry.Occurrence.RecurrenceId)
                .Where(entry => entry.Event.State != EventState.Cancelled)
            .Select(entry => (Then: entry, Entry: entry, Change: (EntryChange?)EntryChange.Removed));
        return
            from pair in pairs.Select(
                pair => (pair.Then, pair.Entry, Change: ChangeOf(pair.Then, pair.Entry) ?? (news.IsNew ? EntryChange.New : null)))
                    .Concat(came).Concat(went).ToArray()
            where pair.Change is not null
            group pair by (Change: pair.Change!.Value,
                Place: pair.Change == EntryChange.Relocated ? pair.Entry.Event.Content.Place : Place.Nowhere,
                By: Distance(pair.Then, pair.Entry)) into alike
            let first = alike.First()
            select new ChangedEntry(first.Entry, first.Then, alike.Key.Change, news.At, alike.Count() - 1);
    }

    /// <summary>Which date is which: by the name that the rule gives it; where the rule's time or day was changed, by its day, else by its
    /// week.</summary>
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

    private static LocalDate WeekOf(Entry entry) =>
        entry.Occurrence.RecurrenceId.Date.With(DateAdjusters.PreviousOrSame(IsoDayOfWeek.Monday));

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
        if (then.Occurrence.LocalStart != entry.Occurrence.LocalStart
            || then.Occurrence.LocalEnd != entry.Occurrence.LocalEnd
            || then.Timing.AllDay != entry.Timing.AllDay)
            return EntryChange.Moved;
        return then.Event.Content.Place != entry.Event.Content.Place ? EntryChange.Relocated : null;
    }

    /// <param name="times">When the dates are of which the audience is told no more.</param>
    private static List<Entry> EntriesOf(
        Composition composition, CalendarEvent? calendarEvent, Window window, out IReadOnlyList<(Instant, Instant)> times)
    {
        var entries = calendarEvent is null ? [] : composition.Dates(calendarEvent, window);
        times = [.. entries.Where(entry => entry.Event.Detail < Detail.Headline)
            .Select(entry => (entry.Occurrence.Start, entry.Occurrence.End))];
        return [.. entries.Where(entry => entry.Event.Detail >= Detail.Headline)];
    }
}
