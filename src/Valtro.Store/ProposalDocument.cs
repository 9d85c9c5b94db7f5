using System.Text.Json;
using System.Text.Json.Nodes;
using System.Text.Json.Serialization;
using NodaTime;
using NodaTime.Serialization.SystemTextJson;
using NodaTime.Text;

namespace Valtro.Store;

/// <summary>The stored form of what somebody asked for and what the form showed before: it waits for sign-off, perhaps for weeks, while
/// Valtro goes on.</summary>
/// <remarks>What was typed is kept as it was typed: it is checked when it is decided, by what holds then.</remarks>
internal static class ProposalDocument
{
    public const int Version = 1;

    private static readonly JsonSerializerOptions Options = Made();

    public static string Write<T>(T proposed)
    {
        var document = (JsonObject)JsonSerializer.SerializeToNode(proposed, Options)!;
        document["v"] = Version;
        return document.ToJsonString();
    }

    /// <exception cref="NotSupportedException">It was written by a later version of Valtro.</exception>
    public static T Read<T>(string stored)
    {
        var document = (JsonObject)JsonNode.Parse(stored)!;
        // The first form had the same names, and no version.
        if ((int?)document["v"] is > Version and var version)
            throw new NotSupportedException(
                $"A stored proposal has the form {version}; this version of Valtro reads forms up to {Version}.");
        document.Remove("v");
        foreach (var form in new[] { document, document["event"] as JsonObject }.OfType<JsonObject>())
            LeaveOutNothing(form);
        return document.Deserialize<T>(Options)!;
    }

    /// <summary>What was not said stood as null in the first form; now it is left out.</summary>
    private static void LeaveOutNothing(JsonObject form)
    {
        foreach (var name in form.Where(one => one.Value is null).Select(one => one.Key).ToArray())
            form.Remove(name);
    }

    private static JsonSerializerOptions Made()
    {
        var options =
            new JsonSerializerOptions(JsonSerializerDefaults.Web) { DefaultIgnoreCondition = JsonIgnoreCondition.WhenWritingNull };
        options.Converters.Add(new NodaPatternConverter<LocalTime>(LocalTimePattern.GeneralIso));
        options.ConfigureForNodaTime(DateTimeZoneProviders.Tzdb);
        options.Converters.Add(new JsonStringEnumConverter(JsonNamingPolicy.CamelCase, allowIntegerValues: false));
        return options;
    }
}
