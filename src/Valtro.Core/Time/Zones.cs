using NodaTime;
using NodaTime.TimeZones;

namespace Valtro.Core.Time;

/// <summary>The IANA time zones that Valtro knows.</summary>
public static class Zones
{
    /// <exception cref="RuleException">There is no IANA zone of that name.</exception>
    public static DateTimeZone Named(string? name, string field = "zone") =>
        (string.IsNullOrWhiteSpace(name) ? null : DateTimeZoneProviders.Tzdb.GetZoneOrNull(name.Trim()))
        ?? throw new RuleException(field, "zone.unknown", ("name", name));

    /// <summary>The names people choose from: one for each place, without old aliases.</summary>
    public static IReadOnlyList<string> Names { get; } =
        (TzdbDateTimeZoneSource.Default.ZoneLocations ?? [])
            .Select(location => location.ZoneId)
            .Append("UTC")
            .Distinct()
            .Order(StringComparer.Ordinal)
            .ToArray();
}
