using NodaTime;
using Valtro.Application.Accounts;
using Valtro.Core;
using Valtro.Core.Acts;
using Valtro.Core.Calendars;
using Valtro.Core.Disclosure;
using Valtro.Core.Events;
using Valtro.Core.Recurrence;
using Valtro.Core.Speaking;
using Valtro.Store;

namespace Valtro.Application.Events;

public sealed record RevisionResponse(
    int Version, EventAct Act, string By, Instant At, bool MayRestore, IReadOnlyList<EventDifference> Differences);

/// <summary>What an earlier version would change again.</summary>
public sealed record PutBackPreview(
    IReadOnlyList<EventDifference> Differences, IReadOnlyList<string> NewlySees, IReadOnlyList<string> SeesLess);

public sealed record BinResponse(
    Guid Id, Guid CalendarId, string Title, string Words, string By, Instant RemovedAt, Instant GoneAt, int Version);

/// <param name="Act">What was done to most of its events.</param>
/// <param name="Events">How many there are.</param>
/// <param name="Titles">Of the first three.</param>
/// <param name="MayUndo">Nothing of it was changed since, and all of it is on calendars that the person edits.</param>
public sealed record LatelyResponse(
    Guid ActId, EventAct Act, string By, Instant At, int Events, IReadOnlyList<string> Titles, bool MayUndo);

/// <summary>One date that was taken out of a series.</summary>
/// <param name="Words">When it would be.</param>
public sealed record TakenOutResponse(Guid EventId, Guid CalendarId, string Title, string RecurrenceId, string Words, int Version);

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
                ? EventDifference.Between(all[index + 1].Event, revision.Event, found.Words, found.NameOf)
                : []))];
    }

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

    private static readonly Duration Lately = Duration.FromDays(30);

    private const int MostActs = 60;
    private const int MostTakenOut = 200;

    /// <summary>What was done on the calendars that the person edits, latest first.</summary>
    public async Task<IReadOnlyList<LatelyResponse>> LatelyAsync()
    {
        var (viewer, calendars) = await EditedAsync();
        return [.. (await acts.LatelyAsync(viewer.OrganisationId, calendars, desk.Now - Lately, MostActs)).Select(act => new LatelyResponse(
            act.ActId, act.Act, act.By, act.MadeAt, act.Events, act.Titles, act.IsLast))];
    }

    /// <summary>Dates that were taken out of series on calendars that the person edits, those ahead first.</summary>
    public async Task<IReadOnlyList<TakenOutResponse>> TakenOutAsync()
    {
        var (viewer, calendars) = await EditedAsync();
        var words = RuleWords.For(Spoken.LocaleIn((await access.HouseAsync()).Organisation));
        var today = desk.Now.InUtc().Date.AtMidnight();
        return [.. (from one in await events.WithDatesTakenOutAsync(viewer.OrganisationId, calendars)
                   let series = one.Series
                   from date in series.Removed
                   where date > today - Period.FromDays((int)EventStore.KeptInBin.TotalDays)
                   orderby date < today, date
                   select new TakenOutResponse(
                       one.Id, one.HomeCalendarId, one.Content.Title, DateName.Of(date, series.Timing.AllDay),
                       words.Say(series.Timing.StartingAt(date)), one.Version)).Take(MostTakenOut)];
    }

    private async Task<(Viewer Viewer, Guid[] Calendars)> EditedAsync()
    {
        var viewer = await access.ViewerAsync();
        return (viewer, [.. (await access.HouseAsync()).Calendars.Keys.Where(id => viewer.May(CalendarAction.Edit, id))]);
    }

    /// <summary>What taking an act back would do.</summary>
    /// <exception cref="NotFoundException">There is no such act.</exception>
    /// <exception cref="ChangedMeanwhileException">One of its events was saved again since.</exception>
    public async Task<ForeseenBody> PreviewUndoAsync(Guid actId)
    {
        var (act, returning, _) = await UndoingAsync(actId);
        return ForeseenBody.Of(act, (await access.HouseAsync()).Disclosures
            .Concat(returning.Select(calendar => KeyValuePair.Create(calendar.Id, calendar.Disclosure))).ToDictionary());
    }

    /// <inheritdoc cref="PreviewUndoAsync"/>
    public async Task<ActResponse> UndoAsync(Guid actId)
    {
        var (act, returning, entries) = await UndoingAsync(actId);
        var viewer = await access.ViewerAsync();
        var done = await acts.UndoAsync(viewer.OrganisationId, viewer.AccountId, desk.Now, actId, act,
            [.. returning.Select(calendar => Line(AuditAct.CalendarRestored, calendar.Name)),
                .. entries.Select(name => Line(AuditAct.ListChanged, name, Saying.Of("audit.putBack")))]);
        return new ActResponse(done, act.Writes.Count);

        AuditLine Line(AuditAct what, string subject, Saying? detail = null) => new(viewer.AccountId, what, subject, detail, desk.Now);
    }

    /// <returns>Also the calendars that the act emptied into others, and the names of entries of lists: they come back.</returns>
    /// <exception cref="ForbiddenException">Some of it is not theirs to take back.</exception>
    private async Task<(Act Act, IReadOnlyList<Calendar> Returning, IReadOnlyList<string> Entries)> UndoingAsync(Guid actId)
    {
        var viewer = await access.ViewerAsync();
        var merges = await acts.MergesAsync(viewer.OrganisationId, actId);
        if (merges.Calendars.Length > 0)
            await access.RequireAsync(OrganisationAction.ManageCalendars, Application.Calendars.CalendarView.KeepersOnly);
        if (merges.Entries.Length > 0)
            await access.RequireAsync(OrganisationAction.ManageLists, Application.Lists.OwnLists.KeepersOnly);
        var act = ActPlanner.Undoing(await revisions.OfActAsync(viewer.OrganisationId, actId), (await access.HouseAsync()).School);
        if (act.IsNothing && merges is ([], []))
            throw new NotFoundException("act");
        await desk.ReadAheadAsync([.. act.Writes.Select(write => write.Event.Id)], []);
        foreach (var write in act.Writes)
        {
            var found = await desk.FindForChangeAtOnceAsync(write.Event.Id);
            // What an editor let go out is not taken back by who handed it in.
            Access.Require(found.MayEdit || !Visibility.LeavesTheHouse(write.Event.State), "access.editorsUndo");
            RequireThere(found, write.Event.HomeCalendarId);
        }
        var returning = new List<Calendar>();
        foreach (var id in merges.Calendars)
            returning.Add(await calendars.FindAnyAsync(viewer.OrganisationId, id) ?? throw new NotFoundException("calendar"));
        return (act, returning, merges.Entries);
    }

    private static void RequireThere(OnDesk found, Guid calendarId) => Access.Require(
        found.Viewer.May(found.MayEdit ? CalendarAction.Edit : CalendarAction.Contribute, calendarId), "access.editorsPutBack");

    /// <summary>What putting an earlier version back would change.</summary>
    public async Task<PutBackPreview> PreviewPutBackAsync(Guid id, int version)
    {
        var found = await desk.FindForChangeAtOnceAsync(id);
        var act = await PuttingBackAsync(found, version);
        var foreseen = ForeseenBody.Of(act, (await access.HouseAsync()).Disclosures);
        return new PutBackPreview(
            EventDifference.Between(found.Event, act.Writes[0].Event, found.Words, found.NameOf),
            foreseen.NewlySees, foreseen.SeesLess);
    }

    private async Task<Act> PuttingBackAsync(OnDesk found, int version)
    {
        var revision = await revisions.FindAsync(found.Viewer.OrganisationId, found.Event, version)
            ?? throw new NotFoundException("revision");
        RequireThere(found, revision.Event.HomeCalendarId);
        return found.Planner.PuttingBack(found.Stored, revision.Event);
    }

    /// <summary>An earlier version again.</summary>
    /// <param name="now">The version that the person saw.</param>
    /// <returns>The act; or the event as it is, where somebody else saved it since.</returns>
    public async Task<(ActResponse? Done, EventResponse? Current)> PutBackAsync(Guid id, int version, int now)
    {
        var found = await desk.FindForChangeAtOnceAsync(id);
        if (found.Stored.Version != now)
            return (null, desk.Show(found, null));
        return (await DoAsync(await PuttingBackAsync(found, version)), null);
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
