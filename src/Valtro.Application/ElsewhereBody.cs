using NodaTime;
using Valtro.Core.Recurrence;
using Valtro.Core.Time;

namespace Valtro.Application;

/// <summary>The same date on another clock.</summary>
public sealed record ElsewhereBody(string Zone, string Start, string End)
{
    /// <summary>An event's date on the clock of a calendar.</summary>
    /// <returns>Null where both clocks show the same.</returns>
    public static ElsewhereBody? Of(Timing timing, Occurrence occurrence, DateTimeZone zone) =>
        timing.AllDay ? null : On(zone, timing.Zone, occurrence);

    /// <summary>An event's date, shown in some zone, on the event's own clock.</summary>
    /// <returns>Null where both clocks show the same.</returns>
    public static ElsewhereBody? OnItsOwn(Timing timing, Occurrence occurrence, DateTimeZone shown) =>
        timing.AllDay ? null : On(timing.Zone, shown, occurrence);

    private static ElsewhereBody? On(DateTimeZone clock, DateTimeZone other, Occurrence occurrence) =>
        clock.Id == other.Id || clock.GetUtcOffset(occurrence.Start) == other.GetUtcOffset(occurrence.Start)
            ? null
            : new ElsewhereBody(clock.Id, OccurrenceTimes.At(occurrence.Start, clock), OccurrenceTimes.At(occurrence.End, clock));
}
