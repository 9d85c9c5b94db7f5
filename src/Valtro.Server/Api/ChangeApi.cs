using Microsoft.AspNetCore.Http.HttpResults;
using Valtro.Application.Events;
using Valtro.Core;
using Valtro.Core.Events;

namespace Valtro.Server.Api;

/// <summary>Changing, cancelling, removing and restoring: one date, later dates, or all; with a preview.</summary>
internal static class ChangeApi
{
    public static void MapChanges(this RouteGroupBuilder api)
    {
        api.MapPost("/events/{id:guid}/changes/preview", Preview).ReadsOnly();
        api.MapPost("/events/{id:guid}/changes", Make).AddEndpointFilter<OnceFilter>();
    }

    private static async Task<Results<Ok<ChangePreview>, ProblemHttpResult>> Preview(
        Guid id, ChangeRequest request, EventDesk desk, EventChanges changes, ChangePreviews previews)
    {
        var found = await desk.FindForChangeAsync(id);
        return found.Stored.Version == request.Version
            ? TypedResults.Ok(await previews.OfAsync(found, request))
            : Say(await changes.ConflictAsync(found, request));
    }

    private static ProblemHttpResult Say(EventConflict conflict) =>
        Problems.Of(Problem.ChangedMeanwhile, current: conflict.Current, differing: conflict.Differing);

    private static async Task<Results<Ok<ChangeResponse>, ProblemHttpResult>> Make(
        Guid id, ChangeRequest request, EventDesk desk, EventChanges changes)
    {
        var found = await desk.FindForChangeAsync(id);
        try
        {
            return TypedResults.Ok(await changes.MakeAsync(found, request));
        }
        catch (ChangedMeanwhileException)
        {
            return Say(await changes.ConflictAsync(await desk.FindForChangeAsync(id), request));
        }
    }
}
