using Valtro.Core.Disclosure;
using Valtro.Core.Events;

namespace Valtro.Core.Editions;

/// <summary>Entries of the same title, start and length: one for all of them.</summary>
/// <param name="union">All sources of both.</param>
/// <param name="trace">Notes what becomes of the date that it follows.</param>
internal sealed class LookAlikes(Func<IReadOnlyList<Source>, IReadOnlyList<Source>, List<Source>> union, Trace? trace)
{
    /// <summary>Look-alikes, which follow one another once they are in order, become one. What is told only as "Busy" looks like nothing
    /// else.</summary>
    /// <returns>How many are left, at the front of the order.</returns>
    public int Merge(Dates dates, Span<int> order)
    {
        var kept = 0;
        for (int first = 0, end; first < order.Length; first = end)
        {
            end = first + 1;
            // At one moment and under one title there may be longer ones among those of one length.
            while (end < order.Length && dates.SortAlike(first, end))
                end++;
            if (end > first + 1)
            {
                var alike = order[first..end];
                alike = alike[..MergeAlike(dates, alike)];
                alike.CopyTo(order[kept..]);
                kept += alike.Length;
                continue;
            }
            if (trace is not null)
                NoteMerge(trace, dates, order[first], []);
            order[kept++] = order[first];
        }
        return kept;
    }

    /// <returns>How many are left, at the front: the one of each that tells most, for all that look like it.</returns>
    private int MergeAlike(Dates dates, Span<int> places)
    {
        places.Sort((one, other) => ByLook(in dates[one], in dates[other]));
        var kept = 0;
        for (int best = 0, end; best < places.Length; best = end)
        {
            end = best + 1;
            while (end < places.Length && LooksAlike(in dates[places[best]], in dates[places[end]]))
                end++;
            var others = places[(best + 1)..end];
            if (trace is not null)
                NoteMerge(trace, dates, places[best], others);
            if (others.Length > 0)
                dates[places[best]] = For(dates, places[best], others);
            places[kept++] = places[best];
        }
        return kept;
    }

    private Dated For(Dates dates, int best, ReadOnlySpan<int> others)
    {
        var told = dates[best].Told;
        var sources = told.Sources;
        var lookAlikes = new List<SourceDate>(others.Length);
        foreach (var other in others)
        {
            sources = union(sources, dates[other].Told.Sources);
            lookAlikes.Add(new SourceDate(dates[other].Told.Of!.Id, dates[other].Occurrence.RecurrenceId));
        }
        return dates[best] with { Told = told with { Sources = sources, LookAlikes = [.. lookAlikes.OrderBy(one => one.EventId)] } };
    }

    /// <summary>The end, the state, and who it is where nothing else tells it apart; then what tells most.</summary>
    private static int ByLook(in Dated one, in Dated other)
    {
        var order = one.Occurrence.End.CompareTo(other.Occurrence.End);
        order = order != 0 ? order : one.Event.State.CompareTo(other.Event.State);
        order = order != 0 ? order : OnlyItself(in one).CompareTo(OnlyItself(in other));
        order = order != 0 ? order : other.Event.Detail.CompareTo(one.Event.Detail);
        return order != 0 ? order : one.Event.Uid.CompareTo(other.Event.Uid);
    }

    private static bool LooksAlike(in Dated one, in Dated other) =>
        one.Occurrence.End == other.Occurrence.End && one.Event.State == other.Event.State && OnlyItself(in one) == OnlyItself(in other);

    private static Uid OnlyItself(in Dated date) =>
        date.Event.Detail > Detail.Times && date.Told.Of is not null ? default : date.Event.Uid;

    private static void NoteMerge(Trace trace, Dates dates, int kept, ReadOnlySpan<int> others)
    {
        var isOfOne = IsOf(trace, in dates[kept]);
        foreach (var other in others)
            isOfOne |= IsOf(trace, in dates[other]);
        if (!isOfOne)
            return;
        trace.Note(ComposeStep.Merge, true, others.Length == 0 ? "trace.noLookAlike" : "trace.lookAlikes", ("count", others.Length));
        trace.GoOnWith(in dates[kept]);
    }

    public static bool IsOf(Trace trace, in Dated date) => trace.IsOf(date.Told.Of?.Id, date.Occurrence.RecurrenceId);
}
