using System.Globalization;
using NodaTime;
using NodaTime.Text;
using Valtro.Core.Editions;
using Valtro.Core.Events;

namespace Valtro.Application.Editions;

/// <summary>Dates in words, on pages that are written here and not by a script.</summary>
internal static class ReadingDates
{
    public static string When(EntryBody entry, ReadingWords words, CultureInfo culture, ClockFace clock)
    {
        var when = When(entry.Start, entry.End, entry.AllDay, culture, clock);
        return entry.Kind == EventKind.Deadline ? words.Fill("dueAt", "when", when) : when;
    }

    /// <param name="end">Exclusive.</param>
    public static string When(string start, string end, bool allDay, CultureInfo culture, ClockFace clock)
    {
        var time = clock == ClockFace.Twelve ? "h:mm tt" : "HH:mm";
        if (allDay)
        {
            var first = LocalDatePattern.Iso.Parse(start).Value;
            var last = LocalDatePattern.Iso.Parse(end).Value.PlusDays(-1);
            return first == last ? Day(first, culture) : $"{first.ToString("ddd d MMM", culture)} – {Day(last, culture)}";
        }
        var from = OffsetDateTimePattern.ExtendedIso.Parse(start).Value.LocalDateTime;
        var to = OffsetDateTimePattern.ExtendedIso.Parse(end).Value.LocalDateTime;
        var begins = $"{Day(from.Date, culture)} {from.ToString(time, culture)}";
        if (to == from)
            return begins;
        return $"{begins}–{(to.Date == from.Date ? to.ToString(time, culture) : to.ToString($"ddd d MMM {time}", culture))}";
    }

    /// <summary>When it begins, in few words: "today 11:00", "Sat 5 Dec".</summary>
    public static string Begins(EntryBody entry, ReadingWords words, CultureInfo culture, ClockFace clock, LocalDate today)
    {
        var start = entry.AllDay ? LocalDatePattern.Iso.Parse(entry.Start).Value.AtMidnight()
            : OffsetDateTimePattern.ExtendedIso.Parse(entry.Start).Value.LocalDateTime;
        var day = start.Date == today ? words["today"].ToLower(culture)
            : start.Date.ToString(start.Year == today.Year ? "ddd d MMM" : "ddd d MMM uuuu", culture);
        var when = entry.AllDay ? day : $"{day} {start.ToString(clock == ClockFace.Twelve ? "h:mm tt" : "HH:mm", culture)}";
        return entry.Kind == EventKind.Deadline ? words.Fill("dueAt", "when", when) : when;
    }

    /// <summary>The day on which it begins, where the edition is kept.</summary>
    public static LocalDate FirstDayOf(EntryBody entry) => LocalDatePattern.Iso.Parse(entry.Start[..10]).Value;

    /// <summary>When it is over.</summary>
    /// <param name="zone">Of the edition, for whole days.</param>
    public static Instant EndOf(EntryBody entry, string zone) => entry.AllDay
        ? Core.Time.LocalTimes.StartOf(LocalDatePattern.Iso.Parse(entry.End).Value, Core.Time.Zones.Named(zone))
        : OffsetDateTimePattern.ExtendedIso.Parse(entry.End).Value.ToInstant();

    public static string PlaceOf(string zone) => zone[(zone.LastIndexOf('/') + 1)..].Replace('_', ' ');

    private static string Day(LocalDate day, CultureInfo culture) => day.ToString("ddd d MMM uuuu", culture);
}
