using System.Globalization;
using Dapper;
using Npgsql;
using Valtro.Store;

namespace Valtro.Tools.Backups;

/// <summary>It could not be done; the message says to the operator why, and what would be right. Nothing was changed.</summary>
public sealed class BackupException(string message) : Exception(message);

/// <summary>The whole database, attachments included, in one file of PostgreSQL's own custom format.</summary>
public static class Backup
{
    /// <summary>What a backup holds, in the order in which it is said: the name of one, of many, and where they stand.</summary>
    private static readonly (string One, string Many, string Table)[] Held =
    [
        ("organisation", "organisations", "organisation"), ("account", "accounts", "account"), ("calendar", "calendars", "calendar"),
        ("event", "events", "event"),
        ("edition", "editions", "edition"), ("attachment", "attachments", "file"), ("earlier version", "earlier versions", "revision"),
    ];

    /// <summary>Writes a file that only its owner can read. What it holds is as of one moment, whatever is saved meanwhile.</summary>
    /// <exception cref="BackupException">It cannot be made; there is no such file afterwards.</exception>
    public static async Task MakeAsync(string connectionString, string file, TextWriter output)
    {
        if (File.Exists(file) || Directory.Exists(file))
            throw new BackupException($"{file} is there already. Name another file, so that an older backup is not lost.");
        if (Path.GetDirectoryName(Path.GetFullPath(file)) is { } folder && !Directory.Exists(folder))
            throw new BackupException($"There is no folder {folder}. Make it, or name a file elsewhere.");
        var database = new NpgsqlConnectionStringBuilder(connectionString) { Pooling = false };
        await using var connection = await ConnectAsync(database);
        await using var transaction = await connection.BeginTransactionAsync(System.Data.IsolationLevel.RepeatableRead);
        if (!await HasTablesAsync(connection))
            throw new BackupException($"There is nothing in the database “{database.Database}”: no server ever ran on it.");
        var held = await HeldAsync(connection);
        var snapshot = await connection.ExecuteScalarAsync<string>("select pg_export_snapshot()");
        var unfinished = $"{file}.unfinished";
        try
        {
            await using (new FileStream(unfinished,
                new FileStreamOptions
                {
                    Mode = FileMode.Create,
                    Access = FileAccess.Write,
                    UnixCreateMode = UnixFileMode.UserRead | UnixFileMode.UserWrite
                }))
            {
            }
            await PostgresProgram.RunAsync("pg_dump", database, "--format=custom", "--no-owner", "--no-privileges", "--enable-row-security",
                $"--snapshot={snapshot}", $"--file={unfinished}");
            File.Move(unfinished, file);
        }
        catch (Exception failed) when (failed is IOException or UnauthorizedAccessException)
        {
            throw new BackupException($"{file} cannot be written: {failed.Message}");
        }
        finally
        {
            File.Delete(unfinished);
        }
        await output.WriteLineAsync($"{file}: {held}; {SizeOf(file)}.");
    }

    /// <summary>Puts a backup into a database, in one transaction: all of it, or nothing.</summary>
    /// <param name="replaces">What stands in the database may go.</param>
    /// <exception cref="BackupException">It cannot be done; the database is as it was.</exception>
    public static async Task RestoreAsync(string connectionString, string file, bool replaces, TextWriter output)
    {
        await CheckAsync(file);
        var database = new NpgsqlConnectionStringBuilder(connectionString) { Pooling = false };
        await using (var connection = await ConnectAsync(database))
        {
            if (!replaces && await HasTablesAsync(connection))
                throw new BackupException(
                    $"The database “{database.Database}” is not empty: {await HeldAsync(connection)}. With --replace they go, and what is in the file takes their place.");
            // A node that runs would go on with what it remembers of editions that are others now.
            var others = await connection.ExecuteScalarAsync<int>(
                "select count(*) from pg_stat_activity where datname = current_database() and pid <> pg_backend_pid() and backend_type = 'client backend'");
            if (others > 0)
                throw new BackupException(
                    $"The database “{database.Database}” is in use ({others} {(others == 1 ? "connection" : "connections")}). Stop the servers first.");
        }
        using (var writing = PostgresProgram.Start(
            "psql", database, "--no-psqlrc", "--quiet", "--no-password", "--output=/dev/null", "--set=ON_ERROR_STOP=1", "--file=-"))
        using (var reading = PostgresProgram.Start("pg_restore", null, "--no-owner", "--no-privileges", "--no-comments", "--file=-", file))
        {
            try
            {
                await SayAsync(writing, $"begin;\n{(replaces ? Emptying : "")}\n");
                await reading.Output.CopyToAsync(writing.Input);
                await reading.EndAsync();
                // Without this last word nothing of it is kept.
                await SayAsync(writing, "\ncommit;\n");
            }
            catch (IOException)
            {
                // It takes no more: what it said of that is told below.
            }
            writing.Input.Close();
            await writing.EndAsync();
        }
        await Database.MigrateAsync(connectionString);
        await using var restored = await ConnectAsync(database);
        await output.WriteLineAsync(
            $"“{database.Database}” is as it was when {file} was made: {await HeldAsync(restored)}. The servers can start.");
    }

    /// <summary>A backup, and not of a newer Valtro, whose tables this one would not understand.</summary>
    private static async Task CheckAsync(string file)
    {
        if (!File.Exists(file))
            throw new BackupException($"There is no file {file}.");
        string listed;
        try
        {
            listed = await PostgresProgram.RunAsync("pg_restore", null, "--list", file);
        }
        catch (BackupException)
        {
            throw new BackupException($"{file} is not a backup that ./valtro backup made, or not the whole of it.");
        }
        if (!listed.Contains(" schemaversions ", StringComparison.Ordinal) || !listed.Contains(" edition ", StringComparison.Ordinal))
            throw new BackupException($"{file} is a backup of another program's database.");
        var migrations = await PostgresProgram.RunAsync("pg_restore", null, "--data-only", "--table=schemaversions", "--file=-", file);
        var known = Database.Migrations.ToHashSet(StringComparer.Ordinal);
        var newer = migrations.Split('\n')
            .Select(line => line.Split('\t'))
            .Where(row => row.Length == 3 && row[1].EndsWith(".sql", StringComparison.Ordinal) && !known.Contains(row[1]))
            .Select(row => row[1])
            .ToList();
        if (newer.Count > 0)
            throw new BackupException(
                $"{file} was made by a newer Valtro, which knows {newer[0]}. Restore it with that one or a later one.");
    }

    private static async Task<NpgsqlConnection> ConnectAsync(NpgsqlConnectionStringBuilder database)
    {
        var connection = new NpgsqlConnection(database.ConnectionString);
        try
        {
            await connection.OpenAsync();
            await connection.ExecuteAsync($"set {Wall.Setting} = '{Wall.All}'");
            return connection;
        }
        catch (NpgsqlException failed)
        {
            await connection.DisposeAsync();
            throw new BackupException($"The database “{database.Database}” at {database.Host} cannot be reached: {failed.Message}");
        }
    }

    private static Task<bool> HasTablesAsync(NpgsqlConnection connection) =>
        connection.ExecuteScalarAsync<bool>("select exists (select from pg_tables where schemaname = current_schema())");

    private static async Task<string> HeldAsync(NpgsqlConnection connection)
    {
        var parts = new List<string>();
        foreach (var (one, many, table) in Held)
        {
            if (!await connection.ExecuteScalarAsync<bool>("select to_regclass(@Table) is not null", new { Table = table }))
                continue;
            var count = await connection.ExecuteScalarAsync<long>($"select count(*) from {table}");
            parts.Add($"{count.ToString("N0", CultureInfo.InvariantCulture)} {(count == 1 ? one : many)}");
        }
        return parts.Count == 0 ? "tables of another program" : string.Join(", ", parts);
    }

    private static string SizeOf(string file)
    {
        var bytes = new FileInfo(file).Length;
        return bytes < 1_000_000 ? $"{bytes / 1000.0:0.0} kB" : $"{(bytes / 1e6).ToString("0.0", CultureInfo.InvariantCulture)} MB";
    }

    private static async Task SayAsync(PostgresProgram program, string sql)
    {
        await program.Input.WriteAsync(System.Text.Encoding.UTF8.GetBytes(sql));
        await program.Input.FlushAsync();
    }

    /// <summary>Everything in the schema goes but what an extension brought: an ordinary owner may not be able to drop the schema
    /// itself.</summary>
    private const string Emptying = """
        do $empty$
        declare
            thing record;
        begin
            for thing in select format('drop view if exists %I.%I cascade', schemaname, viewname) as act
                from pg_views where schemaname = current_schema()
                union all select format('drop table if exists %I.%I cascade', schemaname, tablename) from pg_tables
                    where schemaname = current_schema()
                union all select format('drop sequence if exists %I.%I cascade', schemaname, sequencename) from pg_sequences
                    where schemaname = current_schema()
            loop
                execute thing.act;
            end loop;
            for thing in select format('drop routine if exists %s cascade', p.oid::regprocedure) as act from pg_proc p
                where p.pronamespace = current_schema()::regnamespace and not exists (
                    select from pg_depend d where d.classid = 'pg_proc'::regclass and d.objid = p.oid and d.deptype = 'e')
            loop
                execute thing.act;
            end loop;
            for thing in select format('drop type if exists %s cascade', t.oid::regtype) as act from pg_type t
                where t.typnamespace = current_schema()::regnamespace and t.typtype in ('d', 'e') and not exists (
                    select from pg_depend d where d.classid = 'pg_type'::regclass and d.objid = t.oid and d.deptype = 'e')
            loop
                execute thing.act;
            end loop;
        end $empty$;
        """;
}
