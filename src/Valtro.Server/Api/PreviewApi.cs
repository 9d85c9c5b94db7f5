using System.Text;
using Valtro.Core.Disclosure;
using Valtro.Server.Accounts;
using Valtro.Server.Public;
using Valtro.Store;

namespace Valtro.Server.Api;

/// <summary>A calendar's reading page as an audience gets it, on the desk, for those who keep it. Nothing of it is kept.</summary>
internal static class PreviewApi
{
    public static void MapPreviews(this RouteGroupBuilder api)
    {
        api.MapGet("/calendars/{id:guid}/seen-as/{audience}", (Guid id, string audience, string? month, Preview preview) => preview.SendPageAsync(id, audience, month)).ExcludeFromDescription();
        api.MapGet("/calendars/{id:guid}/seen-as/{audience}.json", (Guid id, string audience, string? month, Preview preview) => preview.SendMonthAsync(id, audience, month)).ExcludeFromDescription();
    }

    public sealed class Preview(IHttpContextAccessor accessor, Access access, CalendarView view, EditionStore editions, Rendering rendering, ReadingPages pages, EventDesk desk)
    {
        public async Task<IResult> SendPageAsync(Guid id, string audience, string? month)
        {
            var (address, key) = await FindAsync(id, audience, month);
            var first = await RenderAsync(address, key);
            var second = await RenderAsync(address, ArtefactKey.Of(key.Month!.Value.PlusMonths(1)));
            SecurityHeaders.ForReaders(accessor.HttpContext!.Response, embedded: false);
            accessor.HttpContext.Response.Headers.CacheControl = "no-store";
            return Results.Bytes(pages.Write(first, first, second, embedded: true).Artefact.Content, "text/html; charset=utf-8");
        }

        public async Task<IResult> SendMonthAsync(Guid id, string audience, string? month)
        {
            var (address, key) = await FindAsync(id, audience, month);
            return Results.Text(Encoding.UTF8.GetString((await RenderAsync(address, key)).Artefact.Content), "application/json", Encoding.UTF8);
        }

        private async Task<(EditionAddress Address, ArtefactKey Key)> FindAsync(Guid id, string audience, string? month)
        {
            if (!Enum.TryParse<Audience>(audience, ignoreCase: true, out var seenAs) || !Enum.IsDefined(seenAs))
                throw new NotFoundException("audience");
            var viewer = await access.ViewerAsync();
            await view.KeptAsync(viewer, id);
            var found = await editions.StandardAsync(id) ?? throw new NotFoundException("calendar");
            var address = found with { SeenAs = seenAs, PreviewPath = $"/api/calendars/{id}/seen-as/{seenAs.ToString().ToLowerInvariant()}" };
            return (address, ArtefactKey.TryMonth(month, out var key) ? key : ArtefactKey.Of(address.MonthAt(desk.Now)));
        }

        /// <exception cref="NotFoundException">The audience sees nothing of it.</exception>
        private async Task<Rendered> RenderAsync(EditionAddress address, ArtefactKey key) =>
            new(await rendering.RenderAsync(address, key, null, desk.Now) ?? throw new NotFoundException("edition"));
    }
}
