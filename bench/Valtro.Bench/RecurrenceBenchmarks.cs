using BenchmarkDotNet.Attributes;
using NodaTime;
using Valtro.Core.Recurrence;
using Valtro.Core.Time;
using Valtro.Core.YearPlans;
using Foreign = Ical.Net;

namespace Valtro.Bench;

/// <summary>A lesson that both expand: 14:00 to 15:30 in Halifax, from 1 September 2026, without end. Both are given it ready
/// made.</summary>
public sealed class Lesson
{
    public static readonly DateTimeZone Halifax = Zones.Named("America/Halifax");

    private readonly Series _ours;
    private readonly Foreign.CalendarComponents.CalendarEvent _theirs;

    public Lesson(string rule, LocalDate first)
    {
        var start = first.At(new LocalTime(14, 0));
        _ours = new Series(Timing.Timed(start, start.PlusMinutes(90), Halifax), RuleText.Parse(rule));
        _theirs = new Foreign.CalendarComponents.CalendarEvent
        {
            Start = new Foreign.DataTypes.CalDateTime(first.Year, first.Month, first.Day, 14, 0, 0, Halifax.Id),
            End = new Foreign.DataTypes.CalDateTime(first.Year, first.Month, first.Day, 15, 30, 0, Halifax.Id),
            RecurrenceRule = new Foreign.DataTypes.RecurrenceRule(rule),
        };
    }

    public int CountOurs(Window window)
    {
        var count = 0;
        foreach (var occurrence in _ours.In(window, SchoolCalendar.Empty))
            count += occurrence.Start > default(Instant) ? 1 : 0;
        return count;
    }

    public int CountTheirs(Window window)
    {
        var end = new Foreign.DataTypes.CalDateTime(window.End.Year, window.End.Month, window.End.Day, 0, 0, 0, Halifax.Id).AsUtc;
        var count = 0;
        foreach (var occurrence in _theirs.GetOccurrences(
            new Foreign.DataTypes.CalDateTime(window.First.Year, window.First.Month, window.First.Day, 0, 0, 0, Halifax.Id)))
        {
            if (occurrence.Period.StartTime.AsUtc >= end)
                break;
            count++;
        }
        return count;
    }
}

/// <summary>The patterns of a school, each by its own first date.</summary>
public enum Pattern
{
    TuesdaysAndThursdays,
    LastFridays,
    FourthThursdayOfNovember,
    Weekdays,
    LastWeekdays,
}

/// <summary>Counting a lesson's dates in a window, both ways.</summary>
public abstract class LessonInWindow(LocalDate from, LocalDate to)
{
    private readonly Window _window = new(from, to, Lesson.Halifax);
    private Lesson _lesson = null!;

    [ParamsAllValues]
    public Pattern Pattern { get; set; }

    public int Dates => Make().CountOurs(_window);

    /// <exception cref="InvalidOperationException">The two disagree: then their speeds cannot be compared.</exception>
    [GlobalSetup]
    public void Check()
    {
        _lesson = Make();
        if (_lesson.CountOurs(_window) != _lesson.CountTheirs(_window))
            throw new InvalidOperationException(
                $"{Pattern}: Valtro finds {_lesson.CountOurs(_window)} dates, Ical.Net {_lesson.CountTheirs(_window)}.");
    }

    [Benchmark]
    public int Valtro() => _lesson.CountOurs(_window);

    [Benchmark]
    public int IcalNet() => _lesson.CountTheirs(_window);

    private Lesson Make() => Pattern switch
    {
        Pattern.TuesdaysAndThursdays => new Lesson("FREQ=WEEKLY;BYDAY=TU,TH", new LocalDate(2026, 9, 1)),
        Pattern.LastFridays => new Lesson("FREQ=MONTHLY;BYDAY=-1FR", new LocalDate(2026, 9, 25)),
        Pattern.FourthThursdayOfNovember => new Lesson("FREQ=YEARLY;BYMONTH=11;BYDAY=4TH", new LocalDate(2026, 11, 26)),
        Pattern.Weekdays => new Lesson("FREQ=WEEKLY;BYDAY=MO,TU,WE,TH,FR", new LocalDate(2026, 9, 1)),
        _ => new Lesson("FREQ=MONTHLY;BYDAY=MO,TU,WE,TH,FR;BYSETPOS=-1", new LocalDate(2026, 9, 30)),
    };
}

[Suite("ten years", 15)]
public class TenYears() : LessonInWindow(new LocalDate(2026, 9, 1), new LocalDate(2036, 9, 1));

/// <summary>The same six weeks of the school year, in the first year: what the window nine years on is held against.</summary>
[Suite("six weeks at the start", 0)]
public class WindowAtStart() : LessonInWindow(new LocalDate(2026, 10, 26), new LocalDate(2026, 12, 7));

[Suite("six weeks nine years on", 30)]
public class WindowNineYearsOn() : LessonInWindow(new LocalDate(2035, 10, 29), new LocalDate(2035, 12, 10));
