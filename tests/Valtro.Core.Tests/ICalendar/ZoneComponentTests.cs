using System.Buffers;
using System.Globalization;
using System.Text;
using NodaTime;
using Valtro.Core.ICalendar;

namespace Valtro.Core.Tests.ICalendar;

/// <summary>Reads VTIMEZONE as RFC 5545 3.6.5 says, and compares the offsets with those of the zone itself.</summary>
public class ZoneComponentTests
{
    public static TheoryData<string> Zones =>
        [.. Core.Time.Zones.Places.Where((_, index) => index % 9 == 0).Select(place => place.Zone)
            .Concat(["America/Halifax", "Africa/Casablanca", "Australia/Lord_Howe", "Asia/Gaza", "America/St_Johns"]).Distinct()];

    [Theory]
    [MemberData(nameof(Zones))]
    public void The_offsets_are_the_zone_s_own_for_seventy_years(string name)
    {
        var zone = DateTimeZoneProviders.Tzdb[name];
        var from = Instant.FromUtc(2024, 2, 1, 0, 0);
        var observances = Read(zone, from);
        for (var moment = from; moment < Instant.FromUtc(2094, 1, 1, 0, 0); moment += Duration.FromDays(5.3))
            Assert.Equal((moment, zone.GetUtcOffset(moment)), (moment, OffsetAt(observances, moment)));
    }

    private sealed record Onset(Instant Instant, Offset To);

    private static Offset OffsetAt(List<Onset> onsets, Instant moment) => onsets.Last(onset => onset.Instant <= moment).To;

    private static List<Onset> Read(DateTimeZone zone, Instant from)
    {
        var output = new ArrayBufferWriter<byte>();
        ZoneComponent.Write(new ContentLines(output), zone, from, null);
        var onsets = new List<Onset>();
        var properties = new List<(string Name, string Value)>();
        foreach (var line in Encoding.UTF8.GetString(output.WrittenSpan).Replace("\r\n ", "", StringComparison.Ordinal).Split("\r\n"))
        {
            var colon = line.IndexOf(':', StringComparison.Ordinal);
            if (line.StartsWith("BEGIN:", StringComparison.Ordinal))
                properties.Clear();
            else if (line is "END:STANDARD" or "END:DAYLIGHT")
                onsets.AddRange(Onsets(properties));
            else if (colon > 0)
                properties.Add((line[..colon], line[(colon + 1)..]));
        }
        return [.. onsets.OrderBy(onset => onset.Instant)];
    }

    private static IEnumerable<Onset> Onsets(List<(string Name, string Value)> properties)
    {
        string Value(string name) => properties.First(property => property.Name == name).Value;
        var (before, after) = (ReadOffset(Value("TZOFFSETFROM")), ReadOffset(Value("TZOFFSETTO")));
        var first = ReadLocal(Value("DTSTART"));
        var locals = properties.Where(property => property.Name == "RDATE").Select(property => ReadLocal(property.Value)).Prepend(first);
        if (properties.Any(property => property.Name == "RRULE"))
            locals = Yearly(first, Value("RRULE"), before);
        return locals.Select(local => new Onset(local.WithOffset(before).ToInstant(), after)).ToArray();
    }

    private static IEnumerable<LocalDateTime> Yearly(LocalDateTime first, string rule, Offset before)
    {
        var parts = rule.Split(';').Select(part => part.Split('=')).ToDictionary(part => part[0], part => part[1]);
        Instant? until = parts.TryGetValue("UNTIL", out var text) ? ReadLocal(text.TrimEnd('Z')).InUtc().ToInstant() : null;
        var ordinal = int.Parse(parts["BYDAY"][..^2], CultureInfo.InvariantCulture);
        for (var year = first.Year; year < 2100; year++)
        {
            var month = new LocalDate(year, int.Parse(parts["BYMONTH"], CultureInfo.InvariantCulture), 1);
            var date = ordinal > 0
                ? month.With(DateAdjusters.NextOrSame(first.DayOfWeek)).PlusWeeks(ordinal - 1)
                : month.With(DateAdjusters.EndOfMonth).With(DateAdjusters.PreviousOrSame(first.DayOfWeek));
            var local = date + first.TimeOfDay;
            if (until is { } end && local.WithOffset(before).ToInstant() > end)
                yield break;
            yield return local;
        }
    }

    private static LocalDateTime ReadLocal(string text) =>
        NodaTime.Text.LocalDateTimePattern.CreateWithInvariantCulture("uuuuMMdd'T'HHmmss").Parse(text).Value;

    private static Offset ReadOffset(string text)
    {
        var digits = text[1..].PadRight(6, '0');
        var seconds = int.Parse(digits[..2], CultureInfo.InvariantCulture) * 3600
            + int.Parse(digits[2..4], CultureInfo.InvariantCulture) * 60 + int.Parse(digits[4..6], CultureInfo.InvariantCulture);
        return Offset.FromSeconds(text[0] == '-' ? -seconds : seconds);
    }
}
