using System.Globalization;
using System.IO.Hashing;
using System.Net;
using System.Text;
using NodaTime;
using NodaTime.Text;
using Valtro.Core.Disclosure;
using Valtro.Core.Editions;
using Valtro.Core.Events;
using Valtro.Core.Recurrence;
using Valtro.Core.Time;
using Valtro.Core.YearPlans;

namespace Valtro.Core.ICalendar;

/// <summary>By which readers' programs know a component (RFC 5545 3.8.4.4, 3.8.4.7).</summary>
/// <param name="RecurrenceId">The start that the rule gives a date which differs; empty for the event itself.</param>
public readonly record struct ComponentName(Uid Uid, string RecurrenceId);

/// <summary>What readers get of an event, or of one of its dates, before it is said how often and when it changed.</summary>
/// <param name="Digest">Of its bytes.</param>
/// <param name="TellsChange">What is told as times only does not say when it last changed.</param>
/// <param name="Calendars">Whose it is, as far as the readers may know.</param>
/// <param name="Properties">How many of its bytes its properties are; behind them and its stamp come the components in it.</param>
/// <param name="IsTask">A VTODO, and else a VEVENT.</param>
public readonly record struct Component(
    ComponentName Name, UInt128 Digest, bool TellsChange, IReadOnlyList<Guid> Calendars, int From, int Length,
        int Properties, bool IsTask);

/// <summary>A place on Earth in degrees, north and east (WGS 84), as RFC 5545 3.8.1.6 has it.</summary>
public readonly record struct Coordinates(double Latitude, double Longitude);

/// <summary>What feeds tell of a known place besides its name.</summary>
public sealed record PlaceTold(Coordinates? At, string Address, string AccessNote);

/// <summary>Writes the components of a feed, without stamps, one after the other (RFC 5545 3.6.1).</summary>
/// <param name="files">Below which files are.</param>
/// <param name="places">What is known of places.</param>
/// <param name="edition">How it delivers deadlines, and of what it reminds; null for neither tasks nor reminders.</param>
/// <param name="horizon">Until when dates are named that no rule outside can say. It moves once a year, so that bytes do not change by the
/// clock otherwise.</param>
public sealed class Components(
    SchoolCalendar school, Uri files, IReadOnlyDictionary<Guid, PlaceTold> places, LocalDate horizon, Edition? edition = null)
    : IDisposable
{
    private readonly PooledBytes _output = new();
    private readonly List<Component> _written = [];
    private readonly SortedDictionary<string, (DateTimeZone Zone, Instant From, Instant? To)> _zones = new(StringComparer.Ordinal);
    private ContentLines? _lines;

    public IReadOnlyList<Component> Written => _written;

    /// <summary>From the line that begins it on, without its stamp.</summary>
    internal ReadOnlySpan<byte> PropertiesOf(in Component component) => _output.Written.Slice(component.From, component.Properties);

    /// <summary>The components in it: participants, an alarm.</summary>
    internal ReadOnlySpan<byte> PartsOf(in Component component) =>
        _output.Written[(component.From + component.Properties)..(component.From + component.Length)];

    /// <summary>Each zone that a timed component uses, from its first start to its last end, in order of name.</summary>
    internal IEnumerable<(DateTimeZone Zone, Instant From, Instant? To)> Zones => _zones.Values;

    private ContentLines Lines => _lines ??= new ContentLines(_output);

    public void Dispose() => _output.Dispose();

    /// <summary>How far ahead of a moment dates are named that no rule says.</summary>
    public const int YearsAhead = 5;

    /// <summary>1 January, some years ahead.</summary>
    public static LocalDate HorizonAt(Instant now, DateTimeZone zone) =>
        new(Math.Min(now.InZone(zone).Year + YearsAhead + 1, DayRange.Last.Year), 1, 1);

    /// <summary>An event with its rule, and its dates that differ.</summary>
    /// <param name="uid">By which its readers know it.</param>
    public void AddSeries(Delivered delivered, Uid uid)
    {
        var (calendarEvent, disclosed) = (delivered.Event, delivered.Disclosed);
        if (Delivery.Of(calendarEvent, school, horizon) is not { } delivery)
            return;
        var timing = calendarEvent.Series.Timing;
        if (IsTask(disclosed) && calendarEvent.Series.Recurs)
        {
            AddTasks(delivered, uid);
            return;
        }
        if (!timing.AllDay)
        {
            var (from, to) = EventDates.Reach(calendarEvent);
            Need(timing.Zone, from, to);
        }
        var dates = DatesThatDiffer(delivered, delivery);
        var start = Begin(uid, delivered.Event, disclosed);
        WriteWhen(timing, delivery, dates, disclosed);
        WriteText(disclosed, timing.AllDay);
        WriteMore(disclosed);
        if (calendarEvent.Continues is { } continued && disclosed.Detail > Detail.Times)
            Lines.Text("RELATED-TO;RELTYPE=SIBLING:"u8, continued.Text);
        End(start, new ComponentName(uid, ""), disclosed, timing, delivered.Calendars);
        foreach (var (date, told) in dates)
        {
            if (told is not null
                && (date.Exception?.Start is not null
                    || delivery.Uneven.Contains(date.Occurrence.RecurrenceId)
                    || !SaysTheSame(told, disclosed)))
                AddException(delivered, date, told, Name(delivery, date), uid);
        }
    }

    /// <summary>How many years of a task that recurs are in a feed, from 1 January of last year.</summary>
    private const int YearsOfTasks = 3;

    /// <summary>A task that recurs is one for each date: it begins nowhere, and a rule needs a beginning before the time at which it is due
    /// (RFC 5545 3.8.2.3).</summary>
    private void AddTasks(Delivered delivered, Uid uid)
    {
        var first = horizon.PlusYears(-YearsAhead - 2);
        var window = new Window(first, first.PlusYears(YearsOfTasks), delivered.Event.Series.Timing.Zone);
        foreach (var date in EventDates.In(delivered.Event, window, school))
        {
            if (Told(delivered, date) is { } told)
                AddDate(
                    delivered.Event, told, date.Timing, date.Occurrence, OutwardNames.OfDate(uid, date.Occurrence.RecurrenceId),
                    delivered.Calendars);
        }
    }

    /// <summary>One date as an event of its own.</summary>
    /// <param name="title">With all that the edition writes into it.</param>
    public void AddDate(Entry date, string title, Uid uid) => AddDate(
        date.Of, date.Event.Titled(title), date.Timing, date.Occurrence, uid, [.. date.Sources.Select(source => source.CalendarId)]);

    /// <summary>The same, as somebody sees it who is no edition's reader.</summary>
    public void AddDate(EventDate date, Disclosed disclosed, Uid uid) =>
        AddDate(date.Event, disclosed, date.Event.Series.Timing, date.Occurrence, uid, []);

    private void AddDate(
        CalendarEvent? of, Disclosed disclosed, Timing timing, Occurrence occurrence, Uid uid, IReadOnlyList<Guid> calendars)
    {
        if (!timing.AllDay)
            Need(timing.Zone, occurrence.Start, occurrence.End);
        var start = Begin(uid, of, disclosed);
        WriteSpan(timing, occurrence, disclosed);
        WriteText(disclosed, timing.AllDay);
        WriteMore(disclosed);
        End(start, new ComponentName(uid, ""), disclosed, timing, calendars);
    }

    private void Need(DateTimeZone zone, Instant from, Instant? to) => _zones[zone.Id] = _zones.TryGetValue(zone.Id, out var so)
        ? (zone, Instant.Min(so.From, from), so.To is { } one && to is { } other ? Instant.Max(one, other) : null)
        : (zone, from, to);

    // ---- dates that differ

    private static (EventDate Date, Disclosed? Told)[] DatesThatDiffer(Delivered delivered, Delivery delivery)
    {
        var calendarEvent = delivered.Event;
        if (calendarEvent.Exceptions.Count == 0 && delivery.Uneven.Count == 0)
            return [];
        var own = calendarEvent.Exceptions.Where(exception =>
            !delivery.Left.Contains(exception.RecurrenceId) && !calendarEvent.Series.Removed.Contains(exception.RecurrenceId))
            .ToArray();
        var uneven = delivery.Uneven.Except(own.Select(exception => exception.RecurrenceId));
        return [.. own.Select(exception => Told(delivered, exception.RecurrenceId, exception))
            .Concat(uneven.Select(id => Told(delivered, id, null))).OrderBy(one => one.Date.Occurrence.RecurrenceId)];
    }

    private static (EventDate Date, Disclosed? Told) Told(Delivered delivered, LocalDateTime id, EventException? exception)
    {
        var calendarEvent = delivered.Event;
        var timing = calendarEvent.Series.Timing;
        var date = new EventDate(calendarEvent, timing.StartingAt(id).Occurrence(id), exception);
        return (date, Told(delivered, date));
    }

    private static Disclosed? Told(Delivered delivered, EventDate date) =>
        delivered.Disclosed.Likewise(date)?.Called(delivered.Disclosed.Title) is { } told ? delivered.Shape(told) : null;

    private static LocalDateTime Name(Delivery delivery, EventDate date) =>
        delivery.Names.GetValueOrDefault(date.Occurrence.RecurrenceId, date.Occurrence.RecurrenceId);

    private static bool SaysTheSame(Disclosed one, Disclosed other) =>
        one.Title == other.Title && one.State == other.State && EventField.OfOneDate.All(field => field.IsSame(one.Content, other.Content));

    /// <summary>RFC 5545 3.8.4.4: the date is named by the start that the rule gives it.</summary>
    private void AddException(Delivered delivered, EventDate date, Disclosed disclosed, LocalDateTime name, Uid uid)
    {
        var series = date.Event.Series.Timing;
        var timing = date.Exception?.Start is null ? series.StartingAt(name) : date.Timing;
        var start = Begin(uid, delivered.Event, disclosed);
        Lines.Start("RECURRENCE-ID"u8, name, series.AllDay, series.Zone.Id);
        WriteSpan(timing, timing.Occurrence(timing.Start), disclosed);
        WriteText(disclosed, timing.AllDay);
        WriteMore(disclosed);
        End(start, new ComponentName(uid, LocalDateTimePattern.GeneralIso.Format(name)), disclosed, timing, delivered.Calendars);
    }

    // ---- the parts of a component

    /// <param name="of">The event of which it is; null for a break of the year plan.</param>
    private int Begin(Uid uid, CalendarEvent? of, Disclosed disclosed)
    {
        var start = _output.Count;
        Lines.Begin(IsTask(disclosed) ? "VTODO"u8 : "VEVENT"u8);
        Lines.Text("UID:"u8, uid.Text);
        if (disclosed.Detail > Detail.Times && of is not null)
            Lines.Moment("CREATED:"u8, of.Created);
        return start;
    }

    private void End(int start, ComponentName name, Disclosed disclosed, Timing timing, IReadOnlyList<Guid> calendars)
    {
        var properties = _output.Count - start;
        WritePlace(disclosed);
        if (disclosed.Content.People.Count > 0)
            WriteParticipants(disclosed, name.Uid);
        WriteReminder(disclosed, timing);
        var bytes = _output.Written[start..];
        _written.Add(new Component(name, XxHash128.HashToUInt128(bytes), disclosed.Detail > Detail.Times, calendars, start, bytes.Length,
            properties, IsTask(disclosed)));
    }

    /// <summary>What some readers may not know of at all is for them as if it had been removed.</summary>
    private void WriteWhen(Timing timing, Delivery delivery, (EventDate Date, Disclosed? Told)[] dates, Disclosed disclosed)
    {
        if (delivery.Rule is null && delivery.Added.Count == 0)
            WriteSpan(timing, timing.StartingAt(delivery.Start).Occurrence(delivery.Start), disclosed);
        else
            WriteUsualSpan(timing, delivery);
        if (delivery.Rule is not null)
            Lines.Verbatim("RRULE:"u8, RuleText.Format(delivery.Rule));
        LocalDateTime[] hidden = dates.Length == 0 ? [] : [.. dates.Where(one => one.Told is null).Select(one => Name(delivery, one.Date))];
        var added = hidden.Length == 0 ? delivery.Added : [.. delivery.Added.Except(hidden)];
        var excluded = hidden.Length == 0 ? delivery.Excluded : [.. delivery.Excluded.Concat(hidden.Except(delivery.Added)).Order()];
        if (excluded.Count > 0)
            Lines.Starts("EXDATE"u8, excluded, timing.AllDay, timing.Zone.Id);
        if (added.Count > 0)
            Lines.Starts("RDATE"u8, added, timing.AllDay, timing.Zone.Id);
    }

    /// <summary>The first date of a series as its rule gives it, and the length that its dates usually have, also where the first has
    /// another.</summary>
    /// <remarks>RFC 5545 3.8.5.3 gives all dates the exact length of the first. The first is then named as one that differs.</remarks>
    private void WriteUsualSpan(Timing timing, Delivery delivery)
    {
        Lines.Start("DTSTART"u8, delivery.Start, timing.AllDay, timing.Zone.Id);
        if (timing.End == timing.Start)
            return;
        if (delivery.Uneven.Contains(delivery.Start)
            || (!timing.AllDay && LocalTimes.EffectOf(delivery.Start, timing.Zone) == ClockEffect.Skipped))
            Lines.Length("DURATION:"u8, timing.Duration);
        else
            Lines.Start("DTEND"u8, timing.StartingAt(delivery.Start).End, timing.AllDay, timing.Zone.Id);
    }

    /// <summary>One date where it really is: what a clock change moved, it moved for every program alike. A time that comes twice that
    /// night is said in UTC, since programs disagree on which is meant.</summary>
    private void WriteSpan(Timing timing, Occurrence date, Disclosed disclosed)
    {
        if (IsTask(disclosed))
        {
            if (!timing.AllDay && LocalTimes.EffectOf(date.LocalStart, timing.Zone) == ClockEffect.Repeated)
                Lines.Moment("DUE:"u8, date.Start);
            else
                Lines.Start("DUE"u8, date.LocalStart, timing.AllDay, timing.Zone.Id);
            return;
        }
        if (!timing.AllDay
            && (LocalTimes.EffectOf(date.LocalStart, timing.Zone) == ClockEffect.Repeated
                || LocalTimes.EffectOf(date.LocalEnd, timing.Zone) == ClockEffect.Repeated))
        {
            Lines.Moment("DTSTART:"u8, date.Start);
            if (date.End > date.Start)
                Lines.Moment("DTEND:"u8, date.End);
            return;
        }
        Lines.Start("DTSTART"u8, date.LocalStart, timing.AllDay, timing.Zone.Id);
        if (date.End > date.Start)
            Lines.Start("DTEND"u8, date.LocalEnd, timing.AllDay, timing.Zone.Id);
    }

    private void WriteText(Disclosed disclosed, bool allDay)
    {
        Lines.Text("SUMMARY:"u8, disclosed.Title);
        var place = disclosed.Content.Place;
        var known = place.Id is { } id ? places.GetValueOrDefault(id) : null;
        if (!place.IsNowhere)
            Lines.Text("LOCATION:"u8, known is { Address.Length: > 0 } ? $"{place.Name}, {known.Address}" : place.Name);
        if (known?.At is { } at)
            Lines.Verbatim("GEO:"u8, Geo(at));
        WriteDescription(disclosed.Content);
        if (disclosed.Content.Category is { } category)
            Lines.Text("CATEGORIES:"u8, category.Name);
        foreach (var tag in disclosed.Content.Tags)
            Lines.Text("CATEGORIES:"u8, tag);
        if (IsTask(disclosed))
            Lines.Line("STATUS:"u8, disclosed.State == EventState.Cancelled ? "CANCELLED"u8 : "NEEDS-ACTION"u8);
        else
            WriteStatus(disclosed, allDay);
        Lines.Line("CLASS:"u8, "PUBLIC"u8);
    }

    private static string Geo(Coordinates at) =>
        string.Create(CultureInfo.InvariantCulture, $"{at.Latitude:0.######};{at.Longitude:0.######}");

    /// <summary>RFC 9073 7.2, where more is known of it than LOCATION and GEO say.</summary>
    private void WritePlace(Disclosed disclosed)
    {
        if (disclosed.Content.Place is not { Id: { } id } place || places.GetValueOrDefault(id) is not { } known
            || known is { Address: "", AccessNote: "" })
            return;
        Lines.Begin("VLOCATION"u8);
        Lines.Text("UID:"u8, Uid.Of(id).Text);
        Lines.Text("NAME:"u8, place.Name);
        var about = string.Join("\n", new[] { known.Address, known.AccessNote }.Where(line => line.Length > 0));
        if (about.Length > 0)
            Lines.Text("DESCRIPTION:"u8, about);
        if (known.At is { } at)
            Lines.Verbatim("GEO:"u8, Geo(at));
        Lines.End("VLOCATION"u8);
    }

    private bool IsTask(Disclosed disclosed) => edition?.Deadlines == DeadlineForm.Tasks && disclosed.Content.IsDeadline;

    private void WriteStatus(Disclosed disclosed, bool allDay)
    {
        Lines.Line("STATUS:"u8, disclosed.State == EventState.Cancelled ? "CANCELLED"u8
            : disclosed.Content.Certainty == Certainty.Tentative ? "TENTATIVE"u8 : "CONFIRMED"u8);
        Lines.Line("TRANSP:"u8, IsFree(disclosed.Content, allDay) ? "TRANSPARENT"u8 : "OPAQUE"u8);
    }

    private static bool IsFree(EventContent content, bool allDay) => content.Transparency switch
    {
        Transparency.Free => true,
        Transparency.Busy => false,
        _ => allDay || content.IsDeadline,
    };

    /// <summary>Links as URL and LINK (RFC 9253 6.1), calls as CONFERENCE (RFC 7986 5.11) too, files as ATTACH with their name
    /// (RFC 8607 4.1).</summary>
    private void WriteMore(Disclosed disclosed)
    {
        if (disclosed.Content.Contact.Length > 0)
            Lines.Text("CONTACT:"u8, disclosed.Content.Contact);
        var isFirst = true;
        foreach (var link in disclosed.Content.Links)
        {
            // One that was stored before it had to have such an address, and has none, nobody could open.
            if (AsciiAddress.Of(link.Url) is not { } address)
                continue;
            if (isFirst)
                Lines.Verbatim("URL:"u8, address);
            isFirst = false;
            Lines.Verbatim("LINK;VALUE=URI;LINKREL=related;LABEL="u8, $"{Parameter(link.Called())}:{address}");
            if (link.Kind == LinkKind.VideoCall)
                Lines.Verbatim("CONFERENCE;VALUE=URI;FEATURE=AUDIO,VIDEO;LABEL="u8, $"{Parameter(link.Called())}:{address}");
        }
        if (disclosed.Picture is { } picture)
            Lines.Verbatim("IMAGE;VALUE=URI;DISPLAY=FULLSIZE:"u8, FileAddress(files, picture.Id, picture.Name));
        foreach (var file in disclosed.Content.Files)
            Lines.Verbatim("ATTACH;FMTTYPE="u8, $"{file.Type};FILENAME={Parameter(file.Name)}:{FileAddress(files, file.Id, file.Name)}");
    }

    /// <summary>RFC 5545 3.6.6. It stands behind the stamps, since properties stand before components in a component.</summary>
    private void WriteReminder(Disclosed disclosed, Timing timing)
    {
        if (edition?.Reminding is null or Reminding.Nothing || disclosed.State == EventState.Cancelled || disclosed.Detail == Detail.Times
            || (disclosed.Content.Reminder ?? (edition.Reminding == Reminding.Everything ? edition.Reminder : null)) is not { } reminder)
            return;
        var before = reminder.Before(timing);
        Lines.Begin("VALARM"u8);
        Lines.Line("ACTION:"u8, "DISPLAY"u8);
        var related = IsTask(disclosed) ? ";RELATED=END" : "";
        Lines.Length(
            Encoding.ASCII.GetBytes($"TRIGGER{related}:{(before > Duration.Zero ? "-" : "")}"), before >= Duration.Zero ? before : -before);
        Lines.Text("DESCRIPTION:"u8, disclosed.Title);
        Lines.End("VALARM"u8);
    }

    /// <summary>Where readers of an edition fetch a file.</summary>
    public static string FileAddress(Uri files, Guid id, string name) =>
        $"{files.AbsoluteUri.TrimEnd('/')}/files/{id}/{Uri.EscapeDataString(name)}";

    /// <summary>A quoted parameter value; what it may not hold is written as RFC 6868 3 says.</summary>
    private static string Parameter(string value) =>
        $"\"{value.Replace("^", "^^", StringComparison.Ordinal).Replace("\"", "^'", StringComparison.Ordinal).Replace("\n", "^n", StringComparison.Ordinal)}\"";

    /// <summary>The text for every program, and the HTML for those that know RFC 9073 6.5 or the older form.</summary>
    /// <remarks>Who is responsible stands below it: few programs show participants.</remarks>
    private void WriteDescription(EventContent content)
    {
        var (text, html) = (content.Description.Text, content.Description.Html);
        if (content.People.Count > 0 && edition is not null)
        {
            var people = content.People.GroupBy(one => one.Part)
                .Select(part => $"{edition.PartNames[part.Key]}: {string.Join(", ", part.Select(one => one.Name))}").ToArray();
            text = string.Join("\n\n", new[] { text, string.Join('\n', people) }.Where(some => some.Length > 0));
            html = html.Length == 0 ? "" : $"{html}{string.Concat(people.Select(one => $"<p>{WebUtility.HtmlEncode(one)}</p>"))}";
        }
        if (text.Length > 0)
            Lines.Text("DESCRIPTION:"u8, text);
        if (html.Length > 0)
        {
            Lines.Text("STYLED-DESCRIPTION;VALUE=TEXT;FMTTYPE=text/html:"u8, html);
            Lines.Text("X-ALT-DESC;FMTTYPE=text/html:"u8, html);
        }
    }

    /// <summary>RFC 9073 7.1.</summary>
    private void WriteParticipants(Disclosed disclosed, Uid uid)
    {
        foreach (var one in disclosed.Content.People)
        {
            Lines.Begin("PARTICIPANT"u8);
            Lines.Text("UID:"u8, uid.Hidden(one.Name).Text);
            Lines.Line("PARTICIPANT-TYPE:"u8, one.Part == Part.Speaks ? "SPEAKER"u8 : "ACTIVE"u8);
            Lines.Text("SUMMARY:"u8, one.Name);
            Lines.End("PARTICIPANT"u8);
        }
    }
}
