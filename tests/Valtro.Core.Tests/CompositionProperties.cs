using CsCheck;
using NodaTime;
using Valtro.Core.Calendars;
using Valtro.Core.Disclosure;
using Valtro.Core.Editions;
using Valtro.Core.Events;
using Valtro.Core.YearPlans;
using Table = Valtro.Core.Disclosure.Disclosure;

namespace Valtro.Core.Tests;

/// <summary>What holds for every edition, whatever its calendars and events.</summary>
public class CompositionProperties
{
    private static readonly Instant Now = Instant.FromUtc(2026, 11, 23, 12, 0);
    private static readonly string[] Plates = ["PW", "SW", "CREW", "SCH"];
    private static readonly Category[] Categories =
        [new(Guid.NewGuid(), "Assessment", Hue.Named("madder")), new(Guid.NewGuid(), "Training", Hue.Named("kelp"))];

    private static Gen<T> OneOf<T>(params T[] values) => Gen.Int[0, values.Length - 1].Select(index => values[index]);

    private static readonly Gen<Table> Tables = Gen.Int[0, 3].Array[3]
        .Select(levels => levels.Order().Reverse().Select(level => (Detail)level).ToArray())
        .Select(levels => new Table(levels[0], levels[1], levels[2]));

    private static readonly Gen<SourceFilter?> Filters = Gen.OneOf(
        Gen.Const((SourceFilter?)null), Gen.Const((SourceFilter?)null),
        Gen.Select(Gen.Enum<FilterMode>(), Gen.Int[0, 1])
            .Select((mode, category) => (SourceFilter?)new SourceFilter(mode, [Categories[category].Id], [], "")));

    private static readonly Gen<Source[]> Sources = Gen.Select(Tables, Filters).Array[1, 4].Select(made =>
        made.Select((one, index) =>
            new Source(Guid.NewGuid(), Plate.Parse(Plates[index]), Plates[index], Build.Harbour, one.Item1, one.Item2))
            .ToArray());

    /// <summary>Few titles and times, so that many look alike.</summary>
    private static Gen<CalendarEvent> EventsOn(Source[] sources) =>
        from title in OneOf("Drill", "Boat lab")
        from hour in Gen.Int[9, 11]
        from rule in OneOf<string?>(null, "FREQ=DAILY;COUNT=5", "FREQ=WEEKLY")
        from state in OneOf(EventState.Live, EventState.Live, EventState.Cancelled, EventState.Draft)
        from indexes in Gen.Int[0, sources.Length - 1].Array[1, 3]
        from category in Gen.Int[0, 2]
        from cap in Gen.OneOf(Gen.Const(Cap.None), Gen.Int[0, 3].Select(level => new Cap(null, null, (Detail)level)))
        select Build.Event(Build.Series($"2026-11-24 {hour:00}:00", rule), title, state) is var made
            ? made with
            {
                HomeCalendarId = sources[indexes[0]].CalendarId,
                Placements = [.. indexes.Skip(1).Distinct().Where(index => index != indexes[0]).Select(index => sources[index].CalendarId)],
                Content = made.Content with { Cap = cap, Category = category == 2 ? null : Categories[category] },
            }
            : made;

    private static readonly Gen<(Source[] Sources, CalendarEvent[] Events)> Worlds =
        from sources in Sources from events in EventsOn(sources).Array[0, 8] select (sources, events);

    private static readonly Gen<Edition> Editions =
        Gen.Select(OneOf(Audience.Members, Audience.Link, Audience.Everyone), Gen.Int[1, 3], Gen.Bool, Gen.Bool, Gen.Bool)
        .Select((audience, cap, merges, busy, cancelled) => new Edition(audience, Build.Halifax, IsoDayOfWeek.Monday)
        {
            Cap = (Detail)cap,
            MergesLookAlikes = merges,
            TellsPlatesOfBusy = busy,
            WithCancelled = cancelled,
        });

    private static IReadOnlyList<Entry> Compose(Edition edition, IReadOnlyCollection<Source> sources, IEnumerable<CalendarEvent> events) =>
        new Composition(edition, sources, SchoolCalendar.Empty, Now).Compose(events, Build.Window("2026-11-23", "2026-12-14")).Entries;

    private static HashSet<(string, Instant)> Dates(IEnumerable<Entry> entries) =>
        [.. entries.SelectMany(entry => entry.LookAlikes.Select(one => one.EventId).Append(entry.EventId!.Value)
            .Select(id => (id.ToString(), entry.Occurrence.Start)))];

    private static string Said(Entry entry) =>
        $"{entry.Occurrence.Start} {entry.Title} {entry.Event.Detail} {entry.Event.Identity} {string.Join(' ', entry.Sources.Select(source => source.Plate.Code))} {string.Join(' ', entry.LookAlikes)}";

    [Fact]
    public void It_is_the_same_whatever_the_order_of_sources_and_events() =>
        Gen.Select(Worlds, Editions).Sample((world, edition) =>
            Compose(edition, world.Sources, world.Events).Select(Said)
                .SequenceEqual(Compose(edition, [.. world.Sources.Reverse()], world.Events.Reverse()).Select(Said)));

    /// <summary>A cancelled date stands in an edition from the headline on; below it the time is free. All other dates are there at every
    /// level.</summary>
    [Fact]
    public void A_higher_cap_never_loses_an_entry_and_never_tells_less() =>
        Gen.Select(Worlds, Editions).Sample((world, edition) =>
        {
            // Identities differ between "Busy" and the rest, so this compares from the headline on, and the number of times below it.
            var headline = Compose(edition with { Cap = Detail.Headline, MergesLookAlikes = false }, world.Sources, world.Events);
            var complete = Compose(edition with { Cap = Detail.Complete, MergesLookAlikes = false }, world.Sources, world.Events);
            var times = Compose(edition with { Cap = Detail.Times, MergesLookAlikes = false }, world.Sources, world.Events);
            return Dates(headline).IsSubsetOf(Dates(complete))
                && headline.Zip(complete).All(pair => pair.First.Event.Detail <= pair.Second.Event.Detail)
                && times.Count == headline.Count(entry => entry.Event.State != EventState.Cancelled)
                && times.All(entry => entry is { Title: Disclosed.Busy, Event.Content.Place.IsNowhere: true });
        });

    [Fact]
    public void A_wider_audience_never_gets_more_than_a_narrower_one() =>
        Gen.Select(Worlds, Editions).Sample((world, edition) =>
        {
            var plain = edition with { MergesLookAlikes = false };
            var members = Compose(plain with { Audience = Audience.Members }, world.Sources, world.Events);
            var link = Compose(plain with { Audience = Audience.Link }, world.Sources, world.Events);
            var everyone = Compose(plain with { Audience = Audience.Everyone }, world.Sources, world.Events);
            return IsWithin(everyone, link) && IsWithin(link, members);

            static bool IsWithin(IReadOnlyList<Entry> wider, IReadOnlyList<Entry> narrower) =>
                wider.Count <= narrower.Count
                    && Dates(wider.Where(entry => entry.Event.Detail >= Detail.Headline)).IsSubsetOf(Dates(narrower));
        });

    [Fact]
    public void Merging_never_loses_a_plate_nor_a_date() =>
        Gen.Select(Worlds, Editions).Sample((world, edition) =>
        {
            var apart = Compose(edition with { MergesLookAlikes = false }, world.Sources, world.Events);
            var merged = Compose(edition with { MergesLookAlikes = true }, world.Sources, world.Events);
            return Dates(apart).SetEquals(Dates(merged)) && PlatesAt(apart).SetEquals(PlatesAt(merged));

            static HashSet<(Instant, string, string)> PlatesAt(IEnumerable<Entry> entries) =>
                [.. entries.SelectMany(entry =>
                    entry.Sources.Select(source => (entry.Occurrence.Start, entry.Event.Title, source.Plate.Code)))];
        });

    [Fact]
    public void No_plate_of_a_calendar_is_told_that_tells_this_audience_no_headline() =>
        Gen.Select(Worlds, Editions).Sample((world, edition) =>
            Compose(edition with { TellsPlatesOfBusy = false }, world.Sources, world.Events)
                .All(entry => entry.Sources.All(source => source.Disclosure[edition.Audience] >= Detail.Headline)));

    [Fact]
    public void The_trace_of_every_date_tells_what_the_delivery_does() =>
        Gen.Select(Worlds, Editions, Gen.Int[1, 4]).Sample((world, edition, limit) =>
        {
            var limited = edition with { Limit = limit };
            return world.Events.All(calendarEvent =>
            {
                var trace = new Trace(calendarEvent.Id, calendarEvent.Series.Timing.Start);
                var entries = new Composition(limited, world.Sources, SchoolCalendar.Empty, Now)
                    .Compose(world.Events, Build.Window("2026-11-23", "2026-12-14"), trace).Entries;
                var identities = Dates(entries);
                return trace.IsIn == identities.Contains(
                    (calendarEvent.Id.ToString(), calendarEvent.Series.Timing.Occurrence(calendarEvent.Series.Timing.Start).Start));
            });
        });

    [Fact]
    public void What_an_edition_tells_of_an_event_is_what_it_delivers_of_it() =>
        Gen.Select(Worlds, Editions).Sample((world, edition) => world.Events.All(calendarEvent =>
        {
            var composition = new Composition(edition, world.Sources, SchoolCalendar.Empty, Now);
            var entries = composition.Compose([calendarEvent], Build.Window("2026-11-23", "2026-12-14")).Entries;
            return composition.DetailOf(calendarEvent) == (composition.Deliver([calendarEvent]) is [var delivered]
                ? delivered.Disclosed.Detail
                : Detail.Nothing)
                && composition.DetailOf(calendarEvent) == entries.Select(entry => entry.Event.Detail).DefaultIfEmpty(Detail.Nothing).Max();
        }));
}
