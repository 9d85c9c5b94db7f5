using Valtro.Core.Recurrence;

namespace Valtro.Core.Tests.Recurrence;

public class RuleWordsTests
{
    private static readonly RuleWords English = RuleWords.For("en-GB");

    [Theory]
    [InlineData(null, "Tuesday 24 November 2026, 14:00 to 15:00")]
    [InlineData("FREQ=WEEKLY;BYDAY=TU", "Every Tuesday, 14:00 to 15:00")]
    [InlineData("FREQ=WEEKLY;INTERVAL=2;BYDAY=TU,TH;UNTIL=20261218T180000Z", "Every second Tuesday and Thursday, 14:00 to 15:00, until 18 December 2026")]
    [InlineData("FREQ=WEEKLY;INTERVAL=3;BYDAY=MO,TU,WE;COUNT=10", "Every 3 weeks on Monday, Tuesday and Wednesday, 14:00 to 15:00, 10 dates")]
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
        Assert.Equal("Every Friday, all day, until 18 December 2026", English.Say(Build.DaySeries("2026-11-27", "2026-11-27", "FREQ=WEEKLY;UNTIL=20261218")));
        Assert.Equal("Friday 27 November 2026, 3 whole days", English.Say(Build.DaySeries("2026-11-27", "2026-11-29")));
        Assert.Equal("Tuesday 24 November 2026, at 16:00", English.Say(Build.Series("2026-11-24 16:00", minutes: 0)));
    }

    [Fact]
    public void A_language_without_words_yet_is_said_in_English() =>
        Assert.StartsWith("Every ", RuleWords.For("nb-NO").Say(Build.Series("2026-11-24 14:00", "FREQ=DAILY")), StringComparison.Ordinal);
}
