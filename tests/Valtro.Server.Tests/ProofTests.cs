using System.Net;
using System.Text.Json.Nodes;
using Microsoft.AspNetCore.Builder;
using Microsoft.AspNetCore.Http;
using NodaTime;

namespace Valtro.Server.Tests;

/// <summary>An edition in the making, read before its readers do, put right, and let out.</summary>
public sealed class ProofTests(ValtroApp app) : IClassFixture<ValtroApp>
{
    private static object Draft(string name, params string[] calendars) =>
        new { name, mergesLookAlikes = false, sources = calendars.Select(calendarId => new { calendarId }) };

    private static async Task<(string Id, string Page)> MakeAsync(Caller caller, string name, bool isOut, params string[] calendars)
    {
        var made = await caller.DoAsync(HttpMethod.Post, "/api/editions", new { edition = Draft(name, calendars), isOut });
        return ((string)made["id"]!, new Uri((string)made["addresses"]!["page"]!).AbsolutePath);
    }

    private static async Task<JsonNode> EventAsync(
        Caller caller, string calendar, string title, string date = "2026-11-25", object? repeat = null)
    {
        var made = await caller.DoAsync(HttpMethod.Post, "/api/events", Caller.Event(calendar, title, date, repeat: repeat));
        return await caller.GetAsync($"/api/events/{made["id"]}");
    }

    /// <summary>What is to be done after a while is done now.</summary>
    private async Task LaterAsync(Caller caller, string calendar, Func<Task<bool>> isSo, string what)
    {
        app.Clock.Advance(Duration.FromSeconds(30));
        // A save wakes those who do it.
        await EventAsync(caller, calendar, "Tea", "2026-12-02");
        await ValtroApp.EventuallyAsync(isSo, what);
    }

    private static string[] Kinds(JsonNode proof) => [.. proof["findings"]!.AsArray().Select(one => (string)one!["kind"]!)];

    private static JsonNode Found(JsonNode proof, string kind) => proof["findings"]!.AsArray().Single(one => (string)one!["kind"]! == kind)!;

    [Fact]
    public async Task An_edition_in_the_making_is_known_to_nobody_until_it_is_let_out()
    {
        var ada = await app.SignedInAsync();
        var calendar = await ada.MakeCalendarAsync("IM", link: "complete", everyone: "complete");
        await EventAsync(ada, calendar, "Sail repair");
        var (id, page) = await MakeAsync(ada, "In the making", isOut: false, calendar);
        var reader = app.Reader().Http;
        foreach (var ending in new[] { "", ".ics", ".json", ".atom", "/embed" })
            Assert.Equal(HttpStatusCode.NotFound, (await reader.GetAsync(page + ending)).StatusCode);
        Assert.DoesNotContain("In the making", await reader.GetStringAsync("/c/pinewick"), StringComparison.Ordinal);
        Assert.Contains("Sail repair", await (await ada.SendAsync(HttpMethod.Get, $"/api/editions/{id}/page")).Content.ReadAsStringAsync(),
            StringComparison.Ordinal);
        var line = (await ada.GetAsync("/api/editions")).AsArray().Single(one => (string)one!["id"]! == id)!;
        Assert.True((bool)line["isInTheMaking"]!);
        Assert.Equal("closed", (string)line["freshness"]!["state"]!);

        await ada.DoAsync(HttpMethod.Post, $"/api/editions/{id}/let-out");
        Assert.Contains("Sail repair", await reader.GetStringAsync(page), StringComparison.Ordinal);
        Assert.Contains("In the making", await reader.GetStringAsync("/c/pinewick"), StringComparison.Ordinal);
        using var again = await ada.SendAsync(HttpMethod.Post, $"/api/editions/{id}/let-out");
        Assert.Equal(HttpStatusCode.NotFound, again.StatusCode);
        Assert.Single((await ada.GetAsync("/api/audit?act=editionLetOut")).AsArray(), one => (string)one!["subject"]! == "In the making");
    }

    [Fact]
    public async Task Members_and_their_programs_have_nothing_of_one_in_the_making()
    {
        var ada = await app.SignedInAsync();
        var calendar = await ada.MakeCalendarAsync("IN");
        var made = await ada.DoAsync(HttpMethod.Post, "/api/editions",
            new { edition = new { name = "For members", audience = "members", sources = new[] { new { calendarId = calendar } } } });
        var di = await app.SignedInAsync("di");
        Assert.DoesNotContain((await di.GetAsync("/api/editions")).AsArray(), one => (string)one!["name"]! == "For members");
        await ada.DoAsync(HttpMethod.Post, $"/api/editions/{made["id"]}/let-out");
        Assert.Contains((await di.GetAsync("/api/editions")).AsArray(), one => (string)one!["name"]! == "For members");
    }

    [Fact]
    public async Task The_proof_says_what_is_wrong_with_ways_to_put_it_right_and_shows_what_follows()
    {
        var ada = await app.SignedInAsync();
        var (open, other, closed) = (await ada.MakeCalendarAsync("PA", link: "complete", everyone: "complete"),
            await ada.MakeCalendarAsync("PB", link: "complete", everyone: "complete"), await ada.MakeCalendarAsync("PC"));
        foreach (var calendar in new[] { open, other })
            await EventAsync(ada, calendar, "Open evening");
        await EventAsync(ada, closed, "Crew supper");
        var (id, _) = await MakeAsync(ada, "Proof", isOut: false, open, other, closed);

        var proof = await ada.GetAsync($"/api/editions/{id}/proof");
        Assert.Equal(["sourceClosed", "lookAlikesApart"], Kinds(proof));
        Assert.Equal("Calendar PC shows everyone nothing", (string)Found(proof, "sourceClosed")["title"]!);
        Assert.Equal((2, 2), ((int)proof["entries"]!, proof["lines"]!.AsArray().Count));
        Assert.Equal(2, proof["weeks"]!.AsArray().Sum(week => (int)week!["entries"]!));

        object merging = new { setting = "mergeLookAlikes", calendarId = (string?)null, version = (int)proof["version"]! };
        var foreseen = await ada.DoAsync(HttpMethod.Post, $"/api/editions/{id}/proof/setting/preview", merging);
        Assert.Equal((2, 1), ((int)foreseen["entries"]!, (int)foreseen["becomes"]!));
        Assert.Equal(["Open evening stands there 2 times"], foreseen["gone"]!.AsArray().Select(one => (string)one!));
        await ada.DoAsync(HttpMethod.Post, $"/api/editions/{id}/proof/setting", merging);
        using var late = await ada.SendAsync(HttpMethod.Post, $"/api/editions/{id}/proof/setting", merging);
        Assert.Equal(HttpStatusCode.Conflict, late.StatusCode);
        await ada.DoAsync(HttpMethod.Post, $"/api/editions/{id}/proof/setting",
            new { setting = "leaveOut", calendarId = closed, version = (int)proof["version"]! + 1 });
        Assert.Empty(Kinds(await ada.GetAsync($"/api/editions/{id}/proof")));
    }

    [Fact]
    public async Task What_changed_when_it_last_went_out_comes_first_and_apart_from_what_changed_before()
    {
        var ada = await app.SignedInAsync();
        var calendar = await ada.MakeCalendarAsync("PLX", link: "complete", everyone: "complete");
        var (id, _) = await MakeAsync(ada, "Lately", isOut: true, calendar);
        await EventAsync(ada, calendar, "Sail repair", "2026-11-26");
        app.Clock.Advance(Duration.FromMinutes(5));
        await EventAsync(ada, calendar, "Boat lab", "2026-11-30");
        var changed = (await ada.GetAsync($"/api/editions/{id}/proof/changed")).AsArray();
        Assert.Equal(["Boat lab", "Sail repair"], changed.Select(one => (string)one!["title"]!));
        Assert.All(changed, one => Assert.Equal("PLX", (string)Assert.Single(one!["sources"]!.AsArray())!["plate"]!));
        Assert.Equal(["new", "new"], changed.Select(one => (string)one!["change"]!));
        Assert.StartsWith("2026-11-30T", (string)changed[0]!["start"]!, StringComparison.Ordinal);
        Assert.True(DateTimeOffset.Parse((string)changed[0]!["at"]!, System.Globalization.CultureInfo.InvariantCulture)
            > DateTimeOffset.Parse((string)changed[1]!["at"]!, System.Globalization.CultureInfo.InvariantCulture));
    }

    [Fact]
    public async Task Findings_are_kept_by_work_counted_put_off_with_a_reason_and_open_to_those_whom_they_concern()
    {
        var ada = await app.SignedInAsync();
        var calendar = await ada.MakeCalendarAsync("PD", link: "complete", everyone: "complete");
        await EventAsync(ada, calendar, "OPEN HARBOUR EVENING");
        var endless = await EventAsync(ada, calendar, "Boat lab", repeat: Caller.Weekly(3));
        var (id, _) = await MakeAsync(ada, "Looked through", isOut: true, calendar);
        async Task<JsonNode> LineAsync() => (await ada.GetAsync("/api/editions")).AsArray().Single(one => (string)one!["id"]! == id)!;
        var other = await ada.MakeCalendarAsync("PX");
        await LaterAsync(
            ada, other, async () => (await LineAsync())["findings"] is { } found && (int)found["toLookAt"]! > 0, "an edition is looked through");

        var proof = await ada.GetAsync($"/api/editions/{id}/proof");
        Assert.Contains("endlessSeries", Kinds(proof));
        Assert.NotNull(Found(proof, "endlessSeries")["since"]);
        var needs = await ada.GetAsync("/api/needs");
        JsonNode[] Mine(JsonNode all) => [.. all["findings"]!.AsArray().Where(one => one!["editions"]!.AsArray().Any(edition =>
            (string)edition!["id"]! == id)).OfType<JsonNode>()];
        Assert.Contains(Mine(needs), one => (string)one["finding"]!["kind"]! == "endlessSeries");
        Assert.DoesNotContain(Mine(needs), one => (string)one["finding"]!["kind"]! == "titleInCapitals");
        Assert.Empty(Mine(await (await app.SignedInAsync("di")).GetAsync("/api/needs")));

        var about = (string)Found(proof, "endlessSeries")["about"]!;
        using var silent = await ada.SendAsync(HttpMethod.Post, $"/api/editions/{id}/proof/put-off", new { kind = "endlessSeries", about, reason = " " });
        Assert.Equal(HttpStatusCode.BadRequest, silent.StatusCode);
        await ada.SaidAsync(HttpMethod.Post, $"/api/editions/{id}/proof/put-off",
            new { kind = "endlessSeries", about, reason = "It goes on for ever" });
        Assert.Equal(("It goes on for ever", "Ada Dunmore"), ((string)Found(await ada.GetAsync($"/api/editions/{id}/proof"), "endlessSeries")["putOff"]!["reason"]!,
            (string)Found(await ada.GetAsync($"/api/editions/{id}/proof"), "endlessSeries")["putOff"]!["by"]!));
        Assert.DoesNotContain(Mine(await ada.GetAsync("/api/needs")), one => (string)one["finding"]!["kind"]! == "endlessSeries");

        // Put right, it is gone by the next look; and what was said of it is forgotten.
        await ada.DoAsync(HttpMethod.Post, "/api/events/chosen", new
        {
            dates = new[] { new { eventId = (string)endless["id"]!, recurrenceId = (string)endless["recurrenceId"]! } },
            scope = "series",
            change = new { act = "endWithPlan" },
            seen = (string?)null,
        });
        Assert.DoesNotContain("endlessSeries", Kinds(await ada.GetAsync($"/api/editions/{id}/proof")));
        await LaterAsync(ada, other, async () => await app.Test.Database.FirstAsync<int>(
            "select count(*)::integer from finding where edition_id = @id and kind = 'endlessSeries'", new { id = Guid.Parse(id) }) == 0,
            "what was put right is forgotten");
    }

    [Fact]
    public async Task A_date_says_of_each_edition_why_it_is_there_or_not_and_how_to_change_that()
    {
        var ada = await app.SignedInAsync();
        var (open, closed) = (await ada.MakeCalendarAsync("PE", link: "complete", everyone: "complete"), await ada.MakeCalendarAsync("PF"));
        var (shown, hidden) = (await EventAsync(ada, open, "Net mending"), await EventAsync(ada, closed, "Crew supper"));
        var (id, _) = await MakeAsync(ada, "Traced", isOut: true, open, closed);
        async Task<JsonNode> TraceAsync(JsonNode of) => await ada.GetAsync($"/api/editions/{id}/trace?event={of["id"]}&date={of["recurrenceId"]}");

        var there = await TraceAsync(shown);
        Assert.True((bool)there["isIn"]!);
        Assert.Equal("It falls on days that the edition is about.", (string)there["verdicts"]!.AsArray()[^1]!["said"]!);
        var missing = await TraceAsync(hidden);
        Assert.False((bool)missing["isIn"]!);
        Assert.Equal("opening", (string)missing["remedies"]![0]!["way"]!);
        Assert.Equal(closed, (string)missing["remedies"]![0]!["calendarId"]!);

        var where = (await ada.GetAsync($"/api/events/{shown["id"]}/trace"))["editions"]!.AsArray();
        Assert.Contains(where, one => (string)one!["editionId"]! == id && (bool)one["isIn"]!);
        Assert.Contains(where, one => (string)one!["edition"]! == "Juniors for families" && !(bool)one["isIn"]!);
        using var stranger = await (await app.SignedInAsync("di")).SendAsync(HttpMethod.Get, $"/api/editions/{id}/trace?event={shown["id"]}");
        Assert.Equal(HttpStatusCode.Forbidden, stranger.StatusCode);
    }

    [Fact]
    public async Task Links_are_asked_by_work_once_and_what_asks_for_sign_in_is_found_in_each_edition_that_has_it()
    {
        var asked = 0;
        var (server, address) = await Served.ByAsync(web =>
        {
            web.MapGet("/kit", () => Results.Redirect("/sign-in"));
            web.MapGet("/sign-in", () =>
            {
                Interlocked.Increment(ref asked);
                return Results.Text("<form><input type=\"password\"></form>", "text/html");
            });
        });
        await using var _ = server;
        var ada = await app.SignedInAsync();
        var calendar = await ada.MakeCalendarAsync("PQ", link: "complete", everyone: "complete");
        var form = Caller.Event(calendar, "Regatta");
        form["links"] = new JsonArray(new JsonObject { ["label"] = "Kit list", ["url"] = $"{address}/kit" });
        await ada.DoAsync(HttpMethod.Post, "/api/events", form);
        var (id, _) = await MakeAsync(ada, "Linked", isOut: true, calendar);
        var other = await ada.MakeCalendarAsync("PY");
        async Task<string> SaidAsync() => (await ada.GetAsync($"/api/editions/{id}/proof"))["findings"]!.AsArray()
            .Where(one => (string)one!["kind"]! == "linkClosed").Select(one => (string)one!["text"]!).SingleOrDefault("");
        Assert.Contains("in one network only", await SaidAsync(), StringComparison.Ordinal);
        await LaterAsync(ada, other, async () => (await SaidAsync()).Contains("answers with a sign-in page", StringComparison.Ordinal), "a link is asked");
        // Found anew in all editions, and not asked anew by that.
        await LaterAsync(ada, other, async () => await app.Test.Database.FirstAsync<bool>(
            "select not exists (select from work where kind = 'prove' and key = @id and due_at <= @now)",
            new { id, now = app.Clock.GetCurrentInstant() }), "the edition is looked through again");
        Assert.Equal(1, asked);
    }

    /// <summary>What the demo is known to have.</summary>
    [Fact]
    public async Task The_demo_has_something_to_find_and_no_kind_fails_on_any_edition_of_it()
    {
        var ada = await app.SignedInAsync();
        var kinds = new HashSet<string>();
        foreach (var edition in (await ada.GetAsync("/api/editions")).AsArray())
            kinds.UnionWith(Kinds(await ada.GetAsync($"/api/editions/{edition!["id"]}/proof")));
        Assert.Superset(new HashSet<string> { "sourceClosed", "placeTakenTwice", "runsThroughBreaks", "calendarsUntold" }, kinds);
    }
}
