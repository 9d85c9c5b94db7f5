using NodaTime;
using Valtro.Core.Disclosure;
using Valtro.Core.Recurrence;
using Valtro.Core.Time;
using Valtro.Core.YearPlans;
using Valtro.Core.Speaking;

namespace Valtro.Core.Events;

/// <summary>What a draft is checked against.</summary>
public sealed record DraftSetting(DateTimeZone CalendarZone, IReadOnlyList<Category> Categories, SchoolCalendar School)
{
    /// <summary>What the calendars of the event show of it at most.</summary>
    public Disclosure.Disclosure Shown { get; init; } = Disclosure.Disclosure.Open;

    /// <summary>Files that are there, and that the person may use.</summary>
    public IReadOnlyDictionary<Guid, EventFile> Files { get; init; } = new Dictionary<Guid, EventFile>();

    /// <summary>Places that the organisation knows, and those that the event has.</summary>
    public IReadOnlyList<Place> Places { get; init; } = [];

    /// <summary>Who can be responsible, by their accounts: members, and those whom the event names already.</summary>
    public IReadOnlyDictionary<Guid, string> Members { get; init; } = new Dictionary<Guid, string>();

    /// <summary>What the event said before: it may stay, though its calendar shows less by now.</summary>
    public Cap CapBefore { get; init; } = Disclosure.Cap.None;
}

/// <summary>What an event allows at most as it is typed; null is "as the calendar says".</summary>
public sealed record CapDraft(Detail? Members, Detail? Link, Detail? Everyone)
{
    public static CapDraft Open { get; } = new(null, null, null);

    public static CapDraft Of(Cap cap) => new(cap.Members, cap.Link, cap.Everyone);
}

/// <summary>What an editor typed, before anything is checked; and what the form shows of an event before anything is changed.</summary>
public record EventDraft
{
    public const int MostDays = 500;
    public const int MostTags = 20;
    public const int MostLinks = 10;
    public const int MostFiles = 10;

    /// <summary>More dates than this in a year are no calendar.</summary>
    public const int MostInAYear = 5_000;

    public string Title { get; init; } = "";

    public string Subtitle { get; init; } = "";

    /// <summary>A deadline ends when it begins, whatever else is said.</summary>
    public EventKind Kind { get; init; }

    public Certainty Certainty { get; init; }

    public Transparency Transparency { get; init; }

    public bool AllDay { get; init; }

    public LocalDate? Date { get; init; }

    /// <summary>The last day, inclusive; the first one when it is missing.</summary>
    public LocalDate? EndDate { get; init; }

    /// <summary>Local start time; not needed all day.</summary>
    public LocalTime? From { get; init; }

    public LocalTime? To { get; init; }

    /// <summary>The event's own zone; the calendar's when it is missing.</summary>
    public string? Zone { get; init; }

    public string Place { get; init; } = "";

    /// <summary>HTML; sanitised before it is checked.</summary>
    public string Description { get; init; } = "";

    public RepeatDraft? Repeat { get; init; }

    public InBreaks InBreaks { get; init; }

    /// <summary>Further days, with the start's time.</summary>
    public IReadOnlyList<LocalDate> Extra { get; init; } = [];

    /// <summary>Names of dates that fall away (<see cref="DateName"/>); their time follows the start's where the rule has one time a
    /// day.</summary>
    public IReadOnlyList<string> Removed { get; init; } = [];

    public Guid? CategoryId { get; init; }

    public IReadOnlyList<string> Tags { get; init; } = [];

    public IReadOnlyList<EventLink> Links { get; init; } = [];

    /// <summary>Files that were brought before, by their ids.</summary>
    public IReadOnlyList<Guid> Files { get; init; } = [];

    public PictureNote? Picture { get; init; }

    public string Contact { get; init; } = "";

    /// <summary>Of members the id counts, of others the name.</summary>
    public IReadOnlyList<Involved> People { get; init; } = [];

    /// <summary>Of whole days and deadlines it means nothing, and is kept.</summary>
    public StaffSpan? StaffSpan { get; init; }

    public Reminder? Reminder { get; init; }

    public string Notes { get; init; } = "";

    public CapDraft? Cap { get; init; }

    public LocalDate? ShowFrom { get; init; }

    /// <summary>The last day on which it is shown.</summary>
    public LocalDate? ShowUntil { get; init; }

    /// <summary>What the form says of an event, seen from one of its dates.</summary>
    /// <param name="content">What whoever looks gets of it.</param>
    /// <param name="date">When that date is.</param>
    public static EventDraft Of(EventContent content, Timing date)
    {
        var (series, start, end) = (content.Series, date.Start, date.End);
        return new()
        {
            Title = content.Title,
            Subtitle = content.Subtitle,
            Kind = content.Kind,
            Certainty = content.Certainty,
            Transparency = content.Transparency,
            AllDay = date.AllDay,
            Date = start.Date,
            EndDate = date.AllDay ? end.Date.PlusDays(-1) : end.Date,
            From = date.AllDay ? null : start.TimeOfDay,
            To = date.AllDay ? null : end.TimeOfDay,
            Zone = date.Zone.Id,
            Place = content.Place.Name,
            Description = content.Description.Html,
            Repeat = RepeatDraft.Of(series),
            InBreaks = series.InBreaks,
            Extra = [.. series.Extra.Select(extra => extra.Date)],
            Removed = [.. series.Removed.Select(removed => DateName.Of(removed, date.AllDay))],
            CategoryId = content.Category?.Id,
            Tags = content.Tags,
            Links = content.Links,
            Files = [.. content.Files.Select(file => file.Id)],
            Picture = content.Picture,
            Contact = content.Contact,
            People = content.People,
            StaffSpan = content.StaffSpan,
            Reminder = content.Reminder,
            Notes = content.Notes,
            Cap = CapDraft.Of(content.Cap),
            ShowFrom = content.Showing.From,
            ShowUntil = content.Showing.Until,
        };
    }

    /// <summary>Checks everything at once.</summary>
    /// <param name="description">Already sanitised.</param>
    /// <exception cref="RuleException">With a refusal for each field that is wrong.</exception>
    public EventContent Check(DraftSetting setting, RichText description)
    {
        var refusals = new RefusalList();
        var title = refusals.Try(() => Texts.OneLine("title", "what.title", Title, Texts.LongestTitle));
        var subtitle = refusals.Try(() => Texts.OneLine("subtitle", "what.subtitle", Subtitle, Texts.LongestTitle, required: false));
        var place = refusals.Try(() => Texts.OneLine("place", "what.place", Place, Texts.LongestPlace, required: false));
        var tags = refusals.Try(CheckedTags);
        var category = setting.Categories.FirstOrDefault(one => one.Id == CategoryId);
        if (CategoryId is not null && category is null)
            refusals.Add("categoryId", "event.noSuchCategory");
        refusals.Try(() => CheckedDescription(description));
        var links = refusals.Try(CheckedLinks);
        var files = refusals.Try(() => CheckedFiles(setting));
        var picture = refusals.Try(() => (Picture ?? PictureNote.None).Check("picture"));
        var contact = refusals.Try(() => Texts.OneLine("contact", "what.contact", Contact, Texts.LongestPlace, required: false));
        var notes = refusals.Try(() => Texts.Lines("notes", "what.note", Notes, Texts.LongestNotes));
        var people = refusals.Try(() => CheckedPeople(setting));
        var staffSpan = refusals.Try(() => (StaffSpan ?? Events.StaffSpan.None).Check("staffSpan"));
        var reminder = refusals.Try(() => Reminder?.Check("reminder"));
        var cap = refusals.Try(() => CheckedCap(setting));
        var showing = refusals.Try(() => new ShowingSpan(
            ShowFrom is { } from ? DayRange.Check("showFrom", from) : null,
                ShowUntil is { } until ? DayRange.Check("showUntil", until) : null));
        var series = CheckedSeries(setting, refusals);
        refusals.ThrowIfAny();
        return new EventContent(series!)
        {
            Title = title!,
            Subtitle = subtitle!,
            Kind = Kind,
            Certainty = Certainty,
            Transparency = Transparency,
            Place = Events.Place.Typed(place!, setting.Places),
            Description = description,
            Category = category,
            Tags = [.. tags!],
            Links = [.. links!],
            Files = [.. files!],
            Picture = picture!,
            Contact = contact!,
            People = [.. people!],
            StaffSpan = staffSpan!,
            Reminder = reminder,
            Notes = notes!,
            Cap = cap!,
            Showing = showing!,
        };
    }

    /// <exception cref="RuleException">It allows an audience more than any calendar of the event shows it.</exception>
    private Cap CheckedCap(DraftSetting setting)
    {
        var cap = Cap is { } said ? new Cap(said.Members, said.Link, said.Everyone) : Disclosure.Cap.None;
        (Audience Audience, string Field, string Name)[] audiences =
            [(Audience.Members, "cap.members", "audience.members"), (Audience.Link, "cap.link", "audience.link"),
                (Audience.Everyone, "cap.everyone", "audience.everyone")];
        var higher = audiences.Where(one =>
            cap.Said(one.Audience) is { } most && most > setting.Shown[one.Audience] && most != setting.CapBefore.Said(one.Audience))
            .ToArray();
        return higher.Length == 0
            ? cap
            : throw new RuleException([.. higher.Select(one => new Refusal(one.Field, Saying.Of(
                "event.saysMoreThanCalendar", ("audience", Saying.Of(one.Name)),
                    ("detail", Saying.Of($"detail.{setting.Shown[one.Audience].ToString().ToLowerInvariant()}")))))]);
    }

    private static bool CheckedDescription(RichText description)
    {
        Texts.CheckLength("description", "what.descriptionWithMarkup", description.Html, Texts.LongestDescription);
        return true;
    }

    private EventFile[] CheckedFiles(DraftSetting setting)
    {
        if (Files.Count > MostFiles)
            throw new RuleException("files", "event.tooManyFiles", ("count", Files.Count), ("most", MostFiles));
        return [.. Files.Distinct().Select(id => setting.Files.GetValueOrDefault(id)
            ?? throw new RuleException("files", "event.fileGone"))];
    }

    /// <summary>Those who lead first; each member once.</summary>
    private Involved[] CheckedPeople(DraftSetting setting)
    {
        if (People.Count > Involved.Most)
            throw new RuleException("people", "event.tooManyPeople", ("count", People.Count), ("most", Involved.Most));
        return [.. People.Select(one => Checked(one, setting))
            .DistinctBy(one => one.MemberId is { } id ? id.ToString() : one.Name, StringComparer.OrdinalIgnoreCase)
            .OrderBy(one => one.Part)];
    }

    private static Involved Checked(Involved one, DraftSetting setting)
    {
        if (one.MemberId is not { } id)
            return one with { Name = Texts.OneLine("people", "what.personsName", one.Name ?? "", Texts.LongestName) };
        return setting.Members.TryGetValue(id, out var name)
            ? one with { Name = name }
            : throw new RuleException("people", "event.noSuchMember", ("name", one.Name));
    }

    private EventLink[] CheckedLinks()
    {
        if (Links.Count > MostLinks)
            throw new RuleException("links", "event.tooManyLinks", ("count", Links.Count), ("most", MostLinks));
        return [.. Links.Select(CheckedLink)];
    }

    private static EventLink CheckedLink(EventLink link)
    {
        var url = WebAddress.Check("links", link.Url, "mailto", "tel");
        var label = Texts.OneLine("links", "what.linkLabel", link.Label ?? "", Texts.LongestName, required: false);
        return new EventLink(label, url, link.Kind);
    }

    /// <summary>Only when it happens, for showing consequences while the rest is still being typed.</summary>
    /// <exception cref="RuleException">With a refusal for each field that is wrong.</exception>
    public Series CheckSeries(DraftSetting setting)
    {
        var refusals = new RefusalList();
        var series = CheckedSeries(setting, refusals);
        refusals.ThrowIfAny();
        return series!;
    }

    /// <exception cref="RuleException">It is empty or too long.</exception>
    public static string CheckedTag(string field, string tag) => Texts.OneLine(field, "what.tag", tag.TrimStart('#'), 40);

    private string[] CheckedTags()
    {
        var tags = Tags.Select(tag => CheckedTag("tags", tag))
            .Distinct(StringComparer.CurrentCultureIgnoreCase).Order(StringComparer.Ordinal).ToArray();
        return tags.Length <= MostTags
            ? tags
            : throw new RuleException("tags", "event.tooManyTags", ("count", tags.Length), ("most", MostTags));
    }

    private Series? CheckedSeries(DraftSetting setting, RefusalList refusals)
    {
        var zone = string.IsNullOrEmpty(Zone) ? setting.CalendarZone : refusals.Try(() => Zones.Named(Zone));
        var timing = zone is null ? null : CheckedTiming(zone, refusals);
        Repeat?.Check(refusals);
        var removed = refusals.Try(() => Removed.Take(MostDays + 1).Select(name => DateName.Read(name, "removed")).ToArray()) ?? [];
        if (Extra.Count > MostDays || Removed.Count > MostDays)
            refusals.Add("extra", "event.tooManyOwnDates", ("most", MostDays));
        foreach (var day in Extra.Concat(removed.Select(id => id.Date)))
            refusals.Try(() => (LocalDate?)DayRange.Check(Extra.Contains(day) ? "extra" : "removed", day));
        if (timing is null || !refusals.IsEmpty)
            return null;
        var rule = refusals.Try(() => Repeat?.RuleFor(timing));
        var cycle = refusals.Try(() => Repeat?.CycleFor(timing));
        if (!refusals.IsEmpty)
            return null;
        var series = new Series(
            timing,
            rule,
            [.. Extra.Distinct().Order().Select(day => day + timing.Start.TimeOfDay)],
            [.. removed.Select(id => rule?.KeepsTimeOfDay != false ? id.Date + timing.Start.TimeOfDay : id).Distinct().Order()])
        {
            Cycle = cycle,
            InBreaks = InBreaks,
            CountsTaking = Repeat is { CountsTaking: true } && rule?.Count is not null && InBreaks != InBreaks.Ignore,
        };
        refusals.Try(() => CheckDates(series, setting.School));
        return series;
    }

    internal static bool CheckDates(Series series, SchoolCalendar school)
    {
        // The start may stand outside its rule, so the year is measured from the second date on.
        LocalDateTime? second = null;
        var count = 0;
        foreach (var date in series.Pattern(series.Timing.Start, school))
        {
            if (++count == 2)
                second = date;
            if (date > second?.PlusYears(1))
                break;
            if (count > MostInAYear)
                throw new RuleException("repeat.text", "event.tooOften", ("most", MostInAYear));
        }
        return count > 0 || series.Extra.Count > 0
            ? true
            : throw new RuleException("repeat.numbers", "event.cycleGivesNothing");
    }

    private Timing? CheckedTiming(DateTimeZone zone, RefusalList refusals)
    {
        if (Date is not { } date)
        {
            refusals.Add("date", "event.dateMissing");
            return null;
        }
        if (AllDay)
            return refusals.Try(() => Timing.WholeDays(date, Kind == EventKind.Deadline ? date : EndDate ?? date, zone));
        if (From is null)
            refusals.Add("from", Kind == EventKind.Deadline ? "event.dueMissing" : "event.startMissing");
        if (Kind == EventKind.Deadline)
            return From is { } due ? refusals.Try(() => Timing.Timed(date + due, date + due, zone)) : null;
        if (To is null)
            refusals.Add("to", "event.endMissing");
        return From is { } from && To is { } to
            ? refusals.Try(() => Timing.Timed(date + from, (EndDate ?? date) + to, zone))
            : null;
    }
}
