using System.Globalization;
using Valtro.Application;
using Valtro.Application.Editions;
using Valtro.Core.Disclosure;

namespace Valtro.Server.Public;

/// <summary>Tells sites how to embed a reading page that is open to everyone (oEmbed 1.0).</summary>
internal static class OEmbedApi
{
    private const int UsualWidth = 800;

    public static void MapOEmbed(this WebApplication app) =>
        app.MapRead("/oembed", AnswerAsync);

    private static async Task<IResult> AnswerAsync(string? url, int? maxwidth, int? maxheight, string? format, HttpContext context,
        Settings settings, Artefacts artefacts, PublicWork publicWork, PublicAddresses addresses, NodaTime.IClock clock)
    {
        if (format is not null and not "json")
            return Results.Text(Spoken.Now.Say("page.onlyJson"), statusCode: StatusCodes.Status501NotImplemented);
        var asker = new AddressOutside(publicWork, context);
        if (NameOf(url, settings.PublicUrl) is not { IsImpossible: false } name
            || await artefacts.LocateAsync(name, asker) is not { Found.Address: { Audience: Audience.Everyone } edition } located
            || await artefacts.FindAsync(located, ArtefactKey.Of(edition.MonthAt(clock.GetCurrentInstant())), asker) is not { } part)
            return Results.Text(Spoken.Now.Say("page.notOpen"), statusCode: StatusCodes.Status404NotFound);
        var shown = part.Rendered.Edition;
        var address = addresses.Of(edition);
        var (width, height) = (Math.Clamp(maxwidth ?? UsualWidth, 100, UsualWidth),
            Math.Clamp(maxheight ?? PublicAddresses.FixedHeight, 100, PublicAddresses.FixedHeight));
        context.Response.Headers.CacheControl = PublicAnswers.CacheControl(isSecret: false);
        if (HttpMethods.IsHead(context.Request.Method))
        {
            context.Response.ContentType = "application/json; charset=utf-8";
            return Results.Empty;
        }
        return Results.Json(new Dictionary<string, object>
        {
            ["version"] = "1.0",
            ["type"] = "rich",
            ["title"] = shown.Name,
            ["author_name"] = shown.Organisation,
            ["provider_name"] = "Valtro",
            ["provider_url"] = settings.PublicUrl.AbsoluteUri,
            ["cache_age"] = 3_600,
            ["html"] = PublicAddresses.SnippetFixed(address, shown.Name, width.ToString(CultureInfo.InvariantCulture), height),
            ["width"] = width,
            ["height"] = height,
        }, Json.Options);
    }

    /// <summary>The edition that an address of ours names: /c/{organisation}/{edition}, or something below it.</summary>
    private static EditionName? NameOf(string? url, Uri ours)
    {
        if (!Uri.TryCreate(url, UriKind.Absolute, out var asked)
            || !string.Equals(asked.Authority, ours.Authority, StringComparison.OrdinalIgnoreCase))
            return null;
        return asked.AbsolutePath.Trim('/').Split('/') is ["c", var organisation, var edition, .. var rest] && rest is [] or ["embed"]
            ? EditionName.Of(Uri.UnescapeDataString(organisation), Uri.UnescapeDataString(edition))
            : null;
    }
}
