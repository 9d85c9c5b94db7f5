using Valtro.Application.Events;

namespace Valtro.Server.Api;

/// <summary>Events kept as patterns to start from.</summary>
internal static class TemplateApi
{
    public sealed record KeptTemplate(Guid Id);

    public static void MapTemplates(this RouteGroupBuilder api)
    {
        api.MapGet("/templates", async (Templates templates) => TypedResults.Ok(await templates.AllAsync()));
        api.MapPost("/templates",
            async (TemplateRequest request, Templates templates) => TypedResults.Ok(new KeptTemplate(await templates.SaveAsync(request))));
        api.MapDelete("/templates/{id:guid}", async (Guid id, Templates templates) =>
        {
            await templates.RemoveAsync(id);
            return TypedResults.NoContent();
        });
    }
}
