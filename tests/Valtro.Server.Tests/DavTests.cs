using System.Net;
using System.Net.Http.Headers;
using System.Text;
using System.Xml.Linq;

namespace Valtro.Server.Tests;

/// <summary>What members' calendar programs read by CalDAV, and that they change nothing.</summary>
public sealed class DavTests(ValtroApp app) : IClassFixture<ValtroApp>
{
    private static readonly XNamespace D = "DAV:";
    private static readonly XNamespace C = "urn:ietf:params:xml:ns:caldav";

    private sealed record Program(HttpClient Http, string Id)
    {
        public async Task<(HttpStatusCode Status, XElement? Body, HttpResponseMessage Answer)> SendAsync(
            string method, string path, string? body = null, string depth = "1")
        {
            var request = new HttpRequestMessage(new HttpMethod(method), path);
            request.Headers.Add("Depth", depth);
            if (body is not null)
                request.Content = new StringContent(body, Encoding.UTF8, "application/xml");
            var answer = await Http.SendAsync(request);
            var text = await answer.Content.ReadAsStringAsync();
            return (answer.StatusCode, answer.Content.Headers.ContentType?.MediaType == "application/xml" ? XElement.Parse(text) : null, answer);
        }

        public async Task<XElement> AskAsync(string method, string path, string body, string depth = "1")
        {
            var (status, answer, _) = await SendAsync(method, path, body, depth);
            Assert.Equal(HttpStatusCode.MultiStatus, status);
            return answer!;
        }
    }

    private async Task<Program> ProgramAsync(string who, Caller? caller = null)
    {
        caller ??= await app.SignedInAsync(who);
        var made = await caller.DoAsync(HttpMethod.Post, "/api/account/programs", new { program = "Phone" });
        Assert.Equal("https://dates.pinewick.example/dav/", (string)made["address"]!);
        return new Program(Client($"{who}@pinewick.example", (string)made["secret"]!), (string)made["id"]!);
    }

    private HttpClient Client(string user, string password)
    {
        var client = new Caller(app.Factory).Http;
        client.DefaultRequestHeaders.Authorization =
            new AuthenticationHeaderValue("Basic", Convert.ToBase64String(Encoding.UTF8.GetBytes($"{user}:{password}")));
        return client;
    }

    private static string Props(params string[] names) =>
        $"<d:propfind xmlns:d='DAV:' xmlns:c='{C}'><d:prop>{string.Concat(names.Select(name => $"<{name}/>"))}</d:prop></d:propfind>";

    private static string One(XElement answer, XName name) => answer.Descendants(name).First().Value;

    private static async Task<string> HomeAsync(Program program)
    {
        var principal = One(await program.AskAsync("PROPFIND", "/dav/", Props("d:current-user-principal"), "0"), D + "current-user-principal");
        return One(await program.AskAsync("PROPFIND", principal, Props("c:calendar-home-set"), "0"), C + "calendar-home-set");
    }

    /// <summary>Paths by the names of calendars.</summary>
    private static async Task<Dictionary<string, string>> CalendarsAsync(Program program) =>
        (await program.AskAsync("PROPFIND", await HomeAsync(program), Props("d:displayname", "d:resourcetype"))).Elements(D + "response")
            .Where(one => one.Descendants(C + "calendar").Any())
            .ToDictionary(one => One(one, D + "displayname"), one => One(one, D + "href"));

    private static string Query(string filter, string prop = "<d:getetag/><c:calendar-data/>") => $"""
        <c:calendar-query xmlns:d="DAV:" xmlns:c="{C}"><d:prop>{prop}</d:prop>
        <c:filter><c:comp-filter name="VCALENDAR"><c:comp-filter name="VEVENT">{filter}</c:comp-filter></c:comp-filter></c:filter>
        </c:calendar-query>
        """;

    private static string[] Titles(XElement answer) => [.. answer.Descendants(C + "calendar-data").SelectMany(one => one.Value.Split("\r\n"))
        .Where(line => line.StartsWith("SUMMARY:", StringComparison.Ordinal)).Select(line => line["SUMMARY:".Length..]).Order(StringComparer.Ordinal)];

    [Fact]
    public async Task A_program_finds_its_way_and_reads_what_its_owner_sees()
    {
        var di = await ProgramAsync("di");
        var (ada, cy) = (await ProgramAsync("ada"), await ProgramAsync("cy"));
        var (ofDi, ofAda) = (await CalendarsAsync(di), await CalendarsAsync(ada));
        Assert.Contains("Port Watch", ofDi.Keys);
        Assert.DoesNotContain("Staff room", ofDi.Keys);
        Assert.Contains("Staff room", ofAda.Keys);
        var week = Query("<c:time-range start=\"20261123T000000Z\" end=\"20261130T000000Z\"/>");
        var found = await di.AskAsync("REPORT", ofDi["Port Watch"], week);
        Assert.Contains("Boat lab", Titles(found));
        // Somebody else's home, and a calendar that is nobody's of theirs.
        Assert.Equal(HttpStatusCode.NotFound, (await cy.SendAsync("PROPFIND", await HomeAsync(di), Props("d:displayname"))).Status);
        var closed = ofAda["Staff room"].Replace((await HomeAsync(ada)), await HomeAsync(di), StringComparison.Ordinal);
        Assert.Equal(HttpStatusCode.NotFound, (await di.SendAsync("REPORT", closed, week)).Status);
        // One object, as it stands in the answer.
        var response = found.Elements(D + "response").First();
        var (path, tag) = (One(response, D + "href"), One(response, D + "getetag"));
        var (status, _, got) = await di.SendAsync("GET", path);
        Assert.Equal((HttpStatusCode.OK, tag), (status, got.Headers.ETag!.ToString()));
        Assert.Equal(One(response, C + "calendar-data").ReplaceLineEndings(), (await got.Content.ReadAsStringAsync()).ReplaceLineEndings());
        var many = await di.AskAsync("REPORT", ofDi["Port Watch"], $"""
            <c:calendar-multiget xmlns:d="DAV:" xmlns:c="{C}"><d:prop><d:getetag/></d:prop>
            <d:href>{path}</d:href><d:href>{ofDi["Port Watch"]}none.ics</d:href></c:calendar-multiget>
            """);
        Assert.Equal(["HTTP/1.1 200 OK", "HTTP/1.1 404 Not Found"], many.Descendants(D + "status").Select(one => one.Value));
    }

    [Fact]
    public async Task A_time_is_told_as_no_more_than_that_and_by_no_name_that_tells_which()
    {
        var ada = await app.SignedInAsync();
        var calendar = await ada.MakeCalendarAsync("DV1", members: "times");
        var added = await ada.DoAsync(HttpMethod.Post, "/api/events",
            Caller.Event(calendar, "Secret talk", repeat: Caller.Weekly(3)));
        var (di, own) = (await ProgramAsync("di"), await ProgramAsync("ada", ada));
        var asked = Query("<c:time-range start=\"20261123T000000Z\" end=\"20261207T000000Z\"/>");
        var seen = await di.AskAsync("REPORT", (await CalendarsAsync(di))["Calendar DV1"], asked);
        Assert.Equal(["Busy", "Busy"], Titles(seen));
        Assert.DoesNotContain("Secret", seen.ToString());
        Assert.DoesNotContain((string)added["id"]!, seen.ToString());
        Assert.Equal(["Secret talk"], Titles(await own.AskAsync("REPORT", (await CalendarsAsync(own))["Calendar DV1"], asked)));
    }

    [Fact]
    public async Task What_is_another_since_it_asked_last_is_told_and_what_nobody_remembers_is_asked_anew()
    {
        var ada = await app.SignedInAsync();
        var program = await ProgramAsync("ada", ada);
        var pw = await ada.CalendarAsync("PW");
        var path = (await CalendarsAsync(program))["Port Watch"];
        string Sync(string token) => $"""
            <d:sync-collection xmlns:d="DAV:"><d:sync-token>{token}</d:sync-token><d:sync-level>1</d:sync-level><d:prop><d:getetag/></d:prop></d:sync-collection>
            """;
        var all = await program.AskAsync("REPORT", path, Sync(""));
        var token = One(all, D + "sync-token");
        Assert.Equal(token, One(await program.AskAsync("PROPFIND", path, Props("d:sync-token"), "0"), D + "sync-token"));
        Assert.Empty((await program.AskAsync("REPORT", path, Sync(token))).Elements(D + "response"));
        var added = await ada.DoAsync(HttpMethod.Post, "/api/events", Caller.Event(pw, "New on the phone"));
        var news = await program.AskAsync("REPORT", path, Sync(token));
        var one = Assert.Single(news.Elements(D + "response"));
        Assert.Equal("HTTP/1.1 200 OK", One(one, D + "status"));
        await ada.DoAsync(HttpMethod.Post, $"/api/events/{added["id"]}/changes",
            new { version = 1, recurrenceId = (string)added["recurrenceId"]!, act = "remove" });
        var gone = Assert.Single((await program.AskAsync("REPORT", path, Sync(One(news, D + "sync-token")))).Elements(D + "response"));
        Assert.Equal((One(one, D + "href"), "HTTP/1.1 404 Not Found"), (One(gone, D + "href"), One(gone, D + "status")));
        foreach (var unknown in new[] { "urn:valtro:sync:0123", "http://other.example/1" })
        {
            var (status, refused, _) = await program.SendAsync("REPORT", path, Sync(unknown));
            Assert.Equal((HttpStatusCode.Forbidden, true), (status, refused!.Element(D + "valid-sync-token") is not null));
        }
    }

    [Fact]
    public async Task Nothing_is_changed_and_rubbish_has_an_answer()
    {
        var program = await ProgramAsync("ada");
        var path = (await CalendarsAsync(program))["Port Watch"];
        foreach (var method in new[] { "PUT", "DELETE", "PROPPATCH", "MKCALENDAR", "MOVE", "POST", "LOCK" })
        {
            var (status, body, _) = await program.SendAsync(method, $"{path}x.ics", "<x/>");
            Assert.Equal((HttpStatusCode.Forbidden, true), (status, body!.Element(D + "need-privileges") is not null));
        }
        foreach (var (method, body, wanted) in new[]
        {
            ("PROPFIND", "<x", 400), ("PROPFIND", "<!DOCTYPE a [<!ENTITY b SYSTEM 'file:///etc/passwd'>]><a>&b;</a>", 400), ("REPORT", "", 400),
            ("REPORT", "<x/>", 403), ("REPORT", "<c:free-busy-query xmlns:c='urn:ietf:params:xml:ns:caldav'/>", 400),
            ("REPORT", Query("<c:time-range start='tomorrow'/>"), 403), ("REPORT", Query("<c:param-filter name='x'/>"), 403),
        })
            Assert.Equal(wanted, (int)(await program.SendAsync(method, path, body)).Status);
        Assert.Equal(HttpStatusCode.Forbidden, (await program.SendAsync("PROPFIND", path, Props("d:getetag"), "infinity")).Status);
        Assert.Equal(HttpStatusCode.NotFound, (await program.SendAsync("GET", $"{path}none.ics")).Status);
        Assert.Contains("calendar-access", (await program.SendAsync("OPTIONS", path)).Answer.Headers.GetValues("DAV").Single());
        var (moved, _, answer) = await program.SendAsync("PROPFIND", "/.well-known/caldav");
        Assert.Equal((HttpStatusCode.PermanentRedirect, "/dav/"), (moved, answer.Headers.Location!.OriginalString));
    }

    [Fact]
    public async Task Free_and_busy_times_are_told_as_such()
    {
        var ada = await app.SignedInAsync();
        var program = await ProgramAsync("ada", ada);
        var path = (await CalendarsAsync(program))["Staff room"];
        await ada.DoAsync(HttpMethod.Post, "/api/events", Caller.Event(await ada.CalendarAsync("STF"), "Talk", "2027-03-03", "14:00:00", "15:00:00"));
        await ada.DoAsync(HttpMethod.Post, "/api/events", Caller.Event(await ada.CalendarAsync("STF"), "More", "2027-03-03", "14:30:00", "16:00:00"));
        var answer = (await program.SendAsync("REPORT", path, """
            <c:free-busy-query xmlns:c="urn:ietf:params:xml:ns:caldav"><c:time-range start="20270303T000000Z" end="20270304T000000Z"/></c:free-busy-query>
            """)).Answer;
        var text = await answer.Content.ReadAsStringAsync();
        Assert.Contains("FREEBUSY:20270303T180000Z/20270303T200000Z\r\n", text);
        Assert.DoesNotContain("Talk", text);
    }

    [Fact]
    public async Task A_password_opens_nothing_else_and_ends_with_a_word_or_with_all_sessions()
    {
        var em = await app.SignedInAsync("em");
        var (first, second) = (await ProgramAsync("em", em), await ProgramAsync("em", em));
        async Task<HttpStatusCode> ReadsAsync(Program program) => (await program.SendAsync("PROPFIND", "/dav/", Props("d:displayname"), "0")).Status;
        Assert.Equal(HttpStatusCode.MultiStatus, await ReadsAsync(first));
        Assert.Equal(HttpStatusCode.Unauthorized, (await first.Http.GetAsync("/api/calendars")).StatusCode);
        var listed = (await em.GetAsync("/api/account/programs")).AsArray();
        Assert.Equal((2, 1), (listed.Count, listed.Count(one => one!["usedAt"] is not null)));
        Assert.Equal(HttpStatusCode.NoContent, (await em.SendAsync(HttpMethod.Delete, $"/api/account/programs/{first.Id}")).StatusCode);
        Assert.Equal(HttpStatusCode.Unauthorized, await ReadsAsync(first));
        Assert.Equal(HttpStatusCode.MultiStatus, await ReadsAsync(second));
        // Somebody else's is not theirs to withdraw; another's address opens nothing.
        var di = await app.SignedInAsync("di");
        Assert.Equal(HttpStatusCode.NotFound, (await di.SendAsync(HttpMethod.Delete, $"/api/account/programs/{second.Id}")).StatusCode);
        await em.SendAsync(HttpMethod.Delete, "/api/session/everywhere");
        Assert.Equal(HttpStatusCode.Unauthorized, await ReadsAsync(second));
        foreach (var (user, password) in new[] { ("em@pinewick.example", "harbour-lantern"), ("", ""), ("nobody", "x") })
            Assert.Equal(HttpStatusCode.Unauthorized, (await Client(user, password).GetAsync("/dav/")).StatusCode);
        var dump = await app.Test.Database.ListAsync<string>("select row_to_json(p)::text from app_password p");
        Assert.All(dump, row => Assert.DoesNotContain("harbour", row));
    }
}
