using NodaTime;
using Valtro.Core.Clashes;
using Valtro.Core.Deliveries;
using Valtro.Core.Disclosure;
using Valtro.Core.Editions;
using Valtro.Core.Events;
using Valtro.Core.Recurrence;
using Valtro.Core.Speaking;
using Valtro.Core.Time;
using Valtro.Core.YearPlans;

namespace Valtro.Core.Findings;

/// <summary>What an edition tells of an event whose dates are not all over.</summary>
/// <param name="Detail">How much.</param>
/// <param name="Next">Its next date there.</param>
public readonly record struct TellsOf(CalendarEvent Event, Detail Detail, Entry Next)
{
    public LocalDateTime Date => Next.Occurrence.RecurrenceId;

    /// <summary>As it is kept: editors know it.</summary>
    public string Title => Event.Content.Title;

    public EventContent Content => Event.Content;

    public Series Series => Event.Series;

    /// <summary>What readers get of it.</summary>
    public EventContent Shown => Next.Event.Content;

    public LocalDate Day => Next.Occurrence.LocalStart.Date;

    /// <summary>"Winter regatta, 11 December 2026"; of a series when its next date is.</summary>
    public Saying When => Saying.Of(Series.Recurs ? "finding.whenNext" : "finding.when", ("title", Title), ("day", Day));
}

/// <summary>Another edition, to be held against this one.</summary>
public sealed record OtherEdition(string Name, Audience Audience, Composition Composition);

/// <summary>A followed source that fills a calendar, and is not right any more.</summary>
/// <param name="RightOn">The day on which it was last right; null where it never was.</param>
public sealed record LateSource(Guid Id, string Name, Guid CalendarId, LocalDate? RightOn, Saying Why);

/// <summary>What a link was found to lead to.</summary>
public enum LinkState
{
    Open,

    /// <summary>It answers with a page that asks for sign-in.</summary>
    AsksForSignIn,

    /// <summary>Nothing is there.</summary>
    Gone,
}

/// <param name="State">What somebody without an account gets.</param>
/// <param name="CheckedOn">On which day that was asked.</param>
public sealed record CheckedLink(LinkState State, LocalDate CheckedOn);

/// <summary>What an edition's programs did lately.</summary>
/// <param name="OutSince">Since when it can be fetched.</param>
/// <param name="Programs">How many fetched it on the busiest day of a fortnight.</param>
/// <param name="Reach">Who has the newest version.</param>
/// <param name="ChangedAt">When that came to be.</param>
public sealed record LatelyFetched(Instant OutSince, int Programs, FeedReach Reach, Instant? ChangedAt);

/// <summary>What is around an edition that its own events do not say. By default: nothing.</summary>
public sealed record ProofSurroundings
{
    public Func<Guid, Guid, bool> SharePlace { get; init; } = (one, other) => one == other;

    /// <summary>Who reads a calendar and others too, by name.</summary>
    public Func<Guid, IReadOnlyList<string>> ReadershipsOf { get; init; } = _ => [];

    /// <summary>The same; where it shares its readers with none, those of the calendar alone.</summary>
    public Func<Guid, IReadOnlyList<string>> ReadersOf { get; init; } = _ => [];

    /// <summary>How many of a category a week should hold at most, and what it is called.</summary>
    public IReadOnlyDictionary<Guid, int> MostInAWeek { get; init; } = new Dictionary<Guid, int>();

    public Func<Guid, string> CategoryName { get; init; } = _ => "";

    public Uri Ours { get; init; } = new("https://calendars.invalid");

    public IReadOnlyList<OtherEdition> Others { get; init; } = [];

    public IReadOnlyList<LateSource> LateSources { get; init; } = [];

    /// <summary>By address.</summary>
    public IReadOnlyDictionary<string, CheckedLink> Links { get; init; } = new Dictionary<string, CheckedLink>();

    /// <summary>Events that wait for a yes before they stand on a calendar of the edition.</summary>
    public IReadOnlyList<(CalendarEvent Event, Guid CalendarId)> Waiting { get; init; } = [];

    /// <summary>Null where nobody can fetch it.</summary>
    public LatelyFetched? Fetched { get; init; }
}

/// <summary>What is looked at to find what is wrong with an edition: it as its readers get it, from today on for a year, and what is
/// around.</summary>
public sealed class ProofGround
{
    private readonly ILookup<Guid, Entry> _entriesOf;

    /// <param name="events">All of its calendars that have a date in <see cref="YearFrom"/>, drafts too.</param>
    /// <param name="made">How it is composed and looks.</param>
    public ProofGround(CheckedEdition made, IReadOnlyList<Source> sources, SchoolCalendar school, Instant now,
        IReadOnlyList<CalendarEvent> events, ProofSurroundings around)
    {
        (Made, Sources, School, Now, Events, Around) = (made, sources, school, now, events, around);
        Today = now.InZone(made.Edition.Zone).Date;
        Year = YearFrom(made.Edition, now);
        Composition = new Composition(made.Edition, sources, school, now);
        Composed = Composition.Compose(events, Year);
        Ahead = [.. Composed.Entries.Where(entry => !entry.IsBreak && entry.Occurrence.End > now)];
        _entriesOf = Ahead.ToLookup(entry => entry.EventId!.Value);
        Told = [.. Ahead.DistinctBy(entry => entry.EventId).Select(entry => new TellsOf(entry.Of!, entry.Event.Detail, entry))];
    }

    public CheckedEdition Made { get; }

    public Edition Edition => Made.Edition;

    public IReadOnlyList<Source> Sources { get; }

    public SchoolCalendar School { get; }

    public Instant Now { get; }

    /// <summary>Where the edition is kept.</summary>
    public LocalDate Today { get; }

    public Window Year { get; }

    public IReadOnlyList<CalendarEvent> Events { get; }

    public ProofSurroundings Around { get; }

    public Composition Composition { get; }

    public Composed Composed { get; }

    /// <summary>Entries that are not over; no breaks.</summary>
    public IReadOnlyList<Entry> Ahead { get; }

    /// <summary>The events of these entries, each once, by their next date.</summary>
    public IReadOnlyList<TellsOf> Told { get; }

    /// <summary>The plan that holds today, else the next one.</summary>
    public YearPlan? Plan => School.PlanOf(Today) ?? School.Plans.FirstOrDefault(plan => plan.First > Today);

    /// <summary>From today on for a year.</summary>
    public static Window YearFrom(Edition edition, Instant now) =>
        now.InZone(edition.Zone).Date is var today ? new Window(today, today.PlusYears(1), edition.Zone) : default;

    private IReadOnlyList<EventDate>? _dates;

    /// <summary>The dates of what is told that take place and are not over, ascending by start.</summary>
    public IReadOnlyList<EventDate> Dates => _dates ??= [.. Told
        .SelectMany(told => EventDates.In(told.Event, Year, School))
        .Where(date => date.State != EventState.Cancelled && date.Occurrence.End > Now)
        .OrderBy(date => date.Occurrence.Start)];

    private IReadOnlyList<Clash>? _clashes;

    /// <summary>All overlaps among them, each pair of dates once.</summary>
    public IReadOnlyList<Clash> Clashes => _clashes ??= FindClashes();

    public IEnumerable<Entry> EntriesOf(Guid eventId) => _entriesOf[eventId];

    /// <summary>Calendars of which the audience gets something.</summary>
    public IEnumerable<Source> Open => Sources.Where(source => Edition.Told(source) > Detail.Nothing);

    /// <summary>"everyone".</summary>
    public Saying Audience => Saying.Of($"audience.{Edition.Audience.ToString().ToLowerInvariant()}");

    public string NameOf(Guid calendarId) => Sources.FirstOrDefault(source => source.CalendarId == calendarId)?.Name ?? "";

    private Clash[] FindClashes()
    {
        var finder = new ClashFinder(Dates, Around.ReadershipsOf, Around.SharePlace);
        return [.. Dates.Where(date => !date.Event.Series.Timing.AllDay)
            .SelectMany(date => finder
                .Find([date.Occurrence], date.Content, Around.ReadershipsOf(date.Event.HomeCalendarId), date.Event.Id)
                .Where(clash => clash.With.Event.Id.CompareTo(date.Event.Id) > 0 && !LooksAlike(date, clash.With))
                .Select(clash => clash with { Of = date }))];
    }

    /// <summary>Copies of one event are found as such: they are in their own way only.</summary>
    private static bool LooksAlike(in EventDate one, in EventDate other) => one.Title == other.Title
        && one.Occurrence.Start == other.Occurrence.Start && one.Occurrence.End == other.Occurrence.End;
}
