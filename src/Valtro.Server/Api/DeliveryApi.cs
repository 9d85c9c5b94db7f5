using Valtro.Application.Deliveries;
using Valtro.Application.Editions;

namespace Valtro.Server.Api;

/// <summary>Who has which version of what.</summary>
internal static class DeliveryApi
{
    public static void MapDeliveries(this RouteGroupBuilder api)
    {
        api.MapGet("/reach", async (DeliveryDesk desk) => TypedResults.Ok(await desk.ReachAsync()));
        api.MapGet("/editions/{id:guid}/deliveries", async (Guid id, QueryWord<DeliverySpan>? span, DeliveryDesk desk) =>
            TypedResults.Ok(await desk.OfAsync(id, span?.Value ?? DeliverySpan.Fortnight)));
        api.MapPost("/editions/{id:guid}/render", async (Guid id, RenderAgain again) => TypedResults.Ok(await again.RunAsync(id)));
    }
}
