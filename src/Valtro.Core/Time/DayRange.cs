using NodaTime;

namespace Valtro.Core.Time;

/// <summary>The days that anything here is about: from 1900 to 2199.</summary>
public static class DayRange
{
    public static LocalDate First { get; } = new(1900, 1, 1);

    public static LocalDate Last { get; } = new(2199, 12, 31);

    public static bool Holds(LocalDate day) => day >= First && day <= Last;

    /// <summary>The day itself, or the nearest that is possible.</summary>
    public static LocalDate Nearest(LocalDate day) => LocalDate.Max(First, LocalDate.Min(Last, day));

    /// <exception cref="RuleException">It is none of them.</exception>
    public static LocalDate Check(string field, LocalDate day) =>
        Holds(day) ? day : throw new RuleException(field, "day.range", ("first", First.Year), ("last", Last.Year));
}
