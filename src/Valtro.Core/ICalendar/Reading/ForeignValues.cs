using System.Globalization;
using System.Text;
using System.Text.RegularExpressions;
using NodaTime;

namespace Valtro.Core.ICalendar.Reading;

/// <summary>A date or a time as a file says it (RFC 5545 3.3.4, 3.3.5).</summary>
/// <param name="IsDate">A day; then <paramref name="Local"/> is its midnight.</param>
/// <param name="Zone">TZID; "UTC" where it says Z; null where it says none.</param>
public readonly record struct ForeignTime(LocalDateTime Local, bool IsDate, string? Zone);

/// <summary>Reads values of properties as they are in the wild.</summary>
public static partial class ForeignValues
{
    /// <summary>TEXT (RFC 5545 3.3.11), with real line ends; a backslash before anything else is one.</summary>
    public static string Text(string value)
    {
        if (!value.Contains('\\', StringComparison.Ordinal))
            return value;
        var text = new StringBuilder(value.Length);
        for (var index = 0; index < value.Length; index++)
        {
            if (value[index] != '\\' || index + 1 == value.Length)
            {
                text.Append(value[index]);
                continue;
            }
            index++;
            _ = value[index] switch
            {
                'n' or 'N' => text.Append('\n'),
                ',' or ';' or '\\' or ':' or '"' => text.Append(value[index]),
                _ => text.Append('\\').Append(value[index]),
            };
        }
        return text.ToString();
    }

    /// <summary>The value of a parameter, in which quotes and line ends are written with a circumflex (RFC 6868 3).</summary>
    public static string Parameter(string value) => Circumflex().Replace(value, one => one.Value[1] switch
    {
        'n' => "\n",
        '\'' => "\"",
        _ => "^",
    });

    /// <summary>Values with commas between, each as it stands there.</summary>
    public static IEnumerable<string> List(string value)
    {
        var start = 0;
        for (var index = 0; index < value.Length; index++)
        {
            if (value[index] == '\\')
                index++;
            else if (value[index] == ',')
            {
                yield return value[start..index];
                start = index + 1;
            }
        }
        yield return value[start..];
    }

    /// <summary>Each of the times of a line; null for one that is none.</summary>
    public static IEnumerable<ForeignTime?> Times(ForeignLine line) => List(line.Value).Select(one => Time(one, line.Parameter("TZID")));

    /// <summary>20261204, 20261204T090000, with a Z behind it; also with dashes and colons, and without seconds.</summary>
    /// <returns>Null where it is none, or no day of any calendar.</returns>
    public static ForeignTime? Time(string text, string? zone = null)
    {
        var match = TimePattern().Match(text.Trim());
        if (!match.Success)
            return null;
        int Part(string name) =>
            match.Groups[name].Success ? int.Parse(match.Groups[name].Value, CultureInfo.InvariantCulture) : 0;
        var (year, month, day) = (Part("year"), Part("month"), Part("day"));
        if (year is < 1 or > 9999 || month is < 1 or > 12 || day < 1 || day > CalendarSystem.Iso.GetDaysInMonth(year, month))
            return null;
        var date = new LocalDate(year, month, day);
        if (!match.Groups["hour"].Success)
            return new ForeignTime(date.AtMidnight(), true, null);
        var (hour, minute, second) = (Part("hour"), Part("minute"), Part("second"));
        if (hour > 24 || minute > 59 || second > 60 || hour == 24 && minute + second > 0)
            return null;
        // RFC 5545 3.3.12 knows a leap second, and no clock here does.
        var local = date.AtMidnight().PlusMinutes(hour * 60 + minute).PlusSeconds(Math.Min(second, 59));
        return new ForeignTime(local, false, match.Groups["utc"].Success ? "UTC" : string.IsNullOrWhiteSpace(zone) ? null : zone);
    }

    /// <summary>P1DT2H, -PT15M, P2W (RFC 5545 3.3.6); also as "PT" with what belongs before it.</summary>
    /// <returns>Null where it is none.</returns>
    public static Duration? Length(string text)
    {
        var match = LengthPattern().Match(text.Trim().ToUpperInvariant());
        if (!match.Success || !match.Groups.Cast<Group>().Skip(2).Any(group => group.Success))
            return null;
        double Part(string name) =>
            match.Groups[name].Success ? double.Parse(match.Groups[name].Value, CultureInfo.InvariantCulture) : 0;
        var seconds = ((Part("weeks") * 7 + Part("days")) * 24 + Part("hours")) * 3_600 + Part("minutes") * 60 + Part("seconds");
        return seconds > 1e10 ? null : Duration.FromSeconds(match.Groups["sign"].Value == "-" ? -seconds : seconds);
    }

    /// <summary>+0100, -033000 (RFC 5545 3.3.14).</summary>
    /// <returns>Null where it is none.</returns>
    public static Offset? OffsetOf(string? text)
    {
        var match = OffsetPattern().Match(text?.Trim() ?? "");
        if (!match.Success)
            return null;
        int Part(string name) =>
            match.Groups[name].Success ? int.Parse(match.Groups[name].Value, CultureInfo.InvariantCulture) : 0;
        var seconds = Part("hours") * 3_600 + Part("minutes") * 60 + Part("seconds");
        return seconds > 18 * 3_600 ? null : Offset.FromSeconds(match.Groups["sign"].Value == "-" ? -seconds : seconds);
    }

    [GeneratedRegex("\\^[n'^]")]
    private static partial Regex Circumflex();

    [GeneratedRegex(
        @"^(?<year>\d{4})-?(?<month>\d\d)-?(?<day>\d\d)([Tt ](?<hour>\d\d):?(?<minute>\d\d)(:?(?<second>\d\d)(\.\d+)?)?(?<utc>[Zz])?)?$")]
    private static partial Regex TimePattern();

    [GeneratedRegex(
        @"^(?<sign>[+-])?P((?<weeks>\d{1,6})W)?((?<days>\d{1,6})D)?(T?((?<hours>\d{1,6})H)?((?<minutes>\d{1,7})M)?((?<seconds>\d{1,9})S)?)?$",
        RegexOptions.ExplicitCapture)]
    private static partial Regex LengthPattern();

    [GeneratedRegex(@"^(?<sign>[+-])?(?<hours>\d\d):?(?<minutes>\d\d)(:?(?<seconds>\d\d))?$", RegexOptions.ExplicitCapture)]
    private static partial Regex OffsetPattern();
}
