using Microsoft.AspNetCore.Http.HttpResults;
using Valtro.Application.Accounts;
using Valtro.Application.Events;
using Valtro.Core.Events;

namespace Valtro.Server.Api;

internal static class EventApi
{
    public static void MapEvents(this RouteGroupBuilder api)
    {
        api.MapPost("/events", Add).AddEndpointFilter<OnceFilter>();
        api.MapPost("/events/consequences",
            async (ConsequencesRequest request, EventPreviews previews) => TypedResults.Ok(await previews.OfAsync(request)))
            .ReadsOnly();
        api.MapPost("/events/destinations",
            async (ConsequencesRequest request, EventPreviews previews) => TypedResults.Ok(await previews.WhereItGoesAsync(request)))
            .ReadsOnly();
        api.MapGet("/events/{id:guid}", Get);
    }

    private static async Task<Ok<EventResponse>> Get(Guid id, string? date, EventDesk desk) =>
        TypedResults.Ok(desk.Show(await desk.FindAsync(id), date));

    private static async Task<Created<EventResponse>> Add(EventForm request, Access access, EventDesk desk, EventChanges changes)
    {
        var (id, actId, asksFor) = await changes.AddAsync(await access.ViewerAsync(), request);
        return TypedResults.Created(
            access.At($"/api/events/{id}"), desk.Show(await desk.FindAsync(id), null) with { ActId = actId, AsksFor = asksFor });
    }
}
