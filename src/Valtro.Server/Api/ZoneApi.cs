using Microsoft.AspNetCore.Http.HttpResults;
using NodaTime;
using NodaTime.Text;
using Valtro.Core.Calendars;

namespace Valtro.Server.Api;

/// <param name="Offset">The offset from UTC now, such as −04:00.</param>
public sealed record ZoneResponse(string Name, string Offset);

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
        return TypedResults.Ok(Core.Time.Zones.Names
            .Select(name => new ZoneResponse(name, pattern.Format(DateTimeZoneProviders.Tzdb[name].GetUtcOffset(now)).Replace('-', '−')))
            .ToArray());
    }
}
