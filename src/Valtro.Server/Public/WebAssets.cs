using System.Text;
using System.Text.Json;

namespace Valtro.Server.Public;

/// <summary>Knows under which names Vite wrote the scripts and styles of an entry (its manifest).</summary>
public sealed class WebAssets
{
    private readonly Dictionary<string, string> _heads = [];

    public WebAssets(IWebHostEnvironment environment)
    {
        var file = environment.WebRootFileProvider.GetFileInfo(".vite/manifest.json");
        if (!file.Exists)
            return;
        using var stream = file.CreateReadStream();
        var chunks = JsonSerializer.Deserialize<Dictionary<string, Chunk>>(stream, new JsonSerializerOptions(JsonSerializerDefaults.Web))!;
        foreach (var (name, chunk) in chunks.Where(entry => entry.Value.IsEntry))
            _heads[name] = HeadOf(chunk, chunks);
    }

    private sealed record Chunk(string File, bool IsEntry, string[]? Css, string[]? Imports);

    /// <summary>The elements for the page's head.</summary>
    /// <exception cref="InvalidOperationException">The web part has not been built.</exception>
    public string Head(string entry) => _heads.TryGetValue(entry, out var head)
        ? head
        : throw new InvalidOperationException($"The web part has no built entry {entry}. Run ./valtro demo, which builds it.");

    private static string HeadOf(Chunk chunk, Dictionary<string, Chunk> chunks)
    {
        var head = new StringBuilder();
        var all = new[] { chunk }.Concat((chunk.Imports ?? []).Select(import => chunks[import])).ToArray();
        foreach (var style in all.SelectMany(one => one.Css ?? []).Distinct())
            head.Append("<link rel=\"stylesheet\" href=\"/").Append(style).Append("\">\n");
        foreach (var imported in all.Skip(1))
            head.Append("<link rel=\"modulepreload\" href=\"/").Append(imported.File).Append("\">\n");
        return head.Append("<script type=\"module\" src=\"/").Append(chunk.File).Append("\"></script>").ToString();
    }
}
