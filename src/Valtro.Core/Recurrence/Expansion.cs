using NodaTime;

namespace Valtro.Core.Recurrence;

/// <summary>From a rule and its start to the local starts of its dates: lazily, ascending, from anywhere.</summary>
/// <remarks>
/// The pipeline is candidates → limits (both in <see cref="Periods"/>) → bounds. UNTIL is an instant and is applied
/// where local times are resolved, in <see cref="Series"/>.
/// </remarks>
internal static class Expansion
{
    /// <summary>The local starts on or after <paramref name="from"/>, at most until 9999.</summary>
    /// <remarks>
    /// The start is always the first date, also where the rule does not give it (RFC 5545 3.8.5.3), and counts for COUNT.
    /// A rule without COUNT jumps to <paramref name="from"/> by arithmetic. One with COUNT does so too where every period
    /// gives the same number of dates, and otherwise counts candidates without building dates.
    /// </remarks>
    public static IEnumerable<LocalDateTime> From(RecurrenceRule rule, LocalDateTime start, LocalDateTime from)
    {
        var periods = Periods.Of(rule, start.Date);
        var time = start.TimeOfDay;
        var startDay = Periods.Number(start.Date);
        var fromDay = Math.Max(startDay, Periods.Number(from.Date));
        var days = new int[periods.MostDays];
        var beforeStart = DaysBeforeStart(periods, startDay, days, out var startIsInRule);
        var left = rule.Count ?? int.MaxValue;

        if (!startIsInRule)
        {
            if (start >= from)
                yield return start;
            left--;
        }

        var index = periods.IndexAtOrBefore(fromDay);
        if (rule.Count is not null)
            left -= CountBefore(periods, index, beforeStart, days, left);
        for (; left > 0 && periods.Exists(index); index++)
        {
            var count = periods.Fill(index, days);
            for (var position = 0; position < count && left > 0; position++)
            {
                if (days[position] < startDay)
                    continue;
                left--;
                var local = Periods.Date(days[position]) + time;
                if (local >= from)
                    yield return local;
            }
        }
    }

    /// <summary>Whether the rule gives the start itself; where it does not, the start counts all the same.</summary>
    public static bool GivesItsStart(RecurrenceRule rule, LocalDate start)
    {
        var periods = Periods.Of(rule, start);
        _ = DaysBeforeStart(periods, Periods.Number(start), new int[periods.MostDays], out var given);
        return given;
    }

    /// <summary>How many candidates of the first period lie before the start, and whether the start is one itself.</summary>
    private static int DaysBeforeStart(Periods periods, int startDay, int[] days, out bool startIsInRule)
    {
        var candidates = days.AsSpan(0, periods.Fill(0, days));
        startIsInRule = candidates.Contains(startDay);
        var before = 0;
        while (before < candidates.Length && candidates[before] < startDay)
            before++;
        return before;
    }

    /// <summary>The number of dates in the periods before <paramref name="index"/>.</summary>
    private static int CountBefore(Periods periods, int index, int beforeStart, int[] days, int enough)
    {
        if (index == 0)
            return 0;
        if (periods.DaysPerPeriod is { } constant)
            return (int)Math.Min((long)index * constant - beforeStart, enough);
        var count = -beforeStart;
        for (var earlier = 0; earlier < index && count < enough; earlier++)
            count += periods.Fill(earlier, days);
        return count;
    }
}
