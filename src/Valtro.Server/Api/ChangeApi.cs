using Microsoft.AspNetCore.Http.HttpResults;
using Valtro.Application.Accounts;
using Valtro.Application.Events;
using Valtro.Core.Disclosure;
using Valtro.Core.Events;
using Valtro.Store;

namespace Valtro.Server.Api;

/// <summary>Changing, cancelling, removing and restoring: one date, later dates, or all; with a preview, and undone as one.</summary>
internal static class ChangeApi
{
    public static void MapChanges(this RouteGroupBuilder api)
    {
        api.MapPost("/events/{id:guid}/changes/preview", Preview).ReadsOnly();
        api.MapPost("/events/{id:guid}/changes", Make).AddEndpointFilter<OnceFilter>();
        api.MapDelete("/events/{id:guid}/placements/{calendarId:guid}", TakeOff);
        api.MapPost("/acts/{actId:guid}/undo", Undo);
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

    /// <summary>Those who keep a calendar can always take what others placed there off it again.</summary>
    private static async Task<Ok<ActResponse>> TakeOff(Guid id, Guid calendarId, EventDesk desk)
    {
        var found = await desk.FindAsync(id);
        Access.Require(found.Viewer.May(CalendarAction.Edit, calendarId) || found.MayEdit, "access.keepersTakeOff");
        if (!found.Event.Placements.Contains(calendarId))
            throw new NotFoundException("placement");
        var done = await desk.WriteAsync(
            [EventDesk.Saving(found, found.Event with { Placements = [.. found.Event.Placements.Where(one => one != calendarId)] },
                EventAct.Changed, isRemoved: false)]);
        return TypedResults.Ok(new ActResponse(done!.ActId, 1));
    }

    private static async Task<Results<Ok<ActResponse>, ProblemHttpResult>> Undo(
        Guid actId, Access access, RevisionStore revisions, EventDesk desk)
    {
        var viewer = await access.ViewerAsync();
        var writes = await revisions.UndoingAsync(viewer.OrganisationId, actId, (await access.HouseAsync()).School);
        if (writes.Count == 0)
            throw new NotFoundException("act");
        await desk.ReadAheadAsync([.. writes.Select(write => write.Event.Id)], []);
        foreach (var write in writes)
        {
            var found = await desk.FindForChangeAtOnceAsync(write.Event.Id);
            // What an editor let go out is not taken back by who handed it in.
            Access.Require(found.MayEdit || !Visibility.LeavesTheHouse(write.Event.State), "access.editorsUndo");
            Access.Require(viewer.May(found.MayEdit ? CalendarAction.Edit : CalendarAction.Contribute, write.Event.HomeCalendarId),
                "access.editorsPutBack");
        }
        var done = await desk.WriteAsync(writes);
        return TypedResults.Ok(new ActResponse(done!.ActId, writes.Count));
    }
}
