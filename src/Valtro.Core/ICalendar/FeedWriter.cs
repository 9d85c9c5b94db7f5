using System.Buffers;
using NodaTime;
using Valtro.Core.Events;
using Valtro.Core.Calendars;
using Valtro.Core.Editions;

namespace Valtro.Core.ICalendar;

/// <summary>What a feed says of itself (RFC 7986 5).</summary>
/// <param name="Changed">When what readers get last changed.</param>
/// <param name="Page">The reading page.</param>
/// <param name="Address">The feed's own address; null where each reader has another.</param>
/// <param name="Zone">In which the edition's days begin.</param>
public sealed record FeedHead(
    Uid Uid, string Name, string Description, Hue Hue, Uri Page, Uri? Address, Instant Changed, DateTimeZone Zone)
{
    public Freshness Freshness { get; init; } = Freshness.Usual;
}

/// <summary>Writes finished components as an iCalendar stream (RFC 5545 3.4, RFC 7986).</summary>
/// <remarks>The same components, stamps and head give the same bytes.</remarks>
public static class FeedWriter
{
    public static void Write(IBufferWriter<byte> output, FeedHead head, Components components, Stamps stamps)
    {
        var lines = new ContentLines(output);
        lines.Begin("VCALENDAR"u8);
        WriteHead(lines, head);
        // A calendar has one component at least (RFC 5545 3.6).
        if (components.Written.Count == 0)
            ZoneComponent.Write(lines, head.Zone, head.Changed, head.Changed);
        WriteBody(output, lines, components, stamps);
    }

    /// <summary>One event as an object of a calendar (RFC 4791 4.1): what it says, and nothing of the calendar.</summary>
    public static void WriteObject(IBufferWriter<byte> output, Components components, Stamps stamps)
    {
        var lines = new ContentLines(output);
        lines.Begin("VCALENDAR"u8);
        WriteMaker(lines);
        WriteBody(output, lines, components, stamps);
    }

    private static void WriteBody(IBufferWriter<byte> output, ContentLines lines, Components components, Stamps stamps)
    {
        foreach (var (zone, from, to) in components.Zones)
            ZoneComponent.Write(lines, zone, from, to);
        var written = components.Written;
        for (var index = 0; index < written.Count; index++)
        {
            var component = written[index];
            output.Write(components.PropertiesOf(component));
            WriteStamp(lines, stamps[index], component.TellsChange);
            output.Write(components.PartsOf(component));
            lines.End(component.IsTask ? "VTODO"u8 : "VEVENT"u8);
        }
        lines.End("VCALENDAR"u8);
    }

    internal static void WriteMaker(ContentLines lines)
    {
        lines.Line("VERSION:"u8, "2.0"u8);
        lines.Line("PRODID:"u8, "-//Valtro//Valtro//EN"u8);
    }

    private static void WriteStamp(ContentLines lines, Stamp stamp, bool tellsChange)
    {
        lines.Moment("DTSTAMP:"u8, stamp.ChangedAt);
        lines.Number("SEQUENCE:"u8, stamp.Sequence);
        if (tellsChange)
            lines.Moment("LAST-MODIFIED:"u8, stamp.ChangedAt);
    }

    /// <summary>Each in the form of RFC 7986, and in the older one that most programs read.</summary>
    private static void WriteHead(ContentLines lines, FeedHead head)
    {
        WriteMaker(lines);
        lines.Line("CALSCALE:"u8, "GREGORIAN"u8);
        lines.Text("UID:"u8, head.Uid.Text);
        lines.Text("NAME:"u8, head.Name);
        lines.Text("X-WR-CALNAME:"u8, head.Name);
        if (head.Description.Length > 0)
        {
            lines.Text("DESCRIPTION:"u8, head.Description);
            lines.Text("X-WR-CALDESC:"u8, head.Description);
        }
        lines.Verbatim("X-WR-TIMEZONE:"u8, head.Zone.Id);
        lines.Moment("LAST-MODIFIED:"u8, head.Changed);
        lines.Verbatim("URL:"u8, head.Page.AbsoluteUri);
        if (head.Address is { } address)
            lines.Verbatim("SOURCE;VALUE=URI:"u8, address.AbsoluteUri);
        lines.Verbatim("REFRESH-INTERVAL;VALUE=DURATION:"u8, head.Freshness.RefreshInterval);
        lines.Verbatim("X-PUBLISHED-TTL:"u8, head.Freshness.RefreshInterval);
        lines.Verbatim("COLOR:"u8, head.Hue.NearestCss);
    }
}
