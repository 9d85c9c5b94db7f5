using Microsoft.Extensions.DependencyInjection;
using NodaTime;
using Npgsql;
using Valtro.Application.Work;
using Valtro.Store;
using Valtro.Tests;
using Valtro.Tools.Backups;
using Valtro.Tools.Demo;

namespace Valtro.Server.Tests;

/// <summary>The demo in a database of an ordinary owner of tables, whom row-level security binds; made once, and copied.</summary>
public sealed class KeptDemo : IAsyncLifetime
{
    private readonly string _owner = $"keeper_{Guid.NewGuid():N}";
    private readonly string _demo = $"kept_{Guid.NewGuid():N}";

    public async Task InitializeAsync()
    {
        await TestCluster.ExecuteAsync($"create role {_owner} login nosuperuser");
        await TestCluster.ExecuteAsync($"create database {_demo} owner {_owner}");
        await Database.MigrateAsync(To(_demo));
        await using var database = Database.At(To(_demo));
        await new DemoSeed(database, Instant.FromUtc(2026, 11, 23, 12, 0)).RunAsync();
    }

    public async Task DisposeAsync()
    {
        await DropAsync(_demo);
        await TestCluster.ExecuteAsync($"drop role {_owner}");
    }

    public Task MakeEmptyAsync(string name) => TestCluster.ExecuteAsync($"create database {name} owner {_owner}");

    public Task CopyAsync(string name) => TestCluster.ExecuteAsync($"create database {name} owner {_owner} template {_demo}");

    public static Task DropAsync(string name) => TestCluster.ExecuteAsync($"drop database {name} with (force)");

    public string To(string name) =>
        new NpgsqlConnectionStringBuilder(TestCluster.To(name)) { Username = _owner, Pooling = false }.ConnectionString;
}

/// <summary>Backups as an operator makes them.</summary>
public sealed class BackupTests(KeptDemo demo) : IClassFixture<KeptDemo>, IAsyncLifetime
{
    private readonly string _folder = Directory.CreateTempSubdirectory("valtro-backup-").FullName;
    private readonly List<string> _databases = [];
    private readonly StringWriter _said = new();

    private string FileCalled(string name) => Path.Combine(_folder, name);

    public Task InitializeAsync() => Task.CompletedTask;

    public async Task DisposeAsync()
    {
        foreach (var database in _databases)
            await KeptDemo.DropAsync(database);
        Directory.Delete(_folder, recursive: true);
    }

    private async Task<string> EmptyDatabaseAsync()
    {
        var name = $"kept_{Guid.NewGuid():N}";
        await demo.MakeEmptyAsync(name);
        _databases.Add(name);
        return demo.To(name);
    }

    private async Task<string> DemoDatabaseAsync()
    {
        var name = $"kept_{Guid.NewGuid():N}";
        await demo.CopyAsync(name);
        _databases.Add(name);
        return demo.To(name);
    }

    private static async Task<T> AskAsync<T>(string connection, string sql)
    {
        await using var source = NpgsqlDataSource.Create(connection);
        await using var command = source.CreateCommand($"set valtro.organisation = 'all'; {sql}");
        return (T)(await command.ExecuteScalarAsync())!;
    }

    /// <summary>All that readers get of every edition, from a server on that database.</summary>
    private static async Task<Dictionary<string, string>> ReadAsync(string connection)
    {
        await using var node = ValtroApp.NodeOn(
            new NpgsqlConnectionStringBuilder(connection) { Pooling = true, MaxPoolSize = 10 }.ConnectionString,
                OneClock.From("2026-11-23T13:00:00Z*0", isProduction: false));
        await node.Services.GetRequiredService<Startup>().Ready;
        var reader = new Caller(node);
        var slugs = await AskAsync<string[]>(connection, "select array_agg(slug order by slug) from edition");
        var read = new Dictionary<string, string>();
        foreach (var address in slugs.SelectMany(slug =>
            new[] { $"/c/pinewick/{slug}.ics", $"/c/pinewick/{slug}.json", $"/c/pinewick/{slug}.atom" }))
        {
            var answer = await reader.Http.GetAsync(address);
            read[address] = answer.IsSuccessStatusCode ? await answer.Content.ReadAsStringAsync() : $"{answer.StatusCode}";
        }
        Assert.True(read.Values.Count(text => text.Contains("Boat lab", StringComparison.Ordinal)) >= 6);
        return read;
    }

    private const string AllTitles = "select md5(string_agg(event::text, ' ' order by id)) from event";

    [Fact]
    public async Task What_was_restored_into_an_empty_database_reads_byte_for_byte_the_same()
    {
        var (first, second) = (await DemoDatabaseAsync(), await EmptyDatabaseAsync());
        var before = await ReadAsync(first);
        await Backup.MakeAsync(first, FileCalled("demo.backup"), _said);
        Assert.Contains("1 organisation, 6 accounts", _said.ToString(), StringComparison.Ordinal);
        Assert.Equal(UnixFileMode.UserRead | UnixFileMode.UserWrite, File.GetUnixFileMode(FileCalled("demo.backup")));

        await Backup.RestoreAsync(second, FileCalled("demo.backup"), replaces: false, _said);
        var rows = await AskAsync<long>(first, "select count(*) from event");
        Assert.True(rows > 20);
        Assert.Equal(rows, await AskAsync<long>(second, "select count(*) from event"));
        Assert.Equal(await AskAsync<string>(first, "select string_agg(md5(content), ' ' order by id) from file"),
            await AskAsync<string>(second, "select string_agg(md5(content), ' ' order by id) from file"));
        Assert.Contains($"{rows} events", _said.ToString(), StringComparison.Ordinal);
        const string Artefacts = "select md5(string_agg(artefact::text, ' ' order by artefact::text)) from artefact";
        Assert.Equal(await AskAsync<string>(first, Artefacts), await AskAsync<string>(second, Artefacts));

        // The walls between organisations stand again, and what was kept is not only what had been written already.
        Assert.Equal(0, await AskAsync<long>(second, "set valtro.organisation = ''; select count(*) from event"));
        await AskAsync<object>(second, "delete from artefact; select 1");
        Assert.Equal(before, await ReadAsync(second));
    }

    [Fact]
    public async Task What_is_there_goes_only_when_that_is_said_and_then_wholly()
    {
        var (first, second) = (await DemoDatabaseAsync(), await EmptyDatabaseAsync());
        await Backup.MakeAsync(first, FileCalled("demo.backup"), _said);
        await Backup.RestoreAsync(second, FileCalled("demo.backup"), replaces: false, _said);
        await AskAsync<object>(second,
            "create table left_over (id integer); update event set content = content || '{\"title\": \"Of the second\"}'; select 1");

        var refused =
            await Assert.ThrowsAsync<BackupException>(() => Backup.RestoreAsync(second, FileCalled("demo.backup"), replaces: false, _said));
        Assert.Contains("is not empty: 1 organisation, ", refused.Message, StringComparison.Ordinal);
        Assert.Contains("--replace", refused.Message, StringComparison.Ordinal);
        Assert.True(await AskAsync<long>(second, "select count(*) from event where content ->> 'title' = 'Of the second'") > 20);

        await Backup.RestoreAsync(second, FileCalled("demo.backup"), replaces: true, _said);
        Assert.Equal(0, await AskAsync<long>(second, "select count(*) from event where content ->> 'title' = 'Of the second'"));
        Assert.True(await AskAsync<bool>(second, "select to_regclass('left_over') is null"));
        Assert.Equal(await AskAsync<string>(first, AllTitles), await AskAsync<string>(second, AllTitles));
    }

    [Fact]
    public async Task What_cannot_be_kept_or_put_back_is_said_and_changes_nothing()
    {
        var (first, empty) = (await DemoDatabaseAsync(), await EmptyDatabaseAsync());
        async Task RefusedAsync(string sentence, Func<Task> act) =>
            Assert.Contains(sentence, (await Assert.ThrowsAsync<BackupException>(act)).Message, StringComparison.Ordinal);

        await RefusedAsync("There is nothing in the database", () => Backup.MakeAsync(empty, FileCalled("a"), _said));
        await RefusedAsync("There is no folder", () => Backup.MakeAsync(first, FileCalled("none/a"), _said));
        await RefusedAsync("cannot be reached", () => Backup.MakeAsync(TestCluster.To("nowhere"), FileCalled("a"), _said));
        await RefusedAsync("There is no file", () => Backup.RestoreAsync(empty, FileCalled("a"), false, _said));
        Assert.Empty(Directory.GetFiles(_folder));

        await Backup.MakeAsync(first, FileCalled("whole"), _said);
        await RefusedAsync("is there already", () => Backup.MakeAsync(first, FileCalled("whole"), _said));
        var bytes = await File.ReadAllBytesAsync(FileCalled("whole"));
        await File.WriteAllBytesAsync(FileCalled("cut"), bytes[..(bytes.Length * 9 / 10)]);
        await File.WriteAllTextAsync(FileCalled("text"), "select 1;");
        await RefusedAsync("is not a backup", () => Backup.RestoreAsync(empty, FileCalled("text"), false, _said));
        // Half of it is nothing of it.
        await RefusedAsync("pg_restore failed", () => Backup.RestoreAsync(first, FileCalled("cut"), true, _said));
        Assert.True(await AskAsync<long>(first, "select count(*) from event") > 20);

        await using (var inUse = NpgsqlDataSource.Create(first))
        await using (await inUse.OpenConnectionAsync())
            await RefusedAsync("Stop the servers first", () => Backup.RestoreAsync(first, FileCalled("whole"), true, _said));

        await AskAsync<object>(first,
            "insert into schemaversions (scriptname, applied) values ('Valtro.Store.Migrations.9999-later.sql', '2026-11-23'); select 1");
        await Backup.MakeAsync(first, FileCalled("newer"), _said);
        await RefusedAsync("made by a newer Valtro", () => Backup.RestoreAsync(empty, FileCalled("newer"), false, _said));
        Assert.False(await AskAsync<bool>(empty, "select exists (select from pg_tables where schemaname = 'public')"));
    }
}
