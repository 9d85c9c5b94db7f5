using NodaTime;
using Valtro.Core.Recurrence;

namespace Valtro.Core.Events;

/// <summary>Moves a rule along when the dates of its series move by days.</summary>
internal static class RuleShift
{
    /// <param name="before">The first date, or the date that was moved.</param>
    /// <param name="after">Where it went.</param>
    /// <exception cref="RuleException">The rule has no like that is so many days later; the sentence has to be written anew.</exception>
    public static RecurrenceRule Shift(RecurrenceRule rule, LocalDate before, LocalDate after)
    {
        var days = Period.DaysBetween(before, after);
        if (days == 0)
            return rule;
        var parts = rule.Parts;
        if (parts.YearDays.Count + parts.WeekNumbers.Count > 0 || parts.Frequency < Frequency.Daily)
            throw Impossible();
        return new RecurrenceRule(parts.Frequency switch
        {
            Frequency.Daily when parts.Weekdays.Count + parts.MonthDays.Count + parts.Months.Count == 0 => parts,
            Frequency.Weekly when parts.Months.Count == 0 =>
                parts with { Weekdays = [.. parts.Weekdays.Select(weekday => Later(weekday, days))] },
            Frequency.Monthly when parts.Months.Count == 0 => WithPosition(parts, before, after),
            Frequency.Yearly when parts.Months.Count < 2 =>
                WithPosition(parts, before, after) with { Months = parts.Months.Count == 1 ? [after.Month] : [] },
            _ => throw Impossible(),
        });
    }

    private static NumberedWeekday Later(NumberedWeekday weekday, int days) =>
        new((IsoDayOfWeek)((((int)weekday.Weekday - 1 + days) % 7 + 7) % 7 + 1));

    /// <summary>The second Tuesday becomes the second Wednesday, the 24th the 26th, the last Friday the last Thursday.</summary>
    private static RuleParts WithPosition(RuleParts parts, LocalDate before, LocalDate after)
    {
        if (parts.SetPositions.Count > 0
            || (parts.Frequency == Frequency.Monthly && (before.Year, before.Month) != (after.Year, after.Month)))
            throw Impossible();
        if (parts is { Weekdays.Count: 0, MonthDays.Count: 0 })
            return parts;
        if (parts is { Weekdays.Count: 0, MonthDays: [> 0] })
            return parts with { MonthDays = [after.Day] };
        if (parts is not { MonthDays.Count: 0, Weekdays: [{ Ordinal: not 0 } weekday] }
            || (parts.Frequency == Frequency.Yearly && parts.Months.Count == 0))
            throw Impossible();
        var daysInMonth = after.Calendar.GetDaysInMonth(after.Year, after.Month);
        var isLast = after.Day > daysInMonth - 7;
        var ordinal = weekday.Ordinal < 0 && isLast ? -1 : (after.Day - 1) / 7 + 1;
        return parts with { Weekdays = [new NumberedWeekday(after.DayOfWeek, ordinal)] };
    }

    private static RuleException Impossible() =>
        new("scope", "scope.ruleCannotMove");
}
