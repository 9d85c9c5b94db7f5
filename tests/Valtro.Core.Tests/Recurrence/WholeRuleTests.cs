using Valtro.Core.Recurrence;

namespace Valtro.Core.Tests.Recurrence;

/// <summary>Frequencies and parts beyond the weekly rule. The vectors (ExpandCommandTests) hold many more.</summary>
public class WholeRuleTests
{
    private static IEnumerable<string> Days(Series series, int most = 6) =>
        series.All().Take(most).Select(date => $"{date.LocalStart:uuuu-MM-dd}");

    [Theory]
    [InlineData("2026-11-27", "FREQ=MONTHLY;BYDAY=-1FR", "2026-11-27 2026-12-25 2027-01-29")]
    [InlineData("2026-11-26", "FREQ=YEARLY;BYMONTH=11;BYDAY=4TH", "2026-11-26 2027-11-25 2028-11-23")]
    [InlineData("2026-11-30", "FREQ=MONTHLY;BYDAY=MO,TU,WE,TH,FR;BYSETPOS=-1", "2026-11-30 2026-12-31 2027-01-29")]
    [InlineData("2026-02-13", "FREQ=MONTHLY;BYMONTHDAY=13;BYDAY=FR", "2026-02-13 2026-03-13 2026-11-13")]
    [InlineData("2028-02-29", "FREQ=YEARLY", "2028-02-29 2032-02-29 2036-02-29")]
    [InlineData("2026-12-31", "FREQ=YEARLY;BYYEARDAY=-1", "2026-12-31 2027-12-31 2028-12-31")]
    [InlineData("2026-05-11", "FREQ=YEARLY;BYWEEKNO=20;BYDAY=MO", "2026-05-11 2027-05-17 2028-05-15")]
    public void Patterns_of_a_school(string start, string rule, string dates) =>
        Assert.Equal(dates.Split(' '), Days(Build.DaySeries(start, start, rule), 3));

    [Theory]
    [InlineData("OMIT", "2026-01-31 2026-03-31 2026-05-31")]
    [InlineData("BACKWARD", "2026-01-31 2026-02-28 2026-03-31")]
    [InlineData("FORWARD", "2026-01-31 2026-03-01 2026-03-31")]
    public void What_a_month_does_not_have_is_left_out_or_stands_in(string skip, string dates) =>
        Assert.Equal(dates.Split(' '),
            Days(Build.DaySeries("2026-01-31", "2026-01-31", $"RSCALE=GREGORIAN;FREQ=MONTHLY;BYMONTHDAY=31;SKIP={skip}"), 3));

    [Fact]
    public void A_day_that_spills_onto_a_date_is_one_date() =>
        Assert.Equal(["2026-01-01", "2026-01-31", "2026-02-01", "2026-03-01", "2026-03-31", "2026-04-01"],
            Days(Build.DaySeries("2026-01-01", "2026-01-01", "RSCALE=GREGORIAN;FREQ=MONTHLY;BYMONTHDAY=1,31;SKIP=FORWARD")));

    [Fact]
    public void A_leap_day_stands_in_in_other_years() =>
        Assert.Equal(["2024-02-29", "2025-02-28", "2026-02-28", "2027-02-28", "2028-02-29"],
            Days(Build.DaySeries("2024-02-29", "2024-02-29", "RSCALE=GREGORIAN;FREQ=YEARLY;SKIP=BACKWARD"), 5));

    [Fact]
    public void A_time_that_the_clocks_move_keeps_its_place_and_is_not_there_twice()
    {
        var series = Build.Series("2027-03-14 01:00", "FREQ=HOURLY;COUNT=4");
        var starts = series.All().Select(date => $"{date.LocalStart:HH:mm}").ToArray();
        Assert.Equal(["01:00", "03:00", "04:00"], starts);
    }

    /// <summary>How much work a rule may make is bounded in <see cref="Expansion"/>: without that, these would not end.</summary>
    [Theory]
    [InlineData("FREQ=YEARLY;BYMONTH=2;BYMONTHDAY=30")]
    [InlineData("FREQ=MONTHLY;BYMONTH=2;BYMONTHDAY=30")]
    [InlineData("FREQ=DAILY;BYMONTH=2;BYMONTHDAY=30")]
    [InlineData("FREQ=SECONDLY;BYMONTH=2;BYMONTHDAY=30")]
    [InlineData("FREQ=SECONDLY;INTERVAL=3600;BYMINUTE=30")]
    [InlineData("FREQ=MINUTELY;INTERVAL=1440;BYHOUR=3")]
    [InlineData("FREQ=HOURLY;INTERVAL=24;BYHOUR=3;BYMONTH=1;BYDAY=MO")]
    [InlineData("FREQ=YEARLY;BYYEARDAY=366;BYMONTH=3")]
    [InlineData("FREQ=YEARLY;BYWEEKNO=53;BYMONTH=6")]
    [InlineData("FREQ=MONTHLY;BYDAY=5MO;BYMONTHDAY=1;INTERVAL=10000")]
    [InlineData("FREQ=MONTHLY;BYDAY=MO;BYSETPOS=300")]
    public void A_rule_that_never_matches_ends_with_its_start_alone(string rule) =>
        Assert.Single(Build.Series("2026-11-24 14:00", rule).All());

    [Fact]
    public void A_window_holds_so_many_dates_of_a_series_and_no_more()
    {
        var series = Build.Series("2026-11-24 14:00", "FREQ=SECONDLY");
        Assert.Equal(Series.MostInWindow, series.In(Build.Window("2026-11-24", "2036-11-24")).Count());
        Assert.Equal(Series.MostInWindow,
            (series with { Extra = [series.Timing.Start.PlusDays(1)] }).In(Build.Window("2026-11-24", "2036-11-24")).Count());
    }

    [Fact]
    public void A_rule_of_thousands_of_dates_a_year_is_no_calendar() =>
        Assert.Contains("5000",
            Build.Refused("repeat.text",
                () =>
                    (Build.Draft() with
                    {
                        Repeat =
                        new Valtro.Core.Events.RepeatDraft(Valtro.Core.Events.RepeatPattern.Text, Text: "FREQ=MINUTELY")
                    })
                    .CheckSeries(Build.Setting)), StringComparison.Ordinal);

    [Theory]
    [InlineData("FREQ=MONTHLY;BYDAY=2TU;COUNT=500", "2066-11-01")]
    [InlineData("FREQ=MONTHLY;BYDAY=MO,TU,WE,TH,FR;BYSETPOS=-1;COUNT=500", "2066-11-01")]
    [InlineData("FREQ=MONTHLY;BYMONTHDAY=31;COUNT=500", "2066-11-01")]
    [InlineData("FREQ=DAILY;BYDAY=SA;COUNT=3000", "2066-11-01")]
    [InlineData("RSCALE=GREGORIAN;FREQ=MONTHLY;BYMONTHDAY=1,30;SKIP=FORWARD;COUNT=1500", "2066-11-01")]
    public void A_count_is_kept_however_far_one_jumps(string rule, string from)
    {
        var series = Build.Series("2026-11-24 14:00", rule);
        var start = Build.Day(from).AtMidnight();
        Assert.Equal(series.All().SkipWhile(date => date.RecurrenceId < start), series.From(start));
    }
}
