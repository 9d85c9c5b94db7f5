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
    [InlineData("FREQ=MONTHLY;BYDAY=MO,TU,WE,TH,FR;BYSETPOS=-1")]
    [InlineData("FREQ=MONTHLY;BYDAY=2TU,-1FR")]
    [InlineData("FREQ=YEARLY;BYDAY=MO;BYWEEKNO=20;BYMONTH=5")]
    [InlineData("FREQ=YEARLY;INTERVAL=3;BYYEARDAY=-1,100,200")]
    [InlineData("FREQ=HOURLY;INTERVAL=6;BYMINUTE=0,30")]
    [InlineData("RSCALE=GREGORIAN;FREQ=MONTHLY;BYMONTHDAY=31;SKIP=FORWARD")]
    public void A_rule_is_written_as_it_was_read(string text) => Assert.Equal(text, RuleText.Format(RuleText.Parse(text)));

    [Fact]
    public void Parts_may_come_in_any_order_and_case() =>
        Assert.Equal(RuleText.Parse("FREQ=WEEKLY;INTERVAL=2;BYDAY=TU,TH"), RuleText.Parse("byday=th,tu;interval=2;freq=weekly"));

    [Theory]
    [InlineData("", "RRULE")]
    [InlineData("FREQ", "RRULE")]
    [InlineData("INTERVAL=2", "FREQ")]
    [InlineData("FREQ=OFTEN", "FREQ")]
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
    [InlineData("FREQ=MONTHLY;BYWEEKNO=20", "BYWEEKNO")]
    [InlineData("FREQ=WEEKLY;BYWEEKNO=20", "BYWEEKNO")]
    [InlineData("FREQ=DAILY;BYYEARDAY=100", "BYYEARDAY")]
    [InlineData("FREQ=MONTHLY;BYYEARDAY=100", "BYYEARDAY")]
    [InlineData("FREQ=WEEKLY;BYMONTHDAY=13", "BYMONTHDAY")]
    [InlineData("FREQ=DAILY;BYDAY=1MO", "BYDAY")]
    [InlineData("FREQ=YEARLY;BYWEEKNO=20;BYDAY=1MO", "BYDAY")]
    [InlineData("FREQ=MONTHLY;BYDAY=0MO", "BYDAY")]
    [InlineData("FREQ=MONTHLY;BYDAY=54MO", "BYDAY")]
    [InlineData("FREQ=MONTHLY;BYSETPOS=-1", "BYSETPOS")]
    [InlineData("FREQ=WEEKLY;BYSETPOS=1", "BYSETPOS")]
    [InlineData("FREQ=DAILY;BYSETPOS=2", "BYSETPOS")]
    [InlineData("FREQ=MONTHLY;BYDAY=MO;BYSETPOS=0", "BYSETPOS")]
    [InlineData("FREQ=MONTHLY;BYDAY=MO;BYSETPOS=367", "BYSETPOS")]
    [InlineData("FREQ=MONTHLY;BYMONTHDAY=32", "BYMONTHDAY")]
    [InlineData("FREQ=MONTHLY;BYMONTHDAY=0", "BYMONTHDAY")]
    [InlineData("FREQ=MONTHLY;BYMONTHDAY=1,,2", "BYMONTHDAY")]
    [InlineData("FREQ=YEARLY;BYMONTH=13", "BYMONTH")]
    [InlineData("FREQ=YEARLY;BYMONTH=-1", "BYMONTH")]
    [InlineData("FREQ=YEARLY;BYYEARDAY=367", "BYYEARDAY")]
    [InlineData("FREQ=YEARLY;BYWEEKNO=54", "BYWEEKNO")]
    [InlineData("FREQ=DAILY;BYHOUR=24", "BYHOUR")]
    [InlineData("FREQ=DAILY;BYMINUTE=60", "BYMINUTE")]
    [InlineData("FREQ=DAILY;BYSECOND=61", "BYSECOND")]
    [InlineData("FREQ=MONTHLY;SKIP=BACKWARD", "SKIP")]
    [InlineData("RSCALE=GREGORIAN;FREQ=MONTHLY;SKIP=SIDEWAYS", "SKIP")]
    [InlineData("RSCALE=GREGORIAN;FREQ=WEEKLY;SKIP=FORWARD", "SKIP")]
    [InlineData("RSCALE=HEBREW;FREQ=MONTHLY", "RSCALE")]
    [InlineData("FREQ=WEEKLY;BYMOON=1", "BYMOON")]
    public void A_bad_rule_is_refused_with_its_part(string text, string part) =>
        Assert.NotNull(Build.Refused(part, () => RuleText.Parse(text)));

    [Fact]
    public void A_rule_of_ten_thousand_characters_is_refused() =>
        Assert.Contains("1000",
            Build.Refused("RRULE", () => RuleText.Parse("FREQ=WEEKLY;BYDAY=" + string.Join(',', Enumerable.Repeat("MO", 3_333)))),
                StringComparison.Ordinal);

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
        Assert.NotNull(
            Build.Refused("UNTIL", () => RuleText.Parse("FREQ=DAILY;UNTIL=20261124T175959Z").CheckedAgainst(start, Build.Halifax)));
        Assert.Equal(Frequency.Daily, RuleText.Parse("FREQ=DAILY;UNTIL=20261124T180000Z").CheckedAgainst(start, Build.Halifax).Frequency);
    }

    [Theory]
    [InlineData("FREQ=HOURLY", "FREQ")]
    [InlineData("FREQ=DAILY;BYHOUR=9", "BYHOUR")]
    public void Whole_days_have_no_times_of_day(string text, string part) =>
        Assert.NotNull(Build.Refused(part, () => RuleText.Parse(text).CheckedAgainst(Build.Local("2026-11-24 00:00"), null)));

    [Fact]
    public void More_times_a_day_than_it_has_minutes_are_refused()
    {
        var all = string.Join(',', Enumerable.Range(0, 60));
        Assert.NotNull(Build.Refused("BYHOUR", () => RuleText.Parse($"FREQ=DAILY;BYMINUTE={all};BYSECOND={all}")));
    }

    /// <summary>A vector that independent programs agree on has it.</summary>
    [Fact]
    public void A_set_position_that_says_nothing_is_read() =>
        Assert.Equal(Frequency.Daily, RuleText.Parse("FREQ=DAILY;BYSETPOS=1").Frequency);
}
