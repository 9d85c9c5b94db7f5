using System.Text.Json;

namespace Valtro.StandIns.Website;

/// <summary>The HTML that somebody pasted into the two blocks of the page.</summary>
public sealed record Blocks(string Wide, string Sidebar);

/// <summary>Keeps the blocks in a file of its own.</summary>
public sealed class WebsiteFile(string path, string publicUrl)
{
    private readonly Lock _gate = new();

    public Blocks Read()
    {
        lock (_gate)
            return File.Exists(path) ? JsonSerializer.Deserialize<Blocks>(File.ReadAllText(path)) ?? Start : Start;
    }

    public void Write(Blocks blocks)
    {
        lock (_gate)
        {
            File.WriteAllText($"{path}.new", JsonSerializer.Serialize(blocks));
            File.Move($"{path}.new", path, overwrite: true);
        }
    }

    /// <summary>One calendar stands there already: fitted in the wide column, in a plain frame in the sidebar.</summary>
    private Blocks Start => new(
        $"""
        <div data-valtro="{publicUrl}/c/pinewick/port-watch/embed" data-title="Port Watch"></div>
        <script async src="{publicUrl}/embed.js"></script>
        """,
        $"""<iframe src="{publicUrl}/c/pinewick/whole-school/embed" title="Whole school" width="100%" height="640" style="border:0"></iframe>""");
}
