using System.Buffers;
using NodaTime;
using Valtro.Core.Calendars;
using Valtro.Core.Disclosure;
using Valtro.Core.Editions;
using Valtro.Core.Events;
using Valtro.Core.Recurrence;
using Valtro.Core.Time;
using Valtro.Core.YearPlans;

namespace Valtro.Core.ICalendar;

/// <summary>What a feed says of itself (RFC 7986 5).</summary>
/// <param name="Changed">When what readers get last changed.</param>
/// <param name="Page">The reading page.</param>
/// <param name="Address">The feed's own address; null where each reader has another.</param>
/// <param name="Files">Below which files are.</param>
/// <param name="Zone">In which the edition's days begin.</param>
public sealed record FeedHead(Guid Uid, string Name, string Description, Hue Hue, Uri Page, Uri? Address, Uri Files, Instant Changed, DateTimeZone Zone);

/// <summary>Writes an edition as an iCalendar stream (RFC 5545, RFC 7986), in one pass.</summary>
/// <remarks>The same events and head give the same bytes.</remarks>
public static class FeedWriter
{
    public static void Write(IBufferWriter<byte> output, FeedHead head, IReadOnlyCollection<Delivered> events, SchoolCalendar school)
    {
        var lines = new ContentLines(output);
        lines.Begin("VCALENDAR"u8);
        WriteHead(lines, head);
        foreach (var (zone, from, to) in ZonesNeeded(events))
            ZoneComponent.Write(lines, zone, from, to);
        foreach (var delivered in events)
            WriteEvent(lines, delivered, school, head.Files);
        lines.End("VCALENDAR"u8);
    }

    /// <summary>Each in the form of RFC 7986, and in the older one that most programs read.</summary>
    private static void WriteHead(ContentLines lines, FeedHead head)
    {
        lines.Line("VERSION:"u8, "2.0"u8);
        lines.Line("PRODID:"u8, "-//Valtro//Valtro//EN"u8);
        lines.Line("CALSCALE:"u8, "GREGORIAN"u8);
        lines.Identity("UID:"u8, head.Uid);
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
        lines.Line("REFRESH-INTERVAL;VALUE=DURATION:"u8, "PT1H"u8);
        lines.Line("X-PUBLISHED-TTL:"u8, "PT1H"u8);
        lines.Verbatim("COLOR:"u8, head.Hue.NearestCss);
    }

    /// <summary>Each zone that a timed event uses, from its first start to its last end, in order of name.</summary>
    private static IEnumerable<(DateTimeZone Zone, Instant From, Instant? To)> ZonesNeeded(
        IEnumerable<Delivered> events)
    {
        var needed = new SortedDictionary<string, (DateTimeZone Zone, Instant From, Instant? To)>(StringComparer.Ordinal);
        foreach (var happening in events.Select(delivered => delivered.Event))
        {
            var series = happening.Content.Series;
            if (series.Timing.AllDay)
                continue;
            var (from, to) = EventDates.Reach(happening);
            var zone = series.Timing.Zone;
            needed[zone.Id] = needed.TryGetValue(zone.Id, out var so)
                ? (zone, Instant.Min(so.From, from), so.To is { } one && to is { } other ? Instant.Max(one, other) : null)
                : (zone, from, to);
        }
        return needed.Values;
    }

    /// <summary>The least level that can tell two versions of an event apart; null when no reader gets anything else than before.</summary>
    /// <remarks>What a level sees is contained in what the next one sees, so all higher levels can tell them apart too.</remarks>
    public static Detail? SeenFrom(CalendarEvent one, SchoolCalendar oneSchool, CalendarEvent other, SchoolCalendar otherSchool)
    {
        foreach (var detail in new[] { Detail.Times, Detail.Headline, Detail.Complete })
        {
            if (!AreAlike(one, oneSchool, other, otherSchool, detail))
                return detail;
        }
        return null;
    }

    /// <summary>Whether readers of a level get the same of both: then nothing has to be fetched again.</summary>
    public static bool AreAlike(CalendarEvent one, SchoolCalendar oneSchool, CalendarEvent other, SchoolCalendar otherSchool, Detail detail = Detail.Complete)
    {
        return Bytes(one, oneSchool, detail).SequenceEqual(Bytes(other, otherSchool, detail));

        static ReadOnlySpan<byte> Bytes(CalendarEvent happening, SchoolCalendar school, Detail detail)
        {
            var output = new ArrayBufferWriter<byte>();
            var plain = happening with { Sequence = 0, Created = NodaConstants.UnixEpoch, Changed = NodaConstants.UnixEpoch, HeadlineStamp = null, TimesStamp = null };
            if (Delivered.AtLevel(plain, detail) is { } delivered)
                WriteEvent(new ContentLines(output), delivered, school, Anywhere);
            return output.WrittenSpan;
        }
    }

    private static readonly Uri Anywhere = new("https://valtro.invalid/");

    private static void WriteEvent(ContentLines lines, Delivered delivered, SchoolCalendar school, Uri files)
    {
        var (happening, disclosed) = (delivered.Event, delivered.Disclosed);
        if (Delivery.Of(happening, school) is not { } delivery)
            return;
        var exceptions = happening.Exceptions.Count == 0 ? [] : happening.Exceptions
            .Where(exception => !delivery.Left.Contains(exception.RecurrenceId) && !happening.Series.Removed.Contains(exception.RecurrenceId))
            .Select(exception => Told(delivered, exception))
            .ToArray();
        Begin(lines, happening, disclosed);
        lines.Number("SEQUENCE:"u8, disclosed.Stamp.Sequence);
        WriteWhen(lines, happening.Series.Timing, delivery, exceptions);
        WriteText(lines, disclosed, happening.Series.Timing.AllDay);
        WriteMore(lines, disclosed, files);
        if (happening.Continues is { } continued && disclosed.Detail > Detail.Times)
            lines.Identity("RELATED-TO;RELTYPE=SIBLING:"u8, continued);
        lines.End("VEVENT"u8);
        foreach (var (date, told) in exceptions)
        {
            if (told is not null && (date.Exception!.Start is not null || !SaysTheSame(told, disclosed)))
                WriteException(lines, date, told, Name(delivery, date), files);
        }
    }

    private static (EventDate Date, Disclosed? Disclosed) Told(Delivered delivered, EventException exception)
    {
        var happening = delivered.Event;
        var timing = happening.Series.Timing;
        var date = new EventDate(happening, timing.StartingAt(exception.RecurrenceId).Occurrence(exception.RecurrenceId), exception);
        return (date, Disclosed.Of(date, delivered.Disclosed.Detail) is { } told ? delivered.Shape(told) : null);
    }

    private static LocalDateTime Name(Delivery delivery, EventDate date) =>
        delivery.Names.GetValueOrDefault(date.Occurrence.RecurrenceId, date.Occurrence.RecurrenceId);

    private static bool SaysTheSame(Disclosed one, Disclosed other) =>
        one.Title == other.Title && one.Place == other.Place && one.Description == other.Description && one.State == other.State;

    /// <summary>RFC 5545 3.8.4.4: the date is named by the start that the rule gives it.</summary>
    private static void WriteException(ContentLines lines, EventDate date, Disclosed disclosed, LocalDateTime name, Uri files)
    {
        var series = date.Event.Series.Timing;
        var timing = date.Exception!.Start is null ? series.StartingAt(name) : date.Timing;
        Begin(lines, date.Event, disclosed);
        lines.Number("SEQUENCE:"u8, disclosed.Stamp.Sequence);
        lines.Start("RECURRENCE-ID"u8, name, series.AllDay, series.Zone.Id);
        WriteSpan(lines, timing, timing.Start);
        WriteText(lines, disclosed, timing.AllDay);
        WriteMore(lines, disclosed, files);
        lines.End("VEVENT"u8);
    }

    private static void Begin(ContentLines lines, CalendarEvent happening, Disclosed disclosed)
    {
        lines.Begin("VEVENT"u8);
        lines.Identity("UID:"u8, disclosed.Uid);
        lines.Moment("DTSTAMP:"u8, disclosed.Stamp.Changed);
        if (disclosed.Detail > Detail.Times)
        {
            lines.Moment("CREATED:"u8, happening.Created);
            lines.Moment("LAST-MODIFIED:"u8, disclosed.Stamp.Changed);
        }
    }

    /// <summary>What some readers may not know of at all is for them as if it had been removed.</summary>
    private static void WriteWhen(ContentLines lines, Timing timing, Delivery delivery, (EventDate Date, Disclosed? Disclosed)[] exceptions)
    {
        WriteSpan(lines, timing, delivery.Start);
        if (delivery.Rule is not null)
            lines.Verbatim("RRULE:"u8, RuleText.Format(delivery.Rule));
        LocalDateTime[] hidden = exceptions.Length == 0 ? [] : [.. exceptions.Where(exception => exception.Disclosed is null).Select(exception => Name(delivery, exception.Date))];
        var added = hidden.Length == 0 ? delivery.Added : [.. delivery.Added.Except(hidden)];
        var excluded = hidden.Length == 0 ? delivery.Excluded : [.. delivery.Excluded.Concat(hidden.Except(delivery.Added)).Order()];
        if (excluded.Count > 0)
            lines.Starts("EXDATE"u8, excluded, timing.AllDay, timing.Zone.Id);
        if (added.Count > 0)
            lines.Starts("RDATE"u8, added, timing.AllDay, timing.Zone.Id);
    }

    private static void WriteSpan(ContentLines lines, Timing timing, LocalDateTime start)
    {
        var span = start == timing.Start ? timing : timing.StartingAt(start);
        lines.Start("DTSTART"u8, span.Start, timing.AllDay, timing.Zone.Id);
        if (span.End > span.Start)
            lines.Start("DTEND"u8, span.End, timing.AllDay, timing.Zone.Id);
    }

    private static void WriteText(ContentLines lines, Disclosed disclosed, bool allDay)
    {
        lines.Text("SUMMARY:"u8, disclosed.Title);
        if (disclosed.Place.Length > 0)
            lines.Text("LOCATION:"u8, disclosed.Place);
        WriteDescription(lines, disclosed.Description);
        if (disclosed.Category is { } category)
            lines.Text("CATEGORIES:"u8, category.Name);
        foreach (var tag in disclosed.Tags)
            lines.Text("CATEGORIES:"u8, tag);
        lines.Line("STATUS:"u8, disclosed.State == EventState.Cancelled ? "CANCELLED"u8 : "CONFIRMED"u8);
        lines.Line("TRANSP:"u8, allDay ? "TRANSPARENT"u8 : "OPAQUE"u8);
        lines.Line("CLASS:"u8, "PUBLIC"u8);
    }

    /// <summary>Links as URL and LINK (RFC 9253 6.1), files as ATTACH with their name (RFC 8607 4.1).</summary>
    private static void WriteMore(ContentLines lines, Disclosed disclosed, Uri files)
    {
        if (disclosed.Contact.Length > 0)
            lines.Text("CONTACT:"u8, disclosed.Contact);
        var isFirst = true;
        foreach (var link in disclosed.Links)
        {
            // One that was stored before it had to have such an address, and has none, nobody could open.
            if (AsciiAddress.Of(link.Url) is not { } address)
                continue;
            if (isFirst)
                lines.Verbatim("URL:"u8, address);
            isFirst = false;
            lines.Verbatim("LINK;VALUE=URI;LINKREL=related;LABEL="u8, $"{Parameter(link.Label)}:{address}");
        }
        if (disclosed.Picture is { } picture)
            lines.Verbatim("IMAGE;VALUE=URI;DISPLAY=FULLSIZE:"u8, FileAddress(files, picture.Id, picture.Name));
        foreach (var file in disclosed.Files)
            lines.Verbatim("ATTACH;FMTTYPE="u8, $"{file.Type};FILENAME={Parameter(file.Name)}:{FileAddress(files, file.Id, file.Name)}");
    }

    /// <summary>Where readers of an edition fetch a file.</summary>
    public static string FileAddress(Uri files, Guid id, string name) => $"{files.AbsoluteUri.TrimEnd('/')}/files/{id}/{Uri.EscapeDataString(name)}";

    /// <summary>A quoted parameter value; what it may not hold is written as RFC 6868 3 says.</summary>
    private static string Parameter(string value) =>
        $"\"{value.Replace("^", "^^", StringComparison.Ordinal).Replace("\"", "^'", StringComparison.Ordinal).Replace("\n", "^n", StringComparison.Ordinal)}\"";

    /// <summary>The text for every program, and the HTML for those that know RFC 9073 6.5 or the older form.</summary>
    private static void WriteDescription(ContentLines lines, RichText description)
    {
        if (description.Text.Length > 0)
            lines.Text("DESCRIPTION:"u8, description.Text);
        if (description.Html.Length > 0)
        {
            lines.Text("STYLED-DESCRIPTION;VALUE=TEXT;FMTTYPE=text/html:"u8, description.Html);
            lines.Text("X-ALT-DESC;FMTTYPE=text/html:"u8, description.Html);
        }
    }
}
