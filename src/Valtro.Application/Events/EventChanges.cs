using NodaTime;
using Valtro.Application.Accounts;
using Valtro.Core;
using Valtro.Core.Disclosure;
using Valtro.Core.Events;
using Valtro.Core.Recurrence;
using Valtro.Core.Speaking;
using Valtro.Store;

namespace Valtro.Application.Events;

/// <summary>A change worked out: what would be written in its scope, and of whom something would be asked.</summary>
/// <param name="Asked">Calendars whose editors are asked whether the event may be shown there.</param>
public sealed record Planned(Change Change, ChangeScope Scope, IReadOnlyList<EventWrite> Writes, IReadOnlyList<Guid> Asked);

/// <summary>Somebody else saved first.</summary>
/// <param name="Current">The event as it is by now.</param>
/// <param name="Differing">What both changed; null where it cannot be said.</param>
public sealed record EventConflict(EventResponse Current, IReadOnlyList<MergeField>? Differing);

/// <summary>How events come and change, whoever does it: at once by editors, by way of sign-off by contributors, and as an editor approves
/// it.</summary>
public sealed class EventChanges(Access access, EventDesk desk, RevisionStore revisions, AccountStore accounts)
{
    private const int MostPlacements = 50;

    /// <summary>Makes an event: live, waiting for sign-off, or a draft.</summary>
    public async Task<(Guid Id, IReadOnlyList<string> AsksFor)> AddAsync(Viewer viewer, EventForm request)
    {
        var content = await desk.CheckAsync(request);
        var calendars = (await access.HouseAsync()).Calendars;
        var (placed, asked) = PlaceOn(viewer, calendars, null, request.CalendarId, request.Placements);
        var state = StateFor(request.IsDraft, viewer.May(CalendarAction.Edit, request.CalendarId));
        var submissions = new List<NewSubmission>();
        if (state == EventState.Waiting)
            submissions.Add(new NewSubmission(SubmissionKind.Event, Guid.Empty, request.CalendarId, content.Title));
        submissions.AddRange(asked.Select(id => new NewSubmission(SubmissionKind.Placement, Guid.Empty, id, content.Title)));
        var done = await desk.WriteAsync([EventDesk.Adding(request.CalendarId, content, state, placed)], submissions,
            notices: await NoticesAsync(viewer, calendars, submissions));
        return (done!.Events[0].Id, [.. asked.Select(id => calendars[id].Name)]);
    }

    /// <summary>Makes several events at once, each as <see cref="AddAsync"/> would.</summary>
    public async Task<ActDone> AddSeveralAsync(Viewer viewer, IReadOnlyList<(Guid CalendarId, EventContent Content)> events)
    {
        if (events.Any(one => !viewer.May(CalendarAction.Edit, one.CalendarId)))
            throw new RuleException("rows", "event.someWaitForSignOff");
        return (await desk.WriteAsync([.. events.Select(one => EventDesk.Adding(one.CalendarId, one.Content))]))!;
    }

    /// <summary>Makes a change, or hands it in.</summary>
    /// <exception cref="ChangedMeanwhileException">The event was saved since the person saw it.</exception>
    public async Task<ChangeResponse> MakeAsync(OnDesk found, ChangeRequest request)
    {
        if (found.Stored.Version != request.Version)
            throw new ChangedMeanwhileException();
        var planned = await PlanAsync(found, request);
        return found.ChangesAtOnce ? await SaveAsync(found, request, planned) : await HandInAsync(found, request, planned);
    }

    /// <summary>Somebody else saved first: what stands there now, and field by field what they say and what was typed.</summary>
    public async Task<EventConflict> ConflictAsync(OnDesk found, ChangeRequest request)
    {
        var seenFrom = DateName.Read(request.RecurrenceId, "recurrenceId");
        var isThere = EventDates.Find(found.Event, seenFrom, found.School) is not null;
        return new EventConflict(
            desk.Show(found, isThere ? request.RecurrenceId : null), isThere ? await DifferingAsync(found, request, seenFrom) : null);
    }

    /// <returns>Null where what was typed cannot stand as it is, or nobody knows any more what it began with.</returns>
    private async Task<IReadOnlyList<MergeField>?> DifferingAsync(OnDesk found, ChangeRequest request, LocalDateTime seenFrom)
    {
        if (request.Event is not { } form
            || await revisions.FindAsync(found.Viewer.OrganisationId, found.Event, request.Version) is not { } before)
            return null;
        try
        {
            var typed = await desk.CheckAsync(form, found);
            return EventMerge.Between(
                Seen(before.Event),
                    new EventSeen(typed, typed.Series.Timing, Name(form.CalendarId), Names(form.Placements ?? found.Event.Placements)),
                        Seen(found.Event), found.Words);
        }
        catch (Exception unfit) when (unfit is RuleException or ForbiddenException)
        {
            return null;
        }

        EventSeen Seen(CalendarEvent shown)
        {
            var date = EventDates.Find(shown, seenFrom, found.School)
                ?? new EventDate(shown, shown.Series.Timing.Occurrence(seenFrom), null);
            return new EventSeen(date.Content, date.Timing, Name(shown.HomeCalendarId), Names(shown.Placements));
        }

        bool IsSeen(Guid id) =>
            found.Calendars.TryGetValue(id, out var calendar) && found.Viewer.DetailOn(id, calendar.Disclosure) > Detail.Nothing;
        string Name(Guid id) => IsSeen(id) ? found.Calendars[id].Name : "";
        string Names(IEnumerable<Guid> ids) => string.Join(", ", ids.Where(IsSeen).Select(Name).Order(StringComparer.CurrentCulture));
    }

    /// <summary>Works a change out in its scope.</summary>
    /// <param name="onBehalfOf">Who handed it in, where somebody else approves it.</param>
    public async Task<Planned> PlanAsync(OnDesk found, ChangeRequest request, Guid? onBehalfOf = null)
    {
        var change = await ReadAsync(found, request, onBehalfOf);
        var edit = new SeriesEdit(found.Event, change, found.School);
        var scope = request.Scope ?? (edit.HasChoice ? throw new RuleException("scope", "scope.notSaid") : ChangeScope.Every);
        var keep = (request.Keep ?? []).Select(name => DateName.Read(name, "keep")).ToHashSet();
        var (placed, asked) = Placements(found, request);
        RequireWhole(found, request, scope, placed, asked);
        return new Planned(change, scope, Writes(found, request, edit.Apply(scope, keep), placed), asked);
    }

    /// <summary>What was typed or dragged, as a change seen from one date.</summary>
    public async Task<Change> ReadAsync(OnDesk found, ChangeRequest request, Guid? onBehalfOf = null)
    {
        var seenFrom = DateName.Read(request.RecurrenceId, "recurrenceId");
        if (request.Act == ChangeAct.Cancel && found.IsUnfinished)
            throw new RuleException("act", "event.notGoneOut");
        if (request.Act != ChangeAct.Edit)
            return new Change(request.Act, seenFrom);
        if (request.Event is { } form)
        {
            if (form.IsDraft && !found.IsUnfinished)
                throw new RuleException("isDraft", "event.goneOutAlready");
            return new Change(ChangeAct.Edit, seenFrom, await desk.CheckAsync(form, found, onBehalfOf));
        }
        if (request.Move is not { } move)
            throw new RuleException("event", "event.changeMissing");
        var date = EventDates.Find(found.Event, seenFrom, found.School) ?? throw new NotFoundException("date");
        var start = move.Date + (found.Event.Series.Timing.AllDay ? LocalTime.Midnight : move.From ?? date.Occurrence.LocalStart.TimeOfDay);
        return new Change(ChangeAct.Edit, seenFrom, date.Content with
        {
            Series = found.Event.Series with { Timing = date.Timing.MovedTo(start) },
        });
    }

    /// <summary>Where the event is to be shown, and whose leave that needs.</summary>
    public static (IReadOnlyList<Guid> Placed, IReadOnlyList<Guid> Asked) Placements(OnDesk found, ChangeRequest request) =>
        PlaceOn(
            found.Viewer, found.Calendars, found.Event, request.Event?.CalendarId ?? found.Event.HomeCalendarId, request.Event?.Placements);

    /// <summary>What the form says differently from what stands there now.</summary>
    public static IReadOnlyList<EventDifference> DifferencesOf(
        OnDesk found, Change change, ChangeRequest request, IReadOnlyList<Guid> placed)
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
        string.Join(", ",
            calendars.Where(id => found.Calendars.TryGetValue(id, out var calendar)
                && found.Viewer.DetailOn(id, calendar.Disclosure) > Detail.Nothing).Select(id => found.Calendars[id].Name).Order());

    /// <summary>The whole event belongs to calendars, not one of its dates.</summary>
    public static void RequireWhole(
        OnDesk found, ChangeRequest request, ChangeScope scope, IReadOnlyList<Guid> placed, IReadOnlyList<Guid> asked)
    {
        if (scope != ChangeScope.This || !found.Event.Series.Recurs)
            return;
        if (request.Event is { } form && form.CalendarId != found.Event.HomeCalendarId)
            throw new RuleException("scope", "scope.calendarOfOneDate");
        if (asked.Count > 0 || !placed.Order().SequenceEqual(found.Event.Placements.Order()))
            throw new RuleException("scope", "scope.placementsOfOneDate");
    }

    private static (IReadOnlyList<Guid> Placed, IReadOnlyList<Guid> Asked) PlaceOn(
        Viewer viewer, IReadOnlyDictionary<Guid, Calendar> calendars, CalendarEvent? before, Guid home, IReadOnlyList<Guid>? wanted)
    {
        var was = before?.Placements ?? [];
        if (wanted is null)
            return ([.. was.Where(id => id != home)], []);
        bool IsSeen(Guid id) => calendars.TryGetValue(id, out var calendar) && viewer.DetailOn(id, calendar.Disclosure) > Detail.Nothing;
        var news = wanted.Distinct().Except(was).Where(id => id != home).ToArray();
        foreach (var id in news)
        {
            // Its former home may keep it, whoever sees that.
            if (!IsSeen(id))
                throw new RuleException("placements", "event.placementGone");
            if (viewer.Archived.Contains(id))
                throw new RuleException("placements", "calendar.isArchivedLeaveOut", ("name", calendars[id].Name));
        }
        // What the person cannot see of it stays as it is.
        Guid[] placed = [.. was.Where(id => id != home && (wanted.Contains(id) || !IsSeen(id))),
            .. news.Where(id => viewer.May(CalendarAction.Edit, id))];
        return placed.Length + news.Length <= MostPlacements
            ? ([.. placed.Distinct().Order()], [.. news.Where(id => !viewer.May(CalendarAction.Edit, id))])
            : throw new RuleException("placements", "event.tooManyPlacements", ("most", MostPlacements));
    }

    private static EventState StateFor(bool isDraft, bool mayEdit) => (isDraft, mayEdit) switch
    {
        (true, _) => EventState.Draft,
        (false, true) => EventState.Live,
        _ => EventState.Waiting,
    };

    private static EventWrite[] Writes(OnDesk found, ChangeRequest request, ChangeOutcome outcome, IReadOnlyList<Guid> placed)
    {
        var act = (request.Act, outcome.IsRemoved) switch
        {
            (ChangeAct.Cancel, _) => EventAct.Cancelled,
            (ChangeAct.Remove, _) => EventAct.Removed,
            (ChangeAct.Restore, _) => EventAct.Restored,
            _ => EventAct.Changed,
        };
        var home = request.Event?.CalendarId ?? found.Event.HomeCalendarId;
        var state = request.Event is { } form && found.IsUnfinished
            ? StateFor(form.IsDraft, found.Viewer.May(CalendarAction.Edit, home))
            : outcome.Event.State;
        var changed = (outcome.Successor is null
            ? outcome.Event with { HomeCalendarId = home, Placements = placed }
            : outcome.Event) with
        { State = state };
        var isRemoved = outcome.IsRemoved || (found.Stored.IsRemoved && request.Act != ChangeAct.Restore);
        var nothing = outcome.Successor is null
            && isRemoved == found.Stored.IsRemoved
            && changed.HomeCalendarId == found.Event.HomeCalendarId
            && changed.Content.Equals(found.Event.Content)
                && changed.State == found.Event.State
                && changed.Exceptions.SequenceEqual(found.Event.Exceptions)
            && changed.Placements.Order().SequenceEqual(found.Event.Placements.Order());
        if (nothing)
            return [];
        var save = EventDesk.Saving(found, changed, act, isRemoved, outcome.Successor);
        return outcome.Successor is { } successor
            ? [save with { Act = EventAct.Changed },
                new EventWrite(
                    successor with { HomeCalendarId = home, Placements = placed }, null, act == EventAct.Changed ? EventAct.Made : act)]
            : [save];
    }

    private async Task<ChangeResponse> SaveAsync(OnDesk found, ChangeRequest request, Planned planned)
    {
        var verdicts = new List<Verdict>();
        var added = new List<NewSubmission>();
        var news = new List<Notice>();
        if (planned.Writes.Count > 0 && found.IsUnfinished)
            await SettleNewEventAsync(found, planned.Writes[0], verdicts, added, news);
        if (request.SubmissionId is { } settled)
            await SettleAsync(found, settled, verdicts, news);
        added.AddRange(
            planned.Asked.Select(
                id => new NewSubmission(SubmissionKind.Placement, planned.Writes.Count > 0 ? planned.Writes[^1].Event.Id : found.Event.Id,
                    id, found.Event.Content.Title)));
        news.AddRange(await NoticesAsync(found.Viewer, found.Calendars, added));
        string[] asksFor = [.. planned.Asked.Select(id => found.Calendars[id].Name)];
        var day = request.Move?.Date ?? request.Event?.Date ?? DayOf(planned.Change, found);
        if (planned.Writes.Count == 0 && added.Count == 0 && verdicts.Count == 0)
            return new ChangeResponse(
                Guid.Empty, found.Event.Id, request.Version, found.Event.Content.Title, day, found.Stored.IsRemoved, false, asksFor);
        var done = await desk.WriteAsync(planned.Writes, added, verdicts, news);
        if (done is null)
            return new ChangeResponse(Guid.Empty, found.Event.Id, request.Version, found.Event.Content.Title, day, false, false, asksFor);
        var shown = done.Events[^1];
        var waits = planned.Writes[0].Event.State == EventState.Waiting && !planned.Writes[0].IsRemoved;
        return new ChangeResponse(
            done.ActId, shown.Id, shown.Version, planned.Writes[^1].Event.Content.Title, day, planned.Writes[0].IsRemoved, waits, asksFor);
    }

    /// <summary>What becomes of a new event's place in the queue when it is saved.</summary>
    private async Task SettleNewEventAsync(
        OnDesk found, EventWrite write, List<Verdict> verdicts, List<NewSubmission> added, List<Notice> news)
    {
        var open = found.About.FirstOrDefault(one => one is { Kind: SubmissionKind.Event, State: SubmissionState.Open });
        if (open is not null && !write.IsRemoved && write.Event.State == EventState.Live)
        {
            verdicts.Add(Approving(found, open));
            news.AddRange(await ToProposerAsync(found.Viewer, open, found.Calendars, approved: true, ""));
        }
        else if (open is not null && (write.IsRemoved || write.Event.State == EventState.Draft))
        {
            verdicts.Add(new Verdict(open.Id, SubmissionState.Withdrawn, "", null));
        }
        else if (open is null && !write.IsRemoved && write.Event.State == EventState.Waiting)
        {
            added.Add(new NewSubmission(SubmissionKind.Event, write.Event.Id, write.Event.HomeCalendarId, write.Event.Content.Title));
        }
    }

    /// <summary>A change that was opened from the queue, and saved: approved by who may, or replaced by who handed it in.</summary>
    private async Task SettleAsync(OnDesk found, Guid submissionId, List<Verdict> verdicts, List<Notice> news)
    {
        if (found.About.FirstOrDefault(one => one.Id == submissionId && one.Kind == SubmissionKind.Change) is not { } submission)
            return;
        if (submission.State == SubmissionState.Open && found.Viewer.May(CalendarAction.Approve, submission.CalendarId))
        {
            verdicts.Add(Approving(found, submission));
            news.AddRange(await ToProposerAsync(found.Viewer, submission, found.Calendars, approved: true, ""));
        }
        else if (submission.ProposerId == found.Viewer.AccountId)
        {
            verdicts.Add(new Verdict(submission.Id, SubmissionState.Withdrawn, "", null));
        }
    }

    /// <summary>The decision to let it go out, with its line in the audit list.</summary>
    public Verdict Approving(OnDesk found, Submission submission) => new(submission.Id, SubmissionState.Approved, "", new AuditLine(
        found.Viewer.AccountId, AuditAct.Approved, submission.Title,
            Saying.Of("text.plain", ("text", $"{submission.Proposer}, {found.Calendars[submission.CalendarId].Name}")), desk.Now));

    private async Task<ChangeResponse> HandInAsync(OnDesk found, ChangeRequest request, Planned planned)
    {
        if (planned.Writes.Count == 0 && planned.Asked.Count == 0)
            return new ChangeResponse(
                Guid.Empty, found.Event.Id, request.Version, found.Event.Content.Title, DayOf(planned.Change, found), false, false, []);
        var verdicts = new List<Verdict>();
        if (request.SubmissionId is { } settled)
            await SettleAsync(found, settled, verdicts, []);
        NewSubmission[] added =
        [
            new(SubmissionKind.Change, found.Event.Id, found.Event.HomeCalendarId, found.Event.Content.Title,
                request with { SubmissionId = null, Scope = planned.Scope }, desk.FormOf(found, request.RecurrenceId)),
        ];
        await desk.WriteAsync([], added, verdicts, await NoticesAsync(found.Viewer, found.Calendars, added));
        return new ChangeResponse(
            Guid.Empty, found.Event.Id, request.Version, found.Event.Content.Title, DayOf(planned.Change, found), false, true, []);
    }

    /// <summary>Who decides hears of what was handed in.</summary>
    public async Task<IReadOnlyList<Notice>> NoticesAsync(
        Viewer viewer, IReadOnlyDictionary<Guid, Calendar> calendars, IReadOnlyList<NewSubmission> added)
    {
        if (added.Count == 0)
            return [];
        var name = (await accounts.FindAsync(viewer.AccountId))!.Name;
        var notices = new List<Notice>();
        foreach (var submission in added)
        {
            var where = calendars[submission.CalendarId].Name;
            var saying = Saying.Of(
                submission.Kind == SubmissionKind.Placement ? "news.asksToShow" : "news.handsIn", ("who", name),
                    ("title", submission.Title), ("where", where));
            notices.AddRange((await accounts.DecidersAsync(viewer.OrganisationId, submission.CalendarId))
                .Where(decider => decider != viewer.AccountId).Select(decider => new Notice(decider, saying, "/sign-off")));
        }
        return notices;
    }

    /// <summary>Who handed it in hears of the decision.</summary>
    public async Task<IReadOnlyList<Notice>> ToProposerAsync(
        Viewer viewer, Submission submission, IReadOnlyDictionary<Guid, Calendar> calendars, bool approved, string reason)
    {
        if (submission.ProposerId == viewer.AccountId)
            return [];
        var name = (await accounts.FindAsync(viewer.AccountId))!.Name;
        object where = calendars.TryGetValue(submission.CalendarId, out var calendar) ? calendar.Name : Saying.Of("news.itsCalendar");
        var saying = Saying.Of(
            approved ? "news.letGoOut" : "news.sentBack", ("who", name), ("title", submission.Title), ("where", where), ("reason", reason));
        return [new Notice(submission.ProposerId, saying, "/sign-off?mine=1")];
    }

    private static LocalDate DayOf(Change change, OnDesk found) =>
        EventDates.Find(found.Event, change.SeenFrom, found.School)?.Occurrence.LocalStart.Date ?? change.SeenFrom.Date;
}
