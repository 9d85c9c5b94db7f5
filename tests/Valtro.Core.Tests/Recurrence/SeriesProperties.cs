using CsCheck;
using NodaTime;
using Valtro.Core.Recurrence;
using Valtro.Core.Time;

namespace Valtro.Core.Tests.Recurrence;

/// <summary>What holds for every series, whatever its rule.</summary>
public class SeriesProperties
{
    private static readonly string[] Zones = ["America/Halifax", "Europe/Oslo", "Australia/Lord_Howe", "Asia/Kathmandu", "UTC"];

    private static readonly Gen<RecurrenceRule> Rules =
        from frequency in Gen.Enum<Frequency>()
        from interval in Gen.Int[1, 6]
        from weekdays in Gen.Int[1, 7].Array[0, 4]
        from weekStart in Gen.Int[1, 7]
        from count in Gen.OneOf(Gen.Const((int?)null), Gen.Int[1, 400].Select(number => (int?)number))
        select new RecurrenceRule(frequency, interval, count, null, weekdays.Select(day => (IsoDayOfWeek)day), (IsoDayOfWeek)weekStart);

    private static readonly Gen<LocalDateTime> Starts =
        from day in Gen.Int[0, 2_000]
        from minute in Gen.Int[0, 1_439]
        select new LocalDate(2024, 1, 1).PlusDays(day).AtMidnight().PlusMinutes(minute);

    private static readonly Gen<Series> AllSeries =
        from rule in Rules
        from start in Starts
        from minutes in Gen.Int[0, 3_000]
        from zone in Gen.Int[0, Zones.Length - 1].Select(index => Zones[index])
        let named = DateTimeZoneProviders.Tzdb[zone]
        select new Series(Timing.Timed(start, start.PlusMinutes(minutes), named), rule);

    [Fact]
    public void A_window_is_a_slice_of_the_whole() =>
        (from series in AllSeries
         from offset in Gen.Int[-30, 3_000]
         from length in Gen.Int[1, 90]
         select (series, offset, length)).Sample(given =>
        {
            var first = given.series.Timing.Start.Date.PlusDays(given.offset);
            var window = new Window(first, first.PlusDays(given.length), given.series.Timing.Zone);
            var slice = given.series.In(window).ToArray();
            var filtered = given.series.All()
                .TakeWhile(occurrence => occurrence.LocalStart.Date < window.End.PlusDays(2))
                .Where(occurrence => occurrence.Start < window.To && (occurrence.End > window.From || (occurrence.End == occurrence.Start && occurrence.Start >= window.From)))
                .ToArray();
            Assert.Equal(filtered, slice);
        }, iter: 1_500);

    [Fact]
    public void Dates_ascend_without_duplicates() =>
        AllSeries.Sample(series =>
        {
            var starts = series.All().Take(200).Select(occurrence => occurrence.Start).ToArray();
            Assert.Equal(starts.Distinct().Order(), starts);
        }, iter: 500);

    [Fact]
    public void The_number_of_dates_holds() =>
        AllSeries.Where(series => series.Rule!.Count is not null && Expansion.GivesItsStart(series.Rule, series.Timing.Start.Date)).Sample(series =>
            Assert.Equal(series.Rule!.Count, series.All().Count()), iter: 500);

    [Fact]
    public void Jumping_to_a_date_is_the_same_as_walking_there() =>
        (from series in AllSeries
         from offset in Gen.Int[0, 20_000]
         select (series, start: series.Timing.Start.PlusDays(offset))).Sample(given =>
            Assert.Equal(
                given.series.All().SkipWhile(occurrence => occurrence.RecurrenceId < given.start).Take(5),
                given.series.From(given.start).Take(5)), iter: 500);

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
