using System.Globalization;
using System.Text.RegularExpressions;
using NodaTime;

namespace Valtro.Core.ICalendar.Checking;

/// <summary>A date or a time, as far as it can be read.</summary>
internal readonly record struct CheckedTime(LocalDateTime Local, bool IsDate, bool IsUtc, string? Zone);

/// <summary>Values as RFC 5545 3.3 writes them.</summary>
internal static partial class ValueCheck
{
    /// <summary>RFC 5545 3.3.4, 3.3.5. Says what is wrong with a date or a time.</summary>
    public static CheckedTime? Time(CheckedLine line, string text, int at, bool isDate, FaultList faults)
    {
        var zone = line["TZID"];
        if (isDate)
        {
            if (!DateForm().IsMatch(text))
            {
                faults.Add(line, at, DateTimeForm().IsMatch(text) ? "timeWhereDate" : "dateForm", FaultSeverity.Error, "RFC 5545 3.3.4", ("text", LineCheck.Short(text)));
                return null;
            }
            if (Date(text) is not { } day)
            {
                faults.Add(line, at, "noSuchDay", FaultSeverity.Error, "RFC 5545 3.3.4", ("text", text));
                return null;
            }
            if (zone is not null)
                faults.Add(line, line.Parameter("TZID")!.Value.At, "zoneOfDate", FaultSeverity.Error, "RFC 5545 3.2.19", ("name", line.Name));
            return new CheckedTime(day.AtMidnight(), true, false, null);
        }
        if (!DateTimeForm().IsMatch(text))
        {
            faults.Add(line, at, DateForm().IsMatch(text) ? "dateWithoutType" : "timeForm", FaultSeverity.Error, "RFC 5545 3.3.5", ("text", LineCheck.Short(text)),
                ("name", line.Name));
            return Date(text) is { } only ? new CheckedTime(only.AtMidnight(), true, false, null) : null;
        }
        if (Date(text[..8]) is not { } date)
        {
            faults.Add(line, at, "noSuchDay", FaultSeverity.Error, "RFC 5545 3.3.4", ("text", text[..8]));
            return null;
        }
        var (hour, minute, second) = (Two(text, 9), Two(text, 11), Two(text, 13));
        if (hour > 23 || minute > 59 || second > 60)
        {
            faults.Add(line, at + 9, "noSuchTime", FaultSeverity.Error, "RFC 5545 3.3.12", ("text", text[9..15]));
            return null;
        }
        if (second == 60)
            faults.Add(line, at + 13, "leapSecond", FaultSeverity.Note, "RFC 5545 3.3.12");
        var isUtc = text[^1] == 'Z';
        if (isUtc && zone is not null)
            faults.Add(line, line.Parameter("TZID")!.Value.At, "zoneOfUtc", FaultSeverity.Error, "RFC 5545 3.2.19", ("name", line.Name));
        return new CheckedTime(date + new LocalTime(hour, minute, Math.Min(second, 59)), false, isUtc, isUtc ? null : zone);
    }

    private static int Two(string text, int at) => (text[at] - '0') * 10 + text[at + 1] - '0';

    private static LocalDate? Date(string text)
    {
        if (!DateForm().IsMatch(text))
            return null;
        var (year, month, day) = (int.Parse(text[..4], CultureInfo.InvariantCulture), Two(text, 4), Two(text, 6));
        return year > 0 && month is >= 1 and <= 12 && day >= 1 && day <= CalendarSystem.Iso.GetDaysInMonth(year, month)
            ? new LocalDate(year, month, day)
            : null;
    }

    /// <summary>RFC 5545 3.3.6; seconds, days counting as 24 hours. Null where it is none.</summary>
    public static (long Seconds, bool IsOfDays)? Duration(string text)
    {
        var found = DurationForm().Match(text);
        if (!found.Success)
            return null;
        long Part(string name) => found.Groups[name].Success ? long.Parse(found.Groups[name].Value, CultureInfo.InvariantCulture) : 0;
        var seconds = ((Part("w") * 7 + Part("d")) * 24 + Part("h")) * 3_600 + Part("m") * 60 + Part("s");
        return (text[0] == '-' ? -seconds : seconds, !found.Groups["h"].Success && !found.Groups["m"].Success && !found.Groups["s"].Success);
    }

    /// <summary>RFC 5545 3.3.14, in seconds.</summary>
    public static int? Offset(string text) => OffsetForm().IsMatch(text)
        && Two(text, 1) * 3_600 + Two(text, 3) * 60 + (text.Length == 7 ? Two(text, 5) : 0) is var seconds
            ? text[0] == '-' ? -seconds : seconds
            : null;

    [GeneratedRegex(@"^\d{8}$", RegexOptions.CultureInvariant)]
    private static partial Regex DateForm();

    [GeneratedRegex(@"^\d{8}T\d{6}Z?$", RegexOptions.CultureInvariant)]
    private static partial Regex DateTimeForm();

    [GeneratedRegex(@"^[+-]?P(?:(?<w>\d{1,6})W|(?=\d|T\d)(?:(?<d>\d{1,6})D)?(?:T(?=\d)(?:(?<h>\d{1,6})H)?(?:(?<m>\d{1,6})M)?(?:(?<s>\d{1,9})S)?)?)$",
        RegexOptions.CultureInvariant)]
    private static partial Regex DurationForm();

    [GeneratedRegex(@"^[+-]([01]\d|2[0-3])[0-5]\d([0-5]\d)?$", RegexOptions.CultureInvariant)]
    private static partial Regex OffsetForm();
}
