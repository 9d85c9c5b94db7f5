using System.IO.Compression;
using System.Net;
using System.Text;
using System.Text.Json.Nodes;
using MiniExcelLibs;

namespace Valtro.Server.Tests;

/// <summary>Files of events that are brought, looked at, taken and taken back.</summary>
public sealed class IntakeTests(ValtroApp app) : IClassFixture<ValtroApp>
{
    private static string Calendar(params string[] events) => $"""
        BEGIN:VCALENDAR
        VERSION:2.0
        {string.Join('\n', events)}
        END:VCALENDAR
        """;

    private static string Event(string uid, string title, string start = "20261204T180000", string more = "") => $"""
        BEGIN:VEVENT
        UID:{uid}
        SUMMARY:{title}
        DTSTART:{start}
        {more}
        END:VEVENT
        """.Replace("\n\n", "\n", StringComparison.Ordinal);

    private static async Task<JsonNode> BringAsync(Caller caller, string file, string? calendarId, string by = "one", string name = "a.ics") =>
        await BringAsync(caller, Encoding.UTF8.GetBytes(file), calendarId, by, name);

    private static async Task<JsonNode> BringAsync(Caller caller, byte[] file, string? calendarId, string by, string name)
    {
        using var content = new ByteArrayContent(file);
        content.Headers.ContentType = new("application/octet-stream");
        var request = new HttpRequestMessage(
            HttpMethod.Post, $"/api/intake?name={name}&by={by}{(calendarId is null ? "" : $"&calendarId={calendarId}")}")
        { Content = content };
        var answer = await caller.SendAsync(request);
        Assert.Equal(HttpStatusCode.OK, answer.StatusCode);
        return await SettledAsync(caller, (string)(await Caller.ReadAsync(answer))["id"]!);
    }

    private static async Task<JsonNode> SettledAsync(Caller caller, string id)
    {
        JsonNode? now = null;
        await ValtroApp.EventuallyAsync(async () =>
        {
            now = await caller.GetAsync($"/api/intake/{id}");
            return (string)now["state"]! is not ("reading" or "saving");
        }, "a file is read or taken");
        return now!;
    }

    private static async Task<JsonNode> TakenAsync(Caller caller, JsonNode intake)
    {
        await caller.SaidAsync(HttpMethod.Post, $"/api/intake/{intake["id"]}/save");
        return await SettledAsync(caller, (string)intake["id"]!);
    }

    private static async Task<JsonNode> AnsweredAsync(Caller caller, JsonNode intake, object answers)
    {
        await caller.SaidAsync(HttpMethod.Put, $"/api/intake/{intake["id"]}/answers", answers);
        return await SettledAsync(caller, (string)intake["id"]!);
    }

    private static string Counts(JsonNode intake) =>
        string.Join(", ", intake["counts"]!.AsArray().Select(one => $"{one!["state"]} {one["all"]}/{one["taken"]}"));

    private static async Task<JsonNode[]> LinesAsync(Caller caller, JsonNode intake, string? state = null) =>
        [.. (await caller.GetAsync($"/api/intake/{intake["id"]}/lines{(state is null ? "" : $"?state={state}")}"))["lines"]!.AsArray()!];

    private static async Task<string[]> TitlesAsync(Caller caller, string calendar) =>
        [.. (await caller.GetAsync($"/api/occurrences?from=2026-12-01&to=2027-02-01&calendar={calendar}")).AsArray()
            .Select(one => $"{one!["start"]} {one["title"]}").Order(StringComparer.Ordinal)];

    [Fact]
    public async Task A_file_is_looked_at_taken_and_taken_back_and_brought_anew_changes_nothing()
    {
        var ada = await app.SignedInAsync();
        var calendar = await ada.MakeCalendarAsync("IN1");
        var file = Calendar(
            Event("one@x", "Knots"), Event("two@x", "Tides", more: "RRULE:FREQ=WEEKLY;COUNT=2"), "BEGIN:VEVENT\nUID:three@x\nEND:VEVENT");
        var brought = await BringAsync(ada, file, calendar);
        Assert.Equal("new 2/2, refused 1/0", Counts(brought));
        Assert.Empty(await TitlesAsync(ada, calendar));
        Assert.Contains("Members: all of them", (await ada.GetAsync($"/api/intake/{brought["id"]}/foreseen"))["whoSees"]!.ToJsonString());
        var taken = await TakenAsync(ada, brought);
        Assert.Equal(("done", 2), ((string)taken["state"]!, (int)taken["taken"]!));
        Assert.Equal(["2026-12-04T18:00:00-04:00 Knots", "2026-12-04T18:00:00-04:00 Tides", "2026-12-11T18:00:00-04:00 Tides"],
            await TitlesAsync(ada, calendar));

        Assert.Equal("same 2/0, refused 1/0", Counts(await BringAsync(ada, file, calendar)));
        await ada.DoAsync(HttpMethod.Post, $"/api/acts/{taken["actId"]}/undo");
        Assert.Empty(await TitlesAsync(ada, calendar));
        Assert.Equal("undone", (string)(await ada.GetAsync($"/api/intake/{brought["id"]}"))["state"]!);
        // What was taken back comes out of the bin under its old name.
        var again = await BringAsync(ada, file, calendar);
        Assert.Equal("new 2/2, refused 1/0", Counts(again));
        await TakenAsync(ada, again);
        Assert.Equal(3, (await TitlesAsync(ada, calendar)).Length);
        Assert.Equal(2, await app.Test.Database.FirstAsync<int>(
            "select count(*)::integer from event where home_calendar_id = @calendar", new { calendar = Guid.Parse(calendar) }));
    }

    [Fact]
    public async Task A_newer_file_shows_differences_only_and_what_was_changed_here_stays()
    {
        var ada = await app.SignedInAsync();
        var calendar = await ada.MakeCalendarAsync("IN2");
        await TakenAsync(ada, await BringAsync(ada, Calendar(Event("n1@x", "Knots"), Event("n2@x", "Tides")), calendar));
        var line = (await ada.GetAsync($"/api/occurrences?from=2026-12-01&to=2026-12-31&calendar={calendar}")).AsArray()
            .Single(one => (string)one!["title"]! == "Knots")!;
        // Somebody adds a note and another title here.
        var shown = await ada.GetAsync($"/api/events/{line["eventId"]}");
        var form = Caller.Event(calendar, "Knots and bends", "2026-12-04", "18:00:00");
        (form["to"], form["notes"]) = ("18:00:00", "Ask for rope");
        await ada.DoAsync(HttpMethod.Post, $"/api/events/{line["eventId"]}/changes",
            new { act = "edit", recurrenceId = "2026-12-04T18:00:00", version = (int)shown["version"]!, @event = form });
        Assert.Equal("same 2/0", Counts(await BringAsync(ada, Calendar(Event("n1@x", "Knots"), Event("n2@x", "Tides")), calendar)));

        var newer = await BringAsync(
            ada, Calendar(Event("n1@x", "Knots", more: "LOCATION:Far quay"), Event("n2@x", "Tides", "20261205T180000"), Event("n3@x", "Stars")),
            calendar);
        Assert.Equal("new 1/1, changed 2/2", Counts(newer));
        var changed = await LinesAsync(ada, newer, "changed");
        Assert.Equal(["place Far quay", "when Saturday 5 December 2026, at 18:00"], changed.SelectMany(one => one["differences"]!.AsArray())
            .Select(one => $"{one!["field"]} {one["is"]}").Order(StringComparer.Ordinal));
        await TakenAsync(ada, newer);
        var now = await ada.GetAsync($"/api/events/{line["eventId"]}");
        Assert.Equal(("Knots and bends", "Ask for rope", "Far quay"),
            ((string)now["title"]!, (string)now["notes"]!, (string)now["place"]!));
    }

    [Fact]
    public async Task What_is_on_another_calendar_already_is_shown_on_this_one_too_and_not_copied()
    {
        var ada = await app.SignedInAsync();
        var (one, other) = (await ada.MakeCalendarAsync("IN3"), await ada.MakeCalendarAsync("IN4"));
        await TakenAsync(ada, await BringAsync(ada, Calendar(Event("p1@x", "Knots")), one));
        var second = await BringAsync(ada, Calendar(Event("p1@x", "Knots")), other);
        Assert.Equal("changed 1/1", Counts(second));
        await TakenAsync(ada, second);
        var placed = (await ada.GetAsync($"/api/occurrences?from=2026-12-01&to=2026-12-31&calendar={other}")).AsArray().Single()!;
        Assert.Equal(one, (string)placed["calendarId"]!);
    }

    [Fact]
    public async Task Only_ticked_lines_are_taken_and_what_somebody_made_here_is_left_alone()
    {
        var ada = await app.SignedInAsync();
        var calendar = await ada.MakeCalendarAsync("IN5");
        await ada.DoAsync(HttpMethod.Post, "/api/events", Caller.Event(calendar, "Knots", "2026-12-04", "09:00:00"));
        var brought = await BringAsync(ada, Calendar(Event("t1@x", "Knots"), Event("t2@x", "Tides", more: "CATEGORIES:Match"),
            Event("t3@x", "Stars")), calendar);
        Assert.Equal("new 2/2, there 1/0", Counts(brought));
        var stars = (await LinesAsync(ada, brought, "new")).Single(line => (string)line["title"]! == "Stars");
        await ada.SaidAsync(HttpMethod.Put, $"/api/intake/{brought["id"]}/lines",
            new { places = new[] { (int)stars["place"]! }, states = (string[]?)null, isTaken = false });
        // What was ticked stays so when it is read anew.
        var answers = brought["answers"]!.DeepClone();
        foreach (var (name, value, left) in new (string, JsonNode, string)[] { ("until", "2026-12-03", "0"), ("text", "tid", "1"),
            ("only", new JsonArray("Match"), "1") })
        {
            var narrowed = answers.DeepClone();
            narrowed[name] = value;
            Assert.Equal(left, $"{(await LinesAsync(ada, await AnsweredAsync(ada, brought, narrowed))).Length}");
        }
        answers["until"] = "2026-12-31";
        var read = await AnsweredAsync(ada, brought, answers);
        Assert.Equal("new 2/1, there 1/0", Counts(read));
        await TakenAsync(ada, read);
        Assert.Equal(["2026-12-04T09:00:00-04:00 Knots", "2026-12-04T18:00:00-04:00 Tides"], await TitlesAsync(ada, calendar));
    }

    [Fact]
    public async Task A_sheet_is_split_by_its_columns_and_read_as_it_is_said_to_be_meant()
    {
        var ada = await app.SignedInAsync();
        var (one, other) = (await ada.MakeCalendarAsync("IN6"), await ada.MakeCalendarAsync("IN7"));
        const string sheet = "When;Start;What;Class;Kind\n3/4/2027;9:00;Knots;7B;Match\n3/4/2027;10:00;Tides;7C;Assessment\n4/4/2027;;Stars;7D;\n";
        var brought = await BringAsync(ada, sheet, null, "column", "b.csv");
        Assert.Equal("refused 3/0", Counts(brought));
        Assert.Equal(["7B", "7C", "7D"], brought["found"]!["calendars"]!.AsArray().Select(word => (string)word!["word"]!));
        var read = await AnsweredAsync(ada, brought, new
        {
            calendarBy = "column",
            dayOrder = "monthFirst",
            calendars = new object[] { new { word = "7B", id = one, isLeftOut = false }, new { word = "7C", id = other, isLeftOut = false },
                new { word = "7D", id = (string?)null, isLeftOut = true } },
        });
        Assert.Equal("new 2/2", Counts(read));
        Assert.Equal(1, (int)read["found"]!["leftOut"]!);
        var lines = await LinesAsync(ada, read);
        Assert.Equal([$"Knots {one} ", $"Tides {other} Assessment"],
            lines.Select(line => $"{line["title"]} {line["calendarId"]} {line["category"]}"));
        Assert.All(lines, line => Assert.StartsWith("Thursday 4 March 2027", (string)line["words"]!, StringComparison.Ordinal));
        await TakenAsync(ada, read);
        // The next sheet with these columns is read the same way, without being asked again.
        var next = await BringAsync(ada, sheet.Replace("9:00", "9:30", StringComparison.Ordinal), null, "column", "c.csv");
        Assert.Equal("changed 1/1, same 1/0", Counts(next));
    }

    [Fact]
    public async Task A_workbook_is_read_and_its_columns_can_be_put_right()
    {
        var ada = await app.SignedInAsync();
        var calendar = await ada.MakeCalendarAsync("IN8");
        using var book = new MemoryStream();
        book.SaveAs(new[]
        {
            new { A = "Begins", B = "Thing", C = "Remark" },
            new { A = "2026-12-04 18:00", B = "Knots", C = "Bring rope" },
        }, printHeader: false);
        var brought = await BringAsync(ada, book.ToArray(), calendar, "one", "d.xlsx");
        Assert.Equal("new 1/1", Counts(brought));
        Assert.Equal("new 1/1", Counts(await BringAsync(ada, book.ToArray(), calendar, "one", "export")));
        var read = await AnsweredAsync(ada, brought,
            new { calendarBy = "one", calendarId = calendar, columns = new[] { "date", "description", "title" }, hasHead = true });
        var line = Assert.Single(await LinesAsync(ada, read));
        Assert.Equal(("Bring rope", "Friday 4 December 2026, at 18:00"), ((string)line["title"]!, (string)line["words"]!));
    }

    [Fact]
    public async Task Nobody_sees_what_another_brings_and_only_editors_bring()
    {
        var ada = await app.SignedInAsync();
        var brought = await BringAsync(ada, Calendar(Event("s1@x", "Secret knots")), await ada.MakeCalendarAsync("IN9"));
        var bo = await app.SignedInAsync("bo");
        foreach (var path in new[] { "", "/lines", "/foreseen" })
            Assert.Equal(HttpStatusCode.NotFound, (await bo.SendAsync(HttpMethod.Get, $"/api/intake/{brought["id"]}{path}")).StatusCode);
        Assert.Equal(HttpStatusCode.NotFound, (await bo.SendAsync(HttpMethod.Delete, $"/api/intake/{brought["id"]}")).StatusCode);
        Assert.DoesNotContain("Secret", (await bo.GetAsync("/api/intake")).ToJsonString(), StringComparison.Ordinal);
        var di = await app.SignedInAsync("di");
        Assert.Equal(HttpStatusCode.Forbidden, (await di.SendAsync(HttpMethod.Post, "/api/intake/text",
            new { text = "x", by = "one", calendarId = await ada.CalendarAsync("PW") })).StatusCode);
        Assert.Equal(HttpStatusCode.BadRequest, (await bo.SendAsync(HttpMethod.Post, "/api/intake/text",
            new { text = "x", by = "one", calendarId = await ada.CalendarAsync("STF") })).StatusCode);
    }

    [Fact]
    public async Task Names_that_a_file_gives_twice_are_no_reason_to_take_nothing()
    {
        var ada = await app.SignedInAsync();
        var calendar = await ada.MakeCalendarAsync("IND");
        var file = Calendar(
            Event("d1@x", "Knots", more: "RECURRENCE-ID:20261204T180000"), Event("d1@x", "Knots", "20261204T190000", "RECURRENCE-ID:20261204T180000"),
            Event("d1@x#2026-12-04T18:00:00", "Bends"), Event("d2@x", "Tides"), Event("d2@x", "Tides", "20261205T180000"));
        var brought = await BringAsync(ada, file, calendar);
        Assert.Equal("new 4/4", Counts(brought));
        Assert.Equal("done", (string)(await TakenAsync(ada, brought))["state"]!);
        Assert.Equal("same 4/0", Counts(await BringAsync(ada, file, calendar)));
    }

    [Fact]
    public async Task What_cannot_be_read_says_why()
    {
        var ada = await app.SignedInAsync();
        var calendar = await ada.MakeCalendarAsync("INA");
        var page = await BringAsync(ada, "<html>Please sign in</html>", calendar);
        Assert.Equal(("refused", "This is neither a calendar file nor a sheet that can be read. Bring a file that ends in .ics, .csv or .xlsx."),
            ((string)page["state"]!, (string)page["problem"]!));
        using var bomb = new MemoryStream();
        using (var zip = new ZipArchive(bomb, ZipArchiveMode.Create, leaveOpen: true))
        {
            using var part = zip.CreateEntry("xl/worksheets/sheet1.xml").Open();
            part.Write("<worksheet>"u8);
        }
        Assert.Equal("refused", (string)(await BringAsync(ada, bomb.ToArray(), calendar, "one", "e.xlsx"))["state"]!);
        Assert.Equal(HttpStatusCode.BadRequest, (await ada.SendAsync(HttpMethod.Post, "/api/intake/text",
            new { text = "", by = "one", calendarId = calendar })).StatusCode);
    }

    [Fact]
    public async Task Who_saves_one_of_the_events_meanwhile_is_not_overwritten()
    {
        var ada = await app.SignedInAsync();
        var calendar = await ada.MakeCalendarAsync("INB");
        await TakenAsync(ada, await BringAsync(ada, Calendar(Event("m1@x", "Knots")), calendar));
        var newer = await BringAsync(ada, Calendar(Event("m1@x", "Bends")), calendar);
        var id = (string)(await LinesAsync(ada, newer))[0]["eventId"]!;
        var version = (int)(await ada.GetAsync($"/api/events/{id}"))["version"]!;
        await ada.DoAsync(HttpMethod.Post, $"/api/events/{id}/changes",
            new { act = "cancel", recurrenceId = "2026-12-04T18:00:00", version });
        var saved = await TakenAsync(ada, newer);
        Assert.Equal("ready", (string)saved["state"]!);
        Assert.StartsWith("Somebody saved one of these events meanwhile", (string)saved["problem"]!, StringComparison.Ordinal);
    }

    [Fact]
    public async Task An_event_in_a_zone_of_no_place_goes_out()
    {
        var ada = await app.SignedInAsync();
        var calendar = await ada.MakeCalendarAsync("INC", link: "complete");
        await TakenAsync(ada, await BringAsync(ada, Calendar(
            Event("z1@x", "Call").Replace("DTSTART:", "DTSTART;TZID=\"UTC+05:30\":", StringComparison.Ordinal)), calendar));
        Assert.Equal(["2026-12-04T08:30:00-04:00 Call"], await TitlesAsync(ada, calendar));
        var page = new Uri((string)(await ada.DoAsync(HttpMethod.Post, $"/api/calendars/{calendar}/link"))["page"]!).AbsolutePath;
        var feed = Ical.Net.Calendar.Load(await (await ValtroApp.ReadAsync(app.Reader().Http, $"{page}.ics")).Content.ReadAsStringAsync())!;
        Assert.Equal(new DateTime(2026, 12, 4, 12, 30, 0, DateTimeKind.Utc), Assert.Single(feed.Events).Start!.AsUtc);
    }
}
