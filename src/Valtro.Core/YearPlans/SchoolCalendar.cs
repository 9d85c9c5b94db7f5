using NodaTime;
using Valtro.Core.Time;

namespace Valtro.Core.YearPlans;

/// <summary>All year plans of an organisation together: which days are closed, and which day of the cycle each is.</summary>
public sealed class SchoolCalendar
{
    private readonly IReadOnlyList<YearPlan> _plans;
    private readonly Dictionary<LocalDate, int> _numbers = [];

    /// <param name="plans">Not overlapping.</param>
    public SchoolCalendar(IEnumerable<YearPlan> plans, IsoDayOfWeek firstDayOfWeek)
    {
        _plans = [.. plans.OrderBy(plan => plan.First)];
        FirstDayOfWeek = firstDayOfWeek;
        foreach (var plan in _plans)
        {
            if (plan.Cycle is { } cycle)
                Number(plan, cycle);
        }
    }

    /// <summary>No plan: nothing is closed.</summary>
    public static SchoolCalendar Empty { get; } = new([], IsoDayOfWeek.Monday);

    public IsoDayOfWeek FirstDayOfWeek { get; }

    public IReadOnlyList<YearPlan> Plans => _plans;

    public YearPlan? PlanOf(LocalDate day) => _plans.FirstOrDefault(plan => plan.Holds(day));

    public NamedDays? BreakOn(LocalDate day) => PlanOf(day)?.Breaks.FirstOrDefault(span => span.Holds(day));

    public NamedDays? TermOn(LocalDate day) => PlanOf(day)?.Terms.FirstOrDefault(span => span.Holds(day));

    public bool IsClosed(LocalDate day) => BreakOn(day) is not null;

    /// <summary>The next open day of the same week, or null. From a weekday it does not move to a weekend.</summary>
    public LocalDate? NextOpenInWeek(LocalDate day)
    {
        var mayBeWeekend = day.IsWeekend();
        for (var next = day.PlusDays(1); next.DayOfWeek != FirstDayOfWeek; next = next.PlusDays(1))
        {
            if (!IsClosed(next) && (mayBeWeekend || !next.IsWeekend()))
                return next;
        }
        return null;
    }

    /// <summary>Day 1, 2 … or week 1 (A), 2 (B) … of the cycle; 0 where there is none.</summary>
    public int NumberOf(LocalDate day) => _numbers.GetValueOrDefault(day);

    /// <summary>The days that have one of these numbers, ascending, from <paramref name="from"/> on.</summary>
    public IEnumerable<LocalDate> DaysNumbered(IReadOnlyList<int> numbers, LocalDate from)
    {
        foreach (var plan in _plans)
        {
            if (plan.Cycle is null || plan.Last < from)
                continue;
            for (var day = LocalDate.Max(from, plan.First); day <= plan.Last; day = day.PlusDays(1))
            {
                if (numbers.Contains(NumberOf(day)))
                    yield return day;
            }
        }
    }

    private void Number(YearPlan plan, DayCycle cycle)
    {
        var number = 0;
        var week = default(LocalDate?);
        foreach (var term in plan.Terms)
        {
            if (cycle.RestartsEachTerm)
                (number, week) = (0, null);
            for (var day = term.First; day <= term.Last; day = day.PlusDays(1))
            {
                if (day.IsWeekend() || plan.Breaks.Any(span => span.Holds(day)))
                    continue;
                var weekOfDay = day.With(DateAdjusters.PreviousOrSame(FirstDayOfWeek));
                if (cycle.Unit == CycleUnit.Days || weekOfDay != week)
                    number = number % cycle.Length + 1;
                week = weekOfDay;
                _numbers[day] = number;
            }
        }
    }
}
