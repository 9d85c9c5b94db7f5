using NodaTime;
using Valtro.Core.Recurrence;

namespace Valtro.Core.Tests.Recurrence;

public class SeriesTests
{
    private static string[] Starts(IEnumerable<Occurrence> occurrences) =>
        [.. occurrences.Select(occurrence => occurrence.LocalStart.ToString("uuuu-MM-dd HH:mm", null))];

    private static string[] Days(IEnumerable<Occurrence> occurrences) =>
        [.. occurrences.Select(occurrence => occurrence.LocalStart.ToString("MM-dd", null))];

    [Fact]
    public void A_one_time_event_has_one_date() =>
        Assert.Equal(["2026-11-24 14:00"], Starts(Build.Series("2026-11-24 14:00").All()));

    [Fact]
    public void A_weekly_rule_recurs_on_its_weekdays() =>
        Assert.Equal(["11-24", "11-26", "12-01", "12-03"], Days(Build.Series("2026-11-24 14:00", "FREQ=WEEKLY;BYDAY=TU,TH;COUNT=4").All()));

    [Fact]
    public void Without_weekdays_a_weekly_rule_takes_the_start_s() =>
        Assert.Equal(["11-24", "12-01"], Days(Build.Series("2026-11-24 14:00", "FREQ=WEEKLY;COUNT=2").All()));

    /// <summary>RFC 5545 3.8.5.3, "Example where the days generated makes a difference because of a different value of WKST".</summary>
    [Theory]
    [InlineData("MO", new[] { "08-05", "08-10", "08-19", "08-24" })]
    [InlineData("SU", new[] { "08-05", "08-17", "08-19", "08-31" })]
    public void The_start_of_the_week_decides_which_weeks_a_fortnightly_rule_means(string weekStart, string[] expected) =>
        Assert.Equal(
            expected, Days(Build.Series("1997-08-05 09:00", $"FREQ=WEEKLY;INTERVAL=2;COUNT=4;BYDAY=TU,SU;WKST={weekStart}").All()));

    [Fact]
    public void Weekdays_limit_a_daily_rule() =>
        Assert.Equal(["11-27", "11-30", "12-01"], Days(Build.Series("2026-11-27 09:00", "FREQ=DAILY;BYDAY=MO,TU,WE,TH,FR;COUNT=3").All()));

    [Fact]
    public void A_start_outside_its_rule_counts_as_the_first_date() =>
        Assert.Equal(["11-25", "12-01", "12-08"], Days(Build.Series("2026-11-25 09:00", "FREQ=WEEKLY;BYDAY=TU;COUNT=3").All()));

    [Fact]
    public void The_end_is_inclusive() =>
        Assert.Equal(["11-24", "12-01"], Days(Build.Series("2026-11-24 14:00", "FREQ=WEEKLY;UNTIL=20261201T180000Z").All()));

    [Fact]
    public void Extra_dates_are_added_and_removed_ones_fall_away()
    {
        var series = Build.Series("2026-11-24 14:00", "FREQ=WEEKLY;COUNT=3") with
        {
            Extra = [Build.Local("2026-11-26 10:00"), Build.Local("2026-12-08 14:00")],
            Removed = [Build.Local("2026-12-01 14:00")],
        };
        Assert.Equal(["2026-11-24 14:00", "2026-11-26 10:00", "2026-12-08 14:00"], Starts(series.All()));
    }

    [Fact]
    public void A_lesson_keeps_its_time_of_day_across_clock_changes()
    {
        var dates = Build.Series("2026-10-26 14:00", "FREQ=WEEKLY;COUNT=2").All().ToArray();
        Assert.Equal(["2026-10-26 14:00", "2026-11-02 14:00"], Starts(dates));
        Assert.Equal(Duration.FromHours(7 * 24 + 1), dates[1].Start - dates[0].Start);
    }

    [Fact]
    public void A_lesson_in_the_spring_gap_moves_forward_by_the_gap()
    {
        var date = Build.Series("2027-03-14 02:30").All().Single();
        Assert.Equal(Build.Local("2027-03-14 03:30"), date.LocalStart);
        Assert.Equal(Build.Local("2027-03-14 02:30"), date.RecurrenceId);
    }

    [Fact]
    public void A_lesson_in_the_autumn_overlap_takes_the_earlier_time() =>
        Assert.Equal(Instant.FromUtc(2026, 11, 1, 4, 30), Build.Series("2026-11-01 01:30").All().Single().Start);

    [Fact]
    public void A_night_watch_ends_at_the_same_time_by_the_clock_also_when_the_clocks_change()
    {
        var autumn = Build.Series("2026-10-30 23:00", "FREQ=DAILY;COUNT=3", minutes: 8 * 60).All().ToArray();
        Assert.Equal([8.0, 9, 8], autumn.Select(date => (date.End - date.Start).TotalHours));
        var spring = Build.Series("2027-03-06 22:00", "FREQ=WEEKLY;BYDAY=SA;COUNT=3", minutes: 8 * 60).All().ToArray();
        Assert.Equal([8.0, 7, 8], spring.Select(date => (date.End - date.Start).TotalHours));
        Assert.All(autumn.Concat(spring), date => Assert.Equal(date.LocalStart.PlusHours(8), date.LocalEnd));
    }

    [Theory]
    [InlineData("2027-03-14 02:30", 45, "2027-03-14 03:30", "2027-03-14 04:15")]
    [InlineData("2027-03-14 02:30", 30, "2027-03-14 03:30", "2027-03-14 04:00")]
    [InlineData("2027-03-14 02:30", 90, "2027-03-14 03:30", "2027-03-14 04:00")]
    [InlineData("2027-03-14 01:30", 60, "2027-03-14 01:30", "2027-03-14 03:30")]
    [InlineData("2026-11-01 01:45", 30, "2026-11-01 01:45", "2026-11-01 02:15")]
    [InlineData("2026-11-01 01:30", 0, "2026-11-01 01:30", "2026-11-01 01:30")]
    public void An_end_never_lies_at_or_before_its_start(string start, int minutes, string from, string to)
    {
        var date = Build.Series(start, minutes: minutes).All().Single();
        Assert.Equal((Build.Local(from), Build.Local(to)), (date.LocalStart, date.LocalEnd));
        Assert.Equal(minutes > 0, date.End > date.Start);
        Assert.All(Build.Series($"2026-10-20 {start[11..]}", "FREQ=DAILY;COUNT=300", minutes: minutes).All(),
            one => Assert.Equal(minutes > 0, one.End > one.Start));
    }

    [Fact]
    public void A_window_holds_what_overlaps_it_and_nothing_else()
    {
        var series = Build.Series("2026-11-24 23:30", "FREQ=DAILY;COUNT=3");
        Assert.Equal(["11-24", "11-25"], Days(series.In(Build.Window("2026-11-25", "2026-11-26"))));
    }

    [Fact]
    public void What_ends_when_the_window_begins_is_not_in_it() =>
        Assert.Empty(Build.Series("2026-11-24 23:00").In(Build.Window("2026-11-25", "2026-11-26")));

    [Fact]
    public void What_has_no_length_is_in_the_window_of_its_moment() =>
        Assert.Single(Build.Series("2026-11-25 00:00", minutes: 0).In(Build.Window("2026-11-25", "2026-11-26")));

    [Fact]
    public void An_all_day_event_stays_on_its_days_wherever_it_is_looked_at_from()
    {
        var regatta = Build.DaySeries("2026-11-27", "2026-11-29");
        foreach (var zone in new[] { "Pacific/Kiritimati", "Pacific/Niue", "Europe/Oslo" })
        {
            var seenFrom = DateTimeZoneProviders.Tzdb[zone];
            Assert.Single(regatta.In(Build.Window("2026-11-29", "2026-11-30", seenFrom)));
            Assert.Empty(regatta.In(Build.Window("2026-11-30", "2026-12-01", seenFrom)));
            Assert.Empty(regatta.In(Build.Window("2026-11-26", "2026-11-27", seenFrom)));
        }
    }

    [Fact]
    public void A_rule_whose_days_never_come_has_only_its_start() =>
        Assert.Single(Build.Series("2026-11-24 09:00", "FREQ=DAILY;INTERVAL=7;BYDAY=MO").All());

    [Fact]
    public void Expansion_ends_with_the_calendar_and_not_with_an_error() =>
        Assert.Equal(new LocalDate(9990, 12, 25), Build.Series("2026-11-24 09:00", "FREQ=WEEKLY").All().Last().LocalStart.Date);

    [Theory]
    [InlineData("FREQ=WEEKLY;COUNT=3", "2026-12-08")]
    [InlineData("FREQ=WEEKLY;UNTIL=20261202T000000Z", "2026-12-01")]
    public void The_reach_ends_with_the_last_date(string rule, string lastDay)
    {
        var (from, to) = Build.Series("2026-11-24 14:00", rule).Reach();
        Assert.Equal(Build.Local("2026-11-24 14:00").InZoneStrictly(Build.Halifax).ToInstant(), from);
        Assert.Equal((Build.Day(lastDay) + new LocalTime(15, 0)).InZoneStrictly(Build.Halifax).ToInstant(), to);
    }

    [Fact]
    public void The_reach_of_a_series_without_end_has_no_end() => Assert.Null(Build.Series("2026-11-24 14:00", "FREQ=WEEKLY").Reach().To);
}
