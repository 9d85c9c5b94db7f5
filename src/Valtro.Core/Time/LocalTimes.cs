using NodaTime;
using NodaTime.TimeZones;
using Valtro.Core.Recurrence;

namespace Valtro.Core.Time;

/// <summary>What a clock change does to a local time.</summary>
public enum ClockEffect
{
    None,

    /// <summary>The local time does not exist that day (clocks went forward); it is moved forward by the gap.</summary>
    Skipped,

    /// <summary>The local time happens twice that day (clocks went back); the earlier is taken.</summary>
    Repeated,
}

/// <summary>From local times to instants.</summary>
/// <remarks>RFC 5545 3.3.5: a time in a gap is read with the offset before the gap; of two, the first is meant.</remarks>
public static class LocalTimes
{
    public static ZonedDateTime InZone(LocalDateTime local, DateTimeZone zone) =>
        zone.ResolveLocal(local, Resolvers.LenientResolver);

    /// <summary>When a day begins; where the zone skipped it altogether (it crossed the date line), when the next one does.</summary>
    public static Instant StartOf(LocalDate day, DateTimeZone zone) =>
        zone.ResolveLocal(day.AtMidnight(), Resolvers.CreateMappingResolver(Resolvers.ReturnEarlier, Resolvers.ReturnStartOfIntervalAfter))
            .ToInstant();

    public static ClockEffect EffectOf(LocalDateTime local, DateTimeZone zone) =>
        zone.MapLocal(local).Count switch
        {
            0 => ClockEffect.Skipped,
            1 => ClockEffect.None,
            _ => ClockEffect.Repeated,
        };
}

/// <summary>Resolves many local times of one zone, ascending or nearly so, remembering the stretch of constant offset.</summary>
/// <remarks>Gives exactly what <see cref="LocalTimes.InZone"/> gives.</remarks>
internal struct LocalTimeWalk(DateTimeZone zone)
{
    private const long Day = 86_400;

    private long _from = 1;
    private long _to;
    private Offset _offset;

    public OffsetDateTime Resolve(LocalDateTime local) => Resolve(local, DayNumbers.Moment(local));

    /// <param name="moment">The same as <paramref name="local"/>, in seconds from 1970-01-01.</param>
    public OffsetDateTime Resolve(LocalDateTime local, long moment)
    {
        if (moment >= _from && moment < _to)
            return new OffsetDateTime(local, _offset);
        // No clock change has ever been longer than a day, so a day inside the stretch a local time is unambiguous.
        var interval = zone.GetZoneInterval(Instant.FromUnixTimeSeconds(moment));
        var offset = interval.WallOffset.Seconds;
        _from = interval.HasStart ? interval.Start.ToUnixTimeSeconds() + offset + Day : long.MinValue;
        _to = interval.HasEnd ? interval.End.ToUnixTimeSeconds() + offset - Day : long.MaxValue;
        _offset = interval.WallOffset;
        return moment >= _from && moment < _to ? new OffsetDateTime(local, _offset) : LocalTimes.InZone(local, zone).ToOffsetDateTime();
    }

    /// <summary>Whether a local time, in seconds from 1970-01-01, is known to have the offset of the one resolved last.</summary>
    public readonly bool IsWithin(long moment) => moment >= _from && moment < _to;
}
