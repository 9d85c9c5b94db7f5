using Microsoft.AspNetCore.Http.HttpResults;
using Valtro.Application.Events;

namespace Valtro.Server.Api;

/// <summary>Who changed what, any earlier version again, and the bin.</summary>
internal static class HistoryApi
{
    public static void MapHistory(this RouteGroupBuilder api)
    {
        api.MapGet("/events/{id:guid}/revisions",
            async (Guid id, EventHistory history) => TypedResults.Ok(await history.OfEventAsync(id)));
        api.MapGet("/events/{id:guid}/revisions/{version:int}/restore",
            async (Guid id, int version, EventHistory history) => TypedResults.Ok(await history.PreviewPutBackAsync(id, version)));
        api.MapPost("/events/{id:guid}/revisions/{version:int}/restore",
            async (Guid id, int version, int now, EventHistory history) => Said(await history.PutBackAsync(id, version, now)));
        api.MapGet("/acts", async (EventHistory history) => TypedResults.Ok(await history.LatelyAsync()));
        api.MapGet("/bin/dates", async (EventHistory history) => TypedResults.Ok(await history.TakenOutAsync()));
        api.MapGet("/bin", async (EventHistory history) => TypedResults.Ok(await history.BinAsync()));
        api.MapPost("/bin/{id:guid}/restore",
            async (Guid id, int version, EventHistory history) => Said(await history.TakeOutAsync(id, version)));
        api.MapDelete("/events/{id:guid}/placements/{calendarId:guid}",
            async (Guid id, Guid calendarId, EventHistory history) => TypedResults.Ok(await history.TakeOffAsync(id, calendarId)));
        api.MapGet("/acts/{actId:guid}/undo",
            async (Guid actId, EventHistory history) => TypedResults.Ok(await history.PreviewUndoAsync(actId)));
        api.MapPost("/acts/{actId:guid}/undo",
            async (Guid actId, EventHistory history) => TypedResults.Ok(await history.UndoAsync(actId)));
    }

    private static Results<Ok<ActResponse>, ProblemHttpResult> Said((ActResponse? Done, EventResponse? Current) outcome) =>
        outcome.Done is { } done ? TypedResults.Ok(done) : Problems.Of(Problem.ChangedMeanwhile, current: outcome.Current);
}
