using System.Buffers;
using BenchmarkDotNet.Attributes;
using NodaTime;
using Valtro.Core.Calendars;
using Valtro.Core.Disclosure;
using Valtro.Core.Editions;
using Valtro.Core.Events;
using Valtro.Core.ICalendar;
using Valtro.Core.Recurrence;
using Valtro.Core.Time;
using Valtro.Core.YearPlans;
using Foreign = Ical.Net;

namespace Valtro.Bench;

/// <summary>Building and serialising a feed of 2,000 events, one in four of them weekly.</summary>
[Suite("feed of 2,000 events, built and written", 15, 2_000)]
public class FeedOfTwoThousand
{
    private const int Events = 2_000;
    private const string Rule = "FREQ=WEEKLY;BYDAY=TU,TH";
    private const string About = "Bring oilskins and closed shoes; in heavy weather we meet in the loft instead, as always.";

    private static readonly Instant Changed = Instant.FromUtc(2026, 11, 1, 12, 0);
    private static readonly FeedHead Head = new(
        Uid.New(), "Port Watch", "Navigation", Hue.All[0], new Uri("https://dates.pinewick.example/c/pinewick/port-watch"),
            new Uri("https://dates.pinewick.example/c/pinewick/port-watch.ics"), Changed, DateTimeZoneProviders.Tzdb["America/Halifax"]);

    private (Guid Uid, LocalDateTime Start, bool Weekly)[] _given = [];

    [GlobalSetup]
    public void Give() =>
        _given = [.. Enumerable.Range(0, Events)
            .Select(number => (Guid.NewGuid(), new LocalDateTime(2026, 9, 1, 9, 0).PlusDays(number % 300), number % 4 == 0))];

    [Benchmark]
    public int Valtro()
    {
        var events = new List<Delivered>(Events);
        foreach (var (uid, start, weekly) in _given)
        {
            var series = new Series(Timing.Timed(start, start.PlusMinutes(90), Lesson.Halifax), weekly ? RuleText.Parse(Rule) : null);
            var calendarEvent = new CalendarEvent(
                uid, uid, Uid.Of(uid), new EventContent("Boat lab", series, "Slipway", new RichText("", About)), EventState.Live, Changed);
            events.Add(Delivered.AtLevel(calendarEvent, Detail.Complete)!);
        }
        var output = new ArrayBufferWriter<byte>(256 * 1024);
        using var components = new Components(
            SchoolCalendar.Empty, Head.Page, new Dictionary<Guid, PlaceTold>(), Components.HorizonAt(Changed, Head.Zone));
        foreach (var delivered in events)
            components.AddSeries(delivered, delivered.Disclosed.Uid);
        FeedWriter.Write(output, Head, components, new Stamps(components.Written, new Dictionary<ComponentName, Stamp>(), 0, 1, Changed));
        return output.WrittenCount;
    }

    [Benchmark]
    public int IcalNet()
    {
        var calendar = new Foreign.Calendar();
        calendar.AddTimeZone(new Foreign.CalendarComponents.VTimeZone("America/Halifax"));
        foreach (var (uid, start, weekly) in _given)
        {
            var calendarEvent = new Foreign.CalendarComponents.CalendarEvent
            {
                Uid = uid.ToString(),
                Summary = "Boat lab",
                Location = "Slipway",
                Description = About,
                Sequence = 1,
                Status = "CONFIRMED",
                Start =
                    new Foreign.DataTypes.CalDateTime(start.Year, start.Month, start.Day, start.Hour, start.Minute, 0, "America/Halifax"),
                End = new Foreign.DataTypes.CalDateTime(
                    start.Year, start.Month, start.Day, start.Hour + 1, start.Minute + 30, 0, "America/Halifax"),
            };
            if (weekly)
                calendarEvent.RecurrenceRule = new Foreign.DataTypes.RecurrenceRule(Rule);
            calendar.Events.Add(calendarEvent);
        }
        return new Foreign.Serialization.CalendarSerializer().SerializeToString(calendar)!.Length;
    }
}
