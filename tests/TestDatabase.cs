using Npgsql;
using Valtro.Store;

namespace Valtro.Tests;

/// <summary>The throw-away cluster that ./valtro test started.</summary>
internal static class TestCluster
{
    public static string ConnectionString { get; } = Environment.GetEnvironmentVariable("VALTRO_TEST_DATABASE")
        ?? throw new InvalidOperationException(
            "VALTRO_TEST_DATABASE is not set. Run the tests with ./valtro test, which starts a cluster for them.");

    public static string To(string database) =>
        new NpgsqlConnectionStringBuilder(ConnectionString) { Database = database, Pooling = false }.ConnectionString;

    public static async Task ExecuteAsync(string sql)
    {
        await using var source = NpgsqlDataSource.Create(ConnectionString);
        await using var command = source.CreateCommand(sql);
        await command.ExecuteNonQueryAsync();
    }
}

/// <summary>A database that is migrated and filled once, and copied for each that wants one of its own.</summary>
/// <param name="fill">Puts into it what stands there beside the tables; it is given where it is too.</param>
public sealed class DatabaseTemplate(Func<Database, string, Task> fill)
{
    private readonly Lazy<Task<string>> _name = new(() => MakeAsync(fill));

    public static DatabaseTemplate Empty { get; } = new((_, _) => Task.CompletedTask);

    /// <summary>The name of the database to copy. Nobody is connected to it.</summary>
    public Task<string> NameAsync() => _name.Value;

    private static async Task<string> MakeAsync(Func<Database, string, Task> fill)
    {
        var name = $"template_{Guid.NewGuid():N}";
        await TestCluster.ExecuteAsync($"create database {name}");
        await Database.MigrateAsync(TestCluster.To(name));
        await using var database = Database.At(TestCluster.To(name));
        await fill(database, TestCluster.To(name));
        // Nothing else ever looks at these tables as a whole: the throw-away cluster has no autovacuum.
        await database.ExecuteAsync("analyze (skip_locked false)");
        return name;
    }
}

/// <summary>A database of its own on the throw-away cluster: a copy of <paramref name="template"/>.</summary>
public sealed class TestDatabase(DatabaseTemplate template) : IAsyncLifetime
{
    private readonly string _name = $"test_{Guid.NewGuid():N}";

    /// <summary>A way of its own to the cluster's socket, which can be taken away.</summary>
    private readonly string _way = Path.Combine(Path.GetTempPath(), $"valtro-{Guid.NewGuid():N}");

    public string ConnectionString =>
        new NpgsqlConnectionStringBuilder(
            TestCluster.ConnectionString)
        { Host = _way, Database = _name, MaxPoolSize = 12 }.ConnectionString;

    public Database Database { get; private set; } = null!;

    public async Task InitializeAsync()
    {
        await StartAsync();
        await TestCluster.ExecuteAsync($"create database {_name} template {await template.NameAsync()}");
        Database = Valtro.Store.Database.At(ConnectionString);
    }

    public async Task DisposeAsync()
    {
        await Database.DisposeAsync();
        await TestCluster.ExecuteAsync($"drop database {_name} with (force)");
        File.Delete(_way);
    }

    /// <summary>Cuts every connection and lets nobody in: what a stopped database looks like from outside.</summary>
    public Task StopAsync()
    {
        File.Delete(_way);
        return TestCluster.ExecuteAsync($"select pg_terminate_backend(pid) from pg_stat_activity where datname = '{_name}'");
    }

    public Task StartAsync()
    {
        File.CreateSymbolicLink(_way, new NpgsqlConnectionStringBuilder(TestCluster.ConnectionString).Host!);
        return Task.CompletedTask;
    }
}
