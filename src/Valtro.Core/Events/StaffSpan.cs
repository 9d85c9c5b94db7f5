using NodaTime;
using Valtro.Core.Recurrence;

namespace Valtro.Core.Events;

/// <summary>How much longer an event takes those who run it: set-up before it begins, clear-away when it is over.</summary>
/// <param name="Before">Minutes.</param>
/// <param name="After">Minutes.</param>
public sealed record StaffSpan(int Before, int After)
{
    public const int MostMinutes = 1_440;

    public static StaffSpan None { get; } = new(0, 0);

    /// <exception cref="RuleException">It is less than nothing, or longer than a day.</exception>
    public StaffSpan Check(string field) => Before is >= 0 and <= MostMinutes && After is >= 0 and <= MostMinutes
        ? this
        : throw new RuleException(field, "event.staffSpan", ("most", MostMinutes));

    /// <summary>From when to when a date takes them.</summary>
    public (Instant Start, Instant End) Of(in Occurrence date) =>
        (date.Start - Duration.FromMinutes(Before), date.End + Duration.FromMinutes(After));

    /// <summary>A date as it takes them.</summary>
    /// <param name="zone">Of the event.</param>
    public Occurrence Around(in Occurrence date, DateTimeZone zone) => this == None ? date : date.At(Of(date), zone);
}
