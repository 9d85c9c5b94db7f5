using NodaTime;
using Valtro.Core.YearPlans;

namespace Valtro.Core.Tests;

/// <summary>What of a year stands on one sheet of paper.</summary>
public class YearSheetTests
{
    private static YearSheet Sheet(string day, int startsIn = 8) =>
        YearSheet.Of(new SchoolCalendar([Build.Year()], IsoDayOfWeek.Monday), Build.Day(day), startsIn);

    [Theory]
    [InlineData("2026-08-01", 8, "2026-08-01")]
    [InlineData("2027-07-31", 8, "2026-08-01")]
    [InlineData("2026-07-31", 8, "2025-08-01")]
    [InlineData("2026-12-31", 1, "2026-01-01")]
    [InlineData("2026-11-30", 12, "2025-12-01")]
    public void It_has_the_twelve_months_of_the_year_that_holds_a_day(string day, int startsIn, string first)
    {
        var sheet = Sheet(day, startsIn);

        Assert.Equal((Build.Day(first), Build.Day(first).PlusYears(1)), (sheet.First, sheet.End));
    }

    [Fact]
    public void Terms_number_their_weeks_of_school_and_leave_out_those_of_a_break()
    {
        var autumn = Sheet("2026-11-23").Terms[0];
        var year = Build.Year();

        Assert.Equal("Autumn", autumn.Name);
        Assert.Equal(Build.Day("2026-09-07"), autumn.Weeks[0]);
        Assert.DoesNotContain(Build.Day("2026-10-26"), autumn.Weeks);
        Assert.All(autumn.Weeks, first => Assert.Contains(
            Enumerable.Range(0, 5).Select(first.PlusDays), day => !year.Breaks.Any(span => span.Holds(day))));
        // As a year is carried to the next by its weeks.
        Assert.All(autumn.Weeks.Index(), week => Assert.Equal(
            week.Index + 1, new Carrying(year, year, IsoDayOfWeek.Monday).To(week.Item.PlusDays(4)).Week));
    }

    [Fact]
    public void A_year_that_has_no_plan_has_months_and_nothing_else()
    {
        var sheet = Sheet("2031-01-01");

        Assert.Empty(sheet.Terms);
        Assert.Empty(sheet.Breaks);
    }

    [Fact]
    public void What_lies_across_the_edge_of_the_year_stands_on_both_sheets()
    {
        var winter = Build.Year().Breaks.Single(span => span.Name == "Winter break");

        Assert.Contains(winter, Sheet("2026-12-31", 1).Breaks);
        Assert.Contains(winter, Sheet("2027-01-01", 1).Breaks);
    }

    [Fact]
    public void What_is_on_once_a_month_is_seldom_and_what_is_on_more_often_is_not()
    {
        var dates = Enumerable.Repeat("drill", YearSheet.MostDates).Concat(Enumerable.Repeat("lab", YearSheet.MostDates + 1)).Append("regatta");

        Assert.Equal([new("lab", YearSheet.MostDates + 1)], YearSheet.Often(dates));
    }
}
