using NodaTime;
using Valtro.Core.Events;
using Valtro.Core.Recurrence;
using Valtro.Core.YearPlans;

namespace Valtro.Core.Tests;

/// <summary>A year carried to the next: the Tuesday of the third week of a term stays that.</summary>
public class CarryingTests
{
    /// <summary>Begins a day earlier by weeks, its storm week lies two weeks later, its autumn is a week shorter.</summary>
    private static YearPlan Next { get; } = new(
        "2027/28", Build.Day("2027-08-01"), Build.Day("2028-07-31"),
        [new NamedDays("Autumn", Build.Day("2027-09-06"), Build.Day("2027-12-10")),
            new NamedDays("Spring", Build.Day("2028-01-05"), Build.Day("2028-04-07"))],
        [new NamedDays("Storm week", Build.Day("2027-11-08"), Build.Day("2027-11-12")),
            new NamedDays("Founders’ day", Build.Day("2027-09-22"), Build.Day("2027-09-22")),
            new NamedDays("Winter break", Build.Day("2027-12-11"), Build.Day("2028-01-03"))],
        null);

    private static SchoolCalendar Both { get; } = new([Build.Year(), Next], IsoDayOfWeek.Monday);

    private static Carrying ToNext { get; } = new(Build.Year(), Next, IsoDayOfWeek.Monday);

    [Theory]
    [InlineData("2026-09-07", "2027-09-06", 1, null)]
    [InlineData("2026-09-22", "2027-09-21", 3, null)]
    // The ninth week with school: the storm week lies before it this year, and after it the next.
    [InlineData("2026-11-10", "2027-11-02", 9, null)]
    [InlineData("2026-11-14", "2027-11-06", 9, null)]
    // After both storm weeks the same week is the same again.
    [InlineData("2026-11-24", "2027-11-23", 11, null)]
    [InlineData("2026-12-17", "2027-12-09", 14, "carry.termIsShorter")]
    [InlineData("2026-09-23", "2027-09-23", 3, "carry.intoBreak")]
    [InlineData("2027-01-05", "2028-01-05", 1, "carry.beforeTerm")]
    [InlineData("2026-12-30", "2027-12-29", 0, "carry.inBreak")]
    [InlineData("2026-10-28", "2027-10-27", 0, "carry.inBreak")]
    [InlineData("2027-05-20", "2028-05-18", 0, "carry.outsideTerms")]
    public void A_day_keeps_its_weekday_and_the_week_of_its_term(string day, string to, int week, string? remark)
    {
        var carried = ToNext.To(Build.Day(day));

        Assert.Equal((Build.Day(to), week, remark), (carried.Day, carried.Week, carried.Remark?.Code));
    }

    [Fact]
    public void Every_day_of_the_year_keeps_its_weekday_or_says_why_not()
    {
        for (var day = Build.Year().First; day <= Build.Year().Last; day = day.PlusDays(1))
        {
            var carried = ToNext.To(day);
            Assert.True(carried.Day.DayOfWeek == day.DayOfWeek || carried.Remark is not null, $"{day} to {carried.Day}");
            Assert.InRange(Period.DaysBetween(day, carried.Day), 340, 390);
        }
    }

    [Fact]
    public void Terms_of_other_names_are_the_same_by_their_order_and_one_that_is_missing_is_named()
    {
        NamedDays Renamed(NamedDays term, string name) => term with { Name = name };
        var renamed = new YearPlan(
            "2027/28", Next.First, Next.Last, [Renamed(Next.Terms[0], "Herbst"), Renamed(Next.Terms[1], "Frühling")], [], null);
        var without = new YearPlan("2027/28", Next.First, Next.Last, [Next.Terms[1]], [], null);

        Assert.Equal(Build.Day("2027-09-21"), new Carrying(Build.Year(), renamed, IsoDayOfWeek.Monday).To(Build.Day("2026-09-22")).Day);
        Assert.Equal("carry.noSuchTerm",
            new Carrying(Build.Year(), without, IsoDayOfWeek.Monday).To(Build.Day("2026-09-22")).Remark?.Code);
    }

    [Fact]
    public void A_term_is_carried_to_another_of_the_same_year()
    {
        var year = Build.Year();

        var carried = new Carrying(year, year, year.Terms[1], IsoDayOfWeek.Monday).To(Build.Day("2026-09-22"));

        Assert.Equal((Build.Day("2027-01-19"), 3), (carried.Day, carried.Week));
    }

    private static CarriedEvent Carried(Series series, string title = "Boat lab", EventState state = EventState.Live) =>
        CarriedEvent.Of(Build.Event(series, title, state), ToNext, Both)!;

    private static IEnumerable<LocalDate> Days(CarriedEvent carried) =>
        carried.Content!.Series.All(Both).Select(date => date.LocalStart.Date);

    [Fact]
    public void What_happens_once_keeps_its_times_and_its_length()
    {
        var carried = Carried(Build.DaySeries("2026-11-13", "2026-11-15"), "Regatta 2026");

        Assert.Equal((Build.Day("2027-11-05"), 3, "Regatta 2027"),
            (carried.Content!.Series.Timing.Start.Date, carried.Content.Series.Timing.Days, carried.Content.Title));
        Assert.Equal(["carry.yearInTitle"], carried.Remarks.Select(remark => remark.Code));
    }

    [Fact]
    public void A_series_begins_and_ends_in_the_same_weeks()
    {
        var carried = Carried(Build.Series("2026-09-08 14:00", "FREQ=WEEKLY;BYDAY=TU,TH;UNTIL=20261126T180000Z") with
        {
            InBreaks = InBreaks.Skip,
        });

        Assert.Equal((1, 11), (carried.To.Week, carried.Last!.Week));
        Assert.Equal((Build.Day("2027-09-07"), Build.Day("2027-11-25")), (Days(carried).First(), Days(carried).Last()));
        Assert.DoesNotContain(Build.Day("2027-11-09"), Days(carried));
        Assert.True(carried.IsPlain);
    }

    [Fact]
    public void What_comes_by_the_month_stays_where_its_rule_puts_it()
    {
        var drill = Carried(Build.Series("2026-09-07 10:00", "FREQ=MONTHLY;BYDAY=1MO;UNTIL=20261207T140000Z"));

        Assert.Equal(Build.Day("2027-09-06"), Days(drill).First());
        Assert.All(Days(drill), day => Assert.InRange(day.Day, 1, 7));
        Assert.True(drill.IsPlain);
    }

    [Fact]
    public void As_many_dates_by_count_are_as_many_again()
    {
        var carried = Carried(Build.Series("2026-09-08 14:00", "FREQ=WEEKLY;COUNT=6"));

        Assert.Equal(6, Days(carried).Count());
    }

    [Fact]
    public void What_goes_on_by_itself_or_was_cancelled_is_not_carried()
    {
        Assert.Equal((null, "carry.goesOn"), Code(Carried(Build.Series("2026-09-08 14:00", "FREQ=WEEKLY"))));
        Assert.Equal((null, "carry.goesBeyond"), Code(Carried(Build.Series("2026-09-08 14:00", "FREQ=WEEKLY;COUNT=70"))));
        Assert.Equal((null, "carry.wasCancelled"), Code(Carried(Build.Series("2026-09-08 14:00"), state: EventState.Cancelled)));
        Assert.Null(CarriedEvent.Of(Build.Event(Build.Series("2025-09-08 14:00")), ToNext, Both));

        static (EventContent?, string) Code(CarriedEvent carried) => (carried.Content, carried.Remarks[0].Code);
    }

    [Fact]
    public void Dates_that_differed_or_were_taken_out_are_named_and_not_carried()
    {
        var series = Build.Series("2026-09-08 14:00", "FREQ=WEEKLY;COUNT=6") with { Removed = [Build.Local("2026-09-15 14:00")] };
        var moved = Build.Event(series) with
        {
            Exceptions = [new EventException(Build.Local("2026-09-22 14:00")) { IsCancelled = true }],
        };

        var carried = CarriedEvent.Of(moved, ToNext, Both)!;

        Assert.Equal(["carry.removed", "carry.differing"], carried.Remarks.Select(remark => remark.Code));
        Assert.Empty(carried.Content!.Series.Removed);
        Assert.False(carried.IsPlain);
    }

    [Fact]
    public void A_day_that_somebody_chose_stands_and_an_off_pattern_one_is_said()
    {
        var series = Build.Event(Build.Series("2026-09-08 14:00", "FREQ=WEEKLY;BYDAY=TU;COUNT=6"));

        var chosen = CarriedEvent.Of(series, ToNext, Both, Build.Day("2027-09-15"))!;

        Assert.Equal(Build.Day("2027-09-15"), chosen.Content!.Series.Timing.Start.Date);
        Assert.Contains(chosen.Remarks, remark => remark.Code == "carry.offPattern");
    }

    [Theory]
    [InlineData("Regatta 2026", 1, "Regatta 2027")]
    [InlineData("Plan 2026/27", 1, "Plan 2027/28")]
    [InlineData("Plan 2099/00, 2026–27", 1, "Plan 2100/01, 2027–28")]
    [InlineData("Room 20265, 2026.5 m", 1, "Room 20265, 2026.5 m")]
    [InlineData("Grade 9 May fair", 1, "Grade 9 May fair")]
    public void Years_in_a_title_go_along(string title, int years, string later) => Assert.Equal(later, TitleYears.Later(title, years));
}
