using System.Reflection;
using System.Text.Json;
using System.Text.Json.Nodes;
using Microsoft.AspNetCore.OpenApi;
using Microsoft.OpenApi;
using Valtro.Core.Events;

namespace Valtro.Server.Api;

/// <summary>What a refusal says (RFC 9457), with what it adds; <see cref="Problems"/> writes it.</summary>
/// <param name="Type">Which kind it is; stable, and what a program should look at.</param>
/// <param name="Detail">A sentence for people.</param>
/// <param name="Errors">The sentences by the fields that they are about.</param>
/// <param name="Current">What is stored now, where somebody else saved first.</param>
/// <param name="Differing">Field by field what they say and what was sent, where that is known.</param>
/// <param name="TraceId">The number under which it stands in the log.</param>
public sealed record RefusalBody(
    string Type,
    int Status,
    string Title,
    string Detail,
    IReadOnlyDictionary<string, IReadOnlyList<string>>? Errors = null,
    JsonElement? Current = null,
    IReadOnlyList<MergeField>? Differing = null,
    string? TraceId = null);

/// <summary>Says in the OpenAPI document that every request may be refused, and how a refusal looks.</summary>
internal sealed class OpenApiRefusals : IOpenApiOperationTransformer, IOpenApiSchemaTransformer
{
    private static readonly IReadOnlyList<string> Types =
    [
        .. typeof(Problem).GetProperties(BindingFlags.Public | BindingFlags.Static)
            .Select(property => property.GetValue(null)).OfType<Problem>().Select(problem => problem.Type).Order(StringComparer.Ordinal),
    ];

    public async Task TransformAsync(OpenApiOperation operation, OpenApiOperationTransformerContext context, CancellationToken cancellation)
    {
        var schema = await context.GetOrCreateSchemaAsync(typeof(RefusalBody), null, cancellation);
        context.Document!.AddComponent(nameof(RefusalBody), schema);
        operation.Responses ??= [];
        operation.Responses["default"] = new OpenApiResponse
        {
            Description = "Refused: nothing was done, and nothing is lost",
            Content = new Dictionary<string, OpenApiMediaType>
            {
                ["application/problem+json"] = new() { Schema = new OpenApiSchemaReference(nameof(RefusalBody), context.Document) },
            },
        };
    }

    public Task TransformAsync(OpenApiSchema schema, OpenApiSchemaTransformerContext context, CancellationToken cancellation)
    {
        if (context.JsonTypeInfo.Type == typeof(RefusalBody) && schema.Properties?["type"] is OpenApiSchema type)
            type.Enum = [.. Types.Select(word => (JsonNode)word)];
        return Task.CompletedTask;
    }
}
