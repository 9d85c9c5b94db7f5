using System.Buffers;
using NodaTime;
using Valtro.Core.Calendars;
using Valtro.Core.Disclosure;
using Valtro.Core.Events;
using Valtro.Core.Recurrence;

namespace Valtro.Core.ICalendar;

/// <summary>What a feed says of itself (RFC 7986 5).</summary>
/// <param name="Changed">When what readers get last changed.</param>
/// <param name="Page">The reading page.</param>
/// <param name="Address">The feed's own address.</param>
public sealed record FeedHead(Guid Uid, string Name, string Description, Hue Hue, Uri Page, Uri Address, Instant Changed);

/// <summary>Writes an edition as an iCalendar stream (RFC 5545, RFC 7986), in one pass.</summary>
/// <remarks>The same events and head give the same bytes.</remarks>
public static class FeedWriter
{
    public static void Write(IBufferWriter<byte> output, FeedHead head, IReadOnlyCollection<(CalendarEvent Event, Disclosed Disclosed)> events)
    {
        var lines = new ContentLines(output);
        lines.Begin("VCALENDAR"u8);
        WriteHead(lines, head);
        foreach (var (zone, from, to) in ZonesNeeded(events))
            ZoneComponent.Write(lines, zone, from, to);
        foreach (var (happening, disclosed) in events)
            WriteEvent(lines, happening, disclosed);
        lines.End("VCALENDAR"u8);
    }

    private static void WriteHead(ContentLines lines, FeedHead head)
    {
        lines.Line("VERSION:"u8, "2.0"u8);
        lines.Line("PRODID:"u8, "-//Valtro//Valtro//EN"u8);
        lines.Line("CALSCALE:"u8, "GREGORIAN"u8);
        lines.Verbatim("UID:"u8, head.Uid.ToString());
        lines.Text("NAME:"u8, head.Name);
        if (head.Description.Length > 0)
            lines.Text("DESCRIPTION:"u8, head.Description);
        lines.Moment("LAST-MODIFIED:"u8, head.Changed);
        lines.Verbatim("URL:"u8, head.Page.AbsoluteUri);
        lines.Verbatim("SOURCE;VALUE=URI:"u8, head.Address.AbsoluteUri);
        lines.Line("REFRESH-INTERVAL;VALUE=DURATION:"u8, "PT1H"u8);
        lines.Verbatim("COLOR:"u8, head.Hue.NearestCss);
    }

    /// <summary>Each zone that a timed event uses, from its first start to its last end, in order of name.</summary>
    private static IEnumerable<(DateTimeZone Zone, Instant From, Instant? To)> ZonesNeeded(
        IEnumerable<(CalendarEvent Event, Disclosed Disclosed)> events)
    {
        var needed = new SortedDictionary<string, (DateTimeZone Zone, Instant From, Instant? To)>(StringComparer.Ordinal);
        foreach (var (happening, _) in events)
        {
            var series = happening.Content.Series;
            if (series.Timing.AllDay)
                continue;
            var (from, to) = series.Reach();
            var zone = series.Timing.Zone;
            needed[zone.Id] = needed.TryGetValue(zone.Id, out var so)
                ? (zone, Instant.Min(so.From, from), so.To is { } one && to is { } other ? Instant.Max(one, other) : null)
                : (zone, from, to);
        }
        return needed.Values;
    }

    private static void WriteEvent(ContentLines lines, CalendarEvent happening, Disclosed disclosed)
    {
        var series = happening.Content.Series;
        lines.Begin("VEVENT"u8);
        lines.Verbatim("UID:"u8, disclosed.Identity);
        lines.Moment("DTSTAMP:"u8, happening.Changed);
        if (disclosed.Detail > Detail.Times)
        {
            lines.Moment("CREATED:"u8, happening.Created);
            lines.Moment("LAST-MODIFIED:"u8, happening.Changed);
        }
        lines.Number("SEQUENCE:"u8, happening.Sequence);
        WriteWhen(lines, series);
        lines.Text("SUMMARY:"u8, disclosed.Title);
        if (disclosed.Place.Length > 0)
            lines.Text("LOCATION:"u8, disclosed.Place);
        WriteDescription(lines, disclosed.Description);
        lines.Line("STATUS:"u8, disclosed.State == EventState.Cancelled ? "CANCELLED"u8 : "CONFIRMED"u8);
        lines.Line("TRANSP:"u8, series.Timing.AllDay ? "TRANSPARENT"u8 : "OPAQUE"u8);
        lines.Line("CLASS:"u8, "PUBLIC"u8);
        lines.End("VEVENT"u8);
    }

    private static void WriteWhen(ContentLines lines, Series series)
    {
        var (allDay, zone) = (series.Timing.AllDay, series.Timing.Zone.Id);
        lines.Start("DTSTART"u8, series.Timing.Start, allDay, zone);
        if (series.Timing.End > series.Timing.Start)
            lines.Start("DTEND"u8, series.Timing.End, allDay, zone);
        var (rule, extra) = Deliverable(series);
        if (rule is not null)
            lines.Verbatim("RRULE:"u8, RuleText.Format(rule));
        if (series.Removed.Count > 0)
            lines.Starts("EXDATE"u8, series.Removed, allDay, zone);
        if (extra.Count > 0)
            lines.Starts("RDATE"u8, extra, allDay, zone);
    }

    /// <summary>The rule and extra dates in a form that every program reads alike.</summary>
    /// <remarks>
    /// Programs disagree on a start that its rule does not give (RFC 5545 3.8.5.3 leaves it undefined): some count it,
    /// some leave it out. It is therefore listed as an RDATE too, and a COUNT, which they would spend differently,
    /// becomes the UNTIL of the last date.
    /// </remarks>
    private static (RecurrenceRule? Rule, IReadOnlyList<LocalDateTime> Extra) Deliverable(Series series)
    {
        if (series.Rule is not { } rule || Expansion.GivesItsStart(rule, series.Timing.Start.Date))
            return (series.Rule, series.Extra);
        if (rule.Count is not null)
        {
            var last = new Series(series.Timing, rule).All().Last();
            Until until = series.Timing.AllDay ? new Until.Day(last.LocalStart.Date) : new Until.Moment(last.Start);
            rule = new RecurrenceRule(rule.Frequency, rule.Interval, null, until, rule.Weekdays, rule.WeekStart);
        }
        return (rule, [.. series.Extra.Append(series.Timing.Start).Distinct().Order()]);
    }

    /// <summary>The text for every program, and the HTML for those that know RFC 9073 6.5.</summary>
    private static void WriteDescription(ContentLines lines, RichText description)
    {
        if (description.Text.Length > 0)
            lines.Text("DESCRIPTION:"u8, description.Text);
        if (description.Html.Length > 0)
            lines.Text("STYLED-DESCRIPTION;VALUE=TEXT;FMTTYPE=text/html:"u8, description.Html);
    }
}
