using System.Globalization;
using System.Text.RegularExpressions;
using NodaTime;
using NodaTime.TimeZones;
using Valtro.Core.Recurrence;
using Valtro.Core.Speaking;
using Valtro.Core.Time;

namespace Valtro.Core.ICalendar.Reading;

/// <summary>Which zone of the IANA database somebody's file means by a name (RFC 5545 3.2.19, 3.8.3.1; CLDR's windowsZones).</summary>
/// <remarks>A name that is known counts, whatever the file's own VTIMEZONE says of it: those are out of date more often than names are
/// wrong. One that is not known is what its VTIMEZONE says; of zones that agree with it, first those near by.</remarks>
/// <param name="definitions">The file's VTIMEZONE components.</param>
/// <param name="usual">For times of which nobody knows the zone.</param>
public sealed partial class ForeignZones(IReadOnlyList<ForeignComponent> definitions, DateTimeZone usual)
{
    private readonly Dictionary<string, (DateTimeZone Zone, Saying? Remark)> _known = new(StringComparer.Ordinal);

    /// <param name="name">TZID.</param>
    /// <param name="near">A time for which it is asked.</param>
    /// <returns>And what is to be said of it.</returns>
    public (DateTimeZone Zone, Saying? Remark) Named(string name, LocalDateTime near) =>
        _known.TryGetValue(name, out var known) ? known : _known[name] = Find(name.Trim().Trim('"', '\''), near);

    private (DateTimeZone, Saying?) Find(string name, LocalDateTime near)
    {
        var definition = definitions.FirstOrDefault(one =>
            string.Equals(one["TZID"]?.Value.Trim(), name, StringComparison.OrdinalIgnoreCase));
        if (ByName(name) is { } named)
        {
            var contradicts = definition is not null && OffsetAt(definition, near) is { } offset
                && offset != LocalTimes.InZone(near, named).Offset;
            return (named, contradicts
                ? Saying.Of("intake.zoneContradicts", ("name", name), ("zone", named.Id))
                : IsSame(name, named.Id) ? null : Saying.Of("intake.zoneRead", ("name", name), ("zone", named.Id)));
        }
        if (definition?["X-LIC-LOCATION"] is { } place && ByName(place.Value.Trim()) is { } atPlace)
            return (atPlace, Saying.Of("intake.zoneRead", ("name", name), ("zone", atPlace.Id)));
        if (definition is not null && ByOffsets(definition, near) is { } agreeing)
            return (agreeing, Saying.Of("intake.zoneByOffsets", ("name", name), ("zone", agreeing.Id)));
        return (usual, Saying.Of("intake.zoneUnknown", ("name", name), ("zone", usual.Id)));
    }

    private static bool IsSame(string name, string id) =>
        string.Equals(name, id, StringComparison.OrdinalIgnoreCase) || name is "Z" or "GMT" or "UTC" or "Etc/UTC";

    private static DateTimeZone? ByName(string name)
    {
        var provider = DateTimeZoneProviders.Tzdb;
        if (name is "Z" or "GMT" or "UTC")
            return DateTimeZone.Utc;
        if (ByOffset(name) is { } fixedOffset)
            return fixedOffset;
        if (provider.Ids.Contains(name) && provider.GetZoneOrNull(name) is { } known)
            return known;
        if (TzdbDateTimeZoneSource.Default.WindowsMapping.PrimaryMapping.TryGetValue(name, out var mapped))
            return provider.GetZoneOrNull(mapped);
        // "/citadel.example/20260101_1/Europe/Berlin", "tzone://…/Eastern Standard Time", "America-Halifax".
        var parts = name.Split('/', StringSplitOptions.RemoveEmptyEntries);
        for (var count = Math.Min(3, parts.Length - 1); count > 0; count--)
        {
            if (ByName(string.Join('/', parts[^count..])) is { } within)
                return within;
        }
        var plain = name.Replace('/', '-');
        var spelt = provider.Ids.FirstOrDefault(id => string.Equals(id.Replace('/', '-'), plain, StringComparison.OrdinalIgnoreCase));
        return spelt is null ? null : provider.GetZoneOrNull(spelt);
    }

    /// <summary>"UTC+2", "GMT+02:00", "+0200": as places there keep their clocks all year.</summary>
    private static DateTimeZone? ByOffset(string name)
    {
        var match = FixedOffset().Match(name);
        if (!match.Success)
            return null;
        var hours = int.Parse(match.Groups["hours"].Value, CultureInfo.InvariantCulture);
        var minutes = match.Groups["minutes"].Success ? int.Parse(match.Groups["minutes"].Value, CultureInfo.InvariantCulture) : 0;
        if (hours > 14 || minutes > 59)
            return null;
        var isWest = match.Groups["sign"].Value == "-";
        if (hours + minutes == 0)
            return DateTimeZone.Utc;
        // POSIX counts westwards. Where no hour says it, a place that never changes its clocks does.
        if (minutes == 0)
            return DateTimeZoneProviders.Tzdb.GetZoneOrNull(string.Create(CultureInfo.InvariantCulture, $"Etc/GMT{(isWest ? '+' : '-')}{hours}"));
        var offset = Offset.FromHoursAndMinutes(isWest ? -hours : hours, isWest ? -minutes : minutes);
        return WellKnown.FirstOrDefault(zone => zone.GetZoneInterval(Recent) is { HasEnd: false } now && now.WallOffset == offset);
    }

    private static readonly Instant Recent = Instant.FromUtc(2026, 1, 1, 0, 0);

    private DateTimeZone? ByOffsets(ForeignComponent definition, LocalDateTime near)
    {
        var year = Math.Clamp(near.Year, DayRange.First.Year + 1, DayRange.Last.Year - 1);
        LocalDateTime[] looked = [new(year, 1, 15, 12, 0), new(year, 7, 15, 12, 0)];
        var offsets = looked.Select(local => OffsetAt(definition, local)).ToArray();
        if (offsets.Any(offset => offset is null))
            return null;
        return WellKnown.Prepend(usual).FirstOrDefault(zone =>
            looked.Zip(offsets).All(one => LocalTimes.InZone(one.First, zone).Offset == one.Second));
    }

    /// <summary>Those that stand for many others first.</summary>
    private static IEnumerable<DateTimeZone> WellKnown => TzdbDateTimeZoneSource.Default.WindowsMapping.PrimaryMapping.Values
        .Concat(Zones.Places.Select(place => place.Zone)).Select(id => DateTimeZoneProviders.Tzdb.GetZoneOrNull(id)).OfType<DateTimeZone>();

    /// <summary>What the definition says of a local time: the offset to which the clocks were changed last before.</summary>
    private static Offset? OffsetAt(ForeignComponent definition, LocalDateTime local)
    {
        var found = definition.Inner.Select(onset => (Last: LastBefore(onset, local), Onset: onset)).Where(one => one.Last is not null)
            .OrderByDescending(one => one.Last).Select(one => one.Onset).FirstOrDefault() ?? definition.Inner.FirstOrDefault();
        return ForeignValues.OffsetOf(found?["TZOFFSETTO"]?.Value);
    }

    private static LocalDateTime? LastBefore(ForeignComponent onset, LocalDateTime local)
    {
        if (onset["DTSTART"] is not { } line || ForeignValues.Time(line.Value) is not { } start || !DayRange.Holds(local.Date))
            return null;
        var dates = onset.All("RDATE").SelectMany(ForeignValues.Times).OfType<ForeignTime>().Select(one => one.Local)
            .Append(start.Local).Concat(ByRule(onset, start.Local, local)).Where(one => one <= local).ToArray();
        return dates.Length == 0 ? null : dates.Max();
    }

    private static IEnumerable<LocalDateTime> ByRule(ForeignComponent onset, LocalDateTime start, LocalDateTime local)
    {
        try
        {
            if (onset["RRULE"] is not { } rule)
                return [];
            var begin = LocalDateTime.Max(start, DayRange.First.PlusYears(1).AtMidnight());
            var series = new Series(Timing.Timed(begin, begin, DateTimeZone.Utc), RuleText.Parse(rule.Value));
            return [.. series.Pattern(local.PlusYears(-1).PlusDays(-7), YearPlans.SchoolCalendar.Empty).TakeWhile(one => one <= local)];
        }
        catch (RuleException)
        {
            return [];
        }
    }

    [GeneratedRegex(@"^(UTC|GMT)?\s*(?<sign>[+-])(?<hours>\d{1,2})(:?(?<minutes>\d\d))?$", RegexOptions.ExplicitCapture)]
    private static partial Regex FixedOffset();
}
