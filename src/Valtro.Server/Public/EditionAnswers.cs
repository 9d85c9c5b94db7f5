using NodaTime;
using Valtro.Application.Editions;
using Valtro.Application.Files;
using Valtro.Core;
using Valtro.Core.Editions;
using Valtro.Core.Events;
using Valtro.Core.Speaking;
using Valtro.Store;

namespace Valtro.Server.Public;

/// <summary>Sends to anybody what an address names.</summary>
public sealed class EditionAnswers(
    IHttpContextAccessor accessor, Artefacts artefacts, ReadingPages pages, News news, EventStreams streams, Fetches fetches,
        WrongSecrets wrongSecrets, PublicWork publicWork, IClock clock)
{
    private HttpContext Context => accessor.HttpContext!;

    private AddressOutside Asker => new(publicWork, Context);

    /// <param name="only">Slugs of the calendars that concern the reader, with commas between, or plates that they have or had; nothing
    /// for all.</param>
    /// <param name="about">Names of categories and tags; nothing for whatever it is about.</param>
    public async Task SendFeedAsync(EditionName name, string? only, string[] about)
    {
        if (await LocateAsync(name, ".ics") is not { } located
            || await FeedKeyAsync(located, only, about) is not { } key
            || await FindAsync(located, key, ".ics") is not { } feed)
            return;
        await SendFeedAsync(Context, located, feed, clock.GetCurrentInstant());
    }

    public Task SendFeedAsync(HttpContext context, Located located, Copy feed, Instant now)
    {
        Note(context, located, DeliveryStore.Feed, feed, now);
        context.Response.Headers.ContentDisposition = $"inline; filename=\"{located.Found.Address!.Slug}.ics\"";
        return SendAsync(context, located, feed, "text/calendar; charset=utf-8", now);
    }

    /// <summary>The feed, or what concerns some of its calendars. One that has left is left out, and where none stays there is a feed
    /// without entries; names of which none was ever here lead nowhere.</summary>
    private async Task<ArtefactKey?> FeedKeyAsync(Located located, string? only, string[] about)
    {
        var names = (only ?? "").Split(',', StringSplitOptions.RemoveEmptyEntries | StringSplitOptions.TrimEntries)
            .ToHashSet(StringComparer.OrdinalIgnoreCase);
        if (names.Count == 0)
            return ArtefactKey.FeedOf(Narrowing.Of(null, about));
        if (await FindAsync(located, ThisMonth(located), ".ics") is not { } part)
            return null;
        var all = part.Rendered.Edition.Sources;
        // Whom a name meant first it means for ever; only then comes what calendars are called now.
        var chosen = names.Select(name =>
            (name, Source: all.FirstOrDefault(source => source.Named.Contains(name, StringComparer.OrdinalIgnoreCase))
            ?? all.FirstOrDefault(source => source.Slug.Equals(name, StringComparison.OrdinalIgnoreCase)
                || source.Plate.Equals(name, StringComparison.OrdinalIgnoreCase))))
                .ToArray();
        var unknown = chosen.Where(one => one.Source is null).Select(one => one.name).ToArray();
        if (unknown.Length == chosen.Length && !await artefacts.HadCalendarsAsync(located, unknown, Asker))
        {
            await PublicAnswers.NotFoundAsync(Context);
            return null;
        }
        var slugs = chosen.Where(one => one.Source is not null).Select(one => one.Source!.Slug).ToHashSet();
        return ArtefactKey.FeedOf(Narrowing.Of(slugs.Count == all.Count ? null : slugs, about));
    }

    public async Task SendMonthAsync(EditionName name, string? month)
    {
        if (await LocateAsync(name, ".json") is not { } located)
            return;
        var isPart = ArtefactKey.TryPart(month, out var key);
        if (!isPart)
            key = ThisMonth(located);
        if (await FindAsync(located, key, ".json") is not { } rendered)
            return;
        if (month is not null && !isPart)
            await Problems.Of(Problem.Refused, Saying.Of("request.month"), [new Refusal("month", Saying.Of("request.month"))])
                .ExecuteAsync(Context);
        else
            await SendAsync(located, rendered, "application/json; charset=utf-8");
    }

    /// <summary>Dates of a span, in one of the forms in which they are taken along.</summary>
    /// <param name="only">Calendars, as of a feed.</param>
    public async Task SendTakenAsync(EditionName name, TakenForm form, LocalDate? from, LocalDate? to, string? only, string[] about)
    {
        var ending = EndingOf(form);
        if (await LocateAsync(name, ending) is not { } located
            || await FeedKeyAsync(located, only, about) is not { } feed)
            return;
        var taking = new Taking(form, from, to, feed.Narrowing ?? Narrowing.Of(null, []));
        if (!taking.IsPossible)
        {
            var why = Saying.Of("request.span", ("years", Taking.MostYears));
            await Problems.Of(Problem.Refused, why, [new Refusal("to", why)]).ExecuteAsync(Context);
            return;
        }
        if (await FindAsync(located, ArtefactKey.Taken(taking), ending) is not { } taken)
            return;
        Note(Context, located, form.ToString().ToLowerInvariant(), taken, clock.GetCurrentInstant());
        if (form is TakenForm.Snapshot or TakenForm.Csv)
            Context.Response.Headers.ContentDisposition =
                $"attachment; filename=\"{located.Found.Address!.Slug}.{(form == TakenForm.Csv ? "csv" : "ics")}\"";
        await SendAsync(located, taken, taking.ContentType);
    }

    /// <summary>What stands behind an edition's name.</summary>
    public static string EndingOf(TakenForm form) => form switch
    {
        TakenForm.Snapshot => "/snapshot.ics",
        TakenForm.Busy => ".ifb",
        TakenForm.JCal => ".jcal",
        TakenForm.Csv => ".csv",
        _ => "/v1.json",
    };

    /// <summary>For the home screen of a phone: of open editions only.</summary>
    public async Task SendManifestAsync(EditionName name)
    {
        if (await LocateAsync(name, "/app.webmanifest") is not { } located
            || await FindAsync(located, ThisMonth(located), "/app.webmanifest") is not { } part)
            return;
        var address = located.Found.Address!;
        var manifest = HomeScreen.Manifest(address, part.Rendered.Edition.Name, $"/c/{address.OrganisationSlug}/{address.Slug}");
        await SendAsync(located, new Copy(FrontPages.Plain(manifest, clock.GetCurrentInstant()), part.Age), FrontAnswers.ManifestType);
    }

    public async Task SendPageAsync(EditionName name, bool embedded)
    {
        var ending = embedded ? "/embed" : "";
        // The version first: the parts are then at least as new as the page says it is.
        if (await LocateAsync(name, ending) is not { } located
            || await OrSayWhyAsync(located, artefacts.PageAsync(located, Asker), ending) is not { } page)
            return;
        var address = located.Found.Address!;
        // An address that somebody mistyped still opens the calendar, at the nearest day.
        var asked = PageAsked.Of(
            page.Month.Rendered.Edition, PageQuestions.Of(Context.Request), embedded, address.TodayAt(clock.GetCurrentInstant()));
        if (await PartsAsync(
            located, ArtefactKey.Of(asked.Day.ToYearMonth()), page.Month.Rendered.Edition.IsWhole, ending) is not { } parts)
            return;
        Note(Context, located, embedded ? "embed" : "page", page.Feed, clock.GetCurrentInstant());
        if (embedded && Limits.ProgramOf(Context).IsBrowser && FramingSite() is { } site)
            fetches.AddSite(address, site);
        var edition = parts[0].Rendered.Edition;
        SecurityHeaders.ForReaders(Context.Response, edition.Sites, pages.StylesOf(edition));
        Rendered[] rendered = [.. parts.Select(part => part.Rendered)];
        var written = pages.Find(address, page.Version, rendered, asked)
            ?? (Asker.TryCause()
                ? pages.Write(address, page.Version, page.Feed.Rendered, rendered, asked)
                : throw new TooOftenException());
        if (edition.Look.Language.Length == 0)
            Context.Response.Headers.Append(
                Microsoft.Net.Http.Headers.HeaderNames.Vary, Microsoft.Net.Http.Headers.HeaderNames.AcceptLanguage);
        await SendAsync(located, new Copy(written, parts.Append(page.Feed).Max(part => part.Age)), "text/html; charset=utf-8");
    }

    /// <summary>What a page opens with: the month and the one after it, or all of an edition with a limit.</summary>
    private Task<Copy[]?> PartsAsync(Located located, ArtefactKey key, bool isWhole, string ending) =>
        OrSayWhyAsync(
            located,
            artefacts.FindAsync(
                located, isWhole ? [ArtefactKey.All] : [key, ArtefactKey.Of(key.Month!.Value.PlusMonths(1))], Asker),
            ending);

    /// <summary>What moved or was cancelled lately, for the page.</summary>
    public Task SendChangedAsync(EditionName name) =>
        SendAsync(name, ArtefactKey.Changed, "/changed.json", "application/json; charset=utf-8");

    /// <summary>The same as a feed of news.</summary>
    public Task SendAtomAsync(EditionName name) => SendAsync(name, ArtefactKey.News, ".atom", "application/atom+xml; charset=utf-8");

    public async Task SendEntryAsync(EditionName name, Uid id, string date)
    {
        var ending = $"/entries/{id.InAddress}/{date}";
        if (await LocateAsync(name, ending) is not { } located
            || await FindAsync(located, ArtefactKey.EntryPage(id, date), ending) is not { } page)
            return;
        SecurityHeaders.ForReaders(Context.Response, page.Rendered.Frame!.Sites, page.Rendered.Frame.Styles);
        if (page.Rendered.IsGone)
            await PublicAnswers.GoneAsync(Context, page.Rendered);
        else
            await SendAsync(located, page, "text/html; charset=utf-8");
    }

    /// <param name="date">One date alone; null for the whole event.</param>
    public async Task SendEntryFileAsync(EditionName name, Uid id, string? date)
    {
        var ending = date is null ? $"/entries/{id.InAddress}.ics" : $"/entries/{id.InAddress}/{date}.ics";
        if (await LocateAsync(name, ending) is not { } located
            || await FindAsync(located, ArtefactKey.EntryFile(id, date), ending) is not { } file)
            return;
        if (file.Rendered.IsGone)
        {
            await PublicAnswers.SayAsync(Context, StatusCodes.Status410Gone, "page.entryGone");
            return;
        }
        Context.Response.Headers.ContentDisposition = $"attachment; filename=\"{located.Found.Address!.Slug}.ics\"";
        await SendAsync(located, file, "text/calendar; charset=utf-8");
    }

    public async Task SendChangesAsync(EditionName name)
    {
        if (await LocateAsync(name, "/changes") is { } located && await FindAsync(located, ArtefactKey.Feed, "/changes") is not null)
            await StreamAsync([located.Found.Address!.Id], [("", name)]);
    }

    /// <summary>One stream for many editions: a browser keeps few connections to a server, and a page may hold many frames (RFC 9112
    /// 9.4).</summary>
    /// <param name="of">The paths of their pages. What leads nowhere is left out.</param>
    public async Task SendChangesOfAsync(string[] of)
    {
        var ids = new HashSet<Guid>();
        var editions = new List<(string, EditionName)>();
        foreach (var path in of.Distinct().Take(MostInStream))
        {
            if (EditionName.OfPath(path) is { IsImpossible: false } name && !(name.Secret is not null && wrongSecrets.IsSpent(Context)))
            {
                if ((await artefacts.LocateAsync(name, Asker)).Found.Address is { } address)
                {
                    ids.Add(address.Id);
                    editions.Add((path, name));
                }
                else if (name.Secret is not null)
                {
                    wrongSecrets.Spend(Context);
                }
            }
        }
        if (editions.Count == 0)
            await PublicAnswers.NotFoundAsync(Context);
        else
            await StreamAsync(ids, editions);
    }

    private Task StreamAsync(IReadOnlyCollection<Guid> ids, IReadOnlyList<(string, EditionName)> editions) =>
        streams.SendAsync(Context, news.Listeners, ids, (listener, ends) => news.SayAsync(editions, listener, ends));

    private const int MostInStream = 60;

    public async Task SendFileAsync(EditionName name, Guid id, string fileName, PictureSize size)
    {
        if (await LocateAsync(name, null) is not { } located
            || await FindAsync(located, ArtefactKey.File(id, fileName, size), null) is not { } file)
            return;
        FileAnswers.Describe(Context.Response, file.Rendered.File!.Value.Name, file.Rendered.File.Value.Type);
        await SendAsync(located, file, file.Rendered.File.Value.Type, seconds: 300);
    }

    private void Note(HttpContext context, Located located, string form, Copy copy, Instant now)
    {
        var request = context.Request.Headers;
        // What is last modified is said a second later than it was (PublicAnswers).
        Instant? since = request.IfModifiedSince.Count > 0 && context.Request.GetTypedHeaders().IfModifiedSince is { } said
            ? Instant.FromDateTimeOffset(said) - Duration.FromSeconds(1)
            : null;
        fetches.Add(
            Limits.ProgramOf(context), located.Found.Address!, form, copy.Rendered.Artefact.ChangedAt, request.IfNoneMatch, since, now);
    }

    /// <summary>The host of the page that holds the frame: empty where it does not say so, null where the page is our own.</summary>
    private string? FramingSite() =>
        !Uri.TryCreate(Context.Request.Headers.Referer, UriKind.Absolute, out var page) || page.Host.Length is 0 or > 200 ? ""
        : page.Authority == Context.Request.Host.Value ? null
        : page.IdnHost;

    private async Task SendAsync(EditionName name, ArtefactKey key, string ending, string contentType)
    {
        if (await LocateAsync(name, ending) is { } located && await FindAsync(located, key, ending) is { } copy)
            await SendAsync(located, copy, contentType);
    }

    /// <param name="seconds">How long it may be kept; null for as long as the edition says.</param>
    private Task SendAsync(Located located, Copy copy, string contentType, int? seconds = null) =>
        SendAsync(Context, located, copy, contentType, clock.GetCurrentInstant(), seconds);

    private static Task SendAsync(
        HttpContext context, Located located, Copy copy, string contentType, Instant now, int? seconds = null) =>
        PublicAnswers.SendAsync(context, copy, contentType, PublicAnswers.CacheControl(
            located.Name.Secret is not null, seconds ?? located.Found.Address!.KeptSeconds ?? Freshness.Usual.KeptSeconds), now);

    /// <summary>The edition, or an answer that says why there is none.</summary>
    /// <param name="ending">What stood behind the edition's name; null where it does not go on elsewhere.</param>
    private async Task<Located?> LocateAsync(EditionName name, string? ending)
    {
        if (name.Secret is not null)
        {
            Context.Response.Headers["Referrer-Policy"] = "no-referrer";
            Context.Response.Headers["X-Robots-Tag"] = "noindex, nofollow";
            if (wrongSecrets.IsSpent(Context))
                throw new TooOftenException();
        }
        var located = name.IsImpossible ? new Located(name, EditionFound.Nothing, false) : await artefacts.LocateAsync(name, Asker);
        var found = located.Found;
        if (found.Address is not null)
            return located;
        if (found.MovedTo is { } slug && ending is not null)
        {
            Context.Response.Headers.CacheControl = "no-store";
            Context.Response.Redirect(
                $"/c/{name.Organisation}/{slug}{ending}{Context.Request.QueryString}", permanent: false, preserveMethod: true);
        }
        else if (found.Ended is { } ended)
        {
            await PublicAnswers.SayAsync(Context, StatusCodes.Status410Gone, ended == "replaced" ? "page.replaced" : "page.withdrawn");
        }
        else
        {
            if (name.Secret is not null)
                wrongSecrets.Spend(Context);
            await PublicAnswers.NotFoundAsync(Context);
        }
        return null;
    }

    /// <summary>A part of the edition, or an answer that says why there is none.</summary>
    private Task<Copy?> FindAsync(Located located, ArtefactKey key, string? ending) =>
        OrSayWhyAsync(located, artefacts.FindAsync(located, key, Asker), ending);

    private async Task<T?> OrSayWhyAsync<T>(Located located, Task<T?> finding, string? ending)
    {
        if (await finding is { } found)
            return found;
        // What was there a moment ago may not be any more: asked again, the answer says why, as it would from now on.
        if (await LocateAsync(located.Name, ending) is not null)
            await PublicAnswers.NotFoundAsync(Context);
        return default;
    }

    private ArtefactKey ThisMonth(Located located) => ArtefactKey.Of(located.Found.Address!.MonthAt(clock.GetCurrentInstant()));
}
