using System.Globalization;
using System.Text;
using System.Xml;
using System.Xml.Linq;
using NodaTime;
using Valtro.Application.Dav;
using Valtro.Application.Editions;
using Valtro.Core.Events;
using Valtro.Core.ICalendar;
using Valtro.Store;
using static Valtro.Server.Dav.DavXml;

namespace Valtro.Server.Dav;

/// <summary>What a member's calendar program is answered (RFC 4918, RFC 4791, RFC 6578): it reads, and changes nothing.</summary>
/// <remarks>
/// <c>/dav/</c> leads to <c>/dav/people/{account}/</c> (principal), that to <c>/dav/calendars/{account}/</c> (home), in it
/// <c>{edition}/</c> and <c>{edition}/{name}.ics</c>.
/// </remarks>
public sealed class DavAnswers(DavCalendars calendars, AppPasswordStore store, IClock clock)
{
    public const string Root = "/dav/";

    private const string TokenStart = "urn:valtro:sync:";

    private const int MostNamed = 5_000;

    private static readonly XName CalendarData = CalDav + "calendar-data";

    /// <summary>Who asks, and for what.</summary>
    private sealed record Asked(HttpContext Context, Guid AccountId, string Email, string Path)
    {
        public string Principal => $"{Root}people/{AccountId}/";

        public string Home => $"{Root}calendars/{AccountId}/";
    }

    public async Task AnswerAsync(HttpContext context, Guid accountId, string email, string path)
    {
        context.Response.Headers["DAV"] = "1, 3, calendar-access";
        context.Response.Headers.CacheControl = "private, no-cache";
        var asked = new Asked(context, accountId, email, path);
        var method = context.Request.Method;
        try
        {
            await (method switch
            {
                "OPTIONS" => OptionsAsync(context),
                "PROPFIND" => PropfindAsync(asked),
                "REPORT" => ReportAsync(asked),
                "GET" or "HEAD" => GetAsync(asked),
                // Nothing is changed here: who may says so on the desk (RFC 3744 7.1.1).
                _ => RefuseAsync(context, StatusCodes.Status403Forbidden, WebDav + "need-privileges"),
            });
        }
        catch (XmlException)
        {
            await SayAsync(context, StatusCodes.Status400BadRequest, "dav.notRead");
        }
    }

    private static Task OptionsAsync(HttpContext context)
    {
        context.Response.Headers.Allow = "OPTIONS, GET, HEAD, PROPFIND, REPORT";
        context.Response.StatusCode = StatusCodes.Status204NoContent;
        return Task.CompletedTask;
    }

    private static Task NotFoundAsync(Asked asked) => SayAsync(asked.Context, StatusCodes.Status404NotFound, "dav.notHere");

    // ---- where something is

    private static bool IsRoot(string path) => path.Trim('/').Length == 0;

    /// <summary>The parts of a path below the home; null where it is elsewhere, or somebody else's.</summary>
    private static string[]? BelowHome(Asked asked)
    {
        var parts = asked.Path.Trim('/').Split('/');
        return parts.Length >= 2 && parts[0] == "calendars" && parts[1] == $"{asked.AccountId}" && parts.Length <= 4 ? parts[2..] : null;
    }

    private static bool IsPrincipal(Asked asked) => asked.Path.Trim('/') == $"people/{asked.AccountId}" || asked.Path.Trim('/') == "people";

    private async Task<(DavCollection Collection, Func<Task<IReadOnlyList<EditionObject>>> Objects)?> FindAsync(Asked asked, string part) =>
        Guid.TryParse(part, out var id) ? await calendars.FindAsync(asked.AccountId, id) : null;

    private static string PathOf(Asked asked, DavCollection collection) => $"{asked.Home}{collection.EditionId}/";

    private static string PathOf(Asked asked, DavCollection collection, EditionObject one) =>
        $"{PathOf(asked, collection)}{Uri.EscapeDataString(one.Name)}.ics";

    // ---- what it says of itself

    private static Dictionary<XName, object?[]> Common(Asked asked, params object?[] types) => new()
    {
        [WebDav + "resourcetype"] = types,
        [WebDav + "current-user-principal"] = [Href(asked.Principal)],
        [WebDav + "owner"] = [Href(asked.Principal)],
        [WebDav + "current-user-privilege-set"] =
            [new XElement(WebDav + "privilege", new XElement(WebDav + "read")),
                new XElement(WebDav + "privilege", new XElement(WebDav + "read-current-user-privilege-set")),
                new XElement(WebDav + "privilege", new XElement(CalDav + "read-free-busy"))],
    };

    private static Dictionary<XName, object?[]> OfPrincipal(Asked asked, bool isRoot)
    {
        var has = isRoot
            ? Common(asked, new XElement(WebDav + "collection"))
            : Common(asked, new XElement(WebDav + "collection"), new XElement(WebDav + "principal"));
        has[WebDav + "displayname"] = [asked.Email];
        has[WebDav + "principal-URL"] = [Href(asked.Principal)];
        has[WebDav + "principal-collection-set"] = [Href($"{Root}people/")];
        has[CalDav + "calendar-home-set"] = [Href(asked.Home)];
        has[CalDav + "calendar-user-address-set"] = [Href($"mailto:{asked.Email}")];
        return has;
    }

    private static Dictionary<XName, object?[]> OfHome(Asked asked)
    {
        var has = Common(asked, new XElement(WebDav + "collection"));
        has[WebDav + "displayname"] = ["Valtro"];
        return has;
    }

    private static Dictionary<XName, object?[]> OfCollection(Asked asked, DavCollection collection)
    {
        var has = Common(asked, new XElement(WebDav + "collection"), new XElement(CalDav + "calendar"));
        has[WebDav + "displayname"] = [collection.Name];
        has[CalDav + "calendar-description"] = [collection.Description];
        has[CalDav + "supported-calendar-component-set"] = [new XElement(CalDav + "comp", new XAttribute("name", "VEVENT"))];
        has[CalDav + "supported-calendar-data"] =
            [new XElement(CalendarData, new XAttribute("content-type", "text/calendar"), new XAttribute("version", "2.0"))];
        has[WebDav + "sync-token"] = [TokenStart + collection.Token];
        has[WebDav + "getetag"] = [$"\"{collection.Token}\""];
        has[WebDav + "getcontenttype"] = ["text/calendar; charset=utf-8"];
        has[WebDav + "supported-report-set"] =
            [.. new[] { CalDav + "calendar-query", CalDav + "calendar-multiget", CalDav + "free-busy-query", WebDav + "sync-collection" }
                .Select(name => new XElement(WebDav + "supported-report", new XElement(WebDav + "report", new XElement(name))))];
        return has;
    }

    private static Dictionary<XName, object?[]> OfObject(Asked asked, EditionObject one)
    {
        var has = Common(asked);
        has[WebDav + "getetag"] = [$"\"{one.ETag}\""];
        has[WebDav + "getcontenttype"] = ["text/calendar; charset=utf-8; component=VEVENT"];
        has[WebDav + "getcontentlength"] = [one.Content.Length.ToString(CultureInfo.InvariantCulture)];
        has[WebDav + "getlastmodified"] = [Moment(one.ChangedAt)];
        has[CalendarData] = [Encoding.UTF8.GetString(one.Content)];
        return has;
    }

    // ---- PROPFIND (RFC 4918 9.1)

    private async Task PropfindAsync(Asked asked)
    {
        var body = await ReadAsync(asked.Context.Request);
        if (body is not null && body.Name != WebDav + "propfind")
            throw new XmlException("That is no propfind.");
        var namesOnly = body?.Element(WebDav + "propname") is not null;
        var wanted = Wanted(body);
        var depth = asked.Context.Request.Headers["Depth"].ToString();
        if (depth is not ("0" or "1"))
        {
            await RefuseAsync(asked.Context, StatusCodes.Status403Forbidden, WebDav + "propfind-finite-depth");
            return;
        }
        var isDeep = depth == "1";
        var answers = new List<XElement>();
        void Say(string path, Dictionary<XName, object?[]> has) => answers.Add(Response(path, wanted, has, namesOnly));
        if (IsRoot(asked.Path))
            Say(Root, OfPrincipal(asked, isRoot: true));
        else if (IsPrincipal(asked))
            Say(asked.Principal, OfPrincipal(asked, isRoot: false));
        else if (BelowHome(asked) is not { } below)
        {
            await NotFoundAsync(asked);
            return;
        }
        else if (below.Length == 0)
        {
            Say(asked.Home, OfHome(asked));
            foreach (var collection in isDeep ? await calendars.ListAsync(asked.AccountId) : [])
                Say(PathOf(asked, collection), OfCollection(asked, collection));
        }
        else if (await FindAsync(asked, below[0]) is not var (found, objects))
        {
            await NotFoundAsync(asked);
            return;
        }
        else if (below.Length == 1)
        {
            Say(PathOf(asked, found), OfCollection(asked, found));
            foreach (var one in isDeep ? await objects() : [])
                Say(PathOf(asked, found, one), OfObject(asked, one));
        }
        else if (Named(await objects(), below[1]) is { } one)
            Say(PathOf(asked, found, one), OfObject(asked, one));
        else
        {
            await NotFoundAsync(asked);
            return;
        }
        await SendAsync(asked.Context, StatusCodes.Status207MultiStatus, new XElement(WebDav + "multistatus", answers));
    }

    /// <returns>Null for all that there are.</returns>
    private static IReadOnlyList<XName>? Wanted(XElement? body) =>
        body?.Element(WebDav + "prop") is { } prop ? [.. prop.Elements().Select(one => one.Name).Distinct()] : null;

    private static EditionObject? Named(IEnumerable<EditionObject> objects, string part) =>
        objects.FirstOrDefault(one => $"{one.Name}.ics" == Uri.UnescapeDataString(part));

    // ---- GET

    private async Task GetAsync(Asked asked)
    {
        var context = asked.Context;
        if (BelowHome(asked) is not { Length: 2 } below)
        {
            context.Response.Headers.Allow = "OPTIONS, PROPFIND, REPORT";
            await SayAsync(context, StatusCodes.Status405MethodNotAllowed, "dav.forPrograms");
            return;
        }
        if (await FindAsync(asked, below[0]) is not var (_, objects) || Named(await objects(), below[1]) is not { } one)
        {
            await NotFoundAsync(asked);
            return;
        }
        context.Response.Headers.ETag = $"\"{one.ETag}\"";
        context.Response.Headers.LastModified = Moment(one.ChangedAt);
        if (context.Request.Headers.IfNoneMatch == $"\"{one.ETag}\"")
        {
            context.Response.StatusCode = StatusCodes.Status304NotModified;
            return;
        }
        context.Response.ContentType = "text/calendar; charset=utf-8";
        context.Response.ContentLength = one.Content.Length;
        if (context.Request.Method != "HEAD")
            await context.Response.Body.WriteAsync(one.Content, context.RequestAborted);
    }

    // ---- REPORT (RFC 3253 3.6)

    private async Task ReportAsync(Asked asked)
    {
        var body = await ReadAsync(asked.Context.Request) ?? throw new XmlException("A report says what it wants.");
        if (BelowHome(asked) is not { Length: 1 } below || await FindAsync(asked, below[0]) is not var (found, objects))
        {
            if (BelowHome(asked) is not null and not { Length: 1 } || IsRoot(asked.Path) || IsPrincipal(asked))
                await RefuseAsync(asked.Context, StatusCodes.Status403Forbidden, WebDav + "supported-report");
            else
                await NotFoundAsync(asked);
            return;
        }
        if (body.Name == CalDav + "calendar-query")
            await QueryAsync(asked, found, objects, body);
        else if (body.Name == CalDav + "calendar-multiget")
            await MultigetAsync(asked, found, objects, body);
        else if (body.Name == WebDav + "sync-collection")
            await SyncAsync(asked, found, objects, body);
        else if (body.Name == CalDav + "free-busy-query")
            await FreeBusyAsync(asked, objects, body);
        else
            await RefuseAsync(asked.Context, StatusCodes.Status403Forbidden, WebDav + "supported-report");
    }

    private async Task QueryAsync(Asked asked, DavCollection found, Func<Task<IReadOnlyList<EditionObject>>> objects, XElement body)
    {
        if (DavQuestion.Read(body.Element(CalDav + "filter")) is not { } question)
        {
            await RefuseAsync(asked.Context, StatusCodes.Status403Forbidden, CalDav + "supported-filter");
            return;
        }
        var wanted = Wanted(body);
        await SendAsync(asked.Context, StatusCodes.Status207MultiStatus, new XElement(WebDav + "multistatus",
            question.Of(await objects()).Select(one => Response(PathOf(asked, found, one), wanted, OfObject(asked, one)))));
    }

    private static async Task MultigetAsync(
        Asked asked, DavCollection found, Func<Task<IReadOnlyList<EditionObject>>> objects, XElement body)
    {
        var (wanted, all) = (Wanted(body), (await objects()).ToDictionary(one => $"{one.Name}.ics"));
        var answers = body.Elements(WebDav + "href").Take(MostNamed).Select(href =>
        {
            // A path, or the whole address (RFC 4918 8.3).
            var path = Uri.TryCreate(href.Value.Trim(), UriKind.Absolute, out var whole) && whole.Scheme is "http" or "https"
                ? whole!.AbsolutePath
                : href.Value.Trim();
            var start = path.LastIndexOf('/') + 1;
            return path[..start].TrimEnd('/').EndsWith($"{found.EditionId}", StringComparison.OrdinalIgnoreCase)
                && all.GetValueOrDefault(Uri.UnescapeDataString(path[start..])) is { } one
                    ? Response(PathOf(asked, found, one), wanted, OfObject(asked, one))
                    : Gone(href.Value);
        });
        await SendAsync(asked.Context, StatusCodes.Status207MultiStatus, new XElement(WebDav + "multistatus", answers));
    }

    /// <summary>What is another since the program asked last (RFC 6578 3).</summary>
    private async Task SyncAsync(Asked asked, DavCollection found, Func<Task<IReadOnlyList<EditionObject>>> objects, XElement body)
    {
        var said = body.Element(WebDav + "sync-token")?.Value.Trim() ?? "";
        var wanted = Wanted(body);
        IReadOnlyDictionary<string, string>? known = new Dictionary<string, string>();
        if (said.Length > 0)
        {
            known = said.StartsWith(TokenStart, StringComparison.Ordinal)
                ? await store.SnapshotAsync(asked.AccountId, found.EditionId, said[TokenStart.Length..])
                : null;
            if (known is null)
            {
                await RefuseAsync(asked.Context, StatusCodes.Status403Forbidden, WebDav + "valid-sync-token");
                return;
            }
        }
        var answers = new List<XElement>();
        if (said != TokenStart + found.Token)
        {
            var now = await objects();
            answers.AddRange(now.Where(one => known.GetValueOrDefault(one.Name) != one.ETag)
                .Select(one => Response(PathOf(asked, found, one), wanted, OfObject(asked, one))));
            var names = now.Select(one => one.Name).ToHashSet();
            answers.AddRange(known.Keys.Where(name => !names.Contains(name))
                .Select(name => Gone($"{PathOf(asked, found)}{Uri.EscapeDataString(name)}.ics")));
            await store.KeepSnapshotAsync(asked.AccountId, found.EditionId, found.Token,
                now.ToDictionary(one => one.Name, one => one.ETag), clock.GetCurrentInstant());
        }
        answers.Add(new XElement(WebDav + "sync-token", TokenStart + found.Token));
        await SendAsync(asked.Context, StatusCodes.Status207MultiStatus, new XElement(WebDav + "multistatus", answers));
    }

    /// <summary>When somebody who has the calendar is busy (RFC 4791 7.10).</summary>
    private async Task FreeBusyAsync(Asked asked, Func<Task<IReadOnlyList<EditionObject>>> objects, XElement body)
    {
        if (DavQuestion.RangeOf(body.Element(CalDav + "time-range")) is not { HasStart: true, HasEnd: true } range)
            throw new XmlException("From when to when is not said.");
        var dates = (await objects()).SelectMany(one => DavQuestion.DatesWithin(one, range)).Where(date => date.TakesTime);
        var output = new System.Buffers.ArrayBufferWriter<byte>(1_024);
        FreeBusyWriter.Write(
            output, Uid.Of(Guid.CreateVersion7()), clock.GetCurrentInstant(), range,
            dates.Select(date => (new Interval(date.Start, date.End), date.IsCertain)));
        asked.Context.Response.ContentType = "text/calendar; charset=utf-8";
        await asked.Context.Response.Body.WriteAsync(output.WrittenMemory, asked.Context.RequestAborted);
    }
}
