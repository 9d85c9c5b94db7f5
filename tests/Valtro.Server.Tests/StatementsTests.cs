using System.Collections.Concurrent;
using System.Diagnostics;

namespace Valtro.Server.Tests;

/// <summary>How often a request asks the database, counted as Npgsql sends it. No number may grow with what is shown.</summary>
public sealed class StatementsTests(ValtroApp app) : IClassFixture<ValtroApp>
{
    /// <summary>What a request asks, one line each.</summary>
    private static async Task<IReadOnlyList<string>> AskedAsync(Caller caller, string address)
    {
        var trace = ActivityTraceId.CreateRandom();
        var asked = new ConcurrentQueue<string>();
        using var listener = new ActivityListener
        {
            ShouldListenTo = source => source.Name is "Npgsql" or "Microsoft.AspNetCore",
            Sample = (ref ActivityCreationOptions<ActivityContext> _) => ActivitySamplingResult.AllDataAndRecorded,
            ActivityStopped = activity =>
            {
                if (activity.Source.Name == "Npgsql" && activity.TraceId == trace)
                    asked.Enqueue($"{activity.GetTagItem("db.query.text") ?? activity.GetTagItem("db.statement")}");
            },
        };
        ActivitySource.AddActivityListener(listener);
        using var request = new HttpRequestMessage(HttpMethod.Get, address);
        request.Headers.Add("traceparent", $"00-{trace}-{ActivitySpanId.CreateRandom()}-01");
        using var response = await caller.Http.SendAsync(request);
        Assert.True(response.IsSuccessStatusCode, $"{address} answered {response.StatusCode}");
        return [.. asked];
    }

    /// <summary>Six is the aim for all; what needs more yet says how many.</summary>
    [Fact]
    public async Task No_question_of_the_desk_asks_the_database_more_often_than_it_is_allowed()
    {
        var ada = await app.SignedInAsync();
        var calendar = (string)(await ada.GetAsync("/api/calendars"))[0]!["id"]!;
        var calendarEvent = (string)(await ada.GetAsync("/api/occurrences?from=2026-11-23&to=2026-11-30"))[0]!["eventId"]!;
        var edition = (string)(await ada.GetAsync("/api/editions"))[0]!["id"]!;
        foreach (var (most, address) in new[]
        {
            (6, "/api/session"),
            (6, "/api/calendars"),
            (6, $"/api/calendars/{calendar}"),
            (6, $"/api/calendars/{calendar}/publishing"),
            (6, "/api/editions"),
            (6, $"/api/editions/{edition}"),
            (6, "/api/occurrences?from=2026-11-01&to=2026-12-31"),
            (6, $"/api/events/{calendarEvent}"),
            (8, $"/api/events/{calendarEvent}/revisions"),
            (6, "/api/bin"),
            (6, "/api/year-plans"),
            (6, "/api/year?day=2026-11-23"),
            (6, "/api/lists"),
            (6, "/api/people"),
            (6, "/api/audit"),
            (6, "/api/sign-off"),
            (6, "/api/sign-off/count"),
            (6, "/api/groups"),
            (6, "/api/work"),
        })
        {
            var asked = await AskedAsync(ada, address);
            Assert.True(asked.Count > 0 && asked.Count <= most, $"{address} asks {asked.Count} times, {most} are allowed:\n{string.Join("\n\n", asked)}");
        }
    }

    [Theory]
    [InlineData("/c/pinewick/port-watch")]
    [InlineData("/c/pinewick/port-watch.ics")]
    [InlineData("/c/pinewick/port-watch.json")]
    [InlineData("/c/pinewick/port-watch.atom")]
    [InlineData("/c/pinewick/port-watch/changed.json")]
    public async Task A_warm_public_address_asks_the_database_nothing(string address)
    {
        using (var warm = await app.Reader().Http.GetAsync(address))
            Assert.True(warm.IsSuccessStatusCode);
        Assert.Empty(await AskedAsync(app.Reader(), address));
    }

    [Fact]
    public async Task The_list_of_sign_off_asks_as_often_for_many_as_for_few()
    {
        var ada = await app.SignedInAsync();
        var few = await AskedAsync(ada, "/api/sign-off");
        var before = (await ada.GetAsync("/api/sign-off"))["toDecide"]!.AsArray().Count;
        var cy = await app.SignedInAsync("cy");
        var calendar = (string)(await cy.GetAsync("/api/calendars")).AsArray().First(one => (bool)one!["mayContribute"]!)!["id"]!;
        for (var number = 0; number < 12; number++)
            await cy.DoAsync(HttpMethod.Post, "/api/events", Caller.Event(calendar, $"Handed in {number}"));
        Assert.Equal(before + 12, (await ada.GetAsync("/api/sign-off"))["toDecide"]!.AsArray().Count);
        Assert.Equal(few.Count, (await AskedAsync(ada, "/api/sign-off")).Count);
    }
}
