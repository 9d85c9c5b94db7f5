using Valtro.Server.Public;

namespace Valtro.Server;

/// <summary>What browsers are told to refuse. Nothing is fetched from elsewhere, no script stands in a page.</summary>
internal static class SecurityHeaders
{
    private const string Ours =
        "default-src 'none'; script-src 'self'; style-src 'self'; font-src 'self'; img-src 'self' data:; connect-src 'self'; base-uri 'none'; form-action 'self'; object-src 'none'";

    public static void UseSecurityHeaders(this WebApplication app) => app.Use((context, next) =>
    {
        var headers = context.Response.Headers;
        headers.ContentSecurityPolicy = $"{Ours}; frame-src 'self'; frame-ancestors 'none'";
        headers.XContentTypeOptions = "nosniff";
        headers["Referrer-Policy"] = "strict-origin-when-cross-origin";
        headers["Permissions-Policy"] = "camera=(), geolocation=(), microphone=()";
        headers["Cross-Origin-Resource-Policy"] = "cross-origin";
        return next();
    });

    /// <summary>Reading pages and embeds may stand in anybody's page, or in those of the sites that the edition names.</summary>
    /// <param name="styles">That stand in the page; each is allowed by its hash.</param>
    public static void ForReaders(HttpResponse response, IReadOnlyList<string>? sites, PageStyle[] styles) =>
        response.Headers.ContentSecurityPolicy =
            $"{Ours.Replace("style-src 'self'", $"style-src 'self' {string.Join(' ', styles.Select(style => style.Hash))}", StringComparison.Ordinal)}; frame-src 'none'; frame-ancestors {(sites is null ? "*" : string.Join(' ', sites.Prepend("'self'")))}";
}
