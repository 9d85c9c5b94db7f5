using System.IO.Compression;
using System.Text;
using System.Text.Json;
using System.Text.Json.Nodes;
using Dapper;
using NodaTime;
using Npgsql;
using Valtro.Store;
using Valtro.Store.Archives;

namespace Valtro.Tools.Archives;

/// <summary>It cannot be done; the message says why, and what would be right. Nothing was changed.</summary>
public sealed class ArchiveException(string message) : Exception(message);

/// <summary>Takes an organisation out of an archive (docs/archive.md) into a database, beside those that are there.</summary>
public static class ArchiveReading
{
    /// <summary>Rows that are put into the database at once; of a table that names itself, all are.</summary>
    private const int AtOnce = 1_000;

    private const int FilesAtOnce = 5;

    private const int LargestRow = 64 * 1024 * 1024;

    /// <summary>Takes an organisation, in one transaction: all of it, or nothing.</summary>
    /// <remarks>Whoever is here already with the same address stays who they are here, with the password that they have.</remarks>
    /// <param name="connectionString">Of a role that may read and write all organisations.</param>
    /// <exception cref="ArchiveException">It is no archive, or of a newer Valtro, or the organisation is here already.</exception>
    /// <param name="now">From when on it goes out; null for a database in which nothing is done.</param>
    public static async Task<ArchiveContent> ReadAsync(string connectionString, Stream input, Instant? now)
    {
        using var zip = Opened(input);
        var (schema, slug, name, id) = About(zip);
        await using var connection = await OrganisationArchive.OpenAsync(connectionString);
        var here = await connection.ExecuteScalarAsync<string>("select max(scriptname) from schemaversions");
        if (string.CompareOrdinal(schema, here) > 0)
            throw new ArchiveException("The archive was made by a newer Valtro. Take a Valtro at least as new.");
        if (schema != here)
            return await ThroughAsync(connectionString, input, schema, now);
        await using var transaction = await connection.BeginTransactionAsync();
        await connection.ExecuteAsync("select set_config('valtro.organisation', 'all', true)", transaction: transaction);
        if (await connection.ExecuteScalarAsync<bool>(
            "select exists (select from organisation where id = @id or slug = @slug)", new { id, slug }, transaction))
            throw new ArchiveException($"An organisation with the address “{slug}”, or this one itself, is here already.");
        var others = await KnownPeopleAsync(connection, transaction, zip);
        var (rows, files) = (new Dictionary<string, int>(), 0);
        foreach (var table in await InOrderAsync(connection, transaction))
        {
            if (zip.GetEntry($"data/{table.Name}.jsonl") is not { } entry)
                continue;
            var columns = await OrganisationArchive.ColumnsAsync(connection, transaction, table.Name);
            var isOfItself = await connection.ExecuteScalarAsync<bool>(
                "select exists (select from pg_constraint where contype = 'f' and conrelid = @table::regclass and confrelid = conrelid)",
                new { table = table.Name }, transaction);
            var batch = new List<string>();
            var count = 0;
            foreach (var line in Lines(entry))
            {
                batch.Add(Known(line, others));
                count++;
                if (batch.Count == (table.FileColumn is null ? AtOnce : FilesAtOnce) && !isOfItself)
                    await PutAsync(connection, transaction, table, columns, batch, zip);
            }
            await PutAsync(connection, transaction, table, columns, batch, zip);
            rows[table.Name] = count;
            files += table.FileColumn is null ? 0 : count;
        }
        if (now is { } due)
            await WantAsync(connection, transaction, id, due);
        await transaction.CommitAsync();
        return new ArchiveContent(slug, name, rows, files);
    }

    private static ZipArchive Opened(Stream input)
    {
        try
        {
            return new ZipArchive(input, ZipArchiveMode.Read, leaveOpen: true, Encoding.UTF8);
        }
        catch (InvalidDataException)
        {
            throw new ArchiveException("This is no archive: it is no zip file, or not the whole of one.");
        }
    }

    private static (string Schema, string Slug, string Name, Guid Id) About(ZipArchive zip)
    {
        try
        {
            using var entry = zip.GetEntry("archive.json")?.Open();
            var about = entry is null ? null : JsonNode.Parse(entry);
            if (about is null || (string?)about["format"] != OrganisationArchive.Format)
                throw new ArchiveException("This is no archive of an organisation: archive.json is missing, or says something else.");
            if ((int?)about["formatVersion"] != OrganisationArchive.FormatVersion)
                throw new ArchiveException("The archive is written in a form that this Valtro does not know. Take a newer one.");
            return ((string)about["schema"]!, (string)about["organisation"]!["slug"]!, (string)about["organisation"]!["name"]!,
                (Guid)about["organisation"]!["id"]!);
        }
        catch (Exception broken) when (broken is JsonException or InvalidOperationException or FormatException or NullReferenceException
            or InvalidDataException)
        {
            throw new ArchiveException("archive.json cannot be read: the archive is broken.");
        }
    }

    private static IEnumerable<string> Lines(ZipArchiveEntry entry)
    {
        using var lines = new StreamReader(entry.Open(), Encoding.UTF8);
        while (lines.ReadLine() is { } line)
        {
            if (line.Length > LargestRow)
                throw new ArchiveException($"A row of {entry.FullName} is too large: the archive is broken.");
            if (line.Length > 0)
                yield return line;
        }
    }

    /// <summary>Whose address is here already: their id there, and here.</summary>
    private static async Task<IReadOnlyDictionary<string, string>> KnownPeopleAsync(
        NpgsqlConnection connection, NpgsqlTransaction transaction, ZipArchive zip)
    {
        var people = zip.GetEntry("data/account.jsonl") is { } entry
            ? Lines(entry).Select(line => JsonNode.Parse(line)!)
                .Select(one => ((string)one["id"]!, (string)one["normalized_email"]!)).ToArray()
            : [];
        var here = (await connection.QueryAsync<(Guid Id, string Email)>(
            "select id, normalized_email from account where normalized_email = any(@emails)",
            new { emails = people.Select(one => one.Item2).ToArray() }, transaction))
            .ToDictionary(one => one.Email, one => one.Id.ToString());
        return people.Where(one => here.ContainsKey(one.Item2)).ToDictionary(one => one.Item1, one => here[one.Item2]);
    }

    /// <summary>Ids are found nowhere else than where they are meant: each is drawn once in the world.</summary>
    private static string Known(string line, IReadOnlyDictionary<string, string> others)
    {
        foreach (var (there, here) in others)
        {
            if (there != here)
                line = line.Replace(there, here, StringComparison.OrdinalIgnoreCase);
        }
        return line;
    }

    private static async Task PutAsync(
        NpgsqlConnection connection, NpgsqlTransaction transaction, ArchiveTable table, IReadOnlyList<string> columns, List<string> batch,
        ZipArchive zip)
    {
        if (batch.Count == 0)
            return;
        string[] said;
        try
        {
            using var first = JsonDocument.Parse(batch[0]);
            said = [.. first.RootElement.EnumerateObject().Select(one => one.Name)];
        }
        catch (JsonException)
        {
            throw new ArchiveException($"data/{table.Name}.jsonl cannot be read: the archive is broken.");
        }
        var known = columns.ToHashSet(StringComparer.Ordinal);
        if (said.FirstOrDefault(column => !known.Contains(column)) is { } unknown)
            throw new ArchiveException($"data/{table.Name}.jsonl has a column “{unknown}” that this Valtro does not know.");
        var fill = table.Behind.Where(one => known.Contains(one.Key) && !said.Contains(one.Key)).ToArray();
        var into = said.Select(column => $"\"{column}\"").Concat(fill.Select(one => $"\"{one.Key}\""));
        var from = said.Select(column => $"r.\"{column}\"").Concat(fill.Select(one => one.Value));
        var parameters = new DynamicParameters(new { rows = $"[{string.Join(',', batch)}]" });
        if (table.FileColumn is { } file)
        {
            into = into.Append($"\"{file}\"");
            from = from.Append("(select c.content from unnest(@ids, @contents) c (id, content) where c.id = r.id)");
            var ids = batch.Select(line => (Guid)JsonNode.Parse(line)!["id"]!).ToArray();
            parameters.Add("ids", ids);
            parameters.Add("contents", ids.Select(one => FileOf(zip, one)).ToArray());
        }
        // Whoever is here already stays who they are here.
        var again = table.Name == "account" ? "on conflict do nothing" : "";
        try
        {
            await connection.ExecuteAsync($"""
                insert into {table.Name} ({string.Join(", ", into)})
                select {string.Join(", ", from)}
                from json_populate_recordset(null::{table.Name}, @rows::json) r
                {again}
                """, parameters, transaction, commandTimeout: 600);
        }
        catch (PostgresException refused)
        {
            throw new ArchiveException($"data/{table.Name}.jsonl does not fit: {refused.MessageText}.");
        }
        batch.Clear();
    }

    private static byte[] FileOf(ZipArchive zip, Guid id)
    {
        using var entry = zip.GetEntry($"files/{id}")?.Open() ?? throw new ArchiveException($"files/{id} is missing: the archive is broken.");
        using var content = new MemoryStream();
        entry.CopyTo(content);
        return content.ToArray();
    }

    /// <summary>What is named comes before what names it.</summary>
    private static async Task<IReadOnlyList<ArchiveTable>> InOrderAsync(NpgsqlConnection connection, NpgsqlTransaction transaction)
    {
        var named = (await connection.QueryAsync<(string Table, string Names)>("""
            select distinct r.relname, t.relname
            from pg_constraint c
            join pg_class r on r.oid = c.conrelid
            join pg_class t on t.oid = c.confrelid
            join pg_namespace n on n.oid = r.relnamespace and n.nspname = current_schema()
            where c.contype = 'f' and c.conrelid <> c.confrelid
            """, transaction: transaction)).ToLookup(row => row.Table, row => row.Names);
        var (left, ordered) = (ArchiveTables.All.ToList(), new List<ArchiveTable>());
        while (left.Count > 0)
        {
            var waiting = left.Select(table => table.Name).ToHashSet();
            var next = left.First(table => !named[table.Name].Any(waiting.Contains));
            left.Remove(next);
            ordered.Add(next);
        }
        return ordered;
    }

    /// <summary>All of it goes out, is asked and is written, as after a change.</summary>
    private static Task WantAsync(NpgsqlConnection connection, NpgsqlTransaction transaction, Guid id, Instant now) =>
        connection.ExecuteAsync("""
        insert into work (kind, key, organisation_id, due_at)
        select w.kind, w.key, @id, @now
        from (select 'render' as kind, e.id::text as key from edition e where e.organisation_id = @id
            union all
            select 'prove', e.id::text from edition e where e.organisation_id = @id and e.owner_id is null
            union all
            select 'follow', s.id::text from source s where s.organisation_id = @id
            union all
            select 'push', p.id::text from push_target p where p.organisation_id = @id) w
        order by w.kind, w.key
        on conflict do nothing;
        notify valtro, 'work'
        """, new { id, now = now.ToDateTimeUtc() }, transaction);

    /// <summary>One that an older Valtro made goes through a database of its own as that had it, which is brought up to date.</summary>
    private static async Task<ArchiveContent> ThroughAsync(string connectionString, Stream input, string schema, Instant? now)
    {
        if (!Database.Migrations.Contains(schema))
            throw new ArchiveException("The archive was made by a Valtro that this one does not know.");
        var after = Database.Migrations.FirstOrDefault(one => string.CompareOrdinal(one, schema) > 0);
        var name = $"archive_{Guid.NewGuid():N}";
        var between = new NpgsqlConnectionStringBuilder(connectionString) { Database = name, Pooling = false }.ConnectionString;
        await using var connection = await OrganisationArchive.OpenAsync(connectionString);
        try
        {
            await connection.ExecuteAsync($"create database {name}");
        }
        catch (PostgresException refused) when (refused.SqlState == PostgresErrorCodes.InsufficientPrivilege)
        {
            throw new ArchiveException(
                "The archive was made by an older Valtro and goes through a database of its own, which this role may not make. Use one that may.");
        }
        try
        {
            var prefix = $"{typeof(Database).Namespace}.Migrations.";
            await Database.MigrateAsync(between, after![prefix.Length..]);
            input.Position = 0;
            var taken = await ReadAsync(between, input, now: null);
            await Database.MigrateAsync(between);
            using var raised = new FileStream(Path.GetTempFileName(), FileMode.Open, FileAccess.ReadWrite, FileShare.None, 81_920,
                FileOptions.DeleteOnClose | FileOptions.Asynchronous);
            await OrganisationArchive.WriteAsync(between, taken.Slug, raised);
            raised.Position = 0;
            return await ReadAsync(connectionString, raised, now);
        }
        finally
        {
            await connection.ExecuteAsync($"drop database if exists {name} with (force)");
        }
    }
}
