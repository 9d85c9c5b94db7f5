using System.Text.RegularExpressions;

namespace Valtro.Core.Typing;

/// <summary>A word of a line.</summary>
/// <param name="Text">As it is compared: without quotes and what stands after it.</param>
/// <param name="Start">Where it begins in the line.</param>
/// <param name="End">Where the next may begin.</param>
/// <param name="IsQuoted">It stood in quotes: it says what it says, and nothing is read in it.</param>
internal sealed record LineWord(string Text, int Start, int End, bool IsQuoted);

/// <summary>The words of a line, and how far they have been read. Words in quotes are one; a dash between two days or times is one of its
/// own.</summary>
internal sealed partial class LineWords
{
    /// <summary>What a word in quotes may stand in.</summary>
    public const string Quotes = "\"“„”";

    private static readonly LineWord Nothing = new("", 0, 0, IsQuoted: false);

    private readonly LineWord[] _words;

    public LineWords(string text, Func<string, bool> isDayOrTime)
    {
        Line = text;
        _words = [.. WordForm().Matches(text).SelectMany(match => Parts(match.Value, match.Index, isDayOrTime))];
    }

    public string Line { get; }

    public int Count => _words.Length;

    /// <summary>The position of the next word. Setting it reads again from there.</summary>
    public int At { get; set; }

    public int Left => _words.Length - At;

    public bool IsAtEnd => Left <= 0;

    public string Current => Ahead(0);

    public LineWord this[int position] => _words[position];

    /// <summary>A word further on, as it is compared; nothing where there is none or it is quoted.</summary>
    public string Ahead(int words)
    {
        var word = words < Left ? _words[At + words] : Nothing;
        return word.IsQuoted ? "" : word.Text;
    }

    /// <returns>Whether there is more.</returns>
    public bool Skip(int words = 1)
    {
        At += words;
        return !IsAtEnd;
    }

    /// <summary>The next words, without going over them.</summary>
    public string Coming(int words) => string.Join(" ", _words[At..(At + words)].Select(word => word.Text));

    /// <summary>What stands in the line from one word to before another.</summary>
    public string Written(int start, int end) =>
        end <= start ? "" : Line[_words[start].Start.._words[end - 1].End].TrimEnd(' ', ',', ';', ':');

    /// <summary>Nothing is read in it.</summary>
    public static string Quoted(string text) => $"“{string.Concat(text.Where(letter => !Quotes.Contains(letter)))}”";

    /// <summary>The line with other words instead of some.</summary>
    public string With(int start, int end, string text) =>
        Squeezed($"{Line[.._words[start].Start]} {text} {Line[_words[end - 1].End..]}");

    /// <summary>The line without some of its words.</summary>
    public string Cut(params (int Start, int End)[] spans)
    {
        var line = Line;
        foreach (var (start, end) in spans.OrderByDescending(span => span.Start))
            line = $"{line[.._words[start].Start]} {line[_words[end - 1].End..]}";
        return line;
    }

    public static string Squeezed(string line) => string.Join(' ', line.Split(' ', StringSplitOptions.RemoveEmptyEntries));

    private static IEnumerable<LineWord> Parts(string written, int at, Func<string, bool> isDayOrTime)
    {
        if (written.Length > 1 && "\"“„".Contains(written[0]) && "\"”“".Contains(written[^1]))
            return [new LineWord(written[1..^1], at, at + written.Length, IsQuoted: true)];
        if (isDayOrTime(Bare(written)))
            return [new LineWord(Bare(written), at, at + written.Length, IsQuoted: false)];
        var dash = written.IndexOfAny(['–', '—', '-'], 1);
        return dash > 0 && dash < written.Length - 1 && isDayOrTime(written[..dash]) && isDayOrTime(Bare(written[(dash + 1)..]))
            ?
            [
                new LineWord(written[..dash], at, at + dash, IsQuoted: false),
                new LineWord("–", at + dash, at + dash + 1, IsQuoted: false),
                new LineWord(Bare(written[(dash + 1)..]), at + dash + 1, at + written.Length, IsQuoted: false),
            ]
            : [new LineWord(Bare(written), at, at + written.Length, IsQuoted: false)];
    }

    private static string Bare(string word) => word.TrimEnd(',', ';', ':', '!', '?') is { Length: > 0 } bare ? bare : word;

    [GeneratedRegex("[\"“„][^\"”“]*[\"”“]|\\S+")]
    private static partial Regex WordForm();
}
