using System.Globalization;
using System.Text;
using NodaTime;
using NodaTime.Text;

namespace Valtro.Core.Recurrence;

/// <summary>Reads and writes the value of RRULE (RFC 5545 3.3.10 and 3.8.5.3).</summary>
public static class RuleText
{
    public const int LongestRule = 1_000;

    private static readonly LocalDatePattern DatePattern = LocalDatePattern.CreateWithInvariantCulture("uuuuMMdd");
    private static readonly InstantPattern MomentPattern = InstantPattern.CreateWithInvariantCulture("uuuuMMdd'T'HHmmss'Z'");
    private static readonly string[] WeekdayCodes = ["MO", "TU", "WE", "TH", "FR", "SA", "SU"];

    private static readonly HashSet<string> LaterFrequencies = ["SECONDLY", "MINUTELY", "HOURLY", "MONTHLY", "YEARLY"];

    private static readonly HashSet<string> LaterParts =
        ["BYSECOND", "BYMINUTE", "BYHOUR", "BYMONTHDAY", "BYYEARDAY", "BYWEEKNO", "BYMONTH", "BYSETPOS", "RSCALE", "SKIP"];

    /// <exception cref="RuleException">The text is no rule, or one that is not expanded yet; the field is the part.</exception>
    public static RecurrenceRule Parse(string text)
    {
        if (text.Length > LongestRule)
            throw new RuleException("RRULE", $"The rule has {text.Length} characters. At most {LongestRule} are possible.");
        var parts = Parts(text);
        foreach (var part in parts.Keys)
            CheckKnown(part);
        return new RecurrenceRule(
            FrequencyOf(parts),
            parts.TryGetValue("INTERVAL", out var interval) ? Number("INTERVAL", interval) : 1,
            parts.TryGetValue("COUNT", out var count) ? Number("COUNT", count) : null,
            parts.TryGetValue("UNTIL", out var until) ? UntilOf(until) : null,
            parts.TryGetValue("BYDAY", out var weekdays) ? weekdays.Split(',').Select(day => Weekday("BYDAY", day)) : null,
            parts.TryGetValue("WKST", out var weekStart) ? Weekday("WKST", weekStart) : IsoDayOfWeek.Monday);
    }

    public static string Format(RecurrenceRule rule)
    {
        var text = new StringBuilder("FREQ=").Append(rule.Frequency.ToString().ToUpperInvariant());
        if (rule.Until is { } until)
            text.Append(";UNTIL=").Append(until switch
            {
                Until.Moment moment => MomentPattern.Format(moment.Instant),
                Until.Day day => DatePattern.Format(day.Date),
                _ => throw new InvalidOperationException("Unknown kind of UNTIL."),
            });
        if (rule.Count is { } count)
            text.Append(CultureInfo.InvariantCulture, $";COUNT={count}");
        if (rule.Interval != 1)
            text.Append(CultureInfo.InvariantCulture, $";INTERVAL={rule.Interval}");
        if (rule.Weekdays.Count > 0)
            text.Append(";BYDAY=").AppendJoin(',', rule.Weekdays.Select(Code));
        if (rule.WeekStart != IsoDayOfWeek.Monday)
            text.Append(";WKST=").Append(Code(rule.WeekStart));
        return text.ToString();
    }

    private static string Code(IsoDayOfWeek weekday) => WeekdayCodes[(int)weekday - 1];

    private static Dictionary<string, string> Parts(string text)
    {
        var parts = new Dictionary<string, string>(StringComparer.Ordinal);
        foreach (var part in text.Trim().ToUpperInvariant().Split(';'))
        {
            var equals = part.IndexOf('=', StringComparison.Ordinal);
            if (equals <= 0 || equals == part.Length - 1)
                throw new RuleException("RRULE", $"“{part}” is no part of a rule. A part is a name, =, and a value, such as FREQ=WEEKLY.");
            if (!parts.TryAdd(part[..equals], part[(equals + 1)..]))
                throw new RuleException(part[..equals], $"{part[..equals]} stands twice. Each part may stand once.");
        }
        return parts;
    }

    private static void CheckKnown(string part)
    {
        if (part is "FREQ" or "INTERVAL" or "COUNT" or "UNTIL" or "BYDAY" or "WKST")
            return;
        throw LaterParts.Contains(part)
            ? new RuleException(part, $"{part} is not expanded yet. Known so far: FREQ, INTERVAL, COUNT, UNTIL, BYDAY, WKST.")
            : new RuleException(part, $"{part} is no part of a rule in RFC 5545.");
    }

    private static Frequency FrequencyOf(Dictionary<string, string> parts)
    {
        if (!parts.TryGetValue("FREQ", out var text))
            throw new RuleException("FREQ", "FREQ is missing. A rule has to say how often, such as FREQ=WEEKLY.");
        return text switch
        {
            "DAILY" => Frequency.Daily,
            "WEEKLY" => Frequency.Weekly,
            _ when LaterFrequencies.Contains(text) => throw new RuleException("FREQ", $"FREQ={text} is not expanded yet. Known so far: DAILY and WEEKLY."),
            _ => throw new RuleException("FREQ", $"FREQ={text} is unknown. RFC 5545 has SECONDLY, MINUTELY, HOURLY, DAILY, WEEKLY, MONTHLY and YEARLY."),
        };
    }

    private static int Number(string part, string text) =>
        int.TryParse(text, NumberStyles.None, CultureInfo.InvariantCulture, out var number)
            ? number
            : throw new RuleException(part, $"{part}={text} is no number. Use digits, such as {part}=2.");

    private static Until UntilOf(string text)
    {
        if (text.Length == 8 && DatePattern.Parse(text) is { Success: true } date)
            return new Until.Day(date.Value);
        if (MomentPattern.Parse(text) is { Success: true } moment)
            return new Until.Moment(moment.Value);
        throw new RuleException("UNTIL", $"UNTIL={text} is neither a date such as 20261218 nor a UTC time such as 20261218T235959Z.");
    }

    private static IsoDayOfWeek Weekday(string part, string text)
    {
        var index = Array.IndexOf(WeekdayCodes, text);
        if (index >= 0)
            return (IsoDayOfWeek)(index + 1);
        if (part == "BYDAY" && text.Length > 2 && WeekdayCodes.Contains(text[^2..]))
            throw new RuleException(part, $"BYDAY={text} counts weekdays, which only monthly and yearly rules can. Use {text[^2..]}.");
        throw new RuleException(part, $"{part}={text} is no weekday. Use MO, TU, WE, TH, FR, SA or SU.");
    }
}
