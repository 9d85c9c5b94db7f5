using Microsoft.AspNetCore.OpenApi;
using Microsoft.OpenApi;
using NodaTime;

namespace Valtro.Server.Api;

/// <summary>Says in the OpenAPI document how NodaTime's types are written: as strings.</summary>
internal sealed class OpenApiSchemas : IOpenApiSchemaTransformer
{
    private static readonly Dictionary<Type, string> Formats = new()
    {
        [typeof(LocalDate)] = "date",
        [typeof(LocalTime)] = "time",
        [typeof(QueryDay)] = "date",
        [typeof(Instant)] = "date-time",
    };

    public Task TransformAsync(OpenApiSchema schema, OpenApiSchemaTransformerContext context, CancellationToken cancellation)
    {
        var type = Nullable.GetUnderlyingType(context.JsonTypeInfo.Type) ?? context.JsonTypeInfo.Type;
        if (Formats.TryGetValue(type, out var format))
        {
            var isNullable = type != context.JsonTypeInfo.Type;
            schema.Type = isNullable ? JsonSchemaType.String | JsonSchemaType.Null : JsonSchemaType.String;
            schema.Format = format;
            schema.Properties = null;
            schema.Required = null;
        }
        return Task.CompletedTask;
    }
}
