using System.Security.Cryptography;
using System.Text;
using Dapper;
using NodaTime;

namespace Valtro.Store;

/// <summary>Who is signed in where, and who tried to be. It is nobody's in particular, so it looks everywhere.</summary>
public sealed class SessionStore(Database database)
{
    /// <summary>So many wrong passwords for an account from one address, and that address waits.</summary>
    public const int MostFailures = 5;

    /// <summary>How long it waits after the last of them.</summary>
    public static readonly Duration LockedFor = Duration.FromMinutes(15);

    /// <summary>A session that is not used for so long has ended.</summary>
    public static readonly Duration Idle = Duration.FromDays(30);

    private static readonly Duration SeenEvery = Duration.FromHours(1);

    public async Task<Guid> BeginAsync(Guid accountId, Instant now)
    {
        using var everywhere = Wall.Everywhere();
        var id = Guid.CreateVersion7();
        await database.ExecuteAsync("""
            with signed_in as (
                update account set last_sign_in_at = @now where id = @accountId
            )
            insert into session (id, account_id, made_at, seen_at) values (@id, @accountId, @now, @now)
            """, new { id, accountId, now });
        return id;
    }

    private sealed record Row(string SecurityStamp, Instant SeenAt);

    /// <summary>What every request of a signed-in person asks first, in one round trip.</summary>
    /// <returns>
    /// The account's stamp, which the session has to carry, and the organisations that whoever it is belongs to; null when the session has
    /// ended.
    /// </returns>
    public async Task<(string Stamp, IReadOnlyList<Membership> Memberships)?> FindAsync(Guid id, Guid accountId, Instant now)
    {
        using var everywhere = Wall.Everywhere();
        var (found, rows) = await database.ReadManyAsync($"""
            select a.security_stamp, s.seen_at
            from session s
            join account a on a.id = s.account_id
            where s.id = @id and s.account_id = @accountId and s.ended_at is null and s.seen_at > @idle;
            {AccountStore.ViewerRows}
            """, new { id, accountId, idle = now - Idle }, async results => (
                await results.ReadFirstOrDefaultAsync<Row>(),
                (await results.ReadAsync<AccountStore.ViewerRow>()).AsList()));
        if (found is null)
            return null;
        if (now - found.SeenAt > SeenEvery)
            await database.ExecuteAsync("update session set seen_at = @now where id = @id and seen_at < @now", new { id, now });
        return (found.SecurityStamp, AccountStore.MembershipsOf(accountId, rows));
    }

    public async Task EndAsync(Guid id, Instant now)
    {
        using var everywhere = Wall.Everywhere();
        await database.ExecuteAsync("update session set ended_at = @now where id = @id and ended_at is null", new { id, now });
    }

    /// <summary>Whether an account may not be tried from an address for a while. Asked alike for accounts that there are and that there are
    /// not.</summary>
    public async Task<bool> IsLockedAsync(string normalizedEmail, string address, Instant now)
    {
        using var everywhere = Wall.Everywhere();
        return await database.FirstAsync<bool>(
            """
            select exists (
                select from failed_sign_in
                where account = @account and address = @from and failures >= @MostFailures and last_at > @since)
            """,
            Parameters(normalizedEmail, address, now));
    }

    /// <summary>Counts one more wrong password, in one statement, so that parallel guesses all count.</summary>
    /// <returns>How many there were lately.</returns>
    public async Task<int> CountFailureAsync(string normalizedEmail, string address, Instant now)
    {
        using var everywhere = Wall.Everywhere();
        return (await database.ReturningAsync<int>("""
            insert into failed_sign_in as f (account, address, failures, last_at)
            values (@account, @from, 1, @now)
            on conflict (account, address) do update
            set failures = case when f.last_at > @since then f.failures + 1 else 1 end, last_at = @now
            returning failures
            """, Parameters(normalizedEmail, address, now)))[0];
    }

    /// <summary>The right password makes the wrong ones before it forgotten.</summary>
    public async Task ForgetFailuresAsync(string normalizedEmail, string address)
    {
        using var everywhere = Wall.Everywhere();
        await database.ExecuteAsync(
            "delete from failed_sign_in where account = @account and address = @from", Parameters(normalizedEmail, address, default));
    }

    /// <summary>Deletes what nobody will ask for any more.</summary>
    public async Task SweepAsync(Instant now)
    {
        using var everywhere = Wall.Everywhere();
        await database.ExecuteAsync("""
            delete from session where ended_at < @old or seen_at < @idle;
            delete from failed_sign_in where last_at < @old
            """, new { old = now - Duration.FromDays(1), idle = now - Idle });
    }

    private static object Parameters(string normalizedEmail, string address, Instant now) => new
    {
        account = SHA256.HashData(Encoding.UTF8.GetBytes(normalizedEmail)),
        from = SHA256.HashData(Encoding.UTF8.GetBytes($"{normalizedEmail} {address}")),
        MostFailures,
        now,
        since = now - LockedFor,
    };
}
