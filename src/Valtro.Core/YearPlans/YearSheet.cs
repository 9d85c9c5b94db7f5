using NodaTime;

namespace Valtro.Core.YearPlans;

/// <summary>A term on a year's sheet.</summary>
/// <param name="Weeks">The first days of its weeks in which there is school: week 1, week 2 …</param>
public sealed record SheetTerm(string Name, LocalDate First, LocalDate Last, IReadOnlyList<LocalDate> Weeks);

/// <summary>What of a year of twelve months stands on one sheet of paper beneath the dates: terms, their weeks by number, and
/// breaks.</summary>
/// <param name="End">Not included.</param>
public sealed record YearSheet(
    LocalDate First, LocalDate End, IReadOnlyList<SheetTerm> Terms, IReadOnlyList<NamedDays> Breaks)
{
    /// <summary>What is on more often in a year is no news on its sheet: lessons, watches, weekly meetings.</summary>
    public const int MostDates = 12;

    /// <summary>The year that holds a day.</summary>
    /// <param name="startsIn">The month in which years of the organisation begin, 1 to 12.</param>
    public static YearSheet Of(SchoolCalendar school, LocalDate day, int startsIn)
    {
        var first = FirstOf(day, startsIn);
        var end = first.PlusYears(1);
        return new YearSheet(
            first, end,
            [.. from plan in school.Plans
                from term in plan.Terms
                where Touches(term)
                select new SheetTerm(term.Name, term.First, term.Last, plan.SchoolWeeksOf(term, school.FirstDayOfWeek))],
            [.. school.Plans.SelectMany(plan => plan.Breaks).Where(Touches)]);

        bool Touches(NamedDays span) => span.First < end && span.Last >= first;
    }

    /// <summary>The first day of the year that holds a day.</summary>
    public static LocalDate FirstOf(LocalDate day, int startsIn) =>
        new(day.Month >= startsIn ? day.Year : day.Year - 1, startsIn, 1);

    /// <summary>The events that have more dates in the year than a sheet takes, and how many.</summary>
    /// <param name="dates">The event of each date.</param>
    public static IReadOnlyDictionary<T, int> Often<T>(IEnumerable<T> dates) where T : notnull =>
        dates.CountBy(one => one).Where(counted => counted.Value > MostDates).ToDictionary();
}
