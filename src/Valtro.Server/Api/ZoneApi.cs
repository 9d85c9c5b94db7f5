using Microsoft.AspNetCore.Http.HttpResults;
using NodaTime;
using NodaTime.Text;
using Valtro.Core.Calendars;

namespace Valtro.Server.Api;

/// <param name="Offset">The offset from UTC now, such as −04:00.</param>
/// <param name="Country">ISO 3166-1 alpha-2; empty where it is in none.</param>
/// <param name="About">Which part of the country, in English.</param>
public sealed record ZoneResponse(string Name, string Offset, string Country, string About);

public sealed record ColourResponse(string Name, string Hex);

internal static class ZoneApi
{
    public static void MapZones(this RouteGroupBuilder api)
    {
        api.MapGet("/zones", Zones);
        api.MapGet("/colours", () => TypedResults.Ok(Hue.All.Select(hue => new ColourResponse(hue.Name, hue.Hex)).ToArray()));
    }

    private static Ok<ZoneResponse[]> Zones(IClock clock)
    {
        var now = clock.GetCurrentInstant();
        var pattern = OffsetPattern.CreateWithInvariantCulture("+HH:mm");
        return TypedResults.Ok(Core.Time.Zones.Places
            .Select(place => new ZoneResponse(
                place.Zone, pattern.Format(DateTimeZoneProviders.Tzdb[place.Zone].GetUtcOffset(now)).Replace('-', '−'), place.Country,
                place.About))
            .ToArray());
    }
}
