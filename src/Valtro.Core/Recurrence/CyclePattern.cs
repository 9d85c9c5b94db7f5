using NodaTime;
using Valtro.Core.YearPlans;

namespace Valtro.Core.Recurrence;

/// <summary>What a series does about a date that falls in a break of the year plan.</summary>
public enum InBreaks
{
    /// <summary>It takes place all the same.</summary>
    Ignore,

    /// <summary>It falls out.</summary>
    Skip,

    /// <summary>It moves to the next open day of the same week, and falls out where there is none.</summary>
    Move,
}

/// <summary>A pattern that follows the day cycle: "every Day 3", "Tuesdays of Week B".</summary>
/// <param name="Numbers">Days of the cycle, or weeks (1 is A), ascending.</param>
/// <param name="Weekdays">In a cycle of weeks, on which of their days; empty means each school day.</param>
/// <param name="Until">The last possible day, inclusive.</param>
public sealed record CyclePattern(IReadOnlyList<int> Numbers, IReadOnlyList<IsoDayOfWeek> Weekdays, LocalDate? Until, int? Count)
{
    /// <summary>Ascending. It ends where the year plans end.</summary>
    public IEnumerable<LocalDate> Days(LocalDate start, SchoolCalendar school)
    {
        var days = school.DaysNumbered(Numbers, start).Where(day => Weekdays.Count == 0 || Weekdays.Contains(day.DayOfWeek));
        if (Until is { } until)
            days = days.TakeWhile(day => day <= until);
        return Count is { } count ? days.Take(count) : days;
    }

    public bool Equals(CyclePattern? other) =>
        other is not null
            && Until == other.Until
            && Count == other.Count
            && Numbers.SequenceEqual(other.Numbers)
            && Weekdays.SequenceEqual(other.Weekdays);

    public override int GetHashCode() => HashCode.Combine(Until, Count, Numbers.Count);
}
