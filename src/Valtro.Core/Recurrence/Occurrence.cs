using NodaTime;

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
    Instant End);
