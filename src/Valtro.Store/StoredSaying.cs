using System.Text.Encodings.Web;
using System.Text.Json;
using System.Text.Json.Nodes;
using NodaTime;
using NodaTime.Text;
using Valtro.Core;
using Valtro.Core.Speaking;

namespace Valtro.Store;

/// <summary>Sayings as they are kept, so that they can be said in the language of whoever reads them.</summary>
/// <remarks>
/// A JSON object: <c>{"code": "audit.named", "values": {"name": "Hall"}}</c>. Values are texts, whole numbers, days
/// (<c>{"day": "2026-12-02"}</c>), sayings, or lists of sayings.
/// What an older version wrote is a plain text, and is said as it stands.
/// </remarks>
internal static class StoredSaying
{
    private static readonly JsonSerializerOptions Readable = new() { Encoder = JavaScriptEncoder.UnsafeRelaxedJsonEscaping };

    private const string Code = "code";
    private const string Values = "values";
    private const string Day = "day";

    /// <summary>Nothing is kept as an empty text.</summary>
    public static string Write(Saying? saying) => saying is null ? "" : Node(saying).ToJsonString(Readable);

    /// <summary>Several, as a JSON array.</summary>
    public static string WriteAll(IReadOnlyList<Saying> sayings) =>
        sayings.Count == 0 ? "[]" : JsonSerializer.Serialize(sayings.Select(Write));

    public static Saying[] ReadAll(string stored) =>
        stored == "[]" ? [] : [.. JsonSerializer.Deserialize<string[]>(stored)!.Select(Read).OfType<Saying>()];

    public static Saying? Read(string text)
    {
        if (text.Length == 0)
            return null;
        return text.StartsWith($"{{\"{Code}\":", StringComparison.Ordinal)
            ? Of(JsonNode.Parse(text)!.AsObject())
            : Saying.Of("text.plain", ("text", text));
    }

    private static JsonObject Node(Saying saying)
    {
        var values = new JsonObject();
        foreach (var (name, value) in saying.Values)
            values[name] = Node(value);
        return new JsonObject { [Code] = saying.Code, [Values] = values };
    }

    private static JsonNode? Node(object? value) => value switch
    {
        null => null,
        string text => text,
        int number => number,
        Saying saying => Node(saying),
        LocalDate day => new JsonObject { [Day] = LocalDatePattern.Iso.Format(day) },
        IEnumerable<Saying> sayings => new JsonArray([.. sayings.Select(Node)]),
        _ => throw new NotSupportedException($"Nobody has said how a {value.GetType().Name} of a saying is kept."),
    };

    private static Saying Of(JsonObject node) => new(
        (string)node[Code]!,
            ValueList.Of<(string, object?)>([.. node[Values]!.AsObject().Select(value => (value.Key, ValueOf(value.Value)))]));

    private static object? ValueOf(JsonNode? node) => node switch
    {
        null => null,
        JsonObject day when day[Day] is { } text => LocalDatePattern.Iso.Parse((string)text!).Value,
        JsonObject saying => Of(saying),
        JsonArray sayings => ValueList.Of<Saying>([.. sayings.Select(one => Of(one!.AsObject()))]),
        _ => node.GetValueKind() == JsonValueKind.Number ? (int)node : (string)node!,
    };
}
