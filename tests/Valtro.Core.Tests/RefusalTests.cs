using Valtro.Core.Calendars;
using Valtro.Core.Events;
using Valtro.Core.Recurrence;
using Valtro.Core.YearPlans;

namespace Valtro.Core.Tests;

/// <summary>Bad input gets a sentence that names the field and what would be right.</summary>
public class RefusalTests
{
    private static EventDraft Tagged(params string[] tags) => Build.Draft() with { Tags = tags };

    private static EventContent Check(EventDraft draft) => draft.Check(Build.Setting, RichText.Empty);

    [Fact]
    public void Tags_are_counted_trimmed_and_said_once()
    {
        Assert.Equal(["ropes", "sails"], Check(Tagged("#sails", "ropes", " Ropes")).Tags);
        Assert.Contains("At most",
            Build.Refused("tags", () => Check(Tagged([.. Enumerable.Range(1, 30).Select(number => $"tag{number}")]))),
                StringComparison.Ordinal);
        Assert.NotNull(Build.Refused("tags", () => Check(Tagged(new string('x', 41)))));
    }

    [Fact]
    public void Dates_by_hand_have_a_measure() =>
        Assert.Contains("Make another series",
            Build.Refused("extra",
                () => Check(
                    Build.Draft(
                        repeat: Build.Weekly()) with
                    {
                        Extra = [.. Enumerable.Range(1, 1_000)
                            .Select(days => Build.Day("2026-11-24").PlusDays(days))]
                    })), StringComparison.Ordinal);

    [Theory]
    [InlineData("2026-11-24", "2026-11-24", "after its start")]
    [InlineData("2026-11-24", "2026-11-23", "after its start")]
    [InlineData("2026-11-24", "2040-11-24", "too long")]
    public void A_window_that_somebody_asks_for_has_a_length(string first, string end, string sentence) =>
        Assert.Contains(sentence, Build.Refused("to", () => Core.Time.Window.Asked(Build.Day(first), Build.Day(end), Build.Halifax, 3_700)),
            StringComparison.Ordinal);

    [Theory]
    [InlineData("2026-11-24", "2026-11-24", "2026-11-24", "2026-11-25")]
    [InlineData("2026-11-24", "1999-01-01", "2026-11-24", "2026-11-25")]
    [InlineData("-9998-01-01", "9999-12-31", "1900-01-01", "2200-01-01")]
    [InlineData("9999-12-31", "9999-12-31", "2199-12-31", "2200-01-01")]
    public void Any_other_window_is_cut_to_what_is_possible(string first, string end, string from, string to)
    {
        var window = Build.Window(first, end);
        Assert.Equal((Build.Day(from), Build.Day(to)), (window.First, window.End));
    }

    private static YearPlan Year(string? name = "2026/27", string? first = "2026-08-01", string? last = "2027-07-31", int terms = 0) => new(
        name, first is null ? null : Build.Day(first), last is null ? null : Build.Day(last),
        [.. Enumerable.Range(0, terms)
            .Select(number =>
                new NamedDays($"Term {number}", Build.Day("2026-08-01").PlusDays(number), Build.Day("2026-08-01").PlusDays(number)))],
        [], null);

    [Theory]
    [InlineData("", "2026-08-01", "2027-07-31", "name")]
    [InlineData("2026/27", null, "2027-07-31", "first")]
    [InlineData("2026/27", "2026-08-01", null, "last")]
    [InlineData("2026/27", "2026-08-01", "2026-07-31", "last")]
    [InlineData("2026/27", "2026-08-01", "2028-07-31", "last")]
    public void A_year_needs_its_name_and_both_days(string name, string? first, string? last, string field) =>
        Assert.NotNull(Build.Refused(field, () => Year(name, first, last)));

    [Fact]
    public void A_year_has_a_number_of_terms()
    {
        Assert.Equal(60, Year(terms: 60).Terms.Count);
        Assert.Contains("At most 60", Build.Refused("terms", () => Year(terms: 61)), StringComparison.Ordinal);
    }

    [Fact]
    public void Years_that_say_the_same_are_told_from_those_that_do_not()
    {
        Assert.Equal(Year(terms: 2), Year(terms: 2));
        Assert.Equal(Year(terms: 2).GetHashCode(), Year(terms: 2).GetHashCode());
        Assert.NotEqual(Year(terms: 2), Year(terms: 3));
        Assert.NotEqual(Year(), Year("Another"));
        Assert.NotEqual(Year(), Year(last: "2027-07-30"));
    }

    [Theory]
    [InlineData("UNTIL=20261123T180000Z", true)]
    [InlineData("UNTIL=20261123", false)]
    [InlineData("UNTIL=20261218", true)]
    [InlineData("UNTIL=20261218T180000Z", false)]
    public void An_end_fits_its_start(string until, bool timed) =>
        Assert.NotNull(
            Build.Refused("UNTIL",
                () => RuleText.Parse($"FREQ=DAILY;{until}")
                    .CheckedAgainst(
                        timed ? Build.Local("2026-11-24 14:00") : Build.Local("2026-11-24 00:00"), timed ? Build.Halifax : null)));

    [Fact]
    public void Plates_go_on_when_all_that_read_well_are_taken()
    {
        var taken = new HashSet<string> { "PW", "POR", "PORT" };
        for (var number = 2; number < 100; number++)
            taken.Add($"PW{number}");
        Assert.Equal("100", Plate.Propose("Port Watch", taken).Code);
        Assert.Equal("C", Plate.Propose("", new HashSet<string>()).ToString());
    }
}
