using System.Globalization;
using Valtro.Core.Events;
using Valtro.Core.Typing;

namespace Valtro.Core.Tests;

/// <summary>Tables from elsewhere: their columns by name in any order, and all that a row can say.</summary>
public class TableHeadsTests
{
    private static readonly CultureInfo English = CultureInfo.GetCultureInfo("en-CA");

    [Fact]
    public void Columns_are_known_by_their_names_in_either_language_and_in_any_order()
    {
        var english = TableHeads.Of(["What", "Teacher", "DATE", "Start time", "Repeats"]);
        var german = TableHeads.Of(["Titel", "Datum", "Raum", "Wiederholung:"]);

        Assert.True(english.HasHead);
        Assert.Equal([TableColumn.Title, null, TableColumn.Date, TableColumn.From, TableColumn.Repeat], english.Columns);
        Assert.Equal(["Teacher"], english.Unused);
        Assert.Equal([TableColumn.Title, TableColumn.Date, TableColumn.Place, TableColumn.Repeat], german.Columns);
    }

    [Fact]
    public void A_first_line_of_values_is_no_head_and_has_the_usual_columns()
    {
        var heads = TableHeads.Of(["3 Dec 2026", "9", "10", "Knots exam", "Loft", "PW", "more"]);

        Assert.False(heads.HasHead);
        Assert.Equal(
            new TableRow("3 Dec 2026", "9", "10", "Knots exam", "Loft", "PW"),
            heads.RowOf(["3 Dec 2026", "9", "10", "Knots exam", "Loft", "PW", "more"], English));
    }

    [Fact]
    public void A_day_with_its_time_in_one_cell_is_both()
    {
        var row = TableHeads.Of(["title", "date"]).RowOf(["Knots", "2026-12-03 09:15"], English);

        Assert.Equal(("2026-12-03", "09:15"), (row.Date, row.From));
    }

    private static readonly Category Sailing = new(Guid.CreateVersion7(), "Sailing", Build.Harbour);

    private static (EventDraft Draft, RefusalList Refusals) Read(TableRow row, string culture = "en-GB")
    {
        var refusals = new RefusalList();
        return (row.Read(CultureInfo.GetCultureInfo(culture), Build.Day("2026-11-24"), [Sailing], refusals), refusals);
    }

    private static TableRow Knots { get; } = new("1 Dec 2026", "9", "10", "Knots", "Loft", "PW");

    [Fact]
    public void A_row_says_all_that_an_event_has()
    {
        var (draft, refusals) = Read(Knots with
        {
            LastDay = "2 Dec",
            Category = "sailing",
            Tags = "boats, exam",
            Links = "https://pinewick.example/a pinewick.example/b",
        });

        Assert.True(refusals.IsEmpty);
        Assert.Equal((Build.Day("2026-12-02"), Sailing.Id), (draft.EndDate, draft.CategoryId));
        Assert.Equal(["boats", "exam"], draft.Tags);
        Assert.Equal(2, draft.Links.Count);
    }

    [Theory]
    [InlineData("en-GB", "every Tuesday until 18 Dec 2026", RepeatPattern.Weekly, RepeatEnd.On)]
    [InlineData("en-GB", "every 2 weeks for 6 dates", RepeatPattern.Weekly, RepeatEnd.After)]
    [InlineData("de-DE", "jeden Dienstag bis 18. Dezember 2026", RepeatPattern.Weekly, RepeatEnd.On)]
    public void A_repetition_is_read_in_words(string culture, string text, RepeatPattern pattern, RepeatEnd ends)
    {
        var (draft, refusals) = Read(Knots with { Date = "2026-12-01", Repeat = text }, culture);

        Assert.True(refusals.IsEmpty, string.Join(' ', refusals.All.Select(one => one.Saying.Code)));
        Assert.Equal((pattern, ends), (draft.Repeat!.Pattern, draft.Repeat.Ends));
    }

    [Theory]
    [InlineData("now and then")]
    [InlineData("Tuesday")]
    public void What_could_mean_another_thing_is_refused_by_its_column(string text)
    {
        Assert.Equal("repeat", Assert.Single(Read(Knots with { Repeat = text }).Refusals.All).Field);
    }

    [Fact]
    public void Cells_that_cannot_be_read_are_refused_together_each_by_its_column()
    {
        var (_, refusals) = Read(Knots with { LastDay = "31 Feb", Category = "Flying", To = "late" });

        Assert.Equal(["to", "category", "lastDay"], refusals.All.Select(one => one.Field));
    }

    [Theory]
    [InlineData("en-CA", "due")]
    [InlineData("de-DE", "fällig")]
    public void A_day_in_a_column_of_its_own_makes_a_deadline(string culture, string word)
    {
        var row = TableHeads.Of(["title", "due date", "time"]).RowOf(["Essay", "2026-12-04", "17:00"], CultureInfo.GetCultureInfo(culture));

        Assert.Equal(("2026-12-04", "17:00", word), (row.Date, row.From, row.To));
    }
}
