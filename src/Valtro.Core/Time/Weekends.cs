using NodaTime;

namespace Valtro.Core.Time;

/// <summary>The days on which there is no school, whatever the first day of the week is.</summary>
internal static class Weekends
{
    public static bool IsWeekend(this LocalDate day) => day.DayOfWeek is IsoDayOfWeek.Saturday or IsoDayOfWeek.Sunday;
}
