using System.Net;
using System.Text.Json.Nodes;

namespace Valtro.Server.Tests;

/// <summary>Many dates changed by one act, and a year carried to the next.</summary>
public sealed class ManyAtOnceTests(ValtroApp app) : IClassFixture<ValtroApp>
{
    private static async Task<JsonNode[]> DatesAsync(Caller caller, string title) =>
        [.. (await caller.GetAsync("/api/occurrences?from=2026-11-23&to=2026-12-21")).AsArray()
            .Where(one => (string)one!["title"]! == title).Select(one => one!)];

    private static JsonObject Asked(IEnumerable<JsonNode> dates, object change, string scope = "dates") => new()
    {
        ["dates"] = new JsonArray([.. dates.Select(one => new JsonObject
        {
            ["eventId"] = (string)one["eventId"]!,
            ["recurrenceId"] = (string)one["recurrenceId"]!,
        })]),
        ["scope"] = scope,
        ["change"] = System.Text.Json.JsonSerializer.SerializeToNode(change),
    };

    private static string[] Days(IEnumerable<JsonNode> dates) => [.. dates.Select(one => ((string)one["start"]!)[..10])];

    [Fact]
    public async Task What_was_previewed_is_done_by_one_act_and_taken_back_by_one()
    {
        var ada = await app.SignedInAsync();
        var labs = (await DatesAsync(ada, "Boat lab")).Take(2).ToArray();
        var drills = (await DatesAsync(ada, "Open harbour evening")).ToArray();
        var request = Asked([.. labs, .. drills], new { act = "move", days = 1 });

        var preview = await ada.DoAsync(HttpMethod.Post, "/api/events/chosen/preview", request);
        Assert.True((bool)preview["hasSeries"]!);
        Assert.Equal(labs.Length + drills.Length, preview["lines"]!.AsArray().Count);
        var line = preview["lines"]!.AsArray().First(one => (string)one!["title"]! == "Open harbour evening")!;
        Assert.NotEmpty((string)line["becomes"]!);
        Assert.NotEqual((string)line["was"]!, (string)line["becomes"]!);

        request["seen"] = (string)preview["seen"]!;
        var done = await ada.DoAsync(HttpMethod.Post, "/api/events/chosen", request);
        var moved = await DatesAsync(ada, "Open harbour evening");
        Assert.NotEqual(Days(drills), Days(moved));
        Assert.Equal(HttpStatusCode.Conflict, (await ada.SendAsync(HttpMethod.Post, "/api/events/chosen", request)).StatusCode);

        await ada.DoAsync(HttpMethod.Post, $"/api/acts/{done["actId"]}/undo");
        Assert.Equal(Days(drills), Days(await DatesAsync(ada, "Open harbour evening")));
        Assert.Equal(Days(labs), Days((await DatesAsync(ada, "Boat lab")).Take(2)));
    }

    [Fact]
    public async Task What_is_not_theirs_is_left_out_and_named()
    {
        var bo = await app.SignedInAsync("bo");
        var all = (await bo.GetAsync("/api/occurrences?from=2026-11-23&to=2026-11-30")).AsArray().Select(one => one!).ToArray();
        var theirs = all.Where(one => one["version"] is not null).ToArray();
        Assert.NotEmpty(theirs);
        Assert.True(theirs.Length < all.Length);

        var preview = await bo.DoAsync(HttpMethod.Post, "/api/events/chosen/preview", Asked(all, new { act = "addTag", tag = "boats" }));

        Assert.True((int)preview["leftOutCount"]! > 0);
        Assert.All(preview["leftOut"]!.AsArray(), one => Assert.NotEmpty((string)one!["why"]!));
        var names = (await bo.GetAsync("/api/occurrences/list/names?from=2026-11-23&to=2026-11-30")).AsArray();
        Assert.Equal(theirs.Length, names.Count);
    }

    [Theory]
    [InlineData("{\"act\":\"move\",\"days\":0}", "days")]
    [InlineData("{\"act\":\"move\"}", "days")]
    [InlineData("{\"act\":\"calendar\"}", "calendarId")]
    [InlineData("{\"act\":\"addTag\",\"tag\":\" \"}", "tag")]
    [InlineData("{\"act\":\"copy\",\"term\":\"Autumn term\"}", "yearPlanId")]
    public async Task What_an_act_needs_is_asked_for_by_name(string change, string field)
    {
        var ada = await app.SignedInAsync();
        var request = Asked((await DatesAsync(ada, "Boat lab")).Take(1), new { });
        request["change"] = JsonNode.Parse(change);

        var refused = await ada.SendAsync(HttpMethod.Post, "/api/events/chosen", request);

        Assert.Equal(HttpStatusCode.BadRequest, refused.StatusCode);
        Assert.NotNull((await Caller.ReadAsync(refused))["errors"]![field]);
    }

    private static async Task<(string From, string Into)> TwoYearsAsync(Caller ada)
    {
        var plans = (await ada.GetAsync("/api/year-plans"))["plans"]!.AsArray();
        var from = (string)plans.Single(one => (string)one!["name"]! == "2026/27")!["id"]!;
        var into = plans.FirstOrDefault(one => (string)one!["name"]! == "2027/28")
            ?? await ada.DoAsync(HttpMethod.Post, "/api/year-plans", await ada.DoAsync(HttpMethod.Post, $"/api/year-plans/{from}/next"));
        return (from, (string)into["id"]!);
    }

    [Fact]
    public async Task A_year_is_carried_by_term_and_week_looked_at_made_and_taken_back()
    {
        var ada = await app.SignedInAsync();
        var (from, into) = await TwoYearsAsync(ada);
        var table = await ada.DoAsync(HttpMethod.Post, $"/api/year-plans/{from}/carry/preview", new { into, rows = Array.Empty<object>() });
        var rows = table["rows"]!.AsArray().Select(row => row!).ToArray();
        var evening = rows.Single(row => (string)row["title"]! == "Open harbour evening");
        Assert.True((bool)evening["needsLook"]!);
        Assert.Equal(DayOfWeek.Wednesday, DateOnly.Parse((string)evening["day"]!, null).DayOfWeek);
        Assert.Contains(rows, row => (bool)row["recurs"]! && (int)row["week"]! == 1);
        Assert.NotEmpty(table["whoSees"]!.AsArray());

        var id = (string)evening["eventId"]!;
        var made = await ada.DoAsync(HttpMethod.Post, $"/api/year-plans/{from}/carry", new
        {
            into,
            rows = new[] { new { eventId = id, day = "2027-12-07", title = "Open harbour" } },
            asDrafts = true,
        });
        var there = (await ada.GetAsync("/api/occurrences?from=2027-12-07&to=2027-12-08")).AsArray()
            .Single(one => (string)one!["title"]! == "Open harbour")!;
        Assert.Equal("draft", (string)there["state"]!);
        Assert.Equal("Hall", (string)there["place"]!);
        var again = await ada.DoAsync(HttpMethod.Post, $"/api/year-plans/{from}/carry/preview", new
        {
            into,
            rows = new[] { new { eventId = id, day = "2027-12-07", title = "Open harbour" } },
            only = new[] { id },
        });
        Assert.True((bool)Assert.Single(again["rows"]!.AsArray())!["isThere"]!);

        await ada.DoAsync(HttpMethod.Post, $"/api/acts/{made["actId"]}/undo");
        Assert.DoesNotContain((await ada.GetAsync("/api/occurrences?from=2027-12-07&to=2027-12-08")).AsArray(),
            one => (string)one!["title"]! == "Open harbour");
    }

    [Fact]
    public async Task Editors_carry_what_is_on_their_calendars_and_members_nothing()
    {
        var ada = await app.SignedInAsync();
        var (from, into) = await TwoYearsAsync(ada);
        var bo = await app.SignedInAsync("bo");
        var table = await bo.DoAsync(HttpMethod.Post, $"/api/year-plans/{from}/carry/preview", new { into, rows = Array.Empty<object>() });
        var mine = (await bo.GetAsync("/api/calendars")).AsArray().Where(one => (bool)one!["mayEdit"]!).Select(one => (string)one!["id"]!)
            .ToHashSet();
        Assert.All(table["rows"]!.AsArray(), row => Assert.Contains((string)row!["calendarId"]!, mine));
        var notTheirs = (await DatesAsync(ada, "Briefing"))[0];
        var refused = await bo.SendAsync(HttpMethod.Post, $"/api/year-plans/{from}/carry", new
        {
            into,
            rows = new[] { new { eventId = (string)notTheirs["eventId"]! } },
            asDrafts = true,
        });
        Assert.Equal(HttpStatusCode.BadRequest, refused.StatusCode);

        var di = await app.SignedInAsync("di");
        Assert.Equal(HttpStatusCode.Forbidden, (await di.SendAsync(
            HttpMethod.Post, $"/api/year-plans/{from}/carry/preview", new { into, rows = Array.Empty<object>() })).StatusCode);
    }

    private static readonly string[] Heads = ["What", "Room", "Date", "Start", "End", "Repeats", "Teacher"];

    private static async Task<JsonNode> BringAsync(Caller caller, string name, byte[] file)
    {
        using var request = new HttpRequestMessage(HttpMethod.Post, $"/api/events/several/file?name={name}")
        {
            Content = new ByteArrayContent(file),
        };
        request.Content.Headers.ContentType = new("application/octet-stream");
        request.Headers.Add("X-Valtro-Token", (string)(await caller.GetAsync("/api/session"))["antiforgeryToken"]!);
        var answer = await caller.Http.SendAsync(request);
        Assert.Equal(HttpStatusCode.OK, answer.StatusCode);
        return await Caller.ReadAsync(answer);
    }

    [Theory]
    [InlineData("plan.xlsx")]
    [InlineData("plan.csv")]
    public async Task A_sheet_is_brought_with_its_columns_in_any_order(string name)
    {
        var ada = await app.SignedInAsync();
        using var sheet = new MemoryStream();
        var lines = new[]
        {
            Heads.ToDictionary(head => head, head => (object)(head switch
            {
                "What" => "Sail loft; and more",
                "Room" => "Loft",
                "Date" => new DateTime(2027, 3, 2),
                "Start" => name.EndsWith(".xlsx", StringComparison.Ordinal) ? new TimeSpan(9, 0, 0) : "09:00",
                "End" => "10.30",
                "Repeats" => "every Tuesday until 30 March 2027",
                _ => "Ms Quill",
            })),
        };
        if (name.EndsWith(".xlsx", StringComparison.Ordinal))
            MiniExcelLibs.MiniExcel.SaveAs(sheet, lines);
        else
            sheet.Write(System.Text.Encoding.UTF8.GetBytes(
                "What,Room,Date,Start,End,Repeats,Teacher\r\n"
                + "\"Sail loft; and more\",Loft,2027-03-02,09:00,10.30,every Tuesday until 30 March 2027,Ms Quill\r\n"));

        var brought = await BringAsync(ada, name, sheet.ToArray());

        Assert.True((bool)brought["hasHead"]!);
        Assert.Equal("Teacher", (string)Assert.Single(brought["unused"]!.AsArray())!);
        var row = Assert.Single(brought["rows"]!.AsArray())!.DeepClone();
        row["calendar"] = "PW";
        var rows = new JsonArray(row);
        var request = new JsonObject { ["rows"] = rows, ["calendarId"] = null };
        var read = await ada.DoAsync(HttpMethod.Post, "/api/events/several/check", request);
        Assert.Equal("Every Tuesday, 09:00 to 10:30, until 30 March 2027, not in breaks", (string)read["rows"]![0]!["words"]!);
        Assert.False((bool)read["rows"]![0]!["isThere"]!);

        var done = await ada.DoAsync(HttpMethod.Post, "/api/events/several", request);
        var again = await ada.DoAsync(HttpMethod.Post, "/api/events/several/check", request);
        Assert.True((bool)again["rows"]![0]!["isThere"]!);
        await ada.DoAsync(HttpMethod.Post, $"/api/acts/{done["actId"]}/undo");
    }

    [Fact]
    public async Task What_was_done_stands_there_as_whole_acts_and_single_dates_are_found_in_the_bin()
    {
        var ada = await app.SignedInAsync();
        var lab = (await DatesAsync(ada, "Boat lab"))[0];
        var done = await ada.DoAsync(HttpMethod.Post, "/api/events/chosen", Asked([lab], new { act = "remove" }));

        var act = (await ada.GetAsync("/api/acts"))[0]!;
        Assert.Equal(((string)done["actId"]!, "Boat lab", true),
            ((string)act["actId"]!, (string)act["titles"]![0]!, (bool)act["mayUndo"]!));
        Assert.Contains((await ada.GetAsync("/api/bin/dates")).AsArray(), one =>
            (string)one!["eventId"]! == (string)lab["eventId"]! && (string)one["recurrenceId"]! == (string)lab["recurrenceId"]!);
        Assert.Empty((await (await app.SignedInAsync("di")).GetAsync("/api/acts")).AsArray());

        await ada.DoAsync(HttpMethod.Post, $"/api/acts/{done["actId"]}/undo");
        Assert.DoesNotContain((await ada.GetAsync("/api/bin/dates")).AsArray(), one =>
            (string)one!["recurrenceId"]! == (string)lab["recurrenceId"]! && (string)one["eventId"]! == (string)lab["eventId"]!);
        Assert.Equal("undone", (string)(await ada.GetAsync("/api/acts"))[0]!["act"]!);
    }

    [Fact]
    public async Task A_slip_is_made_longer_by_its_edge()
    {
        var ada = await app.SignedInAsync();
        var evening = (await DatesAsync(ada, "Open harbour evening"))[0];
        var request = new
        {
            act = "edit",
            recurrenceId = (string)evening["recurrenceId"]!,
            version = (int)evening["version"]!,
            move = new { date = ((string)evening["start"]!)[..10], from = ((string)evening["start"]!).Substring(11, 8), minutes = 45 },
            scope = "every",
        };

        var done = await ada.DoAsync(HttpMethod.Post, $"/api/events/{evening["eventId"]}/changes", request);

        var after = (await DatesAsync(ada, "Open harbour evening"))[0];
        Assert.Equal(TimeSpan.FromMinutes(45), At(after, "end") - At(after, "start"));
        await ada.DoAsync(HttpMethod.Post, $"/api/acts/{done["actId"]}/undo");

        static DateTimeOffset At(JsonNode date, string end) => DateTimeOffset.Parse((string)date[end]!, null);
    }

    [Fact]
    public async Task Views_are_ones_own_or_for_all_who_edit()
    {
        var (ada, bo, di) = (await app.SignedInAsync(), await app.SignedInAsync("bo"), await app.SignedInAsync("di"));
        static object View(string name, bool isForAll, string calendar = "PW,STF") =>
            new { name, settings = new Dictionary<string, string> { ["view"] = "month", ["calendar"] = calendar }, isForAll };
        await ada.DoAsync(HttpMethod.Post, "/api/plan-views", View("Mine", false));
        await ada.DoAsync(HttpMethod.Post, "/api/plan-views", View("mine", false, "SW"));
        var shared = await ada.DoAsync(HttpMethod.Post, "/api/plan-views", View("All watches", true));

        Assert.Equal(["All watches", "mine"], Names(await ada.GetAsync("/api/plan-views")));
        Assert.Equal(["All watches"], Names(await bo.GetAsync("/api/plan-views")));
        Assert.Equal("PW", (string)(await bo.GetAsync("/api/plan-views"))[0]!["settings"]!["calendar"]!);
        Assert.Empty((await di.GetAsync("/api/plan-views")).AsArray());

        var over = await bo.SendAsync(HttpMethod.Post, "/api/plan-views", View("all watches", true, "SW"));
        Assert.NotNull((await Caller.ReadAsync(over))["errors"]!["name"]);
        Assert.Equal(HttpStatusCode.Forbidden, (await di.SendAsync(HttpMethod.Post, "/api/plan-views", View("Mine", true))).StatusCode);
        Assert.Equal(HttpStatusCode.Forbidden, (await bo.SendAsync(HttpMethod.Delete, $"/api/plan-views/{shared["id"]}")).StatusCode);
        Assert.Equal(HttpStatusCode.NotFound, (await di.SendAsync(HttpMethod.Delete, $"/api/plan-views/{Guid.NewGuid()}")).StatusCode);
        Assert.Equal(HttpStatusCode.NoContent, (await ada.SendAsync(HttpMethod.Delete, $"/api/plan-views/{shared["id"]}")).StatusCode);
        var odd = await ada.SendAsync(
            HttpMethod.Post, "/api/plan-views", new { name = "x", settings = new { day = "2026" }, isForAll = false });
        Assert.NotNull((await Caller.ReadAsync(odd))["errors"]!["settings"]);

        static string[] Names(JsonNode views) => [.. views.AsArray().Select(one => (string)one!["name"]!)];
    }
}
