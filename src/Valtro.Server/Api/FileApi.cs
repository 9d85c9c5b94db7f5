using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Http.Metadata;
using Valtro.Application.Accounts;
using Valtro.Application.Events;
using Valtro.Application.Files;
using Valtro.Core;
using Valtro.Store;

namespace Valtro.Server.Api;

/// <summary>Files are brought first, and then named by the event that is saved.</summary>
internal static class FileApi
{
    /// <summary>Media types by ending: what a browser says of a file is not believed.</summary>
    private static readonly Dictionary<string, string> Types = new(StringComparer.OrdinalIgnoreCase)
    {
        [".pdf"] = "application/pdf",
        [".png"] = "image/png",
        [".jpg"] = "image/jpeg",
        [".jpeg"] = "image/jpeg",
        [".gif"] = "image/gif",
        [".webp"] = "image/webp",
        [".txt"] = "text/plain",
        [".csv"] = "text/csv",
        [".doc"] = "application/msword",
        [".docx"] = "application/vnd.openxmlformats-officedocument.wordprocessingml.document",
        [".xls"] = "application/vnd.ms-excel",
        [".xlsx"] = "application/vnd.openxmlformats-officedocument.spreadsheetml.sheet",
        [".pptx"] = "application/vnd.openxmlformats-officedocument.presentationml.presentation",
        [".odt"] = "application/vnd.oasis.opendocument.text",
        [".ods"] = "application/vnd.oasis.opendocument.spreadsheet",
        [".odp"] = "application/vnd.oasis.opendocument.presentation",
        [".zip"] = "application/zip",
        [".ics"] = "text/calendar",
    };

    public static void MapFiles(this RouteGroupBuilder api)
    {
        api.MapPost("/files", Add).WithMetadata(new LargeBody());
        api.MapGet("/files/{id:guid}/{name}", Get).ExcludeFromDescription();
        api.MapGet("/files/{id:guid}", Get).Produces(200, contentType: "application/octet-stream");
    }

    private sealed class LargeBody : IRequestSizeLimitMetadata
    {
        public long? MaxRequestBodySize => FileStore.Largest + 1024;
    }

    /// <summary>The body is the file as it is; its name stands in the query.</summary>
    private static async Task<Ok<EventFileBody>> Add(string name, HttpRequest request, Access access, FileStore files, EventDesk desk)
    {
        var viewer = await access.ViewerAsync();
        Access.Require(viewer.ContributesSomewhere, "access.makersBringFiles");
        var fileName = Texts.OneLine("files", "what.fileName", Path.GetFileName(name.Replace('\\', '/')), Texts.LongestTitle);
        if (!Types.TryGetValue(Path.GetExtension(fileName), out var type))
            throw new RuleException("files", "file.kind", ("name", fileName));
        if (request.ContentLength > FileStore.Largest)
            throw TooLarge(fileName);
        using var content = new MemoryStream();
        await request.Body.CopyToAsync(content, request.HttpContext.RequestAborted);
        if (content.Length == 0)
            throw new RuleException("files", "file.empty", ("name", fileName));
        if (content.Length > FileStore.Largest)
            throw TooLarge(fileName);
        return TypedResults.Ok(
            EventFileBody.Of(
                await files.AddAsync(viewer.OrganisationId, fileName, type, Pictures.Cleaned(fileName, type, content.ToArray()),
                    viewer.AccountId, desk.Now)));
    }

    private static RuleException TooLarge(string name) => new("files", "file.tooLarge", ("name", name));

    /// <summary>For those who see all of an event that holds it, and for who brought it.</summary>
    private static async Task<FileContentHttpResult> Get(Guid id, HttpContext context, Access access, FileStore files, EventDesk desk)
    {
        var viewer = await access.ViewerAsync();
        var known = (await files.SomeAsync(viewer.OrganisationId, [id])).FirstOrDefault();
        if (known.File is null || !((viewer.SeesAs is null && known.MadeBy == viewer.AccountId) || await desk.SeesFileAsync(viewer, id)))
            throw new NotFoundException("file");
        return FileAnswers.Of(context, (await files.FindAsync(viewer.OrganisationId, id))!, "private, no-cache");
    }
}
