using Microsoft.AspNetCore.Identity;
using NodaTime;
using Valtro.Store;

namespace Valtro.Application.Accounts;

/// <summary>Says whether somebody has the password of an account. It takes as long and asks as much whether there is such an account or
/// not, locked or not.</summary>
public sealed class PasswordChecks(
    IWhoAsks asker, AccountStore accounts, SessionStore sessions, ILookupNormalizer normalizer, IPasswordHasher<Account> hasher,
    IClock clock)
{
    private static readonly Account Nobody = new();

    /// <summary>Of no account: it is compared with all the same.</summary>
    private static readonly Lazy<string> SomeHash =
        new(() => new PasswordHasher<Account>().HashPassword(Nobody, Guid.NewGuid().ToString()));

    /// <returns>The account; null when the password is wrong, there is no such account in any organisation, or too many wrong ones came
    /// from this address lately.</returns>
    public async Task<Account?> CheckAsync(string email, string password)
    {
        var normalized = normalizer.NormalizeEmail(email) ?? "";
        var (address, now) = (asker.NetworkAddress, clock.GetCurrentInstant());
        var account = await accounts.FindByEmailAsync(normalized);
        // Who left the organisation is nobody here, and is told no more than anybody.
        var isMember = (await accounts.MembershipsAsync(account?.Id ?? Guid.Empty)).Count > 0;
        var isLocked = await sessions.IsLockedAsync(normalized, address, now);
        var isRight = hasher.VerifyHashedPassword(
            account ?? Nobody, account?.PasswordHash ?? SomeHash.Value, password) != PasswordVerificationResult.Failed;
        if (account is null || !isMember || !isRight || isLocked)
        {
            await sessions.CountFailureAsync(normalized, address, now);
            return null;
        }
        await sessions.ForgetFailuresAsync(normalized, address);
        return account;
    }
}
