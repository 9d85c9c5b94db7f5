using System.Globalization;
using NodaTime;
using Valtro.Core.Events;
using Valtro.Core.Recurrence;

namespace Valtro.Core.Typing;

/// <summary>One line of a table of events, as it was typed or pasted.</summary>
/// <param name="Calendar">A plate or a calendar's name.</param>
public sealed record TableRow(string? Date, string? From, string? To, string? Title, string? Place, string? Calendar)
{
    /// <summary>As many as one save takes.</summary>
    public const int Most = 5_000;

    private const int LongestCell = 10_000;

    /// <summary>The last of several days.</summary>
    public string? LastDay { get; init; }

    /// <summary>In words, such as "every Tuesday until 18 December".</summary>
    public string? Repeat { get; init; }

    /// <summary>Plain text.</summary>
    public string? Description { get; init; }

    /// <summary>Its name.</summary>
    public string? Category { get; init; }

    /// <summary>With commas between them.</summary>
    public string? Tags { get; init; }

    /// <summary>Addresses, with blanks or commas between them.</summary>
    public string? Links { get; init; }

    /// <summary>By which it is known again when it is brought anew.</summary>
    public string? Id { get; init; }

    private string?[] Cells => [Date, From, To, Title, Place, Calendar, LastDay, Repeat, Description, Category, Tags, Links];

    /// <summary>True for a line that nobody has typed into.</summary>
    public bool IsEmpty => Cells.All(string.IsNullOrWhiteSpace);

    /// <summary>What it says. Cells that cannot be read are refused together, each by its column.</summary>
    /// <param name="categories">Those that are offered.</param>
    public EventDraft Read(CultureInfo culture, LocalDate today, IReadOnlyList<Category> categories, RefusalList refusals)
    {
        if (Cells.Any(cell => cell?.Length > LongestCell))
            throw new RuleException("title", "row.cellTooLong", ("most", LongestCell));
        var date = Day("date", Date, culture, today, refusals);
        if (date is null && string.IsNullOrWhiteSpace(Date))
            refusals.Add("date", "event.dateMissing");
        // "17:00, due", or no more than "due".
        var grammar = Grammar.Of(culture);
        var isDue = grammar.Is("due", Said(From)) || grammar.Is("due", Said(To));
        var from = grammar.Is("due", Said(From)) ? null : Time("from", From, culture, refusals);
        var to = isDue ? from : Time("to", To, culture, refusals);
        var allDay = isDue ? from is null : string.IsNullOrWhiteSpace(From) && string.IsNullOrWhiteSpace(To);
        if (!allDay && from is null && string.IsNullOrWhiteSpace(From))
            refusals.Add("from", "row.startMissing");
        var category = Said(Category);
        var found = categories.FirstOrDefault(one => one.Name.Equals(category, StringComparison.CurrentCultureIgnoreCase));
        if (category.Length > 0 && found is null)
            refusals.Add("category", "row.noSuchCategory", ("name", category));
        var repeat = date is { } day ? Repetition(day, from, culture, refusals) : null;
        return new EventDraft
        {
            Title = Said(Title),
            Kind = isDue ? EventKind.Deadline : EventKind.Event,
            AllDay = allDay,
            Date = date,
            EndDate = Day("lastDay", LastDay, culture, date ?? today, refusals),
            From = from,
            To = to ?? from,
            Place = Said(Place),
            CategoryId = found?.Id,
            Tags = [.. Said(Tags).Split([',', ';'], StringSplitOptions.RemoveEmptyEntries | StringSplitOptions.TrimEntries)],
            Links = [.. Said(Links).Split([',', ';', ' ', '\n'], StringSplitOptions.RemoveEmptyEntries | StringSplitOptions.TrimEntries)
                .Select(url => new EventLink("", url))],
            Repeat = repeat,
            InBreaks = repeat is null ? InBreaks.Ignore : InBreaks.Skip,
        };
    }

    private static string Said(string? cell) => (cell ?? "").Trim();

    /// <summary>Read as a line is: what could be read in two ways is refused, with what would have been asked.</summary>
    private RepeatDraft? Repetition(LocalDate date, LocalTime? from, CultureInfo culture, RefusalList refusals)
    {
        var text = Said(Repeat);
        if (text.Length == 0)
            return null;
        var line = string.Create(CultureInfo.InvariantCulture, $"“x” {date:uuuu-MM-dd} {from:HH:mm} {text}");
        if (text.Length <= 200
            && OneLine.Read(line, culture, date) is { Questions: [], Drafts: [{ Title: "x", Repeat: { } repeat } draft] }
            && draft.Date == date)
            return repeat with { CountsTaking = repeat.Ends == RepeatEnd.After };
        refusals.Add("repeat", "row.noRepetition", ("text", text));
        return null;
    }

    private static LocalDate? Day(string field, string? text, CultureInfo culture, LocalDate near, RefusalList refusals)
    {
        if (string.IsNullOrWhiteSpace(text))
            return null;
        var days = Typed.Days(text, culture, near);
        if (days is [var one, var other, ..])
            refusals.Add(field, "row.dayUnclear", ("date", text), ("one", one), ("other", other));
        else if (days.Count == 0)
            refusals.Add(field, "row.noDay", ("date", text));
        return days is [var day] ? day : null;
    }

    private static LocalTime? Time(string field, string? text, CultureInfo culture, RefusalList refusals)
    {
        if (string.IsNullOrWhiteSpace(text))
            return null;
        var time = Typed.Time(text, culture);
        if (time is null)
            refusals.Add(field, "row.noTime", ("text", text));
        return time;
    }
}
