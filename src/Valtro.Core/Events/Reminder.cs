using NodaTime;
using Valtro.Core.Recurrence;

namespace Valtro.Core.Events;

public enum ReminderUnit
{
    Minutes,
    Hours,
    Days,
}

/// <summary>When programs of those who subscribe remind them of something (RFC 5545 3.6.6): "one day before, 18:00".</summary>
/// <param name="Amount">Of the unit, before it begins or is due; 0 on time.</param>
/// <param name="At">For days: at which time of that day; null at the time at which it begins.</param>
public sealed record Reminder(int Amount, ReminderUnit Unit, LocalTime? At = null)
{
    public const int MostDays = 60;

    /// <exception cref="RuleException">It is further ahead than anybody remembers, or a time is said that means nothing.</exception>
    public Reminder Check(string field)
    {
        var most = MostDays * Unit switch { ReminderUnit.Minutes => 1_440, ReminderUnit.Hours => 24, _ => 1 };
        if (Amount < 0 || Amount > most)
            throw new RuleException(field, "reminder.amount", ("most", most));
        return Unit == ReminderUnit.Days || At is null ? this : throw new RuleException(field, "reminder.timeOfDays");
    }

    /// <summary>How long before it begins; negative where it is later, as at 18:00 of the day of something at 14:00.</summary>
    /// <param name="start">When it begins; for what lasts whole days the midnight that begins the first.</param>
    /// <remarks>By the clock on the wall.</remarks>
    public Duration Before(LocalDateTime start) => Unit switch
    {
        ReminderUnit.Minutes => Duration.FromMinutes(Amount),
        ReminderUnit.Hours => Duration.FromHours(Amount),
        _ => Duration.FromSeconds(DayNumbers.Moment(start) - DayNumbers.Moment(start.Date.PlusDays(-Amount) + (At ?? start.TimeOfDay))),
    };
}
