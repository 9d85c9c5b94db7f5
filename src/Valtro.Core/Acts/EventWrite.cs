using NodaTime;
using Valtro.Core.Disclosure;
using Valtro.Core.Events;
using Valtro.Core.YearPlans;

namespace Valtro.Core.Acts;

/// <summary>What was done to an event.</summary>
public enum EventAct
{
    Made,
    Changed,
    Cancelled,
    Removed,
    Restored,
    Undone,

    /// <summary>Its source said so.</summary>
    Fetched,
}

/// <summary>One event that an act writes.</summary>
/// <param name="Event">As it is afterwards. A new one has an empty id.</param>
/// <param name="Version">The version that the act begins with; null for a new event.</param>
public sealed record EventWrite(CalendarEvent Event, int? Version, EventAct Act, bool IsRemoved = false)
{
    /// <summary>As it was; null for a new event.</summary>
    public StoredEvent? Before { get; init; }

    /// <summary>Where a date has gone: to this event, or to one that the act writes so many places further on; and to which date. Null
    /// where no date is the same one.</summary>
    public Func<LocalDateTime, (int Index, LocalDateTime Date)?>? Follows { get; init; }

    /// <summary>Some audience sees less of it from now on, or may: what was rendered before is served no more.</summary>
    public bool TakesAway { get; init; } = Version is not null;

    public static EventWrite Making(CalendarEvent made, EventAct act = EventAct.Made) => new(made with { Id = Guid.Empty }, null, act);

    /// <param name="successor">What goes on from a later date, when it was split: the act writes it next.</param>
    public static EventWrite Saving(
        StoredEvent before, CalendarEvent after, EventAct act, bool isRemoved, SchoolCalendar school, CalendarEvent? successor = null) =>
        new(after, before.Version, act, isRemoved)
        {
            Before = before,
            TakesAway = isRemoved || SeesLess.Between(before.Event, after),
            Follows = successor is null && after.Series.Equals(before.Event.Series)
                ? null
                : date => Following.Find(before.Event, successor is null ? [after] : [after, successor], date, school),
        };
}
