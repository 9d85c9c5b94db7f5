using NodaTime;

namespace Valtro.Core.Time;

/// <summary>A stretch of whole days, seen from one zone: what a screen, a page or a question is about.</summary>
/// <remarks>
/// Timed events are compared by instant, all-day events by date, so that a day off in Halifax stays on its day
/// for a reader in Oslo.
/// </remarks>
public readonly record struct Window
{
    public LocalDate First { get; }

    /// <summary>The first day after the window.</summary>
    public LocalDate End { get; }

    public Instant From { get; }

    /// <summary>The first instant after the window.</summary>
    public Instant To { get; }

    /// <exception cref="RuleException">The end is not after the start, or the window is longer than <paramref name="longestDays"/>.</exception>
    public Window(LocalDate first, LocalDate end, DateTimeZone zone, int longestDays = 3_700)
    {
        if (end <= first)
            throw new RuleException("to", "The window's end has to be after its start.");
        if (Period.DaysBetween(first, end) > longestDays)
            throw new RuleException("to", $"The window is too long. At most {longestDays} days can be asked for at once.");
        First = first;
        End = end;
        From = zone.AtStartOfDay(first).ToInstant();
        To = zone.AtStartOfDay(end).ToInstant();
    }
}
