using System.Net;
using System.Text.Json.Nodes;

namespace Valtro.Server.Tests;

/// <summary>Everybody is answered in their language, and what goes out speaks its edition's.</summary>
public sealed class LanguageTests(ValtroApp app) : IClassFixture<ValtroApp>
{
    private static async Task<string> RefusalAsync(Caller caller, string acceptLanguage)
    {
        var request = new HttpRequestMessage(
            HttpMethod.Post, "/api/groups")
        { Content = new StringContent("""{"name":"","calendars":[]}""", null, "application/json") };
        request.Headers.TryAddWithoutValidation("Accept-Language", acceptLanguage);
        var refused = await caller.SendAsync(request);
        Assert.Equal(HttpStatusCode.BadRequest, refused.StatusCode);
        var answer = await Caller.ReadAsync(refused);
        Assert.Equal((string)answer["detail"]!, (string)answer["errors"]!["name"]![0]!);
        return (string)answer["detail"]!;
    }

    [Theory]
    [InlineData("de-AT, en;q=0.5", "Der Name ist leer. Schreiben Sie mindestens ein Zeichen.")]
    [InlineData("en-CA", "The name is empty. Write at least one character.")]
    [InlineData("nb, de;q=0.4, en;q=0.2", "Der Name ist leer. Schreiben Sie mindestens ein Zeichen.")]
    [InlineData("tlh", "The name is empty. Write at least one character.")]
    [InlineData("*;q=x, ,", "The name is empty. Write at least one character.")]
    public async Task A_refusal_is_in_the_language_that_the_program_asks_for(string acceptLanguage, string said) =>
        Assert.Equal(said, await RefusalAsync(await app.SignedInAsync(), acceptLanguage));

    [Fact]
    public async Task What_a_member_chose_comes_before_what_the_browser_asks_for()
    {
        var jo = await app.SignedInAsync("jo");
        var session = await jo.GetAsync("/api/session");
        Assert.Equal(("de", "de"), ((string)session["person"]!["language"]!, (string)session["organisation"]!["locale"]!));
        Assert.Contains("uic%3Dde", jo.Cookies, StringComparison.Ordinal);
        Assert.StartsWith("Nur die Verwaltung",
            (string)(await Caller.ReadAsync(
                await jo.SendAsync(HttpMethod.Post, "/api/groups", new { name = "X", calendars = Array.Empty<string>() })))["detail"]!,
                    StringComparison.Ordinal);
        var crew = await jo.CalendarAsync("CREW");
        var form = Caller.Event(crew, "Funkprobe");
        Assert.Equal("Mittwoch, 25. November 2026, 14:00 bis 15:00",
            (string)(await jo.DoAsync(HttpMethod.Post, "/api/events/consequences", new { @event = form }))["words"]!);
    }

    [Fact]
    public async Task A_language_is_chosen_with_the_account_and_left_to_the_browser_again()
    {
        var em = await app.SignedInAsync("em");
        async Task<HttpResponseMessage> ChooseAsync(string language) =>
            await em.SendAsync(HttpMethod.Put, "/api/account", new { name = "Em Saltmarsh", language });
        var chosen = await ChooseAsync("de");
        Assert.Contains(chosen.Headers.GetValues("Set-Cookie"),
            cookie => cookie.StartsWith("valtro-language=", StringComparison.Ordinal)
                && !cookie.Contains("httponly", StringComparison.OrdinalIgnoreCase));
        Assert.Equal("de", (string)(await em.GetAsync("/api/session"))["person"]!["language"]!);
        var refused = await ChooseAsync("tlh");
        Assert.Equal(HttpStatusCode.BadRequest, refused.StatusCode);
        Assert.StartsWith(
            "Valtro spricht nicht „tlh“.", (string)(await Caller.ReadAsync(refused))["errors"]!["language"]![0]!, StringComparison.Ordinal);
        Assert.Contains((await ChooseAsync("")).Headers.GetValues("Set-Cookie"),
            cookie => cookie.StartsWith("valtro-language=;", StringComparison.Ordinal));
        Assert.Equal(("", "en-GB"),
            ((string)(await em.GetAsync("/api/session"))["person"]!["language"]!,
                (string)(await em.GetAsync("/api/session"))["organisation"]!["locale"]!));
    }

    [Fact]
    public async Task What_was_done_is_read_by_each_in_their_language()
    {
        var ada = await app.SignedInAsync();
        var row = await ada.CalendarNodeAsync("ROW");
        var disclosure = new { members = "complete", link = "complete", everyone = "headline" };
        await ada.DoAsync(HttpMethod.Put, $"/api/calendars/{row["id"]}/disclosure", new { disclosure, version = (int)row["version"]! });
        Assert.Equal("Everyone: nothing to headline", (string)(await ada.GetAsync("/api/audit?act=opened"))[0]!["detail"]!);
        var german = new HttpRequestMessage(HttpMethod.Get, "/api/audit?act=opened");
        german.Headers.Add("Accept-Language", "de");
        Assert.Equal("Alle: von nichts zu Eckdaten", (string)(await Caller.ReadAsync(await ada.Http.SendAsync(german)))[0]!["detail"]!);
    }

    [Fact]
    public async Task A_mail_is_in_the_language_of_whom_it_goes_to()
    {
        (await app.Reader().Http.GetAsync("/api/session")).EnsureSuccessStatusCode();
        var ada = await app.SignedInAsync();
        var jo =
            (await ada.GetAsync("/api/people"))["members"]!.AsArray().Single(member => (string)member!["email"]! == "jo@pinewick.example")!;
        (await ada.SendAsync(HttpMethod.Post, $"/api/people/{jo["id"]}/password-reset")).EnsureSuccessStatusCode();
        var mail = await app.Test.Database.FirstAsync<string>(
            "select subject || '|' || body from mail where recipient = 'jo@pinewick.example' order by id desc limit 1");
        Assert.StartsWith(
            "Ein neues Passwort für Pinewick Harbour School|Guten Tag Jo Brandwacht,\n\nsetzen Sie hier", mail, StringComparison.Ordinal);
    }

    [Theory]
    [InlineData("de", "Belegt")]
    [InlineData("fr", "Occupé")]
    [InlineData("", "Busy")]
    public async Task A_feed_speaks_its_edition_s_language_whoever_fetches_it(string language, string busy)
    {
        var ada = await app.SignedInAsync();
        var draft = new JsonObject
        {
            ["name"] = $"Taken {language}",
            ["sources"] = new JsonArray(new JsonObject { ["calendarId"] = await ada.CalendarAsync("SLIP") }),
            ["audience"] = "everyone",
            ["cap"] = "times",
            ["look"] = new JsonObject { ["language"] = language },
        };
        var made = await ada.DoAsync(HttpMethod.Post, "/api/editions", new { isOut = true, edition = draft });
        var request = new HttpRequestMessage(HttpMethod.Get, new Uri((string)made["addresses"]!["feed"]!).PathAndQuery);
        request.Headers.Add("Accept-Language", "ar");
        var feed = await (await app.Reader().Http.SendAsync(request)).Content.ReadAsStringAsync();
        Assert.Contains($"SUMMARY:{busy}\r\n", feed, StringComparison.Ordinal);
        Assert.Single(feed.Split("\r\n").Where(line => line.StartsWith("SUMMARY:", StringComparison.Ordinal)).Distinct());
    }

    [Fact]
    public async Task Why_there_is_no_calendar_is_said_to_each_in_their_language()
    {
        var request = new HttpRequestMessage(HttpMethod.Get, "/c/pinewick/nowhere");
        request.Headers.Add("Accept-Language", "de-CH");
        var answer = await app.Reader().Http.SendAsync(request);
        Assert.Equal(HttpStatusCode.NotFound, answer.StatusCode);
        Assert.StartsWith(
            "Unter dieser Adresse gibt es keinen Kalender.", await answer.Content.ReadAsStringAsync(), StringComparison.Ordinal);
    }
}
