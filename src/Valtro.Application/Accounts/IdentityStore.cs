using Microsoft.AspNetCore.Identity;
using Valtro.Store;

namespace Valtro.Application.Accounts;

/// <summary>ASP.NET Core Identity's view of our accounts: it hashes and stamps; we keep.</summary>
public sealed class IdentityStore(AccountStore accounts)
    : IUserPasswordStore<Account>, IUserEmailStore<Account>, IUserSecurityStampStore<Account>
{
    public Task<string> GetUserIdAsync(Account user, CancellationToken cancellation) => Task.FromResult(user.Id.ToString());

    public Task<string?> GetUserNameAsync(Account user, CancellationToken cancellation) => Task.FromResult<string?>(user.Email);

    public Task SetUserNameAsync(Account user, string? userName, CancellationToken cancellation) =>
        SetEmailAsync(user, userName, cancellation);

    public Task<string?> GetNormalizedUserNameAsync(Account user, CancellationToken cancellation) =>
        Task.FromResult<string?>(user.NormalizedEmail);

    public Task SetNormalizedUserNameAsync(Account user, string? normalizedName, CancellationToken cancellation) =>
        SetNormalizedEmailAsync(user, normalizedName, cancellation);

    public async Task<IdentityResult> CreateAsync(Account user, CancellationToken cancellation)
    {
        await accounts.AddAsync(user);
        return IdentityResult.Success;
    }

    public async Task<IdentityResult> UpdateAsync(Account user, CancellationToken cancellation)
    {
        await accounts.SaveAsync(user);
        return IdentityResult.Success;
    }

    public Task<IdentityResult> DeleteAsync(Account user, CancellationToken cancellation) =>
        throw new NotSupportedException("Accounts are not deleted: what people wrote stays theirs.");

    public async Task<Account?> FindByIdAsync(string userId, CancellationToken cancellation) =>
        Guid.TryParse(userId, out var id) ? await accounts.FindAsync(id) : null;

    public Task<Account?> FindByNameAsync(string normalizedUserName, CancellationToken cancellation) =>
        accounts.FindByEmailAsync(normalizedUserName);

    public Task<Account?> FindByEmailAsync(string normalizedEmail, CancellationToken cancellation) =>
        accounts.FindByEmailAsync(normalizedEmail);

    public Task SetPasswordHashAsync(Account user, string? passwordHash, CancellationToken cancellation)
    {
        user.PasswordHash = passwordHash;
        return Task.CompletedTask;
    }

    public Task<string?> GetPasswordHashAsync(Account user, CancellationToken cancellation) => Task.FromResult(user.PasswordHash);

    public Task<bool> HasPasswordAsync(Account user, CancellationToken cancellation) => Task.FromResult(user.PasswordHash is not null);

    public Task SetEmailAsync(Account user, string? email, CancellationToken cancellation)
    {
        user.Email = email ?? "";
        return Task.CompletedTask;
    }

    public Task<string?> GetEmailAsync(Account user, CancellationToken cancellation) => Task.FromResult<string?>(user.Email);

    /// <summary>Who could accept an invitation has the address.</summary>
    public Task<bool> GetEmailConfirmedAsync(Account user, CancellationToken cancellation) => Task.FromResult(true);

    public Task SetEmailConfirmedAsync(Account user, bool confirmed, CancellationToken cancellation) => Task.CompletedTask;

    public Task<string?> GetNormalizedEmailAsync(Account user, CancellationToken cancellation) =>
        Task.FromResult<string?>(user.NormalizedEmail);

    public Task SetNormalizedEmailAsync(Account user, string? normalizedEmail, CancellationToken cancellation)
    {
        user.NormalizedEmail = normalizedEmail ?? "";
        return Task.CompletedTask;
    }

    public Task SetSecurityStampAsync(Account user, string stamp, CancellationToken cancellation)
    {
        user.SecurityStamp = stamp;
        return Task.CompletedTask;
    }

    public Task<string?> GetSecurityStampAsync(Account user, CancellationToken cancellation) =>
        Task.FromResult<string?>(user.SecurityStamp);

    public void Dispose()
    {
    }
}
