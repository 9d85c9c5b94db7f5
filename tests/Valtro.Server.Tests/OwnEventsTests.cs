using System.Net;
using System.Text.Json.Nodes;

namespace Valtro.Server.Tests;

/// <summary>What a member is responsible for, at an address of their own.</summary>
public sealed class OwnEventsTests(ValtroApp app) : IClassFixture<ValtroApp>
{
    private const string Link = "/api/account/events/link";

    private static async Task<string> OwnAsync(Caller caller) =>
        new Uri((string)(await caller.DoAsync(HttpMethod.Post, Link, new { }))["feed"]!).AbsolutePath;

    private async Task<string> FeedAsync(string path) =>
        (await app.Reader().Http.GetStringAsync(path)).Replace("\r\n ", "", StringComparison.Ordinal);

    private static async Task<JsonNode> PersonAsync(Caller ada, string name) => (await ada.GetAsync("/api/people"))["members"]!.AsArray()
        .Single(member => (string)member!["email"]! == $"{name}@pinewick.example")!;

    private static async Task<JsonNode> AddAsync(Caller ada, string plate, string title, string who, string day = "2026-12-02")
    {
        var form = Caller.Event(await ada.CalendarAsync(plate), title, day, "10:00:00", "11:00:00");
        var person = await PersonAsync(ada, who);
        form["people"] = new JsonArray(new JsonObject
        {
            ["memberId"] = (string)person["id"]!,
            ["name"] = (string)person["name"]!,
            ["part"] = "leads",
            ["from"] = "09:30:00",
        });
        return await ada.DoAsync(HttpMethod.Post, "/api/events", form);
    }

    [Fact]
    public async Task It_has_what_they_lead_wherever_they_see_it_by_their_own_times_and_nothing_else()
    {
        var (ada, em, di) = (await app.SignedInAsync(), await app.SignedInAsync("em"), await app.SignedInAsync("di"));
        await AddAsync(ada, "STF", "Lamp rota", "em");
        await AddAsync(ada, "PW", "Watch walk", "em");
        await AddAsync(ada, "STF", "Di elsewhere", "di");
        var (own, other) = (await OwnAsync(em), await OwnAsync(di));
        var feed = await FeedAsync(own);
        Assert.Contains("NAME:My events", feed, StringComparison.Ordinal);
        Assert.Contains("Lamp rota", feed, StringComparison.Ordinal);
        Assert.Contains("Watch walk", feed, StringComparison.Ordinal);
        Assert.Contains("DTSTART;TZID=America/Halifax:20261202T093000", feed, StringComparison.Ordinal);
        Assert.DoesNotContain("Boat lab", feed, StringComparison.Ordinal);
        Assert.DoesNotContain("Di elsewhere", feed, StringComparison.Ordinal);
        // Named on a calendar that they do not see.
        Assert.DoesNotContain("Di elsewhere", await FeedAsync(other), StringComparison.Ordinal);
        var page = await app.Reader().Http.GetStringAsync($"{own[..^4]}?month=2026-12");
        Assert.Contains("Lamp rota", page, StringComparison.Ordinal);
        Assert.Contains("noindex", page, StringComparison.Ordinal);

        // In no list of editions, and nobody has it by its id.
        Assert.DoesNotContain((await ada.GetAsync("/api/editions")).AsArray(), one => (string)one!["name"]! == "Own");
        var id = await app.Test.Database.FirstAsync<Guid>("select id from edition where owner_id is not null limit 1");
        foreach (var path in new[] { $"/api/editions/{id}", $"/api/editions/{id}/link", $"/api/editions/{id}/page" })
            Assert.Equal(HttpStatusCode.NotFound, (await ada.Http.GetAsync(path)).StatusCode);
    }

    private static async Task SetRolesAsync(Caller ada, string who, params object[] roles)
    {
        var person = await PersonAsync(ada, who);
        (await ada.SendAsync(HttpMethod.Put, $"/api/people/{person["id"]}/roles",
            new { isAdministrator = false, roles, version = (int)person["version"]! })).EnsureSuccessStatusCode();
    }

    [Fact]
    public async Task It_follows_what_is_saved_and_forgets_what_somebody_may_no_longer_see()
    {
        var (ada, jo) = (await app.SignedInAsync(), await app.SignedInAsync("jo"));
        var own = await OwnAsync(jo);
        await SetRolesAsync(ada, "jo", new { calendarId = await ada.CalendarAsync("STF"), role = "reader" });
        Assert.DoesNotContain("Wick order", await FeedAsync(own), StringComparison.Ordinal);
        await AddAsync(ada, "STF", "Wick order", "jo", "2026-12-03");
        await ValtroApp.EventuallyAsync(
            async () => (await FeedAsync(own)).Contains("Wick order", StringComparison.Ordinal), "It never came.");
        await SetRolesAsync(ada, "jo");
        Assert.DoesNotContain("Wick order", await FeedAsync(own), StringComparison.Ordinal);
    }

    [Fact]
    public async Task The_address_is_replaced_and_withdrawn_by_whose_it_is_alone()
    {
        var bo = await app.SignedInAsync("bo");
        Assert.Null((string?)(await bo.GetAsync(Link))["feed"]);
        Assert.Equal(HttpStatusCode.NotFound, (await bo.SendAsync(HttpMethod.Delete, Link)).StatusCode);
        var first = await OwnAsync(bo);
        var second = await OwnAsync(bo);
        Assert.Equal(HttpStatusCode.Gone, (await app.Reader().Http.GetAsync(first)).StatusCode);
        Assert.Equal(second, new Uri((string)(await bo.GetAsync(Link))["feed"]!).AbsolutePath);
        Assert.Null((string?)(await (await app.SignedInAsync()).GetAsync(Link))["feed"]);
        (await bo.SendAsync(HttpMethod.Delete, Link)).EnsureSuccessStatusCode();
        Assert.Equal(HttpStatusCode.Gone, (await app.Reader().Http.GetAsync(second)).StatusCode);
    }
}
