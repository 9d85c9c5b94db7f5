using System.Net;
using System.Net.Http.Json;
using System.Text.Json.Nodes;
using Valtro.Application;

namespace Valtro.Server.Tests;

public sealed class EventApiTests(ValtroApp app) : IClassFixture<ValtroApp>
{
    private async Task<(Caller Ada, JsonNode Event)> AddedAsync(object? repeat = null, string description = "", string plate = "PW")
    {
        var ada = await app.SignedInAsync();
        return (ada,
            await ada.DoAsync(
                HttpMethod.Post, "/api/events", Caller.Event(await ada.CalendarAsync(plate), repeat: repeat, description: description)));
    }

    [Fact]
    public async Task A_weekly_event_is_saved_and_found()
    {
        var (ada, added) = await AddedAsync(Caller.Weekly(3));
        Assert.Equal("Every Wednesday, 14:00 to 15:00", (string)added["words"]!);
        var found = (await ada.GetAsync("/api/occurrences?from=2035-11-01&to=2035-12-01")).AsArray()
            .Where(one => (string)one!["eventId"]! == (string)added["id"]!);
        Assert.Equal(["2035-11-07T14:00:00-04:00", "2035-11-14T14:00:00-04:00", "2035-11-21T14:00:00-04:00", "2035-11-28T14:00:00-04:00"],
            found.Select(one => (string)one!["start"]!));
    }

    [Fact]
    public async Task Consequences_list_the_dates_before_anything_is_saved()
    {
        var ada = await app.SignedInAsync();
        var draft = Caller.Event(await ada.CalendarAsync("PW"), title: "", date: "2026-10-28",
            repeat: new { pattern = "weekly", interval = 1, weekdays = new[] { 3 }, ends = "after", until = (string?)null, count = 3 });
        var follows = await ada.DoAsync(
            HttpMethod.Post, "/api/events/consequences", new { @event = draft, eventId = (string?)null, recurrenceId = (string?)null });
        Assert.Equal(["2026-10-28T14:00:00-03:00", "2026-11-04T14:00:00-04:00", "2026-11-11T14:00:00-04:00"],
            follows["dates"]!.AsArray().Select(date => (string)date!["start"]!));
        // What it clashes with is worse, and comes first.
        Assert.Equal("clocks went back, still 14:00", (string)follows["dates"]![1]!["remarks"]!.AsArray()[^1]!);
        Assert.Equal(3, (int)follows["count"]!);
    }

    public static TheoryData<string, string, string> BadInput => new()
    {
        { "to", "to", "\"13:00:00\"" },
        { "title", "title", $"\"{new string('x', 10_000)}\"" },
        { "title", "title", "\"Boat\\u0007lab\"" },
        { "zone", "zone", "\"Atlantis/Pinewick\"" },
        { "date", "date", "null" },
        { "repeat.weekdays", "repeat", """{"pattern":"weekly","interval":1,"weekdays":[],"ends":"never"}""" },
        { "repeat.until", "repeat", """{"pattern":"weekly","interval":1,"weekdays":[3],"ends":"on","until":"2026-11-01"}""" },
        { "repeat.count", "repeat", """{"pattern":"weekly","interval":1,"weekdays":[3],"ends":"after","count":0}""" },
        { "calendarId", "calendarId", "\"00000000-0000-0000-0000-000000000001\"" },
    };

    [Theory]
    [MemberData(nameof(BadInput))]
    public async Task Bad_input_is_refused_at_its_field_and_nothing_is_saved(string refusedField, string field, string value)
    {
        var ada = await app.SignedInAsync();
        var before = await app.Test.Database.FirstAsync<long>("select count(*) from event");
        var draft = Caller.Event(await ada.CalendarAsync("PW"));
        draft[field] = JsonNode.Parse(value);
        var refused = await ada.SendAsync(HttpMethod.Post, "/api/events", draft);
        Assert.Equal(HttpStatusCode.BadRequest, refused.StatusCode);
        var problem = await Caller.ReadAsync(refused);
        Assert.Equal("/problems/refused", (string)problem["type"]!);
        Assert.EndsWith(".", (string)problem["errors"]![refusedField]![0]!, StringComparison.Ordinal);
        Assert.Equal(before, await app.Test.Database.FirstAsync<long>("select count(*) from event"));
    }

    [Theory]
    [InlineData("{")]
    [InlineData("""{"date":"tomorrow"}""")]
    [InlineData("""{"repeat":{"pattern":7}}""")]
    public async Task What_is_not_even_readable_is_said_so(string body)
    {
        var ada = await app.SignedInAsync();
        var request = new HttpRequestMessage(
            HttpMethod.Post, "/api/events")
        { Content = new StringContent(body, System.Text.Encoding.UTF8, "application/json") };
        request.Headers.Add("X-Valtro-Token", (string)(await ada.GetAsync("/api/session"))["antiforgeryToken"]!);
        var response = await ada.Http.SendAsync(request);
        Assert.Equal(HttpStatusCode.BadRequest, response.StatusCode);
        Assert.Equal("/problems/unreadable", (string)(await Caller.ReadAsync(response))["type"]!);
    }

    [Theory]
    [InlineData("<p>a<script>alert(1)</script>b</p>", "<p>ab</p>")]
    [InlineData("<p onclick=\"alert(1)\">a</p>", "<p>a</p>")]
    [InlineData("<a href=\"javascript:alert(1)\">a</a>", "<a>a</a>")]
    [InlineData("<a href=\"java&#x0A;script:alert(1)\">a</a>", "<a>a</a>")]
    [InlineData("<a href=\"/relative\">a</a>", "<a>a</a>")]
    [InlineData("<img src=x onerror=alert(1)>text", "text")]
    [InlineData("<p style=\"position:fixed\">a</p>", "<p>a</p>")]
    [InlineData("<svg><script>alert(1)</script></svg>t", "t")]
    [InlineData("<a href=\"https://pinewick.example/x\">a</a>",
        "<a href=\"https://pinewick.example/x\" target=\"_blank\" rel=\"noopener noreferrer\">a</a>")]
    [InlineData("<h1>big</h1><p><strong>bold</strong></p>", "big<p><strong>bold</strong></p>")]
    public async Task A_description_is_sanitised(string typed, string kept)
    {
        var (_, added) = await AddedAsync(description: typed);
        Assert.Equal(kept, (string)added["description"]!);
    }

    [Fact]
    public async Task The_second_of_two_is_told_what_the_first_saved()
    {
        var (ada, added) = await AddedAsync();
        var bo = await app.SignedInAsync("bo");
        var calendar = (string)added["calendarId"]!;
        await bo.ChangeAsync(added, "edit", Caller.Event(calendar, "Bo was first"));
        var conflict = await ada.TryChangeAsync(added, "edit", Caller.Event(calendar, "Ada was second"));
        Assert.Equal(HttpStatusCode.Conflict, conflict.StatusCode);
        var answer = await Caller.ReadAsync(conflict);
        var current = answer["current"]!;
        var described =
            (await app.Reader().GetAsync("/openapi/v1.json"))["components"]!["schemas"]!["RefusalBody"]!["properties"]!.AsObject();
        Assert.Subset(
            described.Select(property => property.Key).ToHashSet(), answer.AsObject().Select(property => property.Key).ToHashSet());
        Assert.Equal(["title both Bo was first / Ada was second"],
            answer["differing"]!.AsArray().Select(one => $"{one!["field"]} {one["by"]} {one["theirs"]} / {one["yours"]}"));
        Assert.Equal(
            ("Bo was first", "Bo Quilliam", 2), ((string)current["title"]!, (string)current["savedBy"]!, (int)current["version"]!));
        Assert.Equal("Bo was first", (string)(await ada.GetAsync($"/api/events/{added["id"]}"))["title"]!);
    }

    [Fact]
    public async Task Saving_what_is_saved_already_changes_nothing()
    {
        var (ada, added) = await AddedAsync();
        var same = await ada.ChangeAsync(added, "edit", Caller.Event((string)added["calendarId"]!));
        Assert.Equal(1, (int)same["version"]!);
    }

    [Fact]
    public async Task A_removed_event_comes_back_by_undo()
    {
        var (ada, added) = await AddedAsync();
        var removed = await ada.ChangeAsync(added, "remove");
        Assert.True((bool)(await ada.GetAsync($"/api/events/{added["id"]}"))["isRemoved"]!);
        Assert.Contains((await ada.GetAsync("/api/bin")).AsArray(), one => (string)one!["id"]! == (string)added["id"]!);
        await ada.DoAsync(HttpMethod.Post, $"/api/acts/{removed["actId"]}/undo");
        Assert.False((bool)(await ada.GetAsync($"/api/events/{added["id"]}"))["isRemoved"]!);
        Assert.Equal(HttpStatusCode.Conflict, (await ada.TryChangeAsync(added, "remove")).StatusCode);
        Assert.Equal(HttpStatusCode.Conflict, (await ada.SendAsync(HttpMethod.Post, $"/api/acts/{removed["actId"]}/undo")).StatusCode);
    }

    [Theory]
    [InlineData("bo", "CREW")]
    [InlineData("cy", "SCH")]
    [InlineData("em", "STF")]
    [InlineData("di", "PW")]
    public async Task Who_does_not_edit_a_calendar_changes_none_of_its_events(string name, string plate)
    {
        var (ada, added) = await AddedAsync(plate: plate);
        var caller = await app.SignedInAsync(name);
        var path = $"/api/events/{added["id"]}";
        var body = Caller.Event((string)added["calendarId"]!, "Taken over");
        Assert.Equal(HttpStatusCode.Forbidden, (await caller.SendAsync(HttpMethod.Post, "/api/events", body)).StatusCode);
        var undoable = await ada.ChangeAsync(added, "edit", Caller.Event((string)added["calendarId"]!, "Renamed"));
        foreach (var act in new[] { "edit", "cancel", "remove", "restore" })
        {
            Assert.Equal(HttpStatusCode.Forbidden, (await caller.TryChangeAsync(added, act, body, version: 2)).StatusCode);
            Assert.Equal(HttpStatusCode.Forbidden, (await caller.TryChangeAsync(added, act, body, version: 2, preview: true)).StatusCode);
        }
        Assert.Equal(HttpStatusCode.Forbidden, (await caller.SendAsync(HttpMethod.Post, $"/api/acts/{undoable["actId"]}/undo")).StatusCode);
        Assert.Equal(HttpStatusCode.Forbidden, (await caller.Http.GetAsync($"{path}/revisions")).StatusCode);
        Assert.Equal(HttpStatusCode.Forbidden, (await caller.SendAsync(HttpMethod.Post, $"{path}/revisions/1/restore?now=2")).StatusCode);
        Assert.Equal(
            HttpStatusCode.Forbidden, (await caller.SendAsync(HttpMethod.Post, $"/api/bin/{added["id"]}/restore?version=2")).StatusCode);
        Assert.Equal("Renamed", (string)(await ada.GetAsync(path))["title"]!);
    }

    [Fact]
    public async Task An_editor_cannot_move_an_event_to_a_calendar_of_others()
    {
        var bo = await app.SignedInAsync("bo");
        var added = await bo.DoAsync(HttpMethod.Post, "/api/events", Caller.Event(await bo.CalendarAsync("PW")));
        Assert.Equal(
            HttpStatusCode.Forbidden, (await bo.TryChangeAsync(added, "edit", Caller.Event(await bo.CalendarAsync("CREW")))).StatusCode);
    }

    [Fact]
    public async Task An_event_of_a_closed_calendar_is_answered_like_one_that_does_not_exist()
    {
        var (_, added) = await AddedAsync(plate: "STF");
        var di = await app.SignedInAsync("di");
        Assert.Equal(HttpStatusCode.NotFound, (await di.Http.GetAsync($"/api/events/{added["id"]}")).StatusCode);
        Assert.Equal(HttpStatusCode.NotFound, (await di.TryChangeAsync(added, "remove")).StatusCode);
        var refused = await di.SendAsync(HttpMethod.Post, "/api/events", Caller.Event((string)added["calendarId"]!));
        Assert.NotNull((await Caller.ReadAsync(refused))["errors"]!["calendarId"]);
    }

    [Fact]
    public async Task Occurrences_are_those_that_the_person_may_see()
    {
        const string path = "/api/occurrences?from=2026-11-23&to=2026-11-30";
        var titles = async (string name) =>
            (await (await app.SignedInAsync(name)).GetAsync(path)).AsArray().Select(one => (string)one!["title"]!).ToHashSet();
        Assert.Contains("Briefing", await titles("ada"));
        var di = await titles("di");
        Assert.DoesNotContain("Briefing", di);
        Assert.Contains("Ergometers", di);
    }

    [Fact]
    public async Task Occurrences_ascend_and_days_are_dates()
    {
        var found = (await (await app.SignedInAsync()).GetAsync("/api/occurrences?from=2026-11-23&to=2026-11-30")).AsArray();
        var drill = found.Single(one => (string)one!["title"]! == "Safety drill")!;
        Assert.Equal(("2026-11-26", "2026-11-27", true), ((string)drill["start"]!, (string)drill["end"]!, (bool)drill["allDay"]!));
        var starts = found.Where(one => !(bool)one!["allDay"]!)
            .Select(one => DateTimeOffset.Parse((string)one!["start"]!, System.Globalization.CultureInfo.InvariantCulture)).ToArray();
        Assert.Equal(starts.Order(), starts);
    }

    [Theory]
    [InlineData("from=2026-11-23")]
    [InlineData("from=2026-11-23&to=yesterday")]
    [InlineData("from=2026-11-23&to=2026-11-23")]
    [InlineData("from=2026-11-23&to=2029-11-23")]
    public async Task A_window_that_makes_no_sense_is_refused(string query)
    {
        var response = await (await app.SignedInAsync()).Http.GetAsync($"/api/occurrences?{query}");
        Assert.Equal(HttpStatusCode.BadRequest, response.StatusCode);
        Assert.NotNull((await Caller.ReadAsync(response))["detail"]);
    }

    [Fact]
    public async Task The_year_begins_where_the_organisation_says_and_counts_each_week()
    {
        var year = await (await app.SignedInAsync()).GetAsync("/api/year?day=2026-11-23");
        Assert.Equal(("2026-07-27", "2027-08-02"), ((string)year["from"]!, (string)year["to"]!));
        var week = year["weeks"]!.AsArray().Single(one => (string)one!["first"]! == "2026-11-23")!;
        Assert.True((int)week["dates"]! >= 20);
    }

    [Theory]
    [InlineData("01:30:00", "01:45:00")]
    [InlineData("01:45:00", "02:15:00")]
    [InlineData("00:30:00", "01:30:00")]
    public async Task A_date_in_the_hour_that_comes_twice_is_opened_edited_and_saved(string from, string to)
    {
        var ada = await app.SignedInAsync();
        var calendar = await ada.CalendarAsync("PW");
        var made = await ada.DoAsync(
            HttpMethod.Post, "/api/events", Caller.Event(calendar, $"Twice {from}", "2026-10-25", from, to, Caller.Weekly(7)));
        var seen = await ada.GetAsync($"/api/events/{made["id"]}?date=2026-11-01T{from}");
        Assert.Equal((from, to, "2026-11-01"), ((string)seen["from"]!, (string)seen["to"]!, (string)seen["date"]!));
        var form = Caller.Event(calendar, $"Twice {from}", "2026-11-01", from, to, Caller.Weekly(7));
        form["place"] = "Lamp room";
        await ada.ChangeAsync(made, "edit", form, scope: "this", date: $"2026-11-01T{from}");
        Assert.Equal("Lamp room", (string)(await ada.GetAsync($"/api/events/{made["id"]}?date=2026-11-01T{from}"))["place"]!);
    }

    /// <summary>A request with a name of its own, as the desk sends it.</summary>
    private static Task<HttpResponseMessage> OnceAsync(Caller caller, string key, string address, object body)
    {
        var request = new HttpRequestMessage(HttpMethod.Post, address) { Content = JsonContent.Create(body, options: Json.Options) };
        request.Headers.Add("Idempotency-Key", key);
        return caller.SendAsync(request);
    }

    [Fact]
    public async Task What_is_sent_twice_is_made_once_and_answered_alike()
    {
        var ada = await app.SignedInAsync();
        var calendar = (string)(await ada.GetAsync("/api/calendars"))[0]!["id"]!;
        var (key, form) = (Guid.NewGuid().ToString("N"), Caller.Event(calendar, "Sent twice"));
        var (first, again) = (await OnceAsync(ada, key, "/api/events", form), await OnceAsync(ada, key, "/api/events", form));
        Assert.Equal((HttpStatusCode.Created, HttpStatusCode.Created), (first.StatusCode, again.StatusCode));
        Assert.Equal((string)(await Caller.ReadAsync(first))["id"]!, (string)(await Caller.ReadAsync(again))["id"]!);
        Assert.Equal(
            1, await app.Test.Database.FirstAsync<int>("select count(*)::integer from event where content ->> 'title' = 'Sent twice'"));

        var other = await OnceAsync(ada, key, "/api/events", Caller.Event(calendar, "Sent otherwise"));
        Assert.Equal(HttpStatusCode.UnprocessableEntity, other.StatusCode);
        // The name is whose it is: somebody else may have the same.
        var bo = await app.SignedInAsync("bo");
        var mine = (string)(await bo.GetAsync("/api/calendars")).AsArray().First(one => (bool)one!["mayEdit"]!)!["id"]!;
        Assert.Equal(HttpStatusCode.Created, (await OnceAsync(bo, key, "/api/events", Caller.Event(mine, "Bo’s own"))).StatusCode);
    }

    [Fact]
    public async Task What_is_sent_otherwise_under_a_name_is_refused_wherever_that_is_asked()
    {
        var ada = await app.SignedInAsync();
        var calendar = (string)(await ada.GetAsync("/api/calendars"))[0]!["id"]!;
        var key = Guid.NewGuid().ToString("N");
        object Both(string title) => new { events = new[] { Caller.Event(calendar, title), Caller.Event(calendar, $"{title} too") } };

        Assert.Equal(HttpStatusCode.OK, (await OnceAsync(ada, key, "/api/events/together", Both("One"))).StatusCode);
        Assert.Equal(HttpStatusCode.OK, (await OnceAsync(ada, key, "/api/events/together", Both("One"))).StatusCode);
        Assert.Equal(
            HttpStatusCode.UnprocessableEntity, (await OnceAsync(ada, key, "/api/events/together", Both("Another"))).StatusCode);
    }

    [Fact]
    public async Task Of_many_that_are_sent_at_once_one_is_made()
    {
        var ada = await app.SignedInAsync();
        var calendar = (string)(await ada.GetAsync("/api/calendars"))[0]!["id"]!;
        var key = Guid.NewGuid().ToString("N");
        var answers = await Task.WhenAll(Enumerable.Range(0, 6)
            .Select(_ => OnceAsync(ada, key, "/api/events", Caller.Event(calendar, "Sent by many"))));
        Assert.All(
            answers, answer => Assert.True(answer.StatusCode is HttpStatusCode.Created or HttpStatusCode.Conflict, $"{answer.StatusCode}"));
        Assert.Equal(
            1, await app.Test.Database.FirstAsync<int>("select count(*)::integer from event where content ->> 'title' = 'Sent by many'"));
    }

    [Fact]
    public async Task A_key_whose_request_was_refused_is_free_and_one_that_is_none_is_refused()
    {
        var ada = await app.SignedInAsync();
        var calendar = (string)(await ada.GetAsync("/api/calendars"))[0]!["id"]!;
        var key = Guid.NewGuid().ToString("N");
        Assert.Equal(HttpStatusCode.BadRequest, (await OnceAsync(ada, key, "/api/events", Caller.Event(calendar, ""))).StatusCode);
        Assert.Equal(HttpStatusCode.Created, (await OnceAsync(ada, key, "/api/events", Caller.Event(calendar, "Put right"))).StatusCode);
        Assert.Equal(
            HttpStatusCode.BadRequest, (await OnceAsync(ada, "no key!", "/api/events", Caller.Event(calendar, "Put right"))).StatusCode);
    }

    [Fact]
    public async Task A_slip_that_lay_elsewhere_when_the_plan_was_fetched_is_not_moved()
    {
        var (ada, added) = await AddedAsync();
        var seen = (await ada.GetAsync("/api/occurrences?from=2026-11-23&to=2026-11-30")).AsArray()
            .First(one => (string)one!["eventId"]! == (string)added["id"]!)!;
        await ada.ChangeAsync(added, "edit", Caller.Event((string)added["calendarId"]!, "Moved by somebody", date: "2026-11-26"));
        var dragged = await ada.SendAsync(HttpMethod.Post, $"/api/events/{added["id"]}/changes/preview", new
        {
            act = "edit",
            recurrenceId = (string)seen["recurrenceId"]!,
            version = (int)seen["version"]!,
            @event = (object?)null,
            move = new { date = "2026-11-27", from = (string?)null },
            scope = (string?)null,
            keep = (string[]?)null,
        });
        Assert.Equal(HttpStatusCode.Conflict, dragged.StatusCode);
        Assert.Equal("Moved by somebody", (string)(await Caller.ReadAsync(dragged))["current"]!["title"]!);
        var di = await app.SignedInAsync("di");
        Assert.All((await di.GetAsync("/api/occurrences?from=2026-11-23&to=2026-11-30")).AsArray()
            .Where(one => (string)one!["eventId"]! == (string)added["id"]!), one => Assert.Null(one!["version"]));
    }
}
