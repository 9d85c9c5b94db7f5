using System.Collections.Concurrent;
using System.Globalization;
using System.Net;
using System.Security.Cryptography;
using System.Text;
using System.Text.RegularExpressions;
using System.Xml;
using System.Xml.Linq;
using Valtro.StandIns.Website;

namespace Valtro.StandIns.Calendars;

/// <summary>How the club's server behaves when it is asked.</summary>
public enum ClubBehaviour
{
    Right,
    Fails,

    /// <summary>Never answers.</summary>
    Hangs,
    Slow,

    /// <summary>Answers what is none of the protocol.</summary>
    Rubbish,

    /// <summary>Takes no password any more.</summary>
    LocksOut,

    /// <summary>Lets read, and takes nothing.</summary>
    ReadOnly,
    Full,

    /// <summary>Knows no sync-collection.</summary>
    NoSync,

    /// <summary>Tells what is another two by two.</summary>
    InPieces,

    /// <summary>Keeps what it is sent in words of its own, and tells no tag.</summary>
    Rewrites,

    /// <summary>Sends on to an address within the network of whoever asks.</summary>
    LeadsInward,
}

/// <summary>A rowing club's calendar server: small, by CalDAV (RFC 4791), with a sync token (RFC 6578), and made to misbehave.</summary>
public sealed partial class ClubServer
{
    private const string Root = "/club/";

    private const string Home = "/club/home/";

    private const string Person = "/club/people/harbour/";

    private static readonly XNamespace Dav = "DAV:";

    private static readonly XNamespace CalDav = "urn:ietf:params:xml:ns:caldav";

    private static readonly TimeSpan SlowAnswer = TimeSpan.FromSeconds(4);

    private sealed record Kept(string Content, string Tag, int At);

    /// <summary>A calendar of the club.</summary>
    private sealed class Shelf(string name)
    {
        public string Name => name;

        public ConcurrentDictionary<string, Kept> Objects { get; } = new(StringComparer.Ordinal);

        public ConcurrentDictionary<string, int> Gone { get; } = new(StringComparer.Ordinal);

        public int Turn;
    }

    private readonly Dictionary<string, Shelf> _shelves = new()
    {
        ["boathouse"] = new("Boathouse board"),
        ["members"] = new("Members’ calendar"),
    };

    private ClubBehaviour _behaviour;

    private int _written;

    [GeneratedRegex(@"^SUMMARY(?:;[^:\r\n]*)?:(.*)\r?$", RegexOptions.Multiline)]
    private static partial Regex Summary { get; }

    [GeneratedRegex(@"^DTSTART(?:;[^:\r\n]*)?:(\d{8})", RegexOptions.Multiline)]
    private static partial Regex Start { get; }

    public static void Map(WebApplication app)
    {
        var club = new ClubServer();
        app.MapGet("/club-page", () => WebsitePages.Html(WebsitePages.Frame("Rowing club’s calendars", club.Page())));
        app.MapPost("/club-page/behaviour", (string to) =>
        {
            club._behaviour = Enum.Parse<ClubBehaviour>(to, ignoreCase: true);
            return Results.Redirect("/club-page");
        });
        app.MapPost("/club-page/{shelf}/{act}", (string shelf, string act, string? title) =>
            club.Act(shelf, act, title) ? Results.Redirect("/club-page") : Results.NotFound());
        app.MapGet("/club-page/{shelf}", (string shelf) => club._shelves[shelf].Objects.OrderBy(one => one.Key)
            .Select(one => new { Name = one.Key, Title = TitleOf(one.Value.Content), one.Value.Content }));
        app.Map("/.well-known/caldav", () => Results.Redirect(Root, permanent: true, preserveMethod: true));
        app.Map("/club/{**path}", club.AnswerAsync);
    }

    // ---- what people of the club do

    /// <summary>What somebody of the club does to an entry: the one of a title, or the next of all.</summary>
    private bool Act(string name, string act, string? title)
    {
        var shelf = _shelves[name];
        if (act == "add")
        {
            Keep(shelf, $"own-{Guid.NewGuid():N}.ics", string.Join("\r\n", "BEGIN:VCALENDAR", "VERSION:2.0", "PRODID:-//Club//Board//EN",
                "BEGIN:VEVENT", $"UID:own-{Guid.NewGuid():N}@club.example", "DTSTAMP:20260101T000000Z", "DTSTART;VALUE=DATE:20261212",
                $"SUMMARY:{title ?? "Boats are varnished"}", "END:VEVENT", "END:VCALENDAR", ""));
            return true;
        }
        var (key, kept) = shelf.Objects.OrderBy(one => Start.Match(one.Value.Content).Groups[1].Value, StringComparer.Ordinal)
            .FirstOrDefault(one => title is null || TitleOf(one.Value.Content) == title);
        if (kept is null)
            return false;
        if (act == "remove")
            Drop(shelf, key);
        else
            Keep(shelf, key, Summary.Replace(kept.Content, match => $"SUMMARY:{match.Groups[1].Value.Trim()} (moved to the pier)\r", 1));
        return true;
    }

    private static string TitleOf(string content) =>
        Summary.Match(content.Replace("\r\n ", "", StringComparison.Ordinal)).Groups[1].Value.Trim()
            .Replace("\\,", ",", StringComparison.Ordinal);

    private static string Keep(Shelf shelf, string name, string content)
    {
        var tag = $"\"{Convert.ToHexString(SHA256.HashData(Encoding.UTF8.GetBytes(content)))[..16]}\"";
        shelf.Objects[name] = new Kept(content, tag, Interlocked.Increment(ref shelf.Turn));
        shelf.Gone.TryRemove(name, out _);
        return tag;
    }

    private static void Drop(Shelf shelf, string name)
    {
        shelf.Objects.TryRemove(name, out _);
        shelf.Gone[name] = Interlocked.Increment(ref shelf.Turn);
    }

    private string Page() => $"""
        <main>
          <p>The rowing club’s own calendar server: <code>{Root}</code>, with “{FeedMood.User}”, “{FeedMood.Password}”.
          Written {_written} times. Now: <b>{_behaviour}</b></p>
          <p>{string.Concat(Enum.GetNames<ClubBehaviour>().Select(to => Button($"behaviour?to={to}", to)))}</p>
          {string.Concat(_shelves.Select(one => $"""
            <h2>{one.Value.Name}</h2>
            <p>{Button($"{one.Key}/change", "Somebody changes the first")}
            {Button($"{one.Key}/remove", "Somebody removes the first")}
            {Button($"{one.Key}/add", "Somebody adds one")}</p>
            <ul>{string.Concat(one.Value.Objects.Values
                .OrderBy(kept => Start.Match(kept.Content).Groups[1].Value, StringComparer.Ordinal).Take(200)
                .Select(kept => $"<li>{Day(kept.Content)} <b>{WebUtility.HtmlEncode(TitleOf(kept.Content))}</b></li>"))}</ul>
            """))}
        </main>
        <footer><a href="/">The families’ page</a></footer>
        """;

    private static string Button(string to, string text) =>
        $"<form method=\"post\" style=\"display:inline\" action=\"/club-page/{to}\"><button>{text}</button></form> ";

    private static string Day(string content) =>
        Start.Match(content).Groups[1].Value is { Length: 8 } day ? $"{day[6..]}.{day[4..6]}." : "";

    // ---- the protocol

    private static string Expected { get; } =
        $"Basic {Convert.ToBase64String(Encoding.UTF8.GetBytes($"{FeedMood.User}:{FeedMood.Password}"))}";

    private async Task AnswerAsync(HttpContext context, string? path)
    {
        var (request, response) = (context.Request, context.Response);
        if (await MisbehavesAsync(context))
            return;
        if (request.Headers.Authorization != Expected || _behaviour == ClubBehaviour.LocksOut)
        {
            response.Headers.WWWAuthenticate = "Basic realm=\"club\"";
            response.StatusCode = 401;
            return;
        }
        using var reader = new StreamReader(request.Body);
        var body = await reader.ReadToEndAsync(context.RequestAborted);
        var parts = (path ?? "").Split('/', StringSplitOptions.RemoveEmptyEntries);
        response.Headers["DAV"] = "1, calendar-access";
        var shelf = parts is ["home", var name, ..] ? _shelves.GetValueOrDefault(name) : null;
        var status = (request.Method, parts.Length) switch
        {
            ("OPTIONS", _) => 204,
            ("PROPFIND", _) => await PropfindAsync(context, parts, shelf),
            ("REPORT", 2) when shelf is not null => await ReportAsync(context, parts[1], shelf, body),
            ("GET", 3) when shelf is not null => await GetAsync(context, shelf, parts[2]),
            ("PUT", 3) when shelf is not null => Put(context, shelf, parts[2], body),
            ("DELETE", 3) when shelf is not null => Delete(request, shelf, parts[2]),
            _ => 404,
        };
        if (!response.HasStarted)
            response.StatusCode = status;
    }

    private async Task<bool> MisbehavesAsync(HttpContext context)
    {
        switch (_behaviour)
        {
            case ClubBehaviour.Fails:
                context.Response.StatusCode = 503;
                return true;
            case ClubBehaviour.Hangs:
                await Task.Delay(Timeout.InfiniteTimeSpan, context.RequestAborted).ConfigureAwait(ConfigureAwaitOptions.SuppressThrowing);
                return true;
            case ClubBehaviour.Rubbish:
                context.Response.ContentType = "text/html";
                await context.Response.WriteAsync("<!doctype html><title>Boats</title><p>42");
                return true;
            case ClubBehaviour.LeadsInward:
                context.Response.Redirect("https://169.254.169.254/club/", permanent: false, preserveMethod: true);
                return true;
            case ClubBehaviour.Slow:
                await Task.Delay(SlowAnswer, context.RequestAborted);
                return false;
            default:
                return false;
        }
    }

    private bool MayWrite => _behaviour is not ClubBehaviour.ReadOnly;

    private static XElement Status(string path, string status) =>
        new(Dav + "response", Href(path), new XElement(Dav + "status", $"HTTP/1.1 {status}"));

    private static XElement Href(string path) => new(Dav + "href", path);

    private async Task<int> PropfindAsync(HttpContext context, string[] parts, Shelf? shelf)
    {
        var isDeep = context.Request.Headers["Depth"] != "0";
        var all = (parts, shelf) switch
        {
            ([], _) => new[] { Of(Root, Collection()) },
            (["people", ..], _) => [Of(Person, new XElement(CalDav + "calendar-home-set", Href(Home)))],
            (["home"], _) =>
                [Of(Home, Collection()), .. isDeep ? _shelves.Select(one => OfShelf(one.Key, one.Value)) : []],
            (["home", var name], not null) =>
                [OfShelf(name, shelf), .. isDeep ? shelf.Objects.Select(one => OfObject(name, one.Key, one.Value, false)) : []],
            _ => [],
        };
        return all.Length == 0 ? 404 : await SendAsync(context, all);
    }

    private static XElement Collection(params object[] more) => new(Dav + "resourcetype", [new XElement(Dav + "collection"), .. more]);

    private static XElement Of(string path, params object?[] properties) => new(Dav + "response", Href(path),
        new XElement(Dav + "propstat",
            new XElement(Dav + "prop", [new XElement(Dav + "current-user-principal", Href(Person)), .. properties]),
            new XElement(Dav + "status", "HTTP/1.1 200 OK")));

    private XElement OfShelf(string name, Shelf shelf) => Of($"{Home}{name}/", Collection(new XElement(CalDav + "calendar")),
        new XElement(Dav + "displayname", shelf.Name),
        new XElement(CalDav + "supported-calendar-component-set", new XElement(CalDav + "comp", new XAttribute("name", "VEVENT"))),
        new XElement(Dav + "current-user-privilege-set",
            new XElement(Dav + "privilege", new XElement(Dav + "read")),
            MayWrite ? new XElement(Dav + "privilege", new XElement(Dav + "write")) : null));

    private static XElement OfObject(string shelf, string name, Kept kept, bool withData) => Of(
        $"{Home}{shelf}/{Uri.EscapeDataString(name)}", new XElement(Dav + "resourcetype"), new XElement(Dav + "getetag", kept.Tag),
        withData ? new XElement(CalDav + "calendar-data", kept.Content) : null);

    private async Task<int> ReportAsync(HttpContext context, string name, Shelf shelf, string body)
    {
        var asked = XElement.Parse(body);
        if (asked.Name == Dav + "sync-collection")
        {
            if (_behaviour == ClubBehaviour.NoSync)
                return 501;
            var since = int.TryParse(((string?)asked.Element(Dav + "sync-token"))?.Replace("turn:", "", StringComparison.Ordinal),
                NumberStyles.None, CultureInfo.InvariantCulture, out var turn) ? turn : 0;
            (int Turn, XElement Said)[] changes =
            [
                .. shelf.Objects.Where(one => one.Value.At > since).Select(one => (one.Value.At, OfObject(name, one.Key, one.Value, false)))
                    .Concat(shelf.Gone.Where(one => one.Value > since)
                        .Select(one => (one.Value, Status($"{Home}{name}/{Uri.EscapeDataString(one.Key)}", "404 Not Found"))))
                    .OrderBy(one => one.Item1),
            ];
            var isCut = _behaviour == ClubBehaviour.InPieces && changes.Length > 2;
            var told = isCut ? changes[..2] : changes;
            return await SendAsync(context,
                [.. told.Select(one => one.Said), .. isCut ? [Status($"{Home}{name}/", "507 Insufficient Storage")] : Array.Empty<XElement>(),
                    new XElement(Dav + "sync-token", $"turn:{(isCut ? told[^1].Turn : shelf.Turn)}")]);
        }
        var range = asked.Descendants(CalDav + "time-range").FirstOrDefault();
        var (from, until) = (((string?)range?.Attribute("start"))?[..8] ?? "", ((string?)range?.Attribute("end"))?[..8] ?? "99999999");
        var names = asked.Elements(Dav + "href").Select(one => Uri.UnescapeDataString(one.Value.Split('/')[^1])).ToHashSet();
        // Series are not expanded here: whatever began before may go on.
        return await SendAsync(context,
            [.. shelf.Objects.Where(one => names.Count > 0 ? names.Contains(one.Key)
                    : Start.Match(one.Value.Content).Groups[1].Value is var day && string.CompareOrdinal(day, until) < 0
                        && (string.CompareOrdinal(day, from) >= 0 || one.Value.Content.Contains("\nRRULE", StringComparison.Ordinal)))
                .Select(one => OfObject(name, one.Key, one.Value, true))]);
    }

    private static async Task<int> SendAsync(HttpContext context, XElement[] content)
    {
        context.Response.StatusCode = 207;
        context.Response.ContentType = "application/xml; charset=utf-8";
        await using var writer = XmlWriter.Create(context.Response.Body, new XmlWriterSettings
        {
            Async = true,
            Encoding = new UTF8Encoding(false),
            NewLineHandling = NewLineHandling.Entitize,
        });
        await new XDocument(new XElement(Dav + "multistatus", content)).SaveAsync(writer, context.RequestAborted);
        return 207;
    }

    private static async Task<int> GetAsync(HttpContext context, Shelf shelf, string name)
    {
        if (!shelf.Objects.TryGetValue(name, out var kept))
            return 404;
        context.Response.Headers.ETag = kept.Tag;
        context.Response.ContentType = "text/calendar; charset=utf-8";
        await context.Response.WriteAsync(kept.Content);
        return 200;
    }

    private int Put(HttpContext context, Shelf shelf, string name, string body)
    {
        if (!MayWrite)
            return 403;
        if (_behaviour == ClubBehaviour.Full)
            return 507;
        if (!body.StartsWith("BEGIN:VCALENDAR", StringComparison.Ordinal))
            return 415;
        shelf.Objects.TryGetValue(name, out var there);
        var (mustMatch, mayNot) = ((string?)context.Request.Headers.IfMatch, (string?)context.Request.Headers.IfNoneMatch);
        if (mayNot == "*" && there is not null || mustMatch is not null && mustMatch != there?.Tag)
            return 412;
        Interlocked.Increment(ref _written);
        if (_behaviour == ClubBehaviour.Rewrites)
            Keep(shelf, name, body.Replace("END:VEVENT", "X-CLUB-BOAT:Heron\r\nSTATUS:CONFIRMED\r\nEND:VEVENT", StringComparison.Ordinal));
        else
            context.Response.Headers.ETag = Keep(shelf, name, body);
        return there is null ? 201 : 204;
    }

    private int Delete(HttpRequest request, Shelf shelf, string name)
    {
        if (!MayWrite)
            return 403;
        if (!shelf.Objects.TryGetValue(name, out var there))
            return 404;
        if ((string?)request.Headers.IfMatch is { } tag && tag != there.Tag)
            return 412;
        Drop(shelf, name);
        return 204;
    }
}
