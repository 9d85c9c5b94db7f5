using System.Net;
using System.Text.Json.Nodes;

namespace Valtro.Server.Tests;

/// <summary>Events kept as patterns, and what is usual on a calendar.</summary>
public sealed class TemplateTests(ValtroApp app) : IClassFixture<ValtroApp>
{
    private static async Task<JsonObject> FormAsync(Caller caller, string plate, string title)
    {
        var form = Caller.Event(await caller.CalendarAsync(plate), title, repeat: Caller.Weekly(3));
        (form["place"], form["from"], form["to"]) = ("Chart room", "18:00:00", "20:30:00");
        (form["notes"], form["contact"]) = ("Ask for the key", "office");
        form["reminder"] = new JsonObject { ["amount"] = 1, ["unit"] = "days", ["at"] = "18:00:00" };
        return form;
    }

    private static Task<HttpResponseMessage> KeepAsync(Caller caller, JsonObject form, string? name, bool isUsual = false) =>
        caller.SendAsync(HttpMethod.Post, "/api/templates", new { name, isUsual, @event = form });

    private static async Task<JsonNode[]> AllAsync(Caller caller, string name) =>
        [.. (await caller.GetAsync("/api/templates")).AsArray().Where(one => (string)one!["name"]! == name)!];

    [Fact]
    public async Task An_event_is_kept_with_all_that_it_says_but_its_days_and_readers()
    {
        var ada = await app.SignedInAsync();
        var form = await FormAsync(ada, "PW", "Parents’ evening");
        form["cap"] = new JsonObject { ["everyone"] = "times" };
        Assert.Equal(HttpStatusCode.OK, (await KeepAsync(ada, form, "Parents’ evening")).StatusCode);
        var kept = Assert.Single(await AllAsync(ada, "Parents’ evening"))["event"]!;
        Assert.Equal(("Chart room", "18:00:00", "20:30:00", "Ask for the key", 1),
            ((string)kept["place"]!, (string)kept["from"]!, (string)kept["to"]!, (string)kept["notes"]!,
                (int)kept["reminder"]!["amount"]!));
        Assert.Null(kept["repeat"]);
        Assert.Null(kept["cap"]?["everyone"]);
        // The same name on the same calendar is the same template.
        form["place"] = "Hall";
        await KeepAsync(ada, form, "PARENTS’ evening");
        Assert.Equal("Hall", (string)Assert.Single(await AllAsync(ada, "PARENTS’ evening"))["event"]!["place"]!);
        Assert.Empty(await AllAsync(ada, "Parents’ evening"));
    }

    [Fact]
    public async Task Only_those_who_make_events_there_know_of_it_and_only_editors_say_what_is_usual()
    {
        var ada = await app.SignedInAsync();
        await KeepAsync(ada, await FormAsync(ada, "PW", "Watch supper"), "Watch supper");
        Assert.Single(await AllAsync(await app.SignedInAsync("bo"), "Watch supper"));
        var di = await app.SignedInAsync("di");
        Assert.Empty((await di.GetAsync("/api/templates")).AsArray());
        Assert.Equal(HttpStatusCode.Forbidden, (await KeepAsync(di, await FormAsync(ada, "PW", "x"), "x")).StatusCode);
        Assert.Equal(HttpStatusCode.OK, (await KeepAsync(ada, await FormAsync(ada, "PW", "Lesson"), null, isUsual: true)).StatusCode);
        Assert.Equal(HttpStatusCode.OK, (await KeepAsync(ada, await FormAsync(ada, "PW", "Lab"), null, isUsual: true)).StatusCode);
        var usual = Assert.Single((await ada.GetAsync("/api/templates")).AsArray(), one => (bool)one!["isUsual"]!)!;
        Assert.Equal(HttpStatusCode.NotFound, (await di.SendAsync(HttpMethod.Delete, $"/api/templates/{usual["id"]}")).StatusCode);
        Assert.Equal(HttpStatusCode.NoContent, (await ada.SendAsync(HttpMethod.Delete, $"/api/templates/{usual["id"]}")).StatusCode);
        Assert.DoesNotContain((await ada.GetAsync("/api/templates")).AsArray(), one => (bool)one!["isUsual"]!);
    }

    [Fact]
    public async Task What_it_names_may_be_gone_by_now()
    {
        var ada = await app.SignedInAsync();
        var category = (string)(await ada.DoAsync(HttpMethod.Post, "/api/lists/categories", new { name = "Suppers", colour = "plum" }))["id"]!;
        var form = await FormAsync(ada, "PW", "Supper");
        form["categoryId"] = category;
        await KeepAsync(ada, form, "Supper");
        Assert.Equal(category, (string)Assert.Single(await AllAsync(ada, "Supper"))["event"]!["categoryId"]!);
        await app.Test.Database.ExecuteAsync("delete from category where id = @id", new { id = Guid.Parse(category) });
        Assert.Null(Assert.Single(await AllAsync(ada, "Supper"))["event"]!["categoryId"]);
    }

    [Theory]
    [InlineData("", "name")]
    [InlineData(null, "name")]
    public async Task One_without_a_name_is_refused_by_its_field(string? name, string field)
    {
        var ada = await app.SignedInAsync();
        var refused = await Caller.ReadAsync(await KeepAsync(ada, await FormAsync(ada, "PW", "x"), name));
        Assert.NotNull(refused["errors"]![field]);
    }

    [Fact]
    public async Task What_is_usual_on_a_calendar_fills_lines_and_tables_where_they_say_nothing()
    {
        var ada = await app.SignedInAsync();
        var form = await FormAsync(ada, "SLIP", "Slipway");
        form["place"] = "Slipway";
        Assert.Equal(HttpStatusCode.OK, (await KeepAsync(ada, form, null, isUsual: true)).StatusCode);
        var line = await ada.DoAsync(HttpMethod.Post, "/api/events/line", new { text = "Hull survey 4 Dec 10-11 @SLIP" });
        Assert.Equal(("Slipway", "18:00:00"),
            ((string)line["events"]![0]!["place"]!, (string)line["events"]![0]!["reminder"]!["at"]!));
        var other = await ada.DoAsync(HttpMethod.Post, "/api/events/line", new { text = "Hull survey 4 Dec 10-11 in Hall @SLIP" });
        Assert.Equal("Hall", (string)other["events"]![0]!["place"]!);

        object Row(string title, string place) => new { date = "2026-12-05", from = "9:00", to = "10:00", title, place, calendar = "SLIP" };
        await ada.DoAsync(HttpMethod.Post, "/api/events/several",
            new { rows = new[] { Row("Keel survey", ""), Row("Mast survey", "Loft") }, calendarId = await ada.CalendarAsync("SLIP") });
        var saved = (await ada.GetAsync("/api/occurrences?from=2026-12-05&to=2026-12-06")).AsArray()
            .Where(one => ((string)one!["title"]!).EndsWith(" survey", StringComparison.Ordinal))
            .ToDictionary(one => (string)one!["title"]!, one => (string)one!["place"]!);
        Assert.Equal(("Slipway", "Loft"), (saved["Keel survey"], saved["Mast survey"]));
    }
}
