using System.Collections.Concurrent;
using NodaTime;
using Valtro.Core.Recurrence;
using Valtro.Core.Time;
using Valtro.Core.YearPlans;

namespace Valtro.Core.ICalendar;

/// <summary>When a zone's clocks change, up to a horizon, and which dates of a series have another length for it.</summary>
internal sealed class ClockChanges
{
    private static readonly HashSet<LocalDateTime> None = [];
    private static readonly ConcurrentDictionary<(string Zone, LocalDate Horizon), ClockChanges> Known = new();

    /// <summary>Before it zones changed their clocks at all times of day.</summary>
    private static readonly Instant Recent = Instant.FromUtc(2000, 1, 1, 0, 0);

    private readonly Instant[] _changes;

    /// <summary>The seconds of the day between which the clocks of recent years jump; null where that is around midnight.</summary>
    private readonly (long From, long To)? _hours;

    private ClockChanges(DateTimeZone zone, LocalDate horizon)
    {
        var end = LocalTimes.StartOf(horizon, zone);
        var changes = new List<Instant>();
        var (from, to) = (long.MaxValue, long.MinValue);
        for (var interval = zone.GetZoneInterval(LocalTimes.StartOf(DayRange.First, zone)); interval.HasEnd
            && interval.End < end; interval = zone.GetZoneInterval(interval.End))
        {
            changes.Add(interval.End);
            if (interval.End < Recent)
                continue;
            var before = SecondOfDay(interval.End.WithOffset(interval.WallOffset));
            var after = SecondOfDay(interval.End.WithOffset(zone.GetUtcOffset(interval.End)));
            (from, to) = (Math.Min(from, Math.Min(before, after)), Math.Max(to, Math.Max(before, after)));
        }
        _changes = [.. changes];
        _hours = to - from < DayNumbers.SecondsOfDay / 4 ? (from, to) : null;
    }

    private static long SecondOfDay(OffsetDateTime time) => time.TimeOfDay.TickOfDay / NodaConstants.TicksPerSecond;

    /// <summary>The rule positions of those dates before the horizon that are not exactly as long as the clock on the wall says: the clocks
    /// change meanwhile, or skip the start.</summary>
    public static IReadOnlySet<LocalDateTime> UnevenDates(Series series, SchoolCalendar school, LocalDate horizon)
    {
        var timing = series.Timing;
        if (timing.AllDay || timing.End == timing.Start)
            return None;
        var changes = Known.GetOrAdd((timing.Zone.Id, horizon), _ => new ClockChanges(timing.Zone, horizon));
        return changes.MayTouch(series) ? changes.Uneven(series, school) : None;
    }

    /// <summary>Most events are by day, and the clocks change at night.</summary>
    private bool MayTouch(Series series)
    {
        if (_changes.Length == 0)
            return false;
        if (_hours is not { } hours || series.Timing.Start.Year <= 2000 || series.Rule?.KeepsTimeOfDay == false || series.Extra.Count > 0)
            return true;
        var start = DayNumbers.Moment(series.Timing.Start) % DayNumbers.SecondsOfDay;
        var end = start + (long)series.Timing.Duration.TotalSeconds;
        return (start <= hours.To && end >= hours.From) || end >= hours.From + DayNumbers.SecondsOfDay;
    }

    private IReadOnlySet<LocalDateTime> Uneven(Series series, SchoolCalendar school)
    {
        var (first, last) = series.Reach();
        HashSet<LocalDateTime>? uneven = null;
        var usual = series.Timing.Duration;
        for (var index = ~Array.BinarySearch(_changes, first - Duration.FromDays(2)) is var found and >= 0
            ? found
            : 0; index < _changes.Length && !(_changes[index] > last); index++)
        {
            var day = _changes[index].InZone(series.Timing.Zone).Date;
            foreach (var date in series.In(new Window(day.PlusDays(-1), day.PlusDays(1), series.Timing.Zone), school))
            {
                if (date.End - date.Start != usual)
                    (uneven ??= []).Add(date.RecurrenceId);
            }
        }
        return uneven ?? None;
    }
}
