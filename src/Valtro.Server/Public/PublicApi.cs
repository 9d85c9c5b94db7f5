using NodaTime;
using Valtro.Server.Api;

namespace Valtro.Server.Public;

/// <summary>What anybody may fetch: reading pages, embeds, feeds, months as JSON, and news of changes.</summary>
internal static class PublicApi
{
    private const string NotHere = "There is no calendar at this address. It may have been closed or moved; ask whoever gave you the address.";

    public static void MapPublic(this WebApplication app)
    {
        var group = app.MapGroup("/c/{organisation}").RequireRateLimiting(Limits.Public).ExcludeFromDescription();
        group.MapMethods("/{edition}.ics", Read, SendFeed);
        group.MapMethods("/{edition}.json", Read, SendMonth);
        group.MapMethods("/{edition}", Read, (string organisation, string edition, string? month, HttpContext context, Reader reader) => reader.SendPageAsync(context, organisation, edition, month, embedded: false));
        group.MapMethods("/{edition}/embed", Read, (string organisation, string edition, string? month, HttpContext context, Reader reader) => reader.SendPageAsync(context, organisation, edition, month, embedded: true));
        group.MapGet("/{edition}/changes", SendChanges);
        group.MapMethods("/{**rest}", Read, (HttpContext context) => NotFoundAsync(context));
    }

    private static readonly string[] Read = [HttpMethods.Get, HttpMethods.Head];

    private static async Task SendFeed(string organisation, string edition, HttpContext context, Artefacts artefacts)
    {
        if (await artefacts.FindAsync(organisation, edition, ArtefactKey.Feed) is { } feed)
        {
            context.Response.Headers.ContentDisposition = $"inline; filename=\"{edition}.ics\"";
            await PublicAnswers.SendAsync(context, feed, "text/calendar; charset=utf-8");
        }
        else
        {
            await NotFoundAsync(context);
        }
    }

    private static async Task SendMonth(string organisation, string edition, string? month, HttpContext context, Artefacts artefacts, Reader reader)
    {
        var isMonth = ArtefactKey.TryMonth(month, out var key);
        if (!isMonth && await reader.ThisMonthAsync(organisation, edition) is { } now)
            key = now;
        if (await artefacts.FindAsync(organisation, edition, key) is not { } rendered)
            await NotFoundAsync(context);
        else if (month is not null && !isMonth)
            await Problems.Of(Problem.Refused, "The month has to be written like 2026-11, from 1900 to 2199.").ExecuteAsync(context);
        else
            await PublicAnswers.SendAsync(context, rendered, "application/json; charset=utf-8");
    }

    private static async Task SendChanges(string organisation, string edition, HttpContext context, Artefacts artefacts, News news)
    {
        if (await artefacts.FindAsync(organisation, edition, ArtefactKey.Feed) is not { } feed)
        {
            await NotFoundAsync(context);
            return;
        }
        await news.StreamAsync(context, feed.Artefact.EditionId, organisation, edition);
    }

    private static Task NotFoundAsync(HttpContext context)
    {
        context.Response.StatusCode = StatusCodes.Status404NotFound;
        context.Response.Headers.CacheControl = "no-store";
        return context.Response.WriteAsync(NotHere);
    }

    /// <summary>Sends reading pages.</summary>
    public sealed class Reader(Artefacts artefacts, ReadingPages pages, IClock clock)
    {
        /// <summary>The month it is now where the edition's calendar is kept, or null when there is no such edition.</summary>
        public async Task<ArtefactKey?> ThisMonthAsync(string organisation, string edition) =>
            await artefacts.AddressOfAsync(organisation, edition) is { } address ? ArtefactKey.Of(address.MonthAt(clock.GetCurrentInstant())) : null;

        public async Task SendPageAsync(HttpContext context, string organisation, string edition, string? month, bool embedded)
        {
            // An address that somebody mistyped still opens the calendar, at this month.
            if (!ArtefactKey.TryMonth(month, out var key) && await ThisMonthAsync(organisation, edition) is { } now)
                key = now;
            // The feed first: the months are then at least as new as the version that the page says it has.
            if (key.Month is null
                || await artefacts.FindAsync(organisation, edition, ArtefactKey.Feed) is not { } feed
                || await artefacts.FindAsync(organisation, edition, key) is not { } first
                || await artefacts.FindAsync(organisation, edition, ArtefactKey.Of(key.Month!.Value.PlusMonths(1))) is not { } second)
            {
                await NotFoundAsync(context);
                return;
            }
            SecurityHeaders.ForReaders(context.Response, embedded);
            await PublicAnswers.SendAsync(context, pages.Write(feed, first, second, embedded), "text/html; charset=utf-8");
        }
    }
}
