using NodaTime;

namespace Valtro.Core.ICalendar;

/// <summary>What readers of an edition were told last of one of its components.</summary>
/// <param name="Digest">Of its bytes without stamps; null where that was never noted: they count as what is told now.</param>
/// <param name="Sequence">RFC 5545 3.8.7.4.</param>
/// <param name="ChangedAt">When its bytes last changed.</param>
/// <param name="FirstVersion">The edition's content version with which it first went out.</param>
/// <param name="SinceVersion">That with which it became what it is.</param>
/// <param name="Calendars">Whose it is, as far as the readers may know.</param>
/// <param name="GoneAt">Since when it is not delivered any more.</param>
public sealed record Stamp(
    ComponentName Name, UInt128? Digest, int Sequence, Instant ChangedAt, long FirstVersion, long SinceVersion,
        IReadOnlyList<Guid> Calendars, Instant? GoneAt = null);

/// <summary>Decides how often and when each component of a feed changed: by its bytes, held against those that went out last. Nothing else
/// decides it.</summary>
/// <remarks>SEQUENCE and LAST-MODIFIED (RFC 5545 3.8.7.3, 3.8.7.4) rise with each change of the bytes, whoever caused it, and only then;
/// they never fall.</remarks>
public sealed class Stamps
{
    private readonly List<Stamp> _changed = [];
    private readonly Stamp[] _stamps;

    /// <param name="known">What was told last, by name.</param>
    /// <param name="floor">What comes anew begins here: above the numbers of all that was forgotten.</param>
    /// <param name="version">The edition's content version.</param>
    public Stamps(
        IReadOnlyList<Component> components, IReadOnlyDictionary<ComponentName, Stamp> known, int floor, long version, Instant now)
    {
        _stamps = new Stamp[components.Count];
        var left = known.Count == 0 ? null : new HashSet<ComponentName>(components.Count);
        for (var index = 0; index < _stamps.Length; index++)
        {
            var component = components[index];
            left?.Add(component.Name);
            var before = left is null ? null : known.GetValueOrDefault(component.Name);
            var stamp = _stamps[index] = Of(component, before, floor, version, now);
            if (!ReferenceEquals(stamp, before))
                _changed.Add(stamp);
        }
        foreach (var (_, stamp) in left is null ? [] : known.Where(one => one.Value.GoneAt is null && !left.Contains(one.Key)))
            _changed.Add(stamp with { GoneAt = now, SinceVersion = version });
    }

    public Stamp this[int index] => _stamps[index];

    /// <summary>What has to be noted: components that are new, others than before, or gone.</summary>
    public IReadOnlyCollection<Stamp> Changed => _changed;

    private static Stamp Of(in Component component, Stamp? before, int floor, long version, Instant now)
    {
        if (before is null)
            return new Stamp(component.Name, component.Digest, floor, now, version, version, component.Calendars);
        if (before.GoneAt is null && before.Digest is null)
            return before with { Digest = component.Digest, Calendars = component.Calendars };
        if (before.GoneAt is not null || before.Digest != component.Digest)
            return before with
            {
                Digest = component.Digest,
                Calendars = component.Calendars,
                GoneAt = null,
                Sequence = before.Sequence + 1,
                ChangedAt = Instant.Max(now, before.ChangedAt),
                SinceVersion = version
            };
        return before.Calendars.SequenceEqual(component.Calendars) ? before : before with { Calendars = component.Calendars };
    }
}
