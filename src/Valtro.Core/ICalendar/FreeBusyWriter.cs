using System.Buffers;
using NodaTime;
using Valtro.Core.Events;

namespace Valtro.Core.ICalendar;

/// <summary>Says when somebody is busy, and nothing else (RFC 5545 3.6.4).</summary>
public static class FreeBusyWriter
{
    /// <param name="uid">By which programs know it again.</param>
    /// <param name="changed">When it was last another (RFC 5545 3.8.7.2).</param>
    /// <param name="times">In any order; those that meet become one.</param>
    public static void Write(
        IBufferWriter<byte> output, Uid uid, Instant changed, Interval range, IEnumerable<(Interval Time, bool IsCertain)> times)
    {
        var byCertainty = times.ToLookup(one => one.IsCertain, one => one.Time);
        var lines = new ContentLines(output);
        lines.Begin("VCALENDAR"u8);
        FeedWriter.WriteMaker(lines);
        lines.Begin("VFREEBUSY"u8);
        lines.Text("UID:"u8, uid.Text);
        lines.Moment("DTSTAMP:"u8, changed);
        lines.Moment("DTSTART:"u8, range.Start);
        lines.Moment("DTEND:"u8, range.End);
        foreach (var time in Together(byCertainty[true], range))
            lines.Period("FREEBUSY:"u8, time);
        foreach (var time in Together(byCertainty[false], range))
            lines.Period("FREEBUSY;FBTYPE=BUSY-TENTATIVE:"u8, time);
        lines.End("VFREEBUSY"u8);
        lines.End("VCALENDAR"u8);
    }

    private static List<Interval> Together(IEnumerable<Interval> times, Interval range)
    {
        var together = new List<Interval>();
        foreach (var time in times.Where(one => one.End > range.Start && one.Start < range.End)
            .Select(one => new Interval(Instant.Max(one.Start, range.Start), Instant.Min(one.End, range.End)))
            .Where(one => one.Duration > Duration.Zero).OrderBy(one => one.Start))
        {
            if (together is [.., var before] && time.Start <= before.End)
                together[^1] = new Interval(before.Start, Instant.Max(before.End, time.End));
            else
                together.Add(time);
        }
        return together;
    }
}
