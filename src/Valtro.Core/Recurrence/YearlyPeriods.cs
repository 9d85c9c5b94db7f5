using NodaTime;

namespace Valtro.Core.Recurrence;

/// <summary>Years: as a union of months where the parts allow it, else by looking at each day of the year.</summary>
internal abstract class YearlyPeriods(RuleParts parts, LocalDateTime start) : Periods
{
    protected int[] Times { get; } = TimesOfDay(parts, start.TimeOfDay);

    public static YearlyPeriods Of(RuleParts parts, LocalDateTime start)
    {
        var countsOverTheYear = parts.Weekdays.Count > 0 && parts.Months.Count == 0
            && (parts.MonthDays.Count == 0 || parts.Weekdays.Any(weekday => weekday.Ordinal != 0));
        return parts.YearDays.Count > 0 || parts.WeekNumbers.Count > 0 || countsOverTheYear
            ? new DayByDay(parts, start)
            : new ByMonth(parts, start);
    }

    public override long IndexAtOrBefore(long moment) =>
        Floor(DayNumbers.Civil(DayNumbers.DayOf(moment)).Year - start.Year, parts.Interval);

    public override bool Exists(long index) => start.Year + index * parts.Interval <= 9990;

    protected int Year(long index) => (int)(start.Year + index * parts.Interval);

    private sealed class ByMonth(RuleParts parts, LocalDateTime start) : YearlyPeriods(parts, start)
    {
        private readonly MonthDays _days = new(parts, start.Date);
        private readonly RuleParts _parts = parts;
        private readonly int[] _months = parts.Months.Count > 0
            ? [.. parts.Months]
            : parts.MonthDays.Count > 0
            ? [.. Enumerable.Range(1, 12)]
            : [start.Month];

        public override Candidates Room() => new(_months.Length * _days.Most, Times);

        public override bool MaySpill => _parts.Skip == Skip.Forward;

        public override SetSize Size => _parts.Skip == Skip.Omit && _days.Size is var days
            ? days with { Least = days.Least * _months.Length * Times.Length }
            : SetSize.Unknown;

        public override void Fill(long index, Candidates candidates)
        {
            candidates.Clear(index + 1);
            foreach (var month in _months)
                _days.AddTo(candidates, Year(index), month);
        }
    }

    /// <summary>BYYEARDAY, BYWEEKNO, and BYDAY counted over the year: every part is a test that each day passes or not.</summary>
    private sealed class DayByDay(RuleParts parts, LocalDateTime start) : YearlyPeriods(parts, start)
    {
        private readonly int _months = parts.Months.Aggregate(0, (set, month) => set | 1 << month);
        private readonly int[] _monthDays = [.. parts.MonthDays];
        private readonly int[] _yearDays = [.. parts.YearDays];
        private readonly int[] _weekNumbers = [.. parts.WeekNumbers];
        private readonly int _weekStart = (int)parts.WeekStart - 1;

        /// <summary>BYWEEKNO alone means the weekday of the start.</summary>
        private readonly NumberedWeekday[] _weekdays =
            parts.Weekdays.Count == 0 && parts.MonthDays.Count == 0 && parts.YearDays.Count == 0
                ? [new(start.DayOfWeek)]
                : [.. parts.Weekdays];

        public override Candidates Room() => new(366, Times);

        public override SetSize Size => SetSize.Unknown;

        public override void Fill(long index, Candidates candidates)
        {
            candidates.Clear(index + 1);
            var year = Year(index);
            var first = DayNumbers.Of(year, 1, 1);
            var length = DayNumbers.IsLeap(year) ? 366 : 365;
            for (int number = first, month = 1, day = 1; number < first + length; number++)
            {
                if (Passes(number, month, day, DayNumbers.DaysInMonth(year, month), number - first + 1, length))
                    candidates.Add(number);
                if (++day > DayNumbers.DaysInMonth(year, month))
                    (month, day) = (month + 1, 1);
            }
        }

        private bool Passes(int number, int month, int day, int daysInMonth, int dayOfYear, int daysInYear) =>
            (_months == 0 || (_months & 1 << month) != 0)
            && DayLimits.Holds(_monthDays, day, daysInMonth)
            && DayLimits.Holds(_yearDays, dayOfYear, daysInYear)
            && (_months != 0 ? IsWeekday(number, day, daysInMonth) : IsWeekday(number, dayOfYear, daysInYear))
            && (_weekNumbers.Length == 0 || IsInWeek(number));

        /// <summary>A number before a weekday counts in the month when there is BYMONTH, else in the year.</summary>
        private bool IsWeekday(int number, int position, int length)
        {
            if (_weekdays.Length == 0)
                return true;
            var weekday = (IsoDayOfWeek)(DayNumbers.WeekdayIndex(number) + 1);
            foreach (var wanted in _weekdays)
            {
                if (wanted.Weekday == weekday
                    && (wanted.Ordinal == 0
                        || wanted.Ordinal == (position - 1) / 7 + 1
                        || wanted.Ordinal == -((length - position) / 7) - 1))
                    return true;
            }
            return false;
        }

        /// <summary>Week 1 is the first with at least four days in the year (RFC 5545 3.3.10, BYWEEKNO; ISO 8601 with WKST=MO).</summary>
        private bool IsInWeek(int number)
        {
            var first = number - (DayNumbers.WeekdayIndex(number) - _weekStart + 7) % 7;
            var middle = first + 3;
            var year = DayNumbers.Civil(middle).Year;
            var week = (middle - DayNumbers.Of(year, 1, 1)) / 7 + 1;
            var lastMiddle = DayNumbers.Of(year, 12, 31);
            lastMiddle -= (DayNumbers.WeekdayIndex(lastMiddle) - (_weekStart + 3) % 7 + 7) % 7;
            return DayLimits.Holds(_weekNumbers, week, (lastMiddle - DayNumbers.Of(year, 1, 1)) / 7 + 1);
        }
    }
}
