using NodaTime;
using Valtro.Core.Time;
using Valtro.Core.YearPlans;

namespace Valtro.Core.Editions;

/// <summary>Where an edition begins. All but the first and the last move with the clock in the edition's zone.</summary>
public enum WindowFrom
{
    /// <summary>Whatever there ever was.</summary>
    Beginning,

    /// <summary>This moment: what is over is gone.</summary>
    Now,
    Today,
    Week,
    Month,

    /// <summary>The term that today is in; between terms the next one.</summary>
    Term,
    Date,
}

/// <summary>Where an edition ends.</summary>
public enum WindowTo
{
    /// <summary>So many days after the beginning; from today where it begins with everything.</summary>
    Days,
    Weeks,
    Months,
    EndOfMonth,

    /// <summary>Of the term that the beginning (or today, when that is later) is in; between terms of the next one.</summary>
    EndOfTerm,

    /// <summary>Of the year plan.</summary>
    EndOfYear,
    Date,
    Open,
}

/// <summary>What stretch of time an edition is about.</summary>
/// <param name="FromDate">With <see cref="WindowFrom.Date"/>.</param>
/// <param name="Count">Days, weeks or months ahead; 1 or more.</param>
/// <param name="ToDate">The last day, inclusive, with <see cref="WindowTo.Date"/>.</param>
/// <param name="WithPast">What is over stays until the beginning has passed it; else it goes when it is over.</param>
public sealed record EditionWindow(WindowFrom From, LocalDate? FromDate, WindowTo To, int Count, LocalDate? ToDate, bool WithPast)
{
    public static EditionWindow Everything { get; } = new(WindowFrom.Beginning, null, WindowTo.Open, 1, null, WithPast: true);

    private bool IsFixed => From is WindowFrom.Beginning or WindowFrom.Date && To is WindowTo.Date or WindowTo.Open;

    /// <summary>The days it is about at a moment.</summary>
    public EditionSpan At(Instant now, DateTimeZone zone, SchoolCalendar school, IsoDayOfWeek firstDayOfWeek)
    {
        var today = now.InZone(zone).Date;
        var first = First(today, school, firstDayOfWeek);
        return new EditionSpan(
            first,
            End(first ?? today, LocalDate.Max(first ?? today, today), school),
            From == WindowFrom.Now || !WithPast ? now : null,
            IsFixed ? null : LocalTimes.StartOf(today.PlusDays(1), zone));
    }

    private LocalDate? First(LocalDate today, SchoolCalendar school, IsoDayOfWeek firstDayOfWeek) => From switch
    {
        WindowFrom.Beginning => null,
        WindowFrom.Week => today.With(DateAdjusters.PreviousOrSame(firstDayOfWeek)),
        WindowFrom.Month => today.With(DateAdjusters.StartOfMonth),
        WindowFrom.Term => TermFrom(school, today)?.First ?? today,
        WindowFrom.Date => FromDate,
        _ => today,
    };

    /// <returns>The first day after it; null where it is open.</returns>
    private LocalDate? End(LocalDate first, LocalDate later, SchoolCalendar school) => To switch
    {
        WindowTo.Days => first.PlusDays(Count),
        WindowTo.Weeks => first.PlusWeeks(Count),
        WindowTo.Months => first.PlusMonths(Count),
        WindowTo.EndOfMonth => later.With(DateAdjusters.EndOfMonth).PlusDays(1),
        WindowTo.EndOfTerm => TermFrom(school, later)?.Last.PlusDays(1),
        WindowTo.EndOfYear => school.Plans.FirstOrDefault(plan => plan.Last >= later)?.Last.PlusDays(1),
        WindowTo.Date => ToDate?.PlusDays(1),
        _ => null,
    };

    private static NamedDays? TermFrom(SchoolCalendar school, LocalDate day) =>
        school.Plans.SelectMany(plan => plan.Terms).FirstOrDefault(term => term.Last >= day);
}

/// <summary>The days an edition is about at a moment.</summary>
/// <param name="First">Null from the beginning of all.</param>
/// <param name="End">The first day after it; null when it is open.</param>
/// <param name="NotOverAt">What has ended by then is left out.</param>
/// <param name="TurnsAt">When these days become others by themselves.</param>
public readonly record struct EditionSpan(LocalDate? First, LocalDate? End, Instant? NotOverAt, Instant? TurnsAt)
{
    public static EditionSpan Everything { get; } = new(null, null, null, null);

    public bool IsOpen => First is null && End is null;
}
