using NodaTime;
using Valtro.Core.Time;

namespace Valtro.Core.Recurrence;

/// <summary>What RFC 5545 3.3.10 and RFC 7529 4.1 forbid, each with the part and the reason.</summary>
internal static class RuleChecks
{
    /// <summary>As many times a day as it has minutes. More is a clock, not a calendar.</summary>
    public const int MostTimesADay = 1_440;

    public static void Check(RuleParts parts)
    {
        if (parts.Interval is < 1 or > RecurrenceRule.LargestInterval)
            throw new RuleException("INTERVAL", "rule.interval", ("interval", parts.Interval), ("most", RecurrenceRule.LargestInterval));
        if (parts.Count is < 1 or > RecurrenceRule.LargestCount)
            throw new RuleException("COUNT", "rule.count", ("count", parts.Count), ("most", RecurrenceRule.LargestCount));
        if (parts.Count is not null && parts.Until is not null)
            throw new RuleException("COUNT", "rule.countAndUntil");
        CheckRanges(parts);
        CheckCombinations(parts);
    }

    private static void CheckRanges(RuleParts parts)
    {
        Within("BYSECOND", parts.Seconds, 0, 60);
        Within("BYMINUTE", parts.Minutes, 0, 59);
        Within("BYHOUR", parts.Hours, 0, 23);
        Within("BYMONTH", parts.Months, 1, 12);
        foreach (var weekday in parts.Weekdays)
        {
            if (weekday.Ordinal != 0)
                WithinOrFromEnd("BYDAY", weekday.Ordinal, 53);
        }
        WithinOrFromEnd("BYMONTHDAY", parts.MonthDays, 31);
        WithinOrFromEnd("BYYEARDAY", parts.YearDays, 366);
        WithinOrFromEnd("BYWEEKNO", parts.WeekNumbers, 53);
        WithinOrFromEnd("BYSETPOS", parts.SetPositions, 366);
    }

    private static void CheckCombinations(RuleParts parts)
    {
        var frequency = parts.Frequency;
        var name = RuleText.Name(frequency);
        if (parts.WeekNumbers.Count > 0 && frequency != Frequency.Yearly)
            throw new RuleException("BYWEEKNO", "rule.weekNumbers", ("name", name));
        if (parts.YearDays.Count > 0 && frequency is (Frequency.Daily or Frequency.Weekly or Frequency.Monthly))
            throw new RuleException("BYYEARDAY", "rule.yearDays", ("name", name));
        if (parts.MonthDays.Count > 0 && frequency == Frequency.Weekly)
            throw new RuleException("BYMONTHDAY", "rule.monthDays");
        if (parts.Weekdays.Any(weekday => weekday.Ordinal != 0))
            CheckOrdinals(parts, name);
        if (parts.SetPositions.Count > 0 && !HasAnyOtherBy(parts) && !ChoosesTheOnlyOne(parts))
            throw new RuleException("BYSETPOS", "rule.positionAlone");
        if (parts.Skip != Skip.Omit && frequency is not (Frequency.Monthly or Frequency.Yearly))
            throw new RuleException("SKIP", "rule.skip", ("name", name));
        var times = Math.Max(1, parts.Hours.Count) * Math.Max(1, parts.Minutes.Count) * Math.Max(1, parts.Seconds.Count);
        if (frequency >= Frequency.Daily && times > MostTimesADay)
            throw new RuleException("BYHOUR", "rule.tooManyTimes", ("times", times), ("most", MostTimesADay));
    }

    private static void CheckOrdinals(RuleParts parts, string name)
    {
        var first = parts.Weekdays.First(weekday => weekday.Ordinal != 0);
        var text = RuleText.Code(first);
        if (parts.Frequency is not (Frequency.Monthly or Frequency.Yearly))
            throw new RuleException("BYDAY", "rule.countedWeekday", ("text", text), ("name", name), ("weekday", text[^2..]));
        if (parts.WeekNumbers.Count > 0)
            throw new RuleException("BYDAY", "rule.countedInWeek", ("text", text), ("weekday", text[^2..]));
    }

    public static void CheckAgainst(RecurrenceRule rule, LocalDateTime start, DateTimeZone? zone)
    {
        if (zone is null && rule.Frequency < Frequency.Daily)
            throw new RuleException("FREQ", "rule.needsTime", ("name", RuleText.Name(rule.Frequency)));
        if (zone is null && (rule.Parts.Hours.Count > 0 || rule.Parts.Minutes.Count > 0 || rule.Parts.Seconds.Count > 0))
            throw new RuleException("BYHOUR", "rule.timesOfAllDay");
        switch (rule.Until)
        {
            case Until.Moment moment when zone is null:
                throw new RuleException("UNTIL", "rule.untilIsTime", ("instant", moment.Instant));
            case Until.Day when zone is not null:
                throw new RuleException("UNTIL", "rule.untilIsDate");
            case Until.Moment moment when moment.Instant < LocalTimes.InZone(start, zone!).ToInstant():
                throw new RuleException("UNTIL", "rule.endsBeforeFirst");
            case Until.Day day when day.Date < start.Date:
                throw new RuleException("UNTIL", "rule.endsBeforeFirst");
        }
    }

    /// <summary>A day or less holds one candidate. Programs that write BYSETPOS=1 there are understood (it says nothing).</summary>
    private static bool ChoosesTheOnlyOne(RuleParts parts) =>
        parts.Frequency <= Frequency.Daily && parts.SetPositions.All(position => position is 1 or -1);

    private static bool HasAnyOtherBy(RuleParts parts) =>
        parts.Seconds.Count + parts.Minutes.Count + parts.Hours.Count + parts.Weekdays.Count + parts.MonthDays.Count
        + parts.YearDays.Count + parts.WeekNumbers.Count + parts.Months.Count > 0;

    private static void Within(string part, IReadOnlyList<int> values, int least, int most)
    {
        foreach (var value in values)
        {
            if (value < least || value > most)
                throw new RuleException(part, "rule.outOfRange", ("part", part), ("value", value), ("least", least), ("most", most));
        }
    }

    private static void WithinOrFromEnd(string part, IReadOnlyList<int> values, int most)
    {
        foreach (var value in values)
            WithinOrFromEnd(part, value, most);
    }

    private static void WithinOrFromEnd(string part, int value, int most)
    {
        if (value == 0 || value < -most || value > most)
            throw new RuleException(part, "rule.outOfRangeFromEnd", ("part", part), ("value", value), ("most", most));
    }
}
