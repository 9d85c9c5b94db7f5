using Microsoft.AspNetCore.Identity;
using NodaTime;
using Valtro.Core;
using Valtro.Core.Speaking;
using Valtro.Store;

namespace Valtro.Application.Accounts;

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

/// <summary>What people do about their own account: they take up an invitation, set a password, say what they are called.</summary>
public sealed class OwnAccounts(
    IWhoAsks asker, Access access, AccountStore accounts, InvitationStore invitations, AuditStore audit, UserManager<Account> users,
    ILookupNormalizer normalizer, PasswordChecks checks, PasswordResets resets, Passwords passwords, IClock clock)
{
    /// <returns>Null where the invitation is used, withdrawn or too old.</returns>
    public async Task<InvitationShown?> LookAsync(string? secret) =>
        await invitations.FindAsync(secret ?? "", clock.GetCurrentInstant()) is { } invitation
            ? new InvitationShown(invitation.OrganisationName, invitation.Email, invitation.InvitedBy, invitation.IsKnown)
            : null;

    /// <returns>False where the invitation is used, withdrawn or too old.</returns>
    /// <exception cref="RuleException">The name or the password cannot be.</exception>
    public async Task<bool> AcceptAsync(AcceptRequest request)
    {
        var now = clock.GetCurrentInstant();
        if (await invitations.FindAsync(request.Secret ?? "", now) is not { } invitation)
            return false;
        var account = invitation.IsKnown ? await KnownAsync(invitation, request) : Made(invitation, request);
        try
        {
            await invitations.AcceptAsync(invitation, account, now);
            return true;
        }
        catch (NotFoundException)
        {
            return false;
        }
    }

    /// <summary>Whoever opened the mail has to be who the account is of.</summary>
    private async Task<Account> KnownAsync(Invitation invitation, AcceptRequest request) =>
        await checks.CheckAsync(invitation.Email, request.Password ?? "") ?? throw new RuleException("password", "password.notOfAccount");

    private Account Made(Invitation invitation, AcceptRequest request)
    {
        var account = new Account
        {
            Email = invitation.Email,
            NormalizedEmail = normalizer.NormalizeEmail(invitation.Email)!,
            SecurityStamp = Secrets.Make(),
        };
        var refusals = new RefusalList();
        account.Name = refusals.Try(() => Texts.OneLine("name", "what.name", request.Name, Texts.LongestName)) ?? "";
        refusals.Try(() => passwords.Set(account, "password", request.Password));
        refusals.ThrowIfAny();
        return account;
    }

    /// <summary>The same is done whether there is such an account or not, and takes as long: the mail is written behind it.</summary>
    public async Task AskResetAsync(string? email)
    {
        var account = await accounts.FindByEmailAsync(normalizer.NormalizeEmail((email ?? "").Trim()) ?? "");
        // The mail is of one organisation that the person belongs to, whichever.
        var viewer = (await accounts.MembershipsAsync(account?.Id ?? Guid.Empty)).FirstOrDefault()?.Viewer;
        await accounts.WantResetAsync(viewer?.OrganisationId, viewer?.AccountId, clock.GetCurrentInstant());
    }

    /// <returns>False where the link is used or too old.</returns>
    /// <exception cref="RuleException">The password cannot be.</exception>
    public async Task<bool> SetPasswordAsync(NewPasswordRequest request)
    {
        if (await resets.ReadAsync(request.Secret) is not { } read
            || !await users.VerifyUserTokenAsync(
                read.Account, users.Options.Tokens.PasswordResetTokenProvider, UserManager<Account>.ResetPasswordTokenPurpose, read.Token)
            || (await accounts.MembershipsAsync(read.Account.Id)).FirstOrDefault()?.Viewer is not { } viewer)
            return false;
        passwords.Set(read.Account, "password", request.Password);
        // Whoever is signed in with the old password is not any more.
        read.Account.SecurityStamp = Secrets.Make();
        await accounts.SaveAsync(read.Account);
        using var within = Wall.Within(viewer.OrganisationId);
        await audit.WriteAsync(viewer.OrganisationId,
            new AuditLine(read.Account.Id, AuditAct.PasswordReset, read.Account.Email, null, clock.GetCurrentInstant()));
        return true;
    }

    /// <returns>The account as it is now. With a new password its stamp is another, so that all sessions end that do not hear of
    /// it.</returns>
    /// <exception cref="RuleException">Something of it cannot be, or the password until now is wrong.</exception>
    public async Task<Account> SaveAsync(OwnAccountRequest request)
    {
        await access.ViewerAsync();
        var account = (await accounts.FindAsync(asker.AccountId))!;
        account.Name = Texts.OneLine("name", "what.name", request.Name, Texts.LongestName);
        account.Language = CheckedLanguage(request.Language ?? account.Language);
        if (!string.IsNullOrEmpty(request.NewPassword))
        {
            if (await checks.CheckAsync(account.Email, request.CurrentPassword ?? "") is null)
                throw new RuleException("currentPassword", "password.notYours");
            passwords.Set(account, "newPassword", request.NewPassword);
            account.SecurityStamp = Secrets.Make();
        }
        await accounts.SaveAsync(account);
        return account;
    }

    /// <summary>Every session of the person ends: their stamp becomes another, and each request compares it.</summary>
    public async Task EndEverywhereAsync()
    {
        var viewer = await access.ViewerAsync();
        var account = (await accounts.FindAsync(asker.AccountId))!;
        account.SecurityStamp = Secrets.Make();
        await accounts.SaveAsync(account);
        await audit.WriteAsync(
            viewer.OrganisationId, new AuditLine(account.Id, AuditAct.SignedOutEverywhere, account.Email, null, clock.GetCurrentInstant()));
    }

    private static string CheckedLanguage(string language) => language.Length == 0 || Speech.Languages.Contains(language)
        ? language
        : throw new RuleException("language", "person.noSuchLanguage", ("language", language), ("choices", Speech.Languages));
}
