using System.Net;
using System.Text.Json.Nodes;

namespace Valtro.Server.Tests;

/// <summary>Weeks that hold more of a category than the same readers should have.</summary>
public sealed class WeekLoadTests(ValtroApp app) : IClassFixture<ValtroApp>
{
    private static async Task<string> AssessmentAsync(Caller caller) => (string)(await caller.GetAsync("/api/lists"))["categories"]!.AsArray()
        .Single(one => (string)one!["name"]! == "Assessment")!["id"]!;

    private static async Task<string[]> OverloadsAsync(Caller caller) =>
        [.. (await caller.GetAsync("/api/year?day=2026-11-23"))["weeks"]!.AsArray()
            .Single(one => (string)one!["first"]! == "2026-11-23")!["overloads"]!.AsArray().Select(one => (string)one!)];

    private static async Task<string[]> RemarksAsync(Caller caller, JsonObject form, string? eventId = null) =>
        [.. (await caller.DoAsync(HttpMethod.Post, "/api/events/consequences", new { @event = form, eventId }))["dates"]!.AsArray()
            .SelectMany(date => date!["remarks"]!.AsArray()).Select(one => (string)one!)];

    private static Task<HttpResponseMessage> LimitAsync(Caller caller, string category, int? mostInAWeek) =>
        caller.SendAsync(HttpMethod.Put, $"/api/lists/categories/{category}", new { name = "Assessment", colour = "madder", mostInAWeek });

    [Fact]
    public async Task A_week_says_of_what_its_readers_have_too_much_to_those_who_make_events()
    {
        var ada = await app.SignedInAsync();
        Assert.Equal(["2 × Assessment for Junior families, at most 1 wanted"], await OverloadsAsync(ada));
        Assert.Empty(await OverloadsAsync(await app.SignedInAsync("di")));
        var category = await AssessmentAsync(ada);
        Assert.Equal(HttpStatusCode.NoContent, (await LimitAsync(ada, category, 2)).StatusCode);
        Assert.Empty(await OverloadsAsync(ada));
        Assert.Equal(HttpStatusCode.NoContent, (await LimitAsync(ada, category, 1)).StatusCode);
    }

    [Fact]
    public async Task Whoever_is_making_one_more_reads_of_the_others_a_deadline_among_them()
    {
        var ada = await app.SignedInAsync();
        var form = Caller.Event(await ada.CalendarAsync("SW"), "Knots test", "2026-11-24", "07:00:00", "08:00:00");
        form["categoryId"] = await AssessmentAsync(ada);
        var said = "3 × Assessment in this week for Junior families, and 1 should be the most; "
            + "besides: Chart exercise 4 (PW), Tide-table quiz (PW)";
        Assert.Contains(said, await RemarksAsync(ada, form));
        (form["kind"], form["to"]) = ("deadline", "07:00:00");
        Assert.Contains(said, await RemarksAsync(ada, form));
        form["date"] = "2026-12-08";
        Assert.DoesNotContain(await RemarksAsync(ada, form), remark => remark.Contains('×'));
    }

    [Fact]
    public async Task An_event_that_is_changed_does_not_count_twice()
    {
        var ada = await app.SignedInAsync();
        var quiz = (await ada.GetAsync("/api/occurrences?from=2026-11-23&to=2026-11-30")).AsArray()
            .Single(one => (string)one!["title"]! == "Tide-table quiz")!;
        var form = Caller.Event(await ada.CalendarAsync("PW"), "Tide-table quiz", "2026-11-28", "11:00:00", "12:00:00");
        form["categoryId"] = await AssessmentAsync(ada);
        Assert.Contains(await RemarksAsync(ada, form, (string)quiz["eventId"]!),
            remark => remark.StartsWith("2 × Assessment", StringComparison.Ordinal));
    }

    [Theory]
    [InlineData(0)]
    [InlineData(51)]
    public async Task A_number_that_cannot_be_is_refused_at_its_field(int mostInAWeek)
    {
        var ada = await app.SignedInAsync();
        var answer = await LimitAsync(ada, await AssessmentAsync(ada), mostInAWeek);
        Assert.Equal(HttpStatusCode.BadRequest, answer.StatusCode);
        Assert.Contains("1 to 50", (string)(await Caller.ReadAsync(answer))["errors"]!["mostInAWeek"]![0]!, StringComparison.Ordinal);
    }
}
