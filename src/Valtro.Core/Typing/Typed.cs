using System.Globalization;
using System.Text.RegularExpressions;
using NodaTime;

namespace Valtro.Core.Typing;

/// <summary>Reads times, days and weekdays as people type them.</summary>
public static partial class Typed
{
    /// <summary>9, 9:30, 930, 9.30pm, 21:30; with the word that a language puts after it ("14 Uhr"). Null when it is none.</summary>
    public static LocalTime? Time(string text, CultureInfo culture)
    {
        var match = TimeForm().Match(Grammar.Of(culture).Without("oClock", text) ?? text);
        if (!match.Success)
            return null;
        var hour = int.Parse(match.Groups["hour"].ValueSpan, CultureInfo.InvariantCulture);
        var minute = match.Groups["minute"].Success ? int.Parse(match.Groups["minute"].ValueSpan, CultureInfo.InvariantCulture) : 0;
        if (match.Groups["half"] is { Success: true } half)
        {
            if (hour is < 1 or > 12)
                return null;
            hour = hour % 12 + (half.Value[0] is 'p' or 'P' ? 12 : 0);
        }
        return hour > 23 || minute > 59 ? null : new LocalTime(hour, minute);
    }

    /// <summary>24 Nov, 24 November 2026, 24.11., 24/11/26, 2026-11-24, today, tomorrow, or a weekday: the next one from today on. Null
    /// when it is none.</summary>
    /// <remarks>Without a year the nearest one is meant: in December, "8 Jan" is next year's.</remarks>
    public static LocalDate? Day(string text, CultureInfo culture, LocalDate today)
    {
        var plain = text.Trim().ToLower(culture).TrimEnd('.', ',');
        var grammar = Grammar.Of(culture);
        if (grammar.Is("today", plain))
            return today;
        if (grammar.Is("tomorrow", plain))
            return today.PlusDays(1);
        if (Weekday(plain, culture) is { } weekday)
            return today.With(DateAdjusters.NextOrSame(weekday));
        if (IsoForm().Match(plain) is { Success: true } iso)
            return Date(Number(iso, 1), Number(iso, 2), Number(iso, 3));
        if (NamedForm().Match(plain) is { Success: true } named && Month(named.Groups["month"].Value, culture) is { } month)
            return FromParts(Number(named, "day"), month, named.Groups["year"].Success ? Number(named, "year") : null, today);
        if (NumberForm().Match(plain) is not { Success: true } numbers)
            return null;
        var (first, second) = (Number(numbers, 1), Number(numbers, 2));
        var dayFirst = culture.DateTimeFormat.ShortDatePattern.IndexOf(
            'd', StringComparison.Ordinal) < culture.DateTimeFormat.ShortDatePattern.IndexOf('M', StringComparison.Ordinal);
        var year = numbers.Groups["year"].Success ? Number(numbers, "year") : default(int?);
        return dayFirst ? FromParts(first, second, year, today) : FromParts(second, first, year, today);
    }

    /// <summary>Tue, Tuesday, Tuesdays. Three letters are enough, or as many as the culture shortens it to ("Di").</summary>
    public static IsoDayOfWeek? Weekday(string text, CultureInfo culture)
    {
        var plain = text.Trim().ToLower(culture).TrimEnd('.', ',');
        for (var weekday = 1; weekday <= 7 && plain.Length >= 2; weekday++)
        {
            var name = culture.DateTimeFormat.GetDayName((DayOfWeek)(weekday % 7)).ToLower(culture);
            if (plain == culture.DateTimeFormat.GetAbbreviatedDayName((DayOfWeek)(weekday % 7)).ToLower(culture).TrimEnd('.'))
                return (IsoDayOfWeek)weekday;
            if (plain.Length < 3)
                continue;
            if (name.StartsWith(plain, StringComparison.Ordinal)
                || plain == name + "s"
                || (plain.Length == 4 && plain[3] == 's' && name.StartsWith(plain[..3], StringComparison.Ordinal)))
                return (IsoDayOfWeek)weekday;
        }
        return null;
    }

    /// <summary>1 to 12. Three letters are enough.</summary>
    public static int? Month(string text, CultureInfo culture)
    {
        var plain = text.Trim().ToLower(culture).TrimEnd('.');
        for (var month = 1; month <= 12 && plain.Length >= 3; month++)
        {
            var name = culture.DateTimeFormat.GetMonthName(month).ToLower(culture);
            if (name.StartsWith(plain, StringComparison.Ordinal) || plain == "sept" && month == 9)
                return month;
        }
        return null;
    }

    private static LocalDate? FromParts(int day, int month, int? year, LocalDate today)
    {
        if (year is { } said)
            return Date(said < 100 ? 2000 + said : said, month, day);
        return new[] { today.Year - 1, today.Year, today.Year + 1 }
            .Select(one => Date(one, month, day))
            .OfType<LocalDate>()
            .OrderBy(date => Math.Abs(Period.DaysBetween(today, date)))
            .Select(date => (LocalDate?)date)
            .FirstOrDefault();
    }

    private static LocalDate? Date(int year, int month, int day) =>
        year is >= 1900 and <= 2199 && month is >= 1 and <= 12 && day >= 1 && day <= CalendarSystem.Iso.GetDaysInMonth(year, month)
            ? new LocalDate(year, month, day)
            : null;

    private static int Number(Match match, int group) => int.Parse(match.Groups[group].ValueSpan, CultureInfo.InvariantCulture);

    private static int Number(Match match, string group) => int.Parse(match.Groups[group].ValueSpan, CultureInfo.InvariantCulture);

    [GeneratedRegex(@"^\s*(?<hour>\d{1,2})(?:[:.h]?(?<minute>\d{2}))?\s*(?<half>am|pm|a\.m\.|p\.m\.)?\s*$",
        RegexOptions.IgnoreCase | RegexOptions.CultureInvariant)]
    private static partial Regex TimeForm();

    [GeneratedRegex(@"^(\d{4})-(\d{1,2})-(\d{1,2})$")]
    private static partial Regex IsoForm();

    [GeneratedRegex(@"^(?:\p{L}{2,10}[.,]?\s+)?(?<day>\d{1,2})(?:st|nd|rd|th|\.)?\s*(?<month>\p{L}{3,}\.?)(?:,?\s+(?<year>\d{4}|\d{2}))?$")]
    private static partial Regex NamedForm();

    [GeneratedRegex(@"^(\d{1,2})[./-](\d{1,2})(?:[./-](?<year>\d{4}|\d{2})?)?$")]
    private static partial Regex NumberForm();
}
