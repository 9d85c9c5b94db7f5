using System.Net;
using System.Text.Json.Nodes;

namespace Valtro.Server.Tests;

/// <summary>One date, later ones, or all: through the API, in the answers, and in the feed.</summary>
public sealed class ChangeApiTests(ValtroApp app) : IClassFixture<ValtroApp>
{
    private async Task<(Caller Ada, JsonNode Event)> WeeklyAsync(string plate = "CREW", string date = "2026-11-24")
    {
        var ada = await app.SignedInAsync();
        var repeat = new { pattern = "weekly", interval = 1, weekdays = new[] { 2 }, ends = "after", count = 6 };
        return (ada,
            await ada.DoAsync(
                HttpMethod.Post, "/api/events", Caller.Event(await ada.CalendarAsync(plate), "Signal flags", date, repeat: repeat)));
    }

    private static async Task<string[]> DatesAsync(Caller caller, JsonNode calendarEvent, string from = "2026-11-01",
        string to = "2027-03-01") =>
        [.. (await caller.GetAsync($"/api/occurrences?from={from}&to={to}")).AsArray()
            .Where(one => (string)one!["title"]! == "Signal flags" || (string)one["eventId"]! == (string)calendarEvent["id"]!)
            .Where(one => (string)one!["calendarId"]! == (string)calendarEvent["calendarId"]!)
            .Select(
                one => $"{((string)one!["start"]!)[5..16]}{((string)one["state"]! == "cancelled" ? " x" : "")}{((bool)one["isException"]! ? "*" : "")}")];

    [Fact]
    public async Task A_preview_says_what_each_scope_would_do_and_changes_nothing()
    {
        var (ada, added) = await WeeklyAsync();
        var preview = await ada.ChangeAsync(
            added, "edit", move: new { date = "2026-12-09", from = "15:00:00" }, date: "2026-12-08T14:00:00", preview: true);
        Assert.True((bool)preview["hasChoice"]!);
        Assert.Equal(["when"], preview["differences"]!.AsArray().Select(one => (string)one!["field"]!));
        Assert.Equal([1, 4, 6], preview["scopes"]!.AsArray().Select(one => (int)one!["count"]!));
        Assert.Equal("Wednesday 9 December 2026, 15:00 to 16:00", (string)preview["scopes"]![1]!["dates"]![0]!);
        Assert.Equal(1, (int)(await ada.GetAsync($"/api/events/{added["id"]}"))["version"]!);
        await ada.ChangeAsync(added, "remove");
    }

    [Fact]
    public async Task One_date_is_moved_cancelled_removed_and_restored()
    {
        var (ada, added) = await WeeklyAsync();
        var moved = await ada.ChangeAsync(
            added, "edit", move: new { date = "2026-12-02", from = (string?)null }, scope: "this", date: "2026-12-01T14:00:00");
        await ada.ChangeAsync(added, "cancel", scope: "this", date: "2026-12-08T14:00:00", version: 2);
        await ada.ChangeAsync(added, "remove", scope: "this", date: "2026-12-15T14:00:00", version: 3);
        Assert.Equal(["11-24T14:00", "12-02T14:00*", "12-08T14:00 x*", "12-22T14:00", "12-29T14:00"], await DatesAsync(ada, added));
        var seen = await ada.GetAsync($"/api/events/{added["id"]}?date=2026-12-01T14:00:00");
        Assert.StartsWith("moved to", (string)seen["differs"]!, StringComparison.Ordinal);
        await ada.ChangeAsync(added, "restore", scope: "every", version: 4);
        Assert.Equal(
            ["11-24T14:00", "12-02T14:00*", "12-08T14:00", "12-15T14:00", "12-22T14:00", "12-29T14:00"], await DatesAsync(ada, added));
        Assert.Equal(HttpStatusCode.Conflict, (await ada.SendAsync(HttpMethod.Post, $"/api/acts/{moved["actId"]}/undo")).StatusCode);
        await ada.ChangeAsync(added, "remove", version: 5);
    }

    [Fact]
    public async Task A_split_is_one_act_and_is_undone_as_one()
    {
        var (ada, added) = await WeeklyAsync();
        var split = await ada.ChangeAsync(
            added, "edit", move: new { date = "2026-12-08", from = "16:00:00" }, scope: "later", date: "2026-12-08T14:00:00");
        Assert.NotEqual((string)added["id"]!, (string)split["eventId"]!);
        Assert.Equal(
            ["11-24T14:00", "12-01T14:00", "12-08T16:00", "12-15T16:00", "12-22T16:00", "12-29T16:00"], await DatesAsync(ada, added));
        await ada.DoAsync(HttpMethod.Post, $"/api/acts/{split["actId"]}/undo");
        Assert.Equal(
            ["11-24T14:00", "12-01T14:00", "12-08T14:00", "12-15T14:00", "12-22T14:00", "12-29T14:00"], await DatesAsync(ada, added));
        await ada.ChangeAsync(added, "remove", version: 3);
    }

    [Fact]
    public async Task What_loses_its_place_is_named_and_kept_when_asked()
    {
        var (ada, added) = await WeeklyAsync();
        await ada.ChangeAsync(
            added, "edit", move: new { date = "2026-12-03", from = (string?)null }, scope: "this", date: "2026-12-01T14:00:00");
        var fortnightly = Caller.Event((string)added["calendarId"]!, "Signal flags", "2026-11-24",
            repeat: new { pattern = "weekly", interval = 2, weekdays = new[] { 2 }, ends = "after", count = 6 });
        var preview = await ada.ChangeAsync(added, "edit", fortnightly, version: 2, preview: true);
        var lost = Assert.Single(preview["scopes"]!.AsArray().Single(one => (string)one!["scope"]! == "every")!["lost"]!.AsArray())!;
        Assert.Equal("2026-12-01T14:00:00", (string)lost["recurrenceId"]!);
        await ada.ChangeAsync(added, "edit", fortnightly, version: 2, keep: ["2026-12-01T14:00:00"]);
        Assert.Equal(["11-24T14:00", "12-03T14:00", "12-08T14:00", "12-22T14:00"],
            (await DatesAsync(ada, added, to: "2026-12-30")).Select(date => date.TrimEnd('*')));
        await ada.ChangeAsync(added, "remove", version: 3);
    }

    [Fact]
    public async Task A_scope_that_is_needed_and_missing_is_asked_for()
    {
        var (ada, added) = await WeeklyAsync();
        var refused = await ada.TryChangeAsync(added, "cancel", scope: null);
        Assert.Equal(HttpStatusCode.BadRequest, refused.StatusCode);
        Assert.NotNull((await Caller.ReadAsync(refused))["errors"]!["scope"]);
        var elsewhere = Caller.Event(await ada.CalendarAsync("SCH"), "Signal flags", "2026-11-24", repeat: added["repeat"]);
        Assert.Equal(HttpStatusCode.BadRequest, (await ada.TryChangeAsync(added, "edit", elsewhere, scope: "this")).StatusCode);
        Assert.Equal(HttpStatusCode.NotFound, (await ada.Http.GetAsync($"/api/events/{added["id"]}?date=2026-11-25T14:00:00")).StatusCode);
        await ada.ChangeAsync(added, "remove");
    }

    [Fact]
    public async Task Every_version_is_listed_and_can_be_had_again()
    {
        var (ada, added) = await WeeklyAsync();
        await ada.ChangeAsync(added, "edit",
            Caller.Event(
                (string)added["calendarId"]!, "Signal flags", "2026-11-24", from: "16:00:00", to: "17:00:00", repeat: added["repeat"]));
        var revisions = (await ada.GetAsync($"/api/events/{added["id"]}/revisions")).AsArray();
        Assert.Equal(["changed", "made"], revisions.Select(one => (string)one!["act"]!));
        Assert.Equal("when", (string)revisions[0]!["differences"]![0]!["field"]!);
        Assert.Equal("Ada Dunmore", (string)revisions[0]!["by"]!);
        await ada.DoAsync(HttpMethod.Post, $"/api/events/{added["id"]}/revisions/1/restore?now=2");
        Assert.Equal("14:00:00", (string)(await ada.GetAsync($"/api/events/{added["id"]}"))["from"]!);
        Assert.Equal(HttpStatusCode.Conflict,
            (await ada.SendAsync(HttpMethod.Post, $"/api/events/{added["id"]}/revisions/1/restore?now=2")).StatusCode);
        await ada.ChangeAsync(added, "remove", version: 3);
    }

    [Fact]
    public async Task Consequences_show_the_whole_series_as_it_would_become_and_what_clashes()
    {
        var (ada, added) = await WeeklyAsync("PW", "2026-11-26");
        var form = Caller.Event(
            (string)added["calendarId"]!, "Signal flags", "2026-12-08", from: "13:30:00", to: "14:15:00", repeat: added["repeat"]);
        form["place"] = "Slipway";
        var follows = await ada.DoAsync(HttpMethod.Post, "/api/events/consequences",
            new { @event = form, eventId = (string)added["id"]!, recurrenceId = "2026-12-08T14:00:00" });
        Assert.Equal("2026-11-26T13:30:00-04:00", (string)follows["dates"]![0]!["start"]!);
        Assert.Contains("same readers (Junior families): “Marine science” (SW)",
            string.Join(";", follows["dates"]![0]!["remarks"]!.AsArray().Select(one => (string)one!)), StringComparison.Ordinal);
        Assert.Contains("Slipway is taken: “Boat lab” (PW)",
            string.Join(";", follows["dates"]![1]!["remarks"]!.AsArray().Select(one => (string)one!)), StringComparison.Ordinal);
        await ada.ChangeAsync(added, "remove");
    }

    [Fact]
    public async Task A_place_is_not_told_by_a_clash_to_those_who_may_not_know_it()
    {
        var (ada, hidden) = await WeeklyAsync("STF");
        var form = Caller.Event((string)hidden["calendarId"]!, "Signal flags", "2026-11-24", from: "02:00:00", to: "02:30:00");
        form["place"] = "Hall";
        await ada.ChangeAsync(hidden, "edit", form);
        var bo = await app.SignedInAsync("bo");
        var mine = Caller.Event(await bo.CalendarAsync("PW"), "Night", "2026-11-24", from: "02:00:00", to: "02:30:00");
        mine["place"] = "Hall";
        var follows = await bo.DoAsync(
            HttpMethod.Post, "/api/events/consequences", new { @event = mine, eventId = (string?)null, recurrenceId = (string?)null });
        Assert.Empty(follows["dates"]![0]!["remarks"]!.AsArray());
        await ada.ChangeAsync(hidden, "remove", version: 2);
    }

    [Fact]
    public async Task Who_sees_times_only_does_not_learn_that_a_date_was_moved_nor_of_what_series_it_is()
    {
        var ada = await app.SignedInAsync();
        var slip = await ada.CalendarNodeAsync("SLIP");
        await app.Test.Database.ExecuteAsync(
            "update calendar set members = 'times' where id = @id", new { id = Guid.Parse((string)slip["id"]!) });
        var (_, added) = await WeeklyAsync("SLIP", "2027-01-12");
        await ada.ChangeAsync(
            added, "edit", move: new { date = "2027-01-20", from = "03:00:00" }, scope: "this", date: "2027-01-19T14:00:00");
        var di = await app.SignedInAsync("di");
        var busy = (await di.GetAsync("/api/occurrences?from=2027-01-20&to=2027-01-21")).AsArray()
            .Single(one => (string)one!["eventId"]! == (string)added["id"]!)!;
        Assert.Equal(("2027-01-20T03:00:00", "Busy", false, false),
            ((string)busy["recurrenceId"]!, (string)busy["title"]!, (bool)busy["isException"]!, (bool)busy["recurs"]!));
        var seen = (await di.GetAsync($"/api/events/{added["id"]}?date=2027-01-20T03:00:00")).ToJsonString();
        Assert.Contains("\"date\":\"2027-01-20\"", seen, StringComparison.Ordinal);
        Assert.DoesNotContain("2027-01-19", seen, StringComparison.Ordinal);
        Assert.DoesNotContain("Signal flags", seen, StringComparison.Ordinal);
        Assert.DoesNotContain("weekly", seen, StringComparison.Ordinal);
        await ada.ChangeAsync(added, "remove", version: 2);
    }
}
