using NodaTime;
using Valtro.Core.Acts;
using Valtro.Core.Calendars;
using Valtro.Core.Disclosure;
using Valtro.Core.Events;
using Valtro.Core.Recurrence;

namespace Valtro.Core.Tests;

/// <summary>One change of many events: what can be changed is one act, what cannot is named.</summary>
public class ChosenPlannerTests
{
    private static readonly Guid Port = Guid.CreateVersion7(), School = Guid.CreateVersion7(), Bo = Guid.CreateVersion7();

    private static readonly Dictionary<Guid, Calendar> Calendars = new[] { (Port, "PW"), (School, "SCH") }.ToDictionary(
        one => one.Item1,
        one => new Calendar(one.Item1, Guid.Empty, one.Item2, Plate.Parse(one.Item2), Build.Harbour, Build.Halifax, "",
            Core.Disclosure.Disclosure.Open, 1, 1, Guid.Empty, one.Item2, []));

    private static ChosenPlanner Planner { get; } = new(
        new ActPlanner(
            new Viewer(Bo, Guid.Empty, false, new Dictionary<Guid, CalendarRole>
            {
                [Port] = CalendarRole.Editor,
                [School] = CalendarRole.Editor,
            }),
            Calendars, Build.School()),
        Build.School());

    private static CalendarEvent On(Series series, EventState state = EventState.Live, string title = "Boat lab") =>
        Build.Event(series, title, state) with { HomeCalendarId = Port, Version = 3 };

    private static CalendarEvent Lab { get; } = On(Build.Series("2026-09-08 14:00", "FREQ=WEEKLY;COUNT=6"));

    private static CalendarEvent Talk { get; } = On(Build.Series("2026-09-10 09:00"), title: "Talk");

    private static ChosenEvent Chosen(CalendarEvent kept, params string[] dates) => new(
        new StoredEvent(kept, kept.Version, null, "Ada", Instant.FromUtc(2026, 9, 1, 0, 0), null), [.. dates.Select(Build.Local)], []);

    private static ChosenEvent TwoLabs => Chosen(Lab, "2026-09-15 14:00", "2026-09-22 14:00");

    private static ChosenEvent OneTalk => Chosen(Talk, "2026-09-10 09:00");

    private static ChosenOutcome Plan(ChosenChange change, ChosenScope scope, params ChosenEvent[] chosen) =>
        Planner.Plan(chosen, change, scope);

    private static string[] Starts(CalendarEvent one) =>
        [.. EventDates.All(one, Build.School()).Select(date => date.Timing.Start.ToString("MM-dd", null))];

    [Fact]
    public void A_series_ends_with_the_year_plan_and_leaves_out_breaks()
    {
        var endless = On(Build.Series("2026-10-20 14:00", "FREQ=WEEKLY"));
        var ended = Assert.Single(
            Plan(new ChosenChange(ChosenAct.EndWithPlan), ChosenScope.Dates, Chosen(endless, "2026-11-03 14:00")).Act.Writes).Event;
        Assert.Equal(Build.Day("2027-07-27"), EventDates.All(ended, Build.School()).Last().Occurrence.LocalStart.Date);
        Assert.Equal(endless.Series.Timing, ended.Series.Timing);
        var skipping = Plan(new ChosenChange(ChosenAct.SkipBreaks), ChosenScope.Dates, Chosen(endless, "2026-11-03 14:00"));
        Assert.Equal(["10-20", "11-03"], Starts(skipping.Act.Writes[0].Event with
        {
            Content = skipping.Act.Writes[0].Event.Content with
            {
                Series = skipping.Act.Writes[0].Event.Series with { Rule = RuleText.Parse("FREQ=WEEKLY;COUNT=3") },
            },
        }));
        Assert.Equal(1, skipping.OfSeries);
        var left = Plan(new ChosenChange(ChosenAct.EndWithPlan), ChosenScope.Dates, OneTalk,
            Chosen(On(Build.Series("2029-10-23 14:00", "FREQ=WEEKLY")), "2029-10-23 14:00"));
        Assert.Equal(["chosen.noRule", "chosen.inNoYear"], left.LeftOut.Select(one => one.Why.Code));
    }

    [Fact]
    public void Chosen_dates_move_and_the_others_of_their_series_stay()
    {
        var outcome = Plan(new ChosenChange(ChosenAct.Move) { Days = 2 }, ChosenScope.Dates, TwoLabs, OneTalk);

        Assert.Equal(["09-08", "09-17", "09-24", "09-29", "10-06", "10-13"], Starts(outcome.Act.Writes[0].Event));
        Assert.Equal(["09-12"], Starts(outcome.Act.Writes[1].Event));
        Assert.Equal((3, 0, 0), (outcome.Dates.Count, outcome.LeftOut.Count, outcome.OfSeries));
        Assert.Equal(Build.Local("2026-09-15 14:00"), outcome.Act.Writes[0].Event.Exceptions[0].RecurrenceId);
    }

    [Fact]
    public void A_date_that_would_lie_on_another_of_its_own_is_named()
    {
        var week = Plan(new ChosenChange(ChosenAct.Move) { Days = 7 }, ChosenScope.Dates, Chosen(Lab, "2026-09-15 14:00"));
        var both = Plan(new ChosenChange(ChosenAct.Move) { Days = 1 }, ChosenScope.Dates, TwoLabs);

        Assert.True(Assert.Single(week.Dates).MeetsOwn);
        Assert.All(both.Dates, date => Assert.False(date.MeetsOwn));
    }

    [Fact]
    public void All_of_a_series_moves_with_the_weekdays_of_its_rule()
    {
        var outcome = Plan(new ChosenChange(ChosenAct.Move) { Days = -7 }, ChosenScope.Series, TwoLabs);

        Assert.Equal(["09-01", "09-08", "09-15", "09-22", "09-29", "10-06"], Starts(outcome.Act.Writes[0].Event));
        Assert.Equal(1, outcome.OfSeries);
        Assert.Empty(outcome.Act.Writes[0].Event.Exceptions);
    }

    [Fact]
    public void Dates_are_cancelled_removed_and_brought_back_one_by_one()
    {
        var cancelled = Plan(new ChosenChange(ChosenAct.Cancel), ChosenScope.Dates, TwoLabs).Act.Writes[0];
        var removed = Plan(new ChosenChange(ChosenAct.Remove), ChosenScope.Dates, TwoLabs).Act.Writes[0];
        var again = Plan(new ChosenChange(ChosenAct.Restore), ChosenScope.Dates,
            TwoLabs with { Stored = TwoLabs.Stored with { Event = removed.Event } }).Act.Writes[0];

        Assert.Equal((2, EventState.Live), (cancelled.Event.Exceptions.Count(one => one.IsCancelled), cancelled.Event.State));
        Assert.Equal(["09-08", "09-29", "10-06", "10-13"], Starts(removed.Event));
        Assert.False(removed.IsRemoved);
        Assert.Equal(Starts(Lab), Starts(again.Event));
    }

    [Fact]
    public void An_event_of_one_date_and_whole_series_go_to_the_bin()
    {
        var outcome = Plan(new ChosenChange(ChosenAct.Remove), ChosenScope.Series, TwoLabs, OneTalk);

        Assert.All(outcome.Act.Writes, write => Assert.True(write.IsRemoved));
        Assert.All(outcome.Dates, date => Assert.Null(date.Becomes));
    }

    [Fact]
    public void An_event_of_which_every_date_is_removed_goes_to_the_bin()
    {
        var all = Chosen(Lab, [.. EventDates.All(Lab, Build.School()).Select(date => $"{date.Occurrence.RecurrenceId:uuuu-MM-dd HH:mm}")]);

        Assert.True(Assert.Single(Plan(new ChosenChange(ChosenAct.Remove), ChosenScope.Dates, all).Act.Writes).IsRemoved);
    }

    [Fact]
    public void What_belongs_to_the_event_is_changed_for_all_its_dates()
    {
        var sailing = new Category(Guid.CreateVersion7(), "Sailing", Build.Harbour);

        Assert.Equal(School, Written(new ChosenChange(ChosenAct.Calendar) { CalendarId = School }).HomeCalendarId);
        Assert.Equal([School], Written(new ChosenChange(ChosenAct.PlaceOn) { CalendarId = School }).Placements);
        Assert.Equal(sailing, Written(new ChosenChange(ChosenAct.Category) { Category = sailing }).Content.Category);
        Assert.Equal(["boats"], Written(new ChosenChange(ChosenAct.AddTag) { Tag = "boats" }).Content.Tags);

        static CalendarEvent Written(ChosenChange change) =>
            Assert.Single(Plan(change, ChosenScope.Dates, TwoLabs).Act.Writes).Event;
    }

    [Fact]
    public void A_place_is_that_of_chosen_dates_or_of_all()
    {
        var hall = new ChosenChange(ChosenAct.Place) { Place = Place.Called("Hall") };

        var some = Plan(hall, ChosenScope.Dates, TwoLabs).Act.Writes[0].Event;
        var every = Plan(hall, ChosenScope.Series, TwoLabs).Act.Writes[0].Event;

        Assert.Equal(["Slipway", "Hall", "Hall", "Slipway", "Slipway", "Slipway"], PlacesOf(some));
        Assert.All(PlacesOf(every), place => Assert.Equal("Hall", place));

        static string[] PlacesOf(CalendarEvent one) => [.. EventDates.All(one, Build.School()).Select(date => date.Place.Name)];
    }

    [Fact]
    public void Drafts_go_out_and_what_has_gone_out_does_not_become_a_draft()
    {
        var draft = Chosen(On(Build.Series("2026-09-10 09:00"), EventState.Draft), "2026-09-10 09:00");

        var letOut = Plan(new ChosenChange(ChosenAct.LetOut), ChosenScope.Dates, draft, OneTalk);
        var held = Plan(new ChosenChange(ChosenAct.Draft), ChosenScope.Dates, OneTalk);

        Assert.Equal(EventState.Live, Assert.Single(letOut.Act.Writes).Event.State);
        Assert.Equal("chosen.asItIs", Assert.Single(letOut.LeftOut).Why.Code);
        Assert.Equal("event.goneOutAlready", Assert.Single(held.LeftOut).Why.Code);
    }

    [Fact]
    public void What_is_not_theirs_or_cannot_be_is_left_out_and_the_rest_is_done()
    {
        var waiting = Chosen(On(Build.Series("2026-09-10 09:00"), EventState.Waiting), "2026-09-10 09:00");

        var moved = Plan(new ChosenChange(ChosenAct.Calendar) { CalendarId = School }, ChosenScope.Dates,
            TwoLabs, waiting, OneTalk with { MayChange = false });

        Assert.Single(moved.Act.Writes);
        Assert.Equal(["chosen.waits", "chosen.notYours"], moved.LeftOut.Select(one => one.Why.Code));
    }

    [Fact]
    public void Copies_stand_in_the_same_week_of_another_term()
    {
        var year = Build.Year();

        var outcome = Plan(new ChosenChange(ChosenAct.Copy) { Into = (year, year.Terms[1]) }, ChosenScope.Dates, OneTalk, TwoLabs);

        Assert.All(outcome.Act.Writes, write => Assert.Null(write.Version));
        Assert.Equal(Build.Local("2027-01-07 09:00"), outcome.Act.Writes[0].Event.Series.Timing.Start);
        Assert.Equal(6, Starts(outcome.Act.Writes[1].Event).Length);
    }

    [Fact]
    public void A_copy_by_the_month_is_in_the_other_term_and_none_lies_on_what_it_is_of()
    {
        var year = Build.Year();
        var drill = Chosen(On(Build.Series("2026-09-07 10:00", "FREQ=MONTHLY;BYDAY=1MO;COUNT=3")), "2026-09-07 10:00");

        var spring = Plan(new ChosenChange(ChosenAct.Copy) { Into = (year, year.Terms[1]) }, ChosenScope.Dates, drill);
        var autumn = Plan(new ChosenChange(ChosenAct.Copy) { Into = (year, year.Terms[0]) }, ChosenScope.Dates, drill, OneTalk);

        Assert.Equal(["01-04", "02-01", "03-01"], Starts(Assert.Single(spring.Act.Writes).Event));
        Assert.Equal(["chosen.asItIs", "chosen.asItIs"], autumn.LeftOut.Select(one => one.Why.Code));
    }

    [Fact]
    public void Each_new_event_is_asked_about_by_itself()
    {
        var asked = Act.All([Waiting("One"), Waiting("Two")]);

        Assert.Equal([0, 1], asked.HandsIn.Select(one => one.Write));

        static Act Waiting(string title) => new ActPlanner(
            new Viewer(Bo, Guid.Empty, false, new Dictionary<Guid, CalendarRole> { [Port] = CalendarRole.Contributor }),
            Calendars, Build.School())
            .Making(Build.Event(Build.Series("2026-09-10 09:00"), title).Content, new Standing(Port, null, false));
    }
}
