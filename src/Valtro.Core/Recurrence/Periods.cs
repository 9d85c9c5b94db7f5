using NodaTime;

namespace Valtro.Core.Recurrence;

/// <summary>
/// The first steps of expansion: the periods of a rule (each INTERVAL days, weeks …, counted from the start), and the candidates
/// of one period after the BYxxx parts have expanded or limited them. A frequency is a subclass; all that follows
/// (set positions, bounds) is the same for every frequency.
/// </summary>
internal abstract class Periods
{
    public static Periods Of(RecurrenceRule rule, LocalDateTime start) => rule.Frequency switch
    {
        Frequency.Daily => new DailyPeriods(rule.Parts, start),
        Frequency.Weekly => new WeeklyPeriods(rule.Parts, start),
        Frequency.Monthly => new MonthlyPeriods(rule.Parts, start),
        Frequency.Yearly => YearlyPeriods.Of(rule.Parts, start),
        _ => new ClockPeriods(rule.Parts, start),
    };

    /// <summary>A place for the candidates of one period.</summary>
    public abstract Candidates Room();

    public abstract SetSize Size { get; }

    /// <summary>The last period that begins on or before a moment; arithmetic, not a walk. May be negative.</summary>
    public abstract long IndexAtOrBefore(long moment);

    /// <summary>Whether a period begins before the year 10000.</summary>
    public abstract bool Exists(long index);

    /// <summary>Fills in the candidates of a period, ascending.</summary>
    public abstract void Fill(long index, Candidates candidates);

    /// <summary>True when a date may belong to the period before the one it lies in (SKIP=FORWARD).</summary>
    public virtual bool MaySpill => false;

    protected static long Floor(long value, long by) => value >= 0 ? value / by : (value - by + 1) / by;

    /// <summary>The times of a day that BYHOUR, BYMINUTE and BYSECOND expand to; the start's where they are silent.</summary>
    /// <remarks>A leap second (BYSECOND=60) never comes.</remarks>
    protected static int[] TimesOfDay(RuleParts parts, LocalTime start)
    {
        if (parts is { Hours.Count: 0, Minutes.Count: 0, Seconds.Count: 0 })
            return [start.Hour * 3_600 + start.Minute * 60 + start.Second];
        int[] hours = parts.Hours.Count > 0 ? [.. parts.Hours] : [start.Hour];
        return [.. hours.SelectMany(hour => TimesOfHour(parts, start).Select(second => hour * 3_600 + second))];
    }

    protected static int[] TimesOfHour(RuleParts parts, LocalTime start)
    {
        int[] minutes = parts.Minutes.Count > 0 ? [.. parts.Minutes] : [start.Minute];
        return [.. minutes.SelectMany(minute => TimesOfMinute(parts, start).Select(second => minute * 60 + second))];
    }

    protected static int[] TimesOfMinute(RuleParts parts, LocalTime start) =>
        parts.Seconds.Count > 0 ? [.. parts.Seconds.Where(second => second < 60)] : [start.Second];

    /// <summary>Periods of a fixed number of days.</summary>
    private abstract class FixedLength(RuleParts parts, LocalDateTime start, int anchor, int length) : Periods
    {
        protected int[] Times { get; } = TimesOfDay(parts, start.TimeOfDay);

        protected DayLimits Limits { get; } = new(parts);

        protected int FirstDay(long index) => (int)(anchor + index * length);

        public override long IndexAtOrBefore(long moment) => Floor(DayNumbers.DayOf(moment) - anchor, length);

        public override bool Exists(long index) => anchor + index * length <= DayNumbers.Last;

        /// <summary>The first period that reaches a day.</summary>
        protected long IndexReaching(int day, long atLeast) => Math.Max(atLeast, Floor(day - anchor, length));
    }

    private sealed class DailyPeriods(RuleParts parts, LocalDateTime start)
        : FixedLength(parts, start, DayNumbers.Of(start.Date), parts.Interval)
    {
        public override Candidates Room() => new(1, Times);

        public override SetSize Size => Limits.IsEmpty ? SetSize.Exactly(Times.Length) : SetSize.Unknown;

        public override void Fill(long index, Candidates candidates)
        {
            var day = FirstDay(index);
            var allowed = Limits.Allows(day, out var next);
            candidates.Clear(IndexReaching(next, index + 1));
            if (allowed)
                candidates.Add(day);
        }
    }

    private sealed class WeeklyPeriods(RuleParts parts, LocalDateTime start)
        : FixedLength(parts, start, DayNumbers.Of(start.Date) - DaysInto(parts.WeekStart, start.DayOfWeek), 7 * parts.Interval)
    {
        private readonly int[] _offsets =
            parts.Weekdays.Count == 0
                ? [DaysInto(parts.WeekStart, start.DayOfWeek)]
                : [.. parts.Weekdays.Select(weekday => DaysInto(parts.WeekStart, weekday.Weekday)).Order()];

        public override Candidates Room() => new(_offsets.Length, Times);

        public override SetSize Size => Limits.IsEmpty ? SetSize.Exactly(_offsets.Length * Times.Length) : SetSize.Unknown;

        public override void Fill(long index, Candidates candidates)
        {
            var first = FirstDay(index);
            candidates.Clear(index + 1);
            foreach (var offset in _offsets)
            {
                if (Limits.Allows(first + offset, out _))
                    candidates.Add(first + offset);
            }
        }

        private static int DaysInto(IsoDayOfWeek weekStart, IsoDayOfWeek weekday) => (weekday - weekStart + 7) % 7;
    }

    private sealed class MonthlyPeriods(RuleParts parts, LocalDateTime start) : Periods
    {
        private readonly int _anchor = start.Year * 12 + start.Month - 1;
        private readonly int[] _times = TimesOfDay(parts, start.TimeOfDay);
        private readonly int _months = parts.Months.Aggregate(0, (set, month) => set | 1 << month);
        private readonly MonthDays _days = new(parts, start.Date);

        public override Candidates Room() => new(_days.Most, _times);

        public override SetSize Size =>
            _months == 0 && _days.Size is var days && parts.Skip == Skip.Omit
                ? days with { Least = days.Least * _times.Length }
                : SetSize.Unknown;

        public override bool MaySpill => parts.Skip == Skip.Forward;

        public override long IndexAtOrBefore(long moment)
        {
            var (year, month, _) = DayNumbers.Civil(DayNumbers.DayOf(moment));
            return Floor(year * 12 + month - 1 - _anchor, parts.Interval);
        }

        public override bool Exists(long index) => _anchor + index * parts.Interval < 120_000;

        public override void Fill(long index, Candidates candidates)
        {
            var months = (int)(_anchor + index * parts.Interval);
            candidates.Clear(index + 1);
            if (_months == 0 || (_months & 1 << months % 12 + 1) != 0)
                _days.AddTo(candidates, months / 12, months % 12 + 1);
        }
    }
}
