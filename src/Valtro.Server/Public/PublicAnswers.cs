using System.Collections.Concurrent;
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

    private static readonly ConcurrentDictionary<(bool IsSecret, int Seconds), string> Controls = new();

    /// <summary>Anybody may keep a copy but asks after a while whether it is still right; of a secret address only who asked.</summary>
    /// <param name="seconds">As editions may say (Core.Editions.Freshness), so that there are few.</param>
    public static string CacheControl(bool isSecret, int seconds = 60) => Controls.GetOrAdd((isSecret, seconds),
        static said => $"{(said.IsSecret ? "private" : "public")}, max-age={said.Seconds}, must-revalidate");

    public static Task SendAsync(HttpContext context, Copy copy, string contentType, string cacheControl, Instant now)
    {
        var rendered = copy.Rendered;
        var form = Choose(context.Request, rendered);
        var response = context.Response;
        var headers = response.Headers;
        // Until then it has none, as another version may follow within the second (RFC 9110 8.8.2.2).
        var lastModified = now >= rendered.LastModified.At ? rendered.LastModified : null;
        headers.ETag = form.Tag;
        if (lastModified is not null)
            headers.LastModified = lastModified.Text;
        headers.CacheControl = cacheControl;
        // RFC 9111 5.1: how long ago it was certainly right. A cache between us asks again at once.
        if (copy.Age > Duration.Zero)
            headers.Age = ((long)Math.Ceiling(copy.Age.TotalSeconds)).ToString(System.Globalization.CultureInfo.InvariantCulture);
        headers.Vary = StringValues.Concat(headers.Vary, HeaderNames.AcceptEncoding);
        if (IsStillRight(context.Request, form, lastModified?.At))
        {
            response.StatusCode = StatusCodes.Status304NotModified;
            return Task.CompletedTask;
        }
        headers.ContentType = contentType;
        headers.ContentLength = form.Content.Length;
        if (form.Encoding is not null)
            headers.ContentEncoding = form.Encoding;
        return HttpMethods.IsHead(context.Request.Method)
            ? Task.CompletedTask
            : response.Body.WriteAsync(form.Content, context.RequestAborted).AsTask();
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

    /// <summary>RFC 9110 13.2.2: If-None-Match decides, also where it cannot be read; without it, If-Modified-Since does.</summary>
    private static bool IsStillRight(HttpRequest request, SentForm form, Instant? lastModified)
    {
        // As nearly everybody asks it.
        if (request.Headers.IfNoneMatch is { Count: > 0 } match)
            return match == form.Tag || request.GetTypedHeaders().IfNoneMatch is var tags && tags.Any(theirs =>
                theirs.Equals(EntityTagHeaderValue.Any)
                || theirs.Compare(new EntityTagHeaderValue(form.Tag), useStrongComparison: false));
        return request.Headers.IfModifiedSince.Count > 0 && lastModified?.ToDateTimeOffset() <= request.GetTypedHeaders().IfModifiedSince;
    }

    /// <summary>How well a reader likes each form, from 0 to 1 (RFC 9110 12.5.3).</summary>
    private readonly record struct Likings(double Brotli, double Gzip, double Plain);

    /// <summary>Of the words that browsers and programs use for that; there are few.</summary>
    private static readonly ConcurrentDictionary<string, Likings> Known = new();

    private const int MostKnown = 500;

    private static SentForm Choose(HttpRequest request, Rendered rendered)
    {
        var said = request.Headers.AcceptEncoding;
        if (said.Count == 0)
            return rendered.Plain;
        var text = said.ToString();
        if (!Known.TryGetValue(text, out var likings))
        {
            likings = LikingsOf(request.GetTypedHeaders().AcceptEncoding);
            if (Known.Count < MostKnown)
                Known.TryAdd(text, likings);
        }
        // The smallest of those that are liked alike.
        if (likings.Brotli > 0 && likings.Brotli >= Math.Max(likings.Gzip, likings.Plain) && rendered.Brotli is { } brotli)
            return brotli;
        return likings.Gzip > 0 && likings.Gzip >= likings.Plain && rendered.Gzip is { } gzip ? gzip : rendered.Plain;
    }

    private static Likings LikingsOf(IList<StringWithQualityHeaderValue> accepted)
    {
        return new(Of("br") ?? 0, Of("gzip") ?? 0,
            // It is taken where nothing else is said, and by who forbids everything.
            Of("identity") is > 0 and var liking ? liking : double.Epsilon);

        double? Of(string encoding) =>
            (accepted.FirstOrDefault(value => StringSegment.Equals(value.Value, encoding, StringComparison.OrdinalIgnoreCase))
                ?? accepted.FirstOrDefault(value => value.Value == "*")) is { } said
                ? said.Quality ?? 1
                : null;
    }
}
