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
        var days = Typed.Days(Date ?? "", culture, today);
        var date = days is [var day] ? day : default(LocalDate?);
        if (days is [var one, var other, ..])
            refusals.Add("date", "row.dayUnclear", ("date", Date), ("one", one), ("other", other));
        else if (date is null)
            refusals.Add("date", string.IsNullOrWhiteSpace(Date) ? "event.dateMissing" : "row.noDay", ("date", Date));
        var from = Time("from", From, culture, refusals);
        var to = Time("to", To, culture, refusals);
        var allDay = string.IsNullOrWhiteSpace(From) && string.IsNullOrWhiteSpace(To);
        if (!allDay && from is null && string.IsNullOrWhiteSpace(From))
            refusals.Add("from", "row.startMissing");
        return new EventDraft { Title = Title ?? "", AllDay = allDay, Date = date, From = from, To = to ?? from, Place = Place ?? "" };
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
