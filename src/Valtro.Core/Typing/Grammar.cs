using System.Collections.Concurrent;
using System.Globalization;
using NodaTime;
using Valtro.Core.Speaking;

namespace Valtro.Core.Typing;

/// <summary>The words of a language that mean something where somebody types: data of its catalogue (typing.json), so that a further
/// language is data.</summary>
/// <remarks>A part of the grammar is a list of phrases with | between; names of months and weekdays come from the culture.</remarks>
internal sealed class Grammar
{
    private static readonly ConcurrentDictionary<string, Grammar> Known = new();

    private readonly Dictionary<string, string[][]> _phrases;

    private Grammar(CultureInfo culture)
    {
        (Culture, Speech) = (culture, Speech.For(culture.Name));
        _phrases = Speech.Messages
            .Where(message => message.Key.StartsWith("typing.", StringComparison.Ordinal))
            .ToDictionary(message => message.Key["typing.".Length..],
                message => Array.ConvertAll(message.Value.Split('|', StringSplitOptions.RemoveEmptyEntries), phrase => phrase.Split(' ')));
    }

    public CultureInfo Culture { get; }

    public Speech Speech { get; }

    public static Grammar Of(CultureInfo culture) => Known.GetOrAdd(culture.Name, _ => new Grammar(culture));

    /// <summary>Whether a word by itself is of a part.</summary>
    public bool Is(string part, string word) => Phrases(part).Any(phrase => phrase.Length == 1 && IsSame(phrase[0], word));

    /// <summary>The phrase of a part that is written where one is needed.</summary>
    public string First(string part) => string.Join(' ', Phrases(part)[0]);

    /// <summary>Whether a text ends with a word of a part, as "24th" does.</summary>
    /// <returns>The text without it; null where it does not.</returns>
    public string? Without(string part, string text) => Phrases(part)
        .Where(phrase => text.Length > phrase[0].Length && text.EndsWith(phrase[0], StringComparison.OrdinalIgnoreCase))
        .Select(phrase => text[..^phrase[0].Length].TrimEnd())
        .FirstOrDefault();

    /// <summary>How many of the coming words are a phrase of a part; 0 where none is.</summary>
    public int Coming(string part, LineWords words) => Phrases(part)
        .Where(phrase => phrase.Length <= words.Left && phrase.Select((word, index) => IsSame(word, words.Ahead(index))).All(same => same))
        .Select(phrase => phrase.Length)
        .DefaultIfEmpty(0)
        .Max();

    /// <summary>Goes over a phrase of a part if it comes next.</summary>
    public bool Skips(string part, LineWords words)
    {
        var length = Coming(part, words);
        words.Skip(length);
        return length > 0;
    }

    /// <summary>1 to 12 as words say them; null when it is none.</summary>
    public int? Number(string word) => Enumerable.Range(1, 12).Where(number => Is($"number.{number}", word)).Cast<int?>().FirstOrDefault();

    /// <summary>A number in digits or in words.</summary>
    public int? Amount(string word) =>
        int.TryParse(word, NumberStyles.None, CultureInfo.InvariantCulture, out var digits) ? digits : Number(word);

    /// <summary>"7", "7th", "7.": 1 to 31.</summary>
    public int? DayOfMonth(string word) =>
        int.TryParse((Without("nth", word) ?? word).TrimEnd('.'), NumberStyles.None, CultureInfo.InvariantCulture, out var day)
        && day is >= 1 and <= 31 ? day : null;

    public string NameOf(IsoDayOfWeek weekday) => Culture.DateTimeFormat.GetDayName((DayOfWeek)((int)weekday % 7));

    /// <summary>1 for the first to 5 for the fifth, -1 for the last; 0 when it is none.</summary>
    public int Ordinal(string word) => Array.Find([1, 2, 3, 4, 5, -1], position => Is($"ordinal.{position}", word));

    /// <summary>"Tuesday", "Tue", or another word of the language for it.</summary>
    public IsoDayOfWeek? Weekday(string text)
    {
        var word = text.TrimEnd('.');
        for (var weekday = 1; weekday <= 7 && word.Length >= 2; weekday++)
        {
            var (name, abbreviated) = (Culture.DateTimeFormat.GetDayName((DayOfWeek)(weekday % 7)),
                Culture.DateTimeFormat.GetAbbreviatedDayName((DayOfWeek)(weekday % 7)).TrimEnd('.'));
            if (IsSame(name, word) || IsSame(abbreviated, word) || Is($"weekday.{weekday}", word))
                return (IsoDayOfWeek)weekday;
        }
        return null;
    }

    /// <summary>"Tuesdays", "dienstags": each of them.</summary>
    public IsoDayOfWeek? EachWeekday(string text) => text.Length > 4 && text[^1] is 's' or 'S' && Weekday(text[..^1]) is { } weekday
        && IsSame(Culture.DateTimeFormat.GetDayName((DayOfWeek)((int)weekday % 7)), text[..^1]) ? weekday : null;

    /// <summary>1 to 12. Three letters are enough.</summary>
    public int? Month(string text)
    {
        var word = text.TrimEnd('.').ToLower(Culture);
        for (var month = 1; month <= 12 && word.Length >= 3; month++)
        {
            if (Culture.DateTimeFormat.GetMonthName(month).ToLower(Culture).StartsWith(word, StringComparison.Ordinal)
                || IsSame(Culture.DateTimeFormat.GetAbbreviatedMonthName(month).TrimEnd('.'), word))
                return month;
        }
        return null;
    }

    /// <summary>As in "24.11.": then two numbers with a dot between them may be a day as well as a time.</summary>
    public bool WritesDaysWithDots => Culture.DateTimeFormat.ShortDatePattern.Contains('.', StringComparison.Ordinal);

    /// <summary>Whether the day stands before the month where both are numbers; null where the locale does not say.</summary>
    /// <param name="separator">What stands between them: with dots nobody writes the month first.</param>
    public bool? DayComesFirst(char separator)
    {
        var pattern = Culture.DateTimeFormat.ShortDatePattern;
        var (day, month) = (pattern.IndexOf('d', StringComparison.Ordinal), pattern.IndexOf('M', StringComparison.Ordinal));
        if (separator == '.')
            return day < month || pattern[0] == 'y' ? true : null;
        return pattern[0] == 'y' ? null : day < month;
    }

    /// <summary>None where the language says it in no way.</summary>
    private string[][] Phrases(string part) => _phrases.GetValueOrDefault(part, []);

    private bool IsSame(string one, string other) => string.Compare(one, other, ignoreCase: true, Culture) == 0;
}
