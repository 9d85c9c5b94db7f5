using Microsoft.AspNetCore.Http.HttpResults;
using Valtro.Application.Accounts;
using Valtro.Core.Speaking;
using Valtro.Server.Api;

namespace Valtro.Server.Accounts;

/// <param name="Program">By which its owner knows the program again.</param>
public sealed record ProgramRequest(string? Program);

/// <summary>Invitations taken up, passwords reset, and one's own account. Secrets come in bodies, never in addresses: nobody logs
/// those.</summary>
internal static class AccountApi
{
    private static readonly Saying Gone = Saying.Of("access.link");

    public static void MapAccounts(this RouteGroupBuilder api)
    {
        ForAnybody(api.MapPost("/invitations/look", Look)).ReadsOnly();
        ForAnybody(api.MapPost("/invitations/accept", Accept));
        ForAnybody(api.MapPost("/password-resets", AskReset));
        ForAnybody(api.MapPost("/password-resets/set", SetPassword));
        api.MapPut("/account", SaveOwn);
        api.MapGet("/account/programs", async (AppPasswords programs) => TypedResults.Ok(await programs.ListAsync()));
        api.MapPost("/account/programs",
            async (ProgramRequest request, AppPasswords programs) => TypedResults.Ok(await programs.MakeAsync(request.Program)));
        api.MapDelete("/account/programs/{id:guid}", Withdraw);
    }

    private static async Task<NoContent> Withdraw(Guid id, AppPasswords programs)
    {
        await programs.WithdrawAsync(id);
        return TypedResults.NoContent();
    }

    private static RouteHandlerBuilder ForAnybody(RouteHandlerBuilder endpoint) =>
        endpoint.AllowAnonymous().WithMetadata(new OfNoOrganisation()).RequireRateLimiting(Limits.SignIn);

    private static async Task<Results<Ok<InvitationShown>, ProblemHttpResult>> Look(SecretRequest request, OwnAccounts own) =>
        await own.LookAsync(request.Secret) is { } invitation ? TypedResults.Ok(invitation) : Problems.Of(Problem.NotFound, Gone);

    private static async Task<Results<NoContent, ProblemHttpResult>> Accept(AcceptRequest request, OwnAccounts own) =>
        await own.AcceptAsync(request) ? TypedResults.NoContent() : Problems.Of(Problem.NotFound, Gone);

    private static async Task<NoContent> AskReset(ResetRequest request, OwnAccounts own)
    {
        await own.AskResetAsync(request.Email);
        return TypedResults.NoContent();
    }

    private static async Task<Results<NoContent, ProblemHttpResult>> SetPassword(NewPasswordRequest request, OwnAccounts own) =>
        await own.SetPasswordAsync(request) ? TypedResults.NoContent() : Problems.Of(Problem.NotFound, Gone);

    private static async Task<Results<NoContent, ProblemHttpResult>> SaveOwn(
        OwnAccountRequest request, HttpContext context, OwnAccounts own, SignedIn signedIn)
    {
        var account = await own.SaveAsync(request);
        SpokenLanguage.Choose(context, account.Language);
        // The other sessions end; this one goes on.
        await signedIn.GoOnAsync(account, context.User);
        return TypedResults.NoContent();
    }
}
