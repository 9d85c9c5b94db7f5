using NodaTime;
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

/// <summary>What an editor says of an event, validated.</summary>
public sealed record EventContent(string Title, Series Series, string Place, RichText Description)
{
    /// <summary>Whether readers could tell the two apart. Saving what says the same changes nothing.</summary>
    public bool Says(EventContent other) =>
        Title == other.Title
        && Place == other.Place
        && Description == other.Description
        && Series.Timing == other.Series.Timing
        && Equals(Series.Rule, other.Series.Rule)
        && Series.Extra.SequenceEqual(other.Series.Extra)
        && Series.Removed.SequenceEqual(other.Series.Removed);
}

/// <summary>An event as it is kept.</summary>
/// <param name="Uid">The name that programs outside know it by, for ever (RFC 7986 5.3).</param>
/// <param name="Sequence">RFC 5545 3.8.7.4.</param>
public sealed record CalendarEvent(
    Guid Id,
    Guid HomeCalendarId,
    Guid Uid,
    EventContent Content,
    EventState State,
    int Sequence,
    Instant Created,
    Instant Changed);
