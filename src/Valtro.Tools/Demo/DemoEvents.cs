using NodaTime;
using Valtro.Core.Events;
using Valtro.Core.Recurrence;

namespace Valtro.Tools.Demo;

/// <summary>A school year around <paramref name="today"/>: terms before and after the winter break.</summary>
internal sealed class DemoEvents(LocalDate today)
{
    private readonly LocalDate _monday = today.With(DateAdjusters.PreviousOrSame(IsoDayOfWeek.Monday));

    public IEnumerable<(string Plate, EventDraft Draft, RichText Description)> All() =>
        Lessons().Concat(Training()).Concat(School()).Concat(Bookings()).Concat(Staff());

    /// <summary>The term that today is in began eleven weeks ago and ends in four; the next begins after a break of two weeks.</summary>
    private LocalDate TermStart => _monday.PlusWeeks(-11);

    private LocalDate TermEnd => _monday.PlusWeeks(3).PlusDays(4);

    private LocalDate NextTermStart => _monday.PlusWeeks(6);

    private LocalDate NextTermEnd => _monday.PlusWeeks(18).PlusDays(4);

    private IEnumerable<(string, EventDraft, RichText)> Lessons()
    {
        foreach (var (start, end) in new[] { (TermStart, TermEnd), (NextTermStart, NextTermEnd) })
        {
            yield return Weekly("PW", "Knots and lines", start, end, [1], "09:00", "10:30", "Loft");
            yield return Weekly("PW", "Boat lab", start, end, [2, 4], "14:00", "15:30", "Slipway",
                "<p>Bring oilskins and closed shoes. Sign-up for the safety boat: <a href=\"https://pinewick.example/rota\" target=\"_blank\" rel=\"noopener noreferrer\">rota sheet</a>.</p>",
                "Bring oilskins and closed shoes. Sign-up for the safety boat: rota sheet (https://pinewick.example/rota).");
            yield return Weekly("SW", "Knots and lines", start, end, [1], "11:00", "12:30", "Loft");
            yield return Weekly("SW", "Boat lab", start, end, [3], "14:00", "15:30", "Slipway");
            yield return Weekly("SW", "Marine science", start, end, [4], "13:00", "14:30", "Lab");
            yield return Weekly("SW", "Tide-table survey", start, end, [5], "09:00", "11:00", "Grey Point", interval: 2);
            yield return Weekly("CREW", "Night pilotage", start, end, [2], "16:00", "18:00", "Chart room");
            yield return Weekly("CREW", "Engine practical", start, end, [3], "09:00", "12:00", "Shed");
        }
        yield return Once("PW", "Chart exercise 4", 2, "16:00", "16:00", "Chart room", "<p>Hand in at the chart room.</p>", "Hand in at the chart room.");
        yield return Once("PW", "Tide-table quiz", 4, "11:00", "12:00", "Room 2");
        yield return Once("SW", "Survey walk", 8, "09:00", "15:00", "Grey Point");
        yield return Once("CREW", "Radio exam", 4, "13:30", "15:00", "Hall");
        yield return Days("CREW", "Exam week", 14, 18, "");
        yield return Days("CREW", "Exam week", 119, 123, "");
    }

    private IEnumerable<(string, EventDraft, RichText)> Training()
    {
        yield return Weekly("ROW", "Ergometers", TermStart, NextTermEnd, [1, 3], "17:30", "19:00", "Boathouse");
        yield return Once("ROW", "Head of the Narrows", 5, "08:00", "12:30", "East pier");
        yield return Days("ROW", "Winter regatta", 18, 20, "Outer harbour");
        yield return Days("ROW", "Spring regatta", 123, 125, "Outer harbour");
    }

    private IEnumerable<(string, EventDraft, RichText)> School()
    {
        yield return Once("SCH", "Open harbour evening", 2, "18:30", "20:30", "Hall",
            "<p>Boats, knots and chowder for families and friends. <a href=\"https://pinewick.example/open-harbour\" target=\"_blank\" rel=\"noopener noreferrer\">Sign up</a> so that we know how much to cook.</p>",
            "Boats, knots and chowder for families and friends. Sign up (https://pinewick.example/open-harbour) so that we know how much to cook.");
        yield return Days("SCH", "Safety drill", 3, 3, "whole site");
        foreach (var month in Enumerable.Range(-2, 8))
            yield return FirstMonday(month);
        yield return Days("SCH", "Winter break", 26, 39, "");
        yield return Once("SCH", "Lantern supper", 23, "17:00", "20:00", "Hall");
        yield return Once("SCH", "Families’ morning", 12, "10:00", "12:00", "Hall");
        yield return Days("SCH", "Autumn regatta", -16, -14, "Outer harbour");
        yield return Weekly("SCH", "Assembly", TermStart, NextTermEnd, [5], "08:30", "08:50", "Hall");
    }

    private IEnumerable<(string, EventDraft, RichText)> Bookings()
    {
        yield return Weekly("SLIP", "Slipway taken", TermStart, TermEnd, [2], "14:00", "15:30", "Slipway");
        yield return Once("SLIP", "Hall taken", 2, "18:00", "21:00", "Hall");
        yield return Once("SLIP", "Hall taken", 4, "13:00", "15:30", "Hall");
    }

    private IEnumerable<(string, EventDraft, RichText)> Staff()
    {
        yield return Weekly("STF", "Briefing", TermStart, NextTermEnd, [1], "08:15", "08:45", "Wardroom");
        yield return Once("STF", "Moderation", 3, "15:45", "17:00", "Room 2");
    }

    private (string, EventDraft, RichText) FirstMonday(int monthsAhead)
    {
        var first = new LocalDate(today.Year, today.Month, 1).PlusMonths(monthsAhead).With(DateAdjusters.NextOrSame(IsoDayOfWeek.Monday));
        return ("SCH", new EventDraft("First-Monday drill", false, first, null, Time("10:00"), Time("10:20"), null, "whole site", null), RichText.Empty);
    }

    private (string, EventDraft, RichText) Weekly(
        string plate, string title, LocalDate start, LocalDate end, int[] weekdays, string from, string to, string place,
        string html = "", string text = "", int interval = 1)
    {
        var first = start.PlusDays(weekdays[0] - 1);
        var repeat = new RepeatDraft(Frequency.Weekly, interval, weekdays, RepeatEnd.On, end, null);
        return (plate, new EventDraft(title, false, first, null, Time(from), Time(to), null, place, repeat), new RichText(html, text));
    }

    /// <param name="day">Days after this week's Monday.</param>
    private (string, EventDraft, RichText) Once(string plate, string title, int day, string from, string to, string place, string html = "", string text = "") =>
        (plate, new EventDraft(title, false, _monday.PlusDays(day), null, Time(from), Time(to), null, place, null), new RichText(html, text));

    private (string, EventDraft, RichText) Days(string plate, string title, int first, int last, string place) =>
        (plate, new EventDraft(title, true, _monday.PlusDays(first), _monday.PlusDays(last), null, null, null, place, null), RichText.Empty);

    private static LocalTime Time(string text) => NodaTime.Text.LocalTimePattern.CreateWithInvariantCulture("HH:mm").Parse(text).Value;
}
