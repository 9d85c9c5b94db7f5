using System.Globalization;
using NodaTime;
using Valtro.Core.Speaking;
using Valtro.Core.Time;

namespace Valtro.Core.Recurrence;

/// <summary>Says a rule in words. The words are built from the rule and never stored.</summary>
/// <remarks>The sentences are data: <c>src/words/{language}/rules.json</c>; names of days and months come from the culture.</remarks>
public sealed class RuleWords
{
    private static readonly IsoDayOfWeek[] Workdays =
        [IsoDayOfWeek.Monday, IsoDayOfWeek.Tuesday, IsoDayOfWeek.Wednesday, IsoDayOfWeek.Thursday, IsoDayOfWeek.Friday];

    private readonly CultureInfo _culture;

    private RuleWords(Speech speech) => (Speech, _culture) = (speech, speech.Culture);

    /// <summary>What else the language has to say.</summary>
    public Speech Speech { get; }

    /// <summary>The words for a locale such as en-GB; English where its language has none yet.</summary>
    public static RuleWords For(string locale) => new(Speech.For(locale));

    /// <summary>Such as "Every second Tuesday and Thursday, 14:00 to 15:30, until 18 December 2026".</summary>
    public string Say(Series series)
    {
        var start = series.Timing.Start;
        var pieces = new List<string>
        {
            series switch
            {
                { Cycle: { } cycle } => Cycle(cycle),
                { Rule: { } rule } => Pattern(rule.Parts, start),
                _ => Day(start.Date, withWeekday: true),
            },
        };
        if (series.Rule?.KeepsTimeOfDay != false)
            pieces.Add(Hours(series.Timing));
        if (End(series) is { } end)
            pieces.Add(end);
        if (series.InBreaks != InBreaks.Ignore && series.Rule is not null)
            pieces.Add(Text(series.InBreaks == InBreaks.Skip ? "breaks.skip" : "breaks.move"));
        return string.Join(", ", pieces);
    }

    /// <summary>A date such as "Tuesday 24 November 2026".</summary>
    public string Day(LocalDate date, bool withWeekday = false) => Speech.Day(date, withWeekday);

    /// <summary>"all day".</summary>
    public string AllDay => Text("allDay");

    /// <summary>When one date is: "Tuesday 24 November 2026, 14:00 to 15:30".</summary>
    public string Say(Timing timing) => $"{Day(timing.Start.Date, withWeekday: true)}, {Hours(timing)}";

    private string Pattern(RuleParts parts, LocalDateTime start)
    {
        var pieces = new List<string> { Frame(parts, start) };
        // A yearly rule names its months with the days.
        if (parts.Months.Count > 0 && (parts.Frequency != Frequency.Yearly || parts.YearDays.Count + parts.WeekNumbers.Count > 0))
            pieces.Add(Format("inMonths", Months(parts.Months)));
        if (parts.YearDays.Count > 0)
            pieces.Add(Format("yearDays", Join(parts.YearDays.Select(Position))));
        if (parts.WeekNumbers.Count > 0)
            pieces.Add(Format("weekNumbers", Join(parts.WeekNumbers.Select(Position))));
        if (Clock(parts, start.TimeOfDay) is { } clock)
            pieces.Add(clock);
        if (parts.SetPositions.Count > 0 && !IsNthOfDays(parts))
            pieces.Add(Format("onlyThe", Join(parts.SetPositions.Select(Position))));
        return string.Join(" ", pieces);
    }

    /// <summary>How often, and on which days.</summary>
    private string Frame(RuleParts parts, LocalDateTime start)
    {
        switch (parts.Frequency)
        {
            case Frequency.Weekly:
                var weekdays = parts.Weekdays.Count > 0 ? parts.Weekdays.Select(weekday => weekday.Weekday).ToArray() : [start.DayOfWeek];
                return weekdays.Length == 7 && parts.Interval == 1
                    ? Every("day", 1, "")
                    : Every("week", parts.Interval, Weekdays(weekdays));
            case Frequency.Monthly:
                return Every("month", parts.Interval, DaysOfMonth(parts, start.Date));
            case Frequency.Yearly:
                var days = parts.YearDays.Count + parts.WeekNumbers.Count > 0 && parts.MonthDays.Count == 0
                    ? parts.Weekdays.Count == 0 ? "" : Format("onEach", Weekdays([.. parts.Weekdays.Select(weekday => weekday.Weekday)]))
                    : DaysOfYear(parts, start.Date);
                return days.Length == 0 ? Every("plainYear", parts.Interval, "") : Every("year", parts.Interval, days);
            default:
                var every = Every(parts.Frequency.ToString().ToUpperInvariant(), parts.Interval, "");
                if (parts.Weekdays.Count > 0)
                    every = Format("dayLimited", every, Weekdays([.. parts.Weekdays.Select(weekday => weekday.Weekday)]));
                return parts.MonthDays.Count == 0 ? every : Format("monthDayLimited", every, Join(parts.MonthDays.Select(MonthDay), "or"));
        }
    }

    private string DaysOfMonth(RuleParts parts, LocalDate start)
    {
        if (IsNthOfDays(parts))
            return Format(
                "the", Format("nthOf", Ordinal(parts.SetPositions[0]), Weekdays([.. parts.Weekdays.Select(weekday => weekday.Weekday)])));
        if (parts.Weekdays.Count == 0)
            return Format("the", Join((parts.MonthDays.Count > 0 ? parts.MonthDays : [start.Day]).Select(MonthDay))) + SkipWords(parts);
        var weekdays = Join(parts.Weekdays.Select(weekday => weekday.Ordinal == 0
            ? Format("each", Name(weekday.Weekday))
            : Format("the", Format("nthOf", Ordinal(weekday.Ordinal), Name(weekday.Weekday)))));
        return parts.MonthDays.Count == 0 ? weekdays : Format("whenOn", weekdays, Join(parts.MonthDays.Select(MonthDay), "or"));
    }

    private string DaysOfYear(RuleParts parts, LocalDate start)
    {
        if (parts.Weekdays.Count == 0 && parts.MonthDays.Count == 0)
        {
            var months = parts.Months.Count > 0 ? parts.Months : [start.Month];
            return Join(months.Select(month => Format("dayOfMonth", MonthDay(start.Day), Month(month)))) + SkipWords(parts);
        }
        var days = DaysOfMonth(parts, start);
        return parts.Months.Count == 0 ? days : Format("ofMonths", days, Months(parts.Months));
    }

    /// <summary>"The last weekday", "the second Saturday or Sunday": weekdays without numbers, and one position among them.</summary>
    private static bool IsNthOfDays(RuleParts parts) =>
        parts is
        {
            Frequency: Frequency.Monthly or Frequency.Yearly, SetPositions.Count: 1, Weekdays.Count: > 0, MonthDays.Count: 0,
            YearDays.Count: 0, WeekNumbers.Count: 0, Hours.Count: < 2, Minutes.Count: < 2, Seconds.Count: < 2
        }
        && parts.Weekdays.All(weekday => weekday.Ordinal == 0)
        && (parts.Frequency == Frequency.Monthly || parts.Months.Count == 1);

    private string SkipWords(RuleParts parts) => parts.Skip switch
    {
        Skip.Backward => " " + Text("skip.backward"),
        Skip.Forward => " " + Text("skip.forward"),
        _ => "",
    };

    private string? Clock(RuleParts parts, LocalTime start)
    {
        if (parts.Hours.Count + parts.Minutes.Count + parts.Seconds.Count == 0)
            return null;
        if (parts.Frequency < Frequency.Daily)
        {
            var limits = new List<string>();
            if (parts.Hours.Count > 0)
                limits.Add(Format("inHours", Join(parts.Hours.Select(hour => hour.ToString("00", _culture)))));
            if (parts.Minutes.Count > 0)
                limits.Add(Format("atMinutes", Join(parts.Minutes.Select(minute => minute.ToString("00", _culture)))));
            if (parts.Seconds.Count > 0)
                limits.Add(Format("atSeconds", Join(parts.Seconds.Select(second => second.ToString("00", _culture)))));
            return string.Join(" ", limits);
        }
        var hours = parts.Hours.Count > 0 ? parts.Hours : [start.Hour];
        var minutes = parts.Minutes.Count > 0 ? parts.Minutes : [start.Minute];
        var seconds = parts.Seconds.Count > 0 ? parts.Seconds : [start.Second];
        var times = hours.Count * minutes.Count * seconds.Count;
        if (times > 8)
            return Format("timesADay", times);
        return Format("at", Join(
            from hour in hours
            from minute in minutes
            from second in seconds.Where(second => second < 60)
            let time = new LocalTime(hour, minute, second)
            select time.ToString(second == 0 ? Text("time") : "HH:mm:ss", _culture)));
    }

    private string Cycle(CyclePattern cycle)
    {
        var numbers = Join(cycle.Numbers.Select(number => number.ToString(_culture)));
        var letters = Join(cycle.Numbers.Select(number => ((char)('A' + number - 1)).ToString()));
        return cycle.Weekdays.Count == 0 ? Format("cycleDays", numbers) : Format("cycleWeeks", letters, Weekdays(cycle.Weekdays));
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
            return timing.Days == 1 ? Text("allDay") : Format("allDays", timing.Days);
        if (timing.Start == timing.End)
            return Format("at", Time(timing.Start));
        return timing.Start.Date == timing.End.Date
            ? Format("hours", Time(timing.Start), Time(timing.End))
            : Format("hoursOver", Time(timing.Start), Time(timing.End), Period.DaysBetween(timing.Start.Date, timing.End.Date));
    }

    private string? End(Series series)
    {
        var (until, count) = series.Cycle is { } cycle
            ? (cycle.Until, cycle.Count)
            : (UntilDay(series.Rule?.Until, series.Timing.Zone), series.Rule?.Count);
        if (until is { } day)
            return Format("until", Day(day));
        return count switch
        {
            null => null,
            1 => Text("count.1"),
            _ when series.InBreaks != InBreaks.Ignore && series.Rule is not null && !series.CountsTaking =>
                Format("count.positions", count.Value),
            _ => Format("count.n", count.Value),
        };
    }

    private static LocalDate? UntilDay(Until? until, DateTimeZone zone) => until switch
    {
        Until.Day day => day.Date,
        Until.Moment moment => moment.Instant.InZone(zone).Date,
        _ => null,
    };

    private string Time(LocalDateTime local) => local.ToString(Text("time"), _culture);

    private string Weekdays(IReadOnlyList<IsoDayOfWeek> weekdays) =>
        weekdays.SequenceEqual(Workdays) ? Text("workday") : Join(weekdays.Select(Name));

    private string Name(IsoDayOfWeek weekday) => _culture.DateTimeFormat.GetDayName((DayOfWeek)((int)weekday % 7));

    private string Month(int month) => _culture.DateTimeFormat.GetMonthName(month);

    private string Months(IReadOnlyList<int> months) => Join(months.Select(Month));

    /// <summary>"15th", "last day", "second to last day".</summary>
    private string MonthDay(int day) => day > 0 ? Numbered(day) : Format("dayFromEnd", Ordinal(day));

    /// <summary>"first" to "fifth", "last", "second to last"; beyond, by number.</summary>
    private string Ordinal(int position) => Speech.Messages.TryGetValue($"pattern.ordinal.{position}", out var word)
        ? word
        : position > 0 ? Numbered(position) : Format("fromEnd", Numbered(-position));

    private string Position(int position) => position > 0 ? position.ToString(_culture) : Ordinal(position);

    private string Numbered(int number)
    {
        var suffix = number % 100 is >= 11 and <= 13 ? 0 : number % 10;
        return Format(suffix is >= 1 and <= 3 ? $"numbered.{suffix}" : "numbered.0", number);
    }

    private string Join(IEnumerable<string> names, string with = "and") => Speech.Join(names, with);

    private string Text(string key) => Speech.Say($"pattern.{key}");

    private string Format(string key, params object[] values) =>
        Speech.Say($"pattern.{key}", [.. values.Select((value, index) => (index.ToString(CultureInfo.InvariantCulture), (object?)value))]);
}
