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

    /// <summary>What lies beyond 1900 and 2199 is cut off; it has one day at least.</summary>
    public Window(LocalDate first, LocalDate end, DateTimeZone zone)
    {
        First = DayRange.Nearest(first);
        End = LocalDate.Max(First.PlusDays(1), LocalDate.Min(end, DayRange.Last.PlusDays(1)));
        From = LocalTimes.StartOf(First, zone);
        To = LocalTimes.StartOf(End, zone);
    }

    /// <summary>A stretch that somebody asks for.</summary>
    /// <exception cref="RuleException">The end is not after the start, the window is longer than <paramref name="longestDays"/>, or a day
    /// lies beyond what is possible.</exception>
    public static Window Asked(LocalDate first, LocalDate end, DateTimeZone zone, int longestDays)
    {
        DayRange.Check("from", first);
        DayRange.Check("to", end);
        if (end <= first)
            throw new RuleException("to", "window.endsBefore");
        if (Period.DaysBetween(first, end) > longestDays)
            throw new RuleException("to", "window.tooLong", ("most", longestDays));
        return new Window(first, end, zone);
    }
}
