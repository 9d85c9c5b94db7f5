using System.Globalization;
using System.Reflection;
using System.Text.Json;
using NodaTime;
using Valtro.Core.Time;

namespace Valtro.Core.Recurrence;

/// <summary>Says a rule in words. The words are built from the rule and never stored.</summary>
/// <remarks>The sentences are data: <c>Words/{language}.json</c>; names of days and months come from the culture.</remarks>
public sealed class RuleWords
{
    private static readonly IsoDayOfWeek[] Workdays =
        [IsoDayOfWeek.Monday, IsoDayOfWeek.Tuesday, IsoDayOfWeek.Wednesday, IsoDayOfWeek.Thursday, IsoDayOfWeek.Friday];

    private readonly CultureInfo _culture;
    private readonly Dictionary<string, string> _texts;

    private RuleWords(CultureInfo culture, Dictionary<string, string> texts) => (_culture, _texts) = (culture, texts);

    /// <summary>The words for a locale such as en-GB; English where its language has none yet.</summary>
    public static RuleWords For(string locale)
    {
        var culture = CultureInfo.GetCultureInfo(locale);
        return new RuleWords(culture, Load(culture.TwoLetterISOLanguageName) ?? Load("en")!);
    }

    /// <summary>Such as "Every second Tuesday and Thursday, 14:00 to 15:30, until 18 December 2026".</summary>
    public string Say(Series series)
    {
        var pieces = new List<string>();
        if (series.Rule is { } rule)
            pieces.Add(Pattern(rule, series.Timing.Start.DayOfWeek));
        else
            pieces.Add(Day(series.Timing.Start.Date, withWeekday: true));
        pieces.Add(Hours(series.Timing));
        if (series.Rule is { Until: not null } or { Count: not null })
            pieces.Add(End(series.Rule, series.Timing.Zone));
        return string.Join(", ", pieces);
    }

    private string Pattern(RecurrenceRule rule, IsoDayOfWeek startsOn)
    {
        if (rule.Frequency == Frequency.Daily && rule.Weekdays.Count == 0)
            return Every("day", rule.Interval, "");
        IReadOnlyList<IsoDayOfWeek> weekdays = rule.Weekdays.Count > 0 ? rule.Weekdays : [startsOn];
        var days = weekdays.SequenceEqual(Workdays) ? _texts["workday"] : Join(weekdays.Select(Name));
        if (weekdays.Count == 7 && rule.Interval == 1)
            return Every("day", 1, "");
        return rule.Frequency == Frequency.Weekly
            ? Every("week", rule.Interval, days)
            : Format("dayLimited", Every("day", rule.Interval, ""), days);
    }

    private string Every(string unit, int interval, string days) => interval switch
    {
        1 => Format($"{unit}.1", days),
        2 => Format($"{unit}.2", days),
        _ => Format($"{unit}.n", days, interval),
    };

    private string Hours(Timing timing)
    {
        if (timing.AllDay)
            return timing.Days == 1 ? _texts["allDay"] : Format("allDays", timing.Days);
        return timing.Start == timing.End
            ? Format("at", Time(timing.Start))
            : Format("hours", Time(timing.Start), Time(timing.End));
    }

    private string End(RecurrenceRule rule, DateTimeZone zone) => rule switch
    {
        { Until: Until.Day day } => Format("until", Day(day.Date)),
        { Until: Until.Moment moment } => Format("until", Day(moment.Instant.InZone(zone).Date)),
        _ => rule.Count == 1 ? _texts["count.1"] : Format("count.n", rule.Count!.Value),
    };

    private string Day(LocalDate date, bool withWeekday = false) =>
        date.ToString(withWeekday ? _texts["dateWithWeekday"] : _texts["date"], _culture);

    private string Time(LocalDateTime local) => local.ToString(_texts["time"], _culture);

    private string Name(IsoDayOfWeek weekday) => _culture.DateTimeFormat.GetDayName((DayOfWeek)((int)weekday % 7));

    private string Join(IEnumerable<string> names)
    {
        var list = names.ToArray();
        return list.Length == 1 ? list[0] : Format("and", string.Join(", ", list[..^1]), list[^1]);
    }

    private string Format(string key, params object[] values) => string.Format(_culture, _texts[key], values);

    private static Dictionary<string, string>? Load(string language)
    {
        using var stream = Assembly.GetExecutingAssembly().GetManifestResourceStream($"Valtro.Core.Recurrence.Words.{language}.json");
        return stream is null ? null : JsonSerializer.Deserialize<Dictionary<string, string>>(stream);
    }
}
