using Valtro.Application.Events;

namespace Valtro.Server.Api;

/// <summary>One change of many events and dates.</summary>
internal static class ChosenApi
{
    public static void MapChosen(this RouteGroupBuilder api)
    {
        api.MapPost("/events/chosen/preview",
            async (ChosenRequest request, ChosenEvents chosen) => TypedResults.Ok(await chosen.PreviewAsync(request))).ReadsOnly();
        api.MapPost("/events/chosen",
            async (ChosenRequest request, ChosenEvents chosen) => TypedResults.Ok(await chosen.MakeAsync(request)))
            .AddEndpointFilter<OnceFilter>();
    }
}
