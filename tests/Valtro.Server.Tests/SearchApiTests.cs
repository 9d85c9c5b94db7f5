using System.IO.Compression;
using System.Net;
using System.Text.Json.Nodes;
using Foreign = Ical.Net;

namespace Valtro.Server.Tests;

/// <summary>What somebody looks for: events of all times, days, names; and all of a year in one list, to take along.</summary>
public sealed class SearchApiTests(ValtroApp app) : IClassFixture<ValtroApp>
{
    private const string Year = "from=2026-08-01&to=2027-08-01";

    private static IReadOnlyList<string> Titles(JsonNode answer, string of) =>
        [.. answer[of]!.AsArray().Select(one => (string)one!["title"]!)];

    private static IReadOnlyList<string> Names(JsonNode answer, string kind) =>
        [.. answer["names"]!.AsArray().Where(one => (string)one!["kind"]! == kind).Select(one => (string)one!["name"]!)];

    [Fact]
    public async Task What_comes_next_is_first_and_what_is_over_behind_it()
    {
        var ada = await app.SignedInAsync();
        var found = await ada.GetAsync("/api/search?text=regatta");
        Assert.Equal(["Head of the Narrows", "Winter regatta", "Spring regatta"], Titles(found, "coming"));
        Assert.Equal(["Autumn regatta"], Titles(found, "over"));
        Assert.False((bool)found["hasMore"]!);
        var starts = (await ada.GetAsync("/api/search?text=boat"))["coming"]!.AsArray().Select(one => (string)one!["start"]!).ToArray();
        Assert.Equal(starts.Order(StringComparer.Ordinal), starts);
        Assert.All(starts, start => Assert.True(string.CompareOrdinal(start, "2026-11-23") >= 0, start));
    }

    [Theory]
    [InlineData("regatat", "Winter regatta")]
    [InlineData("ergomters", "Ergometers")]
    [InlineData("boathause ergometers", "Ergometers")]
    public async Task Typing_errors_are_forgiven(string text, string title) =>
        Assert.Contains(title, Titles(await (await app.SignedInAsync()).GetAsync($"/api/search?text={text}"), "coming"));

    [Fact]
    public async Task Days_calendars_editions_people_places_and_breaks_are_found_by_their_names()
    {
        var ada = await app.SignedInAsync();
        var day = await ada.GetAsync("/api/search?text=12+march");
        Assert.Equal(("day", "2027-03-12"), ((string)day["spans"]![0]!["kind"]!, (string)day["spans"]![0]!["first"]!));
        Assert.Equal(["Port Watch"], Names(await ada.GetAsync("/api/search?text=port"), "calendar"));
        Assert.Equal(["Port Watch"], Names(await ada.GetAsync("/api/search?text=pw"), "calendar"));
        Assert.Equal(["Slipway"], Names(await ada.GetAsync("/api/search?text=slip"), "place"));
        Assert.NotEmpty(Names(await ada.GetAsync("/api/search?text=slipway+taken"), "edition"));
        Assert.Equal(["Winter break"], Names(await ada.GetAsync("/api/search?text=winter+break"), "break"));
        Assert.NotEmpty(Names(await ada.GetAsync("/api/search?text=ada"), "person"));
        Assert.Empty(Names(await (await app.SignedInAsync("di")).GetAsync("/api/search?text=ada"), "person"));
        Assert.Empty(Names(await (await app.SignedInAsync("di")).GetAsync("/api/search?text=staff+room"), "calendar"));
    }

    [Fact]
    public async Task What_somebody_leads_is_found_by_their_name_where_that_is_told()
    {
        var (ada, di) = (await app.SignedInAsync(), await app.SignedInAsync("di"));
        Assert.Contains("Ergometers", Titles(await ada.GetAsync("/api/search?text=marchbank"), "coming"));
        Assert.Contains("Ergometers", Titles(await di.GetAsync("/api/search?text=cy+ergom"), "coming"));
        Assert.Contains("Open harbour evening", Titles(await di.GetAsync("/api/search?text=captain+marr"), "coming"));
        await app.Test.Database.ExecuteAsync("update calendar set names = 'editors' where plate = 'ROW'");
        Assert.DoesNotContain("Ergometers", Titles(await di.GetAsync("/api/search?text=marchbank"), "coming"));
        Assert.Contains("Ergometers", Titles(await ada.GetAsync("/api/search?text=marchbank"), "coming"));
    }

    [Fact]
    public async Task A_list_is_narrowed_to_what_is_due_or_not_certain_and_a_calendar_of_it_says_so()
    {
        var ada = await app.SignedInAsync();
        async Task<IReadOnlyList<string>> OfAsync(string kind) =>
            Titles(await ada.GetAsync($"/api/occurrences/list?{Year}&category=%3A{kind}"), "occurrences");
        Assert.Equal(["Chart exercise 4", "Forms for the radio licence"], await OfAsync("due"));
        Assert.Equal(["Survey walk"], await OfAsync("tentative"));
        Assert.Contains("SUMMARY:Chart exercise 4 (due)",
            await ada.Http.GetStringAsync($"/api/occurrences/list.ics?{Year}&category=%3Adue"), StringComparison.Ordinal);
        // A sheet is pasted again, where titles tell what is there already.
        var sheet = await ada.Http.GetStringAsync($"/api/occurrences/list.csv?{Year}&category=%3Adue");
        Assert.Contains("Chart exercise 4", sheet, StringComparison.Ordinal);
        Assert.DoesNotContain("(due)", sheet, StringComparison.Ordinal);
    }

    [Fact]
    public async Task Somebody_who_reads_German_goes_to_days_in_German()
    {
        var jo = await app.SignedInAsync("jo");
        Assert.Equal("2027-03-12", (string)(await jo.GetAsync("/api/search?text=12.+M%C3%A4rz"))["spans"]![0]!["first"]!);
        Assert.Equal("week", (string)(await jo.GetAsync("/api/search?text=KW+49"))["spans"]![0]!["kind"]!);
    }

    [Fact]
    public async Task What_is_too_long_is_refused_and_what_means_nothing_finds_nothing()
    {
        var ada = await app.SignedInAsync();
        var refused = await ada.Http.GetAsync($"/api/search?text={new string('x', 201)}");
        Assert.Equal(HttpStatusCode.BadRequest, refused.StatusCode);
        Assert.Contains("at most 200 characters", await refused.Content.ReadAsStringAsync(), StringComparison.Ordinal);
        foreach (var text in new[] { "", "%20", "%F0%9F%8E%89", "%00", "'", "%25%25", ":*%20%26" })
            Assert.True((int)(await ada.Http.GetAsync($"/api/search?text={text}")).StatusCode < 500, text);
        Assert.Equal(HttpStatusCode.BadRequest, (await ada.Http.GetAsync($"/api/occurrences/list?{Year}&order=7")).StatusCode);
        Assert.Equal(HttpStatusCode.BadRequest, (await ada.Http.GetAsync("/api/occurrences/list?from=2026-08-01&to=2029-08-01")).StatusCode);
    }

    [Fact]
    public async Task A_year_is_listed_by_pages_narrowed_and_sorted()
    {
        var ada = await app.SignedInAsync();
        var first = await ada.GetAsync($"/api/occurrences/list?{Year}&page=1");
        var total = (int)first["total"]!;
        Assert.Equal((100, (total + 99) / 100), (first["occurrences"]!.AsArray().Count, (int)first["pages"]!));
        var seen = new HashSet<string>();
        for (var page = 1; page <= (int)first["pages"]!; page++)
            seen.UnionWith((await ada.GetAsync($"/api/occurrences/list?{Year}&page={page}"))["occurrences"]!.AsArray()
                .Select(one => $"{one!["eventId"]} {one["recurrenceId"]}"));
        Assert.Equal(total, seen.Count);
        Assert.Equal(total, (await ada.GetAsync($"/api/occurrences/list?{Year}&size=5000"))["occurrences"]!.AsArray().Count);
        // A page beyond the last is the last.
        Assert.Equal((int)first["pages"]!, (int)(await ada.GetAsync($"/api/occurrences/list?{Year}&page=999"))["page"]!);

        var slipway = (await ada.GetAsync($"/api/occurrences/list?{Year}&place=Slipway&order=title&size=5000"))["occurrences"]!.AsArray();
        Assert.All(slipway, one => Assert.Equal("Slipway", (string)one!["place"]!));
        Assert.Equal(slipway.Select(one => (string)one!["title"]!).Order(), slipway.Select(one => (string)one!["title"]!));
        var port = await ada.CalendarAsync("PW");
        var labs = (await ada.GetAsync($"/api/occurrences/list?{Year}&words=boat+lab&calendar={port}"))["occurrences"]!.AsArray();
        Assert.NotEmpty(labs);
        Assert.All(labs, one => Assert.Equal(("Boat lab", port), ((string)one!["title"]!, (string)one["calendarId"]!)));
    }

    [Fact]
    public async Task A_list_says_which_tags_its_dates_have()
    {
        var ada = await app.SignedInAsync();
        var list = await ada.GetAsync($"/api/occurrences/list?{Year}&size=5000");
        var said = list["tags"]!.AsArray().Select(one => (string)one!).ToArray();
        Assert.NotEmpty(said);
        Assert.Equal(
            list["occurrences"]!.AsArray().SelectMany(one => one!["tags"]!.AsArray()).Select(one => (string)one!).Distinct().Order(),
            said.Order());
        var narrowed = await ada.GetAsync($"/api/occurrences/list?{Year}&tag={Uri.EscapeDataString(said[0])}");
        Assert.InRange((int)narrowed["total"]!, 1, (int)list["total"]! - 1);
    }

    [Fact]
    public async Task A_years_sheet_has_what_is_on_seldom_and_names_the_rest()
    {
        var ada = await app.SignedInAsync();
        var answer = await ada.GetAsync("/api/occurrences/sheet?day=2026-11-23");
        var titles = Titles(answer, "occurrences").ToHashSet();
        var often = answer["sheet"]!["often"]!.AsArray();
        Assert.Superset(new HashSet<string> { "Winter regatta", "Autumn regatta", "Head of the Narrows" }, titles);
        Assert.Contains(often, one => (string)one!["title"]! == "Assembly" && (int)one["dates"]! > 12);
        Assert.DoesNotContain("Assembly", titles);
        Assert.Equal(["2026-08-01", "2027-08-01"], [(string)answer["sheet"]!["from"]!, (string)answer["sheet"]!["to"]!]);
        Assert.Contains(answer["sheet"]!["breaks"]!.AsArray(), one => (string)one!["name"]! == "Winter break");
        Assert.Equal("2026-09-07", (string)answer["sheet"]!["terms"]![0]!["weeks"]![0]!);

        var rowing = await ada.CalendarAsync("ROW");
        var narrowed = await ada.GetAsync($"/api/occurrences/sheet?day=2027-01-01&calendar={rowing}");
        Assert.Contains("Winter regatta", Titles(narrowed, "occurrences"));
        Assert.DoesNotContain("Autumn regatta", Titles(narrowed, "occurrences"));
        // Who is not told of the staff room's meetings is not told that they are on all year.
        var briefing = await ada.GetAsync($"/api/occurrences/sheet?day=2026-11-23&calendar={await ada.CalendarAsync("STF")}");
        Assert.NotEmpty(briefing["sheet"]!["often"]!.AsArray());
        var di = await (await app.SignedInAsync("di")).GetAsync("/api/occurrences/sheet?day=2026-11-23");
        Assert.DoesNotContain(di["sheet"]!["often"]!.AsArray(), one => (string)one!["title"]! == "Briefing");
    }

    [Fact]
    public async Task An_edition_that_shows_breaks_has_terms_for_its_sheet_and_another_has_none()
    {
        var ada = await app.SignedInAsync();
        foreach (var withBreaks in new[] { true, false })
        {
            var calendar = await ada.CalendarAsync("SCH");
            var made = await ada.DoAsync(HttpMethod.Post, "/api/editions", new
            {
                isOut = true,
                edition = new { name = $"Breaks {withBreaks}", sources = new[] { new { calendarId = calendar } }, withBreaks },
            });
            var page = new Uri((string)made["addresses"]!["page"]!).AbsolutePath;
            var all = await app.Reader().GetAsync($"{page}.json?month=all");
            var years = all["years"]!.AsArray();
            Assert.Equal(["2026-08-01", "2027-08-01"], years.Select(one => (string)one!["from"]!));
            Assert.Equal(withBreaks, years[0]!["terms"]!.AsArray().Count > 0);
            Assert.Equal(withBreaks, years[0]!["breaks"]!.AsArray().Count > 0);
            Assert.Contains(years[0]!["often"]!.AsArray(), one => (string)one!["title"]! == "Assembly");
        }
    }

    [Fact]
    public async Task A_list_is_taken_along_as_a_calendar_as_values_and_as_a_sheet()
    {
        var ada = await app.SignedInAsync();
        var asked = $"{Year}&words=regatta";
        var list = (await ada.GetAsync($"/api/occurrences/list?{asked}"))["occurrences"]!.AsArray();
        var calendar = Foreign.Calendar.Load(await ada.Http.GetStringAsync($"/api/occurrences/list.ics?{asked}"))!;
        Assert.Equal(list.Select(one => (string)one!["title"]!).Order(), calendar.Events.Select(one => one.Summary!).Order());
        Assert.Equal(calendar.Events.Count, calendar.Events.Select(one => one.Uid).Distinct().Count());

        var values = await ada.Http.GetAsync($"/api/occurrences/list.csv?{asked}");
        Assert.Equal("attachment", values.Content.Headers.ContentDisposition!.DispositionType);
        var lines = (await values.Content.ReadAsStringAsync()).TrimStart('\uFEFF').Split("\r\n", StringSplitOptions.RemoveEmptyEntries);
        Assert.StartsWith("Day,From,\"Last day\",To,Title", lines[0], StringComparison.Ordinal);
        Assert.Equal(list.Count + 1, lines.Length);

        using var sheet = new ZipArchive(await ada.Http.GetStreamAsync($"/api/occurrences/list.xlsx?{asked}"));
        Assert.Contains(sheet.Entries, entry => entry.FullName.EndsWith("sheet1.xml", StringComparison.Ordinal));
    }

    /// <summary>Programs for sheets reckon with what begins like a formula.</summary>
    [Fact]
    public async Task Nothing_that_somebody_typed_becomes_a_formula()
    {
        var ada = await app.SignedInAsync();
        var form = Caller.Event(await ada.CalendarAsync("PW"));
        form["title"] = "=1+1, quillfeather";
        await ada.DoAsync(HttpMethod.Post, "/api/events", form);
        Assert.Contains("\"'=1+1, quillfeather\"", await ada.Http.GetStringAsync($"/api/occurrences/list.csv?{Year}&words=quillfeather"), StringComparison.Ordinal);
    }

    /// <summary>Whoever gets the file would take it for settled.</summary>
    [Fact]
    public async Task A_calendar_that_is_taken_along_has_no_drafts()
    {
        var ada = await app.SignedInAsync();
        var form = Caller.Event(await ada.CalendarAsync("PW"));
        (form["title"], form["isDraft"]) = ("Quillwork", true);
        await ada.DoAsync(HttpMethod.Post, "/api/events", form);
        Assert.DoesNotContain("Quillwork", await ada.Http.GetStringAsync($"/api/occurrences/list.ics?{Year}&words=quillwork"), StringComparison.Ordinal);
        Assert.Contains("draft", await ada.Http.GetStringAsync($"/api/occurrences/list.csv?{Year}&words=quillwork"), StringComparison.Ordinal);
    }
}
