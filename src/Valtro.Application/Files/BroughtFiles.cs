using Valtro.Application.Accounts;
using Valtro.Application.Events;
using Valtro.Core;
using Valtro.Core.Disclosure;
using Valtro.Core.Events;
using Valtro.Store;

namespace Valtro.Application.Files;

/// <param name="Events">How many events hold it: all of them have the new version.</param>
public sealed record ReplacedFile(EventFileBody File, int Events);

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
        var (fileName, type, content) = await ReadAsync(name, size, read);
        return await files.AddAsync(viewer.OrganisationId, fileName, type, content, viewer.AccountId, desk.Now);
    }

    /// <summary>Puts another version in the place of a file: at the same address, under the same name, for all events that hold
    /// it.</summary>
    /// <remarks>What goes out at once is for those to replace who may change all of these events at once; contributors bring another
    /// file.</remarks>
    /// <inheritdoc cref="AddAsync"/>
    /// <exception cref="NotFoundException">There is none for them.</exception>
    /// <exception cref="ForbiddenException">No event holds it, or one that is not theirs to change.</exception>
    public async Task<ReplacedFile> ReplaceAsync(Guid id, string name, long? size, Func<Task<byte[]>> read)
    {
        var viewer = await access.ViewerAsync();
        var before = await FindAsync(id);
        var (holders, calendars) = await files.HoldingAsync(viewer.OrganisationId, id);
        // What no event holds may wait for sign-off, as somebody has looked at it, or stand in a template.
        Access.Require(
            holders > 0 && calendars.All(calendar => viewer.May(CalendarAction.Edit, calendar)), "access.editorsReplaceFiles");
        var (fileName, type, content) = await ReadAsync(name, size, read);
        if (type != before.Type)
            throw new RuleException("files", "file.otherKind", ("name", fileName), ("before", before.Name));
        var line = new AuditLine(viewer.AccountId, AuditAct.FileReplaced, before.Name, null, desk.Now);
        return await files.ReplaceAsync(
            viewer.OrganisationId, id, content, calendars, desk.Now, line)
            ? new ReplacedFile(new EventFileBody(id, before.Name, type, content.Length), holders)
            : throw new NotFoundException("file");
    }

    private static async Task<(string Name, string Type, byte[] Content)> ReadAsync(string name, long? size, Func<Task<byte[]>> read)
    {
        var fileName = Texts.OneLine("files", "what.fileName", Path.GetFileName(name.Replace('\\', '/')), Texts.LongestTitle);
        if (!Types.TryGetValue(Path.GetExtension(fileName), out var type))
            throw new RuleException("files", "file.kind", ("name", fileName));
        var content = size > FileStore.Largest ? null : await read();
        if (content is { Length: 0 })
            throw new RuleException("files", "file.empty", ("name", fileName));
        return content is null || content.Length > FileStore.Largest
            ? throw new RuleException("files", "file.tooLarge", ("name", fileName))
            : (fileName, type, Pictures.Cleaned(fileName, type, content));
    }

    /// <summary>For those who see all of an event that holds it, for who brought it, and what shows a place for all members.</summary>
    /// <exception cref="NotFoundException">There is none for them.</exception>
    public async Task<StoredFile> FindAsync(Guid id)
    {
        var viewer = await access.ViewerAsync();
        var known = (await files.SomeAsync(viewer.OrganisationId, [id])).FirstOrDefault();
        var isOpen = viewer.SeesAs is null
            && (known.MadeBy == viewer.AccountId || (await access.HouseAsync()).Places.Any(place => place.Picture?.Id == id));
        if (known.File is null || !(isOpen || await desk.SeesFileAsync(viewer, id)))
            throw new NotFoundException("file");
        return (await files.FindAsync(viewer.OrganisationId, id))!;
    }
}
