using System.Net;
using System.Text.Json.Nodes;
using Microsoft.Extensions.DependencyInjection;
using NodaTime;

namespace Valtro.Server.Tests;

/// <summary>Who fetched which version of what, as those who keep it see it.</summary>
public sealed class DeliveryTests(ValtroApp app) : IClassFixture<ValtroApp>
{
    private static async Task<HttpResponseMessage> FetchAsync(
        HttpClient http, string address, string program, string? etag = null, params (string Name, string Value)[] further)
    {
        using var request = new HttpRequestMessage(HttpMethod.Get, address);
        request.Headers.TryAddWithoutValidation("User-Agent", program);
        if (etag is not null)
            request.Headers.TryAddWithoutValidation("If-None-Match", etag);
        foreach (var (name, value) in further)
            request.Headers.TryAddWithoutValidation(name, value);
        return await http.SendAsync(request);
    }

    private static JsonNode Today(JsonNode deliveries) => deliveries["days"]!.AsArray()[^1]!;

    private static async Task<(string Id, string Feed, string Page)> EditionAsync(Caller ada, string calendar, string name)
    {
        var made = await ada.DoAsync(HttpMethod.Post, "/api/editions",
            new { edition = new { name, sources = new[] { new { calendarId = calendar } } }, isOut = true });
        string Path(string of) => new Uri((string)made["addresses"]![of]!).AbsolutePath;
        return ((string)made["id"]!, Path("feed"), Path("page"));
    }

    [Fact]
    public async Task Programs_are_told_apart_browsers_are_none_and_who_has_the_newest_is_known()
    {
        var ada = await app.SignedInAsync();
        var calendar = await ada.MakeCalendarAsync("DL", link: "complete", everyone: "complete");
        await ada.DoAsync(HttpMethod.Post, "/api/events", Caller.Event(calendar, "Sail repair", "2026-11-25"));
        var (id, feed, page) = await EditionAsync(ada, calendar, "Delivered");
        var http = app.Reader().Http;
        var etag = (await FetchAsync(http, feed, "Tidebook/3 (Android 15)")).Headers.ETag!.ToString();
        await FetchAsync(http, feed, "Tidebook/3 (Android 15)");
        await FetchAsync(http, feed, "Sternpost/9 (Windows NT 10.0)");
        await FetchAsync(http, feed, "Mozilla/5.0 (Windows NT 10.0)", null, ("Accept", "text/html"));
        await FetchAsync(http, $"{page}/embed", "Mozilla/5.0 (iPhone)", null, ("Accept", "text/html"),
            ("Referer", "https://families.pinewick.example/"));
        await ValtroApp.EventuallyAsync(
            async () => (int)Today(await ada.GetAsync($"/api/editions/{id}/deliveries"))["programs"]! == 2, "two programs are counted");
        var before = await ada.GetAsync($"/api/editions/{id}/deliveries");
        Assert.Equal((2, 3, 1, 1),
            ((int)Today(before)["withNewest"]!, (int)Today(before)["times"]!, (int)Today(before)["readers"]!, (int)Today(before)["views"]!));
        Assert.Equal("families.pinewick.example", (string)before["sites"]![0]!["site"]!);
        Assert.Equal("all", (string)before["reach"]!["state"]!);
        Assert.Equal(14, before["days"]!.AsArray().Count);

        // Something changes: nobody has it until they ask again.
        app.Clock.Advance(Duration.FromMinutes(20));
        await ada.DoAsync(HttpMethod.Post, "/api/events", Caller.Event(calendar, "Rope walk", "2026-11-26"));
        await ValtroApp.EventuallyAsync(
            async () => (await FetchAsync(http, feed, "Tidebook/3 (Android 15)", etag)).StatusCode == HttpStatusCode.OK, "there is a newer one");
        await ValtroApp.EventuallyAsync(async () => (int)(await ada.GetAsync($"/api/editions/{id}/deliveries"))["reach"]!["since"]! == 1,
            "one has the newest");
        var after = await ada.GetAsync($"/api/editions/{id}/deliveries");
        Assert.Equal((2, 1), ((int)Today(after)["programs"]!, (int)Today(after)["withNewest"]!));
        Assert.Equal(30, (int)after["halfWithinMinutes"]!);
        var reach = await ada.GetAsync("/api/reach");
        Assert.Equal(1, (int)reach["editions"]!.AsArray().Single(one => (string)one!["id"]! == id)!["since"]!);
        Assert.Equal(1, (int)reach["calendars"]!.AsArray().Single(one => (string)one!["id"]! == calendar)!["since"]!);
    }

    [Fact]
    public async Task Only_those_who_compose_an_edition_see_who_fetched_it()
    {
        var ada = await app.SignedInAsync();
        var calendar = await ada.MakeCalendarAsync("DM", link: "complete", everyone: "complete");
        var (id, _, _) = await EditionAsync(ada, calendar, "Delivered to some");
        var di = await app.SignedInAsync("di");
        Assert.Equal(HttpStatusCode.Forbidden, (await di.SendAsync(HttpMethod.Get, $"/api/editions/{id}/deliveries")).StatusCode);
        Assert.DoesNotContain(id, (await di.GetAsync("/api/reach")).ToJsonString(), StringComparison.Ordinal);
        Assert.Equal(HttpStatusCode.NotFound,
            (await ada.SendAsync(HttpMethod.Get, $"/api/editions/{Guid.NewGuid()}/deliveries")).StatusCode);
        Assert.Equal(HttpStatusCode.BadRequest,
            (await ada.SendAsync(HttpMethod.Get, $"/api/editions/{id}/deliveries?span=century")).StatusCode);
    }

    [Fact]
    public async Task Rendered_again_nothing_differs_and_what_does_is_named_and_goes_out_anew()
    {
        var ada = await app.SignedInAsync();
        var calendar = await ada.MakeCalendarAsync("DR", link: "complete", everyone: "complete");
        await ada.DoAsync(HttpMethod.Post, "/api/events", Caller.Event(calendar, "Sail repair", "2026-11-25"));
        var (id, feed, _) = await EditionAsync(ada, calendar, "Rendered");
        var http = app.Reader().Http;
        var before = await http.GetStringAsync(feed);
        await ValtroApp.EventuallyAsync(async () => (int)(await ada.DoAsync(HttpMethod.Post, $"/api/editions/{id}/render"))["checked"]! == 3,
            "feed and two months are out");
        var again = await ada.DoAsync(HttpMethod.Post, $"/api/editions/{id}/render");
        Assert.Empty(again["differed"]!.AsArray());
        Assert.Equal(before, await http.GetStringAsync(feed));

        // Somebody has put other bytes there.
        using (Store.Wall.Everywhere())
            await app.Factory.Services.GetRequiredService<Store.Database>().ExecuteAsync("""
            update artefact
            set content = convert_to(replace(convert_from(content, 'UTF8'), 'Sail repair', 'Sail thief'), 'UTF8'), etag = md5('other')
            where edition_id = @id and key = 'feed'
            """, new { id = Guid.Parse(id) });
        var differed = Assert.Single((await ada.DoAsync(HttpMethod.Post, $"/api/editions/{id}/render"))["differed"]!.AsArray())!;
        Assert.Null(differed["month"]);
        Assert.Equal(["Sail thief", "Sail repair"], differed["titles"]!.AsArray().Select(one => (string)one!));
        await ValtroApp.EventuallyAsync(
            async () => ((await ada.DoAsync(HttpMethod.Post, $"/api/editions/{id}/render")) is var now)
                && (int)now["checked"]! == 3 && now["differed"]!.AsArray().Count == 0, "it goes out anew");
        Assert.DoesNotContain("thief", await http.GetStringAsync(feed), StringComparison.Ordinal);
        Assert.Equal(HttpStatusCode.Forbidden,
            (await (await app.SignedInAsync("di")).SendAsync(HttpMethod.Post, $"/api/editions/{id}/render")).StatusCode);
    }

    [Fact]
    public async Task How_fresh_an_edition_is_kept_is_said_to_programs_and_caches_within_limits()
    {
        var ada = await app.SignedInAsync();
        var calendar = await ada.MakeCalendarAsync("DF", link: "complete", everyone: "complete");
        var (id, feed, _) = await EditionAsync(ada, calendar, "Fresh");
        var http = app.Reader().Http;
        var usual = await http.GetAsync(feed);
        Assert.Equal(60, usual.Headers.CacheControl!.MaxAge!.Value.TotalSeconds);
        Assert.Contains("REFRESH-INTERVAL;VALUE=DURATION:PT1H\r\nX-PUBLISHED-TTL:PT1H", await usual.Content.ReadAsStringAsync(),
            StringComparison.Ordinal);
        Task<HttpResponseMessage> SaveAsync(int refresh, int kept) => ada.SendAsync(HttpMethod.Put, $"/api/editions/{id}", new
        {
            version = 1,
            edition = new { name = "Fresh", sources = new[] { new { calendarId = calendar } }, refreshMinutes = refresh, keptSeconds = kept },
        });
        foreach (var (refresh, kept, field) in new[] { (5, 60, "refreshMinutes"), (60, 86_400, "keptSeconds") })
        {
            var refused = await SaveAsync(refresh, kept);
            Assert.Equal(HttpStatusCode.BadRequest, refused.StatusCode);
            Assert.Contains(field, await refused.Content.ReadAsStringAsync(), StringComparison.Ordinal);
        }
        Assert.Equal(HttpStatusCode.OK, (await SaveAsync(15, 10)).StatusCode);
        var fresh = await http.GetAsync(feed);
        Assert.Equal(10, fresh.Headers.CacheControl!.MaxAge!.Value.TotalSeconds);
        Assert.Contains("DURATION:PT15M", await fresh.Content.ReadAsStringAsync(), StringComparison.Ordinal);
    }

    [Fact]
    public async Task However_many_names_one_address_makes_up_it_is_only_so_many_programs()
    {
        var ada = await app.SignedInAsync();
        var calendar = await ada.MakeCalendarAsync("DN", link: "complete", everyone: "complete");
        var (id, feed, _) = await EditionAsync(ada, calendar, "Asked by many");
        var http = app.Reader().Http;
        await Task.WhenAll(Enumerable.Range(0, 600).Select(number => FetchAsync(http, feed, $"Made up {number}")));
        await ValtroApp.EventuallyAsync(
            async () => (int)Today(await ada.GetAsync($"/api/editions/{id}/deliveries"))["programs"]! > 0, "some are counted");
        // Some forty between two times of keeping, of which there are few in as many seconds.
        Assert.InRange((int)Today(await ada.GetAsync($"/api/editions/{id}/deliveries"))["programs"]!, 1, 300);
    }
}
