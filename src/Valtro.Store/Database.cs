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

    /// <summary>Statements that a connection keeps planned, those it runs most: to plan one takes PostgreSQL longer than most of them
    /// run.</summary>
    private const int MostPlanned = 80;

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
        _sources =
            Enum.GetValues<Lane>().ToDictionary(lane => lane, lane => SourceAt(ConnectionStringOf(lane, connectionString, connections)));
    }

    /// <summary>For tools and tests, which work on all organisations.</summary>
    /// <param name="connectionString">Npgsql's form.</param>
    public static Database At(string connectionString) => new(connectionString, isWalled: false, null);

    /// <summary>For the server: what a connection sees is what <see cref="Wall"/> says.</summary>
    /// <param name="connectionString">Npgsql's form.</param>
    /// <param name="connections">How many of each lane there are at most; as the connection string says where it is missing.</param>
    public static Database Walled(string connectionString, IReadOnlyDictionary<Lane, int>? connections = null) =>
        new(connectionString, isWalled: true, connections);

    private static string ConnectionStringOf(Lane lane, string connectionString, IReadOnlyDictionary<Lane, int>? connections)
    {
        // A transaction leaves nothing behind on its connection that would have to be discarded.
        var builder = new NpgsqlConnectionStringBuilder(connectionString)
        {
            ApplicationName = $"valtro {lane.ToString().ToLowerInvariant()}",
            NoResetOnClose = true,
        };
        // Where something stands between that knows none, the connection string says 0.
        if (!builder.ShouldSerialize("Max Auto Prepare"))
            builder.MaxAutoPrepare = MostPlanned;
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
        var connection = new NpgsqlConnection(
            new NpgsqlConnectionStringBuilder(_connectionString)
            {
                Pooling = false,
                ApplicationName = "valtro listening",
                Timeout = 3,
                CommandTimeout = 3,
                CancellationTimeout = -1
            }.ConnectionString);
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

    /// <summary>What a transaction is told first: for whom it works.</summary>
    /// <remarks>It forgets it at its end, so that a connection may be anybody's afterwards. Neither part is anything that somebody typed: a
    /// Guid's text or a word of ours.</remarks>
    private async Task<string> TellingAsync(NpgsqlDataSource source)
    {
        if (_needsRole is null)
        {
            await using var connection = await source.OpenConnectionAsync();
            _needsRole = _isWalled
                && await connection.ExecuteScalarAsync<bool>("select rolsuper or rolbypassrls from pg_roles where rolname = current_user");
        }
        var telling = $"set local {Wall.Setting} = '{(_isWalled ? Wall.Current : Wall.All)}'; ";
        return _needsRole == true ? $"set local role {WalledRole}; {telling}" : telling;
    }

    /// <summary>What is asked first of a connection shows whether the database has cut it: then another is taken, and all of its age are
    /// given up.</summary>
    private static async Task<T> OnWholeConnectionAsync<T>(NpgsqlDataSource source, Func<Task<T>> work)
    {
        try
        {
            return await work();
        }
        catch (NpgsqlException cut) when (cut is PostgresException
        {
            SqlState: PostgresErrorCodes.AdminShutdown
            or PostgresErrorCodes.CrashShutdown
        } || cut.InnerException is IOException)
        {
            source.Clear();
            return await work();
        }
    }

    /// <summary>A migration may have changed what a planned statement answers with. PostgreSQL does nothing of it then, nor of its
    /// transaction: it is done again where nothing is planned yet.</summary>
    private async Task<T> PlannedAnewAsync<T>(Func<Task<T>> work)
    {
        try
        {
            return await work();
        }
        catch (PostgresException stale) when (stale.Routine == "RevalidateCachedQuery")
        {
            _sources[Lanes.Current].Clear();
            return await work();
        }
    }

    /// <summary>One statement that changes nothing, in one round trip.</summary>
    /// <param name="asOf">How what other transactions commit meanwhile is seen: by default each statement sees what is there when it
    /// begins.</param>
    private async Task<T> ReadAsync<T>(string sql, Func<NpgsqlConnection, string, Task<T>> read, string asOf = "")
    {
        var source = _sources[Lanes.Current];
        return await PlannedAnewAsync(() => OnWholeConnectionAsync(source, async () =>
        {
            var telling = await TellingAsync(source);
            await using var connection = await source.OpenConnectionAsync();
            return await read(connection, $"begin read only{asOf}; {telling}{sql}; commit");
        }));
    }

    /// <exception cref="PostgresException">Among others where <paramref name="sql"/> would change something (25006).</exception>
    /// <param name="sql">One statement without its last semicolon.</param>
    public Task<IReadOnlyList<T>> ListAsync<T>(string sql, object? parameters = null) =>
        ReadAsync<IReadOnlyList<T>>(
            sql, async (connection, whole) => (await connection.QueryAsync<T>(Question(whole, parameters))).AsList());

    private static CommandDefinition Question(string sql, object? parameters) => new(sql, parameters, cancellationToken: Asking.Current);

    /// <inheritdoc cref="ListAsync"/>
    public Task<T?> FirstAsync<T>(string sql, object? parameters = null) =>
        ReadAsync(sql, (connection, whole) => connection.QueryFirstOrDefaultAsync<T>(Question(whole, parameters)));

    /// <summary>Several statements that change nothing, in one round trip; the results are read in their order.</summary>
    /// <param name="sql">With semicolons between them.</param>
    public Task<T> ReadManyAsync<T>(string sql, object? parameters, Func<SqlMapper.GridReader, Task<T>> read) =>
        ReadManyAsync(sql, parameters, read, asOf: "");

    /// <summary>The same, of one and the same moment.</summary>
    internal Task<T> ReadTogetherAsync<T>(string sql, object? parameters, Func<SqlMapper.GridReader, Task<T>> read) =>
        ReadManyAsync(sql, parameters, read, asOf: " isolation level repeatable read");

    private Task<T> ReadManyAsync<T>(string sql, object? parameters, Func<SqlMapper.GridReader, Task<T>> read, string asOf) =>
        ReadAsync(sql, async (connection, whole) =>
        {
            await using var results = await connection.QueryMultipleAsync(Question(whole, parameters));
            return await read(results);
        }, asOf);

    /// <summary>Statements that change something, in a transaction of their own.</summary>
    /// <returns>How many rows they changed.</returns>
    /// <param name="sql">Without its last semicolon.</param>
    public Task<int> ExecuteAsync(string sql, object? parameters = null) =>
        WriteAsync(connection => connection.ExecuteAsync($"{sql}; commit", parameters));

    /// <summary>A statement that changes something and returns what, in a transaction of its own.</summary>
    /// <param name="sql">Without its last semicolon.</param>
    public Task<IReadOnlyList<T>> ReturningAsync<T>(string sql, object? parameters = null) =>
        WriteAsync<IReadOnlyList<T>>(async connection => (await connection.QueryAsync<T>($"{sql}; commit", parameters)).AsList());

    private Task<T> WriteAsync<T>(Func<NpgsqlConnection, Task<T>> work) => PlannedAnewAsync(async () =>
    {
        await using var connection = await BegunAsync((connection, telling) => connection.ExecuteAsync($"begin; {telling}"));
        return await work(connection);
    });

    /// <summary>Runs <paramref name="work"/> in one transaction: all of it is kept, or nothing. Where another transaction stood in the way
    /// (a deadlock), it is done again.</summary>
    /// <param name="work">May be done more than once: it changes nothing but the database.</param>
    public async Task<T> InTransactionAsync<T>(Func<DbTransaction, Task<T>> work)
    {
        for (var tries = 1; ; tries++)
        {
            try
            {
                return await PlannedAnewAsync(() => TransactAsync(work));
            }
            catch (PostgresException inTheWay) when (inTheWay.SqlState is PostgresErrorCodes.DeadlockDetected
                or PostgresErrorCodes.SerializationFailure && tries < MostTries)
            {
                await Task.Delay(Random.Shared.Next(5, 50) * tries);
            }
        }
    }

    private async Task<T> TransactAsync<T>(Func<DbTransaction, Task<T>> work)
    {
        DbTransaction? transaction = null;
        await using var connection = await BegunAsync(async (connection, telling) =>
        {
            // Npgsql sends both at once.
            transaction = await connection.BeginTransactionAsync(IsolationLevel.ReadCommitted);
            await connection.ExecuteAsync(telling, transaction: transaction);
        });
        var result = await work(transaction!);
        await transaction!.CommitAsync();
        return result;
    }

    /// <summary>A connection on which a transaction has begun. Where it is given back without a commit, Npgsql rolls back.</summary>
    /// <remarks>Only the beginning is tried again on another connection: nothing is done twice.</remarks>
    private Task<NpgsqlConnection> BegunAsync(Func<NpgsqlConnection, string, Task> begin)
    {
        var source = _sources[Lanes.Current];
        return OnWholeConnectionAsync(source, async () =>
        {
            var telling = await TellingAsync(source);
            if (Asking.Change is { } change)
                telling += $"set local {Asking.ChangeSetting} = '{change}'; ";
            var connection = await source.OpenConnectionAsync();
            try
            {
                await begin(connection, telling);
                return connection;
            }
            catch
            {
                await connection.DisposeAsync();
                throw;
            }
        });
    }

    /// <summary>Brings the schema up to date. Safe to run again, and by several nodes at once.</summary>
    /// <exception cref="InvalidOperationException">A migration failed; the database is as it was before that one.</exception>
    /// <param name="before">Only as far as this migration; null for all.</param>
    public static async Task MigrateAsync(string connectionString, string? before = null)
    {
        // Not pooled: closing it for good is what gives the lock back.
        await using var guard =
            new NpgsqlConnection(new NpgsqlConnectionStringBuilder(connectionString) { Pooling = false }.ConnectionString);
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
    public static IReadOnlyList<string> Migrations { get; } = [.. typeof(Database).Assembly.GetManifestResourceNames()
        .Where(name => name.EndsWith(".sql", StringComparison.Ordinal)).Order(StringComparer.Ordinal)];

    private static UpgradeEngine Upgrade(string connectionString, string? before = null) =>
        DeployChanges.To
            .PostgresqlDatabase(connectionString)
            .WithScriptsEmbeddedInAssembly(typeof(Database).Assembly,
                script => Migrations.Contains(script)
                    && (before is null || string.CompareOrdinal(script, $"{typeof(Database).Namespace}.Migrations.{before}") < 0))
            .WithTransactionPerScript()
            .LogToNowhere()
            .Build();

    public async ValueTask DisposeAsync()
    {
        foreach (var source in _sources.Values)
            await source.DisposeAsync();
    }
}
