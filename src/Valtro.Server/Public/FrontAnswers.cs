using System.Text;
using System.Xml.Linq;
using Microsoft.Net.Http.Headers;
using NodaTime;
using NodaTime.Text;
using Valtro.Application.Editions;
using Valtro.Store;

namespace Valtro.Server.Public;

/// <summary>Sends the front page of an organisation, and what programs that look for pages ask for.</summary>
public sealed class FrontAnswers(
    IHttpContextAccessor accessor, FrontPages pages, EditionStore editions, PublicAddresses addresses, HomeIcons icons,
    PublicWork publicWork, IClock clock)
{
    private const int LongestFind = 100;

    private static readonly XNamespace Map = "http://www.sitemaps.org/schemas/sitemap/0.9";

    private HttpContext Context => accessor.HttpContext!;

    /// <param name="find">Words that somebody looks for.</param>
    /// <param name="only">Slugs of calendars that somebody chose: they are led to the page of just those.</param>
    /// <param name="term">The first day of a term that is over.</param>
    public async Task SendPageAsync(string organisation, string? find, string? term, string[] only)
    {
        var asker = new AddressOutside(publicWork, Context);
        if (EditionName.Of(organisation, "all").IsImpossible)
        {
            await PublicAnswers.NotFoundAsync(Context);
            return;
        }
        if (only.Length > 0 && await pages.ChosenAsync(organisation, [.. only.Take(MostChosen)]) is { } chosen)
        {
            Context.Response.Headers.CacheControl = "no-store";
            Context.Response.Redirect(chosen, permanent: false);
            return;
        }
        var words = (find ?? "").Trim();
        var asked = new FrontAsked(words.Length > LongestFind ? words[..LongestFind] : words,
            term is not null && LocalDatePattern.Iso.Parse(term).TryGetValue(default, out var day) ? day : null,
            PageQuestions.LanguagesOf(Context.Request));
        if (asked.Find.Length > 0 && !asker.TryCause())
            throw new TooOftenException();
        if (await pages.FindAsync(organisation, asked, asker) is not { } page)
        {
            await PublicAnswers.NotFoundAsync(Context);
            return;
        }
        SecurityHeaders.ForReaders(Context.Response, [], pages.Styles);
        Context.Response.Headers.Append(HeaderNames.Vary, HeaderNames.AcceptLanguage);
        await SendAsync(page, "text/html; charset=utf-8");
    }

    private const int MostChosen = 100;

    public async Task SendManifestAsync(string organisation)
    {
        if ((await editions.OnFrontPageAsync(organisation)).FirstOrDefault() is { } address)
            await SendAsync(FrontPages.Plain(
                HomeScreen.Manifest(address, address.OrganisationName, $"/c/{organisation}"), clock.GetCurrentInstant()), ManifestType);
        else
            await PublicAnswers.NotFoundAsync(Context);
    }

    internal const string ManifestType = "application/manifest+json; charset=utf-8";

    public async Task SendIconAsync(string organisation)
    {
        if ((await editions.OnFrontPageAsync(organisation)).FirstOrDefault() is { } address)
            await SendAsync(HomeScreen.Icon(address.OrganisationName), "image/svg+xml; charset=utf-8");
        else
            await PublicAnswers.NotFoundAsync(Context);
    }

    /// <summary>The same as pixels.</summary>
    public async Task SendIconAsync(string organisation, int width)
    {
        if (!HomeIcons.Widths.Contains(width)
            || (await editions.OnFrontPageAsync(organisation)).FirstOrDefault() is not { OrganisationName: var name })
        {
            await PublicAnswers.NotFoundAsync(Context);
            return;
        }
        if (!icons.IsKnown(name, width) && !new AddressOutside(publicWork, Context).TryCause())
            throw new TooOftenException();
        await SendAsync(FrontPages.Plain(icons.Draw(name, width), clock.GetCurrentInstant(), compresses: false), "image/png");
    }

    /// <summary>RFC 9309: what is open to everyone may be found, and nothing else.</summary>
    public Task SendRobotsAsync() => SendAsync($"""
        User-agent: *
        Allow: /c/
        Allow: /assets/
        Disallow: /c/*/embed
        Disallow: /

        Sitemap: {addresses.Desk("/sitemap.xml")}

        """, "text/plain; charset=utf-8");

    /// <summary>The maps of all organisations that have something open (sitemaps.org protocol 0.9).</summary>
    public async Task SendMapAsync() => await SendAsync(new XElement(Map + "sitemapindex",
        (await editions.FrontPagesAsync()).Select(slug => new XElement(Map + "sitemap",
            new XElement(Map + "loc", $"{addresses.FrontPage(slug)}/sitemap.xml")))));

    /// <summary>The pages of an organisation.</summary>
    public async Task SendMapOfAsync(string organisation)
    {
        var open = await editions.OnFrontPageAsync(organisation);
        if (open.Count == 0)
            await PublicAnswers.NotFoundAsync(Context);
        else
            await SendAsync(new XElement(Map + "urlset", open.Select(edition => addresses.Of(edition).Page)
                .Prepend(addresses.FrontPage(organisation))
                .Select(address => new XElement(Map + "url", new XElement(Map + "loc", address)))));
    }

    private Task SendAsync(XElement map) =>
        SendAsync($"<?xml version=\"1.0\" encoding=\"UTF-8\"?>\n{map}\n", "application/xml; charset=utf-8");

    private Task SendAsync(string text, string contentType) =>
        SendAsync(FrontPages.Plain(Encoding.UTF8.GetBytes(text), clock.GetCurrentInstant()), contentType);

    private Task SendAsync(Rendered rendered, string contentType) => PublicAnswers.SendAsync(Context, new Copy(rendered, Duration.Zero),
        contentType, PublicAnswers.CacheControl(isSecret: false), clock.GetCurrentInstant());
}
