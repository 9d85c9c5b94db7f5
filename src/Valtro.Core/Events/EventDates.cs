using NodaTime;
using Valtro.Core.Recurrence;
using Valtro.Core.Time;
using Valtro.Core.YearPlans;

namespace Valtro.Core.Events;

/// <summary>One date of an event as it really is: its exception applied.</summary>
public readonly record struct EventDate(CalendarEvent Event, Occurrence Occurrence, EventException? Exception)
{
    /// <summary>What is said of this date: its own, and the rest as its series.</summary>
    public EventContent Content => Exception?.Own.Over(Event.Content) ?? Event.Content;

    public string Title => Content.Title;

    public Place Place => Content.Place;

    public EventState State => Exception?.IsCancelled == true ? EventState.Cancelled : Event.State;

    public bool IsException => Exception is not null;

    /// <summary>The timing of this date alone.</summary>
    public Timing Timing => Event.Series.Timing.Of(
        Exception?.Start ?? Occurrence.LocalStart,
        Exception is { Start: not null } moved ? EventDates.EndOf(Event, moved) : Occurrence.LocalEnd);
}

/// <summary>The dates of events: rule, year plan and exceptions together. The one place where they meet.</summary>
public static class EventDates
{
    /// <summary>The dates that overlap <paramref name="window"/>, ascending by start.</summary>
    public static IEnumerable<EventDate> In(CalendarEvent calendarEvent, Window window, SchoolCalendar school)
    {
        var dates = calendarEvent.Series.In(window, school);
        if (calendarEvent.Exceptions.Count == 0)
            return dates.Select(occurrence => new EventDate(calendarEvent, occurrence, null));
        var moved = calendarEvent.Exceptions.Where(exception => exception.Start is not null)
            .Select(exception => new EventDate(calendarEvent, MovedOccurrence(calendarEvent, exception), exception))
            .Where(date => date.Occurrence.Overlaps(window, calendarEvent.Series.Timing.AllDay));
        return Merged(calendarEvent, dates, moved);
    }

    /// <summary>All dates, ascending by start; the caller says how many it wants of one without end.</summary>
    public static IEnumerable<EventDate> All(CalendarEvent calendarEvent, SchoolCalendar school)
    {
        var dates = calendarEvent.Series.All(school);
        return calendarEvent.Exceptions.Count == 0
            ? dates.Select(occurrence => new EventDate(calendarEvent, occurrence, null))
            : Merged(calendarEvent, dates, calendarEvent.Exceptions.Where(exception => exception.Start is not null)
                .Select(exception => new EventDate(calendarEvent, MovedOccurrence(calendarEvent, exception), exception)));
    }

    /// <summary>The first date that is not over; where all are, the last one. Null where the event has no date.</summary>
    public static EventDate? NextOrLast(CalendarEvent calendarEvent, Instant now, SchoolCalendar school)
    {
        // What goes on for years is not gone through from its beginning, unless nothing comes for long.
        var zone = calendarEvent.Series.Timing.Zone;
        var today = now.InZone(zone).Date;
        foreach (var date in In(calendarEvent, new Window(today, today.PlusDays(60), zone), school))
        {
            if (date.Occurrence.End >= now)
                return date;
        }
        EventDate? last = null;
        foreach (var date in All(calendarEvent, school))
        {
            last = date;
            if (date.Occurrence.End >= now)
                break;
        }
        return last;
    }

    /// <summary>The date that a rule position names, as it really is; null when the event has none there.</summary>
    public static EventDate? Find(CalendarEvent calendarEvent, LocalDateTime recurrenceId, SchoolCalendar school)
    {
        var exception = calendarEvent.Exceptions.FirstOrDefault(one => one.RecurrenceId == recurrenceId);
        if (exception?.Start is not null)
            return new EventDate(calendarEvent, MovedOccurrence(calendarEvent, exception), exception);
        // A date that a break moved on may stand behind one that comes later by the rule, but never by more than a week.
        foreach (var occurrence in calendarEvent.Series.From(recurrenceId, school))
        {
            if (occurrence.RecurrenceId == recurrenceId)
                return new EventDate(calendarEvent, occurrence, exception);
            if (occurrence.RecurrenceId > recurrenceId.PlusDays(8))
                break;
        }
        return null;
    }

    /// <summary>From the first start to the last end, moved dates included; null as the end when it has none.</summary>
    public static (Instant From, Instant? To) Reach(CalendarEvent calendarEvent)
    {
        var (from, to) = calendarEvent.Series.Reach();
        if (calendarEvent.Exceptions.Count == 0)
            return (from, to);
        foreach (var exception in calendarEvent.Exceptions.Where(one => one.Start is not null))
        {
            var moved = MovedOccurrence(calendarEvent, exception);
            from = Instant.Min(from, moved.Start);
            to = to is { } end ? Instant.Max(end, moved.End) : null;
        }
        return (from, to);
    }

    private static Occurrence MovedOccurrence(CalendarEvent calendarEvent, EventException exception) =>
        calendarEvent.Series.Timing.Of(exception.Start!.Value, EndOf(calendarEvent, exception)).Occurrence(exception.RecurrenceId);

    /// <summary>What has become a deadline has no length, on dates that were moved before either.</summary>
    internal static LocalDateTime EndOf(CalendarEvent calendarEvent, EventException moved)
    {
        if (!calendarEvent.Content.IsDeadline)
            return moved.End!.Value;
        return calendarEvent.Series.Timing.AllDay ? moved.Start!.Value.PlusDays(1) : moved.Start!.Value;
    }

    private static IEnumerable<EventDate> Merged(CalendarEvent calendarEvent, IEnumerable<Occurrence> dates, IEnumerable<EventDate> moved)
    {
        var exceptions = calendarEvent.Exceptions.ToDictionary(exception => exception.RecurrenceId);
        var waiting = new Queue<EventDate>(moved.OrderBy(date => date.Occurrence.Start));
        foreach (var occurrence in dates)
        {
            var exception = exceptions.GetValueOrDefault(occurrence.RecurrenceId);
            if (exception?.Start is not null)
                continue;
            while (waiting.Count > 0 && waiting.Peek().Occurrence.Start < occurrence.Start)
                yield return waiting.Dequeue();
            yield return new EventDate(calendarEvent, occurrence, exception);
        }
        while (waiting.Count > 0)
            yield return waiting.Dequeue();
    }
}
