using Microsoft.AspNetCore.Http.HttpResults;
using NodaTime;
using Valtro.Application;
using Valtro.Application.Accounts;
using Valtro.Application.Events;
using Valtro.Core.Disclosure;
using Valtro.Core.Events;
using Valtro.Core.Recurrence;
using Valtro.Store;

namespace Valtro.Server.Api;

public sealed record RevisionResponse(
    int Version, EventAct Act, string By, Instant At, bool MayRestore, IReadOnlyList<EventDifference> Differences);

public sealed record BinResponse(
    Guid Id, Guid CalendarId, string Title, string Words, string By, Instant RemovedAt, Instant GoneAt, int Version);

/// <summary>Who changed what, any earlier version again, and the bin.</summary>
internal static class HistoryApi
{
    public static void MapHistory(this RouteGroupBuilder api)
    {
        api.MapGet("/events/{id:guid}/revisions", Revisions);
        api.MapPost("/events/{id:guid}/revisions/{version:int}/restore", Restore);
        api.MapGet("/bin", Bin);
        api.MapPost("/bin/{id:guid}/restore", TakeOut);
    }

    private static async Task<Ok<IReadOnlyList<RevisionResponse>>> Revisions(Guid id, EventDesk desk, RevisionStore revisions)
    {
        var found = await desk.FindForChangeAsync(id);
        var all = await revisions.OfEventAsync(found.Viewer.OrganisationId, found.Event);
        // A calendar that the person sees nothing of has no name for them.
        var names = found.Calendars.Values.Where(calendar => found.Viewer.DetailOn(calendar.Id, calendar.Disclosure) > Detail.Nothing)
            .ToDictionary(calendar => calendar.Id, calendar => calendar.Name);
        return TypedResults.Ok<IReadOnlyList<RevisionResponse>>([.. all.Select((revision, index) => new RevisionResponse(
            revision.Version,
            revision.Act,
            revision.By,
            revision.At,
            revision.Version != found.Stored.Version && found.ChangesAtOnce,
            index + 1 < all.Count
                ? EventDifference.Between(all[index + 1].Event, revision.Event, found.Words,
                    calendar => names.GetValueOrDefault(calendar, Spoken.Now.Say("own.anotherCalendar")))
                : []))]);
    }

    private static async Task<Results<Ok<ActResponse>, ProblemHttpResult>> Restore(
        Guid id, int version, int now, EventDesk desk, RevisionStore revisions)
    {
        var found = await desk.FindForChangeAtOnceAsync(id);
        if (found.Stored.Version != now)
            return Problems.Of(Problem.ChangedMeanwhile, current: desk.Show(found, null));
        var revision = await revisions.FindAsync(found.Viewer.OrganisationId, found.Event, version)
            ?? throw new NotFoundException("revision");
        Access.Require(found.Viewer.May(found.MayEdit ? CalendarAction.Edit : CalendarAction.Contribute, revision.Event.HomeCalendarId),
            "access.editorsPutBack");
        // What was placed elsewhere since, or is gone there, was settled with the editors of those calendars.
        var after = revision.Event with
        {
            Placements = [.. found.Event.Placements.Where(one => one != revision.Event.HomeCalendarId)],
            State = found.IsUnfinished ? found.Event.State : revision.Event.State
        };
        var done = await desk.WriteAsync([EventDesk.Saving(found, after, EventAct.Restored, isRemoved: false)]);
        return TypedResults.Ok(new ActResponse(done!.ActId, 1));
    }

    private static async Task<Ok<IReadOnlyList<BinResponse>>> Bin(Access access, EventDesk desk, EventStore events)
    {
        var viewer = await access.ViewerAsync();
        var words = RuleWords.For(Spoken.LocaleIn((await access.HouseAsync()).Organisation));
        var removed = await events.BinAsync(viewer.OrganisationId, desk.Now - EventStore.KeptInBin);
        return TypedResults.Ok<IReadOnlyList<BinResponse>>([.. from stored in removed
                                                              where viewer.May(CalendarAction.Edit, stored.Event.HomeCalendarId)
                                                                  || (viewer.May(CalendarAction.Contribute, stored.Event.HomeCalendarId)
                                                                      && stored.MadeBy == viewer.AccountId
                                                                      && !Visibility.LeavesTheHouse(stored.Event.State))
                                                              let at = stored.RemovedAt!.Value
                                                              select new BinResponse(
                                                                  stored.Event.Id, stored.Event.HomeCalendarId, stored.Event.Content.Title,
                                                                  words.Say(stored.Event.Series),
                                                                  stored.SavedBy, at, at + EventStore.KeptInBin, stored.Version)]);
    }

    private static async Task<Results<Ok<ActResponse>, ProblemHttpResult>> TakeOut(Guid id, int version, EventDesk desk)
    {
        var found = await desk.FindForChangeAtOnceAsync(id);
        if (found.Stored.Version != version)
            return Problems.Of(Problem.ChangedMeanwhile, current: desk.Show(found, null));
        if (!found.Stored.IsRemoved)
            throw new NotFoundException("removed event");
        // What waited when it was removed was withdrawn with it: it comes back as a draft.
        var after = found.Event.State == EventState.Waiting ? found.Event with { State = EventState.Draft } : found.Event;
        var done = await desk.WriteAsync([EventDesk.Saving(found, after, EventAct.Restored, isRemoved: false)]);
        return TypedResults.Ok(new ActResponse(done!.ActId, 1));
    }
}
