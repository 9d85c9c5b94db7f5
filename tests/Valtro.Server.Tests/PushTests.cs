extern alias StandIns;

using System.Net;
using System.Text;
using System.Text.Json.Nodes;
using Microsoft.AspNetCore.Builder;
using NodaTime;
using StandIns::Valtro.StandIns.Calendars;

namespace Valtro.Server.Tests;

/// <summary>Calendars elsewhere that are written: on the stand-in of a rowing club, which keeps its own and is told to misbehave.</summary>
public sealed class PushTests(ValtroApp app) : IClassFixture<ValtroApp>, IAsyncLifetime
{
    private WebApplication _server = null!;
    private string _address = "";
    private readonly HttpClient _club = new(new HttpClientHandler { AllowAutoRedirect = false });

    public async Task InitializeAsync() => (_server, _address) = await Served.ByAsync(ClubServer.Map);

    public async Task DisposeAsync()
    {
        _club.Dispose();
        await _server.DisposeAsync();
    }

    private object Access(string path = "", string? user = "harbour", string? password = "lantern-oil") =>
        new { address = $"{_address}{path}", user, password, headerName = (string?)null, headerValue = (string?)null };

    private async Task TellAsync(string what) =>
        Assert.Equal(HttpStatusCode.Redirect, (await _club.PostAsync($"{_address}/club-page/{what}", null)).StatusCode);

    private Task BehaveAsync(ClubBehaviour behaviour) => TellAsync($"behaviour?to={behaviour}");

    private async Task<string[]> ThereAsync(string shelf = "members") =>
        [.. JsonNode.Parse(await _club.GetStringAsync($"{_address}/club-page/{shelf}"))!.AsArray()
            .Select(one => (string)one!["title"]!).Order(StringComparer.Ordinal)];

    private static async Task<string> EditionOfAsync(Caller caller, string calendar) => (string)(await caller.GetAsync("/api/editions"))
        .AsArray().Single(one => (string?)one!["calendarId"] == calendar)!["id"]!;

    private static Task<string> OpenAsync(Caller caller, string plate) =>
        caller.MakeCalendarAsync(plate, link: "complete", everyone: "complete");

    private object Target(
        string editionId, string takes = "all", string? audience = "everyone", string? calendar = null) => new
        {
            access = Access(),
            calendar = calendar ?? $"{_address}/club/home/members/",
            name = "Club",
            editionId,
            audience,
            takes,
            from = (string?)null,
            until = (string?)null,
        };

    private async Task<string> TargetAsync(Caller caller, string calendar, string takes = "all", string audience = "everyone") =>
        (string)(await caller.DoAsync(
            HttpMethod.Post, "/api/targets", Target(await EditionOfAsync(caller, calendar), takes, audience)))["id"]!;

    /// <summary>As it is when nothing is being done with it.</summary>
    private static async Task<JsonNode> SettledAsync(Caller caller, string id)
    {
        JsonNode? now = null;
        await ValtroApp.EventuallyAsync(
            async () => !(bool)(now = await caller.GetAsync($"/api/targets/{id}"))["isBusy"]!, "a calendar elsewhere is written");
        return now!;
    }

    private async Task<JsonNode> PushedAsync(Caller caller, string id)
    {
        app.Advance(Duration.FromSeconds(1));
        await caller.SaidAsync(HttpMethod.Post, $"/api/targets/{id}/push");
        return await SettledAsync(caller, id);
    }

    private Task EventuallyThereAsync(params string[] titles) => ValtroApp.EventuallyAsync(
        async () => (await ThereAsync()).SequenceEqual(titles), $"{string.Join(", ", titles)} stand there");

    private static async Task<JsonNode> MakeAsync(Caller caller, string calendar, string title) =>
        await caller.DoAsync(HttpMethod.Post, "/api/events", Caller.Event(calendar, title));

    private static async Task<JsonNode> AnswerAsync(Caller caller, string id, JsonNode open, string answer)
    {
        await caller.SaidAsync(HttpMethod.Put, $"/api/targets/{id}/answers", new { name = (string)open["name"]!, answer });
        return await SettledAsync(caller, id);
    }

    [Fact]
    public async Task Calendars_are_found_by_their_own_address_by_the_persons_and_where_programs_look_first()
    {
        var ada = await app.SignedInAsync();
        var editionId = await EditionOfAsync(ada, await OpenAsync(ada, "FIND"));
        foreach (var path in new[] { "", "/club/", "/club/people/harbour/", "/nowhere" })
        {
            var found = await ada.DoAsync(HttpMethod.Post, "/api/targets/look", new { editionId, access = Access(path) });
            Assert.Equal(["Boathouse board", "Members’ calendar"], found.AsArray().Select(one => (string)one!["name"]!).Order());
            Assert.All(found.AsArray(), one => Assert.True((bool)one!["isWritable"]!));
        }
        var one = await ada.DoAsync(HttpMethod.Post, "/api/targets/look", new { editionId, access = Access("/club/home/members/") });
        Assert.Equal($"{_address}/club/home/members/", (string)one.AsArray().Single()!["address"]!);

        async Task<string> RefusedAsync(object access)
        {
            var answer = await ada.SendAsync(HttpMethod.Post, "/api/targets/look", new { editionId, access });
            Assert.Equal(HttpStatusCode.BadRequest, answer.StatusCode);
            return (string)(await Caller.ReadAsync(answer))["errors"]!.AsObject().Single().Value![0]!;
        }
        Assert.Contains("password", await RefusedAsync(Access(password: "wrong")), StringComparison.Ordinal);
        await BehaveAsync(ClubBehaviour.Rubbish);
        Assert.Contains("no calendars", await RefusedAsync(Access()), StringComparison.Ordinal);
        await BehaveAsync(ClubBehaviour.LeadsInward);
        Assert.Contains("169.254", await RefusedAsync(Access()), StringComparison.Ordinal);
        await BehaveAsync(ClubBehaviour.ReadOnly);
        var closed = await ada.DoAsync(HttpMethod.Post, "/api/targets/look", new { editionId, access = Access() });
        Assert.All(closed.AsArray(), calendar => Assert.False((bool)calendar!["isWritable"]!));
    }

    [Theory]
    [InlineData(ClubBehaviour.Right)]
    [InlineData(ClubBehaviour.NoSync)]
    [InlineData(ClubBehaviour.InPieces)]
    [InlineData(ClubBehaviour.Rewrites)]
    public async Task What_is_made_changed_and_removed_here_is_there_and_what_others_have_there_stays(ClubBehaviour behaviour)
    {
        var ada = await app.SignedInAsync();
        await TellAsync("members/add?title=Varnish");
        await BehaveAsync(behaviour);
        var calendar = await OpenAsync(ada, $"P{(int)behaviour}");
        await MakeAsync(ada, calendar, "Regatta");
        var row = await MakeAsync(ada, calendar, "Rowing");
        var id = await TargetAsync(ada, calendar);
        var target = await SettledAsync(ada, id);
        Assert.Equal(["Regatta", "Rowing", "Varnish"], await ThereAsync());
        Assert.Equal(("right", 2), ((string)target["health"]!, (int)target["there"]!));
        Assert.DoesNotContain("lantern-oil", target.ToJsonString(), StringComparison.Ordinal);

        await MakeAsync(ada, calendar, "Ball");
        await EventuallyThereAsync("Ball", "Regatta", "Rowing", "Varnish");
        await ada.DoAsync(HttpMethod.Post, $"/api/events/{(string)row["id"]!}/changes",
            new { version = 1, recurrenceId = (string)row["recurrenceId"]!, act = "remove" });
        await EventuallyThereAsync("Ball", "Regatta", "Varnish");

        // It is read again and again, and nothing is written for that.
        var before = await _club.GetStringAsync($"{_address}/club-page/members");
        Assert.Equal("right", (string)(await PushedAsync(ada, id))["health"]!);
        Assert.Equal(before, await _club.GetStringAsync($"{_address}/club-page/members"));

        await ada.SaidAsync(HttpMethod.Delete, $"/api/targets/{id}?keepsThere=false");
        await EventuallyThereAsync("Varnish");
        await ValtroApp.EventuallyAsync(async () => (await ada.GetAsync("/api/targets")).AsArray().All(one => (string)one!["id"]! != id), "it is given up");
    }

    [Fact]
    public async Task What_somebody_changed_there_is_asked_about_and_never_overwritten()
    {
        var ada = await app.SignedInAsync();
        var calendar = await OpenAsync(ada, "ASKS");
        foreach (var title in new[] { "Ball", "Coffee", "Regatta" })
            await MakeAsync(ada, calendar, title);
        var id = await TargetAsync(ada, calendar);
        await SettledAsync(ada, id);

        await TellAsync("members/change?title=Ball");
        await TellAsync("members/remove?title=Coffee");
        var target = await PushedAsync(ada, id);
        Assert.Equal(("asks", 2), ((string)target["health"]!, (int)target["asking"]!));
        Assert.Equal(["Ball (moved to the pier)", "Regatta"], await ThereAsync());
        var (ball, coffee) = (target["open"]!.AsArray().Single(one => (string)one!["title"]! == "Ball")!,
            target["open"]!.AsArray().Single(one => (string)one!["title"]! == "Coffee")!);
        Assert.Equal(("changed", "Ball", "Ball (moved to the pier)"),
            ((string)ball["question"]!, (string)ball["ours"]![0]!, (string)ball["theirs"]![0]!));
        Assert.Equal(("gone", 0), ((string)coffee["question"]!, coffee["theirs"]!.AsArray().Count));
        Assert.Equal(1, await app.Test.Database.FirstAsync<int>(
            "select count(*)::integer from notice where path = @path", new { path = $"/elsewhere/{id}" }));

        // Asked once, however often it is looked at.
        target = await PushedAsync(ada, id);
        Assert.Equal(2, (int)target["asking"]!);
        await AnswerAsync(ada, id, ball, "ours");
        target = await AnswerAsync(ada, id, coffee, "theirs");
        Assert.Equal(("right", 1, 0), ((string)target["health"]!, (int)target["left"]!, (int)target["asking"]!));
        Assert.Equal(["Ball", "Regatta"], await ThereAsync());

        // What was answered once is asked again when it is changed again.
        await TellAsync("members/change?title=Regatta");
        target = await PushedAsync(ada, id);
        var regatta = target["open"]!.AsArray().Single(one => (string)one!["title"]! == "Regatta")!;
        await TellAsync("members/change?title=Regatta (moved to the pier)");
        target = await AnswerAsync(ada, id, regatta, "ours");
        Assert.Equal(1, (int)target["asking"]!);
        Assert.Contains("Regatta (moved to the pier) (moved to the pier)", await ThereAsync());

        // Brought back: a table of what is another there, of which each line is taken or left.
        var brought = await ada.DoAsync(HttpMethod.Post, $"/api/targets/{id}/bring",
            new { days = new { from = "2026-11-01", until = "2027-03-01", isChosen = true }, calendarId = calendar });
        JsonNode? intake = null;
        await ValtroApp.EventuallyAsync(
            async () => (string)(intake = await ada.GetAsync($"/api/intake/{brought["id"]}"))["state"]! == "ready", "it is read");
        Assert.Equal(1, intake!["counts"]!.AsArray().Where(one => (string)one!["state"]! == "changed").Sum(one => (int)one!["all"]!));
    }

    [Fact]
    public async Task What_is_asked_about_stands_beside_what_is_here_now()
    {
        var ada = await app.SignedInAsync();
        var calendar = await OpenAsync(ada, "NOW");
        var ball = await MakeAsync(ada, calendar, "Ball");
        var id = await TargetAsync(ada, calendar);
        await SettledAsync(ada, id);
        await TellAsync("members/change?title=Ball");
        await PushedAsync(ada, id);
        await ada.DoAsync(HttpMethod.Post, $"/api/events/{(string)ball["id"]!}/changes", new
        {
            version = 1,
            recurrenceId = (string)ball["recurrenceId"]!,
            act = "edit",
            @event = Caller.Event(calendar, "Ball in the hall"),
        });
        JsonNode? open = null;
        await ValtroApp.EventuallyAsync(async () => (open = (await ada.GetAsync($"/api/targets/{id}"))["open"]![0]!)["ours"]!.AsArray()
            .Select(one => (string)one!).Contains("Ball in the hall"), "it is shown as it is here");
        Assert.Equal("Ball (moved to the pier)", (string)open!["theirs"]![0]!);
        await AnswerAsync(ada, id, open, "ours");
        Assert.Equal(["Ball in the hall"], await ThereAsync());
    }

    [Fact]
    public async Task What_fails_there_is_seen_and_tried_again_and_what_is_not_taken_is_named()
    {
        var ada = await app.SignedInAsync();
        var calendar = await OpenAsync(ada, "FAIL");
        var id = await TargetAsync(ada, calendar);
        await SettledAsync(ada, id);
        await BehaveAsync(ClubBehaviour.Fails);
        await MakeAsync(ada, calendar, "Regatta");
        await ValtroApp.EventuallyAsync(
            async () => (string)(await ada.GetAsync($"/api/targets/{id}"))["health"]! == "failing", "it fails");
        Assert.Contains("503", (string)(await ada.GetAsync($"/api/targets/{id}"))["problem"]!, StringComparison.Ordinal);
        var line = (await ada.GetAsync("/api/work")).AsArray().Single(one => (string)one!["key"]! == id)!;
        Assert.Equal(("push", "elsewhere", "Club"), ((string)line["kind"]!, (string)line["reason"]!, (string)line["subject"]!));

        await BehaveAsync(ClubBehaviour.Full);
        await ada.SaidAsync(HttpMethod.Post, $"/api/targets/{id}/push");
        await ValtroApp.EventuallyAsync(
            async () => (int)(await ada.GetAsync($"/api/targets/{id}"))["refused"]! == 1, "it is not taken");
        Assert.Equal("Regatta", (string)(await ada.GetAsync($"/api/targets/{id}"))["open"]![0]!["title"]!);

        await BehaveAsync(ClubBehaviour.Right);
        app.Advance(Duration.FromHours(7));
        await EventuallyThereAsync("Regatta");
        await ValtroApp.EventuallyAsync(
            async () => (string)(await ada.GetAsync($"/api/targets/{id}"))["health"]! == "right", "it is right");
        Assert.DoesNotContain((await ada.GetAsync("/api/work")).AsArray(), one => (string)one!["key"]! == id);
    }

    [Fact]
    public async Task Only_what_is_chosen_goes_there_and_readers_there_see_no_more_than_was_said()
    {
        var ada = await app.SignedInAsync();
        var calendar = await ada.MakeCalendarAsync("PICK", link: "times", everyone: "times");
        var regatta = await MakeAsync(ada, calendar, "Regatta");
        await MakeAsync(ada, calendar, "Meeting");
        var id = await TargetAsync(ada, calendar, "chosen", audience: "members");
        await SettledAsync(ada, id);
        Assert.Empty(await ThereAsync());
        var offered = await ada.GetAsync($"/api/targets/of-calendars?calendar={calendar}&eventId={(string)regatta["id"]!}");
        Assert.Equal((id, false, false),
            ((string)offered[0]!["id"]!, (bool)offered[0]!["isChosen"]!, (bool)offered[0]!["takesAll"]!));
        await ada.SaidAsync(HttpMethod.Put, $"/api/events/{(string)regatta["id"]!}/targets", new { targets = new[] { id } });
        await EventuallyThereAsync("Regatta");
        Assert.Equal(HttpStatusCode.BadRequest, (await ada.SendAsync(
            HttpMethod.Put, $"/api/events/{(string)regatta["id"]!}/targets", new { targets = new[] { Guid.NewGuid() } })).StatusCode);

        var chosen = await ada.DoAsync(HttpMethod.Post, $"/api/targets/{id}/choose", new { from = "2026-01-01", until = "2027-12-31", isChosen = true });
        Assert.Equal(2, (int)chosen["count"]!);
        await EventuallyThereAsync("Meeting", "Regatta");

        var target = await SettledAsync(ada, id);
        await ada.SaidAsync(HttpMethod.Put, $"/api/targets/{id}", new
        {
            version = (int)target["version"]!,
            name = "Club",
            audience = "everyone",
            takes = "chosen",
            from = (string?)null,
            until = (string?)null,
            access = (object?)null,
        });
        await EventuallyThereAsync("Busy", "Busy");

        // Whoever may not publish the calendar does not hear of it.
        var di = await app.SignedInAsync("di");
        Assert.Equal(HttpStatusCode.NotFound, (await di.SendAsync(HttpMethod.Get, $"/api/targets/{id}")).StatusCode);
        Assert.Empty((await di.GetAsync("/api/targets")).AsArray());
        Assert.Empty((await di.GetAsync($"/api/targets/of-calendars?calendar={calendar}")).AsArray());
    }

    [Fact]
    public async Task A_password_goes_to_its_server_only_and_is_in_no_table()
    {
        var ada = await app.SignedInAsync();
        var calendar = await OpenAsync(ada, "SEAL");
        var editionId = await EditionOfAsync(ada, calendar);
        async Task RefusedAsync(object target) => Assert.Equal(
            HttpStatusCode.BadRequest, (await ada.SendAsync(HttpMethod.Post, "/api/targets", target)).StatusCode);
        await RefusedAsync(Target(editionId, calendar: "https://calendars.example/elsewhere/"));
        foreach (var audience in new[] { "editors", null })
            await RefusedAsync(Target(editionId, audience: audience));
        var id = await TargetAsync(ada, calendar);
        var stored = await app.Test.Database.FirstAsync<byte[]>("select access from push_target where id = @id", new { id = Guid.Parse(id) });
        Assert.DoesNotContain("lantern-oil", Encoding.Latin1.GetString(stored!), StringComparison.Ordinal);
        Assert.DoesNotContain("members", Encoding.Latin1.GetString(stored!), StringComparison.Ordinal);
        await SettledAsync(ada, id);
        await RefusedAsync(Target(editionId));
    }

    [Fact]
    public async Task An_edition_is_written_for_the_readers_that_it_has_now()
    {
        var ada = await app.SignedInAsync();
        var calendar = await ada.MakeCalendarAsync("WIDE", link: "times", everyone: "times");
        await MakeAsync(ada, calendar, "Regatta");
        object Draft(string audience) => new { name = "Regattas", audience, sources = new[] { new { calendarId = calendar } } };
        var edition = await ada.DoAsync(HttpMethod.Post, "/api/editions", new { isOut = true, edition = Draft("members") });
        var made = await ada.DoAsync(HttpMethod.Post, "/api/targets", Target((string)edition["id"]!, audience: null));
        await EventuallyThereAsync("Regatta");
        await ada.DoAsync(HttpMethod.Put, $"/api/editions/{(string)edition["id"]!}",
            new { edition = Draft("everyone"), version = (int)edition["version"]! });
        await EventuallyThereAsync("Busy");
        Assert.Equal("everyone", (string)(await SettledAsync(ada, (string)made["id"]!))["audience"]!);
    }
}
