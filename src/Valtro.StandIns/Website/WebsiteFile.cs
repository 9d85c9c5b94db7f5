using System.Text.Json;

namespace Valtro.StandIns.Website;

/// <summary>What people pasted into the stand-in sites.</summary>
/// <param name="Wide">HTML of the families' page, wide column.</param>
/// <param name="Sidebar">HTML of its sidebar.</param>
/// <param name="Tab">The link of a tab of the learning platform.</param>
/// <param name="Post">HTML of a post of the blog, before scripts are stripped.</param>
/// <param name="Address">What the club's site was given to make a frame of by itself.</param>
public sealed record Blocks(string Wide, string Sidebar, string? Tab = null, string? Post = null, string? Address = null);

/// <summary>Keeps the blocks in a file of its own.</summary>
public sealed class WebsiteFile(string path, string publicUrl)
{
    private readonly Lock _gate = new();

    /// <summary>Where Valtro is.</summary>
    public string PublicUrl => publicUrl;

    public Blocks Read()
    {
        lock (_gate)
        {
            var kept = File.Exists(path) ? JsonSerializer.Deserialize<Blocks>(File.ReadAllText(path)) ?? Start : Start;
            return kept with { Tab = kept.Tab ?? Start.Tab, Post = kept.Post ?? Start.Post, Address = kept.Address ?? Start.Address };
        }
    }

    public void Write(Blocks blocks)
    {
        lock (_gate)
        {
            File.WriteAllText($"{path}.new", JsonSerializer.Serialize(blocks));
            File.Move($"{path}.new", path, overwrite: true);
        }
    }

    /// <summary>What stands there already: every form in which an edition can be delivered.</summary>
    private Blocks Start => new(
        $"""
        <div data-valtro="{publicUrl}/c/pinewick/juniors-for-families/embed" data-title="Juniors for families" data-view="month" style="min-height:860px"></div>
        <script async src="{publicUrl}/embed.js"></script>
        """,
        $"""
        <div data-valtro="{publicUrl}/c/pinewick/next-at-school/embed" data-title="Next at school" data-view="list" data-entries="6" style="min-height:546px"></div>
        <script async src="{publicUrl}/embed.js"></script>
        """,
        $"{publicUrl}/c/pinewick/juniors-for-families",
        $"""
        <p>Dear all, here are the great days of this year.</p>
        <div data-valtro="{publicUrl}/c/pinewick/great-days-with-pictures/embed" data-view="cards"></div><script async src="{publicUrl}/embed.js"></script>
        <iframe src="{publicUrl}/c/pinewick/great-days-with-pictures/embed" title="Great days" width="100%" height="620" style="border:0"></iframe>
        """,
        $"{publicUrl}/c/pinewick/whole-school");
}
