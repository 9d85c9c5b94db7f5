using Valtro.Core.ICalendar.Reading;

namespace Valtro.Core.Push;

/// <summary>Compares events as calendar servers keep them (RFC 4791 4.1) by what they say, however they are written.</summary>
public static class ObjectText
{
    /// <summary>When it was written and by whom, and what is so where nothing is said (RFC 5545 3.8).</summary>
    private static readonly HashSet<string> SaysNothing = new(StringComparer.Ordinal)
    {
        "DTSTAMP:", "CREATED:", "LAST-MODIFIED:", "SEQUENCE:", "TRANSP:OPAQUE", "STATUS:CONFIRMED", "CLASS:PUBLIC", "PRIORITY:0",
    };

    /// <summary>Two objects say the same to whoever reads them: reminders that somebody set there, and properties of programs, do not
    /// count.</summary>
    public static bool SaysTheSame(byte[] one, byte[] other) =>
        one.AsSpan().SequenceEqual(other) || Lines(one).SequenceEqual(Lines(other), StringComparer.Ordinal);

    private static IEnumerable<string> Lines(byte[] content)
    {
        var reader = new ComponentReader(new LineReader(ForeignText.Open(content, null)));
        var components = new List<string>();
        while (reader.Read() is { } component)
        {
            // Zones are known by their names.
            if (component.Name == "VTIMEZONE")
                continue;
            components.Add(string.Join('\n', component.Properties.Where(Says).Select(Line).Order(StringComparer.Ordinal)
                .Prepend(component.Name)));
        }
        return components.Order(StringComparer.Ordinal);
    }

    private static bool Says(ForeignLine line) => !line.Name.StartsWith("X-", StringComparison.Ordinal)
        && line.Value.Length > 0
        && !SaysNothing.Contains($"{line.Name}:") && !SaysNothing.Contains($"{line.Name}:{line.Value.ToUpperInvariant()}");

    private static string Line(ForeignLine line) => $"{line.Name};" + string.Join(';', line.Parameters
        .Where(parameter => !parameter.Name.StartsWith("X-", StringComparison.Ordinal)
            && parameter is not ({ Name: "VALUE", Value: "DATE-TIME" or "TEXT" }))
        .Select(parameter => $"{parameter.Name}={parameter.Value}").Order(StringComparer.Ordinal)) + $":{line.Value.Trim()}";
}
