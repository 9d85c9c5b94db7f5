using System.Globalization;
using System.Text;
using Valtro.Core.Speaking;

namespace Valtro.Core;

/// <summary>The one place that says which short texts (titles, names, places) are acceptable.</summary>
public static class Texts
{
    public const int LongestTitle = 200;
    public const int LongestPlace = 200;
    public const int LongestName = 80;
    public const int LongestDescription = 20_000;
    public const int LongestNotes = 5_000;

    /// <summary>How many code points a character may be made of, on the average: a family of emoji has seven, with skin tones
    /// eleven.</summary>
    public const int MostPointsACharacter = 12;

    /// <summary>As many characters as a person counts: letters with their accents, whole emoji (UAX #29, grapheme clusters).</summary>
    public static int CountOf(string text) => new StringInfo(text).LengthInTextElements;

    /// <summary>False when a text holds U+0000, a character that is none (U+FFFE, U+FFFF), or half of a surrogate pair: no database and no
    /// page takes it.</summary>
    public static bool CanBeWritten(string text) => !text.AsSpan().ContainsAny('\0', '\uFFFE', '\uFFFF') && IsWellFormed(text);

    /// <exception cref="RuleException">It is longer than <paramref name="longest"/> characters.</exception>
    public static void CheckLength(string field, string what, string text, int longest)
    {
        var length = text.Length <= longest ? text.Length : CountOf(text);
        if (length > longest)
            throw new RuleException(field, "text.tooLong", ("what", Saying.Of(what)), ("count", length), ("most", longest));
        if (text.Length > longest * MostPointsACharacter)
            throw new RuleException(field, "text.tooManyParts", ("what", Saying.Of(what)));
    }

    /// <summary>A text of one line, trimmed, in Unicode normal form C.</summary>
    /// <param name="field">The API field that a refusal names.</param>
    /// <param name="what">The code of what a person calls the field, such as "what.title".</param>
    /// <exception cref="RuleException">It is missing though required, too long, or holds control characters.</exception>
    public static string OneLine(string field, string what, string? text, int longest, bool required = true)
    {
        var trimmed = (text ?? "").Trim();
        if (trimmed.Length == 0)
            return required ? throw new RuleException(field, "text.empty", ("what", Saying.Of(what))) : "";
        if (trimmed.Any(Invisible) || !IsWellFormed(trimmed))
            throw new RuleException(field, "text.controlCharacters", ("what", Saying.Of(what)));
        trimmed = trimmed.Normalize(NormalizationForm.FormC);
        CheckLength(field, what, trimmed, longest);
        return trimmed;
    }

    /// <summary>What another program wrote, as one line that can be kept: without what nobody sees, in single blanks, no longer than
    /// that.</summary>
    public static string Kept(string text, int longest) => Shortened(KeptLine(text, longest), longest);

    /// <summary>The same of any number of lines; empty ones only one by one.</summary>
    public static string KeptLines(string text, int longest)
    {
        var lines = new StringBuilder();
        foreach (var line in text.ReplaceLineEndings("\n").Split('\n').Select(line => KeptLine(line, longest)))
        {
            if (line.Length > 0 || lines.Length > 1 && !lines.ToString(lines.Length - 2, 2).Equals("\n\n", StringComparison.Ordinal))
                lines.Append(line).Append('\n');
            if (lines.Length > longest * MostPointsACharacter)
                break;
        }
        return Shortened(lines.ToString().Trim(), longest);
    }

    private static string KeptLine(string text, int longest)
    {
        var most = Math.Min(text.Length, longest * MostPointsACharacter + 1);
        var kept = new StringBuilder(most);
        Span<char> written = stackalloc char[2];
        foreach (var rune in text.AsSpan(0, most).EnumerateRunes())
        {
            var isUnseen = rune == Rune.ReplacementChar && text.IndexOf('\uFFFD', StringComparison.Ordinal) < 0
                || rune.IsBmp && Invisible((char)rune.Value);
            if (!isUnseen && !Rune.IsWhiteSpace(rune))
                kept.Append(written[..rune.EncodeToUtf16(written)]);
            else if (kept.Length > 0 && kept[^1] != ' ' && (Rune.IsWhiteSpace(rune) || Rune.IsControl(rune)))
                kept.Append(' ');
        }
        return kept.ToString().Trim().Normalize(NormalizationForm.FormC);
    }

    /// <summary>As many characters as a person counts, and no more.</summary>
    private static string Shortened(string text, int longest)
    {
        if (text.Length <= longest)
            return text;
        var (end, count) = (0, 0);
        while (end < text.Length && count < longest)
        {
            var next = StringInfo.GetNextTextElementLength(text, end);
            if (end + next > longest * MostPointsACharacter)
                break;
            (end, count) = (end + next, count + 1);
        }
        return text[..end].Trim();
    }

    /// <summary>Plain text of any number of lines, each as <see cref="OneLine"/> wants it; may be empty.</summary>
    /// <exception cref="RuleException">It is too long, or holds control characters.</exception>
    public static string Lines(string field, string what, string? text, int longest)
    {
        CheckLength(field, what, text ?? "", longest);
        return string.Join('\n',
            (text ?? "").ReplaceLineEndings("\n").Replace('\t', ' ').Split('\n')
                .Select(line => OneLine(field, what, line, longest, required: false)))
            .Trim();
    }

    /// <summary>
    /// Control characters, line and paragraph separators, and the marks that turn
    /// the writing direction of what follows (U+202A–U+202E, U+2066–U+2069).
    /// </summary>
    private static bool Invisible(char character) =>
        char.IsControl(character)
        || character is '\u2028' or '\u2029' or (>= '\u202A' and <= '\u202E') or (>= '\u2066' and <= '\u2069') or '\uFFFE' or '\uFFFF';

    /// <summary>True when every surrogate of <paramref name="text"/> has its partner.</summary>
    private static bool IsWellFormed(string text)
    {
        for (var index = 0; index < text.Length; index++)
        {
            if (char.IsHighSurrogate(text[index]) && index + 1 < text.Length && char.IsLowSurrogate(text[index + 1]))
                index++;
            else if (char.IsSurrogate(text[index]))
                return false;
        }
        return true;
    }
}
