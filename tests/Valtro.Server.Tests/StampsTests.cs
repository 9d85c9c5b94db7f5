using System.Net;
using System.Text.Json.Nodes;
using NodaTime;
using Valtro.Application;
using Foreign = Ical.Net;

namespace Valtro.Server.Tests;

/// <summary>What goes out keeps its word: numbers, names and addresses as subscribers see them.</summary>
public sealed class StampsTests(ValtroApp app) : IClassFixture<ValtroApp>
{
    private async Task<(string Path, string Id, JsonObject Draft)> EditionAsync(Caller ada, string name, Action<JsonObject>? with,
        params string[] plates)
    {
        var sources = new JsonArray();
        foreach (var plate in plates)
            sources.Add(new JsonObject { ["calendarId"] = await ada.CalendarAsync(plate) });
        var draft = new JsonObject { ["name"] = name, ["sources"] = sources };
        with?.Invoke(draft);
        var made = await ada.DoAsync(HttpMethod.Post, "/api/editions", new { isOut = true, edition = draft });
        return (new Uri((string)made["addresses"]!["page"]!).AbsolutePath, (string)made["id"]!, draft);
    }

    /// <summary>As they are now: an act has been heard of, and a second has passed.</summary>
    private async Task<string> FeedAsync(string path, string rest = "")
    {
        app.Clock.Advance(Duration.FromSeconds(2));
        return await app.Reader().Http.GetStringAsync($"{path}.ics{rest}");
    }

    private static Foreign.CalendarComponents.CalendarEvent Of(string feed, string title, bool isMaster = true) =>
        Foreign.Calendar.Load(feed)!.Events.Single(one =>
            one.Summary!.EndsWith(title, StringComparison.Ordinal) && one.RecurrenceIdentifier is null == isMaster);

    private static JsonObject Form(JsonNode seen, string calendarId, Action<JsonObject> change)
    {
        var form = Caller.Event(calendarId, (string)seen["title"]!, (string)seen["date"]!);
        change(form);
        return form;
    }

    [Fact]
    public async Task Undoing_a_change_of_notes_alone_changes_no_public_byte()
    {
        var ada = await app.SignedInAsync();
        var calendar = await ada.CalendarAsync("CREW");
        var made = await ada.DoAsync(HttpMethod.Post, "/api/events", Caller.Event(calendar, "Notes alone"));
        var before = await FeedAsync("/c/pinewick/senior-crew");
        var act = await ada.ChangeAsync(made, "edit", Form(made, calendar, form => form["notes"] = "Nobody outside reads this"));
        Assert.Equal(before, await FeedAsync("/c/pinewick/senior-crew"));
        await ada.DoAsync(HttpMethod.Post, $"/api/acts/{act["actId"]}/undo");
        Assert.Equal(before, await FeedAsync("/c/pinewick/senior-crew"));
        Assert.Equal(0, Of(before, "Notes alone").Sequence);
    }

    [Fact]
    public async Task A_narrower_cap_never_lowers_a_number()
    {
        var ada = await app.SignedInAsync();
        var calendar = await ada.CalendarAsync("PW");
        var made = await ada.DoAsync(HttpMethod.Post, "/api/events", Caller.Event(calendar, "Narrower", description: "<p>One</p>"));
        var numbers = new List<int> { Of(await FeedAsync("/c/pinewick/port-watch"), "Narrower").Sequence };
        var version = 1;
        foreach (var change in new Action<JsonObject>[]
        {
            form => form["description"] = "<p>Two</p>",
            form => form["description"] = "<p>Three</p>",
            form => (form["description"], form["cap"]) = ("<p>Three</p>", new JsonObject { ["everyone"] = "headline" }),
            form => form["description"] = "<p>Three</p>",
        })
        {
            await ada.ChangeAsync(made, "edit", Form(made, calendar, change), version: version++);
            numbers.Add(Of(await FeedAsync("/c/pinewick/port-watch"), "Narrower").Sequence);
        }
        Assert.Equal([0, 1, 2, 3, 4], numbers);
    }

    [Fact]
    public async Task A_renamed_plate_a_changed_title_and_a_hidden_place_raise_number_and_time()
    {
        var ada = await app.SignedInAsync();
        var (path, id, draft) = await EditionAsync(ada, "Raising", null, "SW", "SCH");
        var subscribed = await FeedAsync(path, "?only=SW");
        var seen = new List<(int, DateTime)> { Stamp(await FeedAsync(path)) };
        app.Clock.Advance(Duration.FromSeconds(5));
        await RenameAsync(ada, "SW", "STAR");
        seen.Add(Stamp(await FeedAsync(path)));
        app.Clock.Advance(Duration.FromSeconds(5));
        draft["title"] = new JsonArray(
            new JsonObject { ["piece"] = "title" }, new JsonObject { ["text"] = " · " }, new JsonObject { ["piece"] = "calendar" });
        await ada.DoAsync(HttpMethod.Put, $"/api/editions/{id}", new { edition = draft, version = 1 });
        seen.Add(Stamp(await FeedAsync(path)));
        app.Clock.Advance(Duration.FromSeconds(5));
        draft["fields"] = new JsonArray("category", "picture", "description", "links", "files", "contact");
        await ada.DoAsync(HttpMethod.Put, $"/api/editions/{id}", new { edition = draft, version = 2 });
        seen.Add(Stamp(await FeedAsync(path)));
        Assert.Equal([0, 1, 2, 3], seen.Select(one => one.Item1));
        Assert.Equal(seen.Select(one => one.Item2).Distinct().Order(), seen.Select(one => one.Item2));

        // Whoever subscribed by the old plate still gets that calendar, whatever is called so now.
        await RenameAsync(ada, "PW", "SW");
        var after = await FeedAsync(path, "?only=SW");
        Assert.Equal(Foreign.Calendar.Load(subscribed)!.Events.Select(one => (one.Uid, one.RecurrenceIdentifier?.StartTime.Value)).Order(),
            Foreign.Calendar.Load(after)!.Events.Select(one => (one.Uid, one.RecurrenceIdentifier?.StartTime.Value)).Order());
        await RenameAsync(ada, "SW", "PW");
        await RenameAsync(ada, "STAR", "SW");

        (int, DateTime) Stamp(string feed) =>
            Foreign.Calendar.Load(feed)!.Events.First(one => one.Summary!.Contains("Tide quiz", StringComparison.Ordinal)
                || one.Summary!.Contains("Boat lab", StringComparison.Ordinal)) is var one
            ? (one.Sequence, one.LastModified!.Value) : default;
    }

    private static async Task RenameAsync(Caller ada, string plate, string becomes)
    {
        var calendar = (await ada.CalendarNodeAsync(plate)).AsObject();
        await ada.DoAsync(HttpMethod.Put, $"/api/calendars/{calendar["id"]}", new
        {
            name = calendar["name"],
            plate = becomes,
            colour = calendar["colour"],
            zone = calendar["zone"],
            description = calendar["description"],
            disclosure = calendar["disclosure"],
            version = calendar["version"],
            readerships = calendar["readerships"],
            requiresSignOff = calendar["requiresSignOff"],
        });
    }

    [Fact]
    public async Task A_note_that_nobody_sees_changes_neither_the_feed_nor_what_is_narrowed_from_it()
    {
        var ada = await app.SignedInAsync();
        var (path, _, _) = await EditionAsync(ada, "Unmoved", null, "PW", "SCH");
        var calendar = await ada.CalendarAsync("PW");
        var made = await ada.DoAsync(HttpMethod.Post, "/api/events", Caller.Event(calendar, "Unmoved one"));
        var (whole, narrowed) = (await FeedAsync(path), await FeedAsync(path, "?only=port-watch"));
        await ada.ChangeAsync(made, "edit", Form(made, calendar, form => form["notes"] = "Invisible"));
        Assert.Equal((whole, narrowed), (await FeedAsync(path), await FeedAsync(path, "?only=port-watch")));
        // Narrowed, it has the same components under a head of its own.
        Assert.Equal(Components(whole).Where(one => one.Contains("PW ", StringComparison.Ordinal)).Order(StringComparer.Ordinal),
            Components(narrowed).Order(StringComparer.Ordinal));
        Assert.Contains("only=port-watch", narrowed.Replace("\r\n ", "", StringComparison.Ordinal), StringComparison.Ordinal);

        static IEnumerable<string> Components(string feed) =>
            feed.Split("BEGIN:VEVENT\r\n").Skip(1).Select(one => one.Replace("END:VCALENDAR\r\n", "", StringComparison.Ordinal));
    }

    [Fact]
    public async Task Of_two_look_alikes_that_were_one_the_other_keeps_the_name_that_readers_know()
    {
        var ada = await app.SignedInAsync();
        var (port, starboard) = (await ada.CalendarAsync("PW"), await ada.CalendarAsync("SW"));
        var (path, _, _) = await EditionAsync(ada, "Twins", null, "PW", "SW");
        var first = await ada.DoAsync(HttpMethod.Post, "/api/events", Caller.Event(port, "Twin"));
        var uid = Of(await FeedAsync(path), "Twin").Uid;
        var second = await ada.DoAsync(HttpMethod.Post, "/api/events", Caller.Event(starboard, "Twin"));
        Assert.Equal((uid, "PW SW Twin"), (Of(await FeedAsync(path), "Twin").Uid, Of(await FeedAsync(path), "Twin").Summary));
        var removed = await ada.ChangeAsync(first, "remove");
        Assert.Equal((uid, "SW Twin"), (Of(await FeedAsync(path), "Twin").Uid, Of(await FeedAsync(path), "Twin").Summary));
        await ada.DoAsync(HttpMethod.Post, $"/api/acts/{removed["actId"]}/undo");
        Assert.Equal(uid, Of(await FeedAsync(path), "Twin").Uid);
        // They part: the one whose own it is keeps it.
        await ada.ChangeAsync(second, "edit", Form(second, starboard, form => form["title"] = "Twin no more"));
        var apart = await FeedAsync(path);
        Assert.Equal(uid, Of(apart, "Twin").Uid);
        Assert.NotEqual(uid, Of(apart, "Twin no more").Uid);
    }

    [Fact]
    public async Task A_feed_of_dates_has_the_entries_of_the_page_and_each_keeps_its_name_through_a_move_and_a_split()
    {
        var ada = await app.SignedInAsync();
        var calendar = await ada.CalendarAsync("SCH");
        var (path, _, _) = await EditionAsync(ada, "By date", draft => (draft["feed"], draft["withBreaks"], draft["sources"]) =
            ("dates", true,
                new JsonArray(
                    new JsonObject
                    {
                        ["calendarId"] = calendar,
                        ["filter"] = new JsonObject { ["mode"] = "only", ["text"] = "Watch keeping" }
                    })), "SCH");
        var made = await ada.DoAsync(HttpMethod.Post, "/api/events",
            Caller.Event(calendar, "Watch keeping",
                repeat: new
                {
                    pattern = "weekly",
                    interval = 1,
                    weekdays = new[] { 3 },
                    ends = "after",
                    until = (string?)null,
                    count = 4
                }));
        var before = Dates(await FeedAsync(path));
        Assert.Equal(4, before.Length);
        Assert.All(Foreign.Calendar.Load(await FeedAsync(path))!.Events, one => Assert.Null(one.RecurrenceRule));
        Assert.Contains("SUMMARY:Winter break", await FeedAsync(path), StringComparison.Ordinal);
        // All one day later.
        await ada.ChangeAsync(made, "edit", Form(made, calendar, form => (form["date"], form["repeat"]) = ("2026-11-26", Repeat(4))));
        var moved = Dates(await FeedAsync(path));
        Assert.Equal(before.Select(one => (one.Uid, one.Start.AddDays(1))), moved.Select(one => (one.Uid, one.Start)));
        // From the third on an hour later.
        await ada.ChangeAsync(made, "edit",
            Form(made, calendar,
                form => (form["date"], form["from"], form["to"], form["repeat"]) = ("2026-12-10", "15:00:00", "16:00:00", Repeat(4))),
                    scope: "later", date: "2026-12-10T14:00:00", version: 2);
        var split = Dates(await FeedAsync(path));
        Assert.Equal(
            moved.Select((one, index) => (one.Uid, one.Start.AddHours(index < 2 ? 0 : 1))), split.Select(one => (one.Uid, one.Start)));

        static JsonNode Repeat(int weekday) =>
            System.Text.Json.JsonSerializer.SerializeToNode(
                new { pattern = "weekly", interval = 1, weekdays = new[] { weekday }, ends = "after", until = (string?)null, count = 4 },
                    Json.Options)!;
        static (string Uid, DateTime Start)[] Dates(string feed) =>
            [.. Foreign.Calendar.Load(feed)!.Events.Where(one => one.Summary!.Contains("Watch keeping", StringComparison.Ordinal))
                .Select(one => (one.Uid!, one.Start!.Value)).OrderBy(one => one.Value)];
    }

    [Theory]
    [InlineData("series")]
    [InlineData("dates")]
    public async Task Breaks_concern_every_calendar_of_a_feed(string form)
    {
        var ada = await app.SignedInAsync();
        var (path, _, _) =
            await EditionAsync(ada, $"Breaks for all, {form}", draft => (draft["feed"], draft["withBreaks"]) = (form, true), "PW", "SW");
        var narrowed = await FeedAsync(path, "?only=port-watch");
        Assert.Equal(Of(await FeedAsync(path), "Winter break").Uid, Of(narrowed, "Winter break").Uid);
        Assert.DoesNotContain("SUMMARY:SW ", narrowed, StringComparison.Ordinal);
    }

    [Fact]
    public async Task A_feed_of_dates_heeds_limit_and_past()
    {
        var ada = await app.SignedInAsync();
        var (path, _, _) = await EditionAsync(ada, "Next three",
            draft => (draft["feed"], draft["limit"], draft["window"]) =
                ("dates", 3, new JsonObject { ["from"] = "now", ["to"] = "open", ["withPast"] = false }), "PW", "SW");
        var feed = Foreign.Calendar.Load(await FeedAsync(path))!.Events;
        var page = JsonNode.Parse(await app.Reader().Http.GetStringAsync($"{path}.json?month=all"))!["entries"]!.AsArray();
        Assert.Equal(3, feed.Count);
        Assert.Equal(
            page.Select(
                entry => DateTimeOffset.Parse((string)entry!["start"]!, System.Globalization.CultureInfo.InvariantCulture).UtcDateTime)
                    .Order(), feed.Select(one => one.Start!.AsUtc).Order());
    }

    [Theory]
    [InlineData("dates")]
    [InlineData("series")]
    public async Task Of_busy_times_nothing_shows_which_belong_together(string form)
    {
        var ada = await app.SignedInAsync();
        var (busy, _, _) = await EditionAsync(ada, $"Busy {form}", draft => (draft["feed"], draft["cap"]) = (form, "times"), "SLIP");
        var feed = await FeedAsync(busy);
        var events = Foreign.Calendar.Load(feed)!.Events;
        Assert.True(events.Count > 3);
        Assert.Equal(events.Count, events.Select(one => one.Uid).Distinct().Count());
        Assert.All(events, one => Assert.Equal((null, null, "Busy"), (one.RecurrenceIdentifier, one.RecurrenceRule, one.Summary)));
        // Another rendering knows each by the same name.
        await ada.DoAsync(HttpMethod.Post, "/api/events", Caller.Event(await ada.CalendarAsync("SLIP"), "One more", "2026-12-01"));
        var after = Foreign.Calendar.Load(await FeedAsync(busy))!.Events;
        Assert.Equal(events.Count + 1, after.Count);
        Assert.Subset(after.Select(one => one.Uid!).ToHashSet(), events.Select(one => one.Uid!).ToHashSet());
        var entries = JsonNode.Parse(await app.Reader().Http.GetStringAsync($"{busy}.json?month=2026-11"))!["entries"]!.AsArray();
        Assert.All(entries, entry => Assert.DoesNotContain('/', (string)entry!["id"]!));
    }

    [Fact]
    public async Task A_series_feed_has_the_breaks_as_whole_days_where_the_page_shows_them()
    {
        var ada = await app.SignedInAsync();
        var (path, _, _) = await EditionAsync(ada, "With breaks", draft => draft["withBreaks"] = true, "SCH");
        var winter = Of(await FeedAsync(path), "Winter break");
        Assert.Equal((true, "TRANSPARENT"), (winter.IsAllDay, winter.Transparency));
        Assert.Equal(winter.Uid, Of(await FeedAsync(path), "Winter break").Uid);
        Assert.DoesNotContain("Winter break", await FeedAsync("/c/pinewick/whole-school"), StringComparison.Ordinal);
    }

    [Fact]
    public async Task A_feed_narrowed_to_what_has_left_is_valid_empty_and_says_so()
    {
        var ada = await app.SignedInAsync();
        var (path, id, draft) = await EditionAsync(ada, "Leaving", null, "PW", "SW");
        Assert.NotEmpty(Foreign.Calendar.Load(await FeedAsync(path, "?only=starboard-watch"))!.Events);
        draft["sources"] = new JsonArray(new JsonObject { ["calendarId"] = await ada.CalendarAsync("PW") });
        await ada.DoAsync(HttpMethod.Put, $"/api/editions/{id}", new { edition = draft, version = 1 });
        foreach (var name in new[] { "starboard-watch", "SW" })
        {
            var left = await FeedAsync(path, $"?only={name}");
            Assert.Empty(Foreign.Calendar.Load(left)!.Events);
            Assert.Contains("no longer part of it", left.Replace("\r\n ", "", StringComparison.Ordinal), StringComparison.Ordinal);
            Assert.Contains("BEGIN:VTIMEZONE", left, StringComparison.Ordinal);
        }
        Assert.NotEmpty(Foreign.Calendar.Load(await FeedAsync(path, "?only=starboard-watch,PW"))!.Events);
        Assert.Equal(HttpStatusCode.NotFound, (await app.Reader().Http.GetAsync($"{path}.ics?only=never-here")).StatusCode);
    }

    [Fact]
    public async Task Files_of_two_dates_do_not_replace_each_other_and_have_validators()
    {
        var ada = await app.SignedInAsync();
        var calendar = await ada.CalendarAsync("PW");
        await ada.DoAsync(HttpMethod.Post, "/api/events", Caller.Event(calendar, "Twice a file", repeat: Caller.Weekly(3)));
        app.Clock.Advance(Duration.FromSeconds(2));
        var entries = JsonNode.Parse(
            await app.Reader().Http.GetStringAsync("/c/pinewick/port-watch.json?month=2026-12"))!["entries"]!.AsArray()
                .Where(entry => (string)entry!["title"]! == "Twice a file").Take(2).Select(entry => (string)entry!["id"]!).ToArray();
        await app.Reader().Http.GetStringAsync("/c/pinewick/port-watch.ics");
        app.Clock.Advance(Duration.FromSeconds(2));
        var files = new List<Foreign.CalendarComponents.CalendarEvent>();
        foreach (var entry in entries)
        {
            var answer = await app.Reader().Http.GetAsync($"/c/pinewick/port-watch/entries/{entry}.ics");
            files.Add(Assert.Single(Foreign.Calendar.Load(await answer.Content.ReadAsStringAsync())!.Events));
            Assert.NotNull(answer.Content.Headers.LastModified);
            using var again = new HttpRequestMessage(HttpMethod.Get, $"/c/pinewick/port-watch/entries/{entry}.ics");
            again.Headers.IfNoneMatch.Add(answer.Headers.ETag!);
            Assert.Equal(HttpStatusCode.NotModified, (await app.Reader().Http.SendAsync(again)).StatusCode);
        }
        Assert.NotEqual(files[0].Uid, files[1].Uid);
        Assert.NotEqual(files[0].Start, files[1].Start);
        Assert.All(files, file => Assert.Null(file.RecurrenceRule));
    }

    [Fact]
    public async Task An_entry_s_address_leads_to_where_it_is_and_says_what_moved_and_to_410_once_it_is_gone()
    {
        var ada = await app.SignedInAsync();
        var calendar = await ada.CalendarAsync("PW");
        var made = await ada.DoAsync(HttpMethod.Post, "/api/events", Caller.Event(calendar, "Wanderer", repeat: Caller.Weekly(3)));
        app.Clock.Advance(Duration.FromSeconds(2));
        var id = JsonNode.Parse(await app.Reader().Http.GetStringAsync("/c/pinewick/port-watch.json?month=2026-12"))!["entries"]!.AsArray()
            .Where(entry => (string)entry!["title"]! == "Wanderer")
            .Select(entry => (string)entry!["id"]!)
            .First(one => one.EndsWith("2026-12-09T14:00:00", StringComparison.Ordinal));
        var page = $"/c/pinewick/port-watch/entries/{id}";
        Assert.DoesNotContain("entry-moved", await PageAsync(page), StringComparison.Ordinal);
        // The series goes to Thursday, then the date seen alone to Friday, then it is split.
        await ada.ChangeAsync(made, "edit", Form(made, calendar, form => (form["date"], form["repeat"]) = ("2026-11-26", Weekly(4))));
        var moved = await PageAsync(page);
        Assert.Contains("Thu", moved, StringComparison.Ordinal);
        Assert.Matches("This date was moved. It was Wed[^<]*9 Dec[^<]*14:00", moved);
        Assert.Contains("\"eventStatus\":\"https://schema.org/EventRescheduled\"", moved, StringComparison.Ordinal);
        Assert.Contains("\"previousStartDate\":\"2026-12-09T14:00", moved, StringComparison.Ordinal);
        await ada.ChangeAsync(made, "edit",
            Form(made, calendar,
                form => (form["date"], form["repeat"], form["from"], form["to"]) = ("2026-12-03", Weekly(4), "16:00:00", "17:00:00")),
                    scope: "later", date: "2026-12-03T14:00:00", version: 2);
        Assert.Contains("16:00", await PageAsync(page), StringComparison.Ordinal);
        // Nobody was ever told of a date on a Monday.
        Assert.Equal(HttpStatusCode.NotFound,
            (await app.Reader().Http.GetAsync(page.Replace("12-09", "12-07", StringComparison.Ordinal))).StatusCode);
        // Withdrawn and removed sound alike, in a place where they were; elsewhere neither was ever there.
        var other = await ada.DoAsync(HttpMethod.Post, "/api/events", Caller.Event(calendar, "Soon gone"));
        app.Clock.Advance(Duration.FromSeconds(2));
        var entry =
            JsonNode.Parse(await app.Reader().Http.GetStringAsync("/c/pinewick/port-watch.json?month=2026-11"))!["entries"]!.AsArray()
            .Single(one => (string)one!["title"]! == "Soon gone")!;
        await app.Reader().Http.GetStringAsync("/c/pinewick/port-watch.ics");
        await ada.ChangeAsync(other, "edit", Form(other, calendar, form => form["cap"] = new JsonObject { ["everyone"] = "nothing" }));
        var withdrawn = await GoneAsync($"/c/pinewick/port-watch/entries/{entry["id"]}");
        await ada.ChangeAsync(other, "edit", Form(other, calendar, _ => { }), version: 2);
        Assert.Contains("Soon gone", await PageAsync($"/c/pinewick/port-watch/entries/{entry["id"]}"), StringComparison.Ordinal);
        await ada.ChangeAsync(other, "remove", version: 3);
        Assert.Equal(withdrawn, await GoneAsync($"/c/pinewick/port-watch/entries/{entry["id"]}"));
        Assert.Contains("not in the calendar any more", withdrawn, StringComparison.Ordinal);
        Assert.Equal(
            HttpStatusCode.Gone, (await app.Reader().Http.GetAsync($"/c/pinewick/port-watch/entries/{entry["id"]}.ics")).StatusCode);
        Assert.Equal(
            HttpStatusCode.NotFound, (await app.Reader().Http.GetAsync($"/c/pinewick/starboard-watch/entries/{entry["id"]}")).StatusCode);

        static JsonNode Weekly(int weekday) => System.Text.Json.JsonSerializer.SerializeToNode(Caller.Weekly(weekday), Json.Options)!;
        async Task<string> PageAsync(string path)
        {
            app.Clock.Advance(Duration.FromSeconds(2));
            return await app.Reader().Http.GetStringAsync(path);
        }
        async Task<string> GoneAsync(string path)
        {
            app.Clock.Advance(Duration.FromSeconds(2));
            var answer = await app.Reader().Http.GetAsync(path);
            Assert.True(answer.StatusCode == HttpStatusCode.Gone, await answer.Content.ReadAsStringAsync());
            return await answer.Content.ReadAsStringAsync();
        }
    }

    [Fact]
    public async Task A_changed_look_is_another_version_of_the_page_and_a_note_is_not()
    {
        var ada = await app.SignedInAsync();
        var (path, id, draft) = await EditionAsync(ada, "Looks", null, "PW");
        var calendar = await ada.CalendarAsync("PW");
        var made = await ada.DoAsync(HttpMethod.Post, "/api/events", Caller.Event(calendar, "Seen"));
        var first = await VersionAsync();
        await ada.ChangeAsync(made, "edit", Form(made, calendar, form => form["notes"] = "Invisible"));
        Assert.Equal(first, await VersionAsync());
        draft["look"] = new JsonObject { ["palette"] = "quay" };
        await ada.DoAsync(HttpMethod.Put, $"/api/editions/{id}", new { edition = draft, version = 1 });
        Assert.NotEqual(first, await VersionAsync());

        async Task<string> VersionAsync()
        {
            app.Clock.Advance(Duration.FromSeconds(2));
            var page = await app.Reader().Http.GetStringAsync(path);
            return page[(page.IndexOf("{\"version\":\"", StringComparison.Ordinal) + 12)..][..32];
        }
    }
}
