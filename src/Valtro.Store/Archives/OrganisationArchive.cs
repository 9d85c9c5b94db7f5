using System.IO.Compression;
using System.Text;
using System.Text.Json;
using System.Text.Json.Nodes;
using Dapper;
using Npgsql;

namespace Valtro.Store.Archives;

/// <summary>What an archive holds: rows by the name of the table, and files.</summary>
public sealed record ArchiveContent(string Slug, string Name, IReadOnlyDictionary<string, int> Rows, int Files);

/// <summary>An organisation as one archive, which another Valtro takes with everything kept: ids, addresses and UIDs stay
/// (docs/archive.md).</summary>
/// <remarks>
/// A zip file: <c>archive.json</c> says what it is, <c>data/TABLE.jsonl</c> has a row as a JSON object on each line, <c>files/ID</c> is
/// what is in a file. What it holds is as of one moment.
/// </remarks>
public static class OrganisationArchive
{
    public const string Format = "valtro-archive";

    public const int FormatVersion = 1;

    /// <summary>Writes an organisation.</summary>
    /// <param name="connectionString">Of a role that reads all organisations, or this one.</param>
    /// <exception cref="NotFoundException">There is none such.</exception>
    public static async Task<ArchiveContent> WriteAsync(string connectionString, string slug, Stream output)
    {
        await using var connection = await OpenAsync(connectionString);
        await using var transaction = await connection.BeginTransactionAsync(System.Data.IsolationLevel.RepeatableRead);
        await connection.ExecuteAsync("select set_config('valtro.organisation', 'all', true)", transaction: transaction);
        var found = await connection.QueryAsync<(Guid Id, string Name)>(
            "select id, name from organisation where slug = @slug", new { slug }, transaction);
        if (found.FirstOrDefault() is not ({ } id, { } name) || id == Guid.Empty)
            throw new NotFoundException("organisation");
        var schema = await connection.ExecuteScalarAsync<string>("select max(scriptname) from schemaversions", transaction: transaction);
        var there = (await connection.QueryAsync<string>(
            "select table_name from information_schema.tables where table_schema = current_schema()", transaction: transaction)).ToHashSet();
        var accounts = await AccountsAsync(connection, transaction, id, there);
        var (rows, files) = (new Dictionary<string, int>(), 0);
        using var zip = new ZipArchive(output, ZipArchiveMode.Create, leaveOpen: true, Encoding.UTF8);
        foreach (var table in ArchiveTables.All.Where(table => there.Contains(table.Name)))
        {
            var columns = await ColumnsAsync(connection, transaction, table.Name);
            string[] kept = [.. columns.Where(column => !table.Behind.ContainsKey(column) && column != table.FileColumn)];
            var listed = string.Join(", ", kept.Select(column => $"t.\"{column}\""));
            await using (var lines = new StreamWriter(zip.CreateEntry($"data/{table.Name}.jsonl").Open(), new UTF8Encoding(false)))
            {
                lines.NewLine = "\n";
                var sql = $"""
                    select row_to_json(r)::text
                    from (select {listed} from {table.Name} t where {table.Which} order by {Order(kept)}) r
                    """;
                var count = 0;
                await foreach (var row in connection.QueryUnbufferedAsync<string>(sql, new { id, accounts }, transaction))
                {
                    await lines.WriteLineAsync(row);
                    count++;
                }
                rows[table.Name] = count;
            }
            if (table.FileColumn is not { } file)
                continue;
            await foreach (var (one, content) in connection.QueryUnbufferedAsync<(Guid, byte[])>(
                $"select t.id, t.{file} from {table.Name} t where {table.Which} order by t.id", new { id }, transaction))
            {
                await using var entry = zip.CreateEntry($"files/{one}").Open();
                await entry.WriteAsync(content);
                files++;
            }
        }
        await WriteAboutAsync(zip, id, slug, name, schema ?? "", rows, files);
        return new ArchiveContent(slug, name, rows, files);
    }

    private static string Order(IReadOnlyList<string> columns) =>
        string.Join(", ", Enumerable.Range(1, Math.Min(4, columns.Count)));

    /// <summary>All that anything of it names: members, those who left, those who wrote something.</summary>
    private static async Task<Guid[]> AccountsAsync(
        NpgsqlConnection connection, NpgsqlTransaction transaction, Guid id, HashSet<string> there)
    {
        var named = await connection.QueryAsync<(string Table, string Column)>("""
            select r.relname, a.attname
            from pg_constraint c
            join pg_class r on r.oid = c.conrelid
            join pg_attribute a on a.attrelid = c.conrelid and a.attnum = any(c.conkey)
            join pg_namespace n on n.oid = r.relnamespace and n.nspname = current_schema()
            where c.contype = 'f' and c.confrelid = 'account'::regclass and a.attname <> 'organisation_id'
            """, transaction: transaction);
        var kept = ArchiveTables.All.Where(table => there.Contains(table.Name)).ToDictionary(table => table.Name);
        var parts = named.Where(one => kept.ContainsKey(one.Table))
            .Select(one => $"select t.\"{one.Column}\" from {one.Table} t where {kept[one.Table].Which}");
        return [.. (await connection.QueryAsync<Guid?>(string.Join(" union ", parts), new { id }, transaction)).OfType<Guid>()];
    }

    /// <summary>Columns of a table that are written, in their order: what the database works out by itself is not.</summary>
    public static async Task<IReadOnlyList<string>> ColumnsAsync(
        NpgsqlConnection connection, NpgsqlTransaction transaction, string table) =>
        [.. await connection.QueryAsync<string>("""
            select column_name
            from information_schema.columns
            where table_schema = current_schema() and table_name = @table and is_generated = 'NEVER'
            order by ordinal_position
            """, new { table }, transaction)];

    private static async Task WriteAboutAsync(
        ZipArchive zip, Guid id, string slug, string name, string schema, Dictionary<string, int> rows, int files)
    {
        var about = new JsonObject
        {
            ["format"] = Format,
            ["formatVersion"] = FormatVersion,
            ["schema"] = schema,
            ["organisation"] = new JsonObject { ["id"] = id, ["slug"] = slug, ["name"] = name },
            ["files"] = files,
            ["tables"] = new JsonObject(ArchiveTables.All.Where(table => rows.ContainsKey(table.Name)).Select(table => KeyValuePair.Create(
                table.Name, (JsonNode?)new JsonObject
                {
                    ["rows"] = rows[table.Name],
                    ["says"] = ArchiveTables.Kept[table.Name]!.DeepClone(),
                    ["columnsLeftBehind"] = new JsonArray([.. table.Behind.Keys.Select(key => JsonValue.Create(key))]),
                }))),
            ["tablesLeftBehind"] = ArchiveTables.LeftBehind.DeepClone(),
        };
        await using var entry = zip.CreateEntry("archive.json").Open();
        await JsonSerializer.SerializeAsync(entry, about, new JsonSerializerOptions
        {
            WriteIndented = true,
            Encoder = System.Text.Encodings.Web.JavaScriptEncoder.UnsafeRelaxedJsonEscaping,
        });
    }

    /// <summary>A connection of its own: all that it says to the database ends with it.</summary>
    public static async Task<NpgsqlConnection> OpenAsync(string connectionString)
    {
        var connection = new NpgsqlConnection(new NpgsqlConnectionStringBuilder(connectionString) { Pooling = false }.ConnectionString);
        await connection.OpenAsync();
        return connection;
    }
}
