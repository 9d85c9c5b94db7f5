using NodaTime;
using Valtro.Application.Accounts;
using Valtro.Core;
using Valtro.Core.Acts;
using Valtro.Core.Disclosure;
using Valtro.Core.Events;
using Valtro.Core.Recurrence;
using Valtro.Core.SignOff;
using Valtro.Store;

namespace Valtro.Application.Events;

/// <summary>A change worked out: what would be done in its scope.</summary>
public sealed record Planned(Change Change, ChangeScope Scope, Act Act);

/// <summary>Somebody else saved first.</summary>
/// <param name="Current">The event as it is by now.</param>
/// <param name="Differing">What both changed; null where it cannot be said.</param>
public sealed record EventConflict(EventResponse Current, IReadOnlyList<MergeField>? Differing);

/// <summary>How events come and change, whoever does it: at once by editors, by way of sign-off by contributors, and as an editor approves
/// it.</summary>
public sealed class EventChanges(Access access, EventDesk desk, RevisionStore revisions, Commits commits)
{
    /// <summary>Makes an event: live, waiting for sign-off, or a draft.</summary>
    public async Task<(Guid Id, Guid ActId, IReadOnlyList<string> AsksFor)> AddAsync(Viewer viewer, EventForm request)
    {
        var content = await desk.CheckAsync(request);
        var house = await access.HouseAsync();
        var act = new ActPlanner(viewer, house.Calendars, house.School).Making(content, Where(request));
        var done = await commits.CommitAsync(act);
        return (done!.Events[0].Id, done.ActId, [.. act.Asked.Select(id => house.Calendars[id].Name)]);
    }

    /// <summary>So many are said in one line at most.</summary>
    private const int MostTogether = 20;

    /// <summary>Makes the events of some forms in one act.</summary>
    /// <returns>And whether they wait for sign-off.</returns>
    public async Task<(ActDone Done, bool Waits)> AddTogetherAsync(Viewer viewer, IReadOnlyList<EventForm> forms)
    {
        if (forms.Count is 0 or > MostTogether)
            throw new RuleException("events", "event.together", ("count", forms.Count), ("most", MostTogether));
        var house = await access.HouseAsync();
        var planner = new ActPlanner(viewer, house.Calendars, house.School);
        var acts = new List<Act>();
        foreach (var form in forms)
            acts.Add(planner.Making(await desk.CheckAsync(form), Where(form)));
        var act = Act.All(acts);
        return ((await commits.CommitAsync(act))!, act.Writes[0].Event.State == EventState.Waiting);
    }

    /// <summary>Makes several events at once, each as <see cref="AddAsync"/> would.</summary>
    public async Task<ActDone> AddSeveralAsync(Viewer viewer, IReadOnlyList<(Guid CalendarId, EventContent Content)> events) =>
        (await commits.CommitAsync(await PlanSeveralAsync(viewer, events)))!;

    /// <summary>Who would see how many of them.</summary>
    public async Task<IReadOnlyList<string>> WhoWillSeeAsync(
        Viewer viewer, IReadOnlyList<(Guid CalendarId, EventContent Content)> events) =>
        events.Count == 0
            ? []
            : ForeseenBody.WhoWillSee(await PlanSeveralAsync(viewer, events), (await access.HouseAsync()).Disclosures);

    private async Task<Act> PlanSeveralAsync(Viewer viewer, IReadOnlyList<(Guid CalendarId, EventContent Content)> events)
    {
        if (events.Any(one => !viewer.May(CalendarAction.Edit, one.CalendarId)))
            throw new RuleException("rows", "event.someWaitForSignOff");
        var house = await access.HouseAsync();
        var planner = new ActPlanner(viewer, house.Calendars, house.School);
        return Act.All([.. events.Select(one => planner.Making(one.Content, new Standing(one.CalendarId, null, IsDraft: false)))]);
    }

    private static Standing Where(EventForm form) => new(form.CalendarId, form.Placements, form.IsDraft);

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
                    new EventSeen(
                        typed, typed.Series.Timing, Name(form.CalendarId), found.NamesOf(form.Placements ?? found.Event.Placements)),
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
            return new EventSeen(date.Content, date.Timing, Name(shown.HomeCalendarId), found.NamesOf(shown.Placements));
        }

        string Name(Guid id) => found.IsSeen(id) ? found.Calendars[id].Name : "";
    }

    /// <summary>Works a change out in its scope.</summary>
    /// <param name="onBehalfOf">Who handed it in, where somebody else approves it.</param>
    public async Task<Planned> PlanAsync(OnDesk found, ChangeRequest request, Guid? onBehalfOf = null)
    {
        var change = await ReadAsync(found, request, onBehalfOf);
        var edit = new SeriesEdit(found.Event, change, found.School);
        var scope = request.Scope ?? (edit.HasChoice ? throw new RuleException("scope", "scope.notSaid") : ChangeScope.Every);
        var keep = (request.Keep ?? []).Select(name => DateName.Read(name, "keep")).ToHashSet();
        return new Planned(change, scope,
            found.Planner.Changing(found.Stored, change, scope, keep, WhereOf(request), found.About));
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
        return new Change(ChangeAct.Edit, seenFrom, date.Content with
        {
            Series = found.Event.Series with { Timing = (date.Content.IsDeadline ? move with { Minutes = null } : move).Of(date.Timing) },
        });
    }

    /// <summary>Where the event is to stand; null where nothing is said of that.</summary>
    public static Standing? WhereOf(ChangeRequest request) => request.Event is { } form ? Where(form) : null;

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
            differences.Add(new EventDifference("placements", found.NamesOf(found.Event.Placements), found.NamesOf(placed)));
        return differences;
    }

    private async Task<ChangeResponse> SaveAsync(OnDesk found, ChangeRequest request, Planned planned)
    {
        var act = planned.Act.And(found.Planner.Settling(SettledBy(found, request)));
        string[] asksFor = [.. act.Asked.Select(id => found.Calendars[id].Name)];
        var unchanged = new ChangeResponse(
            Guid.Empty, found.Event.Id, request.Version, found.Event.Content.Title,
            request.Move?.Date ?? request.Event?.Date ?? DayOf(planned.Change, found), found.Stored.IsRemoved, false, asksFor);
        if (act.IsNothing || await commits.CommitAsync(act) is not { } done)
            return unchanged;
        var (first, last, shown) = (act.Writes[0], act.Writes[^1], done.Events[^1]);
        return unchanged with
        {
            ActId = done.ActId,
            EventId = shown.Id,
            Version = shown.Version,
            Title = last.Event.Content.Title,
            IsRemoved = first.IsRemoved,
            Waits = first.Event.State == EventState.Waiting && !first.IsRemoved,
        };
    }

    /// <summary>What was handed in, and opened from the queue to be saved.</summary>
    private static Submission? SettledBy(OnDesk found, ChangeRequest request) =>
        found.About.FirstOrDefault(one => one.Id == request.SubmissionId);

    private async Task<ChangeResponse> HandInAsync(OnDesk found, ChangeRequest request, Planned planned)
    {
        var response = new ChangeResponse(
            Guid.Empty, found.Event.Id, request.Version, found.Event.Content.Title, DayOf(planned.Change, found), false, false, []);
        if (planned.Act.Writes.Count == 0 && planned.Act.HandsIn.Count == 0)
            return response;
        await commits.CommitAsync(found.Planner.Settling(SettledBy(found, request)).And(new Act
        {
            HandsIn =
            [
                new NewSubmission(SubmissionKind.Change, found.Event.Id, found.Event.HomeCalendarId, found.Event.Content.Title,
                    request with { SubmissionId = null, Scope = planned.Scope }, desk.FormOf(found, request.RecurrenceId)),
            ],
        }));
        return response with { Waits = true };
    }

    private static LocalDate DayOf(Change change, OnDesk found) =>
        EventDates.Find(found.Event, change.SeenFrom, found.School)?.Occurrence.LocalStart.Date ?? change.SeenFrom.Date;
}
