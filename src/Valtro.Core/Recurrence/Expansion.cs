using NodaTime;

namespace Valtro.Core.Recurrence;

/// <summary>From a rule and its start to the local starts of its dates: lazily, ascending, from anywhere.</summary>
/// <remarks>
/// The pipeline is candidates → limits (both in <see cref="Periods"/>) → set positions → bounds. UNTIL is an instant and is
/// applied where local times are resolved, in <see cref="Series"/>.
/// Work is bounded: a rule that gives nothing over <see cref="MostFruitless"/> periods on end is taken to give nothing any more.
/// That is every year until 9999, eight thousand years of months, nineteen hundred of weeks; days and shorter periods are
/// leapt over by the month, day, hour or minute that a limit excludes.
/// </remarks>
internal static class Expansion
{
    public const int MostFruitless = 100_000;

    /// <summary>The local starts on or after <paramref name="from"/>, at most until 9999.</summary>
    /// <remarks>
    /// The start is always the first date, also where the rule does not give it (RFC 5545 3.8.5.3), and counts for COUNT.
    /// A rule without COUNT jumps to <paramref name="from"/> by arithmetic. One with COUNT does so too where every period
    /// gives the same number of dates, and otherwise counts candidates without building dates.
    /// </remarks>
    public static IEnumerable<LocalDateTime> From(RecurrenceRule rule, LocalDateTime start, LocalDateTime from)
    {
        var periods = Periods.Of(rule, start);
        var positions = SetPositions.Of(rule);
        var set = periods.Room();
        var startMoment = DayNumbers.Moment(start);
        var fromMoment = start >= from ? startMoment : DayNumbers.Moment(from);
        var left = rule.Count ?? int.MaxValue;
        var beforeStart = CountBeforeStart(periods, positions, set, startMoment, out var startIsInRule);
        if (!startIsInRule)
        {
            if (start >= from)
                yield return start;
            left--;
        }

        var index = StartIndex(rule, periods, fromMoment);
        if (rule.Count is not null)
            left -= CountBefore(periods, positions, set, index, beforeStart, left);
        var (lastMoment, lastDay, lastDate) = (startMoment - 1, DayNumbers.Of(start.Date), start.Date);
        for (var fruitless = 0; left > 0 && fruitless < MostFruitless && periods.Exists(index);)
        {
            periods.Fill(index, set);
            var count = positions?.Choose(set.Count) ?? set.Count;
            if (count == 0)
            {
                fruitless++;
                index = set.Count == 0 ? set.Resume : index + 1;
                continue;
            }
            fruitless = 0;
            index++;
            for (var position = 0; position < count && left > 0; position++)
            {
                var moment = set[positions is null ? position : positions[position]];
                if (moment <= lastMoment)
                    continue;
                left--;
                lastMoment = moment;
                if (moment < fromMoment)
                    continue;
                var day = DayNumbers.DayOf(moment);
                // Near the last date, NodaTime steps without going through its calendar.
                (lastDate, lastDay) = (lastDate.PlusDays(day - lastDay), day);
                yield return lastDate + LocalTime.FromSecondsSinceMidnight((int)(moment - (long)day * DayNumbers.SecondsOfDay));
            }
        }
    }

    /// <summary>Where to begin. A day that spills into the next month may stand there too, so that what was counted twice is only seen on a walk.</summary>
    private static long StartIndex(RecurrenceRule rule, Periods periods, long from)
    {
        if (!periods.MaySpill)
            return Math.Max(0, periods.IndexAtOrBefore(from));
        return rule.Count is null ? Math.Max(0, periods.IndexAtOrBefore(from) - 1) : 0;
    }

    /// <summary>Whether the rule gives the start itself; where it does not, the start counts all the same.</summary>
    public static bool GivesItsStart(RecurrenceRule rule, LocalDateTime start)
    {
        var periods = Periods.Of(rule, start);
        _ = CountBeforeStart(periods, SetPositions.Of(rule), periods.Room(), DayNumbers.Moment(start), out var given);
        return given;
    }

    /// <summary>How many dates of the first period lie before the start, and whether the start is one itself.</summary>
    private static int CountBeforeStart(Periods periods, SetPositions? positions, Candidates set, long start, out bool startIsInRule)
    {
        periods.Fill(0, set);
        var count = positions?.Choose(set.Count) ?? set.Count;
        var before = 0;
        while (before < count && set[positions is null ? before : positions[before]] < start)
            before++;
        startIsInRule = before < count && set[positions is null ? before : positions[before]] == start;
        return before;
    }

    /// <summary>The number of dates in the periods before <paramref name="index"/>.</summary>
    private static int CountBefore(Periods periods, SetPositions? positions, Candidates set, long index, int beforeStart, int enough)
    {
        if (index == 0)
            return 0;
        var constant = positions is null ? (periods.Size.IsExact ? periods.Size.Least : null) : positions.Constant(periods.Size);
        if (constant is { } each)
            return (int)Math.Min(index * each - beforeStart, enough);
        var count = -beforeStart;
        for (long earlier = 0, fruitless = 0; earlier < index && count < enough && fruitless < MostFruitless;)
        {
            periods.Fill(earlier, set);
            var given = positions?.Choose(set.Count) ?? set.Count;
            count += given;
            fruitless = given == 0 ? fruitless + 1 : 0;
            earlier = set.Count == 0 ? set.Resume : earlier + 1;
        }
        return count;
    }
}
