using Microsoft.Extensions.Primitives;
using Microsoft.Net.Http.Headers;
using NodaTime;
using Valtro.Application;
using Valtro.Application.Editions;

namespace Valtro.Server.Public;

/// <summary>Sends what does not depend on who asks: validators, 304, and the compression that the reader takes (RFC 9110 8.8,
/// 13).</summary>
internal static class PublicAnswers
{
    private const string NoCalendar = "page.noCalendar";

    /// <summary>Anybody may keep a copy but asks after a while whether it is still right; of a secret address only who asked.</summary>
    public static string CacheControl(bool isSecret, int seconds = 60) =>
        $"{(isSecret ? "private" : "public")}, max-age={seconds}, must-revalidate";

    public static async Task SendAsync(HttpContext context, Copy copy, string contentType, string cacheControl, Instant now)
    {
        var rendered = copy.Rendered;
        var (encoding, content) = Choose(context.Request, rendered);
        var response = context.Response;
        // A strong validator names the bytes, so each compressed form has its own.
        var tag = new EntityTagHeaderValue($"\"{rendered.Artefact.Etag}{(encoding is null ? "" : $"-{encoding}")}\"");
        var lastModified = LastModified(rendered.Artefact.ChangedAt, now);
        var headers = response.GetTypedHeaders();
        headers.ETag = tag;
        headers.LastModified = lastModified;
        response.Headers.CacheControl = cacheControl;
        // RFC 9111 5.1: how long ago it was certainly right. A cache between us asks again at once.
        if (copy.Age > Duration.Zero)
            response.Headers.Age = ((long)Math.Ceiling(copy.Age.TotalSeconds)).ToString(System.Globalization.CultureInfo.InvariantCulture);
        response.Headers.Append(HeaderNames.Vary, HeaderNames.AcceptEncoding);
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

    /// <summary>The one answer to addresses that lead nowhere.</summary>
    public static IResult NotHere(HttpContext context)
    {
        context.Response.Headers.CacheControl = "no-store";
        return Results.Text(Spoken.Now.Say(NoCalendar), statusCode: StatusCodes.Status404NotFound);
    }

    public static Task NotFoundAsync(HttpContext context) => SayAsync(context, StatusCodes.Status404NotFound, NoCalendar);

    /// <param name="code">Of a message that is said in the language of whoever asks.</param>
    public static Task SayAsync(HttpContext context, int status, string code)
    {
        context.Response.StatusCode = status;
        context.Response.Headers.CacheControl = "no-store";
        context.Response.ContentType = "text/plain; charset=utf-8";
        return HttpMethods.IsHead(context.Request.Method) ? Task.CompletedTask : context.Response.WriteAsync(Spoken.Now.Say(code));
    }

    /// <summary>A page that says that what its address named is not there any more.</summary>
    public static Task GoneAsync(HttpContext context, Rendered page)
    {
        context.Response.StatusCode = StatusCodes.Status410Gone;
        context.Response.Headers.CacheControl = "no-store";
        context.Response.ContentType = "text/html; charset=utf-8";
        return HttpMethods.IsHead(context.Request.Method)
            ? Task.CompletedTask
            : context.Response.Body.WriteAsync(page.Artefact.Content, context.RequestAborted).AsTask();
    }

    /// <summary>The first whole second since when it is as it is. Until then it has none, as another version may follow within the second
    /// (RFC 9110 8.8.2.2).</summary>
    private static DateTimeOffset? LastModified(Instant changed, Instant now)
    {
        var since = changed.ToUnixTimeSeconds() + 1;
        return now.ToUnixTimeSeconds() >= since ? DateTimeOffset.FromUnixTimeSeconds(since) : null;
    }

    /// <summary>RFC 9110 13.2.2: If-None-Match decides, also where it cannot be read; without it, If-Modified-Since does.</summary>
    private static bool IsStillRight(HttpRequest request, EntityTagHeaderValue tag, DateTimeOffset? lastModified)
    {
        var headers = request.GetTypedHeaders();
        if (request.Headers.IfNoneMatch.Count > 0)
            return headers.IfNoneMatch.Any(theirs =>
                theirs.Equals(EntityTagHeaderValue.Any) || theirs.Compare(tag, useStrongComparison: false));
        return lastModified <= headers.IfModifiedSince;
    }

    /// <summary>The form that the reader likes best, the smallest of those liked alike (RFC 9110 12.5.3).</summary>
    private static (string? Encoding, byte[] Content) Choose(HttpRequest request, Rendered rendered)
    {
        var accepted = request.GetTypedHeaders().AcceptEncoding;
        var forms = new (string? Encoding, byte[]? Content, double Liking)[]
        {
            ("br", rendered.Brotli, Liking(accepted, "br") ?? 0),
            ("gzip", rendered.Gzip, Liking(accepted, "gzip") ?? 0),
            // It is taken where nothing else is said, and by who forbids everything.
            (null, rendered.Artefact.Content, Liking(accepted, "identity") is > 0 and var liking ? liking : double.Epsilon),
        };
        var (encoding, content, _) = forms.Where(form => form.Content is not null).MaxBy(form => form.Liking);
        return (encoding, content!);
    }

    /// <returns>From 0 to 1; null where nothing is said of it.</returns>
    private static double? Liking(IList<StringWithQualityHeaderValue> accepted, string encoding) =>
        (accepted.FirstOrDefault(value => StringSegment.Equals(value.Value, encoding, StringComparison.OrdinalIgnoreCase))
            ?? accepted.FirstOrDefault(value => value.Value == "*")) is { } said
            ? said.Quality ?? 1
            : null;
}
