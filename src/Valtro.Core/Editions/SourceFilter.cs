using System.Globalization;
using System.Text;
using Valtro.Core.Events;

namespace Valtro.Core.Editions;

/// <summary>Whether a filter takes what it names, or leaves it out.</summary>
public enum FilterMode
{
    Only,
    Except,
}

/// <summary>Which events of a source an edition takes.</summary>
/// <remarks>An event is named by a filter when it has one of its categories, one of its tags, or its text in title, place or
/// description.</remarks>
/// <param name="Text">Compared without regard to case and accents; empty names nothing.</param>
public sealed record SourceFilter(FilterMode Mode, IReadOnlyList<Guid> Categories, IReadOnlyList<string> Tags, string Text)
{
    private static readonly CompareInfo Words = CultureInfo.InvariantCulture.CompareInfo;

    public bool Passes(CalendarEvent calendarEvent) => Names(calendarEvent.Content) == (Mode == FilterMode.Only);

    private bool Names(EventContent content) =>
        (content.Category is { } category && Categories.Contains(category.Id))
        || content.Tags.Any(tag => Tags.Contains(tag, StringComparer.OrdinalIgnoreCase))
        || (Text.Length > 0 && EventField.Searched.Any(field => field.TextsOf(content).Any(Holds)));

    /// <summary>Plain letters need no knowledge of any language, and are compared many times as fast.</summary>
    private bool Holds(string where) => Ascii.IsValid(where) && Ascii.IsValid(Text)
        ? where.Contains(Text, StringComparison.OrdinalIgnoreCase)
        : Words.IndexOf(where, Text, CompareOptions.IgnoreCase | CompareOptions.IgnoreNonSpace) >= 0;
}
