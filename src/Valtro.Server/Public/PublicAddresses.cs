using System.Text.Encodings.Web;
using Valtro.Store;

namespace Valtro.Server.Public;

/// <summary>The addresses of one edition, absolute.</summary>
public sealed record EditionAddresses(string Page, string Embed, string Feed, string Webcal);

/// <summary>Writes public addresses, and the snippets that people paste.</summary>
public sealed class PublicAddresses(Settings settings)
{
    private const int FixedHeight = 640;

    public EditionAddresses Of(EditionAddress edition) => edition.Secret is { } secret ? OfSecret(secret) : Of(edition.OrganisationSlug, edition.Slug);

    /// <summary>Of the edition for those who have the link.</summary>
    public EditionAddresses OfSecret(string secret) => At($"/s/{secret}");

    /// <summary>A screen of the desk.</summary>
    public string Desk(string path) => new Uri(settings.PublicUrl, path).AbsoluteUri;

    public EditionAddresses Of(string organisation, string edition) => At($"/c/{organisation}/{edition}");

    private EditionAddresses At(string path)
    {
        var page = new Uri(settings.PublicUrl, path).AbsoluteUri;
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
