using System.Buffers;
using System.Text;

namespace Valtro.Core.ICalendar.Checking;

/// <summary>Reads content lines byte by byte as RFC 5545 3.1 writes them, and says what is not so.</summary>
/// <remarks>Of a line at most <see cref="Longest"/> bytes are kept, so memory depends on no file.</remarks>
internal sealed class LineCheck(Stream file, FaultList faults)
{
    private const int Longest = 1 << 20;
    private const int MostOctets = 75;

    private static readonly UTF8Encoding Strict = new(encoderShouldEmitUTF8Identifier: false, throwOnInvalidBytes: true);

    private readonly byte[] _buffer = new byte[64 * 1024];
    private readonly List<byte> _unfolded = [];
    private readonly List<byte> _physical = [];
    private readonly List<byte> _ahead = [];
    private int _at;
    private int _filled;
    private bool _hasAhead;
    private bool _hasBegun;

    /// <summary>Lines of the file that were read.</summary>
    public int Count { get; private set; }

    /// <returns>Null at the end.</returns>
    public CheckedLine? Read()
    {
        while (Next())
        {
            var line = Count;
            if (_physical.Count == 0)
            {
                faults.Add("lineEmpty", FaultSeverity.Error, line, 1, "RFC 5545 3.1");
                continue;
            }
            if (_physical[0] is (byte)' ' or (byte)'\t')
                faults.Add("foldOfNothing", FaultSeverity.Error, line, 1, "RFC 5545 3.1");
            _unfolded.Clear();
            _unfolded.AddRange(_physical);
            var folds = new List<(int, int)>();
            while (Peek() && _ahead.Count > 0 && _ahead[0] is (byte)' ' or (byte)'\t')
            {
                var isWhole = IsUtf8(_unfolded);
                var at = LengthOf(_unfolded);
                Next();
                if (_unfolded.Count < Longest)
                    _unfolded.AddRange(_physical.GetRange(1, _physical.Count - 1));
                folds.Add((at, Count));
                if (!isWhole && IsUtf8(_unfolded))
                    faults.Add("foldSplitsCharacter", FaultSeverity.Warning, Count, 1, "RFC 5545 3.1");
            }
            if (Parse(TextOf(line), line, folds) is { } parsed)
                return parsed;
        }
        return null;
    }

    private string TextOf(int line)
    {
        var bytes = _unfolded.ToArray();
        try
        {
            return Strict.GetString(bytes);
        }
        catch (DecoderFallbackException)
        {
            faults.Add("notUtf8", FaultSeverity.Error, line, 1, "RFC 5545 3.1.4");
            return Encoding.Latin1.GetString(bytes);
        }
    }

    private static bool IsUtf8(List<byte> bytes)
    {
        // Only the end can be cut: what stands before was looked at already.
        var span = System.Runtime.InteropServices.CollectionsMarshal.AsSpan(bytes);
        var last = span[Math.Max(0, span.Length - 4)..];
        for (var skip = 0; skip < last.Length && skip < 4; skip++)
        {
            if ((last[^(skip + 1)] & 0xC0) != 0x80)
                return Rune.DecodeFromUtf8(last[^(skip + 1)..], out _, out _) == OperationStatus.Done;
        }
        return last.Length == 0;
    }

    private static int LengthOf(List<byte> bytes) =>
        Encoding.UTF8.GetCharCount(System.Runtime.InteropServices.CollectionsMarshal.AsSpan(bytes));

    private bool Peek()
    {
        if (!_hasAhead)
            _hasAhead = Fill(_ahead);
        return _hasAhead;
    }

    /// <summary>The next line of the file, without its end.</summary>
    private bool Next()
    {
        if (_hasAhead)
        {
            (_hasAhead, Count) = (false, Count + 1);
            _physical.Clear();
            _physical.AddRange(_ahead);
        }
        else if (Fill(_physical))
            Count++;
        else
            return false;
        if (_physical.Count > MostOctets)
            faults.Add("lineTooLong", FaultSeverity.Warning, Count, MostOctets + 1, "RFC 5545 3.1", ("count", _physical.Count));
        return true;
    }

    private bool Fill(List<byte> line)
    {
        line.Clear();
        var number = Count + 1;
        var any = false;
        while (Byte() is { } one)
        {
            if (!_hasBegun)
            {
                _hasBegun = true;
                if (one == 0xEF && Skip(0xBB) && Skip(0xBF))
                {
                    faults.Add("byteOrderMark", FaultSeverity.Warning, 1, 1, "RFC 5545 3.1.4");
                    any = true;
                    continue;
                }
            }
            any = true;
            if (one == '\r')
            {
                if (!Skip((byte)'\n'))
                    faults.Add("lineEndsWithReturn", FaultSeverity.Error, number, line.Count + 1, "RFC 5545 3.1");
                return true;
            }
            if (one == '\n')
            {
                faults.Add("lineEndsWithFeed", FaultSeverity.Error, number, line.Count + 1, "RFC 5545 3.1");
                return true;
            }
            if (one < 32 && one != '\t' || one == 127)
                faults.Add("controlCharacter", FaultSeverity.Error, number, line.Count + 1, "RFC 5545 3.1", ("code", one));
            if (line.Count < Longest)
                line.Add(one);
        }
        if (any)
            faults.Add("noLastLineEnd", FaultSeverity.Warning, number, line.Count + 1, "RFC 5545 3.1");
        return any;
    }

    private byte? Byte()
    {
        if (_at == _filled && (_filled = file.Read(_buffer, 0, _buffer.Length)) <= (_at = 0))
            return null;
        return _buffer[_at++];
    }

    private bool Skip(byte wanted)
    {
        if (_at == _filled && (_filled = file.Read(_buffer, 0, _buffer.Length)) <= (_at = 0))
            return false;
        if (_buffer[_at] != wanted)
            return false;
        _at++;
        return true;
    }

    private CheckedLine? Parse(string text, int line, IReadOnlyList<(int, int)> folds)
    {
        var end = text.AsSpan().IndexOfAny(";:");
        if (end <= 0)
        {
            faults.Add("noProperty", FaultSeverity.Error, line, 1, "RFC 5545 3.1", ("text", Short(text)));
            return null;
        }
        var name = text[..end].ToUpperInvariant();
        if (name.Any(letter => !char.IsAsciiLetterOrDigit(letter) && letter != '-'))
            faults.Add("nameOfProperty", FaultSeverity.Error, line, 1, "RFC 5545 3.1", ("name", Short(name)));
        var parameters = new List<CheckedParameter>();
        var known = new CheckedLine(name, parameters, "", 0, line, folds);
        var at = end;
        while (at < text.Length && text[at] == ';')
            at = Parameter(text, at + 1, known, parameters);
        if (at >= text.Length)
        {
            faults.Add(known, text.Length, "noValue", FaultSeverity.Error, "RFC 5545 3.1", ("name", name));
            return known with { ValueAt = text.Length };
        }
        return known with { Value = text[(at + 1)..], ValueAt = at + 1 };
    }

    private int Parameter(string text, int start, CheckedLine line, List<CheckedParameter> parameters)
    {
        var equals = start;
        while (equals < text.Length && text[equals] is not ('=' or ';' or ':'))
            equals++;
        var name = text[start..equals].ToUpperInvariant();
        if (equals >= text.Length || text[equals] != '=' || name.Length == 0)
        {
            faults.Add(line, start, "parameterWithoutValue", FaultSeverity.Error, "RFC 5545 3.2", ("name", Short(name)));
            return equals;
        }
        if (parameters.Any(one => one.Name == name))
            faults.Add(line, start, "parameterTwice", FaultSeverity.Error, "RFC 5545 3.2", ("name", name));
        var values = new List<string>();
        var at = equals + 1;
        while (true)
        {
            var from = at;
            if (at < text.Length && text[at] == '"')
            {
                var close = text.IndexOf('"', at + 1);
                if (close < 0)
                {
                    faults.Add(line, at, "quoteNeverCloses", FaultSeverity.Error, "RFC 5545 3.2", ("name", name));
                    at = text.Length;
                    break;
                }
                values.Add(text[(at + 1)..close]);
                at = close + 1;
                if (at < text.Length && text[at] is not (',' or ';' or ':'))
                {
                    faults.Add(line, at, "textAfterQuote", FaultSeverity.Error, "RFC 5545 3.2", ("name", name));
                    while (at < text.Length && text[at] is not (',' or ';' or ':'))
                        at++;
                }
            }
            else
            {
                while (at < text.Length && text[at] is not (',' or ';' or ':'))
                    at++;
                values.Add(text[from..at]);
                if (values[^1].Contains('"', StringComparison.Ordinal))
                    faults.Add(line, from, "quoteWithin", FaultSeverity.Error, "RFC 5545 3.2", ("name", name));
            }
            if (values[^1].IndexOf('^', StringComparison.Ordinal) is >= 0 and var caret
                && (caret + 1 >= values[^1].Length || values[^1][caret + 1] is not ('^' or 'n' or '\'')))
                faults.Add(line, from + caret, "caretOfNothing", FaultSeverity.Warning, "RFC 6868 3.2", ("name", name));
            if (at >= text.Length || text[at] != ',')
                break;
            at++;
        }
        parameters.Add(new CheckedParameter(name, values, start));
        return at;
    }

    internal static string Short(string text) => text.Length <= 40 ? text : $"{text[..39]}…";
}
