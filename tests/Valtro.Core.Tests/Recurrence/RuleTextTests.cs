using Valtro.Core.Recurrence;

namespace Valtro.Core.Tests.Recurrence;

public class RuleTextTests
{
    [Theory]
    [InlineData("FREQ=DAILY")]
    [InlineData("FREQ=WEEKLY;BYDAY=TU,TH")]
    [InlineData("FREQ=WEEKLY;COUNT=10;INTERVAL=2;BYDAY=MO;WKST=SU")]
    [InlineData("FREQ=WEEKLY;UNTIL=20261218T180000Z;BYDAY=FR")]
    [InlineData("FREQ=DAILY;UNTIL=20261218")]
    public void A_rule_is_written_as_it_was_read(string text) => Assert.Equal(text, RuleText.Format(RuleText.Parse(text)));

    [Fact]
    public void Parts_may_come_in_any_order_and_case() =>
        Assert.Equal(RuleText.Parse("FREQ=WEEKLY;INTERVAL=2;BYDAY=TU,TH"), RuleText.Parse("byday=th,tu;interval=2;freq=weekly"));

    [Theory]
    [InlineData("", "RRULE")]
    [InlineData("FREQ", "RRULE")]
    [InlineData("INTERVAL=2", "FREQ")]
    [InlineData("FREQ=OFTEN", "FREQ")]
    [InlineData("FREQ=MONTHLY", "FREQ")]
    [InlineData("FREQ=DAILY;INTERVAL=0", "INTERVAL")]
    [InlineData("FREQ=DAILY;INTERVAL=-1", "INTERVAL")]
    [InlineData("FREQ=DAILY;INTERVAL=99999999999", "INTERVAL")]
    [InlineData("FREQ=DAILY;COUNT=0", "COUNT")]
    [InlineData("FREQ=DAILY;COUNT=3;UNTIL=20261218", "COUNT")]
    [InlineData("FREQ=DAILY;UNTIL=yesterday", "UNTIL")]
    [InlineData("FREQ=DAILY;UNTIL=20261318", "UNTIL")]
    [InlineData("FREQ=WEEKLY;BYDAY=XX", "BYDAY")]
    [InlineData("FREQ=WEEKLY;BYDAY=2TU", "BYDAY")]
    [InlineData("FREQ=WEEKLY;BYDAY=", "RRULE")]
    [InlineData("FREQ=WEEKLY;WKST=2MO", "WKST")]
    [InlineData("FREQ=WEEKLY;FREQ=DAILY", "FREQ")]
    [InlineData("FREQ=WEEKLY;BYMONTH=1", "BYMONTH")]
    [InlineData("FREQ=WEEKLY;BYMOON=1", "BYMOON")]
    public void A_bad_rule_is_refused_with_its_part(string text, string part) =>
        Assert.NotNull(Build.Refused(part, () => RuleText.Parse(text)));

    [Fact]
    public void A_rule_of_ten_thousand_characters_is_refused() =>
        Assert.Contains("1000", Build.Refused("RRULE", () => RuleText.Parse("FREQ=WEEKLY;BYDAY=" + string.Join(',', Enumerable.Repeat("MO", 3_333)))), StringComparison.Ordinal);

    [Fact]
    public void The_end_has_to_be_of_the_start_s_kind()
    {
        var start = Build.Local("2026-11-24 14:00");
        Assert.NotNull(Build.Refused("UNTIL", () => RuleText.Parse("FREQ=DAILY;UNTIL=20261218").CheckedAgainst(start, Build.Halifax)));
        Assert.NotNull(Build.Refused("UNTIL", () => RuleText.Parse("FREQ=DAILY;UNTIL=20261218T000000Z").CheckedAgainst(start, null)));
    }

    [Fact]
    public void An_end_before_the_start_is_refused()
    {
        var start = Build.Local("2026-11-24 14:00");
        Assert.NotNull(Build.Refused("UNTIL", () => RuleText.Parse("FREQ=DAILY;UNTIL=20261124T175959Z").CheckedAgainst(start, Build.Halifax)));
        Assert.Equal(Frequency.Daily, RuleText.Parse("FREQ=DAILY;UNTIL=20261124T180000Z").CheckedAgainst(start, Build.Halifax).Frequency);
    }
}
