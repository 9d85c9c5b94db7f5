using System.Text;
using NodaTime;
using Valtro.Store;

namespace Valtro.Server.Dav;

/// <summary>The way in for calendar programs: an address and a password that a member made for one (RFC 7617), or none at all.</summary>
internal static class DavApi
{
    private static readonly string[] Methods =
        ["OPTIONS", "GET", "HEAD", "PROPFIND", "REPORT", "PROPPATCH", "PUT", "POST", "DELETE", "MKCOL", "MKCALENDAR", "COPY", "MOVE", "LOCK",
            "UNLOCK", "ACL"];

    public static void MapDav(this WebApplication app)
    {
        // Where programs look first (RFC 6764 5).
        app.MapMethods("/.well-known/caldav", Methods, () => Results.Redirect(DavAnswers.Root, permanent: true, preserveMethod: true))
            .ExcludeFromDescription();
        app.MapMethods("/dav/{**path}", Methods, AnswerAsync).ExcludeFromDescription();
    }

    private static async Task AnswerAsync(
        HttpContext context, string? path, DavAnswers answers, AppPasswordStore store, WrongSecrets wrongSecrets, IClock clock)
    {
        if (wrongSecrets.IsSpent(context))
        {
            context.Response.Headers.RetryAfter = "60";
            await DavXml.SayAsync(context, StatusCodes.Status429TooManyRequests, "dav.tooOften");
            return;
        }
        var said = Said(context.Request.Headers.Authorization.ToString());
        if (said is not var (user, password)
            || await store.FindAsync(user, password, clock.GetCurrentInstant()) is not var (accountId, email))
        {
            if (said is not null)
                wrongSecrets.Spend(context);
            context.Response.Headers.WWWAuthenticate = "Basic realm=\"Valtro\", charset=\"UTF-8\"";
            await DavXml.SayAsync(context, StatusCodes.Status401Unauthorized, "dav.signIn");
            return;
        }
        await answers.AnswerAsync(context, accountId, email, path ?? "");
    }

    private static (string Email, string Password)? Said(string header)
    {
        if (!header.StartsWith("Basic ", StringComparison.OrdinalIgnoreCase))
            return null;
        var bytes = new byte[header.Length];
        if (!Convert.TryFromBase64String(header[6..].Trim(), bytes, out var count))
            return null;
        var text = Encoding.UTF8.GetString(bytes, 0, count);
        return text.IndexOf(':', StringComparison.Ordinal) is > 0 and var colon ? (text[..colon], text[(colon + 1)..]) : null;
    }
}
