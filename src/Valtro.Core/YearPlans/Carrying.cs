using NodaTime;
using Valtro.Core.Speaking;
using Valtro.Core.Time;

namespace Valtro.Core.YearPlans;

/// <summary>Where a day goes in another term or year.</summary>
/// <param name="Term">Where it was, if that is in a term.</param>
/// <param name="Week">The week of that term, counted by those with school; 0 where it goes by its date.</param>
/// <param name="Remark">What somebody should look at.</param>
public sealed record CarriedDay(LocalDate Day, NamedDays? Term, int Week, Saying? Remark);

/// <summary>Carries days from one year, or one term, to another: the Tuesday of the third week of a term stays that.</summary>
/// <remarks>Weeks are counted by those in which there is school, so that a break that lies a week later moves nothing into it.
/// What has no such place goes by its date, to the same weekday nearest to it.</remarks>
public sealed class Carrying
{
    private readonly YearPlan _from;
    private readonly YearPlan _into;
    private readonly IsoDayOfWeek _firstDayOfWeek;
    private readonly IReadOnlyList<(NamedDays From, NamedDays? Into)> _terms;
    private readonly Dictionary<NamedDays, LocalDate[]> _weeks = [];

    /// <summary>A year to another. Terms are the same by their name; where no name is the same, by their order.</summary>
    public Carrying(YearPlan from, YearPlan into, IsoDayOfWeek firstDayOfWeek)
        : this(from, into, firstDayOfWeek, Pairs(from, into))
    {
    }

    /// <summary>Whatever lies in a term to one other term.</summary>
    public Carrying(YearPlan from, YearPlan into, NamedDays term, IsoDayOfWeek firstDayOfWeek)
        : this(from, into, firstDayOfWeek, [.. from.Terms.Select(one => (one, (NamedDays?)term))]) => IsToOneTerm = true;

    private Carrying(
        YearPlan from, YearPlan into, IsoDayOfWeek firstDayOfWeek, IReadOnlyList<(NamedDays From, NamedDays? Into)> terms)
    {
        (_from, _into, _firstDayOfWeek, _terms) = (from, into, firstDayOfWeek, terms);
        foreach (var (before, after) in terms)
        {
            _weeks[before] = from.SchoolWeeksOf(before, firstDayOfWeek);
            if (after is not null)
                _weeks[after] = into.SchoolWeeksOf(after, firstDayOfWeek);
        }
    }

    public YearPlan From => _from;

    public YearPlan Into => _into;

    /// <summary>All goes to one term, wherever in the year that is.</summary>
    public bool IsToOneTerm { get; }

    /// <summary>How many years later it is.</summary>
    public int Years => _into.First.Year - _from.First.Year;

    /// <param name="mayMove">From a break it goes to an open day of the same week; else it is only said.</param>
    public CarriedDay To(LocalDate day, bool mayMove = true)
    {
        var (term, into) = _terms.FirstOrDefault(one => one.From.Holds(day));
        if (_from.Breaks.FirstOrDefault(span => span.Holds(day)) is { } closed)
            return ByDate(day, term, Saying.Of("carry.inBreak", ("break", closed.Name)));
        if (term is null)
            return ByDate(day, null, Saying.Of("carry.outsideTerms"));
        if (into is null)
            return ByDate(day, term, Saying.Of("carry.noSuchTerm", ("term", term.Name), ("year", _into.Name)));
        var week = Array.IndexOf(_weeks[term], WeekOf(day)) + 1;
        var weeks = _weeks[into];
        if (week == 0 || weeks.Length == 0)
            return ByDate(day, term, Saying.Of("carry.noSchool"));
        var shorter = week > weeks.Length
            ? Saying.Of("carry.termIsShorter", ("term", into.Name), ("count", weeks.Length), ("week", week))
            : null;
        var place = weeks[Math.Min(week, weeks.Length) - 1].PlusDays(Period.DaysBetween(WeekOf(day), day));
        var (found, remark) = Open(place, into, mayMove);
        return new CarriedDay(found, term, week, shorter ?? remark);
    }

    /// <summary>On an open day of the term in the same week, where there is one.</summary>
    private (LocalDate Day, Saying? Remark) Open(LocalDate day, NamedDays term, bool mayMove)
    {
        var closed = _into.Breaks.FirstOrDefault(span => span.Holds(day));
        if (closed is null && term.Holds(day))
            return (day, null);
        var remark = closed is null
            ? Saying.Of(day < term.First ? "carry.beforeTerm" : "carry.afterTerm", ("term", term.Name))
            : Saying.Of("carry.intoBreak", ("break", closed.Name));
        if (!mayMove)
            return (day, remark);
        var week = Enumerable.Range(0, 7).Select(WeekOf(day).PlusDays)
            .Where(one => term.Holds(one) && !_into.Breaks.Any(span => span.Holds(one)) && (day.IsWeekend() || !one.IsWeekend()))
            .OrderBy(one => Math.Abs(Period.DaysBetween(one, day))).ThenByDescending(one => one);
        return (week.FirstOrDefault(day), remark);
    }

    /// <summary>The same weekday, nearest to the same date.</summary>
    private CarriedDay ByDate(LocalDate day, NamedDays? term, Saying remark)
    {
        var later = DayRange.Nearest(day.PlusYears(Years));
        var by = ((int)day.DayOfWeek - (int)later.DayOfWeek + 10) % 7 - 3;
        return new CarriedDay(later.PlusDays(by), term, 0, remark);
    }

    private LocalDate WeekOf(LocalDate day) => day.With(DateAdjusters.PreviousOrSame(_firstDayOfWeek));

    private static (NamedDays, NamedDays?)[] Pairs(YearPlan from, YearPlan into)
    {
        var byName = from.Terms.Select(term => (term, into.Terms.FirstOrDefault(
            other => other.Name.Equals(term.Name, StringComparison.CurrentCultureIgnoreCase)))).ToArray();
        return byName.Any(pair => pair.Item2 is not null) || from.Terms.Count != into.Terms.Count
            ? byName
            : [.. from.Terms.Zip(into.Terms, (term, other) => (term, (NamedDays?)other))];
    }
}
