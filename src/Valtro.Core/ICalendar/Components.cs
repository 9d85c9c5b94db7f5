using System.IO.Hashing;
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
    private ComponentBody? _body;

    public IReadOnlyList<Component> Written => _written;

    /// <summary>From the line that begins it on, without its stamp.</summary>
    internal ReadOnlySpan<byte> PropertiesOf(in Component component) => _output.Written.Slice(component.From, component.Properties);

    /// <summary>The components in it: participants, an alarm.</summary>
    internal ReadOnlySpan<byte> PartsOf(in Component component) =>
        _output.Written[(component.From + component.Properties)..(component.From + component.Length)];

    /// <summary>Each zone that a timed component uses, from its first start to its last end, in order of name.</summary>
    internal IEnumerable<(DateTimeZone Zone, Instant From, Instant? To)> Zones => _zones.Values;

    private ContentLines Lines => _lines ??= new ContentLines(_output);

    private ComponentBody Body => _body ??= new ComponentBody(Lines, files, places, edition);

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
        if (Body.IsTask(disclosed) && calendarEvent.Series.Recurs)
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
        Body.WriteProperties(disclosed, timing.AllDay);
        if (calendarEvent.Continues is { } continued && disclosed.Detail > Detail.Times)
            Lines.Text("RELATED-TO;RELTYPE=SIBLING:"u8, continued.Text);
        End(start, new ComponentName(uid, ""), disclosed, timing.Start, delivered.Calendars);
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
        Body.WriteProperties(disclosed, timing.AllDay);
        End(start, new ComponentName(uid, ""), disclosed, occurrence.LocalStart, calendars);
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
        Body.WriteProperties(disclosed, timing.AllDay);
        End(start, new ComponentName(uid, LocalDateTimePattern.GeneralIso.Format(name)), disclosed, timing.Start, delivered.Calendars);
    }

    // ---- the parts of a component

    /// <param name="of">The event of which it is; null for a break of the year plan.</param>
    private int Begin(Uid uid, CalendarEvent? of, Disclosed disclosed)
    {
        var start = _output.Count;
        Lines.Begin(Body.IsTask(disclosed) ? "VTODO"u8 : "VEVENT"u8);
        Lines.Text("UID:"u8, uid.Text);
        if (disclosed.Detail > Detail.Times && of is not null)
            Lines.Moment("CREATED:"u8, of.Created);
        return start;
    }

    /// <param name="begins">When the event, or the date, is.</param>
    private void End(int start, ComponentName name, Disclosed disclosed, LocalDateTime begins, IReadOnlyList<Guid> calendars)
    {
        var properties = _output.Count - start;
        Body.WriteParts(disclosed, name.Uid, begins);
        var bytes = _output.Written[start..];
        _written.Add(new Component(name, XxHash128.HashToUInt128(bytes), disclosed.Detail > Detail.Times, calendars, start, bytes.Length,
            properties, Body.IsTask(disclosed)));
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
        // A start counts for most programs, listed or not.
        var excluded = hidden.Length == 0 ? delivery.Excluded
            : [.. delivery.Excluded.Concat(hidden.Except(delivery.Added.Where(date => date != delivery.Start))).Order()];
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
        if (Body.IsTask(disclosed))
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
}
