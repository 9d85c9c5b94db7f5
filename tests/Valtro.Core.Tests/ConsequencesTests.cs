using Valtro.Core.Events;
using Valtro.Core.Recurrence;

namespace Valtro.Core.Tests;

public class ConsequencesTests
{
    private static Consequences Of(Series series) => Consequences.Of(series, RuleWords.For("en-GB"));

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
        var marked = Of(Build.Series("2026-10-20 14:00", "FREQ=WEEKLY;COUNT=4")).Dates.Where(date => date.Remark.Length > 0).ToArray();
        Assert.Equal(Build.Day("2026-11-03"), Assert.Single(marked).Occurrence.LocalStart.Date);
        Assert.Equal("clocks went back, still 14:00", marked[0].Remark);
    }

    [Fact]
    public void A_date_that_the_clocks_skip_or_repeat_is_marked()
    {
        Assert.Contains("so 03:30", Of(Build.Series("2027-03-14 02:30")).Dates[0].Remark, StringComparison.Ordinal);
        Assert.Contains("twice", Of(Build.Series("2026-11-01 01:30")).Dates[0].Remark, StringComparison.Ordinal);
    }

    [Fact]
    public void A_start_on_another_weekday_is_told() =>
        Assert.Contains(Of(Build.Series("2026-11-25 14:00", "FREQ=WEEKLY;BYDAY=TU")).Remarks, remark => remark.Contains("first day", StringComparison.Ordinal));

    [Fact]
    public void Dates_that_run_into_each_other_are_told() =>
        Assert.Contains(Of(Build.Series("2026-11-25 14:00", "FREQ=DAILY;COUNT=3", minutes: 1_500)).Remarks, remark => remark.Contains("beyond", StringComparison.Ordinal));
}
