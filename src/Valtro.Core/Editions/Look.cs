namespace Valtro.Core.Editions;

public enum EditionView
{
    Month,
    Week,
    Day,
    List,

    /// <summary>Entries with their pictures.</summary>
    Cards,

    /// <summary>For narrow columns: numbers with marks, and the chosen day below.</summary>
    SmallMonth,
}

public enum ClockFace
{
    /// <summary>As the reader's language has it.</summary>
    Reader,
    Twelve,
    TwentyFour,
}

/// <summary>How dates are written: "Tuesday, 24 November", "Tue 24 Nov", "24/11/2026" in the page's language.</summary>
public enum DateStyle
{
    Long,
    Short,
    Numeric,
}

public enum TextSize
{
    Small,
    Normal,
    Large,
}

public enum Density
{
    Airy,
    Normal,
    Tight,
}

public enum Corner
{
    Square,
    Soft,
    Round,
}

/// <summary>Light, dark, or as the reader's system is.</summary>
public enum Scheme
{
    Light,
    Dark,
    Reader,
}

/// <summary>What a click on an entry does.</summary>
public enum OnEntry
{
    Details,
    Page,

    /// <summary>The event's own first link; its details where it has none.</summary>
    FirstLink,
    Nothing,
}

/// <summary>By what the lists of an edition are grouped.</summary>
public enum Grouping
{
    /// <summary>Not at all: by time alone.</summary>
    Time,
    Day,
    Week,
    Month,
    Calendar,
    Category,
}

/// <summary>An entry that lasts for days stands on each of them, or on the first only.</summary>
public enum SeveralDays
{
    Each,
    First,
}

/// <summary>How an edition looks on somebody's page.</summary>
/// <param name="Views">Those that the reader may switch to, the first view among them.</param>
/// <param name="Language">A language of the reading pages; empty for the reader's own.</param>
/// <param name="PicturesInMonth">An entry's picture fills the day on which it begins.</param>
/// <param name="FirstDayOfWeek">1 (Monday) to 7; null as the organisation has it.</param>
public sealed record Look(
    EditionView View, IReadOnlyList<EditionView> Views, string Title, string Intro, bool Navigation, bool Legend, bool ZoneLabel,
    int? FirstDayOfWeek, ClockFace Clock, string Language, string PaletteName, Palette Light, Palette Dark, DateStyle Dates, TextSize Size,
    Density Density,
    Corner Corner, Scheme Scheme, OnEntry OnEntry, string EmptyText, string FailedText, Grouping Grouping, SeveralDays SeveralDays,
        Pattern Line, bool PicturesInMonth)
{
    /// <summary>The languages that reading pages speak.</summary>
    public static IReadOnlyList<string> Languages { get; } = ["en", "de", "fr", "ar"];
}
