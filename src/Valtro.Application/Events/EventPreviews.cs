using NodaTime;
using Valtro.Application.Accounts;
using Valtro.Application.Files;
using Valtro.Core;
using Valtro.Core.Disclosure;
using Valtro.Core.Events;
using Valtro.Core.Recurrence;

namespace Valtro.Application.Events;

/// <param name="EventId">The event that is being changed; null for a new one.</param>
/// <param name="RecurrenceId">The date that it is seen from.</param>
public sealed record ConsequencesRequest(EventForm Event, Guid? EventId, string? RecurrenceId);

/// <param name="Remarks">What is special about the date, in words.</param>
public sealed record ConsequenceDateBody(string RecurrenceId, string Start, string End, DateKind Kind, IReadOnlyList<string> Remarks);

/// <param name="Count">Null when there is no end.</param>
/// <param name="Days">The days of the first year on which it takes place.</param>
/// <param name="Begins">Where the first day is not one of the pattern: the first that is.</param>
/// <param name="Rule">The pattern as RRULE, where there is one.</param>
public sealed record ConsequencesResponse(
    string Words, int? Count, bool AllDay, IReadOnlyList<ConsequenceDateBody> Dates, ConsequenceDateBody? Last,
    IReadOnlyList<LocalDate> Days,
    IReadOnlyList<string> Remarks, LocalDate? Begins, string? Rule, ElsewhereBody? OnCalendarClock, IReadOnlyList<WhoSeesBody> WhoSees);

/// <summary>What an event would be as it is typed, before it is saved.</summary>
public sealed class EventPreviews(
    Access access, EventDesk desk, ClashView clashes, RichTexts richTexts, Destinations destinations, Settings settings)
{
    public async Task<ConsequencesResponse> OfAsync(ConsequencesRequest request)
    {
        var viewer = await access.ViewerAsync();
        var calendar = await desk.CalendarForAsync(request.Event.CalendarId);
        var house = await access.HouseAsync();
        var found = request.EventId is { } id ? await desk.FindForChangeAsync(id, withAbout: false) : null;
        var setting = await desk.SettingAsync(calendar, found?.Event);
        var series = Typed(request, setting, found);
        var words = RuleWords.For(Spoken.LocaleIn(house.Organisation));
        var sketch = Filled(Sketch(request.Event, viewer, found, series), request.Event, setting);
        var around = await clashes.AroundAsync(viewer, sketch.Content, setting.School, calendar, request.EventId);
        var consequences = Consequences.Of(
            series, setting.School, words, dates => around.Say(dates, sketch.Content, sketch.Calendars), desk.Now);
        return new ConsequencesResponse(
            consequences.Words,
            consequences.Count,
            series.Timing.AllDay,
            [.. consequences.Dates.Select(date => Body(series, date.Occurrence, date.Kind, date.Remarks))],
            consequences.Last is { } last ? Body(series, last, DateKind.Takes, []) : null,
            consequences.Days,
            consequences.Remarks,
            consequences.Begins,
            series.Rule is { } rule ? RuleText.Format(rule) : null,
            consequences.Dates.Count > 0 ? ElsewhereBody.Of(series.Timing, consequences.Dates[0].Occurrence, calendar.Zone) : null,
            [.. WhoSees.Of(
                sketch, found?.Event, OnDesk.Tables(house.Calendars), words, desk.Now, await destinations.OfUnfinishedAsync(sketch))
                    .Select(WhoSeesBody.Of)]);
    }

    /// <summary>Which editions would deliver the event as it is typed. What is not right yet is left out: saving says so.</summary>
    public async Task<DestinationsResponse> WhereItGoesAsync(ConsequencesRequest request)
    {
        var viewer = await access.ViewerAsync();
        var calendar = await desk.CalendarForAsync(request.Event.CalendarId);
        var found = request.EventId is { } id ? await desk.FindForChangeAsync(id, withAbout: false) : null;
        var setting = await desk.SettingAsync(calendar, found?.Event);
        var sketch = Filled(Sketch(request.Event, viewer, found, Typed(request, setting, found)), request.Event, setting);
        var answer = await destinations.OfAsync(viewer, sketch, found?.Event);
        return answer with
        {
            WhenItGoesOut = answer.WhenItGoesOut || found is { ChangesAtOnce: false },
            Remarks = [.. Doubtful(request.Event, sketch.Content.Description), .. answer.Remarks],
        };
    }

    /// <summary>Links that readers may not be able to follow, in sentences.</summary>
    private IEnumerable<string> Doubtful(EventForm form, RichText description) => form.Links.Select(link => link.Url)
        .Concat(LinkReach.In(description)).Distinct()
        .Select(link => (link, reach: LinkReach.Of(link, settings.PublicUrl)))
        .Where(one => one.reach != Reach.Open).Take(MostDoubtful)
        .Select(one => Spoken.Now.Say($"reach.{one.reach.ToString().ToLowerInvariant()}", ("link", one.link)));

    private const int MostDoubtful = 10;

    /// <summary>With what filters of editions look at.</summary>
    private CalendarEvent Filled(CalendarEvent sketch, EventForm request, DraftSetting setting) => sketch with
    {
        Content = sketch.Content with
        {
            Title = request.Title,
            Kind = request.Kind,
            Certainty = request.Certainty,
            Transparency = request.Transparency,
            Place = Place.Typed(request.Place.Trim(), setting.Places),
            Description = richTexts.Sanitise(request.Description),
            Category = setting.Categories.FirstOrDefault(one => one.Id == request.CategoryId),
            Tags = [.. request.Tags],
            People = [.. request.People],
            StaffSpan = request.StaffSpan ?? StaffSpan.None,
            Reminder = request.Reminder,
        },
    };

    /// <exception cref="RuleException">When it happens cannot be.</exception>
    private static Series Typed(ConsequencesRequest request, DraftSetting setting, OnDesk? found)
    {
        var typed = request.Event.CheckSeries(setting);
        return found is not null && request.RecurrenceId is { } name
            ? AsEveryDate(found, DateName.Read(name, "recurrenceId"), typed)
            : typed;
    }

    /// <summary>The event as far as it decides who sees it. What is not right yet in cap and span is left out: saving says so.</summary>
    private static CalendarEvent Sketch(EventForm request, Viewer viewer, OnDesk? found, Series series)
    {
        var refusals = new RefusalList();
        var cap = refusals.Try(() => new Cap(request.Cap?.Members, request.Cap?.Link, request.Cap?.Everyone)) ?? Cap.None;
        var showing = refusals.Try(() => new ShowingSpan(request.ShowFrom, request.ShowUntil)) ?? ShowingSpan.Always;
        var state = request.IsDraft
            ? EventState.Draft
            : found is { IsUnfinished: false }
            ? found.Event.State
            : viewer.May(CalendarAction.Edit, request.CalendarId)
            ? EventState.Live
            : EventState.Waiting;
        var content = new EventContent(series) { Cap = cap, Showing = showing };
        return new CalendarEvent(Guid.Empty, request.CalendarId, default, content, state, default)
        {
            Placements = [.. (request.Placements ?? found?.Event.Placements ?? [])
                .Where(id =>
                    id != request.CalendarId && viewer.May(CalendarAction.Edit, id) || found?.Event.Placements.Contains(id) == true)],
        };
    }

    /// <summary>The series as it would be if what is typed on one date went for every date; as it is where that is not possible.</summary>
    private static Series AsEveryDate(OnDesk found, LocalDateTime seenFrom, Series typed)
    {
        var change = new Change(ChangeAct.Edit, seenFrom, found.Event.Content with { Series = typed });
        try
        {
            return new SeriesEdit(found.Event, change, found.School).Apply(ChangeScope.Every, new HashSet<LocalDateTime>()).Event.Series;
        }
        catch (RuleException refused) when (refused.Refusals[0].Field == "scope")
        {
            return found.Event.Series;
        }
    }

    private static ConsequenceDateBody Body(Series series, Occurrence occurrence, DateKind kind, IReadOnlyList<string> remarks)
    {
        var times = OccurrenceTimes.Of(series.Timing, occurrence, series.Timing.Zone);
        return new ConsequenceDateBody(times.RecurrenceId, times.Start, times.End, kind, remarks);
    }
}
