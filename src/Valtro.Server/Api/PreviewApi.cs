using System.Text;
using Valtro.Application.Accounts;
using Valtro.Application.Calendars;
using Valtro.Application.Editions;
using Valtro.Application.Events;
using Valtro.Core.Disclosure;
using Valtro.Store;

namespace Valtro.Server.Api;

/// <summary>Reading pages on the desk: a calendar as an audience gets it, an edition that somebody is making, one for members. Nothing of
/// it is kept.</summary>
internal static class PreviewApi
{
    public static void MapPreviews(this RouteGroupBuilder api)
    {
        Map(api, "/calendars/{id:guid}/seen-as/{audience}",
            (Guid id, string audience, Preview preview) => preview.CalendarAsync(id, audience));
        Map(api, "/editions/drafts/{id:guid}/page", (Guid id, Preview preview) => preview.DraftAsync(id));
        Map(api, "/editions/{id:guid}/page", (Guid id, Preview preview) => preview.EditionAsync(id));
    }

    private delegate Task<EditionAddress> WithAudience(Guid id, string audience, Preview preview);

    private delegate Task<EditionAddress> WithoutAudience(Guid id, Preview preview);

    private static void Map(RouteGroupBuilder api, string pattern, WithAudience find)
    {
        api.MapGet(
            pattern, async (Guid id, string audience, Preview preview) => await preview.SendPageAsync(await find(id, audience, preview)))
            .ExcludeFromDescription();
        api.MapGet(pattern + ".json",
            async (Guid id, string audience, string? month, Preview preview) =>
                await preview.SendPartAsync(await find(id, audience, preview), month))
            .ExcludeFromDescription();
        api.MapGet(pattern + "/changed.json",
            async (Guid id, string audience, Preview preview) => await preview.SendChangedAsync(await find(id, audience, preview)))
            .ExcludeFromDescription();
    }

    private static void Map(RouteGroupBuilder api, string pattern, WithoutAudience find)
    {
        api.MapGet(pattern, async (Guid id, Preview preview) => await preview.SendPageAsync(await find(id, preview)))
            .ExcludeFromDescription();
        api.MapGet(pattern + ".json",
            async (Guid id, string? month, Preview preview) => await preview.SendPartAsync(await find(id, preview), month))
            .Produces<MonthBody>();
        api.MapGet(pattern + "/changed.json", async (Guid id, Preview preview) => await preview.SendChangedAsync(await find(id, preview)))
            .Produces<ChangesBody>();
        api.MapGet(pattern + "/files/{file:guid}/{name}",
            async (Guid id, Guid file, string name, Preview preview) => await preview.SendFileAsync(await find(id, preview), file, name))
            .ExcludeFromDescription();
    }

    public sealed class Preview(
        IHttpContextAccessor accessor, Access access, CalendarView view, EditionStore editions, EditionSettingsStore settings,
        EditionDesk editionDesk, EditionReadings readings, Rendering rendering,
        ReadingPages pages, EventStore events, FileStore files, EventDesk desk)
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
            var edition = (await RenderAsync(address, ArtefactKey.Of(address.MonthAt(desk.Now)))).Part.Edition;
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
                && reading.CompositionAt(desk.Now).Tells(await events.WithFileAsync(address.OrganisationId, fileId), fileId, name);
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
}
