using NodaTime;
using NodaTime.TimeZones;

namespace Valtro.Core.Time;

/// <summary>A zone by a place that is in it.</summary>
/// <param name="Country">ISO 3166-1 alpha-2; empty where it is in none.</param>
/// <param name="About">Which part of the country, in English; often empty.</param>
public sealed record ZonePlace(string Zone, string Country, string About);

/// <summary>The IANA time zones that Valtro knows.</summary>
public static class Zones
{
    /// <exception cref="RuleException">There is no IANA zone of that name.</exception>
    public static DateTimeZone Named(string? name, string field = "zone") =>
        (string.IsNullOrWhiteSpace(name) ? null : DateTimeZoneProviders.Tzdb.GetZoneOrNull(name.Trim()))
        ?? throw new RuleException(field, "zone.unknown", ("name", name));

    /// <summary>The zones people choose from: one for each place, without old aliases, by name.</summary>
    public static IReadOnlyList<ZonePlace> Places { get; } =
        [.. (TzdbDateTimeZoneSource.Default.ZoneLocations ?? [])
            .GroupBy(location => location.ZoneId)
            .Select(of => new ZonePlace(of.Key, of.First().CountryCode, of.First().Comment))
            .Append(new ZonePlace("UTC", "", ""))
            .OrderBy(place => place.Zone, StringComparer.Ordinal)];
}
