using NodaTime;
using Valtro.Application.Accounts;
using Valtro.Core;
using Valtro.Core.Acts;
using Valtro.Core.Disclosure;
using Valtro.Core.Events;
using Valtro.Core.Recurrence;
using Valtro.Store;

namespace Valtro.Application.Events;

public sealed record RevisionResponse(
    int Version, EventAct Act, string By, Instant At, bool MayRestore, IReadOnlyList<EventDifference> Differences);

/// <summary>What an earlier version would change again.</summary>
public sealed record PutBackPreview(
    IReadOnlyList<EventDifference> Differences, IReadOnlyList<string> NewlySees, IReadOnlyList<string> SeesLess);

public sealed record BinResponse(
    Guid Id, Guid CalendarId, string Title, string Words, string By, Instant RemovedAt, Instant GoneAt, int Version);

/// <summary>What an act would do.</summary>
/// <param name="Removed">Of the events, those that go to the bin.</param>
/// <param name="Returned">Of the events, those that come out of it.</param>
/// <param name="NewlySees">"Everyone sees more of 3 events".</param>
public sealed record ForeseenBody(
    int Events, int Removed, int Returned, IReadOnlyList<string> NewlySees, IReadOnlyList<string> SeesLess)
{
    public static ForeseenBody Of(Act act, IReadOnlyDictionary<Guid, Disclosure> calendars)
    {
        var foreseen = Foreseen.Of(act, calendars);
        return new ForeseenBody(foreseen.Events, foreseen.Removed, foreseen.Returned,
            [.. foreseen.Readers.Where(one => one.More > 0).Select(one => Say("foreseen.more", one.Audience, one.More))],
            [.. foreseen.Readers.Where(one => one.Less > 0).Select(one => Say("foreseen.less", one.Audience, one.Less))]);
    }

    private static string Say(string code, Audience audience, int events) =>
        Spoken.Now.Say(code, ("audience", DetailWords.Of(audience)), ("count", events));
}

/// <summary>What was done to events, and how it is taken back: earlier versions, the bin, whole acts.</summary>
public sealed class EventHistory(
    Access access, EventDesk desk, EventStore events, RevisionStore revisions, CalendarStore calendars, ActStore acts, Commits commits)
{
    public async Task<IReadOnlyList<RevisionResponse>> OfEventAsync(Guid id)
    {
        var found = await desk.FindForChangeAsync(id);
        var all = await revisions.OfEventAsync(found.Viewer.OrganisationId, found.Event);
        return [.. all.Select((revision, index) => new RevisionResponse(
            revision.Version,
            revision.Act,
            revision.By,
            revision.At,
            revision.Version != found.Stored.Version && found.ChangesAtOnce,
            index + 1 < all.Count
                ? EventDifference.Between(all[index + 1].Event, revision.Event, found.Words, id => NameOf(found, id))
                : []))];
    }

    /// <summary>A calendar that the person sees nothing of has no name for them.</summary>
    private static string NameOf(OnDesk found, Guid id) =>
        found.Calendars.TryGetValue(id, out var calendar) && found.Viewer.DetailOn(id, calendar.Disclosure) > Detail.Nothing
            ? calendar.Name
            : Spoken.Now.Say("own.anotherCalendar");

    public async Task<IReadOnlyList<BinResponse>> BinAsync()
    {
        var viewer = await access.ViewerAsync();
        var words = RuleWords.For(Spoken.LocaleIn((await access.HouseAsync()).Organisation));
        var removed = await events.BinAsync(viewer.OrganisationId, desk.Now - EventStore.KeptInBin);
        return [.. removed.Where(IsTheirs).Select(stored => new BinResponse(
            stored.Event.Id, stored.Event.HomeCalendarId, stored.Event.Content.Title, words.Say(stored.Event.Series), stored.SavedBy,
            stored.RemovedAt!.Value, stored.RemovedAt!.Value + EventStore.KeptInBin, stored.Version))];

        bool IsTheirs(StoredEvent stored) => viewer.May(CalendarAction.Edit, stored.Event.HomeCalendarId)
            || (viewer.May(CalendarAction.Contribute, stored.Event.HomeCalendarId)
                && stored.MadeBy == viewer.AccountId
                && stored.IsUnfinished);
    }

    /// <summary>What taking an act back would do.</summary>
    /// <exception cref="NotFoundException">There is no such act.</exception>
    /// <exception cref="ChangedMeanwhileException">One of its events was saved again since.</exception>
    public async Task<ForeseenBody> PreviewUndoAsync(Guid actId)
    {
        var (act, returning) = await UndoingAsync(actId);
        var disclosures = (await access.HouseAsync()).Disclosures.ToDictionary();
        foreach (var id in returning)
            disclosures[id] = (await calendars.FindAnyAsync((await access.ViewerAsync()).OrganisationId, id))!.Disclosure;
        return ForeseenBody.Of(act, disclosures);
    }

    /// <inheritdoc cref="PreviewUndoAsync"/>
    public async Task<ActResponse> UndoAsync(Guid actId)
    {
        var (act, _) = await UndoingAsync(actId);
        var viewer = await access.ViewerAsync();
        return new ActResponse(
            await acts.UndoAsync(viewer.OrganisationId, viewer.AccountId, desk.Now, actId, act), act.Writes.Count);
    }

    /// <returns>Also the calendars that the act emptied into others: they come back.</returns>
    /// <exception cref="ForbiddenException">Some of it is not theirs to take back.</exception>
    private async Task<(Act Act, IReadOnlyList<Guid> Returning)> UndoingAsync(Guid actId)
    {
        var viewer = await access.ViewerAsync();
        var merges = await acts.MergesAsync(viewer.OrganisationId, actId);
        if (merges.Calendars.Length > 0)
            await access.RequireAsync(OrganisationAction.ManageCalendars, Calendars.CalendarView.KeepersOnly);
        if (merges.Lists)
            await access.RequireAsync(OrganisationAction.ManageLists, Lists.OwnLists.KeepersOnly);
        var act = ActPlanner.Undoing(await revisions.OfActAsync(viewer.OrganisationId, actId), (await access.HouseAsync()).School);
        if (act.IsNothing && merges is ([], false))
            throw new NotFoundException("act");
        await desk.ReadAheadAsync([.. act.Writes.Select(write => write.Event.Id)], []);
        foreach (var write in act.Writes)
        {
            var found = await desk.FindForChangeAtOnceAsync(write.Event.Id);
            // What an editor let go out is not taken back by who handed it in.
            Access.Require(found.MayEdit || !Visibility.LeavesTheHouse(write.Event.State), "access.editorsUndo");
            RequireThere(found, write.Event.HomeCalendarId);
        }
        return (act, merges.Calendars);
    }

    private static void RequireThere(OnDesk found, Guid calendarId) => Access.Require(
        found.Viewer.May(found.MayEdit ? CalendarAction.Edit : CalendarAction.Contribute, calendarId), "access.editorsPutBack");

    /// <summary>What putting an earlier version back would change.</summary>
    public async Task<PutBackPreview> PreviewPutBackAsync(Guid id, int version)
    {
        var (found, act) = await PuttingBackAsync(await desk.FindForChangeAtOnceAsync(id), version);
        var foreseen = ForeseenBody.Of(act, (await access.HouseAsync()).Disclosures);
        return new PutBackPreview(
            EventDifference.Between(found.Event, act.Writes[0].Event, found.Words, calendar => NameOf(found, calendar)),
            foreseen.NewlySees, foreseen.SeesLess);
    }

    private async Task<(OnDesk Found, Act Act)> PuttingBackAsync(OnDesk found, int version)
    {
        var revision = await revisions.FindAsync(found.Viewer.OrganisationId, found.Event, version)
            ?? throw new NotFoundException("revision");
        RequireThere(found, revision.Event.HomeCalendarId);
        return (found, found.Planner.PuttingBack(found.Stored, revision.Event));
    }

    /// <summary>An earlier version again.</summary>
    /// <param name="now">The version that the person saw.</param>
    /// <returns>The act; or the event as it is, where somebody else saved it since.</returns>
    public async Task<(ActResponse? Done, EventResponse? Current)> PutBackAsync(Guid id, int version, int now)
    {
        var found = await desk.FindForChangeAtOnceAsync(id);
        if (found.Stored.Version != now)
            return (null, desk.Show(found, null));
        return (await DoAsync((await PuttingBackAsync(found, version)).Act), null);
    }

    /// <summary>Out of the bin.</summary>
    /// <param name="now">The version that the person saw.</param>
    /// <returns>As <see cref="PutBackAsync"/>.</returns>
    public async Task<(ActResponse? Done, EventResponse? Current)> TakeOutAsync(Guid id, int now)
    {
        var found = await desk.FindForChangeAtOnceAsync(id);
        if (found.Stored.Version != now)
            return (null, desk.Show(found, null));
        return found.Stored.IsRemoved
            ? (await DoAsync(found.Planner.TakingOut(found.Stored)), null)
            : throw new NotFoundException("removed event");
    }

    /// <summary>Those who keep a calendar can always take what others placed there off it again.</summary>
    public async Task<ActResponse> TakeOffAsync(Guid id, Guid calendarId)
    {
        var found = await desk.FindAsync(id);
        Access.Require(found.Viewer.May(CalendarAction.Edit, calendarId) || found.MayEdit, "access.keepersTakeOff");
        return found.Event.Placements.Contains(calendarId)
            ? await DoAsync(found.Planner.TakingOff(found.Stored, calendarId))
            : throw new NotFoundException("placement");
    }

    private async Task<ActResponse> DoAsync(Act act) => new((await commits.CommitAsync(act))!.ActId, act.Writes.Count);
}
