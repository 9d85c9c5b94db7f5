using NodaTime;
using Valtro.Application.Work;
using Valtro.Store;

namespace Valtro.Application.Accounts;

/// <summary>Mails an account the link for a new password that somebody asked for.</summary>
internal sealed class ResetWorker(AccountStore accounts, IServiceScopeFactory scopes) : IWorker
{
    public WorkKind Kind => WorkKind.Reset;

    public int AtOnce => 1;

    public Duration Claim => Duration.FromMinutes(1);

    public Duration? WaitAfter(int failures) => failures < 6 ? Duration.FromSeconds(Math.Pow(4, failures)) : null;

    public async Task<Instant?> DoAsync(Store.Work work, CancellationToken stopping)
    {
        if (work.OrganisationId is { } organisation && await accounts.FindAsync(Guid.Parse(work.Key)) is { } account)
        {
            await using var scope = scopes.CreateAsyncScope();
            await scope.ServiceProvider.GetRequiredService<PasswordResets>().SendAsync(organisation, account);
        }
        return null;
    }
}
