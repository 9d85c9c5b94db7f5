using CsCheck;
using NodaTime;
using Valtro.Core.Recurrence;
using Valtro.Core.Time;
using Valtro.Core.YearPlans;

namespace Valtro.Core.Tests.Recurrence;

/// <summary>Our expansion against the standard's definition, over the whole grammar: also where other readers are known to
/// differ.</summary>
public class DefinitionTests
{
    private const int Years = 9;

    private static void Agree(RecurrenceRule rule, LocalDateTime start)
    {
        var last = start.Year + Years;
        var series = new Series(Timing.Timed(start, start.PlusMinutes(45), DateTimeZone.Utc), rule);
        var ours = series.All(SchoolCalendar.Empty).Select(occurrence => occurrence.LocalStart).TakeWhile(date => date.Year <= last)
            .Take(120).ToArray();
        var defined = Definition.Dates(rule, start, last).TakeWhile(date => date.Year <= last).Take(120).ToArray();
        Assert.True(defined.SequenceEqual(ours),
            $"{rule} from {start}: not given {string.Join(' ', defined.Except(ours).Take(3))}, given too much {string.Join(' ', ours.Except(defined).Take(3))}");
    }

    private static readonly Gen<(RecurrenceRule Rule, LocalDateTime Start)> Given =
        from rule in SeriesProperties.Rules
        where rule.Frequency >= Frequency.Daily && rule.Parts.Skip == Skip.Omit
        from day in Gen.Int[0, 2_000]
        from minute in Gen.Int[0, 1_439]
        select (rule, new LocalDate(2024, 1, 1).PlusDays(day).AtMidnight().PlusMinutes(minute));

    [Fact]
    public void Every_rule_gives_what_the_definition_gives() => Given.Sample(given => Agree(given.Rule, given.Start), iter: 400);

    /// <summary>The seven kinds of rules that the reader of FeedOfSeriesTests takes otherwise, each for itself.</summary>
    [Theory]
    [InlineData("2026-11-24 14:00", "FREQ=WEEKLY;BYDAY=MO,WE,FR;BYSETPOS=-1")]
    [InlineData("2026-11-24 14:00", "FREQ=DAILY;BYHOUR=9,13;BYMINUTE=0,30;BYSETPOS=2")]
    [InlineData("2026-11-24 14:00", "FREQ=YEARLY;BYWEEKNO=1,53")]
    [InlineData("2026-11-24 14:00", "FREQ=YEARLY;BYWEEKNO=-1;BYDAY=SU,MO;WKST=SU")]
    [InlineData("2026-11-24 14:00", "FREQ=MONTHLY;BYDAY=2TU,-1FR;BYMONTHDAY=8,9,10,30")]
    [InlineData("2026-11-24 14:00", "FREQ=YEARLY;BYDAY=10MO;BYYEARDAY=60,61,62,63,64,65,66,67")]
    [InlineData("2026-11-24 14:00", "FREQ=YEARLY;BYMONTHDAY=13")]
    [InlineData("2026-11-24 14:00", "FREQ=YEARLY;BYMONTHDAY=13;BYDAY=FR")]
    [InlineData("2026-11-24 14:00", "FREQ=YEARLY;BYYEARDAY=1,100,-1;BYMONTH=4,12")]
    [InlineData("2026-11-24 14:00", "FREQ=YEARLY;INTERVAL=2;COUNT=4;BYMONTH=3,12")]
    [InlineData("2026-01-31 09:15", "FREQ=MONTHLY")]
    [InlineData("2024-02-29 09:15", "FREQ=YEARLY")]
    [InlineData("2026-12-31 23:45", "FREQ=WEEKLY;INTERVAL=2;BYDAY=SU,MO;WKST=SU")]
    [InlineData("2026-12-31 23:45", "FREQ=WEEKLY;INTERVAL=2;BYDAY=SU,MO;WKST=MO")]
    [InlineData("2026-11-24 14:00", "FREQ=YEARLY;BYDAY=-1FR,53TH")]
    [InlineData("2026-11-24 14:00", "FREQ=YEARLY;BYDAY=5SU;BYMONTH=2,3")]
    public void Known_differences_are_held_to_the_definition(string start, string rule) => Agree(RuleText.Parse(rule), Build.Local(start));

    [Fact]
    public void Days_are_numbered_as_the_calendar_numbers_them() =>
        Gen.Int[DayNumbers.Of(1, 1, 1), DayNumbers.Last].Sample(number =>
        {
            var date = new LocalDate(1970, 1, 1).PlusDays(number);
            Assert.Equal(date, DayNumbers.Date(number));
            Assert.Equal(number, DayNumbers.Of(date));
            Assert.Equal((int)date.DayOfWeek - 1, DayNumbers.WeekdayIndex(number));
            Assert.Equal(CalendarSystem.Iso.GetDaysInMonth(date.Year, date.Month), DayNumbers.DaysInMonth(date.Year, date.Month));
            Assert.Equal(number, DayNumbers.DayOf(DayNumbers.Moment(date.At(new LocalTime(23, 59, 59)))));
        }, iter: 20_000);
}
