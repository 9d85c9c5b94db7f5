using NodaTime;
using Valtro.Core.Events;
using Valtro.Core.Recurrence;
using Valtro.Core.Time;
using Valtro.Core.YearPlans;

namespace Valtro.Core.Tests;

/// <summary>One date, this and later ones, or every date.</summary>
public class SeriesEditTests
{
    /// <summary>Tuesdays and Thursdays, 14:00 to 15:00, eight dates from 24 November to 17 December.</summary>
    private static readonly CalendarEvent Lab =
        Build.Event(Build.Series("2026-11-24 14:00", "FREQ=WEEKLY;BYDAY=TU,TH;UNTIL=20261218T180000Z"));

    private static readonly IReadOnlySet<LocalDateTime> Drop = new HashSet<LocalDateTime>();

    private static IEnumerable<string> Dates(CalendarEvent calendarEvent, int most = 40) =>
        EventDates.All(calendarEvent, SchoolCalendar.Empty).Take(most)
            .Select(date => $"{date.Occurrence.LocalStart:MM-dd HH:mm}{(date.State == EventState.Cancelled ? " x" : "")}");

    /// <summary>What the form holds when a date is opened and something is changed in it.</summary>
    private static Change Edit(CalendarEvent calendarEvent, string seenFrom, string? start = null, string? end = null, string? title = null,
        string? place = null, Func<Series, Series>? series = null)
    {
        var date = EventDates.Find(calendarEvent, Build.Local(seenFrom), SchoolCalendar.Empty)!.Value;
        var timing = start is null
            ? date.Timing
            : end is null
            ? date.Timing.StartingAt(Build.Local(start))
            : date.Timing.Between(Build.Local(start), Build.Local(end));
        var typed = calendarEvent.Series with { Timing = timing };
        return new Change(ChangeAct.Edit, Build.Local(seenFrom),
            calendarEvent.Content with
            {
                Title = title ?? date.Title,
                Place = place is null ? date.Place : Place.Called(place),
                Series = series?.Invoke(typed) ?? typed
            });
    }

    private static ChangeOutcome Apply(CalendarEvent calendarEvent, Change change, ChangeScope scope,
        IReadOnlySet<LocalDateTime>? keep = null) =>
        new SeriesEdit(calendarEvent, change, SchoolCalendar.Empty).Apply(scope, keep ?? Drop);

    private static string Rule(CalendarEvent calendarEvent) => RuleText.Format(calendarEvent.Series.Rule!);

    [Fact]
    public void One_date_stores_only_what_differs()
    {
        var after = Apply(Lab, Edit(Lab, "2026-12-01 14:00", start: "2026-12-02 15:00"), ChangeScope.This).Event;
        var exception = Assert.Single(after.Exceptions);
        Assert.Equal((Build.Local("2026-12-02 15:00"), Build.Local("2026-12-02 16:00")), (exception.Start, exception.End));
        Assert.True(exception.Own.IsNone);
        Assert.Equal(["11-24 14:00", "11-26 14:00", "12-02 15:00", "12-03 14:00"], Dates(after, 4));
    }

    [Fact]
    public void A_later_change_of_the_series_reaches_what_an_exception_left_alone()
    {
        var moved = Apply(Lab, Edit(Lab, "2026-12-01 14:00", place: "Loft"), ChangeScope.This).Event;
        var after = Apply(moved, Edit(moved, "2026-12-08 14:00", title: "Boat building"), ChangeScope.Every).Event;
        var date = EventDates.Find(after, Build.Local("2026-12-01 14:00"), SchoolCalendar.Empty)!.Value;
        Assert.Equal(("Boat building", "Loft"), (date.Title, date.Place.Name));
    }

    [Fact]
    public void Put_back_where_it_was_a_date_is_no_exception_any_more()
    {
        var moved = Apply(Lab, Edit(Lab, "2026-12-01 14:00", start: "2026-12-02 15:00"), ChangeScope.This).Event;
        Assert.Empty(Apply(moved, Edit(moved, "2026-12-01 14:00", start: "2026-12-01 14:00"), ChangeScope.This).Event.Exceptions);
    }

    [Fact]
    public void The_pattern_cannot_change_for_one_date() =>
        Assert.NotNull(
            Build.Refused("scope",
                () => Apply(Lab, Edit(Lab, "2026-12-01 14:00", series: typed => typed with { Rule = RuleText.Parse("FREQ=DAILY") }),
                    ChangeScope.This)));

    [Fact]
    public void Later_dates_become_a_series_of_their_own()
    {
        var outcome = Apply(Lab, Edit(Lab, "2026-12-08 14:00", start: "2026-12-08 16:00"), ChangeScope.Later);
        Assert.Equal(["11-24 14:00", "11-26 14:00", "12-01 14:00", "12-03 14:00"], Dates(outcome.Event));
        Assert.Equal(["12-08 16:00", "12-10 16:00", "12-15 16:00", "12-17 16:00"], Dates(outcome.Successor!));
        Assert.Equal(Lab.Uid, outcome.Successor!.Continues);
    }

    [Fact]
    public void A_count_is_split()
    {
        var counted = Build.Event(Build.Series("2026-11-24 14:00", "FREQ=WEEKLY;BYDAY=TU,TH;COUNT=8"));
        var outcome = Apply(counted, Edit(counted, "2026-12-08 14:00", title: "Later"), ChangeScope.Later);
        Assert.Equal((4, 4), (outcome.Event.Series.Rule!.Count, outcome.Successor!.Series.Rule!.Count));
        Assert.Equal(["12-08 14:00", "12-10 14:00", "12-15 14:00", "12-17 14:00"], Dates(outcome.Successor));
    }

    [Fact]
    public void Exceptions_and_removed_dates_after_a_split_go_along()
    {
        var lab = Lab with
        {
            Content = Lab.Content with
            {
                Series =
                Lab.Series with { Removed = [Build.Local("2026-11-26 14:00"), Build.Local("2026-12-10 14:00")] }
            },
            Exceptions = [new EventException(Build.Local("2026-12-01 14:00")) { IsCancelled = true },
                new EventException(Build.Local("2026-12-15 14:00")) { IsCancelled = true }],
        };
        var outcome = Apply(lab, Edit(lab, "2026-12-08 14:00", start: "2026-12-08 16:00"), ChangeScope.Later);
        Assert.Equal(["11-24 14:00", "12-01 14:00 x", "12-03 14:00"], Dates(outcome.Event));
        Assert.Equal(["12-08 16:00", "12-15 16:00 x", "12-17 16:00"], Dates(outcome.Successor!));
        Assert.Empty(outcome.Lost);
    }

    [Fact]
    public void From_the_first_date_on_is_every_date()
    {
        var outcome = Apply(Lab, Edit(Lab, "2026-11-24 14:00", title: "Whole"), ChangeScope.Later);
        Assert.Null(outcome.Successor);
        Assert.Equal("Whole", outcome.Event.Content.Title);
    }

    [Fact]
    public void Every_date_moves_with_its_exceptions_when_the_time_moves()
    {
        var lab =
            Lab with
            {
                Exceptions =
                [new EventException(Build.Local("2026-12-01 14:00")) { Own = OwnFields.None.With("place", Place.Called("Loft")) }]
            };
        var outcome = Apply(lab, Edit(lab, "2026-12-08 14:00", start: "2026-12-08 16:00"), ChangeScope.Every);
        Assert.Equal("11-24 16:00", Dates(outcome.Event).First());
        Assert.Equal(Build.Local("2026-12-01 16:00"), Assert.Single(outcome.Event.Exceptions).RecurrenceId);
        Assert.Empty(outcome.Kept);
        Assert.Equal(lab.Exceptions, outcome.Moved);
    }

    [Fact]
    public void Every_date_moves_by_days_with_its_weekdays()
    {
        var lab = Lab with { Exceptions = [new EventException(Build.Local("2026-12-03 14:00")) { IsCancelled = true }] };
        var outcome = Apply(lab, Edit(lab, "2026-12-08 14:00", start: "2026-12-09 14:00"), ChangeScope.Every);
        Assert.Equal("FREQ=WEEKLY;UNTIL=20261219T180000Z;BYDAY=WE,FR", Rule(outcome.Event));
        Assert.Equal(["11-25 14:00", "11-27 14:00", "12-02 14:00", "12-04 14:00 x"], Dates(outcome.Event, 4));
        Assert.Equal(8, Dates(outcome.Event).Count());
    }

    [Theory]
    [InlineData("FREQ=MONTHLY;BYDAY=2TU", "2026-12-08 14:00", "2026-12-09 14:00", "FREQ=MONTHLY;BYDAY=2WE")]
    [InlineData("FREQ=MONTHLY;BYDAY=-1TU", "2026-12-29 14:00", "2026-12-28 14:00", "FREQ=MONTHLY;BYDAY=-1MO")]
    [InlineData("FREQ=MONTHLY;BYMONTHDAY=8", "2026-12-08 14:00", "2026-12-10 14:00", "FREQ=MONTHLY;BYMONTHDAY=10")]
    [InlineData("FREQ=YEARLY;BYMONTH=12;BYDAY=2TU", "2026-12-08 14:00", "2026-12-17 14:00", "FREQ=YEARLY;BYDAY=3TH;BYMONTH=12")]
    [InlineData("FREQ=DAILY;INTERVAL=3", "2026-12-11 14:00", "2026-12-12 14:00", "FREQ=DAILY;INTERVAL=3")]
    public void A_pattern_moves_as_people_mean_it(string rule, string seen, string to, string expected)
    {
        var calendarEvent =
            Build.Event(Build.Series(rule.Contains("-1TU", StringComparison.Ordinal) ? "2026-11-24 14:00" : "2026-12-08 14:00", rule));
        Assert.Equal(expected, Rule(Apply(calendarEvent, Edit(calendarEvent, seen, start: to), ChangeScope.Every).Event));
    }

    [Theory]
    [InlineData("FREQ=MONTHLY;BYMONTHDAY=8,15")]
    [InlineData("FREQ=MONTHLY;BYDAY=MO,TU,WE,TH,FR;BYSETPOS=6")]
    [InlineData("FREQ=YEARLY;BYYEARDAY=342")]
    public void A_pattern_that_has_no_like_a_day_later_is_refused_for_all_and_fine_for_one(string rule)
    {
        var calendarEvent = Build.Event(Build.Series("2026-12-08 14:00", rule));
        var change = Edit(calendarEvent, "2026-12-08 14:00", start: "2026-12-09 14:00");
        Assert.NotNull(Build.Refused("scope", () => Apply(calendarEvent, change, ChangeScope.Every)));
        Assert.Single(Apply(calendarEvent, change, ChangeScope.This).Event.Exceptions);
    }

    [Fact]
    public void By_position_the_second_Tuesday_s_exception_becomes_the_second_Wednesday_s()
    {
        var calendarEvent = Build.Event(Build.Series("2026-09-08 14:00", "FREQ=MONTHLY;BYDAY=2TU")) with
        {
            // 14 September 2027 is a second Tuesday; the Wednesday after it is the third.
            Exceptions = [new EventException(Build.Local("2027-09-14 14:00")) { Own = OwnFields.None.With("place", Place.Called("Loft")) }],
        };
        var outcome = Apply(calendarEvent, Edit(calendarEvent, "2026-09-08 14:00", start: "2026-09-09 14:00"), ChangeScope.Every);
        Assert.Empty(outcome.Lost);
        Assert.Equal(Build.Local("2027-09-08 14:00"), Assert.Single(outcome.Event.Exceptions).RecurrenceId);
    }

    [Fact]
    public void Exceptions_that_lose_their_place_are_named_and_kept_or_dropped()
    {
        var lab = Lab with
        {
            Exceptions =
            [
                new EventException(Build.Local("2026-12-01 14:00")) { Own = OwnFields.None.With("title", "Regatta talk") },
                new EventException(
                    Build.Local("2026-12-03 14:00")) { Start = Build.Local("2026-12-04 09:00"), End = Build.Local("2026-12-04 10:00") },
                new EventException(Build.Local("2026-12-10 14:00")) { IsCancelled = true },
            ],
        };
        var change = Edit(
            lab, "2026-12-08 14:00", series: typed => typed with { Rule = RuleText.Parse("FREQ=WEEKLY;BYDAY=TU;UNTIL=20261218T180000Z") });
        var dropped = Apply(lab, change, ChangeScope.Every);
        Assert.Equal([Build.Local("2026-12-03 14:00"), Build.Local("2026-12-10 14:00")], dropped.Lost.Select(lost => lost.RecurrenceId));
        Assert.Equal(["11-24 14:00", "12-01 14:00", "12-08 14:00", "12-15 14:00"], Dates(dropped.Event));

        var kept = Apply(lab, change, ChangeScope.Every, dropped.Lost.Select(lost => lost.RecurrenceId).ToHashSet());
        Assert.Equal(["11-24 14:00", "12-01 14:00", "12-04 09:00", "12-08 14:00", "12-10 14:00 x", "12-15 14:00"], Dates(kept.Event));
        Assert.Equal("Regatta talk", kept.Event.Exceptions.Single(one => !one.Own.IsNone).Own[EventField.Named("title")]);
    }

    [Fact]
    public void What_is_typed_for_all_goes_for_the_date_seen_too()
    {
        var lab = Lab with
        {
            Exceptions = [
            new EventException(Build.Local("2026-12-01 14:00")) { Own =
                OwnFields.None.With("title", "Regatta talk").With("place", Place.Called("Loft")) }]
        };
        var after = Apply(lab, Edit(lab, "2026-12-01 14:00", title: "Boat building"), ChangeScope.Every).Event;
        Assert.Equal("Boat building", after.Content.Title);
        Assert.Equal(OwnFields.None.With("place", Place.Called("Loft")), after.Exceptions[0].Own);
    }

    [Fact]
    public void A_date_s_own_title_does_not_become_everybody_s()
    {
        var lab = Lab with
        {
            Exceptions =
            [new EventException(Build.Local("2026-12-01 14:00")) { Own = OwnFields.None.With("title", "Regatta talk") }]
        };
        Assert.Equal("Boat lab", Apply(lab, Edit(lab, "2026-12-01 14:00", place: "Loft"), ChangeScope.Every).Event.Content.Title);
    }

    [Fact]
    public void Cancelled_dates_stay_and_removed_ones_go()
    {
        var at = Build.Local("2026-12-08 14:00");
        Assert.Contains("12-08 14:00 x", Dates(Apply(Lab, new Change(ChangeAct.Cancel, at), ChangeScope.This).Event));
        var later = Apply(Lab, new Change(ChangeAct.Cancel, at), ChangeScope.Later);
        Assert.Equal(["12-08 14:00 x", "12-10 14:00 x", "12-15 14:00 x", "12-17 14:00 x"], Dates(later.Successor!));
        Assert.All(Dates(Apply(Lab, new Change(ChangeAct.Cancel, at), ChangeScope.Every).Event),
            date => Assert.EndsWith("x", date, StringComparison.Ordinal));

        Assert.Equal(7, Dates(Apply(Lab, new Change(ChangeAct.Remove, at), ChangeScope.This).Event).Count());
        Assert.Equal(4, Dates(Apply(Lab, new Change(ChangeAct.Remove, at), ChangeScope.Later).Event).Count());
        Assert.True(Apply(Lab, new Change(ChangeAct.Remove, at), ChangeScope.Every).IsRemoved);
    }

    [Fact]
    public void Removing_later_dates_names_the_exceptions_that_go_with_them()
    {
        var lab = Lab with
        {
            Exceptions =
            [new EventException(Build.Local("2026-12-15 14:00")) { Own = OwnFields.None.With("title", "Regatta talk") }]
        };
        Assert.Single(Apply(lab, new Change(ChangeAct.Remove, Build.Local("2026-12-08 14:00")), ChangeScope.Later).Lost);
    }

    [Fact]
    public void Where_only_added_dates_lie_before_a_split_no_date_is_there_twice()
    {
        var lab = Lab with
        {
            Content =
            Lab.Content with { Series = Lab.Series with { Extra = [Build.Local("2026-11-17 14:00"), Build.Local("2026-11-19 14:00")] } }
        };
        var outcome = Apply(lab, Edit(lab, "2026-11-24 14:00", start: "2026-11-24 16:00"), ChangeScope.Later);
        Assert.Equal(["11-17 14:00", "11-19 14:00"], Dates(outcome.Event));
        Assert.Equal(8, Dates(outcome.Successor!).Count());
        Assert.Equal(["11-17 14:00", "11-19 14:00"],
            Dates(Apply(lab, new Change(ChangeAct.Remove, Build.Local("2026-11-24 14:00")), ChangeScope.Later).Event));
    }

    [Fact]
    public void Restoring_brings_back_one_date_or_all()
    {
        var lab = Lab with
        {
            Content = Lab.Content with { Series = Lab.Series with { Removed = [Build.Local("2026-11-26 14:00")] } },
            Exceptions = [new EventException(Build.Local("2026-12-01 14:00")) { IsCancelled = true },
                new EventException(Build.Local("2026-12-15 14:00")) { IsCancelled = true }],
        };
        Assert.Equal(7, Dates(Apply(lab, new Change(ChangeAct.Restore, Build.Local("2026-12-01 14:00")), ChangeScope.This).Event).Count());
        var all = Apply(lab, new Change(ChangeAct.Restore, Build.Local("2026-12-01 14:00")), ChangeScope.Every).Event;
        Assert.Equal(8, Dates(all).Count());
        Assert.DoesNotContain(Dates(all), date => date.EndsWith('x'));
    }

    [Fact]
    public void An_event_without_more_dates_has_no_choice_and_may_begin_to_recur()
    {
        var once = Build.Event(Build.Series("2026-11-24 14:00"));
        var change = Edit(once, "2026-11-24 14:00", series: typed => typed with { Rule = RuleText.Parse("FREQ=DAILY;COUNT=3") });
        Assert.False(new SeriesEdit(once, change, SchoolCalendar.Empty).HasChoice);
        Assert.Equal(["11-24 14:00", "11-25 14:00", "11-26 14:00"], Dates(Apply(once, change, ChangeScope.This).Event));
    }

    [Fact]
    public void A_date_that_is_only_added_or_taken_out_is_no_question_of_which_dates()
    {
        var added = Edit(Lab, "2026-12-01 14:00", series: typed => typed with { Extra = [Build.Local("2026-12-05 14:00")] });
        var takenOut = Edit(Lab, "2026-12-01 14:00", series: typed => typed with { Removed = [Build.Local("2026-12-08 14:00")] });
        var both = Edit(Lab, "2026-12-01 14:00", title: "Knots", series: typed => typed with { Extra = [Build.Local("2026-12-05 14:00")] });

        Assert.False(new SeriesEdit(Lab, added, SchoolCalendar.Empty).HasChoice);
        Assert.False(new SeriesEdit(Lab, takenOut, SchoolCalendar.Empty).HasChoice);
        Assert.True(new SeriesEdit(Lab, both, SchoolCalendar.Empty).HasChoice);
        Assert.Contains("12-05 14:00", Dates(Apply(Lab, added, ChangeScope.Every).Event));
    }

    [Fact]
    public void Another_zone_keeps_the_wall_clock()
    {
        var after = Apply(Lab,
            Edit(Lab, "2026-11-24 14:00",
                series: typed => typed with
                {
                    Timing = Timing.Timed(
                    typed.Timing.Start, typed.Timing.End, DateTimeZoneProviders.Tzdb["Europe/Oslo"])
                }), ChangeScope.Every).Event;
        Assert.Equal(("Europe/Oslo", Build.Local("2026-11-24 14:00")), (after.Series.Timing.Zone.Id, after.Series.Timing.Start));
    }

    public static TheoryData<string, Func<EventContent, EventContent>> NotForOneDate => new()
    {
        { "all day",
            typed => typed with { Series =
                typed.Series with { Timing = Timing.WholeDays(Build.Day("2026-12-01"), Build.Day("2026-12-01"), Build.Halifax) } } },
        { "time zone",
            typed => typed with { Series = typed.Series with { Timing =
                Timing.Timed(typed.Series.Timing.Start, typed.Series.Timing.End, Zones.Named("Europe/Oslo")) } } },
        { "Category", typed => typed with { Category = new Category(Guid.NewGuid(), "Training", Build.Harbour) } },
        { "Category", typed => typed with { Tags = ["ropes"] } },
        { "pattern", typed => typed with { Series = typed.Series with { InBreaks = InBreaks.Skip } } },
    };

    [Theory]
    [MemberData(nameof(NotForOneDate))]
    public void What_belongs_to_the_series_is_refused_for_one_date(string reason, Func<EventContent, EventContent> change)
    {
        var edit = Edit(Lab, "2026-12-01 14:00");
        Assert.Contains(reason, Build.Refused("scope", () => Apply(Lab, edit with { Typed = change(edit.Typed!) }, ChangeScope.This)),
            StringComparison.Ordinal);
    }

    [Fact]
    public void A_date_that_is_not_there_any_more_is_said_so() =>
        Assert.NotNull(
            Build.Refused("recurrenceId",
                () => Apply(Lab, Edit(Lab, "2026-12-01 14:00") with { SeenFrom = Build.Local("2026-12-02 14:00") }, ChangeScope.This)));

    [Fact]
    public void Later_dates_are_cancelled_and_stay_in_sight()
    {
        var outcome = Apply(Lab, new Change(ChangeAct.Cancel, Build.Local("2026-12-10 14:00")), ChangeScope.Later);
        Assert.Equal(5, Dates(outcome.Event).Count());
        Assert.Equal(EventState.Live, outcome.Event.State);
        Assert.Equal(["12-10 14:00 x", "12-15 14:00 x", "12-17 14:00 x"], Dates(outcome.Successor!));
    }

    [Fact]
    public void What_follows_the_day_cycle_does_not_move_by_days_but_does_by_hours()
    {
        var school = Build.School(new DayCycle(CycleUnit.Days, 6, true));
        var cycled = Build.Event(Build.Series("2026-11-24 14:00") with { Cycle = new CyclePattern([3], [], null, null) });
        var first = EventDates.All(cycled, school).First();
        ChangeOutcome Moved(int days, int hours) => new SeriesEdit(
            cycled,
            new Change(ChangeAct.Edit, first.Occurrence.RecurrenceId,
                cycled.Content with
                {
                    Series =
                    cycled.Series with { Timing = first.Timing.StartingAt(first.Timing.Start.PlusDays(days).PlusHours(hours)) }
                }),
            school).Apply(ChangeScope.Every, Drop);
        Assert.Contains("day cycle", Build.Refused("scope", () => Moved(1, 0)), StringComparison.Ordinal);
        Assert.Equal(Build.Time("16:00"), EventDates.All(Moved(0, 2).Event, school).First().Occurrence.LocalStart.TimeOfDay);
    }

    [Fact]
    public void A_date_added_by_hand_is_changed_alone_or_taken_out_again()
    {
        var added = Build.Local("2026-11-28 10:00");
        var lab = Lab with { Content = Lab.Content with { Series = Lab.Series with { Extra = [added] } } };
        Assert.Contains("by hand",
            Build.Refused("scope", () => Apply(lab, Edit(lab, "2026-11-28 10:00", start: "2026-11-28 11:00"), ChangeScope.Later)),
                StringComparison.Ordinal);
        Assert.Equal("11-28 11:00",
            Dates(Apply(lab, Edit(lab, "2026-11-28 10:00", start: "2026-11-28 11:00"), ChangeScope.This).Event).ElementAt(2));
        var without = Apply(lab, new Change(ChangeAct.Remove, added), ChangeScope.This).Event.Series;
        Assert.Empty(without.Extra);
        Assert.Empty(without.Removed);
    }

    [Fact]
    public void A_cancelled_series_is_restored_whole_and_not_by_the_date()
    {
        var cancelled = Apply(Lab, new Change(ChangeAct.Cancel, Build.Local("2026-12-01 14:00")), ChangeScope.Every).Event;
        Assert.All(Dates(cancelled), date => Assert.EndsWith("x", date, StringComparison.Ordinal));
        var restore = new Change(ChangeAct.Restore, Build.Local("2026-12-01 14:00"));
        Assert.Contains("whole series is cancelled", Build.Refused("scope", () => Apply(cancelled, restore, ChangeScope.This)),
            StringComparison.Ordinal);
        Assert.Equal(Dates(Lab), Dates(Apply(cancelled, restore, ChangeScope.Every).Event));
    }

    [Fact]
    public void Restoring_later_dates_leaves_the_earlier_ones()
    {
        var lab = Lab with
        {
            Content = Lab.Content with
            {
                Series =
                Lab.Series with { Removed = [Build.Local("2026-11-26 14:00"), Build.Local("2026-12-10 14:00")] }
            },
            Exceptions = [new EventException(Build.Local("2026-12-01 14:00")) { IsCancelled = true },
                new EventException(Build.Local("2026-12-15 14:00")) { IsCancelled = true }],
        };
        var after = Apply(lab, new Change(ChangeAct.Restore, Build.Local("2026-12-08 14:00")), ChangeScope.Later).Event;
        Assert.Equal(
            ["11-24 14:00", "12-01 14:00 x", "12-03 14:00", "12-08 14:00", "12-10 14:00", "12-15 14:00", "12-17 14:00"], Dates(after));
    }

    /// <summary>Whatever is changed: before and after the split, and with what was dropped, every date that differed is accounted
    /// for.</summary>
    [Fact]
    public void Nothing_that_differs_disappears_without_being_named() =>
        CsCheck.Check.Sample(
            CsCheck.Gen.Select(SeriesPropertiesRules, CsCheck.Gen.Int[0, 9], CsCheck.Gen.Int[0, 9], CsCheck.Gen.Int[-3, 3],
                CsCheck.Gen.Enum<ChangeScope>()),
            given =>
            {
                var (rule, exceptionAt, seenAt, days, scope) = given;
                var series = new Series(Build.Series("2026-11-24 14:00").Timing, rule.Ending(12, null));
                var dates = series.All().ToArray();
                if (dates.Length < 2 || dates[^1].LocalStart.Year > 2190)
                    return;
                var calendarEvent = Build.Event(series) with
                {
                    Exceptions =
                    [new EventException(dates[exceptionAt % dates.Length].RecurrenceId) { Own = OwnFields.None.With("title", "Own") }]
                };
                var seen = dates[seenAt % dates.Length];
                var typed = calendarEvent.Content with
                {
                    Series = series with
                    {
                        Timing = EventDates.Find(calendarEvent, seen.RecurrenceId,
                    SchoolCalendar.Empty)!.Value.Timing.StartingAt(seen.LocalStart.PlusDays(days))
                    },
                    Title = EventDates.Find(calendarEvent, seen.RecurrenceId, SchoolCalendar.Empty)!.Value.Title
                };
                try
                {
                    var outcome = Apply(calendarEvent, new Change(ChangeAct.Edit, seen.RecurrenceId, typed), scope);
                    var own = outcome.Event.Exceptions.Concat(outcome.Successor?.Exceptions ?? [])
                        .Count(exception => exception.Own[EventField.Named("title")] is "Own");
                    Assert.Equal(1, own + outcome.Lost.Count);
                }
                catch (RuleException refused)
                {
                    Assert.Equal("scope", refused.Refusals[0].Field);
                }
            }, iter: 400);

    private static CsCheck.Gen<RecurrenceRule> SeriesPropertiesRules =>
        CsCheck.Gen.Where(Recurrence.SeriesProperties.Rules,
            rule => rule.Frequency >= Frequency.Daily && rule.Parts.Hours.Count + rule.Parts.Minutes.Count == 0);
}
