using BenchmarkDotNet.Attributes;
using NodaTime;
using Valtro.Core.Recurrence;
using Valtro.Core.Time;
using Foreign = Ical.Net;

namespace Valtro.Bench;

/// <summary>The same weekly lesson for both: Tuesdays and Thursdays, 14:00 in Halifax, without end.</summary>
internal static class Lesson
{
    public const string Rule = "FREQ=WEEKLY;BYDAY=TU,TH";

    public static readonly DateTimeZone Halifax = Zones.Named("America/Halifax");

    public static Series Ours()
    {
        var start = new LocalDateTime(2026, 9, 1, 14, 0);
        return new Series(Timing.Timed(start, start.PlusMinutes(90), Halifax), RuleText.Parse(Rule));
    }

    public static Foreign.CalendarComponents.CalendarEvent Theirs()
    {
        var lesson = new Foreign.CalendarComponents.CalendarEvent
        {
            Start = new Foreign.DataTypes.CalDateTime(2026, 9, 1, 14, 0, 0, "America/Halifax"),
            End = new Foreign.DataTypes.CalDateTime(2026, 9, 1, 15, 30, 0, "America/Halifax"),
        };
        lesson.RecurrenceRule = new Foreign.DataTypes.RecurrenceRule(Rule);
        return lesson;
    }

    public static long CountOurs(LocalDate from, LocalDate to)
    {
        var count = 0L;
        foreach (var occurrence in Ours().In(new Window(from, to, Halifax)))
            count += occurrence.Start > default(Instant) ? 1 : 0;
        return count;
    }

    public static long CountTheirs(LocalDate from, LocalDate to)
    {
        var end = new Foreign.DataTypes.CalDateTime(to.Year, to.Month, to.Day, 0, 0, 0, "America/Halifax");
        var count = 0L;
        foreach (var occurrence in Theirs().GetOccurrences(new Foreign.DataTypes.CalDateTime(from.Year, from.Month, from.Day, 0, 0, 0, "America/Halifax")))
        {
            if (occurrence.Period.StartTime.AsUtc >= end.AsUtc)
                break;
            count++;
        }
        return count;
    }

    /// <exception cref="InvalidOperationException">The two disagree: then their speeds cannot be compared.</exception>
    public static void CheckThatBothAgree(LocalDate from, LocalDate to)
    {
        if (CountOurs(from, to) != CountTheirs(from, to))
            throw new InvalidOperationException($"Valtro finds {CountOurs(from, to)} dates, Ical.Net {CountTheirs(from, to)}.");
    }
}

/// <summary>Counting the lesson's dates in a window, both ways.</summary>
public abstract class LessonInWindow(LocalDate from, LocalDate to)
{
    [GlobalSetup]
    public void Check() => Lesson.CheckThatBothAgree(from, to);

    [Benchmark]
    public long Valtro() => Lesson.CountOurs(from, to);

    [Benchmark]
    public long IcalNet() => Lesson.CountTheirs(from, to);
}

[Suite("weekly TU,TH, ten years", 10, 1_044)]
public class TenYears() : LessonInWindow(new LocalDate(2026, 9, 1), new LocalDate(2036, 9, 1));

[Suite("weekly TU,TH, six weeks nine years on", 20, 12)]
public class WindowNineYearsOn() : LessonInWindow(new LocalDate(2035, 9, 3), new LocalDate(2035, 10, 15));
