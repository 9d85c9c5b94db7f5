using NodaTime;
using Valtro.StandIns.Website;

namespace Valtro.StandIns.Calendars;

/// <summary>Calendars that others publish: the island's public holidays, and what is due on a learning platform, of two groups in one
/// feed.</summary>
internal static class OutsideFeeds
{
    private static readonly (int Month, int Day, string Name)[] Holidays =
        [(1, 1, "New Year’s Day"), (2, 16, "Island Day"), (7, 3, "Founders’ Day"), (9, 7, "Harvest of Nets"), (12, 25, "Lantern Day"),
            (12, 26, "Second Lantern Day")];

    private static readonly string[] Tasks = ["Chart exercise", "Plankton log", "Tide table", "Knots test", "Essay on currents"];

    public static void MapCalendars(this WebApplication app)
    {
        app.MapGet("/calendars", () => WebsitePages.Html(WebsitePages.Frame("Calendars of others", """
            <main>
              <p>What others publish on this island, to be brought into a calendar program.</p>
              <ul>
                <li><a href="/calendars/holidays.ics">Public holidays</a></li>
                <li><a href="/calendars/due-dates.ics">Learning platform: what is due, for 7B and 7C</a></li>
              </ul>
            </main>
            <footer><a href="/">The families’ page</a></footer>
            """)));
        app.MapGet("/calendars/holidays.ics", (IClock clock) => Feed("Public holidays", HolidaysAround(Today(clock).Year)));
        app.MapGet("/calendars/due-dates.ics", (IClock clock) => Feed("Due dates", DueAfter(Today(clock))));
    }

    private static LocalDate Today(IClock clock) => clock.GetCurrentInstant().InUtc().Date;

    private static IEnumerable<string> HolidaysAround(int year) =>
        from one in Enumerable.Range(year - 1, 3)
        from holiday in Holidays
        let day = new LocalDate(one, holiday.Month, holiday.Day)
        select Event($"holiday-{day:uuuuMMdd}@island.example", holiday.Name, $"DTSTART;VALUE=DATE:{day:uuuuMMdd}", "TRANSP:TRANSPARENT");

    /// <summary>Two a week for each group, from two weeks ago on, for a term.</summary>
    private static IEnumerable<string> DueAfter(LocalDate today)
    {
        var monday = today.PlusDays(1).Previous(IsoDayOfWeek.Monday).PlusWeeks(-2);
        return from week in Enumerable.Range(0, 14)
               from one in new[] { (Group: "7B", Day: 2), (Group: "7C", Day: 3) }
               let day = monday.PlusWeeks(week).PlusDays(one.Day)
               let number = (day.Year * 53 + day.DayOfYear / 7) % Tasks.Length
               select Event($"{one.Group}-{day:uuuuMMdd}@learning.example", $"{one.Group} – {Tasks[number]}",
                   $"DTSTART;TZID=America/Halifax:{day:uuuuMMdd}T235900", "CATEGORIES:Assignment");
    }

    private static string Event(string uid, params string[] lines) => string.Join("\r\n",
        ["BEGIN:VEVENT", $"UID:{uid}", "DTSTAMP:20260101T000000Z", $"SUMMARY:{lines[0]}", .. lines[1..], "END:VEVENT"]);

    private static IResult Feed(string name, IEnumerable<string> events) => Results.Text(string.Join("\r\n",
        ["BEGIN:VCALENDAR", "VERSION:2.0", "PRODID:-//Island//Calendars//EN", $"X-WR-CALNAME:{name}", .. events,
            "END:VCALENDAR", ""]), "text/calendar; charset=utf-8");
}
