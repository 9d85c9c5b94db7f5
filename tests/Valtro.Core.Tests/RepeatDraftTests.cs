using CsCheck;
using Valtro.Core.Events;
using Valtro.Core.Recurrence;

namespace Valtro.Core.Tests;

/// <summary>The sentence of the event page, to a rule and back.</summary>
public class RepeatDraftTests
{
    private static Series Check(RepeatDraft repeat, string date = "2026-11-24") =>
        Build.Draft(date, repeat: repeat).CheckSeries(Build.Setting);

    /// <summary>Also where no year plan gives the dates.</summary>
    private static Series Made(RepeatDraft repeat)
    {
        var timing = Build.Series("2026-11-24 14:00").Timing;
        return new Series(timing, repeat.RuleFor(timing)) { Cycle = repeat.CycleFor(timing) };
    }

    private static readonly Gen<RepeatDraft> Ends = Gen.OneOf(
        Gen.Const(new RepeatDraft(RepeatPattern.Daily)),
        Gen.Int[0, 700]
            .Select(days => new RepeatDraft(RepeatPattern.Daily, Ends: RepeatEnd.On, Until: Build.Day("2026-11-24").PlusDays(days))),
        Gen.Int[1, 400].Select(count => new RepeatDraft(RepeatPattern.Daily, Ends: RepeatEnd.After, Count: count)));

    private static readonly Gen<RepeatDraft> Positions = Gen.OneOf(
        Gen.Select(Gen.Int[0, 31], Gen.Enum<Skip>(),
            (day, skip) => new RepeatDraft(RepeatPattern.Monthly, By: MonthPosition.Day, MonthDay: day == 0 ? -1 : day,
                Skip: day > 28 ? skip : Skip.Omit)),
        Gen.Select(Gen.Int[0, 5], Gen.Int[1, 7],
            (ordinal, weekday) =>
                new RepeatDraft(RepeatPattern.Monthly, By: MonthPosition.Weekday, Ordinal: ordinal == 0 ? -1 : ordinal, Weekday: weekday)),
        Gen.Int[0, 5]
            .Select(ordinal => new RepeatDraft(RepeatPattern.Monthly, By: MonthPosition.Workday, Ordinal: ordinal == 0 ? -1 : ordinal)));

    private static readonly Gen<RepeatDraft> Patterns = Gen.OneOf(
        Gen.Const(new RepeatDraft(RepeatPattern.Daily)),
        Gen.Int[1, 7].Array[1, 5].Select(weekdays => new RepeatDraft(RepeatPattern.Weekly, Weekdays: [.. weekdays.Distinct().Order()])),
        Positions,
        Gen.Select(Positions, Gen.Int[1, 12], (position, month) => position with { Pattern = RepeatPattern.Yearly, Month = month }),
        Gen.Select(Gen.Int[1, 10].Array[1, 3], Gen.Int[1, 7].Array[0, 2], (numbers, weekdays) =>
            new RepeatDraft(RepeatPattern.Cycle, Numbers: [.. numbers.Distinct().Order()], Weekdays: [.. weekdays.Distinct().Order()])));

    [Fact]
    public void Every_sentence_is_found_again_in_the_rule_that_it_made() =>
        (from pattern in Patterns
         from end in Ends
         from interval in Gen.Int[1, 9]
         select pattern with
         {
             Interval = pattern.Pattern == RepeatPattern.Cycle ? null : interval,
             Ends = end.Ends,
             Until = end.Until,
             Count = end.Count
         })
        .Sample(draft => Assert.Equal(draft, RepeatDraft.Of(Made(draft))), iter: 2_000);

    [Theory]
    [InlineData("FREQ=DAILY", RepeatPattern.Daily)]
    [InlineData("FREQ=WEEKLY", RepeatPattern.Weekly)]
    [InlineData("FREQ=MONTHLY", RepeatPattern.Monthly)]
    [InlineData("FREQ=YEARLY", RepeatPattern.Yearly)]
    [InlineData("FREQ=YEARLY;BYMONTH=5", RepeatPattern.Yearly)]
    public void What_a_rule_leaves_to_its_start_is_said(string rule, RepeatPattern pattern)
    {
        var draft = RepeatDraft.Of(Build.Series("2026-11-24 14:00", rule))!;
        Assert.Equal(pattern, draft.Pattern);
        Assert.Equal(pattern == RepeatPattern.Weekly ? [2] : null, draft.Weekdays);
        Assert.Equal(pattern is RepeatPattern.Monthly or RepeatPattern.Yearly ? 24 : null, draft.MonthDay);
        Assert.Equal(pattern == RepeatPattern.Yearly ? rule.Contains("BYMONTH", StringComparison.Ordinal) ? 5 : 11 : null, draft.Month);
    }

    [Theory]
    [InlineData("FREQ=DAILY;BYMONTH=5")]
    [InlineData("FREQ=WEEKLY;BYDAY=MO;WKST=SU")]
    [InlineData("FREQ=WEEKLY;BYDAY=MO,TU;BYSETPOS=1")]
    [InlineData("FREQ=MONTHLY;BYMONTHDAY=1,15")]
    [InlineData("FREQ=MONTHLY;BYMONTHDAY=-2")]
    [InlineData("FREQ=MONTHLY;BYDAY=FR;BYMONTHDAY=13")]
    [InlineData("FREQ=MONTHLY;BYDAY=TU")]
    [InlineData("FREQ=MONTHLY;BYDAY=MO,TU;BYSETPOS=1")]
    [InlineData("FREQ=MONTHLY;BYMONTH=5")]
    [InlineData("FREQ=YEARLY;BYMONTH=5,6")]
    [InlineData("FREQ=YEARLY;BYDAY=2TU")]
    [InlineData("FREQ=YEARLY;BYWEEKNO=20")]
    [InlineData("FREQ=DAILY;BYHOUR=9,14")]
    [InlineData("FREQ=HOURLY;COUNT=4;INTERVAL=3")]
    public void What_no_sentence_says_is_kept_as_the_rule(string rule)
    {
        var draft = RepeatDraft.Of(Build.Series("2026-11-24 14:00", rule))!;
        Assert.Equal((RepeatPattern.Text, rule), (draft.Pattern, draft.Text));
        Assert.Equal(rule, RuleText.Format(Check(draft).Rule!));
    }

    [Fact]
    public void What_happens_once_has_no_sentence() => Assert.Null(RepeatDraft.Of(Build.Series("2026-11-24 14:00")));

    [Theory]
    [InlineData("2026-12-08T18:00:00Z", "2026-12-08")]
    [InlineData("2026-12-08T17:59:00Z", "2026-12-07")]
    [InlineData("2026-12-09T03:59:00Z", "2026-12-08")]
    public void The_last_day_is_the_last_on_which_a_date_can_start(string moment, string day) =>
        Assert.Equal(Build.Day(day),
            RepeatDraft.LastDay(
                new Until.Moment(NodaTime.Text.InstantPattern.General.Parse(moment).Value), Build.Series("2026-11-24 14:00").Timing));

    public static TheoryData<string, RepeatDraft> Wrong => new()
    {
        { "repeat.weekdays", new RepeatDraft(RepeatPattern.Weekly) },
        { "repeat.weekdays", new RepeatDraft(RepeatPattern.Weekly, Weekdays: [8]) },
        { "repeat.numbers", new RepeatDraft(RepeatPattern.Cycle) },
        { "repeat.numbers", new RepeatDraft(RepeatPattern.Cycle, Numbers: [0]) },
        { "repeat.numbers", new RepeatDraft(RepeatPattern.Cycle, Numbers: [11]) },
        { "repeat.text", new RepeatDraft(RepeatPattern.Text) },
        { "repeat.text", new RepeatDraft(RepeatPattern.Text, Text: " ") },
        { "repeat.text", new RepeatDraft(RepeatPattern.Text, Text: "FREQ=SOMETIMES") },
        { "repeat.text", new RepeatDraft(RepeatPattern.Text, Text: "FREQ=DAILY;UNTIL=20261218") },
        { "repeat.interval", new RepeatDraft(RepeatPattern.Daily, Interval: 10_001) },
        { "repeat.by", new RepeatDraft(RepeatPattern.Monthly) },
        { "repeat.by", new RepeatDraft(RepeatPattern.Monthly, By: MonthPosition.Day, MonthDay: 32) },
        { "repeat.by", new RepeatDraft(RepeatPattern.Monthly, By: MonthPosition.Day, MonthDay: -2) },
        { "repeat.by", new RepeatDraft(RepeatPattern.Monthly, By: MonthPosition.Weekday, Ordinal: 2) },
        { "repeat.by", new RepeatDraft(RepeatPattern.Monthly, By: MonthPosition.Weekday, Ordinal: 6, Weekday: 2) },
        { "repeat.by", new RepeatDraft(RepeatPattern.Monthly, By: MonthPosition.Workday, Ordinal: 0) },
        { "repeat.month", new RepeatDraft(RepeatPattern.Yearly, By: MonthPosition.Day, MonthDay: 1) },
        { "repeat.month", new RepeatDraft(RepeatPattern.Yearly, By: MonthPosition.Day, MonthDay: 1, Month: 13) },
    };

    [Theory]
    [MemberData(nameof(Wrong))]
    public void What_is_wrong_is_named_by_its_field(string field, RepeatDraft repeat) =>
        Assert.NotNull(Build.Refused(field, () => Check(repeat)));

    [Fact]
    public void A_rule_may_be_pasted_with_its_name() =>
        Assert.Equal("FREQ=WEEKLY;BYDAY=TU",
            RuleText.Format(Check(new RepeatDraft(RepeatPattern.Text, Text: " rrule:FREQ=WEEKLY;BYDAY=TU ")).Rule!));
}
