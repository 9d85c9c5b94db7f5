using NodaTime;
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
            MapRead(app, edition + ".ics", (EditionName name, string? only, Reader reader) => reader.SendFeedAsync(name, only));
            MapRead(app, edition + ".json", (EditionName name, string? month, Reader reader) => reader.SendMonthAsync(name, month));
            MapRead(app, edition + ".atom", (EditionName name, Reader reader) => reader.SendAtomAsync(name));
            MapRead(app, edition + "/changed.json", (EditionName name, Reader reader) => reader.SendChangedAsync(name));
            MapRead(app, edition + "/entries/{id:guid}/{date}", (EditionName name, Guid id, string date, Reader reader) => reader.SendEntryAsync(name, id, date));
            MapRead(app, edition + "/entries/{id:guid}.ics", (EditionName name, Guid id, Reader reader) => reader.SendEntryFileAsync(name, id, null));
            MapRead(app, edition + "/entries/{id:guid}/{date}.ics", (EditionName name, Guid id, string date, Reader reader) => reader.SendEntryFileAsync(name, id, date));
            MapRead(app, edition + "/files/{id:guid}/{name}", (EditionName edition, Guid id, string name, int? width, Reader reader) => reader.SendFileAsync(edition, id, name, width));
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
        IHttpContextAccessor accessor, Artefacts artefacts, Rendering rendering, EditionReadings readings, ReadingPages pages, EntryPages entryPages, AtomFeeds atoms, News news,
        Fetches fetches, EventStore events, ListStore lists, FileStore files, Pictures pictures,
        WrongSecrets wrongSecrets, IClock clock)
    {
        private HttpContext Context => accessor.HttpContext!;

        /// <param name="only">Plates of the calendars that concern the reader, with commas between; nothing for all.</param>
        public async Task SendFeedAsync(EditionName name, string? only)
        {
            if (await LocateAsync(name, ".ics") is not { } address)
                return;
            var plates = (only ?? "").Split(',', StringSplitOptions.RemoveEmptyEntries | StringSplitOptions.TrimEntries);
            var key = plates.Length is 0 or > Core.Editions.Edition.MostSources ? ArtefactKey.Feed : ArtefactKey.FeedOf(plates.Select(plate => plate.ToUpperInvariant()));
            if (await artefacts.FindAsync(name, key) is not { } feed)
            {
                await LostAsync(name, ".ics");
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
            var isPart = ArtefactKey.TryPart(month, out var key);
            if (!isPart)
                key = ThisMonth(address);
            if (await artefacts.FindAsync(name, key) is not { } rendered)
                await LostAsync(name, ".json");
            else if (month is not null && !isPart)
                await Problems.Of(Problem.Refused, "The month has to be written like 2026-11, from 1900 to 2199.").ExecuteAsync(Context);
            else
                await PublicAnswers.SendAsync(Context, rendered, "application/json; charset=utf-8");
        }

        public async Task SendPageAsync(EditionName name, string? month, bool embedded)
        {
            if (await LocateAsync(name, embedded ? "/embed" : "") is not { } address)
                return;
            // An address that somebody mistyped still opens the calendar, at this month.
            if (!ArtefactKey.TryPart(month, out var key) || key.Month is null)
                key = ThisMonth(address);
            // The feed first: the months are then at least as new as the version that the page says it has.
            if (await artefacts.FindAsync(name, ArtefactKey.Feed) is not { } feed || await PartsAsync(name, key) is not { } parts)
            {
                await LostAsync(name, embedded ? "/embed" : "");
                return;
            }
            fetches.Note(Context, address, embedded ? "embed" : "page");
            SecurityHeaders.ForReaders(Context.Response, parts[0].Part.Edition.Sites, pages.StylesOf(parts[0].Part.Edition));
            await PublicAnswers.SendAsync(Context, pages.Write(address, feed, parts, embedded, address.TodayAt(clock.GetCurrentInstant()), Context.Request.Query.Keys.Any(key => key is "date" or "only") ? null : ViewAsked()), "text/html; charset=utf-8");
        }

        /// <summary>One of the views by its word; everything else is the usual one, so that nobody can have any number of pages made.</summary>
        private string ViewAsked() => Enum.TryParse<Core.Editions.EditionView>(Context.Request.Query["view"], ignoreCase: true, out var view) && Enum.IsDefined(view) ? view.ToString() : "";

        /// <summary>What a page opens with: the month and the one after it, or all of an edition with a limit.</summary>
        private async Task<Rendered[]?> PartsAsync(EditionName name, ArtefactKey key)
        {
            if (await artefacts.FindAsync(name, key) is not { } first)
                return null;
            var edition = first.Part.Edition;
            if (edition.IsWhole)
                return await artefacts.FindAsync(name, ArtefactKey.All) is { } all ? [all] : null;
            // An edition that begins later opens with its beginning.
            if (edition.From?.ToYearMonth() is { } begins && begins.CompareTo(key.Month!.Value) > 0)
                return await PartsAsync(name, ArtefactKey.Of(begins));
            return await artefacts.FindAsync(name, ArtefactKey.Of(key.Month!.Value.PlusMonths(1))) is { } second ? [first, second] : null;
        }

        /// <summary>What moved or was cancelled lately, for the page.</summary>
        public async Task SendChangedAsync(EditionName name)
        {
            if (await LocateAsync(name, "/changed.json") is null)
                return;
            if (await artefacts.FindAsync(name, ArtefactKey.Changed) is { } changed)
                await PublicAnswers.SendAsync(Context, changed, "application/json; charset=utf-8");
            else
                await LostAsync(name, "/changed.json");
        }

        /// <summary>The same as a feed of news.</summary>
        public async Task SendAtomAsync(EditionName name)
        {
            if (await LocateAsync(name, ".atom") is not { } address)
                return;
            if (await artefacts.FindAsync(name, ArtefactKey.Changed) is not { } changed || await artefacts.FindAsync(name, ThisMonth(address)) is not { } part)
            {
                await LostAsync(name, ".atom");
                return;
            }
            var content = atoms.Write(address, part.Part.Edition, System.Text.Json.JsonSerializer.Deserialize<ChangesBody>(changed.Artefact.Content, Json.Options)!, changed.Artefact.ChangedAt);
            await PublicAnswers.SendAsync(Context, new Rendered(changed.Artefact with { Content = content, Etag = $"{changed.Artefact.Etag}-{address.Secret?[..4]}" }), "application/atom+xml; charset=utf-8");
        }

        public async Task SendEntryAsync(EditionName name, Guid id, string date)
        {
            if (await LocateAsync(name, $"/entries/{id}/{date}") is not { } address)
                return;
            if (!OccurrenceTimes.TryReadName(date, out var recurrenceId) || await rendering.EntryAsync(address, id, recurrenceId, clock.GetCurrentInstant()) is not { } found)
            {
                await NotFoundAsync(Context);
                return;
            }
            using var within = Wall.Within(address.OrganisationId);
            var place = (await lists.PlacesAsync(address.OrganisationId)).FirstOrDefault(place => string.Equals(place.Name, found.Body.Place, StringComparison.OrdinalIgnoreCase));
            var styles = entryPages.StylesOf(found.Reading);
            SecurityHeaders.ForReaders(Context.Response, found.Reading.Checked.Sites, styles);
            Context.Response.Headers.CacheControl = PublicAnswers.Cached;
            Context.Response.ContentType = "text/html; charset=utf-8";
            if (!HttpMethods.IsHead(Context.Request.Method))
                await Context.Response.WriteAsync(entryPages.Write(found.Reading, styles, found.Event, found.Entry, found.Body, place));
        }

        /// <param name="date">One date alone; null for the whole event.</param>
        public async Task SendEntryFileAsync(EditionName name, Guid id, string? date)
        {
            if (await LocateAsync(name, date is null ? $"/entries/{id}.ics" : $"/entries/{id}/{date}.ics") is not { } address)
                return;
            var now = clock.GetCurrentInstant();
            using var within = Wall.Within(address.OrganisationId);
            var content = date is null ? await WholeFileAsync(address, id, now) : await DateFileAsync(address, id, date, now);
            if (content is null)
            {
                await NotFoundAsync(Context);
                return;
            }
            Context.Response.Headers.CacheControl = PublicAnswers.Cached;
            Context.Response.ContentType = "text/calendar; charset=utf-8";
            Context.Response.Headers.ContentDisposition = $"attachment; filename=\"{address.Slug}.ics\"";
            if (!HttpMethods.IsHead(Context.Request.Method))
                await Context.Response.Body.WriteAsync(content);
        }

        private async Task<byte[]?> WholeFileAsync(EditionAddress address, Guid id, Instant now) =>
            await readings.FindAsync(address) is { } reading && await events.WithUidAsync(address.OrganisationId, id) is { } happening
            && rendering.IsKnownBy(reading, happening, id, now)
                ? rendering.File(reading, happening, null, now)
                : null;

        private async Task<byte[]?> DateFileAsync(EditionAddress address, Guid id, string date, Instant now) =>
            OccurrenceTimes.TryReadName(date, out var recurrenceId) && await rendering.EntryAsync(address, id, recurrenceId, now) is { } found
                ? rendering.File(found.Reading, found.Event, found.Entry, now)
                : null;

        public async Task SendChangesAsync(EditionName name)
        {
            if (await LocateAsync(name, "/changes") is not { } address)
                return;
            if (await artefacts.FindAsync(name, ArtefactKey.Feed) is null)
                await LostAsync(name, "/changes");
            else
                await news.StreamAsync(Context, address.Id, name);
        }

        /// <summary>A file goes to those who see all of an event that holds it, in this very edition.</summary>
        /// <param name="width">Of a picture: no more than so many dots across.</param>
        public async Task SendFileAsync(EditionName name, Guid id, string fileName, int? width)
        {
            if (await LocateAsync(name, null) is not { } address)
                return;
            using var within = Wall.Within(address.OrganisationId);
            var isTold = await readings.FindAsync(address) is { } reading
                && reading.CompositionAt(clock.GetCurrentInstant()).Tells(await events.WithFileAsync(address.OrganisationId, id), id, fileName);
            if (!isTold || await files.FindAsync(address.OrganisationId, id) is not { } file)
                await NotFoundAsync(Context);
            else
                await FileAnswers.Of(Context, pictures.Narrowed(file, width), "public, max-age=300").ExecuteAsync(Context);
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

        /// <summary>What was there a moment ago is not any more: asked again, the answer says why, as it would from now on.</summary>
        private async Task LostAsync(EditionName name, string ending)
        {
            if (await LocateAsync(name, ending) is not null)
                await NotFoundAsync(Context);
        }

        private ArtefactKey ThisMonth(EditionAddress address) => ArtefactKey.Of(address.MonthAt(clock.GetCurrentInstant()));
    }
}
