using System.Globalization;
using NodaTime;
using Valtro.Core.Events;
using Valtro.Core.ICalendar;
using Valtro.Core.Recurrence;
using Valtro.Core.YearPlans;

namespace Valtro.Core.Tests;

public class YearPlanTests
{
    private static IEnumerable<string> Days(Series series, SchoolCalendar school, int most = 20) =>
        series.All(school).Take(most).Select(date => date.LocalStart.ToString("MM-dd", CultureInfo.InvariantCulture));

    private static Series Weekly(InBreaks inBreaks, string byDay = "TU", int count = 4, string start = "2026-10-13 14:00") =>
        Build.Series(start, $"FREQ=WEEKLY;BYDAY={byDay};COUNT={count}") with { InBreaks = inBreaks };

    [Fact]
    public void A_series_leaves_out_its_breaks_ignores_them_or_moves_out_of_them()
    {
        var school = Build.School(null, new NamedDays("Half week", Build.Day("2026-10-26"), Build.Day("2026-10-28")));
        Assert.Equal(["10-13", "10-20", "11-03"], Days(Weekly(InBreaks.Skip), school));
        Assert.Equal(["10-13", "10-20", "10-27", "11-03"], Days(Weekly(InBreaks.Ignore), school));
        Assert.Equal(["10-13", "10-20", "10-29", "11-03"], Days(Weekly(InBreaks.Move), school));
    }

    [Fact]
    public void Where_the_whole_week_is_closed_a_date_that_would_move_falls_out() =>
        Assert.Equal(["10-13", "10-20", "11-03"], Days(Weekly(InBreaks.Move), Build.School()));

    [Fact]
    public void Two_dates_that_move_onto_one_another_are_one()
    {
        var school = Build.School(null, new NamedDays("Half week", Build.Day("2026-10-26"), Build.Day("2026-10-28")));
        Assert.Equal(["10-19", "10-20", "10-22", "10-29"], Days(Weekly(InBreaks.Move, "MO,TU,TH", 6, "2026-10-19 14:00"), school));
    }

    [Fact]
    public void A_moved_date_keeps_the_name_that_its_rule_gives_it()
    {
        var school = Build.School(null, new NamedDays("Half week", Build.Day("2026-10-26"), Build.Day("2026-10-28")));
        var moved = Weekly(InBreaks.Move).All(school).Single(date => date.LocalStart.Date == Build.Day("2026-10-29"));
        Assert.Equal(Build.Local("2026-10-27 14:00"), moved.RecurrenceId);
    }

    [Fact]
    public void A_date_added_by_hand_takes_place_in_a_break_too() =>
        Assert.Contains("10-28", Days(Weekly(InBreaks.Skip) with { Extra = [Build.Local("2026-10-28 14:00")] }, Build.School()));

    [Fact]
    public void Days_of_the_cycle_count_school_days_and_rest_over_breaks()
    {
        var school = Build.School(new DayCycle(CycleUnit.Days, 6, RestartsEachTerm: true));
        Assert.Equal(1, school.NumberOf(Build.Day("2026-09-07")));
        Assert.Equal(5, school.NumberOf(Build.Day("2026-09-11")));
        Assert.Equal(0, school.NumberOf(Build.Day("2026-09-12")));
        Assert.Equal(6, school.NumberOf(Build.Day("2026-09-14")));
        Assert.Equal(1, school.NumberOf(Build.Day("2026-09-15")));
        Assert.Equal(0, school.NumberOf(Build.Day("2026-10-27")));
        Assert.Equal(school.NumberOf(Build.Day("2026-10-23")) % 6 + 1, school.NumberOf(Build.Day("2026-11-02")));
        Assert.Equal(1, school.NumberOf(Build.Day("2027-01-04")));
    }

    [Fact]
    public void Weeks_take_turns_and_a_week_of_holiday_takes_none()
    {
        var school = Build.School(new DayCycle(CycleUnit.Weeks, 2, RestartsEachTerm: false));
        var letters = new[] { "2026-10-12", "2026-10-19", "2026-10-26", "2026-11-02" }.Select(day => school.NumberOf(Build.Day(day)));
        Assert.Equal([2, 1, 0, 2], letters);
    }

    [Fact]
    public void A_series_follows_the_day_cycle()
    {
        var school = Build.School(new DayCycle(CycleUnit.Days, 6, RestartsEachTerm: true));
        var series = Build.Series("2026-09-07 14:00") with { Cycle = new CyclePattern([3], [], null, 4) };
        Assert.Equal(["09-09", "09-17", "09-25", "10-05"], Days(series, school));
        var weekB =
            Build.Series("2026-09-07 14:00") with { Cycle = new CyclePattern([2], [IsoDayOfWeek.Friday], Build.Day("2026-10-16"), null) };
        Assert.Equal(["09-18", "10-02", "10-16"], Days(weekB, Build.School(new DayCycle(CycleUnit.Weeks, 2, true))));
    }

    [Fact]
    public void A_changed_plan_names_the_series_and_dates_that_change()
    {
        var before = Build.School();
        var after = Build.School(null, new NamedDays("Storm week", Build.Day("2026-11-09"), Build.Day("2026-11-13")));
        var follows = Build.Event(Weekly(InBreaks.Skip, count: 8),
            "Follows") with
        {
            Exceptions =
                [new EventException(Build.Local("2026-11-10 14:00")) { Own = OwnFields.None.With("title", "Special") }]
        };
        var ignores = Build.Event(Weekly(InBreaks.Ignore, count: 8), "Ignores");
        var impact = Assert.Single(PlanImpact.Of([follows, ignores], before, after));
        Assert.Equal("Follows", impact.Event.Content.Title);
        Assert.Equal([Build.Day("2026-11-10")], impact.Gone);
        Assert.Equal([Build.Day("2026-10-27")], impact.New);
        Assert.Equal([Build.Day("2026-11-10")], impact.Exceptions);
    }

    [Fact]
    public void The_next_year_keeps_weekdays()
    {
        var next = Build.Year().CopiedTo("2027/28");
        Assert.Equal((Build.Day("2027-08-01"), Build.Day("2028-07-31")), (next.First, next.Last));
        Assert.Equal(new NamedDays("Autumn", Build.Day("2027-09-06"), Build.Day("2027-12-17")), next.Terms[0]);
        Assert.Equal(IsoDayOfWeek.Monday, next.Breaks[0].First.DayOfWeek);
    }

    [Theory]
    [InlineData("2026-10-30", "2026-10-26", "breaks")]
    [InlineData("2025-10-26", "2026-10-30", "breaks")]
    public void A_break_that_is_none_is_refused(string first, string last, string field) =>
        Assert.NotNull(Build.Refused(field, () => Build.Year(null, new NamedDays("Storm week", Build.Day(first), Build.Day(last)))));

    [Fact]
    public void Breaks_that_overlap_are_refused_by_name() =>
        Assert.Contains("“One” and “Two” overlap", Build.Refused("breaks", () => Build.Year(null,
            new NamedDays("One", Build.Day("2026-10-01"), Build.Day("2026-10-05")),
                new NamedDays("Two", Build.Day("2026-10-05"), Build.Day("2026-10-08")))), StringComparison.Ordinal);

    [Theory]
    [InlineData(CycleUnit.Days, 0)]
    [InlineData(CycleUnit.Days, 11)]
    [InlineData(CycleUnit.Weeks, 1)]
    public void A_cycle_beyond_measure_is_refused(CycleUnit unit, int length) =>
        Assert.NotNull(Build.Refused("cycle", () => Build.Year(new DayCycle(unit, length, true))));

    [Fact]
    public void Breaks_are_read_from_somebody_s_file()
    {
        const string file = """
            BEGIN:VCALENDAR
            VERSION:2.0
            PRODID:-//Somebody//EN
            BEGIN:VEVENT
            UID:1
            DTSTAMP:20260101T000000Z
            SUMMARY:Lantern days
            DTSTART;VALUE=DATE:20261026
            DTEND;VALUE=DATE:20261031
            END:VEVENT
            BEGIN:VEVENT
            UID:2
            DTSTAMP:20260101T000000Z
            SUMMARY:Founders' day
            DTSTART;VALUE=DATE:20261030
            END:VEVENT
            BEGIN:VEVENT
            UID:3
            DTSTAMP:20260101T000000Z
            SUMMARY:A meeting
            DTSTART:20261112T100000Z
            END:VEVENT
            BEGIN:VEVENT
            UID:4
            DTSTAMP:20260101T000000Z
            SUMMARY:Another year
            DTSTART;VALUE=DATE:20281226
            END:VEVENT
            END:VCALENDAR
            """;
        var breaks = BreakReader.Read(file, Build.Day("2026-08-01"), Build.Day("2027-07-31"), out var skipped);
        Assert.Equal([new NamedDays("Lantern days, Founders' day", Build.Day("2026-10-26"), Build.Day("2026-10-30"))], breaks);
        Assert.Equal(["A meeting", "Another year"], skipped.Order());
    }

    [Theory]
    [InlineData("")]
    [InlineData("no calendar")]
    public void A_file_that_is_no_calendar_is_refused(string file) =>
        Assert.NotNull(Build.Refused("file", () => BreakReader.Read(file, Build.Day("2026-08-01"), Build.Day("2027-07-31"), out _)));
}
