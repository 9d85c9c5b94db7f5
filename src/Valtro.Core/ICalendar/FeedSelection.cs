using System.Buffers;
using System.Text;
using System.Text.RegularExpressions;
using Valtro.Core.Events;

namespace Valtro.Core.ICalendar;

/// <summary>Some finished components of a feed: the same bytes, with the same stamps, under a head of their own.</summary>
public static partial class FeedSelection
{
    /// <param name="feed">As <see cref="FeedWriter"/> wrote it.</param>
    /// <param name="selects">Which components, by their UID and, where it is asked, what they are about (CATEGORIES, without regard to
    /// case).</param>
    /// <param name="address">Its own; null where each reader has another.</param>
    /// <param name="notice">What its subscribers have to know; null for nothing.</param>
    public static byte[] Of(ReadOnlySpan<byte> feed, Func<Uid, Func<IReadOnlySet<string>>, bool> selects, Uri? address, string? notice)
    {
        var (head, zones, events) = Parts(feed);
        var selected = events.Where(one => selects(UidOf(one), () => CategoriesOf(one))).ToArray();
        var used = selected.SelectMany(ZonesOf).ToHashSet(StringComparer.Ordinal);
        var output = new ArrayBufferWriter<byte>(feed.Length);
        WriteHead(
            new ContentLines(output), head, address, notice, selected.Select(one => Value(one, "DTSTAMP:")!).Max(StringComparer.Ordinal));
        // A calendar has one component at least (RFC 5545 3.6): where nothing is left, a zone is.
        foreach (var zone in zones.Where((zone, index) => used.Contains(Value(zone, "TZID:")!) || (selected.Length == 0 && index == 0)))
            Write(output, zone);
        foreach (var one in selected)
            Write(output, one);
        output.Write("END:VCALENDAR\r\n"u8);
        return output.WrittenSpan.ToArray();
    }

    /// <summary>What stands in one of two feeds only, or in both otherwise: the titles.</summary>
    public static IReadOnlyList<string> Differences(ReadOnlySpan<byte> one, ReadOnlySpan<byte> other)
    {
        var (before, after) = (Parts(one), Parts(other));
        return [.. before.Events.Except(after.Events).Concat(after.Events.Except(before.Events)).Select(TitleOf).Distinct(),
            .. before.Head.SequenceEqual(after.Head) && before.Zones.SequenceEqual(after.Zones) ? Array.Empty<string>() : ["VCALENDAR"]];
    }

    private static string TitleOf(string component)
    {
        var line = component.Replace("\r\n ", "", StringComparison.Ordinal).Split("\r\n")
            .FirstOrDefault(line => line.StartsWith("SUMMARY", StringComparison.Ordinal));
        return line is null ? "" : Unescaped(line[(line.IndexOf(':', StringComparison.Ordinal) + 1)..]);
    }

    private static readonly string[] Known = ["VTIMEZONE", "VEVENT", "VTODO"];

    /// <summary>The lines of the head, unfolded, and the components as they stand.</summary>
    private static (List<string> Head, List<string> Zones, List<string> Events) Parts(ReadOnlySpan<byte> feed)
    {
        var text = Encoding.UTF8.GetString(feed);
        var (head, zones, events) = (new List<string>(), new List<string>(), new List<string>());
        for (var from = 0; from < text.Length;)
        {
            var component = Array.Find(Known, one => Begins(text, from, one));
            if (component is null)
            {
                var line = text[from..(from = EndOfLine(text, from))];
                if (line[0] == ' ')
                    head[^1] = head[^1][..^2] + line[1..];
                else
                    head.Add(line);
                continue;
            }
            var end = $"\r\nEND:{component}\r\n";
            var to = text.IndexOf(end, from, StringComparison.Ordinal) + end.Length;
            (component == "VTIMEZONE" ? zones : events).Add(text[from..to]);
            from = to;
        }
        return (head, zones, events);
    }

    private static bool Begins(string text, int from, string component) =>
        string.CompareOrdinal(text, from, $"BEGIN:{component}\r\n", 0, component.Length + 8) == 0;

    private static int EndOfLine(string text, int from) => text.IndexOf("\r\n", from, StringComparison.Ordinal) + 2;

    /// <summary>Unfolded (RFC 5545 3.1), and without its escapes (3.3.11).</summary>
    private static Uid UidOf(string component)
    {
        var at = component.IndexOf("\r\nUID:", StringComparison.Ordinal) + "\r\nUID:".Length;
        var end = at;
        do
            end = component.IndexOf("\r\n", end + 1, StringComparison.Ordinal);
        while (component[end + 2] == ' ');
        var text = component[at..end].Replace("\r\n ", "", StringComparison.Ordinal);
        return new(Unescaped(text));
    }

    /// <summary>One on each line (as <see cref="ComponentBody"/> writes them).</summary>
    private static HashSet<string> CategoriesOf(string component) => component.Replace("\r\n ", "", StringComparison.Ordinal).Split("\r\n")
        .Where(line => line.StartsWith("CATEGORIES:", StringComparison.Ordinal))
        .Select(line => Unescaped(line["CATEGORIES:".Length..])).ToHashSet(StringComparer.OrdinalIgnoreCase);

    private static string Unescaped(string text) => text.Contains('\\', StringComparison.Ordinal)
        ? Escaped().Replace(text, one => one.Value[1] is 'n' or 'N' ? "\n" : one.Value[1..])
        : text;

    [GeneratedRegex(@"\\.")]
    private static partial Regex Escaped();

    private static string? Value(string component, string nameAndColon)
    {
        var at = component.IndexOf($"\r\n{nameAndColon}", StringComparison.Ordinal);
        return at < 0 ? null : component[(at + 2 + nameAndColon.Length)..component.IndexOf("\r\n", at + 2, StringComparison.Ordinal)];
    }

    /// <summary>TZID stands before the values of a line, which begins with the property's name, and no name of a zone is so long that it
    /// would be folded.</summary>
    private static IEnumerable<string> ZonesOf(string component)
    {
        foreach (var property in new[] { "DTSTART", "DTEND", "DUE", "RDATE", "EXDATE", "RECURRENCE-ID" })
        {
            if (Value(component, $"{property};TZID=") is { } value)
                yield return value[..value.IndexOf(':', StringComparison.Ordinal)];
        }
    }

    private static void WriteHead(ContentLines lines, List<string> head, Uri? address, string? notice, string? changed)
    {
        foreach (var line in head.TakeWhile(line => line != "END:VCALENDAR\r\n").Select(line => line[..^2]))
        {
            if (line.StartsWith("SOURCE;", StringComparison.Ordinal))
                lines.Verbatim("SOURCE;VALUE=URI:"u8,
                    (address ?? throw new InvalidOperationException("A feed with an address of its own is narrowed to one.")).AbsoluteUri);
            else if (line.StartsWith("LAST-MODIFIED:", StringComparison.Ordinal) && changed is not null)
                lines.Verbatim("LAST-MODIFIED:"u8, changed);
            else if (notice is null
                || !(line.StartsWith("DESCRIPTION:", StringComparison.Ordinal)
                    || line.StartsWith("X-WR-CALDESC:", StringComparison.Ordinal)))
                lines.Verbatim(""u8, line);
        }
        if (notice is null)
            return;
        lines.Text("DESCRIPTION:"u8, notice);
        lines.Text("X-WR-CALDESC:"u8, notice);
    }

    private static void Write(ArrayBufferWriter<byte> output, string text) =>
        output.Advance(Encoding.UTF8.GetBytes(text, output.GetSpan(Encoding.UTF8.GetMaxByteCount(text.Length))));
}
