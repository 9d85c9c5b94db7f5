using System.Text.Json;
using Dapper;
using NodaTime;
using Valtro.Core;

namespace Valtro.Store;

/// <param name="UsedAt">When a program came with it last, to the hour; null where none did.</param>
public sealed record AppPassword(Guid Id, string Name, Instant MadeAt, Instant? UsedAt);

/// <summary>Passwords for calendar programs, and what these know of calendars. They are nobody's in particular, so it looks
/// everywhere.</summary>
public sealed class AppPasswordStore(Database database)
{
    public const int Most = 20;

    private const int MostSnapshots = 5;

    private static readonly Duration SeenEvery = Duration.FromHours(1);

    public async Task<IReadOnlyList<AppPassword>> ListAsync(Guid accountId)
    {
        using var everywhere = Wall.Everywhere();
        return await database.ListAsync<AppPassword>("""
            select p.id, p.name, p.made_at, p.used_at
            from app_password p
            join account a on a.id = p.account_id and a.security_stamp = p.security_stamp
            where p.account_id = @accountId
            order by p.made_at desc
            limit @Most
            """, new { accountId, Most });
    }

    /// <exception cref="RuleException">There are too many.</exception>
    public async Task<Guid> AddAsync(Guid accountId, string name, string secret, Instant now)
    {
        using var everywhere = Wall.Everywhere();
        var id = Guid.CreateVersion7();
        return await database.InTransactionAsync(async transaction =>
        {
            var connection = transaction.Connection!;
            await connection.ExecuteAsync("""
                select from account where id = @accountId for update;
                delete from app_password p using account a
                where p.account_id = @accountId and a.id = p.account_id and a.security_stamp <> p.security_stamp
                """, new { accountId }, transaction);
            if (await connection.ExecuteScalarAsync<int>(
                "select count(*)::integer from app_password where account_id = @accountId", new { accountId }, transaction) >= Most)
                throw new RuleException("program", "account.tooManyPrograms", ("most", Most));
            await connection.ExecuteAsync("""
                insert into app_password (id, account_id, name, digest, security_stamp, made_at)
                select @id, a.id, @name, @digest, a.security_stamp, @now from account a where a.id = @accountId
                """, new { id, accountId, name, digest = Secrets.Digest(secret), now }, transaction);
            return id;
        });
    }

    /// <returns>False where there is none such.</returns>
    public async Task<bool> RemoveAsync(Guid accountId, Guid id)
    {
        using var everywhere = Wall.Everywhere();
        return await database.ExecuteAsync(
            "delete from app_password where account_id = @accountId and id = @id", new { accountId, id }) > 0;
    }

    private sealed record Found(Guid Id, Guid AccountId, string Email, Instant? UsedAt);

    /// <summary>Whose it is, and their address as they wrote it.</summary>
    /// <param name="email">As it is typed.</param>
    public async Task<(Guid AccountId, string Email)?> FindAsync(string email, string secret, Instant now)
    {
        using var everywhere = Wall.Everywhere();
        var found = await database.FirstAsync<Found>("""
            select p.id, p.account_id, a.email, p.used_at
            from app_password p
            join account a on a.id = p.account_id and a.security_stamp = p.security_stamp
            where p.digest = @digest and a.normalized_email = @email
            """, new { digest = Secrets.Digest(secret), email = email.Trim().ToUpperInvariant() });
        if (found is null)
            return null;
        if (found.UsedAt is null || now - found.UsedAt > SeenEvery)
            await database.ExecuteAsync("update app_password set used_at = @now where id = @Id", new { now, found.Id });
        return (found.AccountId, found.Email);
    }

    /// <summary>What a program knows: ETags by name; null where nobody remembers.</summary>
    public async Task<IReadOnlyDictionary<string, string>?> SnapshotAsync(Guid accountId, Guid editionId, string token)
    {
        using var everywhere = Wall.Everywhere();
        return await database.FirstAsync<string>(
            "select etags::text from dav_snapshot where account_id = @accountId and edition_id = @editionId and token = @token",
            new { accountId, editionId, token }) is { } etags ? JsonSerializer.Deserialize<Dictionary<string, string>>(etags) : null;
    }

    /// <summary>Remembers what a program is told; the latest few are kept.</summary>
    public async Task KeepSnapshotAsync(
        Guid accountId, Guid editionId, string token, IReadOnlyDictionary<string, string> etags, Instant now)
    {
        using var everywhere = Wall.Everywhere();
        await database.ExecuteAsync("""
            insert into dav_snapshot (account_id, edition_id, token, made_at, etags)
            values (@accountId, @editionId, @token, @now, @etags::jsonb)
            on conflict (account_id, edition_id, token) do update set made_at = excluded.made_at;
            delete from dav_snapshot
            where account_id = @accountId and edition_id = @editionId and token not in (
                select token from dav_snapshot where account_id = @accountId and edition_id = @editionId
                order by made_at desc, token limit @MostSnapshots)
            """, new { accountId, editionId, token, now, etags = JsonSerializer.Serialize(etags), MostSnapshots });
    }
}
