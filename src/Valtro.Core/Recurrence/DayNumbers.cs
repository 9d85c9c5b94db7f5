using NodaTime;

namespace Valtro.Core.Recurrence;

/// <summary>Days as numbers from 1970-01-01, and moments as local seconds from its midnight: what expansion counts in.</summary>
/// <remarks>Gregorian, as RFC 5545; by the usual shift of the year to March, so that leap days come last.</remarks>
internal static class DayNumbers
{
    public const int SecondsOfDay = 86_400;

    /// <summary>The last day on which a date begins: whatever its length and zone, its end can still be written (RFC 5545 3.3.4 has four
    /// digits for a year).</summary>
    public static readonly int Last = Of(9990, 12, 31);

    public static int Of(LocalDate date) => Of(date.Year, date.Month, date.Day);

    public static int Of(int year, int month, int day)
    {
        var shifted = month <= 2 ? year - 1 : year;
        var era = (shifted >= 0 ? shifted : shifted - 399) / 400;
        var yearOfEra = shifted - era * 400;
        var dayOfYear = (153 * (month > 2 ? month - 3 : month + 9) + 2) / 5 + day - 1;
        var dayOfEra = yearOfEra * 365 + yearOfEra / 4 - yearOfEra / 100 + dayOfYear;
        return era * 146_097 + dayOfEra - 719_468;
    }

    public static (int Year, int Month, int Day) Civil(int number)
    {
        var shifted = number + 719_468;
        var era = (shifted >= 0 ? shifted : shifted - 146_096) / 146_097;
        var dayOfEra = shifted - era * 146_097;
        var yearOfEra = (dayOfEra - dayOfEra / 1_460 + dayOfEra / 36_524 - dayOfEra / 146_096) / 365;
        var dayOfYear = dayOfEra - (365 * yearOfEra + yearOfEra / 4 - yearOfEra / 100);
        var monthFromMarch = (5 * dayOfYear + 2) / 153;
        var month = monthFromMarch < 10 ? monthFromMarch + 3 : monthFromMarch - 9;
        return (yearOfEra + era * 400 + (month <= 2 ? 1 : 0), month, dayOfYear - (153 * monthFromMarch + 2) / 5 + 1);
    }

    public static LocalDate Date(int number)
    {
        var (year, month, day) = Civil(number);
        return new LocalDate(year, month, day);
    }

    public static bool IsLeap(int year) => year % 4 == 0 && (year % 100 != 0 || year % 400 == 0);

    public static int DaysInMonth(int year, int month) => month switch
    {
        2 => IsLeap(year) ? 29 : 28,
        4 or 6 or 9 or 11 => 30,
        _ => 31,
    };

    /// <summary>0 is Monday. 1970-01-01 was a Thursday.</summary>
    public static int WeekdayIndex(int number) => ((number + 3) % 7 + 7) % 7;

    public static long Moment(LocalDateTime local) =>
        (long)Of(local.Date) * SecondsOfDay + local.TimeOfDay.TickOfDay / NodaConstants.TicksPerSecond;

    public static int DayOf(long moment) => moment >= 0 ? (int)(moment / SecondsOfDay) : (int)((moment + 1) / SecondsOfDay) - 1;
}
