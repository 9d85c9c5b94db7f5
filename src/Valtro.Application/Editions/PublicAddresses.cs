using System.Text.Encodings.Web;
using Valtro.Core.Editions;
using Valtro.Store;

namespace Valtro.Application.Editions;

/// <summary>The addresses of one edition, absolute.</summary>
public sealed record EditionAddresses(string Page, string Embed, string Feed, string Webcal, string Atom);

/// <summary>Writes public addresses, and the snippets that people paste.</summary>
public sealed class PublicAddresses(Settings settings)
{
    public const int FixedHeight = 640;

    public EditionAddresses Of(EditionAddress edition) =>
        edition.Secret is { } secret ? OfSecret(secret) : Of(edition.OrganisationSlug, edition.Slug);

    /// <summary>What a feed says of where its page, itself and its files are.</summary>
    /// <remarks>One rendering serves all members, each of whom has an address of their own: it names none, and files are for those who sign
    /// in.</remarks>
    public (Uri Page, Uri? Feed, Uri Files) InFeed(EditionAddress edition)
    {
        if (edition.Audience == Core.Disclosure.Audience.Members)
            return (
                new Uri(Desk(OrganisationAddress.At(edition.OrganisationSlug,
                    edition.OwnerId is null ? $"/editions/{edition.Id}/read" : "/plan?view=list&person=me"))), null,
                new Uri(Desk(OrganisationAddress.At(edition.OrganisationSlug, "/api"))));
        var address = Of(edition);
        return (new Uri(address.Page), new Uri(address.Feed), new Uri(address.Page));
    }

    /// <summary>Of the edition for those who have the link.</summary>
    public EditionAddresses OfSecret(string secret) => At($"/s/{secret}");

    /// <param name="showsNothing">Whoever has it gets nothing by it.</param>
    public LinkResponse Show(SecretLink? link, bool showsNothing = false)
    {
        var address = link is null ? null : OfSecret(link.Secret);
        return new LinkResponse(link?.MadeAt, address?.Page, address?.Embed, address?.Feed, showsNothing);
    }

    /// <summary>A screen of the desk.</summary>
    public string Desk(string path) => new Uri(settings.PublicUrl, path).AbsoluteUri;

    public EditionAddresses Of(string organisation, string edition) => At($"/c/{organisation}/{edition}");

    /// <summary>Where an organisation lists what is open to everyone.</summary>
    public string FrontPage(string organisation) => new Uri(settings.PublicUrl, $"/c/{organisation}").AbsoluteUri;

    /// <summary>Where sites ask how to embed a page (oEmbed 1.0, section 4).</summary>
    public string OEmbed(string page) => new Uri(settings.PublicUrl, $"/oembed?url={Uri.EscapeDataString(page)}").AbsoluteUri;

    private EditionAddresses At(string path)
    {
        var page = new Uri(settings.PublicUrl, path).AbsoluteUri;
        var feed = $"{page}.ics";
        return new EditionAddresses(
            page, $"{page}/embed", feed, $"webcal{feed[feed.IndexOf(':', StringComparison.Ordinal)..]}", $"{page}.atom");
    }

    /// <summary>A place for the frame, and the script that makes it as high as what is in it. The place has a likely height from the start,
    /// so that the page around it hardly moves.</summary>
    /// <param name="limit">At most so many entries; null for no limit.</param>
    public string SnippetThatFits(EditionAddresses address, string name, EditionView view, int? limit)
    {
        var script = new Uri(settings.PublicUrl, "/embed.js").AbsoluteUri;
        var entries = limit is { } most and <= 50 ? $" data-entries=\"{most}\"" : "";
        return $"""
            <div data-valtro="{address.Embed}" data-title="{HtmlEncoder.Default.Encode(name)}" data-view="{view.ToString().ToLowerInvariant()}"{entries} style="min-height:{LikelyHeight(view, limit)}px"></div>
            <script async src="{script}"></script>
            """;
    }

    /// <summary>What a view takes where it is wide (as embed.ts reckons it).</summary>
    private static int LikelyHeight(EditionView view, int? limit) => view switch
    {
        EditionView.Month => 860,
        EditionView.SmallMonth => 620,
        EditionView.Week => 520,
        EditionView.Day => 420,
        _ => 210 + Math.Min(limit ?? 8, 50) * 56,
    };

    /// <param name="width">Pixels, or a percentage.</param>
    public static string SnippetFixed(EditionAddresses address, string name, string width = "100%", int height = FixedHeight) =>
        $"""<iframe src="{address.Embed}" title="{HtmlEncoder.Default.Encode(name)}" width="{width}" height="{height}" style="border:0" allow="clipboard-write"></iframe>""";

    public static string SnippetLink(EditionAddresses address, string name) =>
        $"""<a href="{address.Page}">{HtmlEncoder.Default.Encode(name)}</a>""";
}
