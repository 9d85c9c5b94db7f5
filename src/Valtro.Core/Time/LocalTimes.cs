using NodaTime;
using NodaTime.TimeZones;

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
    private LocalDateTime _from;
    private LocalDateTime _to;
    private Offset _offset;
    private bool _known;

    public OffsetDateTime Resolve(LocalDateTime local)
    {
        if (_known && local >= _from && local < _to)
            return new OffsetDateTime(local, _offset);
        var mapping = zone.MapLocal(local);
        if (mapping.Count != 1)
        {
            _known = false;
            return Resolvers.LenientResolver(mapping).ToOffsetDateTime();
        }
        Remember(mapping.EarlyInterval);
        return new OffsetDateTime(local, mapping.EarlyInterval.WallOffset);
    }

    /// <summary>No clock change has ever been longer than a day, so a day inside the stretch a local time is unambiguous.</summary>
    private void Remember(ZoneInterval interval)
    {
        _from = interval.HasStart ? interval.IsoLocalStart.PlusDays(1) : LocalDate.MinIsoValue.AtMidnight();
        _to = interval.HasEnd ? interval.IsoLocalEnd.PlusDays(-1) : LocalDate.MaxIsoValue.AtMidnight();
        _offset = interval.WallOffset;
        _known = true;
    }
}
