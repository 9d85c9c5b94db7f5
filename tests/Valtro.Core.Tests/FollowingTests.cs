using NodaTime;
using Valtro.Core.Events;
using Valtro.Core.YearPlans;

namespace Valtro.Core.Tests;

/// <summary>Which date is which after a series was changed.</summary>
public class FollowingTests
{
    private static CalendarEvent Lab(string start = "2026-11-24 14:00", string? rule = "FREQ=WEEKLY;COUNT=6") =>
        Build.Event(Build.Series(start, rule));

    private static (int, LocalDateTime)? Find(CalendarEvent before, string date, params CalendarEvent[] after) =>
        Following.Find(before, after, Build.Local(date), SchoolCalendar.Empty);

    [Fact]
    public void Where_nothing_moved_each_date_is_itself() =>
        Assert.Equal((0, Build.Local("2026-12-08 14:00")), Find(Lab(), "2026-12-08 14:00", Lab()));

    [Fact]
    public void Dates_move_as_the_series_did_by_hours_days_and_to_another_weekday()
    {
        Assert.Equal((0, Build.Local("2026-12-08 16:00")), Find(Lab(), "2026-12-08 14:00", Lab("2026-11-24 16:00")));
        Assert.Equal((0, Build.Local("2026-12-10 14:00")), Find(Lab(), "2026-12-08 14:00", Lab("2026-11-26 14:00")));
        Assert.Equal((0, Build.Local("2026-12-10 09:00")),
            Find(Lab(rule: "FREQ=WEEKLY;BYDAY=TU;COUNT=6"), "2026-12-08 14:00", Lab("2026-11-26 09:00", "FREQ=WEEKLY;BYDAY=TH;COUNT=6")));
    }

    [Fact]
    public void The_third_stays_the_third_where_the_month_decides()
    {
        var before = Lab("2026-11-10 14:00", "FREQ=MONTHLY;BYDAY=2TU;COUNT=6");
        Assert.Equal((0, Build.Local("2027-01-13 14:00")),
            Find(before, "2027-01-12 14:00", Lab("2026-11-11 14:00", "FREQ=MONTHLY;BYDAY=2WE;COUNT=6")));
    }

    [Fact]
    public void A_rule_of_another_kind_has_no_place_for_it() =>
        Assert.Null(Find(Lab(), "2026-12-08 14:00", Lab("2026-11-25 09:00", "FREQ=MONTHLY;COUNT=6")));

    [Fact]
    public void An_event_of_one_date_is_that_date() =>
        Assert.Equal((0, Build.Local("2026-12-01 10:00")), Find(Lab(rule: null), "2026-11-24 14:00", Lab("2026-12-01 10:00", null)));

    [Fact]
    public void After_a_split_later_dates_are_in_what_goes_on_and_return_when_it_is_undone()
    {
        var (whole, ended) = (Lab(), Lab(rule: "FREQ=WEEKLY;COUNT=2"));
        var rest = Lab("2026-12-09 15:00", "FREQ=WEEKLY;COUNT=4");
        Assert.Equal((0, Build.Local("2026-12-01 14:00")), Find(whole, "2026-12-01 14:00", ended, rest));
        Assert.Equal((1, Build.Local("2026-12-09 15:00")), Find(whole, "2026-12-08 14:00", ended, rest));
        Assert.Equal((1, Build.Local("2026-12-30 15:00")), Find(whole, "2026-12-29 14:00", ended, rest));
        Assert.Equal(
            Build.Local("2026-12-29 14:00"), Following.Back(rest, ended, whole, Build.Local("2026-12-30 15:00"), SchoolCalendar.Empty));
    }
}
