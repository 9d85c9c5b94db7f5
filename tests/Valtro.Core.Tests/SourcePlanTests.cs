using NodaTime;
using Valtro.Core.Acts;
using Valtro.Core.Calendars;
using Valtro.Core.Disclosure;
using Valtro.Core.Events;
using Valtro.Core.Intake;
using Valtro.Core.YearPlans;

namespace Valtro.Core.Tests;

/// <summary>What a followed source says, beside what is here of it.</summary>
public sealed class SourcePlanTests
{
    private static readonly Instant Now = Instant.FromUtc(2026, 12, 1, 12, 0);
    private static readonly Guid Source = Guid.CreateVersion7();
    private static readonly Guid Port = Guid.CreateVersion7();
    private static readonly Guid Starboard = Guid.CreateVersion7();

    private static readonly ActPlanner Planner = new(
        new Viewer(Guid.CreateVersion7(), Guid.CreateVersion7(), IsAdministrator: true, new Dictionary<Guid, CalendarRole>()),
        new Dictionary<Guid, Calendar>(), SchoolCalendar.Empty);

    private static CalendarEvent Said(string title, string start = "2026-12-04 18:00", Guid? home = null) =>
        Build.Event(Build.Series(start), title) with { Id = Guid.Empty, Uid = default, HomeCalendarId = home ?? Port, Source = Source };

    private static SourceEntry Entry(string uid, CalendarEvent landed, Landing? landing = null)
    {
        var ruling = new Ruling(0, landing ?? new Landing(LandingTo.Calendar, landed.HomeCalendarId), landed.Content.Title);
        return new SourceEntry(uid, landed.Content.Title, landed, ruling, false, [])
        {
            Landed = ruling.Landing.To == LandingTo.Calendar ? landed : null,
        };
    }

    private static StoredEvent Stored(CalendarEvent said, bool isRemoved = false) => new(
        said with { Id = Guid.CreateVersion7(), Uid = Uid.New() }, 1, isRemoved ? Now - Duration.FromDays(1) : null, "", default, null);

    private static SourceKnown Known(params (string Uid, StoredEvent Stored, CalendarEvent? Said)[] known) => new(
        known.ToDictionary(one => one.Uid, one => new KnownIncoming(one.Stored, one.Said)), new HashSet<string>(),
        [.. known.Select(one => one.Stored).Where(one => !one.IsRemoved && one.Event.Source is not null).Distinct()]);

    private static SourcePlan Of(SourceKnown known, params SourceEntry[] entries) =>
        SourcePlan.Of(entries, known, Planner, SchoolCalendar.Empty, Now);

    private static string Counts(SourcePlan plan) => $"{plan.Made} {plan.Changed} {plan.Removed}";

    [Fact]
    public void What_is_new_is_made_in_the_sources_name()
    {
        var plan = Of(SourceKnown.Nothing, Entry("a", Said("Race")));
        var write = Assert.Single(plan.Act.Writes);
        Assert.Equal(("1 0 0", EventAct.Fetched, Source), (Counts(plan), write.Act, write.Event.Source));
        Assert.Equal(("a", null, 0), Assert.Single(plan.Names) is var name ? (name.Uid, name.EventId, name.Write) : default);
    }

    [Fact]
    public void What_is_the_same_is_not_written()
    {
        var stored = Stored(Said("Race"));
        var plan = Of(Known(("a", stored, Said("Race"))), Entry("a", Said("Race")));
        Assert.Equal(("0 0 0", SourceEntryState.Taken, stored.Event.Id),
            (Counts(plan), plan.Outcomes[0].State, plan.Outcomes[0].EventId!.Value));
        Assert.Empty(plan.Act.Writes);
    }

    [Fact]
    public void What_readers_could_not_tell_apart_is_one_event_and_stays_one_when_its_first_goes()
    {
        var plan = Of(SourceKnown.Nothing, Entry("c", Said("Log")), Entry("d", Said("Log")), Entry("e", Said("Log", home: Starboard)));
        Assert.Equal(2, plan.Act.Writes.Count);
        Assert.Equal([SourceEntryState.Taken, SourceEntryState.Also, SourceEntryState.Taken], plan.Outcomes.Select(one => one.State));
        Assert.Equal(["c", "d"], plan.Names.Where(name => name.Write == 0).Select(name => name.Uid));

        var stored = Stored(Said("Log"));
        var known = Known(("c", stored, Said("Log")), ("d", stored, Said("Log")));
        var later = Of(known, Entry("d", Said("Log")));
        Assert.Equal(("0 0 0", stored.Event.Id), (Counts(later), later.Outcomes[0].EventId!.Value));
        // They part: the first keeps the event, the other gets one.
        var parted = Of(known, Entry("c", Said("Log")), Entry("d", Said("Log", "2026-12-05 18:00")));
        Assert.Equal("1 0 0", Counts(parted));
    }

    [Fact]
    public void What_says_more_than_another_is_no_double()
    {
        var other = Said("Log");
        other = other with { Content = other.Content with { Place = Place.Called("Loft") } };
        Assert.Equal("2 0 0", Counts(Of(SourceKnown.Nothing, Entry("c", Said("Log")), Entry("d", other))));
    }

    [Fact]
    public void What_is_put_right_here_stays_when_the_source_changes_the_rest()
    {
        var stored = Stored(Said("Race"));
        var category = new Category(Guid.CreateVersion7(), "League", Hue.Named("kelp"));
        var here = stored with
        {
            Event = stored.Event with
            {
                Content = stored.Event.Content with
                {
                    Notes = "bring oars",
                    Category = category,
                    Place = Place.Called("Our boathouse"),
                    Cap = new Cap(null, null, Detail.Times),
                },
                Placements = [Starboard],
            },
        };
        var moved = Said("Race, second leg", "2026-12-05 18:00");
        moved = moved with { Content = moved.Content with { Place = Place.Called("Theirs") } };
        var plan = Of(Known(("a", here, Said("Race"))), Entry("a", moved));
        var after = Assert.Single(plan.Act.Writes).Event;
        Assert.Equal("0 1 0", Counts(plan));
        Assert.Equal(("Race, second leg", "bring oars", category, "Our boathouse", Detail.Times),
            (after.Content.Title, after.Content.Notes, after.Content.Category, after.Content.Place.Name,
                after.Content.Cap.Everyone!.Value));
        Assert.Equal([Starboard], after.Placements);
        Assert.Equal("source.moved", plan.News[0].Code);
    }

    [Fact]
    public void Whoever_wants_it_told_to_fewer_gets_that()
    {
        var stored = Stored(Said("Race"));
        var capped = stored.Event.Content with { Cap = new Cap(null, null, Detail.Times) };
        var here = stored with { Event = stored.Event with { Content = capped } };
        var closed = Said("Race");
        closed = closed with { Content = closed.Content with { Cap = new Cap(null, Detail.Nothing, Detail.Nothing) } };
        var after = Assert.Single(Of(Known(("a", here, Said("Race"))), Entry("a", closed)).Act.Writes).Event;
        Assert.Equal(Detail.Nothing, after.Content.Cap[Audience.Everyone]);
        // Opened again by the source's rules, it stays as somebody here said.
        var opened = Of(Known(("a", stored with { Event = after }, closed)), Entry("a", Said("Race")));
        Assert.Equal(Detail.Nothing, (opened.Act.Writes.Count == 0 ? after : opened.Act.Writes[0].Event).Content.Cap[Audience.Everyone]);
    }

    [Fact]
    public void Other_rules_move_an_event_to_another_calendar()
    {
        var stored = Stored(Said("Race"));
        var here = stored with { Event = stored.Event with { Placements = [Starboard] } };
        var after = Assert.Single(Of(Known(("a", here, Said("Race"))), Entry("a", Said("Race", home: Starboard))).Act.Writes).Event;
        Assert.Equal((stored.Event.Id, Starboard), (after.Id, after.HomeCalendarId));
        Assert.Empty(after.Placements);
    }

    [Fact]
    public void What_the_source_says_no_more_goes_but_what_is_over_stays()
    {
        var ahead = Stored(Said("Race"));
        var over = Stored(Said("Old race", "2026-11-04 18:00"));
        var plan = Of(Known(("a", ahead, Said("Race")), ("b", over, Said("Old race", "2026-11-04 18:00"))), Entry("c", Said("Other")));
        Assert.Equal("1 0 1", Counts(plan));
        var gone = plan.Act.Writes.Single(write => write.Before is not null);
        Assert.Equal((ahead.Event.Id, true), (gone.Event.Id, gone.IsRemoved));
        Assert.Equal(["a"], plan.Gone);
        // What a rule leaves out by now goes though it is over.
        var leftOut = Of(Known(("b", over, Said("Old race", "2026-11-04 18:00"))),
            Entry("b", Said("Old race", "2026-11-04 18:00"), Landing.LeftOut));
        Assert.Equal(("0 0 1", SourceEntryState.LeftOut), (Counts(leftOut), leftOut.Outcomes[0].State));
    }

    [Fact]
    public void What_was_gone_comes_back_under_its_old_id()
    {
        var stored = Stored(Said("Race"), isRemoved: true);
        var plan = Of(Known(("a", stored, null)), Entry("a", Said("Race", "2026-12-06 18:00")));
        var write = Assert.Single(plan.Act.Writes);
        Assert.Equal(("1 0 0", stored.Event.Id, false), (Counts(plan), write.Event.Id, write.IsRemoved));
        Assert.Equal(new LocalDateTime(2026, 12, 6, 18, 0), write.Event.Series.Timing.Start);
    }

    [Fact]
    public void What_somebody_removed_or_took_over_is_let_be()
    {
        var hidden = Stored(Said("Race"), isRemoved: true);
        var mine = Stored(Said("Ours") with { Source = null });
        var known = Known(("a", hidden, Said("Race")), ("b", mine, Said("Ours"))) with { Hidden = new HashSet<string> { "c" } };
        var plan = Of(known, Entry("a", Said("Race, moved")), Entry("b", Said("Theirs")), Entry("c", Said("Long hidden")));
        Assert.Equal([SourceEntryState.Hidden, SourceEntryState.Ours, SourceEntryState.Hidden], plan.Outcomes.Select(one => one.State));
        Assert.True(plan.Act.IsNothing);
    }

    [Fact]
    public void It_is_held_back_when_it_shrinks_by_more_than_half_empties_or_calls_all_otherwise()
    {
        SourceEntry[] four = [.. Enumerable.Range(1, 4).Select(number => Entry($"{number}", Said($"Race {number}")))];
        Assert.Null(SourcePlan.Holds([], [], Now));
        Assert.Null(SourcePlan.Holds(four, four, Now));
        Assert.Null(SourcePlan.Holds(four, four[..2], Now));
        Assert.Equal(HeldBecause.Shrunk, SourcePlan.Holds(four, four[..1], Now)?.Because);
        Assert.Equal(HeldBecause.Emptied, SourcePlan.Holds(four, [], Now)?.Because);
        Assert.Equal(HeldBecause.AllRenamed, SourcePlan.Holds(four, [Entry("x", Said("Race 1")), Entry("y", Said("Race 2"))], Now)?.Because);
        // Many tell only what is to come.
        SourceEntry[] over = [.. Enumerable.Range(5, 9).Select(number => Entry($"{number}", Said("Old", "2026-10-04 18:00")))];
        Assert.Null(SourcePlan.Holds([.. over, .. four], four, Now));
    }

    [Fact]
    public void What_a_source_says_is_changed_by_nobody_else()
    {
        var stored = Stored(Said("Race"));
        Act Change(Func<EventContent, EventContent> change, ChangeScope scope = ChangeScope.Every) => Planner.Changing(
            stored, new Change(ChangeAct.Edit, stored.Event.Series.Timing.Start, change(stored.Event.Content)), scope,
            new HashSet<LocalDateTime>(), null, []);
        Assert.Equal("title", Assert.Throws<RuleException>(() => Change(content => content with { Title = "Mine" })).Refusals[0].Field);
        Assert.Single(Change(content => content with { Notes = "n", Place = Place.Called("Here"), Subtitle = "s" }).Writes);
        Act Do(ChangeAct act) => Planner.Changing(
            stored, new Change(act, stored.Event.Series.Timing.Start), ChangeScope.Every, new HashSet<LocalDateTime>(), null, []);
        Assert.Equal("state", Assert.Throws<RuleException>(() => Do(ChangeAct.Cancel)).Refusals[0].Field);
        Assert.True(Do(ChangeAct.Remove).Writes[0].IsRemoved);
        Assert.Null(Planner.TakingOver(stored).Writes[0].Event.Source);
        // What was fetched is not taken back.
        Assert.Throws<RuleException>(() => ActPlanner.Undoing([(stored, 1, null)], SchoolCalendar.Empty));
    }
}
