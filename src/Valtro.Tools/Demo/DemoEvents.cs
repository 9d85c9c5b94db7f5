using NodaTime;
using Valtro.Core.Calendars;
using Valtro.Core.Events;
using Valtro.Core.Recurrence;
using Valtro.Core.YearPlans;
using Valtro.Store;

namespace Valtro.Tools.Demo;

/// <summary>A school year around <paramref name="now"/>: terms before and after the winter break.</summary>
/// <remarks>What the demo is there to show lies ahead, whatever day it is: on Monday and Tuesday in this week, from Wednesday on in the
/// next.</remarks>
internal sealed class DemoEvents(LocalDateTime now)
{
    /// <summary>Of the week whose Wednesday is the first that lies ahead.</summary>
    private readonly LocalDate _monday = now.Date.PlusDays(5).With(DateAdjusters.PreviousOrSame(IsoDayOfWeek.Monday));

    public IEnumerable<(string Plate, EventDraft Draft, RichText Description)> All() =>
        Lessons().Concat(Training()).Concat(School()).Concat(Bookings()).Concat(Staff());

    /// <summary>The year: two terms with a break in each and the winter break between them; weeks A and B take turns.</summary>
    public YearPlan YearPlan()
    {
        var first = _monday.PlusWeeks(-16);
        return new YearPlan(
            $"{first.Year}/{(first.Year + 1) % 100:00}", first, first.PlusYears(1).PlusDays(-1),
            [new NamedDays("Autumn term", TermStart, TermEnd), new NamedDays("Spring term", NextTermStart, NextTermEnd)],
            [
                new NamedDays("Storm week", _monday.PlusWeeks(-4), _monday.PlusWeeks(-4).PlusDays(4)),
                new NamedDays("Winter break", TermEnd.PlusDays(1), NextTermStart.PlusDays(-1)),
                new NamedDays("Ice days", NextTermStart.PlusWeeks(6), NextTermStart.PlusWeeks(6).PlusDays(2)),
            ],
            new DayCycle(CycleUnit.Weeks, 2, RestartsEachTerm: true));
    }

    /// <summary>Dates that were changed since: by title, the day, how long ago, and what became of them.</summary>
    public IEnumerable<(string Plate, string Title, LocalDate Day, Duration Ago, Func<EventDraft, EventDraft>? Edit)> Changes()
    {
        // Moved for a storm; called off; held elsewhere.
        yield return ("SW", "Boat lab", _monday.PlusDays(2), Duration.FromHours(4),
            draft => draft with { Date = _monday.PlusDays(3), From = Time("15:30"), To = Time("17:00") });
        yield return ("PW", "Knots and lines", _monday + new LocalTime(9, 0) > now ? _monday : _monday.PlusDays(7),
            Duration.FromDays(3), null);
        yield return ("ROW", "Ergometers", _monday.PlusDays(7), Duration.FromHours(26), draft => draft with { Place = "Hall" });
    }

    /// <summary>The term that today is in began eleven or twelve weeks ago and ends in four or five; the next begins after a break of two
    /// weeks.</summary>
    private LocalDate TermStart => _monday.PlusWeeks(-11);

    private LocalDate TermEnd => _monday.PlusWeeks(3).PlusDays(4);

    private LocalDate NextTermStart => _monday.PlusWeeks(6);

    private LocalDate NextTermEnd => _monday.PlusWeeks(18).PlusDays(4);

    private IEnumerable<(string, EventDraft, RichText)> Lessons()
    {
        yield return Weekly("PW", "Knots and lines", [1], "09:00", "10:30", "Loft");
        yield return Weekly("PW", "Boat lab", [2, 4], "14:00", "15:30", "Slipway",
            "<p>Bring oilskins and closed shoes. Sign-up for the safety boat: <a href=\"https://pinewick.example/rota\" target=\"_blank\" rel=\"noopener noreferrer\">rota sheet</a>.</p>",
            "Bring oilskins and closed shoes. Sign-up for the safety boat: rota sheet (https://pinewick.example/rota).",
                tags: ["practical"]);
        yield return Weekly("SW", "Knots and lines", [1], "11:00", "12:30", "Loft");
        yield return Weekly("SW", "Boat lab", [3], "14:00", "15:30", "Slipway", tags: ["practical"]);
        yield return Weekly("SW", "Marine science", [4], "13:00", "14:30", "Lab");
        yield return Fortnightly();
        yield return Weekly("CREW", "Night pilotage", [2], "16:00", "18:00", "Chart room");
        yield return Weekly("CREW", "Engine practical", [3], "09:00", "12:00", "Shed", tags: ["practical"]);
        yield return Due(Once("PW", "Chart exercise 4", 2, "16:00", "16:00", "Chart room", "<p>Hand in at the chart room.</p>",
            "Hand in at the chart room.", DemoCategory.Assessment));
        yield return With(Due(Days("CREW", "Forms for the radio licence", 10, 10, "Wardroom")),
            draft => draft with { Reminder = new Reminder(2, ReminderUnit.Days, Time("18:00")) });
        yield return Once("PW", "Tide-table quiz", 4, "11:00", "12:00", "Room 2", category: DemoCategory.Assessment);
        yield return With(
            Once("SW", "Survey walk", 8, "09:00", "15:00", "Grey Point"), draft => draft with { Certainty = Certainty.Tentative });
        yield return Once("CREW", "Radio exam", 4, "13:30", "15:00", "Hall", category: DemoCategory.Assessment);
        yield return Days("CREW", "Exam week", 14, 18, "", DemoCategory.Assessment);
        yield return Days("CREW", "Exam week", 119, 123, "", DemoCategory.Assessment);
    }

    private IEnumerable<(string, EventDraft, RichText)> Training()
    {
        yield return Weekly(
            "ROW", "Ergometers", [1, 3], "17:30", "19:00", "Boathouse", category: DemoCategory.Training, inBreaks: InBreaks.Ignore);
        yield return Once("ROW", "Head of the Narrows", 5, "08:00", "12:30", "East pier", category: DemoCategory.Regatta);
        yield return Days("ROW", "Winter regatta", 18, 20, "Outer harbour", DemoCategory.Regatta);
        yield return Days("ROW", "Spring regatta", 123, 125, "Outer harbour", DemoCategory.Regatta);
        yield return Elsewhere();
    }

    private IEnumerable<(string, EventDraft, RichText)> School()
    {
        yield return Once("SCH", "Open harbour evening", 2, "18:30", "20:30", "Hall",
            "<p>Boats, knots and chowder for families and friends. <a href=\"https://pinewick.example/open-harbour\" target=\"_blank\" rel=\"noopener noreferrer\">Sign up</a> so that we know how much to cook.</p>",
            "Boats, knots and chowder for families and friends. Sign up (https://pinewick.example/open-harbour) so that we know how much to cook.", DemoCategory.Occasion);
        yield return Days("SCH", "Safety drill", 3, 3, "whole site");
        yield return FirstMondays();
        yield return Once("SCH", "Lantern supper", 23, "17:00", "20:00", "Hall", category: DemoCategory.Occasion);
        yield return With(
            Once("SCH", "Families’ morning", 12, "10:00", "12:00", "Hall", category: DemoCategory.Occasion),
            draft => draft with { Transparency = Transparency.Free });
        yield return Days("SCH", "Autumn regatta", -16, -14, "Outer harbour", DemoCategory.Regatta);
        yield return Weekly("SCH", "Assembly", [5], "08:30", "08:50", "Hall");
    }

    private IEnumerable<(string, EventDraft, RichText)> Bookings()
    {
        yield return Weekly("SLIP", "Slipway taken", [2], "14:00", "15:30", "Slipway");
        yield return Once("SLIP", "Hall taken", 2, "18:00", "21:00", "Hall");
        yield return Once("SLIP", "Hall taken", 4, "13:00", "15:30", "Hall");
        yield return ("SLIP",
            Draft("Night watch on the pier", _monday.PlusDays(5), "22:00", "06:00", "East pier") with { EndDate = _monday.PlusDays(6) },
                RichText.Empty);
    }

    private IEnumerable<(string, EventDraft, RichText)> Staff()
    {
        yield return Weekly("STF", "Briefing", [1], "08:15", "08:45", "Wardroom");
        yield return Once("STF", "Moderation", 3, "15:45", "17:00", "Room 2");
        // Every last weekday of the month; in a break it moves within its week.
        var last = LastWeekday(TermStart);
        yield return ("STF", Draft("Log book check", last, "16:00", "16:30", "Wardroom") with
        {
            Repeat =
                new RepeatDraft(RepeatPattern.Monthly, 1, By: MonthPosition.Workday, Ordinal: -1, Ends: RepeatEnd.On, Until: NextTermEnd),
            InBreaks = InBreaks.Move,
        }, RichText.Empty);
    }

    private (string, EventDraft, RichText) FirstMondays()
    {
        var first = new LocalDate(TermStart.Year, TermStart.Month, 1).PlusMonths(1).With(DateAdjusters.NextOrSame(IsoDayOfWeek.Monday));
        var repeat = new RepeatDraft(
            RepeatPattern.Monthly, 1, By: MonthPosition.Weekday, Ordinal: 1, Weekday: 1, Ends: RepeatEnd.On, Until: NextTermEnd);
        return ("SCH",
            Draft("First-Monday drill", first, "10:00", "10:20", "whole site") with { Repeat = repeat, InBreaks = InBreaks.Skip },
                RichText.Empty);
    }

    /// <summary>Fridays of week B.</summary>
    private (string, EventDraft, RichText) Fortnightly() =>
        ("SW", Draft("Tide-table survey", TermStart, "09:00", "11:00", "Grey Point") with
        {
            Repeat = new RepeatDraft(RepeatPattern.Cycle, Weekdays: [5], Numbers: [2], Ends: RepeatEnd.On, Until: NextTermEnd),
            Tags = ["practical"],
        }, RichText.Empty);

    /// <summary>A call with a harbour in another time zone.</summary>
    private (string, EventDraft, RichText) Elsewhere() =>
        ("ROW", Draft("Call with the Oslo rowers", _monday.PlusDays(3), "18:00", "18:45", "by video") with
        {
            Zone = "Europe/Oslo",
            Links = [new EventLink("", "https://calls.pinewick.example/oslo", LinkKind.VideoCall)],
        },
            RichText.Empty);

    /// <summary>Over both terms, leaving out the breaks unless said.</summary>
    private (string, EventDraft, RichText) Weekly(
        string plate, string title, int[] weekdays, string from, string to, string place,
        string html = "", string text = "", string[]? tags = null, Guid? category = null, InBreaks inBreaks = InBreaks.Skip)
    {
        var first = TermStart.PlusDays(weekdays[0] - 1);
        var repeat = new RepeatDraft(RepeatPattern.Weekly, 1, weekdays, Ends: RepeatEnd.On, Until: NextTermEnd);
        var draft =
            Draft(title, first, from, to, place) with { Repeat = repeat, InBreaks = inBreaks, Tags = tags ?? [], CategoryId = category };
        return (plate, draft, new RichText(html, text));
    }

    /// <param name="day">Days after <see cref="_monday"/>.</param>
    private (string, EventDraft, RichText) Once(string plate, string title, int day, string from, string to, string place, string html = "",
        string text = "", Guid? category = null) =>
        (plate, Draft(title, _monday.PlusDays(day), from, to, place) with { CategoryId = category }, new RichText(html, text));

    private (string, EventDraft, RichText) Days(string plate, string title, int first, int last, string place, Guid? category = null) =>
        (plate,
            new EventDraft
            {
                Title = title,
                AllDay = true,
                Date = _monday.PlusDays(first),
                EndDate = _monday.PlusDays(last),
                Place = place,
                CategoryId = category
            }, RichText.Empty);

    private static (string, EventDraft, RichText) Due((string Plate, EventDraft Draft, RichText) one) =>
        With(one, draft => draft with { Kind = EventKind.Deadline });

    private static (string, EventDraft, RichText) With(
        (string Plate, EventDraft Draft, RichText) one, Func<EventDraft, EventDraft> change) => (one.Plate, change(one.Draft), one.Item3);

    private static EventDraft Draft(string title, LocalDate date, string from, string to, string place) =>
        new() { Title = title, Date = date, From = Time(from), To = Time(to), Place = place };

    private static LocalTime Time(string text) => NodaTime.Text.LocalTimePattern.CreateWithInvariantCulture("HH:mm").Parse(text).Value;

    /// <summary>The last of Monday to Friday in the month of a day.</summary>
    private static LocalDate LastWeekday(LocalDate day)
    {
        var last = day.With(DateAdjusters.EndOfMonth);
        return last.DayOfWeek switch { IsoDayOfWeek.Saturday => last.PlusDays(-1), IsoDayOfWeek.Sunday => last.PlusDays(-2), _ => last };
    }
}

/// <summary>The demo's categories. Their ids are known while seeding only.</summary>
internal static class DemoCategory
{
    public static Guid Assessment { get; } = Guid.CreateVersion7();
    public static Guid Training { get; } = Guid.CreateVersion7();
    public static Guid Regatta { get; } = Guid.CreateVersion7();
    public static Guid Occasion { get; } = Guid.CreateVersion7();

    public static IReadOnlyDictionary<Guid, KnownCategory> All { get; } = new Dictionary<Guid, KnownCategory>
    {
        // This week holds more for one class than anybody wants: there is something to see.
        [Assessment] = Of("Assessment", "madder", mostInAWeek: 1),
        [Training] = Of("Training", "kelp"),
        [Regatta] = Of("Regatta", "fjord"),
        [Occasion] = Of("Occasion", "plum"),
    };

    private static KnownCategory Of(string name, string hue, int? mostInAWeek = null) => new(default, name, Hue.Named(hue), mostInAWeek);
}
