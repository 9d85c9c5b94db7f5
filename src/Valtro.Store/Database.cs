using System.Data;
using System.Data.Common;
using Dapper;
using DbUp;
using DbUp.Engine;
using Npgsql;

namespace Valtro.Store;

/// <summary>The database: its connections, its transactions, its migrations.</summary>
/// <param name="isWalled">Connections see what <see cref="Wall"/> says; else they see every organisation, as tools do.</param>
public sealed class Database(NpgsqlDataSource source, bool isWalled) : IAsyncDisposable
{
    /// <summary>Row-level security does not bind superusers: their connections take this role.</summary>
    private const string WalledRole = "valtro_walled";

    private bool? _needsRole;

    static Database()
    {
        DefaultTypeMap.MatchNamesWithUnderscores = true;
        NodaTypes.Register();
    }

    public NpgsqlDataSource Source { get; } = source;

    /// <summary>For tools and tests, which work on all organisations.</summary>
    /// <param name="connectionString">Npgsql's form.</param>
    public static Database At(string connectionString) => new(SourceAt(connectionString), isWalled: false);

    /// <summary>For the server: what a connection sees is what <see cref="Wall"/> says.</summary>
    /// <param name="connectionString">Npgsql's form.</param>
    public static Database Walled(string connectionString) => new(SourceAt(connectionString), isWalled: true);

    private static NpgsqlDataSource SourceAt(string connectionString)
    {
        var builder = new NpgsqlDataSourceBuilder(connectionString);
        builder.UseNodaTime();
        return builder.Build();
    }

    /// <summary>A connection that has been told for whom it works. Npgsql forgets it when the connection goes back to the pool.</summary>
    private async Task<NpgsqlConnection> OpenAsync()
    {
        var connection = await Source.OpenConnectionAsync();
        try
        {
            _needsRole ??= isWalled && await connection.ExecuteScalarAsync<bool>("select rolsuper or rolbypassrls from pg_roles where rolname = current_user");
            var setting = isWalled ? Wall.Current : Wall.All;
            // Neither is anything that somebody typed: a Guid's text or a word of ours.
            await connection.ExecuteAsync(_needsRole == true ? $"set role {WalledRole}; set {Wall.Setting} = '{setting}'" : $"set {Wall.Setting} = '{setting}'");
            return connection;
        }
        catch
        {
            await connection.DisposeAsync();
            throw;
        }
    }

    public async Task<IReadOnlyList<T>> ListAsync<T>(string sql, object? parameters = null)
    {
        await using var connection = await OpenAsync();
        return (await connection.QueryAsync<T>(sql, parameters)).AsList();
    }

    public async Task<T?> FirstAsync<T>(string sql, object? parameters = null)
    {
        await using var connection = await OpenAsync();
        return await connection.QueryFirstOrDefaultAsync<T>(sql, parameters);
    }

    public async Task<int> ExecuteAsync(string sql, object? parameters = null)
    {
        await using var connection = await OpenAsync();
        return await connection.ExecuteAsync(sql, parameters);
    }

    /// <summary>Runs <paramref name="work"/> in one transaction: all of it is kept, or nothing.</summary>
    public async Task<T> InTransactionAsync<T>(Func<DbTransaction, Task<T>> work)
    {
        await using var connection = await OpenAsync();
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
        await guard.ExecuteAsync($"""
            do $$
            begin
                if (select rolsuper from pg_roles where rolname = current_user) then
                    begin
                        create role {WalledRole} nologin;
                    exception when duplicate_object or unique_violation then null;
                    end;
                    execute format('grant usage on schema %I to {WalledRole}', current_schema());
                    execute format('grant select, insert, update, delete on all tables in schema %I to {WalledRole}', current_schema());
                end if;
            end $$
            """);
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
