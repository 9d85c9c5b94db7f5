using System.Buffers;
using System.Text;
using NodaTime;
using NodaTime.Text;

namespace Valtro.Core.ICalendar;

/// <summary>Says when somebody is busy, and nothing else (RFC 5545 3.6.4).</summary>
public static class FreeBusyWriter
{
    private static readonly InstantPattern Utc = InstantPattern.CreateWithInvariantCulture("uuuuMMdd'T'HHmmss'Z'");

    /// <param name="times">In any order; those that meet become one.</param>
    public static void Write(IBufferWriter<byte> output, Interval range, IEnumerable<(Interval Time, bool IsCertain)> times, Instant now)
    {
        var all = times.ToArray();
        void Line(string text) => output.Write(Encoding.UTF8.GetBytes(text + "\r\n"));
        Line("BEGIN:VCALENDAR");
        Line("VERSION:2.0");
        Line("PRODID:-//Valtro//Valtro//EN");
        Line("BEGIN:VFREEBUSY");
        Line($"UID:{Guid.CreateVersion7()}");
        Line($"DTSTAMP:{Utc.Format(now)}");
        Line($"DTSTART:{Utc.Format(range.Start)}");
        Line($"DTEND:{Utc.Format(range.End)}");
        foreach (var (isCertain, name) in new[] { (true, "FREEBUSY:"), (false, "FREEBUSY;FBTYPE=BUSY-TENTATIVE:") })
        {
            foreach (var time in Together(all.Where(one => one.IsCertain == isCertain).Select(one => one.Time), range))
                Line($"{name}{Utc.Format(time.Start)}/{Utc.Format(time.End)}");
        }
        Line("END:VFREEBUSY");
        Line("END:VCALENDAR");
    }

    private static IEnumerable<Interval> Together(IEnumerable<Interval> times, Interval range)
    {
        Interval? open = null;
        foreach (var time in times.Where(one => one.End > range.Start && one.Start < range.End)
            .Select(one => new Interval(Instant.Max(one.Start, range.Start), Instant.Min(one.End, range.End))).OrderBy(one => one.Start))
        {
            if (open is { } before && time.Start <= before.End)
            {
                open = new Interval(before.Start, Instant.Max(before.End, time.End));
                continue;
            }
            if (open is { } done)
                yield return done;
            open = time;
        }
        if (open is { } last && last.End > last.Start)
            yield return last;
    }
}
