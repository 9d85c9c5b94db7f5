using CsCheck;
using NodaTime;
using Valtro.Core.Recurrence;
using Valtro.Core.Time;
using Valtro.Core.YearPlans;

namespace Valtro.Core.Tests.Recurrence;

/// <summary>What holds for every series, whatever its rule.</summary>
public class SeriesProperties
{
    private static readonly string[] Zones = ["America/Halifax", "Europe/Oslo", "Australia/Lord_Howe", "Asia/Kathmandu", "UTC"];

    /// <summary>Rules over the whole grammar. What the standard forbids is left out, not put right.</summary>
    internal static readonly Gen<RecurrenceRule> Rules =
        RulesOf(Gen.OneOf(Gen.Enum<Frequency>(), Gen.Int[3, 6].Select(index => (Frequency)index)));

    private static Gen<RecurrenceRule> RulesOf(Gen<Frequency> frequencies) =>
        (from frequency in frequencies
         from interval in Gen.Int[1, 6]
         from count in Gen.OneOf(Gen.Const((int?)null), Gen.Int[1, 400].Select(number => (int?)number))
         from weekdays in Sometimes(Gen.Select(Gen.Int[1, 7], Gen.OneOf(Gen.Const(0), Gen.Const(0), Gen.Int[-5, 5])), 4)
         from monthDays in Sometimes(Gen.Int[-31, 31].Where(day => day != 0), 4)
         from yearDays in Rarely(Gen.Int[-366, 366].Where(day => day != 0))
         from weekNumbers in Rarely(Gen.Int[-53, 53].Where(week => week != 0))
         from months in Sometimes(Gen.Int[1, 12], 3)
         from hours in Rarely(Gen.Int[0, 23])
         from minutes in Rarely(Gen.Int[0, 59])
         from positions in Rarely(Gen.Int[-6, 6].Where(position => position != 0))
         from weekStart in Gen.Int[1, 7]
         from skip in Gen.Enum<Skip>()
         select Made(new RuleParts
         {
             Frequency = frequency,
             Interval = interval,
             Count = count,
             Weekdays = [.. weekdays.Select(one => new NumberedWeekday((IsoDayOfWeek)one.Item1, one.Item2))],
             MonthDays = monthDays,
             YearDays = yearDays,
             WeekNumbers = weekNumbers,
             Months = months,
             Hours = hours,
             Minutes = minutes,
             SetPositions = positions,
             WeekStart = (IsoDayOfWeek)weekStart,
             Skip = skip,
         })).Where(rule => rule is not null).Select(rule => rule!);

    private static Gen<T[]> Sometimes<T>(Gen<T> gen, int most) => Gen.OneOf(Gen.Const(Array.Empty<T>()), gen.Array[1, most]);

    private static Gen<T[]> Rarely<T>(Gen<T> gen) =>
        Gen.OneOf(Gen.Const(Array.Empty<T>()), Gen.Const(Array.Empty<T>()), Gen.Const(Array.Empty<T>()), gen.Array[1, 3]);

    private static RecurrenceRule? Made(RuleParts parts)
    {
        try
        {
            return new RecurrenceRule(parts);
        }
        catch (RuleException)
        {
            return null;
        }
    }

    private static readonly Gen<LocalDateTime> Starts =
        from day in Gen.Int[0, 2_000]
        from minute in Gen.Int[0, 1_439]
        select new LocalDate(2024, 1, 1).PlusDays(day).AtMidnight().PlusMinutes(minute);

    /// <summary>Walking through years of minutes proves no more than walking through hours.</summary>
    private static readonly Gen<Series> AllSeries =
        from rule in RulesOf(Gen.OneOf(Gen.Int[2, 6], Gen.Int[3, 6]).Select(index => (Frequency)index))
        from start in Starts
        from minutes in Gen.Int[0, 3_000]
        from zone in Gen.Int[0, Zones.Length - 1].Select(index => Zones[index])
        let named = DateTimeZoneProviders.Tzdb[zone]
        select new Series(Timing.Timed(start, start.PlusMinutes(minutes), named), rule);

    [Fact]
    public void A_window_is_a_slice_of_the_whole() =>
        (from series in AllSeries
         from offset in Gen.Int[-30, 700]
         from length in Gen.Int[1, 40]
         select (series, offset, length)).Sample(given =>
        {
            var first = given.series.Timing.Start.Date.PlusDays(given.offset);
            var window = new Window(first, first.PlusDays(given.length), given.series.Timing.Zone);
            var slice = given.series.In(window).ToArray();
            var filtered = given.series.All()
                .TakeWhile(occurrence => occurrence.LocalStart.Date < window.End.PlusDays(2))
                .Where(occurrence => occurrence.Start < window.To
                    && (occurrence.End > window.From || (occurrence.End == occurrence.Start && occurrence.Start >= window.From)))
                .ToArray();
            Assert.Equal(filtered, slice);
        }, iter: 250);

    [Fact]
    public void Dates_ascend_without_duplicates() =>
        AllSeries.Sample(series =>
        {
            var starts = series.All().Take(200).Select(occurrence => occurrence.Start).ToArray();
            Assert.Equal(starts.Distinct().Order(), starts);
        }, iter: 150);

    [Fact]
    public void The_number_of_dates_holds() =>
        Gen.Select(AllSeries, Gen.Int[1, 200], (series, count) => series with { Rule = series.Rule!.Ending(count, null) }).Sample(series =>
            Assert.True(series.Pattern(series.Timing.Start, SchoolCalendar.Empty).Count() is var dates
                && (dates == series.Rule!.Count || EndsWithTheCalendar(series))), iter: 200);

    /// <summary>A rule may run into the year 10000, or into nothing, before its count is spent.</summary>
    private static bool EndsWithTheCalendar(Series series)
    {
        var last = series.Pattern(series.Timing.Start, SchoolCalendar.Empty).Last();
        return !new Series(series.Timing, series.Rule!.Ending(null, null)).Pattern(last.PlusSeconds(1), SchoolCalendar.Empty).Any();
    }

    [Fact]
    public void The_last_moment_holds() =>
        (from series in AllSeries
         from days in Gen.Int[0, 900]
         select (series, last: LocalTimes.InZone(series.Timing.Start, series.Timing.Zone).ToInstant() + Duration.FromDays(days)))
             .Sample(given =>
        {
            var ending = given.series with { Rule = given.series.Rule!.Ending(null, new Until.Moment(given.last)) };
            var endless = given.series with { Rule = given.series.Rule!.Ending(null, null) };
            Assert.Equal(
                endless.All()
                    .TakeWhile(occurrence => LocalTimes.InZone(occurrence.RecurrenceId, ending.Timing.Zone).ToInstant() <= given.last)
                    .Take(200),
                ending.All().Take(200));
        }, iter: 200);

    [Fact]
    public void Jumping_to_a_date_is_the_same_as_walking_there() =>
        (from series in AllSeries
         from offset in Gen.Int[0, 2_500]
         select (series, start: series.Timing.Start.PlusDays(offset))).Sample(given =>
            Assert.Equal(
                given.series.All().SkipWhile(occurrence => occurrence.RecurrenceId < given.start).Take(5),
                given.series.From(given.start).Take(5)), iter: 150);

    [Fact]
    public void Minutes_and_seconds_are_jumped_to_as_well() =>
        (from rule in RulesOf(Gen.Int[0, 1].Select(index => (Frequency)index)).Select(rule => rule.Ending(null, null))
         from start in Starts
         from minutes in Gen.Int[0, 3_000]
         let series = new Series(Timing.Timed(start, start, DateTimeZone.Utc), rule)
         select (series, at: start.PlusMinutes(minutes))).Sample(given =>
            Assert.Equal(
                given.series.All().TakeWhile(occurrence => occurrence.RecurrenceId < given.at.PlusMinutes(30))
                    .SkipWhile(occurrence => occurrence.RecurrenceId < given.at),
                given.series.From(given.at).TakeWhile(occurrence => occurrence.RecurrenceId < given.at.PlusMinutes(30))), iter: 60);

    [Fact]
    public void A_rule_reads_as_it_was_written() =>
        Rules.Sample(rule => Assert.Equal(rule, RuleText.Parse(RuleText.Format(rule))), iter: 1_000);

    [Fact]
    public void The_walk_resolves_local_times_as_the_calendar_of_clock_changes_does() =>
        (from zone in Gen.Int[0, Zones.Length - 1].Select(index => Zones[index])
         from start in Starts
         from steps in Gen.Int[1, 40_000].Array[1, 20]
         select (zone, start, steps)).Sample(given =>
        {
            var zone = DateTimeZoneProviders.Tzdb[given.zone];
            var walk = new LocalTimeWalk(zone);
            var local = given.start;
            foreach (var step in given.steps)
            {
                local = local.PlusMinutes(step);
                Assert.Equal(LocalTimes.InZone(local, zone).ToOffsetDateTime(), walk.Resolve(local));
            }
        }, iter: 1_000);
}
