using System.Buffers;
using System.Globalization;
using System.Text;
using System.Text.Encodings.Web;
using System.Text.Json;
using Valtro.Core.ICalendar.Checking;
using Valtro.Core.ICalendar.Reading;

namespace Valtro.Core.ICalendar;

/// <summary>Writes a finished iCalendar stream as jCal (RFC 7265): the same components and values in the form of JSON.</summary>
public static class JCalWriter
{
    private static readonly JsonWriterOptions Options = new() { Encoder = JavaScriptEncoder.UnsafeRelaxedJsonEscaping };

    /// <summary>Parameters that hold a list (RFC 5545 3.2); of all others a comma is a part of the value.</summary>
    private static readonly HashSet<string> Lists = ["MEMBER", "DELEGATED-FROM", "DELEGATED-TO", "DISPLAY", "FEATURE"];

    private sealed class Open(string name)
    {
        public string Name { get; } = name;

        public List<ForeignLine> Properties { get; } = [];

        public List<Open> Inner { get; } = [];
    }

    /// <param name="stream">As <see cref="FeedWriter"/> wrote it.</param>
    public static byte[] Of(ReadOnlySpan<byte> stream)
    {
        var calendar = Read(Encoding.UTF8.GetString(stream));
        var output = new ArrayBufferWriter<byte>(stream.Length * 2);
        using (var json = new Utf8JsonWriter(output, Options))
            Write(json, calendar);
        return output.WrittenSpan.ToArray();
    }

    private static Open Read(string text)
    {
        var lines = new LineReader(new StringReader(text));
        var around = new Open("");
        var open = new Stack<Open>([around]);
        while (lines.Read() is { } line)
        {
            switch (line.Name)
            {
                case "BEGIN":
                    var begun = new Open(line.Value);
                    open.Peek().Inner.Add(begun);
                    open.Push(begun);
                    break;
                case "END":
                    open.Pop();
                    break;
                default:
                    open.Peek().Properties.Add(line);
                    break;
            }
        }
        return around.Inner.Single();
    }

    private static void Write(Utf8JsonWriter json, Open component)
    {
        json.WriteStartArray();
        json.WriteStringValue(component.Name.ToLowerInvariant());
        json.WriteStartArray();
        foreach (var line in component.Properties)
            Write(json, line);
        json.WriteEndArray();
        json.WriteStartArray();
        foreach (var inner in component.Inner)
            Write(json, inner);
        json.WriteEndArray();
        json.WriteEndArray();
    }

    /// <summary>Name, parameters, type, values (RFC 7265 3.4).</summary>
    private static void Write(Utf8JsonWriter json, ForeignLine line)
    {
        var kind = Specifications.Properties.GetValueOrDefault(line.Name);
        var type = line.Parameter("VALUE")?.ToUpperInvariant()
            ?? kind?.Types.FirstOrDefault(one => one != "ANY")
            ?? "UNKNOWN";
        json.WriteStartArray();
        json.WriteStringValue(line.Name.ToLowerInvariant());
        json.WriteStartObject();
        foreach (var (name, value) in line.Parameters.Where(one => one.Name != "VALUE"))
        {
            var values = Lists.Contains(name) ? value.Split(',') : [value];
            json.WritePropertyName(name.ToLowerInvariant());
            if (values.Length == 1)
                json.WriteStringValue(ForeignValues.Parameter(values[0]));
            else
                WriteAll(json, values.Select(ForeignValues.Parameter));
        }
        json.WriteEndObject();
        json.WriteStringValue(type switch { "FLOATS" => "float", "STRUCTURED" => "text", _ => type.ToLowerInvariant() });
        foreach (var value in kind?.IsList == true ? ForeignValues.List(line.Value) : [line.Value])
            WriteValue(json, type, value);
        json.WriteEndArray();
    }

    private static void WriteValue(Utf8JsonWriter json, string type, string value)
    {
        switch (type)
        {
            case "TEXT":
                json.WriteStringValue(ForeignValues.Text(value));
                break;
            case "INTEGER":
                json.WriteNumberValue(int.Parse(value, CultureInfo.InvariantCulture));
                break;
            case "FLOAT":
                json.WriteNumberValue(double.Parse(value, CultureInfo.InvariantCulture));
                break;
            case "BOOLEAN":
                json.WriteBooleanValue(value.Equals("TRUE", StringComparison.OrdinalIgnoreCase));
                break;
            case "FLOATS":
                json.WriteStartArray();
                foreach (var part in value.Split(';'))
                    json.WriteNumberValue(double.Parse(part, CultureInfo.InvariantCulture));
                json.WriteEndArray();
                break;
            case "STRUCTURED":
                WriteAll(json, value.Split(';').Select(ForeignValues.Text));
                break;
            case "DATE":
            case "DATE-TIME":
            case "TIME":
                json.WriteStringValue(Extended(value));
                break;
            case "PERIOD":
                WriteAll(json, value.Split('/').Select(part => part[0] is 'P' or '+' or '-' ? part : Extended(part)));
                break;
            case "UTC-OFFSET":
                json.WriteStringValue(string.Join(':', new[] { value[..3], value[3..5], value[5..] }.Where(part => part.Length > 0)));
                break;
            case "RECUR":
                WriteRule(json, value);
                break;
            default:
                json.WriteStringValue(value);
                break;
        }
    }

    /// <summary>RFC 7265 3.6.10.</summary>
    private static void WriteRule(Utf8JsonWriter json, string rule)
    {
        json.WriteStartObject();
        foreach (var part in rule.Split(';', StringSplitOptions.RemoveEmptyEntries))
        {
            var equals = part.IndexOf('=', StringComparison.Ordinal);
            var name = part[..equals].ToLowerInvariant();
            var values = part[(equals + 1)..].Split(',');
            json.WritePropertyName(name);
            if (values.Length > 1)
                json.WriteStartArray();
            foreach (var one in values)
            {
                if (name == "until")
                    json.WriteStringValue(Extended(one));
                else if (int.TryParse(one, NumberStyles.AllowLeadingSign, CultureInfo.InvariantCulture, out var number))
                    json.WriteNumberValue(number);
                else
                    json.WriteStringValue(one);
            }
            if (values.Length > 1)
                json.WriteEndArray();
        }
        json.WriteEndObject();
    }

    private static void WriteAll(Utf8JsonWriter json, IEnumerable<string> values)
    {
        json.WriteStartArray();
        foreach (var value in values)
            json.WriteStringValue(value);
        json.WriteEndArray();
    }

    /// <summary>20261124 and 20261124T090000Z with signs between (RFC 7265 3.6.4, 3.6.5).</summary>
    private static string Extended(string value)
    {
        static string Day(string day) => $"{day[..4]}-{day[4..6]}-{day[6..8]}";
        static string Time(string time) => $"{time[..2]}:{time[2..4]}:{time[4..]}";
        var at = value.IndexOf('T', StringComparison.Ordinal);
        return at < 0 ? value.Length == 8 ? Day(value) : Time(value) : $"{Day(value[..at])}T{Time(value[(at + 1)..])}";
    }
}
