using Microsoft.AspNetCore.OpenApi;
using Microsoft.OpenApi;
using NodaTime;

namespace Valtro.Server.Api;

/// <summary>Says in the OpenAPI document how NodaTime's types are written, as strings, and that enumerations are their words.</summary>
internal sealed class OpenApiSchemas : IOpenApiSchemaTransformer
{
    private static readonly Dictionary<Type, string> Formats = new()
    {
        [typeof(LocalDate)] = "date",
        [typeof(LocalTime)] = "time",
        [typeof(QueryDay)] = "date",
        [typeof(QueryWord<Application.Events.ListOrder>)] = "word",
        [typeof(Instant)] = "date-time",
    };

    public Task TransformAsync(OpenApiSchema schema, OpenApiSchemaTransformerContext context, CancellationToken cancellation)
    {
        var type = Nullable.GetUnderlyingType(context.JsonTypeInfo.Type) ?? context.JsonTypeInfo.Type;
        if (Formats.TryGetValue(type, out var format))
        {
            // Where a value may be missing, the property says so; the schema is shared with those where it may not.
            schema.Type = JsonSchemaType.String;
            schema.Format = format;
            schema.Properties = null;
            schema.Required = null;
        }
        else if (type.IsEnum && schema.Enum is { } words)
            schema.Enum = [.. words.Where(word => word?.GetValueKind() == System.Text.Json.JsonValueKind.String)];
        else if (typeof(IEnumerable<LocalDate>).IsAssignableFrom(type))
            schema.Items = new OpenApiSchema { Type = JsonSchemaType.String, Format = "date" };
        // An answer has all that it may have; what may be missing is null.
        if (type.Name.EndsWith("Response", StringComparison.Ordinal) && schema.Properties is { } properties)
            schema.Required = properties.Keys.ToHashSet();
        return Task.CompletedTask;
    }
}
