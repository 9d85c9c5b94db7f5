using NodaTime;

namespace Valtro.Core.YearPlans;

/// <summary>A named stretch of days: a term, or a break. Both ends inclusive.</summary>
public sealed record NamedDays(string Name, LocalDate First, LocalDate Last)
{
    public bool Holds(LocalDate day) => First <= day && day <= Last;
}

/// <summary>What a day cycle counts.</summary>
public enum CycleUnit
{
    /// <summary>School days: Day 1, Day 2 …</summary>
    Days,

    /// <summary>Weeks with at least one school day: Week A, Week B …</summary>
    Weeks,
}

/// <summary>How school days are numbered.</summary>
/// <param name="Length">1 to 10 days, or 2 to 4 weeks.</param>
/// <param name="RestartsEachTerm">Each term begins with the first day or week again; else the count goes on.</param>
public sealed record DayCycle(CycleUnit Unit, int Length, bool RestartsEachTerm)
{
    public const int MostDays = 10;
    public const int MostWeeks = 4;
}

/// <summary>Terms, breaks (closures) and the day cycle of a year, validated.</summary>
/// <remarks>Breaks may lie inside terms or between them; a day is closed when a break holds it.</remarks>
public sealed record YearPlan
{
    public const int MostSpans = 60;
    public const int LongestDays = 550;

    public string Name { get; }
    public LocalDate First { get; }
    public LocalDate Last { get; }
    public IReadOnlyList<NamedDays> Terms { get; }
    public IReadOnlyList<NamedDays> Breaks { get; }
    public DayCycle? Cycle { get; }

    /// <exception cref="RuleException">With a refusal for each field that is wrong.</exception>
    public YearPlan(string? name, LocalDate? first, LocalDate? last, IReadOnlyList<NamedDays> terms, IReadOnlyList<NamedDays> breaks, DayCycle? cycle)
    {
        var refusals = new RefusalList();
        Name = refusals.Try(() => Texts.OneLine("name", "The name of the year", name, Texts.LongestName)) ?? "";
        if (first is null)
            refusals.Add("first", "The first day of the year is missing. Give a day such as 1 August 2026.");
        if (last is null)
            refusals.Add("last", "The last day of the year is missing. Give a day such as 31 July 2027.");
        if (last < first)
            refusals.Add("last", "The year ends before it begins. Give a last day after the first.");
        else if (first is { } from && last is { } to && Period.DaysBetween(from, to) > LongestDays)
            refusals.Add("last", $"The year has more than {LongestDays} days. Make a year plan for each year.");
        refusals.ThrowIfAny();
        (First, Last) = (first!.Value, last!.Value);
        Terms = Checked("terms", "term", terms, refusals);
        Breaks = Checked("breaks", "break", breaks, refusals);
        Cycle = cycle;
        if (cycle is { Unit: CycleUnit.Days, Length: < 1 or > DayCycle.MostDays })
            refusals.Add("cycle", $"The day cycle has {cycle.Length} days. It has to have from 1 to {DayCycle.MostDays}.");
        if (cycle is { Unit: CycleUnit.Weeks, Length: < 2 or > DayCycle.MostWeeks })
            refusals.Add("cycle", $"The cycle has {cycle.Length} weeks. It has to have from 2 to {DayCycle.MostWeeks}.");
        refusals.ThrowIfAny();
    }

    public bool Holds(LocalDate day) => First <= day && day <= Last;

    /// <summary>The same a year later: spans move by 52 or 53 weeks, so that they keep their weekdays.</summary>
    public YearPlan CopiedTo(string? name)
    {
        var weeks = (Period.DaysBetween(First, First.PlusYears(1)) + 3) / 7;
        NamedDays Later(NamedDays span) => new(span.Name, span.First.PlusWeeks(weeks), span.Last.PlusWeeks(weeks));
        var first = Last.PlusDays(1);
        var last = first.PlusYears(1).PlusDays(-1);
        return new YearPlan(
            name, first, last,
            [.. Terms.Select(Later).Where(span => first <= span.First && span.Last <= last)],
            [.. Breaks.Select(Later).Where(span => first <= span.First && span.Last <= last)],
            Cycle);
    }

    private NamedDays[] Checked(string field, string what, IReadOnlyList<NamedDays> spans, RefusalList refusals)
    {
        if (spans.Count > MostSpans)
            refusals.Add(field, $"These are {spans.Count} {what}s. At most {MostSpans} are possible in a year.");
        var sorted = spans.OrderBy(span => span.First).ToArray();
        for (var index = 0; index < sorted.Length; index++)
        {
            var span = sorted[index];
            refusals.Try(() => Texts.OneLine(field, $"The name of a {what}", span.Name, Texts.LongestName));
            if (span.Last < span.First)
                refusals.Add(field, $"“{span.Name}” ends before it begins. Give a last day that is the first day or later.");
            else if (!Holds(span.First) || !Holds(span.Last))
                refusals.Add(field, $"“{span.Name}” lies outside the year, which goes from {First:d MMMM uuuu} to {Last:d MMMM uuuu}.");
            else if (index > 0 && sorted[index - 1].Last >= span.First)
                refusals.Add(field, $"“{sorted[index - 1].Name}” and “{span.Name}” overlap. A day belongs to one {what} at most.");
        }
        return sorted;
    }

    public bool Equals(YearPlan? other) =>
        other is not null && Name == other.Name && First == other.First && Last == other.Last && Cycle == other.Cycle
        && Terms.SequenceEqual(other.Terms) && Breaks.SequenceEqual(other.Breaks);

    public override int GetHashCode() => HashCode.Combine(Name, First, Last, Terms.Count, Breaks.Count);
}
