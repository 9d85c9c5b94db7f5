using NodaTime;
using Valtro.Core.Events;
using Valtro.Core.Intake;

namespace Valtro.Core.Tests;

/// <summary>Which entry of a followed source goes where.</summary>
public sealed class SourceRulesTests
{
    private static readonly Guid Port = Guid.CreateVersion7();

    private static readonly Landing OnPort = new(LandingTo.Calendar, Port, LandingAs.Deadline);

    private static SourceRule Begins(params string[] words) => new(RuleBy.TitleBegins, words, OnPort, WithoutWord: true);

    private static Ruling Of(SourceRule rule, string title, string[]? categories = null, string place = "") =>
        new SourceRules { Rules = [rule] }.Of(title, categories ?? [], place);

    [Theory]
    [InlineData("7B – Chart exercise 5", "Chart exercise 5")]
    [InlineData("7B: Chart exercise 5", "Chart exercise 5")]
    [InlineData("[7B] Chart exercise 5", "Chart exercise 5")]
    [InlineData("(7b) Chart exercise 5", "Chart exercise 5")]
    [InlineData("  7B | Chart exercise 5 ", "Chart exercise 5")]
    [InlineData("7B Chart exercise 5", "Chart exercise 5")]
    // Nothing would be left of it.
    [InlineData("7B", "7B")]
    [InlineData("7B –", "7B –")]
    public void A_title_that_begins_with_a_word_goes_without_it(string title, string becomes) =>
        Assert.Equal(new Ruling(0, OnPort, becomes), Of(Begins("7B"), title));

    [Theory]
    [InlineData("7BC – Chart exercise")]
    [InlineData("17B – Chart exercise")]
    [InlineData("Chart exercise 7B")]
    [InlineData("")]
    public void Another_word_is_no_beginning(string title) =>
        Assert.Equal(new Ruling(null, Landing.Asked, title), Of(Begins("7B"), title));

    [Theory]
    [InlineData("[7B]", "[7B] Chart", "Chart")]
    [InlineData("Übung", "ÜBUNG: Tau", "Tau")]
    [InlineData("7C", "7D – Log", null)]
    [InlineData("👩‍🚀", "👩‍🚀 Orbit", "Orbit")]
    public void Words_are_as_people_type_them(string word, string title, string? becomes) =>
        Assert.Equal(becomes ?? title, Of(Begins(word), title).Title);

    [Fact]
    public void Each_way_of_looking_finds_what_it_is_about()
    {
        Assert.Equal(0, Of(new(RuleBy.TitleHas, ["exam"], OnPort), "Final EXAM").Rule);
        Assert.Equal(0, Of(new(RuleBy.Category, ["Meeting"], Landing.LeftOut), "x", ["meeting"]).Rule);
        Assert.Null(Of(new(RuleBy.Category, ["Meet"], Landing.LeftOut), "x", ["meeting"]).Rule);
        Assert.Equal(0, Of(new(RuleBy.PlaceHas, ["hall"], OnPort), "x", [], "North Hall").Rule);
    }

    [Fact]
    public void The_first_rule_that_fits_decides_and_somebodys_word_before_it()
    {
        var rules = new SourceRules { Rules = [Begins("7B"), new(RuleBy.TitleHas, ["log"], Landing.LeftOut)], Else = Landing.LeftOut };
        Assert.Equal(0, rules.Of("7B – log", [], "").Rule);
        Assert.Equal(1, rules.Of("7C – log", [], "").Rule);
        Assert.Equal((null, Landing.LeftOut), rules.Of("x", [], "") is var other ? (other.Rule, other.Landing) : default);
        var byHand = rules.Of("7B – log", [], "", Landing.Asked);
        Assert.Equal((null, Landing.Asked, "log"), (byHand.Rule, byHand.Landing, byHand.Title));
    }

    [Fact]
    public void What_becomes_due_has_no_length()
    {
        var ruling = new Ruling(0, OnPort, "Knots test");
        var timed = SourceRules.Landed(Build.Event(Build.Series("2026-12-04 09:00"), "7B – Knots test"), ruling).Content;
        Assert.Equal(("Knots test", true, timed.Series.Timing.Start), (timed.Title, timed.IsDeadline, timed.Series.Timing.End));
        var days = SourceRules.Landed(
            Build.Event(new(Time.Timing.WholeDays(new(2026, 12, 4), new(2026, 12, 6), DateTimeZone.Utc)), "x"), ruling).Content;
        Assert.Equal(1, days.Series.Timing.Days);
        var asEvent = SourceRules.Landed(new CalendarEvent(
            Guid.Empty, Port, default, timed, EventState.Live, default), ruling with { Landing = OnPort with { As = LandingAs.Event } });
        Assert.False(asEvent.Content.IsDeadline);
    }

    [Fact]
    public void What_a_rule_lacks_is_said_with_its_field()
    {
        static string[] Refused(SourceRules rules) =>
            [.. Assert.Throws<RuleException>(() => rules.Checked()).Refusals.Select(one => $"{one.Field} {one.Saying.Code}")];
        Assert.Equal(["rules.1.words source.ruleWords", "rules.2.landing source.ruleCalendar", "else source.ruleCalendar"],
            Refused(new SourceRules
            {
                Rules = [Begins("7B"), Begins(" ", ""), new(RuleBy.TitleHas, ["x"], new Landing(LandingTo.Calendar))],
                Else = new Landing(LandingTo.Calendar),
            }));
        Assert.Equal(["until intake.untilBeforeFrom"], Refused(new SourceRules { From = new(2026, 12, 2), Until = new(2026, 12, 1) }));
        Assert.Equal(["rules source.tooManyRules"], Refused(new SourceRules { Rules = [.. Enumerable.Repeat(Begins("a"), 51)] }));
        // What is not needed is not kept.
        var kept = new SourceRules { Rules = [Begins(" 7B ", "7b") with { Landing = Landing.LeftOut with { CalendarId = Port } }] }.Checked();
        Assert.Equal(("7B", Landing.LeftOut), (Assert.Single(kept.Rules[0].Words), kept.Rules[0].Landing));
    }
}
