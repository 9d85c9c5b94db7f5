using System.Net;
using System.Text.Json.Nodes;
using NodaTime;
using Foreign = Ical.Net;

namespace Valtro.Server.Tests;

/// <summary>The year plan, the lists, several events at once, and the demo's feeds.</summary>
public sealed class YearPlanApiTests(ValtroApp app) : IClassFixture<ValtroApp>
{
    private static async Task<JsonObject> PlanAsync(Caller caller) =>
        (await caller.GetAsync("/api/year-plans"))["plans"]![0]!.DeepClone().AsObject();

    [Fact]
    public async Task A_change_is_foreseen_and_then_followed_by_plan_and_feed()
    {
        var ada = await app.SignedInAsync();
        var plan = await PlanAsync(ada);
        var id = (string)plan["id"]!;
        plan["breaks"]!.AsArray().Add(JsonNode.Parse("""{"name":"Whale day","first":"2026-12-01","last":"2026-12-01"}"""));
        var foreseen = await ada.DoAsync(HttpMethod.Post, $"/api/year-plans/preview?id={id}", plan);
        var lab = foreseen["events"]!.AsArray().Single(one => (string)one!["title"]! == "Boat lab" && (int)one["gone"]! == 1)!;
        Assert.Equal("fall out: 1 December 2026", (string)lab["words"]![0]!);
        var before = await ada.Http.GetStringAsync("/c/pinewick/port-watch.ics");
        Assert.DoesNotContain("20261201T140000", before, StringComparison.Ordinal);
        // Read before it is saved, as the readers of each edition would get it.
        var edition = foreseen["editions"]!.AsArray().First(one => (string)one!["name"]! == "Port Watch")!;
        var proof = await ada.DoAsync(HttpMethod.Post, $"/api/year-plans/preview/editions/{edition["id"]}?id={id}", plan);
        Assert.True((int)proof["becomes"]! < (int)proof["entries"]!);
        Assert.Contains("Boat lab, 1 December 2026", proof["leave"]!.AsArray().Select(one => (string)one!));
        Assert.Equal("everyone", (string)proof["readers"]!);
        var unchanged = await ada.DoAsync(
            HttpMethod.Post, $"/api/year-plans/preview/editions/{edition["id"]}?id={id}", await PlanAsync(ada));
        Assert.Equal((int)proof["entries"]!, (int)unchanged["becomes"]!);
        Assert.Empty(unchanged["come"]!.AsArray());
        // So is what would follow if the year were gone: nothing knows of its breaks.
        var gone = await ada.GetAsync($"/api/year-plans/{id}/removal");
        Assert.Contains("Boat lab", gone["events"]!.AsArray().Select(one => (string)one!["title"]!));
        var without = await ada.GetAsync($"/api/year-plans/{id}/removal/editions/{edition["id"]}");
        Assert.Equal((int)proof["entries"]!, (int)without["entries"]!);
        Assert.NotEmpty(without["arrive"]!.AsArray());

        await ada.DoAsync(HttpMethod.Put, $"/api/year-plans/{id}", plan);
        var on = (await ada.GetAsync("/api/occurrences?from=2026-12-01&to=2026-12-02")).AsArray().Select(one => (string)one!["title"]!);
        Assert.DoesNotContain("Boat lab", on);
        app.Clock.Advance(Duration.FromSeconds(5));
        var after = await ada.Http.GetStringAsync("/c/pinewick/port-watch.ics");
        Assert.Contains("20261201T140000", after.Replace("\r\n ", "", StringComparison.Ordinal), StringComparison.Ordinal);

        var conflict = await ada.SendAsync(HttpMethod.Put, $"/api/year-plans/{id}", plan);
        Assert.Equal(HttpStatusCode.Conflict, conflict.StatusCode);
        var now = await PlanAsync(ada);
        now["breaks"] =
            new JsonArray([.. now["breaks"]!.AsArray().Where(one => (string)one!["name"]! != "Whale day").Select(one => one!.DeepClone())]);
        await ada.DoAsync(HttpMethod.Put, $"/api/year-plans/{id}", now);
    }

    [Fact]
    public async Task The_year_and_its_days_say_terms_breaks_and_the_cycle()
    {
        var ada = await app.SignedInAsync();
        var weeks = (await ada.GetAsync("/api/year?day=2026-11-23"))["weeks"]!.AsArray();
        Assert.Equal("Autumn term", (string)weeks.Single(one => (string)one!["first"]! == "2026-11-23")!["term"]!);
        Assert.Equal(7, (int)weeks.Single(one => (string)one!["first"]! == "2026-12-21")!["closedDays"]!);
        var days = (await ada.GetAsync("/api/days?from=2026-10-30&to=2026-11-03")).AsArray();
        Assert.Equal("Storm week", (string)days[0]!["closed"]!);
        Assert.Equal(("2026-11-01T00:00:00-03:00", "2026-11-02T00:00:00-04:00", "2026-11-01T01:00:00-04:00"),
            ((string)days[2]!["start"]!, (string)days[2]!["end"]!, (string)days[2]!["clocksChangeAt"]!));
        Assert.StartsWith("Week ", (string)days[3]!["cycle"]!, StringComparison.Ordinal);
    }

    [Fact]
    public async Task The_next_year_is_proposed_and_not_saved()
    {
        var ada = await app.SignedInAsync();
        var next = await ada.DoAsync(HttpMethod.Post, $"/api/year-plans/{(await PlanAsync(ada))["id"]}/next");
        Assert.Equal(2, next["terms"]!.AsArray().Count);
        Assert.Single((await ada.GetAsync("/api/year-plans"))["plans"]!.AsArray());
        next["first"] = "2027-06-01";
        var refused = await ada.SendAsync(HttpMethod.Post, "/api/year-plans", next);
        Assert.Contains("holds some of these days already", (string)(await Caller.ReadAsync(refused))["errors"]!["first"]![0]!,
            StringComparison.Ordinal);
    }

    [Theory]
    [InlineData("bo")]
    [InlineData("di")]
    public async Task Only_an_administrator_changes_the_year_plan_and_the_lists(string name)
    {
        var caller = await app.SignedInAsync(name);
        var plan = await PlanAsync(caller);
        Assert.False((bool)(await caller.GetAsync("/api/year-plans"))["mayEdit"]!);
        Assert.Equal(HttpStatusCode.Forbidden, (await caller.SendAsync(HttpMethod.Put, $"/api/year-plans/{plan["id"]}", plan)).StatusCode);
        Assert.Equal(HttpStatusCode.Forbidden, (await caller.SendAsync(HttpMethod.Post, "/api/year-plans/preview", plan)).StatusCode);
        Assert.Equal(HttpStatusCode.Forbidden,
            (await caller.SendAsync(HttpMethod.Post, $"/api/year-plans/preview/editions/{Guid.NewGuid()}", plan)).StatusCode);
        Assert.Equal(HttpStatusCode.Forbidden,
            (await caller.SendAsync(HttpMethod.Get, $"/api/year-plans/{plan["id"]}/removal/editions/{Guid.NewGuid()}")).StatusCode);
        Assert.Equal(
            HttpStatusCode.Forbidden, (await caller.SendAsync(HttpMethod.Delete, $"/api/year-plans/{plan["id"]}?version=1")).StatusCode);
        Assert.Equal(
            HttpStatusCode.Forbidden, (await caller.SendAsync(HttpMethod.Post, "/api/lists/places", new { name = "Attic" })).StatusCode);
        Assert.Equal(HttpStatusCode.Forbidden,
            (await caller.SendAsync(
                HttpMethod.Post, "/api/year-plans/breaks", new { text = "", first = "2026-08-01", last = "2027-07-31" })).StatusCode);
    }

    [Fact]
    public async Task Lists_are_kept_and_a_name_that_is_taken_is_said()
    {
        var ada = await app.SignedInAsync();
        var attic = await ada.DoAsync(HttpMethod.Post, "/api/lists/places", new { name = "Attic" });
        Assert.NotNull(
            (await Caller.ReadAsync(await ada.SendAsync(HttpMethod.Post, "/api/lists/places", new { name = "ATTIC" })))["errors"]!["name"]);
        Assert.Equal(
            HttpStatusCode.NoContent, (await ada.SendAsync(HttpMethod.Post, $"/api/lists/places/{attic["id"]}/retire")).StatusCode);
        Assert.DoesNotContain((await ada.GetAsync("/api/lists"))["places"]!.AsArray(), one => (string)one!["name"]! == "Attic");
        Assert.Equal(
            HttpStatusCode.NotFound, (await ada.SendAsync(HttpMethod.Post, $"/api/lists/places/{Guid.NewGuid()}/retire")).StatusCode);
        Assert.Equal(["Assessment", "Occasion", "Regatta", "Training"],
            (await ada.GetAsync("/api/lists"))["categories"]!.AsArray().Select(one => (string)one!["name"]!));
    }

    [Fact]
    public async Task A_table_is_saved_whole_or_not_at_all()
    {
        var ada = await app.SignedInAsync();
        var good = new { date = "3 Dec", from = "9", to = "10.30", title = "Knots exam", place = "Loft", calendar = "PW" };
        var bad = new { date = "31 Feb", from = "9", to = "10.30", title = "", place = "", calendar = "XX" };
        var check =
            await ada.DoAsync(HttpMethod.Post, "/api/events/several/check", new { rows = new[] { good, bad }, calendarId = (string?)null });
        Assert.Equal("Thursday 3 December 2026, 09:00 to 10:30", (string)check["rows"]![0]!["words"]!);
        Assert.Equal(["calendar", "date", "title"], check["rows"]![1]!["errors"]!.AsObject().Select(one => one.Key).Order());
        Assert.Equal(["Members: all of them", "With the link: all of them", "Everyone: all of them"], await WhoSeesAsync(good, bad));
        Assert.Equal(["Members: all of them", "With the link: all of them, 1 only as “Busy”", "Everyone: one of them, 1 only as “Busy”"],
            await WhoSeesAsync(good with { calendar = "SLIP" }, good with { calendar = "ROW" }, bad));
        Assert.Equal(["Members: none", "With the link: none", "Everyone: none"], await WhoSeesAsync(good with { calendar = "STF" }));
        var before = await app.Test.Database.FirstAsync<long>("select count(*) from event");
        var refused =
            await ada.SendAsync(HttpMethod.Post, "/api/events/several", new { rows = new[] { good, bad }, calendarId = (string?)null });
        Assert.NotNull((await Caller.ReadAsync(refused))["errors"]!["rows[1].date"]);
        Assert.Equal(before, await app.Test.Database.FirstAsync<long>("select count(*) from event"));
        var saved = await ada.DoAsync(HttpMethod.Post, "/api/events/several",
            new { rows = new[] { good, good with { date = "4 Dec" } }, calendarId = (string?)null });
        Assert.Equal(2, (int)saved["events"]!);
        await ada.DoAsync(HttpMethod.Post, $"/api/acts/{saved["actId"]}/undo");
        Assert.DoesNotContain((await ada.GetAsync("/api/occurrences?from=2026-12-03&to=2026-12-05")).AsArray(),
            one => (string)one!["title"]! == "Knots exam");
        var bo = await app.SignedInAsync("bo");
        Assert.NotNull(
            (await Caller.ReadAsync(
                await bo.SendAsync(HttpMethod.Post, "/api/events/several",
                    new { rows = new[] { good with { calendar = "CREW" } }, calendarId = (string?)null })))["errors"]!["rows[0].calendar"]);
        Assert.Equal(HttpStatusCode.BadRequest,
            (await ada.SendAsync(HttpMethod.Post, "/api/events/several",
                new { rows = Enumerable.Repeat(good, 5_001), calendarId = (string?)null })).StatusCode);

        async Task<IEnumerable<string>> WhoSeesAsync(params object[] rows) =>
            (await ada.DoAsync(HttpMethod.Post, "/api/events/several/check", new { rows, calendarId = (string?)null }))["whoSees"]!
                .AsArray().Select(one => (string)one!);
    }

    [Fact]
    public async Task A_line_is_read_and_a_plate_that_is_none_is_asked_about()
    {
        var ada = await app.SignedInAsync();
        var read = await ada.DoAsync(
            HttpMethod.Post, "/api/events/line", new { text = "Sail repair every Tue 14:00–15:30 in Slipway @PW" });
        Assert.Equal(await ada.CalendarAsync("PW"), (string)read["events"]![0]!["calendarId"]!);
        Assert.Equal("Slipway", (string)read["events"]![0]!["place"]!);
        Assert.Empty(read["questions"]!.AsArray());
        var asked = await ada.DoAsync(HttpMethod.Post, "/api/events/line", new { text = "Sail repair Tue 14:00–15:30 @NONE" });
        Assert.Equal("calendarId", (string)Assert.Single(asked["questions"]!.AsArray())!["field"]!);
        Assert.Null(asked["calendarId"]);
    }

    /// <summary>"Fri 18:00–22:00 and Sat 9–12": two events, one save, one undo; sent twice they are made once.</summary>
    [Fact]
    public async Task Several_events_of_a_line_are_one_act()
    {
        var ada = await app.SignedInAsync();
        var read = await ada.DoAsync(
            HttpMethod.Post, "/api/events/line", new { text = "Regatta watch Fri 18:00–22:00 and Sat 9–12 @PW" });
        var sent = new { events = read["events"] };
        var saved = await ada.DoAsync(HttpMethod.Post, "/api/events/together", sent);
        Assert.Equal((2, false), ((int)saved["events"]!, (bool)saved["waits"]!));
        Assert.Equal(["2026-11-27T18:00:00-04:00", "2026-11-28T09:00:00-04:00"], await StartsAsync());
        await ada.DoAsync(HttpMethod.Post, $"/api/acts/{saved["actId"]}/undo");
        Assert.Empty(await StartsAsync());
        Assert.Equal(HttpStatusCode.BadRequest,
            (await ada.SendAsync(HttpMethod.Post, "/api/events/together", new { events = Array.Empty<object>() })).StatusCode);
        var di = await app.SignedInAsync("di");
        Assert.Equal(HttpStatusCode.Forbidden, (await di.SendAsync(HttpMethod.Post, "/api/events/together", sent)).StatusCode);

        async Task<string[]> StartsAsync() => [.. (await ada.GetAsync("/api/occurrences?from=2026-11-23&to=2026-11-30")).AsArray()
            .Where(one => (string)one!["title"]! == "Regatta watch").Select(one => (string)one!["start"]!)];
    }

    [Fact]
    public async Task Times_on_another_clock_are_told_on_both()
    {
        var ada = await app.SignedInAsync();
        var call = (await ada.GetAsync("/api/occurrences?from=2026-11-26&to=2026-11-27")).AsArray()
            .Single(one => (string)one!["title"]! == "Call with the Oslo rowers")!;
        Assert.Equal(("2026-11-26T13:00:00-04:00", "2026-11-26T18:00:00+01:00"), ((string)call["start"]!, (string)call["own"]!["start"]!));
        var seen = await ada.GetAsync($"/api/events/{call["eventId"]}");
        Assert.Equal(("18:00:00", "2026-11-26T13:00:00-04:00"), ((string)seen["from"]!, (string)seen["onCalendarClock"]!["start"]!));
    }

    /// <summary>Every demo series: what a subscriber's program makes of the feed is what the API answers.</summary>
    [Theory]
    [InlineData("PW", "port-watch")]
    [InlineData("SW", "starboard-watch")]
    [InlineData("CREW", "senior-crew")]
    [InlineData("SCH", "whole-school")]
    public async Task The_demo_s_feeds_hold_the_same_instants_as_the_API(string plate, string slug)
    {
        var ada = await app.SignedInAsync();
        var calendar = await ada.CalendarAsync(plate);
        var feed = Foreign.Calendar.Load(await ada.Http.GetStringAsync($"/c/pinewick/{slug}.ics"))!;
        var from = new Foreign.DataTypes.CalDateTime(2026, 8, 1, 3, 0, 0, "UTC");
        var theirs = feed.GetOccurrences(from)
            .TakeWhile(occurrence => occurrence.Period.StartTime.AsUtc < new DateTime(2027, 8, 1, 3, 0, 0, DateTimeKind.Utc))
            .Where(occurrence => ((Foreign.CalendarComponents.CalendarEvent)occurrence.Source).Status != "CANCELLED")
            .Select(occurrence => occurrence.Period.StartTime.HasTime
                ? $"{occurrence.Period.StartTime.AsUtc:yyyy-MM-ddTHH:mm}"
                : $"{occurrence.Period.StartTime.Value:yyyy-MM-dd}")
            .Order()
            .ToArray();
        var ours = (await ada.GetAsync($"/api/occurrences?from=2026-08-01&to=2027-08-01&as=everyone&calendar={calendar}")).AsArray()
            .Where(one => (string)one!["state"]! != "cancelled")
            .Select(one => (bool)one!["allDay"]!
                ? (string)one["start"]!
                : $"{DateTimeOffset.Parse((string)one["start"]!, System.Globalization.CultureInfo.InvariantCulture).UtcDateTime:yyyy-MM-ddTHH:mm}")
            .Order()
            .ToArray();
        Assert.Equal(ours, theirs);
        Assert.True(ours.Length > 10);
    }
}
