using System.Globalization;
using System.Text.RegularExpressions;
using Microsoft.Net.Http.Headers;
using NodaTime;
using Valtro.Core.Editions;
using Valtro.Core.Time;

namespace Valtro.Server.Public;

/// <summary>As what a page is painted, before anything of the reader's own is known.</summary>
/// <param name="Languages">Those of the reader that are heeded: none where the edition has its own.</param>
public sealed record PaintedBody(EditionView View, LocalDate Day, LocalDate Today, IReadOnlyList<string> Languages);

/// <summary>What an address asks of a page, cut to what the edition has.</summary>
/// <param name="Today">In the edition's zone.</param>
/// <param name="Language">The reader's, where the edition follows it and reading pages speak it; else empty.</param>
/// <param name="Scheme">"light" or "dark", as the page around it is and where the edition does not fix it; else empty.</param>
public readonly partial record struct PageAsked(bool IsEmbedded, EditionView View, LocalDate Day, LocalDate Today, string Language, string Scheme)
{
    public static PageAsked Of(EditionBody edition, HttpRequest request, bool isEmbedded, LocalDate today)
    {
        var view = Enum.TryParse<EditionView>(request.Query["view"], ignoreCase: true, out var asked) && edition.Look.Views.Contains(asked) ? asked : edition.Look.View;
        var day = Nearest(request.Query["date"]) ?? Nearest(request.Query["month"]) ?? today;
        var language = edition.Look.Language.Length > 0 ? "" : LanguageOf(request);
        var scheme = edition.Look.Scheme == Core.Editions.Scheme.Reader && request.Query["scheme"].ToString() is ("light" or "dark") and var around ? around : "";
        return new PageAsked(isEmbedded, view, Within(day, edition), today, language, scheme);
    }

    private static LocalDate Within(LocalDate day, EditionBody edition)
    {
        if (edition.From is { } from && day < from)
            return from;
        if (edition.To is { } to && day >= to)
            return to.PlusDays(-1);
        // Every view has its neighbours.
        return LocalDate.Max(DayRange.First.PlusMonths(1), LocalDate.Min(DayRange.Last.PlusMonths(-1).With(DateAdjusters.StartOfMonth).PlusDays(-1), day));
    }

    /// <summary>The day that somebody means who writes a month or a day that there is not: 2026-13 is December, 2026-02-31 the 28th (as address.ts reads it).</summary>
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

    /// <summary>The first of the reader's languages that reading pages speak (RFC 9110 12.5.4).</summary>
    private static string LanguageOf(HttpRequest request) => request.GetTypedHeaders().AcceptLanguage
        .Where(value => value.Quality is null or > 0)
        .OrderByDescending(value => value, StringWithQualityHeaderValueComparer.QualityComparer)
        .Select(value => value.Value.ToString().Split('-')[0].ToLowerInvariant())
        .FirstOrDefault(Look.Languages.Contains) ?? "";
}
