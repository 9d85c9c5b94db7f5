using System.Globalization;
using NodaTime;
using NodaTime.Calendars;

namespace Valtro.Core.Typing;

/// <summary>What a stretch of days is to whoever goes there.</summary>
public enum SpanKind
{
    Day,
    Week,
    Month,
}

/// <summary>Days that somebody wants to see.</summary>
public readonly record struct SpanMeant(SpanKind Kind, LocalDate First);

/// <summary>Where somebody wants to go who types "12 march", "week 49", "next week" or "March 2027": nothing else may stand there.</summary>
public static class SpanReader
{
    private static readonly int[] YearsNearby = [0, 1, -1];

    /// <summary>The nearest ones first; none where it is no stretch of days.</summary>
    /// <param name="firstDayOfWeek">As the organisation writes its weeks; they are numbered as in ISO 8601, by the week's fourth day.</param>
    public static IReadOnlyList<SpanMeant> Read(string text, CultureInfo culture, LocalDate today, IsoDayOfWeek firstDayOfWeek)
    {
        var days = Typed.Days(text, culture, today);
        if (days.Count > 0)
            return [.. days.Select(day => new SpanMeant(SpanKind.Day, day))];
        var grammar = Grammar.Of(culture);
        return Week(Words(), grammar, today, firstDayOfWeek) is { Count: > 0 } weeks ? weeks : Month(Words(), grammar, today);

        LineWords Words() => new(text, _ => false);
    }

    private static IReadOnlyList<SpanMeant> Week(LineWords words, Grammar grammar, LocalDate today, IsoDayOfWeek firstDayOfWeek)
    {
        var thisWeek = today.With(DateAdjusters.PreviousOrSame(firstDayOfWeek));
        foreach (var (part, later) in new[] { ("this", 0), ("next", 1), ("coming", 1) })
        {
            if (grammar.Skips(part, words) && grammar.Skips("week", words) && words.IsAtEnd)
                return [new SpanMeant(SpanKind.Week, thisWeek.PlusWeeks(later))];
            words.At = 0;
        }
        // "week 49", "week 1 2027", "49. Woche"
        var isNamed = grammar.Skips("weekNumber", words);
        if (grammar.Amount(grammar.Without("nth", words.Current) ?? words.Current.TrimEnd('.')) is not { } number)
            return [];
        words.Skip();
        if (!isNamed && !grammar.Skips("weekNumber", words))
            return [];
        var year = Year(words);
        if (!words.IsAtEnd)
            return [];
        var rule = WeekYearRules.ForMinDaysInFirstWeek(4, firstDayOfWeek);
        var nearby = YearsNearby.Select(years => year ?? rule.GetWeekYear(today) + years).Distinct()
            .Where(weekYear => number >= 1 && number <= rule.GetWeeksInWeekYear(weekYear, CalendarSystem.Iso))
            .Select(weekYear => new SpanMeant(SpanKind.Week, rule.GetLocalDate(weekYear, number, firstDayOfWeek)));
        return [.. nearby.OrderBy(week => Math.Abs(Period.DaysBetween(today, week.First))).Take(2)];
    }

    private static IReadOnlyList<SpanMeant> Month(LineWords words, Grammar grammar, LocalDate today)
    {
        if (grammar.Month(words.Current) is not { } month)
            return [];
        words.Skip();
        var year = Year(words);
        if (!words.IsAtEnd)
            return [];
        var nearby = YearsNearby.Select(years => new LocalDate(year ?? today.Year + years, month, 1)).Distinct()
            .OrderBy(first => Math.Abs(Period.DaysBetween(today, first)));
        return [.. nearby.Take(2).Select(first => new SpanMeant(SpanKind.Month, first))];
    }

    private static int? Year(LineWords words)
    {
        if (!int.TryParse(words.Current, NumberStyles.None, CultureInfo.InvariantCulture, out var year) || year is < 1900 or > 2199)
            return null;
        words.Skip();
        return year;
    }
}
