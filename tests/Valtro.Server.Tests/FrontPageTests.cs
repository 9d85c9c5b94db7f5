using System.Net;
using System.Text.Json.Nodes;
using System.Xml.Linq;
using NodaTime;
using Valtro.Application.Editions;

namespace Valtro.Server.Tests;

/// <summary>What an organisation shows everybody in one place.</summary>
public sealed class FrontPageTests(ValtroApp app) : IClassFixture<ValtroApp>
{
    private const string Front = "/c/pinewick";

    private async Task<string> PageAsync(string path = Front, string? language = null)
    {
        using var request = new HttpRequestMessage(HttpMethod.Get, path);
        if (language is not null)
            request.Headers.AcceptLanguage.ParseAdd(language);
        var answer = (await app.Reader().Http.SendAsync(request)).EnsureSuccessStatusCode();
        return WebUtility.HtmlDecode(await answer.Content.ReadAsStringAsync());
    }

    [Fact]
    public async Task Everything_that_is_open_stands_there_with_what_comes_next_and_nothing_else_does()
    {
        var page = await PageAsync();
        Assert.Contains("Dates for junior families", page, StringComparison.Ordinal);
        Assert.Contains("Port Watch", page, StringComparison.Ordinal);
        Assert.Contains(">Knots and lines<", page, StringComparison.Ordinal);
        Assert.Contains("today 11:00", page, StringComparison.Ordinal);
        // For members, for those with the link, a sidebar that is not wanted there, a calendar that is closed.
        foreach (var closed in new[] { "for the staff", "Crew families", "Next at school", "Rowing" })
            Assert.DoesNotContain(closed, page, StringComparison.OrdinalIgnoreCase);
        Assert.DoesNotContain("style=", page, StringComparison.Ordinal);
        Assert.Contains("Als Nächstes:", await PageAsync(Front, "de-AT, en;q=0.5"), StringComparison.Ordinal);
    }

    [Fact]
    public async Task A_calendar_that_is_closed_is_gone_at_once_and_one_that_is_made_stands_in_the_edition_of_all()
    {
        var ada = await app.SignedInAsync();
        object Calendar(string level, int? version = null) => new
        {
            name = "Lamp room",
            plate = "LAMP",
            colour = "moss",
            zone = "America/Halifax",
            description = "",
            disclosure = new { members = "complete", link = level, everyone = level },
            version,
        };
        var made = await ada.DoAsync(HttpMethod.Post, "/api/calendars", Calendar("complete"));
        app.Clock.Advance(Duration.FromSeconds(2));
        Assert.Contains("Lamp room", await PageAsync(), StringComparison.Ordinal);
        Assert.Contains("Lamp room", await app.Reader().Http.GetStringAsync($"{Front}/harbour-almanac.json"), StringComparison.Ordinal);
        await ada.DoAsync(HttpMethod.Put, $"/api/calendars/{made["id"]}", Calendar("nothing", 1));
        app.Clock.Advance(Duration.FromSeconds(2));
        Assert.DoesNotContain("Lamp room", await PageAsync(), StringComparison.Ordinal);
        Assert.DoesNotContain("Lamp room", await app.Reader().Http.GetStringAsync($"{Front}/harbour-almanac.json"), StringComparison.Ordinal);
    }

    [Fact]
    public async Task Events_and_classes_are_found_without_regard_to_case_and_accents()
    {
        var page = await PageAsync($"{Front}?find=KNÓTS");
        Assert.Contains("Knots and lines", page, StringComparison.Ordinal);
        Assert.Contains($"{Front}/harbour-almanac?find=KN%C3%93TS", page, StringComparison.Ordinal);
        Assert.DoesNotContain("Night pilotage", page, StringComparison.Ordinal);
        Assert.Contains("Nothing found", await PageAsync($"{Front}?find=submarine"), StringComparison.Ordinal);
        var odd = await app.Reader().Http.GetStringAsync($"{Front}?find={Uri.EscapeDataString("\"><script>")}");
        Assert.DoesNotContain("><script>", odd, StringComparison.Ordinal);
    }

    [Fact]
    public async Task A_term_that_is_over_has_a_page_with_everything_that_was_open_in_it()
    {
        var ada = await app.SignedInAsync();
        var form = Caller.Event(await ada.CalendarAsync("SCH"), "Spring regatta", date: "2025-04-12");
        await ada.DoAsync(HttpMethod.Post, "/api/events", form);
        await ada.DoAsync(HttpMethod.Post, "/api/year-plans", new
        {
            name = "2024/25",
            first = "2024-09-02",
            last = "2025-06-27",
            terms = new[] { new { name = "Spring", first = "2025-01-06", last = "2025-06-27" } },
            breaks = Array.Empty<object>(),
        });
        app.Clock.Advance(Duration.FromSeconds(2));
        Assert.Contains($"{Front}?term=2025-01-06", await PageAsync(), StringComparison.Ordinal);
        var page = await PageAsync($"{Front}?term=2025-01-06");
        Assert.Contains("Spring regatta", page, StringComparison.Ordinal);
        Assert.Contains("<h3>April 2025</h3>", page, StringComparison.Ordinal);
        Assert.DoesNotContain("Knots and lines", page, StringComparison.Ordinal);
        Assert.Equal(HttpStatusCode.NotFound, (await app.Reader().Http.GetAsync($"{Front}?term=2025-01-07")).StatusCode);
    }

    [Fact]
    public async Task Whoever_chooses_classes_gets_one_page_and_one_feed_of_just_those()
    {
        var chosen = await app.Reader().Http.GetAsync($"{Front}?only=port-watch&only=senior-crew");
        Assert.Equal(HttpStatusCode.Redirect, chosen.StatusCode);
        Assert.Equal($"{Front}/harbour-almanac?only=port-watch,senior-crew", chosen.Headers.Location!.OriginalString);
        var feed = await app.Reader().Http.GetStringAsync($"{Front}/harbour-almanac.ics?only=port-watch,senior-crew");
        Assert.Contains("Night pilotage", feed, StringComparison.Ordinal);
        Assert.DoesNotContain("SUMMARY:SW Boat lab", feed, StringComparison.Ordinal);
    }

    [Fact]
    public async Task A_feed_is_narrowed_to_what_it_is_about_with_the_same_bytes()
    {
        var whole = await app.Reader().Http.GetStringAsync($"{Front}/harbour-almanac.ics");
        var some = await app.Reader().Http.GetStringAsync($"{Front}/harbour-almanac.ics?about=assessment&about=Regatta");
        var components = Components(some).ToArray();
        Assert.NotEmpty(components);
        Assert.All(components, one => Assert.Contains(one, whole, StringComparison.Ordinal));
        // Breaks concern everybody.
        Assert.All(components, one => Assert.True(
            one.Contains("CATEGORIES:Assessment", StringComparison.Ordinal) || one.Contains("CATEGORIES:Regatta", StringComparison.Ordinal)
            || one.Contains("TRANSP:TRANSPARENT", StringComparison.Ordinal)));
        Assert.Contains("about=assessment&about=regatta", some.Replace("\r\n ", "", StringComparison.Ordinal), StringComparison.Ordinal);
        var both = await app.Reader().Http.GetStringAsync($"{Front}/harbour-almanac.ics?about=assessment&only=senior-crew");
        Assert.True(Components(both).Count() < components.Length);
        var none = await app.Reader().Http.GetStringAsync($"{Front}/port-watch.ics?about=submarines");
        Assert.Empty(Ical.Net.Calendar.Load(none)!.Events);
    }

    private static IEnumerable<string> Components(string feed) =>
        feed.Split("BEGIN:VEVENT").Skip(1).Select(one => one[..one.IndexOf("END:VEVENT", StringComparison.Ordinal)]);

    [Fact]
    public async Task Programs_that_look_for_pages_find_the_open_ones()
    {
        var robots = await app.Reader().Http.GetStringAsync("/robots.txt");
        Assert.Contains("Allow: /c/", robots, StringComparison.Ordinal);
        Assert.Contains("Disallow: /\n", robots, StringComparison.Ordinal);
        var index = XDocument.Parse(await app.Reader().Http.GetStringAsync("/sitemap.xml"));
        var map = new Uri(Assert.Single(index.Descendants(), one => one.Name.LocalName == "loc").Value).AbsolutePath;
        Assert.Equal($"{Front}/sitemap.xml", map);
        var pages = XDocument.Parse(await app.Reader().Http.GetStringAsync(map)).Descendants()
            .Where(one => one.Name.LocalName == "loc").Select(one => new Uri(one.Value).AbsolutePath).ToArray();
        Assert.Contains(Front, pages);
        foreach (var page in pages)
            Assert.Equal(HttpStatusCode.OK, (await app.Reader().Http.GetAsync(page)).StatusCode);
        foreach (var nowhere in new[] { "/c/nowhere", "/c/nowhere/sitemap.xml", "/c/no.where", "/c/nowhere?only=x" })
            Assert.Equal(HttpStatusCode.NotFound, (await app.Reader().Http.GetAsync(nowhere)).StatusCode);
    }

    [Fact]
    public async Task What_a_program_of_before_has_rendered_is_rendered_anew()
    {
        const string path = $"{Front}/whole-school.json?month=2026-11";
        var right = await app.Reader().Http.GetStringAsync(path);
        var changed = await app.Test.Database.ExecuteAsync("""
            update artefact set form = 'of before', content = '{}', etag = 'of before'
            where key = 'month:2026-11' and edition_id = (select id from edition where slug = 'whole-school')
            """);
        Assert.Equal(1, changed);
        await using var node = await app.StartAsync();
        Assert.Equal(right, await new Caller(node).Http.GetStringAsync(path));
    }

    [Theory]
    [InlineData("Pinewick Harbour School", "PS")]
    [InlineData("rowing", "R")]
    [InlineData("The “Lantern” makers’ club", "TC")]
    [InlineData("École  étoile", "ÉÉ")]
    [InlineData("👩‍🚀 ⛵", "👩‍🚀⛵")]
    public void An_organisation_is_known_on_a_home_screen_by_its_initials(string organisation, string initials) =>
        Assert.Equal(initials, HomeScreen.InitialsOf(organisation));

    [Theory]
    [InlineData(Front, "Pinewick Harbour School")]
    [InlineData($"{Front}/port-watch", "Port Watch")]
    public async Task An_open_page_can_be_put_on_a_home_screen_and_a_secret_one_cannot(string page, string name)
    {
        Assert.Contains($"{page}/app.webmanifest", await PageAsync(page), StringComparison.Ordinal);
        var answer = await app.Reader().Http.GetAsync($"{page}/app.webmanifest");
        Assert.Equal("application/manifest+json", answer.Content.Headers.ContentType!.MediaType);
        var manifest = JsonNode.Parse(await answer.Content.ReadAsStringAsync())!;
        Assert.Equal((name, page), ((string)manifest["short_name"]!, (string)manifest["start_url"]!));
        var icon = await app.Reader().Http.GetStringAsync((string)manifest["icons"]![0]!["src"]!);
        Assert.Equal("PS", XDocument.Parse(icon).Descendants().Single(one => one.Name.LocalName == "text").Value);
        foreach (var width in new[] { 192, 512 })
        {
            var address = (string)manifest["icons"]!.AsArray().Single(one => (string)one!["sizes"]! == $"{width}x{width}")!["src"]!;
            using var drawn = SkiaSharp.SKBitmap.Decode(await app.Reader().Http.GetByteArrayAsync(address));
            Assert.Equal((width, width), (drawn.Width, drawn.Height));
            // Letters, a line and the ground.
            Assert.True(drawn.Pixels.Count(pixel => pixel == SkiaSharp.SKColors.White) > width * width / 50);
        }
        Assert.Contains($"rel=\"apple-touch-icon\" href=\"{Front}/icon-180.png\"", await PageAsync(page), StringComparison.Ordinal);
        Assert.Equal(HttpStatusCode.NotFound, (await app.Reader().Http.GetAsync($"{Front}/icon-4000.png")).StatusCode);
        Assert.Equal(HttpStatusCode.NotFound, (await app.Reader().Http.GetAsync("/c/nowhere/icon-180.png")).StatusCode);
        foreach (var closed in new[] { $"{Front}/staff-room", "/c/nowhere", $"{Front}/nowhere" })
            Assert.Equal(HttpStatusCode.NotFound, (await app.Reader().Http.GetAsync($"{closed}/app.webmanifest")).StatusCode);
        var secret = await app.Test.Database.FirstAsync<string>("select secret from secret_link where ended_at is null limit 1");
        Assert.DoesNotContain("manifest", await PageAsync($"/s/{secret}"), StringComparison.Ordinal);
        Assert.Equal(HttpStatusCode.NotFound, (await app.Reader().Http.GetAsync($"/s/{secret}/app.webmanifest")).StatusCode);
    }

    [Fact]
    public async Task It_is_asked_again_with_its_tag_and_costs_nothing_then()
    {
        var first = await app.Reader().Http.GetAsync(Front);
        using var again = new HttpRequestMessage(HttpMethod.Get, Front);
        again.Headers.IfNoneMatch.Add(first.Headers.ETag!);
        Assert.Equal(HttpStatusCode.NotModified, (await app.Reader().Http.SendAsync(again)).StatusCode);
    }
}
