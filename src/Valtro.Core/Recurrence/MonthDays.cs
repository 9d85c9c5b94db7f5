using System.Numerics;
using NodaTime;

namespace Valtro.Core.Recurrence;

/// <summary>The days of a month that BYMONTHDAY and BYDAY give, as bits: bit 0 is the first.</summary>
internal sealed class MonthDays
{
    /// <summary>Every seventh day from the first of the month on.</summary>
    private const uint EverySeventh = 0x10204081;

    private readonly int[] _monthDays;
    private readonly NumberedWeekday[] _weekdays;
    private readonly Skip _skip;

    public MonthDays(RuleParts parts, LocalDate start)
    {
        _weekdays = [.. parts.Weekdays];
        _monthDays = parts.MonthDays.Count == 0 && _weekdays.Length == 0 ? [start.Day] : [.. parts.MonthDays];
        _skip = parts.Skip;
        Most = Math.Min(32, _monthDays.Length + _weekdays.Sum(weekday => weekday.Ordinal == 0 ? 5 : 1) + 1);
    }

    /// <summary>Room for the days of a month and the one that may spill into the next.</summary>
    public int Most { get; }

    public SetSize Size
    {
        get
        {
            if (_monthDays.Length == 0)
                return SizeOfWeekdays();
            var inEveryMonth = _monthDays.All(day => day is >= 1 and <= 28) || _monthDays.All(day => day is <= -1 and >= -28);
            return _weekdays.Length == 0 && inEveryMonth ? SetSize.Exactly(_monthDays.Length) : SetSize.Unknown;
        }
    }

    private SetSize SizeOfWeekdays()
    {
        var oneSided = _weekdays.All(weekday => weekday.Ordinal is >= 1 and <= 4)
            || _weekdays.All(weekday => weekday.Ordinal is <= -1 and >= -4);
        if (oneSided)
            return SetSize.Exactly(_weekdays.Length);
        return _weekdays.All(weekday => weekday.Ordinal == 0) ? new SetSize(4 * _weekdays.Length, false) : SetSize.Unknown;
    }

    public void AddTo(Candidates candidates, int year, int month)
    {
        var first = DayNumbers.Of(year, month, 1);
        var length = DayNumbers.DaysInMonth(year, month);
        var firstWeekday = DayNumbers.WeekdayIndex(first);
        var spills = false;
        var days = _monthDays.Length == 0 ? Weekdays(firstWeekday, length) : ByMonthDay(length, out spills);
        if (_monthDays.Length > 0 && _weekdays.Length > 0)
        {
            // One day further is the first of the next month, where a day that the month does not have may spill to.
            spills &= (Plain(firstWeekday) >> length & 1) != 0;
            days &= Weekdays(firstWeekday, length);
        }
        for (; days != 0; days &= days - 1)
            candidates.Add(first + BitOperations.TrailingZeroCount(days));
        if (spills)
            candidates.Add(first + length);
    }

    private uint ByMonthDay(int length, out bool spills)
    {
        spills = false;
        var days = 0u;
        foreach (var day in _monthDays)
        {
            var index = day > 0 ? day - 1 : length + day;
            if (index >= 0 && index < length)
                days |= 1u << index;
            else if (index >= length && _skip == Skip.Backward)
                days |= 1u << (length - 1);
            else if (index >= length && _skip == Skip.Forward)
                spills = true;
        }
        return days;
    }

    private uint Weekdays(int firstWeekday, int length)
    {
        var days = 0u;
        foreach (var weekday in _weekdays)
        {
            var first = ((int)weekday.Weekday - 1 - firstWeekday + 7) % 7;
            var last = first + 7 * ((length - 1 - first) / 7);
            var index = weekday.Ordinal switch
            {
                0 => -1,
                > 0 => first + 7 * (weekday.Ordinal - 1),
                _ => last + 7 * (weekday.Ordinal + 1),
            };
            if (weekday.Ordinal == 0)
                days |= EverySeventh << first;
            else if (index >= 0 && index < length)
                days |= 1u << index;
        }
        return length == 31 ? days & 0x7FFFFFFF : days & ((1u << length) - 1);
    }

    /// <summary>The weekdays over 32 days, without their numbers.</summary>
    private uint Plain(int firstWeekday) =>
        _weekdays.Aggregate(0u, (days, weekday) => days | EverySeventh << (((int)weekday.Weekday - 1 - firstWeekday + 7) % 7));
}
