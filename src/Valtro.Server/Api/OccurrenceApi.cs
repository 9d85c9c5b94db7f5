using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Mvc;
using NodaTime;
using Valtro.Core;
using Valtro.Core.Disclosure;
using Valtro.Core.Events;
using Valtro.Core.Time;
using Valtro.Server.Accounts;
using Valtro.Store;

namespace Valtro.Server.Api;

/// <param name="RecurrenceId">The local start by the rule: names the date within its series.</param>
/// <param name="Start">ISO 8601 with offset; a date when all day.</param>
/// <param name="End">Exclusive; for whole days the day after the last one.</param>
public sealed record OccurrenceResponse(
    Guid EventId, string RecurrenceId, Guid CalendarId, string Title, string Start, string End, bool AllDay, EventState State,
    string Place, bool Recurs, Detail Detail);

/// <param name="First">The first day of the week, whichever weekday that is in the organisation.</param>
public sealed record WeekLoad(LocalDate First, int Dates);

public sealed record YearResponse(LocalDate From, LocalDate To, IReadOnlyList<WeekLoad> Weeks);

internal static class OccurrenceApi
{
    private const int MostOccurrences = 20_000;
    private const int LongestWindow = 400;

    public static void MapOccurrences(this RouteGroupBuilder api)
    {
        api.MapGet("/occurrences", List);
        api.MapGet("/year", Year);
    }

    private static async Task<Ok<IReadOnlyList<OccurrenceResponse>>> List(QueryDay from, QueryDay to, Guid[]? calendar, Access access, OccurrenceView view)
    {
        var viewer = await access.ViewerAsync();
        var found = await view.InAsync(viewer, from.Date, to.Date, calendar is { Length: > 0 } ? calendar.ToHashSet() : null);
        if (found.Count > MostOccurrences)
            throw new RuleException("to", $"That are {found.Count} dates. At most {MostOccurrences} are answered at once; ask for a shorter window or fewer calendars.");
        return TypedResults.Ok<IReadOnlyList<OccurrenceResponse>>([.. found.Select(Show)]);
    }

    private static OccurrenceResponse Show(SeenOccurrence seen)
    {
        var times = OccurrenceTimes.Of(seen.Event.Content.Series.Timing, seen.Occurrence);
        return new OccurrenceResponse(
            seen.Event.Id, times.RecurrenceId, seen.Event.HomeCalendarId, seen.Disclosed.Title, times.Start, times.End,
            seen.Event.Content.Series.Timing.AllDay, seen.Disclosed.State, seen.Disclosed.Place,
            seen.Disclosed.Detail > Detail.Times && seen.Event.Content.Series.Rule is not null, seen.Disclosed.Detail);
    }

    /// <summary>How full each week of the organisation's year is: the year that holds a day.</summary>
    private static async Task<Ok<YearResponse>> Year([FromQuery(Name = "day")] QueryDay query, Access access, OccurrenceView view, OrganisationStore organisations)
    {
        var viewer = await access.ViewerAsync();
        var organisation = (await organisations.FindAsync(viewer.OrganisationId))!;
        var day = query.Date;
        var startYear = day.Month >= organisation.YearStartsIn ? day.Year : day.Year - 1;
        var begins = new LocalDate(startYear, organisation.YearStartsIn, 1);
        var from = begins.With(DateAdjusters.PreviousOrSame((IsoDayOfWeek)organisation.FirstDayOfWeek));
        var to = begins.PlusYears(1);
        var weeks = (Period.DaysBetween(from, to) + 6) / 7;
        var load = new int[weeks];
        foreach (var seen in await view.InAsync(viewer, from, from.PlusWeeks(weeks), null))
        {
            var week = Period.DaysBetween(from, seen.Occurrence.LocalStart.Date) / 7;
            if (week >= 0 && week < weeks)
                load[week]++;
        }
        return TypedResults.Ok(new YearResponse(from, from.PlusWeeks(weeks), [.. load.Select((dates, week) => new WeekLoad(from.PlusWeeks(week), dates))]));
    }

    internal readonly record struct SeenOccurrence(CalendarEvent Event, Disclosed Disclosed, Core.Recurrence.Occurrence Occurrence);

    /// <summary>Dates as one person may see them.</summary>
    public sealed class OccurrenceView(CalendarStore calendars, EventStore events, OrganisationStore organisations)
    {
        internal async Task<IReadOnlyList<SeenOccurrence>> InAsync(Viewer viewer, LocalDate from, LocalDate to, IReadOnlySet<Guid>? only)
        {
            var organisation = (await organisations.FindAsync(viewer.OrganisationId))!;
            var window = new Window(from, to, organisation.TimeZone, LongestWindow);
            var levels = (await calendars.ListAsync(viewer.OrganisationId))
                .Where(calendar => only is null || only.Contains(calendar.Id))
                .ToDictionary(calendar => calendar.Id, calendar => viewer.DetailOn(calendar.Id, calendar.Disclosure, Cap.None));
            var found = await events.InWindowAsync(viewer.OrganisationId, [.. levels.Where(level => level.Value > Detail.Nothing).Select(level => level.Key)], window);
            return [.. from happening in found
                       let disclosed = viewer.MayEdit(happening.HomeCalendarId)
                           ? Disclosed.Of(happening, levels[happening.HomeCalendarId])
                           : Disclosed.ForReaders(happening, levels[happening.HomeCalendarId])
                       where disclosed is not null
                       from occurrence in happening.Content.Series.In(window)
                       orderby occurrence.Start, occurrence.End descending, happening.Id
                       select new SeenOccurrence(happening, disclosed, occurrence)];
        }
    }
}
