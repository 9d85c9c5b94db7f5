using System.Collections.Concurrent;
using System.Globalization;
using System.Text;
using NodaTime;
using NodaTime.Text;

namespace Valtro.Core.Recurrence;

/// <summary>Reads and writes the value of RRULE (RFC 5545 3.3.10 and 3.8.5.3; RSCALE and SKIP of RFC 7529 4).</summary>
public static class RuleText
{
    public const int LongestRule = 1_000;

    private const int MostRemembered = 1_000;

    /// <summary>A calendar's events repeat a few rules. They are immutable, so one reading does for all.</summary>
    private static readonly ConcurrentDictionary<string, RecurrenceRule> Recent = new(StringComparer.Ordinal);

    private static readonly LocalDatePattern DatePattern = LocalDatePattern.CreateWithInvariantCulture("uuuuMMdd");
    private static readonly InstantPattern MomentPattern = InstantPattern.CreateWithInvariantCulture("uuuuMMdd'T'HHmmss'Z'");
    private static readonly string[] WeekdayCodes = ["MO", "TU", "WE", "TH", "FR", "SA", "SU"];

    /// <summary>In the order of <see cref="Frequency"/>.</summary>
    private static readonly string[] FrequencyNames = ["SECONDLY", "MINUTELY", "HOURLY", "DAILY", "WEEKLY", "MONTHLY", "YEARLY"];

    private static readonly HashSet<string> Known =
    [
        "FREQ", "INTERVAL", "COUNT", "UNTIL", "BYSECOND", "BYMINUTE", "BYHOUR", "BYDAY", "BYMONTHDAY", "BYYEARDAY", "BYWEEKNO", "BYMONTH",
        "BYSETPOS", "WKST", "RSCALE", "SKIP",
    ];

    /// <exception cref="RuleException">The text is no rule; the field is the part.</exception>
    public static RecurrenceRule Parse(string text)
    {
        if (text.Length > LongestRule)
            throw new RuleException("RRULE", "rule.tooLong", ("count", text.Length), ("most", LongestRule));
        if (Recent.TryGetValue(text, out var known))
            return known;
        if (Recent.Count >= MostRemembered)
            Recent.Clear();
        return Recent[text] = Read(text);
    }

    private static RecurrenceRule Read(string text)
    {
        var parts = Split(text);
        var frequency = FrequencyOf(parts);
        return new RecurrenceRule(new RuleParts
        {
            Frequency = frequency,
            Interval = parts.TryGetValue("INTERVAL", out var interval) ? Number("INTERVAL", interval) : 1,
            Count = parts.TryGetValue("COUNT", out var count) ? Number("COUNT", count) : null,
            Until = parts.TryGetValue("UNTIL", out var until) ? UntilOf(until) : null,
            Seconds = Numbers(parts, "BYSECOND"),
            Minutes = Numbers(parts, "BYMINUTE"),
            Hours = Numbers(parts, "BYHOUR"),
            Weekdays = parts.TryGetValue("BYDAY", out var weekdays) ? [.. weekdays.Split(',').Select(NumberedWeekdayOf)] : [],
            MonthDays = Numbers(parts, "BYMONTHDAY"),
            YearDays = Numbers(parts, "BYYEARDAY"),
            WeekNumbers = Numbers(parts, "BYWEEKNO"),
            Months = Numbers(parts, "BYMONTH"),
            SetPositions = Numbers(parts, "BYSETPOS"),
            WeekStart = parts.TryGetValue("WKST", out var weekStart) ? Weekday("WKST", weekStart) : IsoDayOfWeek.Monday,
            Skip = SkipOf(parts),
        });
    }

    public static string Format(RecurrenceRule rule)
    {
        var parts = rule.Parts;
        var text = new StringBuilder();
        if (parts.Skip != Skip.Omit)
            text.Append("RSCALE=GREGORIAN;");
        text.Append("FREQ=").Append(Name(parts.Frequency));
        if (parts.Until is { } until)
            text.Append(";UNTIL=").Append(until switch
            {
                Until.Moment moment => MomentPattern.Format(moment.Instant),
                Until.Day day => DatePattern.Format(day.Date),
                _ => throw new InvalidOperationException("Unknown kind of UNTIL."),
            });
        if (parts.Count is { } count)
            text.Append(CultureInfo.InvariantCulture, $";COUNT={count}");
        if (parts.Interval != 1)
            text.Append(CultureInfo.InvariantCulture, $";INTERVAL={parts.Interval}");
        List("BYSECOND", parts.Seconds);
        List("BYMINUTE", parts.Minutes);
        List("BYHOUR", parts.Hours);
        if (parts.Weekdays.Count > 0)
            text.Append(";BYDAY=").AppendJoin(',', parts.Weekdays.Select(Code));
        List("BYMONTHDAY", parts.MonthDays);
        List("BYYEARDAY", parts.YearDays);
        List("BYWEEKNO", parts.WeekNumbers);
        List("BYMONTH", parts.Months);
        List("BYSETPOS", parts.SetPositions);
        if (parts.WeekStart != IsoDayOfWeek.Monday)
            text.Append(";WKST=").Append(Code(parts.WeekStart));
        if (parts.Skip != Skip.Omit)
            text.Append(";SKIP=").Append(parts.Skip.ToString().ToUpperInvariant());
        return text.ToString();

        void List(string part, IReadOnlyList<int> values)
        {
            if (values.Count > 0)
                text.Append(';').Append(part).Append('=')
                    .AppendJoin(',', values.Select(value => value.ToString(CultureInfo.InvariantCulture)));
        }
    }

    internal static string Name(Frequency frequency) => FrequencyNames[(int)frequency];

    internal static string Code(NumberedWeekday weekday) => weekday.Ordinal == 0
        ? Code(weekday.Weekday)
        : weekday.Ordinal.ToString(CultureInfo.InvariantCulture) + Code(weekday.Weekday);

    private static string Code(IsoDayOfWeek weekday) => WeekdayCodes[(int)weekday - 1];

    private static Dictionary<string, string> Split(string text)
    {
        var parts = new Dictionary<string, string>(StringComparer.Ordinal);
        foreach (var part in text.Trim().ToUpperInvariant().Split(';'))
        {
            var equals = part.IndexOf('=', StringComparison.Ordinal);
            if (equals <= 0 || equals == part.Length - 1)
                throw new RuleException("RRULE", "rule.noPart", ("part", part));
            var name = part[..equals];
            if (!Known.Contains(name))
                throw new RuleException(name, "rule.unknownPart", ("name", name));
            if (!parts.TryAdd(name, part[(equals + 1)..]))
                throw new RuleException(name, "rule.partTwice", ("name", name));
        }
        return parts;
    }

    private static Frequency FrequencyOf(Dictionary<string, string> parts)
    {
        if (!parts.TryGetValue("FREQ", out var text))
            throw new RuleException("FREQ", "rule.frequencyMissing");
        var index = Array.IndexOf(FrequencyNames, text);
        return index >= 0 ? (Frequency)index : throw new RuleException("FREQ", "rule.frequencyUnknown", ("text", text));
    }

    private static Skip SkipOf(Dictionary<string, string> parts)
    {
        if (parts.TryGetValue("RSCALE", out var scale) && scale is not "GREGORIAN")
            throw new RuleException("RSCALE", "rule.otherCalendarSystem", ("scale", scale));
        if (!parts.TryGetValue("SKIP", out var text))
            return Skip.Omit;
        if (scale is null)
            throw new RuleException("SKIP", "rule.skipAlone");
        return text switch
        {
            "OMIT" => Skip.Omit,
            "BACKWARD" => Skip.Backward,
            "FORWARD" => Skip.Forward,
            _ => throw new RuleException("SKIP", "rule.skipUnknown", ("text", text)),
        };
    }

    private static IReadOnlyList<int> Numbers(Dictionary<string, string> parts, string part) =>
        parts.TryGetValue(part, out var text) ? [.. text.Split(',').Select(one => Number(part, one, allowSign: true))] : [];

    private static int Number(string part, string text, bool allowSign = false) =>
        int.TryParse(text, allowSign ? NumberStyles.AllowLeadingSign : NumberStyles.None, CultureInfo.InvariantCulture, out var number)
            ? number
            : throw new RuleException(part, "rule.noNumber", ("part", part), ("text", text));

    private static Until UntilOf(string text)
    {
        if (text.Length == 8 && DatePattern.Parse(text) is { Success: true } date)
            return new Until.Day(date.Value);
        if (MomentPattern.Parse(text) is { Success: true } moment)
            return new Until.Moment(moment.Value);
        throw new RuleException("UNTIL", "rule.untilUnreadable", ("text", text));
    }

    private static NumberedWeekday NumberedWeekdayOf(string text)
    {
        if (text.Length <= 2)
            return new NumberedWeekday(Weekday("BYDAY", text));
        var ordinal = Number("BYDAY", text[..^2], allowSign: true);
        return ordinal == 0
            ? throw new RuleException("BYDAY", "rule.countsFromNought", ("text", text))
            : new NumberedWeekday(Weekday("BYDAY", text[^2..]), ordinal);
    }

    private static IsoDayOfWeek Weekday(string part, string text)
    {
        var index = Array.IndexOf(WeekdayCodes, text);
        return index >= 0
            ? (IsoDayOfWeek)(index + 1)
            : throw new RuleException(part, "rule.noWeekday", ("part", part), ("text", text));
    }
}
