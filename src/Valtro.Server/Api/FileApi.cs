using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Http.Metadata;
using Valtro.Application.Events;
using Valtro.Application.Files;
using Valtro.Store;

namespace Valtro.Server.Api;

/// <summary>A request that may be as large as a file is.</summary>
/// <param name="most">Bytes of the file.</param>
internal sealed class LargeBody(int most = FileStore.Largest) : IRequestSizeLimitMetadata
{
    public long? MaxRequestBodySize => most + 1024L;
}

/// <summary>Files are brought first, and then named by the event that is saved.</summary>
internal static class FileApi
{
    public static void MapFiles(this RouteGroupBuilder api)
    {
        api.MapPost("/files", Add).WithMetadata(new LargeBody());
        api.MapPut("/files/{id:guid}", Replace).WithMetadata(new LargeBody());
        api.MapGet("/files/{id:guid}/{name}", Get).ExcludeFromDescription();
        api.MapGet("/files/{id:guid}", Get).Produces(200, contentType: "application/octet-stream");
    }

    /// <summary>The body is the file as it is; its name stands in the query.</summary>
    private static async Task<Ok<EventFileBody>> Add(string name, HttpRequest request, BroughtFiles files) =>
        TypedResults.Ok(EventFileBody.Of(await files.AddAsync(name, request.ContentLength, () => ReadAsync(request))));

    private static async Task<Ok<ReplacedFile>> Replace(Guid id, string name, HttpRequest request, BroughtFiles files) =>
        TypedResults.Ok(await files.ReplaceAsync(id, name, request.ContentLength, () => ReadAsync(request)));

    private static async Task<byte[]> ReadAsync(HttpRequest request)
    {
        using var content = new MemoryStream();
        await request.Body.CopyToAsync(content, request.HttpContext.RequestAborted);
        return content.ToArray();
    }

    private static async Task<FileContentHttpResult> Get(Guid id, HttpContext context, BroughtFiles files) =>
        FileAnswers.Of(context, await files.FindAsync(id), "private, no-cache");
}
