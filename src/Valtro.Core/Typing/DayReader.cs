using System.Globalization;
using System.Text.RegularExpressions;
using NodaTime;

namespace Valtro.Core.Typing;

/// <summary>One day, or the first and last of several.</summary>
internal readonly record struct Days(LocalDate First, LocalDate? Last = null);

/// <summary>What has to be settled about a day: by one of the choices, or by writing more.</summary>
/// <param name="Code">Of the sentence that says why.</param>
internal sealed record DayQuestion(string Code, (string Name, object? Value)[] Values, IReadOnlyList<Days> Choices);

/// <summary>Days as a line says them.</summary>
/// <param name="IsPlain">Without a year and not introduced, so that it could be part of a title: "9 May".</param>
/// <param name="Question">Null where it can mean one thing only.</param>
internal sealed record DaysFound(Days Days, bool IsPlain, DayQuestion? Question);

/// <summary>Reads days: "24 Nov", "Dec 18", "12th of June 2027", "7–11 December", "Tue, 24.11.", "next Monday", "in two weeks".</summary>
/// <param name="nearest">A day without a year is the nearest one, also one that has passed, as in a table; else the next, and asked
/// about.</param>
internal sealed partial class DayReader(LineWords words, Grammar grammar, LocalDate today, bool nearest = false)
{
    /// <param name="HasYear">Or says otherwise which one is meant.</param>
    private sealed record Day(LocalDate Date, bool HasYear, DayQuestion? Question = null);

    /// <summary>A day, or several in a row.</summary>
    /// <returns>Null when there is none; then nothing was gone over.</returns>
    public DaysFound? Read()
    {
        var start = words.At;
        var isIntroduced = grammar.Skips("on", words) || grammar.Skips("from", words);
        if ((ReadDaysInNumbers() ?? ReadDaysOfMonth()) is { } ofMonth)
            return Found(ofMonth.First, ofMonth.Last, isIntroduced);
        if (ReadOne(today) is not { } first)
        {
            words.At = start;
            return null;
        }
        var end = words.At;
        if (grammar.Skips("to", words) && ReadOne(first.Date) is { } last && last.Date >= first.Date)
            return Found(WithYearOf(last, first), last, isIntroduced);
        words.At = end;
        return Found(first, null, isIntroduced);
    }

    /// <summary>One day that can mean one thing only.</summary>
    /// <param name="from">What is said without a year, or by a weekday, is that day or a later one.</param>
    /// <returns>Null when there is none; then it does not matter what was gone over.</returns>
    public LocalDate? ReadSure(LocalDate from)
    {
        grammar.Skips("on", words);
        return ReadOne(from) is { Question: null } day ? day.Date : null;
    }

    /// <summary>All of a text, as a cell says it.</summary>
    /// <returns>The day; two where it could be either, none where it is no day.</returns>
    /// <param name="near">A day without a year is the one nearest to this.</param>
    public IReadOnlyList<LocalDate> ReadAlone(LocalDate near) => ReadOne(near) is not { } day || !words.IsAtEnd ? []
        : day.Question is null ? [day.Date]
        : [.. day.Question.Choices.Select(choice => choice.First)];

    /// <summary>The last day of a month: "until June".</summary>
    public LocalDate? ReadMonth()
    {
        if (grammar.Month(words.Current) is not { } month)
            return null;
        words.Skip();
        var year = ReadYear() ?? (month >= today.Month ? today.Year : today.Year + 1);
        return new LocalDate(year, month, 1).With(DateAdjusters.EndOfMonth);
    }

    /// <summary>"15 Feb to 19 Feb 2027" says the year once.</summary>
    private static Day WithYearOf(Day last, Day first)
    {
        if (first.HasYear || !last.HasYear || last.Question is not null || first.Date.Month == 2 && first.Date.Day == 29)
            return first;
        var same = new LocalDate(last.Date.Year, first.Date.Month, first.Date.Day);
        return new Day(same <= last.Date ? same : same.PlusYears(-1), HasYear: true);
    }

    private static DaysFound Found(Day first, Day? last, bool isIntroduced)
    {
        var (asked, days) = (first.Question ?? last?.Question, new Days(first.Date, last?.Date));
        var question = asked is null || last is null
            ? asked
            : asked with
            {
                Choices = [.. asked.Choices.Select(choice => first.Question is not null
                    ? new Days(choice.First, choice.First + Period.Between(first.Date, last.Date, PeriodUnits.Days))
                    : new Days(first.Date, choice.First))],
            };
        return new DaysFound(days, !isIntroduced && !(last ?? first).HasYear, question);
    }

    /// <summary>"7.–11.12.": the month is said once, in numbers.</summary>
    private (Day First, Day Last)? ReadDaysInNumbers()
    {
        var start = words.At;
        var isOrdinal = words.Current.EndsWith('.');
        if (ReadNumber() is { } first && grammar.Skips("to", words) && NumberForm().Match(words.Current) is { Success: true } numbers
            && grammar.DayComesFirst(numbers.Groups["dot"].Value[0]) == true
            && InNumbers(numbers, today, null, isDay: isOrdinal) is { } last && last.Date.Day > first
            && Of(first, last.Date.Month, last.HasYear ? last.Date.Year : null, null, today) is { } begins)
        {
            words.Skip();
            return (begins, last);
        }
        words.At = start;
        return null;
    }

    /// <summary>"7–11 December", "1st to 5th of March 2027", "December 7–11".</summary>
    private (Day First, Day Last)? ReadDaysOfMonth()
    {
        var start = words.At;
        var before = grammar.Month(words.Current);
        if (before is not null)
            words.Skip();
        if (ReadNumber() is { } first && grammar.Skips("to", words) && ReadNumber() is { } last && last > first)
        {
            grammar.Skips("of", words);
            var month = before ?? grammar.Month(words.Current);
            if (before is null && month is not null)
                words.Skip();
            if (month is { } said)
            {
                var year = ReadYear();
                if (Of(first, said, year, null, today) is { } begins && Of(last, said, year ?? begins.Date.Year, null, today) is { } ends)
                    return (begins, ends with { HasYear = begins.HasYear });
            }
        }
        words.At = start;
        return null;
    }

    /// <param name="from">What is said without a year, or by a weekday, is that day or a later one.</param>
    private Day? ReadOne(LocalDate from)
    {
        var start = words.At;
        if (ReadRelative() is { } relative)
            return relative;
        if (grammar.Weekday(words.Current) is { } weekday)
        {
            words.Skip();
            var after = words.At;
            grammar.Skips("article", words);
            if (ReadDate(from, weekday) is { } dated)
                return dated;
            words.At = after;
            return WeekAhead() is { } week ? Inside(week, weekday) : OnWeekday(weekday, from);
        }
        grammar.Skips("article", words);
        if (ReadDate(from, null) is { } date)
            return date;
        words.At = start;
        return null;
    }

    private Day OnWeekday(IsoDayOfWeek weekday, LocalDate from)
    {
        var date = from.With(DateAdjusters.NextOrSame(weekday));
        return new Day(date, HasYear: false, date == today && from == today && !nearest
            ? new DayQuestion("ask.today", [], [new Days(date), new Days(date.PlusWeeks(1))])
            : null);
    }

    private Day? ReadRelative()
    {
        if (grammar.Skips("dayAfterTomorrow", words))
            return new Day(today.PlusDays(2), HasYear: false);
        if (grammar.Skips("today", words))
            return new Day(today, HasYear: false);
        if (grammar.Skips("tomorrow", words))
            return new Day(today.PlusDays(1), HasYear: false);
        var start = words.At;
        if (grammar.Skips("in", words) && grammar.Amount(words.Current) is { } amount and < 1_000 && words.Skip())
        {
            var later = grammar.Skips("day", words) ? today.PlusDays(amount)
                : grammar.Skips("week", words) ? today.PlusWeeks(amount)
                : grammar.Skips("month", words) ? today.PlusMonths(amount)
                : default(LocalDate?);
            if (later is { } date)
                return new Day(date, HasYear: true);
        }
        words.At = start;
        if (WeekAhead() is { } week)
        {
            grammar.Skips("on", words);
            if (grammar.Weekday(words.Current) is { } inWeek && words.Skip())
                return Inside(week, inWeek);
        }
        words.At = start;
        foreach (var part in new[] { "coming", "next", "this" })
        {
            if (grammar.Skips(part, words) && grammar.Weekday(words.Current) is { } weekday && Near(part, weekday) is { } day)
            {
                words.Skip();
                return day;
            }
            words.At = start;
        }
        return null;
    }

    /// <summary>"this week", "next week": its Monday.</summary>
    private LocalDate? WeekAhead()
    {
        var start = words.At;
        var monday = today.With(DateAdjusters.PreviousOrSame(IsoDayOfWeek.Monday));
        var week = grammar.Skips("next", words) ? monday.PlusWeeks(1) : grammar.Skips("this", words) ? monday : default(LocalDate?);
        if (week is not null && grammar.Skips("week", words))
            return week;
        words.At = start;
        return null;
    }

    private static Day Inside(LocalDate week, IsoDayOfWeek weekday) => new(week.PlusDays((int)weekday - 1), HasYear: true);

    /// <summary>"next Friday" is asked about where this week still has one: people mean either.</summary>
    private Day? Near(string part, IsoDayOfWeek weekday)
    {
        var coming = today.With(DateAdjusters.Next(weekday));
        var isOfThisWeek = coming <= today.With(DateAdjusters.NextOrSame(IsoDayOfWeek.Sunday));
        return part switch
        {
            "this" => today.DayOfWeek == weekday ? new Day(today, HasYear: true) : isOfThisWeek ? new Day(coming, HasYear: true) : null,
            "next" when isOfThisWeek =>
                new Day(coming, HasYear: true, new DayQuestion("ask.next", [], [new Days(coming), new Days(coming.PlusWeeks(1))])),
            _ => new Day(coming, HasYear: true),
        };
    }

    private Day? ReadDate(LocalDate from, IsoDayOfWeek? weekday)
    {
        var start = words.At;
        if (IsoForm().Match(words.Current) is { Success: true } iso)
            return Taken(Of(Number(iso, 3), Number(iso, 2), Number(iso, 1), weekday, from));
        if (NumberForm().Match(words.Current) is { Success: true } numbers)
            return Taken(InNumbers(numbers, from, weekday));
        if (ReadNumber() is { } day)
        {
            grammar.Skips("of", words);
            if (grammar.Month(words.Current) is { } month)
            {
                words.Skip();
                if (Of(day, month, ReadYear(), weekday, from) is { } named)
                    return named;
            }
        }
        words.At = start;
        if (grammar.Month(words.Current) is { } first && words.Skip() && ReadNumber() is { } number
            && Of(number, first, ReadYear(), weekday, from) is { } inThatOrder)
            return inThatOrder;
        words.At = start;
        return null;

        Day? Taken(Day? found)
        {
            if (found is not null)
                words.Skip();
            return found;
        }
    }

    /// <summary>18.12.2026, 12/18/2026, 24.11.: in the order of the locale; where that does not settle it, it is asked.</summary>
    /// <param name="isDay">What stands before it says that it is no time.</param>
    private Day? InNumbers(Match numbers, LocalDate from, IsoDayOfWeek? weekday, bool isDay = false)
    {
        var (one, two) = (Number(numbers, "one"), Number(numbers, "two"));
        var year = numbers.Groups["year"] is { Success: true, Length: > 0 } said ? Year(said.Value) : default(int?);
        // "9.10" may be a time; "24.11" may not.
        if (!isDay && year is null && numbers.Groups["dot"].Value == "." && !numbers.Value.EndsWith('.') && one <= 23)
            return null;
        var (dayFirst, monthFirst) = (Of(one, two, year, weekday, from), Of(two, one, year, weekday, from));
        if (one == two || dayFirst is null || monthFirst is null)
            return dayFirst ?? monthFirst;
        return grammar.DayComesFirst(numbers.Groups["dot"].Value[0]) switch
        {
            true => dayFirst,
            false => monthFirst,
            null => dayFirst with
            {
                Question = new DayQuestion("ask.order", [], [new Days(dayFirst.Date), new Days(monthFirst.Date)]),
            },
        };
    }

    /// <summary>A day of a month: without a year the next one, asked about where this year's has passed; with a weekday the one that
    /// fits.</summary>
    private Day? Of(int day, int month, int? year, IsoDayOfWeek? weekday, LocalDate from)
    {
        if (year is { } said)
            return Date(said, month, day) is { } exact ? Fitting(new Day(exact, HasYear: true), weekday) : null;
        var years = Enumerable.Range(from.Year, 9).Select(one => Date(one, month, day)).OfType<LocalDate>().ToArray();
        if (years.Length == 0)
            return null;
        if (nearest)
        {
            var near = years.Append(Date(from.Year - 1, month, day) ?? years[0])
                .OrderBy(date => Math.Abs(Period.DaysBetween(from, date))).First();
            return Fitting(new Day(near, HasYear: false), weekday);
        }
        var coming = years.First(date => date >= from);
        if (weekday is not null)
            return years.Where(date => date >= from).Take(2).Where(date => date.DayOfWeek == weekday)
                .Select(date => new Day(date, HasYear: true)).FirstOrDefault() ?? Fitting(new Day(coming, HasYear: false), weekday);
        var isOver = from == today && coming.Year != today.Year;
        return new Day(coming, HasYear: false, isOver
            ? new DayQuestion("ask.year", [("day", grammar.Speech.Day(Date(today.Year, month, day) ?? coming.PlusYears(-1)))],
                [new Days(coming), .. Date(today.Year, month, day) is { } passed ? [new Days(passed)] : Array.Empty<Days>()])
            : null);
    }

    private Day Fitting(Day day, IsoDayOfWeek? weekday)
    {
        if (weekday is not { } said || day.Date.DayOfWeek == said)
            return day with { HasYear = day.HasYear || weekday is not null };
        var (before, after) = (day.Date.With(DateAdjusters.Previous(said)), day.Date.With(DateAdjusters.Next(said)));
        var other = Period.DaysBetween(before, day.Date) <= Period.DaysBetween(day.Date, after) ? before : after;
        return day with
        {
            Question = new DayQuestion(
                "ask.weekday",
                [("day", grammar.Speech.Day(day.Date)), ("weekday", grammar.NameOf(day.Date.DayOfWeek))],
                [new Days(day.Date), new Days(other)]),
        };
    }

    private int? ReadNumber()
    {
        var word = words.Current;
        if (grammar.DayOfMonth(word) is not { } number)
            return null;
        words.Skip();
        return number;
    }

    private int? ReadYear()
    {
        var word = words.Current.TrimEnd('.');
        if (!YearForm().IsMatch(word) || Year(word) is not (>= 1900 and <= 2199 and var year))
            return null;
        words.Skip();
        return year;
    }

    private static int Year(string text) =>
        int.Parse(text, CultureInfo.InvariantCulture) is var year && year < 100 ? 2000 + year : year;

    private static LocalDate? Date(int year, int month, int day) =>
        year is >= 1900 and <= 2199 && month is >= 1 and <= 12 && day >= 1 && day <= CalendarSystem.Iso.GetDaysInMonth(year, month)
            ? new LocalDate(year, month, day)
            : null;

    private static int Number(Match match, string group) => int.Parse(match.Groups[group].ValueSpan, CultureInfo.InvariantCulture);

    private static int Number(Match match, int group) => int.Parse(match.Groups[group].ValueSpan, CultureInfo.InvariantCulture);

    [GeneratedRegex(@"^(\d{4})-(\d{1,2})-(\d{1,2})$")]
    private static partial Regex IsoForm();

    [GeneratedRegex(@"^(?<one>\d{1,2})(?:(?<dot>[./])(?<two>\d{1,2})(?:[./](?<year>\d{4}|\d{2})?)?|(?<dot>-)(?<two>\d{1,2})-(?<year>\d{4}|\d{2}))$")]
    private static partial Regex NumberForm();

    [GeneratedRegex(@"^\d{4}$")]
    private static partial Regex YearForm();
}
