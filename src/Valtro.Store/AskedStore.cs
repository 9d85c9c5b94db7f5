using System.Data.Common;
using Dapper;
using NodaTime;
using Npgsql;

namespace Valtro.Store;

/// <summary>Something that is done once, however often it is asked for under the same key.</summary>
/// <param name="Digest">Of what is asked, 32 bytes.</param>
public sealed record AskedOnce(Guid AccountId, string Key, byte[] Digest)
{
    private static readonly AsyncLocal<AskedOnce?> Asked = new();

    /// <summary>What the request at hand is, where it has a key.</summary>
    public static AskedOnce? Current
    {
        get => Asked.Value;
        set => Asked.Value = value;
    }
}

/// <summary>How it was answered; <see cref="Answer"/> is null while it is being done, or where whoever did it stopped before they had said
/// so.</summary>
public sealed record AnsweredOnce(byte[] Digest, int? Status, string? Answer);

/// <summary>It is being done, or was done, by another request with the same key.</summary>
public sealed class AskedAlreadyException() : Exception("This was asked already.");

/// <summary>Remembers for a day what was asked under which key, in the transaction that does it.</summary>
public sealed class AskedStore(Database database)
{
    public static readonly Duration Kept = Duration.FromHours(24);

    public Task<AnsweredOnce?> FindAsync(Guid accountId, string key) => database.FirstAsync<AnsweredOnce>(
        "select digest, status, answer::text as answer from asked_once where account_id = @accountId and key = @key",
            new { accountId, key });

    /// <exception cref="AskedAlreadyException">Another request has the key.</exception>
    internal static async Task NoteAsync(DbTransaction transaction, Guid organisationId, Instant now)
    {
        if (AskedOnce.Current is not { } asked)
            return;
        try
        {
            await transaction.Connection!.ExecuteAsync(
                """
                insert into asked_once (account_id, key, organisation_id, digest, made_at)
                values (@AccountId, @Key, @organisationId, @Digest, @now)
                """,
                new { asked.AccountId, asked.Key, organisationId, asked.Digest, now }, transaction);
        }
        catch (PostgresException taken) when (taken.SqlState == PostgresErrorCodes.UniqueViolation)
        {
            throw new AskedAlreadyException();
        }
    }

    public Task AnswerAsync(AskedOnce asked, int status, string answer) => database.ExecuteAsync(
        "update asked_once set status = @status, answer = @answer::jsonb where account_id = @AccountId and key = @Key",
            new { asked.AccountId, asked.Key, status, answer });

    public Task<int> ForgetAsync(Instant madeBefore) =>
        database.ExecuteAsync("delete from asked_once where made_at < @madeBefore", new { madeBefore });
}
