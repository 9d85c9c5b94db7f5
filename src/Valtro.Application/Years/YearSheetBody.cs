using NodaTime;
using Valtro.Core.YearPlans;

namespace Valtro.Application.Years;

/// <param name="Weeks">The first days of its weeks of school, from week 1 on.</param>
public sealed record SheetTermBody(string Name, LocalDate First, LocalDate Last, IReadOnlyList<LocalDate> Weeks);

/// <summary>What is on too often for a year's sheet, and is named below it.</summary>
/// <param name="Id">Of the event; its dates have it too.</param>
public sealed record OftenBody(string Id, string Title, IReadOnlyList<string> Plates, int Dates);

/// <summary>What of a year stands on one sheet beneath the dates.</summary>
/// <param name="To">The first day after it.</param>
public sealed record YearSheetBody(
    LocalDate From, LocalDate To, IReadOnlyList<SheetTermBody> Terms, IReadOnlyList<SpanBody> Breaks, IReadOnlyList<OftenBody> Often)
{
    public static YearSheetBody Of(YearSheet sheet, IEnumerable<OftenBody> often, bool withYearPlan = true) => new(
        sheet.First,
        sheet.End,
        withYearPlan ? [.. sheet.Terms.Select(term => new SheetTermBody(term.Name, term.First, term.Last, term.Weeks))] : [],
        withYearPlan ? [.. sheet.Breaks.Select(SpanBody.Of)] : [],
        [.. often.OrderBy(one => one.Title, StringComparer.CurrentCultureIgnoreCase)]);
}
