using NodaTime;
using Valtro.Core.Time;

namespace Valtro.Core.Recurrence;

/// <summary>When an event happens: its first date, and the rule that makes more of it.</summary>
/// <param name="Timing">The first date.</param>
/// <param name="Rule">The rule, or null for a one-time event.</param>
/// <param name="Extra">Further local starts (RDATE), ascending.</param>
/// <param name="Removed">Local starts that fall away (EXDATE), ascending.</param>
public sealed record Series(
    Timing Timing,
    RecurrenceRule? Rule,
    IReadOnlyList<LocalDateTime> Extra,
    IReadOnlyList<LocalDateTime> Removed)
{
    public Series(Timing timing, RecurrenceRule? rule = null)
        : this(timing, rule, [], [])
    {
    }

    /// <summary>True when it goes on for ever.</summary>
    public bool IsEndless => Rule is { Count: null, Until: null };

    /// <summary>The dates that overlap <paramref name="window"/>, ascending by start.</summary>
    /// <remarks>The cost depends on the window, not on how far it lies from the first date.</remarks>
    public IEnumerable<Occurrence> In(Window window)
    {
        // A day on each side is more than any zone's offset or clock change; the exact test follows.
        var from = Timing.AllDay
            ? window.First.PlusDays(-Timing.Days).AtMidnight()
            : window.From.InZone(Timing.Zone).LocalDateTime.Minus(Margin);
        var to = Timing.AllDay ? window.End.AtMidnight() : window.To.InZone(Timing.Zone).LocalDateTime.PlusDays(1);
        foreach (var occurrence in From(from))
        {
            if (occurrence.RecurrenceId >= to)
                yield break;
            if (Overlaps(occurrence, window))
                yield return occurrence;
        }
    }

    /// <summary>The dates whose rule position is on or after <paramref name="from"/>, ascending, without end where there is none.</summary>
    public IEnumerable<Occurrence> From(LocalDateTime from)
    {
        var walk = new LocalTimeWalk(Timing.Zone);
        var removed = 0;
        foreach (var local in Extra.Count == 0 ? ByRule(from) : WithExtra(from))
        {
            while (removed < Removed.Count && Removed[removed] < local)
                removed++;
            if (removed < Removed.Count && Removed[removed] == local)
                continue;
            yield return Timing.At(local, ref walk);
        }
    }

    /// <summary>All dates; the caller says how many it wants.</summary>
    public IEnumerable<Occurrence> All() => From(LocalDate.MinIsoValue.AtMidnight());

    private Period Margin => Period.FromSeconds((long)Timing.Duration.TotalSeconds + 86_400);

    private IEnumerable<LocalDateTime> ByRule(LocalDateTime from)
    {
        if (Rule is null)
            return Timing.Start >= from ? [Timing.Start] : [];
        var starts = Expansion.From(Rule, Timing.Start, from);
        return Rule.Until is null ? starts : starts.TakeWhile(UntilEnd);
    }

    private bool UntilEnd(LocalDateTime local) => Rule!.Until switch
    {
        Until.Day day => local.Date <= day.Date,
        Until.Moment moment => LocalTimes.InZone(local, Timing.Zone).ToInstant() <= moment.Instant,
        _ => true,
    };

    private IEnumerable<LocalDateTime> WithExtra(LocalDateTime from)
    {
        var next = 0;
        while (next < Extra.Count && Extra[next] < from)
            next++;
        foreach (var local in ByRule(from))
        {
            for (; next < Extra.Count && Extra[next] < local; next++)
                yield return Extra[next];
            if (next < Extra.Count && Extra[next] == local)
                next++;
            yield return local;
        }
        for (; next < Extra.Count; next++)
            yield return Extra[next];
    }

    private bool Overlaps(Occurrence occurrence, Window window)
    {
        if (Timing.AllDay)
            return occurrence.LocalStart.Date < window.End && occurrence.LocalEnd.Date > window.First;
        return occurrence.Start < window.To
            && (occurrence.End > window.From || (occurrence.Start == occurrence.End && occurrence.Start >= window.From));
    }

    /// <summary>From the first start to the last end, for finding the event by time; null as the end when it has none.</summary>
    /// <remarks>Wider by a day on each side for an all-day event, which has no zone of its own.</remarks>
    public (Instant From, Instant? To) Reach()
    {
        var margin = Timing.AllDay ? Duration.FromDays(1) : Duration.Zero;
        var first = LocalTimes.InZone(Extra.Count > 0 && Extra[0] < Timing.Start ? Extra[0] : Timing.Start, Timing.Zone).ToInstant();
        if (IsEndless)
            return (first - margin, null);
        var last = first;
        foreach (var occurrence in All())
            last = Instant.Max(last, occurrence.End);
        return (first - margin, last + margin);
    }
}
