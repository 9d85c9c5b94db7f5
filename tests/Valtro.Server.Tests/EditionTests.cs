using System.Net;
using System.Text.Json.Nodes;
using System.Text.RegularExpressions;
using System.Xml.Linq;
using NodaTime;
using NodaTime.Text;

namespace Valtro.Server.Tests;

/// <summary>Editions from their making to what readers fetch.</summary>
public sealed class EditionTests(ValtroApp app) : IClassFixture<ValtroApp>
{
    private async Task<JsonObject> DraftAsync(Caller caller, string name, params string[] plates)
    {
        var sources = new JsonArray();
        foreach (var plate in plates)
            sources.Add(new JsonObject { ["calendarId"] = await caller.CalendarAsync(plate) });
        return new JsonObject { ["name"] = name, ["sources"] = sources };
    }

    private static async Task<JsonNode> MakeAsync(Caller caller, JsonObject draft) =>
        await caller.DoAsync(HttpMethod.Post, "/api/editions", new { isOut = true, edition = draft });

    private static string PathOf(JsonNode edition) => new Uri((string)edition["addresses"]!["page"]!).AbsolutePath;

    private async Task<JsonNode> PartAsync(string path, string month = "2026-11") =>
        JsonNode.Parse(await app.Reader().Http.GetStringAsync($"{path}.json?month={month}"))!;

    private static IEnumerable<JsonNode> EntriesOf(JsonNode part, string title) =>
        part["entries"]!.AsArray().Where(entry => (string)entry!["title"]! == title)!;

    private async Task<JsonNode> FamiliesAsync(Caller caller, string name) =>
        await MakeAsync(caller, await DraftAsync(caller, name, "PW", "SW", "SCH"));

    [Fact]
    public async Task A_family_gets_one_page_with_each_entry_once_and_marked_with_whose_it_is()
    {
        var ada = await app.SignedInAsync();
        var path = PathOf(await FamiliesAsync(ada, "Two watches’ families"));
        Assert.Equal("/c/pinewick/two-watches-families", path);
        var part = await PartAsync(path);
        Assert.Equal(["PW", "SCH", "SW"],
            Assert.Single(EntriesOf(part, "Open harbour evening"))["plates"]!.AsArray().Select(plate => (string)plate!));
        Assert.Equal(["PW", "SCH", "SW"], part["edition"]!["sources"]!.AsArray().Select(source => (string)source!["plate"]!));
        var feed = await app.Reader().Http.GetStringAsync($"{path}.ics");
        Assert.Contains("SUMMARY:PW SCH SW Open harbour evening", feed, StringComparison.Ordinal);
        Assert.Contains("NAME:Two watches’ families", feed, StringComparison.Ordinal);
        Assert.Single(Ical.Net.Calendar.Load(feed)!.Events,
            calendarEvent => calendarEvent.Summary!.EndsWith("Open harbour evening", StringComparison.Ordinal));
    }

    [Fact]
    public async Task A_reader_takes_a_feed_of_just_the_calendars_that_concern_them()
    {
        var ada = await app.SignedInAsync();
        var path = PathOf(await FamiliesAsync(ada, "Narrow"));
        var port = Ical.Net.Calendar.Load(await app.Reader().Http.GetStringAsync($"{path}.ics?only=pw"))!.Events.Select(calendarEvent =>
            calendarEvent.Summary!)
            .ToArray();
        Assert.Contains("PW Boat lab", port);
        Assert.Contains("PW SCH SW Open harbour evening", port);
        Assert.DoesNotContain("SW Boat lab", port);
        // By the slug it is the same, and what never was here is not found.
        Assert.Equal(await app.Reader().Http.GetStringAsync($"{path}.ics?only=pw"),
            await app.Reader().Http.GetStringAsync($"{path}.ics?only=port-watch"));
        Assert.Equal(HttpStatusCode.NotFound, (await app.Reader().Http.GetAsync($"{path}.ics?only=STF")).StatusCode);
    }

    [Fact]
    public async Task A_changed_edition_is_shown_at_the_same_address_and_a_changed_event_too()
    {
        var ada = await app.SignedInAsync();
        var made = await FamiliesAsync(ada, "Changing");
        var path = PathOf(made);
        var before = (await app.Reader().Http.GetAsync($"{path}.ics")).Headers.ETag;
        var draft = await DraftAsync(ada, "Changing", "PW");
        draft["look"] = new JsonObject { ["title"] = "Port Watch for families", ["view"] = "list" };
        await ada.DoAsync(HttpMethod.Put, $"/api/editions/{made["id"]}", new { edition = draft, version = 1 });
        app.Clock.Advance(Duration.FromSeconds(2));
        var part = await PartAsync(path);
        Assert.Equal(("Port Watch for families", "list"), ((string)part["edition"]!["name"]!, (string)part["edition"]!["look"]!["view"]!));
        Assert.NotEqual(before, (await app.Reader().Http.GetAsync($"{path}.ics")).Headers.ETag);
        await ada.DoAsync(HttpMethod.Post, "/api/events", Caller.Event(await ada.CalendarAsync("PW"), "Quite new", "2026-11-26"));
        app.Clock.Advance(Duration.FromSeconds(2));
        Assert.Single(EntriesOf(await PartAsync(path), "Quite new"));
    }

    [Theory]
    [InlineData("time", 0, "")]
    [InlineData("day", 20, "")]
    [InlineData("week", 5, "Mon [0-9]+ [A-Z][a-z]{2} – Sun [0-9]+ [A-Z][a-z]{2}")]
    [InlineData("month", 2, "[A-Z][a-z]+ 202[67]")]
    [InlineData("calendar", 2, "Port Watch")]
    [InlineData("category", 1, "Regatta")]
    public async Task A_list_is_painted_under_the_headings_that_its_script_makes(string grouping, int atLeast, string heading)
    {
        var ada = await app.SignedInAsync();
        var draft = await DraftAsync(ada, $"Grouped by {grouping}", "PW", "ROW");
        draft["look"] = new JsonObject { ["view"] = "list", ["grouping"] = grouping };
        draft["audience"] = "link";
        var page = await app.Reader().Http.GetStringAsync(PathOf(await MakeAsync(ada, draft)));
        var view = page[..page.IndexOf("id=\"edition-data\"", StringComparison.Ordinal)].Replace("<span>", "", StringComparison.Ordinal)
            .Replace("</span>", "", StringComparison.Ordinal);
        var headings = Regex.Matches(view, grouping == "day" ? "<h3 class=\"day-name\">" : "<h3 class=\"group-name\">(.*?)</h3>");
        Assert.True(headings.Count >= atLeast, $"{headings.Count} headings");
        Assert.True(heading.Length == 0 || headings.Any(one => Regex.IsMatch(WebUtility.HtmlDecode(one.Groups[1].Value), $"^{heading}$")),
            string.Join(", ", headings.Select(one => one.Value)));
        Assert.Contains($"class=\"day by-{grouping}", view, StringComparison.Ordinal);
    }

    [Fact]
    public async Task An_edition_with_a_limit_is_one_part_and_moves_with_the_clock()
    {
        var ada = await app.SignedInAsync();
        var draft = await DraftAsync(ada, "Next five", "PW", "SW");
        draft["limit"] = 5;
        draft["window"] = new JsonObject { ["from"] = "now", ["to"] = "open", ["withPast"] = false };
        var path = PathOf(await MakeAsync(ada, draft));
        var now = await PartAsync(path, "all");
        Assert.Equal((5, true), (now["entries"]!.AsArray().Count, (bool)now["edition"]!["isWhole"]!));
        var first = (string)now["entries"]!.AsArray()[0]!["id"]!;
        app.Clock.Advance(Duration.FromHours(30));
        var later = await PartAsync(path, "all");
        Assert.Equal(5, later["entries"]!.AsArray().Count);
        Assert.DoesNotContain(later["entries"]!.AsArray(), entry => (string)entry!["id"]! == first);
        Assert.Contains("\"isWhole\":true", await app.Reader().Http.GetStringAsync($"{path}/embed"), StringComparison.Ordinal);
    }

    [Fact]
    public async Task An_entry_has_a_page_of_its_own_with_data_for_machines_and_files_for_programs()
    {
        var ada = await app.SignedInAsync();
        using var nowhere =
            await ada.SendAsync(HttpMethod.Post, "/api/lists/places", new { name = "Nowhere", coordinates = "north of the pier" });
        Assert.Contains(
            "44.6476, -63.5728", (string)(await Caller.ReadAsync(nowhere))["errors"]!["coordinates"]![0]!, StringComparison.Ordinal);
        var path = PathOf(await FamiliesAsync(ada, "Own pages"));
        var survey = EntriesOf(await PartAsync(path, "2026-12"), "Survey walk").Single();
        var address = $"{path}/entries/{survey["id"]}";
        var page = await app.Reader().Http.GetStringAsync(address);
        Assert.Contains("<h1 dir=\"auto\">Survey walk</h1>", page, StringComparison.Ordinal);
        Assert.Contains("geo:43.9502,-60.0102", page, StringComparison.Ordinal);
        Assert.Contains("og:title", page, StringComparison.Ordinal);
        Assert.DoesNotContain("noindex", page, StringComparison.Ordinal);
        var data = JsonNode.Parse(page.Split("application/ld+json\">")[1].Split("</script>")[0])!;
        Assert.Equal(
            ("Event", "Survey walk", "Grey Point"), ((string)data["@type"]!, (string)data["name"]!, (string)data["location"]!["name"]!));
        var file = Ical.Net.Calendar.Load(await app.Reader().Http.GetStringAsync($"{address}.ics"))!;
        Assert.Equal("SW Survey walk", Assert.Single(file.Events).Summary);

        var lab = EntriesOf(await PartAsync(path), "Boat lab").First();
        var series =
            Ical.Net.Calendar.Load(await app.Reader().Http.GetStringAsync($"{path}/entries/{((string)lab["id"]!).Split('/')[0]}.ics"))!;
        Assert.NotNull(series.Events.First(calendarEvent => calendarEvent.RecurrenceIdentifier is null).RecurrenceRule);
        var one = Ical.Net.Calendar.Load(await app.Reader().Http.GetStringAsync($"{path}/entries/{lab["id"]}.ics"))!;
        Assert.Null(Assert.Single(one.Events).RecurrenceRule);
        Assert.Equal(
            HttpStatusCode.NotFound, (await app.Reader().Http.GetAsync($"{path}/entries/{Guid.NewGuid()}/2026-11-24T14:00:00")).StatusCode);
        Assert.Equal(HttpStatusCode.NotFound,
            (await app.Reader().Http.GetAsync($"{path}/entries/{((string)lab["id"]!).Split('/')[0]}/whenever")).StatusCode);
    }

    [Theory]
    [InlineData("tickets", "", "offers", "Place", "Pinewick Harbour School")]
    [InlineData("videoCall", "", "location", "VirtualLocation", null)]
    [InlineData("videoCall", "Hall", "location", "Place", "Hall")]
    public async Task Machines_are_told_where_it_is_and_where_tickets_are(
        string kind, string place, string holdsAddress, string where, string? name)
    {
        var ada = await app.SignedInAsync();
        var form = Caller.Event(await ada.CalendarAsync("SCH"), $"Sea songs {kind} {place}".Trim());
        form["place"] = place;
        form["links"] = new JsonArray(new JsonObject { ["label"] = "", ["url"] = "https://pinewick.example/songs", ["kind"] = kind });
        await ada.DoAsync(HttpMethod.Post, "/api/events", form);
        app.Clock.Advance(Duration.FromSeconds(2));
        var entry = EntriesOf(await PartAsync("/c/pinewick/whole-school"), $"Sea songs {kind} {place}".Trim()).First();
        var page = await app.Reader().Http.GetStringAsync($"/c/pinewick/whole-school/entries/{entry["id"]}");
        var data = JsonNode.Parse(page.Split("application/ld+json\">")[1].Split("</script>")[0])!;
        Assert.Equal((where, name), ((string)data["location"]!["@type"]!, (string?)data["location"]!["name"]));
        Assert.EndsWith("/c/pinewick", (string)data["organizer"]!["url"]!, StringComparison.Ordinal);
        if (place.Length == 0)
            Assert.Contains("https://pinewick.example/songs", $"{data[holdsAddress]}", StringComparison.Ordinal);
    }

    [Fact]
    public async Task An_event_that_another_program_named_is_known_by_that_name_in_addresses_and_files()
    {
        var ada = await app.SignedInAsync();
        var made = await ada.DoAsync(HttpMethod.Post, "/api/events", Caller.Event(await ada.CalendarAsync("PW"), "Named elsewhere"));
        await app.Test.Database.ExecuteAsync("update event set uid = 'old.example/7, part 2', version = version + 1 where id = @id",
            new { id = Guid.Parse((string)made["id"]!) });
        var path = PathOf(await FamiliesAsync(ada, "Named elsewhere"));
        var entry = EntriesOf(await PartAsync(path), "Named elsewhere").Single();
        Assert.StartsWith("old.example%2F7%2C%20part%202/", (string)entry["id"]!, StringComparison.Ordinal);
        Assert.Contains("<h1 dir=\"auto\">Named elsewhere</h1>",
            await app.Reader().Http.GetStringAsync($"{path}/entries/{entry["id"]}"), StringComparison.Ordinal);
        var file = await app.Reader().Http.GetStringAsync($"{path}/entries/{((string)entry["id"]!).Split('/')[0]}.ics");
        Assert.Equal("old.example/7, part 2", Assert.Single(Ical.Net.Calendar.Load(file)!.Events).Uid);
    }

    [Fact]
    public async Task What_moved_lately_is_told_with_what_it_was_on_the_page_and_as_Atom()
    {
        var ada = await app.SignedInAsync();
        var made = await ada.DoAsync(HttpMethod.Post, "/api/events", Caller.Event(await ada.CalendarAsync("PW"), "Movable", "2026-12-10"));
        var path = PathOf(await FamiliesAsync(ada, "Lately"));
        app.Clock.Advance(Duration.FromDays(20));
        Assert.Empty(JsonNode.Parse(await app.Reader().Http.GetStringAsync($"{path}/changed.json"))!["changes"]!.AsArray());
        ada = await app.SignedInAsync();
        await ada.ChangeAsync(made, "edit", Caller.Event(await ada.CalendarAsync("PW"), "Movable", "2026-12-17"));
        app.Clock.Advance(Duration.FromSeconds(5));
        var change = Assert.Single(JsonNode.Parse(await app.Reader().Http.GetStringAsync($"{path}/changed.json"))!["changes"]!.AsArray())!;
        Assert.Equal(("moved", "2026-12-10", "2026-12-17"),
            ((string)change["change"]!, ((string)change["wasStart"]!)[..10], ((string)change["entry"]!["start"]!)[..10]));
        XNamespace atom = "http://www.w3.org/2005/Atom";
        var feed = XDocument.Parse(await app.Reader().Http.GetStringAsync($"{path}.atom")).Root!;
        var entry = Assert.Single(feed.Elements(atom + "entry"));
        Assert.Contains("PW Movable", entry.Element(atom + "title")!.Value, StringComparison.Ordinal);
        Assert.All(new[] { feed, entry },
            one => Assert.True(one.Element(atom + "id") is not null
                && one.Element(atom + "updated") is not null
                && one.Element(atom + "title") is not null));
    }

    [Fact]
    public async Task What_is_put_right_at_once_is_no_news_and_what_moves_later_is_however_young()
    {
        var ada = await app.SignedInAsync();
        var calendar = await ada.CalendarAsync("PW");
        var date = app.Clock.GetCurrentInstant().Plus(Duration.FromDays(9)).InUtc().Date;
        JsonObject On(string title, int later) => Caller.Event(calendar, title, LocalDatePattern.Iso.Format(date.PlusDays(later)));
        var path = PathOf(await FamiliesAsync(ada, "Young"));
        var typo = await ada.DoAsync(HttpMethod.Post, "/api/events", On("Typed wrongly", 0));
        var young = await ada.DoAsync(HttpMethod.Post, "/api/events", On("Young and moved", 0));
        app.Clock.Advance(Duration.FromMinutes(20));
        await ada.ChangeAsync(typo, "edit", On("Typed wrongly", 1));
        app.Clock.Advance(Duration.FromMinutes(50));
        await ada.ChangeAsync(young, "edit", On("Young and moved", 2));
        app.Clock.Advance(Duration.FromSeconds(5));
        var changes = JsonNode.Parse(await app.Reader().Http.GetStringAsync($"{path}/changed.json"))!["changes"]!.AsArray();
        Assert.Equal(LocalDatePattern.Iso.Format(date),
            ((string)Assert.Single(changes, change => (string)change!["entry"]!["title"]! == "Young and moved")!["wasStart"]!)[..10]);
        // What was put right at once is told as new, where it is.
        var right = Assert.Single(changes, change => (string)change!["entry"]!["title"]! == "Typed wrongly")!;
        Assert.Equal(
            ("new", LocalDatePattern.Iso.Format(date.PlusDays(1))), ((string)right["change"]!, ((string)right["entry"]!["start"]!)[..10]));
    }

    [Fact]
    public async Task A_site_asks_how_to_embed_a_page_that_is_open_to_everyone()
    {
        var ada = await app.SignedInAsync();
        var made = await FamiliesAsync(ada, "Embedded");
        var page = (string)made["addresses"]!["page"]!;
        var asked = new Uri((string)made["addresses"]!["oEmbed"]!).PathAndQuery;
        Assert.Contains("application/json&#x2B;oembed".Replace("&#x2B;", "+", StringComparison.Ordinal),
            await app.Reader().Http.GetStringAsync(PathOf(made)), StringComparison.Ordinal);
        var answer = JsonNode.Parse(await app.Reader().Http.GetStringAsync($"{asked}&maxwidth=400"))!;
        Assert.Equal(("1.0", "rich", "Embedded", 400),
            ((string)answer["version"]!, (string)answer["type"]!, (string)answer["title"]!, (int)answer["width"]!));
        Assert.Contains($"src=\"{page}/embed\"", (string)answer["html"]!, StringComparison.Ordinal);
        Assert.Equal(HttpStatusCode.NotImplemented, (await app.Reader().Http.GetAsync($"{asked}&format=xml")).StatusCode);
        foreach (var wrong in new[] { "https://elsewhere.example/c/pinewick/embedded", "http://localhost/c/pinewick/rowing-club",
            "http://localhost/api/session", "nonsense" })
            Assert.Equal(
                HttpStatusCode.NotFound, (await app.Reader().Http.GetAsync($"/oembed?url={Uri.EscapeDataString(wrong)}")).StatusCode);
    }

    [Fact]
    public async Task Only_the_sites_that_an_edition_names_may_hold_it_in_a_frame()
    {
        var ada = await app.SignedInAsync();
        var draft = await DraftAsync(ada, "Named sites", "PW");
        draft["sites"] = new JsonArray("families.example", "*.families.example", "http://127.0.0.1:5081/page");
        var refused = await ada.SendAsync(HttpMethod.Post, "/api/editions", new { isOut = true, edition = draft });
        Assert.Equal(HttpStatusCode.BadRequest, refused.StatusCode);
        Assert.NotNull((await Caller.ReadAsync(refused))["errors"]!["sites[2]"]);
        draft["sites"] = new JsonArray("families.example", "*.families.example", "http://127.0.0.1:5081");
        var path = PathOf(await MakeAsync(ada, draft));
        var policy = (await app.Reader().Http.GetAsync($"{path}/embed")).Headers.GetValues("Content-Security-Policy").Single();
        Assert.Contains("frame-ancestors 'self' https://families.example https://*.families.example http://127.0.0.1:5081", policy,
            StringComparison.Ordinal);
    }

    [Fact]
    public async Task What_is_not_open_to_the_audience_is_named_before_it_is_saved_with_what_is_missing()
    {
        var ada = await app.SignedInAsync();
        var preview = await ada.DoAsync(HttpMethod.Post, "/api/editions/preview", new { edition = await DraftAsync(ada, "", "PW", "ROW") });
        var closed = Assert.Single(preview["closed"]!.AsArray())!;
        Assert.Equal(("ROW", true), ((string)closed["plate"]!, (bool)closed["mayOpen"]!));
        Assert.True((int)closed["entries"]! > 10 && (int)preview["entries"]! > 10);
        var page = await ada.Http.GetStringAsync((string)preview["path"]!);
        Assert.Contains("edition-data", page, StringComparison.Ordinal);
        Assert.Equal(HttpStatusCode.NotFound, (await (await app.SignedInAsync("bo")).Http.GetAsync((string)preview["path"]!)).StatusCode);
        Assert.Equal(HttpStatusCode.Unauthorized, (await app.Reader().Http.GetAsync((string)preview["path"]!)).StatusCode);
    }

    [Fact]
    public async Task An_edition_for_those_with_the_link_has_a_secret_address_that_can_be_replaced()
    {
        var ada = await app.SignedInAsync();
        var draft = await DraftAsync(ada, "With the link", "PW", "ROW");
        draft["audience"] = "link";
        var made = await MakeAsync(ada, draft);
        var path = PathOf(made);
        Assert.StartsWith("/s/", path, StringComparison.Ordinal);
        var page = await app.Reader().Http.GetAsync(path);
        Assert.Contains("noindex", page.Headers.GetValues("X-Robots-Tag").Single(), StringComparison.Ordinal);
        Assert.Contains("noindex", await page.Content.ReadAsStringAsync(), StringComparison.Ordinal);
        Assert.NotEmpty(EntriesOf(await PartAsync(path), "Ergometers"));
        Assert.Equal(HttpStatusCode.NotFound, (await app.Reader().Http.GetAsync("/c/pinewick/with-the-link")).StatusCode);
        await ada.DoAsync(HttpMethod.Post, $"/api/editions/{made["id"]}/link", new { });
        app.Clock.Advance(Duration.FromSeconds(2));
        Assert.Equal(HttpStatusCode.Gone, (await app.Reader().Http.GetAsync(path)).StatusCode);
    }

    [Fact]
    public async Task Who_publishes_none_of_its_calendars_composes_no_edition()
    {
        var ada = await app.SignedInAsync();
        var made = await FamiliesAsync(ada, "Not theirs");
        var di = await app.SignedInAsync("di");
        using var refused = await di.SendAsync(HttpMethod.Post, "/api/editions", new { isOut = true, edition = await DraftAsync(di, "Mine", "PW") });
        Assert.Equal(HttpStatusCode.Forbidden, refused.StatusCode);
        using var looked = await di.SendAsync(HttpMethod.Get, $"/api/editions/{made["id"]}", null);
        Assert.Equal(HttpStatusCode.Forbidden, looked.StatusCode);
        // Bo keeps Port Watch, and may join the whole school's dates, which everybody sees; the staff room she does not see.
        var bo = await app.SignedInAsync("bo");
        Assert.NotNull((await MakeAsync(bo, await DraftAsync(bo, "By Bo", "PW", "SCH")))["id"]);
        var staff = await DraftAsync(bo, "With staff", "PW");
        staff["sources"]!.AsArray().Add(new JsonObject { ["calendarId"] = await ada.CalendarAsync("STF") });
        using var hidden = await bo.SendAsync(HttpMethod.Post, "/api/editions", new { isOut = true, edition = staff });
        Assert.Equal(HttpStatusCode.BadRequest, hidden.StatusCode);
    }

    [Fact]
    public async Task Two_who_save_the_same_edition_do_not_overwrite_each_other_and_a_removed_one_comes_back()
    {
        var ada = await app.SignedInAsync();
        var made = await FamiliesAsync(ada, "Twice");
        var draft = await DraftAsync(ada, "Twice", "PW");
        await ada.DoAsync(HttpMethod.Put, $"/api/editions/{made["id"]}", new { edition = draft, version = 1 });
        using var second = await ada.SendAsync(HttpMethod.Put, $"/api/editions/{made["id"]}", new { edition = draft, version = 1 });
        Assert.Equal(HttpStatusCode.Conflict, second.StatusCode);
        await ada.SendAsync(HttpMethod.Delete, $"/api/editions/{made["id"]}", null);
        app.Clock.Advance(Duration.FromSeconds(2));
        Assert.Equal(HttpStatusCode.NotFound, (await app.Reader().Http.GetAsync(PathOf(made))).StatusCode);
        await ada.SendAsync(HttpMethod.Post, $"/api/editions/{made["id"]}/restore", new { });
        app.Clock.Advance(Duration.FromSeconds(2));
        Assert.Equal(HttpStatusCode.OK, (await app.Reader().Http.GetAsync(PathOf(made))).StatusCode);
    }

    [Theory]
    [InlineData("svg", "image/svg+xml")]
    [InlineData("png", "image/png")]
    public async Task A_code_for_posters_comes_in_two_kinds(string kind, string type)
    {
        var ada = await app.SignedInAsync();
        var made = await FamiliesAsync(ada, $"Code {kind}");
        using var code = await ada.Http.GetAsync($"/api/editions/{made["id"]}/code.{kind}?of=feed");
        Assert.Equal(type, code.Content.Headers.ContentType!.MediaType);
        Assert.True((await code.Content.ReadAsByteArrayAsync()).Length > 500);
    }

    [Fact]
    public async Task A_calendar_s_own_edition_can_look_different_and_stays_that_calendar_s()
    {
        var ada = await app.SignedInAsync();
        var standard = (await ada.GetAsync("/api/editions")).AsArray()
            .Single(edition => (bool)edition!["isStandard"]! && (string)edition["name"]! == "Whole school")!;
        var draft = await DraftAsync(ada, "Anything", "PW");
        draft["look"] = new JsonObject { ["view"] = "cards", ["palette"] = "quay" };
        await ada.DoAsync(HttpMethod.Put, $"/api/editions/{standard["id"]}", new { edition = draft, version = 1 });
        app.Clock.Advance(Duration.FromSeconds(2));
        var part = await PartAsync("/c/pinewick/whole-school");
        Assert.Equal(("Whole school", "cards", "SCH"),
            ((string)part["edition"]!["name"]!, (string)part["edition"]!["look"]!["view"]!,
                (string)part["edition"]!["sources"]![0]!["plate"]!));
    }
    [Fact]
    public async Task A_calendar_s_own_edition_can_take_some_of_its_events_only()
    {
        var ada = await app.SignedInAsync();
        var standard = (await ada.GetAsync("/api/editions")).AsArray()
            .Single(edition => (bool)edition!["isStandard"]! && (string)edition["name"]! == "Starboard Watch")!;
        var draft = await DraftAsync(ada, "Anything", "SW");
        draft["sources"]![0]!["filter"] = new JsonObject { ["mode"] = "only", ["text"] = "Marine" };
        var saved = await ada.DoAsync(HttpMethod.Put, $"/api/editions/{standard["id"]}",
            new { edition = draft, version = (await ada.GetAsync($"/api/editions/{standard["id"]}"))["version"] });
        Assert.Equal("Marine", (string?)saved["edition"]!["sources"]![0]!["filter"]?["text"]);
        app.Clock.Advance(Duration.FromSeconds(2));
        var titles =
            (await PartAsync("/c/pinewick/starboard-watch"))["entries"]!.AsArray().Select(entry => (string)entry!["title"]!).Distinct();
        Assert.Equal(["Marine science"], titles);
    }

    [Fact]
    public async Task What_its_readers_get_is_taken_along_as_a_file()
    {
        var ada = await app.SignedInAsync();
        var made = await ada.DoAsync(HttpMethod.Post, "/api/editions", new { isOut = true, edition = await DraftAsync(ada, "Taken along", "PW", "SW") });
        var id = (string)made["id"]!;
        var feed = await (await ada.SendAsync(HttpMethod.Get, $"/api/editions/{id}/file.ics")).Content.ReadAsStringAsync();
        Assert.StartsWith("BEGIN:VCALENDAR", feed, StringComparison.Ordinal);
        var table = await (await ada.SendAsync(HttpMethod.Get, $"/api/editions/{id}/file.csv")).Content.ReadAsStringAsync();
        Assert.Contains("Boat lab", table, StringComparison.Ordinal);
        Assert.Contains("Port Watch", table, StringComparison.Ordinal);
        var sheet = await (await ada.SendAsync(HttpMethod.Get, $"/api/editions/{id}/file.xlsx")).Content.ReadAsByteArrayAsync();
        Assert.Equal("PK"u8.ToArray(), sheet[..2]);
        // Nobody gets it who neither composes nor reads it.
        var em = await app.SignedInAsync("em");
        Assert.Equal(HttpStatusCode.Forbidden, (await em.SendAsync(HttpMethod.Get, $"/api/editions/{id}/file.csv")).StatusCode);
    }
}
