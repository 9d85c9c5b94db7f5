using System.Net;
using System.Text.Json.Nodes;
using NodaTime;
using Foreign = Ical.Net;

namespace Valtro.Server.Tests;

/// <summary>What is taken along of an edition besides its page and its feed: the same entries in other forms.</summary>
public sealed class TakenTests(ValtroApp app) : IClassFixture<ValtroApp>
{
    /// <summary>A weekly lesson, and something of another calendar.</summary>
    private static async Task<string> EditionAsync(Caller ada, string plate, string everyone = "complete")
    {
        var calendar = await ada.MakeCalendarAsync(plate, link: "complete", everyone: everyone);
        var other = await ada.MakeCalendarAsync($"{plate}O", link: "complete", everyone: "complete");
        await ada.DoAsync(HttpMethod.Post, "/api/events", Caller.Event(
            calendar, "Boat lab; oilskins, boots", "2026-11-24",
            repeat: new { pattern = "weekly", interval = 1, weekdays = new[] { 2 }, ends = "after", until = (string?)null, count = 5 }));
        await ada.DoAsync(HttpMethod.Post, "/api/events", Caller.Event(other, "Rope walk", "2026-12-02"));
        var made = await ada.DoAsync(HttpMethod.Post, "/api/editions", new
        {
            edition = new { name = $"Taken {plate}", sources = new[] { new { calendarId = calendar }, new { calendarId = other } } },
            isOut = true,
        });
        return new Uri((string)made["addresses"]!["page"]!).AbsolutePath;
    }

    [Fact]
    public async Task The_same_entries_come_as_a_snapshot_as_values_as_json_and_as_busy_times()
    {
        var ada = await app.SignedInAsync();
        var page = await EditionAsync(ada, "TK");
        var http = app.Reader().Http;
        const string span = "?from=2026-12-01&to=2026-12-09";

        var snapshot = Foreign.Calendar.Load(await http.GetStringAsync($"{page}/snapshot.ics{span}"))!;
        Assert.Equal(["TK Boat lab; oilskins, boots", "TKO Rope walk", "TK Boat lab; oilskins, boots"],
            snapshot.Events.OrderBy(one => one.Start!.AsUtc).Select(one => one.Summary!));
        Assert.All(snapshot.Events, one => Assert.Null(one.RecurrenceRule));
        Assert.Equal(3, snapshot.Events.Select(one => one.Uid).Distinct().Count());

        var lines = (await http.GetStringAsync($"{page}.csv{span}")).Trim().Split('\n');
        Assert.Equal(4, lines.Length);
        Assert.Contains("2026-12-02", lines[2], StringComparison.Ordinal);

        var json = JsonNode.Parse(await http.GetStringAsync($"{page}/v1.json{span}"))!;
        Assert.Equal((1, "2026-12-01", "2026-12-09", 0),
            ((int)json["version"]!, (string)json["from"]!, (string)json["to"]!, (int)json["more"]!));
        Assert.Equal(["Boat lab; oilskins, boots", "Rope walk", "Boat lab; oilskins, boots"],
            json["entries"]!.AsArray().Select(one => (string)one!["title"]!));
        var first = json["entries"]![0]!;
        Assert.Equal(HttpStatusCode.OK, (await http.GetAsync(new Uri((string)first["page"]!).PathAndQuery)).StatusCode);

        var busy = await http.GetAsync($"{page}.ifb{span}");
        Assert.Equal("text/calendar", busy.Content.Headers.ContentType!.MediaType);
        var times = Assert.Single(Foreign.Calendar.Load(await busy.Content.ReadAsStringAsync())!.FreeBusy);
        Assert.Equal(3, times.Entries.Count);
        Assert.DoesNotContain("Boat", await busy.Content.ReadAsStringAsync(), StringComparison.Ordinal);
    }

    [Fact]
    public async Task Jcal_says_what_another_program_makes_of_the_feed()
    {
        var ada = await app.SignedInAsync();
        var page = await EditionAsync(ada, "TJ");
        var http = app.Reader().Http;
        foreach (var (feed, jcal) in new[] { (".ics", ".jcal"), ("/snapshot.ics?from=2026-12-01", ".jcal?from=2026-12-01") })
        {
            var answer = await NodeScripts.AskAsync("jcal.mjs", new
            {
                feed = await http.GetStringAsync(page + feed),
                jcal = await http.GetStringAsync(page + jcal),
            });
            Assert.Equal("[]", answer["differences"]!.ToJsonString());
        }
        Assert.Equal("application/calendar+json", (await http.GetAsync($"{page}.jcal")).Content.Headers.ContentType!.MediaType);
    }

    [Fact]
    public async Task Who_asks_for_some_calendars_gets_those_and_names_nobody_had_lead_nowhere()
    {
        var ada = await app.SignedInAsync();
        var page = await EditionAsync(ada, "TN");
        var http = app.Reader().Http;
        foreach (var form in new[] { ".csv", "/v1.json", "/snapshot.ics", ".jcal" })
        {
            var some = await http.GetStringAsync($"{page}{form}?only=TNO");
            Assert.Contains("Rope walk", some, StringComparison.Ordinal);
            Assert.DoesNotContain("Boat lab", some, StringComparison.Ordinal);
            Assert.Equal(HttpStatusCode.NotFound, (await http.GetAsync($"{page}{form}?only=nobodys")).StatusCode);
        }
    }

    [Theory]
    [InlineData("from=2026-12-09&to=2026-12-01")]
    [InlineData("from=2026-12-01&to=2036-12-01")]
    [InlineData("from=9999-12-31")]
    [InlineData("to=0001-01-01")]
    [InlineData("from=tomorrow")]
    public async Task A_span_that_is_none_is_refused_in_a_sentence(string span)
    {
        var ada = await app.SignedInAsync();
        var page = (await ada.GetAsync("/api/editions")).AsArray().Any(one => (string)one!["name"]! == "Taken TS")
            ? "/c/pinewick/taken-ts"
            : await EditionAsync(ada, "TS");
        foreach (var form in new[] { ".csv", "/v1.json", "/snapshot.ics", ".jcal", ".ifb" })
        {
            var answer = await app.Reader().Http.GetAsync($"{page}{form}?{span}");
            Assert.Equal(HttpStatusCode.BadRequest, answer.StatusCode);
            Assert.Contains("2026-11-24", await answer.Content.ReadAsStringAsync(), StringComparison.Ordinal);
        }
    }

    [Fact]
    public async Task Of_times_only_no_form_says_more_and_what_is_asked_again_is_not_sent_again()
    {
        var ada = await app.SignedInAsync();
        var calendar = await ada.MakeCalendarAsync("TT", link: "times", everyone: "times");
        await ada.DoAsync(HttpMethod.Post, "/api/events", Caller.Event(calendar, "Oil talk", "2026-11-25"));
        var page = new Uri((string)(await ada.DoAsync(HttpMethod.Post, "/api/editions",
            new { edition = new { name = "Taken times", sources = new[] { new { calendarId = calendar } } }, isOut = true }))["addresses"]!["page"]!)
            .AbsolutePath;
        var http = app.Reader().Http;
        foreach (var form in new[] { ".csv", "/v1.json", "/snapshot.ics", ".jcal", ".ifb" })
        {
            var answer = await http.GetAsync(page + form);
            Assert.DoesNotContain("Oil", await answer.Content.ReadAsStringAsync(), StringComparison.Ordinal);
            using var again = new HttpRequestMessage(HttpMethod.Get, page + form);
            again.Headers.IfNoneMatch.Add(answer.Headers.ETag!);
            Assert.Equal(HttpStatusCode.NotModified, (await http.SendAsync(again)).StatusCode);
        }
        Assert.Contains("FREEBUSY:", await http.GetStringAsync($"{page}.ifb"), StringComparison.Ordinal);
        // Another day has begun: what has passed is not said any more.
        var before = await http.GetStringAsync($"{page}.ifb");
        app.Clock.Advance(Duration.FromDays(1));
        await ValtroApp.EventuallyAsync(async () => await http.GetStringAsync($"{page}.ifb") != before, "the next day has its own");
    }
}
