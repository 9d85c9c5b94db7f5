using NodaTime;
using Valtro.Core.Calendars;
using Valtro.Core.Disclosure;
using Valtro.Core.Events;
using Valtro.Core.Intake;
using Valtro.Core.SignOff;
using Valtro.Core.YearPlans;

namespace Valtro.Core.Acts;

/// <summary>Where an event is to stand.</summary>
/// <param name="Home">Its calendar.</param>
/// <param name="Placements">Further calendars; null where they stay as they are.</param>
/// <param name="IsDraft">It stays a draft, where it is not out yet.</param>
public sealed record Standing(Guid Home, IReadOnlyList<Guid>? Placements, bool IsDraft);

/// <summary>Plans every change of events, purely: what is previewed and what is committed is the same act.</summary>
/// <remarks>Who may do it at all is asked before; here it only decides what goes out at once and what waits.</remarks>
/// <param name="calendars">All of the organisation that are in use.</param>
public sealed class ActPlanner(Viewer viewer, IReadOnlyDictionary<Guid, Calendar> calendars, SchoolCalendar school)
{
    private const int MostPlacements = 50;

    /// <summary>A new event: live, waiting for sign-off, or a draft.</summary>
    /// <exception cref="RuleException">It cannot stand where it is to.</exception>
    public Act Making(EventContent content, Standing where)
    {
        RequireOurs(where.Home, "calendarId");
        var (placed, asked) = Placements(null, where.Home, where.Placements);
        var state = StateFor(where.IsDraft, where.Home);
        var made = new CalendarEvent(Guid.Empty, where.Home, default, content, state, default) { Placements = placed };
        return new Act
        {
            Writes = [EventWrite.Making(made)],
            HandsIn =
            [
                .. state == EventState.Waiting ? [HandingIn(SubmissionKind.Event, made, where.Home)] : Array.Empty<NewSubmission>(),
                .. asked.Select(id => HandingIn(SubmissionKind.Placement, made, id)),
            ],
        };
    }

    /// <summary>An event as it comes from outside: a new one, or one that is here already, as it is to be from now on.</summary>
    public Act Bringing(StoredEvent? before, CalendarEvent after) => before is null
        ? Act.Writing(EventWrite.Making(after))
        : Act.Writing(EventWrite.Saving(
            before, after, before.IsRemoved ? EventAct.Restored : EventAct.Changed, isRemoved: false, school));

    /// <summary>The same from a followed source, by itself.</summary>
    public Act Fetching(StoredEvent? before, CalendarEvent after) => before is null
        ? Act.Writing(EventWrite.Making(after, EventAct.Fetched))
        : Act.Writing(EventWrite.Saving(before, after, EventAct.Fetched, isRemoved: false, school));

    /// <summary>Its source does not say it any more.</summary>
    public Act Losing(StoredEvent before) =>
        Act.Writing(EventWrite.Saving(before, before.Event, EventAct.Fetched, isRemoved: true, school));

    /// <summary>The source is followed no more, and what it said is not wanted either.</summary>
    public Act Dropping(StoredEvent before) => Act.Writing(EventWrite.Saving(
        before, before.Event with { Source = null }, EventAct.Removed, isRemoved: true, school));

    /// <summary>What a source says is ours from now on.</summary>
    public Act TakingOver(StoredEvent before) => Act.Writing(EventWrite.Saving(
        before, before.Event with { Source = null }, EventAct.Changed, before.IsRemoved, school));

    /// <summary>A change in one of its scopes.</summary>
    /// <param name="about">What is open about the event.</param>
    /// <exception cref="RuleException">It is not possible in that scope, or the event cannot stand where it is to.</exception>
    public Act Changing(
        StoredEvent before, Change change, ChangeScope scope, IReadOnlySet<LocalDateTime> keep, Standing? where,
        IReadOnlyList<Submission> about)
    {
        var (placed, asked) = RequireWhole(before.Event, scope, where);
        var outcome = new SeriesEdit(before.Event, change, school).Apply(scope, keep);
        var writes = Writes(before, change.Act, outcome, where, placed);
        var id = writes is [.., var last] ? last.Event.Id : before.Event.Id;
        return Followed.Checked(new Act
        {
            Writes = writes,
            HandsIn =
            [
                .. asked.Select(calendar => new NewSubmission(SubmissionKind.Placement, id, calendar, before.Event.Content.Title)
                {
                    Write = Math.Max(0, writes.Length - 1),
                }),
            ],
        }.And(writes is [var first, ..] && before.IsUnfinished ? SettlingNew(first, about) : Act.Nothing));
    }

    /// <summary>The whole event belongs to calendars, not one of its dates.</summary>
    /// <returns>Where it will be shown, and whose leave that needs.</returns>
    /// <exception cref="RuleException">One date alone cannot stand elsewhere.</exception>
    public (IReadOnlyList<Guid> Placed, IReadOnlyList<Guid> Asked) RequireWhole(CalendarEvent before, ChangeScope scope, Standing? where)
    {
        var (placed, asked) = PlacementsOf(before, where);
        if (scope != ChangeScope.This || !before.Series.Recurs)
            return (placed, asked);
        if (where is not null && where.Home != before.HomeCalendarId)
            throw new RuleException("scope", "scope.calendarOfOneDate");
        return asked.Count > 0 || !placed.Order().SequenceEqual(before.Placements.Order())
            ? throw new RuleException("scope", "scope.placementsOfOneDate")
            : (placed, asked);
    }

    /// <summary>Where the event would be shown, and whose leave that needs.</summary>
    public (IReadOnlyList<Guid> Placed, IReadOnlyList<Guid> Asked) PlacementsOf(CalendarEvent before, Standing? where) =>
        Placements(before, where?.Home ?? before.HomeCalendarId, where?.Placements);

    /// <summary>What was handed in goes out.</summary>
    public Act LettingOut(StoredEvent before, Submission submission) =>
        Approving(submission).And(Act.Writing(submission.Kind == SubmissionKind.Event
            ? Saving(before, before.Event with { State = EventState.Live })
            : Saving(before, before.Event with
            {
                Placements = [.. before.Event.Placements.Append(submission.CalendarId).Distinct().Order()],
            })));

    /// <summary>A new event that is not let out is a draft of its maker again.</summary>
    public Act Holding(StoredEvent? before, Submission submission, SubmissionState state, string reason = "") =>
        new Act { Decides = [new Verdict(submission, state, reason)] }.And(
            submission.Kind == SubmissionKind.Event && before is { Event.State: EventState.Waiting }
                ? Act.Writing(Saving(before, before.Event with { State = EventState.Draft }))
                : Act.Nothing);

    public static Act Approving(Submission submission) => new() { Decides = [new Verdict(submission, SubmissionState.Approved)] };

    /// <summary>A change that was opened from the queue, and saved: approved by who may, or replaced by who handed it in.</summary>
    public Act Settling(Submission? submission)
    {
        if (submission is not { Kind: SubmissionKind.Change })
            return Act.Nothing;
        return submission.State == SubmissionState.Open && viewer.May(CalendarAction.Approve, submission.CalendarId)
            ? Approving(submission)
            : submission.ProposerId == viewer.AccountId
            ? new Act { Decides = [new Verdict(submission, SubmissionState.Withdrawn)] }
            : Act.Nothing;
    }

    /// <summary>It is not shown on a calendar any more on which it was placed.</summary>
    public Act TakingOff(StoredEvent before, Guid calendarId) => Act.Writing(
        Saving(before, before.Event with { Placements = [.. before.Event.Placements.Where(one => one != calendarId)] }));

    /// <summary>As an earlier version had it. What was placed elsewhere since, or is gone there, was settled with the editors of those
    /// calendars.</summary>
    public Act PuttingBack(StoredEvent before, CalendarEvent version) => Followed.Checked(Act.Writing(EventWrite.Saving(before, version with
    {
        Placements = [.. before.Event.Placements.Where(one => one != version.HomeCalendarId)],
        State = before.IsUnfinished ? before.Event.State : version.State,
        Source = before.Event.Source,
    }, EventAct.Restored, isRemoved: false, school)));

    /// <summary>Out of the bin. What waited when it was removed was withdrawn with it: it comes back as a draft.</summary>
    public Act TakingOut(StoredEvent before) => Act.Writing(EventWrite.Saving(
        before, before.Event.State == EventState.Waiting ? before.Event with { State = EventState.Draft } : before.Event,
        EventAct.Restored, isRemoved: false, school));

    /// <summary>Events with other values in place of some, those of single dates too.</summary>
    /// <param name="change">Gets each value, and gives it back where it stays.</param>
    public static Act Replacing(IReadOnlyList<StoredEvent> events, Func<object, object> change) => Act.Writing(
        [.. events.Select(before => EventWrite.Saving(
            before, before.Event.Changing(change), EventAct.Changed, before.IsRemoved, SchoolCalendar.Empty))]);

    /// <summary>All that is shown on one calendar is shown on another in its place.</summary>
    public static Act Moving(IReadOnlyList<StoredEvent> events, Guid from, Guid into) => Act.Writing([.. events.Select(before =>
    {
        var home = before.Event.HomeCalendarId == from ? into : before.Event.HomeCalendarId;
        var placements = before.Event.Placements.Select(id => id == from ? into : id).Where(id => id != home).Distinct().Order();
        return EventWrite.Saving(before, before.Event with { HomeCalendarId = home, Placements = [.. placements] }, EventAct.Changed,
            before.IsRemoved, SchoolCalendar.Empty);
    })]);

    /// <summary>Each event of an act as it was before it.</summary>
    /// <param name="events">Its events as they are, each with the version that it gave them, and as they were before; null where it made
    /// them.</param>
    /// <returns>Nothing when there is no such act. Dates go back to where they were; those of what was split off, to what they were split
    /// from.</returns>
    /// <exception cref="ChangedMeanwhileException">One of the events was saved again since.</exception>
    /// <exception cref="RuleException">A source said so: what it says is not taken back here.</exception>
    public static Act Undoing(
        IReadOnlyList<(StoredEvent Now, int Version, Revision? Before)> events, SchoolCalendar school)
    {
        var writes = new List<EventWrite>();
        foreach (var (now, version, before) in events)
        {
            if (now.Version != version)
                throw new ChangedMeanwhileException();
            if (before is null && now.Event.Source is not null)
                throw new RuleException("act", "event.isFollowed");
            if (before is not null)
            {
                writes.Add(EventWrite.Saving(now, before.Event, EventAct.Undone, before.IsRemoved, school));
                continue;
            }
            var from = writes.FindIndex(write => write.Event.Uid == now.Event.Continues);
            var back = from - writes.Count;
            var (whole, ended) = from < 0 ? (null, null) : (writes[from].Event, writes[from].Before!.Event);
            writes.Add(EventWrite.Saving(now, now.Event, EventAct.Undone, isRemoved: true, school) with
            {
                Follows = whole is null
                    ? null
                    : date => Following.Back(now.Event, ended!, whole, date, school) is { } place ? (back, place) : null,
            });
        }
        return Followed.Checked(Act.Writing(writes));
    }

    private EventWrite Saving(StoredEvent before, CalendarEvent after) =>
        EventWrite.Saving(before, after, EventAct.Changed, before.IsRemoved, school);

    private static NewSubmission HandingIn(SubmissionKind kind, CalendarEvent about, Guid calendar) =>
        new(kind, about.Id, calendar, about.Content.Title);

    /// <summary>What becomes of a new event's place in the queue when it is saved.</summary>
    private static Act SettlingNew(EventWrite write, IReadOnlyList<Submission> about)
    {
        var open = about.FirstOrDefault(one => one is { Kind: SubmissionKind.Event, State: SubmissionState.Open });
        return (open, write.IsRemoved, write.Event.State) switch
        {
            ({ } one, false, EventState.Live) => Approving(one),
            ({ } one, _, _) when write.IsRemoved || write.Event.State == EventState.Draft =>
                new Act { Decides = [new Verdict(one, SubmissionState.Withdrawn)] },
            (null, false, EventState.Waiting) =>
                new Act { HandsIn = [HandingIn(SubmissionKind.Event, write.Event, write.Event.HomeCalendarId)] },
            _ => Act.Nothing,
        };
    }

    private EventState StateFor(bool isDraft, Guid home) =>
        isDraft ? EventState.Draft : viewer.May(CalendarAction.Edit, home) ? EventState.Live : EventState.Waiting;

    private EventWrite[] Writes(
        StoredEvent before, ChangeAct asked, ChangeOutcome outcome, Standing? where, IReadOnlyList<Guid> placed)
    {
        var act = asked switch
        {
            ChangeAct.Cancel => EventAct.Cancelled,
            ChangeAct.Remove => EventAct.Removed,
            ChangeAct.Restore => EventAct.Restored,
            _ => EventAct.Changed,
        };
        var home = where?.Home ?? before.Event.HomeCalendarId;
        var changed = (outcome.Successor is null ? outcome.Event with { HomeCalendarId = home, Placements = placed } : outcome.Event) with
        {
            State = where is not null && before.IsUnfinished ? StateFor(where.IsDraft, home) : outcome.Event.State,
        };
        var isRemoved = outcome.IsRemoved || (before.IsRemoved && asked != ChangeAct.Restore);
        if (outcome.Successor is null && isRemoved == before.IsRemoved && IsSame(changed, before.Event))
            return [];
        var save = EventWrite.Saving(before, changed, outcome.Successor is null ? act : EventAct.Changed, isRemoved, school,
            outcome.Successor);
        return outcome.Successor is { } successor
            ? [save, EventWrite.Making(
                successor with { HomeCalendarId = home, Placements = placed }, act == EventAct.Changed ? EventAct.Made : act)]
            : [save];
    }

    internal static bool IsSame(CalendarEvent one, CalendarEvent other) =>
        one.HomeCalendarId == other.HomeCalendarId
        && one.Source == other.Source
        && one.Content.Equals(other.Content)
        && one.State == other.State
        && one.Exceptions.SequenceEqual(other.Exceptions)
        && one.Placements.Order().SequenceEqual(other.Placements.Order());

    /// <summary>What a source fills, nobody else writes on.</summary>
    private void RequireOurs(Guid calendarId, string field)
    {
        if (calendars.TryGetValue(calendarId, out var calendar) && calendar.IsFollowed)
            throw new RuleException(field, "calendar.isFollowed", ("name", calendar.Name));
    }

    private (IReadOnlyList<Guid> Placed, IReadOnlyList<Guid> Asked) Placements(
        CalendarEvent? before, Guid home, IReadOnlyList<Guid>? wanted)
    {
        var was = before?.Placements ?? [];
        if (before is not null && home != before.HomeCalendarId)
            RequireOurs(home, "calendarId");
        if (wanted is null)
            return ([.. was.Where(id => id != home)], []);
        bool IsSeen(Guid id) => calendars.TryGetValue(id, out var calendar) && viewer.DetailOn(id, calendar.Disclosure) > Detail.Nothing;
        var news = wanted.Distinct().Except(was).Where(id => id != home).ToArray();
        foreach (var id in news)
        {
            // Its former home may keep it, whoever sees that.
            if (!IsSeen(id))
                throw new RuleException("placements", "event.placementGone");
            RequireOurs(id, "placements");
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
}
