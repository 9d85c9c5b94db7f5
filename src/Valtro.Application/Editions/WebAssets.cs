using System.Text;
using System.Text.Json;
using Microsoft.Extensions.FileProviders;

namespace Valtro.Application.Editions;

/// <summary>What Vite built for an entry.</summary>
/// <param name="Elements">For the page's head: the fonts of most texts, so that no line moves when they come, and the script.</param>
/// <param name="Style">Stands in the page.</param>
public sealed record WebEntry(string Elements, PageStyle Style);

/// <summary>Knows under which names Vite wrote the scripts and styles of an entry (its manifest).</summary>
public sealed class WebAssets
{
    private readonly Dictionary<string, WebEntry> _entries = [];

    public WebAssets(IFileProvider files)
    {
        var file = files.GetFileInfo(".vite/reader.json");
        if (!file.Exists)
            return;
        using var stream = file.CreateReadStream();
        var chunks = JsonSerializer.Deserialize<Dictionary<string, Chunk>>(stream, new JsonSerializerOptions(JsonSerializerDefaults.Web))!;
        foreach (var (name, chunk) in chunks.Where(entry => entry.Value.IsEntry))
            _entries[name] = EntryOf(chunk, chunks, files);
    }

    private sealed record Chunk(string File, bool IsEntry, string[]? Css, string[]? Imports, string[]? Assets);

    /// <exception cref="InvalidOperationException">The web part has not been built.</exception>
    public WebEntry Entry(string name) => _entries.TryGetValue(name, out var entry)
        ? entry
        : throw new InvalidOperationException($"The web part has no built entry {name}. Run ./valtro demo, which builds it.");

    private static WebEntry EntryOf(Chunk chunk, Dictionary<string, Chunk> chunks, IFileProvider files)
    {
        Chunk[] all = [chunk, .. (chunk.Imports ?? []).Select(import => chunks[import])];
        var css = new StringBuilder();
        foreach (var style in all.SelectMany(one => one.Css ?? []).Distinct())
        {
            using var reader = new StreamReader(files.GetFileInfo(style).CreateReadStream());
            css.Append(reader.ReadToEnd().Trim());
        }
        var elements = new StringBuilder();
        var fonts = all.SelectMany(one => one.Assets ?? []).Where(asset =>
            asset.Contains("-latin-", StringComparison.Ordinal)
                && !asset.Contains("-latin-ext-", StringComparison.Ordinal)
                && asset.EndsWith(".woff2", StringComparison.Ordinal));
        foreach (var font in fonts.Distinct())
            elements.Append("<link rel=\"preload\" as=\"font\" type=\"font/woff2\" crossorigin href=\"/").Append(font).Append("\">\n");
        foreach (var imported in all.Skip(1))
            elements.Append("<link rel=\"modulepreload\" href=\"/").Append(imported.File).Append("\">\n");
        elements.Append("<script type=\"module\" src=\"/").Append(chunk.File).Append("\"></script>");
        return new WebEntry(elements.ToString(), PageStyle.Of(css.ToString()));
    }
}
