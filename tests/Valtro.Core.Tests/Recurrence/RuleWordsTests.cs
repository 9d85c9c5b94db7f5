using Valtro.Core.Recurrence;

namespace Valtro.Core.Tests.Recurrence;

public class RuleWordsTests
{
    private static readonly RuleWords English = RuleWords.For("en-GB");

    [Theory]
    [InlineData(null, "Tuesday 24 November 2026, 14:00 to 15:00")]
    [InlineData("FREQ=WEEKLY;BYDAY=TU", "Every Tuesday, 14:00 to 15:00")]
    [InlineData("FREQ=WEEKLY;INTERVAL=2;BYDAY=TU,TH;UNTIL=20261218T180000Z",
        "Every second Tuesday and Thursday, 14:00 to 15:00, until 18 December 2026")]
    [InlineData(
        "FREQ=WEEKLY;INTERVAL=3;BYDAY=MO,TU,WE;COUNT=10", "Every 3 weeks on Monday, Tuesday and Wednesday, 14:00 to 15:00, 10 dates")]
    [InlineData("FREQ=WEEKLY;BYDAY=MO,TU,WE,TH,FR", "Every weekday, 14:00 to 15:00")]
    [InlineData("FREQ=WEEKLY;BYDAY=MO,TU,WE,TH,FR,SA,SU", "Every day, 14:00 to 15:00")]
    [InlineData("FREQ=WEEKLY", "Every Tuesday, 14:00 to 15:00")]
    [InlineData("FREQ=DAILY", "Every day, 14:00 to 15:00")]
    [InlineData("FREQ=DAILY;INTERVAL=2;COUNT=1", "Every second day, 14:00 to 15:00, one date")]
    [InlineData("FREQ=DAILY;INTERVAL=5", "Every 5 days, 14:00 to 15:00")]
    [InlineData("FREQ=DAILY;BYDAY=MO", "Every day that is a Monday, 14:00 to 15:00")]
    public void A_rule_is_said_in_words(string? rule, string words) =>
        Assert.Equal(words, English.Say(Build.Series("2026-11-24 14:00", rule)));

    [Fact]
    public void Whole_days_and_moments_are_said_as_such()
    {
        Assert.Equal("Every Friday, all day, until 18 December 2026",
            English.Say(Build.DaySeries("2026-11-27", "2026-11-27", "FREQ=WEEKLY;UNTIL=20261218")));
        Assert.Equal("Friday 27 November 2026, 3 whole days", English.Say(Build.DaySeries("2026-11-27", "2026-11-29")));
        Assert.Equal("Tuesday 24 November 2026, at 16:00", English.Say(Build.Series("2026-11-24 16:00", minutes: 0)));
    }

    [Fact]
    public void A_language_without_words_yet_is_said_in_English() =>
        Assert.StartsWith("Every ", RuleWords.For("nb-NO").Say(Build.Series("2026-11-24 14:00", "FREQ=DAILY")), StringComparison.Ordinal);

    [Theory]
    [InlineData("FREQ=MONTHLY", "Every month on the 24th")]
    [InlineData("FREQ=MONTHLY;BYDAY=2TU", "Every month on the second Tuesday")]
    [InlineData("FREQ=MONTHLY;INTERVAL=2;BYDAY=-1FR", "Every second month on the last Friday")]
    [InlineData("FREQ=MONTHLY;BYDAY=MO,TU,WE,TH,FR;BYSETPOS=-1", "Every month on the last weekday")]
    [InlineData("FREQ=MONTHLY;BYMONTHDAY=1,15,-1", "Every month on the last day, 1st and 15th")]
    [InlineData("FREQ=MONTHLY;BYMONTHDAY=13;BYDAY=FR", "Every month on each Friday that is the 13th")]
    [InlineData("RSCALE=GREGORIAN;FREQ=MONTHLY;BYMONTHDAY=31;SKIP=BACKWARD", "Every month on the 31st (the last day in shorter months)")]
    [InlineData("FREQ=YEARLY", "Every year on the 24th of November")]
    [InlineData("FREQ=YEARLY;BYMONTH=11;BYDAY=4TH", "Every year on the fourth Thursday of November")]
    [InlineData("FREQ=YEARLY;INTERVAL=4;BYMONTH=6;BYMONTHDAY=22", "Every 4 years on the 22nd of June")]
    [InlineData("FREQ=YEARLY;BYYEARDAY=100", "Every year on day 100 of the year")]
    [InlineData("FREQ=YEARLY;BYWEEKNO=20;BYDAY=MO", "Every year on each Monday in week 20")]
    [InlineData("FREQ=DAILY;BYMONTH=1,7", "Every day in January and July")]
    [InlineData("FREQ=WEEKLY;BYDAY=TU;BYMONTH=9", "Every Tuesday in September")]
    [InlineData("FREQ=DAILY;BYHOUR=9,15;BYMINUTE=0", "Every day at 09:00 and 15:00")]
    [InlineData("FREQ=HOURLY;INTERVAL=6", "Every 6 hours")]
    [InlineData("FREQ=MINUTELY;INTERVAL=15;BYHOUR=9", "Every 15 minutes in hour 09")]
    public void Longer_rules_are_said_in_words(string rule, string words) =>
        Assert.Equal(words, English.Say(Build.Series("2026-11-24 14:00", rule)).Replace(", 14:00 to 15:00", "", StringComparison.Ordinal));

    [Theory]
    [InlineData("FREQ=WEEKLY;INTERVAL=2;BYDAY=TU,TH;UNTIL=20261218T180000Z",
        "Jeden zweiten Dienstag und Donnerstag, 14:00 bis 15:00, bis 18. Dezember 2026")]
    [InlineData("FREQ=MONTHLY;BYDAY=-1FR", "Jeden Monat am letzten Freitag, 14:00 bis 15:00")]
    [InlineData("FREQ=MONTHLY;BYDAY=MO,TU,WE,TH,FR;BYSETPOS=1", "Jeden Monat am ersten Werktag, 14:00 bis 15:00")]
    [InlineData("FREQ=YEARLY;BYMONTH=12;BYMONTHDAY=6", "Jedes Jahr am 6. im Dezember, 14:00 bis 15:00")]
    public void A_second_language_is_data(string rule, string words) =>
        Assert.Equal(words, RuleWords.For("de-DE").Say(Build.Series("2026-11-24 14:00", rule)));

    [Fact]
    public void Every_rule_can_be_said() =>
        CsCheck.Check.Sample(SeriesProperties.Rules, rule =>
        {
            foreach (var language in new[] { "en-GB", "de-DE" })
                Assert.DoesNotContain(
                    "{", RuleWords.For(language).Say(new Series(Build.Series("2026-11-24 14:00").Timing, rule)), StringComparison.Ordinal);
        }, iter: 500);

    [Fact]
    public void Breaks_and_the_day_cycle_are_said()
    {
        Assert.EndsWith("not in breaks", English.Say(Build.Series("2026-11-24 14:00", "FREQ=WEEKLY") with { InBreaks = InBreaks.Skip }),
            StringComparison.Ordinal);
        Assert.StartsWith("Every Day 3,",
            English.Say(Build.Series("2026-11-24 14:00") with { Cycle = new CyclePattern([3], [], null, null) }), StringComparison.Ordinal);
        Assert.StartsWith("Every Tuesday of week B,",
            English.Say(
                Build.Series("2026-11-24 14:00") with { Cycle = new CyclePattern([2], [NodaTime.IsoDayOfWeek.Tuesday], null, null) }),
                    StringComparison.Ordinal);
    }
}
