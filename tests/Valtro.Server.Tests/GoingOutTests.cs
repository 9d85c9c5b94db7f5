using System.Net;
using Dapper;
using Microsoft.AspNetCore.Mvc.Testing;
using Microsoft.Extensions.DependencyInjection;
using NodaTime;
using Npgsql;
using Valtro.Application.Work;

namespace Valtro.Server.Tests;

/// <summary>What goes out stands: no save, no load and no fault stops the server, or shows somebody what they must not see any
/// more.</summary>
public sealed class GoingOutTests(ValtroApp app) : IClassFixture<ValtroApp>
{
    private static int _number;

    private sealed record Open(string Id, string Plate, string Feed, string Page);

    /// <summary>A calendar that is open to everyone, with one event.</summary>
    private static async Task<Open> CalendarAsync(Caller ada, string everyone = "complete", string title = "Sail repair")
    {
        var number = Interlocked.Increment(ref _number);
        var made = await ada.DoAsync(HttpMethod.Post, "/api/calendars", new
        {
            name = $"Going out {number}",
            plate = $"G{number}",
            colour = "navy",
            zone = "America/Halifax",
            description = "",
            disclosure = new { members = "complete", link = everyone, everyone },
        });
        await ada.DoAsync(HttpMethod.Post, "/api/events", Caller.Event((string)made["id"]!, title));
        return new Open((string)made["id"]!, $"G{number}", $"/c/pinewick/going-out-{number}.ics", $"/c/pinewick/going-out-{number}");
    }

    private async Task<HttpResponseMessage> GetAsync(string path, WebApplicationFactory<EventStreams>? node = null) =>
        await new Caller(node ?? app.Factory).Http.GetAsync(path);

    private async Task<string> TextAsync(string path, WebApplicationFactory<EventStreams>? node = null)
    {
        var response = await ValtroApp.ReadAsync(new Caller(node ?? app.Factory).Http, path);
        Assert.Equal(HttpStatusCode.OK, response.StatusCode);
        return await response.Content.ReadAsStringAsync();
    }

    private static async Task CloseAsync(Caller ada, string id)
    {
        var calendar = await ada.GetAsync($"/api/calendars/{id}");
        await ada.DoAsync(HttpMethod.Put, $"/api/calendars/{id}/disclosure",
            new { disclosure = new { members = "complete", link = "nothing", everyone = "nothing" }, version = (int)calendar["version"]! });
    }

    /// <summary>Nobody can read or write a table until it is disposed: what a slow database looks like.</summary>
    private async Task<IAsyncDisposable> HoldAsync(string table)
    {
        var connection = new NpgsqlConnection(app.Test.ConnectionString + ";Pooling=false");
        await connection.OpenAsync();
        await connection.ExecuteAsync($"begin; lock table {table} in access exclusive mode");
        return connection;
    }

    private async Task<System.Text.Json.Nodes.JsonNode> DeliveryAsync(Caller ada, string id) =>
        (await ada.GetAsync($"/api/calendars/{id}"))["delivery"]!;

    private Task WaitForAsync(Caller ada, string id, string state) =>
        ValtroApp.EventuallyAsync(
            async () => (string)(await DeliveryAsync(ada, id))["state"]! == state, $"The calendar never became {state}.");

    // ---- what once stopped a server

    [Fact]
    public async Task A_day_far_away_in_a_showing_span_is_refused_by_name()
    {
        var ada = await app.SignedInAsync();
        var draft = Caller.Event(await ada.CalendarAsync("PW"));
        draft["showUntil"] = "9999-12-31";
        var refused = await ada.SendAsync(HttpMethod.Post, "/api/events", draft);
        Assert.Equal(HttpStatusCode.BadRequest, refused.StatusCode);
        Assert.Contains("2199", (string)(await Caller.ReadAsync(refused))["errors"]!["showUntil"]![0]!, StringComparison.Ordinal);
    }

    [Fact]
    public async Task A_day_far_away_that_is_stored_all_the_same_goes_out()
    {
        var ada = await app.SignedInAsync();
        var calendar = await CalendarAsync(ada);
        await app.Test.Database.ExecuteAsync(
            """update event set version = version + 1, content = content || '{"showing": {"from": "0001-01-01", "until": "9999-12-31"}}' where home_calendar_id = @id""", new { id = Guid.Parse(calendar.Id) });
        await ada.DoAsync(HttpMethod.Post, "/api/events", Caller.Event(calendar.Id, "Beside it"));
        Assert.Contains("SUMMARY:Sail repair", await TextAsync(calendar.Feed), StringComparison.Ordinal);
        await WaitForAsync(ada, calendar.Id, "upToDate");
    }

    [Theory]
    [InlineData("2010-01-01", "Old boat")]
    [InlineData("1900-01-01", "Old boat")]
    [InlineData("2026-11-26", "Late boat")]
    public async Task An_edition_with_a_limit_that_begins_long_ago_goes_out_with_its_earliest_entries(string from, string first)
    {
        var ada = await app.SignedInAsync();
        var calendar = await CalendarAsync(ada, title: "Sail repair");
        await ada.DoAsync(HttpMethod.Post, "/api/events", Caller.Event(calendar.Id, "Old boat", "2011-03-02"));
        await ada.DoAsync(HttpMethod.Post, "/api/events", Caller.Event(calendar.Id, "Late boat", "2026-12-02", repeat: Caller.Weekly(3)));
        var made = await ada.DoAsync(HttpMethod.Post, "/api/editions", new
        {
            isOut = true,
            edition = new
            {
                name = $"First five {from}",
                sources = new[] { new { calendarId = calendar.Id } },
                limit = 5,
                window = new { from = "date", fromDate = from, to = "open" }
            },
        });
        var slug = (string)made["addresses"]!["page"]!;
        var all = await app.Reader().GetAsync($"{new Uri(slug).AbsolutePath}.json?month=all");
        Assert.Equal(5, all["entries"]!.AsArray().Count);
        Assert.Equal(first, (string)all["entries"]![0]!["title"]!);
        Assert.Contains("Late boat", await TextAsync(new Uri(slug).AbsolutePath), StringComparison.Ordinal);
    }

    [Fact]
    public async Task An_edition_that_lost_its_sources_is_empty()
    {
        var ada = await app.SignedInAsync();
        var calendar = await CalendarAsync(ada);
        var made = await ada.DoAsync(HttpMethod.Post, "/api/editions",
            new { isOut = true, edition = new { name = "Without anything", sources = new[] { new { calendarId = calendar.Id } } } });
        var page = new Uri((string)made["addresses"]!["page"]!).AbsolutePath;
        await app.Test.Database.ExecuteAsync(
            "delete from edition_source where edition_id = @id", new { id = Guid.Parse((string)made["id"]!) });
        await app.Test.Database.ExecuteAsync(
            "update edition set content_version = content_version + 1 where id = @id", new { id = Guid.Parse((string)made["id"]!) });
        app.Clock.Advance(Duration.FromMinutes(2));
        await ValtroApp.EventuallyAsync(
            async () => !(await TextAsync($"{page}.ics")).Contains("BEGIN:VEVENT", StringComparison.Ordinal), "It still has events.");
        await TextAsync(page);
        await TextAsync($"{page}.json");
        await TextAsync($"{page}.atom");
    }

    /// <summary>Each raised by a trigger, so that it comes from the database itself: a full disk, a statement that took too long, a
    /// deadlock.</summary>
    [Theory]
    [InlineData("fetcher", "53100")]
    [InlineData("fetcher", "40P01")]
    [InlineData("work", "57014")]
    [InlineData("artefact", "53100")]
    public async Task A_fault_in_what_is_done_behind_requests_stops_nothing(string table, string state)
    {
        var ada = await app.SignedInAsync();
        var calendar = await CalendarAsync(ada);
        await WaitForAsync(ada, calendar.Id, "upToDate");
        // A sequence counts on, whatever becomes of the transaction.
        await app.Test.Database.ExecuteAsync($"""
            create sequence if not exists faults; alter sequence faults restart; grant all on sequence faults to public;
            create or replace function fail_{table}() returns trigger language plpgsql as $$ begin perform nextval('faults'); raise exception 'as if' using errcode = '{state}'; end $$;
            create trigger fail before insert or update or delete on {table} for each statement execute function fail_{table}()
            """);
        try
        {
            await TextAsync(calendar.Feed);
            if (table == "artefact")
                await ada.DoAsync(HttpMethod.Post, "/api/events", Caller.Event(calendar.Id, "During the fault"));
            await app.Test.Database.ExecuteAsync("notify valtro, 'work'");
            await ValtroApp.EventuallyAsync(async () =>
            {
                await TextAsync(calendar.Feed);
                return await app.Test.Database.FirstAsync<bool>("select is_called from faults");
            }, "Nothing failed.");
        }
        finally
        {
            await app.Test.Database.ExecuteAsync($"drop trigger fail on {table}");
        }
        await ada.DoAsync(HttpMethod.Post, "/api/events", Caller.Event(calendar.Id, "After the fault"));
        await ValtroApp.EventuallyAsync(
            async () => (await TextAsync(calendar.Feed)).Contains("After the fault", StringComparison.Ordinal), "It never went out.");
        await WaitForAsync(ada, calendar.Id, "upToDate");
        Assert.Equal("alive", await TextAsync("/healthz"));
    }

    [Fact]
    public async Task A_server_that_starts_before_its_database_waits_says_so_and_comes_up()
    {
        await app.Test.StopAsync();
        await using var early = app.Node();
        try
        {
            Assert.Equal("alive", await TextAsync("/healthz", early));
            var ready = await GetAsync("/readyz", early);
            Assert.Equal(HttpStatusCode.ServiceUnavailable, ready.StatusCode);
            Assert.Contains("database", await ready.Content.ReadAsStringAsync(), StringComparison.Ordinal);
            var page = await GetAsync("/c/pinewick/port-watch", early);
            Assert.Equal((HttpStatusCode.ServiceUnavailable, true), (page.StatusCode, page.Headers.RetryAfter is not null));
            Assert.Equal(HttpStatusCode.ServiceUnavailable, (await GetAsync("/api/session", early)).StatusCode);
        }
        finally
        {
            await app.Test.StartAsync();
        }
        await early.Services.GetRequiredService<Startup>().Ready.WaitAsync(TimeSpan.FromSeconds(20));
        await TextAsync("/c/pinewick/port-watch", early);
        await TextAsync("/readyz", early);
    }

    // ---- one rendering, however many ask

    [Fact]
    public async Task Sixty_four_readers_who_ask_at_once_after_a_change_cost_one_rendering_on_two_nodes()
    {
        await using var other = await app.StartAsync();
        var ada = await app.SignedInAsync();
        var calendar = await CalendarAsync(ada);
        await WaitForAsync(ada, calendar.Id, "upToDate");
        await TextAsync(calendar.Feed, other);
        await AllRenderedAsync();

        using var renderings = new Renderings(app.Factory, other);
        await ada.DoAsync(HttpMethod.Post, "/api/events", Caller.Event(calendar.Id, "For all of them"));
        var feeds =
            await Task.WhenAll(Enumerable.Range(0, 64).Select(number => TextAsync(calendar.Feed, number % 2 == 0 ? app.Factory : other)));
        await AllRenderedAsync();
        // The calendar's own, and that of the edition that takes all.
        Assert.Equal(2, renderings.Of("feed"));
        Assert.All(feeds.Where((_, number) => number % 2 == 0), feed => Assert.Contains("For all of them", feed, StringComparison.Ordinal));
        await ValtroApp.EventuallyAsync(async () => (await TextAsync(calendar.Feed, other))
            .Contains("For all of them", StringComparison.Ordinal), "The other node never heard of it.");
        Assert.Equal(2, renderings.Of("feed"));
    }

    /// <summary>Waits until all that changed went out, of every edition.</summary>
    private Task AllRenderedAsync() => ValtroApp.EventuallyAsync(
        async () => await app.Test.Database.FirstAsync<long>("select count(*) from work where kind = 'render' and due_at <= @now",
            new { now = app.Clock.GetCurrentInstant() }) == 0, "There is always something to render.");

    [Fact]
    public async Task Made_up_plates_make_no_work_and_real_ones_make_it_once()
    {
        await using var strict = await app.StartAsync(publicWorkPerMinute: 6);
        var page = "/c/pinewick/juniors-for-families";
        await TextAsync($"{page}.ics", strict);
        using var renderings = new Renderings(strict);
        foreach (var only in new[] { "PW", "pw", "PW,PW,NOPE", " PW " })
            Assert.Contains(
                "BEGIN:VEVENT", await TextAsync($"{page}.ics?only={Uri.EscapeDataString(only)}", strict), StringComparison.Ordinal);
        Assert.Equal(1, renderings.Of("feed"));
        // All of them is the feed itself.
        await TextAsync($"{page}.ics?only=PW,SW,SCH,ROW", strict);
        // Whoever makes up names gets nothing, and soon no answer.
        var caller = new Caller(strict).Http;
        var answers = new List<HttpStatusCode>();
        foreach (var number in Enumerable.Range(0, 40))
            answers.Add((await caller.GetAsync($"{page}.ics?only=X{number}")).StatusCode);
        Assert.Equal(HttpStatusCode.NotFound, answers[0]);
        Assert.Equal(HttpStatusCode.TooManyRequests, answers[^1]);
        Assert.Equal(1, renderings.Of("feed"));
    }

    [Fact]
    public async Task A_whole_school_behind_one_address_gets_its_page_and_who_makes_up_addresses_does_not()
    {
        await using var strict = await app.StartAsync(publicWorkPerMinute: 30);
        await TextAsync("/c/pinewick/port-watch", strict);
        var caller = new Caller(strict).Http;
        foreach (var _ in Enumerable.Range(0, 1_500))
            Assert.Equal(HttpStatusCode.OK, (await caller.GetAsync("/c/pinewick/port-watch.ics")).StatusCode);
        var answers = new List<HttpStatusCode>();
        foreach (var number in Enumerable.Range(0, 60))
            answers.Add((await caller.GetAsync($"/c/pinewick/made-up-{number}")).StatusCode);
        Assert.Equal(HttpStatusCode.NotFound, answers[0]);
        Assert.Equal(HttpStatusCode.TooManyRequests, answers[^1]);
        // What is there already costs nothing.
        Assert.Equal(HttpStatusCode.OK, (await caller.GetAsync("/c/pinewick/port-watch")).StatusCode);
    }

    // ---- a database that is away, or slow

    [Fact]
    public async Task While_the_database_is_away_readers_get_the_last_good_copy_with_its_age_and_for_a_day_at_most()
    {
        var ada = await app.SignedInAsync();
        var calendar = await CalendarAsync(ada);
        await TextAsync(calendar.Feed);
        await TextAsync(calendar.Page);
        await app.Test.StopAsync();
        try
        {
            app.Clock.Advance(Duration.FromMinutes(5));
            await ValtroApp.EventuallyAsync(
                async () => (await GetAsync(calendar.Feed)).Headers.Age is { TotalSeconds: >= 300 }, "It never said how old it is.");
            Assert.Contains("Sail repair", await TextAsync(calendar.Page), StringComparison.Ordinal);
            app.Clock.Advance(Duration.FromHours(24));
            var gone = await GetAsync(calendar.Feed);
            Assert.Equal((HttpStatusCode.ServiceUnavailable, true), (gone.StatusCode, gone.Headers.RetryAfter is not null));
        }
        finally
        {
            await app.Test.StartAsync();
        }
        await ValtroApp.EventuallyAsync(
            async () => await GetAsync(calendar.Feed) is { StatusCode: HttpStatusCode.OK, Headers.Age: null }, "It never came back.");
    }

    [Fact]
    public async Task What_was_to_disappear_by_itself_is_not_shown_while_the_database_is_away()
    {
        var ada = await app.SignedInAsync();
        var calendar = await CalendarAsync(ada);
        var form = Caller.Event(calendar.Id, "For today only");
        form["showUntil"] =
            app.Clock.GetCurrentInstant().InZone(DateTimeZoneProviders.Tzdb["America/Halifax"]).Date.ToString("uuuu-MM-dd", null);
        await ada.DoAsync(HttpMethod.Post, "/api/events", form);
        Assert.Contains("For today only", await TextAsync(calendar.Feed), StringComparison.Ordinal);
        await app.Test.StopAsync();
        try
        {
            app.Clock.Advance(Duration.FromHours(23));
            await ValtroApp.EventuallyAsync(
                async () => (await GetAsync(calendar.Feed)).StatusCode == HttpStatusCode.ServiceUnavailable, "It is still shown.");
        }
        finally
        {
            await app.Test.StartAsync();
        }
        await ValtroApp.EventuallyAsync(async () => (await GetAsync(calendar.Feed)).StatusCode == HttpStatusCode.OK, "It never came back.");
        Assert.DoesNotContain("For today only", await TextAsync(calendar.Feed), StringComparison.Ordinal);
    }

    [Fact]
    public async Task A_slow_database_is_waited_for_two_seconds_and_then_the_last_good_copy_is_good_enough()
    {
        var ada = await app.SignedInAsync();
        var calendar = await CalendarAsync(ada);
        await WaitForAsync(ada, calendar.Id, "upToDate");
        await TextAsync(calendar.Feed);
        HttpResponseMessage old;
        await using (await HoldAsync("revision"))
        {
            // Announced by another node, which is slow too: the new version is there, and cannot be rendered.
            var hold = await HoldAsync("event");
            await app.Test.Database.ExecuteAsync("""
                update edition set content_version = content_version + 1 where calendar_id = @id;
                select pg_notify('valtro', 'changed ' || id || ' ' || content_version || ' 0') from edition where calendar_id = @id
                """, new { id = Guid.Parse(calendar.Id) });
            await ValtroApp.EventuallyAsync(async () => (await GetAsync(calendar.Feed)).Headers.Age is not null, "It was not noticed.");
            var began = TimeProvider.System.GetTimestamp();
            old = await GetAsync(calendar.Feed);
            Assert.InRange(TimeProvider.System.GetElapsedTime(began), TimeSpan.Zero, TimeSpan.FromSeconds(2.5));
            await hold.DisposeAsync();
        }
        Assert.Equal(HttpStatusCode.OK, old.StatusCode);
        Assert.Contains("Sail repair", await old.Content.ReadAsStringAsync(), StringComparison.Ordinal);
        await ValtroApp.EventuallyAsync(async () => await GetAsync(calendar.Feed) is { StatusCode: HttpStatusCode.OK, Headers.Age: null },
            "It never became right again.");
    }

    [Theory]
    [InlineData("rendering throws")]
    [InlineData("the database is slow")]
    public async Task What_was_closed_is_never_served_again_on_any_node_whatever_fails(string fault)
    {
        await using var other = await app.StartAsync();
        var nodes = new[] { app.Factory, other };
        var ada = await app.SignedInAsync();
        var (closed, beside) = (await CalendarAsync(ada, title: "Kept for us"), await CalendarAsync(ada, title: "For all"));
        var made = await ada.DoAsync(HttpMethod.Post, "/api/editions",
            new
            {
                isOut = true,
                edition =
                new { name = $"Both, {fault}", sources = new[] { closed, beside }.Select(calendar => new { calendarId = calendar.Id }) }
            });
        var both = new Uri((string)made["addresses"]!["page"]!).AbsolutePath;
        string[] addresses = [closed.Feed, closed.Page, $"{closed.Page}.json", $"{both}.ics", both, $"{both}.json", $"{both}/embed",
            $"{both}.ics?only={closed.Plate}"];
        foreach (var node in nodes)
        {
            foreach (var address in addresses)
                Assert.Contains("Kept for us", await TextAsync(address, node), StringComparison.Ordinal);
        }
        await WaitForAsync(ada, closed.Id, "upToDate");

        IAsyncDisposable? hold = null;
        if (fault == "rendering throws")
            await app.Test.Database.ExecuteAsync(
                "update edition set settings = '{\"sources\": 5}' where id = @id or calendar_id = @calendar",
                    new { id = Guid.Parse((string)made["id"]!), calendar = Guid.Parse(closed.Id) });
        await CloseAsync(ada, closed.Id);
        if (fault == "the database is slow")
            hold = await HoldAsync("event");
        try
        {
            // Announcements take a moment to arrive elsewhere; where the calendar was closed it is closed at once.
            foreach (var address in addresses)
                await ServesNothingOldAsync(address, app.Factory);
            await ValtroApp.EventuallyAsync(async () => !await ServesOldAsync(closed.Feed, other), "The other node still serves it.");
            foreach (var round in Enumerable.Range(0, 3))
            {
                foreach (var address in addresses)
                {
                    foreach (var node in nodes)
                        await ServesNothingOldAsync(address, node);
                }
            }
        }
        finally
        {
            if (hold is not null)
                await hold.DisposeAsync();
            await app.Test.Database.ExecuteAsync(
                "delete from edition where id = @id; update edition set settings = null where calendar_id = @calendar",
                    new { id = Guid.Parse((string)made["id"]!), calendar = Guid.Parse(closed.Id) });
        }
    }

    private async Task<bool> ServesOldAsync(string address, WebApplicationFactory<EventStreams> node) =>
        (await (await GetAsync(address, node)).Content.ReadAsStringAsync()).Contains("Kept for us", StringComparison.Ordinal);

    private async Task ServesNothingOldAsync(string address, WebApplicationFactory<EventStreams> node)
    {
        var response = await GetAsync(address, node);
        Assert.DoesNotContain("Kept for us", await response.Content.ReadAsStringAsync(), StringComparison.Ordinal);
        Assert.True(response.StatusCode is HttpStatusCode.OK or HttpStatusCode.NotFound || response.Headers.RetryAfter is not null,
            $"{address} answers {response.StatusCode}");
    }

    [Fact]
    public async Task No_connection_left_is_said_with_when_to_come_again()
    {
        var ada = await app.SignedInAsync();
        await app.Test.Database.ExecuteAsync("""
            create or replace function too_many() returns trigger language plpgsql as $$ begin raise exception 'sorry, too many clients already' using errcode = '53300'; end $$;
            create trigger too_many before insert on event for each statement execute function too_many()
            """);
        try
        {
            var refused = await ada.SendAsync(HttpMethod.Post, "/api/events", Caller.Event(await ada.CalendarAsync("PW")));
            Assert.Equal((HttpStatusCode.ServiceUnavailable, true), (refused.StatusCode, refused.Headers.RetryAfter is not null));
        }
        finally
        {
            await app.Test.Database.ExecuteAsync("drop trigger too_many on event");
        }
    }

    // ---- what does not go out is shown

    /// <summary>Nothing that is rendered of a calendar's own edition can be kept.</summary>
    private Task FailToKeepAsync(Open calendar) => app.Test.Database.ExecuteAsync($"""
        create or replace function fail_to_keep() returns trigger language plpgsql as $$
        begin
            if new.edition_id = (select id from edition where calendar_id = '{calendar.Id}')
                then raise exception 'as if by a mistake'; end if;
            return new;
        end $$;
        create trigger fail before insert or update on artefact for each row execute function fail_to_keep()
        """);

    [Fact]
    public async Task Going_out_that_fails_is_shown_on_the_calendar_the_edition_the_page_for_administrators_and_in_readiness()
    {
        var ada = await app.SignedInAsync();
        var calendar = await CalendarAsync(ada);
        await WaitForAsync(ada, calendar.Id, "upToDate");
        var edition = (await ada.GetAsync("/api/editions")).AsArray().Single(one => (string?)one!["calendarId"] == calendar.Id)!;
        await FailToKeepAsync(calendar);
        await ada.DoAsync(HttpMethod.Post, "/api/events", Caller.Event(calendar.Id, "Goes nowhere"));
        await WaitForAsync(ada, calendar.Id, "failing");

        var failure = (await DeliveryAsync(ada, calendar.Id))["failure"]!;
        Assert.Equal(("ours", false), ((string)failure["reason"]!, (bool)failure["isSetAside"]!));
        Assert.NotNull(failure["since"]);
        var line = (await ada.GetAsync("/api/work")).AsArray().Single(one => (string?)one!["editionId"] == (string)edition["id"]!)!;
        Assert.Equal(("render", (string)edition["name"]!), ((string)line["kind"]!, (string)line["subject"]!));
        Assert.Contains((string)edition["id"]!, await TextAsync("/readyz"), StringComparison.Ordinal);
        Assert.Equal(HttpStatusCode.Forbidden, (await (await app.SignedInAsync("bo")).SendAsync(HttpMethod.Get, "/api/work")).StatusCode);

        await app.Test.Database.ExecuteAsync("drop trigger fail on artefact");
        await ada.SendAsync(HttpMethod.Post, "/api/work/try-again", new { kind = "render", key = (string)line["key"]! });
        await WaitForAsync(ada, calendar.Id, "upToDate");
    }

    [Fact]
    public async Task What_fails_again_and_again_is_set_aside_and_kept()
    {
        var ada = await app.SignedInAsync();
        var calendar = await CalendarAsync(ada);
        await WaitForAsync(ada, calendar.Id, "upToDate");
        await FailToKeepAsync(calendar);
        await ada.DoAsync(HttpMethod.Post, "/api/events", Caller.Event(calendar.Id, "Goes nowhere"));
        await ValtroApp.EventuallyAsync(async () =>
        {
            app.Advance(Duration.FromMinutes(1));
            return (bool?)(await DeliveryAsync(ada, calendar.Id))["failure"]?["isSetAside"] == true;
        }, "It was never set aside.");
        await app.Test.Database.ExecuteAsync("drop trigger fail on artefact");
        await ada.DoAsync(HttpMethod.Post, "/api/events", Caller.Event(calendar.Id, "Revives it"));
        await WaitForAsync(ada, calendar.Id, "upToDate");
        Assert.Contains("Goes nowhere", await TextAsync(calendar.Feed), StringComparison.Ordinal);
    }

    // ---- members who come and go

    [Fact]
    public async Task A_member_s_own_address_is_refused_as_soon_as_they_have_left_on_every_node()
    {
        await using var other = await app.StartAsync();
        var (ada, em) = (await app.SignedInAsync(), await app.SignedInAsync("em"));
        var staff =
            (await ada.GetAsync("/api/editions")).AsArray().Single(edition => (string)edition!["name"]! == "Everything, for the staff")!;
        var own = new Uri((string)(await em.DoAsync(HttpMethod.Post, $"/api/editions/{staff["id"]}/link", new { }))["feed"]!).AbsolutePath;
        string[] addresses = [own, .. new[] { ".ifb", ".csv", "/v1.json", ".jcal" }.Select(form => own.Replace(".ics", form))];
        foreach (var address in addresses)
            await TextAsync(address);
        await TextAsync(own, other);
        var person =
            (await ada.GetAsync("/api/people"))["members"]!.AsArray().Single(member => (string)member!["email"]! == "em@pinewick.example")!;
        (await ada.SendAsync(HttpMethod.Delete, $"/api/people/{person["id"]}")).EnsureSuccessStatusCode();
        foreach (var address in addresses)
            Assert.Equal(HttpStatusCode.NotFound, (await GetAsync(address)).StatusCode);
        await ValtroApp.EventuallyAsync(
            async () => (await GetAsync(own, other)).StatusCode == HttpStatusCode.NotFound, "The other node still serves it.");
    }
}
