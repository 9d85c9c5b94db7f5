using NodaTime;
using Valtro.Core.Acts;
using Valtro.Core.Calendars;
using Valtro.Core.Disclosure;
using Valtro.Core.Events;
using Valtro.Core.SignOff;
using Valtro.Core.YearPlans;

namespace Valtro.Core.Tests;

/// <summary>One planner says what becomes of events, whoever asks and why.</summary>
public class ActPlannerTests
{
    private static readonly Guid Port = Guid.CreateVersion7(), School = Guid.CreateVersion7(), Closed = Guid.CreateVersion7();
    private static readonly Guid Bo = Guid.CreateVersion7(), Cy = Guid.CreateVersion7();
    private static readonly Core.Disclosure.Disclosure Headlines = new(Detail.Complete, Detail.Headline, Detail.Headline);

    private static readonly Dictionary<Guid, Calendar> Calendars = new[]
    {
        Named(Port, "Port Watch", "PW", Core.Disclosure.Disclosure.Open),
        Named(School, "Whole school", "SCH", Headlines),
        Named(Closed, "Staff", "STF", Core.Disclosure.Disclosure.Closed),
    }.ToDictionary(calendar => calendar.Id);

    private static Calendar Named(Guid id, string name, string plate, Core.Disclosure.Disclosure disclosure) => new(
        id, Guid.Empty, name, Plate.Parse(plate), Build.Harbour, Build.Halifax, "", disclosure, 1, 1, Guid.Empty, plate, []);

    private static ActPlanner For(Guid account, CalendarRole role, params Guid[] calendars) => new(
        new Viewer(account, Guid.Empty, false, calendars.ToDictionary(id => id, _ => role)), Calendars, SchoolCalendar.Empty);

    private static ActPlanner Editor => For(Bo, CalendarRole.Editor, Port);

    private static ActPlanner Contributor => For(Cy, CalendarRole.Contributor, Port);

    private static CalendarEvent Lab { get; } = Build.Event(Build.Series("2026-11-24 14:00", "FREQ=WEEKLY;COUNT=6")) with
    {
        HomeCalendarId = Port,
        Version = 3,
    };

    private static StoredEvent Stored(CalendarEvent kept, bool isRemoved = false) =>
        new(kept, kept.Version, isRemoved ? Instant.FromUtc(2026, 11, 1, 0, 0) : null, "Ada", Instant.FromUtc(2026, 11, 1, 0, 0), null);

    private static Submission About(CalendarEvent kept, SubmissionKind kind, Guid calendar, Guid proposer) => new(
        Guid.CreateVersion7(), kind, kept.Id, calendar, kept.Content.Title, proposer, "Cy", Instant.FromUtc(2026, 11, 1, 0, 0), null, null,
        SubmissionState.Open, "", null, null);

    private static Act Edit(ActPlanner planner, CalendarEvent before, Func<EventContent, EventContent> change, ChangeScope scope,
        Standing? where = null, string seenFrom = "2026-12-08 14:00", params IReadOnlyList<Submission> about)
    {
        var date = EventDates.Find(before, Build.Local(seenFrom), SchoolCalendar.Empty)!.Value;
        var typed = change(date.Content with { Series = before.Series with { Timing = date.Timing } });
        return planner.Changing(Stored(before), new Change(ChangeAct.Edit, Build.Local(seenFrom), typed), scope,
            new HashSet<LocalDateTime>(), where, about);
    }

    private static EventContent Knots(EventContent content) => content with { Title = "Knots" };

    [Fact]
    public void What_an_editor_makes_goes_out_and_what_a_contributor_makes_waits()
    {
        var live = Editor.Making(Lab.Content, new Standing(Port, null, IsDraft: false));
        Assert.Equal((EventState.Live, null, 0), (live.Writes[0].Event.State, live.Writes[0].Version, live.HandsIn.Count));
        var waiting = Contributor.Making(Lab.Content, new Standing(Port, null, IsDraft: false));
        Assert.Equal((EventState.Waiting, SubmissionKind.Event, Port),
            (waiting.Writes[0].Event.State, waiting.HandsIn[0].Kind, waiting.HandsIn[0].CalendarId));
        var draft = Contributor.Making(Lab.Content, new Standing(Port, null, IsDraft: true));
        Assert.Equal((EventState.Draft, 0), (draft.Writes[0].Event.State, draft.HandsIn.Count));
    }

    [Fact]
    public void Where_somebody_may_not_put_an_event_its_keepers_are_asked()
    {
        var act = Editor.Making(Lab.Content, new Standing(Port, [School], IsDraft: false));
        Assert.Empty(act.Writes[0].Event.Placements);
        Assert.Equal([School], act.Asked);
        Assert.Equal("placements", Assert.Throws<RuleException>(() =>
            Editor.Making(Lab.Content, new Standing(Port, [Closed], IsDraft: false))).Refusals[0].Field);
        var both = For(Bo, CalendarRole.Editor, Port, School).Making(Lab.Content, new Standing(Port, [School], IsDraft: false));
        Assert.Equal([School], both.Writes[0].Event.Placements);
    }

    [Fact]
    public void A_change_for_later_dates_writes_what_ends_and_what_goes_on_and_questions_are_about_the_latter()
    {
        var act = Edit(Editor, Lab, Knots, ChangeScope.Later, new Standing(Port, [School], IsDraft: false));
        Assert.Equal([EventAct.Changed, EventAct.Made], act.Writes.Select(write => write.Act));
        Assert.Equal((3, (int?)null, "Knots"), (act.Writes[0].Version, act.Writes[1].Version, act.Writes[1].Event.Content.Title));
        Assert.Equal((1, Build.Local("2026-12-08 14:00")), act.Writes[0].Follows!(Build.Local("2026-12-08 14:00")));
        Assert.Equal(Guid.Empty, Assert.Single(act.HandsIn).EventId);
    }

    [Fact]
    public void What_changes_nothing_is_no_act()
    {
        Assert.True(Edit(Editor, Lab, content => content, ChangeScope.Every).IsNothing);
        Assert.Equal("scope", Assert.Throws<RuleException>(() =>
            Edit(Editor, Lab, Knots, ChangeScope.This, new Standing(School, null, IsDraft: false))).Refusals[0].Field);
    }

    [Fact]
    public void A_new_event_that_waited_is_decided_by_how_it_is_saved()
    {
        var waiting = Lab with { State = EventState.Waiting };
        var open = About(waiting, SubmissionKind.Event, Port, Cy);
        SubmissionState? Decided(ActPlanner by, bool isDraft) =>
            Edit(by, waiting, Knots, ChangeScope.Every, new Standing(Port, null, isDraft), about: open).Decides.SingleOrDefault()?.State;
        Assert.Equal(SubmissionState.Approved, Decided(Editor, isDraft: false));
        Assert.Equal(SubmissionState.Withdrawn, Decided(Contributor, isDraft: true));
        Assert.Null(Decided(Contributor, isDraft: false));
        var again = Edit(Contributor, Lab with { State = EventState.Draft }, Knots, ChangeScope.Every, new Standing(Port, null, false));
        Assert.Equal((EventState.Waiting, SubmissionKind.Event), (again.Writes[0].Event.State, again.HandsIn[0].Kind));
    }

    [Fact]
    public void Let_out_it_is_live_or_shown_and_sent_back_it_is_a_draft_again()
    {
        var waiting = Lab with { State = EventState.Waiting };
        var let = Editor.LettingOut(Stored(waiting), About(waiting, SubmissionKind.Event, Port, Cy));
        Assert.Equal((EventState.Live, SubmissionState.Approved), (let.Writes[0].Event.State, let.Decides[0].State));
        Assert.Equal([School], Editor.LettingOut(Stored(Lab), About(Lab, SubmissionKind.Placement, School, Cy)).Writes[0].Event.Placements);
        var back = Editor.Holding(Stored(waiting), About(waiting, SubmissionKind.Event, Port, Cy), SubmissionState.SentBack, "Too late");
        Assert.Equal((EventState.Draft, "Too late"), (back.Writes[0].Event.State, back.Decides[0].Reason));
        Assert.Empty(Editor.Holding(null, About(Lab, SubmissionKind.Change, Port, Cy), SubmissionState.Withdrawn).Writes);
    }

    [Fact]
    public void Undone_an_act_leaves_all_as_it_was_and_what_it_made_goes_to_the_bin()
    {
        var act = Edit(Editor, Lab, Knots, ChangeScope.Later);
        var (ended, made) =
            (act.Writes[0].Event with { Version = 4 }, act.Writes[1].Event with { Id = Guid.CreateVersion7(), Version = 1 });
        var undoing = ActPlanner.Undoing(
            [(Stored(ended), 4, Saved(3, Lab)), (Stored(made), 1, null)], SchoolCalendar.Empty);
        Assert.Equal([false, true], undoing.Writes.Select(write => write.IsRemoved));
        Assert.Equal(Lab.Content, undoing.Writes[0].Event.Content);
        Assert.Equal((-1, Build.Local("2026-12-08 14:00")), undoing.Writes[1].Follows!(Build.Local("2026-12-08 14:00")));
        Assert.Throws<ChangedMeanwhileException>(() => ActPlanner.Undoing(
            [(Stored(ended with { Version = 5 }), 4, Saved(3, Lab))], SchoolCalendar.Empty));

        static Revision Saved(int version, CalendarEvent kept) =>
            new(version, EventAct.Changed, Guid.Empty, "Ada", default, false, kept);
    }

    [Fact]
    public void Values_are_replaced_in_dates_of_their_own_too_and_calendars_in_homes_and_placements()
    {
        var hall = new Place(Guid.NewGuid(), "Hall");
        var there = Lab with
        {
            Placements = [School],
            Exceptions = [new EventException(Build.Local("2026-12-01 14:00")) { Own = OwnFields.None.With("place", Place.Called("hall")) }],
        };
        var settled = ActPlanner.Replacing([Stored(there)], value => value is Place { Id: null, Name: "hall" } ? hall : value).Writes[0];
        Assert.Equal((Place.Called("Slipway"), hall),
            (settled.Event.Content.Place, (Place)settled.Event.Exceptions[0].Own[EventField.Named("place")]!));
        var moved = ActPlanner.Moving([Stored(there)], Port, School).Writes[0].Event;
        Assert.Equal(School, moved.HomeCalendarId);
        Assert.Empty(moved.Placements);
        Assert.Equal([Closed], ActPlanner.Moving([Stored(there)], School, Closed).Writes[0].Event.Placements);
    }

    [Fact]
    public void Beforehand_it_says_how_many_events_and_who_sees_more_or_less()
    {
        var tables = Calendars.ToDictionary(one => one.Key, one => one.Value.Disclosure);
        var moving = Foreseen.Of(ActPlanner.Moving([Stored(Lab), Stored(Lab, isRemoved: true)], Port, School), tables);
        Assert.Equal((2, 0, 0), (moving.Events, moving.Removed, moving.Returned));
        Assert.Equal([new ForeseenReaders(Audience.Link, 0, 1, 0), new ForeseenReaders(Audience.Everyone, 0, 1, 0)], moving.Readers);
        var back = Foreseen.Of(Editor.TakingOut(Stored(Lab, isRemoved: true)), tables);
        Assert.Equal((1, 1), (back.Returned, back.Readers.Single(one => one.Audience == Audience.Everyone).More));
    }

    [Fact]
    public void Put_back_an_earlier_version_leaves_where_it_stands_to_those_who_keep_that()
    {
        var act = Editor.PuttingBack(
            Stored(Lab with { Placements = [School] }), Lab with { Content = Knots(Lab.Content), Placements = [Closed] });
        Assert.Equal(("Knots", EventAct.Restored), (act.Writes[0].Event.Content.Title, act.Writes[0].Act));
        Assert.Equal([School], act.Writes[0].Event.Placements);
        Assert.Empty(Editor.TakingOff(Stored(Lab with { Placements = [School] }), School).Writes[0].Event.Placements);
    }

    [Fact]
    public void What_was_handed_in_and_is_saved_is_approved_by_who_may_and_withdrawn_by_who_made_it()
    {
        var change = About(Lab, SubmissionKind.Change, Port, Cy);
        Assert.Equal(SubmissionState.Approved, Editor.Settling(change).Decides[0].State);
        Assert.Equal(SubmissionState.Withdrawn, Contributor.Settling(change).Decides[0].State);
        Assert.True(For(Bo, CalendarRole.Editor, School).Settling(change).IsNothing);
        Assert.True(Editor.Settling(null).IsNothing);
    }
}
