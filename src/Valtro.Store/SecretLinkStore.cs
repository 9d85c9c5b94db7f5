using System.Security.Cryptography;
using System.Text;
using Dapper;
using NodaTime;

namespace Valtro.Store;

/// <summary>A secret address: whoever has it gets the edition.</summary>
public sealed record SecretLink(string Secret, Instant MadeAt);

/// <summary>Secrets that stand in addresses: made of 192 random bits, looked up by their digest, so that no comparison takes longer the
/// more of it is right.</summary>
public static class Secrets
{
    /// <returns>32 letters, digits, hyphens and underscores.</returns>
    public static string Make() => Convert.ToBase64String(RandomNumberGenerator.GetBytes(24)).Replace('+', '-').Replace('/', '_');

    public static byte[] Digest(string secret) => SHA256.HashData(Encoding.UTF8.GetBytes(secret));
}

/// <summary>Secret addresses of editions. An edition for members has one for each member who wants one; every other at most one.</summary>
public sealed class SecretLinkStore(Database database)
{
    private const string Current =
        "organisation_id = @organisationId and edition_id = @editionId and account_id is not distinct from @accountId and ended_at is null";

    /// <param name="accountId">Whose own it is, of an edition for members; else null.</param>
    public Task<SecretLink?> FindAsync(Guid organisationId, Guid editionId, Guid? accountId = null) =>
        database.FirstAsync<SecretLink>(
            $"select secret, made_at from secret_link where {Current}", new { organisationId, editionId, accountId });

    /// <summary>Makes a link; one that was there ends, and answers that it was replaced.</summary>
    public Task<SecretLink> MakeAsync(Guid organisationId, Guid editionId, Instant now, Func<bool, AuditLine> audit,
        Guid? accountId = null) => database.InTransactionAsync(async transaction =>
    {
        var connection = transaction.Connection!;
        // One after the other for an edition.
        await connection.ExecuteAsync("select from edition where organisation_id = @organisationId and id = @editionId for update",
            new { organisationId, editionId }, transaction);
        var replaced = await EndAsync(transaction, organisationId, editionId, accountId, "replaced", now);
        var secret = Secrets.Make();
        await connection.ExecuteAsync("""
            insert into secret_link (id, organisation_id, edition_id, account_id, secret, digest, made_at)
            values (@id, @organisationId, @editionId, @accountId, @secret, @digest, @now)
            """, new { id = Guid.CreateVersion7(), organisationId, editionId, accountId, secret, digest = Secrets.Digest(secret), now },
                transaction);
        await GoingOut.EditionsChangedAsync(transaction, organisationId, [editionId], now, takesAway: replaced > 0);
        await AuditStore.WriteAsync(transaction, organisationId, audit(replaced > 0));
        return new SecretLink(secret, now);
    });

    /// <exception cref="NotFoundException">There is none to withdraw.</exception>
    public Task<bool> WithdrawAsync(Guid organisationId, Guid editionId, Instant now, AuditLine audit,
        Guid? accountId = null) => database.InTransactionAsync(async transaction =>
    {
        if (await EndAsync(transaction, organisationId, editionId, accountId, "withdrawn", now) == 0)
            throw new NotFoundException("link");
        await GoingOut.EditionsChangedAsync(transaction, organisationId, [editionId], now, takesAway: true);
        await AuditStore.WriteAsync(transaction, organisationId, audit);
        return true;
    });

    private static Task<int> EndAsync(System.Data.Common.DbTransaction transaction, Guid organisationId, Guid editionId, Guid? accountId,
        string how, Instant now) =>
        transaction.Connection!.ExecuteAsync($"update secret_link set secret = null, ended_at = @now, ended_how = @how where {Current}",
            new { organisationId, editionId, accountId, how, now }, transaction);
}
