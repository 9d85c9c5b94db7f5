using System.Globalization;
using System.Security.Cryptography;
using System.Text;
using System.Text.Encodings.Web;
using System.Text.Json;
using Microsoft.Extensions.Caching.Memory;
using NodaTime;
using NodaTime.Text;
using Valtro.Core.Events;
using Valtro.Store;

namespace Valtro.Server.Public;

/// <summary>Writes the reading page and the embed: a shell, the first view's data, and a list for those without JavaScript.</summary>
public sealed class ReadingPages(WebAssets assets) : IDisposable
{
    private static readonly HtmlEncoder Html = HtmlEncoder.Default;

    private readonly MemoryCache _memory = new(new MemoryCacheOptions { SizeLimit = 32 * 1024 * 1024 });

    /// <param name="feed">Its validator tells an open page whether news concern it.</param>
    /// <param name="month">The month to open with.</param>
    /// <param name="next">The one after it, so that the list reaches far enough.</param>
    /// <returns>The page; written once for each pair of months as they are.</returns>
    public Rendered Write(Rendered feed, Rendered month, Rendered next, bool embedded)
    {
        var key = (month.Artefact.EditionId, month.Artefact.Audience, feed.Artefact.Etag, month.Artefact.Etag, next.Artefact.Etag, embedded);
        if (_memory.Get<Rendered>(key) is { } written)
            return written;
        var content = Encoding.UTF8.GetBytes(Page(feed, month, next, embedded));
        var page = new Rendered(new Artefact(
            month.Artefact.EditionId,
            month.Artefact.OrganisationId,
            month.Artefact.Audience,
            "page",
            month.Artefact.ContentVersion,
            Convert.ToHexStringLower(SHA256.HashData(content).AsSpan(0, 16)),
            content,
            Instant.Max(feed.Artefact.ChangedAt, Instant.Max(month.Artefact.ChangedAt, next.Artefact.ChangedAt)),
            null));
        return _memory.Set(key, page, new MemoryCacheEntryOptions { Size = 2 * content.Length });
    }

    private string Page(Rendered feed, Rendered month, Rendered next, bool embedded)
    {
        var first = Read(month);
        var second = Read(next);
        var edition = first.Edition;
        var page = new StringBuilder(8_192);
        page.Append(CultureInfo.InvariantCulture, $"""
            <!doctype html>
            <html lang="{Html.Encode(Language(edition.Locale))}" class="{(embedded ? "is-embedded" : "is-page")}">
            <head>
            <meta charset="utf-8">
            <meta name="viewport" content="width=device-width, initial-scale=1">
            <title>{Html.Encode(edition.Name)} · {Html.Encode(edition.Organisation)}</title>
            <link rel="icon" href="/mark.svg" type="image/svg+xml">
            {(edition.IsLive ? $"<link rel=\"alternate\" type=\"text/calendar\" title=\"{Html.Encode(edition.Name)}\" href=\"{Html.Encode(edition.Feed)}\">" : "")}
            {assets.Head("reader/main.tsx")}
            </head>
            <body>
            <div id="reader"></div>
            <noscript>

            """);
        AppendList(page, edition, first.Entries.Concat(second.Entries).DistinctBy(entry => entry.Id));
        page.Append("</noscript>\n<script type=\"application/json\" id=\"edition-data\">");
        AppendData(page, feed, month, next);
        page.Append("</script>\n</body>\n</html>\n");
        return page.ToString();
    }

    private static MonthBody Read(Rendered month) => JsonSerializer.Deserialize<MonthBody>(month.Artefact.Content, Json.Options)!;

    /// <summary>The JSON encoder writes &lt; as \u003C, so nothing in it can end the element.</summary>
    private static void AppendData(StringBuilder page, Rendered feed, Rendered month, Rendered next)
    {
        page.Append("{\"version\":\"").Append(feed.Artefact.Etag).Append("\",\"months\":[")
            .Append(Encoding.UTF8.GetString(month.Artefact.Content))
            .Append(',')
            .Append(Encoding.UTF8.GetString(next.Artefact.Content))
            .Append("]}");
    }

    private static void AppendList(StringBuilder page, EditionBody edition, IEnumerable<EntryBody> entries)
    {
        var culture = CultureInfo.GetCultureInfo(edition.Locale);
        page.Append(CultureInfo.InvariantCulture, $"<main class=\"plain-list\"><h1>{Html.Encode(edition.Name)}</h1>");
        if (edition.Description.Length > 0)
            page.Append(CultureInfo.InvariantCulture, $"<p>{Html.Encode(edition.Description)}</p>");
        page.Append("<ul>");
        foreach (var entry in entries)
        {
            var struck = entry.State == EventState.Cancelled;
            page.Append("<li>")
                .Append(Html.Encode(When(entry, culture)))
                .Append(struck ? ": <s>" : ": <b>")
                .Append(Html.Encode(entry.Title))
                .Append(struck ? "</s> (cancelled)" : "</b>");
            if (entry.Place.Length > 0)
                page.Append(", ").Append(Html.Encode(entry.Place));
            // Already sanitised when it was saved.
            if (entry.Description.Length > 0)
                page.Append("<div>").Append(entry.Description).Append("</div>");
            foreach (var link in entry.Links)
                page.Append(CultureInfo.InvariantCulture, $"<div><a href=\"{Html.Encode(link.Url)}\" target=\"_blank\" rel=\"noopener noreferrer\">{Html.Encode(link.Label)}</a></div>");
            foreach (var file in entry.Files)
                page.Append(CultureInfo.InvariantCulture, $"<div><a href=\"{Html.Encode(file.Address)}\" target=\"_blank\" rel=\"noopener\">{Html.Encode(file.Name)}</a></div>");
            if (entry.Contact.Length > 0)
                page.Append("<div>").Append(Html.Encode(entry.Contact)).Append("</div>");
            page.Append("</li>");
        }
        page.Append(edition.IsLive ? "" : "</ul><p>A preview.</p></main>\n");
        if (!edition.IsLive)
            return;
        page.Append(CultureInfo.InvariantCulture, $"</ul><p>Times are {Html.Encode(edition.Zone)} times. <a href=\"{Html.Encode(edition.Feed)}\" target=\"_blank\" rel=\"noopener\">Subscribe</a></p></main>\n");
    }

    private static string When(EntryBody entry, CultureInfo culture)
    {
        if (entry.AllDay)
        {
            var first = LocalDatePattern.Iso.Parse(entry.Start).Value;
            var last = LocalDatePattern.Iso.Parse(entry.End).Value.PlusDays(-1);
            return first == last ? first.ToString("ddd d MMM uuuu", culture) : $"{first.ToString("ddd d MMM", culture)} – {last.ToString("ddd d MMM uuuu", culture)}";
        }
        var start = OffsetDateTimePattern.ExtendedIso.Parse(entry.Start).Value.LocalDateTime;
        var end = OffsetDateTimePattern.ExtendedIso.Parse(entry.End).Value.LocalDateTime;
        var until = end.Date == start.Date ? end.ToString("HH:mm", culture) : end.ToString("ddd d MMM HH:mm", culture);
        return $"{start.ToString("ddd d MMM uuuu HH:mm", culture)}–{until}";
    }

    private static string Language(string locale) => locale.Split('-')[0];

    public void Dispose() => _memory.Dispose();
}
