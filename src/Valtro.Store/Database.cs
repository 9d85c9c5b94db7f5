using System.Data;
using System.Data.Common;
using Dapper;
using DbUp;
using DbUp.Engine;
using Npgsql;

namespace Valtro.Store;

/// <summary>The database: its connections, its transactions, its migrations.</summary>
/// <remarks>Each of the <see cref="Lanes"/> has connections of its own.</remarks>
public sealed class Database : IAsyncDisposable
{
    /// <summary>Row-level security does not bind superusers: their connections take this role.</summary>
    private const string WalledRole = "valtro_walled";

    private const int MostTries = 3;

    private readonly string _connectionString;
    private readonly bool _isWalled;
    private readonly Dictionary<Lane, NpgsqlDataSource> _sources;
    private bool? _needsRole;

    static Database()
    {
        DefaultTypeMap.MatchNamesWithUnderscores = true;
        NodaTypes.Register();
    }

    private Database(string connectionString, bool isWalled, IReadOnlyDictionary<Lane, int>? connections)
    {
        (_connectionString, _isWalled) = (connectionString, isWalled);
        _sources = Enum.GetValues<Lane>().ToDictionary(lane => lane, lane => SourceAt(ConnectionStringOf(lane, connectionString, connections)));
    }

    /// <summary>For tools and tests, which work on all organisations.</summary>
    /// <param name="connectionString">Npgsql's form.</param>
    public static Database At(string connectionString) => new(connectionString, isWalled: false, null);

    /// <summary>For the server: what a connection sees is what <see cref="Wall"/> says.</summary>
    /// <param name="connectionString">Npgsql's form.</param>
    /// <param name="connections">How many of each lane there are at most; as the connection string says where it is missing.</param>
    public static Database Walled(string connectionString, IReadOnlyDictionary<Lane, int>? connections = null) => new(connectionString, isWalled: true, connections);

    private static string ConnectionStringOf(Lane lane, string connectionString, IReadOnlyDictionary<Lane, int>? connections)
    {
        var builder = new NpgsqlConnectionStringBuilder(connectionString) { ApplicationName = $"valtro {lane.ToString().ToLowerInvariant()}" };
        if (connections?.TryGetValue(lane, out var most) == true)
            builder.MaxPoolSize = most;
        if (lane == Lane.Readers)
        {
            // Whoever reads in public does not wait longer: they get the last good copy, or are told to come again.
            builder.Timeout = Lanes.ReadersWaitSeconds;
            builder.CommandTimeout = Lanes.ReadersWaitSeconds;
            builder.CancellationTimeout = -1;
        }
        return builder.ConnectionString;
    }

    private static NpgsqlDataSource SourceAt(string connectionString)
    {
        var builder = new NpgsqlDataSourceBuilder(connectionString);
        builder.UseNodaTime();
        return builder.Build();
    }

    /// <summary>A connection of its own, in no pool, on which announcements are heard. It sees no organisation.</summary>
    public async Task<NpgsqlConnection> ListenAsync(CancellationToken cancellation)
    {
        var connection = new NpgsqlConnection(new NpgsqlConnectionStringBuilder(_connectionString) { Pooling = false, ApplicationName = "valtro listening", Timeout = 3, CommandTimeout = 3, CancellationTimeout = -1 }.ConnectionString);
        try
        {
            await connection.OpenAsync(cancellation);
            await connection.ExecuteAsync($"listen {Announcements.Channel}");
            return connection;
        }
        catch
        {
            await connection.DisposeAsync();
            throw;
        }
    }

    /// <summary>A connection that has been told for whom it works. Npgsql forgets it when the connection goes back to the pool.</summary>
    /// <remarks>Telling it is the first that is asked of it: one that the database has cut meanwhile shows there, and another is taken, with all others of its age.</remarks>
    private async Task<NpgsqlConnection> OpenAsync()
    {
        var source = _sources[Lanes.Current];
        try
        {
            return await OpenAsync(source);
        }
        catch (NpgsqlException cut) when (cut is PostgresException { SqlState: PostgresErrorCodes.AdminShutdown or PostgresErrorCodes.CrashShutdown } || cut.InnerException is IOException)
        {
            source.Clear();
            return await OpenAsync(source);
        }
    }

    private async Task<NpgsqlConnection> OpenAsync(NpgsqlDataSource source)
    {
        var connection = await source.OpenConnectionAsync();
        try
        {
            _needsRole ??= _isWalled && await connection.ExecuteScalarAsync<bool>("select rolsuper or rolbypassrls from pg_roles where rolname = current_user");
            var setting = _isWalled ? Wall.Current : Wall.All;
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

    /// <summary>Runs <paramref name="work"/> in one transaction: all of it is kept, or nothing. Where another transaction stood in the way (a deadlock), it is done again.</summary>
    /// <param name="work">May be done more than once: it changes nothing but the database.</param>
    public async Task<T> InTransactionAsync<T>(Func<DbTransaction, Task<T>> work)
    {
        for (var tries = 1; ; tries++)
        {
            try
            {
                await using var connection = await OpenAsync();
                await using var transaction = await connection.BeginTransactionAsync(IsolationLevel.ReadCommitted);
                var result = await work(transaction);
                await transaction.CommitAsync();
                return result;
            }
            catch (PostgresException inTheWay) when (inTheWay.SqlState is PostgresErrorCodes.DeadlockDetected or PostgresErrorCodes.SerializationFailure && tries < MostTries)
            {
                await Task.Delay(Random.Shared.Next(5, 50) * tries);
            }
        }
    }

    /// <summary>Brings the schema up to date. Safe to run again, and by several nodes at once.</summary>
    /// <exception cref="InvalidOperationException">A migration failed; the database is as it was before that one.</exception>
    /// <param name="before">Only as far as this migration; null for all.</param>
    public static async Task MigrateAsync(string connectionString, string? before = null)
    {
        // Not pooled: closing it for good is what gives the lock back.
        await using var guard = new NpgsqlConnection(new NpgsqlConnectionStringBuilder(connectionString) { Pooling = false }.ConnectionString);
        await guard.OpenAsync();
        await guard.ExecuteAsync("select pg_advisory_lock(861004)");
        var result = Upgrade(connectionString, before).PerformUpgrade();
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

    /// <summary>By the names under which a database says which of them it has.</summary>
    public static IReadOnlyList<string> Migrations { get; } = [.. typeof(Database).Assembly.GetManifestResourceNames().Where(name => name.EndsWith(".sql", StringComparison.Ordinal)).Order(StringComparer.Ordinal)];

    private static UpgradeEngine Upgrade(string connectionString, string? before = null) =>
        DeployChanges.To
            .PostgresqlDatabase(connectionString)
            .WithScriptsEmbeddedInAssembly(typeof(Database).Assembly, script => before is null || string.CompareOrdinal(script, $"{typeof(Database).Namespace}.Migrations.{before}") < 0)
            .WithTransactionPerScript()
            .LogToNowhere()
            .Build();

    public async ValueTask DisposeAsync()
    {
        foreach (var source in _sources.Values)
            await source.DisposeAsync();
    }
}
