using NodaTime;
using Valtro.Core.Recurrence;
using Valtro.Core.Speaking;
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
/// <param name="Remarks">What is special about it, in words; what it clashes with first.</param>
public readonly record struct ConsequenceDate(Occurrence Occurrence, DateKind Kind, IReadOnlyList<string> Remarks);

/// <summary>What follows from a draft before it is saved.</summary>
/// <param name="Words">The pattern said back.</param>
/// <param name="Count">How many dates, or null when there is no end.</param>
/// <param name="Dates">The first <see cref="Shown"/> dates, those that fall out among them.</param>
/// <param name="Last">The last date, when there is one.</param>
/// <param name="Days">Every day of the first year on which it takes place, for a small picture.</param>
/// <param name="Remarks">Things the editor should know of the whole.</param>
/// <param name="Begins">Where the first day is not one of the pattern: the first that is.</param>
public sealed record Consequences(
    string Words,
    int? Count,
    IReadOnlyList<ConsequenceDate> Dates,
    Occurrence? Last,
    IReadOnlyList<LocalDate> Days,
    IReadOnlyList<string> Remarks,
    LocalDate? Begins)
{
    /// <summary>As many dates as a school year has weeks; the rest is a number.</summary>
    public const int Shown = 60;

    private const int MostDays = 400;

    /// <param name="clashes">Of the first dates, by what the caller may show.</param>
    /// <param name="now">From when on a date is still ahead.</param>
    public static Consequences Of(Series series, SchoolCalendar school, RuleWords words,
        Func<IReadOnlyList<Occurrence>, IReadOnlyDictionary<Instant, IReadOnlyList<string>>> clashes, Instant now)
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
            var remarks = new List<string>(fallsOut ? [] : OnClock(series.Timing, occurrence, before, words.Speech));
            remarks.AddRange(OnBreaks(occurrence, kind, school, words));
            if (!fallsOut && clash.TryGetValue(occurrence.Start, out var meets))
                remarks.InsertRange(0, meets);
            listed.Add(new ConsequenceDate(occurrence, kind, remarks));
            before = fallsOut ? before : occurrence;
        }
        return new Consequences(
            words.Say(series),
            count,
            listed,
            last,
            DaysOfFirstYear(taking),
            [.. RemarksOn(series, shown, count, words.Speech), .. last?.End <= now ? [words.Speech.Say("follows.isOver")] : (string[])[]],
            series.RuleGivesItsStart ? null : BeginsOn(series));
    }

    private static LocalDate? BeginsOn(Series series) => series.Pattern(series.Timing.Start, SchoolCalendar.Empty)
        .Where(date => date > series.Timing.Start).Select(date => (LocalDate?)date.Date).FirstOrDefault();

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

    /// <summary>The dates, and between them those that were removed or fall in a break, so that they can be seen and brought
    /// back.</summary>
    private static List<(Occurrence Occurrence, DateKind Kind)> WithThoseThatFallOut(Series series, SchoolCalendar school,
        Occurrence[] taking)
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
        return series.InBreaks == InBreaks.Move && occurrence.LocalStart.Date != occurrence.RecurrenceId.Date
            ? DateKind.Moved
            : DateKind.Takes;
    }

    private static IEnumerable<string> OnBreaks(Occurrence occurrence, DateKind kind, SchoolCalendar school, RuleWords words)
    {
        if (kind == DateKind.Moved)
            yield return words.Speech.Say(
                "date.movedFrom", ("day", words.Day(occurrence.RecurrenceId.Date, withWeekday: true)),
                    ("break", school.BreakOn(occurrence.RecurrenceId.Date)?.Name));
        else if (kind == DateKind.InBreak)
            yield return school.BreakOn(occurrence.RecurrenceId.Date) is { } closed
                ? words.Speech.Say("date.fallsOut", ("break", closed.Name))
                : words.Speech.Say("date.onThatDayAlready");
        else if (kind == DateKind.Removed)
            yield return words.Speech.Say("date.removed");
        else if (school.BreakOn(occurrence.LocalStart.Date) is { } closed)
            yield return words.Speech.Say("date.inBreak", ("break", closed.Name));
        if (kind == DateKind.Added)
            yield return words.Speech.Say("date.added");
    }

    private static IEnumerable<string> OnClock(Timing timing, Occurrence occurrence, Occurrence? before, Speech speech)
    {
        if (timing.AllDay)
            yield break;
        var start = $"{occurrence.RecurrenceId:HH:mm}";
        switch (LocalTimes.EffectOf(occurrence.RecurrenceId.TimeOfDay == occurrence.LocalStart.TimeOfDay
            ? occurrence.LocalStart
            : occurrence.RecurrenceId, timing.Zone))
        {
            case ClockEffect.Skipped:
                yield return speech.Say("date.clocksSkip", ("start", start), ("instead", $"{occurrence.LocalStart:HH:mm}"));
                yield break;
            case ClockEffect.Repeated:
                yield return speech.Say("date.clocksRepeat", ("start", start));
                yield break;
        }
        if (before is not { } earlier)
            yield break;
        var change = timing.Zone.GetUtcOffset(occurrence.Start).Milliseconds - timing.Zone.GetUtcOffset(earlier.Start).Milliseconds;
        if (change > 0)
            yield return speech.Say("date.clocksForward", ("start", start));
        else if (change < 0)
            yield return speech.Say("date.clocksBack", ("start", start));
    }

    private static LocalDate[] DaysOfFirstYear(IReadOnlyList<Occurrence> dates) => dates.Count == 0
        ? []
        : [.. dates.Select(date => date.LocalStart.Date).TakeWhile(day => day < dates[0].LocalStart.Date.PlusYears(1)).Distinct()];

    private static IEnumerable<string> RemarksOn(Series series, Occurrence[] dates, int? count, Speech speech)
    {
        if (series.Rule is { } rule)
        {
            if (!series.RuleGivesItsStart)
                yield return speech.Say("follows.firstIsNotOfPattern");
            if (!series.Pattern(series.Timing.Start, SchoolCalendar.Empty).Skip(1).Any() && rule.Count != 1)
                yield return speech.Say("follows.noFurtherDate");
            if (ShortMonths(rule, speech) is { } problem)
                yield return problem;
        }
        if (count == 0)
            yield return speech.Say("follows.nothingLeft");
        if (dates.Length > 1 && dates[0].End > dates[1].Start)
            yield return speech.Say("follows.overlapsItself");
        if (series.IsEndless)
            yield return speech.Say("follows.endless");
    }

    /// <summary>Days that not every month has.</summary>
    private static string? ShortMonths(RecurrenceRule rule, Speech speech)
    {
        var day = rule.Parts.MonthDays.Where(one => one > 28).DefaultIfEmpty(0).Max();
        if (day == 0 || rule.Frequency is not (Frequency.Monthly or Frequency.Yearly) || rule.Parts.Weekdays.Count > 0)
            return null;
        var isYearly = rule.Frequency == Frequency.Yearly && rule.Parts.Months.Count > 0;
        if (isYearly && rule.Parts.Months.All(month => day <= (month == 2 ? 28 : month is 4 or 6 or 9 or 11 ? 30 : 31)))
            return null;
        var which = isYearly && rule.Parts.Months.SequenceEqual([2]) ? "follows.leapDay" : $"follows.short.{day}";
        return speech.Say($"follows.skip.{rule.Parts.Skip.ToString().ToLowerInvariant()}", ("which", Saying.Of(which)));
    }
}
