using System.Security.Cryptography;
using System.Text;
using Dapper;
using NodaTime;

namespace Valtro.Store;

/// <summary>The secret address of a calendar: whoever has it sees what the calendar shows people with the link.</summary>
public sealed record SecretLink(string Secret, Instant MadeAt);

/// <summary>Secrets that stand in addresses: made of 192 random bits, looked up by their digest, so that no comparison takes longer the more of it is right.</summary>
public static class Secrets
{
    /// <returns>32 letters, digits, hyphens and underscores.</returns>
    public static string Make() => Convert.ToBase64String(RandomNumberGenerator.GetBytes(24)).Replace('+', '-').Replace('/', '_');

    public static byte[] Digest(string secret) => SHA256.HashData(Encoding.UTF8.GetBytes(secret));
}

public sealed class SecretLinkStore(Database database)
{
    public Task<SecretLink?> FindAsync(Guid organisationId, Guid calendarId) => database.FirstAsync<SecretLink>("""
        select secret, made_at
        from secret_link
        where organisation_id = @organisationId and calendar_id = @calendarId and ended_at is null
        """, new { organisationId, calendarId });

    /// <summary>Makes a link; one that was there ends, and answers that it was replaced.</summary>
    public Task<SecretLink> MakeAsync(Guid organisationId, Guid calendarId, Instant now, Func<bool, AuditLine> audit) => database.InTransactionAsync(async transaction =>
    {
        var connection = transaction.Connection!;
        // One after the other for a calendar.
        await connection.ExecuteAsync("select from calendar where organisation_id = @organisationId and id = @calendarId for update", new { organisationId, calendarId }, transaction);
        var replaced = await EndAsync(connection, organisationId, calendarId, "replaced", now, transaction);
        var secret = Secrets.Make();
        await connection.ExecuteAsync("""
            insert into secret_link (id, organisation_id, calendar_id, secret, digest, made_at)
            values (@id, @organisationId, @calendarId, @secret, @digest, @now)
            """, new { id = Guid.CreateVersion7(), organisationId, calendarId, secret, digest = Secrets.Digest(secret), now }, transaction);
        await CalendarStore.ContentChangedAsync(transaction, organisationId, [calendarId]);
        await AuditStore.WriteAsync(transaction, organisationId, audit(replaced > 0));
        return new SecretLink(secret, now);
    });

    /// <exception cref="NotFoundException">There is none to withdraw.</exception>
    public Task<bool> WithdrawAsync(Guid organisationId, Guid calendarId, Instant now, AuditLine audit) => database.InTransactionAsync(async transaction =>
    {
        if (await EndAsync(transaction.Connection!, organisationId, calendarId, "withdrawn", now, transaction) == 0)
            throw new NotFoundException("link");
        await CalendarStore.ContentChangedAsync(transaction, organisationId, [calendarId]);
        await AuditStore.WriteAsync(transaction, organisationId, audit);
        return true;
    });

    private static Task<int> EndAsync(System.Data.Common.DbConnection connection, Guid organisationId, Guid calendarId, string how, Instant now, System.Data.Common.DbTransaction transaction) => connection.ExecuteAsync("""
        update secret_link
        set secret = null, ended_at = @now, ended_how = @how
        where organisation_id = @organisationId and calendar_id = @calendarId and ended_at is null
        """, new { organisationId, calendarId, how, now }, transaction);
}
