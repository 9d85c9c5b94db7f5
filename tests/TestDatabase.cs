using Npgsql;
using Valtro.Store;

namespace Valtro.Tests;

/// <summary>A migrated database of its own on the throw-away cluster that ./valtro test started.</summary>
public sealed class TestDatabase : IAsyncLifetime
{
    private readonly string _name = $"test_{Guid.NewGuid():N}";
    private readonly string _cluster = Environment.GetEnvironmentVariable("VALTRO_TEST_DATABASE")
        ?? throw new InvalidOperationException("VALTRO_TEST_DATABASE is not set. Run the tests with ./valtro test, which starts a cluster for them.");

    /// <summary>A way of its own to the cluster's socket, which can be taken away.</summary>
    private readonly string _way = Path.Combine(Path.GetTempPath(), $"valtro-{Guid.NewGuid():N}");

    public string ConnectionString => new NpgsqlConnectionStringBuilder(_cluster) { Host = _way, Database = _name, MaxPoolSize = 12 }.ConnectionString;

    public Database Database { get; private set; } = null!;

    public async Task InitializeAsync()
    {
        await StartAsync();
        await ExecuteOnClusterAsync($"create database {_name}");
        await Valtro.Store.Database.MigrateAsync(ConnectionString);
        Database = Valtro.Store.Database.At(ConnectionString);
    }

    public async Task DisposeAsync()
    {
        await Database.DisposeAsync();
        NpgsqlConnection.ClearAllPools();
        await ExecuteOnClusterAsync($"drop database {_name} with (force)");
        File.Delete(_way);
    }

    /// <summary>Cuts every connection and lets nobody in: what a stopped database looks like from outside.</summary>
    public Task StopAsync()
    {
        File.Delete(_way);
        return ExecuteOnClusterAsync($"select pg_terminate_backend(pid) from pg_stat_activity where datname = '{_name}'");
    }

    public Task StartAsync()
    {
        File.CreateSymbolicLink(_way, new NpgsqlConnectionStringBuilder(_cluster).Host!);
        return Task.CompletedTask;
    }

    private async Task ExecuteOnClusterAsync(string sql)
    {
        await using var source = NpgsqlDataSource.Create(_cluster);
        await using var connection = await source.OpenConnectionAsync();
        await using var command = new NpgsqlCommand(sql, connection);
        await command.ExecuteNonQueryAsync();
    }
}
