using NodaTime;
using Valtro.Core.Events;
using Valtro.Core.Recurrence;
using Valtro.Core.YearPlans;

namespace Valtro.Core.Tests;

public class ConsequencesTests
{
    private static Consequences Of(Series series) => Of(series, SchoolCalendar.Empty);

    private static Consequences Of(Series series, SchoolCalendar school) =>
        Of(series, school, Instant.MinValue);

    private static Consequences Of(Series series, SchoolCalendar school, Instant now) =>
        Consequences.Of(series, school, RuleWords.For("en-GB"), _ => new Dictionary<Instant, IReadOnlyList<string>>(), now);

    [Fact]
    public void What_is_over_is_said_to_be_over()
    {
        var series = Build.Series("2026-11-24 14:00", "FREQ=WEEKLY;COUNT=2");
        var end = Build.Series("2026-12-01 14:00").All(SchoolCalendar.Empty).Single().End;
        Assert.Contains("All of it is over already.", Of(series, SchoolCalendar.Empty, end).Remarks);
        Assert.DoesNotContain("All of it is over already.", Of(series, SchoolCalendar.Empty, end - Duration.FromSeconds(1)).Remarks);
        Assert.DoesNotContain("All of it is over already.",
            Of(Build.Series("2026-11-24 14:00", "FREQ=WEEKLY"), SchoolCalendar.Empty, end).Remarks);
    }

    [Fact]
    public void All_dates_are_counted_and_the_last_is_named()
    {
        var consequences = Of(Build.Series("2026-09-01 14:00", "FREQ=DAILY;COUNT=100"));
        Assert.Equal(100, consequences.Count);
        Assert.Equal(Consequences.Shown, consequences.Dates.Count);
        Assert.Equal(Build.Day("2026-12-09"), consequences.Last!.Value.LocalStart.Date);
    }

    [Fact]
    public void A_series_without_end_is_called_so()
    {
        var consequences = Of(Build.Series("2026-09-01 14:00", "FREQ=WEEKLY"));
        Assert.Null(consequences.Count);
        Assert.Null(consequences.Last);
        Assert.Contains(consequences.Remarks, remark => remark.Contains("without end", StringComparison.Ordinal));
    }

    [Fact]
    public void The_first_date_after_a_clock_change_is_marked()
    {
        var marked = Of(Build.Series("2026-10-20 14:00", "FREQ=WEEKLY;COUNT=4")).Dates.Where(date => date.Remarks.Count > 0).ToArray();
        Assert.Equal(Build.Day("2026-11-03"), Assert.Single(marked).Occurrence.LocalStart.Date);
        Assert.Equal("clocks went back, still 14:00", Assert.Single(marked[0].Remarks));
    }

    [Fact]
    public void A_date_that_the_clocks_skip_or_repeat_is_marked()
    {
        Assert.Contains("so 03:30", Of(Build.Series("2027-03-14 02:30")).Dates[0].Remarks[0], StringComparison.Ordinal);
        Assert.Contains("twice", Of(Build.Series("2026-11-01 01:30")).Dates[0].Remarks[0], StringComparison.Ordinal);
    }

    [Fact]
    public void A_start_on_another_weekday_is_told() =>
        Assert.Contains(Of(Build.Series("2026-11-25 14:00", "FREQ=WEEKLY;BYDAY=TU")).Remarks,
            remark => remark.Contains("first day", StringComparison.Ordinal));

    [Fact]
    public void Dates_that_run_into_each_other_are_told() =>
        Assert.Contains(Of(Build.Series("2026-11-25 14:00", "FREQ=DAILY;COUNT=3", minutes: 1_500)).Remarks,
            remark => remark.Contains("beyond", StringComparison.Ordinal));

    [Fact]
    public void What_falls_in_a_break_is_listed_with_the_break_and_not_counted()
    {
        var follows = Of(Build.Series("2026-10-13 14:00", "FREQ=WEEKLY;COUNT=4") with { InBreaks = InBreaks.Skip }, Build.School());
        Assert.Equal(3, follows.Count);
        Assert.Equal([DateKind.Takes, DateKind.Takes, DateKind.InBreak, DateKind.Takes], follows.Dates.Select(date => date.Kind));
        Assert.Equal("falls out: Storm week", follows.Dates[2].Remarks[0]);
    }

    [Fact]
    public void A_series_that_ignores_breaks_is_told_which_dates_lie_in_one() =>
        Assert.Contains("in Storm week", Of(Build.Series("2026-10-27 14:00", "FREQ=WEEKLY;COUNT=2"), Build.School()).Dates[0].Remarks);

    [Fact]
    public void Dates_taken_out_stay_in_the_list_so_that_they_can_be_put_back()
    {
        var follows = Of(
            Build.Series("2026-11-24 14:00", "FREQ=WEEKLY;COUNT=3") with
            {
                Removed = [Build.Local("2026-12-01 14:00")],
                Extra = [Build.Local("2026-11-26 14:00")]
            });
        Assert.Equal([DateKind.Takes, DateKind.Added, DateKind.Removed, DateKind.Takes], follows.Dates.Select(date => date.Kind));
    }

    [Theory]
    [InlineData("FREQ=MONTHLY;BYMONTHDAY=31", "Five months have no 31st: there it falls out.")]
    [InlineData(
        "RSCALE=GREGORIAN;FREQ=MONTHLY;BYMONTHDAY=30;SKIP=BACKWARD", "February has no 30th: there the last day of the month stands in.")]
    [InlineData("FREQ=YEARLY;BYMONTH=2;BYMONTHDAY=29", "Most years have no 29 February: there it falls out.")]
    public void Days_that_not_every_month_has_are_told(string rule, string remark) =>
        Assert.Contains(remark, Of(Build.Series("2028-01-29 14:00", rule)).Remarks);

    [Fact]
    public void A_pattern_that_no_day_fits_is_told() =>
        Assert.Contains(Of(Build.Series("2026-11-24 14:00", "FREQ=YEARLY;BYMONTH=2;BYMONTHDAY=30;UNTIL=20601231T000000Z")).Remarks,
            remark => remark.Contains("no further date", StringComparison.Ordinal));

    [Fact]
    public void The_days_of_the_first_year_are_all_there() =>
        Assert.Equal(261, Of(Build.Series("2026-11-24 14:00", "FREQ=WEEKLY;BYDAY=MO,TU,WE,TH,FR")).Days.Count);

    [Fact]
    public void A_date_that_would_move_onto_another_is_told()
    {
        var follows = Of(Build.Series("2026-11-23 14:00", "FREQ=DAILY;COUNT=3") with { InBreaks = InBreaks.Move },
            Build.School(null, new NamedDays("Storm day", Build.Day("2026-11-24"), Build.Day("2026-11-24"))));
        Assert.Equal(2, follows.Count);
        Assert.Contains(follows.Dates, date => date.Remarks.Any(remark => remark.Contains("Storm day", StringComparison.Ordinal)));
    }

    [Fact]
    public void Whole_days_know_no_clock() =>
        Assert.All(Of(Build.DaySeries("2026-10-20", "2026-10-20", "FREQ=WEEKLY;COUNT=4")).Dates, date => Assert.Empty(date.Remarks));

    [Fact]
    public void Where_every_date_falls_out_nothing_is_left() =>
        Assert.Contains(
            Of(Build.Series("2026-10-26 14:00", "FREQ=DAILY;COUNT=3") with { InBreaks = InBreaks.Skip }, Build.School()).Remarks,
            remark => remark.StartsWith("Nothing is left", StringComparison.Ordinal));

    [Fact]
    public void An_event_that_happens_once_has_one_date()
    {
        var follows = Of(Build.Series("2026-11-24 14:00"));
        Assert.Equal((1, "Tuesday 24 November 2026, 14:00 to 15:00"), (follows.Count, follows.Words));
        Assert.Empty(follows.Remarks);
    }
}
