using Microsoft.AspNetCore.Http.HttpResults;
using NodaTime;
using Valtro.Application;
using Valtro.Application.Accounts;
using Valtro.Application.Events;
using Valtro.Core;
using Valtro.Core.Disclosure;
using Valtro.Core.Events;
using Valtro.Core.Time;
using Valtro.Core.YearPlans;

namespace Valtro.Server.Api;

/// <param name="RecurrenceId">The local start by the rule: names the date within its series.</param>
/// <param name="Start">ISO 8601 with offset, on the organisation's clock; a date when all day.</param>
/// <param name="End">Exclusive; for whole days the day after the last one.</param>
/// <param name="IsException">This date differs from its series.</param>
/// <param name="Own">The same on the event's own clock, where it has another.</param>
/// <param name="AlsoOn">Further calendars on which the person sees it: one event, not a copy.</param>
/// <param name="IsYours">The person made it, and it has not gone out yet.</param>
/// <param name="Version">Of its event, to be sent with a change; null for those who may not change it.</param>
public sealed record OccurrenceResponse(
    Guid EventId, string RecurrenceId, Guid CalendarId, string Title, string Start, string End, bool AllDay, EventState State,
    string Place, CategoryBody? Category, IReadOnlyList<string> Tags, bool Recurs, bool IsException, ElsewhereBody? Own, Detail Detail,
        IReadOnlyList<Guid> AlsoOn, bool IsYours, int? Version);

/// <param name="First">The first day of the week, whichever weekday that is in the organisation.</param>
/// <param name="Term">The term that holds a day of the week.</param>
/// <param name="Closed">The break that holds one, and how many of its days are closed.</param>
public sealed record WeekLoad(LocalDate First, int Dates, string? Term, string? Closed, int ClosedDays);

public sealed record YearResponse(LocalDate From, LocalDate To, IReadOnlyList<WeekLoad> Weeks);

/// <summary>A day as the clocks and the year plan have it.</summary>
/// <param name="Start">The instant at which it begins, with its offset.</param>
/// <param name="End">The instant at which the next one begins.</param>
/// <param name="ClocksChangeAt">When the clocks change on it, if they do: the instant after.</param>
/// <param name="Cycle">"Day 3", "Week B"; null where the cycle does not count it.</param>
public sealed record DayResponse(
    LocalDate Day, string Start, string End, string? ClocksChangeAt, string? Closed, string? Term, string? Cycle);

internal static class OccurrenceApi
{
    private const int MostOccurrences = 20_000;

    public static void MapOccurrences(this RouteGroupBuilder api)
    {
        api.MapGet("/occurrences", List);
        api.MapGet("/year", Year);
        api.MapGet("/days", Days);
    }

    private static async Task<Ok<IEnumerable<OccurrenceResponse>>> List(
        QueryDay from, QueryDay to, Guid[]? calendar, Access access, OccurrenceView view)
    {
        var viewer = await access.ViewerAsync();
        var zone = (await access.HouseAsync()).Organisation.TimeZone;
        var found = await view.InAsync(viewer, from.Date, to.Date, calendar is { Length: > 0 } ? calendar.ToHashSet() : null);
        if (found.Count > MostOccurrences)
            throw new RuleException("to", "window.tooManyDates", ("count", found.Count), ("most", MostOccurrences));
        return TypedResults.Ok(found.Select(seen => Show(seen, zone)));
    }

    private static OccurrenceResponse Show(SeenOccurrence seen, DateTimeZone zone)
    {
        var (date, disclosed) = (seen.Date, seen.Disclosed);
        var timing = date.Event.Series.Timing;
        var times = OccurrenceTimes.Of(timing, date.Occurrence, zone, disclosed.Detail);
        var tells = disclosed.Detail > Detail.Times;
        return new OccurrenceResponse(
            date.Event.Id, times.RecurrenceId, seen.Sight.Calendars[0], disclosed.Title, times.Start, times.End, timing.AllDay,
            disclosed.State,
            disclosed.Content.Place.Name, CategoryBody.Of(disclosed.Content.Category), disclosed.Content.Tags,
            tells && date.Event.Series.Recurs,
            tells && date.IsException,
            ElsewhereBody.OnItsOwn(timing, date.Occurrence, zone),
            disclosed.Detail,
            [.. seen.Sight.Calendars.Skip(1)],
            seen.IsYours,
            seen.Sight.Grants.HasFlag(Grants.Settings) ? date.Event.Version : null);
    }

    /// <summary>How full each week of the organisation's year is: the year that holds a day.</summary>
    private static async Task<Ok<YearResponse>> Year(
        QueryDay day, Access access, OccurrenceView view)
    {
        var (viewer, house) = (await access.ViewerAsync(), await access.HouseAsync());
        var (organisation, school) = (house.Organisation, house.School);
        var asked = DayRange.Check("day", day.Date);
        var begins = new LocalDate(asked.Month >= organisation.YearStartsIn ? asked.Year : asked.Year - 1, organisation.YearStartsIn, 1);
        var from = begins.With(DateAdjusters.PreviousOrSame((IsoDayOfWeek)organisation.FirstDayOfWeek));
        var to = begins.PlusYears(1);
        var weeks = (Period.DaysBetween(from, to) + 6) / 7;
        var load = new int[weeks];
        foreach (var seen in await view.InAsync(viewer, DayRange.Nearest(from), DayRange.Nearest(from.PlusWeeks(weeks)), null))
        {
            var week = Period.DaysBetween(from, seen.Date.Occurrence.LocalStart.Date) / 7;
            if (week >= 0 && week < weeks)
                load[week]++;
        }
        return TypedResults.Ok(
            new YearResponse(from, from.PlusWeeks(weeks), [.. load.Select((dates, week) => Load(from.PlusWeeks(week), dates, school))]));
    }

    private static WeekLoad Load(LocalDate first, int dates, SchoolCalendar school)
    {
        var days = Enumerable.Range(0, 7).Select(first.PlusDays).ToArray();
        return new WeekLoad(
            first,
            dates,
            days.Select(school.TermOn).FirstOrDefault(term => term is not null)?.Name,
            days.Select(school.BreakOn).FirstOrDefault(closed => closed is not null)?.Name,
            days.Count(school.IsClosed));
    }

    private static async Task<Ok<IReadOnlyList<DayResponse>>> Days(QueryDay from, QueryDay to, Access access)
    {
        var house = await access.HouseAsync();
        var (organisation, school) = (house.Organisation, house.School);
        var zone = organisation.TimeZone;
        var window = Window.Asked(from.Date, to.Date, zone, OccurrenceView.LongestWindow);
        return TypedResults.Ok<IReadOnlyList<DayResponse>>(
            [.. Enumerable.Range(0, Period.DaysBetween(window.First, window.End))
                .Select(index => Show(window.First.PlusDays(index), zone, school))]);
    }

    private static DayResponse Show(LocalDate day, DateTimeZone zone, SchoolCalendar school)
    {
        var (start, end) = (LocalTimes.StartOf(day, zone), LocalTimes.StartOf(day.PlusDays(1), zone));
        var interval = zone.GetZoneInterval(start);
        return new DayResponse(
            day,
            OccurrenceTimes.At(start, zone),
            OccurrenceTimes.At(end, zone),
            interval.HasEnd && interval.End < end ? OccurrenceTimes.At(interval.End, zone) : null,
            school.BreakOn(day)?.Name,
            school.TermOn(day)?.Name,
            (school.NumberOf(day), school.PlanOf(day)?.Cycle?.Unit) switch
            {
                (0, _) or (_, null) => null,
                (var number, CycleUnit.Days) => Spoken.Now.Say("cycle.day", ("number", number)),
                (var number, _) => Spoken.Now.Say("cycle.week", ("letter", ((char)('A' + number - 1)).ToString())),
            });
    }
}
