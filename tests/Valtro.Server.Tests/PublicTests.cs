using System.IO.Compression;
using System.Net;
using System.Net.Http.Headers;
using System.Text.Json.Nodes;
using System.Text.RegularExpressions;
using Microsoft.Extensions.DependencyInjection;
using NodaTime;
using Foreign = Ical.Net;

namespace Valtro.Server.Tests;

public sealed class PublicTests(ValtroApp app) : IClassFixture<ValtroApp>
{
    private const string Feed = "/c/pinewick/port-watch.ics";

    private async Task<string> NewCalendarAsync(Caller ada, string plate, string name, string everyone = "complete")
    {
        var made = await ada.DoAsync(HttpMethod.Post, "/api/calendars", Settings(plate, name, everyone));
        return (string)made["id"]!;
    }

    private static object Settings(string plate, string name, string everyone, int? version = null) =>
        new
        {
            name,
            plate,
            colour = "navy",
            zone = "America/Halifax",
            description = "",
            disclosure = new { members = "complete", link = everyone, everyone },
            version
        };

    /// <summary>Past the second in which a node trusts what it has.</summary>
    private void LetTrustEnd() => app.Clock.Advance(Duration.FromSeconds(2));

    [Fact]
    public async Task A_feed_is_what_it_says_it_is()
    {
        LetTrustEnd();
        var response = await app.Reader().Http.GetAsync(Feed);
        Assert.Equal("text/calendar; charset=utf-8", response.Content.Headers.ContentType!.ToString());
        Assert.False(response.Headers.ETag!.IsWeak);
        Assert.NotNull(response.Content.Headers.LastModified);
        Assert.True(response.Headers.CacheControl!.Public);
        Assert.Contains("REFRESH-INTERVAL", await response.Content.ReadAsStringAsync(), StringComparison.Ordinal);
    }

    /// <summary>What stands in memory goes out before anything else is thought of (WarmFeeds): with a question behind the address the same
    /// feed goes the usual way, and no header tells the difference.</summary>
    [Theory]
    [InlineData("", "")]
    [InlineData("Accept-Encoding", "gzip, deflate")]
    [InlineData("Accept-Encoding", "br;q=0.5, gzip;q=0.5, *;q=0")]
    [InlineData("If-None-Match", "*")]
    [InlineData("If-Modified-Since", "Fri, 31 Dec 2032 23:59:59 GMT")]
    [InlineData("Origin", "https://elsewhere.example")]
    public async Task A_warm_feed_is_answered_like_any_other(string header, string value)
    {
        var http = app.Reader().Http;
        (await http.GetAsync(Feed)).EnsureSuccessStatusCode();
        var (warm, usual) = (await SaidAsync(Feed), await SaidAsync($"{Feed}?as=usual"));
        Assert.Equal(usual, warm);

        async Task<string> SaidAsync(string path)
        {
            using var request = new HttpRequestMessage(HttpMethod.Get, path);
            if (header.Length > 0)
                request.Headers.TryAddWithoutValidation(header, value);
            using var answer = await http.SendAsync(request);
            return string.Join('\n', answer.Headers.Concat(answer.Content.Headers).OrderBy(one => one.Key)
                .Select(one => $"{one.Key}: {string.Join(", ", one.Value)}").Prepend($"{(int)answer.StatusCode}")
                .Append(Convert.ToHexString(await answer.Content.ReadAsByteArrayAsync())));
        }
    }

    [Fact]
    public async Task A_program_that_has_the_newest_version_is_told_so()
    {
        LetTrustEnd();
        var http = app.Reader().Http;
        var first = await http.GetAsync(Feed);
        foreach (var condition in new Action<HttpRequestHeaders>[]
        {
            headers => headers.IfNoneMatch.Add(first.Headers.ETag!),
            headers => headers.IfNoneMatch.Add(EntityTagHeaderValue.Any),
            headers => headers.IfModifiedSince = first.Content.Headers.LastModified,
        })
        {
            var request = new HttpRequestMessage(HttpMethod.Get, Feed);
            condition(request.Headers);
            var again = await http.SendAsync(request);
            Assert.Equal(HttpStatusCode.NotModified, again.StatusCode);
            Assert.Equal(first.Headers.ETag, again.Headers.ETag);
        }
    }

    [Theory]
    [InlineData("\"older\"")]
    [InlineData("what is this")]
    [InlineData("\"unclosed")]
    public async Task Another_validator_outweighs_the_date_also_where_nobody_can_read_it(string validator)
    {
        LetTrustEnd();
        var first = await app.Reader().Http.GetAsync(Feed);
        var request = new HttpRequestMessage(HttpMethod.Get, Feed);
        request.Headers.TryAddWithoutValidation("If-None-Match", validator);
        request.Headers.IfModifiedSince = first.Content.Headers.LastModified;
        Assert.Equal(HttpStatusCode.OK, (await app.Reader().Http.SendAsync(request)).StatusCode);
    }

    [Fact]
    public async Task Two_changes_within_a_second_are_told_apart()
    {
        async Task<HttpResponseMessage> GetAsync(DateTimeOffset? since)
        {
            var request = new HttpRequestMessage(HttpMethod.Get, "/c/pinewick/two-at-once.ics");
            request.Headers.IfModifiedSince = since;
            return await app.Reader().Http.SendAsync(request);
        }
        var ada = await app.SignedInAsync();
        var id = await NewCalendarAsync(ada, "TAO", "Two at once");
        await ada.DoAsync(HttpMethod.Post, "/api/events", Caller.Event(id, "The first"));
        Assert.Null((await GetAsync(null)).Content.Headers.LastModified);
        // Programs that are told no date take the one at which they asked.
        var asked = app.Clock.GetCurrentInstant().ToDateTimeOffset();
        await ada.DoAsync(HttpMethod.Post, "/api/events", Caller.Event(id, "The second"));
        await ValtroApp.EventuallyAsync(async () => (await (await GetAsync(null)).Content.ReadAsStringAsync())
            .Contains("The second", StringComparison.Ordinal), "It does not go out.");
        LetTrustEnd();
        var both = await GetAsync(asked);
        Assert.Contains("The second", await both.Content.ReadAsStringAsync(), StringComparison.Ordinal);
        Assert.Equal(HttpStatusCode.NotModified, (await GetAsync(both.Content.Headers.LastModified)).StatusCode);
    }

    [Theory]
    [InlineData("/c/pinewick/port-watch.ics")]
    [InlineData("/c/pinewick/port-watch.json")]
    [InlineData("/c/pinewick/port-watch.atom")]
    [InlineData("/c/pinewick/port-watch/changed.json")]
    [InlineData("/c/pinewick/no-such-thing.ics")]
    [InlineData("/oembed?url=https%3A%2F%2Fdates.pinewick.example%2Fc%2Fpinewick%2Fport-watch")]
    public async Task Scripts_of_other_sites_may_read_what_anybody_may_read(string path)
    {
        var answer = await app.Reader().Http.GetAsync(path);
        Assert.Equal("*", Assert.Single(answer.Headers.GetValues("Access-Control-Allow-Origin")));
        Assert.Contains("ETag", Assert.Single(answer.Headers.GetValues("Access-Control-Expose-Headers")), StringComparison.Ordinal);
        Assert.False(answer.Headers.Contains("Access-Control-Allow-Credentials"));
        using var beforehand = new HttpRequestMessage(HttpMethod.Options,
            path)
        {
            Headers = { { "Origin", "https://club.example" }, { "Access-Control-Request-Method", "GET" },
                { "Access-Control-Request-Headers", "if-none-match" } }
        };
        var allowed = await app.Reader().Http.SendAsync(beforehand);
        Assert.Equal(HttpStatusCode.NoContent, allowed.StatusCode);
        Assert.Equal("*", Assert.Single(allowed.Headers.GetValues("Access-Control-Allow-Origin")));
        Assert.Contains(
            "if-none-match", Assert.Single(allowed.Headers.GetValues("Access-Control-Allow-Headers")), StringComparison.OrdinalIgnoreCase);
    }

    [Theory]
    [InlineData("/api/calendars")]
    [InlineData("/api/session")]
    public async Task Scripts_of_other_sites_may_not_read_what_is_for_those_who_are_signed_in(string path)
    {
        using var question = new HttpRequestMessage(HttpMethod.Get, path) { Headers = { { "Origin", "https://club.example" } } };
        var answer = await app.Reader().Http.SendAsync(question);
        Assert.False(answer.Headers.Contains("Access-Control-Allow-Origin"));
    }

    [Theory]
    [InlineData("gzip", "gzip")]
    [InlineData("br", "br")]
    [InlineData("gzip, br", "br")]
    [InlineData("gzip;q=0", null)]
    [InlineData("gzip;q=1, br;q=.1", "gzip")]
    [InlineData("gzip;q=1, br;q=0.1", "gzip")]
    [InlineData("gzip;q=0.5, identity", null)]
    [InlineData("*", "br")]
    [InlineData("br;q=0, *", "gzip")]
    [InlineData("identity;q=0, *;q=0", null)]
    [InlineData("zstd", null)]
    public async Task A_feed_is_compressed_as_the_program_likes(string accepted, string? encoding)
    {
        var request = new HttpRequestMessage(HttpMethod.Get, Feed);
        request.Headers.TryAddWithoutValidation("Accept-Encoding", accepted);
        var response = await app.Reader().Http.SendAsync(request);
        Assert.Equal(encoding, response.Content.Headers.ContentEncoding.SingleOrDefault());
        await using var body = await response.Content.ReadAsStreamAsync();
        await using var plain = encoding switch
        {
            "gzip" => new GZipStream(body, CompressionMode.Decompress),
            "br" => new BrotliStream(body, CompressionMode.Decompress),
            _ => body
        };
        Assert.StartsWith("BEGIN:VCALENDAR", await new StreamReader(plain).ReadToEndAsync(), StringComparison.Ordinal);
        Assert.NotEqual((await app.Reader().Http.GetAsync(Feed)).Headers.ETag?.Tag, encoding is null ? null : response.Headers.ETag!.Tag);
    }

    [Theory]
    [InlineData("")]
    [InlineData("/embed")]
    [InlineData(".ics")]
    [InlineData(".json")]
    [InlineData(".atom")]
    [InlineData("/changed.json")]
    public async Task Asking_only_for_the_head_gives_the_head(string ending)
    {
        var response = await app.Reader().Http.SendAsync(new HttpRequestMessage(HttpMethod.Head, $"/c/pinewick/port-watch{ending}"));
        Assert.Equal(HttpStatusCode.OK, response.StatusCode);
        Assert.True(response.Content.Headers.ContentLength > 100);
        Assert.Empty(await response.Content.ReadAsByteArrayAsync());
    }

    [Theory]
    [InlineData("/c/pinewick/port-watch/changes", "text/event-stream")]
    [InlineData("/oembed?url=https%3A%2F%2Fdates.pinewick.example%2Fc%2Fpinewick%2Fport-watch", "application/json")]
    public async Task The_head_of_what_has_no_length_says_what_it_is(string path, string type)
    {
        var response = await app.Reader().Http.SendAsync(new HttpRequestMessage(HttpMethod.Head, path));
        Assert.Equal(HttpStatusCode.OK, response.StatusCode);
        Assert.Equal(type, response.Content.Headers.ContentType!.MediaType);
        Assert.NotEqual("0", response.Content.Headers.TryGetValues("Content-Length", out var length) ? length.Single() : null);
        Assert.Empty(await response.Content.ReadAsByteArrayAsync());
    }

    [Fact]
    public async Task A_closed_calendar_is_answered_exactly_like_one_that_does_not_exist()
    {
        foreach (var ending in new[] { "", "/embed", ".ics", ".json", "/changes", ".ics?x=1", "/embed?month=2026-12" })
        {
            var closed = await app.Reader().Http.GetAsync($"/c/pinewick/staff-room{ending}");
            var absent = await app.Reader().Http.GetAsync($"/c/pinewick/no-such-thing{ending}");
            var elsewhere = await app.Reader().Http.GetAsync($"/c/nowhere/port-watch{ending}");
            Assert.Equal(HttpStatusCode.NotFound, closed.StatusCode);
            Assert.Contains("There is no calendar at this address", await closed.Content.ReadAsStringAsync(), StringComparison.Ordinal);
            Assert.Equal(await Told(closed), await Told(absent));
            Assert.Equal(await Told(closed), await Told(elsewhere));
        }
    }

    private static async Task<string> Told(HttpResponseMessage response) =>
        $"{response.StatusCode} {response.Headers} {response.Content.Headers} {await response.Content.ReadAsStringAsync()}";

    [Fact]
    public async Task Closing_a_calendar_takes_everything_away_and_opening_brings_it_back()
    {
        var ada = await app.SignedInAsync();
        var id = await NewCalendarAsync(ada, "OPN", "Opening hours");
        Assert.Equal(HttpStatusCode.OK, (await app.Reader().Http.GetAsync("/c/pinewick/opening-hours.ics")).StatusCode);
        await ada.DoAsync(HttpMethod.Put, $"/api/calendars/{id}", Settings("OPN", "Opening hours", "nothing", 1));
        LetTrustEnd();
        foreach (var ending in new[] { "", "/embed", ".ics", ".json" })
            Assert.Equal(HttpStatusCode.NotFound, (await app.Reader().Http.GetAsync($"/c/pinewick/opening-hours{ending}")).StatusCode);
        await ada.DoAsync(HttpMethod.Put, $"/api/calendars/{id}", Settings("OPN", "Opening hours", "complete", 2));
        LetTrustEnd();
        Assert.Equal(HttpStatusCode.OK, (await app.Reader().Http.GetAsync("/c/pinewick/opening-hours")).StatusCode);
    }

    [Fact]
    public async Task What_readers_cannot_see_does_not_show_in_the_validator()
    {
        var ada = await app.SignedInAsync();
        var id = await NewCalendarAsync(ada, "HID", "Hidden drafts");
        var draft = Caller.Event(id);
        draft["isDraft"] = true;
        var added = await ada.DoAsync(HttpMethod.Post, "/api/events", draft);
        Assert.Equal("draft", (string)added["state"]!);
        await ada.DoAsync(HttpMethod.Post, "/api/events", Caller.Event(id, "Seen"));
        await ValtroApp.EventuallyAsync(
            async () => (await app.Reader().Http.GetAsync("/c/pinewick/hidden-drafts.ics")).IsSuccessStatusCode, "It is not there.");
        LetTrustEnd();
        var before = await app.Reader().Http.GetAsync("/c/pinewick/hidden-drafts.ics");
        draft["title"] = "Changed in secret";
        await ada.ChangeAsync(added, "edit", draft);
        app.Clock.Advance(Duration.FromHours(1));
        var after = await app.Reader().Http.GetAsync("/c/pinewick/hidden-drafts.ics");
        Assert.Equal(await before.Content.ReadAsStringAsync(), await after.Content.ReadAsStringAsync());
        Assert.Equal(before.Headers.ETag, after.Headers.ETag);
        Assert.Equal(before.Content.Headers.LastModified, after.Content.Headers.LastModified);
    }

    [Fact]
    public async Task A_change_arrives_in_feed_page_and_month()
    {
        var ada = await app.SignedInAsync();
        var id = await NewCalendarAsync(ada, "CHG", "Changing");
        var added = await ada.DoAsync(HttpMethod.Post, "/api/events", Caller.Event(id));
        LetTrustEnd();
        var before = await app.Reader().Http.GetStringAsync("/c/pinewick/changing.ics");
        Assert.Contains("DTSTART;TZID=America/Halifax:20261125T140000", before, StringComparison.Ordinal);
        await ada.ChangeAsync(added, "edit", Caller.Event(id, from: "16:00:00", to: "17:00:00"));
        LetTrustEnd();
        var after = await app.Reader().Http.GetStringAsync("/c/pinewick/changing.ics");
        Assert.Contains("DTSTART;TZID=America/Halifax:20261125T160000", after, StringComparison.Ordinal);
        Assert.Contains("SEQUENCE:1", after, StringComparison.Ordinal);
        Assert.Equal(Regex.Match(before, "BEGIN:VEVENT\r\nUID:.*").Value, Regex.Match(after, "BEGIN:VEVENT\r\nUID:.*").Value);
        Assert.Contains("2026-11-25T16:00:00-04:00", await PageAsync("/c/pinewick/changing"), StringComparison.Ordinal);
        Assert.Contains("2026-11-25T16:00:00-04:00", await PageAsync("/c/pinewick/changing.json?month=2026-11"), StringComparison.Ordinal);
    }

    [Fact]
    public async Task What_nobody_announced_is_found_out_all_the_same()
    {
        var ada = await app.SignedInAsync();
        var id = await NewCalendarAsync(ada, "LST", "Lost news");
        await ada.DoAsync(HttpMethod.Post, "/api/events", Caller.Event(id, "Before"));
        LetTrustEnd();
        Assert.Contains("SUMMARY:Before", await PageAsync("/c/pinewick/lost-news.ics"), StringComparison.Ordinal);
        // The same writes as a save makes, but nobody is notified.
        await app.Test.Database.ExecuteAsync("""
            update event set version = version + 1, content = content || '{"title": "After"}' where home_calendar_id = @id;
            update edition set content_version = content_version + 1 where calendar_id = @id
            """, new { id = Guid.Parse(id) });
        app.Clock.Advance(Duration.FromMinutes(1));
        await ValtroApp.EventuallyAsync(async () => (await PageAsync("/c/pinewick/lost-news.ics"))
            .Contains("SUMMARY:After", StringComparison.Ordinal), "The change was never found.");
    }

    [Fact]
    public async Task Another_node_serves_what_this_one_saved()
    {
        await using var other = await app.StartAsync();
        var elsewhere = new Caller(other).Http;
        var ada = await app.SignedInAsync();
        var id = await NewCalendarAsync(ada, "TWO", "Two nodes");
        Assert.DoesNotContain("SUMMARY", await elsewhere.GetStringAsync("/c/pinewick/two-nodes.ics"), StringComparison.Ordinal);
        await ada.DoAsync(HttpMethod.Post, "/api/events", Caller.Event(id, "Seen from both"));
        LetTrustEnd();
        Assert.Contains("SUMMARY:Seen from both", await elsewhere.GetStringAsync("/c/pinewick/two-nodes.ics"), StringComparison.Ordinal);
    }

    private Task<string> PageAsync(string path) => app.Reader().Http.GetStringAsync(path);

    [Fact]
    public async Task An_open_page_is_told_of_a_change()
    {
        var ada = await app.SignedInAsync();
        var id = await NewCalendarAsync(ada, "SSE", "Open page");
        await using var stream = await app.Reader().Http.GetStreamAsync("/c/pinewick/open-page/changes");
        using var reader = new StreamReader(stream);
        var first = await NextVersionAsync(reader);
        await ada.DoAsync(HttpMethod.Post, "/api/events", Caller.Event(id));
        var second = await NextVersionAsync(reader);
        Assert.NotEqual(first, second);
        LetTrustEnd();
        Assert.Contains($"\"version\":\"{second}\"", await PageAsync("/c/pinewick/open-page"), StringComparison.Ordinal);
    }

    private static async Task<string> NextVersionAsync(StreamReader reader)
    {
        using var patience = new CancellationTokenSource(TimeSpan.FromSeconds(15));
        while (await reader.ReadLineAsync(patience.Token) is { } line)
        {
            if (line.StartsWith("data: ", StringComparison.Ordinal))
                return line["data: ".Length..];
        }
        throw new EndOfStreamException("The stream of changes ended.");
    }

    [Fact]
    public async Task Pages_and_embeds_may_be_framed_by_anybody_unless_the_edition_names_its_sites()
    {
        var embed = await app.Reader().Http.GetAsync("/c/pinewick/port-watch/embed");
        Assert.Contains("frame-ancestors *", embed.Headers.GetValues("Content-Security-Policy").Single(), StringComparison.Ordinal);
        var page = await app.Reader().Http.GetAsync("/c/pinewick/port-watch");
        Assert.Contains("frame-ancestors *", page.Headers.GetValues("Content-Security-Policy").Single(), StringComparison.Ordinal);
    }

    private static JsonNode DataOf(string page) =>
        JsonNode.Parse(Regex.Match(page, "id=\"edition-data\">(.*?)</script>", RegexOptions.Singleline).Groups[1].Value)!;

    private static IEnumerable<string> MonthsIn(string page) => DataOf(page)["months"]!.AsArray().Select(month => (string)month!["month"]!);

    [Fact]
    public async Task A_page_holds_its_data_and_is_painted_for_those_without_scripts()
    {
        var page = await PageAsync("/c/pinewick/whole-school");
        var painted = Regex.Match(page, "<div id=\"reader\" data-painted>(.*?)</div>\n<script", RegexOptions.Singleline).Groups[1].Value;
        Assert.Matches("<a [^>]*href=\"[^\"]+/c/pinewick/whole-school/entries/[^\"]+\"[^>]*>(?:(?!</a>).)*Open harbour evening",
            WebUtility.HtmlDecode(painted));
        Assert.DoesNotContain(" style=", painted, StringComparison.Ordinal);
        // Earlier, later and the other views are links.
        foreach (var link in new[] { "?date=2026-10-01", "?date=2026-12-01", "?view=week" })
            Assert.Contains($"href=\"{link}\"", painted, StringComparison.Ordinal);
        Assert.Contains("December 2026", await PageAsync("/c/pinewick/whole-school?date=2026-12-01"), StringComparison.Ordinal);
        Assert.Contains("view-week", await PageAsync("/c/pinewick/whole-school?view=week&date=2026-12-09"), StringComparison.Ordinal);
        // No more than the first view shows: the grid's month.
        Assert.Equal(["2026-11"], MonthsIn(page));
        Assert.Equal(["2026-11", "2026-12"], MonthsIn(await PageAsync("/c/pinewick/whole-school?view=list")));
    }

    [Fact]
    public async Task Nothing_that_people_type_becomes_markup()
    {
        const string nasty = "</script><script>alert(1)</script>\"'&";
        var ada = await app.SignedInAsync();
        var id = await NewCalendarAsync(ada, "XSS", "Nasty <b>name</b>");
        await ada.DoAsync(HttpMethod.Post, "/api/events", Caller.Event(id, nasty));
        LetTrustEnd();
        var page = await PageAsync("/c/pinewick/nasty-b-name-b");
        Assert.DoesNotContain("<script>alert", page, StringComparison.Ordinal);
        Assert.DoesNotContain("<b>name", page, StringComparison.Ordinal);
        Assert.Equal(nasty, (string)DataOf(page)["months"]![0]!["entries"]![0]!["title"]!);
    }

    [Theory]
    [InlineData("2026-13")]
    [InlineData("1700-01")]
    [InlineData("soon")]
    public async Task A_month_that_is_none_is_refused_with_a_sentence(string month)
    {
        var response = await app.Reader().Http.GetAsync($"/c/pinewick/port-watch.json?month={month}");
        Assert.Equal(HttpStatusCode.BadRequest, response.StatusCode);
        Assert.Contains("2026-11", (string)(await Caller.ReadAsync(response))["detail"]!, StringComparison.Ordinal);
    }

    [Fact]
    public async Task Far_months_are_rendered_but_not_kept()
    {
        Assert.Contains("\"month\":\"2150-01\"", await PageAsync("/c/pinewick/port-watch.json?month=2150-01"), StringComparison.Ordinal);
        Assert.Equal(0, await app.Test.Database.FirstAsync<long>("select count(*) from artefact where key = 'month:2150-01'"));
    }

    [Fact]
    public async Task The_feed_read_by_another_library_gives_the_dates_of_the_api()
    {
        var ada = await app.SignedInAsync();
        foreach (var (plate, slug) in new[] { ("PW", "port-watch"), ("SW", "starboard-watch"), ("CREW", "senior-crew"),
            ("SCH", "whole-school") })
        {
            var calendar = Foreign.Calendar.Load(await PageAsync($"/c/pinewick/{slug}.ics"))!;
            var (from, to) = (new DateTime(2026, 8, 1), new DateTime(2027, 8, 1));
            var theirs = calendar.GetOccurrences(new Foreign.DataTypes.CalDateTime(from.AddDays(-3)))
                .TakeWhile(occurrence => occurrence.Period.StartTime.Value < to)
                .Where(occurrence => occurrence.Period.StartTime.Value >= from)
                .Select(occurrence => occurrence.Period.StartTime.HasTime
                    ? $"{((Foreign.CalendarComponents.CalendarEvent)occurrence.Source).Summary!.Replace(" (due)", "", StringComparison.Ordinal)} {occurrence.Period.StartTime.AsUtc:O}"
                    : $"{((Foreign.CalendarComponents.CalendarEvent)occurrence.Source).Summary!.Replace(" (due)", "", StringComparison.Ordinal)} {occurrence.Period.StartTime.Value:yyyy-MM-dd}");
            var ours = (await ada.GetAsync(
                $"/api/occurrences?from=2026-08-01&to=2027-08-01&as=everyone&calendar={await ada.CalendarAsync(plate)}"))
                .AsArray()
                .Select(one => (bool)one!["allDay"]!
                    ? $"{one["title"]} {one["start"]}"
                    : $"{one["title"]} {DateTimeOffset.Parse((string)one["start"]!, System.Globalization.CultureInfo.InvariantCulture).UtcDateTime:O}")
                .ToArray();
            Assert.NotEmpty(ours);
            Assert.Equal(ours.Order(), theirs.Order());
        }
    }
}
