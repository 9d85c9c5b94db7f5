using NodaTime;
using NodaTime.Text;
using Valtro.Core.Disclosure;
using Valtro.Core.Recurrence;
using Valtro.Core.Time;

namespace Valtro.Application;

/// <summary>Times as the API and the reading pages write them: ISO 8601 with offset, or dates for whole days.</summary>
/// <param name="End">Exclusive: for whole days the day after the last one.</param>
public readonly record struct OccurrenceTimes(string RecurrenceId, string Start, string End)
{
    /// <param name="zone">The zone that the times are written in; a day is a day in all of them.</param>
    public static OccurrenceTimes Of(Timing timing, Occurrence occurrence, DateTimeZone zone) => timing.AllDay
        ? new(DateName.Of(occurrence.RecurrenceId, allDay: true), Day(occurrence.LocalStart), Day(occurrence.LocalEnd))
        : new(DateName.Of(occurrence.RecurrenceId, allDay: false), At(occurrence.Start, zone), At(occurrence.End, zone));

    /// <summary>As somebody may see them: below the headline a date is named by its own start, so that nobody learns that it was
    /// moved.</summary>
    public static OccurrenceTimes Of(Timing timing, Occurrence occurrence, DateTimeZone zone, Detail detail) =>
        Of(timing, detail > Detail.Times ? occurrence : occurrence with { RecurrenceId = occurrence.LocalStart }, zone);

    public static string At(Instant instant, DateTimeZone zone) => IsoTime.Of(instant.InZone(zone).ToOffsetDateTime());

    private static string Day(LocalDateTime local) => LocalDatePattern.Iso.Format(local.Date);
}
