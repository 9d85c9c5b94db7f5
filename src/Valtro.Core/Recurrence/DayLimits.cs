namespace Valtro.Core.Recurrence;

/// <summary>The BYxxx parts that limit days in daily and shorter rules, and months in weekly ones (RFC 5545 3.3.10, the table).</summary>
internal sealed class DayLimits
{
    private readonly int _months;
    private readonly int _weekdays;
    private readonly int[] _monthDays;
    private readonly int[] _yearDays;

    public DayLimits(RuleParts parts)
    {
        _months = parts.Months.Aggregate(0, (set, month) => set | 1 << month);
        // In a weekly rule BYDAY expands.
        _weekdays = parts.Frequency == Frequency.Weekly
            ? 0
            : parts.Weekdays.Aggregate(0, (set, weekday) => set | 1 << (int)weekday.Weekday - 1);
        _monthDays = [.. parts.MonthDays];
        _yearDays = [.. parts.YearDays];
        IsEmpty = _months == 0 && _weekdays == 0 && _monthDays.Length == 0 && _yearDays.Length == 0;
    }

    public bool IsEmpty { get; }

    /// <summary>Whether the day may stand; if not, the first later day that may.</summary>
    public bool Allows(int number, out int next)
    {
        next = number + 1;
        if (IsEmpty)
            return true;
        if (_weekdays != 0 && (_weekdays & 1 << DayNumbers.WeekdayIndex(number)) == 0)
            return false;
        if (_months == 0 && _monthDays.Length == 0 && _yearDays.Length == 0)
            return true;
        var (year, month, day) = DayNumbers.Civil(number);
        if (_months != 0 && (_months & 1 << month) == 0)
        {
            next = number - day + 1 + DayNumbers.DaysInMonth(year, month);
            return false;
        }
        return Holds(_monthDays, day, DayNumbers.DaysInMonth(year, month))
            && Holds(_yearDays, number - DayNumbers.Of(year, 1, 1) + 1, DayNumbers.IsLeap(year) ? 366 : 365);
    }

    /// <summary>Whether a list is empty or names a position, counted from the start or from the end.</summary>
    public static bool Holds(int[] list, int position, int length) =>
        list.Length == 0 || Array.IndexOf(list, position) >= 0 || Array.IndexOf(list, position - length - 1) >= 0;
}
