using NodaTime;
using Valtro.Core.ICalendar.Reading;
using Valtro.Core.YearPlans;

namespace Valtro.Core.ICalendar;

/// <summary>Reads breaks from somebody's iCalendar file: each all-day event is one.</summary>
public static class BreakReader
{
    public const int LongestFile = 500_000;

    private const int MostDates = 400;

    /// <param name="skipped">Titles of events that are no breaks: those with times of day, and those outside the days asked for.</param>
    /// <exception cref="RuleException">It is no iCalendar stream.</exception>
    public static IReadOnlyList<NamedDays> Read(string text, LocalDate first, LocalDate last, out IReadOnlyList<string> skipped)
    {
        if (text.Length > LongestFile)
            throw new RuleException("file", "breaks.tooLong", ("count", text.Length), ("most", LongestFile));
        var found = new List<NamedDays>();
        var others = new List<string>();
        foreach (var entry in new ForeignFile(new StringReader(text)).Read(DateTimeZone.Utc))
        {
            var name = entry.Title.Length == 0 ? "Closed" : Texts.Kept(entry.Title, Texts.LongestName);
            NamedDays[] within = entry.Series is { Timing.AllDay: true } series
                ? [.. series.All(SchoolCalendar.Empty).Take(MostDates)
                    .Select(date => new NamedDays(name, date.LocalStart.Date, date.LocalEnd.Date.PlusDays(-1)))
                    .Where(days => days.First >= first && days.Last <= last)]
                : [];
            found.AddRange(within);
            if (within.Length == 0)
                others.Add(name);
        }
        skipped = others;
        return Merged(found);
    }

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
