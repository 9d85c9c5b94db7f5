using NodaTime;
using Valtro.Core.Disclosure;
using Valtro.Server.Api;
using Valtro.Store;

namespace Valtro.Server.Public;

/// <summary>What anybody may fetch: reading pages, embeds, feeds, months as JSON, files, and news of changes.</summary>
/// <remarks>An address that leads nowhere, one that is closed and one that never was are answered alike.</remarks>
internal static class PublicApi
{
    private const string NotHere = "There is no calendar at this address. It may have been closed or moved; ask whoever gave you the address.";

    private static readonly string[] Read = [HttpMethods.Get, HttpMethods.Head];

    public static bool IsPublic(PathString path) => path.StartsWithSegments("/c") || path.StartsWithSegments("/s");

    public static void MapPublic(this WebApplication app)
    {
        foreach (var edition in new[] { "/c/{organisation}/{edition}", "/s/{secret}" })
        {
            MapRead(app, edition, (EditionName name, string? month, Reader reader) => reader.SendPageAsync(name, month, embedded: false));
            MapRead(app, edition + "/embed", (EditionName name, string? month, Reader reader) => reader.SendPageAsync(name, month, embedded: true));
            MapRead(app, edition + ".ics", (EditionName name, Reader reader) => reader.SendFeedAsync(name));
            MapRead(app, edition + ".json", (EditionName name, string? month, Reader reader) => reader.SendMonthAsync(name, month));
            MapRead(app, edition + "/files/{id:guid}/{name}", (EditionName edition, Guid id, string name, Reader reader) => reader.SendFileAsync(edition, id, name));
            MapRead(app, edition + "/changes", (EditionName name, Reader reader) => reader.SendChangesAsync(name), [HttpMethods.Get]);
        }
        foreach (var rest in new[] { "/c/{**rest}", "/s/{**rest}" })
            MapRead(app, rest, (HttpContext context) => NotFoundAsync(context));
    }

    private static void MapRead(WebApplication app, string pattern, Delegate handler, string[]? methods = null) =>
        app.MapMethods(pattern, methods ?? Read, handler).RequireRateLimiting(Limits.Public).ExcludeFromDescription();

    private static Task NotFoundAsync(HttpContext context, int status = StatusCodes.Status404NotFound, string sentence = NotHere)
    {
        context.Response.StatusCode = status;
        context.Response.Headers.CacheControl = "no-store";
        context.Response.ContentType = "text/plain; charset=utf-8";
        return HttpMethods.IsHead(context.Request.Method) ? Task.CompletedTask : context.Response.WriteAsync(sentence);
    }

    /// <summary>Sends to anybody what an address names.</summary>
    public sealed class Reader(
        IHttpContextAccessor accessor, Artefacts artefacts, ReadingPages pages, News news, Fetches fetches, EventStore events, CalendarStore calendars, FileStore files,
        WrongSecrets wrongSecrets, IClock clock)
    {
        private HttpContext Context => accessor.HttpContext!;

        public async Task SendFeedAsync(EditionName name)
        {
            if (await LocateAsync(name, ".ics") is not { } address)
                return;
            if (await artefacts.FindAsync(name, ArtefactKey.Feed) is not { } feed)
            {
                await NotFoundAsync(Context);
                return;
            }
            fetches.Note(Context, address, "feed");
            Context.Response.Headers.ContentDisposition = $"inline; filename=\"{address.Slug}.ics\"";
            await PublicAnswers.SendAsync(Context, feed, "text/calendar; charset=utf-8");
        }

        public async Task SendMonthAsync(EditionName name, string? month)
        {
            if (await LocateAsync(name, ".json") is not { } address)
                return;
            var isMonth = ArtefactKey.TryMonth(month, out var key);
            if (!isMonth)
                key = ThisMonth(address);
            if (await artefacts.FindAsync(name, key) is not { } rendered)
                await NotFoundAsync(Context);
            else if (month is not null && !isMonth)
                await Problems.Of(Problem.Refused, "The month has to be written like 2026-11, from 1900 to 2199.").ExecuteAsync(Context);
            else
                await PublicAnswers.SendAsync(Context, rendered, "application/json; charset=utf-8");
        }

        public async Task SendPageAsync(EditionName name, string? month, bool embedded)
        {
            if (await LocateAsync(name, embedded ? "/embed" : "") is not { } address)
                return;
            // An address that somebody mistyped still opens the calendar, at this month.
            if (!ArtefactKey.TryMonth(month, out var key))
                key = ThisMonth(address);
            // The feed first: the months are then at least as new as the version that the page says it has.
            if (await artefacts.FindAsync(name, ArtefactKey.Feed) is not { } feed
                || await artefacts.FindAsync(name, key) is not { } first
                || await artefacts.FindAsync(name, ArtefactKey.Of(key.Month!.Value.PlusMonths(1))) is not { } second)
            {
                await NotFoundAsync(Context);
                return;
            }
            fetches.Note(Context, address, embedded ? "embed" : "page");
            SecurityHeaders.ForReaders(Context.Response, embedded);
            await PublicAnswers.SendAsync(Context, pages.Write(feed, first, second, embedded), "text/html; charset=utf-8");
        }

        public async Task SendChangesAsync(EditionName name)
        {
            if (await LocateAsync(name, "/changes") is not { } address)
                return;
            if (await artefacts.FindAsync(name, ArtefactKey.Feed) is null)
                await NotFoundAsync(Context);
            else
                await news.StreamAsync(Context, address.Id, name);
        }

        /// <summary>A file goes to those who see all of an event that holds it, on this very calendar.</summary>
        public async Task SendFileAsync(EditionName name, Guid id, string fileName)
        {
            if (await LocateAsync(name, null) is not { } address)
                return;
            using var within = Wall.Within(address.OrganisationId);
            var calendar = await calendars.FindAsync(address.OrganisationId, address.CalendarId);
            var now = clock.GetCurrentInstant();
            var isTold = calendar is not null && (await events.WithFileAsync(address.OrganisationId, id)).Any(happening =>
                happening.Calendars.Contains(calendar.Id)
                && Disclosed.ForReaders(happening, Visibility.Of(happening, calendar.Disclosure, address.Audience, now)) is { } told
                && told.Files.Any(file => file.Id == id && file.Name == fileName));
            if (!isTold || await files.FindAsync(address.OrganisationId, id) is not { } file)
                await NotFoundAsync(Context);
            else
                await FileAnswers.Of(Context, file, "public, max-age=300").ExecuteAsync(Context);
        }

        /// <summary>The edition, or an answer that says why there is none.</summary>
        /// <param name="ending">What stood behind the edition's name; null where it does not go on elsewhere.</param>
        private async Task<EditionAddress?> LocateAsync(EditionName name, string? ending)
        {
            if (name.Secret is not null)
            {
                Context.Response.Headers["Referrer-Policy"] = "no-referrer";
                Context.Response.Headers["X-Robots-Tag"] = "noindex, nofollow";
                if (wrongSecrets.HasTriedTooMany(Context))
                {
                    await Limits.RejectAsync(Context);
                    return null;
                }
            }
            var found = await artefacts.LocateAsync(name);
            if (found.Address is { } address)
                return address;
            if (found.MovedTo is { } slug && ending is not null)
            {
                Context.Response.Headers.CacheControl = "no-store";
                Context.Response.Redirect($"/c/{name.Organisation}/{slug}{ending}{Context.Request.QueryString}", permanent: false, preserveMethod: true);
            }
            else if (found.Ended is { } ended)
            {
                await NotFoundAsync(Context, StatusCodes.Status410Gone, ended == "replaced"
                    ? "This secret address was replaced by another. Ask whoever gave it to you for the new one."
                    : "This secret address was withdrawn. Ask whoever gave it to you.");
            }
            else
            {
                if (name.Secret is not null)
                    wrongSecrets.Count(Context);
                await NotFoundAsync(Context);
            }
            return null;
        }

        private ArtefactKey ThisMonth(EditionAddress address) => ArtefactKey.Of(address.MonthAt(clock.GetCurrentInstant()));
    }
}
