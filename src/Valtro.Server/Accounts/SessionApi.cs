using System.ComponentModel.DataAnnotations;
using Microsoft.AspNetCore.Antiforgery;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Identity;
using Valtro.Server.Api;
using Valtro.Store;

namespace Valtro.Server.Accounts;

public sealed record SignInRequest([property: Required] string Email, [property: Required] string Password);

public sealed record OrganisationResponse(string Name, string Slug, string Zone, string Locale, int FirstDayOfWeek, int YearStartsIn);

public sealed record PersonResponse(string Name, string Email, bool IsAdministrator);

/// <param name="AntiforgeryToken">To be sent as X-Valtro-Token with every change.</param>
/// <param name="Person">Null when nobody is signed in.</param>
public sealed record SessionResponse(string AntiforgeryToken, PersonResponse? Person, OrganisationResponse? Organisation);

internal static class SessionApi
{
    public static void MapSession(this RouteGroupBuilder api)
    {
        api.MapGet("/session", Get).AllowAnonymous();
        api.MapPost("/session", SignIn).AllowAnonymous().RequireRateLimiting(Limits.SignIn);
        api.MapDelete("/session", SignOut);
    }

    private static async Task<Ok<SessionResponse>> Get(HttpContext context, IAntiforgery antiforgery, Sessions sessions) =>
        TypedResults.Ok(await sessions.DescribeAsync(context, antiforgery));

    private static async Task<Results<Ok<SessionResponse>, ProblemHttpResult>> SignIn(
        SignInRequest request, HttpContext context, SignInManager<Account> signIn, IAntiforgery antiforgery, Sessions sessions)
    {
        var account = await signIn.UserManager.FindByEmailAsync(request.Email.Trim());
        var result = account is null
            ? await sessions.PretendAsync(request.Password)
            : await signIn.PasswordSignInAsync(account, request.Password, isPersistent: true, lockoutOnFailure: true);
        if (!result.Succeeded)
            return Problems.Of(Problem.WrongSignIn);
        context.User = await signIn.CreateUserPrincipalAsync(account!);
        return TypedResults.Ok(await sessions.DescribeAsync(context, antiforgery));
    }

    private static async Task<NoContent> SignOut(SignInManager<Account> signIn)
    {
        await signIn.SignOutAsync();
        return TypedResults.NoContent();
    }
}

/// <summary>What the desk is told about who is signed in.</summary>
public sealed class Sessions(AccountStore accounts, OrganisationStore organisations, UserManager<Account> users, IPasswordHasher<Account> hasher)
{
    /// <summary>The work of a real check, so that the time taken does not tell whether an account exists.</summary>
    private static readonly Lazy<string> SomeHash = new(() => new PasswordHasher<Account>().HashPassword(new Account(), Guid.NewGuid().ToString()));

    public Task<SignInResult> PretendAsync(string password)
    {
        hasher.VerifyHashedPassword(new Account(), SomeHash.Value, password);
        return Task.FromResult(SignInResult.Failed);
    }

    internal async Task<SessionResponse> DescribeAsync(HttpContext context, IAntiforgery antiforgery)
    {
        var token = antiforgery.GetAndStoreTokens(context).RequestToken!;
        var account = context.User.Identity?.IsAuthenticated == true ? await users.GetUserAsync(context.User) : null;
        var viewer = account is null ? null : await accounts.ViewerAsync(account.Id);
        if (account is null || viewer is null)
            return new SessionResponse(token, null, null);
        var organisation = (await organisations.FindAsync(viewer.OrganisationId))!;
        return new SessionResponse(
            token,
            new PersonResponse(account.Name, account.Email, viewer.IsAdministrator),
            new OrganisationResponse(organisation.Name, organisation.Slug, organisation.Zone, organisation.Locale, organisation.FirstDayOfWeek, organisation.YearStartsIn));
    }
}
