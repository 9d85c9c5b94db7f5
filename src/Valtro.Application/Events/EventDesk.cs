using NodaTime;
using Valtro.Application.Accounts;
using Valtro.Application.Files;
using Valtro.Core;
using Valtro.Core.Acts;
using Valtro.Core.Calendars;
using Valtro.Core.Disclosure;
using Valtro.Core.Events;
using Valtro.Core.Recurrence;
using Valtro.Core.SignOff;
using Valtro.Core.YearPlans;
using Valtro.Store;

namespace Valtro.Application.Events;

/// <summary>An event with all that decides what one person sees of it and may do.</summary>
/// <param name="Calendars">All of the organisation that are in use.</param>
public sealed record OnDesk(
    Viewer Viewer, StoredEvent Stored, IReadOnlyDictionary<Guid, Calendar> Calendars, Sight Sight, Organisation Organisation,
        SchoolCalendar School, IReadOnlyList<Submission> About)
{
    public CalendarEvent Event => Stored.Event;

    /// <summary>Its home.</summary>
    public Calendar Calendar => Calendars[Event.HomeCalendarId];

    public bool MayEdit => Viewer.May(CalendarAction.Edit, Event.HomeCalendarId);

    public bool MayContribute => Viewer.May(CalendarAction.Contribute, Event.HomeCalendarId);

    /// <summary>It has not gone out yet.</summary>
    public bool IsUnfinished => Stored.IsUnfinished;

    /// <summary>Plans what becomes of it.</summary>
    public ActPlanner Planner => new(Viewer, Calendars, School);

    /// <summary>Changes are saved at once: those of editors, and anybody's to what they are still making themselves.</summary>
    public bool ChangesAtOnce => MayEdit || (MayContribute && IsUnfinished && Stored.MadeBy == Viewer.AccountId);

    /// <summary>What the calendars are called, and how much of each is shown to whom.</summary>
    public IReadOnlyDictionary<Guid, (string Name, Disclosure Disclosure)> NamesAndTables => Tables(Calendars);

    public static IReadOnlyDictionary<Guid, (string Name, Disclosure Disclosure)> Tables(IReadOnlyDictionary<Guid, Calendar> calendars) =>
        calendars.ToDictionary(one => one.Key, one => (one.Value.Name, one.Value.Disclosure));

    public bool IsSeen(Guid calendarId) =>
        Calendars.TryGetValue(calendarId, out var calendar) && Viewer.DetailOn(calendarId, calendar.Disclosure) > Detail.Nothing;

    /// <summary>A calendar that the person sees nothing of has no name for them.</summary>
    public string NameOf(Guid calendarId) =>
        IsSeen(calendarId) ? Calendars[calendarId].Name : Spoken.Now.Say("own.anotherCalendar");

    /// <summary>Of some calendars those that the person sees, by name.</summary>
    public string NamesOf(IEnumerable<Guid> calendars) =>
        string.Join(", ", calendars.Where(IsSeen).Select(NameOf).Order(StringComparer.CurrentCulture));

    public RuleWords Words => RuleWords.For(Spoken.LocaleIn(Organisation));
}

/// <summary>Events as the signed-in person may see and change them.</summary>
public sealed class EventDesk(
    Access access, EventStore events, FileStore files, TemplateStore templates, SubmissionStore submissions, RichTexts richTexts,
    IClock clock)
{
    private const string ContributorsOnly = "access.contributors";

    private Ahead? _ahead;

    /// <summary>What was read for all events of a list at once.</summary>
    private sealed record Ahead(
        IReadOnlyDictionary<Guid, StoredEvent> Events,
        ILookup<Guid, Submission> About,
        IReadOnlyDictionary<Guid, (EventFile File, Guid MadeBy)> Files);

    public Instant Now => Instant.FromUnixTimeSeconds(clock.GetCurrentInstant().ToUnixTimeSeconds());

    /// <summary>For a list of many events: what is asked of them later in this request is answered from one reading.</summary>
    /// <param name="wantedFiles">The files that forms about them name.</param>
    public async Task ReadAheadAsync(Guid[] ids, Guid[] wantedFiles)
    {
        var organisation = (await access.ViewerAsync()).OrganisationId;
        _ahead = new Ahead(
            await events.StoredAsync(organisation, ids), await submissions.AboutAsync(organisation, ids),
                await FilesAsync(organisation, wantedFiles));
    }

    private async Task<IReadOnlyDictionary<Guid, (EventFile File, Guid MadeBy)>> FilesAsync(Guid organisationId, Guid[] ids) =>
        (ids.Length == 0 ? [] : await files.SomeAsync(organisationId, ids)).ToDictionary(one => one.File.Id);

    private async Task<StoredEvent> StoredAsync(Guid organisationId, Guid id) =>
        (_ahead is null ? await events.FindAsync(organisationId, id) : _ahead.Events.GetValueOrDefault(id))
        ?? throw new NotFoundException("event");

    private async Task<IReadOnlyList<Submission>> AboutAsync(Guid organisationId, Guid id) =>
        [.. (_ahead?.About ?? await submissions.AboutAsync(organisationId, [id]))[id]];

    /// <param name="withAbout">Also what was handed in about it.</param>
    /// <exception cref="NotFoundException">There is none, or the person sees nothing of it.</exception>
    public async Task<OnDesk> FindAsync(Guid id, bool withAbout = true)
    {
        var viewer = await access.ViewerAsync();
        var stored = await StoredAsync(viewer.OrganisationId, id);
        var found = Seen(viewer, await access.HouseAsync(), stored) ?? throw new NotFoundException("event");
        return found.MayContribute && withAbout ? found with { About = await AboutAsync(viewer.OrganisationId, id) } : found;
    }

    /// <summary>Of some events those of which the person sees something, each once, in the order in which they are named.</summary>
    public async Task<IReadOnlyList<OnDesk>> FindAllAsync(Guid[] ids)
    {
        var (viewer, house) = (await access.ViewerAsync(), await access.HouseAsync());
        var stored = await events.StoredAsync(viewer.OrganisationId, ids);
        var about = await submissions.AboutAsync(viewer.OrganisationId, ids);
        return [.. from id in ids.Distinct()
                   let found = stored.TryGetValue(id, out var one) ? Seen(viewer, house, one) : null
                   where found is not null
                   select found.MayContribute ? found with { About = [.. about[id]] } : found];
    }

    /// <returns>Null where the person sees nothing of it.</returns>
    private OnDesk? Seen(Viewer viewer, House house, StoredEvent stored)
    {
        var sight = viewer.Of(stored.Event, house.Disclosures, Now);
        var mayChange = viewer.May(CalendarAction.Contribute, stored.Event.HomeCalendarId);
        return !house.Calendars.ContainsKey(stored.Event.HomeCalendarId) || sight.Detail == Detail.Nothing
            || (stored.IsRemoved && !mayChange)
            ? null
            : new OnDesk(viewer, stored, house.Calendars, sight, house.Organisation, house.School, []);
    }

    /// <summary>An event that somebody asks to show on a calendar: its editors see all of it but the notes, as its readers may if they
    /// agree.</summary>
    /// <exception cref="NotFoundException">It is gone, or the person does not decide about that calendar.</exception>
    public async Task<OnDesk> FindAskedForAsync(Submission submission)
    {
        var viewer = await access.ViewerAsync();
        var stored = await StoredAsync(viewer.OrganisationId, submission.EventId);
        var house = await access.HouseAsync();
        var all = house.Calendars;
        if (!all.ContainsKey(stored.Event.HomeCalendarId)
            || !(viewer.May(CalendarAction.Approve, submission.CalendarId) || submission.ProposerId == viewer.AccountId))
            throw new NotFoundException("event");
        var sight = viewer.Of(stored.Event, house.Disclosures, Now);
        var asked = new Sight(Detail.Complete, sight.Calendars.Count > 0 ? sight.Calendars : [submission.CalendarId], sight.Grants);
        return new OnDesk(viewer, stored, all, asked, house.Organisation, house.School, []);
    }

    /// <exception cref="ForbiddenException">The person sees it but may not change it, not even by way of sign-off.</exception>
    public async Task<OnDesk> FindForChangeAsync(Guid id, bool withAbout = true)
    {
        var found = await FindAsync(id, withAbout);
        Access.Require(found.MayContribute,
            found.Viewer.Archived.Contains(found.Event.HomeCalendarId) ? "calendar.isArchived" : ContributorsOnly,
                ("name", found.Calendar.Name));
        return found;
    }

    /// <exception cref="ForbiddenException">What the person changes would have to wait for sign-off.</exception>
    public async Task<OnDesk> FindForChangeAtOnceAsync(Guid id)
    {
        var found = await FindForChangeAsync(id);
        Access.Require(found.ChangesAtOnce, "access.changesWait");
        return found;
    }

    /// <summary>The event seen from a date: the one asked for, else the next, else the last.</summary>
    /// <exception cref="NotFoundException">The person sees nothing of it.</exception>
    public EventResponse Show(OnDesk found, string? dateName)
    {
        var date = DateToShow(found, dateName);
        var seen = Seen(found, date);
        var (series, timing, occurrence) = (found.Event.Series, found.Event.Series.Timing, date.Occurrence);
        var tellsPattern = seen.Detail > Detail.Times;
        var mayChange = found.MayContribute;
        var form = FormOf(found, date, seen);
        return new EventResponse(form)
        {
            Id = found.Event.Id,
            CalendarId = form.CalendarId,
            Detail = seen.Detail,
            RecurrenceId = OccurrenceTimes.Of(timing, occurrence, timing.Zone, seen.Detail).RecurrenceId,
            OnCalendarClock = ElsewhereBody.Of(timing, occurrence, found.Calendars[form.CalendarId].Zone),
            Category = CategoryBody.Of(seen.Content.Category),
            Attached = [.. seen.Content.Files.Select(EventFileBody.Of)],
            Recurs = tellsPattern && series.Recurs,
            SeriesStart = tellsPattern ? timing.Start.Date : occurrence.LocalStart.Date,
            Words = found.Words.Say(tellsPattern ? series : new Series(date.Timing)),
            State = seen.State,
            Differs = date.Exception is not null && mayChange ? EventDifference.Say(date.Exception, timing, found.Words) : "",
            IsCancelledAlone = date.Exception?.IsCancelled == true && seen.State == EventState.Cancelled,
            MayEdit = mayChange,
            Version = mayChange ? found.Stored.Version : null,
            IsRemoved = found.Stored.IsRemoved,
            IsFollowed = mayChange && found.Event.Source is not null,
            SavedBy = mayChange ? found.Stored.SavedBy : null,
            SavedAt = mayChange ? found.Stored.SavedAt : null,
            Waits = mayChange && !found.ChangesAtOnce,
            Placements = form.Placements!,
            AsksFor = [],
            About = [.. found.About.Where(one => MayKnow(found, one)).Select(one => new AboutBody(
                one.Id, one.Kind, one.State, one.CalendarId, one.Proposer, one.ProposerId == found.Viewer.AccountId, one.MadeAt, one.Reason,
                    one.DecidedBy))],
        };
    }

    /// <summary>What the form says before anything in it is changed.</summary>
    public EventForm FormOf(OnDesk found, string? dateName)
    {
        var date = DateToShow(found, dateName);
        return FormOf(found, date, Seen(found, date));
    }

    private static EventForm FormOf(OnDesk found, EventDate date, Disclosed seen)
    {
        var when = seen.Detail > Detail.Times ? found.Event.Series : new Series(date.Timing);
        return new EventForm(EventDraft.Of(seen.Content with { Title = seen.Title, Series = when }, date.Timing))
        {
            CalendarId = found.Sight.Calendars[0],
            Placements = [.. found.Sight.Calendars.Skip(1)],
            IsDraft = seen.State == EventState.Draft,
        };
    }

    private static Disclosed Seen(OnDesk found, EventDate date) =>
        Disclosed.Of(date, found.Sight.Detail, found.Sight.Grants)?.Called(found.Words.Speech.Say("busy.title"))
            ?? throw new NotFoundException("event");

    /// <summary>Who decides about it, who handed it in, and of another calendar only who sees that calendar.</summary>
    private static bool MayKnow(OnDesk found, Submission one) =>
        one.ProposerId == found.Viewer.AccountId
        || (found.MayEdit
            && found.Calendars.TryGetValue(one.CalendarId, out var calendar)
            && found.Viewer.DetailOn(calendar.Id, calendar.Disclosure) > Detail.Nothing);

    private EventDate DateToShow(OnDesk found, string? name)
    {
        var calendarEvent = found.Event;
        if (name is not null && EventDates.Find(calendarEvent, DateName.Read(name, "date"), found.School) is { } named)
            return named;
        if (name is not null && calendarEvent.Series.Recurs && found.MayContribute)
            throw new NotFoundException("date");
        // Who sees times only names a date by its own start.
        var shown = name is null
            ? EventDates.NextOrLast(calendarEvent, Now, found.School)
            : FirstFrom(calendarEvent, DateName.Read(name, "date"), found.School);
        return shown ?? new EventDate(calendarEvent, calendarEvent.Series.Timing.Occurrence(calendarEvent.Series.Timing.Start), null);
    }

    private static EventDate? FirstFrom(CalendarEvent calendarEvent, LocalDateTime start, SchoolCalendar school)
    {
        EventDate? last = null;
        foreach (var date in EventDates.All(calendarEvent, school))
        {
            last = date;
            if (date.Occurrence.LocalStart >= start)
                break;
        }
        return last;
    }

    /// <summary>The calendar that an event is put on.</summary>
    /// <exception cref="RuleException">There is none that the person sees.</exception>
    /// <exception cref="ForbiddenException">They see it but may not put events there.</exception>
    public async Task<Calendar> CalendarForAsync(Guid calendarId)
    {
        var viewer = await access.ViewerAsync();
        var calendar = (await access.HouseAsync()).Calendars.GetValueOrDefault(calendarId);
        if (calendar is null || viewer.DetailOn(calendar.Id, calendar.Disclosure) == Detail.Nothing)
            throw new RuleException("calendarId", "calendar.noSuch");
        if (calendar.ArchivedAt is not null)
            throw new RuleException("calendarId", "calendar.isArchivedChooseAnother", ("name", calendar.Name));
        Access.Require(viewer.May(CalendarAction.Contribute, calendar.Id), ContributorsOnly);
        return calendar;
    }

    /// <summary>What an event on a calendar is checked against. What it has it may keep, though it is not offered any more.</summary>
    public async Task<DraftSetting> SettingAsync(Calendar calendar, CalendarEvent? before = null)
    {
        var house = await access.HouseAsync();
        var kept = before?.Content.Category;
        return new DraftSetting(
            calendar.Zone,
            kept is null || house.Categories.Any(one => one.Id == kept.Id) ? house.Categories : [.. house.Categories, kept],
            house.School)
        {
            Places = [.. before?.Places ?? [], .. house.Places.Select(known => known.Place)],
            Members = MembersWith(house.Members, before),
            Shown = calendar.Disclosure,
            CapBefore = before?.Content.Cap ?? Cap.None,
        };
    }

    private static IReadOnlyDictionary<Guid, string> MembersWith(IReadOnlyDictionary<Guid, string> members, CalendarEvent? before)
    {
        Involved[] left = [.. (before?.Content.People ?? []).Where(one => one.MemberId is { } id && !members.ContainsKey(id))];
        return left.Length == 0 ? members : members.Concat(left.Select(one => KeyValuePair.Create(one.MemberId!.Value, one.Name)))
            .ToDictionary(one => one.Key, one => one.Value);
    }

    /// <summary>Checks what was typed, and that the person may put it on that calendar.</summary>
    /// <param name="before">The event as it is; null for a new one.</param>
    /// <param name="onBehalfOf">Who typed it, where somebody else approves it.</param>
    public async Task<EventContent> CheckAsync(EventForm request, OnDesk? before = null, Guid? onBehalfOf = null)
    {
        var calendar = await CalendarForAsync(request.CalendarId);
        var all = (await access.HouseAsync()).Calendars;
        var shown = (request.Placements ?? before?.Event.Placements ?? []).Where(all.ContainsKey)
            .Aggregate(calendar.Disclosure, (table, id) => table.Or(all[id].Disclosure));
        var setting = await SettingAsync(calendar, before?.Event);
        return request.Check(
            setting with { Shown = shown, Files = await FilesAsync(request.Files, before, onBehalfOf) },
            richTexts.Sanitise(request.Description));
    }

    /// <summary>The files that a form names: those the event has, those its author brought, and those of events that the person sees
    /// completely (a copy keeps them).</summary>
    private async Task<IReadOnlyDictionary<Guid, EventFile>> FilesAsync(IReadOnlyList<Guid> wanted, OnDesk? before, Guid? onBehalfOf)
    {
        var usable = new Dictionary<Guid, EventFile>();
        if (wanted.Count == 0)
            return usable;
        var viewer = await access.ViewerAsync();
        foreach (var (id, (file, madeBy)) in _ahead?.Files
            ?? await FilesAsync(viewer.OrganisationId, [.. wanted.Distinct().Take(2 * EventDraft.MostFiles)]))
        {
            if (before?.Event.Content.Files.Any(one => one.Id == id) == true
                || madeBy == viewer.AccountId
                || madeBy == onBehalfOf
                || await SeesFileAsync(viewer, id))
                usable[id] = file;
        }
        return usable;
    }

    /// <summary>An event holds the file, and the person sees all of that event; or a template holds it from which they may start.</summary>
    public async Task<bool> SeesFileAsync(Viewer viewer, Guid fileId)
    {
        var house = await access.HouseAsync();
        return (await events.WithFileAsync(viewer.OrganisationId, fileId)).Any(calendarEvent =>
                viewer.Of(calendarEvent, house.Disclosures, Now) is { Detail: > Detail.Nothing } sight
                && Disclosed.Of(calendarEvent, sight.Detail) is { } told && told.Content.Files.Any(file => file.Id == fileId))
            || (Templates.Contributes(viewer, house).ToArray() is { Length: > 0 } calendars
                && await templates.NamesFileAsync(viewer.OrganisationId, calendars, fileId));
    }
}
