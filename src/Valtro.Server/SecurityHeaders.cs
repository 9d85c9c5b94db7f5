using Microsoft.Net.Http.Headers;
using Valtro.Application;
using Valtro.Application.Editions;
using Valtro.Server.Public;

namespace Valtro.Server;

/// <summary>What browsers are told to refuse, on every answer, errors too. Nothing is fetched from elsewhere, no script stands in a
/// page.</summary>
internal static class SecurityHeaders
{
    private const string Ours =
        "default-src 'none'; script-src 'self'; style-src 'self'; font-src 'self'; img-src 'self' data:; connect-src 'self'; manifest-src 'self'; base-uri 'none'; form-action 'self'; object-src 'none'";

    private const string Usual = $"{Ours}; frame-src 'self'; frame-ancestors 'none'";

    public static void UseSecurityHeaders(this WebApplication app, Settings settings) => app.Use((context, next) =>
    {
        // Last of all: an error throws away what was said before it.
        context.Response.OnStarting(() =>
        {
            Say(context, settings);
            return Task.CompletedTask;
        });
        return next();
    });

    /// <summary>Says what was not said otherwise before.</summary>
    public static void Say(HttpContext context, Settings settings)
    {
        var headers = context.Response.Headers;
        var path = context.Request.Path;
        var isOfDesk = path.StartsWithSegments("/api");
        headers.TryAdd(HeaderNames.ContentSecurityPolicy, Usual);
        headers.XContentTypeOptions = "nosniff";
        headers.TryAdd("Referrer-Policy", "strict-origin-when-cross-origin");
        headers["Permissions-Policy"] = "camera=(), geolocation=(), microphone=()";
        // What is public may stand in other sites' pages; what is said to who is signed in may not.
        headers["Cross-Origin-Resource-Policy"] = isOfDesk || path.StartsWithSegments("/openapi") ? "same-origin" : "cross-origin";
        if (PublicApi.IsOpenToScripts(path))
        {
            // Said to everybody, so that a copy kept for one reader serves a script of another site too.
            headers.AccessControlAllowOrigin = "*";
            headers.AccessControlExposeHeaders = "ETag, Age, Retry-After, Content-Disposition";
        }
        if (isOfDesk && headers.CacheControl.Count == 0)
            headers.CacheControl = "no-store";
        // RFC 6797: this host alone; others below it are not ours to speak for.
        if (settings.PublicUrl.Scheme == "https")
            headers.StrictTransportSecurity = "max-age=31536000";
    }

    /// <summary>Reading pages and embeds may stand in anybody's page, or in those of the sites that the edition names.</summary>
    /// <param name="styles">That stand in the page; each is allowed by its hash.</param>
    public static void ForReaders(HttpResponse response, IReadOnlyList<string>? sites, PageStyle[] styles) =>
        response.Headers.ContentSecurityPolicy =
            $"{Ours.Replace("style-src 'self'", $"style-src 'self' {string.Join(' ', styles.Select(style => style.Hash))}", StringComparison.Ordinal)}; frame-src 'none'; frame-ancestors {(sites is null ? "*" : string.Join(' ', sites.Prepend("'self'")))}";
}
