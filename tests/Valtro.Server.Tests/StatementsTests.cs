using Microsoft.AspNetCore.Builder;
using Microsoft.AspNetCore.Http;
using System.Collections.Concurrent;
using System.Diagnostics;
using System.Net.Http.Json;
using Valtro.Application;

namespace Valtro.Server.Tests;

/// <summary>How often a request asks the database, counted as Npgsql sends it. No number may grow with what is shown.</summary>
public sealed class StatementsTests(ValtroApp app) : IClassFixture<ValtroApp>
{
    /// <summary>What a request asks, one line each.</summary>
    private static async Task<IReadOnlyList<string>> AskedAsync(
        Caller caller, string address, HttpMethod? method = null, object? body = null)
    {
        var trace = ActivityTraceId.CreateRandom();
        var asked = new ConcurrentQueue<string>();
        using var listener = new ActivityListener
        {
            ShouldListenTo = source => source.Name is "Npgsql" or "Microsoft.AspNetCore",
            Sample = (ref ActivityCreationOptions<ActivityContext> _) => ActivitySamplingResult.AllDataAndRecorded,
            ActivityStopped = activity =>
            {
                if (activity.Source.Name == "Npgsql" && activity.TraceId == trace)
                    asked.Enqueue($"{activity.GetTagItem("db.query.text") ?? activity.GetTagItem("db.statement")}");
            },
        };
        ActivitySource.AddActivityListener(listener);
        using var request = new HttpRequestMessage(
            method ?? HttpMethod.Get, address)
        { Content = body is null ? null : JsonContent.Create(body, options: Json.Options) };
        request.Headers.Add("traceparent", $"00-{trace}-{ActivitySpanId.CreateRandom()}-01");
        using var response = await caller.SendAsync(request);
        Assert.True(
            response.IsSuccessStatusCode, $"{address} answered {response.StatusCode}: {await response.Content.ReadAsStringAsync()}");
        return [.. asked];
    }

    private static void AtMost(int most, string what, IReadOnlyList<string> asked) =>
        Assert.True(
            asked.Count > 0 && asked.Count <= most, $"{what} asks {asked.Count} times, {most} are allowed:\n{string.Join("\n\n", asked)}");

    /// <summary>However many rows they show.</summary>
    [Fact]
    public async Task No_question_of_the_desk_asks_the_database_more_often_than_it_is_allowed()
    {
        var ada = await app.SignedInAsync();
        var calendar = (string)(await ada.GetAsync("/api/calendars"))[0]!["id"]!;
        var calendarEvent = (string)(await ada.GetAsync("/api/occurrences?from=2026-11-23&to=2026-11-30"))[0]!["eventId"]!;
        var edition = (string)(await ada.GetAsync("/api/editions"))[0]!["id"]!;
        var file = string.Concat(Enumerable.Range(0, 60).Select(number =>
            $"BEGIN:VEVENT\nUID:{number}@x\nSUMMARY:Knots\nDTSTART:20261204T100000\nEND:VEVENT\n"));
        var intake = (string)(await ada.DoAsync(
            HttpMethod.Post, "/api/intake/text", new { text = file, by = "one", calendarId = calendar }))["id"]!;
        await ValtroApp.EventuallyAsync(
            async () => (string)(await ada.GetAsync($"/api/intake/{intake}"))["state"]! == "ready", "a file is read");
        var (feed, served) = await Served.ByAsync(server => server.MapGet("/a.ics", () => Results.Text($"BEGIN:VCALENDAR\n{file}END:VCALENDAR")));
        await using var _ = feed;
        var source = (string)(await ada.DoAsync(HttpMethod.Post, "/api/sources", new
        {
            source = new
            {
                address = new { address = $"{served}/a.ics", user = "", password = "", headerName = "", headerValue = "" },
                name = "Feed",
                everyMinutes = 120,
                rules = new { @else = new { to = "calendar", calendarId = calendar } },
            },
            own = (object?)null,
        }))["id"]!;
        await ValtroApp.EventuallyAsync(
            async () => (string)(await ada.GetAsync($"/api/sources/{source}"))["health"]! == "right", "a source is asked");
        foreach (var (most, address) in new[]
        {
            (6, "/api/session"),
            (6, "/api/calendars"),
            (6, $"/api/calendars/{calendar}"),
            (6, $"/api/calendars/{calendar}/publishing"),
            (6, "/api/editions"),
            (6, $"/api/editions/{edition}"),
            (6, $"/api/editions/{edition}/proof"),
            (6, $"/api/editions/{edition}/proof/changed"),
            (6, $"/api/editions/{edition}/trace?event={calendarEvent}"),
            (6, $"/api/events/{calendarEvent}/trace"),
            (6, "/api/needs"),
            (6, "/api/reach"),
            (6, $"/api/editions/{edition}/deliveries"),
            (6, "/api/occurrences?from=2026-11-01&to=2026-12-31"),
            (6, "/api/occurrences/list?from=2026-08-01&to=2027-08-01&words=boat"),
            (6, "/api/search?text=boat"),
            (6, "/api/search?text=conecrt"),
            (6, $"/api/events/{calendarEvent}"),
            (6, $"/api/events/{calendarEvent}/revisions"),
            (6, "/api/bin"),
            (6, "/api/year-plans"),
            (6, "/api/year?day=2026-11-23"),
            (6, "/api/lists"),
            (6, "/api/people"),
            (6, "/api/audit"),
            (6, "/api/intake"),
            (6, $"/api/intake/{intake}"),
            (6, $"/api/intake/{intake}/lines"),
            (6, $"/api/intake/{intake}/foreseen"),
            (6, "/api/sources"),
            (7, $"/api/sources/{source}"),
            (6, "/api/sign-off"),
            (6, "/api/sign-off/count"),
            (6, "/api/groups"),
            (6, "/api/work"),
        })
        {
            AtMost(most, address, await AskedAsync(ada, address));
        }
    }

    [Theory]
    [InlineData("/c/pinewick/port-watch")]
    [InlineData("/c/pinewick/port-watch.ics")]
    [InlineData("/c/pinewick/port-watch.json")]
    [InlineData("/c/pinewick/port-watch.atom")]
    [InlineData("/c/pinewick/port-watch/changed.json")]
    public async Task A_warm_public_address_asks_the_database_nothing(string address)
    {
        using (var warm = await app.Reader().Http.GetAsync(address))
            Assert.True(warm.IsSuccessStatusCode);
        Assert.Empty(await AskedAsync(app.Reader(), address));
    }

    [Fact]
    public async Task The_list_of_sign_off_asks_as_often_for_many_as_for_few()
    {
        var ada = await app.SignedInAsync();
        var few = await AskedAsync(ada, "/api/sign-off");
        var before = (await ada.GetAsync("/api/sign-off"))["toDecide"]!.AsArray().Count;
        var cy = await app.SignedInAsync("cy");
        var calendar = (string)(await cy.GetAsync("/api/calendars")).AsArray().First(one => (bool)one!["mayContribute"]!)!["id"]!;
        for (var number = 0; number < 12; number++)
            await cy.DoAsync(HttpMethod.Post, "/api/events", Caller.Event(calendar, $"Handed in {number}"));
        Assert.Equal(before + 12, (await ada.GetAsync("/api/sign-off"))["toDecide"]!.AsArray().Count);
        Assert.Equal(few.Count, (await AskedAsync(ada, "/api/sign-off")).Count);
    }

    /// <summary>What follows from what is typed is asked with every key.</summary>
    [Fact]
    public async Task A_keystroke_in_the_form_asks_three_times_at_most_and_a_save_ten_times()
    {
        var ada = await app.SignedInAsync();
        var calendar = (string)(await ada.GetAsync("/api/calendars"))[0]!["id"]!;
        var form = Caller.Event(calendar, "Counted");
        var made = await ada.DoAsync(HttpMethod.Post, "/api/events", form);
        var (id, date) = ((string)made["id"]!, (string)made["recurrenceId"]!);
        foreach (var address in new[] { "/api/events/consequences", "/api/events/destinations" })
        {
            AtMost(3, $"{address} of a new event",
                await AskedAsync(
                    ada, address, HttpMethod.Post, new { @event = form, eventId = (Guid?)null, recurrenceId = (string?)null }));
            AtMost(3, $"{address} of a stored one",
                await AskedAsync(ada, address, HttpMethod.Post, new { @event = form, eventId = id, recurrenceId = date }));
        }
        AtMost(3, "A line", await AskedAsync(ada, "/api/events/line", HttpMethod.Post, new { text = "Counted Fri 9:00–10:00" }));
        AtMost(10, "A new event", await AskedAsync(ada, "/api/events", HttpMethod.Post, Caller.Event(calendar, "One more")));
        AtMost(10, "A save", await AskedAsync(ada, $"/api/events/{id}/changes", HttpMethod.Post, new
        {
            act = "edit",
            recurrenceId = date,
            version = 1,
            @event = Caller.Event(calendar, "Counted again"),
            move = (object?)null,
            scope = (string?)null,
            keep = (string[]?)null,
        }));
        AtMost(10, "A removal", await AskedAsync(ada, $"/api/events/{id}/changes", HttpMethod.Post, new
        {
            act = "remove",
            recurrenceId = date,
            version = 2,
            @event = (object?)null,
            move = (object?)null,
            scope = (string?)null,
            keep = (string[]?)null,
        }));
    }

    [Fact]
    public async Task A_table_of_two_hundred_rows_is_saved_and_taken_back_in_25_statements()
    {
        var ada = await app.SignedInAsync();
        var calendar = (string)(await ada.GetAsync("/api/calendars"))[0]!["id"]!;
        object[] rows = [.. Enumerable.Range(0, 200)
            .Select(
                number => new { date = "24 Nov 2026", from = "14:00", to = "15:00", title = $"Row {number}", place = "Hall",
                    calendar = (string?)null })];
        AtMost(25, "The table", await AskedAsync(ada, "/api/events/several", HttpMethod.Post, new { rows, calendarId = calendar }));
        var act = (await ada.DoAsync(HttpMethod.Post, "/api/events/several", new { rows, calendarId = calendar }))["actId"]!;
        AtMost(25, "Taking it back", await AskedAsync(ada, $"/api/acts/{act}/undo", HttpMethod.Post));
    }

    [Fact]
    public async Task Two_hundred_chosen_events_are_looked_at_changed_and_taken_back_in_few_statements()
    {
        var ada = await app.SignedInAsync();
        var names = (await ada.GetAsync("/api/occurrences/list/names?from=2026-08-01&to=2027-08-01")).AsArray();
        Assert.True(names.Count > 200);
        object Asked(int days) => new
        {
            dates = names.Take(600).Select(name => new
            {
                eventId = (string)name!["eventId"]!,
                recurrenceId = (string)name["recurrenceId"]!,
            }),
            scope = "dates",
            change = new { act = "move", days },
        };
        AtMost(8, "What would follow", await AskedAsync(ada, "/api/events/chosen/preview", HttpMethod.Post, Asked(1)));
        AtMost(25, "The change", await AskedAsync(ada, "/api/events/chosen", HttpMethod.Post, Asked(1)));
        var act = (await ada.DoAsync(HttpMethod.Post, "/api/events/chosen", Asked(1)))["actId"]!;
        AtMost(25, "Taking it back", await AskedAsync(ada, $"/api/acts/{act}/undo", HttpMethod.Post));
    }
}
