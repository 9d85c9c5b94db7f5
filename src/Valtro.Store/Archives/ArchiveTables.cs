using System.Text.Json;
using System.Text.Json.Nodes;

namespace Valtro.Store.Archives;

/// <summary>A table that an archive of an organisation holds.</summary>
/// <param name="Name">Of its file, too.</param>
/// <param name="Which">Its rows, as a condition on the table as <c>t</c>: of the organisation <c>@id</c>, of <c>@accounts</c>.</param>
public sealed record ArchiveTable(string Name, string Which)
{
    /// <summary>Columns that stay behind, and what stands in their place elsewhere, in SQL.</summary>
    public IReadOnlyDictionary<string, string> Behind { get; init; } = new Dictionary<string, string>();

    /// <summary>A column that is a file of its own, named by the row's id.</summary>
    public string? FileColumn { get; init; }
}

/// <summary>What an archive of an organisation holds, and what stays behind: every table of the database once, as tables.json says with
/// what stands in it, or with the reason.</summary>
public static class ArchiveTables
{
    private const string OfOrganisation = "t.organisation_id = @id";

    /// <summary>For people who look into an archive.</summary>
    public static JsonObject Kept { get; }

    /// <summary>With the reason.</summary>
    public static JsonObject LeftBehind { get; }

    public static IReadOnlyList<ArchiveTable> All { get; }

    static ArchiveTables()
    {
        using var said = typeof(ArchiveTables).Assembly.GetManifestResourceStream("Valtro.Store.Archives.tables.json")!;
        var read = JsonSerializer.Deserialize<JsonObject>(said)!;
        (Kept, LeftBehind) = (read["kept"]!.AsObject(), read["leftBehind"]!.AsObject());
        All = [.. Kept.Select(one => Of(one.Key))];
    }

    private static ArchiveTable Of(string name) => name switch
    {
        "organisation" => new(name, "t.id = @id"),
        "account" => new(name, "t.id = any(@accounts)")
        {
            Behind = new Dictionary<string, string>
            {
                ["password_hash"] = "null",
                ["security_stamp"] = "replace(gen_random_uuid()::text || gen_random_uuid()::text, '-', '')",
                ["last_sign_in_at"] = "null",
                ["reset_mailed_at"] = "null",
            },
        },
        "year_plan_span" => new(name, "t.year_plan_id in (select id from year_plan where organisation_id = @id)"),
        "file" => new(name, OfOrganisation) { FileColumn = "content" },
        // A sealed access opens with the key of the operator that it was sealed with, and no other.
        "source" or "push_target" =>
            new(name, OfOrganisation) { Behind = new Dictionary<string, string> { ["access"] = @"'\x'::bytea" } },
        _ => new(name, OfOrganisation),
    };
}
