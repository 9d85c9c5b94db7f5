using System.Globalization;
using System.Net;
using System.Text.Json.Nodes;
using NodaTime;
using NodaTime.Text;
using Valtro.Core.Acts;
using Valtro.Core.Calendars;
using Valtro.Core.Disclosure;
using Valtro.Core.Events;
using Valtro.Core.Recurrence;
using Valtro.Core.Time;
using Valtro.Core.YearPlans;
using Valtro.Store;
using Xunit.Abstractions;
using Foreign = Ical.Net;

namespace Valtro.Server.Tests;

/// <summary>
/// Three libraries that others wrote (Ical.Net here, ical.js and node-ical in tests/foreign) read what goes out, and agree over eighteen
/// months with what
/// the desk shows: the demo, and 300 generated events of all zones and kinds. What a library is known to read otherwise than RFC 5545 says
/// is written down.
/// </summary>
public sealed class ForeignReadersTests(ValtroApp app, ITestOutputHelper output) : IClassFixture<ValtroApp>
{
    private static readonly LocalDate First = new(2026, 11, 1);
    private static readonly LocalDate End = new(2028, 5, 1);
    private const int Seed = 20_261_127;

    /// <param name="Kind">What is special about it, for the list of faults.</param>
    private sealed record Made(CalendarEvent Event, string Kind);

    /// <summary>Their own faults with series, each looked up in the standard; a feed of dates has none of them.</summary>
    private static readonly Dictionary<string, string> Faults = new()
    {
        ["ical.js rdate only"] = "DTSTART is left out where there is no rule but an RDATE (3.8.5.2: it is the first of the set)",
        ["ical.js setpos"] = "BYSETPOS is not heeded beside BYMONTHDAY (3.3.10)",
        ["ical.js ends in gap"] = "an end that the clocks skip is taken with the offset after the gap (3.3.5: with that before it)",
        ["node-ical rdate only"] = "RDATE is not read (3.8.5.2)",
        ["node-ical rdate"] = "RDATE is not read (3.8.5.2)",
        ["Ical.Net gap"] = "a date whose start the clocks skip is listed beside the component that stands for it (3.8.4.4)",
    };

    [Fact]
    public async Task All_read_the_demo_as_the_desk_shows_it()
    {
        foreach (var (path, plate) in new[] { ("port-watch", "PW"), ("starboard-watch", "SW"), ("whole-school", "SCH") })
            await AgreeAsync(path, plate, allowsFaults: true, new Dictionary<string, string>());
        var ada = await app.SignedInAsync();
        await MakeEditionAsync(ada, "Demo by date", "PW");
        await AgreeAsync("demo-by-date", "PW", allowsFaults: false, new Dictionary<string, string>());
    }

    [Fact]
    public async Task All_read_generated_events_of_all_zones_and_kinds_as_the_desk_shows_them()
    {
        var ada = await app.SignedInAsync();
        var organisation = await app.Test.Database.FirstAsync<Guid>("select id from organisation where slug = 'pinewick'");
        var made = await new CalendarStore(app.Test.Database)
            .AddAsync(organisation,
                new CalendarSettings("Foreign", Plate.Parse("FGN"), Hue.Named("plum"), Halifax, "", Disclosure.Open, []),
                    app.Clock.GetCurrentInstant());
        var random = new Random(Seed);
        var zones = await ZonesKnownAlikeAsync();
        Assert.True(zones.Length > 350, $"Only {zones.Length} zones are known alike.");
        var events = Enumerable.Range(0, 300).Select(number => Generate(made.Id, number, zones, random)).ToArray();
        var account = await app.Test.Database.FirstAsync<Guid>("select id from account where email like 'ada@%'");
        foreach (var some in events.Chunk(50))
            await new ActStore(app.Test.Database).CommitAsync(organisation, account, app.Clock.GetCurrentInstant(),
                Act.Writing([.. some.Select(one => EventWrite.Making(one.Event))]));
        await MakeEditionAsync(ada, "Foreign by date", "FGN");
        var kinds = events.ToDictionary(one => one.Event.Content.Title, one => one.Kind);
        await AgreeAsync("foreign-by-date", "FGN", allowsFaults: false, kinds);
        await AgreeAsync("foreign", "FGN", allowsFaults: true, kinds);
    }

    private static readonly DateTimeZone Halifax = Zones.Named("America/Halifax");

    private static async Task MakeEditionAsync(Caller ada, string name, string plate) =>
        await ada.DoAsync(HttpMethod.Post, "/api/editions", new
        {
            isOut = true,
            edition = new JsonObject
            {
                ["name"] = name,
                ["feed"] = "dates",
                ["mergesLookAlikes"] = false,
                ["window"] = new JsonObject { ["from"] = "date", ["fromDate"] = "2026-10-01", ["to"] = "date", ["toDate"] = "2028-06-01" },
                ["sources"] = new JsonArray(new JsonObject { ["calendarId"] = await ada.CalendarAsync(plate) }),
            },
        });

    private async Task AgreeAsync(string slug, string plate, bool allowsFaults, IReadOnlyDictionary<string, string> kinds)
    {
        app.Clock.Advance(Duration.FromSeconds(2));
        var feed = "";
        // Thousands of dates that nobody has asked for yet may take longer than a reader waits: a program comes again.
        await ValtroApp.EventuallyAsync(async () =>
        {
            using var response = await app.Reader().Http.GetAsync($"/c/pinewick/{slug}.ics");
            if (response.StatusCode == HttpStatusCode.ServiceUnavailable)
                return false;
            feed = await response.EnsureSuccessStatusCode().Content.ReadAsStringAsync();
            return true;
        }, $"{slug} was never there.");
        var ours = await OursAsync(plate);
        Assert.True(ours.Count > 20, $"{slug} has {ours.Count} dates only.");
        var failures = new List<string>();
        var theirs = await InNodeAsync(feed);
        theirs["Ical.Net"] = ByIcalNet(feed);
        var traits = TraitsOf(feed);
        foreach (var (reader, read) in theirs)
        {
            var (more, less) = (read.Except(ours).ToArray(), ours.Except(read).ToArray());
            var wrong = more.Concat(less).GroupBy(date => date.Title)
                .Where(group => !(allowsFaults && IsKnown(reader, traits.GetValueOrDefault(group.Key) ?? new HashSet<string>()))).ToArray();
            output.WriteLine(
                $"{slug}, {reader}: {read.Count} dates of {ours.Count}, {more.Length} more, {less.Length} less, of {more.Concat(less).Select(date => date.Title).Distinct().Count()} events");
            foreach (var kind in wrong.GroupBy(group =>
                string.Join('+', traits.GetValueOrDefault(group.Key, new HashSet<string>()).Order())))
                output.WriteLine($"  not known: {kind.Key}: {kind.Count()}, {Say(reader, kind.First().Key, more, less, kinds, feed)}");
            if (wrong.Length > 0)
                failures.Add($"{reader} {wrong.Length}");
        }
        Assert.True(failures.Count == 0, string.Join(", ", failures));
    }

    private static bool IsKnown(string reader, IReadOnlySet<string> traits) =>
        Faults.Keys.Any(fault => fault.Split(' ', 2) is [var who, var what] && who == reader && traits.Contains(what));

    /// <summary>What stands in the components of an event, by its title.</summary>
    private static Dictionary<string, IReadOnlySet<string>> TraitsOf(string feed)
    {
        var traits = new Dictionary<string, HashSet<string>>();
        foreach (var component in Foreign.Calendar.Load(feed)!.Events)
        {
            var of = traits.TryGetValue(component.Summary!, out var known) ? known : traits[component.Summary!] = [];
            if (component.RecurrenceRule is { } rule)
            {
                of.Add(rule.Frequency.ToString());
                if (rule.BySetPosition.Count > 0 && rule.ByMonthDay.Count > 0)
                    of.Add("setpos");
            }
            if (component.RecurrenceDates.GetAllDates().Any())
                of.Add(component.RecurrenceRule is null ? "rdate only" : "rdate");
            if (component.ExceptionDates.GetAllDates().Any())
                of.Add("exdate");
            if (component.RecurrenceIdentifier is not null)
                of.Add("differs");
            if (component.Start?.TzId is { } id
                && component.RecurrenceRule is not null
                && EventDates.All(
                    new CalendarEvent(default, default, default, new EventContent("", SeriesOf(component, id), "", RichText.Empty),
                        EventState.Live, default), SchoolCalendar.Empty)
                .TakeWhile(date => date.Occurrence.RecurrenceId.Year < 2029).Select(date => date.Occurrence.RecurrenceId)
                    .ToArray() is var dates)
            {
                var length = Period.Between(LocalDateTime.FromDateTime(component.Start.Value),
                    component.End is { } end ? LocalDateTime.FromDateTime(end.Value) : LocalDateTime.FromDateTime(component.Start.Value),
                        PeriodUnits.Days | PeriodUnits.Seconds);
                if (dates.Any(date => LocalTimes.EffectOf(date, Zones.Named(id)) == ClockEffect.Skipped))
                    of.Add("gap");
                if (dates.Any(date => LocalTimes.EffectOf(date + length, Zones.Named(id)) == ClockEffect.Skipped))
                    of.Add("ends in gap");
            }
        }
        return traits.ToDictionary(one => one.Key, one => (IReadOnlySet<string>)one.Value);
    }

    private static Series SeriesOf(Foreign.CalendarComponents.CalendarEvent component, string zone)
    {
        var start = LocalDateTime.FromDateTime(component.Start!.Value);
        return new Series(
            Timing.Timed(start, start.PlusMinutes(1), Zones.Named(zone)), RuleText.Parse(component.RecurrenceRule!.ToString()!));
    }

    private static string Say(string reader, string title, Date[] more, Date[] less, IReadOnlyDictionary<string, string> kinds, string feed)
    {
        var component = feed.Replace("\r\n ", "", StringComparison.Ordinal)
            .Split("BEGIN:VEVENT")
            .Where(one => one.Contains($"SUMMARY:{title}\r", StringComparison.Ordinal))
            .Select(
                one => string.Join(" | ",
                    one.Split("\r\n")
                        .Where(line => line.StartsWith("DT", StringComparison.Ordinal)
                            || line.StartsWith('R')
                            || line.StartsWith("EX", StringComparison.Ordinal)
                            || line.StartsWith("DUR", StringComparison.Ordinal))));
        return $"{title} ({kinds.GetValueOrDefault(title)}): {reader} has more {string.Join(", ", more.Where(date => date.Title == title).Take(3).Select(date => $"{date.Start}/{date.End}"))}; less {string.Join(", ", less.Where(date => date.Title == title).Take(3).Select(date => $"{date.Start}/{date.End}"))}\n  {string.Join("\n  ", component.Take(2).Select(line => line[..Math.Min(line.Length, 400)]))}";
    }

    /// <summary>A date with its start and end in UTC, or its days.</summary>
    private readonly record struct Date(string Title, string Start, string End);

    /// <summary>As a line of text has it: that something is due is said behind it.</summary>
    private static string TitleOf(JsonNode date) => (string)date["kind"]! == "deadline" ? $"{date["title"]} (due)" : (string)date["title"]!;

    private async Task<HashSet<Date>> OursAsync(string plate)
    {
        var ada = await app.SignedInAsync();
        var calendar = await ada.CalendarAsync(plate);
        var found = new HashSet<Date>();
        for (var from = First; from < End; from = from.PlusMonths(6))
        {
            foreach (var date in (await ada.GetAsync(
                $"/api/occurrences?from={LocalDatePattern.Iso.Format(from)}&to={LocalDatePattern.Iso.Format(from.PlusMonths(6))}&calendar={calendar}&as=everyone"))
                .AsArray())
            {
                if ((string)date!["state"]! is not ("live" or "cancelled"))
                    continue;
                var (start, end) = ((string)date["start"]!, (string)date["end"]!);
                if ((bool)date["allDay"]! ? IsIn(start) : IsIn(Utc(start)))
                    found.Add((bool)date["allDay"]!
                        ? new Date(TitleOf(date), start[..10], end[..10])
                        : new Date(TitleOf(date), Utc(start), Utc(end)));
            }
        }
        return found;
    }

    /// <param name="start">A day, or a moment in UTC.</param>
    private static bool IsIn(string start) =>
        string.CompareOrdinal(start, "2026-11-01") >= 0 && string.CompareOrdinal(start, "2028-05-01") < 0;

    private static string Utc(string text) =>
        OffsetDateTimePattern.ExtendedIso.Parse(text).Value.ToInstant().ToString("uuuu-MM-dd'T'HH:mm:ss'Z'", CultureInfo.InvariantCulture);

    private static HashSet<Date> ByIcalNet(string feed)
    {
        static string Moment(Foreign.DataTypes.CalDateTime time) =>
            time.HasTime
                ? time.AsUtc.ToString("yyyy-MM-dd'T'HH:mm:ss'Z'", CultureInfo.InvariantCulture)
                : time.Value.ToString("yyyy-MM-dd", CultureInfo.InvariantCulture);
        return [.. Foreign.Calendar.Load(feed)!.GetOccurrences(new Foreign.DataTypes.CalDateTime(2026, 10, 29))
            .TakeWhile(one => one.Period.StartTime.Value < new DateTime(2028, 5, 3))
            .Select(
                one => new Date(((Foreign.CalendarComponents.CalendarEvent)one.Source).Summary!, Moment(one.Period.StartTime),
                    Moment(one.Period.EffectiveEndTime ?? one.Period.StartTime)))
            .Where(date => IsIn(date.Start))];
    }

    private static async Task<Dictionary<string, HashSet<Date>>> InNodeAsync(string feed) =>
        (await NodeScripts.AskAsync("expand.mjs", new { feed, from = "2026-11-01T00:00:00Z", to = "2028-05-01T00:00:00Z" }))
            .ToDictionary(one => one.Key, one => one.Value is JsonArray dates
            ? dates.Select(date => new Date((string)date![0]!, (string)date[1]!, (string)date[2]!)).ToHashSet()
            : throw new InvalidOperationException($"{one.Key}: {one.Value}"));

    /// <summary>Zones of which this machine's database says the same as ours: a library that asks it instead of the feed cannot know what
    /// became of a zone since.</summary>
    private async Task<string[]> ZonesKnownAlikeAsync()
    {
        var instants =
            Enumerable.Range(0, 21 * 4).Select(week => Instant.FromUtc(2026, 10, 1, 0, 0) + Duration.FromDays(7 * week)).ToArray();
        var known = await NodeScripts.AskAsync("zones.mjs", new { zones = ZoneIds, instants = instants.Select(instant => instant.ToString()) });
        var alike = ZoneIds.Where(id => known[id] is JsonArray offsets
            && offsets.Select(offset => (int)offset!)
                .SequenceEqual(instants.Select(instant => Zones.Named(id).GetUtcOffset(instant).Seconds / 60)))
            .ToArray();
        output.WriteLine($"{alike.Length} of {ZoneIds.Length} zones are known alike; not {string.Join(", ", ZoneIds.Except(alike))}");
        return alike;
    }

    // ---- what is generated

    private static readonly string[] ZoneIds = [
        .. DateTimeZoneProviders.Tzdb.Ids.Where(id => id.Contains('/', StringComparison.Ordinal)
            && !id.StartsWith("Etc/", StringComparison.Ordinal)
            && !id.StartsWith("SystemV", StringComparison.Ordinal))];

    private static readonly string[] Rules =
    [
        "FREQ=DAILY;INTERVAL=3", "FREQ=DAILY;COUNT=40", "FREQ=WEEKLY", "FREQ=WEEKLY;BYDAY=MO,WE,FR", "FREQ=WEEKLY;INTERVAL=2;BYDAY=TU,TH",
        "FREQ=WEEKLY;COUNT=30", "FREQ=MONTHLY", "FREQ=MONTHLY;BYDAY=2TU",
        "FREQ=MONTHLY;BYDAY=-1FR", "FREQ=MONTHLY;BYMONTHDAY=15,-1", "FREQ=YEARLY", "FREQ=YEARLY;BYMONTH=3;BYDAY=-1SU",
        "FREQ=MONTHLY;BYDAY=MO,TU,WE,TH,FR;BYSETPOS=-1", "RSCALE=GREGORIAN;FREQ=MONTHLY;SKIP=BACKWARD",
        "RSCALE=GREGORIAN;FREQ=MONTHLY;SKIP=FORWARD",
    ];

    private static Made Generate(Guid calendar, int number, string[] zones, Random random)
    {
        var zone = Zones.Named(number % 3 == 0 ? "America/Halifax" : zones[random.Next(zones.Length)]);
        var day = new LocalDate(2026, 10, 5).PlusDays(random.Next(240));
        var allDay = random.Next(5) == 0;
        // Half of them by night, when clocks change.
        var at = LocalTime.Midnight.PlusMinutes(15 * (random.Next(2) == 0 ? random.Next(20) : random.Next(96)));
        var rule = random.Next(4) == 0 ? null : RuleText.Parse(Rules[random.Next(Rules.Length)]);
        if (rule is { Parts: { Skip: not Skip.Omit } })
            day = new LocalDate(2026, 10, 31);
        var timing = allDay
            ? Timing.WholeDays(day, day.PlusDays(random.Next(3)), zone)
            : Timing.Timed(day + at, (day + at).PlusMinutes(15 * random.Next(1, 60)), zone);
        var series = new Series(timing, rule);
        var kind = new List<string> { allDay ? "days" : "times", rule is null ? "once" : RuleText.Format(rule) };
        var exceptions = new List<EventException>();
        if (rule is not null && random.Next(2) == 0)
        {
            var dates = series.All(SchoolCalendar.Empty).Take(8).Select(date => date.RecurrenceId).ToArray();
            if (random.Next(2) == 0)
            {
                series = series with { Removed = [dates[2]] };
                kind.Add("removed");
            }
            if (random.Next(2) == 0)
            {
                series = series with { Extra = [dates[1].PlusDays(1)] };
                kind.Add("extra");
            }
            exceptions.Add(random.Next(3) switch
            {
                0 => new EventException(dates[3]) { IsCancelled = true },
                1 => new EventException(dates[3]) { Own = OwnFields.None.With("place", Place.Called("Elsewhere")) },
                _ =>
                    new EventException(dates[3])
                    {
                        Start = dates[3].PlusHours(allDay ? 24 : 5),
                        End = dates[3].PlusHours(allDay ? 24 : 5)
                            .Plus(Period.Between(timing.Start, timing.End, PeriodUnits.Days | PeriodUnits.Minutes))
                    },
            });
            kind.Add("differs");
        }
        else if (rule is null && random.Next(3) == 0)
        {
            series = series with { Extra = [timing.Start.PlusDays(9), timing.Start.PlusDays(30)] };
            kind.Add("rdate only");
        }
        var content = new EventContent($"Generated {number}", series, "", RichText.Empty);
        return new Made(new CalendarEvent(Guid.Empty, calendar, default, content, EventState.Live, default) { Exceptions = exceptions },
            string.Join(' ', kind));
    }
}
