using System.Net;
using Valtro.Core.Disclosure;
using Valtro.Store;
using Valtro.Tools.Demo;

namespace Valtro.Server.Tests;

/// <summary>One account in two organisations: the address says which is meant, and everything asked and done is of that one.</summary>
public sealed class SeveralOrganisationsTests(ValtroApp app) : IClassFixture<ValtroApp>
{
    private static int _number;

    /// <summary>An organisation of its own, which invites Bo, who is of Pinewick, as an administrator.</summary>
    /// <returns>Its slug, and the secret of the invitation.</returns>
    private async Task<(string Slug, string Secret)> InvitingAsync()
    {
        var slug = $"club-{Interlocked.Increment(ref _number)}";
        var organisation = new Organisation(Guid.CreateVersion7(), slug, $"The {slug}", "Europe/Oslo", "en-GB", 1, 8);
        var now = app.Clock.GetCurrentInstant();
        await new OrganisationStore(app.Test.Database).AddAsync(organisation);
        var inviter = await app.Test.Database.FirstAsync<Guid>("select id from account where email = 'ada@pinewick.example'");
        var secret = Secrets.Make();
        await new InvitationStore(app.Test.Database).AddAsync(
            organisation.Id, "bo@pinewick.example", "BO@PINEWICK.EXAMPLE", isAdministrator: true, new Dictionary<Guid, CalendarRole>(),
            secret, inviter, now,
            new MailLetter("bo@pinewick.example", "x", "x"), new AuditLine(inviter, AuditAct.Invited, "bo@pinewick.example", null, now));
        return (slug, secret);
    }

    private async Task<(Caller Bo, string Slug)> InBothAsync()
    {
        var (slug, secret) = await InvitingAsync();
        var door = app.Reader();
        await door.RefreshTokenAsync();
        Assert.True((bool)(await door.DoAsync(HttpMethod.Post, "/api/invitations/look", new { secret }))["isKnown"]!);
        Assert.Equal(HttpStatusCode.NoContent,
            (await door.SendAsync(
                HttpMethod.Post, "/api/invitations/accept", new { secret, name = "", password = DemoSeed.Password })).StatusCode);
        return (await app.SignedInAsync("bo"), slug);
    }

    private static object Calendar(string plate) => new
    {
        name = $"Of {plate}",
        plate,
        colour = "kelp",
        zone = "Europe/Oslo",
        description = "",
        disclosure = new { members = "complete", link = "nothing", everyone = "nothing" },
        readerships = Array.Empty<string>(),
        requiresSignOff = false,
        version = (int?)null,
        like = (Guid?)null,
    };

    [Fact]
    public async Task Who_is_invited_and_known_joins_with_their_password_and_keeps_who_they_are()
    {
        var (_, secret) = await InvitingAsync();
        var door = app.Reader();
        await door.RefreshTokenAsync();
        var wrong = await door.SendAsync(
            HttpMethod.Post, "/api/invitations/accept", new { secret, name = "Somebody else", password = "not the right one" });
        Assert.Equal(HttpStatusCode.BadRequest, wrong.StatusCode);
        Assert.NotNull((await Caller.ReadAsync(wrong))["errors"]!["password"]);
        Assert.Equal(HttpStatusCode.NoContent,
            (await door.SendAsync(HttpMethod.Post, "/api/invitations/accept",
                new { secret, name = "Somebody else", password = DemoSeed.Password })).StatusCode);
        Assert.Equal(HttpStatusCode.NotFound,
            (await door.SendAsync(
                HttpMethod.Post, "/api/invitations/accept", new { secret, name = "", password = DemoSeed.Password })).StatusCode);
        var bo = await app.SignedInAsync("bo");
        Assert.Equal("Bo Quilliam", (string)(await bo.GetAsync("/api/session"))["person"]!["name"]!);
    }

    [Fact]
    public async Task The_address_says_which_is_meant_and_without_one_there_is_a_choice()
    {
        var (bo, slug) = await InBothAsync();
        var session = await bo.GetAsync("/api/session");
        Assert.Null(session["organisation"]);
        Assert.Contains(slug, session["organisations"]!.AsArray().Select(one => (string)one!["slug"]!));
        Assert.Equal(slug, (string)(await bo.GetAsync($"/at/{slug}/api/session"))["organisation"]!["slug"]!);
        var unsaid = await bo.Http.GetAsync("/api/calendars");
        Assert.Equal((HttpStatusCode.Conflict, "/problems/choose-organisation"),
            (unsaid.StatusCode, (string)(await Caller.ReadAsync(unsaid))["type"]!));
        Assert.Equal(HttpStatusCode.Forbidden, (await bo.Http.GetAsync("/at/nowhere/api/calendars")).StatusCode);
        Assert.NotEmpty((await bo.GetAsync("/at/pinewick/api/calendars")).AsArray());
        Assert.Empty((await bo.GetAsync($"/at/{slug}/api/calendars")).AsArray());
        // Whoever is in one only need not say it, and may.
        var di = await app.SignedInAsync("di");
        Assert.Equal(
            (await di.GetAsync("/api/calendars")).ToJsonString(), (await di.GetAsync("/at/pinewick/api/calendars")).ToJsonString());
        Assert.Equal(HttpStatusCode.Forbidden, (await di.Http.GetAsync($"/at/{slug}/api/calendars")).StatusCode);
    }

    [Fact]
    public async Task What_is_done_in_one_is_of_that_one_and_nothing_of_the_other_is_in_reach()
    {
        var (bo, slug) = await InBothAsync();
        var made = await bo.DoAsync(HttpMethod.Post, $"/at/{slug}/api/calendars", Calendar("NEW"));
        var added = await bo.DoAsync(HttpMethod.Post, $"/at/{slug}/api/events", Caller.Event((string)made["id"]!, "Only in the club"));
        Assert.Contains("Only in the club", (await bo.GetAsync($"/at/{slug}/api/occurrences?from=2026-11-23&to=2026-11-30")).ToJsonString(),
            StringComparison.Ordinal);
        Assert.DoesNotContain("Only in the club",
            (await bo.GetAsync("/at/pinewick/api/occurrences?from=2026-11-23&to=2026-11-30")).ToJsonString(), StringComparison.Ordinal);
        foreach (var address in new[] { $"/at/pinewick/api/events/{added["id"]}", $"/at/pinewick/api/calendars/{made["id"]}" })
            Assert.Equal(HttpStatusCode.NotFound, (await bo.Http.GetAsync(address)).StatusCode);
        // Administrator of the club, editor of one calendar at school: each stays where it is.
        Assert.Equal(HttpStatusCode.OK, (await bo.Http.GetAsync($"/at/{slug}/api/people")).StatusCode);
        Assert.Equal(HttpStatusCode.Forbidden, (await bo.Http.GetAsync("/at/pinewick/api/people")).StatusCode);
        var there = (await bo.GetAsync("/at/pinewick/api/calendars")).AsArray().First(one => (bool)one!["mayEdit"]!)!;
        Assert.Equal(HttpStatusCode.BadRequest,
            (await bo.SendAsync(HttpMethod.Post, $"/at/{slug}/api/events", Caller.Event((string)there["id"]!, "Astray"))).StatusCode);
    }

    [Fact]
    public async Task A_screen_of_an_organisation_has_an_address_and_readers_addresses_have_none()
    {
        var (bo, slug) = await InBothAsync();
        foreach (var address in new[] { $"/at/{slug}", $"/at/{slug}/plan", $"/at/{slug}/events/new?day=2026-11-24" })
            Assert.Contains("id=\"desk\"", await bo.Http.GetStringAsync(address), StringComparison.Ordinal);
        Assert.Equal(HttpStatusCode.NotFound, (await bo.Http.GetAsync($"/at/{slug}/c/pinewick/port-watch.ics")).StatusCode);
        Assert.All(bo.Cookies.Split("; "), cookie => Assert.DoesNotContain("/at/", cookie, StringComparison.Ordinal));
    }
}
