using NodaTime;
using Valtro.Core.Calendars;
using Valtro.Core.Recurrence;

namespace Valtro.Core.Events;

/// <summary>A description: sanitised HTML, and the same as plain text for programs that show no HTML.</summary>
public sealed record RichText(string Html, string Text)
{
    public static RichText Empty { get; } = new("", "");
}

/// <summary>Where an event stands on its way out. Only live and cancelled events leave the house.</summary>
public enum EventState
{
    Draft,
    Waiting,
    Live,
    Cancelled,
}

/// <summary>A kind of event, from the organisation's list.</summary>
public sealed record Category(Guid Id, string Name, Hue Hue);

/// <summary>What an editor says of an event, validated.</summary>
/// <param name="Place">A known place of the organisation, by its name, or free text.</param>
/// <param name="Tags">Free words, ascending.</param>
public sealed record EventContent(string Title, Series Series, string Place, RichText Description, Category? Category, IReadOnlyList<string> Tags)
{
    public EventContent(string title, Series series, string place, RichText description)
        : this(title, series, place, description, null, [])
    {
    }

    public bool Equals(EventContent? other) =>
        other is not null && Title == other.Title && Series.Equals(other.Series) && Place == other.Place
        && Description == other.Description && Category == other.Category && Tags.SequenceEqual(other.Tags);

    public override int GetHashCode() => HashCode.Combine(Title, Series, Place, Description);
}

/// <summary>A date that differs from its series. It stores only what differs: the rest still follows the series.</summary>
/// <param name="RecurrenceId">Which date: the start it would have by the rule.</param>
public sealed record EventException(LocalDateTime RecurrenceId)
{
    public bool IsCancelled { get; init; }

    /// <summary>The local start when it was moved; for whole days the midnight of the first.</summary>
    public LocalDateTime? Start { get; init; }

    /// <summary>The local end, exclusive, when it was moved.</summary>
    public LocalDateTime? End { get; init; }

    public string? Title { get; init; }

    public string? Place { get; init; }

    public RichText? Description { get; init; }

    /// <summary>True when nothing differs any more.</summary>
    public bool IsEmpty => this == new EventException(RecurrenceId);
}

/// <summary>An event as it is kept.</summary>
/// <param name="Uid">The name that programs outside know it by, for ever (RFC 7986 5.3).</param>
/// <param name="Sequence">RFC 5545 3.8.7.4; rises with what readers can see.</param>
/// <param name="Changed">When what readers can see last changed.</param>
public sealed record CalendarEvent(
    Guid Id,
    Guid HomeCalendarId,
    Guid Uid,
    EventContent Content,
    EventState State,
    int Sequence,
    Instant Created,
    Instant Changed)
{
    /// <summary>Dates that differ, ascending by rule position. Each names a date that the series gives.</summary>
    public IReadOnlyList<EventException> Exceptions { get; init; } = [];

    /// <summary>The UID of the series that this one continues, when it was split off.</summary>
    public Guid? Continues { get; init; }

    public Series Series => Content.Series;
}
