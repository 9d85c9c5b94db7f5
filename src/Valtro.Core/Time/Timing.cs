using NodaTime;
using Valtro.Core.Recurrence;

namespace Valtro.Core.Time;

/// <summary>The first date of an event: local times in a named zone, or whole days.</summary>
/// <remarks>
/// For whole days <see cref="Start"/> is the midnight that begins the first day and <see cref="End"/> the midnight that
/// ends the last one; <see cref="Zone"/> then only says where the days are looked at from.
/// The length of a timed event is exact (RFC 5545 3.8.5.3): an hour and a half stays an hour and a half on any date.
/// </remarks>
public sealed record Timing
{
    /// <summary>Two years: longer spans are two events.</summary>
    public const int LongestDays = 731;

    private static readonly LocalDate Earliest = new(1900, 1, 1);
    private static readonly LocalDate Latest = new(2199, 12, 31);

    public LocalDateTime Start { get; }
    public LocalDateTime End { get; }
    public DateTimeZone Zone { get; }
    public bool AllDay { get; }

    /// <summary>Exact length; for whole days, 24 hours a day.</summary>
    public Duration Duration { get; }

    /// <summary>Whole days, for an all-day event.</summary>
    public int Days => DayNumbers.Of(End.Date) - DayNumbers.Of(Start.Date);

    private readonly long _seconds;

    private Timing(LocalDateTime start, LocalDateTime end, DateTimeZone zone, bool allDay)
    {
        if (start.Date < Earliest || end.Date > Latest.PlusDays(1))
            throw new RuleException("date", $"The date has to be from {Earliest.Year} to {Latest.Year}.");
        if (DayNumbers.Of(end.Date) - DayNumbers.Of(start.Date) > LongestDays)
            throw new RuleException("endDate", $"The event lasts longer than {LongestDays} days. Give it an earlier end, or let it recur.");
        (Start, End, Zone, AllDay) = (start, end, zone, allDay);
        var walk = new LocalTimeWalk(zone);
        Duration = allDay ? Duration.FromDays(Days) : walk.Resolve(end).ToInstant() - walk.Resolve(start).ToInstant();
        _seconds = (long)Duration.TotalSeconds;
    }

    /// <exception cref="RuleException">The end is before the start, or the dates are out of range.</exception>
    public static Timing Timed(LocalDateTime start, LocalDateTime end, DateTimeZone zone)
    {
        if (end < start)
            throw new RuleException("to", "The event ends before it starts. Give an end that is later than the start.");
        return new Timing(start, end, zone, allDay: false);
    }

    /// <param name="last">The last day, inclusive.</param>
    /// <exception cref="RuleException">The last day is before the first, or the dates are out of range.</exception>
    public static Timing WholeDays(LocalDate first, LocalDate last, DateTimeZone zone)
    {
        if (last < first)
            throw new RuleException("endDate", "The last day is before the first. Give a last day that is the first day or later.");
        return new Timing(first.AtMidnight(), last.PlusDays(1).AtMidnight(), zone, allDay: true);
    }

    /// <summary>The date of a series named <paramref name="recurrenceId"/> that starts at <paramref name="local"/>.</summary>
    internal Occurrence At(LocalDateTime recurrenceId, LocalDateTime local, ref LocalTimeWalk walk) =>
        At(recurrenceId, local, DayNumbers.Moment(local), ref walk);

    /// <param name="moment">The same as <paramref name="local"/>, in seconds from 1970-01-01.</param>
    internal Occurrence At(LocalDateTime recurrenceId, LocalDateTime local, long moment, ref LocalTimeWalk walk)
    {
        var start = walk.Resolve(local, moment);
        if (AllDay)
        {
            var endOfDays = local.PlusDays(Days);
            return new Occurrence(recurrenceId, local, endOfDays, start.ToInstant(), walk.Resolve(endOfDays).ToInstant());
        }
        var startInstant = start.ToInstant();
        var end = startInstant + Duration;
        // Most events end on the day they start, under the same offset: then no look-up is needed.
        var offset = walk.OffsetAt(end);
        var localEnd = offset == start.Offset ? start.LocalDateTime.PlusSeconds(_seconds) : end.WithOffset(offset).LocalDateTime;
        return new Occurrence(recurrenceId, start.LocalDateTime, localEnd, startInstant, end);
    }

    /// <summary>This timing's own date.</summary>
    public Occurrence Occurrence(LocalDateTime recurrenceId)
    {
        var walk = new LocalTimeWalk(Zone);
        return At(recurrenceId, Start, ref walk);
    }

    /// <summary>The same zone and kind, from other local times; for whole days the midnights that begin and end them.</summary>
    /// <exception cref="RuleException">The end is before the start, or the dates are out of range.</exception>
    public Timing Between(LocalDateTime start, LocalDateTime end) =>
        AllDay ? WholeDays(start.Date, end.Date.PlusDays(-1), Zone) : Timed(start, end, Zone);

    /// <summary>The same length, starting elsewhere.</summary>
    public Timing StartingAt(LocalDateTime start) => AllDay
        ? WholeDays(start.Date, start.Date.PlusDays(Days - 1), Zone)
        : Timed(start, LocalTimes.InZone(start, Zone).Plus(Duration).LocalDateTime is var end && end >= start ? end : start, Zone);
}
