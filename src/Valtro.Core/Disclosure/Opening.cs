using NodaTime;
using Valtro.Core.Events;
using Valtro.Core.Recurrence;
using Valtro.Core.Speaking;
using Valtro.Core.Time;

namespace Valtro.Core.Disclosure;

/// <summary>What a changed table lets one audience see, or takes from it.</summary>
/// <param name="Revealed">Events of which it newly sees something, or more.</param>
/// <param name="WithEmail">Of these, those in which it newly reads an e-mail address.</param>
/// <param name="WithNames">Events of which it is newly told who is responsible.</param>
/// <param name="Hidden">Events of which it sees less, or nothing any more.</param>
/// <param name="Drafts">Events that stay inside all the same, because they are no more than drafts or wait for sign-off.</param>
public sealed record Opening(
    Audience Audience,
    Detail Was,
    Detail Becomes,
    IReadOnlyList<CalendarEvent> Revealed,
    IReadOnlyList<CalendarEvent> WithEmail,
    IReadOnlyList<CalendarEvent> WithPhone,
    IReadOnlyList<CalendarEvent> WithFile,
    IReadOnlyList<CalendarEvent> WithNames,
    IReadOnlyList<CalendarEvent> Hidden,
    int Drafts)
{
    /// <summary>For each audience whose level changes, narrowest first.</summary>
    /// <param name="events">All that are shown on the calendar, placed ones too.</param>
    /// <remarks>An event outside its showing span counts: it will be seen when its time comes.</remarks>
    public static IReadOnlyList<Opening> Of(IReadOnlyCollection<CalendarEvent> events, Disclosure before, Disclosure after) =>
        [.. Audiences.Readers
            .Where(audience => before[audience] != after[audience] || TellsNames(before, audience) != TellsNames(after, audience))
            .Select(audience => Of(events, audience, before, after))];

    private static bool TellsNames(Disclosure table, Audience audience) =>
        table[audience] == Detail.Complete && table.GrantsOf(audience).HasFlag(Grants.Names);

    private static Opening Of(IReadOnlyCollection<CalendarEvent> events, Audience audience, Disclosure before, Disclosure after)
    {
        var leaving = events.Where(one => Visibility.LeavesTheHouse(one.State)).ToArray();
        var revealed = leaving.Where(one => Level(one, after) > Level(one, before)).ToArray();
        return new Opening(
            audience, before[audience], after[audience], revealed,
            New(data => data.HasEmail), New(data => data.HasPhone), New(data => data.HasFile),
            [.. leaving.Where(one => Names(one, after) && !Names(one, before))],
            [.. leaving.Where(one => Level(one, after) < Level(one, before))],
            events.Count - leaving.Length);

        Detail Level(CalendarEvent calendarEvent, Disclosure table) => table.For(audience, calendarEvent.Content.Cap);

        bool Names(CalendarEvent calendarEvent, Disclosure table) =>
            TellsNames(table, audience) && Level(calendarEvent, table) == Detail.Complete && calendarEvent.HasPeople;

        CalendarEvent[] New(Func<PersonalData, bool> has) =>
            [.. revealed.Where(one => has(PersonalData.In(one, Level(one, after))) && !has(PersonalData.In(one, Level(one, before))))];
    }
}

/// <summary>An edition for members that delivers what is not finished, marked as such.</summary>
public sealed record UnfinishedIn(string Edition, Detail Detail);

/// <summary>What one audience will see of one event, and why.</summary>
/// <param name="Detail">By the most open of its calendars.</param>
/// <param name="Was">What it sees of the event as it is now; the same where nothing changes, nothing for a new event.</param>
/// <param name="Sentence">For people: "title, time and place".</param>
public sealed record WhoSees(Audience Audience, Detail Detail, Detail Was, string Sentence)
{
    private static readonly Audience[] WidestFirst = [Audience.Everyone, Audience.Link, Audience.Members, Audience.Editors];

    /// <summary>For every audience, widest first.</summary>
    /// <param name="after">The event as it will be; its series may be any that is valid.</param>
    /// <param name="before">As it is, or null when it is new.</param>
    /// <param name="calendars">Name and table of each calendar.</param>
    /// <param name="unfinished">Of a draft, or one that waits for sign-off: the editions in which members read it all the same.</param>
    public static IReadOnlyList<WhoSees> Of(
        CalendarEvent after, CalendarEvent? before, IReadOnlyDictionary<Guid, (string Name, Disclosure Disclosure)> calendars,
            RuleWords words, Instant now, IReadOnlyList<UnfinishedIn>? unfinished = null) =>
        [.. WidestFirst.Select(audience =>
            audience == Audience.Members && !Visibility.LeavesTheHouse(after.State) && unfinished is { Count: > 0 }
            ? new WhoSees(audience, unfinished.Max(one => one.Detail), Detail.Nothing, Say(after.State, unfinished, words.Speech))
            : Of(audience, after, before, calendars, words, now))];

    private static string Say(EventState state, IReadOnlyList<UnfinishedIn> unfinished, Speech speech) => speech.Say(
        state == EventState.Draft ? "sees.inDraft" : "sees.inWaiting",
        ("said", Said(unfinished.Max(one => one.Detail))),
        ("editions", speech.Join(unfinished.Select(one => speech.Say("sees.edition", ("name", one.Edition))))));

    private static Saying Said(Detail detail) => Saying.Of($"sees.{detail.ToString().ToLowerInvariant()}");

    private static WhoSees Of(Audience audience, CalendarEvent after, CalendarEvent? before,
        IReadOnlyDictionary<Guid, (string Name, Disclosure Disclosure)> calendars, RuleWords words, Instant now)
    {
        var tables = calendars.ToDictionary(one => one.Key, one => one.Value.Disclosure);
        var (detail, by) = Best(audience, after, tables);
        var was = before is null ? Detail.Nothing : Best(audience, before, tables).Detail;
        return new WhoSees(audience, detail, was, Say(audience, after, detail, by, calendars, words, now));
    }

    internal static (Detail Detail, Guid By) Best(
        Audience audience, CalendarEvent calendarEvent, IReadOnlyDictionary<Guid, Disclosure> calendars)
    {
        if (audience != Audience.Editors && !Visibility.LeavesTheHouse(calendarEvent.State))
            return (Detail.Nothing, Guid.Empty);
        var best = calendarEvent.Calendars
            .Where(calendars.ContainsKey)
            .Select(id => (Detail: calendars[id].For(audience, calendarEvent.Content.Cap), By: id))
            .DefaultIfEmpty((Detail: Detail.Nothing, By: Guid.Empty))
            .MaxBy(one => one.Detail);
        // No times are told of what takes none.
        return best.Detail == Detail.Times && calendarEvent.Content.TakesNoTime ? (Detail.Nothing, best.By) : best;
    }

    private static string Say(Audience audience, CalendarEvent calendarEvent, Detail detail, Guid by,
        IReadOnlyDictionary<Guid, (string Name, Disclosure Disclosure)> calendars, RuleWords words, Instant now)
    {
        if (audience == Audience.Editors)
            return words.Speech.Say("sees.editors");
        if (!Visibility.LeavesTheHouse(calendarEvent.State))
            return words.Speech.Say(calendarEvent.State == EventState.Draft ? "sees.draft" : "sees.waiting");
        if (detail == Detail.Nothing && by != Guid.Empty
            && calendars[by].Disclosure.For(audience, calendarEvent.Content.Cap) == Detail.Times)
            return words.Speech.Say("sees.takesNoTime");
        var said = Said(detail);
        if (detail == Detail.Complete && calendarEvent.HasPeople)
            said = Saying.Of(calendarEvent.Calendars.Where(calendars.ContainsKey).Select(id => calendars[id].Disclosure)
                .Where(table => table.For(audience, calendarEvent.Content.Cap) == detail)
                .Any(table => table.GrantsOf(audience).HasFlag(Grants.Names))
                    ? "sees.withNames" : "sees.withoutNames", ("said", said));
        if (by != Guid.Empty
            && by != calendarEvent.HomeCalendarId
            && detail > Detail.Nothing
            && detail > calendars[calendarEvent.HomeCalendarId].Disclosure.For(audience, calendarEvent.Content.Cap))
            said = Saying.Of("sees.byWayOf", ("said", said), ("calendar", calendars[by].Name));
        if (detail < calendarEvent.Calendars.Where(calendars.ContainsKey).Max(id => calendars[id].Disclosure[audience]))
            said = Saying.Of("sees.less", ("said", said));
        if (detail == Detail.Nothing)
            return words.Speech.Say(said);
        var (from, until) = (calendarEvent.Content.Showing.From, calendarEvent.Content.Showing.Until);
        if (from is { } first && now < LocalTimes.StartOf(first, calendarEvent.Content.Series.Timing.Zone))
            said = Saying.Of("sees.from", ("said", said), ("day", first));
        if (until is { } last)
        {
            var isOver = now >= LocalTimes.StartOf(last.PlusDays(1), calendarEvent.Content.Series.Timing.Zone);
            said = Saying.Of(isOver ? "sees.notAfter" : "sees.until", ("said", said), ("day", last));
        }
        return words.Speech.Say(said);
    }
}
