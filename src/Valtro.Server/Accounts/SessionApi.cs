using System.ComponentModel.DataAnnotations;
using Microsoft.AspNetCore.Antiforgery;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Identity;
using Valtro.Application.Accounts;
using Valtro.Store;

namespace Valtro.Server.Accounts;

public sealed record SignInRequest([property: Required] string Email, [property: Required] string Password);

internal static class SessionApi
{
    public static void MapSession(this RouteGroupBuilder api)
    {
        api.MapGet("/session", Get).AllowAnonymous().WithMetadata(new OfNoOrganisation());
        api.MapPost("/session", SignIn).AllowAnonymous().RequireRateLimiting(Limits.SignIn).WithMetadata(new OfNoOrganisation());
        api.MapDelete("/session", SignOut).WithMetadata(new OfNoOrganisation());
        api.MapDelete("/session/everywhere", SignOutEverywhere);
    }

    private static async Task<Ok<SessionResponse>> Get(HttpContext context, IAntiforgery antiforgery, Sessions sessions) =>
        TypedResults.Ok(await DescribeAsync(context, antiforgery, sessions));

    private static async Task<Results<Ok<SessionResponse>, ProblemHttpResult>> SignIn(
        SignInRequest request, HttpContext context, PasswordChecks checks, SignedIn signedIn, SignInManager<Account> signIn,
            IAntiforgery antiforgery, Sessions sessions)
    {
        if (await checks.CheckAsync(request.Email.Trim(), request.Password) is not { } account)
            return Problems.Of(Problem.WrongSignIn);
        await signedIn.BeginAsync(account);
        context.User = await signIn.CreateUserPrincipalAsync(account);
        return TypedResults.Ok(await DescribeAsync(context, antiforgery, sessions));
    }

    private static async Task<SessionResponse> DescribeAsync(HttpContext context, IAntiforgery antiforgery, Sessions sessions)
    {
        var session = await sessions.DescribeAsync(antiforgery.GetAndStoreTokens(context).RequestToken!);
        SpokenLanguage.Remind(context, session.Person?.Language ?? "");
        return session;
    }

    /// <summary>This session ends, here and on the server; others of the same person go on.</summary>
    private static async Task<NoContent> SignOut(HttpContext context, SignedIn signedIn)
    {
        await signedIn.EndAsync(context.User);
        return TypedResults.NoContent();
    }

    /// <summary>Every session of the person ends, this one too.</summary>
    private static async Task<NoContent> SignOutEverywhere(HttpContext context, OwnAccounts own, SignedIn signedIn)
    {
        await own.EndEverywhereAsync();
        await signedIn.EndAsync(context.User);
        return TypedResults.NoContent();
    }
}
