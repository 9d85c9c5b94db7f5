using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Identity;
using NodaTime;
using Valtro.Application.Accounts;
using Valtro.Core;
using Valtro.Core.Speaking;
using Valtro.Server.Api;
using Valtro.Store;

namespace Valtro.Server.Accounts;

/// <param name="Secret">What stood behind # in the link.</param>
public sealed record SecretRequest(string? Secret);

/// <param name="IsKnown">Whoever is invited has an account already: they join with its password.</param>
public sealed record InvitationShown(string OrganisationName, string Email, string InvitedBy, bool IsKnown);

public sealed record AcceptRequest(string? Secret, string? Name, string? Password);

public sealed record ResetRequest(string? Email);

public sealed record NewPasswordRequest(string? Secret, string? Password);

/// <param name="Language">In which Valtro speaks to them, such as "de"; empty for what the browser asks for; null leaves it as it
/// is.</param>
public sealed record OwnAccountRequest(string? Name, string? CurrentPassword, string? NewPassword, string? Language = null);

/// <summary>Invitations taken up, passwords reset, and one's own account. Secrets come in bodies, never in addresses: nobody logs
/// those.</summary>
internal static class AccountApi
{
    private static readonly Saying Gone = Saying.Of("access.link");

    public static void MapAccounts(this RouteGroupBuilder api)
    {
        api.MapPost("/invitations/look", Look).ReadsOnly().AllowAnonymous().WithMetadata(new OfNoOrganisation())
            .RequireRateLimiting(Limits.SignIn);
        api.MapPost("/invitations/accept", Accept).AllowAnonymous().WithMetadata(new OfNoOrganisation()).RequireRateLimiting(Limits.SignIn);
        api.MapPost("/password-resets", AskReset).AllowAnonymous().WithMetadata(new OfNoOrganisation()).RequireRateLimiting(Limits.SignIn);
        api.MapPost("/password-resets/set", SetPassword).AllowAnonymous().WithMetadata(new OfNoOrganisation())
            .RequireRateLimiting(Limits.SignIn);
        api.MapPut("/account", SaveOwn);
    }

    private static async Task<Results<Ok<InvitationShown>, ProblemHttpResult>> Look(SecretRequest request, InvitationStore invitations,
        IClock clock) =>
        await invitations.FindAsync(request.Secret ?? "", clock.GetCurrentInstant()) is { } invitation
            ? TypedResults.Ok(new InvitationShown(invitation.OrganisationName, invitation.Email, invitation.InvitedBy, invitation.IsKnown))
            : Problems.Of(Problem.NotFound, Gone);

    private static async Task<Results<NoContent, ProblemHttpResult>> Accept(
        AcceptRequest request, HttpContext context, InvitationStore invitations, UserManager<Account> users, PasswordChecks checks,
            Passwords passwords, IClock clock)
    {
        var now = clock.GetCurrentInstant();
        if (await invitations.FindAsync(request.Secret ?? "", now) is not { } invitation)
            return Problems.Of(Problem.NotFound, Gone);
        if (invitation.IsKnown)
        {
            // Whoever opened the mail has to be who the account is of.
            if (await checks.CheckAsync(context, invitation.Email, request.Password ?? "") is not { } known)
                throw new RuleException("password", "password.notOfAccount");
            return await AcceptAsync(invitation, known, invitations, now);
        }
        var account = new Account
        {
            Email = invitation.Email,
            NormalizedEmail = users.NormalizeEmail(invitation.Email)!,
            SecurityStamp = Secrets.Make()
        };
        var refusals = new RefusalList();
        account.Name = refusals.Try(() => Texts.OneLine("name", "what.name", request.Name, Texts.LongestName)) ?? "";
        refusals.Try(() => passwords.Set(account, "password", request.Password));
        refusals.ThrowIfAny();
        return await AcceptAsync(invitation, account, invitations, now);
    }

    private static async Task<Results<NoContent, ProblemHttpResult>> AcceptAsync(
        Invitation invitation, Account account, InvitationStore invitations, Instant now)
    {
        try
        {
            await invitations.AcceptAsync(invitation, account, now);
        }
        catch (NotFoundException)
        {
            return Problems.Of(Problem.NotFound, Gone);
        }
        return TypedResults.NoContent();
    }

    /// <summary>The answer is the same whether there is such an account or not, and so is the time it takes: the mail is written behind
    /// it.</summary>
    private static async Task<NoContent> AskReset(ResetRequest request, UserManager<Account> users, AccountStore accounts, IClock clock)
    {
        var account = await users.FindByEmailAsync((request.Email ?? "").Trim());
        // The mail is of one organisation that the person belongs to, whichever.
        var viewer = (await accounts.MembershipsAsync(account?.Id ?? Guid.Empty)).FirstOrDefault()?.Viewer;
        await accounts.WantResetAsync(viewer?.OrganisationId, viewer?.AccountId, clock.GetCurrentInstant());
        return TypedResults.NoContent();
    }

    private static async Task<Results<NoContent, ProblemHttpResult>> SetPassword(
        NewPasswordRequest request, UserManager<Account> users, AccountStore accounts, PasswordResets resets, Passwords passwords,
            AuditStore audit, IClock clock)
    {
        if (await resets.ReadAsync(request.Secret) is not { } read
            || !await users.VerifyUserTokenAsync(
                read.Account, users.Options.Tokens.PasswordResetTokenProvider, UserManager<Account>.ResetPasswordTokenPurpose, read.Token)
            || (await accounts.MembershipsAsync(read.Account.Id)).FirstOrDefault()?.Viewer is not { } viewer)
            return Problems.Of(Problem.NotFound, Gone);
        passwords.Set(read.Account, "password", request.Password);
        // Whoever is signed in with the old password is not any more.
        read.Account.SecurityStamp = Secrets.Make();
        await accounts.SaveAsync(read.Account);
        using var within = Wall.Within(viewer.OrganisationId);
        await audit.WriteAsync(viewer.OrganisationId,
            new AuditLine(read.Account.Id, AuditAct.PasswordReset, read.Account.Email, null, clock.GetCurrentInstant()));
        return TypedResults.NoContent();
    }

    private static async Task<Results<NoContent, ProblemHttpResult>> SaveOwn(
        OwnAccountRequest request, HttpContext context, UserManager<Account> users, SignedIn signedIn, PasswordChecks checks, Access access,
            AccountStore accounts, Passwords passwords)
    {
        await access.ViewerAsync();
        var account = (await users.GetUserAsync(context.User))!;
        account.Name = Texts.OneLine("name", "what.name", request.Name, Texts.LongestName);
        account.Language = CheckedLanguage(request.Language ?? account.Language);
        if (!string.IsNullOrEmpty(request.NewPassword))
        {
            if (await checks.CheckAsync(context, account.Email, request.CurrentPassword ?? "") is null)
                throw new RuleException("currentPassword", "password.notYours");
            passwords.Set(account, "newPassword", request.NewPassword);
            account.SecurityStamp = Secrets.Make();
        }
        await accounts.SaveAsync(account);
        SpokenLanguage.Choose(context, account.Language);
        // The other sessions end; this one goes on.
        await signedIn.GoOnAsync(account, context.User);
        return TypedResults.NoContent();
    }

    private static string CheckedLanguage(string language) => language.Length == 0 || Speech.Languages.Contains(language)
        ? language
        : throw new RuleException("language", "person.noSuchLanguage", ("language", language), ("choices", Speech.Languages));
}

/// <summary>What is a password here: long, and none that others would guess.</summary>
public sealed class Passwords(IPasswordHasher<Account> hasher)
{
    private const int Shortest = 12;
    private const int Longest = 200;

    /// <summary>What is longer is good enough by then, and weighing takes its time.</summary>
    private const int LongestWeighed = 64;

    /// <summary>Of 0 to 4, by how many guesses it withstands (zxcvbn).</summary>
    private const int LeastScore = 2;

    /// <exception cref="RuleException">It is too short, too long, or too near to the person.</exception>
    public bool Set(Account account, string field, string? password)
    {
        if (password is null || password.Length < Shortest)
            throw new RuleException(field, "password.tooShort", ("count", password?.Length ?? 0), ("least", Shortest));
        if (password.Length > Longest)
            throw new RuleException(field, "password.tooLong", ("count", password.Length), ("most", Longest));
        // Against lists of common passwords, names, words, rows of keys and dates.
        string[] theirs = [account.Email, .. account.Email.Split('@', '.'), account.Name, .. account.Name.Split(' '), "valtro"];
        var weighed = Zxcvbn.Zxcvbn.MatchPassword(password[..Math.Min(password.Length, LongestWeighed)],
            theirs.Where(word => word.Length > 2).Select(word => word.ToLowerInvariant()));
        if (weighed.Score < LeastScore)
            throw new RuleException(field, "password.tooEasy");
        account.PasswordHash = hasher.HashPassword(account, password);
        return true;
    }
}
