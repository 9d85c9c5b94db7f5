using System.Net;

namespace Valtro.Server.Tests;

public sealed class CalendarApiTests(ValtroApp app) : IClassFixture<ValtroApp>
{
    private static object Calendar(string plate, string name = "Lantern makers", string zone = "America/Halifax", string whom = "nothing",
        int? version = null) =>
        new
        {
            name,
            plate,
            colour = "plum",
            zone,
            description = "",
            disclosure = new { members = whom, link = whom, everyone = whom },
            version
        };

    private static async Task<string[]> PlatesAsync(Caller caller) =>
        [.. (await caller.GetAsync("/api/calendars")).AsArray().Select(calendar => (string)calendar!["plate"]!)];

    [Fact]
    public async Task Each_person_sees_the_calendars_that_are_for_them()
    {
        Assert.Contains("STF", await PlatesAsync(await app.SignedInAsync("ada")));
        var di = await PlatesAsync(await app.SignedInAsync("di"));
        Assert.DoesNotContain("STF", di);
        Assert.Contains("ROW", di);
    }

    [Fact]
    public async Task A_closed_calendar_is_answered_like_one_that_does_not_exist()
    {
        var staff = await (await app.SignedInAsync()).CalendarAsync("STF");
        var di = await app.SignedInAsync("di");
        Assert.Equal(HttpStatusCode.NotFound, (await di.Http.GetAsync($"/api/calendars/{staff}")).StatusCode);
        Assert.Equal(HttpStatusCode.NotFound, (await di.Http.GetAsync($"/api/calendars/{Guid.NewGuid()}")).StatusCode);
        Assert.Equal(HttpStatusCode.NotFound, (await di.Http.GetAsync($"/api/calendars/{staff}/publishing")).StatusCode);
    }

    [Fact]
    public async Task An_administrator_makes_a_calendar_and_saves_it()
    {
        var ada = await app.SignedInAsync();
        var made = await ada.DoAsync(HttpMethod.Post, "/api/calendars", Calendar("LAN"));
        Assert.Equal(("LAN", "closed"), ((string)made["plate"]!, (string)made["delivery"]!["state"]!));
        var saved = await ada.DoAsync(HttpMethod.Put, $"/api/calendars/{made["id"]}", Calendar("LAN", whom: "complete", version: 1));
        Assert.Equal("complete", (string)saved["disclosure"]!["everyone"]!);
        var conflict = await ada.SendAsync(HttpMethod.Put, $"/api/calendars/{made["id"]}", Calendar("LAN", "Late", version: 1));
        Assert.Equal(HttpStatusCode.Conflict, conflict.StatusCode);
        Assert.Equal("Lantern makers", (string)(await Caller.ReadAsync(conflict))["current"]!["name"]!);
    }

    [Theory]
    [InlineData("bo")]
    [InlineData("cy")]
    [InlineData("di")]
    public async Task Others_make_none(string name)
    {
        var caller = await app.SignedInAsync(name);
        Assert.Equal(HttpStatusCode.Forbidden, (await caller.SendAsync(HttpMethod.Post, "/api/calendars", Calendar("NO"))).StatusCode);
        var id = await caller.CalendarAsync("PW");
        Assert.Equal(HttpStatusCode.Forbidden,
            (await caller.SendAsync(HttpMethod.Put, $"/api/calendars/{id}", Calendar("NO", version: 1))).StatusCode);
    }

    [Fact]
    public async Task Everything_wrong_with_a_calendar_is_said_by_field()
    {
        var ada = await app.SignedInAsync();
        var refused = await ada.SendAsync(HttpMethod.Post, "/api/calendars", Calendar("TOO LONG", "", "Mars/Olympus"));
        Assert.Equal(HttpStatusCode.BadRequest, refused.StatusCode);
        var errors = (await Caller.ReadAsync(refused))["errors"]!.AsObject();
        Assert.Equal(["name", "plate", "zone"], errors.Select(error => error.Key).Order());
    }

    [Fact]
    public async Task A_taken_plate_is_refused_at_its_field()
    {
        var ada = await app.SignedInAsync();
        var refused = await ada.SendAsync(HttpMethod.Post, "/api/calendars", Calendar("pw"));
        Assert.Contains("PW", (string)(await Caller.ReadAsync(refused))["errors"]!["plate"]![0]!, StringComparison.Ordinal);
        Assert.Equal("LM", (string)(await ada.GetAsync("/api/calendars/plate?name=Lantern%20makers"))["plate"]!);
        Assert.Equal("POR", (string)(await ada.GetAsync("/api/calendars/plate?name=Port%20Watch"))["plate"]!);
    }

    [Fact]
    public async Task Publishing_gives_the_snippets_and_addresses()
    {
        var ada = await app.SignedInAsync();
        var id = await ada.CalendarAsync("PW");
        var publishing = await ada.GetAsync($"/api/calendars/{id}/publishing");
        Assert.Equal("webcal://dates.pinewick.example/c/pinewick/port-watch.ics", (string)publishing["webcal"]!);
        Assert.Contains("https://dates.pinewick.example/embed.js", (string)publishing["snippetThatFits"]!, StringComparison.Ordinal);
        Assert.Contains("<iframe src=\"https://dates.pinewick.example/c/pinewick/port-watch/embed\"", (string)publishing["snippetFixed"]!,
            StringComparison.Ordinal);
        Assert.Contains("<svg", await ada.Http.GetStringAsync($"/api/calendars/{id}/feed-code.svg"), StringComparison.Ordinal);
        Assert.Equal(
            HttpStatusCode.Forbidden, (await (await app.SignedInAsync("di")).Http.GetAsync($"/api/calendars/{id}/publishing")).StatusCode);
    }
}
