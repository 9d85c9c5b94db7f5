using NodaTime;
using NodaTime.Calendars;
using Valtro.Core.Recurrence;

namespace Valtro.Core.Tests.Recurrence;

/// <summary>
/// RFC 5545 3.3.10 taken at its word, day by day and with NodaTime's calendar: every day and time of a period that no part rules
/// out, then BYSETPOS. Slow, and it knows neither clocks nor SKIP; it shares nothing with the expansion that it judges.
/// </summary>
internal static class Definition
{
    /// <summary>Local dates from the start to the end of <paramref name="lastYear"/>, the start first whether the pattern gives it or not
    /// (3.8.5.3).</summary>
    /// <remarks>For DAILY and longer frequencies, with SKIP=OMIT.</remarks>
    public static IEnumerable<LocalDateTime> Dates(RecurrenceRule rule, LocalDateTime start, int lastYear)
    {
        var given = Periods(rule, start.Date, lastYear)
            .SelectMany(period => Chosen(Times(rule.Parts, start, Days(rule.Parts, start.Date, period)), rule.Parts.SetPositions))
            .Where(date => date > start)
            .Prepend(start);
        return rule.Count is { } count ? given.Take(count) : given;
    }

    private static IEnumerable<(LocalDate First, LocalDate Last)> Periods(RecurrenceRule rule, LocalDate start, int lastYear)
    {
        var first = rule.Frequency switch
        {
            Frequency.Yearly => new LocalDate(start.Year, 1, 1),
            Frequency.Monthly => new LocalDate(start.Year, start.Month, 1),
            Frequency.Weekly => start.With(DateAdjusters.PreviousOrSame(rule.Parts.WeekStart)),
            _ => start,
        };
        for (var number = 0; ; number += rule.Interval)
        {
            var begins = Later(first, rule.Frequency, number);
            if (begins.Year > lastYear)
                yield break;
            yield return (begins, Later(first, rule.Frequency, number + 1).PlusDays(-1));
        }
    }

    private static LocalDate Later(LocalDate first, Frequency frequency, int periods) => frequency switch
    {
        Frequency.Yearly => first.PlusYears(periods),
        Frequency.Monthly => first.PlusMonths(periods),
        Frequency.Weekly => first.PlusWeeks(periods),
        _ => first.PlusDays(periods),
    };

    private static IEnumerable<LocalDate> Days(RuleParts parts, LocalDate start, (LocalDate First, LocalDate Last) period)
    {
        var saysWhichDay = parts.Weekdays.Count + parts.MonthDays.Count + parts.YearDays.Count > 0;
        for (var day = period.First; day <= period.Last; day = day.PlusDays(1))
        {
            if (IsLeftByAllParts(parts, day) && (saysWhichDay || IsTheStartsOwn(parts, start, day)))
                yield return day;
        }
    }

    /// <summary>"Information … missing from the rule is taken from DTSTART".</summary>
    private static bool IsTheStartsOwn(RuleParts parts, LocalDate start, LocalDate day) => parts.Frequency switch
    {
        Frequency.Yearly when parts.WeekNumbers.Count > 0 => day.DayOfWeek == start.DayOfWeek,
        Frequency.Yearly => day.Day == start.Day && (parts.Months.Count > 0 || day.Month == start.Month),
        Frequency.Monthly => day.Day == start.Day,
        Frequency.Weekly => day.DayOfWeek == start.DayOfWeek,
        _ => true,
    };

    private static bool IsLeftByAllParts(RuleParts parts, LocalDate day)
    {
        var weeks = WeekYearRules.ForMinDaysInFirstWeek(4, parts.WeekStart);
        return (parts.Months.Count == 0 || parts.Months.Contains(day.Month))
            && Names(parts.MonthDays, day.Day, DateOfMonthEnd(day).Day)
            && Names(parts.YearDays, day.DayOfYear, CalendarSystem.Iso.GetDaysInYear(day.Year))
            && Names(parts.WeekNumbers, weeks.GetWeekOfWeekYear(day), weeks.GetWeeksInWeekYear(weeks.GetWeekYear(day)))
            && (parts.Weekdays.Count == 0 || parts.Weekdays.Any(weekday => IsMeant(weekday, day, parts)));
    }

    private static LocalDate DateOfMonthEnd(LocalDate day) => day.With(DateAdjusters.EndOfMonth);

    /// <summary>Counted from the front or, when negative, from the end.</summary>
    private static bool Names(IReadOnlyList<int> wanted, int place, int length) =>
        wanted.Count == 0 || wanted.Contains(place) || wanted.Contains(place - length - 1);

    /// <summary>"The second Tuesday" of the month in MONTHLY rules and with BYMONTH, else of the year.</summary>
    private static bool IsMeant(NumberedWeekday wanted, LocalDate day, RuleParts parts)
    {
        if (wanted.Weekday != day.DayOfWeek)
            return false;
        if (wanted.Ordinal == 0)
            return true;
        var inMonth = parts.Frequency == Frequency.Monthly || parts.Months.Count > 0;
        var all = AllLike(day, inMonth).ToList();
        return Names([wanted.Ordinal], all.IndexOf(day) + 1, all.Count);
    }

    private static IEnumerable<LocalDate> AllLike(LocalDate day, bool inMonth)
    {
        var one = inMonth ? new LocalDate(day.Year, day.Month, 1) : new LocalDate(day.Year, 1, 1);
        for (one = one.With(DateAdjusters.NextOrSame(day.DayOfWeek)); one.Year == day.Year
            && (!inMonth || one.Month == day.Month); one = one.PlusWeeks(1))
            yield return one;
    }

    private static IEnumerable<LocalDateTime> Times(RuleParts parts, LocalDateTime start, IEnumerable<LocalDate> days) =>
        from day in days
        from hour in Or(parts.Hours, start.Hour)
        from minute in Or(parts.Minutes, start.Minute)
        from second in Or(parts.Seconds, start.Second)
        select day + new LocalTime(hour, minute, second);

    private static IEnumerable<int> Or(IReadOnlyList<int> said, int start) => said.Count > 0 ? said.Order() : [start];

    private static IEnumerable<LocalDateTime> Chosen(IEnumerable<LocalDateTime> set, IReadOnlyList<int> positions)
    {
        if (positions.Count == 0)
            return set;
        var all = set.ToArray();
        return all.Where((_, index) => Names(positions, index + 1, all.Length));
    }
}
