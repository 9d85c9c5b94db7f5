using System.Text;
using System.Xml;
using System.Xml.Linq;
using Valtro.Application.Outside;
using Valtro.Core;

namespace Valtro.Application.Push;

/// <summary>A calendar that a server has.</summary>
/// <param name="IsWritable">As far as it says (RFC 3744 5.4).</param>
public sealed record CalendarElsewhere(Uri Address, string Name, bool IsWritable);

/// <summary>What stands in a calendar elsewhere.</summary>
/// <param name="Tags">By which each is known (RFC 9110 8.8.3), by the last part of its address.</param>
/// <param name="SyncToken">Of it as it is; null where the server knows none (RFC 6578).</param>
internal sealed record ObjectsElsewhere(IReadOnlyDictionary<string, string> Tags, string? SyncToken);

/// <summary>What another server answered is not what it should.</summary>
internal sealed class CalendarServerException(int status, string what) : Exception($"{what} answered with {status}.")
{
    public int Status => status;
}

/// <summary>A calendar server of others, spoken to by CalDAV (RFC 4918, RFC 4791, RFC 5397, RFC 6578, RFC 6764).</summary>
internal sealed class CalendarServer(IOutside outside, OutsideSecrets secrets)
{
    public const int LargestObject = 1024 * 1024;

    private const int LargestAnswer = 16 * 1024 * 1024;

    private const int MostCalendars = 200;

    /// <summary>In which a server tells what is another.</summary>
    private const int MostPieces = 100;

    private const string Xml = "application/xml; charset=utf-8";

    private const string Calendar = "text/calendar; charset=utf-8";

    private static readonly XNamespace Dav = "DAV:";

    private static readonly XNamespace CalDav = "urn:ietf:params:xml:ns:caldav";

    private static readonly XName[] OfCalendars =
        [Dav + "resourcetype", Dav + "displayname", Dav + "current-user-principal", Dav + "current-user-privilege-set",
            CalDav + "calendar-home-set", CalDav + "supported-calendar-component-set"];

    // ---- finding

    /// <summary>The calendars that somebody has there: of the address itself, of the person who signs in, of where programs look
    /// first.</summary>
    /// <exception cref="RuleException">It is not reached, wants another password, or has no calendars.</exception>
    public async Task<IReadOnlyList<CalendarElsewhere>> FindAsync(Uri address, CancellationToken stopping)
    {
        var tried = new[] { address, new Uri(address, "/.well-known/caldav"), new Uri(address, "/") };
        foreach (var place in tried.Distinct())
        {
            if (await LookAsync(place, "0", stopping) is not var (found, said) || found.Count == 0)
                continue;
            var here = Calendars(found);
            if (here.Count > 0)
                return here;
            var homes = Hrefs(found, CalDav + "calendar-home-set", said);
            if (homes.Count == 0)
            {
                foreach (var principal in Hrefs(found, Dav + "current-user-principal", said))
                {
                    if (await LookAsync(principal, "0", stopping) is var (person, there))
                        homes.AddRange(Hrefs(person, CalDav + "calendar-home-set", there));
                }
            }
            var calendars = new List<CalendarElsewhere>();
            foreach (var home in homes.Distinct().Take(5))
            {
                if (await LookAsync(home, "1", stopping) is var (inside, _))
                    calendars.AddRange(Calendars(inside));
            }
            if (calendars.Count > 0)
                return [.. calendars.DistinctBy(one => one.Address).Take(MostCalendars)];
        }
        throw new RuleException("address", "push.noCalendars", ("host", address.Host));
    }

    /// <summary>What is there, and what it says of itself; null where nobody answers such questions.</summary>
    private async Task<(IReadOnlyList<(Uri Address, XElement Properties)> Found, Uri Said)?> LookAsync(
        Uri place, string depth, CancellationToken stopping)
    {
        var reply = await outside.CallAsync(Ask("PROPFIND", place, depth, new XElement(Dav + "propfind", Prop(OfCalendars))), stopping);
        return reply.Status == 207 && Root(reply) is { } root
            ? ([.. Responses(root, reply.Address).Where(one => one.Properties is not null)
                .Select(one => (one.Address, one.Properties!))], reply.Address)
            : null;
    }

    private static List<CalendarElsewhere> Calendars(IReadOnlyList<(Uri Address, XElement Properties)> found) =>
    [
        .. from one in found
           where one.Properties.Element(Dav + "resourcetype")?.Element(CalDav + "calendar") is not null
           let kinds = one.Properties.Element(CalDav + "supported-calendar-component-set")?.Elements(CalDav + "comp")
               .Select(kind => ((string?)kind.Attribute("name"))?.ToUpperInvariant()).ToArray()
           where kinds is null or [] || kinds.Contains("VEVENT")
           let name = Texts.Kept((string?)one.Properties.Element(Dav + "displayname") ?? "", Texts.LongestName)
           select new CalendarElsewhere(
               one.Address, name.Length > 0 ? name : Uri.UnescapeDataString(one.Address.Segments[^1].Trim('/')), MayWrite(one.Properties)),
    ];

    /// <summary>Where nothing is said of it, it shows when it is tried.</summary>
    private static bool MayWrite(XElement properties)
    {
        var may = properties.Element(Dav + "current-user-privilege-set")?.Elements(Dav + "privilege").Elements()
            .Select(one => one.Name.LocalName).ToArray();
        return may is null or [] || may.Any(one => one is "all" or "write" or "write-content" or "bind");
    }

    private static List<Uri> Hrefs(IReadOnlyList<(Uri Address, XElement Properties)> found, XName name, Uri said) =>
    [
        .. found.SelectMany(one => one.Properties.Elements(name)).SelectMany(one => one.Elements(Dav + "href"))
            .Select(one => Within(said, one.Value)).OfType<Uri>(),
    ];

    // ---- what stands there

    /// <summary>All that stands there.</summary>
    public async Task<ObjectsElsewhere> ListAsync(Uri calendar, CancellationToken stopping)
    {
        if (await SinceAsync(calendar, "", stopping) is { } all)
            return new ObjectsElsewhere(all.Changed, all.SyncToken);
        var reply = await outside.CallAsync(
            Ask("PROPFIND", calendar, "1", new XElement(Dav + "propfind", Prop(Dav + "getetag", Dav + "resourcetype"))), stopping);
        var root = reply.Status == 207 ? Root(reply) : null;
        if (root is null)
            throw new CalendarServerException(reply.Status, calendar.Host);
        return new ObjectsElsewhere(
            Responses(root, calendar).Where(one => one.Properties?.Element(Dav + "getetag") is not null
                    && one.Properties.Element(Dav + "resourcetype")?.HasElements != true && NameIn(calendar, one.Address) is not null)
                .DistinctBy(one => NameIn(calendar, one.Address)).ToDictionary(
                    one => NameIn(calendar, one.Address)!, one => one.Properties!.Element(Dav + "getetag")!.Value, StringComparer.Ordinal),
            null);
    }

    /// <summary>What is another since (RFC 6578 3.2).</summary>
    /// <returns>Null where the server does not know how, or not since then.</returns>
    public async Task<(IReadOnlyDictionary<string, string> Changed, IReadOnlyList<string> Gone, string? SyncToken)?> SinceAsync(
        Uri calendar, string token, CancellationToken stopping)
    {
        var (changed, gone) = (new Dictionary<string, string>(StringComparer.Ordinal), new HashSet<string>(StringComparer.Ordinal));
        for (var pieces = 0; pieces < MostPieces; pieces++)
        {
            var reply = await outside.CallAsync(Ask("REPORT", calendar, "0", new XElement(Dav + "sync-collection",
                new XElement(Dav + "sync-token", token), new XElement(Dav + "sync-level", "1"), Prop(Dav + "getetag"))), stopping);
            if (reply.Status != 207 || Root(reply) is not { } root || root.Element(Dav + "sync-token") is not { } now)
                return null;
            var isCut = false;
            foreach (var (address, properties, status) in Responses(root, calendar))
            {
                if (NameIn(calendar, address) is not { } name)
                {
                    // There is more than it says at once (RFC 6578 3.6).
                    isCut |= status == 507;
                    continue;
                }
                if (properties?.Element(Dav + "getetag") is { } tag)
                {
                    changed[name] = tag.Value;
                    gone.Remove(name);
                }
                else if (status is 404 or 410)
                {
                    changed.Remove(name);
                    gone.Add(name);
                }
            }
            if (!isCut)
                return (changed, [.. gone], now.Value);
            token = now.Value;
        }
        return null;
    }

    /// <summary>All events that have a date within days (RFC 4791 7.8), one after the other.</summary>
    public async Task<byte[]> WithinAsync(Uri calendar, string from, string until, CancellationToken stopping)
    {
        static XElement Of(string name, params object[] content) =>
            new(CalDav + "comp-filter", [new XAttribute("name", name), .. content]);
        var reply = await outside.CallAsync(Ask("REPORT", calendar, "1", new XElement(CalDav + "calendar-query",
            Prop(Dav + "getetag", CalDav + "calendar-data"),
            new XElement(CalDav + "filter", Of("VCALENDAR", Of("VEVENT", new XElement(CalDav + "time-range",
                new XAttribute("start", from), new XAttribute("end", until))))))), stopping);
        if (reply.Status != 207 || Root(reply) is not { } root)
            throw new CalendarServerException(reply.Status, calendar.Host);
        return Encoding.UTF8.GetBytes(string.Concat(Responses(root, calendar)
            .Select(one => one.Properties?.Element(CalDav + "calendar-data")?.Value).OfType<string>()
            .Select(one => one.EndsWith('\n') ? one : one + "\r\n")));
    }

    // ---- one of them

    /// <summary>Writes one that is not there, or one that is still as it was.</summary>
    /// <param name="tag">By which it is known there; null where nothing of the name may stand there.</param>
    public Task<OutsideReply> PutAsync(Uri calendar, string name, byte[] content, string? tag, CancellationToken stopping) =>
        outside.CallAsync(new OutsideCall("PUT", AddressOf(calendar, name), LargestAnswer)
        {
            Secrets = secrets,
            Body = (content, Calendar),
            Headers = [tag is null ? ("If-None-Match", "*") : ("If-Match", tag)],
        }, stopping);

    public Task<OutsideReply> RemoveAsync(Uri calendar, string name, string tag, CancellationToken stopping) =>
        outside.CallAsync(new OutsideCall("DELETE", AddressOf(calendar, name), LargestAnswer)
        {
            Secrets = secrets,
            Headers = [("If-Match", tag)],
        }, stopping);

    /// <returns>Null where it is not there.</returns>
    public async Task<(byte[] Content, string Tag)?> GetAsync(Uri calendar, string name, CancellationToken stopping)
    {
        var reply = await outside.CallAsync(
            new OutsideCall("GET", AddressOf(calendar, name), LargestObject) { Secrets = secrets }, stopping);
        return reply switch
        {
            { Status: 404 or 410 } => null,
            { IsSuccess: true, ETag: { } tag } => (reply.Content, tag),
            _ => throw new CalendarServerException(reply.Status, calendar.Host),
        };
    }

    private static Uri AddressOf(Uri calendar, string name) => new(calendar, Uri.EscapeDataString(name));

    /// <returns>The last part of an address; null where it is no part of the calendar.</returns>
    private static string? NameIn(Uri calendar, Uri address)
    {
        var (path, within) = (Uri.UnescapeDataString(calendar.AbsolutePath), Uri.UnescapeDataString(address.AbsolutePath));
        return within.Length > path.Length && within.StartsWith(path, StringComparison.Ordinal) && !within[path.Length..].Contains('/')
            ? within[path.Length..]
            : null;
    }

    // ---- XML

    private OutsideCall Ask(string method, Uri address, string depth, XElement body)
    {
        body.SetAttributeValue(XNamespace.Xmlns + "d", Dav.NamespaceName);
        body.SetAttributeValue(XNamespace.Xmlns + "c", CalDav.NamespaceName);
        var text = "<?xml version=\"1.0\" encoding=\"utf-8\"?>\n" + body.ToString(SaveOptions.DisableFormatting);
        return new OutsideCall(method, address, LargestAnswer)
        {
            Secrets = secrets,
            Body = (Encoding.UTF8.GetBytes(text), Xml),
            Headers = [("Depth", depth)],
        };
    }

    private static XElement Prop(params XName[] names) => new(Dav + "prop", names.Select(name => new XElement(name)));

    /// <returns>Null where it is no XML, or none that is read.</returns>
    private static XElement? Root(OutsideReply reply)
    {
        try
        {
            using var reader = XmlReader.Create(new MemoryStream(reply.Content), new XmlReaderSettings
            {
                DtdProcessing = DtdProcessing.Prohibit,
                XmlResolver = null,
                MaxCharactersInDocument = LargestAnswer,
            });
            return XDocument.Load(reader).Root is { } root && root.Name == Dav + "multistatus" ? root : null;
        }
        catch (XmlException)
        {
            return null;
        }
    }

    /// <summary>Each resource with the properties that it has (RFC 4918 14.24).</summary>
    private static IEnumerable<(Uri Address, XElement? Properties, int Status)> Responses(XElement root, Uri said) =>
        from response in root.Elements(Dav + "response")
        let address = Within(said, response.Element(Dav + "href")?.Value)
        where address is not null
        let good = response.Elements(Dav + "propstat").FirstOrDefault(one => StatusOf(one) is >= 200 and < 300)
        select (address, good?.Element(Dav + "prop"), StatusOf(response));

    private static int StatusOf(XElement element) =>
        element.Element(Dav + "status")?.Value.Split(' ') is [_, var status, ..] && int.TryParse(status, out var number) ? number : 0;

    /// <summary>On the same server only: what it says of others is not asked with its password.</summary>
    private static Uri? Within(Uri said, string? href) =>
        href is not null && Uri.TryCreate(said, href.Trim(), out var address)
            && Uri.Compare(address, said, UriComponents.SchemeAndServer, UriFormat.SafeUnescaped, StringComparison.OrdinalIgnoreCase) == 0
            ? address
            : null;
}
