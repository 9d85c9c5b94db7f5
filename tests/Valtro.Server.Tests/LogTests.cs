using System.Collections.Concurrent;
using System.Net;
using System.Text.Json.Nodes;
using Microsoft.AspNetCore.Mvc.Testing;
using Microsoft.Extensions.DependencyInjection;
using Serilog.Core;
using Serilog.Events;
using Serilog.Formatting.Compact;
using Valtro.Application.Work;

namespace Valtro.Server.Tests;

/// <summary>What stands in the log: one line a request, one a failure, and no secret.</summary>
public sealed class LogTests(ValtroApp app) : IClassFixture<ValtroApp>
{
    /// <summary>Keeps the lines as they are printed.</summary>
    private sealed class Lines : ILogEventSink
    {
        private readonly ConcurrentQueue<string> _lines = new();

        public void Emit(LogEvent logEvent)
        {
            using var line = new StringWriter();
            new RenderedCompactJsonFormatter().Format(logEvent, line);
            _lines.Enqueue(line.ToString());
        }

        public string All => string.Concat(_lines);

        public IEnumerable<JsonNode> Json => _lines.Select(line => JsonNode.Parse(line)!);

        /// <summary>Lines of requests say what was asked.</summary>
        public JsonNode[] Requests(string path) => [.. Json.Where(line => (string?)line["Path"] == path)];
    }

    private async Task<(WebApplicationFactory<EventStreams> Node, Lines Lines)> NodeAsync()
    {
        var lines = new Lines();
        return (await app.StartAsync(with: services => services.AddSingleton<ILogEventSink>(lines)), lines);
    }

    [Fact]
    public async Task A_request_is_one_line_of_JSON_and_its_secrets_are_in_none()
    {
        var (node, lines) = await NodeAsync();
        await using var _ = node;
        var ada = new Caller(node);
        await ada.SignInAsync("ada");
        var pw = await ada.CalendarAsync("PW");
        var link = new Uri((string)(await ada.DoAsync(HttpMethod.Post, $"/api/calendars/{pw}/link", new { }))["page"]!).AbsolutePath;
        await ada.Http.GetStringAsync($"{link}.ics");
        await ada.Http.GetStringAsync($"{link}/embed");
        var token = new string('t', 32);
        await ada.Http.GetAsync($"/mail/{token}");
        await ada.Http.PostAsync($"/mail/{token}/end", null);
        await ada.TrySignInAsync("ada", "not-the-password");
        await ada.SendAsync(
            HttpMethod.Post, "/api/password-resets/set", new { secret = "a-secret-of-a-link", password = "lanterns-at-the-pier" });
        await ada.SendAsync(HttpMethod.Post, "/api/events", Caller.Event(pw, "A title of somebody"));
        await ada.Http.GetAsync("/api/occurrences?from=2026-11-23&to=2026-11-30&token=in-a-query");
        foreach (var secret in new[] { link.Split('/')[2], token, "not-the-password", "a-secret-of-a-link", "lanterns-at-the-pier", "in-a-query",
            "ada@pinewick.example", "A title of somebody", "valtro-session=" })
            Assert.DoesNotContain(secret, lines.All, StringComparison.Ordinal);
        Assert.Single(lines.Requests("/s/….ics"));
        Assert.Single(lines.Requests("/s/…/embed"));
        Assert.Single(lines.Requests("/mail/…"));
        Assert.Single(lines.Requests("/mail/…/end"));
        var line = Assert.Single(lines.Requests("/api/occurrences"));
        Assert.Equal(("GET", 200), ((string)line["Method"]!, (int)line["Status"]!));
        Assert.Matches("^[0-9a-f]{32}$", (string)line["@tr"]!);
    }

    [Theory]
    [InlineData("00-0af7651916cd43dd8448eb211c80319c-b7ad6b7169203331-01", "^0af7651916cd43dd8448eb211c80319c$")]
    [InlineData("of our own making", "^[0-9a-f]{32}$")]
    public async Task Who_comes_with_a_number_is_in_the_log_under_it(string traceparent, string expected)
    {
        var (node, lines) = await NodeAsync();
        await using var _ = node;
        using var request = new HttpRequestMessage(HttpMethod.Get, "/c/pinewick/port-watch");
        request.Headers.TryAddWithoutValidation("traceparent", traceparent);
        using var answer = await new Caller(node).Http.SendAsync(request);
        Assert.Matches(expected, (string)Assert.Single(lines.Requests("/c/pinewick/port-watch"))["@tr"]!);
    }

    [Fact]
    public async Task Our_own_mistake_is_one_line_with_the_number_that_was_shown()
    {
        var (node, lines) = await NodeAsync();
        await using var _ = node;
        var ada = new Caller(node);
        await ada.SignInAsync("ada");
        await using var mistake = await app.MistakeAsync("calendar_group");
        var shown = await Caller.ReadAsync(
            await ada.SendAsync(
                HttpMethod.Post, "/api/groups", new { name = "Watches", calendars = new[] { await ada.CalendarAsync("PW") } }));
        var line = Assert.Single(lines.Json, line => line.ToJsonString().Contains("as if by a mistake", StringComparison.Ordinal));
        Assert.Equal(("Error", (string)shown["traceId"]!), ((string)line["@l"]!, (string)line["@tr"]!));
    }

    [Fact]
    public async Task A_database_that_is_away_is_said_once_and_each_refused_request_is_its_own_line()
    {
        var (node, lines) = await NodeAsync();
        await using var _ = node;
        var ada = new Caller(node);
        await ada.SignInAsync("ada");
        var reader = new Caller(node).Http;
        await reader.GetStringAsync("/c/pinewick/port-watch.ics");
        await app.Test.StopAsync();
        try
        {
            foreach (var __ in Enumerable.Range(0, 30))
            {
                app.Clock.Advance(NodaTime.Duration.FromSeconds(1));
                node.Services.GetRequiredService<WorkSignal>().Raise();
                Assert.Equal(HttpStatusCode.OK, (await reader.GetAsync("/c/pinewick/port-watch.ics")).StatusCode);
                Assert.Equal(HttpStatusCode.ServiceUnavailable, (await ada.Http.GetAsync("/api/calendars")).StatusCode);
            }
        }
        finally
        {
            await app.Test.StartAsync();
        }
        Assert.Equal(30, lines.Requests("/api/calendars").Length);
        Assert.All(lines.Requests("/api/calendars"),
            line => Assert.Equal(("Warning", false), ((string)line["@l"]!, line.AsObject().ContainsKey("@x"))));
        // What is tried over and over behind them is said when it begins, not each time: by each kind of work, and each other loop, once.
        Assert.InRange(
            lines.Json.Count(line => line["Path"] is null && (string?)line["@l"] is "Error" or "Warning"), 1,
            Enum.GetValues<Store.WorkKind>().Length + node.Services.GetServices<ILoop>().Count());
    }
}
