using NodaTime;
using Valtro.Core.Typing;

namespace Valtro.Core.Intake;

/// <summary>By what it is said on which calendar an event from outside goes.</summary>
public enum CalendarBy
{
    /// <summary>All go on one.</summary>
    One,

    /// <summary>A column of the sheet names it.</summary>
    Column,

    /// <summary>What it is sorted by says it.</summary>
    Category,
}

/// <summary>In which order numbers of a day stand: 4/12 is a day of April or of December.</summary>
public enum DayOrder
{
    /// <summary>As in the organisation's language, or as the sheet itself shows.</summary>
    AsUsual,
    DayFirst,
    MonthFirst,
}

/// <summary>What is meant by a word of the file.</summary>
/// <param name="Id">Of a calendar or a category; null where there is none for it.</param>
/// <param name="IsLeftOut">What says it is not taken (calendars), or it is no tag either (categories).</param>
public sealed record WordChoice(string Word, Guid? Id, bool IsLeftOut = false);

/// <summary>What whoever brings a file says of it, once.</summary>
public sealed record IntakeAnswers
{
    public const int MostWords = 200;

    public CalendarBy CalendarBy { get; init; }

    /// <summary>The calendar of all, or of those for which nothing else is said.</summary>
    public Guid? CalendarId { get; init; }

    public IReadOnlyList<WordChoice> Calendars { get; init; } = [];

    public IReadOnlyList<WordChoice> Categories { get; init; } = [];

    /// <summary>Where times are meant that say no zone; the calendar's where it is missing.</summary>
    public string? Zone { get; init; }

    public DayOrder DayOrder { get; init; }

    /// <summary>In which characters it is written, such as "windows-1252"; null for what it is most probably.</summary>
    public string? Encoding { get; init; }

    /// <summary>Of a sheet, in its order; null where a column is of no use, empty where they are guessed.</summary>
    public IReadOnlyList<TableColumn?> Columns { get; init; } = [];

    /// <summary>The first line of a sheet names the columns; null where that is guessed.</summary>
    public bool? HasHead { get; init; }

    /// <summary>Only what is on this day or later.</summary>
    public LocalDate? From { get; init; }

    /// <summary>Only what is on this day or earlier.</summary>
    public LocalDate? Until { get; init; }

    /// <summary>Only what says this in its title, place or description.</summary>
    public string? Text { get; init; }

    /// <summary>Only what is sorted by one of these words; empty for all.</summary>
    public IReadOnlyList<string> Only { get; init; } = [];

    /// <exception cref="RuleException">It is more than anybody says.</exception>
    public IntakeAnswers Check()
    {
        if (Calendars.Count + Categories.Count + Only.Count > MostWords * 3 || Columns.Count > MostWords || Text?.Length > 200)
            throw new RuleException("calendars", "intake.tooManyAnswers", ("most", MostWords));
        if (Zone is { Length: > 0 } zone)
            Time.Zones.Named(zone);
        if (Encoding is { } encoding && !ICalendar.Reading.ForeignText.Encodings.Contains(encoding))
            throw new RuleException("encoding", "intake.noSuchEncoding", ("name", encoding),
                ("choices", ICalendar.Reading.ForeignText.Encodings));
        if (From > Until)
            throw new RuleException("until", "intake.untilBeforeFrom");
        return this;
    }
}
