using Microsoft.AspNetCore.Http.HttpResults;
using NodaTime;
using Valtro.Core;
using Valtro.Core.Disclosure;
using Valtro.Core.Events;
using Valtro.Core.Recurrence;
using Valtro.Server.Accounts;
using Valtro.Store;
using Valtro.Core.Speaking;

namespace Valtro.Server.Api;

/// <summary>Changing, cancelling, removing and restoring: one date, later dates, or all; with a preview, and undone as one.</summary>
internal static class ChangeApi
{
    private const int DatesShown = 4;
    private const int MostCounted = 2_000;

    public static void MapChanges(this RouteGroupBuilder api)
    {
        api.MapPost("/events/{id:guid}/changes/preview", Preview).ReadsOnly();
        api.MapPost("/events/{id:guid}/changes", Make).AddEndpointFilter<OnceFilter>();
        api.MapDelete("/events/{id:guid}/placements/{calendarId:guid}", TakeOff);
        api.MapPost("/acts/{actId:guid}/undo", Undo);
    }

    private static async Task<Results<Ok<ChangePreview>, ProblemHttpResult>> Preview(Guid id, ChangeRequest request, EventDesk desk, EventChanges changes)
    {
        var found = await desk.FindForChangeAsync(id);
        if (found.Stored.Version != request.Version)
            return await changes.ConflictAsync(found, request);
        var change = await changes.ReadAsync(found, request);
        var edit = new SeriesEdit(found.Event, change, found.School);
        var (placed, asked) = EventChanges.Placements(found, request);
        ChangeScope[] scopes = edit.HasChoice ? [ChangeScope.This, ChangeScope.Later, ChangeScope.Every] : [ChangeScope.Every];
        var seen = EventDates.Find(found.Event, change.SeenFrom, found.School);
        return TypedResults.Ok(new ChangePreview(
            seen?.Title ?? found.Event.Content.Title,
            seen is { } shown ? found.Words.Say(shown.Timing) : found.Words.Say(found.Event.Series),
            DifferencesOf(found, change, request, placed),
            edit.HasChoice,
            [.. scopes.Select(scope => Foresee(found, edit, change, request, scope, placed, asked))],
            !found.ChangesAtOnce,
            NewlySees(found, change, request, placed, desk.Now),
            [.. asked.Select(calendarId => found.Calendars[calendarId].Name)]));
    }

    /// <summary>What the form says differently from what stands there now.</summary>
    internal static IReadOnlyList<EventDifference> DifferencesOf(OnDesk found, Change change, ChangeRequest request, IReadOnlyList<Guid> placed)
    {
        var seen = EventDates.Find(found.Event, change.SeenFrom, found.School);
        var differences = seen is { } date && change.Typed is { } typed
            ? EventDifference.Between(date, found.Event.Series, typed, found.Words).ToList()
            : [];
        if (request.Event is { } form && form.CalendarId != found.Event.HomeCalendarId)
            differences.Add(new EventDifference("calendarId", found.Calendar.Name, found.Calendars[form.CalendarId].Name));
        if (!placed.Order().SequenceEqual(found.Event.Placements.Order()))
            differences.Add(new EventDifference("placements", Names(found, found.Event.Placements), Names(found, placed)));
        return differences;
    }

    private static string Names(OnDesk found, IEnumerable<Guid> calendars) =>
        string.Join(", ", calendars.Where(id => found.Calendars.TryGetValue(id, out var calendar) && found.Viewer.DetailOn(id, calendar.Disclosure) > Detail.Nothing).Select(id => found.Calendars[id].Name).Order());

    /// <summary>Who will see more of the event than now: "Everyone: title, time and place".</summary>
    private static string[] NewlySees(OnDesk found, Change change, ChangeRequest request, IReadOnlyList<Guid> placed, Instant now)
    {
        if (change.Typed is not { } typed)
            return [];
        var after = found.Event with { HomeCalendarId = request.Event?.CalendarId ?? found.Event.HomeCalendarId, Placements = placed, Content = found.Event.Content with { Cap = typed.Cap, Showing = typed.Showing } };
        return [.. WhoSees.Of(after, found.Event, NamesAndTables(found.Calendars), found.Words, now)
            .Where(who => who.Detail > who.Was)
            .Select(who => Spoken.Now.Say("sees.line", ("audience", DetailWords.Of(who.Audience)), ("said", who.Sentence)))];
    }

    internal static Dictionary<Guid, (string Name, Disclosure Disclosure)> NamesAndTables(IReadOnlyDictionary<Guid, Calendar> calendars) =>
        calendars.ToDictionary(one => one.Key, one => (one.Value.Name, one.Value.Disclosure));

    private static ScopeBody Foresee(OnDesk found, SeriesEdit edit, Change change, ChangeRequest request, ChangeScope scope, IReadOnlyList<Guid> placed, IReadOnlyList<Guid> asked)
    {
        try
        {
            EventChanges.RequireWhole(found, request, scope, placed, asked);
            var outcome = edit.Apply(scope, new HashSet<LocalDateTime>());
            var dates = Concerned(found, change, outcome, scope).Take(MostCounted + 1).ToArray();
            return new ScopeBody(
                scope,
                null,
                dates.Length > MostCounted ? null : dates.Length,
                [.. dates.Take(DatesShown).Select(date => found.Words.Say(date.Timing))],
                [.. outcome.Kept.Select(exception => Say(found, exception))],
                [.. outcome.Moved.Select(exception => Say(found, exception))],
                [.. outcome.Lost.Select(lost => new LostBody(
                    DateName.Of(lost.RecurrenceId, found.Event.Series.Timing.AllDay), Say(found, lost)))]);
        }
        catch (RuleException refused)
        {
            return new ScopeBody(scope, Spoken.Now.Say(refused.Refusals[0].Saying), 0, [], [], [], []);
        }
    }

    /// <summary>"Tuesday 1 December 2026: cancelled".</summary>
    private static string Say(OnDesk found, EventException exception) =>
        $"{found.Words.Day(exception.RecurrenceId.Date, withWeekday: true)}: {EventDifference.Say(exception, found.Event.Series.Timing, found.Words)}";

    /// <summary>The dates that a scope is about: as they become, or as they were where they go.</summary>
    private static IEnumerable<EventDate> Concerned(OnDesk found, Change change, ChangeOutcome outcome, ChangeScope scope)
    {
        var goes = change.Act is ChangeAct.Remove;
        var calendarEvent = goes || outcome.IsRemoved ? found.Event : outcome.Successor ?? outcome.Event;
        if (scope == ChangeScope.This)
            return EventDates.Find(calendarEvent, change.SeenFrom, found.School) is { } one ? [one] : [];
        var dates = EventDates.All(calendarEvent, found.School);
        return scope == ChangeScope.Later && outcome.Successor is null ? dates.Where(date => date.Occurrence.RecurrenceId >= change.SeenFrom) : dates;
    }

    private static async Task<Results<Ok<ChangeResponse>, ProblemHttpResult>> Make(Guid id, ChangeRequest request, EventDesk desk, EventChanges changes)
    {
        var found = await desk.FindForChangeAsync(id);
        try
        {
            return TypedResults.Ok(await changes.MakeAsync(found, request));
        }
        catch (ChangedMeanwhileException)
        {
            return await changes.ConflictAsync(await desk.FindForChangeAsync(id), request);
        }
    }

    /// <summary>Those who keep a calendar can always take what others placed there off it again.</summary>
    private static async Task<Ok<ActResponse>> TakeOff(Guid id, Guid calendarId, EventDesk desk)
    {
        var found = await desk.FindAsync(id);
        Access.Require(found.Viewer.May(CalendarAction.Edit, calendarId) || found.MayEdit, "access.keepersTakeOff");
        if (!found.Event.Placements.Contains(calendarId))
            throw new NotFoundException("placement");
        var done = await desk.WriteAsync([EventDesk.Saving(found, found.Event with { Placements = [.. found.Event.Placements.Where(one => one != calendarId)] }, EventAct.Changed, isRemoved: false)]);
        return TypedResults.Ok(new ActResponse(done!.ActId, 1));
    }

    private static async Task<Results<Ok<ActResponse>, ProblemHttpResult>> Undo(Guid actId, Access access, RevisionStore revisions, EventDesk desk)
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
            Access.Require(viewer.May(found.MayEdit ? CalendarAction.Edit : CalendarAction.Contribute, write.Event.HomeCalendarId), "access.editorsPutBack");
        }
        var done = await desk.WriteAsync(writes);
        return TypedResults.Ok(new ActResponse(done!.ActId, writes.Count));
    }
}

/// <summary>Audiences and levels as people are told of them.</summary>
internal static class DetailWords
{
    public static Saying Of(Audience audience) => Saying.Of($"audienceHead.{audience.ToString().ToLowerInvariant()}");

    public static Saying Of(Detail detail) => Saying.Of($"detail.{detail.ToString().ToLowerInvariant()}");

    /// <summary>"Members: nothing to complete".</summary>
    public static Saying Changed(Audience audience, Detail before, Detail after) =>
        Saying.Of("audit.changed", ("audience", Of(audience)), ("before", Of(before)), ("after", Of(after)));
}
