using System.Net;
using System.Text.Json.Nodes;
using Microsoft.Extensions.DependencyInjection;
using NodaTime;
using Valtro.Application.Editions;

namespace Valtro.Server.Tests;

/// <summary>Tables, caps, spans, files, secret addresses, and looking as others do, through HTTP.</summary>
public sealed class DisclosureApiTests(ValtroApp app) : IClassFixture<ValtroApp>
{
    private static Task<JsonNode> NewAsync(Caller ada, string name, string plate, string members = "complete", string link = "nothing",
        string everyone = "nothing") =>
        ada.DoAsync(HttpMethod.Post, "/api/calendars",
            new { name, plate, colour = "plum", zone = "America/Halifax", description = "", disclosure = new { members, link, everyone } });

    private static object Table(string members, string link, string everyone, int version = 1) =>
        new { disclosure = new { members, link, everyone }, version };

    private async Task<HttpResponseMessage> PublicAsync(string path)
    {
        app.Clock.Advance(Duration.FromSeconds(2));
        return await app.Reader().Http.GetAsync(path);
    }

    [Fact]
    public async Task A_cell_is_changed_in_place_after_what_it_reveals_was_listed()
    {
        var ada = await app.SignedInAsync();
        var id = (string)(await NewAsync(ada, "Shy club", "SHY"))["id"]!;
        await ada.DoAsync(HttpMethod.Post, "/api/events", Caller.Event(id, "Plain"));
        await ada.DoAsync(HttpMethod.Post, "/api/events",
            Caller.Event(id, "With address", description: "<p>Write to cy@pinewick.example or call 902 555 0143</p>"));
        var draft = Caller.Event(id, "Draft");
        draft["isDraft"] = true;
        await ada.DoAsync(HttpMethod.Post, "/api/events", draft);
        var opening =
            (await ada.DoAsync(HttpMethod.Post, $"/api/calendars/{id}/disclosure/preview", Table("complete", "complete", "complete")))
            .AsArray();
        Assert.Equal(["link", "everyone"], opening.Select(one => (string)one!["audience"]!));
        var everyone = opening[1]!;
        Assert.Equal((2, 1, 1, 0, 1),
            ((int)everyone["revealed"]!, (int)everyone["withEmail"]!["count"]!, (int)everyone["withPhone"]!["count"]!,
                (int)everyone["withFile"]!["count"]!, (int)everyone["drafts"]!));
        Assert.Equal("With address", (string)everyone["withEmail"]!["events"]![0]!["title"]!);
        var saved = await ada.DoAsync(HttpMethod.Put, $"/api/calendars/{id}/disclosure", Table("complete", "complete", "headline"));
        Assert.Equal("headline", (string)saved["disclosure"]!["everyone"]!);
        Assert.Equal(HttpStatusCode.Conflict,
            (await ada.SendAsync(HttpMethod.Put, $"/api/calendars/{id}/disclosure", Table("complete", "complete", "complete"))).StatusCode);
        var audit = (await ada.GetAsync("/api/audit?act=opened"))[0]!;
        Assert.Equal(("Shy club", "With the link: nothing to complete, Everyone: nothing to headline", "Ada Dunmore"),
            ((string)audit["subject"]!, (string)audit["detail"]!, (string)audit["by"]!));
    }

    [Theory]
    [InlineData("headline", "complete", "nothing", "disclosure.link")]
    [InlineData("complete", "times", "headline", "disclosure.everyone")]
    public async Task A_table_that_is_not_monotone_is_refused_by_name(string members, string link, string everyone, string field)
    {
        var ada = await app.SignedInAsync();
        var id = await ada.CalendarAsync("PW");
        var version = (int)(await ada.CalendarNodeAsync("PW"))["version"]!;
        foreach (var path in new[] { "disclosure", "disclosure/preview" })
        {
            var refused = await ada.SendAsync(path == "disclosure" ? HttpMethod.Put : HttpMethod.Post, $"/api/calendars/{id}/{path}",
                Table(members, link, everyone, version));
            Assert.Equal(HttpStatusCode.BadRequest, refused.StatusCode);
            Assert.EndsWith(".", (string)(await Caller.ReadAsync(refused))["errors"]![field]![0]!, StringComparison.Ordinal);
        }
        Assert.Equal("complete", (string)(await ada.CalendarNodeAsync("PW"))["disclosure"]!["everyone"]!);
    }

    [Fact]
    public async Task Closing_says_what_goes_empty_and_how_many_programs_fetched_it_in_the_last_week()
    {
        var ada = await app.SignedInAsync();
        var id = (string)(await NewAsync(ada, "Soon closed", "SC1", "complete", "complete", "complete"))["id"]!;
        foreach (var agent in new[] { "Phone/1", "Phone/1", "Desk/2" })
        {
            var request = new HttpRequestMessage(HttpMethod.Get, "/c/pinewick/soon-closed.ics");
            request.Headers.UserAgent.ParseAdd(agent);
            (await app.Reader().Http.SendAsync(request)).EnsureSuccessStatusCode();
        }
        // Somebody looks at it, and something that is no browser asks for the page.
        var browser = new HttpRequestMessage(HttpMethod.Get, "/c/pinewick/soon-closed/embed");
        browser.Headers.Accept.ParseAdd("text/html");
        (await app.Reader().Http.SendAsync(browser)).EnsureSuccessStatusCode();
        (await app.Reader().Http.GetAsync("/c/pinewick/soon-closed")).EnsureSuccessStatusCode();
        await app.Factory.Services.GetRequiredService<Fetches>().KeepAsync();
        var closing =
            (await ada.DoAsync(HttpMethod.Post, $"/api/calendars/{id}/disclosure/preview", Table("complete", "complete", "nothing")))
            .AsArray();
        Assert.Equal(
            ["page 0", "embed 1", "feed 2"], closing.Single()!["empties"]!.AsArray().Select(one => $"{one!["what"]} {one["programs"]}"));
        app.Clock.Advance(Duration.FromDays(8));
        closing = (await ada.DoAsync(HttpMethod.Post, $"/api/calendars/{id}/disclosure/preview", Table("complete", "complete", "nothing")))
            .AsArray();
        Assert.All(closing.Single()!["empties"]!.AsArray(), one => Assert.Equal(0, (int)one!["programs"]!));
    }

    [Fact]
    public async Task A_cap_higher_than_the_calendar_is_refused_at_its_field_and_an_old_one_may_stay()
    {
        var ada = await app.SignedInAsync();
        var id = (string)(await NewAsync(ada, "Low", "LOW", "complete", "headline", "headline"))["id"]!;
        var form = Caller.Event(id, "Capped");
        form["cap"] = JsonNode.Parse("""{"members":null,"link":null,"everyone":"complete"}""");
        var refused = await ada.SendAsync(HttpMethod.Post, "/api/events", form);
        Assert.Contains(
            "only say less", (string)(await Caller.ReadAsync(refused))["errors"]!["cap.everyone"]![0]!, StringComparison.Ordinal);
        form["cap"] = JsonNode.Parse("""{"members":null,"link":"times","everyone":"headline"}""");
        Assert.NotNull((await Caller.ReadAsync(await ada.SendAsync(HttpMethod.Post, "/api/events", form)))["errors"]!["cap.everyone"]);
        form["cap"] = JsonNode.Parse("""{"members":null,"link":null,"everyone":"headline"}""");
        var made = await ada.DoAsync(HttpMethod.Post, "/api/events", form);
        await ada.DoAsync(HttpMethod.Put, $"/api/calendars/{id}/disclosure", Table("complete", "times", "times"));
        form["title"] = "Capped, renamed";
        await ada.ChangeAsync(made, "edit", form);
        form["showUntil"] = "2026-11-01";
        form["showFrom"] = "2026-11-02";
        Assert.NotNull((await Caller.ReadAsync(await ada.SendAsync(HttpMethod.Post, "/api/events", form)))["errors"]!["showUntil"]);
    }

    [Fact]
    public async Task An_event_appears_by_itself_when_its_day_has_come()
    {
        var ada = await app.SignedInAsync();
        await NewAsync(ada, "Patient", "PAT", "complete", "complete", "complete");
        var id = (string)(await ada.GetAsync("/api/calendars")).AsArray().Single(one => (string)one!["plate"]! == "PAT")!["id"]!;
        var today = app.Clock.GetCurrentInstant().InZone(DateTimeZoneProviders.Tzdb["America/Halifax"]).Date;
        var form = Caller.Event(id, "Surprise", $"{today.PlusDays(3):uuuu-MM-dd}");
        form["showFrom"] = $"{today.PlusDays(1):uuuu-MM-dd}";
        await ada.DoAsync(HttpMethod.Post, "/api/events", form);
        async Task<string> FeedAsync() => await (await PublicAsync("/c/pinewick/patient.ics")).Content.ReadAsStringAsync();
        Assert.DoesNotContain("Surprise", await FeedAsync(), StringComparison.Ordinal);
        app.Clock.Advance(Duration.FromDays(1));
        Assert.Contains("Surprise", await FeedAsync(), StringComparison.Ordinal);
        form["showFrom"] = null;
    }

    [Fact]
    public async Task A_secret_address_is_made_replaced_with_410_and_withdrawn()
    {
        var ada = await app.SignedInAsync();
        var id = (string)(await NewAsync(ada, "Linked", "LNK", "complete", "headline", "nothing"))["id"]!;
        await ada.DoAsync(HttpMethod.Post, "/api/events", Caller.Event(id, "For the few", description: "<p>Not for them</p>"));
        Assert.Null((string?)(await ada.GetAsync($"/api/calendars/{id}/link"))["page"]);
        var first = new Uri((string)(await ada.DoAsync(HttpMethod.Post, $"/api/calendars/{id}/link"))["page"]!).AbsolutePath;
        Assert.Matches("^/s/[A-Za-z0-9_-]{32}$", first);
        var page = await PublicAsync(first);
        Assert.Equal(("noindex, nofollow", "no-referrer"),
            (page.Headers.GetValues("X-Robots-Tag").Single(), page.Headers.GetValues("Referrer-Policy").Single()));
        var text = await page.Content.ReadAsStringAsync();
        Assert.Contains("For the few", text, StringComparison.Ordinal);
        Assert.DoesNotContain("Not for them", text, StringComparison.Ordinal);
        foreach (var ending in new[] { ".ics", ".json", "/embed" })
        {
            var answer = await PublicAsync(first + ending);
            Assert.Contains("For the few", await answer.Content.ReadAsStringAsync(), StringComparison.Ordinal);
            // What lies between keeps no copy of what only some may read.
            Assert.True(answer.Headers.CacheControl!.Private && !answer.Headers.CacheControl.Public);
        }
        Assert.Equal(HttpStatusCode.NotFound, (await PublicAsync("/c/pinewick/linked")).StatusCode);

        var second = new Uri((string)(await ada.DoAsync(HttpMethod.Post, $"/api/calendars/{id}/link"))["page"]!).AbsolutePath;
        foreach (var ending in new[] { "", ".ics", ".json", "/embed", "/changes" })
        {
            var gone = await PublicAsync(first + ending);
            Assert.Equal(HttpStatusCode.Gone, gone.StatusCode);
            Assert.Contains("replaced", await gone.Content.ReadAsStringAsync(), StringComparison.Ordinal);
        }
        Assert.Equal(HttpStatusCode.OK, (await PublicAsync(second)).StatusCode);
        await ada.DoAsync(HttpMethod.Delete, $"/api/calendars/{id}/link");
        Assert.Contains("withdrawn", await (await PublicAsync(second)).Content.ReadAsStringAsync(), StringComparison.Ordinal);
        var di = await app.SignedInAsync("di");
        Assert.Equal(HttpStatusCode.Forbidden, (await di.Http.GetAsync($"/api/calendars/{id}/link")).StatusCode);
    }

    [Fact]
    public async Task Guessed_secrets_are_answered_alike_and_too_many_are_stopped()
    {
        await using var node = await app.StartAsync(wrongSecretsPerMinute: 6);
        var guesser = new Caller(node).Http;
        var answers = new HashSet<string>();
        foreach (var secret in new[] { "x", new string('a', 32), new string('A', 32), "' or 1=1 --", new string('z', 500),
            "..%2f..%2fetc" })
        {
            var answer = await guesser.GetAsync($"/s/{Uri.EscapeDataString(secret)}");
            Assert.Equal(HttpStatusCode.NotFound, answer.StatusCode);
            answers.Add(await answer.Content.ReadAsStringAsync());
        }
        Assert.Single(answers);
        Assert.Equal(HttpStatusCode.TooManyRequests, (await guesser.GetAsync($"/s/{new string('b', 32)}")).StatusCode);
        Assert.Equal(HttpStatusCode.OK, (await guesser.GetAsync("/c/pinewick/port-watch.ics")).StatusCode);
    }

    [Fact]
    public async Task Who_looks_as_everyone_gets_what_everyone_gets_and_changes_nothing()
    {
        var ada = await app.SignedInAsync();
        var plates = (await ada.GetAsync("/api/calendars?as=everyone")).AsArray().Select(one => (string)one!["plate"]!).ToArray();
        Assert.Contains("SLIP", plates);
        Assert.DoesNotContain("ROW", plates);
        Assert.DoesNotContain("STF", plates);
        Assert.Contains("ROW", (await ada.GetAsync("/api/calendars?as=link")).AsArray().Select(one => (string)one!["plate"]!));
        var exam = (await ada.GetAsync("/api/occurrences?from=2026-11-27&to=2026-11-28")).AsArray()
            .Single(one => (string)one!["title"]! == "Radio exam")!;
        Assert.DoesNotContain((await ada.GetAsync("/api/occurrences?from=2026-11-27&to=2026-11-28&as=everyone")).AsArray(),
            one => (string)one!["title"]! == "Radio exam");
        var seen = await ada.GetAsync($"/api/events/{exam["eventId"]}?as=everyone");
        Assert.Equal(("Busy", "times", false), ((string)seen["title"]!, (string)seen["detail"]!, (bool)seen["mayEdit"]!));
        Assert.Equal(HttpStatusCode.Forbidden,
            (await ada.SendAsync(HttpMethod.Post, "/api/events?as=everyone", Caller.Event(await ada.CalendarAsync("PW")))).StatusCode);
        Assert.Equal(HttpStatusCode.Forbidden, (await ada.Http.GetAsync("/api/people?as=members")).StatusCode);
    }

    [Fact]
    public async Task A_preview_shows_the_reading_page_as_the_audience_gets_it()
    {
        var bo = await app.SignedInAsync("bo");
        var slip = await bo.CalendarAsync("SLIP");
        var everyone = await bo.Http.GetStringAsync($"/api/calendars/{slip}/seen-as/everyone?month=2026-11");
        Assert.DoesNotContain("Slipway taken", everyone, StringComparison.Ordinal);
        Assert.Contains("Busy", everyone, StringComparison.Ordinal);
        Assert.Contains("Slipway taken", await bo.Http.GetStringAsync($"/api/calendars/{slip}/seen-as/members.json?month=2026-11"),
            StringComparison.Ordinal);
        Assert.Equal(HttpStatusCode.NotFound, (await bo.Http.GetAsync($"/api/calendars/{slip}/seen-as/strangers")).StatusCode);
        Assert.Equal(HttpStatusCode.Forbidden,
            (await (await app.SignedInAsync("di")).Http.GetAsync($"/api/calendars/{slip}/seen-as/members")).StatusCode);
    }

    [Fact]
    public async Task A_file_goes_to_those_who_see_all_of_its_event_and_to_nobody_else()
    {
        var ada = await app.SignedInAsync();
        var id = (string)(await NewAsync(ada, "Posters", "PST", "complete", "headline", "headline"))["id"]!;
        var file = await Caller.ReadAsync(await ada.BringAsync("Plan ü.pdf", [1, 2, 3]));
        var form = Caller.Event(id, "With a plan");
        form["files"] = new JsonArray((string)file["id"]!);
        await ada.DoAsync(HttpMethod.Post, "/api/events", form);
        var di = await app.SignedInAsync("di");
        var got = await di.Http.GetAsync($"/api/files/{file["id"]}");
        Assert.Equal((HttpStatusCode.OK, "application/pdf"), (got.StatusCode, got.Content.Headers.ContentType!.MediaType));
        Assert.Contains("frame-ancestors 'none'", got.Headers.GetValues("Content-Security-Policy").Single(), StringComparison.Ordinal);
        var path = $"/c/pinewick/posters/files/{file["id"]}/Plan%20%C3%BC.pdf";
        Assert.Equal(HttpStatusCode.NotFound, (await PublicAsync(path)).StatusCode);
        var version = (int)(await ada.GetAsync($"/api/calendars/{id}"))["version"]!;
        await ada.DoAsync(HttpMethod.Put, $"/api/calendars/{id}/disclosure", Table("complete", "complete", "complete", version));
        Assert.Equal([1, 2, 3], await (await PublicAsync(path)).Content.ReadAsByteArrayAsync());
        Assert.Equal(HttpStatusCode.NotFound, (await PublicAsync($"/c/pinewick/posters/files/{file["id"]}/Other.pdf")).StatusCode);
        Assert.Equal(
            HttpStatusCode.NotFound, (await PublicAsync($"/c/pinewick/port-watch/files/{file["id"]}/Plan%20%C3%BC.pdf")).StatusCode);
        Assert.Contains($"FILENAME=\"Plan ü.pdf\":https://dates.pinewick.example{path}",
            (await (await PublicAsync("/c/pinewick/posters.ics")).Content.ReadAsStringAsync())
                .Replace("\r\n ", "", StringComparison.Ordinal), StringComparison.Ordinal);
    }

    [Fact]
    public async Task A_new_version_of_a_file_has_the_address_of_the_old_one_and_takes_its_place_at_once()
    {
        var ada = await app.SignedInAsync();
        var id = (string)(await NewAsync(ada, "Slips", "SLPS", "complete", "complete", "complete"))["id"]!;
        var file = (string)(await Caller.ReadAsync(await ada.BringAsync("slip.pdf", [1, 2, 3])))["id"]!;
        foreach (var title in new[] { "Trip", "Trip once more" })
        {
            var form = Caller.Event(id, title);
            form["files"] = new JsonArray(file);
            await ada.DoAsync(HttpMethod.Post, "/api/events", form);
        }
        var path = $"/c/pinewick/slips/files/{file}/slip.pdf";
        var before = await PublicAsync(path);
        Assert.Equal([1, 2, 3], await before.Content.ReadAsByteArrayAsync());
        var replaced = await Caller.ReadAsync(await ada.BringAsync("slip final.pdf", [4, 5], file));
        Assert.Equal((2, "slip.pdf", 2), ((int)replaced["events"]!, (string)replaced["file"]!["name"]!, (int)replaced["file"]!["size"]!));
        app.Clock.Advance(NodaTime.Duration.FromSeconds(2));
        var after = await PublicAsync(path);
        Assert.Equal([4, 5], await after.Content.ReadAsByteArrayAsync());
        Assert.NotEqual(before.Headers.ETag, after.Headers.ETag);
        Assert.Contains("slip.pdf", $"{await ada.GetAsync("/api/audit?act=fileReplaced")}", StringComparison.Ordinal);
        // Another kind would lie under that name.
        Assert.Contains("slip.pdf",
            (string)(await Caller.ReadAsync(await ada.BringAsync("slip.txt", [1], file)))["errors"]!["files"]![0]!, StringComparison.Ordinal);
        // Who only reads it replaces nothing, nor does who may not change one of its events.
        Assert.Equal(HttpStatusCode.Forbidden, (await (await app.SignedInAsync("bo")).BringAsync("slip.pdf", [9], file)).StatusCode);
        Assert.Equal(HttpStatusCode.NotFound, (await ada.BringAsync("slip.pdf", [9], $"{Guid.NewGuid()}")).StatusCode);
        Assert.Equal([4, 5], await (await PublicAsync(path)).Content.ReadAsByteArrayAsync());
    }

    [Fact]
    public async Task What_somebody_has_looked_at_is_not_replaced_behind_their_back()
    {
        // Of an event that waits for sign-off, and of none at all.
        var cy = await app.SignedInAsync("cy");
        var file = (string)(await Caller.ReadAsync(await cy.BringAsync("plan.pdf", [1, 2])))["id"]!;
        Assert.Equal(HttpStatusCode.Forbidden, (await cy.BringAsync("plan.pdf", [3], file)).StatusCode);
        var form = Caller.Event(await cy.CalendarAsync("ROW"), "Waits with a plan");
        form["files"] = new JsonArray(file);
        await cy.DoAsync(HttpMethod.Post, "/api/events", form);
        Assert.Equal(HttpStatusCode.Forbidden, (await cy.BringAsync("plan.pdf", [3], file)).StatusCode);
        Assert.Equal([1, 2], await cy.Http.GetByteArrayAsync($"/api/files/{file}"));
        // Of one in the bin, whoever keeps its calendar alone.
        var ada = await app.SignedInAsync();
        var binned = Caller.Event((string)(await NewAsync(ada, "Old slips", "OLDS", "complete"))["id"]!, "In the bin");
        var slip = (string)(await Caller.ReadAsync(await ada.BringAsync("old.pdf", [1])))["id"]!;
        binned["files"] = new JsonArray(slip);
        var made = await ada.DoAsync(HttpMethod.Post, "/api/events", binned);
        await ada.ChangeAsync(made, "remove");
        Assert.Equal(1, (int)(await Caller.ReadAsync(await ada.BringAsync("old.pdf", [2], slip)))["events"]!);
    }

    [Fact]
    public async Task A_picture_goes_out_in_its_sizes_with_what_it_shows()
    {
        var reader = app.Reader().Http;
        var part = JsonNode.Parse(await reader.GetStringAsync("/c/pinewick/whole-school.json?month=2026-11"))!;
        var entry = part["entries"]!.AsArray().First(entry => (string)entry!["title"]! == "Open harbour evening")!;
        Assert.Equal(("Boats at the pier in the evening, their lamps lit", "bottom"),
            ((string)entry["picture"]!["alternative"]!, (string)entry["picture"]!["focus"]!));
        var path = $"/c/pinewick/whole-school/{entry["picture"]!["address"]}";
        foreach (var (query, type) in new[] { ("", "image/png"), ("?width=480", "image/webp"), ("?width=960&form=jpeg", "image/jpeg"),
            ("?width=481", "image/png") })
            Assert.Equal(type, (await reader.GetAsync(path + query)).Content.Headers.ContentType!.MediaType);
        var page = await reader.GetStringAsync($"/c/pinewick/whole-school/entries/{entry["id"]}");
        Assert.Contains("alt=\"Boats at the pier in the evening, their lamps lit\"", page, StringComparison.Ordinal);
        Assert.Contains("og:image:alt", page, StringComparison.Ordinal);
    }

    [Fact]
    public async Task Another_level_leaves_to_whom_names_are_told_as_it_is_and_that_is_audited_by_itself()
    {
        var ada = await app.SignedInAsync();
        var made = await NewAsync(ada, "Names within", "NAMW", "complete", "complete", "complete");
        object Calendar(string names, int version) => new
        {
            name = "Names within",
            plate = "NAMW",
            colour = "plum",
            zone = "America/Halifax",
            description = "",
            disclosure = new { members = "complete", link = "complete", everyone = "complete", names },
            version,
        };
        await ada.DoAsync(HttpMethod.Put, $"/api/calendars/{made["id"]}", Calendar("editors", 1));
        var saved = await ada.DoAsync(
            HttpMethod.Put, $"/api/calendars/{made["id"]}/disclosure", Table("complete", "complete", "headline", 2));
        Assert.Equal(("headline", "editors"), ((string)saved["disclosure"]!["everyone"]!, (string)saved["disclosure"]!["names"]!));
        await ada.DoAsync(HttpMethod.Put, $"/api/calendars/{made["id"]}", Calendar("everyone", 3));
        var audit = $"{await ada.GetAsync("/api/audit?act=opened")}";
        Assert.Contains("names of people: Editors to Everyone", audit, StringComparison.OrdinalIgnoreCase);
    }

    [Theory]
    [InlineData("page.html", 3)]
    [InlineData("run.exe", 3)]
    [InlineData("empty.pdf", 0)]
    [InlineData("big.pdf", 10 * 1024 * 1024 + 1)]
    public async Task A_file_that_cannot_be_is_refused_with_a_sentence(string name, int size)
    {
        var ada = await app.SignedInAsync();
        var refused = await ada.BringAsync(name, new byte[size]);
        Assert.Equal(HttpStatusCode.BadRequest, refused.StatusCode);
        Assert.Contains(name, (string)(await Caller.ReadAsync(refused))["errors"]!["files"]![0]!, StringComparison.Ordinal);
    }

    [Fact]
    public async Task Somebody_else_s_file_cannot_be_put_on_an_event_of_one_s_own()
    {
        var ada = await app.SignedInAsync();
        var file = await Caller.ReadAsync(await ada.BringAsync("secret.pdf", [1]));
        var bo = await app.SignedInAsync("bo");
        var form = Caller.Event(await bo.CalendarAsync("PW"), "Stolen");
        form["files"] = new JsonArray((string)file["id"]!);
        var refused = await bo.SendAsync(HttpMethod.Post, "/api/events", form);
        Assert.NotNull((await Caller.ReadAsync(refused))["errors"]!["files"]);
        Assert.Equal(HttpStatusCode.NotFound, (await bo.Http.GetAsync($"/api/files/{file["id"]}")).StatusCode);
        Assert.Equal(HttpStatusCode.Forbidden, (await (await app.SignedInAsync("di")).BringAsync("x.pdf", [1])).StatusCode);
    }

    [Fact]
    public async Task A_link_that_is_none_is_refused_and_a_right_one_reaches_readers()
    {
        var ada = await app.SignedInAsync();
        var form = Caller.Event(await ada.CalendarAsync("PW"), "Linked lesson");
        form["links"] = JsonNode.Parse("""[{"label":"Bad","url":"javascript:alert(1)"}]""");
        Assert.NotNull((await Caller.ReadAsync(await ada.SendAsync(HttpMethod.Post, "/api/events", form)))["errors"]!["links"]);
        form["links"] = JsonNode.Parse("""[{"label":"","url":"https://pinewick.example/map"}]""");
        form["contact"] = "Bo, wardroom";
        await ada.DoAsync(HttpMethod.Post, "/api/events", form);
        var month = JsonNode.Parse(await (await PublicAsync("/c/pinewick/port-watch.json?month=2026-11")).Content.ReadAsStringAsync())!;
        var entry = month["entries"]!.AsArray().Single(one => (string)one!["title"]! == "Linked lesson")!;
        Assert.Equal(("", "Bo, wardroom"), ((string)entry["links"]![0]!["label"]!, (string)entry["contact"]!));
    }
}
