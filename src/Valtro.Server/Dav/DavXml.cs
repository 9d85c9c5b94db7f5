using System.Globalization;
using System.Xml;
using System.Xml.Linq;

namespace Valtro.Server.Dav;

/// <summary>Names, and how XML is read and sent (RFC 4918 8.2, 14; RFC 4791).</summary>
internal static class DavXml
{
    public static XNamespace WebDav { get; } = "DAV:";

    public static XNamespace CalDav { get; } = "urn:ietf:params:xml:ns:caldav";

    private const int Largest = 256 * 1024;

    /// <returns>Null where nothing was sent.</returns>
    /// <exception cref="XmlException">It is no XML, or none that is read.</exception>
    public static async Task<XElement?> ReadAsync(HttpRequest request)
    {
        using var content = new MemoryStream();
        var part = new byte[16 * 1024];
        for (var count = await request.Body.ReadAsync(part); count > 0; count = await request.Body.ReadAsync(part))
        {
            if (content.Length + count > Largest)
                throw new XmlException("The body is too large.");
            content.Write(part, 0, count);
        }
        if (content.Length == 0)
            return null;
        content.Position = 0;
        using var reader = XmlReader.Create(content, new XmlReaderSettings
        {
            Async = true,
            DtdProcessing = DtdProcessing.Prohibit,
            XmlResolver = null,
            MaxCharactersInDocument = Largest,
        });
        return (await XDocument.LoadAsync(reader, LoadOptions.None, request.HttpContext.RequestAborted)).Root;
    }

    public static async Task SendAsync(HttpContext context, int status, XElement root)
    {
        context.Response.StatusCode = status;
        context.Response.ContentType = "application/xml; charset=utf-8";
        root.SetAttributeValue(XNamespace.Xmlns + "d", WebDav.NamespaceName);
        root.SetAttributeValue(XNamespace.Xmlns + "c", CalDav.NamespaceName);
        using var written = new MemoryStream();
        // Line ends of calendar data stay what they are (RFC 5545 3.1), whoever reads the XML.
        var settings = new XmlWriterSettings
        {
            Async = true,
            Encoding = new System.Text.UTF8Encoding(false),
            NewLineHandling = NewLineHandling.Entitize,
        };
        await using (var writer = XmlWriter.Create(written, settings))
            await new XDocument(root).SaveAsync(writer, context.RequestAborted);
        context.Response.ContentLength = written.Length;
        written.Position = 0;
        await written.CopyToAsync(context.Response.Body, context.RequestAborted);
    }

    /// <summary>A sentence for whoever looks at what their program was answered.</summary>
    public static Task SayAsync(HttpContext context, int status, string code)
    {
        context.Response.StatusCode = status;
        context.Response.ContentType = "text/plain; charset=utf-8";
        return context.Response.WriteAsync(Application.Spoken.Now.Say(code) + "\n", context.RequestAborted);
    }

    /// <summary>Why something is not done (RFC 4918 16).</summary>
    public static Task RefuseAsync(HttpContext context, int status, XName precondition) =>
        SendAsync(context, status, new XElement(WebDav + "error", new XElement(precondition)));

    public static XElement Href(string path) => new(WebDav + "href", path);

    /// <summary>What a resource says of what it was asked: each property, or that it has none such.</summary>
    public static XElement Response(
        string path, IReadOnlyList<XName>? asked, IReadOnlyDictionary<XName, object?[]> has, bool namesOnly = false)
    {
        var wanted = asked ?? [.. has.Keys.Where(name => name != CalDav + "calendar-data")];
        XElement[] found = [.. wanted.Where(has.ContainsKey).Select(name => new XElement(name, namesOnly ? [] : has[name]))];
        XElement[] missing = [.. wanted.Where(name => !has.ContainsKey(name)).Select(name => new XElement(name))];
        return new XElement(WebDav + "response", Href(path),
            found.Length > 0 || missing.Length == 0 ? Propstat(found, "HTTP/1.1 200 OK") : null,
            missing.Length > 0 ? Propstat(missing, "HTTP/1.1 404 Not Found") : null);
    }

    private static XElement Propstat(XElement[] properties, string status) =>
        new(WebDav + "propstat", new XElement(WebDav + "prop", properties), new XElement(WebDav + "status", status));

    public static XElement Gone(string path) =>
        new(WebDav + "response", Href(path), new XElement(WebDav + "status", "HTTP/1.1 404 Not Found"));

    /// <summary>RFC 9110 5.6.7.</summary>
    public static string Moment(NodaTime.Instant at) => at.ToDateTimeUtc().ToString("R", CultureInfo.InvariantCulture);
}
