using System.Text.RegularExpressions;

namespace Valtro.Core.Typing;

/// <summary>What in a title may say of when something is, and was not understood: nobody is to find it there later.</summary>
internal sealed partial class TitleDoubts(LineWords words, Grammar grammar)
{
    private static readonly string[] Kinds = ["every", "until", "otherTime"];
    private static readonly string[] Near = ["next", "this", "coming"];
    private static readonly string[] Amounts = ["minute", "hour", "day", "week", "month"];

    /// <summary>A word that would begin a pattern or its end, if that could be read; how long it is, from when on, or roughly
    /// when.</summary>
    /// <param name="end">Behind the last word of the title.</param>
    public bool SayWhen(int start, int end) => Enumerable.Range(start, end - start).Any(word =>
        Kinds.Any(kind => grammar.Is(kind, words[word].Text)) || IsAmount(word, end) || IsRoughly(word, end)
        || IsWeek(word, end) || IsHour(word, end) || ClockForm().IsMatch(words[word].Text));

    /// <summary>"of", "by", "to": what stands before a day makes another one of it.</summary>
    public bool Hangs(int word) => grammar.Is("hangs", words[word].Text)
        || (word > 0 && (grammar.Is("to", words[word].Text) || words[word].Text is "+" or "/")
            && grammar.DayOfMonth(words[word - 1].Text) is not null);

    /// <summary>"Mon 7", of two days of which only the second says its month.</summary>
    public bool SayDay(int start, int end) => Enumerable.Range(start, end - start).Any(word => word + 1 < end
        && grammar.Weekday(words[word].Text) is not null && grammar.DayOfMonth(words[word + 1].Text.TrimEnd(',')) is not null);

    /// <summary>"90 min", "one week before" at the end of the title, and not the one of "24 hour swim".</summary>
    private bool IsAmount(int word, int end) => word + 1 < end
        && (grammar.Number(words[word].Text) is not null || words[word].Text.All(char.IsAsciiDigit))
        && Amounts.Any(unit => grammar.Is(unit, words[word + 1].Text))
        && Enumerable.Range(word + 2, end - word - 2).All(Hangs);

    /// <summary>"next week", "this month".</summary>
    private bool IsWeek(int word, int end) => word + 1 < end && Near.Any(part => grammar.Is(part, words[word].Text))
        && Amounts.Any(unit => grammar.Is(unit, words[word + 1].Text));

    /// <summary>"24 Uhr".</summary>
    private bool IsHour(int word, int end) => word + 1 < end && words[word].Text.All(char.IsAsciiDigit)
        && grammar.Is("oClock", words[word + 1].Text);

    /// <summary>"25:00" is no time.</summary>
    [GeneratedRegex(@"^\d{1,2}:\d{2}$")]
    private static partial Regex ClockForm();

    /// <summary>"7ish", "half twelve".</summary>
    private bool IsRoughly(int word, int end) =>
        (words[word].Text is [>= '0' and <= '9', ..] said && grammar.Is("ish", said.TrimStart([.. "0123456789-"])))
        || (grammar.Is("half", words[word].Text) && word + 1 < end && grammar.Number(words[word + 1].Text) is not null);
}
