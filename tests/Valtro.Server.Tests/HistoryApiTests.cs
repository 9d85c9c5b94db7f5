using System.Net;
using System.Text.Json.Nodes;

namespace Valtro.Server.Tests;

/// <summary>Who changed what, any earlier version again, and the bin.</summary>
public sealed class HistoryApiTests(ValtroApp app) : IClassFixture<ValtroApp>
{
    private static async Task<JsonNode> AddedAsync(Caller caller, string title) =>
        await caller.DoAsync(HttpMethod.Post, "/api/events", Caller.Event(await caller.CalendarAsync("PW"), title, "2026-11-26"));

    [Fact]
    public async Task Each_version_says_who_made_it_when_and_what_differs()
    {
        var (ada, bo) = (await app.SignedInAsync(), await app.SignedInAsync("bo"));
        var added = await AddedAsync(ada, "Tar the hull");
        await bo.ChangeAsync(
            added, "edit", Caller.Event((string)added["calendarId"]!, "Tar both hulls", "2026-11-26", "15:00:00", "16:00:00"));
        await ada.ChangeAsync(added, "cancel", version: 2);
        var all = (await ada.GetAsync($"/api/events/{added["id"]}/revisions")).AsArray();
        Assert.Equal([3, 2, 1], all.Select(one => (int)one!["version"]!));
        Assert.Equal(["Ada Dunmore", "Bo Quilliam", "Ada Dunmore"], all.Select(one => (string)one!["by"]!));
        Assert.Equal([false, true, true], all.Select(one => (bool)one!["mayRestore"]!));
        Assert.Equal(["state"], all[0]!["differences"]!.AsArray().Select(one => (string)one!["field"]!));
        Assert.Equal(["title", "when"], all[1]!["differences"]!.AsArray().Select(one => (string)one!["field"]!));
        Assert.Equal(
            ("Tar the hull", "Tar both hulls"), ((string)all[1]!["differences"]![0]!["was"]!, (string)all[1]!["differences"]![0]!["is"]!));
        Assert.Empty(all[2]!["differences"]!.AsArray());
    }

    [Fact]
    public async Task A_version_comes_back_as_a_new_one_and_that_can_be_undone()
    {
        var ada = await app.SignedInAsync();
        var added = await AddedAsync(ada, "Caulk the seams");
        await ada.ChangeAsync(added, "edit", Caller.Event((string)added["calendarId"]!, "Caulk the deck", "2026-11-26"));
        var foreseen = await ada.GetAsync($"/api/events/{added["id"]}/revisions/1/restore");
        Assert.Contains(foreseen["differences"]!.AsArray(), one => (string)one!["field"]! == "title");
        Assert.Equal(HttpStatusCode.NotFound, (await ada.Http.GetAsync($"/api/events/{added["id"]}/revisions/9/restore")).StatusCode);
        var restored = await ada.DoAsync(HttpMethod.Post, $"/api/events/{added["id"]}/revisions/1/restore?now=2");
        Assert.Equal("Caulk the seams", (string)(await ada.GetAsync($"/api/events/{added["id"]}"))["title"]!);
        await ada.DoAsync(HttpMethod.Post, $"/api/acts/{restored["actId"]}/undo");
        var now = await ada.GetAsync($"/api/events/{added["id"]}");
        Assert.Equal(("Caulk the deck", 4), ((string)now["title"]!, (int)now["version"]!));
        Assert.Equal(HttpStatusCode.NotFound,
            (await ada.SendAsync(HttpMethod.Post, $"/api/events/{added["id"]}/revisions/9/restore?now=4")).StatusCode);
    }

    [Fact]
    public async Task The_bin_shows_what_its_reader_may_edit_until_it_is_gone_for_good()
    {
        var (ada, di) = (await app.SignedInAsync(), await app.SignedInAsync("di"));
        var added = await AddedAsync(ada, "Burn the old rope");
        await ada.ChangeAsync(added, "remove");
        async Task<JsonNode?> InBinAsync(Caller caller) =>
            (await caller.GetAsync("/api/bin")).AsArray().SingleOrDefault(one => (string)one!["id"]! == (string)added["id"]!);
        var rests = (await InBinAsync(ada))!;
        Assert.Equal(("Burn the old rope", 2), ((string)rests["title"]!, (int)rests["version"]!));
        Assert.Null(await InBinAsync(di));
        Assert.Equal(
            HttpStatusCode.Conflict, (await ada.SendAsync(HttpMethod.Post, $"/api/bin/{added["id"]}/restore?version=1")).StatusCode);
        await ada.DoAsync(HttpMethod.Post, $"/api/bin/{added["id"]}/restore?version=2");
        Assert.Null(await InBinAsync(ada));
        Assert.Equal(
            HttpStatusCode.NotFound, (await ada.SendAsync(HttpMethod.Post, $"/api/bin/{added["id"]}/restore?version=3")).StatusCode);
    }
}
