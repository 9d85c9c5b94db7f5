using NodaTime;
using Valtro.Core.Time;

namespace Valtro.Core.Disclosure;

/// <summary>From which day to which an event is shown at all. Outside it only editors see it.</summary>
/// <remarks>
/// Days of the event's own time zone: it appears when the first begins and disappears when the last has ended. Whatever days it is
/// made of, it can be asked: a day before 1900 or after 2199 is none, or the nearest that is.
/// </remarks>
public sealed record ShowingSpan
{
    /// <summary>The first day, or null: from the beginning.</summary>
    public LocalDate? From { get; }

    /// <summary>The last day, inclusive, or null: for good.</summary>
    public LocalDate? Until { get; }

    /// <exception cref="RuleException">It would disappear before it appears.</exception>
    public ShowingSpan(LocalDate? from, LocalDate? until)
    {
        if (until < from)
            throw new RuleException("showUntil", "event.showingEndsBefore");
        From = from < DayRange.First ? null : from is { } begins ? DayRange.Nearest(begins) : null;
        Until = until > DayRange.Last ? null : until is { } ends ? DayRange.Nearest(ends) : null;
    }

    public static ShowingSpan Always { get; } = new(null, null);

    public bool Holds(Instant now, DateTimeZone zone) => now >= Begin(zone) && now < End(zone);

    /// <summary>The moment after <paramref name="now"/> from which on it is shown no more; null when it stays, or is not shown.</summary>
    public Instant? ClosesAt(Instant now, DateTimeZone zone) => Until is not null && Holds(now, zone) ? End(zone) : null;

    /// <summary>The next moment after <paramref name="now"/> at which it appears or disappears; null when there is none.</summary>
    public Instant? NextTurn(Instant now, DateTimeZone zone)
    {
        if (From is not null && Begin(zone) > now)
            return Begin(zone);
        return Until is not null && End(zone) > now ? End(zone) : null;
    }

    private Instant Begin(DateTimeZone zone) => From is { } day ? LocalTimes.StartOf(day, zone) : Instant.MinValue;

    private Instant End(DateTimeZone zone) => Until is { } day ? LocalTimes.StartOf(day.PlusDays(1), zone) : Instant.MaxValue;
}
