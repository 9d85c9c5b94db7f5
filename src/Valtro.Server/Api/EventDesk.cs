using NodaTime;
using Valtro.Core;
using Valtro.Core.Disclosure;
using Valtro.Core.Events;
using Valtro.Core.ICalendar;
using Valtro.Core.Recurrence;
using Valtro.Core.YearPlans;
using Valtro.Server.Accounts;
using Valtro.Store;

namespace Valtro.Server.Api;

/// <summary>An event with all that decides what one person sees of it and may do.</summary>
internal sealed record OnDesk(Viewer Viewer, StoredEvent Stored, Calendar Calendar, Organisation Organisation, SchoolCalendar School)
{
    public CalendarEvent Event => Stored.Event;

    public bool MayEdit => Viewer.MayEdit(Calendar.Id);

    public RuleWords Words => RuleWords.For(Organisation.Locale);
}

/// <summary>Events as the signed-in person may see and change them.</summary>
public sealed class EventDesk(
    Access access, EventStore events, CalendarStore calendars, OrganisationStore organisations, YearPlanStore yearPlans, ListStore lists, RichTexts richTexts, IClock clock)
{
    private const string EditorsOnly = "Only editors of this calendar can change its events.";

    public Instant Now => Instant.FromUnixTimeSeconds(clock.GetCurrentInstant().ToUnixTimeSeconds());

    /// <exception cref="NotFoundException">There is none, or the person sees nothing of it.</exception>
    internal async Task<OnDesk> FindAsync(Guid id)
    {
        var viewer = await access.ViewerAsync();
        var stored = await events.FindAsync(viewer.OrganisationId, id) ?? throw new NotFoundException("event");
        var calendar = (await calendars.FindAsync(viewer.OrganisationId, stored.Event.HomeCalendarId))!;
        if (viewer.DetailOn(calendar.Id, calendar.Disclosure, Cap.None) == Detail.Nothing || (stored.IsRemoved && !viewer.MayEdit(calendar.Id)))
            throw new NotFoundException("event");
        return new OnDesk(viewer, stored, calendar, (await organisations.FindAsync(viewer.OrganisationId))!, await yearPlans.SchoolAsync(viewer.OrganisationId));
    }

    /// <exception cref="ForbiddenException">The person sees it but may not change it.</exception>
    internal async Task<OnDesk> FindForChangeAsync(Guid id)
    {
        var found = await FindAsync(id);
        Access.Require(found.MayEdit, EditorsOnly);
        return found;
    }

    /// <summary>Those who may restore it; it is theirs to see too.</summary>
    public static void RequireEdit(Viewer viewer, Guid calendarId) => Access.Require(viewer.MayEdit(calendarId), EditorsOnly);

    /// <summary>The event seen from a date: the one asked for, else the next, else the last.</summary>
    /// <exception cref="NotFoundException">The person sees nothing of it.</exception>
    internal EventResponse Show(OnDesk found, string? dateName)
    {
        var happening = found.Event;
        var date = DateToShow(found, dateName);
        var detail = found.Viewer.DetailOn(found.Calendar.Id, found.Calendar.Disclosure, Cap.None);
        var seen = (found.MayEdit ? Disclosed.Of(date, detail) : Disclosed.ForReaders(date, detail)) ?? throw new NotFoundException("event");
        var (series, timing, occurrence) = (happening.Series, happening.Series.Timing, date.Occurrence);
        var tellsPattern = seen.Detail > Detail.Times;
        return new EventResponse(
            happening.Id,
            happening.HomeCalendarId,
            seen.Detail,
            OccurrenceTimes.Of(timing, occurrence, timing.Zone, seen.Detail).RecurrenceId,
            seen.Title,
            timing.AllDay,
            occurrence.LocalStart.Date,
            timing.AllDay ? occurrence.LocalEnd.Date.PlusDays(-1) : occurrence.LocalEnd.Date,
            timing.AllDay ? null : occurrence.LocalStart.TimeOfDay,
            timing.AllDay ? null : occurrence.LocalEnd.TimeOfDay,
            timing.Zone.Id,
            Elsewhere(timing, occurrence, found.Calendar.Zone),
            seen.Place,
            seen.Description.Html,
            CategoryBody.Of(seen.Category),
            seen.Tags,
            tellsPattern && series.Recurs,
            tellsPattern ? timing.Start.Date : occurrence.LocalStart.Date,
            tellsPattern ? RepeatDraft.Of(series) : null,
            tellsPattern ? series.InBreaks : InBreaks.Ignore,
            tellsPattern ? [.. series.Extra.Select(extra => extra.Date)] : [],
            tellsPattern ? [.. series.Removed.Select(removed => OccurrenceTimes.Name(removed, timing.AllDay))] : [],
            found.Words.Say(tellsPattern ? series : new Series(date.Timing)),
            seen.State,
            date.Exception is not null && found.MayEdit ? EventDifference.Say(date.Exception, timing, found.Words) : "",
            date.Exception?.IsCancelled == true && seen.State == EventState.Cancelled,
            found.MayEdit,
            found.MayEdit ? found.Stored.Version : null,
            found.Stored.IsRemoved,
            found.MayEdit ? found.Stored.SavedBy : null,
            found.MayEdit ? found.Stored.SavedAt : null);
    }

    /// <summary>The same date on the calendar's clock, where the event has another.</summary>
    internal static ElsewhereBody? Elsewhere(Core.Time.Timing timing, Occurrence occurrence, DateTimeZone zone) =>
        timing.AllDay || timing.Zone.Id == zone.Id || timing.Zone.GetUtcOffset(occurrence.Start) == zone.GetUtcOffset(occurrence.Start)
            ? null
            : new ElsewhereBody(zone.Id, OccurrenceTimes.At(occurrence.Start, zone), OccurrenceTimes.At(occurrence.End, zone));

    private EventDate DateToShow(OnDesk found, string? name)
    {
        var happening = found.Event;
        if (name is not null && EventDates.Find(happening, OccurrenceTimes.ReadName(name, "date"), found.School) is { } named)
            return named;
        if (name is not null && happening.Series.Recurs && found.MayEdit)
            throw new NotFoundException("date");
        // Who sees times only names a date by its own start.
        var asked = name is null ? default(LocalDateTime?) : OccurrenceTimes.ReadName(name, "date");
        EventDate? last = null;
        foreach (var date in EventDates.All(happening, found.School))
        {
            last = date;
            if (asked is null ? date.Occurrence.End >= Now : date.Occurrence.LocalStart >= asked)
                break;
        }
        return last ?? new EventDate(happening, happening.Series.Timing.Occurrence(happening.Series.Timing.Start), null);
    }

    /// <summary>The calendar that an event is put on.</summary>
    /// <exception cref="RuleException">There is none that the person sees.</exception>
    /// <exception cref="ForbiddenException">They see it but may not change its events.</exception>
    public async Task<Calendar> CalendarForAsync(Guid calendarId)
    {
        var viewer = await access.ViewerAsync();
        var calendar = await calendars.FindAsync(viewer.OrganisationId, calendarId);
        if (calendar is null || viewer.DetailOn(calendar.Id, calendar.Disclosure, Cap.None) == Detail.Nothing)
            throw new RuleException("calendarId", "There is no such calendar. Choose one from the list.");
        Access.Require(viewer.MayEdit(calendar.Id), EditorsOnly);
        return calendar;
    }

    public async Task<DraftSetting> SettingAsync(Calendar calendar) =>
        new(calendar.Zone, await lists.CategoriesAsync(calendar.OrganisationId), await yearPlans.SchoolAsync(calendar.OrganisationId));

    /// <summary>Checks what was typed, and that the person may put it on that calendar.</summary>
    public async Task<EventContent> CheckAsync(EventRequest request)
    {
        var calendar = await CalendarForAsync(request.CalendarId);
        return request.ToDraft().Check(await SettingAsync(calendar), richTexts.Sanitise(request.Description));
    }

    /// <summary>Writes an act in the person's name.</summary>
    public async Task<ActDone> WriteAsync(params EventWrite[] writes)
    {
        var viewer = await access.ViewerAsync();
        return await events.WriteAsync(viewer.OrganisationId, writes, viewer.AccountId, Now);
    }

    /// <summary>A new event, live at once.</summary>
    public static EventWrite Adding(Guid calendarId, EventContent content) => new(
        new CalendarEvent(Guid.Empty, calendarId, Guid.Empty, content, EventState.Live, 0, default, default), null, EventAct.Made);

    /// <summary>What is written of a stored event that becomes another.</summary>
    internal static EventWrite Saving(OnDesk found, CalendarEvent after, EventAct act, bool isRemoved) => new(
        after, found.Stored.Version, act, isRemoved,
        IsSeen: isRemoved || found.Stored.IsRemoved || after.HomeCalendarId != found.Event.HomeCalendarId || !FeedWriter.AreAlike(found.Event, found.School, after, found.School));
}
