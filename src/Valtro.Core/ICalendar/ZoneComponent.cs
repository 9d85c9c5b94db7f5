using System.Globalization;
using NodaTime;
using NodaTime.TimeZones;

namespace Valtro.Core.ICalendar;

/// <summary>Writes VTIMEZONE (RFC 5545 3.6.5) for a stretch of time, also for one without end.</summary>
/// <remarks>
/// Where a zone changes its clocks by the same rule for at least three years running, the rule is written as an RRULE in
/// the observance, without end when it still holds at the horizon; other changes have an observance each.
/// </remarks>
internal static class ZoneComponent
{
    /// <summary>Fixed, not relative to today: the same events give the same bytes on any day.</summary>
    private static readonly Instant Horizon = Instant.FromUtc(2100, 1, 1, 0, 0);

    private const int FewestForRule = 3;

    /// <summary>One change of offset.</summary>
    /// <param name="Local">The local time at which it happens, by the offset before it.</param>
    private readonly record struct Change(LocalDateTime Local, Instant Instant, Offset From, ZoneInterval To);

    /// <param name="to">The last instant needed, or null for a series without end.</param>
    public static void Write(ContentLines lines, DateTimeZone zone, Instant from, Instant? to)
    {
        lines.Begin("VTIMEZONE"u8);
        lines.Verbatim("TZID:"u8, zone.Id);
        var first = zone.GetZoneInterval(from);
        if (!first.HasStart)
            WriteObservance(lines, new Change(new LocalDateTime(1601, 1, 1, 0, 0), Instant.MinValue, first.WallOffset, first), null);
        var changes = Changes(zone, first, to ?? Instant.Max(Horizon, from + Duration.FromDays(3_660)));
        // One group for each pair of offsets and name; in it, runs that follow one rule.
        foreach (var group in changes.GroupBy(change => (change.From, change.To.WallOffset, change.To.Name))
            .OrderBy(group => group.First().Instant))
            WriteGroup(lines, [.. group], openEnded: group.Last().Instant > changes[^1].Instant - Duration.FromDays(400));
        lines.End("VTIMEZONE"u8);
    }

    private static List<Change> Changes(DateTimeZone zone, ZoneInterval first, Instant to)
    {
        var changes = new List<Change>();
        for (var interval = first; ; interval = zone.GetZoneInterval(interval.End))
        {
            if (interval.HasStart)
            {
                var before = zone.GetUtcOffset(interval.Start - Duration.Epsilon);
                changes.Add(new Change(interval.Start.WithOffset(before).LocalDateTime, interval.Start, before, interval));
            }
            if (!interval.HasEnd || interval.End > to)
                return changes;
        }
    }

    private static void WriteGroup(ContentLines lines, ReadOnlySpan<Change> group, bool openEnded)
    {
        var single = new List<Change>();
        for (var start = 0; start < group.Length;)
        {
            var (length, rule) = LongestRun(group[start..]);
            if (length < FewestForRule)
            {
                single.Add(group[start++]);
                continue;
            }
            var ends = start + length < group.Length || !openEnded;
            WriteObservance(lines, group[start], ends ? $"{rule};UNTIL={Utc(group[start + length - 1].Instant)}" : rule);
            start += length;
        }
        // One observance each: some programs forget DTSTART where an RDATE stands beside it.
        foreach (var change in single)
            WriteObservance(lines, change, null);
    }

    /// <summary>How many changes from the first one on follow one yearly rule, and which.</summary>
    private static (int Length, string Rule) LongestRun(ReadOnlySpan<Change> changes)
    {
        var first = changes[0].Local;
        var ordinal = (first.Day - 1) / 7 + 1;
        var byOrdinal = Follow(changes, local => (local.Day - 1) / 7 + 1 == ordinal);
        var byLast = Follow(changes, IsLastOfMonth);
        var best = byLast >= byOrdinal && IsLastOfMonth(first) ? -1 : ordinal;
        var weekday = first.DayOfWeek.ToString()[..2].ToUpperInvariant();
        return (best == -1 ? byLast : byOrdinal,
            string.Create(CultureInfo.InvariantCulture, $"FREQ=YEARLY;BYMONTH={first.Month};BYDAY={best}{weekday}"));
    }

    private static int Follow(ReadOnlySpan<Change> changes, Func<LocalDateTime, bool> position)
    {
        var first = changes[0].Local;
        var length = 0;
        while (length < changes.Length
            && changes[length].Local is var local
            && local.Year == first.Year + length
            && local.Month == first.Month
            && local.DayOfWeek == first.DayOfWeek
            && local.TimeOfDay == first.TimeOfDay
            && position(local))
        {
            length++;
        }
        return length;
    }

    private static bool IsLastOfMonth(LocalDateTime local) =>
        local.Day > local.Calendar.GetDaysInMonth(local.Year, local.Month) - 7;

    private static void WriteObservance(ContentLines lines, Change change, string? rule)
    {
        var component = change.To.Savings == Offset.Zero ? "STANDARD"u8 : "DAYLIGHT"u8;
        lines.Begin(component);
        lines.Floating("DTSTART:"u8, change.Local);
        lines.Verbatim("TZOFFSETFROM:"u8, Text(change.From));
        lines.Verbatim("TZOFFSETTO:"u8, Text(change.To.WallOffset));
        lines.Text("TZNAME:"u8, change.To.Name);
        if (rule is not null)
            lines.Verbatim("RRULE:"u8, rule);
        lines.End(component);
    }

    /// <summary>UTC-OFFSET (RFC 5545 3.3.14): seconds only where there are some.</summary>
    private static string Text(Offset offset)
    {
        var seconds = Math.Abs(offset.Seconds);
        var text =
            string.Create(CultureInfo.InvariantCulture, $"{(offset < Offset.Zero ? '-' : '+')}{seconds / 3600:00}{seconds / 60 % 60:00}");
        return seconds % 60 == 0 ? text : string.Create(CultureInfo.InvariantCulture, $"{text}{seconds % 60:00}");
    }

    private static string Utc(Instant instant) => instant.ToString("uuuuMMdd'T'HHmmss'Z'", CultureInfo.InvariantCulture);
}
