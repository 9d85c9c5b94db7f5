using NodaTime;
using Valtro.Core;
using Valtro.Store;

namespace Valtro.Application.Accounts;

/// <param name="Secret">Shown this once.</param>
/// <param name="Address">Where a calendar program is sent to.</param>
public sealed record MadeAppPassword(Guid Id, string Secret, string Address, string User);

/// <summary>Passwords that a member makes for their calendar programs: each of one program, so that it can be withdrawn alone.</summary>
public sealed class AppPasswords(
    Access access, IWhoAsks asker, AppPasswordStore store, AccountStore accounts, Settings settings, IClock clock)
{
    public async Task<IReadOnlyList<AppPassword>> ListAsync()
    {
        await OneselfAsync();
        return await store.ListAsync(asker.AccountId);
    }

    public async Task<MadeAppPassword> MakeAsync(string? name)
    {
        await OneselfAsync();
        var called = Texts.OneLine("program", "what.programName", name, Texts.LongestName);
        var secret = Secrets.Make();
        var id = await store.AddAsync(asker.AccountId, called, secret, clock.GetCurrentInstant());
        var email = (await accounts.FindAsync(asker.AccountId))!.Email;
        return new MadeAppPassword(id, secret, new Uri(settings.PublicUrl, "/dav/").AbsoluteUri, email);
    }

    /// <exception cref="NotFoundException">There is none such of theirs.</exception>
    public async Task WithdrawAsync(Guid id)
    {
        await OneselfAsync();
        if (!await store.RemoveAsync(asker.AccountId, id))
            throw new NotFoundException("program");
    }

    private async Task OneselfAsync() =>
        Access.Require((await access.ViewerAsync()).SeesAs is null, "access.nothingWhileAsOthers");
}
