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

    /// <summary>Embeds may stand in anybody's page; reading pages only in our own.</summary>
    public static void ForReaders(HttpResponse response, bool embedded) =>
        response.Headers.ContentSecurityPolicy = $"{Ours}; frame-src 'none'; frame-ancestors {(embedded ? "*" : "'self'")}";
}
