using System.Net;
using System.Text;
using System.Text.Json.Nodes;
using Microsoft.AspNetCore.Builder;
using Microsoft.AspNetCore.Http;
using NodaTime;

namespace Valtro.Server.Tests;

/// <summary>Addresses that are followed: looked at, landed by rules, asked again, held back, left.</summary>
public sealed class SourceTests(ValtroApp app) : IClassFixture<ValtroApp>, IAsyncLifetime
{
    private readonly List<(string Uid, string Title, string Start, string More)> _entries = [];
    private WebApplication _server = null!;
    private string _address = "";
    private int _asked;
    private int _unchanged;

    /// <summary>What it does in place of answering; null for answering.</summary>
    private Func<HttpRequest, IResult?> _instead = _ => null;

    public async Task InitializeAsync()
    {
        (_server, _address) = await Served.ByAsync(server => server.MapGet("/feeds/{name}", (HttpRequest request, HttpResponse response) =>
        {
            Interlocked.Increment(ref _asked);
            if (_instead(request) is { } other)
                return other;
            var text = Calendar();
            var tag = $"\"{text.GetHashCode(StringComparison.Ordinal):x}\"";
            response.Headers.ETag = tag;
            if (request.Headers.IfNoneMatch != tag)
                return Results.Text(text, "text/calendar");
            Interlocked.Increment(ref _unchanged);
            return Results.StatusCode(304);
        }));
    }

    public async Task DisposeAsync() => await _server.DisposeAsync();

    private string Calendar() => $"""
        BEGIN:VCALENDAR
        VERSION:2.0
        X-WR-CALNAME:Due dates
        {string.Join('\n', _entries.Select(one => $"BEGIN:VEVENT\nUID:{one.Uid}\nSUMMARY:{one.Title}\nDTSTART:{one.Start}\n{one.More}END:VEVENT"))}
        END:VCALENDAR
        """;

    private void Say(string uid, string title, string start = "20261204T180000Z", string more = "")
    {
        _entries.RemoveAll(one => one.Uid == uid);
        _entries.Add((uid, title, start, more));
    }

    private object Address(string name = "due.ics") => new
    {
        address = $"{_address}/feeds/{name}",
        user = (string?)null,
        password = (string?)null,
        headerName = (string?)null,
        headerValue = (string?)null,
    };

    private static object On(string calendar, string @as = "asItCame") => new { to = "calendar", calendarId = calendar, @as };

    private static object Rule(string by, string[] words, object landing, bool withoutWord = false) =>
        new { by, words, landing, withoutWord };

    private async Task<string> FollowedAsync(Caller caller, object rules, object? own = null, object? address = null)
    {
        var made = await caller.DoAsync(HttpMethod.Post, "/api/sources", new
        {
            source = new { address = address ?? Address(), name = "Due dates", everyMinutes = 120, rules },
            own,
        });
        return (string)made["id"]!;
    }

    /// <summary>As it is when nothing is being done with it.</summary>
    private async Task<JsonNode> SettledAsync(Caller caller, string id)
    {
        JsonNode? now = null;
        await ValtroApp.EventuallyAsync(
            async () => !(bool)(now = await caller.GetAsync($"/api/sources/{id}"))["isBusy"]!, "a source is asked");
        return now!;
    }

    private async Task<JsonNode> FetchedAsync(Caller caller, string id)
    {
        app.Advance(Duration.FromSeconds(1));
        await caller.SaidAsync(HttpMethod.Post, $"/api/sources/{id}/fetch");
        return await SettledAsync(caller, id);
    }

    private static async Task<JsonNode> PreviewAsync(Caller caller, string id, object? rules = null) =>
        await caller.DoAsync(HttpMethod.Post, $"/api/sources/{id}/preview", new { rules });

    private static async Task<string[]> TitlesAsync(Caller caller, string calendar) =>
        [.. (await caller.GetAsync($"/api/occurrences?from=2026-11-01&to=2027-02-01&calendar={calendar}")).AsArray()
            .Select(one => (string)one!["title"]!).Order(StringComparer.Ordinal)];

    private static async Task<JsonNode> EventAsync(Caller caller, string calendar, string title) => await caller.GetAsync(
        $"/api/events/{(await caller.GetAsync($"/api/occurrences?from=2026-11-01&to=2027-02-01&calendar={calendar}")).AsArray()
            .First(one => (string)one!["title"]! == title)!["eventId"]}");

    private static async Task<string> RefusedAsync(Caller caller, HttpMethod method, string path, object body)
    {
        var answer = await caller.SendAsync(method, path, body);
        Assert.Equal(HttpStatusCode.BadRequest, answer.StatusCode);
        return string.Join(", ", (await Caller.ReadAsync(answer))["errors"]!.AsObject().Select(error => error.Key));
    }

    /// <summary>Of how much of it somebody is told by mail.</summary>
    private Task<int> NewsAsync(string id) => app.Test.Database.FirstAsync<int>(
        "select count(*)::integer from notice where path = @path", new { path = $"/intake/sources/{id}" });

    [Fact]
    public async Task It_is_looked_at_before_it_is_followed()
    {
        var ada = await app.SignedInAsync();
        Say("a", "7B – Log");
        Say("b", "7B – Test", "20261211");
        Say("c", "7C – Log");
        Say("d", "7C – Log 2", "20261218T100000", "CATEGORIES:Meeting\n");
        var look = await ada.DoAsync(HttpMethod.Post, "/api/sources/look", Address());
        Assert.Equal(("Due dates", 4, "2026-12-04", "2026-12-18"),
            ((string)look["name"]!, (int)look["count"]!, (string)look["first"]!, (string)look["last"]!));
        Assert.Equal(["7B 2", "7C 2"], look["beginnings"]!.AsArray().Select(one => $"{one!["word"]} {one["count"]}"));
        Assert.Equal("7B – Log", (string)look["entries"]![0]!["title"]!);
        foreach (var (typed, field) in new[] { ("https://10.0.0.1/a.ics", "address"), ("nonsense", "address"), ("", "address") })
            Assert.Equal(field, await RefusedAsync(ada, HttpMethod.Post, "/api/sources/look", new
            {
                address = typed,
                user = (string?)null,
                password = (string?)null,
                headerName = (string?)null,
                headerValue = (string?)null,
            }));
        foreach (var rubbish in new[] { "<html>Sign in", "42", "" })
        {
            _instead = _ => Results.Text(rubbish);
            Assert.Equal("address", await RefusedAsync(ada, HttpMethod.Post, "/api/sources/look", Address()));
        }
        var di = await app.SignedInAsync("di");
        Assert.Equal(HttpStatusCode.Forbidden, (await di.SendAsync(HttpMethod.Post, "/api/sources/look", Address())).StatusCode);
    }

    [Fact]
    public async Task One_feed_of_all_classes_is_split_and_what_asks_waits_for_a_word()
    {
        var ada = await app.SignedInAsync();
        var (port, starboard) = (await ada.MakeCalendarAsync("SP1", link: "complete", everyone: "complete"),
            await ada.MakeCalendarAsync("SP2", link: "complete", everyone: "complete"));
        Say("a", "7B – Log");
        Say("c", "7C – Log");
        Say("d", "7D – Log");
        Say("m", "Team meeting", more: "CATEGORIES:Meeting\n");
        Say("k", "Field kit check");
        var id = await FollowedAsync(ada, new
        {
            rules = new[]
            {
                Rule("titleBegins", ["7B"], On(port, "deadline"), true),
                Rule("titleBegins", ["7C", "7D"], On(starboard, "deadline"), true),
                Rule("category", ["Meeting"], new { to = "leaveOut" }),
            },
        });
        Assert.Equal("right", (string)(await SettledAsync(ada, id))["health"]!);
        Assert.Equal(["Log"], await TitlesAsync(ada, port));
        Assert.Equal(["Log"], await TitlesAsync(ada, starboard));
        Assert.Equal("deadline", (string)(await EventAsync(ada, port, "Log"))["kind"]!);
        var preview = await PreviewAsync(ada, id);
        Assert.Equal(["Field kit check asks", "7B – Log taken", "7C – Log taken", "7D – Log also", "Team meeting leftOut"],
            preview["entries"]!.AsArray().Select(one => $"{one!["came"]} {one["state"]}"));
        // Nothing is public before somebody says so, though both calendars are open.
        Assert.Equal((2, 0), ((int)preview["seen"]!["members"]!, (int)preview["seen"]!["everyone"]!));

        await ada.SaidAsync(HttpMethod.Put, $"/api/sources/{id}/entries", new { uid = "k", landing = On(port) });
        await SettledAsync(ada, id);
        Assert.Equal(["Field kit check", "Log"], await TitlesAsync(ada, port));
        // Other rules are looked at before they are saved, and applied without asking the address.
        var asked = _asked;
        var rules = new { @else = new { to = "leaveOut" }, isOpen = true, rules = new[] { Rule("titleBegins", ["7D"], On(port), true) } };
        var other = await PreviewAsync(ada, id, rules);
        Assert.Equal("0 2 1", $"{other["made"]} {other["changed"]} {other["removed"]}");
        await ada.SaidAsync(HttpMethod.Put, $"/api/sources/{id}", new
        {
            version = (int)(await ada.GetAsync($"/api/sources/{id}"))["version"]!,
            name = "Due",
            everyMinutes = 60,
            rules,
            address = (object?)null,
        });
        var settled = await SettledAsync(ada, id);
        Assert.Equal(("Due", asked), ((string)settled["name"]!, _asked));
        Assert.Equal(["Field kit check", "Log"], await TitlesAsync(ada, port));
        Assert.Empty(await TitlesAsync(ada, starboard));
        Assert.Equal(2, (int)(await PreviewAsync(ada, id))["seen"]!["everyone"]!);
    }

    [Fact]
    public async Task What_is_its_sources_is_not_changed_here_but_hidden_annotated_and_taken_over_and_none_of_it_is_lost()
    {
        var ada = await app.SignedInAsync();
        var calendar = await ada.MakeCalendarAsync("AN1", link: "complete", everyone: "complete");
        foreach (var (uid, title) in new[] { ("a", "Race"), ("b", "Regatta"), ("c", "Gala"), ("d", "Trial"), ("e", "Row") })
            Say(uid, title);
        var id = await FollowedAsync(ada, new { @else = On(calendar), isOpen = true });
        await SettledAsync(ada, id);
        var race = await EventAsync(ada, calendar, "Race");
        Assert.True((bool)race["isFollowed"]!);
        JsonObject Change(JsonNode one, Action<JsonObject> change)
        {
            var form = JsonNode.Parse(one.ToJsonString())!.AsObject();
            change(form);
            return new JsonObject
            {
                ["version"] = (int)one["version"]!,
                ["recurrenceId"] = (string)one["recurrenceId"]!,
                ["act"] = "edit",
                ["scope"] = "every",
                ["event"] = form,
            };
        }
        var path = $"/api/events/{race["id"]}/changes";
        Assert.Equal("title", await RefusedAsync(ada, HttpMethod.Post, path, Change(race, form => form["title"] = "Mine")));
        await ada.DoAsync(HttpMethod.Post, path, Change(race, form =>
        {
            form["notes"] = "bring oars";
            form["place"] = "Our boathouse";
        }));
        // Hidden, taken over.
        var regatta = await EventAsync(ada, calendar, "Regatta");
        await ada.DoAsync(HttpMethod.Post, $"/api/events/{regatta["id"]}/changes",
            new { version = 1, recurrenceId = (string)regatta["recurrenceId"]!, act = "remove" });
        var gala = await EventAsync(ada, calendar, "Gala");
        await ada.DoAsync(HttpMethod.Delete, $"/api/events/{gala["id"]}/source");

        Say("a", "Race, second leg", "20261205T180000Z", "LOCATION:Elsewhere\n");
        Say("b", "Regatta, moved");
        Say("c", "Gala, moved");
        var now = await FetchedAsync(ada, id);
        Assert.Equal(["Gala", "Race, second leg", "Row", "Trial"], await TitlesAsync(ada, calendar));
        race = await EventAsync(ada, calendar, "Race, second leg");
        Assert.Equal(("bring oars", "Our boathouse"), ((string)race["notes"]!, (string)race["place"]!));
        var states = (await PreviewAsync(ada, id))["entries"]!.AsArray().ToDictionary(one => (string)one!["uid"]!, one => (string)one!["state"]!);
        Assert.Equal(("hidden", "ours"), (states["b"], states["c"]));
        Assert.Contains("moved", now["fetches"]![0]!["news"]!.ToJsonString());

        await ada.SaidAsync(HttpMethod.Post, $"/api/sources/{id}/entries/shown", new { uid = "b", landing = (object?)null });
        await SettledAsync(ada, id);
        Assert.Contains("Regatta, moved", await TitlesAsync(ada, calendar));
        // Left: what stands here is ours, and can be changed.
        await ada.DoAsync(HttpMethod.Delete, $"/api/sources/{id}?keepsEvents=true");
        race = await EventAsync(ada, calendar, "Race, second leg");
        Assert.False((bool)race["isFollowed"]!);
        await ada.DoAsync(HttpMethod.Post, path, Change(race, form => form["title"] = "Mine"));
        Assert.Contains("Mine", await TitlesAsync(ada, calendar));
    }

    [Fact]
    public async Task It_is_asked_by_the_clock_and_later_and_later_while_it_fails_and_says_since_when()
    {
        var ada = await app.SignedInAsync();
        var calendar = await ada.MakeCalendarAsync("CL1", link: "complete", everyone: "complete");
        Say("a", "Race");
        var id = await FollowedAsync(ada, new { @else = On(calendar) });
        var first = await SettledAsync(ada, id);
        var right = (string)first["rightAt"]!;
        app.Advance(Duration.FromMinutes(60));
        Assert.Equal(1, _asked);
        app.Advance(Duration.FromMinutes(70));
        await ValtroApp.EventuallyAsync(() => Task.FromResult(_unchanged == 1), "it is asked whether anything is new");
        var second = await SettledAsync(ada, id);
        Assert.True(string.CompareOrdinal((string)second["rightAt"]!, right) > 0);

        _instead = _ => Results.StatusCode(500);
        var failed = await FetchedAsync(ada, id);
        Assert.Equal(("failing", 1, (string)second["rightAt"]!),
            ((string)failed["health"]!, (int)failed["failures"]!, (string)failed["rightAt"]!));
        Assert.Contains("500", (string)failed["problem"]!);
        Assert.Equal(["Race"], await TitlesAsync(ada, calendar));
        var asked = _asked;
        app.Advance(Duration.FromMinutes(3));
        Assert.Equal(asked, _asked);
        app.Advance(Duration.FromMinutes(4));
        await ValtroApp.EventuallyAsync(() => Task.FromResult(_asked > asked), "it is tried again");
        await ValtroApp.EventuallyAsync(
            async () => (int)(await ada.GetAsync($"/api/sources/{id}"))["failures"]! == 2, "it failed twice");
        Assert.Equal((string)failed["failedSince"]!, (string)(await ada.GetAsync($"/api/sources/{id}"))["failedSince"]!);
        foreach (var bad in new[] { "<!doctype html>Sign in", "rubbish" })
        {
            _instead = _ => Results.Text(bad);
            Assert.Equal("failing", (string)(await FetchedAsync(ada, id))["health"]!);
        }
        _instead = _ => null;
        Assert.Equal(("right", 0), await FetchedAsync(ada, id) is var mended ? ((string)mended["health"]!, (int)mended["failures"]!) : default);
        Assert.Equal(0, await NewsAsync(id));
        _instead = _ => Results.StatusCode(500);
        for (var time = 1; time <= 7; time++)
            Assert.Equal(time, (int)(await FetchedAsync(ada, id))["failures"]!);
        Assert.Equal(1, await NewsAsync(id));
        Assert.Equal(11, (int)(await ada.GetAsync($"/api/sources/{id}"))["days"]!.AsArray().Sum(day => (int)day!["failed"]!));
    }

    [Fact]
    public async Task What_shrinks_waits_for_a_word_and_is_taken_or_stays_out()
    {
        var ada = await app.SignedInAsync();
        var calendar = await ada.MakeCalendarAsync("SH1", link: "complete", everyone: "complete");
        foreach (var number in Enumerable.Range(1, 5))
            Say($"{number}", $"Race {number}");
        var id = await FollowedAsync(ada, new { @else = On(calendar) });
        await SettledAsync(ada, id);
        _entries.RemoveAll(one => one.Uid is not "1");
        var held = await FetchedAsync(ada, id);
        Assert.Equal(("held", "shrunk", 5, 1, 4), ((string)held["health"]!, (string)held["held"]!["because"]!,
            (int)held["held"]!["before"]!, (int)held["held"]!["now"]!, (int)held["held"]!["gone"]!));
        // Asked again it says the same, and is asked about once.
        Assert.Equal("held", (string)(await FetchedAsync(ada, id))["health"]!);
        Assert.Equal(1, await NewsAsync(id));
        Assert.Equal(5, (await TitlesAsync(ada, calendar)).Length);
        await ada.SaidAsync(HttpMethod.Put, $"/api/sources/{id}/held", new { isTaken = false });
        Assert.Equal("right", (string)(await FetchedAsync(ada, id))["health"]!);
        Assert.Equal(5, (await TitlesAsync(ada, calendar)).Length);
        // Something else by now, and again too little.
        Say("1", "Race one");
        Assert.Equal("held", (string)(await FetchedAsync(ada, id))["health"]!);
        await ada.SaidAsync(HttpMethod.Put, $"/api/sources/{id}/held", new { isTaken = true });
        await SettledAsync(ada, id);
        Assert.Equal(["Race one"], await TitlesAsync(ada, calendar));
        _entries.Clear();
        Assert.Equal("emptied", (string)(await FetchedAsync(ada, id))["held"]!["because"]!);
        // It mends itself.
        Say("1", "Race one");
        Assert.Equal(("right", null), await FetchedAsync(ada, id) is var mended ? ((string)mended["health"]!, mended["held"]) : default);
    }

    [Fact]
    public async Task A_calendar_of_its_own_is_written_on_by_nobody_else()
    {
        var ada = await app.SignedInAsync();
        Say("a", "Race");
        var id = await FollowedAsync(ada, new { }, new
        {
            name = "League",
            plate = "LG1",
            colour = "kelp",
            zone = "America/Halifax",
            description = "",
            disclosure = new { members = "complete", link = "nothing", everyone = "nothing" },
            version = (int?)null,
        });
        await SettledAsync(ada, id);
        var calendar = (await ada.GetAsync("/api/calendars")).AsArray().Single(one => (string)one!["plate"]! == "LG1")!;
        Assert.True((bool)calendar["isFollowed"]!);
        Assert.False((bool)calendar["mayContribute"]!);
        var own = (string)calendar["id"]!;
        Assert.Equal(["Race"], await TitlesAsync(ada, own));
        var form = (await EventAsync(ada, own, "Race")).AsObject();
        Assert.Equal("calendarId", await RefusedAsync(ada, HttpMethod.Post, "/api/events", form.DeepClone()));
        await ada.DoAsync(HttpMethod.Delete, $"/api/sources/{id}?keepsEvents=false");
        Assert.Empty(await TitlesAsync(ada, own));
        calendar = await ada.GetAsync($"/api/calendars/{own}");
        Assert.Equal((false, true), ((bool)calendar["isFollowed"]!, (bool)calendar["mayContribute"]!));
    }

    [Fact]
    public async Task An_entry_whose_calendar_is_gone_asks_where_it_goes()
    {
        var ada = await app.SignedInAsync();
        var calendar = await ada.MakeCalendarAsync("SP9");
        Say("a", "Race");
        var id = await FollowedAsync(ada, new { });
        await SettledAsync(ada, id);
        await ada.SaidAsync(HttpMethod.Put, $"/api/sources/{id}/entries", new { uid = "a", landing = On(calendar) });
        await SettledAsync(ada, id);
        Assert.Equal(["Race"], await TitlesAsync(ada, calendar));
        await ada.SaidAsync(HttpMethod.Delete, $"/api/calendars/{calendar}");
        Assert.Equal("asks", (string)(await PreviewAsync(ada, id, new { }))["entries"]![0]!["state"]!);
        Assert.Equal("right", (string)(await FetchedAsync(ada, id))["health"]!);
    }

    [Fact]
    public async Task It_is_of_those_who_may_fill_its_calendars_and_what_they_may_no_more_it_does_not()
    {
        var (ada, bo, cy) = (await app.SignedInAsync(), await app.SignedInAsync("bo"), await app.SignedInAsync("cy"));
        var calendars = (await ada.GetAsync("/api/calendars")).AsArray().ToDictionary(one => (string)one!["plate"]!, one => (string)one!["id"]!);
        Say("a", "Race");
        var id = await FollowedAsync(bo, new { @else = On(calendars["PW"]) });
        await SettledAsync(bo, id);
        Assert.Equal(HttpStatusCode.NotFound, (await cy.SendAsync(HttpMethod.Get, $"/api/sources/{id}")).StatusCode);
        Assert.DoesNotContain(id, (await cy.GetAsync("/api/sources")).ToJsonString());
        Assert.Equal("else", await RefusedAsync(bo, HttpMethod.Post, "/api/sources", new
        {
            source = new { address = Address(), name = "x", everyMinutes = 120, rules = new { @else = On(calendars["ROW"]) } },
            own = (object?)null,
        }));
        Assert.Equal("everyMinutes", await RefusedAsync(bo, HttpMethod.Post, "/api/sources", new
        {
            source = new { address = Address(), name = "x", everyMinutes = 1, rules = new { @else = On(calendars["PW"]) } },
            own = (object?)null,
        }));
        // The calendar is archived: what stands there stays, and it says why.
        await ada.SaidAsync(HttpMethod.Post, $"/api/calendars/{calendars["PW"]}/archive");
        _entries.Clear();
        Say("b", "Regatta");
        var failed = await FetchedAsync(ada, id);
        Assert.Equal("failing", (string)failed["health"]!);
        Assert.Contains("archived", (string)failed["problem"]!);
        Assert.Contains("Race", await TitlesAsync(ada, calendars["PW"]));
        await ada.SaidAsync(HttpMethod.Delete, $"/api/calendars/{calendars["PW"]}/archive");
    }

    [Fact]
    public async Task What_is_needed_to_ask_is_told_by_no_dump_and_by_no_answer()
    {
        var ada = await app.SignedInAsync();
        var calendar = await ada.MakeCalendarAsync("SE1", link: "complete", everyone: "complete");
        Say("a", "Race");
        _instead = request => request.Headers.Authorization == $"Basic {Convert.ToBase64String(Encoding.UTF8.GetBytes("harbour:lantern-oil"))}"
            ? null : Results.StatusCode(401);
        var id = await FollowedAsync(ada, new { @else = On(calendar) }, null, new
        {
            address = $"{_address}/feeds/9f8e7d6c5b4a39281706152433.ics",
            user = "harbour",
            password = "lantern-oil",
            headerName = (string?)null,
            headerValue = (string?)null,
        });
        var source = await SettledAsync(ada, id);
        Assert.Equal(("right", true), ((string)source["health"]!, (bool)source["hasSecrets"]!));
        var dump = await app.Test.Database.FirstAsync<string>(
            "select row_to_json(s)::text || encode(s.access, 'escape') from source s where id = @id", new { id = Guid.Parse(id) });
        foreach (var told in new[] { source.ToJsonString(), dump!, (await ada.GetAsync("/api/audit")).ToJsonString() })
        {
            Assert.DoesNotContain("lantern-oil", told);
            Assert.DoesNotContain("9f8e7d6c5b4a", told);
        }
        Assert.Contains("9f…33.ics", (string)source["shown"]!);
    }
}
