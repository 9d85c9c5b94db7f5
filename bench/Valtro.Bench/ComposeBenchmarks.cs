using System.Globalization;
using BenchmarkDotNet.Attributes;
using BenchmarkDotNet.Configs;
using BenchmarkDotNet.Running;
using NodaTime;
using Valtro.Core.Calendars;
using Valtro.Core.Disclosure;
using Valtro.Core.Editions;
using Valtro.Core.Events;
using Valtro.Core.Recurrence;
using Valtro.Core.Time;
using Valtro.Core.YearPlans;

namespace Valtro.Bench;

/// <summary>An edition of 40 sources over a year: composing it, and expanding the same occurrences alone.</summary>
/// <remarks>One event in twenty is weekly over the year; one in ten stands on a second calendar; one source in four has a filter.</remarks>
public class ComposeYear
{
    private const int Sources = 40;
    private static readonly LocalDate First = new(2026, 8, 3);
    private static readonly Instant Now = Instant.FromUtc(2026, 11, 24, 12, 0);
    private static readonly RecurrenceRule Weekly = RuleText.Parse("FREQ=WEEKLY;COUNT=40");

    private CalendarEvent[] _events = [];
    private Source[] _sources = [];
    private Edition _edition = null!;

    /// <summary>Events with a date in the year.</summary>
    [Params(5_000, 20_000, 80_000)]
    public int Within { get; set; }

    /// <summary>Events that exist and are long over.</summary>
    [Params(0, 60_000)]
    public int Over { get; set; }

    public Window Year { get; } = new(First, First.PlusYears(1), Lesson.Halifax);

    [GlobalSetup]
    public void Give()
    {
        var sport = new Category(Guid.NewGuid(), "Sport", Hue.All[3]);
        _edition = new Edition(Audience.Everyone, Lesson.Halifax, IsoDayOfWeek.Monday)
        {
            MergesLookAlikes = true,
            Window = new EditionWindow(WindowFrom.Date, First, WindowTo.Months, 12, null, true)
        };
        _sources = [.. Enumerable.Range(0, Sources).Select(number => new Source(
            Guid.NewGuid(), Plate.Parse($"P{number}"), $"Calendar {number}", Hue.All[number % 12],
            number % 5 == 0 ? new Disclosure(Detail.Complete, Detail.Headline, Detail.Headline) : Disclosure.Open,
            number % 4 == 0 ? new SourceFilter(FilterMode.Except, [sport.Id], ["inside"], "staff") : null))];
        _events = [.. Enumerable.Range(0, Within).Select(number => Event(number, First.PlusDays(number % 350), number % 20 == 0)),
            .. Enumerable.Range(0, Over).Select(number => Event(number, new LocalDate(2019, 1, 7).PlusDays(number % 2_000), false))];

        CalendarEvent Event(int number, LocalDate day, bool isWeekly)
        {
            var start = day.At(new LocalTime(8 + number % 9, 0));
            var series = new Series(Timing.Timed(start, start.PlusMinutes(90), Lesson.Halifax), isWeekly ? Weekly : null);
            return new CalendarEvent(
                Guid.NewGuid(), _sources[number % Sources].CalendarId, Uid.New(),
                new EventContent($"Lesson {(number % 25 == 0 ? number % 700 : number)}", series, "Slipway",
                    RichText.Empty)
                { Category = number % 9 == 0 ? sport : null }, EventState.Live, Now)
            {
                Placements = number % 10 == 0 ? [_sources[(number + 7) % Sources].CalendarId] : [],
            };
        }
    }

    [Benchmark]
    public int Compose() => new Composition(_edition, _sources, SchoolCalendar.Empty, Now).Compose(_events, Year).Entries.Count;

    /// <summary>The same occurrences, held as whoever expands them holds them.</summary>
    [Benchmark]
    public int ExpandAlone()
    {
        var dates = new List<EventDate>();
        foreach (var calendarEvent in _events)
            dates.AddRange(EventDates.In(calendarEvent, Year, SchoolCalendar.Empty));
        return dates.Count;
    }
}

/// <summary>Prints how composing compares with expanding alone, and how both grow.</summary>
internal static class ComposeReport
{
    private const double Most = 4;

    /// <returns>How many of what was wanted was missed.</returns>
    public static int Print(IConfig config)
    {
        Console.WriteLine(
            "| Edition of 40 sources over a year | compose | expand alone | times as long | at most | entries | µs an entry | bytes an entry |");
        Console.WriteLine("|---|---:|---:|---:|---:|---:|---:|---:|");
        var missed = 0;
        var perEntry = new Dictionary<(int Within, int Over), double>();
        foreach (var pair in BenchmarkRunner.Run<ComposeYear>(config).Reports.GroupBy(report =>
            ((int)report.BenchmarkCase.Parameters["Within"]!, (int)report.BenchmarkCase.Parameters["Over"]!))
            .OrderBy(pair => pair.Key))
        {
            var compose = pair.Single(report => report.BenchmarkCase.Descriptor.WorkloadMethod.Name == nameof(ComposeYear.Compose));
            var expand = pair.Single(report => report.BenchmarkCase.Descriptor.WorkloadMethod.Name == nameof(ComposeYear.ExpandAlone));
            var world = new ComposeYear { Within = pair.Key.Item1, Over = pair.Key.Item2 };
            world.Give();
            var entries = world.Compose();
            var (ours, alone) = (compose.ResultStatistics!.Mean, expand.ResultStatistics!.Mean);
            perEntry[pair.Key] = ours / entries;
            // The one that is promised: 20,000 events.
            missed += pair.Key.Item1 == 20_000 && ours / alone > Most ? 1 : 0;
            Console.WriteLine(string.Create(CultureInfo.InvariantCulture,
                $"| {pair.Key.Item1:N0} events in it, {pair.Key.Item2:N0} over | {ours / 1e6:0.0} ms | {alone / 1e6:0.0} ms | {ours / alone:0.0} | {(pair.Key.Item1 == 20_000 ? "4.0" : "–")} | {entries:N0} | {ours / entries / 1e3:0.00} | {(compose.GcStats.GetBytesAllocatedPerOperation(compose.BenchmarkCase) ?? 0) / entries:0} |"));
        }
        Console.WriteLine(string.Create(CultureInfo.InvariantCulture,
            $"Sixteen times the events in the window take {perEntry[(80_000, 0)] / perEntry[(5_000, 0)]:0.00} times the time an entry; 60,000 more that are over add {(perEntry[(20_000, 60_000)] / perEntry[(20_000, 0)] - 1) * 100:0} % to that of 20,000."));
        return missed;
    }
}
