using System.Globalization;
using NodaTime;

namespace Valtro.Core.Typing;

/// <summary>A time or a day as a cell says it: nothing else may stand there.</summary>
public static class Typed
{
    /// <summary>9, 9:30, 930, 9.30pm, half past nine; with the word that a language puts after it ("14 Uhr"). Null when it is
    /// none.</summary>
    public static LocalTime? Time(string text, CultureInfo culture) => new TimeReader(Words(text), Grammar.Of(culture)).ReadAlone();

    /// <summary>24 Nov, Nov 24, 24 November 2026, 24.11., 24/11/26, 2026-11-24, today, tomorrow, next Monday, or a weekday: the next one
    /// from today on. Null when it is none, or could be two.</summary>
    /// <remarks>Without a year the nearest one is meant: in December, "8 Jan" is next year's.</remarks>
    public static LocalDate? Day(string text, CultureInfo culture, LocalDate today) =>
        Days(text, culture, today) is [var day] ? day : null;

    /// <summary>The same; two where it could be either, none where it is no day.</summary>
    /// <param name="near">A day without a year is the one nearest to this; where it is missing, to today.</param>
    public static IReadOnlyList<LocalDate> Days(string text, CultureInfo culture, LocalDate today, LocalDate? near = null) =>
        new DayReader(Words(text), Grammar.Of(culture), today, nearest: true).ReadAlone(near ?? today);

    private static LineWords Words(string text) => new(text, _ => false);
}
