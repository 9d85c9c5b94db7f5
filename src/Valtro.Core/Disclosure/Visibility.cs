using NodaTime;
using Valtro.Core.Events;

namespace Valtro.Core.Disclosure;

/// <summary>The one place that decides how much of an event somebody sees.</summary>
public static class Visibility
{
    /// <summary>What an audience gets of an event by way of one calendar: the least of calendar and event, within its showing span, once it
    /// is live.</summary>
    /// <param name="seesUnfinished">The onlooker may know of drafts and of what waits for sign-off there.</param>
    public static Detail Of(CalendarEvent calendarEvent, Disclosure calendar, Audience audience, Instant now, bool seesUnfinished = false)
    {
        if (!LeavesTheHouse(calendarEvent.State) && !seesUnfinished)
            return Detail.Nothing;
        var content = calendarEvent.Content;
        if (audience != Audience.Editors && !content.Showing.Holds(now, content.Series.Timing.Zone))
            return Detail.Nothing;
        return calendar.For(audience, content.Cap);
    }

    /// <summary>Only live and cancelled events are for anybody but those who make them.</summary>
    public static bool LeavesTheHouse(EventState state) => state is EventState.Live or EventState.Cancelled;
}

/// <summary>How much is seen of an event that stands on several calendars: as the most open shows it. That one decides what is granted
/// beside the level; of several alike each does.</summary>
public readonly record struct MostOpen(Detail Detail, Grants Grants)
{
    public MostOpen And(Detail detail, Grants grants) =>
        detail > Detail ? new(detail, grants) : detail == Detail ? this with { Grants = Grants | grants } : this;
}

/// <summary>What one person sees of one event.</summary>
/// <param name="Detail">By the calendar that shows them most of it.</param>
/// <param name="Calendars">Those on which they see it, the home first.</param>
/// <param name="Grants">What they have of it besides: those who may change it its notes and settings.</param>
public sealed record Sight(Detail Detail, IReadOnlyList<Guid> Calendars, Grants Grants)
{
    public static Sight Nothing { get; } = new(Detail.Nothing, [], Grants.None);
}
