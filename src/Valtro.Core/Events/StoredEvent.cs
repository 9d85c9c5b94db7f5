using NodaTime;

namespace Valtro.Core.Events;

/// <summary>An event with what its editors need: the version checked on save, and who saved it last.</summary>
/// <param name="MadeBy">Who made it, where that is known.</param>
public sealed record StoredEvent(CalendarEvent Event, int Version, Instant? RemovedAt, string SavedBy, Instant SavedAt, Guid? MadeBy)
{
    public bool IsRemoved => RemovedAt is not null;

    /// <summary>It has not gone out yet.</summary>
    public bool IsUnfinished => !Disclosure.Visibility.LeavesTheHouse(Event.State);
}

/// <summary>One save of an event.</summary>
/// <param name="Event">As it was after the save.</param>
public sealed record Revision(int Version, Acts.EventAct Act, Guid ActId, string By, Instant At, bool IsRemoved, CalendarEvent Event);
