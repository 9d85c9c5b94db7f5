using System.Data;
using System.Data.Common;
using Dapper;
using DbUp;
using DbUp.Engine;
using Npgsql;

namespace Valtro.Store;

/// <summary>The database: its connections, its transactions, its migrations.</summary>
public sealed class Database(NpgsqlDataSource source) : IAsyncDisposable
{
    static Database()
    {
        DefaultTypeMap.MatchNamesWithUnderscores = true;
        NodaTypes.Register();
    }

    public NpgsqlDataSource Source { get; } = source;

    /// <param name="connectionString">Npgsql's form.</param>
    public static Database At(string connectionString)
    {
        var builder = new NpgsqlDataSourceBuilder(connectionString);
        builder.UseNodaTime();
        return new Database(builder.Build());
    }

    public async Task<IReadOnlyList<T>> ListAsync<T>(string sql, object? parameters = null)
    {
        await using var connection = await Source.OpenConnectionAsync();
        return (await connection.QueryAsync<T>(sql, parameters)).AsList();
    }

    public async Task<T?> FirstAsync<T>(string sql, object? parameters = null)
    {
        await using var connection = await Source.OpenConnectionAsync();
        return await connection.QueryFirstOrDefaultAsync<T>(sql, parameters);
    }

    public async Task<int> ExecuteAsync(string sql, object? parameters = null)
    {
        await using var connection = await Source.OpenConnectionAsync();
        return await connection.ExecuteAsync(sql, parameters);
    }

    /// <summary>Runs <paramref name="work"/> in one transaction: all of it is kept, or nothing.</summary>
    public async Task<T> InTransactionAsync<T>(Func<DbTransaction, Task<T>> work)
    {
        await using var connection = await Source.OpenConnectionAsync();
        await using var transaction = await connection.BeginTransactionAsync(IsolationLevel.ReadCommitted);
        var result = await work(transaction);
        await transaction.CommitAsync();
        return result;
    }

    /// <summary>Brings the schema up to date. Safe to run again, and by several nodes at once.</summary>
    /// <exception cref="InvalidOperationException">A migration failed; the database is as it was before that one.</exception>
    public static async Task MigrateAsync(string connectionString)
    {
        // Not pooled: closing it for good is what gives the lock back.
        await using var guard = new NpgsqlConnection(new NpgsqlConnectionStringBuilder(connectionString) { Pooling = false }.ConnectionString);
        await guard.OpenAsync();
        await guard.ExecuteAsync("select pg_advisory_lock(861004)");
        var result = Upgrade(connectionString).PerformUpgrade();
        if (!result.Successful)
            throw new InvalidOperationException($"The migration {result.ErrorScript?.Name} failed.", result.Error);
    }

    /// <summary>True when no migration is left to run.</summary>
    public static bool IsMigrated(string connectionString) => !Upgrade(connectionString).IsUpgradeRequired();

    private static UpgradeEngine Upgrade(string connectionString) =>
        DeployChanges.To
            .PostgresqlDatabase(connectionString)
            .WithScriptsEmbeddedInAssembly(typeof(Database).Assembly)
            .WithTransactionPerScript()
            .LogToNowhere()
            .Build();

    public ValueTask DisposeAsync() => Source.DisposeAsync();
}
