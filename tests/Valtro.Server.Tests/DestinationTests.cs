using System.Net;
using System.Text.Json.Nodes;

namespace Valtro.Server.Tests;

/// <summary>Which editions an event goes to, said while it is typed.</summary>
public sealed class DestinationTests(ValtroApp app) : IClassFixture<ValtroApp>
{
    private static async Task<JsonNode> AskAsync(Caller caller, JsonNode form, string? eventId = null) =>
        await caller.DoAsync(HttpMethod.Post, "/api/events/destinations", new { @event = form, eventId, recurrenceId = (string?)null });

    private static string[] NamesOf(JsonNode answer) => [.. answer["editions"]!.AsArray().Select(one => (string)one!["name"]!)];

    private static JsonNode Named(JsonNode answer, string name) =>
        answer["editions"]!.AsArray().Single(one => (string)one!["name"]! == name)!;

    private static async Task<JsonObject> FormAsync(Caller caller, string plate, string title = "Sail repair") =>
        Caller.Event(await caller.CalendarAsync(plate), title);

    [Fact]
    public async Task A_new_event_goes_to_its_calendar_s_edition_and_to_those_that_draw_on_it()
    {
        var ada = await app.SignedInAsync();
        var answer = await AskAsync(ada, await FormAsync(ada, "PW"));
        Assert.Equal(["Everything, for the staff", "Harbour almanac", "Juniors for families", "Next at school", "Port Watch"], NamesOf(answer));
        Assert.Equal(("everyone", "complete", "nothing"),
            ((string)Named(answer, "Next at school")["audience"]!, (string)Named(answer, "Next at school")["detail"]!,
                (string)Named(answer, "Next at school")["was"]!));
        Assert.False((bool)answer["whenItGoesOut"]!);
        Assert.Equal(0, (int)answer["unnamed"]!);
    }

    [Fact]
    public async Task Filters_windows_and_caps_of_an_edition_decide_as_they_do_when_it_is_delivered()
    {
        var ada = await app.SignedInAsync();
        Assert.DoesNotContain("Great days, with pictures", NamesOf(await AskAsync(ada, await FormAsync(ada, "CREW"))));
        Assert.Contains("Great days, with pictures", NamesOf(await AskAsync(ada, await FormAsync(ada, "CREW", "Radio exam"))));
        Assert.DoesNotContain("Great days, with pictures", NamesOf(await AskAsync(ada, await FormAsync(ada, "SCH", "Assembly"))));
        var past = await FormAsync(ada, "SCH", "Prize day");
        past["date"] = "2026-10-01";
        Assert.Equal(
            ["Crew families", "Everything, for the staff", "Harbour almanac", "Juniors for families", "Whole school"],
            NamesOf(await AskAsync(ada, past)));
        var capped = await FormAsync(ada, "SCH", "Prize day");
        capped["cap"] = new JsonObject { ["everyone"] = "times" };
        Assert.Equal("times", (string)Named(await AskAsync(ada, capped), "Whole school")["detail"]!);
        Assert.Equal("complete", (string)Named(await AskAsync(ada, capped), "Crew families")["detail"]!);
        Assert.Equal(
            "times", (string)Named(await AskAsync(ada, await FormAsync(ada, "SLIP")), "When slipway and hall are taken")["detail"]!);
    }

    private static string[] Besides(JsonNode answer, string name) =>
        [.. Named(answer, name)["besides"]!.AsArray().Select(one => (string)one!)];

    [Fact]
    public async Task What_only_some_editions_tell_is_said_at_each_and_a_reminder_that_nobody_gets()
    {
        var ada = await app.SignedInAsync();
        var form = await FormAsync(ada, "SCH", "Prize day");
        form["staffSpan"] = new JsonObject { ["before"] = 90, ["after"] = 60 };
        form["reminder"] = new JsonObject { ["amount"] = 1, ["unit"] = "days", ["at"] = "18:00:00" };
        var answer = await AskAsync(ada, form);
        Assert.Equal(["from set-up to clear-away"], Besides(answer, "Everything, for the staff"));
        Assert.Equal(["reminds: 1 day before, 18:00"], Besides(answer, "Crew families"));
        Assert.Empty(Besides(answer, "Whole school"));
        Assert.Empty(answer["remarks"]!.AsArray());

        // Where its readers see no more than the headline they are not told of the reminder either.
        form["cap"] = new JsonObject { ["link"] = "headline" };
        answer = await AskAsync(ada, form);
        Assert.Empty(Besides(answer, "Crew families"));
        Assert.StartsWith("No edition that has it reminds of it", (string)Assert.Single(answer["remarks"]!.AsArray())!, StringComparison.Ordinal);
        form["reminder"] = null;
        Assert.Empty((await AskAsync(ada, form))["remarks"]!.AsArray());
    }

    [Fact]
    public async Task A_draft_goes_there_when_it_goes_out()
    {
        var ada = await app.SignedInAsync();
        var draft = await FormAsync(ada, "PW");
        draft["isDraft"] = true;
        var answer = await AskAsync(ada, draft);
        Assert.True((bool)answer["whenItGoesOut"]!);
        Assert.Contains("Port Watch", NamesOf(answer));
    }

    [Theory]
    [InlineData("ada", true, "draft")]
    [InlineData("cy", false, "waiting for sign-off")]
    public async Task What_the_form_says_of_what_is_not_finished_is_what_members_get(string name, bool isDraft, string state)
    {
        var caller = await app.SignedInAsync(name);
        var title = $"Not out yet, {state}";
        var form = await FormAsync(caller, "ROW", title);
        form["isDraft"] = isDraft;
        async Task<string> SaidAsync() =>
            (string)(await caller.DoAsync(HttpMethod.Post, "/api/events/consequences",
                new { @event = form, eventId = (string?)null, recurrenceId = (string?)null }))["whoSees"]!.AsArray()
            .Single(one => (string)one!["audience"]! == "members")!["sentence"]!;
        var (ada, em) = (await app.SignedInAsync(), await app.SignedInAsync("em"));
        var staff =
            (await ada.GetAsync("/api/editions")).AsArray().Single(edition => (string)edition!["name"]! == "Everything, for the staff")!;
        var own = new Uri((string)(await em.DoAsync(HttpMethod.Post, $"/api/editions/{staff["id"]}/link", new { }))["page"]!).AbsolutePath;
        async Task<string> ReadAsync() => await em.Http.GetStringAsync($"{own}.json?month=2026-11");

        Assert.Contains($"{(state == "draft" ? "as a draft" : $"as {state}")}, in “Everything, for the staff”", await SaidAsync(),
            StringComparison.Ordinal);
        await caller.DoAsync(HttpMethod.Post, "/api/events", form);
        Assert.Contains(title, await ReadAsync(), StringComparison.Ordinal);

        // The edition shows it no more: then nobody but its editors gets it, and that is said.
        var shown = await ada.GetAsync($"/api/editions/{staff["id"]}");
        var settings = shown["edition"]!.DeepClone();
        settings["withUnfinished"] = false;
        var version = (int)(await ada.DoAsync(
            HttpMethod.Put, $"/api/editions/{staff["id"]}", new { edition = settings, version = (int)shown["version"]! }))["version"]!;
        Assert.DoesNotContain("Everything, for the staff", await SaidAsync(), StringComparison.Ordinal);
        Assert.StartsWith("nothing", await SaidAsync(), StringComparison.Ordinal);
        Assert.DoesNotContain(title, await ReadAsync(), StringComparison.Ordinal);
        await ada.DoAsync(HttpMethod.Put, $"/api/editions/{staff["id"]}", new { edition = shown["edition"], version });
    }

    [Fact]
    public async Task A_change_that_waits_for_sign_off_goes_there_when_it_is_approved()
    {
        var ada = await app.SignedInAsync();
        var added = await ada.DoAsync(HttpMethod.Post, "/api/events", await FormAsync(ada, "ROW"));
        var cy = await app.SignedInAsync("cy");
        Assert.True((bool)(await AskAsync(cy, await FormAsync(cy, "ROW"), (string)added["id"]!))["whenItGoesOut"]!);
        Assert.False((bool)(await AskAsync(ada, await FormAsync(ada, "ROW"), (string)added["id"]!))["whenItGoesOut"]!);
    }

    [Fact]
    public async Task Moved_to_another_calendar_it_leaves_some_and_comes_to_others()
    {
        var ada = await app.SignedInAsync();
        var added = await ada.DoAsync(HttpMethod.Post, "/api/events", await FormAsync(ada, "PW", "Inventory"));
        var answer = await AskAsync(ada, await FormAsync(ada, "SLIP", "Inventory"), (string)added["id"]!);
        Assert.Equal(("nothing", "complete"),
            ((string)Named(answer, "Juniors for families")["detail"]!, (string)Named(answer, "Juniors for families")["was"]!));
        Assert.Equal(("times", "nothing"),
            ((string)Named(answer, "When slipway and hall are taken")["detail"]!,
                (string)Named(answer, "When slipway and hall are taken")["was"]!));
        Assert.Equal(("complete", "complete"),
            ((string)Named(answer, "Everything, for the staff")["detail"]!, (string)Named(answer, "Everything, for the staff")["was"]!));
    }

    [Fact]
    public async Task What_is_behind_a_secret_address_is_named_only_to_those_who_keep_it()
    {
        var ada = await app.SignedInAsync();
        await ada.DoAsync(HttpMethod.Post, "/api/editions",
            new
            {
                isOut = true,
                edition = new
                {
                    name = "Rowers’ parents",
                    audience = "link",
                    sources = new[] { new { calendarId = await ada.CalendarAsync("ROW") } }
                }
            });
        Assert.Contains("Rowers’ parents", NamesOf(await AskAsync(ada, await FormAsync(ada, "ROW"))));
        var cy = await app.SignedInAsync("cy");
        var answer = await AskAsync(cy, await FormAsync(cy, "ROW"));
        Assert.DoesNotContain("Rowers’ parents", NamesOf(answer));
        Assert.Contains("Everything, for the staff", NamesOf(answer));
        Assert.True((bool)answer["whenItGoesOut"]!);
        Assert.Equal(1, (int)answer["unnamed"]!);
        Assert.All(answer["editions"]!.AsArray(), one => Assert.False((bool)one!["mayEdit"]!));
    }

    [Fact]
    public async Task Only_those_who_may_put_events_there_are_told_and_nonsense_is_refused_at_its_field()
    {
        var ada = await app.SignedInAsync();
        var di = await app.SignedInAsync("di");
        using var forbidden = await di.SendAsync(HttpMethod.Post, "/api/events/destinations",
            new { @event = await FormAsync(ada, "PW"), eventId = (string?)null, recurrenceId = (string?)null });
        Assert.Equal(HttpStatusCode.Forbidden, forbidden.StatusCode);
        var form = await FormAsync(ada, "PW");
        form["date"] = null;
        using var refused = await ada.SendAsync(
            HttpMethod.Post, "/api/events/destinations", new { @event = form, eventId = (string?)null, recurrenceId = (string?)null });
        Assert.Equal(HttpStatusCode.BadRequest, refused.StatusCode);
        Assert.NotNull((await Caller.ReadAsync(refused))["errors"]!["date"]);
    }
}
