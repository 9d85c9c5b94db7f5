using NodaTime;
using Valtro.Core.Recurrence;

namespace Valtro.Core.Time;

/// <summary>The first date of an event: local times in a named zone, or whole days.</summary>
/// <remarks>
/// For whole days <see cref="Start"/> is the midnight that begins the first day and <see cref="End"/> the midnight that
/// ends the last one; <see cref="Zone"/> then only says where the days are looked at from.
/// From and to are wall-clock times on every date: a night watch from 22:00 to 06:00 ends at 06:00 also when the clocks change that
/// night. RFC 5545 3.8.5.3 gives all dates the exact length of the first; feeds name those that differ (<see cref="ICalendar.Delivery"/>).
/// </remarks>
public sealed record Timing
{
    /// <summary>Two years: longer spans are two events.</summary>
    public const int LongestDays = 731;

    public LocalDateTime Start { get; }
    public LocalDateTime End { get; }
    public DateTimeZone Zone { get; }
    public bool AllDay { get; }

    /// <summary>From start to end by the clock on the wall; for whole days, 24 hours a day.</summary>
    public Duration Duration => Duration.FromSeconds(_seconds);

    /// <summary>Whole days, for an all-day event.</summary>
    public int Days => DayNumbers.Of(End.Date) - DayNumbers.Of(Start.Date);

    private readonly long _seconds;

    private Timing(LocalDateTime start, LocalDateTime end, DateTimeZone zone, bool allDay)
    {
        (Start, End, Zone, AllDay) = (start, end, zone, allDay);
        _seconds = DayNumbers.Moment(end) - DayNumbers.Moment(start);
    }

    /// <exception cref="RuleException">The end is before the start, or the dates are out of range.</exception>
    public static Timing Timed(LocalDateTime start, LocalDateTime end, DateTimeZone zone)
    {
        DayRange.Check("date", start.Date);
        if (end < start)
            throw new RuleException("to", "event.endsBeforeStart");
        return Checked(start, end, zone, allDay: false);
    }

    private static Timing Checked(LocalDateTime start, LocalDateTime end, DateTimeZone zone, bool allDay)
    {
        // One that ends in the night after the last day is an event of that day.
        if (end.Date > DayRange.Last.PlusDays(1))
            DayRange.Check("endDate", end.Date);
        if (DayNumbers.Of(end.Date) - DayNumbers.Of(start.Date) > LongestDays)
            throw new RuleException("endDate", "event.tooLong", ("most", LongestDays));
        return new Timing(start, end, zone, allDay);
    }

    /// <param name="last">The last day, inclusive.</param>
    /// <exception cref="RuleException">The last day is before the first, or the dates are out of range.</exception>
    public static Timing WholeDays(LocalDate first, LocalDate last, DateTimeZone zone)
    {
        DayRange.Check("date", first);
        DayRange.Check("endDate", last);
        if (last < first)
            throw new RuleException("endDate", "event.lastDayBeforeFirst");
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
        // Most events end under the offset under which they start: then no look-up is needed.
        if (walk.IsWithin(moment) && walk.IsWithin(moment + _seconds))
            return new Occurrence(
                recurrenceId, start.LocalDateTime, start.LocalDateTime.PlusSeconds(_seconds), startInstant, startInstant + Duration);
        var end = walk.Resolve(local.PlusSeconds(_seconds), moment + _seconds);
        // The start was moved out of a gap, to the end or beyond it: the end moves with it.
        if (_seconds > 0 && end.ToInstant() <= startInstant)
            end = walk.Resolve(start.LocalDateTime.PlusSeconds(_seconds));
        return new Occurrence(recurrenceId, start.LocalDateTime, end.LocalDateTime, startInstant, end.ToInstant());
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
        : Of(start, start.PlusSeconds(_seconds));
}
