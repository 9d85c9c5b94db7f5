using NodaTime;
using Valtro.Core.Events;
using Valtro.Core.Recurrence;
using Valtro.Core.Time;
using Valtro.Core.YearPlans;

namespace Valtro.Core.Typing;

/// <summary>What the pattern of a line leaves open, and what follows from it.</summary>
internal static class LineRepeats
{
    /// <summary>"1 to 24 December, daily": so many days are no length of a date, but from when to when there are dates.</summary>
    public static bool IsOneByOne(RepeatDraft repeat, int days) => days > repeat.Interval * repeat.Pattern switch
    {
        RepeatPattern.Daily => 1,
        RepeatPattern.Weekly when repeat.Weekdays is { Count: > 1 } => 1,
        RepeatPattern.Weekly => 7,
        RepeatPattern.Monthly => 28,
        _ => 365,
    };

    public static RepeatDraft Completed(RepeatDraft repeat, LocalDate date, LocalDate? until, int? count) => repeat with
    {
        Weekdays = repeat is { Pattern: RepeatPattern.Weekly, Weekdays: null or { Count: 0 } } ? [(int)date.DayOfWeek] : repeat.Weekdays,
        MonthDay = repeat is { By: MonthPosition.Day, MonthDay: null } ? date.Day : repeat.MonthDay,
        Month = repeat.Pattern == RepeatPattern.Yearly ? date.Month : null,
        Ends = until is not null ? RepeatEnd.On : count is not null ? RepeatEnd.After : RepeatEnd.Never,
        Until = until,
        Count = until is null ? count : null,
    };

    /// <summary>The first day from today on that the pattern gives.</summary>
    public static LocalDate FirstDay(RepeatDraft repeat, LocalDate today)
    {
        var (rule, timing) = (Completed(repeat, today, null, null), Timing.WholeDays(today, today, DateTimeZone.Utc));
        var refusals = new RefusalList();
        rule.Check(refusals);
        return refusals.IsEmpty && repeat.Pattern != RepeatPattern.Daily
            ? new Series(timing, rule.RuleFor(timing)).Pattern(today.AtMidnight(), SchoolCalendar.Empty)
                .Where(day => day.Date > today || new Series(timing, rule.RuleFor(timing)).RuleGivesItsStart)
                    .Select(day => day.Date).FirstOrDefault(today)
            : today;
    }
}
