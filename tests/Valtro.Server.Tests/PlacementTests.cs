using System.Net;
using System.Text.Json.Nodes;
using Valtro.Application;

namespace Valtro.Server.Tests;

/// <summary>One event on several calendars, another home, and the life of calendars.</summary>
public sealed class PlacementTests(ValtroApp app) : IClassFixture<ValtroApp>
{
    private async Task<string> FeedAsync(string slug)
    {
        app.Clock.Advance(NodaTime.Duration.FromSeconds(2));
        return (await app.Reader().Http.GetStringAsync($"/c/pinewick/{slug}.ics")).Replace("\r\n ", "", StringComparison.Ordinal);
    }

    private static string UidOf(string feed, string title) =>
        feed.Split("BEGIN:VEVENT").Single(part => part.Contains($"SUMMARY:{title}\r\n", StringComparison.Ordinal)).Split("UID:")[1]
            .Split('\r')[0];

    private static JsonObject On(string home, string title, params string[] placements)
    {
        var form = Caller.Event(home, title);
        form["placements"] = new JsonArray([.. placements.Select(id => (JsonNode)id)]);
        return form;
    }

    private static Task<JsonNode> NewAsync(Caller ada, string name, string plate, string everyone = "complete") =>
        ada.DoAsync(HttpMethod.Post, "/api/calendars", new
        {
            name,
            plate,
            colour = "plum",
            zone = "America/Halifax",
            description = "",
            disclosure = new { members = "complete", link = everyone, everyone },
        });

    [Fact]
    public async Task An_event_on_three_calendars_is_one_event_with_one_identity()
    {
        var ada = await app.SignedInAsync();
        var (pw, sw, sch) = (await ada.CalendarAsync("PW"), await ada.CalendarAsync("SW"), await ada.CalendarAsync("SCH"));
        var made = await ada.DoAsync(HttpMethod.Post, "/api/events", On(pw, "Shared lesson", sw, sch));
        var uids = new HashSet<string>();
        foreach (var slug in new[] { "port-watch", "starboard-watch", "whole-school" })
            uids.Add(UidOf(await FeedAsync(slug), "Shared lesson"));
        Assert.Single(uids);
        var seen = Assert.Single((await ada.GetAsync("/api/occurrences?from=2026-11-25&to=2026-11-26")).AsArray(),
            one => (string)one!["title"]! == "Shared lesson")!;
        Assert.Equal(pw, (string)seen["calendarId"]!);
        Assert.Equal(new[] { sw, sch }.Order(), seen["alsoOn"]!.AsArray().Select(id => (string)id!).Order());
        await ada.ChangeAsync(made, "edit", On(pw, "Shared lesson, later", sw));
        Assert.DoesNotContain("Shared lesson", await FeedAsync("whole-school"), StringComparison.Ordinal);
        Assert.Contains("Shared lesson\\, later", await FeedAsync("starboard-watch"), StringComparison.Ordinal);
    }

    [Fact]
    public async Task An_editor_of_one_calendar_asks_those_of_another_and_they_can_take_it_off_again()
    {
        var bo = await app.SignedInAsync("bo");
        var ada = await app.SignedInAsync();
        var (pw, sw, sch) = (await bo.CalendarAsync("PW"), await bo.CalendarAsync("SW"), await bo.CalendarAsync("SCH"));
        var made = await bo.DoAsync(HttpMethod.Post, "/api/events", On(pw, "Ask first", sw, sch));
        Assert.Equal(["Whole school"], made["asksFor"]!.AsArray().Select(name => (string)name!));
        Assert.Equal([sw], made["placements"]!.AsArray().Select(id => (string)id!));
        Assert.DoesNotContain("Ask first", await FeedAsync("whole-school"), StringComparison.Ordinal);
        var asked = (await ada.GetAsync("/api/sign-off"))["toDecide"]!.AsArray().Single(one => (string)one!["title"]! == "Ask first")!;
        Assert.Equal(("placement", sch), ((string)asked["kind"]!, (string)asked["calendarId"]!));
        await ada.DoAsync(HttpMethod.Post, "/api/sign-off/approve",
            new { items = new[] { new { id = (string)asked["id"]!, version = (int)asked["version"]! } } });
        Assert.Contains("Ask first", await FeedAsync("whole-school"), StringComparison.Ordinal);
        await ada.DoAsync(HttpMethod.Delete, $"/api/events/{made["id"]}/placements/{sch}");
        Assert.DoesNotContain("Ask first", await FeedAsync("whole-school"), StringComparison.Ordinal);
        var di = await app.SignedInAsync("di");
        Assert.Equal(
            HttpStatusCode.Forbidden, (await di.SendAsync(HttpMethod.Delete, $"/api/events/{made["id"]}/placements/{sw}")).StatusCode);
    }

    [Fact]
    public async Task A_placement_that_its_editor_cannot_see_survives_their_saving()
    {
        var ada = await app.SignedInAsync();
        var (pw, sw, staff) = (await ada.CalendarAsync("PW"), await ada.CalendarAsync("SW"), await ada.CalendarAsync("STF"));
        var made = await ada.DoAsync(HttpMethod.Post, "/api/events", On(pw, "Also for staff", staff));
        var bo = await app.SignedInAsync("bo");
        Assert.Empty((await bo.GetAsync($"/api/events/{made["id"]}"))["placements"]!.AsArray());
        await bo.ChangeAsync(made, "edit", On(pw, "Also for staff", sw));
        Assert.Equal(new[] { sw, staff }.Order(),
            (await ada.GetAsync($"/api/events/{made["id"]}"))["placements"]!.AsArray().Select(id => (string)id!).Order());
        var refused = await bo.TryChangeAsync(
            await bo.GetAsync($"/api/events/{made["id"]}"), "edit", On(pw, "Guessed", staff, Guid.NewGuid().ToString()));
        Assert.NotNull((await Caller.ReadAsync(refused))["errors"]!["placements"]);
    }

    [Fact]
    public async Task Moving_home_keeps_the_identity_and_says_beforehand_who_newly_sees_it()
    {
        var ada = await app.SignedInAsync();
        var closed = (string)(await NewAsync(ada, "Quiet", "QU", "nothing"))["id"]!;
        var open = (string)(await NewAsync(ada, "Loud", "LO"))["id"]!;
        var made = await ada.DoAsync(HttpMethod.Post, "/api/events", Caller.Event(closed, "Moves house"));
        var uid =
            await app.Test.Database.FirstAsync<string>(
                "select uid from event where id = @id", new { id = Guid.Parse((string)made["id"]!) });
        var preview = await ada.ChangeAsync(made, "edit", Caller.Event(open, "Moves house"), preview: true);
        Assert.Contains("Everyone: all of it, text, links and files too", preview["newlySees"]!.AsArray().Select(line => (string)line!));
        await ada.ChangeAsync(made, "edit", Caller.Event(open, "Moves house"));
        Assert.Equal($"{uid}", UidOf(await FeedAsync("loud"), "Moves house"));
        var back = await ada.ChangeAsync(
            await ada.GetAsync($"/api/events/{made["id"]}"), "edit", Caller.Event(closed, "Moves house"), preview: true);
        Assert.Empty(back["newlySees"]!.AsArray());
    }

    [Fact]
    public async Task One_date_of_a_series_goes_to_no_other_calendar()
    {
        var ada = await app.SignedInAsync();
        var (pw, sw) = (await ada.CalendarAsync("PW"), await ada.CalendarAsync("SW"));
        var form = On(pw, "Weekly and shared");
        form["repeat"] = System.Text.Json.JsonSerializer.SerializeToNode(Caller.Weekly(3), Json.Options);
        var made = await ada.DoAsync(HttpMethod.Post, "/api/events", form);
        form["placements"] = new JsonArray(sw);
        var refused = await ada.TryChangeAsync(made, "edit", form, scope: "this");
        Assert.NotNull((await Caller.ReadAsync(refused))["errors"]!["scope"]);
        await ada.ChangeAsync(made, "edit", form, scope: "later");
        Assert.Contains("Weekly and shared", await FeedAsync("starboard-watch"), StringComparison.Ordinal);
    }

    [Fact]
    public async Task Groups_are_for_those_who_see_something_in_them()
    {
        var ada = await app.SignedInAsync();
        var staff = await ada.CalendarAsync("STF");
        await ada.DoAsync(HttpMethod.Post, "/api/groups", new { name = "Behind the scenes", calendars = new[] { staff } });
        var di = await app.SignedInAsync("di");
        Assert.DoesNotContain((await di.GetAsync("/api/groups")).AsArray(), one => (string)one!["name"]! == "Behind the scenes");
        Assert.Contains((await di.GetAsync("/api/groups")).AsArray(), one => (string)one!["name"]! == "Juniors");
        Assert.Equal(HttpStatusCode.Forbidden,
            (await di.SendAsync(HttpMethod.Post, "/api/groups", new { name = "Mine", calendars = Array.Empty<string>() })).StatusCode);
        var taken = await ada.SendAsync(HttpMethod.Post, "/api/groups", new { name = "JUNIORS", calendars = Array.Empty<string>() });
        Assert.NotNull((await Caller.ReadAsync(taken))["errors"]!["name"]);
    }

    [Fact]
    public async Task An_archived_calendar_keeps_its_feed_and_takes_no_changes()
    {
        var ada = await app.SignedInAsync();
        var id = (string)(await NewAsync(ada, "Last year", "LY"))["id"]!;
        var made = await ada.DoAsync(HttpMethod.Post, "/api/events", Caller.Event(id, "Kept for good"));
        (await ada.SendAsync(HttpMethod.Post, $"/api/calendars/{id}/archive")).EnsureSuccessStatusCode();
        Assert.Contains("Kept for good", await FeedAsync("last-year"), StringComparison.Ordinal);
        Assert.True((bool)(await ada.GetAsync($"/api/calendars/{id}"))["isArchived"]!);
        Assert.Equal(HttpStatusCode.Forbidden, (await ada.TryChangeAsync(made, "edit", Caller.Event(id, "Changed"))).StatusCode);
        var refused = await ada.SendAsync(HttpMethod.Post, "/api/events", Caller.Event(id, "Too late"));
        Assert.Contains("archived", (string)(await Caller.ReadAsync(refused))["errors"]!["calendarId"]![0]!, StringComparison.Ordinal);
        (await ada.SendAsync(HttpMethod.Delete, $"/api/calendars/{id}/archive")).EnsureSuccessStatusCode();
        await ada.ChangeAsync(made, "edit", Caller.Event(id, "Changed"));
    }

    [Fact]
    public async Task A_removed_calendar_is_gone_for_everybody_and_back_when_it_is_restored()
    {
        var ada = await app.SignedInAsync();
        var id = (string)(await NewAsync(ada, "In the bin", "BIN"))["id"]!;
        await ada.DoAsync(HttpMethod.Post, "/api/events", On(id, "Goes along", await ada.CalendarAsync("PW")));
        Assert.Contains("Goes along", await FeedAsync("port-watch"), StringComparison.Ordinal);
        await EditionAsync("Only of the bin", "everyone", id);
        await EditionAsync("Of the bin and the watch", "everyone", id, await ada.CalendarAsync("PW"));
        var preview = await ada.GetAsync($"/api/calendars/{id}/removal");
        Assert.Equal((1, 1), ((int)preview["events"]!, (int)preview["elsewhere"]!));
        Assert.Equal([("Harbour almanac", false), ("Of the bin and the watch", false), ("Only of the bin", true)],
            preview["editions"]!.AsArray().Select(one => ((string)one!["name"]!, (bool)one["becomesEmpty"]!)));
        (await ada.SendAsync(HttpMethod.Delete, $"/api/calendars/{id}")).EnsureSuccessStatusCode();
        app.Clock.Advance(NodaTime.Duration.FromSeconds(2));
        Assert.Equal(HttpStatusCode.NotFound, (await app.Reader().Http.GetAsync("/c/pinewick/in-the-bin.ics")).StatusCode);
        Assert.DoesNotContain("Goes along", await FeedAsync("port-watch"), StringComparison.Ordinal);
        Assert.Contains((await ada.GetAsync("/api/calendars/bin")).AsArray(), one => (string)one!["id"]! == id);
        (await ada.SendAsync(HttpMethod.Post, $"/api/calendars/{id}/restore")).EnsureSuccessStatusCode();
        Assert.Contains("Goes along", await FeedAsync("in-the-bin"), StringComparison.Ordinal);
        Assert.Contains("Goes along", await FeedAsync("port-watch"), StringComparison.Ordinal);

        Task EditionAsync(string name, string audience, params string[] plates) =>
            ada.DoAsync(HttpMethod.Post, "/api/editions",
                new { isOut = true, edition = new { name, audience, sources = plates.Select(calendarId => new { calendarId }) } });
    }

    [Fact]
    public async Task A_merged_calendar_s_addresses_lead_on_and_it_can_be_undone()
    {
        var ada = await app.SignedInAsync();
        var from = (string)(await NewAsync(ada, "Old crew", "OC"))["id"]!;
        var into = (string)(await NewAsync(ada, "New crew", "NC", "headline"))["id"]!;
        var made = await ada.DoAsync(HttpMethod.Post, "/api/events", Caller.Event(from, "Merged along"));
        var preview = await ada.GetAsync($"/api/calendars/{from}/merge?into={into}");
        Assert.Equal((1, 0), ((int)preview["moves"]!, preview["newlySees"]!.AsArray().Count));
        Assert.Equal(2, preview["seesLess"]!.AsArray().Count);
        var done = await ada.DoAsync(HttpMethod.Post, $"/api/calendars/{from}/merge", new { into });
        app.Clock.Advance(NodaTime.Duration.FromSeconds(2));
        var led = await app.Reader().Http.GetAsync("/c/pinewick/old-crew.ics");
        Assert.Equal(
            (HttpStatusCode.TemporaryRedirect, "/c/pinewick/new-crew.ics"), (led.StatusCode, led.Headers.Location!.OriginalString));
        Assert.Contains("Merged along", await FeedAsync("new-crew"), StringComparison.Ordinal);
        Assert.Equal((1, 2), ((int)(await ada.GetAsync($"/api/acts/{done["actId"]}/undo"))["events"]!,
            (await ada.GetAsync($"/api/acts/{done["actId"]}/undo"))["newlySees"]!.AsArray().Count));
        await ada.DoAsync(HttpMethod.Post, $"/api/acts/{done["actId"]}/undo");
        Assert.Equal("Old crew", (string)(await ada.GetAsync("/api/audit?act=calendarRestored")).AsArray()[0]!["subject"]!);
        app.Clock.Advance(NodaTime.Duration.FromSeconds(2));
        Assert.Contains("Merged along", await FeedAsync("old-crew"), StringComparison.Ordinal);
        Assert.Equal(from, (string)(await ada.GetAsync($"/api/events/{made["id"]}"))["calendarId"]!);
        var itself = await ada.SendAsync(HttpMethod.Post, $"/api/calendars/{from}/merge", new { into = from });
        Assert.NotNull((await Caller.ReadAsync(itself))["errors"]!["into"]);
    }

    [Fact]
    public async Task A_new_calendar_like_another_has_its_roles_and_groups()
    {
        var ada = await app.SignedInAsync();
        var like = await ada.CalendarAsync("PW");
        var made = await ada.DoAsync(HttpMethod.Post, "/api/calendars", new
        {
            name = "Middle Watch",
            plate = "MW",
            colour = "plum",
            zone = "America/Halifax",
            description = "",
            disclosure = new { members = "complete", link = "nothing", everyone = "nothing" },
            like,
        });
        Assert.Equal("Bo Quilliam", (string)made["keptBy"]![0]!["name"]!);
        Assert.Contains((await ada.GetAsync("/api/groups")).AsArray(),
            group => group!["calendars"]!.AsArray().Any(id => (string)id! == (string)made["id"]!));
    }
}
