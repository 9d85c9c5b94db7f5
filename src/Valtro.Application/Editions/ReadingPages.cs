using System.Globalization;
using System.Text;
using System.Text.Encodings.Web;
using System.Text.Json;
using Microsoft.Extensions.Caching.Memory;
using Valtro.Core.Disclosure;
using Valtro.Core.Editions;
using Valtro.Core.Events;
using Valtro.Store;

namespace Valtro.Application.Editions;

/// <summary>Where a reading page is, for its script: the parts of an edition name no address, so that one rendering serves all of
/// them.</summary>
/// <param name="Base">The path of the page on its own origin; everything else is below it.</param>
/// <param name="Page">Absolute, to be shared; empty for a preview.</param>
public sealed record PageAddresses(string Base, string Page, string Feed, string Webcal, string Atom);

/// <summary>Writes the reading page and the embed: the first view, painted by the reader itself, and the data with which its script goes on
/// from there.</summary>
public sealed class ReadingPages(WebAssets assets, PublicAddresses addresses, Painter painter) : IDisposable
{
    private static readonly HtmlEncoder Html = HtmlEncoder.Default;

    private readonly MemoryCache _memory = new(new MemoryCacheOptions { SizeLimit = 32 * 1024 * 1024 });

    /// <summary>A painting stands in the pages that were written of it; besides it is kept until all of them are.</summary>
    private static readonly TimeSpan PaintingKept = TimeSpan.FromMinutes(1);

    private readonly Lock[] _writing = Locks();
    private readonly Lock[] _painting = Locks();

    private WebEntry Entry => assets.Entry("reader/main.ts");

    /// <summary>The style sheets that stand in the page of an edition.</summary>
    public PageStyle[] StylesOf(EditionBody edition) => [Entry.Style, PageStyle.Of(edition.Look)];

    /// <summary>The page, if it was written for its parts as they are.</summary>
    public Rendered? Find(EditionAddress edition, string version, Rendered[] parts, PageAsked asked) =>
        _memory.Get<Rendered>(KeyOf(edition, version, parts, asked));

    /// <param name="version">It tells an open page whether news concern it.</param>
    /// <param name="parts">What the page opens with: a month and the one after it, or all of an edition with a limit.</param>
    /// <returns>The page; written once for its parts as they are.</returns>
    public Rendered Write(EditionAddress edition, string version, Rendered feed, Rendered[] parts, PageAsked asked)
    {
        var key = KeyOf(edition, version, parts, asked);
        if (_memory.Get<Rendered>(key) is { } written)
            return written;
        // Many who come at once get one writing.
        lock (Of(_writing, key))
            return _memory.Get<Rendered>(key) ?? WriteNow(key, edition, version, feed, parts, asked);
    }

    private static Lock[] Locks() => [.. Enumerable.Range(0, 32).Select(_ => new Lock())];

    private static Lock Of(Lock[] locks, object key) => locks[(uint)key.GetHashCode() % locks.Length];

    private static object KeyOf(EditionAddress edition, string version, Rendered[] parts, PageAsked asked) =>
        (edition.Id, edition.Secret ?? edition.PreviewPath ?? "", version,
            string.Join(' ', parts.Select(part => part.Artefact.Etag)), asked);

    private Rendered WriteNow(object key, EditionAddress edition, string version, Rendered feed, Rendered[] parts, PageAsked asked)
    {
        var content = Encoding.UTF8.GetBytes(Page(edition, version, parts, asked));
        var page = new Rendered(new Artefact(
            edition.Id,
            edition.OrganisationId,
            edition.Audience,
            "page",
            feed.Artefact.ContentVersion,
            Rendered.EtagOf(content),
            content,
            parts.Append(feed).Max(part => part.Artefact.ChangedAt),
            null));
        return _memory.Set(key, page, new MemoryCacheEntryOptions { Size = page.Size });
    }

    private static string Word(Enum value) => value.ToString().ToLowerInvariant();

    /// <summary>The sizes and corners of an edition, as attributes of the root element.</summary>
    public static string Shape(LookBody look) =>
        $"data-size=\"{Word(look.Size)}\" data-density=\"{Word(look.Density)}\" data-corner=\"{Word(look.Corner)}\"";

    private PageAddresses AddressesOf(EditionAddress edition)
    {
        if (edition.PreviewPath is { } path)
            return new PageAddresses(path, "", "", "", "");
        var all = addresses.Of(edition);
        return new PageAddresses(new Uri(all.Page).AbsolutePath, all.Page, all.Feed, all.Webcal, all.Atom);
    }

    private string Page(EditionAddress address, string version, Rendered[] parts, PageAsked asked)
    {
        var edition = parts[0].Edition;
        var words = ReadingWords.For(edition.Look.Language.Length > 0 ? edition.Look.Language : asked.Language, edition.Locale);
        var at = AddressesOf(address);
        var isOpen = at.Page.Length > 0 && address.Audience == Audience.Everyone;
        var page = new StringBuilder(8_192);
        page.Append(CultureInfo.InvariantCulture, $"""
            <!doctype html>
            <html lang="{words.Language}"{(words.IsRightToLeft
                ? " dir=\"rtl\"" : "")} class="{(asked.IsEmbedded ? "is-embedded" : "is-page")}" {Shape(edition.Look)}{(asked.Scheme.Length > 0 ? $" data-scheme=\"{asked.Scheme}\"" : "")}>
            <head>
            <meta charset="utf-8">
            <meta name="viewport" content="width=device-width, initial-scale=1">
            <title>{Html.Encode(edition.Name)} · {Html.Encode(edition.Organisation)}</title>
            <link rel="icon" href="/mark.svg" type="image/svg+xml">

            """);
        if (!isOpen)
            page.Append("<meta name=\"robots\" content=\"noindex, nofollow\">\n");
        if (at.Page.Length > 0)
        {
            page.Append(CultureInfo.InvariantCulture, $"""
                <link rel="alternate" type="text/calendar" title="{Html.Encode(edition.Name)}" href="{Html.Encode(at.Feed)}">
                <link rel="alternate" type="application/atom+xml" title="{Html.Encode(words["changes"])}" href="{Html.Encode(at.Atom)}">
                <meta property="og:title" content="{Html.Encode(edition.Name)}">
                <meta property="og:site_name" content="{Html.Encode(edition.Organisation)}">
                <meta property="og:type" content="website">

                """);
        }
        if (isOpen)
        {
            page.Append(CultureInfo.InvariantCulture, $"""
                <link rel="canonical" href="{Html.Encode(at.Page)}">
                <link rel="alternate" type="application/json+oembed" title="{Html.Encode(edition.Name)}" href="{Html.Encode(addresses.OEmbed(at.Page))}">
                <meta property="og:url" content="{Html.Encode(at.Page)}">

                """);
        }
        if (isOpen && !asked.IsEmbedded)
            page.Append(HomeScreen.Elements(Html.Encode(at.Base), address.OrganisationSlug));
        var data = DataOf(version, asked.View is EditionView.List or EditionView.Cards ? parts : parts[..1], at, asked);
        var painted = Painted(data);
        page.Append(Entry.Style.Element).Append(PageStyle.Of(edition.Look).Element).Append(Entry.Elements)
            .Append("\n</head>\n<body>\n<div id=\"reader\"").Append(painted is null ? ">" : " data-painted>");
        if (painted is not null)
            page.Append(painted);
        else
            AppendList(page, edition, words, at, parts.SelectMany(part => part.ReadPart().Entries).DistinctBy(entry => entry.Id));
        page.Append("</div>\n<script type=\"application/json\" id=\"edition-data\">").Append(data).Append("</script>\n</body>\n</html>\n");
        return page.ToString();
    }

    /// <summary>Painted once for what is shown: the page and the embed of an edition show the same.</summary>
    private string? Painted(string data)
    {
        var key = Rendered.EtagOf(Encoding.UTF8.GetBytes(data));
        lock (Of(_painting, key))
            return _memory.TryGetValue<string>(key, out var painted) ? painted
                : painter.Paint(data) is { } now
                ? _memory.Set(key, now, new MemoryCacheEntryOptions
                {
                    Size = now.Length * sizeof(char),
                    AbsoluteExpirationRelativeToNow = PaintingKept,
                })
                : null;
    }

    /// <summary>What the first view needs and no more: a grid shows one month, and asks for the next when the reader turns to it. The JSON
    /// encoder writes &lt; as \u003C, so nothing in it can end the element.</summary>
    private static string DataOf(string version, Rendered[] parts, PageAddresses at, PageAsked asked)
    {
        var painted = new PaintedBody(asked.View, asked.Day, asked.Today, asked.Language.Length > 0 ? [asked.Language] : []);
        return new StringBuilder("{\"version\":\"").Append(version).Append("\",\"addresses\":")
            .Append(JsonSerializer.Serialize(at, Json.Options))
            .Append(",\"painted\":").Append(JsonSerializer.Serialize(painted, Json.Options)).Append(",\"months\":[")
            .AppendJoin(',', parts.Select(part => Encoding.UTF8.GetString(part.Artefact.Content)))
            .Append("]}").ToString();
    }

    /// <summary>What is there where nothing can be painted: all entries, one after the other.</summary>
    private static void AppendList(
        StringBuilder page, EditionBody edition, ReadingWords words, PageAddresses at, IEnumerable<EntryBody> entries)
    {
        var culture = words.CultureFor(edition.Locale);
        page.Append(CultureInfo.InvariantCulture, $"<main class=\"plain-list\"><h1 dir=\"auto\">{Html.Encode(edition.Name)}</h1>");
        if (edition.Description.Length > 0)
            page.Append(CultureInfo.InvariantCulture, $"<p>{Html.Encode(edition.Description)}</p>");
        page.Append("<ul>");
        foreach (var entry in entries)
        {
            var struck = entry.State == EventState.Cancelled;
            var title = Html.Encode(entry.Title);
            page.Append("<li>").Append(Html.Encode(ReadingDates.When(entry, words, culture, edition.Look.Clock))).Append(": ");
            if (edition.ShowsPlates && edition.Sources.Count > 1 && entry.Plates.Count > 0)
                page.Append(Html.Encode(string.Join(' ', entry.Plates))).Append(' ');
            page.Append(struck
                ? $"<s>{title}</s> ({Html.Encode(words["cancelled"])})"
                : entry.HasPage && at.Page.Length > 0
                ? $"<a href=\"{Html.Encode($"{at.Base}/entries/{entry.Id}")}\"><b>{title}</b></a>"
                : $"<b>{title}</b>");
            if (entry.Place.Length > 0)
                page.Append(", ").Append(Html.Encode(entry.Place));
            // Already sanitised when it was saved.
            if (entry.Description.Length > 0)
                page.Append("<div>").Append(entry.Description).Append("</div>");
            foreach (var link in entry.Links)
                page.Append(CultureInfo.InvariantCulture,
                    $"<div><a href=\"{Html.Encode(link.Url)}\" target=\"_blank\" rel=\"noopener noreferrer\">{Html.Encode(words.NameOf(link))}</a></div>");
            foreach (var file in entry.Files)
                page.Append(CultureInfo.InvariantCulture,
                    $"<div><a href=\"{Html.Encode($"{at.Base}/{file.Address}")}\" target=\"_blank\" rel=\"noopener\">{Html.Encode(file.Name)}</a></div>");
            if (entry.Contact.Length > 0)
                page.Append("<div>").Append(Html.Encode(entry.Contact)).Append("</div>");
            page.Append("</li>");
        }
        page.Append("</ul><p>").Append(Html.Encode(words.Fill("zone", "place", ReadingDates.PlaceOf(edition.Zone))));
        if (at.Feed.Length > 0)
            page.Append(CultureInfo.InvariantCulture,
                $" · <a href=\"{Html.Encode(at.Feed)}\" target=\"_blank\" rel=\"noopener\">{Html.Encode(words["subscribe"])}</a>");
        page.Append("</p></main>\n");
    }

    public void Dispose() => _memory.Dispose();
}
