using Microsoft.Extensions.Primitives;
using Microsoft.Net.Http.Headers;
using NodaTime;

namespace Valtro.Server.Public;

/// <summary>Sends what does not depend on who asks: validators, 304, and the compression that the reader takes (RFC 9110 8.8, 13).</summary>
internal static class PublicAnswers
{
    /// <summary>Anybody may keep a copy but asks each minute whether it is still right.</summary>
    public const string Cached = "public, max-age=60, must-revalidate";

    public static async Task SendAsync(HttpContext context, Copy copy, string contentType, string cacheControl = Cached)
    {
        var rendered = copy.Rendered;
        var (encoding, content) = Choose(context.Request, rendered);
        var response = context.Response;
        // A strong validator names the bytes, so each compressed form has its own.
        var tag = new EntityTagHeaderValue($"\"{rendered.Artefact.Etag}{(encoding is null ? "" : $"-{encoding}")}\"");
        var lastModified = Instant.FromUnixTimeSeconds(rendered.Artefact.ChangedAt.ToUnixTimeSeconds()).ToDateTimeOffset();
        var headers = response.GetTypedHeaders();
        headers.ETag = tag;
        headers.LastModified = lastModified;
        response.Headers.CacheControl = cacheControl;
        // RFC 9111 5.1: how long ago it was certainly right. A cache between us asks again at once.
        if (copy.Age > Duration.Zero)
            response.Headers.Age = ((long)Math.Ceiling(copy.Age.TotalSeconds)).ToString(System.Globalization.CultureInfo.InvariantCulture);
        response.Headers.Vary = HeaderNames.AcceptEncoding;
        if (IsStillRight(context.Request, tag, lastModified))
        {
            response.StatusCode = StatusCodes.Status304NotModified;
            return;
        }
        response.ContentType = contentType;
        response.ContentLength = content.Length;
        if (encoding is not null)
            response.Headers.ContentEncoding = encoding;
        if (!HttpMethods.IsHead(context.Request.Method))
            await response.Body.WriteAsync(content, context.RequestAborted);
    }

    /// <summary>RFC 9110 13.2.2: If-None-Match decides; without it, If-Modified-Since does.</summary>
    private static bool IsStillRight(HttpRequest request, EntityTagHeaderValue tag, DateTimeOffset lastModified)
    {
        var headers = request.GetTypedHeaders();
        if (headers.IfNoneMatch.Count > 0)
            return headers.IfNoneMatch.Any(theirs => theirs.Equals(EntityTagHeaderValue.Any) || theirs.Compare(tag, useStrongComparison: false));
        return headers.IfModifiedSince is { } since && lastModified <= since;
    }

    private static (string? Encoding, byte[] Content) Choose(HttpRequest request, Rendered rendered)
    {
        var accepted = request.GetTypedHeaders().AcceptEncoding;
        if (rendered.Brotli is { } brotli && Takes(accepted, "br"))
            return ("br", brotli);
        return rendered.Gzip is { } gzip && Takes(accepted, "gzip") ? ("gzip", gzip) : (null, rendered.Artefact.Content);
    }

    private static bool Takes(IList<StringWithQualityHeaderValue> accepted, string encoding) =>
        accepted.Any(value => StringSegment.Equals(value.Value, encoding, StringComparison.OrdinalIgnoreCase) && value.Quality is null or > 0);
}
