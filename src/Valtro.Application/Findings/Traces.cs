using NodaTime;
using Valtro.Application.Accounts;
using Valtro.Application.Editions;
using Valtro.Application.Events;
using Valtro.Core.Disclosure;
using Valtro.Core.Editions;
using Valtro.Core.Events;
using Valtro.Core.Findings;
using Valtro.Core.Recurrence;
using Valtro.Core.Time;
using Valtro.Store;

namespace Valtro.Application.Findings;

/// <summary>Why a date is, or is not, in an edition; and where it goes.</summary>
/// <remarks>The words are those of the steps of the composition (<see cref="Trace"/>). They say what an event is kept as, so whoever sees
/// less than all of it is told nothing.</remarks>
public sealed class Traces(Access access, ComposersEditions composed, EventDesk desk, EventStore events)
{
    private const int MostEditions = 60;

    /// <param name="name">Of the date; the event's next one where none is said.</param>
    public async Task<TraceBody> OfAsync(Guid editionId, Guid eventId, string? name)
    {
        var (viewer, house, edition) = await composed.FindAsync(editionId);
        var (calendarEvent, date) = await DateAsync(eventId, name, house);
        var all = await AroundAsync(viewer, [edition], calendarEvent, date, house);
        return Of(edition, calendarEvent, date, all, house);
    }

    /// <summary>Each edition that the person composes, with whether the date goes there.</summary>
    public async Task<WhereResponse> WhereAsync(Guid eventId, string? name)
    {
        var (viewer, house) = (await access.ViewerAsync(), await access.HouseAsync());
        var (calendarEvent, date) = await DateAsync(eventId, name, house);
        var on = calendarEvent.Calendars.ToHashSet();
        StoredEdition[] asked = [.. house.Editions
            .Where(edition => (edition.CalendarId is not { } own || on.Contains(own)) && !edition.IsInTheMaking
                && viewer.MayCompose(edition.Sources, house.Disclosures))
            .OrderByDescending(edition => edition.Sources.Any(on.Contains)).Take(MostEditions)];
        var all = await AroundAsync(viewer, asked, calendarEvent, date, house);
        return new WhereResponse(
            eventId, DateName.Of(date.Occurrence.RecurrenceId, date.Timing.AllDay), date.Title,
            RuleWords.For(Spoken.LocaleIn(house.Organisation)).Say(date.Timing),
            [.. asked.Select(edition => Of(edition, calendarEvent, date, all, house))]);
    }

    /// <exception cref="NotFoundException">There is no such event or date, or the person does not see all of it.</exception>
    private async Task<(CalendarEvent Event, EventDate Date)> DateAsync(Guid eventId, string? name, House house)
    {
        var found = await desk.FindAsync(eventId, withAbout: false);
        if (found.Sight.Detail < Detail.Complete)
            throw new NotFoundException("event");
        var date = name is null
            ? EventDates.NextOrLast(found.Event, desk.Now, house.School)
            : EventDates.Find(found.Event, DateName.Read(name, "date"), house.School);
        return (found.Event, date ?? throw new NotFoundException("date"));
    }

    /// <summary>What is on around the date on the calendars of some editions: look-alikes are merged with it, and where one ends after so
    /// many, all that comes before it counts.</summary>
    private async Task<IReadOnlyList<CalendarEvent>> AroundAsync(
        Viewer viewer, IReadOnlyList<StoredEdition> asked, CalendarEvent calendarEvent, EventDate date, House house)
    {
        Guid[] calendars = [.. asked.SelectMany(edition => edition.Sources).Concat(calendarEvent.Calendars).Distinct()];
        var found = await events.InWindowAsync(viewer.OrganisationId, calendars, WindowOf(
            date, asked.Any(edition => edition.Draft.Limit is not null), Zones.Named(house.Organisation.Zone)));
        return found.Any(one => one.Id == calendarEvent.Id) ? found : [.. found, calendarEvent];
    }

    private Window WindowOf(EventDate date, bool hasLimit, DateTimeZone zone)
    {
        var day = date.Occurrence.LocalStart.Date;
        var first = hasLimit ? LocalDate.Min(day, desk.Now.InZone(zone).Date.PlusYears(-1)) : day;
        return new Window(first.PlusDays(-1), date.Occurrence.LocalEnd.Date.PlusDays(2), zone);
    }

    private TraceBody Of(
        StoredEdition edition, CalendarEvent calendarEvent, EventDate date, IReadOnlyList<CalendarEvent> all, House house)
    {
        var (made, sources) = ProofGrounds.Made(edition, house);
        var trace = new Trace(calendarEvent.Id, date.Occurrence.RecurrenceId);
        new Composition(made.Edition, sources, house.School, desk.Now)
            .Compose(all, WindowOf(date, edition.Draft.Limit is not null, made.Edition.Zone), trace);
        return new TraceBody(
            edition.Id, edition.Name, made.Edition.Audience, edition.IsStandard, trace.IsIn,
            [.. trace.Verdicts.Select(one => new VerdictBody(one.Step, one.Passes, Spoken.Now.Say(one.Saying)))],
            [.. TraceWays.Of(trace, calendarEvent, date.Occurrence.RecurrenceId, made.Edition, sources).Select(RemedyBody.Of)]);
    }
}
