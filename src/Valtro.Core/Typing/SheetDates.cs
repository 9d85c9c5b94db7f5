using System.Globalization;
using System.Text.RegularExpressions;
using Valtro.Core.Intake;

namespace Valtro.Core.Typing;

/// <summary>Days and times as cells of a sheet have them.</summary>
public static partial class SheetDates
{
    /// <summary>What the days of a column show of the order of their numbers: one after 12 is no month.</summary>
    /// <returns>The order; null where nothing shows it. And whether any of them could be read in either.</returns>
    public static (DayOrder? Shown, bool IsAmbiguous) OrderOf(IEnumerable<string> cells)
    {
        DayOrder? shown = null;
        var isAmbiguous = false;
        foreach (var match in cells.Select(cell => Numbers().Match(cell.Trim())).Where(match => match.Success))
        {
            var (one, two) = (Number(match, "one"), Number(match, "two"));
            if (one > 12 && two <= 12)
                shown ??= DayOrder.DayFirst;
            else if (two > 12 && one <= 12)
                shown ??= DayOrder.MonthFirst;
            else
                isAmbiguous |= one != two;
        }
        return (shown, isAmbiguous);
    }

    /// <summary>The locale says itself in which order numbers of days stand.</summary>
    public static bool IsOrderKnown(CultureInfo culture) => Grammar.Of(culture).DayComesFirst('/') is not null;

    /// <summary>A day in numbers as every reader takes it: 2026-12-04.</summary>
    /// <returns>The cell as it is where it is no day in numbers, or that order makes none of it.</returns>
    public static string Plain(string cell, DayOrder order)
    {
        var match = order == DayOrder.AsUsual ? Match.Empty : Numbers().Match(cell.Trim());
        if (!match.Success)
            return cell;
        var (one, two, year) = (Number(match, "one"), Number(match, "two"), Number(match, "year"));
        var (day, month) = order == DayOrder.DayFirst ? (one, two) : (two, one);
        return day is < 1 or > 31 || month is < 1 or > 12
            ? cell
            : string.Create(CultureInfo.InvariantCulture, $"{(year < 100 ? 2000 + year : year):0000}-{month:00}-{day:00}")
                + match.Groups["rest"].Value;
    }

    /// <summary>Day and time that may stand in one cell, whichever of the two it is.</summary>
    public static (string? Day, string? Time) Apart(string? day, string? time)
    {
        if (BothIn(day) is { } inDay)
            return (inDay.Day, string.IsNullOrEmpty(time) || BothIn(time) is not null ? inDay.Time : time);
        if (BothIn(time) is { } inTime)
            return (string.IsNullOrEmpty(day) ? inTime.Day : day, inTime.Time);
        return string.IsNullOrEmpty(day) && time is not null && LooksLikeDay().IsMatch(time.Trim()) ? (time, null) : (day, time);
    }

    private static (string Day, string Time)? BothIn(string? cell)
    {
        var match = DayAndTime().Match(cell?.Trim() ?? "");
        return match.Success ? (match.Groups["day"].Value.TrimEnd(',', ' '), match.Groups["time"].Value) : null;
    }

    private static int Number(Match match, string name) => int.Parse(match.Groups[name].Value, CultureInfo.InvariantCulture);

    [GeneratedRegex(@"^(?<one>\d{1,2})[/.-](?<two>\d{1,2})[/.-](?<year>\d{4}|\d{2})(?<rest>\D.*)?$", RegexOptions.ExplicitCapture)]
    private static partial Regex Numbers();

    [GeneratedRegex(
        @"^(?<day>.*\d.*?)(T| +|, *)(?<time>\d{1,2}[:.]\d\d( *[AaPp]\.?[Mm]\.?)?)(:\d\d(\.\d+)?)?( *[AaPp]\.?[Mm]\.?)?(Z|[+-]\d\d:?\d\d)?$",
        RegexOptions.ExplicitCapture)]
    private static partial Regex DayAndTime();

    [GeneratedRegex(@"^(\d{4}-\d\d?-\d\d?|\d{1,2}[/.-]\d{1,2}[/.-]\d{2,4})$", RegexOptions.ExplicitCapture)]
    private static partial Regex LooksLikeDay();
}
