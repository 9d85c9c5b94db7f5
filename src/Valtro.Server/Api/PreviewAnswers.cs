using System.Text;
using Valtro.Application.Accounts;
using Valtro.Application.Calendars;
using Valtro.Application.Editions;
using Valtro.Application.Events;
using Valtro.Core.Disclosure;
using Valtro.Store;

namespace Valtro.Server.Api;

/// <summary>Answers with what nobody but the desk gets of an edition.</summary>
public sealed class PreviewAnswers(
    IHttpContextAccessor accessor, Access access, CalendarView view, EditionStore editions, EditionSettingsStore settings,
    EditionDesk editionDesk, EditionReadings readings, Rendering rendering,
    ReadingPages pages, FileHolders fileHolders, FileStore files, EventDesk desk)
{
    public async Task<EditionAddress> CalendarAsync(Guid id, string audience)
    {
        if (!Enum.TryParse<Audience>(audience, ignoreCase: true, out var seenAs) || !Enum.IsDefined(seenAs))
            throw new NotFoundException("audience");
        await view.KeptAsync(await access.ViewerAsync(), id);
        var found = await editions.StandardAsync(id) ?? throw new NotFoundException("calendar");
        return found with
        {
            SeenAs = seenAs,
            PreviewPath = access.At($"/api/calendars/{id}/seen-as/{seenAs.ToString().ToLowerInvariant()}")
        };
    }

    /// <summary>What somebody is making, for nobody but them.</summary>
    public async Task<EditionAddress> DraftAsync(Guid id)
    {
        var viewer = await access.ViewerAsync();
        var (editionId, draft) = await settings.FindDraftAsync(viewer.OrganisationId, viewer.AccountId, id)
            ?? throw new NotFoundException("edition");
        var address = editionId is { } known ? await editions.FindAsync(known) : null;
        address ??= await editionDesk.AddressOfNewAsync();
        return address with { Draft = draft, SeenAs = draft.Audience, PreviewPath = access.At($"/api/editions/drafts/{id}/page") };
    }

    /// <summary>A saved edition: one for members is read here by every member, the others by those who may compose them.</summary>
    public async Task<EditionAddress> EditionAsync(Guid id)
    {
        var viewer = await access.ViewerAsync();
        var edition = await settings.FindAsync(viewer.OrganisationId, id) is { RemovedAt: null } found
            ? found
            : throw new NotFoundException("edition");
        if (edition.IsStandard || edition.Draft.Audience != Audience.Members || viewer.SeesAs is Audience.Link or Audience.Everyone)
            await editionDesk.RequireComposeAsync(viewer, edition);
        var address = await editions.FindAsync(id) ?? throw new NotFoundException("edition");
        return address with { SeenAs = edition.Draft.Audience, PreviewPath = access.At($"/api/editions/{id}/page") };
    }

    public async Task<IResult> SendPageAsync(EditionAddress address)
    {
        var today = address.TodayAt(desk.Now);
        var edition = (await RenderAsync(address, ArtefactKey.Of(address.MonthAt(desk.Now)))).Edition;
        var asked = PageAsked.Of(edition, PageQuestions.Of(accessor.HttpContext!.Request), isEmbedded: true, today);
        var month = asked.Day.ToYearMonth();
        Rendered[] parts = edition.IsWhole
            ? [await RenderAsync(address, ArtefactKey.All)]
            : [await RenderAsync(address, ArtefactKey.Of(month)), await RenderAsync(address, ArtefactKey.Of(month.PlusMonths(1)))];
        // It is shown in a frame of the desk, and nowhere else.
        SecurityHeaders.ForReaders(accessor.HttpContext.Response, [], pages.StylesOf(edition));
        accessor.HttpContext.Response.Headers.CacheControl = "no-store";
        return Results.Bytes(pages.Write(address, "", parts[0], parts, asked).Artefact.Content, "text/html; charset=utf-8");
    }

    public async Task<IResult> SendPartAsync(EditionAddress address, string? month) =>
        Json(await RenderAsync(address, ArtefactKey.TryPart(month, out var key) ? key : ArtefactKey.Of(address.MonthAt(desk.Now))));

    public async Task<IResult> SendChangedAsync(EditionAddress address) => Json(await RenderAsync(address, ArtefactKey.Changed));

    public async Task<IResult> SendFileAsync(EditionAddress address, Guid fileId, string name)
    {
        var isTold = await readings.FindAsync(address) is { } reading
            && await fileHolders.FindAsync(reading, fileId, name, desk.Now) is not null;
        if (!isTold || await files.FindAsync(address.OrganisationId, fileId) is not { } file)
            throw new NotFoundException("file");
        return FileAnswers.Of(accessor.HttpContext!, file, "private, no-cache");
    }

    private static IResult Json(Rendered rendered) =>
        Results.Text(Encoding.UTF8.GetString(rendered.Artefact.Content), "application/json", Encoding.UTF8);

    /// <exception cref="NotFoundException">The audience sees nothing of it.</exception>
    private async Task<Rendered> RenderAsync(EditionAddress address, ArtefactKey key) =>
        new((await rendering.RenderAsync(address, key, null, desk.Now) ?? throw new NotFoundException("edition")).Artefact,
            compresses: false);
}
