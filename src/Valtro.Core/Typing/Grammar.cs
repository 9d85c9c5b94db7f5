using System.Collections.Concurrent;
using System.Globalization;
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
    public bool Is(string part, string word) => _phrases[part].Any(phrase => phrase.Length == 1 && IsSame(phrase[0], word));

    /// <summary>Whether a text ends with a word of a part, as "24th" does.</summary>
    /// <returns>The text without it; null where it does not.</returns>
    public string? Without(string part, string text) => _phrases[part]
        .Where(phrase => text.Length > phrase[0].Length && text.EndsWith(phrase[0], StringComparison.OrdinalIgnoreCase))
        .Select(phrase => text[..^phrase[0].Length].TrimEnd())
        .FirstOrDefault();

    /// <summary>How many of the coming words are a phrase of a part; 0 where none is.</summary>
    public int Coming(string part, LineWords words) => _phrases[part]
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

    /// <summary>1 for the first to 5 for the fifth, -1 for the last; 0 when it is none.</summary>
    public int Ordinal(string word) => Array.Find([1, 2, 3, 4, 5, -1], position => Is($"ordinal.{position}", word));

    private bool IsSame(string one, string other) => string.Compare(one, other, ignoreCase: true, Culture) == 0;
}
