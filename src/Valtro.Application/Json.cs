using System.Text.Encodings.Web;
using System.Text.Json;
using System.Text.Json.Serialization;
using System.Text.Json.Serialization.Metadata;
using NodaTime;
using NodaTime.Serialization.SystemTextJson;
using NodaTime.Text;

namespace Valtro.Application;

/// <summary>How Valtro writes JSON: camelCase, enumerations as words, NodaTime's types in ISO 8601.</summary>
public static class Json
{
    public static JsonSerializerOptions Options { get; } = Configure(new JsonSerializerOptions(JsonSerializerDefaults.Web));

    public static JsonSerializerOptions Configure(JsonSerializerOptions options)
    {
        // A time has whole seconds (RFC 5545 3.3.12): what stands in a feed and in an address is all of it.
        options.Converters.Add(new NodaPatternConverter<LocalTime>(LocalTimePattern.GeneralIso));
        options.ConfigureForNodaTime(DateTimeZoneProviders.Tzdb);
        options.Converters.Add(new JsonStringEnumConverter(JsonNamingPolicy.CamelCase, allowIntegerValues: false));
        options.RespectNullableAnnotations = true;
        options.TypeInfoResolver = new DefaultJsonTypeInfoResolver { Modifiers = { RequireWhatMayNotBeMissing } };
        options.NumberHandling = JsonNumberHandling.Strict;
        options.Encoder = JavaScriptEncoder.Default;
        return options;
    }

    /// <summary>What a record takes without a default and not as null has to be there: a request without it is refused by name.</summary>
    private static void RequireWhatMayNotBeMissing(JsonTypeInfo type)
    {
        foreach (var property in type.Properties)
        {
            if (property.AssociatedParameter is { IsNullable: false, HasDefaultValue: false, ParameterType.IsValueType: false })
                property.IsRequired = true;
        }
    }
}
