using NodaTime;
using NodaTime.Text;
using Valtro.Core.Time;

namespace Valtro.Core.Recurrence;

/// <summary>How a date of a series is named in forms, addresses and answers: by the start that its rule gives it, "2026-11-24T14:00:00" or
/// "2026-11-24".</summary>
public static class DateName
{
    private static readonly LocalDateTimePattern Local = LocalDateTimePattern.CreateWithInvariantCulture("uuuu-MM-dd'T'HH:mm:ss");

    public static string Of(LocalDateTime recurrenceId, bool allDay) =>
        allDay ? LocalDatePattern.Iso.Format(recurrenceId.Date) : IsoTime.Of(recurrenceId);

    /// <exception cref="RuleException">It names no date.</exception>
    public static LocalDateTime Read(string name, string field) =>
        TryRead(name, out var date) ? date : throw new RuleException(field, "scope.noDateName", ("name", name));

    public static bool TryRead(string name, out LocalDateTime date)
    {
        var day = LocalDatePattern.Iso.Parse(name);
        var local = day.Success ? null : Local.Parse(name);
        date = day.Success ? day.Value.AtMidnight() : local!.Success ? local.Value : default;
        return (day.Success || local!.Success) && DayRange.Holds(date.Date);
    }
}
