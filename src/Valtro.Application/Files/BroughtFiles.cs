using Valtro.Application.Accounts;
using Valtro.Application.Events;
using Valtro.Core;
using Valtro.Core.Events;
using Valtro.Store;

namespace Valtro.Application.Files;

/// <summary>Files that people bring for events.</summary>
public sealed class BroughtFiles(Access access, FileStore files, EventDesk desk)
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

    /// <param name="size">As far as it is known beforehand.</param>
    /// <param name="read">Gives the file as it is.</param>
    /// <exception cref="RuleException">It is empty, too large, or of a kind that is not taken.</exception>
    public async Task<EventFile> AddAsync(string name, long? size, Func<Task<byte[]>> read)
    {
        var viewer = await access.ViewerAsync();
        Access.Require(viewer.ContributesSomewhere, "access.makersBringFiles");
        var fileName = Texts.OneLine("files", "what.fileName", Path.GetFileName(name.Replace('\\', '/')), Texts.LongestTitle);
        if (!Types.TryGetValue(Path.GetExtension(fileName), out var type))
            throw new RuleException("files", "file.kind", ("name", fileName));
        var content = size > FileStore.Largest ? null : await read();
        if (content is { Length: 0 })
            throw new RuleException("files", "file.empty", ("name", fileName));
        return content is null || content.Length > FileStore.Largest
            ? throw new RuleException("files", "file.tooLarge", ("name", fileName))
            : await files.AddAsync(
                viewer.OrganisationId, fileName, type, Pictures.Cleaned(fileName, type, content), viewer.AccountId, desk.Now);
    }

    /// <summary>For those who see all of an event that holds it, and for who brought it.</summary>
    /// <exception cref="NotFoundException">There is none for them.</exception>
    public async Task<StoredFile> FindAsync(Guid id)
    {
        var viewer = await access.ViewerAsync();
        var known = (await files.SomeAsync(viewer.OrganisationId, [id])).FirstOrDefault();
        if (known.File is null || !((viewer.SeesAs is null && known.MadeBy == viewer.AccountId) || await desk.SeesFileAsync(viewer, id)))
            throw new NotFoundException("file");
        return (await files.FindAsync(viewer.OrganisationId, id))!;
    }
}
