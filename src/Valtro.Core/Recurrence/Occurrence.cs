using NodaTime;
using Valtro.Core.Time;

namespace Valtro.Core.Recurrence;

/// <summary>One date of an event.</summary>
/// <param name="RecurrenceId">The local start it has by the rule (RFC 5545 3.8.4.4), even where a clock change moves it.</param>
/// <param name="LocalStart">The real local start.</param>
/// <param name="LocalEnd">The real local end, exclusive; for whole days the midnight after the last day.</param>
public readonly record struct Occurrence(
    LocalDateTime RecurrenceId,
    LocalDateTime LocalStart,
    LocalDateTime LocalEnd,
    Instant Start,
    Instant End)
{
    /// <summary>Timed dates are compared by instant, whole days by date.</summary>
    public bool Overlaps(Window window, bool allDay)
    {
        if (allDay)
            return LocalStart.Date < window.End && LocalEnd.Date > window.First;
        return Start < window.To && (End > window.From || (Start == End && Start >= window.From));
    }

    /// <summary>The same date from another moment to another.</summary>
    /// <param name="zone">Of the event.</param>
    public Occurrence At((Instant Start, Instant End) span, DateTimeZone zone) => new(
        RecurrenceId, span.Start.InZone(zone).LocalDateTime, span.End.InZone(zone).LocalDateTime, span.Start, span.End);

    /// <summary>Whether two dates share time. One without length clashes with nothing.</summary>
    public bool Meets(in Occurrence other) => Start < other.End && other.Start < End;
}
