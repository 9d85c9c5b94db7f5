using Ical.Net.DataTypes;
using NodaTime;
using Valtro.Core.YearPlans;

namespace Valtro.Core.ICalendar;

/// <summary>Reads breaks from somebody's iCalendar file: each all-day event is one.</summary>
public static class BreakReader
{
    public const int LongestFile = 500_000;

    /// <param name="skipped">Titles of events that are no breaks: those with times of day, and those outside the days asked for.</param>
    /// <exception cref="RuleException">It is no iCalendar stream.</exception>
    public static IReadOnlyList<NamedDays> Read(string text, LocalDate first, LocalDate last, out IReadOnlyList<string> skipped)
    {
        if (text.Length > LongestFile)
            throw new RuleException("file", "breaks.tooLong", ("count", text.Length), ("most", LongestFile));
        var found = new List<NamedDays>();
        var others = new List<string>();
        foreach (var calendarEvent in Load(text).Events)
        {
            var name = string.IsNullOrWhiteSpace(calendarEvent.Summary) ? "Closed" : calendarEvent.Summary.Trim();
            name = name.Length > Texts.LongestName ? name[..Texts.LongestName] : name;
            if (calendarEvent.Start is not { HasTime: false } start)
            {
                others.Add(name);
                continue;
            }
            var begins = Date(start);
            var ends = calendarEvent.End is { HasTime: false } end && Date(end) > begins ? Date(end).PlusDays(-1) : begins;
            if (begins < first || ends > last)
                others.Add(name);
            else
                found.Add(new NamedDays(name, begins, ends));
        }
        skipped = others;
        return Merged(found);
    }

    private static Ical.Net.Calendar Load(string text)
    {
        try
        {
            return Ical.Net.Calendar.Load(text) ?? throw new RuleException("file", "breaks.noCalendar");
        }
        catch (Exception unreadable) when (unreadable is not RuleException and not OutOfMemoryException)
        {
            throw new RuleException("file", "breaks.unreadable");
        }
    }

    private static LocalDate Date(CalDateTime day) => new(day.Year, day.Month, day.Day);

    /// <summary>A day belongs to one break: what overlaps becomes one with both names.</summary>
    private static List<NamedDays> Merged(List<NamedDays> found)
    {
        var merged = new List<NamedDays>();
        foreach (var span in found.OrderBy(one => one.First))
        {
            if (merged.Count > 0 && merged[^1].Last >= span.First)
            {
                var name = merged[^1].Name == span.Name ? span.Name : $"{merged[^1].Name}, {span.Name}";
                merged[^1] = new NamedDays(
                    name.Length > Texts.LongestName ? merged[^1].Name : name, merged[^1].First, LocalDate.Max(merged[^1].Last, span.Last));
            }
            else
                merged.Add(span);
        }
        return merged;
    }
}
