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
        (Start, End, Zone, AllDay) = (start, end, zone, allDay);
        var walk = new LocalTimeWalk(zone);
        Duration = allDay ? Duration.FromDays(Days) : walk.Resolve(end).ToInstant() - walk.Resolve(start).ToInstant();
        // The start was moved out of a gap, beyond the end: the end moves with it.
        if (!allDay && end > start && Duration <= Duration.Zero)
            Duration = Period.Between(start, end, PeriodUnits.AllTimeUnits | PeriodUnits.Days).ToDuration();
        _seconds = (long)Duration.TotalSeconds;
    }

    /// <exception cref="RuleException">The end is before the start, or the dates are out of range.</exception>
    public static Timing Timed(LocalDateTime start, LocalDateTime end, DateTimeZone zone)
    {
        DayRange.Check("date", start.Date);
        if (end < start)
            throw new RuleException("to", "The event ends before it starts. Give an end that is later than the start.");
        return Checked(start, end, zone, allDay: false);
    }

    private static Timing Checked(LocalDateTime start, LocalDateTime end, DateTimeZone zone, bool allDay)
    {
        // One that ends in the night after the last day is an event of that day.
        if (end.Date > DayRange.Last.PlusDays(1))
            DayRange.Check("endDate", end.Date);
        if (DayNumbers.Of(end.Date) - DayNumbers.Of(start.Date) > LongestDays)
            throw new RuleException("endDate", $"The event lasts longer than {LongestDays} days. Give it an earlier end, or let it recur.");
        return new Timing(start, end, zone, allDay);
    }

    /// <param name="last">The last day, inclusive.</param>
    /// <exception cref="RuleException">The last day is before the first, or the dates are out of range.</exception>
    public static Timing WholeDays(LocalDate first, LocalDate last, DateTimeZone zone)
    {
        DayRange.Check("date", first);
        DayRange.Check("endDate", last);
        if (last < first)
            throw new RuleException("endDate", "The last day is before the first. Give a last day that is the first day or later.");
        return Checked(first.AtMidnight(), last.PlusDays(1).AtMidnight(), zone, allDay: true);
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

    /// <summary>The timing of one of its dates: a series without end has some that nobody could type.</summary>
    internal Timing Of(LocalDateTime start, LocalDateTime end) => new(start, end < start ? start : end, Zone, AllDay);

    /// <summary>The same length, where somebody puts it.</summary>
    /// <exception cref="RuleException">The dates are out of range.</exception>
    public Timing MovedTo(LocalDateTime start)
    {
        var moved = StartingAt(start);
        return Checked(moved.Start, moved.End, Zone, AllDay);
    }

    /// <summary>The same length, starting elsewhere, wherever that is.</summary>
    public Timing StartingAt(LocalDateTime start) => AllDay
        ? Of(start.Date.AtMidnight(), start.Date.PlusDays(Days).AtMidnight())
        : Of(start, LocalTimes.InZone(start, Zone).Plus(Duration).LocalDateTime);
}
