using System.Net;

namespace Valtro.Server.Tests;

/// <summary>Open desks hear that something of their organisation is another, and not what.</summary>
public sealed class DeskNewsTests(ValtroApp app) : IClassFixture<ValtroApp>
{
    private static async Task<StreamReader> ListenAsync(Caller caller)
    {
        var answer = await caller.Http.GetAsync("/api/changes", HttpCompletionOption.ResponseHeadersRead);
        Assert.Equal("text/event-stream", answer.Content.Headers.ContentType?.MediaType);
        var stream = new StreamReader(await answer.Content.ReadAsStreamAsync());
        Assert.Equal(": still here", await stream.ReadLineAsync());
        return stream;
    }

    /// <returns>By which requests.</returns>
    private static async Task<string> HearAsync(StreamReader stream)
    {
        while (await stream.ReadLineAsync() is { } line)
        {
            if (line == "event: desk")
                return (await stream.ReadLineAsync())!["data: ".Length..];
        }
        throw new InvalidOperationException("The stream ended before anything was told.");
    }

    [Fact]
    public async Task A_save_a_draft_a_list_and_a_calendar_s_settings_are_told()
    {
        var (ada, bo) = (await app.SignedInAsync(), await app.SignedInAsync("bo"));
        using var stream = await ListenAsync(bo);
        var calendar = await ada.CalendarAsync("PW");
        await ada.DoAsync(HttpMethod.Post, "/api/events", Caller.Event(calendar, "Told of"));
        await HearAsync(stream);
        var draft = Caller.Event(calendar, "A draft");
        draft["isDraft"] = true;
        await ada.DoAsync(HttpMethod.Post, "/api/events", draft);
        await HearAsync(stream);
        await ada.DoAsync(HttpMethod.Post, "/api/lists/places", new { name = "Crow’s nest" });
        await HearAsync(stream);
    }

    /// <summary>So that a desk does not ask a second time for what came of its own act.</summary>
    [Fact]
    public async Task It_is_told_by_which_request()
    {
        var ada = await app.SignedInAsync();
        using var stream = await ListenAsync(ada);
        foreach (var name in new[] { "Rope locker", "Sail loft" })
        {
            var answer = await ada.SendAsync(HttpMethod.Post, "/api/lists/places", new { name });
            Assert.Equal(Assert.Single(answer.Headers.GetValues("Valtro-Change")), await HearAsync(stream));
        }
        var read = await ada.Http.GetAsync("/api/lists");
        Assert.False(read.Headers.Contains("Valtro-Change"));
    }

    [Fact]
    public async Task Who_only_reads_is_told_nothing_and_nobody_hears_before_signing_in()
    {
        Assert.Equal(HttpStatusCode.Forbidden, (await (await app.SignedInAsync("di")).Http.GetAsync("/api/changes")).StatusCode);
        Assert.Equal(HttpStatusCode.Unauthorized, (await app.Reader().Http.GetAsync("/api/changes")).StatusCode);
    }
}
