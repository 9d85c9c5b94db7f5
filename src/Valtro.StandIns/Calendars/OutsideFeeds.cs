using NodaTime;
using Valtro.StandIns.Website;

namespace Valtro.StandIns.Calendars;

/// <summary>Calendars that others publish: the island's public holidays, a league of rowing clubs, and what is due on a learning platform,
/// of two groups in one feed. Each can be told to misbehave.</summary>
internal static class OutsideFeeds
{
    private static readonly (int Month, int Day, string Name)[] Holidays =
        [(1, 1, "New Year’s Day"), (2, 16, "Island Day"), (7, 3, "Founders’ Day"), (9, 7, "Harvest of Nets"), (12, 25, "Lantern Day"),
            (12, 26, "Second Lantern Day")];

    private static readonly string[] Tasks = ["Chart exercise", "Plankton log", "Tide table", "Knots test", "Essay on currents"];

    private static readonly string[] Clubs = ["Pinewick", "Gull Rock", "Saltmarsh Bay", "Lantern Point"];

    /// <summary>A feed by the name in its address.</summary>
    private sealed record Feed(string Name, Func<LocalDate, int, IEnumerable<string>> Entries)
    {
        public FeedMood Mood { get; } = new();
    }

    public static void MapCalendars(this WebApplication app)
    {
        var feeds = new Dictionary<string, Feed>
        {
            ["holidays"] = new("Public holidays", (today, changes) => HolidaysAround(today.Year).Concat(Added(today, changes))),
            ["league"] = new("Island Rowing League", FixturesAround),
            ["due-dates"] = new("Due dates", DueAfter),
        };
        app.MapGet("/calendars", () => WebsitePages.Html(WebsitePages.Frame("Calendars of others", Page(feeds))));
        app.MapGet("/calendars/{name}.ics", (string name, HttpRequest request, IClock clock) => feeds.TryGetValue(name, out var feed)
            ? feed.Mood.AnswerAsync(request, feed.Name, [.. feed.Entries(Today(clock), feed.Mood.Changes)])
            : Task.FromResult(Results.NotFound()));
        app.MapPost("/calendars/{name}/behaviour", (string name, string to) =>
        {
            feeds[name].Mood.Behaviour = Enum.Parse<Behaviour>(to, ignoreCase: true);
            return Results.Redirect("/calendars");
        });
        app.MapPost("/calendars/{name}/change", (string name) =>
        {
            feeds[name].Mood.Changes++;
            return Results.Redirect("/calendars");
        });
        app.MapGet("/calendars/{name}/asked", (string name) => new { feeds[name].Mood.Asked, feeds[name].Mood.Unchanged });
    }

    private static string Page(Dictionary<string, Feed> feeds) => $"""
        <main>
          <p>What others publish on this island, to be brought into a calendar program. Each does as it is told:
          with a password it is “{FeedMood.User}”, “{FeedMood.Password}”.</p>
          {string.Concat(feeds.Select(one => $"""
            <h2><a href="/calendars/{one.Key}.ics">{one.Value.Name}</a></h2>
            <p>Asked {one.Value.Mood.Asked} times, of these {one.Value.Mood.Unchanged} without anything new;
            changed {one.Value.Mood.Changes} times. Now: <b>{one.Value.Mood.Behaviour}</b></p>
            <form method="post" action="/calendars/{one.Key}/change"><button>Say something else</button></form>
            <p>{string.Concat(Enum.GetNames<Behaviour>().Select(to =>
                $"<form method=\"post\" style=\"display:inline\" action=\"/calendars/{one.Key}/behaviour?to={to}\"><button>{to}</button></form> "))}</p>
            """))}
        </main>
        <footer><a href="/club-page">The rowing club’s calendar server</a> · <a href="/">The families’ page</a></footer>
        """;

    private static LocalDate Today(IClock clock) => clock.GetCurrentInstant().InUtc().Date;

    private static IEnumerable<string> HolidaysAround(int year) =>
        from one in Enumerable.Range(year - 1, 3)
        from holiday in Holidays
        let day = new LocalDate(one, holiday.Month, holiday.Day)
        select Event($"holiday-{day:uuuuMMdd}@island.example", holiday.Name, $"DTSTART;VALUE=DATE:{day:uuuuMMdd}", "TRANSP:TRANSPARENT");

    /// <summary>Days that were not holidays before it was told to change.</summary>
    private static IEnumerable<string> Added(LocalDate today, int changes) => Enumerable.Range(1, changes).Select(number =>
        Event($"added-{number}@island.example", $"Extra holiday {number}", $"DTSTART;VALUE=DATE:{today.PlusDays(6 + number):uuuuMMdd}"));

    /// <summary>A round every other Saturday, two races each, from six weeks ago on.</summary>
    private static IEnumerable<string> FixturesAround(LocalDate today, int changes)
    {
        var saturday = today.PlusDays(1).Previous(IsoDayOfWeek.Saturday).PlusWeeks(-6);
        return from round in Enumerable.Range(0, 12)
               from race in Enumerable.Range(0, 2)
               let home = Clubs[(round + race * 2) % 4]
               let guest = Clubs[(round + race * 2 + 1) % 4]
               let isNext = round == 4 && race == 0
               let day = saturday.PlusWeeks(round * 2).PlusDays(isNext ? changes : 0)
               select Event($"round-{saturday.PlusWeeks(round * 2):uuuuMMdd}-{race}@league.example", $"{home} – {guest}",
                   $"DTSTART;TZID=America/Halifax:{day:uuuuMMdd}T{10 + race * 3:00}0000",
                   $"DTEND;TZID=America/Halifax:{day:uuuuMMdd}T{12 + race * 3:00}0000", $"LOCATION:{home} boathouse", "CATEGORIES:League");
    }

    /// <summary>Two a week for each group, from two weeks ago on, for a term; and a meeting of those who teach, every other week.</summary>
    private static IEnumerable<string> DueAfter(LocalDate today, int changes)
    {
        var monday = today.PlusDays(1).Previous(IsoDayOfWeek.Monday).PlusWeeks(-2);
        var tasks = from week in Enumerable.Range(0, 14)
                    from one in new[] { (Group: "7B", Day: 2), (Group: "7C", Day: 3), (Group: "7D", Day: 3) }
                    let isNext = week == 3 && one.Group == "7B"
                    let planned = monday.PlusWeeks(week).PlusDays(one.Day)
                    let day = planned.PlusDays(isNext ? changes : 0)
                    let number = (planned.Year * 53 + planned.DayOfYear / 7) % Tasks.Length
                    select Event($"{one.Group}-{planned:uuuuMMdd}@learning.example", $"{one.Group} – {Tasks[number]}",
                        $"DTSTART;TZID=America/Halifax:{day:uuuuMMdd}T235900", "CATEGORIES:Assignment");
        var meetings = from week in Enumerable.Range(0, 7)
                       let day = monday.PlusWeeks(week * 2).PlusDays(3)
                       select Event($"meeting-{day:uuuuMMdd}@learning.example", "Team meeting",
                           $"DTSTART;TZID=America/Halifax:{day:uuuuMMdd}T160000", $"DTEND;TZID=America/Halifax:{day:uuuuMMdd}T170000",
                           "CATEGORIES:Meeting");
        var check = monday.PlusWeeks(3).PlusDays(4);
        return [.. tasks, .. meetings, Event($"check-{check:uuuuMMdd}@learning.example", "Field kit check",
            $"DTSTART;TZID=America/Halifax:{check:uuuuMMdd}T100000", $"DTEND;TZID=America/Halifax:{check:uuuuMMdd}T110000")];
    }

    private static string Event(string uid, params string[] lines) => string.Join("\r\n",
        ["BEGIN:VEVENT", $"UID:{uid}", "DTSTAMP:20260101T000000Z", $"SUMMARY:{lines[0]}", .. lines[1..], "END:VEVENT"]);
}
