using NodaTime;
using Valtro.Application.Accounts;
using Valtro.Application.Editions;
using Valtro.Application.Events;
using Valtro.Core;
using Valtro.Core.Disclosure;
using Valtro.Core.Events;
using Valtro.Core.Typing;
using Valtro.Core.YearPlans;
using Valtro.Store;
using CultureInfo = System.Globalization.CultureInfo;

namespace Valtro.Application.Searching;

/// <summary>What somebody may be looking for besides events and days.</summary>
public enum NameKind
{
    Calendar,
    Edition,
    Person,
    Place,
    Category,
    Group,
    Term,
    Break,
}

/// <param name="Id">Null for what has none: the days of a year plan.</param>
/// <param name="First">Of a term or a break.</param>
/// <param name="Last">Inclusive.</param>
/// <param name="MayEdit">Of an edition: they may change it; else they only read it.</param>
public sealed record NameFound(
    NameKind Kind, Guid? Id, string Name, LocalDate? First = null, LocalDate? Last = null, bool MayEdit = false);

/// <param name="Kind">Whether a day, a week or a month is meant.</param>
public sealed record SpanFound(SpanKind Kind, LocalDate First);

/// <param name="Coming">What comes next, first: each event by its next date.</param>
/// <param name="Over">What is over, the latest first.</param>
/// <param name="HasMore">There are further events.</param>
public sealed record SearchResponse(
    IReadOnlyList<SpanFound> Spans, IReadOnlyList<OccurrenceResponse> Coming, IReadOnlyList<OccurrenceResponse> Over, bool HasMore,
    IReadOnlyList<NameFound> Names);

/// <summary>Finds what the signed-in person may see: events of all times by their words, names, and days.</summary>
public sealed class Search(Access access, SearchStore store, EventStore events, IClock clock)
{
    public const int LongestText = 200;
    public const int MostEvents = 12;

    /// <summary>Of what is over there are as many at least, however much comes.</summary>
    private const int MostOver = 4;

    /// <exception cref="RuleException">It is too long.</exception>
    public async Task<SearchResponse> FindAsync(string text)
    {
        Check("text", text);
        var (viewer, house) = (await access.ViewerAsync(), await access.HouseAsync());
        var now = clock.GetCurrentInstant();
        var organisation = house.Organisation;
        var spans = SpanReader.Read(
            text, CultureInfo.GetCultureInfo(Spoken.LocaleIn(organisation)), now.InZone(organisation.TimeZone).Date,
            (IsoDayOfWeek)organisation.FirstDayOfWeek);
        var names = NamesFor(viewer, house);
        var search = For(viewer, house, text, now);
        var asked = new NamesAsked([.. names.Select(one => one.Called)], viewer.May(OrganisationAction.ManagePeople));
        var found = await store.FindAsync(search, asked, forgiving: false);
        var seen = await SeenAsync(viewer, house, found.Events, now);
        if (seen.Count + found.Names.Count + found.People.Count + spans.Count == 0)
        {
            found = await store.FindAsync(search, asked, forgiving: true);
            seen = await SeenAsync(viewer, house, found.Events, now);
        }
        var (coming, over) = (seen.Where(one => one.Date.Occurrence.End >= now).Order().ToArray(),
            seen.Where(one => one.Date.Occurrence.End < now).OrderDescending().ToArray());
        var shownOver = Math.Max(MostOver, MostEvents - coming.Length);
        return new SearchResponse(
            [.. spans.Select(span => new SpanFound(span.Kind, span.First))],
            Show(coming, MostEvents), Show(over, shownOver),
            coming.Length > MostEvents || over.Length > shownOver,
            [
                .. found.Names.Select(place => names[place].Found),
                .. found.People.Select(one => new NameFound(NameKind.Person, one.Id, one.Name)),
            ]);

        IReadOnlyList<OccurrenceResponse> Show(IEnumerable<SeenOccurrence> dates, int most) =>
            [.. dates.Take(most).Select(one => OccurrenceResponse.Of(one, organisation.TimeZone))];
    }

    /// <exception cref="RuleException">It is too long.</exception>
    internal static void Check(string field, string text)
    {
        if (text.Length > LongestText)
            throw new RuleException(field, "search.tooLong", ("most", LongestText));
    }

    /// <summary>Where the person may look: words are told from the headline on.</summary>
    internal static SearchFor For(Viewer viewer, House house, string text, Instant now)
    {
        var levels = house.Calendars.Values.ToDictionary(one => one.Id, one => viewer.DetailOn(one.Id, one.Disclosure));
        return new SearchFor(
            viewer.OrganisationId, text,
            [.. levels.Where(one => one.Value >= Detail.Headline).Select(one => one.Key)],
            [.. levels.Where(one => one.Value == Detail.Complete).Select(one => one.Key)],
            [.. levels.Where(one => one.Value == Detail.Complete
                && house.Calendars[one.Key].Disclosure.GrantsOf(viewer.AudienceOf(one.Key)).HasFlag(Grants.Names)).Select(one => one.Key)],
            [.. levels.Keys.Where(id => viewer.May(CalendarAction.SeeUnfinished, id))],
            now);
    }

    /// <summary>With what each is called where somebody looks for it.</summary>
    private static (NameFound Found, string Called)[] NamesFor(Viewer viewer, House house)
    {
        var seen = house.Calendars.Values.Where(one => viewer.DetailOn(one.Id, one.Disclosure) > Detail.Nothing)
            .ToDictionary(one => one.Id);
        return
        [
            .. seen.Values.Select(one => (new NameFound(NameKind.Calendar, one.Id, one.Name), $"{one.Name} {one.Plate.Code}")),
            .. from edition in house.Editions
               where !edition.IsStandard
               let mayEdit = viewer.MayCompose(edition.Sources, house.Disclosures)
               where mayEdit || EditionDesk.MayRead(viewer, edition)
               select Named(new NameFound(NameKind.Edition, edition.Id, edition.Name, MayEdit: mayEdit)),
            .. house.Groups.Where(group => group.Calendars.Any(seen.ContainsKey))
                .Select(group => Named(new NameFound(NameKind.Group, group.Id, group.Name))),
            .. house.Places.Select(known => Named(new NameFound(NameKind.Place, known.Place.Id, known.Place.Name))),
            .. house.Categories.Select(category => Named(new NameFound(NameKind.Category, category.Id, category.Name))),
            .. house.Plans.SelectMany(stored => stored.Plan.Terms.Select(term => Named(Of(NameKind.Term, term)))
                .Concat(stored.Plan.Breaks.Select(closed => Named(Of(NameKind.Break, closed))))),
        ];

        static (NameFound Found, string Called) Named(NameFound found) => (found, found.Name);
    }

    private static NameFound Of(NameKind kind, NamedDays days) => new(kind, null, days.Name, days.First, days.Last);

    /// <summary>Each by its next date, else its last one: what the words that were found are told by.</summary>
    private async Task<IReadOnlyList<SeenOccurrence>> SeenAsync(Viewer viewer, House house, IReadOnlyList<EventFound> found, Instant now)
    {
        var needed = found.ToDictionary(one => one.Id, one => one.SeenFrom);
        var read = needed.Count == 0 ? [] : await events.SomeAsync(viewer.OrganisationId, [.. needed.Keys]);
        var seen = new List<SeenOccurrence>(read.Count);
        foreach (var calendarEvent in read)
        {
            var sight = viewer.Of(calendarEvent, house.Disclosures, now);
            if (!IsTold(needed[calendarEvent.Id], sight)
                || EventDates.NextOrLast(calendarEvent, now, house.School) is not { } date
                || Disclosed.Of(date, sight.Detail) is not { } disclosed)
                continue;
            seen.Add(new SeenOccurrence(date, disclosed, sight, IsYours: !Visibility.LeavesTheHouse(calendarEvent.State)
                && viewer.May(CalendarAction.Contribute, calendarEvent.HomeCalendarId)));
        }
        return seen;
    }

    internal static bool IsTold(int seenFrom, Sight sight) => seenFrom switch
    {
        1 => sight.Detail >= Detail.Headline,
        2 => sight.Detail == Detail.Complete,
        3 => sight.Detail == Detail.Complete && sight.Grants.HasFlag(Grants.Names),
        _ => sight.Detail == Detail.Complete && sight.Grants.HasFlag(Grants.Notes),
    };
}
