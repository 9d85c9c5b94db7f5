using NodaTime;
using Valtro.Core.Acts;
using Valtro.Core.Calendars;
using Valtro.Core.Disclosure;
using Valtro.Core.Editions;
using Valtro.Core.Events;
using Valtro.Core.Recurrence;
using Valtro.Core.Time;
using Valtro.Store;

namespace Valtro.Server.Tests;

/// <summary>A calendar of the leak test, with a mark in each of its texts.</summary>
public sealed record LeakCalendar(Guid Id, string Slug, int Number, Disclosure Disclosure, string? Secret);

/// <summary>An edition of the leak test: all calendars for one audience, telling no more than its cap.</summary>
public sealed record LeakEdition(Guid Id, string Slug, int Number, Audience Audience, Detail Cap, string? Secret)
{
    public string Page => Secret is null ? $"/c/pinewick/{Slug}" : $"/s/{Secret}";
}

/// <summary>An event of the leak test. What stands in it names itself: <c>qx-17-Headline-title-qx</c>.</summary>
public sealed record LeakEvent(int Number, CalendarEvent Event, Guid? FileId, Guid ActId);

/// <summary>Generated calendars and events of every level, cap, state and span, beside the demo data. The drawing is the same at every
/// run.</summary>
public sealed class LeakWorld
{
    private static readonly DateTimeZone Halifax = Zones.Named("America/Halifax");

    public List<LeakCalendar> Calendars { get; } = [];

    public List<LeakEvent> Events { get; } = [];

    public List<LeakEdition> Editions { get; } = [];

    public Guid ReaderOf => Calendars[0].Id;

    public Guid ContributorOf => Calendars[1].Id;

    public static string Mark(int number, FieldLevel level, string field) => $"qx-{number}-{level}-{field}-qx";

    public static string CalendarMark(int number) => $"qx-calendar-{number}-qx";

    public static string EditionMark(int number) => $"qx-edition-{number}-qx";

    public static async Task<LeakWorld> MakeAsync(ValtroApp app)
    {
        var world = new LeakWorld();
        var database = app.Test.Database;
        var now = app.Clock.GetCurrentInstant();
        var organisation = await database.FirstAsync<Guid>("select id from organisation where slug = 'pinewick'");
        var ada = await database.FirstAsync<Guid>("select id from account where email like 'ada@%'");
        var random = new Random(20261124);
        await world.MakeCalendarsAsync(database, organisation, ada, now);
        for (var number = 0; number < 72; number++)
            await world.MakeEventAsync(database, organisation, ada, now, number, random);
        await world.MakeEditionsAsync(database, organisation, ada, now);
        var groups = new GroupStore(database);
        foreach (var calendar in world.Calendars)
            await groups.SaveAsync(organisation, null, null, $"group of {CalendarMark(calendar.Number)}", [calendar.Id]);
        var accounts = new AccountStore(database);
        await accounts.GiveRoleAsync(organisation, world.ReaderOf,
            await database.FirstAsync<Guid>("select id from account where email like 'em@%'"), CalendarRole.Reader);
        await accounts.GiveRoleAsync(organisation, world.ContributorOf,
            await database.FirstAsync<Guid>("select id from account where email like 'cy@%'"), CalendarRole.Contributor);
        return world;
    }

    private async Task MakeCalendarsAsync(Database database, Guid organisation, Guid ada, Instant now)
    {
        Detail[] levels = [Detail.Nothing, Detail.Times, Detail.Headline, Detail.Complete];
        var tables = (from members in levels
                      from link in levels
                      from everyone in levels
                      where members >= link
                      && link >= everyone
                      select new Disclosure(members, link, everyone))
            .ToArray();
        var store = new CalendarStore(database);
        for (var number = 0; number < tables.Length; number++)
        {
            var made = await store.AddAsync(organisation, new CalendarSettings(
                CalendarMark(number), Plate.Parse($"Q{number}"), Hue.All[number % Hue.All.Count], Halifax, $"about {CalendarMark(number)}",
                    tables[number] with { Names = (Audience)(number % 4) }, [$"readers of {CalendarMark(number)}"]), now);
            var link = number % 3 == 2
                ? null
                : await new SecretLinkStore(database)
                    .MakeAsync(
                        organisation, made.EditionId, now, _ => new AuditLine(ada, AuditAct.LinkMade, CalendarMark(number), null, now));
            Calendars.Add(new LeakCalendar(made.Id, made.Slug, number, made.Disclosure, link?.Secret));
        }
    }

    private async Task MakeEditionsAsync(Database database, Guid organisation, Guid ada, Instant now)
    {
        var store = new EditionSettingsStore(database);
        var links = new SecretLinkStore(database);
        foreach (var (audience, cap) in from audience in new[] { Audience.Members, Audience.Link,
            Audience.Everyone }
                                        from cap in new[] { Detail.Times, Detail.Headline, Detail.Complete }
                                        select (audience, cap))
        {
            var name = EditionMark(Editions.Count);
            AuditLine Line(AuditAct act) => new(ada, act, name, null, now);
            var draft = new EditionDraft(name, [.. Calendars.Select(calendar => new SourceDraft(calendar.Id))], audience, cap,
                TellsPlatesOfBusy: cap == Detail.Times);
            var id = await store.AddAsync(organisation, draft, name, now, Line(AuditAct.EditionMade), isOut: true);
            var link = audience == Audience.Link ? await links.MakeAsync(organisation, id, now, _ => Line(AuditAct.LinkMade)) : null;
            Editions.Add(new LeakEdition(id, (await store.FindAsync(organisation, id))!.Slug, Editions.Count, audience, cap, link?.Secret));
        }
    }

    private async Task MakeEventAsync(Database database, Guid organisation, Guid ada, Instant now, int number, Random random)
    {
        var file = number % 2 == 0
            ? await new FileStore(database)
                .AddAsync(organisation, $"{Mark(number, FieldLevel.Complete, "file")}.txt", "text/plain",
                    System.Text.Encoding.UTF8.GetBytes(Mark(number, FieldLevel.Complete, "inside")), ada, now)
            : null;
        var home = Calendars[random.Next(Calendars.Count)];
        var made = new CalendarEvent(Guid.Empty, home.Id, default, Content(number, file, random),
            random.Next(6) switch { 0 => EventState.Draft, 1 => EventState.Waiting, 2 => EventState.Cancelled, _ => EventState.Live },
                default)
        {
            Placements = [.. Enumerable.Range(0, random.Next(3)).Select(_ => Calendars[random.Next(Calendars.Count)].Id)
                .Where(id => id != home.Id).Distinct()],
        };
        if (made.Series.Recurs)
        {
            var own = made.Series.Timing.Start.PlusDays(7);
            made = made with
            {
                Exceptions =
                [
                    new EventException(own) { Own = OwnFields.None.With("title", Mark(number, FieldLevel.Headline, "own-title"))
                        .With("place", Place.Called(Mark(number, FieldLevel.Headline, "own-place")))
                        .With("description", Rich(number, "own-description")) },
                ],
            };
        }
        var done = (await new ActStore(database).CommitAsync(organisation, ada, now, Act.Writing(EventWrite.Making(made))))!;
        Events.Add(
            new LeakEvent(
                number, (await new EventStore(database).FindAsync(organisation, done.Events[0].Id))!.Event, file?.Id, done.ActId));
    }

    private static EventContent Content(int number, EventFile? file, Random random)
    {
        var start = new LocalDateTime(2026, 11, 16, 9, 0).PlusDays(random.Next(20)).PlusMinutes(30 * random.Next(12));
        var series = new Series(
            Timing.Timed(start, start.PlusMinutes(45), Halifax), random.Next(2) == 0 ? null : RuleText.Parse("FREQ=WEEKLY;COUNT=4"));
        var today = new LocalDate(2026, 11, 23);
        return new EventContent(
            Mark(number, FieldLevel.Headline, "title"), series, Mark(number, FieldLevel.Headline, "place"), Rich(number, "description"))
        {
            Tags = [Mark(number, FieldLevel.Complete, "tag")],
            Links = [
                new EventLink(
                    Mark(number, FieldLevel.Complete, "label"), $"https://pinewick.example/{Mark(number, FieldLevel.Complete, "url")}")],
            Files = file is null ? [] : [file],
            Contact = Mark(number, FieldLevel.Complete, "contact"),
            People = [new Involved(null, $"qx-{number}-Names-person-qx")],
            Kind = number % 9 == 5 ? EventKind.Deadline : EventKind.Event,
            Transparency = number % 9 == 6 ? Transparency.Free : Transparency.Usual,
            Certainty = number % 2 == 0 ? Certainty.Tentative : Certainty.Certain,
            Reminder = new Reminder(1, ReminderUnit.Days),
            Picture = new PictureNote(Mark(number, FieldLevel.Complete, "picture")),
            StaffSpan = new StaffSpan(number % 3 * 30, 15),
            Notes = Mark(number, FieldLevel.Inside, "notes"),
            Cap = random.Next(6) switch
            {
                0 => new Cap(Detail.Headline, null, null),
                1 => new Cap(null, Detail.Times, null),
                2 => new Cap(null, null, Detail.Nothing),
                3 => new Cap(Detail.Nothing, null, null),
                _ => Cap.None,
            },
            Showing = random.Next(5) switch
            {
                0 => new ShowingSpan(today.PlusDays(1), null),
                1 => new ShowingSpan(null, today.PlusDays(-1)),
                2 => new ShowingSpan(today, today),
                _ => ShowingSpan.Always,
            },
        };
    }

    private static RichText Rich(int number, string field) =>
        new($"<p>{Mark(number, FieldLevel.Complete, field)}</p>", Mark(number, FieldLevel.Complete, field));

    // ---------------------------------------------------------------- what each may know, said a second time and as plainly as can be

    /// <summary>The level at which an event may be seen by way of one calendar.</summary>
    public Detail Level(LeakEvent leak, LeakCalendar calendar, Audience audience, bool seesUnfinished = false)
    {
        var (content, state) = (leak.Event.Content, leak.Event.State);
        if (leak.Event.HomeCalendarId != calendar.Id && !leak.Event.Placements.Contains(calendar.Id))
            return Detail.Nothing;
        if (state is EventState.Draft or EventState.Waiting && !seesUnfinished)
            return Detail.Nothing;
        if (audience == Audience.Editors)
            return Detail.Complete;
        var today = new LocalDate(2026, 11, 23);
        if (content.Showing.From > today || content.Showing.Until < today)
            return Detail.Nothing;
        Detail?[] said = [content.Cap.Members, audience >= Audience.Link ? content.Cap.Link : null,
            audience == Audience.Everyone ? content.Cap.Everyone : null];
        var level = calendar.Disclosure[audience];
        foreach (var cap in said)
            level = cap < level ? cap.Value : level;
        return level == Detail.Times && (state == EventState.Cancelled || TakesNoTime(leak)) ? Detail.Nothing : level;
    }

    private static bool TakesNoTime(LeakEvent leak) =>
        leak.Event.Content.Kind == EventKind.Deadline || leak.Event.Content.Transparency == Transparency.Free;

    /// <summary>Whether names are told by way of a calendar that shows all of it to them.</summary>
    public bool TellsNames(LeakEvent leak, LeakCalendar calendar, Audience audience, bool seesUnfinished = false) =>
        Level(leak, calendar, audience, seesUnfinished) == Detail.Complete && audience <= calendar.Disclosure.Names;

    public bool TellsNames(LeakEvent leak, LeakEdition edition) =>
        edition.Cap == Detail.Complete && Calendars.Any(calendar => TellsNames(leak, calendar, edition.Audience));

    /// <summary>The level at which an event may be seen in an edition.</summary>
    public Detail Level(LeakEvent leak, LeakEdition edition)
    {
        var most = Calendars.Max(calendar => Level(leak, calendar, edition.Audience));
        var level = most < edition.Cap ? most : edition.Cap;
        return level == Detail.Times && TakesNoTime(leak) ? Detail.Nothing : level;
    }

    /// <summary>The marks that may stand in what somebody gets; every other mark is a leak.</summary>
    public IEnumerable<string> Allowed(Detail level, LeakEvent leak, bool readsNotes, bool readsNames)
    {
        if (level >= Detail.Headline)
            yield return $"qx-{leak.Number}-{FieldLevel.Headline}-";
        if (level == Detail.Complete)
            yield return $"qx-{leak.Number}-{FieldLevel.Complete}-";
        if (readsNames)
            yield return $"qx-{leak.Number}-Names-";
        if (readsNotes)
            yield return $"qx-{leak.Number}-{FieldLevel.Inside}-";
    }
}
