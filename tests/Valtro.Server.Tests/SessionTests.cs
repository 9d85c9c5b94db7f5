using System.Net;
using Microsoft.AspNetCore.Identity;
using Microsoft.Extensions.DependencyInjection;
using Microsoft.Extensions.DependencyInjection.Extensions;
using Valtro.Store;

namespace Valtro.Server.Tests;

public sealed class SessionTests(ValtroApp app) : IClassFixture<ValtroApp>
{
    [Theory]
    [InlineData("ada", true)]
    [InlineData("bo", false)]
    [InlineData("cy", false)]
    [InlineData("di", false)]
    public async Task The_demo_people_sign_in(string name, bool isAdministrator)
    {
        var session = await (await app.SignedInAsync(name)).GetAsync("/api/session");
        Assert.Equal(isAdministrator, (bool)session["person"]!["isAdministrator"]!);
        Assert.Equal("America/Halifax", (string)session["organisation"]!["zone"]!);
    }

    [Fact]
    public async Task A_wrong_password_and_an_unknown_address_are_answered_alike()
    {
        var wrong = await app.Reader().TrySignInAsync("di", "wrong");
        var unknown = await app.Reader().TrySignInAsync("nobody", "wrong");
        Assert.Equal(HttpStatusCode.Unauthorized, wrong.StatusCode);
        Assert.Equal(await WithoutTrace(wrong), await WithoutTrace(unknown));
    }

    /// <summary>Counts what takes the time of a sign-in.</summary>
    private sealed class CountingHasher : PasswordHasher<Account>
    {
        public int Compared;

        public override PasswordVerificationResult VerifyHashedPassword(Account user, string hashedPassword, string providedPassword)
        {
            Compared++;
            return base.VerifyHashedPassword(user, hashedPassword, providedPassword);
        }
    }

    [Fact]
    public async Task Whoever_asks_with_whatever_address_a_password_is_compared_once()
    {
        var hasher = new CountingHasher();
        await using var node =
            await app.StartAsync(with: services => services.Replace(ServiceDescriptor.Singleton<IPasswordHasher<Account>>(hasher)));
        var caller = new Caller(node, "192.0.2.99");
        async Task<int> ComparedAsync(string name)
        {
            var before = hasher.Compared;
            Assert.Equal(HttpStatusCode.Unauthorized, (await caller.TrySignInAsync(name, "wrong")).StatusCode);
            return hasher.Compared - before;
        }
        // Known, unknown, none at all; and both again when too many wrong ones came.
        foreach (var name in new[] { "em", "nobody", "", "em", "em", "em", "em", "em", "nobody", "nobody", "nobody", "nobody", "nobody" })
            Assert.Equal(1, await ComparedAsync(name));
    }

    private static async Task<string> WithoutTrace(HttpResponseMessage response)
    {
        var problem = (await Caller.ReadAsync(response)).AsObject();
        problem.Remove("traceId");
        return problem.ToJsonString();
    }

    [Fact]
    public async Task After_five_wrong_passwords_the_right_one_does_not_help()
    {
        var caller = app.Reader();
        for (var attempt = 0; attempt < 5; attempt++)
            await caller.TrySignInAsync("cy", "wrong");
        Assert.Equal(HttpStatusCode.Unauthorized, (await caller.TrySignInAsync("cy")).StatusCode);
        // Only from there: a stranger locks nobody out.
        Assert.Equal(HttpStatusCode.OK, (await new Caller(app.Factory, "192.0.2.7").TrySignInAsync("cy")).StatusCode);
        app.Clock.Advance(NodaTime.Duration.FromMinutes(15));
        Assert.Equal(HttpStatusCode.OK, (await caller.TrySignInAsync("cy")).StatusCode);
    }

    [Fact]
    public async Task Sign_ins_are_limited_by_address()
    {
        await using var strict = await app.StartAsync(signInsPerMinute: 3);
        var caller = new Caller(strict);
        for (var attempt = 0; attempt < 3; attempt++)
            Assert.Equal(HttpStatusCode.Unauthorized, (await caller.TrySignInAsync("nobody", "wrong")).StatusCode);
        var refused = await caller.TrySignInAsync("ada");
        Assert.Equal(HttpStatusCode.TooManyRequests, refused.StatusCode);
        Assert.NotNull(refused.Headers.RetryAfter);
    }

    [Theory]
    [InlineData("/api/calendars")]
    [InlineData("/api/occurrences?from=2026-11-01&to=2026-12-01")]
    [InlineData("/api/year?day=2026-11-01")]
    [InlineData("/api/zones")]
    public async Task Nothing_is_told_to_those_who_are_not_signed_in(string path)
    {
        var response = await app.Reader().Http.GetAsync(path);
        Assert.Equal(HttpStatusCode.Unauthorized, response.StatusCode);
        Assert.Equal("/problems/sign-in-needed", (string)(await Caller.ReadAsync(response))["type"]!);
    }

    [Theory]
    [InlineData("")]
    [InlineData("made-up")]
    public async Task A_change_without_its_token_is_refused(string token)
    {
        var ada = await app.SignedInAsync();
        ada.Http.DefaultRequestHeaders.Remove("X-Valtro-Token");
        var request = new HttpRequestMessage(HttpMethod.Delete, "/api/session");
        if (token.Length > 0)
            request.Headers.Add("X-Valtro-Token", token);
        var response = await ada.Http.SendAsync(request);
        Assert.Equal(HttpStatusCode.BadRequest, response.StatusCode);
        Assert.NotNull((await ada.GetAsync("/api/session"))["person"]);
    }

    [Fact]
    public async Task Another_person_s_token_is_refused()
    {
        var bo = await app.SignedInAsync("bo");
        var token = (string)(await bo.GetAsync("/api/session"))["antiforgeryToken"]!;
        var ada = await app.SignedInAsync();
        Assert.Equal(HttpStatusCode.BadRequest, (await ada.SendAsync(HttpMethod.Delete, "/api/session", token: token)).StatusCode);
    }

    [Fact]
    public async Task Signing_out_ends_the_session()
    {
        var di = await app.SignedInAsync("di");
        var (onPhone, kept) = (await app.SignedInAsync("di"), di.Cookies);
        (await di.SendAsync(HttpMethod.Delete, "/api/session")).EnsureSuccessStatusCode();
        // Who kept the cookie has nothing of it; other devices go on.
        var thief = new HttpRequestMessage(HttpMethod.Get, "/api/calendars");
        thief.Headers.Add("Cookie", kept);
        Assert.Equal(
            HttpStatusCode.Unauthorized, (await app.Factory.CreateClient(new() { HandleCookies = false }).SendAsync(thief)).StatusCode);
        Assert.NotNull((await onPhone.GetAsync("/api/session"))["person"]);
        Assert.Null((await di.GetAsync("/api/session"))["person"]);
        Assert.Equal(HttpStatusCode.Unauthorized, (await di.Http.GetAsync("/api/calendars")).StatusCode);
    }

    [Fact]
    public async Task The_session_cookie_is_out_of_reach_for_scripts_and_other_sites()
    {
        var cookies = (await app.Reader().TrySignInAsync("ada")).Headers.GetValues("Set-Cookie");
        var session = Assert.Single(cookies, cookie => cookie.StartsWith("valtro-session=", StringComparison.Ordinal));
        Assert.Contains("httponly", session, StringComparison.OrdinalIgnoreCase);
        Assert.Contains("secure", session, StringComparison.OrdinalIgnoreCase);
        Assert.Contains("samesite=lax", session, StringComparison.OrdinalIgnoreCase);
        // The clock of the browser may be any.
        Assert.Contains("max-age=1209600", session, StringComparison.OrdinalIgnoreCase);
        var antiforgery = Assert.Single((await app.Reader().Http.GetAsync("/api/session")).Headers.GetValues("Set-Cookie"),
            cookie => cookie.StartsWith("valtro-antiforgery=", StringComparison.Ordinal));
        Assert.Contains("secure", antiforgery, StringComparison.OrdinalIgnoreCase);
    }

    [Fact]
    public async Task The_desk_may_not_be_framed_and_runs_only_its_own_scripts()
    {
        var response = await app.Reader().Http.GetAsync("/plan");
        var policy = string.Join(' ', response.Headers.GetValues("Content-Security-Policy"));
        Assert.Contains("frame-ancestors 'none'", policy, StringComparison.Ordinal);
        Assert.Contains("script-src 'self';", policy, StringComparison.Ordinal);
        Assert.DoesNotContain("unsafe", policy, StringComparison.Ordinal);
    }

    [Fact]
    public async Task The_server_says_that_it_is_alive_ready_and_what_it_answers()
    {
        Assert.Equal("alive", await app.Reader().Http.GetStringAsync("/healthz"));
        Assert.Equal("ready", (string)(await app.Reader().GetAsync("/readyz"))["status"]!);
        Assert.NotNull((await app.Reader().GetAsync("/openapi/v1.json"))["paths"]!["/api/occurrences"]);
    }
}
