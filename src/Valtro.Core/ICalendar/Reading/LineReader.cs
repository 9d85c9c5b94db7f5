using System.Text;

namespace Valtro.Core.ICalendar.Reading;

/// <summary>Reads content lines as they are in the wild, one after the other (RFC 5545 3.1).</summary>
/// <remarks>Lines may end as on any system. What continues a line without a blank before it, as programs write that fold wrongly or put
/// the lines of a text down as they are, belongs to the line before. Of each line at most <see cref="Longest"/> characters are kept:
/// so memory depends on no file.</remarks>
public sealed class LineReader(TextReader file)
{
    /// <summary>More characters than any text that is taken.</summary>
    public const int Longest = 200_000;

    /// <summary>A line of fewer characters was not folded for its length.</summary>
    private const int ShortestFolded = 60;

    private readonly StringBuilder _text = new();
    private readonly StringBuilder _physical = new();
    private string? _ahead;
    private readonly char[] _buffer = new char[8_192];
    private int _at;
    private int _filled;
    private bool _isAfterReturn;
    private int _read;
    private bool _isAtEnd;

    /// <returns>Null at the end.</returns>
    public ForeignLine? Read()
    {
        while (Next() is { } first)
        {
            var line = _read;
            if (first.Length == 0 || string.IsNullOrWhiteSpace(first))
                continue;
            List<(int, int)>? folds = null;
            _text.Clear().Append(first);
            var length = first.Length;
            while (Next() is { } more)
            {
                if (Continuation(first, more, length) is not { } added)
                {
                    _ahead = more;
                    _read--;
                    break;
                }
                length = more.Length;
                (folds ??= []).Add((_text.Length, more.Length - added.Length + 1));
                if (_text.Length < Longest)
                    _text.Append(added.AsSpan(0, Math.Min(added.Length, Longest - _text.Length)));
            }
            return Parse(folds is null ? first : _text.ToString(), line, folds ?? (IReadOnlyList<(int, int)>)[]);
        }
        return null;
    }

    /// <returns>What a line adds to the one before; null where it is one of its own.</returns>
    /// <param name="length">Of the line of the file before it.</param>
    private static string? Continuation(string first, string more, int length)
    {
        if (more.Length > 0 && more[0] is ' ' or '\t')
            return more[1..];
        if (more.Length > 0 && IsBegun(first, more))
            return null;
        // In the midst of a text: a line that was too long, or the text's own.
        var isText = first.AsSpan().IndexOfAny(";:") is > 0 and var end && IsText(first[..end]);
        return more.Length == 0 ? isText && length < ShortestFolded ? "" : null
            : isText && length < ShortestFolded ? @"\n" + more : more;
    }

    /// <summary>A line begins with a name, and with one that is known or written as names are; in the midst of a text "Note: bring boots"
    /// is none.</summary>
    private static bool IsBegun(string first, string more)
    {
        var end = 0;
        var hasSmall = false;
        for (; end < more.Length && (char.IsAsciiLetterOrDigit(more[end]) || more[end] == '-'); end++)
            hasSmall |= char.IsAsciiLetterLower(more[end]);
        if (end == 0 || end == more.Length || more[end] is not (':' or ';'))
            return false;
        var name = more[..end].ToUpperInvariant();
        return name is "BEGIN" or "END" || PropertyNames.Holds(name) || name.StartsWith("X-", StringComparison.Ordinal)
            || !hasSmall && first.AsSpan().IndexOfAny(";:") is var colon && !(colon > 0 && IsText(first[..colon]));
    }

    private static bool IsText(string name) => name.ToUpperInvariant() is "DESCRIPTION" or "SUMMARY" or "LOCATION" or "COMMENT" or "CONTACT"
        or "X-ALT-DESC" or "STYLED-DESCRIPTION";

    /// <summary>A line of the file, without its end.</summary>
    private string? Next()
    {
        _read++;
        if (_ahead is { } known)
        {
            _ahead = null;
            return known;
        }
        if (_isAtEnd)
            return null;
        _physical.Clear();
        while (true)
        {
            if (_at == _filled && (_filled = file.Read(_buffer, _at = 0, _buffer.Length)) == 0)
            {
                _isAtEnd = true;
                return _physical.Length > 0 ? _physical.ToString() : null;
            }
            var character = _buffer[_at++];
            // What belongs to the end of the line before.
            if (character == '\n' && _isAfterReturn)
            {
                _isAfterReturn = false;
                continue;
            }
            _isAfterReturn = character == '\r';
            if (character is '\n' or '\r')
                return _physical.ToString();
            if (character is '\uFEFF' or '\0')
                continue;
            if (_physical.Length < Longest)
                _physical.Append(character);
        }
    }

    private static ForeignLine Parse(string text, int line, IReadOnlyList<(int, int)> folds)
    {
        var end = text.AsSpan().IndexOfAny(";:");
        if (end < 0)
            return new ForeignLine(text.Trim().ToUpperInvariant(), "", line) { Folds = folds, ValueAt = text.Length };
        List<(string, string)> parameters = text[end] == ';' ? [] : None;
        var at = end;
        while (at < text.Length && text[at] == ';')
        {
            var start = at + 1;
            at = EndOfParameter(text, start);
            var said = text[start..at];
            var equals = said.IndexOf('=', StringComparison.Ordinal);
            if (equals > 0)
                parameters.Add((said[..equals].Trim().ToUpperInvariant(), said[(equals + 1)..].Replace("\"", "", StringComparison.Ordinal)));
        }
        var valueAt = Math.Min(at + 1, text.Length);
        // TZID=UTC+02:00:20261204T090000, where a colon should stand between quotation marks.
        if (parameters is [.., ("TZID", { Length: > 3 } zone)] && zone[^3] is '+' or '-' && valueAt + 2 < text.Length
            && char.IsAsciiDigit(text[valueAt]) && text[valueAt + 2] == ':')
        {
            parameters[^1] = ("TZID", $"{zone}:{text.AsSpan(valueAt, 2)}");
            valueAt += 3;
        }
        return new ForeignLine(text[..end].Trim().ToUpperInvariant(), text[valueAt..], line)
        {
            Parameters = parameters,
            Folds = folds,
            ValueAt = valueAt,
            IsCut = text.Length >= Longest,
        };
    }

    private static readonly List<(string, string)> None = [];

    /// <summary>Quotation marks hold semicolons and colons; one that is never closed holds nothing.</summary>
    private static int EndOfParameter(string text, int start)
    {
        var isQuoted = false;
        for (var at = start; at < text.Length; at++)
        {
            if (text[at] == '"')
                isQuoted = !isQuoted && text.IndexOf('"', at + 1) > 0;
            else if (!isQuoted && text[at] is ';' or ':')
                return at;
        }
        return text.Length;
    }
}
