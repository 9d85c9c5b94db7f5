using System.IO.Compression;
using System.Text;
using System.Text.Json.Nodes;
using Dapper;
using Microsoft.Extensions.DependencyInjection;
using NodaTime;
using Npgsql;
using Valtro.Application.Work;
using Valtro.Store;
using Valtro.Store.Archives;
using Valtro.Tests;
using Valtro.Tools.Archives;
using Valtro.Tools.Backups;

namespace Valtro.Server.Tests;

/// <summary>An organisation as one archive: out of one database, into another, with everything kept.</summary>
public sealed class ArchiveTests(KeptDemo demo) : IClassFixture<KeptDemo>, IAsyncLifetime
{
    private static readonly Instant Now = Instant.FromUtc(2026, 11, 23, 12, 0);

    private readonly List<string> _databases = [];
    private readonly string _folder = Directory.CreateTempSubdirectory("valtro-archive-").FullName;

    public Task InitializeAsync() => Task.CompletedTask;

    public async Task DisposeAsync()
    {
        foreach (var database in _databases)
            await KeptDemo.DropAsync(database);
        Directory.Delete(_folder, recursive: true);
    }

    private async Task<string> DatabaseAsync(bool withDemo)
    {
        var name = $"kept_{Guid.NewGuid():N}";
        _databases.Add(name);
        if (withDemo)
        {
            await demo.CopyAsync(name);
            return demo.To(name);
        }
        await demo.MakeEmptyAsync(name);
        await Database.MigrateAsync(demo.To(name));
        return demo.To(name);
    }

    private static async Task<MemoryStream> ArchivedAsync(string connection, string slug = "pinewick")
    {
        var archive = new MemoryStream();
        await OrganisationArchive.WriteAsync(connection, slug, archive);
        archive.Position = 0;
        return archive;
    }

    private static Dictionary<string, string> Entries(Stream archive)
    {
        archive.Position = 0;
        using var zip = new ZipArchive(archive, ZipArchiveMode.Read, leaveOpen: true);
        return zip.Entries.ToDictionary(entry => entry.FullName, entry =>
        {
            using var content = entry.Open();
            using var all = new MemoryStream();
            content.CopyTo(all);
            return Encoding.Latin1.GetString(all.ToArray());
        });
    }

    private static MemoryStream Without(Stream archive, Func<string, string, string?> becomes)
    {
        var other = new MemoryStream();
        using (var zip = new ZipArchive(other, ZipArchiveMode.Create, leaveOpen: true))
        {
            foreach (var (name, text) in Entries(archive))
            {
                if (becomes(name, text) is not { } said)
                    continue;
                using var entry = zip.CreateEntry(name).Open();
                entry.Write(Encoding.Latin1.GetBytes(said));
            }
        }
        other.Position = 0;
        return other;
    }

    private static async Task<T> OneAsync<T>(string connectionString, string sql)
    {
        await using var connection = new NpgsqlConnection(connectionString);
        await connection.OpenAsync();
        await connection.ExecuteAsync("select set_config('valtro.organisation', 'all', false)");
        return (await connection.ExecuteScalarAsync<T>(sql))!;
    }

    [Fact]
    public async Task Every_table_is_kept_or_it_is_said_why_not()
    {
        var tables = await OneAsync<string[]>(await DatabaseAsync(withDemo: false),
            "select array_agg(table_name::text order by table_name) from information_schema.tables where table_schema = 'public'");
        var about = JsonNode.Parse(Entries(await ArchivedAsync(await DatabaseAsync(withDemo: true)))["archive.json"])!;
        string[] said = [.. about["tables"]!.AsObject().Concat(about["tablesLeftBehind"]!.AsObject()).Select(one => one.Key)];
        Assert.Equal(tables.Order(StringComparer.Ordinal), said.Order(StringComparer.Ordinal));
    }

    [Fact]
    public async Task What_was_taken_is_what_was_archived_without_passwords_and_goes_out_as_before()
    {
        var (first, second) = (await DatabaseAsync(withDemo: true), await DatabaseAsync(withDemo: false));
        var archive = await ArchivedAsync(first);
        var before = Entries(archive);
        Assert.DoesNotContain("password_hash", before["data/account.jsonl"], StringComparison.Ordinal);
        Assert.DoesNotContain("security_stamp", before["data/account.jsonl"], StringComparison.Ordinal);
        await ArchiveReading.ReadAsync(second, archive, Now);

        // All of it, whatever the way: it is archived again, and says the same.
        var after = Entries(await ArchivedAsync(second));
        Assert.Equal(before.Keys.Order(StringComparer.Ordinal), after.Keys.Order(StringComparer.Ordinal));
        Assert.All(before, one => Assert.Equal(one.Value, after[one.Key]));
        Assert.Equal(0, await OneAsync<long>(second, "select count(password_hash) from account"));
        foreach (var made in new[] { "event_word", "search_word" })
            Assert.Equal(await OneAsync<long>(first, $"select count(*) from {made}"), await OneAsync<long>(second, $"select count(*) from {made}"));

        var clock = OneClock.From("2026-11-23T12:00:00Z*0", isProduction: false);
        async Task<string[]> AnswersAsync(string connection)
        {
            await using var node = ValtroApp.NodeOn(connection, clock);
            await node.Services.GetRequiredService<Startup>().Ready.WaitAsync(TimeSpan.FromSeconds(60));
            var reader = new Caller(node).Http;
            var answers = new List<string>();
            foreach (var address in new[] { "/c/pinewick/port-watch.ics", "/c/pinewick/juniors-for-families.ics", "/c/pinewick/juniors-for-families.json" })
                answers.Add(await (await ValtroApp.ReadAsync(reader, address)).Content.ReadAsStringAsync());
            return [.. answers];
        }
        Assert.Equal(await AnswersAsync(first), await AnswersAsync(second));

        // Once is enough; nothing is doubled.
        archive.Position = 0;
        Assert.Contains("here already", (await Assert.ThrowsAsync<ArchiveException>(
            () => ArchiveReading.ReadAsync(second, archive, Now))).Message, StringComparison.Ordinal);
    }

    [Fact]
    public async Task Whoever_is_here_already_stays_who_they_are()
    {
        var second = await DatabaseAsync(withDemo: false);
        var id = Guid.NewGuid();
        await OneAsync<object>(second, $"""
            insert into account (id, email, normalized_email, name, password_hash, security_stamp, created_at)
            values ('{id}', 'ada@pinewick.example', 'ADA@PINEWICK.EXAMPLE', 'Ada elsewhere', 'hash', 'stamp', '2026-01-01')
            """);
        await ArchiveReading.ReadAsync(second, await ArchivedAsync(await DatabaseAsync(withDemo: true)), Now);
        Assert.Equal(1, await OneAsync<long>(second, "select count(*) from account where normalized_email = 'ADA@PINEWICK.EXAMPLE'"));
        Assert.Equal("hash", await OneAsync<string>(second, $"select password_hash from account where id = '{id}'"));
        Assert.True(await OneAsync<bool>(second, $"select is_administrator from membership where account_id = '{id}'"));
        Assert.True(await OneAsync<long>(second, $"select count(*) from revision where account_id = '{id}'") > 10);
    }

    [Fact]
    public async Task One_of_an_older_Valtro_is_brought_up_to_date_on_the_way()
    {
        var name = $"kept_{Guid.NewGuid():N}";
        await TestCluster.ExecuteAsync($"create database {name}");
        _databases.Add(name);
        await Database.MigrateAsync(TestCluster.To(name), before: "0030-intake.sql");
        await OneAsync<object>(TestCluster.To(name), """
            insert into organisation (id, slug, name, zone, locale, first_day_of_week, year_starts_in)
            values ('00000000-0000-7000-8000-000000000001', 'old', 'Old school', 'Europe/Berlin', 'en', 1, 9);
            """);
        var archive = await ArchivedAsync(TestCluster.To(name), "old");
        Assert.DoesNotContain("data/push_target.jsonl", Entries(archive).Keys);
        archive.Position = 0;
        var now = $"kept_{Guid.NewGuid():N}";
        await TestCluster.ExecuteAsync($"create database {now}");
        _databases.Add(now);
        await Database.MigrateAsync(TestCluster.To(now));
        Assert.Equal("Old school", (await ArchiveReading.ReadAsync(TestCluster.To(now), archive, Now)).Name);
        Assert.Equal("old", await OneAsync<string>(TestCluster.To(now), "select slug from organisation"));
        Assert.Equal(0, await OneAsync<long>(TestCluster.To(now), "select count(*) from pg_database where datname like 'archive%'"));
    }

    [Fact]
    public async Task What_is_broken_is_refused_with_a_reason_and_nothing_is_taken()
    {
        var (archive, second) = (await ArchivedAsync(await DatabaseAsync(withDemo: true)), await DatabaseAsync(withDemo: false));
        async Task RefusedAsync(Stream input, string why)
        {
            var refused = await Assert.ThrowsAsync<ArchiveException>(() => ArchiveReading.ReadAsync(second, input, Now));
            Assert.Contains(why, refused.Message, StringComparison.Ordinal);
            Assert.Equal(0, await OneAsync<long>(second, "select count(*) from organisation"));
        }
        await RefusedAsync(new MemoryStream("BEGIN:VCALENDAR"u8.ToArray()), "no zip file");
        await RefusedAsync(Without(archive, (name, text) => name == "archive.json" ? null : text), "archive.json is missing");
        await RefusedAsync(Without(archive, (name, text) => name == "archive.json" ? "{" : text), "broken");
        await RefusedAsync(Without(archive, (name, text) => name == "archive.json"
            ? text.Replace("Migrations.0", "Migrations.9", StringComparison.Ordinal) : text), "newer Valtro");
        await RefusedAsync(Without(archive, (name, text) => name.StartsWith("files/", StringComparison.Ordinal) ? null : text), "is missing");
        await RefusedAsync(Without(archive, (name, text) => name == "data/event.jsonl" ? "{\"nonsense\":1}\n" : text), "nonsense");
        await RefusedAsync(Without(archive, (name, text) => name == "data/event.jsonl" ? "BEGIN" : text), "cannot be read");
        await RefusedAsync(Without(archive, (name, text) => name == "data/calendar.jsonl" ? null : text), "does not fit");
    }

    [Fact]
    public async Task An_operator_makes_one_and_takes_it()
    {
        var (file, said) = (Path.Combine(_folder, "pinewick.zip"), new StringWriter());
        await ArchiveCommand.MakeAsync(await DatabaseAsync(withDemo: true), "pinewick", file, said);
        Assert.Equal(UnixFileMode.UserRead | UnixFileMode.UserWrite, File.GetUnixFileMode(file));
        var again = await Assert.ThrowsAsync<BackupException>(
            async () => await ArchiveCommand.MakeAsync(await DatabaseAsync(withDemo: true), "pinewick", file, said));
        Assert.Contains("there already", again.Message, StringComparison.Ordinal);
        await ArchiveCommand.TakeAsync(await DatabaseAsync(withDemo: false), file, Now, said);
        Assert.Contains("Pinewick Harbour School", said.ToString(), StringComparison.Ordinal);
        await Assert.ThrowsAsync<BackupException>(
            async () => await ArchiveCommand.MakeAsync(await DatabaseAsync(withDemo: true), "nobody", Path.Combine(_folder, "b.zip"), said));
        Assert.False(File.Exists(Path.Combine(_folder, "b.zip")));
    }

    [Fact]
    public async Task An_administrator_takes_all_along_and_nobody_else()
    {
        await using var node = ValtroApp.NodeOn(await DatabaseAsync(withDemo: true), OneClock.From("2026-11-23T12:00:00Z*0", isProduction: false));
        await node.Services.GetRequiredService<Startup>().Ready.WaitAsync(TimeSpan.FromSeconds(60));
        var (ada, bo) = (new Caller(node), new Caller(node));
        await ada.SignInAsync("ada");
        await bo.SignInAsync("bo");
        Assert.Equal(System.Net.HttpStatusCode.Forbidden, (await bo.SendAsync(HttpMethod.Get, "/api/archive")).StatusCode);
        var answer = await ada.SendAsync(HttpMethod.Get, "/api/archive");
        Assert.Equal("pinewick-2026-11-23.zip", answer.Content.Headers.ContentDisposition!.FileName);
        using var content = new MemoryStream(await answer.Content.ReadAsByteArrayAsync());
        Assert.Contains("data/event.jsonl", Entries(content).Keys);
        content.Position = 0;
        Assert.Equal("pinewick", (await ArchiveReading.ReadAsync(await DatabaseAsync(withDemo: false), content, Now)).Slug);
        Assert.Equal("archiveTaken", (string)(await ada.GetAsync("/api/audit")).AsArray()[0]!["act"]!);
    }
}
