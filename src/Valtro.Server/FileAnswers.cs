using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.Net.Http.Headers;
using Valtro.Store;

namespace Valtro.Server;

/// <summary>Sends a file so that nothing in it can act as a page of ours.</summary>
internal static class FileAnswers
{
    /// <summary>What browsers show by themselves; everything else is saved.</summary>
    private static readonly HashSet<string> Shown = ["application/pdf", "image/png", "image/jpeg", "image/gif", "image/webp"];

    public static void Describe(HttpResponse response, string name, string type)
    {
        var disposition = new ContentDispositionHeaderValue(Shown.Contains(type) ? "inline" : "attachment");
        disposition.SetHttpFileName(name);
        response.Headers.ContentDisposition = disposition.ToString();
        response.Headers.ContentSecurityPolicy =
            $"default-src 'none'; frame-ancestors 'none'{(type == "application/pdf" ? "" : "; sandbox")}";
    }

    public static FileContentHttpResult Of(HttpContext context, StoredFile file, string cacheControl)
    {
        Describe(context.Response, file.Name, file.Type);
        context.Response.Headers.CacheControl = cacheControl;
        return TypedResults.File(file.Content, file.Type, entityTag: new EntityTagHeaderValue($"\"{file.Id:N}-{file.Version}-{file.Content.Length}\""));
    }
}
