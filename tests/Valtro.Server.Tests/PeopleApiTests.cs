using System.Net;
using System.Text.RegularExpressions;
using Valtro.Core.Calendars;
using Valtro.Core.Disclosure;
using Valtro.Core.Time;
using Valtro.Store;
using Valtro.Tools.Demo;

namespace Valtro.Server.Tests;

/// <summary>Invitations, passwords, roles, sessions, and two organisations in one database.</summary>
public sealed partial class PeopleApiTests(ValtroApp app) : IClassFixture<ValtroApp>
{
    private const string Password = "kettle-and-compass";

    private static object Invitation(string email, params object[] roles) => new { email, isAdministrator = false, roles };

    /// <summary>The secret that stands behind # in the latest mail to somebody.</summary>
    private async Task<string> SecretInMailAsync(string recipient)
    {
        var body = await app.Test.Database.FirstAsync<string>(
            "select body from mail where recipient = @recipient and body <> '' order by id desc limit 1", new { recipient });
        return Fragment().Match(body!).Groups[1].Value;
    }

    /// <summary>The same of the mail with a link for a new password, which is written behind the answer.</summary>
    private async Task<string> SecretOfResetAsync(string recipient)
    {
        await ValtroApp.EventuallyAsync(async () => await ResetMailsAsync(recipient) > 0, "No mail was written.");
        return await SecretInMailAsync(recipient);
    }

    private Task<long> ResetMailsAsync(string recipient) =>
        app.Test.Database.FirstAsync<long>(
            "select count(*) from mail where recipient = @recipient and subject like 'A new password%'", new { recipient });

    private static async Task<int> VersionAsync(Caller ada, Guid id) =>
        (int)(await ada.GetAsync("/api/people"))["members"]!.AsArray().Single(one => (string)one!["id"]! == $"{id}")!["version"]!;

    private async Task<(Caller Caller, Guid Id)> JoinAsync(string name, params object[] roles)
    {
        var ada = await app.SignedInAsync();
        var email = $"{name}@pinewick.example";
        (await ada.SendAsync(HttpMethod.Post, "/api/people/invitations", Invitation(email, roles))).EnsureSuccessStatusCode();
        var newcomer = app.Reader();
        await newcomer.RefreshTokenAsync();
        (await newcomer.SendAsync(
            HttpMethod.Post, "/api/invitations/accept", new { secret = await SecretInMailAsync(email), name, password = Password }))
            .EnsureSuccessStatusCode();
        (await newcomer.TrySignInAsync(name, Password)).EnsureSuccessStatusCode();
        return (newcomer, await app.Test.Database.FirstAsync<Guid>("select id from account where email = @email", new { email }));
    }

    private static async Task<string> RefusedAsync(HttpResponseMessage response, string field)
    {
        Assert.Equal(HttpStatusCode.BadRequest, response.StatusCode);
        return (string)(await Caller.ReadAsync(response))["errors"]![field]![0]!;
    }

    [Fact]
    public async Task An_invitation_is_accepted_with_a_password_once_and_gives_the_roles_it_says()
    {
        var ada = await app.SignedInAsync();
        var pw = await ada.CalendarAsync("PW");
        (await ada.SendAsync(
            HttpMethod.Post, "/api/people/invitations", Invitation("fay@pinewick.example", new { calendarId = pw, role = "contributor" })))
            .EnsureSuccessStatusCode();
        Assert.Contains(
            (await ada.GetAsync("/api/people"))["invitations"]!.AsArray(), one => (string)one!["email"]! == "fay@pinewick.example");
        var secret = await SecretInMailAsync("fay@pinewick.example");
        Assert.Equal(32, secret.Length);
        var fay = app.Reader();
        await fay.RefreshTokenAsync();
        var shown = await fay.DoAsync(HttpMethod.Post, "/api/invitations/look", new { secret });
        Assert.Equal(("Pinewick Harbour School", "fay@pinewick.example", "Ada Dunmore"),
            ((string)shown["organisationName"]!, (string)shown["email"]!, (string)shown["invitedBy"]!));
        Assert.Contains("at least 12",
            await RefusedAsync(
                await fay.SendAsync(HttpMethod.Post, "/api/invitations/accept", new { secret, name = "Fay", password = "short" }),
                    "password"), StringComparison.Ordinal);
        Assert.Contains("guess",
            await RefusedAsync(
                await fay.SendAsync(HttpMethod.Post, "/api/invitations/accept", new { secret, name = "Fay", password = "aaaaaaaaaaaaaa" }),
                    "password"), StringComparison.Ordinal);
        Assert.Equal(HttpStatusCode.NoContent,
            (await fay.SendAsync(
                HttpMethod.Post, "/api/invitations/accept", new { secret, name = "Fay Windlass", password = Password })).StatusCode);
        Assert.Equal(HttpStatusCode.NotFound,
            (await fay.SendAsync(
                HttpMethod.Post, "/api/invitations/accept", new { secret, name = "Again", password = Password })).StatusCode);
        (await fay.TrySignInAsync("fay", Password)).EnsureSuccessStatusCode();
        Assert.True((bool)(await fay.GetAsync($"/api/calendars/{pw}"))["mayContribute"]!);
        Assert.False((bool)(await fay.GetAsync($"/api/calendars/{pw}"))["mayEdit"]!);
        var member =
            (await ada.GetAsync("/api/people"))["members"]!.AsArray().Single(one => (string)one!["email"]! == "fay@pinewick.example")!;
        Assert.NotNull((string?)member["lastSignInAt"]);
    }

    [Fact]
    public async Task A_withdrawn_invitation_and_one_that_was_sent_again_open_nothing()
    {
        var ada = await app.SignedInAsync();
        (await ada.SendAsync(HttpMethod.Post, "/api/people/invitations", Invitation("gil@pinewick.example"))).EnsureSuccessStatusCode();
        var first = await SecretInMailAsync("gil@pinewick.example");
        var id = (string)(await ada.GetAsync("/api/people"))["invitations"]!.AsArray()
            .Single(one => (string)one!["email"]! == "gil@pinewick.example")!["id"]!;
        Assert.Contains("already",
            await RefusedAsync(await ada.SendAsync(HttpMethod.Post, "/api/people/invitations", Invitation("GIL@pinewick.example")),
                "email"), StringComparison.Ordinal);
        (await ada.SendAsync(HttpMethod.Post, $"/api/people/invitations/{id}/again")).EnsureSuccessStatusCode();
        var second = await SecretInMailAsync("gil@pinewick.example");
        Assert.NotEqual(first, second);
        var gil = app.Reader();
        await gil.RefreshTokenAsync();
        Assert.Equal(
            HttpStatusCode.NotFound, (await gil.SendAsync(HttpMethod.Post, "/api/invitations/look", new { secret = first })).StatusCode);
        (await ada.SendAsync(HttpMethod.Delete, $"/api/people/invitations/{id}")).EnsureSuccessStatusCode();
        Assert.Equal(HttpStatusCode.NotFound,
            (await gil.SendAsync(
                HttpMethod.Post, "/api/invitations/accept", new { secret = second, name = "Gil", password = Password })).StatusCode);
    }

    [Theory]
    [InlineData("not an address")]
    [InlineData("a@b")]
    [InlineData("Ada <ada@pinewick.example>")]
    [InlineData("ada@pinewick.example")]
    public async Task An_address_that_cannot_be_invited_is_refused_at_its_field(string email)
    {
        var ada = await app.SignedInAsync();
        Assert.EndsWith(".",
            await RefusedAsync(await ada.SendAsync(HttpMethod.Post, "/api/people/invitations", Invitation(email)), "email"),
                StringComparison.Ordinal);
    }

    [Fact]
    public async Task A_forgotten_password_is_set_anew_once_and_ends_every_session()
    {
        var (hal, _) = await JoinAsync("hal");
        var asking = app.Reader();
        await asking.RefreshTokenAsync();
        Assert.Equal(HttpStatusCode.NoContent,
            (await asking.SendAsync(HttpMethod.Post, "/api/password-resets", new { email = "hal@pinewick.example" })).StatusCode);
        Assert.Equal(HttpStatusCode.NoContent,
            (await asking.SendAsync(HttpMethod.Post, "/api/password-resets", new { email = "nobody@pinewick.example" })).StatusCode);
        Assert.Equal(0, await app.Test.Database.FirstAsync<long>("select count(*) from mail where recipient = 'nobody@pinewick.example'"));
        var secret = await SecretOfResetAsync("hal@pinewick.example");
        Assert.Contains("at least 12",
            await RefusedAsync(await asking.SendAsync(HttpMethod.Post, "/api/password-resets/set", new { secret, password = "short" }),
                "password"), StringComparison.Ordinal);
        Assert.Equal(HttpStatusCode.NoContent,
            (await asking.SendAsync(
                HttpMethod.Post, "/api/password-resets/set", new { secret, password = "another-lantern-lit" })).StatusCode);
        Assert.Equal(HttpStatusCode.NotFound,
            (await asking.SendAsync(
                HttpMethod.Post, "/api/password-resets/set", new { secret, password = "yet-another-lantern" })).StatusCode);
        Assert.Equal(HttpStatusCode.Unauthorized, (await hal.Http.GetAsync("/api/calendars")).StatusCode);
        Assert.Equal(HttpStatusCode.Unauthorized, (await hal.TrySignInAsync("hal", Password)).StatusCode);
        (await hal.TrySignInAsync("hal", "another-lantern-lit")).EnsureSuccessStatusCode();
        foreach (var wrong in new[] { "", "x", $"{Guid.NewGuid():N}.abc", secret[..40], secret + "x" })
            Assert.Equal(HttpStatusCode.NotFound,
                (await asking.SendAsync(
                    HttpMethod.Post, "/api/password-resets/set", new { secret = wrong, password = "yet-another-lantern" })).StatusCode);
    }

    [Fact]
    public async Task Links_for_a_new_password_go_to_one_account_at_most_every_ten_minutes_whoever_asks()
    {
        var (_, id) = await JoinAsync("lou");
        var (ada, asking) = (await app.SignedInAsync(), app.Reader());
        await asking.RefreshTokenAsync();
        Task<HttpResponseMessage> AskAsync() =>
            asking.SendAsync(HttpMethod.Post, "/api/password-resets", new { email = "lou@pinewick.example" });
        foreach (var _ in Enumerable.Range(0, 5))
            Assert.Equal(HttpStatusCode.NoContent, (await AskAsync()).StatusCode);
        await SecretOfResetAsync("lou@pinewick.example");
        Assert.Contains("a few minutes ago",
            await RefusedAsync(await ada.SendAsync(HttpMethod.Post, $"/api/people/{id}/password-reset"), "id"), StringComparison.Ordinal);
        // What was asked for is done, and nothing of it is left to do.
        await ValtroApp.EventuallyAsync(async () =>
            await app.Test.Database.FirstAsync<long>("select count(*) from work where kind = 'reset'") == 0, "It is still to be done.");
        Assert.Equal(1, await ResetMailsAsync("lou@pinewick.example"));
        app.Clock.Advance(NodaTime.Duration.FromMinutes(11));
        Assert.Equal(HttpStatusCode.NoContent, (await ada.SendAsync(HttpMethod.Post, $"/api/people/{id}/password-reset")).StatusCode);
        Assert.Equal(2, await ResetMailsAsync("lou@pinewick.example"));
    }

    [Fact]
    public async Task Of_eight_who_change_the_same_role_or_group_at_once_one_does_and_the_others_are_told()
    {
        var ada = await app.SignedInAsync();
        var sw = await ada.CalendarAsync("SW");
        var (_, id) = await JoinAsync("max");
        var version = await VersionAsync(ada, id);
        var roles = await Task.WhenAll(Enumerable.Range(0, 8).Select(number => ada.SendAsync(HttpMethod.Put, $"/api/people/{id}/roles", new
        {
            version,
            isAdministrator = false,
            roles = new[] { new { calendarId = sw, role = number % 2 == 0 ? "reader" : "editor" } },
        })));
        await OneDidAsync(roles, current => (int)current["version"]! == version + 1);

        var group = await ada.DoAsync(HttpMethod.Post, "/api/groups", new { name = "Watches", calendars = new[] { sw } });
        var groups = await Task.WhenAll(Enumerable.Range(0, 8)
            .Select(
                number => ada.SendAsync(HttpMethod.Put, $"/api/groups/{group["id"]}",
                    new { name = $"Watches {number}", calendars = new[] { sw }, version = (int)group["version"]! })));
        await OneDidAsync(groups, current => ((string)current["name"]!).StartsWith("Watches ", StringComparison.Ordinal));
    }

    private static async Task OneDidAsync(HttpResponseMessage[] answers, Func<System.Text.Json.Nodes.JsonNode, bool> isCurrent)
    {
        Assert.Single(answers, answer => answer.StatusCode == HttpStatusCode.OK);
        foreach (var other in answers.Where(answer => answer.StatusCode != HttpStatusCode.OK))
        {
            Assert.Equal(HttpStatusCode.Conflict, other.StatusCode);
            Assert.True(isCurrent((await Caller.ReadAsync(other))["current"]!));
        }
    }

    [Fact]
    public async Task A_password_that_others_would_guess_is_refused()
    {
        var (ned, _) = await JoinAsync("ned");
        foreach (var newPassword in new[] { "password1234", "qwertyuiop12", "aaaaaaaaaaaaaa", "ned@pinewick", "sunshine2026" })
            Assert.Contains("guess",
                await RefusedAsync(
                    await ned.SendAsync(HttpMethod.Put, "/api/account", new { name = "Ned", currentPassword = Password, newPassword }),
                        "newPassword"), StringComparison.Ordinal);
    }

    [Fact]
    public async Task Signing_out_everywhere_ends_the_other_sessions_too_and_changing_the_password_all_but_this()
    {
        var (here, _) = await JoinAsync("ivy");
        var elsewhere = app.Reader();
        (await elsewhere.TrySignInAsync("ivy", Password)).EnsureSuccessStatusCode();
        Assert.Contains("not your password",
            await RefusedAsync(
                await here.SendAsync(HttpMethod.Put, "/api/account",
                    new { name = "Ivy", currentPassword = "wrong", newPassword = "a-longer-lantern" }), "currentPassword"),
                        StringComparison.Ordinal);
        (await here.SendAsync(
            HttpMethod.Put, "/api/account", new { name = "Ivy Rowlock", currentPassword = Password, newPassword = "a-longer-lantern" }))
            .EnsureSuccessStatusCode();
        Assert.Equal(HttpStatusCode.OK, (await here.Http.GetAsync("/api/calendars")).StatusCode);
        Assert.Equal(HttpStatusCode.Unauthorized, (await elsewhere.Http.GetAsync("/api/calendars")).StatusCode);
        (await elsewhere.TrySignInAsync("ivy", "a-longer-lantern")).EnsureSuccessStatusCode();
        await here.RefreshTokenAsync();
        (await here.SendAsync(HttpMethod.Delete, "/api/session/everywhere")).EnsureSuccessStatusCode();
        Assert.Equal(HttpStatusCode.Unauthorized, (await here.Http.GetAsync("/api/calendars")).StatusCode);
        Assert.Equal(HttpStatusCode.Unauthorized, (await elsewhere.Http.GetAsync("/api/calendars")).StatusCode);
    }

    [Fact]
    public async Task A_changed_role_holds_at_once_and_a_removed_person_is_out_at_once()
    {
        var ada = await app.SignedInAsync();
        var sw = await ada.CalendarAsync("SW");
        var (ku, id) = await JoinAsync("ku", new { calendarId = sw, role = "editor" });
        var made = await ku.DoAsync(HttpMethod.Post, "/api/events", Caller.Event(sw, "By Jo"));
        var version = await VersionAsync(ada, id);
        version = (int)(await ada.DoAsync(HttpMethod.Put, $"/api/people/{id}/roles",
            new { version, isAdministrator = false, roles = new[] { new { calendarId = sw, role = "reader" } } }))["version"]!;
        Assert.Equal(HttpStatusCode.Forbidden, (await ku.TryChangeAsync(made, "edit", Caller.Event(sw, "Still by Jo"))).StatusCode);
        var twice = await ada.SendAsync(HttpMethod.Put, $"/api/people/{id}/roles",
            new
            {
                version,
                isAdministrator = false,
                roles = new[] { new { calendarId = sw, role = "reader" }, new { calendarId = sw, role = "editor" } }
            });
        Assert.NotNull((await Caller.ReadAsync(twice))["errors"]!["roles"]);
        (await ada.SendAsync(HttpMethod.Delete, $"/api/people/{id}")).EnsureSuccessStatusCode();
        Assert.Equal(HttpStatusCode.Unauthorized, (await ku.Http.GetAsync("/api/calendars")).StatusCode);
        Assert.Equal(HttpStatusCode.Unauthorized, (await ku.TrySignInAsync("ku", Password)).StatusCode);
        Assert.Equal("ku", (string)(await ada.GetAsync($"/api/events/{made["id"]}"))["savedBy"]!);
        var (back, backId) = await JoinAsync("ku");
        Assert.Equal(id, backId);
        Assert.Equal(HttpStatusCode.OK, (await back.Http.GetAsync("/api/calendars")).StatusCode);
    }

    [Fact]
    public async Task The_last_administrator_stays_one()
    {
        var ada = await app.SignedInAsync();
        var you = (await ada.GetAsync("/api/people"))["members"]!.AsArray().Single(one => (bool)one!["isYou"]!)!;
        var (id, version) = ((string)you["id"]!, (int)you["version"]!);
        Assert.Contains("At least one",
            await RefusedAsync(
                await ada.SendAsync(HttpMethod.Put, $"/api/people/{id}/roles",
                    new { version, isAdministrator = false, roles = Array.Empty<object>() }), "isAdministrator"), StringComparison.Ordinal);
        Assert.Contains("At least one", await RefusedAsync(await ada.SendAsync(HttpMethod.Delete, $"/api/people/{id}"), "isAdministrator"),
            StringComparison.Ordinal);
        Assert.True((bool)(await ada.GetAsync("/api/session"))["person"]!["isAdministrator"]!);
    }

    [Fact]
    public async Task A_token_of_another_person_or_of_a_former_session_is_refused()
    {
        var ada = await app.SignedInAsync();
        var adasToken = (string)(await ada.GetAsync("/api/session"))["antiforgeryToken"]!;
        var bo = await app.SignedInAsync("bo");
        var form = Caller.Event(await bo.CalendarAsync("PW"), "Replayed");
        var replayed = await bo.SendAsync(HttpMethod.Post, "/api/events", form, adasToken);
        Assert.Equal(("/problems/stale-session", HttpStatusCode.BadRequest),
            ((string)(await Caller.ReadAsync(replayed))["type"]!, replayed.StatusCode));
        var before = (string)(await bo.GetAsync("/api/session"))["antiforgeryToken"]!;
        (await bo.SendAsync(HttpMethod.Delete, "/api/session")).EnsureSuccessStatusCode();
        Assert.Equal(HttpStatusCode.Unauthorized, (await bo.SendAsync(HttpMethod.Post, "/api/events", form, before)).StatusCode);
        Assert.DoesNotContain(
            (await ada.GetAsync("/api/occurrences?from=2026-11-25&to=2026-11-26")).AsArray(), one => (string)one!["title"]! == "Replayed");
    }

    [Fact]
    public async Task Only_administrators_read_who_did_what_page_by_page()
    {
        var ada = await app.SignedInAsync();
        var organisation = await app.Test.Database.FirstAsync<Guid>("select id from organisation where slug = 'pinewick'");
        var account = await app.Test.Database.FirstAsync<Guid>("select id from account where email like 'ada@%'");
        var store = new AuditStore(app.Test.Database);
        for (var number = 0; number < 120; number++)
            await store.WriteAsync(
                organisation, new AuditLine(account, AuditAct.CalendarArchived, $"Number {number}", null, app.Clock.GetCurrentInstant()));
        var first = (await ada.GetAsync("/api/audit?act=calendarArchived")).AsArray();
        var second = (await ada.GetAsync($"/api/audit?act=calendarArchived&before={first[^1]!["id"]}")).AsArray();
        // Lines of one millisecond have no order among them; none is left out or shown twice all the same.
        Assert.Equal(100, first.Count);
        Assert.Equal(
            Enumerable.Range(0, 120).Select(number => $"Number {number}").Order(),
            first.Concat(second).Select(line => (string)line!["subject"]!)
                .Where(subject => subject.StartsWith("Number ", StringComparison.Ordinal)).Order());
        Assert.Equal(HttpStatusCode.Forbidden, (await (await app.SignedInAsync("bo")).Http.GetAsync("/api/audit")).StatusCode);
    }

    /// <summary>Another school in the same database: neither sees, changes nor names anything of the other.</summary>
    [Fact]
    public async Task Two_organisations_never_see_each_other()
    {
        var database = app.Test.Database;
        var organisation = Guid.CreateVersion7();
        await new OrganisationStore(database)
            .AddAsync(new Organisation(organisation, "lighthouse", "Lighthouse Academy", "Europe/Oslo", "nb-NO", 1, 8));
        var account = new Account
        {
            Email = "liv@pinewick.example",
            NormalizedEmail = "LIV@PINEWICK.EXAMPLE",
            Name = "Liv",
            SecurityStamp = Secrets.Make()
        };
        account.PasswordHash = new Microsoft.AspNetCore.Identity.PasswordHasher<Account>().HashPassword(account, DemoSeed.Password);
        await new AccountStore(database).AddAsync(account);
        await new AccountStore(database).AddMemberAsync(organisation, account.Id, isAdministrator: true);
        var calendar = await new CalendarStore(database)
            .AddAsync(organisation,
                new CalendarSettings("Lighthouse", Plate.Parse("PW"), Hue.Named("fjord"), Zones.Named("Europe/Oslo"), "", Disclosure.Open,
                    []), app.Clock.GetCurrentInstant());
        var liv = await app.SignedInAsync("liv");
        var theirs = await liv.DoAsync(HttpMethod.Post, "/api/events", Caller.Event($"{calendar.Id}", "Lamp room only"));

        var ada = await app.SignedInAsync();
        var ours = await ada.DoAsync(HttpMethod.Post, "/api/events", Caller.Event(await ada.CalendarAsync("PW"), "Harbour only"));
        foreach (var path in new[] { "/api/calendars", "/api/occurrences?from=2026-11-01&to=2026-12-31", "/api/people", "/api/groups",
            "/api/audit", "/api/sign-off", "/api/bin", "/api/lists", "/api/year-plans" })
        {
            var (pinewick, lighthouse) = ((await ada.GetAsync(path)).ToJsonString(), (await liv.GetAsync(path)).ToJsonString());
            foreach (var word in new[] { "Lighthouse", "Lamp room only", "liv@", $"{calendar.Id}", $"{theirs["id"]}" })
                Assert.DoesNotContain(word, pinewick, StringComparison.Ordinal);
            foreach (var word in new[] { "Harbour", "ada@", "Port Watch", $"{ours["id"]}" })
                Assert.DoesNotContain(word, lighthouse, StringComparison.Ordinal);
        }
        foreach (var path in new[] { $"/api/events/{theirs["id"]}", $"/api/events/{theirs["id"]}/revisions",
            $"/api/calendars/{calendar.Id}", $"/api/calendars/{calendar.Id}/publishing", $"/api/calendars/{calendar.Id}/link",
                $"/api/calendars/{calendar.Id}/removal" })
            Assert.Equal(HttpStatusCode.NotFound, (await ada.Http.GetAsync(path)).StatusCode);
        Assert.Equal(HttpStatusCode.NotFound, (await ada.TryChangeAsync(theirs, "remove")).StatusCode);
        Assert.Equal(HttpStatusCode.NotFound, (await ada.SendAsync(HttpMethod.Delete, $"/api/calendars/{calendar.Id}")).StatusCode);
        Assert.Equal(HttpStatusCode.NotFound,
            (await ada.SendAsync(HttpMethod.Put, $"/api/people/{account.Id}/roles",
                new { version = 1, isAdministrator = false, roles = Array.Empty<object>() })).StatusCode);
        Assert.Equal(HttpStatusCode.NotFound,
            (await ada.SendAsync(HttpMethod.Post, "/api/groups", new { name = "Across", calendars = new[] { calendar.Id } })).StatusCode);
        var placed = Caller.Event(await ada.CalendarAsync("PW"), "Across");
        placed["placements"] = new System.Text.Json.Nodes.JsonArray($"{calendar.Id}");
        Assert.Equal(HttpStatusCode.BadRequest, (await ada.TryChangeAsync(ours, "edit", placed)).StatusCode);
        Assert.Equal(
            HttpStatusCode.BadRequest, (await ada.SendAsync(HttpMethod.Post, "/api/events", Caller.Event($"{calendar.Id}"))).StatusCode);
        Assert.Equal("Lamp room only", (string)(await liv.GetAsync($"/api/events/{theirs["id"]}"))["title"]!);
    }

    [GeneratedRegex(@"/(?:invitation|reset)#(\S+)")]
    private static partial Regex Fragment();
}
