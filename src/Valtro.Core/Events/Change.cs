using NodaTime;

namespace Valtro.Core.Events;

/// <summary>How much of a series a change is meant for.</summary>
public enum ChangeScope
{
    This,
    Later,
    Every,
}

/// <summary>What an editor does.</summary>
public enum ChangeAct
{
    Edit,

    /// <summary>It stays visible, struck through.</summary>
    Cancel,

    /// <summary>It is gone.</summary>
    Remove,

    /// <summary>What was cancelled takes place again; what was removed or changed is as the series says.</summary>
    Restore,
}

/// <summary>A change as it was made on screen, seen from one date.</summary>
/// <param name="SeenFrom">The rule position of the date on which it was made.</param>
/// <param name="Typed">For <see cref="ChangeAct.Edit"/>: all that the form says; its timing is that of the date seen.</param>
public sealed record Change(ChangeAct Act, LocalDateTime SeenFrom, EventContent? Typed = null);

/// <summary>What becomes of an event. Exceptions are given as they were before.</summary>
/// <param name="Event">The event afterwards.</param>
public sealed record ChangeOutcome(CalendarEvent Event)
{
    /// <summary>It goes to the bin.</summary>
    public bool IsRemoved { get; init; }

    /// <summary>The series that goes on from the date seen, when it was split.</summary>
    public CalendarEvent? Successor { get; init; }

    /// <summary>Exceptions that stay on their dates.</summary>
    public IReadOnlyList<EventException> Kept { get; init; } = [];

    /// <summary>Exceptions that moved along with their dates.</summary>
    public IReadOnlyList<EventException> Moved { get; init; } = [];

    /// <summary>Exceptions that lose their place, unless they are kept as extra dates.</summary>
    public IReadOnlyList<EventException> Lost { get; init; } = [];
}
