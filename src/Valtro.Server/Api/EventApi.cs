using Microsoft.AspNetCore.Http.HttpResults;
using NodaTime;
using Valtro.Core;
using Valtro.Core.Disclosure;
using Valtro.Core.Events;
using Valtro.Core.Recurrence;
using Valtro.Server.Accounts;
using Valtro.Store;

namespace Valtro.Server.Api;

/// <param name="EndDate">The last day, inclusive; the first one when it is missing.</param>
/// <param name="Description">HTML; sanitised on the server.</param>
/// <param name="Version">The version that was edited; not needed for a new event.</param>
public sealed record EventRequest(
    Guid CalendarId, string? Title, bool AllDay, LocalDate? Date, LocalDate? EndDate, LocalTime? From, LocalTime? To,
    string? Zone, string? Place, string? Description, RepeatDraft? Repeat, int? Version)
{
    public EventDraft ToDraft() => new(Title, AllDay, Date, EndDate, From, To, Zone, Place, Repeat);
}

/// <param name="Words">The pattern in words.</param>
/// <param name="Version">Null for those who may not change it.</param>
public sealed record EventResponse(
    Guid Id, Guid CalendarId, Detail Detail, string Title, bool AllDay, LocalDate Date, LocalDate EndDate, LocalTime? From, LocalTime? To,
    string Zone, string Place, string Description, RepeatDraft? Repeat, string Words, EventState State, bool MayEdit, int? Version, bool IsRemoved,
    string? SavedBy, Instant? SavedAt);

/// <param name="Remark">What is special about the date, in words, or empty.</param>
public sealed record ConsequenceDateBody(string Start, string End, string Remark);

/// <param name="Count">Null when there is no end.</param>
public sealed record ConsequencesResponse(
    string Words, int? Count, bool AllDay, IReadOnlyList<ConsequenceDateBody> Dates, ConsequenceDateBody? Last, IReadOnlyList<string> Remarks);

public sealed record RemovalResponse(Guid Id, int Version);

internal static class EventApi
{
    private const string EditorsOnly = "Only editors of this calendar can change its events.";

    public static void MapEvents(this RouteGroupBuilder api)
    {
        api.MapPost("/events", Add);
        api.MapPost("/events/consequences", Foresee);
        api.MapGet("/events/{id:guid}", Get);
        api.MapPut("/events/{id:guid}", Save);
        api.MapDelete("/events/{id:guid}", (Guid id, int version, EventDesk desk) => desk.SetRemovedAsync(id, version, removed: true));
        api.MapPost("/events/{id:guid}/restore", (Guid id, int version, EventDesk desk) => desk.SetRemovedAsync(id, version, removed: false));
    }

    private static async Task<Ok<EventResponse>> Get(Guid id, EventDesk desk) => TypedResults.Ok(await desk.ShowAsync(id));

    private static async Task<Created<EventResponse>> Add(EventRequest request, EventDesk desk)
    {
        var (viewer, content) = await desk.CheckAsync(request);
        var id = await desk.Events.AddAsync(viewer.OrganisationId, request.CalendarId, content, viewer.AccountId, desk.Now);
        return TypedResults.Created($"/api/events/{id}", await desk.ShowAsync(id));
    }

    private static async Task<Results<Ok<EventResponse>, ProblemHttpResult>> Save(Guid id, EventRequest request, EventDesk desk)
    {
        var stored = await desk.RequireEditAsync(id);
        var (viewer, content) = await desk.CheckAsync(request);
        if (request.Version is not { } version)
            throw new RuleException("version", "The version that was edited is missing.");
        var nothingChanged = stored.Version == version && stored.Event.HomeCalendarId == request.CalendarId && stored.Event.Content.Says(content);
        try
        {
            if (!nothingChanged)
                await desk.Events.SaveAsync(viewer.OrganisationId, id, version, request.CalendarId, content, viewer.AccountId, desk.Now);
            return TypedResults.Ok(await desk.ShowAsync(id));
        }
        catch (ChangedMeanwhileException)
        {
            return Problems.Of(Problem.ChangedMeanwhile, current: await desk.ShowAsync(id));
        }
    }

    private static async Task<Ok<ConsequencesResponse>> Foresee(EventRequest request, Access access, CalendarStore calendars, OrganisationStore organisations)
    {
        var viewer = await access.ViewerAsync();
        Access.Require(viewer.MayEdit(request.CalendarId), EditorsOnly);
        var calendar = await calendars.FindAsync(viewer.OrganisationId, request.CalendarId) ?? throw new NotFoundException("calendar");
        var organisation = (await organisations.FindAsync(viewer.OrganisationId))!;
        var series = request.ToDraft().CheckSeries(calendar.Zone);
        var consequences = Consequences.Of(series, RuleWords.For(organisation.Locale));
        return TypedResults.Ok(new ConsequencesResponse(
            consequences.Words,
            consequences.Count,
            series.Timing.AllDay,
            [.. consequences.Dates.Select(date => Body(series, date.Occurrence, date.Remark))],
            consequences.Last is { } last ? Body(series, last, "") : null,
            consequences.Remarks));
    }

    private static ConsequenceDateBody Body(Series series, Occurrence occurrence, string remark)
    {
        var times = OccurrenceTimes.Of(series.Timing, occurrence);
        return new ConsequenceDateBody(times.Start, times.End, remark);
    }

    /// <summary>Events as the signed-in person may see and change them.</summary>
    public sealed class EventDesk(
        Access access, EventStore events, CalendarStore calendars, OrganisationStore organisations, RichTexts richTexts, IClock clock)
    {
        public EventStore Events => events;

        public Instant Now => Instant.FromUnixTimeSeconds(clock.GetCurrentInstant().ToUnixTimeSeconds());

        /// <exception cref="NotFoundException">There is none, or the person sees nothing of it.</exception>
        public async Task<EventResponse> ShowAsync(Guid id)
        {
            var viewer = await access.ViewerAsync();
            var (stored, calendar) = await FindAsync(viewer, id);
            var detail = viewer.DetailOn(calendar.Id, calendar.Disclosure, Cap.None);
            var mayEdit = viewer.MayEdit(calendar.Id);
            var seen = (mayEdit ? Disclosed.Of(stored.Event, detail) : Disclosed.ForReaders(stored.Event, detail)) ?? throw new NotFoundException("event");
            if (stored.IsRemoved && !mayEdit)
                throw new NotFoundException("event");
            var organisation = (await organisations.FindAsync(viewer.OrganisationId))!;
            return Show(stored, seen, mayEdit, RuleWords.For(organisation.Locale));
        }

        /// <exception cref="ForbiddenException">The person sees it but may not change it.</exception>
        public async Task<StoredEvent> RequireEditAsync(Guid id)
        {
            var viewer = await access.ViewerAsync();
            var (stored, calendar) = await FindAsync(viewer, id);
            Access.Require(viewer.MayEdit(calendar.Id), EditorsOnly);
            return stored;
        }

        /// <summary>Checks what was typed, and that the person may put it on that calendar.</summary>
        public async Task<(Viewer Viewer, EventContent Content)> CheckAsync(EventRequest request)
        {
            var viewer = await access.ViewerAsync();
            var calendar = await calendars.FindAsync(viewer.OrganisationId, request.CalendarId);
            if (calendar is null || viewer.DetailOn(calendar.Id, calendar.Disclosure, Cap.None) == Detail.Nothing)
                throw new RuleException("calendarId", "There is no such calendar. Choose one from the list.");
            Access.Require(viewer.MayEdit(calendar.Id), EditorsOnly);
            return (viewer, request.ToDraft().Check(calendar.Zone, richTexts.Sanitise(request.Description)));
        }

        public async Task<Results<Ok<RemovalResponse>, ProblemHttpResult>> SetRemovedAsync(Guid id, int version, bool removed)
        {
            await RequireEditAsync(id);
            var viewer = await access.ViewerAsync();
            try
            {
                return TypedResults.Ok(new RemovalResponse(id, await events.SetRemovedAsync(viewer.OrganisationId, id, version, removed, viewer.AccountId, Now)));
            }
            catch (ChangedMeanwhileException)
            {
                return Problems.Of(Problem.ChangedMeanwhile, current: await ShowAsync(id));
            }
        }

        private async Task<(StoredEvent Event, Calendar Calendar)> FindAsync(Viewer viewer, Guid id)
        {
            var stored = await events.FindAsync(viewer.OrganisationId, id) ?? throw new NotFoundException("event");
            var calendar = (await calendars.FindAsync(viewer.OrganisationId, stored.Event.HomeCalendarId))!;
            return viewer.DetailOn(calendar.Id, calendar.Disclosure, Cap.None) == Detail.Nothing
                ? throw new NotFoundException("event")
                : (stored, calendar);
        }
    }

    private static EventResponse Show(StoredEvent stored, Disclosed seen, bool mayEdit, RuleWords words)
    {
        var series = stored.Event.Content.Series;
        var timing = series.Timing;
        return new EventResponse(
            stored.Event.Id,
            stored.Event.HomeCalendarId,
            seen.Detail,
            seen.Title,
            timing.AllDay,
            timing.Start.Date,
            timing.AllDay ? timing.End.Date.PlusDays(-1) : timing.End.Date,
            timing.AllDay ? null : timing.Start.TimeOfDay,
            timing.AllDay ? null : timing.End.TimeOfDay,
            timing.Zone.Id,
            seen.Place,
            seen.Description.Html,
            series.Rule is null ? null : RepeatDraft.Of(series.Rule, timing),
            words.Say(series),
            seen.State,
            mayEdit,
            mayEdit ? stored.Version : null,
            stored.IsRemoved,
            mayEdit ? stored.SavedBy : null,
            mayEdit ? stored.Event.Changed : null);
    }
}
