using NodaTime;
using NodaTime.Text;
using Valtro.Core.Recurrence;
using Valtro.Core.Time;

namespace Valtro.Server.Api;

/// <summary>Times as the API and the reading pages write them: ISO 8601 with offset, or dates for whole days.</summary>
/// <param name="End">Exclusive: for whole days the day after the last one.</param>
public readonly record struct OccurrenceTimes(string RecurrenceId, string Start, string End)
{
    private static readonly OffsetDateTimePattern Moment = OffsetDateTimePattern.CreateWithInvariantCulture("uuuu-MM-dd'T'HH:mm:sso<+HH:mm>");
    private static readonly LocalDateTimePattern Local = LocalDateTimePattern.CreateWithInvariantCulture("uuuu-MM-dd'T'HH:mm:ss");

    public static OccurrenceTimes Of(Timing timing, Occurrence occurrence) => timing.AllDay
        ? new(Day(occurrence.RecurrenceId), Day(occurrence.LocalStart), Day(occurrence.LocalEnd))
        : new(Local.Format(occurrence.RecurrenceId), At(occurrence.Start, occurrence.LocalStart), At(occurrence.End, occurrence.LocalEnd));

    private static string Day(LocalDateTime local) => LocalDatePattern.Iso.Format(local.Date);

    private static string At(Instant instant, LocalDateTime local)
    {
        var offset = Offset.FromSeconds((int)(local.InUtc().ToInstant() - instant).TotalSeconds);
        return Moment.Format(local.WithOffset(offset));
    }
}
