using NodaTime;
using Valtro.Core.Calendars;
using Valtro.Core.Disclosure;
using Valtro.Core.Events;

namespace Valtro.Core.Editions;

/// <summary>A calendar as an edition draws on it.</summary>
/// <param name="Slug">By which addresses name it.</param>
public sealed record Source(
    Guid CalendarId, Plate Plate, string Name, Hue Hue, Disclosure.Disclosure Disclosure, SourceFilter? Filter = null, string Slug = "")
{
    /// <summary>As whom the reader sees this calendar, where that is not the audience of the edition.</summary>
    public Audience? SeenAs { get; init; }
}

/// <summary>What an entry can show beside its title and times. An edition may show fewer than the detail allows.</summary>
public enum ShownField
{
    Place,
    Category,
    Picture,
    Description,
    Links,
    Files,
    Contact,
    People,
}

/// <summary>How the feed of an edition is made.</summary>
public enum FeedForm
{
    /// <summary>A series is one event with its rule, whole: programs work its dates out themselves, as far as they like.</summary>
    Series,

    /// <summary>Each date is an event of its own: exactly the entries of the page.</summary>
    Dates,
}

/// <summary>As what programs get a deadline.</summary>
public enum DeadlineForm
{
    /// <summary>An event without length, called due.</summary>
    Events,

    /// <summary>A task to be done by then (RFC 5545 3.6.2); one for each date.</summary>
    Tasks,
}

/// <summary>Of what a feed reminds those who subscribe.</summary>
public enum Reminding
{
    Nothing,

    /// <summary>As each event says.</summary>
    AsEventsSay,

    /// <summary>Of everything: as the edition says where an event says nothing itself.</summary>
    Everything,
}

/// <summary>Whether an edition takes what happens, what is due, or both.</summary>
public enum KindsTaken
{
    Both,
    Events,
    Deadlines,
}

/// <summary>What one readership gets: how its entries are composed. How they look is a <see cref="Look"/>.</summary>
/// <param name="Zone">In which its days begin and its times are told.</param>
public sealed record Edition(Audience Audience, DateTimeZone Zone, IsoDayOfWeek FirstDayOfWeek)
{
    public const int MostSources = 60;
    public const int MostEntries = 1_000;

    public static IReadOnlySet<ShownField> AllFields { get; } = Enum.GetValues<ShownField>().ToHashSet();

    /// <summary>The most that any entry tells, whatever its calendar would show this audience.</summary>
    public Detail Cap { get; init; } = Detail.Complete;

    public EditionWindow Window { get; init; } = EditionWindow.Everything;

    /// <summary>At most so many entries, the earliest; null for all.</summary>
    public int? Limit { get; init; }

    public bool WithCancelled { get; init; } = true;

    /// <summary>Drafts and what waits for sign-off too, marked as such; for members only.</summary>
    public bool WithUnfinished { get; init; }

    /// <summary>The breaks of the year plan appear as entries.</summary>
    public bool WithBreaks { get; init; }

    /// <summary>Entries of the same title, start and length become one with the plates of all.</summary>
    public bool MergesLookAlikes { get; init; }

    /// <summary>Whose a time is that is told as no more than "Busy".</summary>
    public bool TellsPlatesOfBusy { get; init; }

    /// <summary>What a time is called that is told as no more: "Busy" in the language of the edition.</summary>
    public string Busy { get; init; } = Disclosed.Busy;

    /// <summary>How titles are written; null for the title alone, with the plates before it as soon as there are two sources.</summary>
    public Pattern? TitlePattern { get; init; }

    public IReadOnlySet<ShownField> Fields { get; init; } = AllFields;

    /// <summary>How its feed is made.</summary>
    public FeedForm Feed { get; init; }

    public KindsTaken Kinds { get; init; }

    /// <summary>Places of the list of which one is where a date is; null for wherever it is.</summary>
    public IReadOnlySet<Guid>? At { get; init; }

    /// <summary>Somebody who is responsible for each date, so far as its readers are told who that is; null for whoever it is.</summary>
    public Guid? Person { get; init; }

    /// <summary>As what its feed delivers deadlines.</summary>
    public DeadlineForm Deadlines { get; init; }

    public Reminding Reminding { get; init; }

    /// <summary>From when to when it takes those who run it, instead of the public time; for members only.</summary>
    public bool WithStaffTimes { get; init; }

    /// <summary>What it grants its readers besides what each calendar does.</summary>
    public Grants Grants => WithStaffTimes && Audience <= Audience.Members ? Grants.StaffSpan : Grants.None;

    /// <summary>For what says none itself, where it reminds of everything.</summary>
    public Reminder? Reminder { get; init; }

    /// <summary>When its feed reminds of an event; null where it does not.</summary>
    /// <param name="told">As its readers see it.</param>
    public Reminder? ReminderOf(EventContent told, Detail detail) =>
        Reminding == Reminding.Nothing || detail <= Detail.Times
            ? null
            : told.Reminder ?? (Reminding == Reminding.Everything ? Reminder : null);

    /// <summary>How a line of text says that something is due: "{0} (due)" in the language of the edition.</summary>
    public string Due { get; init; } = "{0}";

    /// <summary>What parts that people have are called before their names, in the language of the edition.</summary>
    public IReadOnlyDictionary<Part, string> PartNames { get; init; } = PlainPartNames;

    private static readonly Dictionary<Part, string> PlainPartNames = Enum.GetValues<Part>().ToDictionary(part => part, part => $"{part}");

    /// <summary>It takes single dates of a series: what their own fields decide.</summary>
    public bool ChoosesDates => At is not null || Person is not null;

    /// <summary>Whether a date that says this is taken.</summary>
    public bool Takes(EventContent date) =>
        Takes(date.Place) && (Person is not { } who || date.People.Any(one => one.MemberId == who));

    public Audience AudienceOn(Source source) => source.SeenAs ?? Audience;

    private bool Takes(Place place) => At is null || (place.Id is { } id && At.Contains(id));

    public bool Takes(EventKind kind) =>
        Kinds == KindsTaken.Both || (Kinds == KindsTaken.Deadlines) == (kind == EventKind.Deadline);

    public EditionSpan SpanAt(Instant now, YearPlans.SchoolCalendar school) => Window.At(now, Zone, school, FirstDayOfWeek);

    /// <summary>Whether the audience can tell by the plate whose an entry of this source is.</summary>
    public bool TellsPlateOf(Source source) =>
        Told(source) is var told && (told >= Detail.Headline || (told == Detail.Times && TellsPlatesOfBusy));

    /// <summary>The most that the edition tells of a source.</summary>
    public Detail Told(Source source) => Core.Disclosure.Disclosure.Least(source.Disclosure[AudienceOn(source)], Cap);
}
