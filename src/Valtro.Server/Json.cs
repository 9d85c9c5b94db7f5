using System.Text.Encodings.Web;
using System.Text.Json;
using System.Text.Json.Serialization;
using NodaTime;
using NodaTime.Serialization.SystemTextJson;

namespace Valtro.Server;

/// <summary>How Valtro writes JSON: camelCase, enumerations as words, NodaTime's types in ISO 8601.</summary>
internal static class Json
{
    public static JsonSerializerOptions Options { get; } = Configure(new JsonSerializerOptions(JsonSerializerDefaults.Web));

    public static JsonSerializerOptions Configure(JsonSerializerOptions options)
    {
        options.ConfigureForNodaTime(DateTimeZoneProviders.Tzdb);
        options.Converters.Add(new JsonStringEnumConverter(JsonNamingPolicy.CamelCase, allowIntegerValues: false));
        options.NumberHandling = JsonNumberHandling.Strict;
        options.Encoder = JavaScriptEncoder.Default;
        return options;
    }
}
