using NodaTime;
using Valtro.Core.Time;

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
    public YearPlan(
        string? name, LocalDate? first, LocalDate? last, IReadOnlyList<NamedDays> terms, IReadOnlyList<NamedDays> breaks, DayCycle? cycle)
    {
        var refusals = new RefusalList();
        Name = refusals.Try(() => Texts.OneLine("name", "what.nameOfYear", name, Texts.LongestName)) ?? "";
        if (first is null)
            refusals.Add("first", "year.firstMissing");
        if (last is null)
            refusals.Add("last", "year.lastMissing");
        if (last < first)
            refusals.Add("last", "year.endsBefore");
        else if (first is { } from && last is { } to && Period.DaysBetween(from, to) > LongestDays)
            refusals.Add("last", "year.tooLong", ("most", LongestDays));
        refusals.ThrowIfAny();
        (First, Last) = (first!.Value, last!.Value);
        Terms = Checked("terms", terms, refusals);
        Breaks = Checked("breaks", breaks, refusals);
        Cycle = cycle;
        if (cycle is { Unit: CycleUnit.Days, Length: < 1 or > DayCycle.MostDays })
            refusals.Add("cycle", "year.cycleDays", ("count", cycle.Length), ("most", DayCycle.MostDays));
        if (cycle is { Unit: CycleUnit.Weeks, Length: < 2 or > DayCycle.MostWeeks })
            refusals.Add("cycle", "year.cycleWeeks", ("count", cycle.Length), ("most", DayCycle.MostWeeks));
        refusals.ThrowIfAny();
    }

    public bool Holds(LocalDate day) => First <= day && day <= Last;

    /// <summary>The first days of the weeks of a term in which there is school: a weekday that no break holds.</summary>
    public LocalDate[] SchoolWeeksOf(NamedDays term, IsoDayOfWeek firstDayOfWeek) =>
        [.. Enumerable.Range(0, Period.DaysBetween(term.First, term.Last) + 1).Select(term.First.PlusDays)
            .Where(day => !day.IsWeekend() && !Breaks.Any(span => span.Holds(day)))
            .Select(day => day.With(DateAdjusters.PreviousOrSame(firstDayOfWeek))).Distinct()];

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

    private NamedDays[] Checked(string field, IReadOnlyList<NamedDays> spans, RefusalList refusals)
    {
        if (spans.Count > MostSpans)
            refusals.Add(field, $"year.tooMany.{field}", ("count", spans.Count), ("most", MostSpans));
        var sorted = spans.OrderBy(span => span.First).ToArray();
        for (var index = 0; index < sorted.Length; index++)
        {
            var span = sorted[index];
            refusals.Try(() => Texts.OneLine(field, $"what.nameOf.{field}", span.Name, Texts.LongestName));
            if (span.Last < span.First)
                refusals.Add(field, "year.spanEndsBefore", ("name", span.Name));
            else if (!Holds(span.First) || !Holds(span.Last))
                refusals.Add(field, "year.spanOutside", ("name", span.Name), ("first", First), ("last", Last));
            else if (index > 0 && sorted[index - 1].Last >= span.First)
                refusals.Add(field, $"year.overlap.{field}", ("before", sorted[index - 1].Name), ("name", span.Name));
        }
        return sorted;
    }

    public bool Equals(YearPlan? other) =>
        other is not null && Name == other.Name && First == other.First && Last == other.Last && Cycle == other.Cycle
        && Terms.SequenceEqual(other.Terms) && Breaks.SequenceEqual(other.Breaks);

    public override int GetHashCode() => HashCode.Combine(Name, First, Last, Terms.Count, Breaks.Count);
}
