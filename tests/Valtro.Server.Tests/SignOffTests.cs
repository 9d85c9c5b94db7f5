using System.Net;
using System.Text.Json.Nodes;

namespace Valtro.Server.Tests;

/// <summary>What contributors hand in, from the form to the feed and back.</summary>
public sealed class SignOffTests(ValtroApp app) : IClassFixture<ValtroApp>
{
    /// <summary>A calendar of its own, open to everyone, with Cy as contributor and Bo as editor.</summary>
    private async Task<(Caller Ada, Caller Bo, Caller Cy, string Calendar, string Slug)> SettingAsync(string plate)
    {
        var ada = await app.SignedInAsync();
        var calendar = await ada.DoAsync(HttpMethod.Post, "/api/calendars", new
        {
            name = $"Signed {plate}",
            plate,
            colour = "kelp",
            zone = "America/Halifax",
            description = "",
            disclosure = new { members = "complete", link = "complete", everyone = "complete" },
        });
        var id = Guid.Parse((string)calendar["id"]!);
        foreach (var (name, role) in new[] { ("cy", "contributor"), ("bo", "editor") })
            await app.Test.Database.ExecuteAsync(
                "insert into calendar_role (organisation_id, calendar_id, account_id, role) select c.organisation_id, c.id, a.id, @role from calendar c, account a where c.id = @id and a.email like @name",
                new { id, role, name = $"{name}@%" });
        return (ada, await app.SignedInAsync("bo"), await app.SignedInAsync("cy"), $"{id}", $"signed-{plate.ToLowerInvariant()}");
    }

    private async Task<string> FeedAsync(string slug)
    {
        app.Clock.Advance(NodaTime.Duration.FromSeconds(2));
        return (await app.Reader().Http.GetStringAsync($"/c/pinewick/{slug}.ics")).Replace("\r\n ", "", StringComparison.Ordinal);
    }

    private static async Task<JsonNode> WaitingAsync(Caller caller, string title) =>
        (await caller.GetAsync("/api/sign-off"))["toDecide"]!.AsArray().Single(one => (string)one!["title"]! == title)!;

    private static async Task<JsonNode> MineAsync(Caller caller, string title) =>
        (await caller.GetAsync("/api/sign-off"))["yours"]!.AsArray().First(one => (string)one!["title"]! == title)!;

    private static Task<JsonNode> ApproveAsync(Caller caller, params JsonNode[] submissions) =>
        caller.DoAsync(HttpMethod.Post, "/api/sign-off/approve", new
        {
            items = submissions.Select(one => new { id = (string)one["id"]!, version = (int?)one["version"] ?? 0 }),
        });

    [Fact]
    public async Task A_contributor_s_new_event_waits_and_goes_out_when_an_editor_lets_it()
    {
        var (_, bo, cy, calendar, slug) = await SettingAsync("S1");
        var made = await cy.DoAsync(HttpMethod.Post, "/api/events", Caller.Event(calendar, "Seat trial"));
        Assert.Equal(("waiting", true), ((string)made["state"]!, (bool)made["mayEdit"]!));
        Assert.DoesNotContain("Seat trial", await FeedAsync(slug), StringComparison.Ordinal);
        var di = await app.SignedInAsync("di");
        Assert.Equal(HttpStatusCode.NotFound, (await di.Http.GetAsync($"/api/events/{made["id"]}")).StatusCode);
        var waiting = await WaitingAsync(bo, "Seat trial");
        Assert.Equal(
            ("event", "Cy Marchbank", true), ((string)waiting["kind"]!, (string)waiting["proposer"]!, (bool)waiting["mayDecide"]!));
        Assert.Null((string?)(await ApproveAsync(bo, waiting))[0]!["problem"]);
        Assert.Contains("Seat trial", await FeedAsync(slug), StringComparison.Ordinal);
        var mine = await MineAsync(cy, "Seat trial");
        Assert.Equal(("approved", "Bo Quilliam"), ((string)mine["state"]!, (string)mine["decidedBy"]!));
        Assert.DoesNotContain((await ApproveAsync(bo, waiting)).AsArray(), one => one!["problem"] is null);
    }

    [Fact]
    public async Task A_contributor_approves_nothing_not_even_their_own()
    {
        var (_, bo, cy, calendar, slug) = await SettingAsync("S2");
        var made = await cy.DoAsync(HttpMethod.Post, "/api/events", Caller.Event(calendar, "Own seat"));
        var waiting = await WaitingAsync(bo, "Own seat");
        var items = new { items = new[] { new { id = (string)waiting["id"]!, version = 1 } } };
        Assert.Equal(HttpStatusCode.Forbidden, (await cy.SendAsync(HttpMethod.Post, "/api/sign-off/approve", items)).StatusCode);
        Assert.Equal(HttpStatusCode.NotFound,
            (await (await app.SignedInAsync("di")).SendAsync(HttpMethod.Post, "/api/sign-off/approve", items)).StatusCode);
        Assert.Equal(HttpStatusCode.Forbidden,
            (await cy.SendAsync(HttpMethod.Post, $"/api/sign-off/{waiting["id"]}/send-back", new { reason = "x" })).StatusCode);
        var form = Caller.Event(calendar, "Own seat");
        form["isDraft"] = false;
        await cy.ChangeAsync(made, "edit", form);
        Assert.DoesNotContain("Own seat", await FeedAsync(slug), StringComparison.Ordinal);
        Assert.Equal(0, (int)(await cy.GetAsync("/api/sign-off/count"))["toDecide"]!);
    }

    [Fact]
    public async Task A_change_waits_while_the_live_version_stays_and_what_others_changed_meanwhile_stays_too()
    {
        var (ada, bo, cy, calendar, slug) = await SettingAsync("S3");
        var live = await ada.DoAsync(HttpMethod.Post, "/api/events", Caller.Event(calendar, "Regatta meeting", repeat: Caller.Weekly(3)));
        var proposed = Caller.Event(calendar, "Regatta meeting", repeat: Caller.Weekly(3));
        proposed["place"] = "Boathouse";
        var handedIn = await cy.ChangeAsync(live, "edit", proposed);
        Assert.True((bool)handedIn["waits"]!);
        Assert.Equal("Loft", (string)(await ada.GetAsync($"/api/events/{live["id"]}"))["place"]!);
        Assert.True((bool)(await cy.GetAsync($"/api/events/{live["id"]}"))["waits"]!);

        var renamed = Caller.Event(calendar, "Regatta council", repeat: Caller.Weekly(3));
        await ada.ChangeAsync(live, "edit", renamed);
        var waiting = await WaitingAsync(bo, "Regatta meeting");
        var difference = Assert.Single(waiting["differences"]!.AsArray());
        Assert.Equal(
            ("place", "Loft", "Boathouse"), ((string)difference!["field"]!, (string)difference["was"]!, (string)difference["is"]!));
        Assert.Null((string?)(await ApproveAsync(bo, waiting))[0]!["problem"]);
        var feed = await FeedAsync(slug);
        Assert.Contains("SUMMARY:Regatta council", feed, StringComparison.Ordinal);
        Assert.Contains("LOCATION:Boathouse", feed, StringComparison.Ordinal);
    }

    [Fact]
    public async Task What_the_approver_did_not_see_is_not_approved()
    {
        var (ada, bo, cy, calendar, _) = await SettingAsync("S4");
        var live = await ada.DoAsync(HttpMethod.Post, "/api/events", Caller.Event(calendar, "Tide talk"));
        await cy.ChangeAsync(live, "edit", Caller.Event(calendar, "Tide talk, longer", to: "16:00:00"));
        var waiting = await WaitingAsync(bo, "Tide talk");
        await ada.ChangeAsync(live, "edit", Caller.Event(calendar, "Tide lecture"));
        Assert.Contains("meanwhile", (string)(await ApproveAsync(bo, waiting))[0]!["problem"]!, StringComparison.Ordinal);
        Assert.Equal("Tide lecture", (string)(await ada.GetAsync($"/api/events/{live["id"]}"))["title"]!);
    }

    [Fact]
    public async Task Sent_back_with_a_reason_it_is_a_draft_again_and_can_be_handed_in_anew()
    {
        var (_, bo, cy, calendar, slug) = await SettingAsync("S5");
        var made = await cy.DoAsync(HttpMethod.Post, "/api/events", Caller.Event(calendar, "Night row"));
        var waiting = await WaitingAsync(bo, "Night row");
        var without = await bo.SendAsync(HttpMethod.Post, $"/api/sign-off/{waiting["id"]}/send-back", new { reason = "  " });
        Assert.NotNull((await Caller.ReadAsync(without))["errors"]!["reason"]);
        (await bo.SendAsync(HttpMethod.Post, $"/api/sign-off/{waiting["id"]}/send-back", new { reason = "Who is the safety boat?" }))
            .EnsureSuccessStatusCode();
        var back = await cy.GetAsync($"/api/events/{made["id"]}");
        Assert.Equal(("draft", "Who is the safety boat?"), ((string)back["state"]!, (string)back["about"]![0]!["reason"]!));
        await cy.ChangeAsync(back, "edit", Caller.Event(calendar, "Night row with Bo"));
        Assert.Equal("Night row with Bo", (string)(await WaitingAsync(bo, "Night row with Bo"))["title"]!);
        Assert.DoesNotContain("Night row", await FeedAsync(slug), StringComparison.Ordinal);
    }

    [Fact]
    public async Task An_editor_changes_what_was_handed_in_and_that_approves_it()
    {
        var (ada, bo, cy, calendar, slug) = await SettingAsync("S6");
        var live = await ada.DoAsync(HttpMethod.Post, "/api/events", Caller.Event(calendar, "Rigging"));
        var proposed = Caller.Event(calendar, "Rigging");
        proposed["place"] = "Shed";
        await cy.ChangeAsync(live, "edit", proposed);
        var waiting = await WaitingAsync(bo, "Rigging");
        var proposal = await bo.GetAsync($"/api/sign-off/{waiting["id"]}");
        var form = proposal["event"]!.AsObject();
        Assert.Equal("Shed", (string)form["place"]!);
        form["place"] = "Old shed";
        var response = await bo.DoAsync(HttpMethod.Post, $"/api/events/{live["id"]}/changes", new
        {
            act = "edit",
            recurrenceId = (string)proposal["recurrenceId"]!,
            version = 1,
            @event = form,
            scope = "every",
            submissionId = (string)waiting["id"]!,
        });
        Assert.False((bool)response["waits"]!);
        Assert.Contains("LOCATION:Old shed", await FeedAsync(slug), StringComparison.Ordinal);
        Assert.Equal("approved", (string)(await MineAsync(cy, "Rigging"))["state"]!);
    }

    [Fact]
    public async Task Several_are_approved_at_once_and_one_that_cannot_be_keeps_none_of_the_others()
    {
        var (ada, bo, cy, calendar, slug) = await SettingAsync("S7");
        var series = await ada.DoAsync(HttpMethod.Post, "/api/events", Caller.Event(calendar, "Lost date", repeat: Caller.Weekly(3)));
        await cy.TryChangeAsync(
            series, "edit", move: new { date = "2026-12-03", from = (string?)null }, scope: "this", date: "2026-12-02T14:00:00");
        await ada.ChangeAsync(series, "remove", scope: "this", date: "2026-12-02T14:00:00");
        await cy.DoAsync(HttpMethod.Post, "/api/events", Caller.Event(calendar, "First of many"));
        await cy.DoAsync(HttpMethod.Post, "/api/events", Caller.Event(calendar, "Second of many"));
        var all = new[] { await WaitingAsync(bo, "First of many"), await WaitingAsync(bo, "Lost date"),
            await WaitingAsync(bo, "Second of many") };
        Assert.NotNull((string?)all[1]["problem"]);
        var outcomes = (await ApproveAsync(bo, all)).AsArray();
        Assert.Equal([true, false, true], outcomes.Select(one => one!["problem"] is null));
        var feed = await FeedAsync(slug);
        Assert.Contains("First of many", feed, StringComparison.Ordinal);
        Assert.Contains("Second of many", feed, StringComparison.Ordinal);
    }

    [Fact]
    public async Task Cancelling_and_removing_a_live_event_wait_too_and_what_is_handed_in_can_be_withdrawn()
    {
        var (ada, bo, cy, calendar, slug) = await SettingAsync("S8");
        var live = await ada.DoAsync(HttpMethod.Post, "/api/events", Caller.Event(calendar, "Boat wash"));
        Assert.True((bool)(await cy.ChangeAsync(live, "cancel"))["waits"]!);
        Assert.Contains("STATUS:CONFIRMED", await FeedAsync(slug), StringComparison.Ordinal);
        var mine = await MineAsync(cy, "Boat wash");
        Assert.Equal(HttpStatusCode.Forbidden, (await bo.SendAsync(HttpMethod.Post, $"/api/sign-off/{mine["id"]}/withdraw")).StatusCode);
        (await cy.SendAsync(HttpMethod.Post, $"/api/sign-off/{mine["id"]}/withdraw")).EnsureSuccessStatusCode();
        Assert.Equal(HttpStatusCode.Conflict, (await cy.SendAsync(HttpMethod.Post, $"/api/sign-off/{mine["id"]}/withdraw")).StatusCode);
        await cy.ChangeAsync(live, "remove");
        await ApproveAsync(bo, await WaitingAsync(bo, "Boat wash"));
        Assert.DoesNotContain("Boat wash", await FeedAsync(slug), StringComparison.Ordinal);
    }

    [Fact]
    public async Task Where_no_sign_off_is_needed_a_contributor_s_events_go_out_at_once()
    {
        var (ada, _, cy, calendar, slug) = await SettingAsync("S9");
        var stored = await ada.GetAsync($"/api/calendars/{calendar}");
        var settings = stored.AsObject();
        settings["requiresSignOff"] = false;
        await ada.DoAsync(HttpMethod.Put, $"/api/calendars/{calendar}", settings);
        Assert.Equal("live", (string)(await cy.DoAsync(HttpMethod.Post, "/api/events", Caller.Event(calendar, "At once")))["state"]!);
        Assert.Contains("At once", await FeedAsync(slug), StringComparison.Ordinal);
        Assert.False((bool)(await cy.GetAsync($"/api/calendars/{calendar}"))["mayPublish"]!);
    }

    [Fact]
    public async Task A_draft_is_handed_in_when_its_maker_says_so_and_another_contributor_does_not_touch_it()
    {
        var (_, bo, cy, calendar, _) = await SettingAsync("SA");
        var form = Caller.Event(calendar, "Half a plan");
        form["isDraft"] = true;
        var draft = await cy.DoAsync(HttpMethod.Post, "/api/events", form);
        Assert.Equal("draft", (string)draft["state"]!);
        Assert.DoesNotContain((await bo.GetAsync("/api/sign-off"))["toDecide"]!.AsArray(), one => (string)one!["title"]! == "Half a plan");
        form["isDraft"] = false;
        Assert.True((bool)(await cy.ChangeAsync(draft, "edit", form))["waits"]!);
        var waiting = await cy.GetAsync($"/api/events/{draft["id"]}");
        Assert.Equal(HttpStatusCode.BadRequest, (await cy.TryChangeAsync(waiting, "cancel")).StatusCode);
        await cy.ChangeAsync(waiting, "remove");
        Assert.Equal("withdrawn", (string)(await MineAsync(cy, "Half a plan"))["state"]!);
        Assert.Contains((await cy.GetAsync("/api/bin")).AsArray(), one => (string)one!["title"]! == "Half a plan");
    }

    [Fact]
    public async Task What_has_gone_out_does_not_become_a_draft_again()
    {
        var (ada, _, _, calendar, _) = await SettingAsync("SB");
        var live = await ada.DoAsync(HttpMethod.Post, "/api/events", Caller.Event(calendar, "Out"));
        var form = Caller.Event(calendar, "Out");
        form["isDraft"] = true;
        var refused = await ada.TryChangeAsync(live, "edit", form);
        Assert.Equal(HttpStatusCode.BadRequest, refused.StatusCode);
        Assert.NotNull((await Caller.ReadAsync(refused))["errors"]!["isDraft"]);
    }

    [Fact]
    public async Task Editors_and_proposers_hear_of_it_in_one_mail_each()
    {
        var (_, bo, cy, calendar, _) = await SettingAsync("SC");
        await cy.DoAsync(HttpMethod.Post, "/api/events", Caller.Event(calendar, "News one"));
        await cy.DoAsync(HttpMethod.Post, "/api/events", Caller.Event(calendar, "News two"));
        await ApproveAsync(bo, await WaitingAsync(bo, "News one"));
        (await bo.SendAsync(
            HttpMethod.Post, $"/api/sign-off/{(await WaitingAsync(bo, "News two"))["id"]}/send-back", new { reason = "Too late" }))
            .EnsureSuccessStatusCode();
        var news = await app.Test.Database.ListAsync<string>("""
            select a.email || ': ' || (n.sentence::json ->> 'code') || concat_ws(', ', ' ' || (n.sentence::json -> 'values' ->> 'who'),
                n.sentence::json -> 'values' ->> 'title', n.sentence::json -> 'values' ->> 'where',
                    nullif(n.sentence::json -> 'values' ->> 'reason', ''))
            from notice n
            join account a on a.id = n.account_id
            where n.sentence like '%"News %'
            order by n.id
            """);
        Assert.Equal(
            [
                "bo@pinewick.example: news.handsIn Cy Marchbank, News one, Signed SC",
                "bo@pinewick.example: news.handsIn Cy Marchbank, News two, Signed SC",
                "cy@pinewick.example: news.letGoOut Bo Quilliam, News one, Signed SC",
                "cy@pinewick.example: news.sentBack Bo Quilliam, News two, Signed SC, Too late",
            ], news);
    }

    [Fact]
    public async Task Of_many_that_are_handed_in_at_once_somebody_hears_in_one_sentence()
    {
        Assert.Equal(["news.handsIn", "news.handsIn", "news.handsIn"], await NewsOfAsync("SD", 3));
        Assert.Equal(["news.handsInMany"], await NewsOfAsync("SE", 4));

        async Task<IReadOnlyList<string>> NewsOfAsync(string plate, int count)
        {
            var (_, _, cy, calendar, _) = await SettingAsync(plate);
            await cy.DoAsync(HttpMethod.Post, "/api/events/together", new
            {
                events = Enumerable.Range(1, count).Select(number => Caller.Event(calendar, $"{plate} {number}")),
            });
            return await app.Test.Database.ListAsync<string>(
                """
                select n.sentence::json ->> 'code' from notice n join account a on a.id = n.account_id
                where a.email like 'bo@%' and (n.sentence like @titled or n.sentence like '%handsInMany%') order by n.id
                """, new { titled = $"%\"{plate} %" });
        }
    }
}
