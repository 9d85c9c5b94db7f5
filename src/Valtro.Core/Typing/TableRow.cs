using System.Globalization;
using NodaTime;
using Valtro.Core.Events;

namespace Valtro.Core.Typing;

/// <summary>One line of a table of events, as it was typed or pasted.</summary>
/// <param name="Calendar">A plate or a calendar's name.</param>
public sealed record TableRow(string? Date, string? From, string? To, string? Title, string? Place, string? Calendar)
{
    /// <summary>As many as one save takes.</summary>
    public const int Most = 500;

    /// <summary>True for a line that nobody has typed into.</summary>
    public bool IsEmpty => new[] { Date, From, To, Title, Place, Calendar }.All(string.IsNullOrWhiteSpace);

    /// <summary>What it says. Cells that cannot be read are refused together, each by its column.</summary>
    public EventDraft Read(CultureInfo culture, LocalDate today, RefusalList refusals)
    {
        var date = Typed.Day(Date ?? "", culture, today);
        if (date is null)
            refusals.Add("date", string.IsNullOrWhiteSpace(Date) ? "The date is missing. Give a day such as 24 November 2026." : $"“{Date}” is no day. Write one such as 24 Nov or 24.11.2026.");
        var from = Time("from", From, refusals);
        var to = Time("to", To, refusals);
        var allDay = string.IsNullOrWhiteSpace(From) && string.IsNullOrWhiteSpace(To);
        if (!allDay && from is null && string.IsNullOrWhiteSpace(From))
            refusals.Add("from", "The start time is missing. Give one, or leave both times empty for all day.");
        return new EventDraft { Title = Title ?? "", AllDay = allDay, Date = date, From = from, To = to ?? from, Place = Place ?? "" };
    }

    private static LocalTime? Time(string field, string? text, RefusalList refusals)
    {
        if (string.IsNullOrWhiteSpace(text))
            return null;
        var time = Typed.Time(text);
        if (time is null)
            refusals.Add(field, $"“{text}” is no time. Write one such as 14:00 or 2pm.");
        return time;
    }
}
