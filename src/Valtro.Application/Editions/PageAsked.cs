using System.Globalization;
using System.Text.RegularExpressions;
using NodaTime;
using Valtro.Core.Editions;
using Valtro.Core.Time;

namespace Valtro.Application.Editions;

/// <summary>As what a page is painted, before anything of the reader's own is known.</summary>
/// <param name="Languages">Those of the reader that are heeded: none where the edition has its own.</param>
public sealed record PaintedBody(EditionView View, LocalDate Day, LocalDate Today, IReadOnlyList<string> Languages);

/// <summary>What an address and a browser say of a page, in their words; what makes no sense is not heeded.</summary>
/// <param name="Scheme">How bright the page around it is.</param>
/// <param name="Languages">The reader's, the best first.</param>
public sealed record PageQuestion(string? View, string? Date, string? Month, string? Scheme, IEnumerable<string> Languages);

/// <summary>What an address asks of a page, cut to what the edition has.</summary>
/// <param name="Today">In the edition's zone.</param>
/// <param name="Language">The reader's, where the edition follows it and reading pages speak it; else empty.</param>
/// <param name="Scheme">"light" or "dark", as the page around it is and where the edition does not fix it; else empty.</param>
public readonly partial record struct PageAsked(
    bool IsEmbedded, EditionView View, LocalDate Day, LocalDate Today, string Language, string Scheme)
{
    public static PageAsked Of(EditionBody edition, PageQuestion question, bool isEmbedded, LocalDate today) => new(
        isEmbedded,
        Enum.TryParse<EditionView>(question.View, ignoreCase: true, out var view) && edition.Look.Views.Contains(view)
            ? view
            : edition.Look.View,
        Within(Nearest(question.Date) ?? Nearest(question.Month) ?? today, edition),
        today,
        edition.Look.Language.Length > 0 ? "" : question.Languages.FirstOrDefault(Look.Languages.Contains) ?? "",
        edition.Look.Scheme == Core.Editions.Scheme.Reader && question.Scheme is "light" or "dark" ? question.Scheme : "");

    private static LocalDate Within(LocalDate day, EditionBody edition)
    {
        if (edition.From is { } from && day < from)
            return from;
        if (edition.To is { } to && day >= to)
            return to.PlusDays(-1);
        // Every view has its neighbours.
        return LocalDate.Max(
            DayRange.First.PlusMonths(1), LocalDate.Min(DayRange.Last.PlusMonths(-1).With(DateAdjusters.StartOfMonth).PlusDays(-1), day));
    }

    /// <summary>The day that somebody means who writes a month or a day that there is not: 2026-13 is December, 2026-02-31 the 28th (as
    /// address.ts reads it).</summary>
    private static LocalDate? Nearest(string? text)
    {
        if (text is null || Written().Match(text.Trim()) is not { Success: true } parts)
            return null;
        var year = Math.Clamp(Number(parts.Groups[1]), DayRange.First.Year, DayRange.Last.Year);
        var month = Math.Clamp(Number(parts.Groups[2]), 1, 12);
        var day = parts.Groups[3].Success ? Number(parts.Groups[3]) : 1;
        return new LocalDate(year, month, Math.Clamp(day, 1, CalendarSystem.Iso.GetDaysInMonth(year, month)));

        static int Number(Group group) => int.Parse(group.ValueSpan, CultureInfo.InvariantCulture);
    }

    [GeneratedRegex(@"^(\d{4})-(\d{1,2})(?:-(\d{1,2}))?$", RegexOptions.ECMAScript)]
    private static partial Regex Written();
}
