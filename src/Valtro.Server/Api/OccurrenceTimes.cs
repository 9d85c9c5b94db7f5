using NodaTime;
using NodaTime.Text;
using Valtro.Core;
using Valtro.Core.Disclosure;
using Valtro.Core.Recurrence;
using Valtro.Core.Time;

namespace Valtro.Server.Api;

/// <summary>Times as the API and the reading pages write them: ISO 8601 with offset, or dates for whole days.</summary>
/// <param name="End">Exclusive: for whole days the day after the last one.</param>
public readonly record struct OccurrenceTimes(string RecurrenceId, string Start, string End)
{
    private static readonly OffsetDateTimePattern Moment = OffsetDateTimePattern.CreateWithInvariantCulture("uuuu-MM-dd'T'HH:mm:sso<+HH:mm>");
    private static readonly LocalDateTimePattern Local = LocalDateTimePattern.CreateWithInvariantCulture("uuuu-MM-dd'T'HH:mm:ss");

    /// <param name="zone">The zone that the times are written in; a day is a day in all of them.</param>
    public static OccurrenceTimes Of(Timing timing, Occurrence occurrence, DateTimeZone zone) => timing.AllDay
        ? new(Name(occurrence.RecurrenceId, allDay: true), Day(occurrence.LocalStart), Day(occurrence.LocalEnd))
        : new(Name(occurrence.RecurrenceId, allDay: false), At(occurrence.Start, zone), At(occurrence.End, zone));

    /// <summary>As somebody may see them: below the headline a date is named by its own start, so that nobody learns that it was moved.</summary>
    public static OccurrenceTimes Of(Timing timing, Occurrence occurrence, DateTimeZone zone, Detail detail) =>
        Of(timing, detail > Detail.Times ? occurrence : occurrence with { RecurrenceId = occurrence.LocalStart }, zone);

    /// <summary>How a date of a series is named in addresses and answers.</summary>
    public static string Name(LocalDateTime recurrenceId, bool allDay) => allDay ? Day(recurrenceId) : Local.Format(recurrenceId);

    /// <exception cref="RuleException">It names no date.</exception>
    public static LocalDateTime ReadName(string name, string field) =>
        TryReadName(name, out var date) ? date : throw new RuleException(field, $"“{name}” names no date of a series.");

    public static bool TryReadName(string name, out LocalDateTime date)
    {
        var day = LocalDatePattern.Iso.Parse(name);
        var local = day.Success ? null : Local.Parse(name);
        date = day.Success ? day.Value.AtMidnight() : local!.Success ? local.Value : default;
        return (day.Success || local!.Success) && DayRange.Holds(date.Date);
    }

    public static string At(Instant instant, DateTimeZone zone) => Moment.Format(instant.InZone(zone).ToOffsetDateTime());

    private static string Day(LocalDateTime local) => LocalDatePattern.Iso.Format(local.Date);
}
