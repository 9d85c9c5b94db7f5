using System.Globalization;
using NodaTime;
using Valtro.Core.Typing;

namespace Valtro.Core.Tests.Typing;

public class TypedTests
{
    private static readonly CultureInfo British = CultureInfo.GetCultureInfo("en-GB");

    /// <summary>A Monday.</summary>
    private static readonly LocalDate Today = new(2026, 11, 23);

    private static LineReading Read(string line) => OneLine.Read(line, British, Today);

    [Theory]
    [InlineData("9", "09:00")]
    [InlineData("9:30", "09:30")]
    [InlineData("930", "09:30")]
    [InlineData("9.30pm", "21:30")]
    [InlineData("21:30", "21:30")]
    [InlineData("12am", "00:00")]
    [InlineData("12pm", "12:00")]
    [InlineData("25", null)]
    [InlineData("9:75", null)]
    [InlineData("13pm", null)]
    [InlineData("noon", "12:00")]
    [InlineData("half past nine", "09:30")]
    [InlineData("7 pm", "19:00")]
    [InlineData("9 or 10", null)]
    public void Times_as_people_type_them(string typed, string? time) =>
        Assert.Equal(time is null ? null : Build.Time(time), Typed.Time(typed, British));

    [Theory]
    [InlineData("24 Nov", "2026-11-24")]
    [InlineData("24th November 2027", "2027-11-24")]
    [InlineData("Tue, 24 Nov", "2026-11-24")]
    [InlineData("24.11.", "2026-11-24")]
    [InlineData("24/11/26", "2026-11-24")]
    [InlineData("2026-11-24", "2026-11-24")]
    [InlineData("8 Jan", "2027-01-08")]
    [InlineData("tomorrow", "2026-11-24")]
    [InlineData("Friday", "2026-11-27")]
    [InlineData("Dec 18", "2026-12-18")]
    [InlineData("12th of June 2027", "2027-06-12")]
    [InlineData("next Monday", "2026-11-30")]
    [InlineData("Tue, 25 Nov", null)]
    [InlineData("31 Feb", null)]
    [InlineData("soon", null)]
    public void Days_as_people_type_them(string typed, string? day) =>
        Assert.Equal(day is null ? null : Build.Day(day), Typed.Day(typed, British, Today));

    /// <summary>In the plan of a year that has begun long ago, or lies ahead, a day is that year's; today stays today.</summary>
    [Theory]
    [InlineData("22 feb", "2029-02-22")]
    [InlineData("1 sept", "2028-09-01")]
    [InlineData("22 feb 2027", "2027-02-22")]
    [InlineData("today", "2026-11-23")]
    [InlineData("in two weeks", "2026-12-07")]
    public void A_day_without_a_year_is_the_one_nearest_to_where_it_is_asked(string typed, string day) =>
        Assert.Equal([Build.Day(day)], Typed.Days(typed, British, Today, near: new LocalDate(2029, 1, 15)));

    [Fact]
    public void What_could_be_two_days_is_both() =>
        Assert.Equal([Build.Day("2026-11-27"), Build.Day("2026-12-04")], Typed.Days("next Friday", British, Today));

    [Fact]
    public void A_line_of_six_hundred_characters_is_refused() => Assert.NotNull(Build.Refused("line", () => Read(new string('x', 600))));

    [Fact]
    public void A_row_of_a_table_is_read_and_what_is_wrong_is_named_by_its_column()
    {
        var refusals = new RefusalList();
        var draft = new TableRow("3 Dec", "9", "10.30", "Knots", "Loft", "PW").Read(British, Today, [], refusals);
        Assert.True(refusals.IsEmpty);
        Assert.Equal((Build.Day("2026-12-03"), Build.Time("09:00"), Build.Time("10:30")), (draft.Date, draft.From, draft.To));
        new TableRow("31 Feb", "25", "", "Knots", "", "").Read(British, Today, [], refusals);
        Assert.Equal(["date", "from"], refusals.All.Select(refusal => refusal.Field));
        var unclear = new RefusalList();
        new TableRow("next Friday", "9", "10", "Knots", "", "").Read(British, Today, [], unclear);
        Assert.Equal("row.dayUnclear", Assert.Single(unclear.All).Saying.Code);
        Assert.True(new TableRow("", null, " ", "", "", null).IsEmpty);
        Assert.True(new TableRow("3 Dec", "", "", "Open day", "", "").Read(British, Today, [], new RefusalList()).AllDay);
    }
}
