using NodaTime;

namespace Valtro.Core.Recurrence;

/// <summary>
/// The first two steps of expansion: the periods of a rule (each INTERVAL days, weeks …, counted from the start),
/// and the candidate days of one period after the BYxxx parts have expanded or limited them.
/// A frequency is a subclass; all that follows (set positions, bounds) is the same for every frequency.
/// </summary>
internal abstract class Periods
{
    private static readonly LocalDate Epoch = new(1970, 1, 1);

    /// <summary>9999-12-31, the last day that RFC 5545 can write (3.3.4).</summary>
    protected static readonly int LastDayNumber = Number(new LocalDate(9999, 12, 31));

    public static Periods Of(RecurrenceRule rule, LocalDate start) => rule.Frequency switch
    {
        Frequency.Daily => new DailyPeriods(rule, start),
        Frequency.Weekly => new WeeklyPeriods(rule, start),
        _ => throw new InvalidOperationException($"No periods for {rule.Frequency}."),
    };

    /// <summary>Room that <see cref="Fill"/> needs.</summary>
    public abstract int MostDays { get; }

    /// <summary>The number of candidate days that every period has, or null where it differs from period to period.</summary>
    public abstract int? DaysPerPeriod { get; }

    /// <summary>The last period that begins on or before a day; arithmetic, not a walk. Never below 0.</summary>
    public abstract int IndexAtOrBefore(int dayNumber);

    /// <summary>Whether a period begins within the calendar at all.</summary>
    public abstract bool Exists(int index);

    /// <summary>Writes the candidate days of a period, ascending.</summary>
    /// <returns>How many there are.</returns>
    public abstract int Fill(int index, Span<int> days);

    public static int Number(LocalDate date) => Period.DaysBetween(Epoch, date);

    public static LocalDate Date(int dayNumber) => Epoch.PlusDays(dayNumber);

    /// <summary>Periods of a fixed number of days.</summary>
    private abstract class FixedLength(int anchor, int length) : Periods
    {
        protected int FirstDay(int index) => (int)(anchor + (long)index * length);

        public override int IndexAtOrBefore(int dayNumber) => dayNumber <= anchor ? 0 : (dayNumber - anchor) / length;

        public override bool Exists(int index) => anchor + (long)index * length <= LastDayNumber;
    }

    private sealed class DailyPeriods(RecurrenceRule rule, LocalDate start) : FixedLength(Number(start), rule.Interval)
    {
        private readonly int _weekdays = rule.Weekdays.Aggregate(0, (set, weekday) => set | 1 << (int)weekday);

        public override int MostDays => 1;

        public override int? DaysPerPeriod => _weekdays == 0 ? 1 : null;

        public override int Fill(int index, Span<int> days)
        {
            var day = FirstDay(index);
            if (_weekdays != 0 && (_weekdays & 1 << (int)Weekday(day)) == 0)
                return 0;
            days[0] = day;
            return 1;
        }
    }

    private sealed class WeeklyPeriods(RecurrenceRule rule, LocalDate start)
        : FixedLength(Number(start) - DaysInto(rule.WeekStart, start.DayOfWeek), 7 * rule.Interval)
    {
        private readonly int[] _offsets = (rule.Weekdays.Count > 0 ? rule.Weekdays : [start.DayOfWeek])
            .Select(weekday => DaysInto(rule.WeekStart, weekday))
            .Order()
            .ToArray();

        public override int MostDays => _offsets.Length;

        public override int? DaysPerPeriod => _offsets.Length;

        public override int Fill(int index, Span<int> days)
        {
            var first = FirstDay(index);
            var count = 0;
            foreach (var offset in _offsets)
            {
                if (first + offset <= LastDayNumber)
                    days[count++] = first + offset;
            }
            return count;
        }

        private static int DaysInto(IsoDayOfWeek weekStart, IsoDayOfWeek weekday) => (weekday - weekStart + 7) % 7;
    }

    /// <summary>1970-01-01 was a Thursday.</summary>
    private static IsoDayOfWeek Weekday(int dayNumber) => (IsoDayOfWeek)(((dayNumber + 3) % 7 + 7) % 7 + 1);
}
