using NodaTime;
using Valtro.Core.Acts;
using Valtro.Core.Calendars;
using Valtro.Core.Disclosure;
using Valtro.Core.Events;
using Valtro.Core.Recurrence;
using Valtro.Core.Time;
using Valtro.Core.YearPlans;
using Valtro.Store;

namespace Valtro.Tools.Demo;

/// <summary>What makes the demo's school a large one: 48 calendars, 12 groups, 4,000 events (half of them series), 40 places, three
/// years. The same each time.</summary>
internal sealed class LargeSeed(
    Database database, Guid organisationId, IReadOnlyDictionary<string, Guid> small, Guid keeper, Instant now)
{
    private const int MostEvents = 4_000;
    private const int MostCalendars = 48;
    private const int MostPlaces = 40;
    private const int AtOnce = 200;

    private static readonly DateTimeZone Halifax = Zones.Named("America/Halifax");
    private static readonly string[] Crews = ["Fore", "Main", "Mizzen", "Aft", "Boatswain’s", "Gunner’s"];

    private static readonly string[] Lessons =
        ["Chart exercise", "Knots and lines", "Marine science", "Signals", "Boat lab", "Radio drill", "Tide tables", "Night pilotage", "Engine practical",
            "Sail repair", "Weather watch", "Harbour history", "Ship’s mathematics", "Log writing", "First aid at sea", "Ergometers"];

    private static readonly string[] Occasions =
        ["Families’ evening", "Survey walk", "Lighthouse visit", "Rope test", "Chart test", "Launch of the new dory", "Beach clearing", "Photograph", "Guest: pilot of the port",
            "Capsize drill", "Kayak day", "Lantern making", "Talk on whales", "Swimming test", "Museum day", "Shanty evening"];

    private readonly Random _random = new(20261124);
    private readonly ListStore _lists = new(database);
    private readonly YearPlan _year = new DemoEvents(now.InZone(Halifax).LocalDateTime).YearPlan();

    public async Task RunAsync()
    {
        foreach (var years in new[] { -1, 1 })
            await new YearPlanStore(database).SaveAsync(organisationId, null, null, Shifted(_year, years), now);
        for (var number = (await _lists.PlacesAsync(organisationId)).Count; number < MostPlaces; number++)
            await _lists.AddPlaceAsync(organisationId, new KnownPlace(default, PlaceName(number)), keeper, now, _ => Act.Nothing);
        var places = (await _lists.PlacesAsync(organisationId)).Select(known => known.Place).ToArray();
        // Assessments stay as few as they are: else every week would hold too many.
        Category[] categories = [.. (await _lists.CategoriesAsync(organisationId)).Where(one => one.Name != "Assessment")];
        var calendars = await CalendarsAsync();
        await GroupsAsync(calendars);

        var school = new SchoolCalendar([Shifted(_year, -1), _year, Shifted(_year, 1)], IsoDayOfWeek.Monday);
        var setting = new DraftSetting(Halifax, categories, school) { Places = places };
        var missing = MostEvents - await database.FirstAsync<int>(
            "select count(*)::integer from event where organisation_id = @organisationId", new { organisationId });
        var writes = new List<EventWrite>(AtOnce);
        for (var number = 0; number < missing; number++)
        {
            var calendar = calendars[number / 2 % calendars.Count];
            var draft = number % 2 == 0 ? Lesson(number / 2 / calendars.Count) : Occasion();
            draft = draft with
            {
                Place = places[_random.Next(places.Length)].Name,
                CategoryId = _random.Next(4) == 0 ? categories[_random.Next(categories.Length)].Id : null,
                Tags = _random.Next(5) == 0 ? ["practical"] : [],
            };
            var made = new CalendarEvent(Guid.Empty, calendar, default, draft.Check(setting, Text()), State(), default)
            {
                Placements = _random.Next(12) == 0 ? [calendars[(number + 7) % calendars.Count]] : [],
            };
            writes.Add(EventWrite.Making(made));
            if (writes.Count == AtOnce || number == missing - 1)
            {
                await new ActStore(database).CommitAsync(organisationId, keeper, now - Duration.FromDays(20), Act.Writing([.. writes]));
                writes.Clear();
            }
        }
    }

    /// <summary>The same terms and breaks, on the same weekdays of another year.</summary>
    private static YearPlan Shifted(YearPlan year, int years)
    {
        NamedDays Moved(NamedDays days) => days with { First = days.First.PlusWeeks(52 * years), Last = days.Last.PlusWeeks(52 * years) };
        var first = years < 0 ? year.First.PlusYears(years) : year.Last.PlusDays(1);
        return new YearPlan(
            $"{first.Year}/{(first.Year + 1) % 100:00}", first, years < 0 ? year.First.PlusDays(-1) : first.PlusYears(1).PlusDays(-1),
            [.. year.Terms.Select(Moved)], [.. year.Breaks.Select(Moved)], year.Cycle);
    }

    private static string PlaceName(int number) => (number % 4) switch
    {
        0 => $"Classroom {number}",
        1 => $"Workshop {number}",
        2 => $"Berth {number}",
        _ => $"Deck {number}",
    };

    private async Task<IReadOnlyList<Guid>> CalendarsAsync()
    {
        Disclosure[] tables = [
            Disclosure.Open, Disclosure.Open, new(Detail.Complete, Detail.Headline, Detail.Headline),
            new(Detail.Complete, Detail.Complete, Detail.Nothing), new(Detail.Complete, Detail.Times, Detail.Times), Disclosure.Closed];
        string[] kinds = ["Watch", "Seniors", "Club", "Dock", "House", "Choir", "Team"];
        var made = new List<Guid>(small.Values);
        for (var number = 0; made.Count < MostCalendars; number++)
        {
            var (crew, kind) = (Crews[number % Crews.Length], kinds[number / Crews.Length % kinds.Length]);
            var plate = $"{"FMZABG"[number % Crews.Length]}{kind[0]}{number / Crews.Length + 1}";
            made.Add((await new CalendarStore(database).AddAsync(
                organisationId,
                new CalendarSettings($"{crew} {kind}", Plate.Parse(plate), Hue.All[number % Hue.All.Count], Halifax, "",
                    tables[number % tables.Length], []), now)).Id);
        }
        return made;
    }

    private async Task GroupsAsync(IReadOnlyList<Guid> calendars)
    {
        string[] names = ["Watches", "Seniors", "Clubs", "Docks", "Houses", "Choirs", "Teams", "Fore deck", "Main deck"];
        var added = calendars.Skip(small.Count).ToArray();
        for (var index = 0; index < names.Length; index++)
        {
            // By kind, then two that cross the kinds.
            Guid[] members = index < 7
                ? [.. added.Skip(index * Crews.Length).Take(Crews.Length)]
                : [.. added.Where((_, place) => place % Crews.Length == index - 7)];
            await new GroupStore(database).SaveAsync(organisationId, null, null, names[index], members);
        }
    }

    /// <summary>A term's series: once or twice a week, or every second week.</summary>
    /// <param name="number">Of its calendar's.</param>
    private EventDraft Lesson(int number)
    {
        var terms = new[] { Shifted(_year, -1), _year, Shifted(_year, 1) }.SelectMany(year => year.Terms).ToArray();
        var term = terms[number % terms.Length];
        var weekday = 1 + _random.Next(5);
        int[] weekdays = _random.Next(3) == 0 && weekday < 4 ? [weekday, weekday + 2] : [weekday];
        var from = new LocalTime(8 + _random.Next(9), 30 * _random.Next(2));
        return new EventDraft
        {
            Title = Lessons[_random.Next(Lessons.Length)],
            Date = term.First.PlusDays(weekday - 1),
            From = from,
            To = from.PlusMinutes(45 * (1 + _random.Next(3))),
            Repeat = new RepeatDraft(
                RepeatPattern.Weekly, _random.Next(6) == 0 ? 2 : 1, weekdays, Ends: RepeatEnd.On, Until: term.Last),
            InBreaks = InBreaks.Skip,
        };
    }

    private EventDraft Occasion()
    {
        var day = _year.First.PlusYears(-1).PlusDays(_random.Next(3 * 365));
        if (_random.Next(8) == 0)
            return new EventDraft { Title = Title(), AllDay = true, Date = day, EndDate = day.PlusDays(_random.Next(4)) };
        var from = new LocalTime(8 + _random.Next(12), 15 * _random.Next(4));
        return new EventDraft { Title = Title(), Date = day, From = from, To = from.PlusMinutes(30 * (1 + _random.Next(6))) };

        string Title() => Occasions[_random.Next(Occasions.Length)];
    }

    private EventState State() => _random.Next(25) switch { 0 => EventState.Draft, 1 => EventState.Cancelled, _ => EventState.Live };

    private RichText Text() => _random.Next(4) != 0
        ? RichText.Empty
        : new RichText("<p>Bring oilskins and something to write with.</p>", "Bring oilskins and something to write with.");
}
