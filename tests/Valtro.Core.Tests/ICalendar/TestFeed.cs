using System.Buffers;
using System.Text;
using NodaTime;
using Valtro.Core.Disclosure;
using Valtro.Core.Editions;
using Valtro.Core.Events;
using Valtro.Core.ICalendar;
using Valtro.Core.ICalendar.Checking;
using Valtro.Core.YearPlans;

namespace Valtro.Core.Tests.ICalendar;

/// <summary>Feeds of what is delivered for the first time.</summary>
internal static class TestFeed
{
    public static readonly Instant Now = Instant.FromUtc(2026, 9, 2, 12, 0);

    private static readonly Uri Page = new("https://dates.pinewick.example/c/pinewick/port-watch");

    public static readonly FeedHead Head = new(
        new Uid("6f2c9b1e-6f0e-4d4e-9a25-1f6a0f0b6a11"), "Port Watch", "Navigation, and more", Build.Harbour, Page,
            new Uri($"{Page}.ics"), Instant.FromUtc(2026, 11, 1, 0, 0), Build.Halifax);

    public static Components Components(SchoolCalendar? school = null, IReadOnlyDictionary<Guid, PlaceTold>? places = null,
        Instant? now = null, Edition? edition = null) =>
        new(school ?? SchoolCalendar.Empty, Page, places ?? new Dictionary<Guid, PlaceTold>(),
            Core.ICalendar.Components.HorizonAt(now ?? Now, Build.Halifax), edition);

    public static Components Of(IEnumerable<Delivered> delivered, SchoolCalendar? school = null)
    {
        var components = Components(school);
        foreach (var one in delivered)
            components.AddSeries(one, one.Disclosed.Uid);
        return components;
    }

    public static Components Of(CalendarEvent calendarEvent, SchoolCalendar? school = null, Detail detail = Detail.Complete) =>
        Of(Delivered.AtLevel(calendarEvent, detail) is { } delivered ? [delivered] : [], school);

    public static string Write(Components components, Stamps? stamps = null)
    {
        var output = new ArrayBufferWriter<byte>();
        FeedWriter.Write(
            output, Head, components, stamps ?? new Stamps(components.Written, new Dictionary<ComponentName, Stamp>(), 0, 1, Now));
        var found = CalendarCheck.Of(new MemoryStream(output.WrittenSpan.ToArray())).Faults;
        // Whatever is written in a test is right by our own check too.
        Assert.DoesNotContain(found, fault => fault.Severity < FaultSeverity.Note);
        return Encoding.UTF8.GetString(output.WrittenSpan);
    }

    public static string[] Unfolded(string feed) => feed.Replace("\r\n ", "", StringComparison.Ordinal).Split("\r\n");
}
