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
    public async Task A_category_taken_off_is_off_its_events_and_readers_are_told()
    {
        var ada = await app.SignedInAsync();
        var category = await ada.DoAsync(HttpMethod.Post, "/api/lists/categories", new { name = "Seamanship", colour = "harbour" });
        var added = await WithCategoryAsync(ada, category);
        Assert.Equal((string)category["id"]!, (string)(await ada.GetAsync($"/api/events/{added["id"]}"))["category"]!["id"]!);
        var feed = (string)(await ada.GetAsync($"/api/calendars/{added["calendarId"]}/publishing"))["feed"]!;
        async Task<string> FeedAsync() => (await app.Reader().Http.GetStringAsync(new Uri(feed).PathAndQuery)).Replace("\r\n ", "", StringComparison.Ordinal);
        Assert.Contains("CATEGORIES:Seamanship", await FeedAsync(), StringComparison.Ordinal);
        Assert.Equal(HttpStatusCode.NoContent, (await ada.SendAsync(HttpMethod.Delete, $"/api/lists/categories/{category["id"]}")).StatusCode);
        Assert.Null((await ada.GetAsync($"/api/events/{added["id"]}"))["category"]);
        // Past the second in which a node trusts what it has.
        app.Clock.Advance(NodaTime.Duration.FromSeconds(2));
        Assert.DoesNotContain("Seamanship", await FeedAsync(), StringComparison.Ordinal);
        Assert.Equal(HttpStatusCode.NotFound, (await ada.SendAsync(HttpMethod.Delete, $"/api/lists/categories/{category["id"]}")).StatusCode);
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
        Assert.DoesNotContain((await ada.GetAsync("/api/occurrences?from=2026-11-26&to=2026-11-27")).AsArray(), one => (string)one!["title"]! == "Never saved");
    }

    [Fact]
    public async Task A_place_taken_off_stays_on_its_events_as_text()
    {
        var ada = await app.SignedInAsync();
        var place = await ada.DoAsync(HttpMethod.Post, "/api/lists/places", new { name = " Sail  loft " });
        var form = Caller.Event(await ada.CalendarAsync("PW"), "Patching", "2026-11-26");
        form["place"] = (string)place["name"]!;
        var added = await ada.DoAsync(HttpMethod.Post, "/api/events", form);
        Assert.Equal(HttpStatusCode.NoContent, (await ada.SendAsync(HttpMethod.Delete, $"/api/lists/places/{place["id"]}")).StatusCode);
        Assert.Equal((string)place["name"]!, (string)(await ada.GetAsync($"/api/events/{added["id"]}"))["place"]!);
    }

    [Fact]
    public async Task Everybody_reads_the_lists_and_only_the_office_changes_them()
    {
        var di = await app.SignedInAsync("di");
        Assert.False((bool)(await di.GetAsync("/api/lists"))["mayEdit"]!);
        var first = (await di.GetAsync("/api/lists"))["categories"]![0]!;
        Assert.Equal(HttpStatusCode.Forbidden, (await di.SendAsync(HttpMethod.Post, "/api/lists/categories", new { name = "Own", colour = "harbour" })).StatusCode);
        Assert.Equal(HttpStatusCode.Forbidden, (await di.SendAsync(HttpMethod.Delete, $"/api/lists/categories/{first["id"]}")).StatusCode);
        Assert.Equal(HttpStatusCode.Unauthorized, (await app.Reader().Http.GetAsync("/api/lists")).StatusCode);
    }
}
