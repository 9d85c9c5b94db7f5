using System.Text.Encodings.Web;

namespace Valtro.Server.Public;

/// <summary>The addresses of one edition, absolute.</summary>
public sealed record EditionAddresses(string Page, string Embed, string Feed, string Webcal);

/// <summary>Writes public addresses, and the snippets that people paste.</summary>
public sealed class PublicAddresses(Settings settings)
{
    private const int FixedHeight = 640;

    public EditionAddresses Of(string organisation, string edition)
    {
        var page = new Uri(settings.PublicUrl, $"/c/{organisation}/{edition}").AbsoluteUri;
        var feed = $"{page}.ics";
        return new EditionAddresses(page, $"{page}/embed", feed, $"webcal{feed[feed.IndexOf(':', StringComparison.Ordinal)..]}");
    }

    public string SnippetThatFits(EditionAddresses address, string name)
    {
        var script = new Uri(settings.PublicUrl, "/embed.js").AbsoluteUri;
        return $"""
            <div data-valtro="{address.Embed}" data-title="{HtmlEncoder.Default.Encode(name)}"></div>
            <script async src="{script}"></script>
            """;
    }

    public string SnippetFixed(EditionAddresses address, string name) =>
        $"""<iframe src="{address.Embed}" title="{HtmlEncoder.Default.Encode(name)}" width="100%" height="{FixedHeight}" style="border:0"></iframe>""";
}
