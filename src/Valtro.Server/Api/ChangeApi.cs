using Microsoft.AspNetCore.Http.HttpResults;
using NodaTime;
using Valtro.Core;
using Valtro.Core.Events;
using Valtro.Server.Accounts;
using Valtro.Store;

namespace Valtro.Server.Api;

/// <summary>Changing, cancelling, removing and restoring: one date, later dates, or all; with a preview, and undone as one.</summary>
internal static class ChangeApi
{
    private const int DatesShown = 4;
    private const int MostCounted = 2_000;

    public static void MapChanges(this RouteGroupBuilder api)
    {
        api.MapPost("/events/{id:guid}/changes/preview", Preview);
        api.MapPost("/events/{id:guid}/changes", Make);
        api.MapPost("/acts/{actId:guid}/undo", Undo);
    }

    private static async Task<Results<Ok<ChangePreview>, ProblemHttpResult>> Preview(Guid id, ChangeRequest request, EventDesk desk)
    {
        var found = await desk.FindForChangeAsync(id);
        if (found.Stored.Version != request.Version)
            return Problems.Of(Problem.ChangedMeanwhile, current: ShowNow(desk, found, request));
        var change = await ReadAsync(found, request, desk);
        var edit = new SeriesEdit(found.Event, change, found.School);
        ChangeScope[] scopes = edit.HasChoice ? [ChangeScope.This, ChangeScope.Later, ChangeScope.Every] : [ChangeScope.Every];
        var seen = EventDates.Find(found.Event, change.SeenFrom, found.School);
        var differences = seen is { } date && change.Typed is { } typed
            ? EventDifference.Between(date, found.Event.Series, typed, found.Words).ToList()
            : [];
        if (request.Event is { } form && form.CalendarId != found.Event.HomeCalendarId)
            differences.Add(new EventDifference("calendarId", found.Calendar.Name, (await desk.CalendarForAsync(form.CalendarId)).Name));
        return TypedResults.Ok(new ChangePreview(
            seen?.Title ?? found.Event.Content.Title,
            seen is { } shown ? found.Words.Say(shown.Timing) : found.Words.Say(found.Event.Series),
            differences,
            edit.HasChoice,
            [.. scopes.Select(scope => Foresee(found, edit, change, request, scope))]));
    }

    private static ScopeBody Foresee(OnDesk found, SeriesEdit edit, Change change, ChangeRequest request, ChangeScope scope)
    {
        try
        {
            if (scope == ChangeScope.This && request.Event is { } form && form.CalendarId != found.Event.HomeCalendarId)
                throw new RuleException("scope", "One date cannot be on another calendar than its series.");
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
                    OccurrenceTimes.Name(lost.RecurrenceId, found.Event.Series.Timing.AllDay), Say(found, lost)))]);
        }
        catch (RuleException refused)
        {
            return new ScopeBody(scope, refused.Message, 0, [], [], [], []);
        }
    }

    /// <summary>"Tuesday 1 December 2026: cancelled".</summary>
    private static string Say(OnDesk found, EventException exception) =>
        $"{found.Words.Day(exception.RecurrenceId.Date, withWeekday: true)}: {EventDifference.Say(exception, found.Event.Series.Timing, found.Words)}";

    /// <summary>The dates that a scope is about: as they become, or as they were where they go.</summary>
    private static IEnumerable<EventDate> Concerned(OnDesk found, Change change, ChangeOutcome outcome, ChangeScope scope)
    {
        var goes = change.Act is ChangeAct.Remove;
        var happening = goes || outcome.IsRemoved ? found.Event : outcome.Successor ?? outcome.Event;
        if (scope == ChangeScope.This)
            return EventDates.Find(happening, change.SeenFrom, found.School) is { } one ? [one] : [];
        var dates = EventDates.All(happening, found.School);
        return scope == ChangeScope.Later && outcome.Successor is null ? dates.Where(date => date.Occurrence.RecurrenceId >= change.SeenFrom) : dates;
    }

    private static async Task<Results<Ok<ChangeResponse>, ProblemHttpResult>> Make(Guid id, ChangeRequest request, EventDesk desk)
    {
        var found = await desk.FindForChangeAsync(id);
        try
        {
            if (found.Stored.Version != request.Version)
                throw new ChangedMeanwhileException();
            var change = await ReadAsync(found, request, desk);
            var edit = new SeriesEdit(found.Event, change, found.School);
            var scope = request.Scope ?? (edit.HasChoice ? throw new RuleException("scope", "Say whether the change is for this date, for this and later ones, or for every date.") : ChangeScope.Every);
            var keep = (request.Keep ?? []).Select(name => OccurrenceTimes.ReadName(name, "keep")).ToHashSet();
            var writes = Writes(found, request, edit.Apply(scope, keep), scope, found.Stored.IsRemoved && request.Act == ChangeAct.Restore);
            if (writes.Length == 0)
                return TypedResults.Ok(new ChangeResponse(Guid.Empty, id, request.Version, found.Event.Content.Title, DayOf(change, found), found.Stored.IsRemoved));
            var done = await desk.WriteAsync(writes);
            var shown = done.Events[^1];
            var day = request.Move?.Date ?? request.Event?.Date ?? DayOf(change, found);
            return TypedResults.Ok(new ChangeResponse(done.ActId, shown.Id, shown.Version, writes[^1].Event.Content.Title, day, writes[0].IsRemoved));
        }
        catch (ChangedMeanwhileException)
        {
            return Problems.Of(Problem.ChangedMeanwhile, current: ShowNow(desk, await desk.FindForChangeAsync(id), request));
        }
    }

    private static LocalDate DayOf(Change change, OnDesk found) =>
        EventDates.Find(found.Event, change.SeenFrom, found.School)?.Occurrence.LocalStart.Date ?? change.SeenFrom.Date;

    private static EventWrite[] Writes(OnDesk found, ChangeRequest request, ChangeOutcome outcome, ChangeScope scope, bool comesBack)
    {
        var act = (request.Act, outcome.IsRemoved) switch
        {
            (ChangeAct.Cancel, _) => EventAct.Cancelled,
            (ChangeAct.Remove, _) => EventAct.Removed,
            (ChangeAct.Restore, _) => EventAct.Restored,
            _ => EventAct.Changed,
        };
        var home = request.Event?.CalendarId ?? found.Event.HomeCalendarId;
        if (scope == ChangeScope.This && home != found.Event.HomeCalendarId)
            throw new RuleException("scope", "One date cannot be on another calendar than its series.");
        var changed = outcome.Successor is null ? outcome.Event with { HomeCalendarId = home } : outcome.Event;
        var isRemoved = outcome.IsRemoved || (found.Stored.IsRemoved && !comesBack);
        var nothing = outcome.Successor is null && isRemoved == found.Stored.IsRemoved && changed.HomeCalendarId == found.Event.HomeCalendarId
            && changed.Content.Equals(found.Event.Content) && changed.State == found.Event.State && changed.Exceptions.SequenceEqual(found.Event.Exceptions);
        if (nothing)
            return [];
        var save = EventDesk.Saving(found, changed, act, isRemoved);
        return outcome.Successor is { } successor
            ? [save with { Act = EventAct.Changed }, new EventWrite(successor with { HomeCalendarId = home }, null, act == EventAct.Changed ? EventAct.Made : act)]
            : [save];
    }

    private static async Task<Change> ReadAsync(OnDesk found, ChangeRequest request, EventDesk desk)
    {
        var seenFrom = OccurrenceTimes.ReadName(request.RecurrenceId, "recurrenceId");
        if (request.Act != ChangeAct.Edit)
            return new Change(request.Act, seenFrom);
        if (request.Event is { } form)
            return new Change(ChangeAct.Edit, seenFrom, await desk.CheckAsync(form));
        if (request.Move is not { } move)
            throw new RuleException("event", "What to change is missing: send the form, or where the date was moved to.");
        var date = EventDates.Find(found.Event, seenFrom, found.School) ?? throw new NotFoundException("date");
        var start = move.Date + (found.Event.Series.Timing.AllDay ? LocalTime.Midnight : move.From ?? date.Occurrence.LocalStart.TimeOfDay);
        return new Change(ChangeAct.Edit, seenFrom, found.Event.Content with
        {
            Title = date.Title,
            Place = date.Place,
            Description = date.Description,
            Series = found.Event.Series with { Timing = date.Timing.StartingAt(start) },
        });
    }

    private static EventResponse ShowNow(EventDesk desk, OnDesk found, ChangeRequest request)
    {
        var stillThere = EventDates.Find(found.Event, OccurrenceTimes.ReadName(request.RecurrenceId, "recurrenceId"), found.School) is not null;
        return desk.Show(found, stillThere ? request.RecurrenceId : null);
    }

    private static async Task<Results<Ok<ActResponse>, ProblemHttpResult>> Undo(Guid actId, Access access, RevisionStore revisions, EventDesk desk)
    {
        var viewer = await access.ViewerAsync();
        var writes = await revisions.UndoingAsync(viewer.OrganisationId, actId);
        if (writes.Count == 0)
            throw new NotFoundException("act");
        foreach (var write in writes)
        {
            await desk.FindForChangeAsync(write.Event.Id);
            EventDesk.RequireEdit(viewer, write.Event.HomeCalendarId);
        }
        var done = await desk.WriteAsync([.. writes]);
        return TypedResults.Ok(new ActResponse(done.ActId, writes.Count));
    }
}
