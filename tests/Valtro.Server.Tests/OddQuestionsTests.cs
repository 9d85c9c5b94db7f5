using System.Net;
using System.Text.Json.Nodes;

namespace Valtro.Server.Tests;

/// <summary>Whatever stands in an address that is only read: an answer, or a sentence, and never our mistake.</summary>
public sealed class OddQuestionsTests(ValtroApp app) : IClassFixture<ValtroApp>
{
    /// <summary>As they stand in an address.</summary>
    private static readonly string[] Odd =
    [
        "", "%20", "x", "-1", "0", "1", "2147483648", "1e9", "null", "%01", "a%00b", "%EF%BF%BE", "%EF%BF%BF", "%ED%A0%80", "%FF",
        "%F0%9F%91%A9", "%E2%80%AE", "%25", "%2e%2e%2f", "%3Cscript%3E", "'%3B--", "*", "PW,SW,,,", "PW%2CNOPE",
        "2026-11", "2026-13", "1899-12", "1900-01", "2199-12", "2200-01", "9999-12", "-9998-01", "2026-11-25", "1900-01-01", "2199-12-31",
        "9999-12-31", "-9998-01-01", "0001-01-01", "2026-02-30", "2026-11-25T14:00:00", "9999-12-31T23:59:59",
        "00000000-0000-0000-0000-000000000000", "everyone", "nobody", "http://[", "https%3A%2F%2F%EF%BB%BF%2Fc%2Fx%2Fy",
        "https://dates.pinewick.example/c/%00/x", "https%3A%2F%2Fdates.pinewick.example%2Fc%2Fa%2500b%2Fc",
        "https%3A%2F%2Fdates.pinewick.example%2Fc%2Fpinewick%2Fport-watch",
        new string('a', 3_000), string.Concat(Enumerable.Repeat("%F0%9F%91%A9%E2%80%8D%F0%9F%91%A6", 60)),
    ];

    [Fact]
    public async Task Whatever_stands_in_an_address_gets_an_answer_or_a_sentence()
    {
        var ada = await app.SignedInAsync();
        var reader = app.Reader();
        var pw = await ada.CalendarAsync("PW");
        var made = await ada.DoAsync(HttpMethod.Post, "/api/events", Caller.Event(pw, "Sail repair", repeat: Caller.Weekly(3)));
        var edition = (string)(await ada.GetAsync("/api/editions")).AsArray().First(one => (string?)one!["calendarId"] == pw)!["id"]!;
        var plan = (string)(await ada.GetAsync("/api/year-plans"))["plans"]![0]!["id"]!;
        var address = "/c/pinewick/port-watch";
        // {} is where something odd stands; of a route all that vary are tried, one after another.
        string[] ofTheDesk =
        [
            "/api/audit?before={}", "/api/audit?act={}", "/api/calendars/plate?name={}", $"/api/calendars/{pw}/merge?into={{}}",
            "/api/calendars/{}", "/api/calendars/{}/publishing", "/api/calendars/{}/removal", "/api/calendars/{}/link",
            "/api/calendars/{}/feed-code.svg",
            $"/api/editions/{edition}/code.svg?of={{}}", $"/api/editions/{edition}/code.png?of={{}}", "/api/editions/{}",
            "/api/editions/{}/link", $"/api/events/{made["id"]}?date={{}}", "/api/events/{}", "/api/events/{}/revisions",
            "/api/occurrences?from={}&to=2026-12-01", "/api/occurrences?from=2026-11-23&to={}",
            "/api/occurrences?from=2026-11-23&to=2026-12-01&calendar={}", "/api/occurrences?from={}", "/api/occurrences",
            "/api/year?day={}", "/api/year", "/api/days?from={}&to=2026-12-01", "/api/days?from=2026-11-23&to={}", "/api/sign-off/{}",
            "/api/files/{}", "/api/files/{}/x.png", "/api/year-plans/{}/removal", $"/api/year-plans/{plan}/removal?x={{}}",
            "/api/previews/{}", $"/api/previews/calendars/{pw}/{{}}", "/{}", "/calendars/{}",
        ];
        string[] ofReaders =
        [
            "/c/{}/port-watch", "/c/pinewick/{}", "/c/pinewick/{}.ics", "/s/{}", "/s/{}.ics", "/s/{}/embed", $"{address}?month={{}}",
            $"{address}/embed?month={{}}", $"{address}.json?month={{}}", $"{address}.ics?only={{}}", $"{address}.atom?x={{}}",
            $"{address}/entries/{made["id"]}/{{}}", $"{address}/entries/{made["id"]}/{{}}.ics",
            $"{address}/entries/{{}}/2026-11-25T14:00:00", $"{address}/entries/{{}}.ics", $"{address}/files/{{}}/x.png",
            $"{address}/files/{Guid.NewGuid()}/{{}}?width={{}}", $"{address}/changes/{{}}",
            "/oembed?url={}", $"/oembed?url=https%3A%2F%2Fdates.pinewick.example{address}&maxwidth={{}}",
            $"/oembed?url=https%3A%2F%2Fdates.pinewick.example{address}&maxheight={{}}", "/oembed?format={}&url=x", "/metrics/{}",
            "/dav/{}", "/api/{}",
        ];
        var wrong = new List<string>();
        foreach (var (pattern, caller) in ofTheDesk.Select(pattern => (pattern, ada))
            .Concat(ofReaders.Select(pattern => (pattern, reader))))
        {
            foreach (var odd in Odd)
            {
                if (Uri.TryCreate(new Uri("https://dates.pinewick.example"), pattern.Replace("{}", odd, StringComparison.Ordinal),
                    out var asked) && await WrongWithAsync(caller, asked) is { } fault)
                    wrong.Add($"{pattern} with {odd[..Math.Min(60, odd.Length)]}\n    → {fault}");
            }
        }
        Assert.True(wrong.Count == 0, $"{wrong.Count} were answered wrongly.\n{string.Join('\n', wrong.Take(25))}");
    }

    private static async Task<string?> WrongWithAsync(Caller caller, Uri asked, int tries = 0)
    {
        // The web server itself refuses a zero in a path; what stands behind ? it leaves to us.
        if (asked.AbsolutePath.Contains("%00", StringComparison.Ordinal))
            return null;
        using var request = new HttpRequestMessage(HttpMethod.Get, asked);
        using var answer = await caller.Http.SendAsync(request, HttpCompletionOption.ResponseHeadersRead);
        if ((int)answer.StatusCode < 400)
            return null;
        // A slow machine may ask to come again.
        if (answer.Headers.RetryAfter is not null && tries < 10)
            return await WrongWithAsync(caller, asked, tries + 1);
        var text = await answer.Content.ReadAsStringAsync();
        var said = $"{(int)answer.StatusCode} {answer.Content.Headers.ContentType}: {text[..Math.Min(300, text.Length)]}";
        if ((int)answer.StatusCode >= 500 && answer.StatusCode != HttpStatusCode.NotImplemented || text.Length == 0)
            return said;
        if (answer.StatusCode != HttpStatusCode.BadRequest)
            return null;
        return answer.Content.Headers.ContentType?.MediaType == "application/problem+json"
            && JsonNode.Parse(text)!["errors"] is JsonObject { Count: > 0 } errors
            && errors.All(error =>
                asked.OriginalString.Contains(error.Key, StringComparison.Ordinal) || text.Contains("is missing", StringComparison.Ordinal))
            ? null
            : said;
    }
}
