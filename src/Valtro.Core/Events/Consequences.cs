using NodaTime;
using Valtro.Core.Recurrence;
using Valtro.Core.Time;
using Valtro.Core.YearPlans;

namespace Valtro.Core.Events;

/// <summary>What a date that a draft would make is, or would be.</summary>
public enum DateKind
{
    Takes,

    /// <summary>Removed by hand.</summary>
    Removed,

    /// <summary>Falls out because of a break.</summary>
    InBreak,

    /// <summary>Moved out of a break.</summary>
    Moved,

    /// <summary>Added by hand.</summary>
    Added,
}

/// <summary>One date that a draft would make, or would have made.</summary>
/// <param name="Remarks">What is special about it, in words.</param>
public readonly record struct ConsequenceDate(Occurrence Occurrence, DateKind Kind, IReadOnlyList<string> Remarks);

/// <summary>What follows from a draft before it is saved.</summary>
/// <param name="Words">The pattern said back.</param>
/// <param name="Count">How many dates, or null when there is no end.</param>
/// <param name="Dates">The first <see cref="Shown"/> dates, those that fall out among them.</param>
/// <param name="Last">The last date, when there is one.</param>
/// <param name="Days">Every day of the first year on which it takes place, for a small picture.</param>
/// <param name="Remarks">Things the editor should know of the whole.</param>
public sealed record Consequences(
    string Words,
    int? Count,
    IReadOnlyList<ConsequenceDate> Dates,
    Occurrence? Last,
    IReadOnlyList<LocalDate> Days,
    IReadOnlyList<string> Remarks)
{
    /// <summary>As many dates as a school year has weeks; the rest is a number.</summary>
    public const int Shown = 60;

    private const int MostDays = 400;

    /// <param name="clashes">Of the first dates, by what the caller may show.</param>
    public static Consequences Of(Series series, SchoolCalendar school, RuleWords words, Func<IReadOnlyList<Occurrence>, IReadOnlyDictionary<Instant, string>> clashes)
    {
        var (taking, count, last) = Taking(series, school);
        var shown = taking.Take(Shown).ToArray();
        var dates = WithThoseThatFallOut(series, school, shown);
        var clash = clashes(shown);
        Occurrence? before = null;
        var listed = new List<ConsequenceDate>(dates.Count);
        foreach (var (occurrence, kind) in dates.Take(Shown))
        {
            var fallsOut = kind is DateKind.Removed or DateKind.InBreak;
            var remarks = new List<string>(fallsOut ? [] : OnClock(series.Timing, occurrence, before));
            remarks.AddRange(OnBreaks(occurrence, kind, school, words));
            if (!fallsOut && clash.TryGetValue(occurrence.Start, out var meets))
                remarks.Add(meets);
            listed.Add(new ConsequenceDate(occurrence, kind, remarks));
            before = fallsOut ? before : occurrence;
        }
        return new Consequences(
            words.Say(series),
            count,
            listed,
            last,
            DaysOfFirstYear(taking),
            [.. RemarksOn(series, shown, count)]);
    }

    private static (IReadOnlyList<Occurrence> Dates, int? Count, Occurrence? Last) Taking(Series series, SchoolCalendar school)
    {
        if (series.IsEndless)
            return ([.. series.All(school).Take(MostDays)], null, null);
        var first = new List<Occurrence>();
        Occurrence? last = null;
        var count = 0;
        foreach (var occurrence in series.All(school))
        {
            if (count++ < MostDays)
                first.Add(occurrence);
            last = occurrence;
        }
        return (first, count, last);
    }

    /// <summary>The dates, and between them those that were removed or fall in a break, so that they can be seen and brought back.</summary>
    private static List<(Occurrence Occurrence, DateKind Kind)> WithThoseThatFallOut(Series series, SchoolCalendar school, Occurrence[] taking)
    {
        var dates = taking.Select(occurrence => (occurrence, KindOf(series, occurrence))).ToList();
        var until = taking.Length < Shown ? LocalDate.MaxIsoValue.AtMidnight() : taking[^1].RecurrenceId;
        var ids = taking.Select(occurrence => occurrence.RecurrenceId).ToHashSet();
        foreach (var id in series.Pattern(LocalDate.MinIsoValue.AtMidnight(), school).TakeWhile(id => id <= until).Take(4 * Shown))
        {
            if (!ids.Contains(id))
                dates.Add((series.Timing.StartingAt(id).Occurrence(id), series.Removed.Contains(id) ? DateKind.Removed : DateKind.InBreak));
        }
        dates.Sort((one, other) => one.occurrence.Start.CompareTo(other.occurrence.Start));
        return dates;
    }

    private static DateKind KindOf(Series series, Occurrence occurrence)
    {
        if (series.Extra.Contains(occurrence.RecurrenceId))
            return DateKind.Added;
        return series.InBreaks == InBreaks.Move && occurrence.LocalStart.Date != occurrence.RecurrenceId.Date ? DateKind.Moved : DateKind.Takes;
    }

    private static IEnumerable<string> OnBreaks(Occurrence occurrence, DateKind kind, SchoolCalendar school, RuleWords words)
    {
        if (kind == DateKind.Moved)
            yield return $"moved from {words.Day(occurrence.RecurrenceId.Date, withWeekday: true)}, which is in {school.BreakOn(occurrence.RecurrenceId.Date)?.Name}";
        else if (kind == DateKind.InBreak)
            yield return school.BreakOn(occurrence.RecurrenceId.Date) is { } closed ? $"falls out: {closed.Name}" : "falls out: already on that day";
        else if (kind == DateKind.Removed)
            yield return "removed";
        else if (school.BreakOn(occurrence.LocalStart.Date) is { } closed)
            yield return $"in {closed.Name}";
        if (kind == DateKind.Added)
            yield return "added";
    }

    private static IEnumerable<string> OnClock(Timing timing, Occurrence occurrence, Occurrence? before)
    {
        if (timing.AllDay)
            yield break;
        var start = $"{occurrence.RecurrenceId:HH:mm}";
        switch (LocalTimes.EffectOf(occurrence.RecurrenceId.TimeOfDay == occurrence.LocalStart.TimeOfDay ? occurrence.LocalStart : occurrence.RecurrenceId, timing.Zone))
        {
            case ClockEffect.Skipped:
                yield return $"the clocks skip {start} that day, so {occurrence.LocalStart:HH:mm}";
                yield break;
            case ClockEffect.Repeated:
                yield return $"{start} happens twice that day, the first is meant";
                yield break;
        }
        if (before is not { } earlier)
            yield break;
        var change = timing.Zone.GetUtcOffset(occurrence.Start).Milliseconds - timing.Zone.GetUtcOffset(earlier.Start).Milliseconds;
        if (change > 0)
            yield return $"clocks went forward, still {start}";
        else if (change < 0)
            yield return $"clocks went back, still {start}";
    }

    private static LocalDate[] DaysOfFirstYear(IReadOnlyList<Occurrence> dates) => dates.Count == 0
        ? []
        : [.. dates.Select(date => date.LocalStart.Date).TakeWhile(day => day < dates[0].LocalStart.Date.PlusYears(1)).Distinct()];

    private static IEnumerable<string> RemarksOn(Series series, Occurrence[] dates, int? count)
    {
        if (series.Rule is { } rule)
        {
            if (!series.RuleGivesItsStart)
                yield return "The first day is not one that the pattern gives. It counts as the first date all the same.";
            if (!series.Pattern(series.Timing.Start, SchoolCalendar.Empty).Skip(1).Any() && rule.Count != 1)
                yield return "The pattern gives no further date: no day fits all of it.";
            if (ShortMonths(rule) is { } problem)
                yield return problem;
        }
        if (count == 0)
            yield return "Nothing is left: every date is removed or falls in a break.";
        if (dates.Length > 1 && dates[0].End > dates[1].Start)
            yield return "Each date lasts beyond the start of the next one.";
        if (series.IsEndless)
            yield return "This goes on without end. Give it a last day when you know one.";
    }

    /// <summary>Days that not every month has.</summary>
    private static string? ShortMonths(RecurrenceRule rule)
    {
        var day = rule.Parts.MonthDays.Where(one => one > 28).DefaultIfEmpty(0).Max();
        if (day == 0 || rule.Frequency is not (Frequency.Monthly or Frequency.Yearly) || rule.Parts.Weekdays.Count > 0)
            return null;
        var isYearly = rule.Frequency == Frequency.Yearly && rule.Parts.Months.Count > 0;
        if (isYearly && rule.Parts.Months.All(month => day <= (month == 2 ? 28 : month is 4 or 6 or 9 or 11 ? 30 : 31)))
            return null;
        var which = isYearly && rule.Parts.Months.SequenceEqual([2]) ? "Most years have no 29 February" : day == 31 ? "Five months have no 31st" : $"February has no {day}th{(day == 29 ? " in most years" : "")}";
        return rule.Parts.Skip switch
        {
            Skip.Backward => $"{which}: there the last day of the month stands in.",
            Skip.Forward => $"{which}: there the first of the next month stands in.",
            _ => $"{which}: there it falls out.",
        };
    }
}
