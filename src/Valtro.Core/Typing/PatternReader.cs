using System.Globalization;
using NodaTime;
using Valtro.Core.Events;

namespace Valtro.Core.Typing;

/// <param name="MayCountWeeks">"every third Tuesday" is one of each month to some, and of every three weeks to others.</param>
internal sealed record PatternFound(RepeatDraft Repeat, bool MayCountWeeks);

/// <summary>Reads patterns: "every second Tuesday", "Mondays and Fridays", "daily", "last Friday of the month".</summary>
internal sealed class PatternReader(LineWords words, Grammar grammar)
{
    /// <returns>The pattern, without its end and with its day left open where the line does not say it; null when it is none.</returns>
    public PatternFound? Read()
    {
        var start = words.At;
        var pattern = grammar.Skips("every", words) ? ReadEvery() : ReadBare() is { } bare ? new PatternFound(bare, false) : null;
        if (pattern is null)
            words.At = start;
        return pattern;
    }

    private RepeatDraft? ReadBare()
    {
        if (Skips("everyWorkday"))
            return new RepeatDraft(RepeatPattern.Weekly, 1, [1, 2, 3, 4, 5]);
        if (Skips("daily"))
            return new RepeatDraft(RepeatPattern.Daily, 1);
        if (Skips("weekly"))
            return new RepeatDraft(RepeatPattern.Weekly, 1, OnWeekdays());
        if (Skips("fortnightly"))
            return new RepeatDraft(RepeatPattern.Weekly, 2, OnWeekdays());
        if (Skips("yearly"))
            return new RepeatDraft(RepeatPattern.Yearly, 1, By: MonthPosition.Day);
        if (Skips("monthly"))
        {
            var at = words.At;
            if (Skips("onThe") && ReadPosition(needsMonth: false) is { } position)
                return position;
            words.At = at;
            return new RepeatDraft(RepeatPattern.Monthly, 1, By: MonthPosition.Day);
        }
        var start = words.At;
        Skips("on");
        if (grammar.EachWeekday(words.Current) is not null)
            return new RepeatDraft(RepeatPattern.Weekly, 1, ReadWeekdays());
        words.At = start;
        Skips("onThe");
        grammar.Skips("article", words);
        var counted = ReadPosition(needsMonth: true);
        if (counted is null)
            words.At = start;
        return counted;
    }

    private PatternFound? ReadEvery()
    {
        var start = words.At;
        // "every second Tuesday of the month" counts in the month; "every second Tuesday" counts weeks.
        if (ReadPosition(needsMonth: true) is { } inMonth)
            return new PatternFound(inMonth, false);
        words.At = start;
        var interval = ReadInterval();
        if (ReadWeekdays() is { Count: > 0 } weekdays)
            return new PatternFound(new RepeatDraft(RepeatPattern.Weekly, interval ?? 1, weekdays), false);
        if (ReadUnit(interval ?? 1) is { } unit)
            return new PatternFound(unit, false);
        words.At = start;
        return ReadPosition(needsMonth: false) is { } position
            ? new PatternFound(position, position is { By: MonthPosition.Weekday, Ordinal: > 1 })
            : null;
    }

    private int? ReadInterval()
    {
        if (Skips("otherOf"))
            return 2;
        var isCounted = grammar.Ordinal(words.Current) > 1
            && new[] { "day", "week", "month", "year" }.Any(unit => grammar.Is(unit, words.Ahead(1)));
        if ((isCounted ? grammar.Ordinal(words.Current) : grammar.Amount(words.Current)) is not (> 0 and var number))
            return null;
        words.Skip();
        return number;
    }

    private List<int> ReadWeekdays()
    {
        var weekdays = new List<int>();
        if (Skips("workdays"))
            return [1, 2, 3, 4, 5];
        while (!words.IsAtEnd)
        {
            var several = words.Current.Split(',', '/');
            if (several.All(one => WeekdayOf(one) is not null))
            {
                weekdays.AddRange(several.Select(one => (int)WeekdayOf(one)!.Value));
                words.Skip();
            }
            else if (weekdays.Count == 0 || WeekdayOf(words.Ahead(1)) is null || !Skips("and"))
                break;
        }
        return weekdays;
    }

    private RepeatDraft? ReadUnit(int every)
    {
        if (Skips("day"))
            return new RepeatDraft(RepeatPattern.Daily, every);
        if (Skips("week"))
            return new RepeatDraft(RepeatPattern.Weekly, every, OnWeekdays());
        if (Skips("year"))
            return new RepeatDraft(RepeatPattern.Yearly, every, By: MonthPosition.Day);
        if (!Skips("month"))
            return null;
        var start = words.At;
        if (Skips("onThe") && ReadPosition(needsMonth: false) is { } position)
            return position with { Interval = every };
        words.At = start;
        return new RepeatDraft(RepeatPattern.Monthly, every, By: MonthPosition.Day);
    }

    private List<int> OnWeekdays()
    {
        var start = words.At;
        Skips("on");
        var weekdays = ReadWeekdays();
        if (weekdays.Count == 0)
            words.At = start;
        return weekdays;
    }

    /// <summary>"24th", "second Tuesday", "last weekday", "last day".</summary>
    private RepeatDraft? ReadPosition(bool needsMonth)
    {
        if (words.IsAtEnd)
            return null;
        var isNumber = int.TryParse(grammar.Without("nth", words.Current), NumberStyles.None, CultureInfo.InvariantCulture, out var day)
            && day is >= 1 and <= 31 && WeekdayOf(words.Ahead(1)) is null;
        var position = isNumber ? OnDay(day) : Counted(grammar.Ordinal(words.Current), words.Ahead(1));
        if (position is null)
            return null;
        words.Skip(isNumber ? 1 : 2);
        return Skips("ofTheMonth") || Skips("monthly") || !needsMonth ? position : null;
    }

    private RepeatDraft? Counted(int ordinal, string what)
    {
        if (ordinal == 0)
            return null;
        if (grammar.Is("workdays", what))
            return new RepeatDraft(RepeatPattern.Monthly, 1, By: MonthPosition.Workday, Ordinal: ordinal);
        if (grammar.Is("day", what))
            return OnDay(ordinal);
        return WeekdayOf(what) is { } weekday
            ? new RepeatDraft(RepeatPattern.Monthly, 1, By: MonthPosition.Weekday, Ordinal: ordinal, Weekday: (int)weekday)
            : null;
    }

    private IsoDayOfWeek? WeekdayOf(string word) => grammar.Weekday(word) ?? grammar.EachWeekday(word);

    private bool Skips(string part) => grammar.Skips(part, words);

    private static RepeatDraft OnDay(int day) => new(RepeatPattern.Monthly, 1, By: MonthPosition.Day, MonthDay: day);
}
