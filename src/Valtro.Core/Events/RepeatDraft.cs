using NodaTime;
using Valtro.Core.Recurrence;
using Valtro.Core.Time;

namespace Valtro.Core.Events;

/// <summary>How a draft ends its repetition.</summary>
public enum RepeatEnd
{
    Never,
    On,
    After,
}

/// <summary>What the sentence repeats by.</summary>
public enum RepeatPattern
{
    Daily,
    Weekly,
    Monthly,
    Yearly,

    /// <summary>The day cycle of the year plan.</summary>
    Cycle,

    /// <summary>A rule written as text.</summary>
    Text,
}

/// <summary>Which day of a month.</summary>
public enum MonthPosition
{
    /// <summary>The 24th; -1 is the last day.</summary>
    Day,

    /// <summary>The fourth Tuesday.</summary>
    Weekday,

    /// <summary>The last of Monday to Friday.</summary>
    Workday,
}

/// <summary>The repetition as the event page's sentence says it.</summary>
/// <param name="Weekdays">1 Monday to 7 Sunday; for weekly ones, and in a cycle of weeks.</param>
/// <param name="By">Which day of the month, for monthly and yearly ones.</param>
/// <param name="MonthDay">1 to 31, or -1 for the last.</param>
/// <param name="Ordinal">1 to 5, or -1 for the last.</param>
/// <param name="Weekday">1 Monday to 7 Sunday.</param>
/// <param name="Month">1 to 12, for yearly ones.</param>
/// <param name="Skip">What becomes of the 29th to 31st where a month has none.</param>
/// <param name="Numbers">Days or weeks of the day cycle.</param>
/// <param name="Text">An RRULE value, for <see cref="RepeatPattern.Text"/>; then all else is silent.</param>
/// <param name="Until">The last possible day, inclusive, for <see cref="RepeatEnd.On"/>.</param>
/// <param name="CountsTaking">The count is of dates that take place, and not of those that fall in a break.</param>
public sealed record RepeatDraft(
    RepeatPattern Pattern,
    int? Interval = null,
    IReadOnlyList<int>? Weekdays = null,
    MonthPosition? By = null,
    int? MonthDay = null,
    int? Ordinal = null,
    int? Weekday = null,
    int? Month = null,
    Skip? Skip = null,
    IReadOnlyList<int>? Numbers = null,
    string? Text = null,
    RepeatEnd Ends = RepeatEnd.Never,
    LocalDate? Until = null,
    int? Count = null,
    bool? CountsTaking = null)
{
    private static readonly int[] Workdays = [1, 2, 3, 4, 5];

    /// <summary>The sentence that gives this series; the rule as text where no sentence can say it.</summary>
    public static RepeatDraft? Of(Series series)
    {
        if (series.Cycle is { } cycle)
            return new RepeatDraft(
                RepeatPattern.Cycle, Numbers: cycle.Numbers, Weekdays: [.. cycle.Weekdays.Select(weekday => (int)weekday)],
                Ends: cycle.Until is not null ? RepeatEnd.On : cycle.Count is not null ? RepeatEnd.After : RepeatEnd.Never,
                    Until: cycle.Until, Count: cycle.Count);
        if (series.Rule is not { } rule)
            return null;
        var sentence = SentenceOf(rule.Parts, series.Timing.Start.Date) is { } pattern
            ? pattern with
            {
                Interval = rule.Interval,
                Ends = rule.Until is not null ? RepeatEnd.On : rule.Count is not null ? RepeatEnd.After : RepeatEnd.Never,
                Until = LastDay(rule.Until, series.Timing),
                Count = rule.Count,
                CountsTaking = series.CountsTaking ? true : null,
            }
            : null;
        return sentence ?? new RepeatDraft(RepeatPattern.Text, Text: RuleText.Format(rule));
    }

    /// <summary>The last day on which a date may start.</summary>
    public static LocalDate? LastDay(Until? until, Timing timing) => until switch
    {
        Core.Recurrence.Until.Day day => day.Date,
        Core.Recurrence.Until.Moment moment when moment.Instant.InZone(timing.Zone).LocalDateTime is var local =>
            local.TimeOfDay >= timing.Start.TimeOfDay ? local.Date : local.Date.PlusDays(-1),
        _ => null,
    };

    private static RepeatDraft? SentenceOf(RuleParts parts, LocalDate start)
    {
        if (parts.YearDays.Count + parts.WeekNumbers.Count + parts.Hours.Count + parts.Minutes.Count + parts.Seconds.Count > 0
            || parts.WeekStart != IsoDayOfWeek.Monday)
            return null;
        return parts.Frequency switch
        {
            Frequency.Daily when parts.Weekdays.Count + parts.MonthDays.Count + parts.Months.Count + parts.SetPositions.Count == 0 =>
                new RepeatDraft(RepeatPattern.Daily),
            Frequency.Weekly when parts.Months.Count + parts.SetPositions.Count == 0 => new RepeatDraft(
                RepeatPattern.Weekly,
                Weekdays: [.. parts.Weekdays.Count > 0 ? parts.Weekdays.Select(weekday => (int)weekday.Weekday) : [(int)start.DayOfWeek]]),
            Frequency.Monthly when parts.Months.Count == 0 => PositionOf(parts, start, RepeatPattern.Monthly),
            Frequency.Yearly when parts.Months.Count == 1
                || (parts.Months.Count == 0 && parts.Weekdays.Count == 0 && parts.MonthDays.Count == 0) =>
                PositionOf(parts, start, RepeatPattern.Yearly) is { } position
                    ? position with { Month = parts.Months.Count == 1 ? parts.Months[0] : start.Month }
                    : null,
            _ => null,
        };
    }

    private static RepeatDraft? PositionOf(RuleParts parts, LocalDate start, RepeatPattern pattern)
    {
        var plain = new RepeatDraft(pattern) { Skip = parts.Skip };
        if (parts is { Weekdays.Count: 0, SetPositions.Count: 0, MonthDays.Count: < 2 })
        {
            var day = parts.MonthDays.Count == 1 ? parts.MonthDays[0] : start.Day;
            return day is -1 or > 0 ? plain with { By = MonthPosition.Day, MonthDay = day } : null;
        }
        if (parts is { Weekdays.Count: 1, SetPositions.Count: 0, MonthDays.Count: 0 }
            && parts.Weekdays[0] is { Ordinal: -1 or (>= 1 and <= 5) } weekday)
            return plain with { By = MonthPosition.Weekday, Ordinal = weekday.Ordinal, Weekday = (int)weekday.Weekday };
        return parts is { SetPositions.Count: 1, MonthDays.Count: 0 } && parts.SetPositions[0] is -1 or (>= 1 and <= 5)
            && parts.Weekdays.All(one => one.Ordinal == 0) && parts.Weekdays.Select(one => (int)one.Weekday).SequenceEqual(Workdays)
            ? plain with { By = MonthPosition.Workday, Ordinal = parts.SetPositions[0] }
            : null;
    }

    /// <summary>All that can be checked without knowing when it starts.</summary>
    internal void Check(RefusalList refusals)
    {
        if (Pattern == RepeatPattern.Weekly && Weekdays is not { Count: > 0 })
            refusals.Add("repeat.weekdays", "repeat.noWeekday");
        if (Weekdays?.Any(weekday => weekday is < 1 or > 7) == true)
            refusals.Add("repeat.weekdays", "repeat.weekdayNumber");
        if (Pattern == RepeatPattern.Cycle && Numbers is not { Count: > 0 })
            refusals.Add("repeat.numbers", "repeat.noCycleDay");
        if (Numbers?.Any(number => number is < 1 or > YearPlans.DayCycle.MostDays) == true)
            refusals.Add("repeat.numbers", "repeat.cycleDayNumber", ("most", YearPlans.DayCycle.MostDays));
        if (Pattern == RepeatPattern.Text && string.IsNullOrWhiteSpace(Text))
            refusals.Add("repeat.text", "repeat.ruleEmpty");
        if (Interval is < 1 or > RecurrenceRule.LargestInterval)
            refusals.Add("repeat.interval", "repeat.interval", ("interval", Interval), ("most", RecurrenceRule.LargestInterval));
        if (Ends == RepeatEnd.After && Count is not (>= 1 and <= RecurrenceRule.LargestCount))
            refusals.Add("repeat.count", "repeat.count", ("most", RecurrenceRule.LargestCount));
        if (Ends == RepeatEnd.On && Until is null)
            refusals.Add("repeat.until", "repeat.untilMissing");
        if (Pattern is RepeatPattern.Monthly or RepeatPattern.Yearly)
            CheckPosition(refusals);
    }

    private void CheckPosition(RefusalList refusals)
    {
        var isPossible = By switch
        {
            MonthPosition.Day => MonthDay is -1 or (>= 1 and <= 31),
            MonthPosition.Weekday => Ordinal is -1 or (>= 1 and <= 5) && Weekday is >= 1 and <= 7,
            MonthPosition.Workday => Ordinal is -1 or (>= 1 and <= 5),
            _ => false,
        };
        if (!isPossible)
            refusals.Add("repeat.by", "repeat.positionMissing");
        if (Pattern == RepeatPattern.Yearly && Month is not (>= 1 and <= 12))
            refusals.Add("repeat.month", "repeat.month");
    }

    /// <summary>The rule for an event with that timing; null for what follows the day cycle.</summary>
    internal RecurrenceRule? RuleFor(Timing timing)
    {
        if (Pattern == RepeatPattern.Cycle)
            return null;
        if (Pattern == RepeatPattern.Text)
            return RuleOfText(timing);
        var hasPosition = Pattern is RepeatPattern.Monthly or RepeatPattern.Yearly;
        return new RecurrenceRule(new RuleParts
        {
            Frequency = Pattern switch
            {
                RepeatPattern.Daily => Frequency.Daily,
                RepeatPattern.Weekly => Frequency.Weekly,
                RepeatPattern.Monthly => Frequency.Monthly,
                _ => Frequency.Yearly,
            },
            Interval = Interval ?? 1,
            Count = Ends == RepeatEnd.After ? Count : null,
            Until = Ends == RepeatEnd.On ? CheckedUntil(timing) : null,
            Weekdays = (Pattern, By) switch
            {
                (RepeatPattern.Weekly, _) => [.. Weekdays!.Select(weekday => new NumberedWeekday((IsoDayOfWeek)weekday))],
                (_, MonthPosition.Weekday) when hasPosition => [new NumberedWeekday((IsoDayOfWeek)Weekday!.Value, Ordinal!.Value)],
                (_, MonthPosition.Workday) when hasPosition => [.. Workdays.Select(weekday => new NumberedWeekday((IsoDayOfWeek)weekday))],
                _ => [],
            },
            MonthDays = hasPosition && By == MonthPosition.Day ? [MonthDay!.Value] : [],
            SetPositions = hasPosition && By == MonthPosition.Workday ? [Ordinal!.Value] : [],
            Months = Pattern == RepeatPattern.Yearly ? [Month!.Value] : [],
            Skip = hasPosition && By == MonthPosition.Day && MonthDay > 28 ? Skip ?? Core.Recurrence.Skip.Omit : Core.Recurrence.Skip.Omit,
        });
    }

    /// <summary>The pattern by the day cycle, for an event with that timing.</summary>
    internal CyclePattern? CycleFor(Timing timing)
    {
        if (Pattern != RepeatPattern.Cycle)
            return null;
        if (Ends == RepeatEnd.On)
            CheckedUntil(timing);
        return new CyclePattern(
            [.. Numbers!.Distinct().Order()],
            [.. (Weekdays ?? []).Distinct().Order().Select(weekday => (IsoDayOfWeek)weekday)],
            Ends == RepeatEnd.On ? Until : null,
            Ends == RepeatEnd.After ? Count : null);
    }

    private RecurrenceRule RuleOfText(Timing timing)
    {
        try
        {
            var text = Text!.Trim();
            var rule = RuleText.Parse(text.StartsWith("RRULE:", StringComparison.OrdinalIgnoreCase) ? text[6..] : text)
                .CheckedAgainst(timing.Start, timing.AllDay ? null : timing.Zone);
            return rule.Until?.IsBeyond(DayRange.Last) == true
                ? throw new RuleException("UNTIL", "repeat.untilTooLate", ("year", DayRange.Last.Year))
                : rule;
        }
        catch (RuleException refused)
        {
            throw new RuleException([.. refused.Refusals.Select(refusal => refusal with { Field = "repeat.text" })]);
        }
    }

    private Until CheckedUntil(Timing timing)
    {
        var day = Until!.Value;
        if (day < timing.Start.Date)
            throw new RuleException("repeat.until", "repeat.endsBeforeFirst");
        if (day > DayRange.Last)
            throw new RuleException("repeat.until", "repeat.lastDayTooLate", ("year", DayRange.Last.Year));
        return Core.Recurrence.Until.Including(day + timing.Start.TimeOfDay, timing);
    }

    public bool Equals(RepeatDraft? other) =>
        other is not null && Pattern == other.Pattern && (Interval ?? 1) == (other.Interval ?? 1)
        && (Weekdays ?? []).Order().SequenceEqual((other.Weekdays ?? []).Order())
            && By == other.By
            && MonthDay == other.MonthDay
            && Ordinal == other.Ordinal
        && Weekday == other.Weekday && Month == other.Month && (Skip ?? default) == (other.Skip ?? default)
        && (Numbers ?? []).Order().SequenceEqual((other.Numbers ?? []).Order())
            && Text == other.Text
            && Ends == other.Ends
            && Until == other.Until
            && Count == other.Count
            && (CountsTaking ?? false) == (other.CountsTaking ?? false);

    public override int GetHashCode() => HashCode.Combine(Pattern, Interval, Ends, Until, Count, Text);
}
