using System.Buffers;
using System.Globalization;
using System.Text;
using NodaTime;

namespace Valtro.Core.ICalendar;

/// <summary>Writes content lines (RFC 5545 3.1): CRLF, folded at 75 octets, never inside a UTF-8 sequence.</summary>
internal sealed class ContentLines(IBufferWriter<byte> output)
{
    private const int LongestLine = 75;

    private byte[] _line = new byte[256];
    private int _length;

    // An event says when it changed several times, and many changed at once.
    private readonly byte[] _moment = new byte[16];
    private Instant? _momentOf;

    public void Begin(ReadOnlySpan<byte> component) => Line("BEGIN:"u8, component);

    public void End(ReadOnlySpan<byte> component) => Line("END:"u8, component);

    /// <summary>A line that is plain ASCII already.</summary>
    public void Line(ReadOnlySpan<byte> name, ReadOnlySpan<byte> value)
    {
        Add(name);
        Add(value);
        Finish();
    }

    /// <summary>A TEXT value, escaped (RFC 5545 3.3.11).</summary>
    public void Text(ReadOnlySpan<byte> nameAndColon, string value)
    {
        Add(nameAndColon);
        AddEscaped(value);
        Finish();
    }

    /// <summary>A value that needs no escaping, such as a URI or a rule.</summary>
    public void Verbatim(ReadOnlySpan<byte> nameAndColon, string value)
    {
        Add(nameAndColon);
        AddUtf8(value);
        Finish();
    }

    public void Number(ReadOnlySpan<byte> nameAndColon, int value)
    {
        Add(nameAndColon);
        var room = Room(11);
        value.TryFormat(room, out var written, provider: CultureInfo.InvariantCulture);
        _length += written;
        Finish();
    }

    /// <summary>A UTC date-time (RFC 5545 3.3.5, form 2).</summary>
    public void Moment(ReadOnlySpan<byte> nameAndColon, Instant value)
    {
        Add(nameAndColon);
        if (_momentOf == value)
        {
            Add(_moment);
        }
        else
        {
            AddDateTime(value.InUtc().LocalDateTime);
            Add("Z"u8);
            _line.AsSpan(_length - _moment.Length, _moment.Length).CopyTo(_moment);
            _momentOf = value;
        }
        Finish();
    }

    /// <summary>From one UTC date-time to another (RFC 5545 3.3.9).</summary>
    public void Period(ReadOnlySpan<byte> nameAndColon, Interval value)
    {
        Add(nameAndColon);
        AddDateTime(value.Start.InUtc().LocalDateTime);
        Add("Z/"u8);
        AddDateTime(value.End.InUtc().LocalDateTime);
        Add("Z"u8);
        Finish();
    }

    /// <summary>An exact length (RFC 5545 3.3.6): in hours, minutes and seconds, since a day of it has no fixed length.</summary>
    public void Length(ReadOnlySpan<byte> nameAndColon, Duration value)
    {
        var (minutes, seconds) = (value.Minutes, value.Seconds);
        var hours = (long)value.TotalHours;
        Verbatim(nameAndColon,
            string.Create(CultureInfo.InvariantCulture,
                $"PT{hours}H{(minutes + seconds > 0 ? $"{minutes}M" : "")}{(seconds > 0 ? $"{seconds}S" : "")}"));
    }

    /// <summary>Dates (VALUE=DATE) or local date-times with TZID, comma-separated.</summary>
    public void Starts(ReadOnlySpan<byte> name, IEnumerable<LocalDateTime> values, bool allDay, string zoneId)
    {
        BeginStarts(name, allDay, zoneId);
        var first = true;
        foreach (var value in values)
        {
            if (!first)
                Add(","u8);
            AddStart(value, allDay);
            first = false;
        }
        Finish();
    }

    public void Start(ReadOnlySpan<byte> name, LocalDateTime value, bool allDay, string zoneId)
    {
        BeginStarts(name, allDay, zoneId);
        AddStart(value, allDay);
        Finish();
    }

    /// <summary>A local date-time without zone, as time-zone components have (RFC 5545 3.6.5).</summary>
    public void Floating(ReadOnlySpan<byte> nameAndColon, LocalDateTime value)
    {
        Add(nameAndColon);
        AddDateTime(value);
        Finish();
    }

    private void BeginStarts(ReadOnlySpan<byte> name, bool allDay, string zoneId)
    {
        Add(name);
        if (allDay)
        {
            Add(";VALUE=DATE:"u8);
            return;
        }
        Add(";TZID="u8);
        AddUtf8(zoneId);
        Add(":"u8);
    }

    private void AddStart(LocalDateTime value, bool allDay)
    {
        if (allDay)
            AddDate(value);
        else
            AddDateTime(value);
    }

    private void AddDate(LocalDateTime value)
    {
        var (year, month, day) = value.Date;
        var room = Room(8);
        TwoDigits(room, year / 100);
        TwoDigits(room[2..], year % 100);
        TwoDigits(room[4..], month);
        TwoDigits(room[6..], day);
        _length += 8;
    }

    private void AddDateTime(LocalDateTime value)
    {
        AddDate(value);
        var room = Room(7);
        room[0] = (byte)'T';
        TwoDigits(room[1..], value.Hour);
        TwoDigits(room[3..], value.Minute);
        TwoDigits(room[5..], value.Second);
        _length += 7;
    }

    private static void TwoDigits(Span<byte> room, int value)
    {
        room[1] = (byte)('0' + value % 10);
        room[0] = (byte)('0' + value / 10);
    }

    private void AddEscaped(string value)
    {
        var rest = value.AsSpan();
        while (true)
        {
            var special = rest.IndexOfAny(Special);
            if (special < 0)
            {
                AddUtf8(rest);
                return;
            }
            AddUtf8(rest[..special]);
            switch (rest[special])
            {
                case '\n':
                    Add("\\n"u8);
                    break;
                case '\\' or ';' or ',':
                    Add("\\"u8);
                    AddUtf8(rest.Slice(special, 1));
                    break;
            }
            rest = rest[(special + 1)..];
        }
    }

    /// <summary>What is escaped, and control characters, which TEXT must not hold and which are left out.</summary>
    private static readonly SearchValues<char> Special = SearchValues.Create(
        [.. "\\;,\u007F", .. Enumerable.Range(0, 32).Select(code => (char)code).Where(character => character != '\t')]);

    private void Add(ReadOnlySpan<byte> ascii)
    {
        ascii.CopyTo(Room(ascii.Length));
        _length += ascii.Length;
    }

    private void AddUtf8(ReadOnlySpan<char> text) =>
        _length += Encoding.UTF8.GetBytes(text, Room(Encoding.UTF8.GetMaxByteCount(text.Length)));

    private Span<byte> Room(int size)
    {
        if (_line.Length < _length + size)
            Array.Resize(ref _line, Math.Max(_line.Length * 2, _length + size));
        return _line.AsSpan(_length);
    }

    private void Finish()
    {
        var line = _line.AsSpan(0, _length);
        var longest = LongestLine;
        while (line.Length > longest)
        {
            var cut = longest;
            while ((line[cut] & 0b1100_0000) == 0b1000_0000)
                cut--;
            output.Write(line[..cut]);
            output.Write("\r\n "u8);
            line = line[cut..];
            longest = LongestLine - 1;
        }
        var room = output.GetSpan(line.Length + 2);
        line.CopyTo(room);
        "\r\n"u8.CopyTo(room[line.Length..]);
        output.Advance(line.Length + 2);
        _length = 0;
    }
}
