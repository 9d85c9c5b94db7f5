using System.Net;
using System.Text.Json.Nodes;

namespace Valtro.Server.Tests;

/// <summary>Categories and places through the API: what is wrong, what becomes of events, what readers get.</summary>
public sealed class ListApiTests(ValtroApp app) : IClassFixture<ValtroApp>
{
    private static async Task<JsonNode> WithCategoryAsync(Caller ada, JsonNode category, string plate = "PW")
    {
        var form = Caller.Event(await ada.CalendarAsync(plate), "Rope splicing", "2026-11-26");
        form["categoryId"] = (string)category["id"]!;
        return await ada.DoAsync(HttpMethod.Post, "/api/events", form);
    }

    [Theory]
    [InlineData("", "harbour", "name")]
    [InlineData("  ", "harbour", "name")]
    [InlineData("Outing", "beige", "colour")]
    [InlineData("Outing", null, "colour")]
    [InlineData("OCCASION", "harbour", "name")]
    public async Task A_category_that_is_none_is_refused_at_its_field(string name, string? colour, string field)
    {
        var ada = await app.SignedInAsync();
        var refused = await ada.SendAsync(HttpMethod.Post, "/api/lists/categories", new { name, colour });
        Assert.Equal(HttpStatusCode.BadRequest, refused.StatusCode);
        Assert.NotNull((await Caller.ReadAsync(refused))["errors"]![field]);
    }

    [Fact]
    public async Task A_category_taken_off_stays_on_its_events_and_can_be_offered_again()
    {
        var ada = await app.SignedInAsync();
        var category = await ada.DoAsync(HttpMethod.Post, "/api/lists/categories", new { name = "Seamanship", colour = "harbour" });
        var added = await WithCategoryAsync(ada, category);
        Assert.Equal((string)category["id"]!, (string)(await ada.GetAsync($"/api/events/{added["id"]}"))["category"]!["id"]!);
        var feed = (string)(await ada.GetAsync($"/api/calendars/{added["calendarId"]}/publishing"))["feed"]!;
        async Task<string> FeedAsync() =>
            (await app.Reader().Http.GetStringAsync(new Uri(feed).PathAndQuery)).Replace("\r\n ", "", StringComparison.Ordinal);
        Assert.Contains("CATEGORIES:Seamanship", await FeedAsync(), StringComparison.Ordinal);
        Assert.Equal(
            HttpStatusCode.NoContent, (await ada.SendAsync(HttpMethod.Post, $"/api/lists/categories/{category["id"]}/retire")).StatusCode);
        Assert.Equal("Seamanship", (string)(await ada.GetAsync($"/api/events/{added["id"]}"))["category"]!["name"]!);
        Assert.Contains("CATEGORIES:Seamanship", await FeedAsync(), StringComparison.Ordinal);
        var lists = await ada.GetAsync("/api/lists");
        Assert.DoesNotContain(lists["categories"]!.AsArray(), one => (string)one!["name"]! == "Seamanship");
        Assert.Equal(1, (int)lists["retiredCategories"]!.AsArray().Single(one => (string)one!["name"]! == "Seamanship")!["events"]!);
        // The event may keep it, another may not get it.
        Assert.Equal(HttpStatusCode.OK, (await ada.TryChangeAsync(added, "edit", WithTitle(added, "Splicing"))).StatusCode);
        var refused = await ada.SendAsync(HttpMethod.Post, "/api/events", WithTitle(added, "Another"));
        Assert.NotNull((await Caller.ReadAsync(refused))["errors"]!["categoryId"]);

        Assert.Equal(
            HttpStatusCode.NoContent, (await ada.SendAsync(HttpMethod.Post, $"/api/lists/categories/{category["id"]}/offer")).StatusCode);
        Assert.Equal(HttpStatusCode.Created, (await ada.SendAsync(HttpMethod.Post, "/api/events", WithTitle(added, "Another"))).StatusCode);
    }

    private static JsonObject WithTitle(JsonNode shown, string title)
    {
        var form = Caller.Event((string)shown["calendarId"]!, title, "2026-11-26");
        form["categoryId"] = (string)shown["category"]!["id"]!;
        return form;
    }

    [Fact]
    public async Task A_category_under_a_new_name_and_one_that_became_another_reach_readers_and_editions_that_ask_for_them()
    {
        var ada = await app.SignedInAsync();
        var (from, into) = (await ada.DoAsync(HttpMethod.Post, "/api/lists/categories", new { name = "Hauling", colour = "harbour" }),
            await ada.DoAsync(HttpMethod.Post, "/api/lists/categories", new { name = "Rigging", colour = "plum" }));
        var added = await WithCategoryAsync(ada, from, "SW");
        var edition = await ada.DoAsync(HttpMethod.Post, "/api/editions", new
        {
            edition = new
            {
                name = "Hauling only",
                sources = new[] { new { calendarId = await ada.CalendarAsync("SW"),
                    filter = new { mode = "only", categories = new[] { (string)from["id"]! } } } }
            },
        });
        var feed = new Uri((string)edition["addresses"]!["feed"]!).AbsolutePath;
        Assert.Contains("CATEGORIES:Hauling", await app.Reader().Http.GetStringAsync(feed), StringComparison.Ordinal);
        Assert.Equal(HttpStatusCode.NoContent,
            (await ada.SendAsync(
                HttpMethod.Put, $"/api/lists/categories/{from["id"]}", new { name = "Hauling ropes", colour = "kelp" })).StatusCode);
        Assert.Contains("CATEGORIES:Hauling ropes", await app.Reader().Http.GetStringAsync(feed), StringComparison.Ordinal);

        var done = await ada.DoAsync(HttpMethod.Post, $"/api/lists/categories/{from["id"]}/merge", new { into = (string)into["id"]! });
        Assert.Equal(1, (int)done["events"]!);
        Assert.Equal("Rigging", (string)(await ada.GetAsync($"/api/events/{added["id"]}"))["category"]!["name"]!);
        Assert.Contains("CATEGORIES:Rigging", await app.Reader().Http.GetStringAsync(feed), StringComparison.Ordinal);
        (await ada.SendAsync(HttpMethod.Post, $"/api/lists/categories/{from["id"]}/offer")).EnsureSuccessStatusCode();
        await ada.DoAsync(HttpMethod.Post, $"/api/acts/{done["actId"]}/undo");
        Assert.Equal("Hauling ropes", (string)(await ada.GetAsync($"/api/events/{added["id"]}"))["category"]!["name"]!);
    }

    [Fact]
    public async Task A_category_of_nobody_is_refused_and_the_event_is_not_saved()
    {
        var ada = await app.SignedInAsync();
        var form = Caller.Event(await ada.CalendarAsync("PW"), "Never saved", "2026-11-26");
        form["categoryId"] = Guid.NewGuid().ToString();
        var refused = await ada.SendAsync(HttpMethod.Post, "/api/events", form);
        Assert.Equal(HttpStatusCode.BadRequest, refused.StatusCode);
        Assert.NotNull((await Caller.ReadAsync(refused))["errors"]!["categoryId"]);
        Assert.DoesNotContain((await ada.GetAsync("/api/occurrences?from=2026-11-26&to=2026-11-27")).AsArray(),
            one => (string)one!["title"]! == "Never saved");
    }

    [Fact]
    public async Task A_place_taken_off_stays_on_its_events_as_text()
    {
        var ada = await app.SignedInAsync();
        var place = await ada.DoAsync(HttpMethod.Post, "/api/lists/places", new { name = " Sail  loft " });
        var form = Caller.Event(await ada.CalendarAsync("PW"), "Patching", "2026-11-26");
        form["place"] = (string)place["name"]!;
        var added = await ada.DoAsync(HttpMethod.Post, "/api/events", form);
        Assert.Equal(
            HttpStatusCode.NoContent, (await ada.SendAsync(HttpMethod.Post, $"/api/lists/places/{place["id"]}/retire")).StatusCode);
        Assert.Equal((string)place["name"]!, (string)(await ada.GetAsync($"/api/events/{added["id"]}"))["place"]!);
    }

    [Fact]
    public async Task Everybody_reads_the_lists_and_only_the_office_changes_them()
    {
        var di = await app.SignedInAsync("di");
        Assert.False((bool)(await di.GetAsync("/api/lists"))["mayEdit"]!);
        var first = (await di.GetAsync("/api/lists"))["categories"]![0]!;
        Assert.Equal(HttpStatusCode.Forbidden,
            (await di.SendAsync(HttpMethod.Post, "/api/lists/categories", new { name = "Own", colour = "harbour" })).StatusCode);
        Assert.Equal(
            HttpStatusCode.Forbidden, (await di.SendAsync(HttpMethod.Post, $"/api/lists/categories/{first["id"]}/retire")).StatusCode);
        Assert.Equal(HttpStatusCode.Unauthorized, (await app.Reader().Http.GetAsync("/api/lists")).StatusCode);
    }
}
