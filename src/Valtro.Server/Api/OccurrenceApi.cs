using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Mvc;
using NodaTime;
using Valtro.Application;
using Valtro.Application.Accounts;
using Valtro.Application.Editions;
using Valtro.Application.Events;
using Valtro.Core;
using Valtro.Core.Disclosure;
using Valtro.Core.Recurrence;
using Valtro.Core.Time;
using Valtro.Core.YearPlans;

namespace Valtro.Server.Api;

/// <param name="First">The first day of the week, whichever weekday that is in the organisation.</param>
/// <param name="Term">The term that holds a day of the week.</param>
/// <param name="Closed">The break that holds one, and how many of its days are closed.</param>
/// <param name="Overloads">Of which categories some readers have more in it than is wanted, in words; for those who make events.</param>
public sealed record WeekLoad(LocalDate First, int Dates, string? Term, string? Closed, int ClosedDays, IReadOnlyList<string> Overloads);

public sealed record YearResponse(LocalDate From, LocalDate To, IReadOnlyList<WeekLoad> Weeks);

/// <summary>A day as the clocks and the year plan have it.</summary>
/// <param name="Start">The instant at which it begins, with its offset.</param>
/// <param name="End">The instant at which the next one begins.</param>
/// <param name="ClocksChangeAt">When the clocks change on it, if they do: the instant after.</param>
/// <param name="Cycle">"Day 3", "Week B"; null where the cycle does not count it.</param>
public sealed record DayResponse(
    LocalDate Day, string Start, string End, string? ClocksChangeAt, string? Closed, string? Term, string? Cycle);

/// <param name="Total">Of all pages.</param>
/// <param name="Page">From 1 on.</param>
/// <param name="Tags">Those of all pages, to narrow by.</param>
public sealed record ListResponse(
    int Total, int Page, int Pages, IReadOnlyList<OccurrenceResponse> Occurrences, IReadOnlyList<string> Tags);

/// <summary>What an address says of a list of dates.</summary>
public sealed record ListQuestion(
    [FromQuery(Name = "from")] QueryDay From, [FromQuery(Name = "to")] QueryDay To, [FromQuery(Name = "calendar")] Guid[]? Calendar,
    [FromQuery(Name = "category")] string? Category, [FromQuery(Name = "tag")] string? Tag, [FromQuery(Name = "place")] string? Place,
    [FromQuery(Name = "words")] string? Words, [FromQuery(Name = "order")] QueryWord<ListOrder>? Order,
    [FromQuery(Name = "person")] string? Person)
{
    public ListAsked Asked => new(
        From.Date, To.Date, (Calendar ?? []).ToHashSet(), Category ?? "", Tag ?? "", Place ?? "", Words ?? "",
        Order?.Value ?? ListOrder.Time, Person ?? "");
}

/// <summary>What an address says of a year's sheet: any day of the year, and what it is narrowed to.</summary>
public sealed record SheetQuestion(
    [FromQuery(Name = "day")] QueryDay Day, [FromQuery(Name = "calendar")] Guid[]? Calendar,
    [FromQuery(Name = "category")] string? Category, [FromQuery(Name = "tag")] string? Tag, [FromQuery(Name = "place")] string? Place,
    [FromQuery(Name = "person")] string? Person)
{
    public ListAsked Asked => new(
        Day.Date, Day.Date, (Calendar ?? []).ToHashSet(), Category ?? "", Tag ?? "", Place ?? "", "", ListOrder.Time,
        Person ?? "");
}

internal static class OccurrenceApi
{
    private const int OnOnePage = 100;

    /// <summary>As many are printed at once.</summary>
    private const int MostOnOnePage = 5_000;

    private const int MostTags = 200;

    public static void MapOccurrences(this RouteGroupBuilder api)
    {
        api.MapGet("/occurrences", List);
        api.MapGet("/occurrences/list", Page);
        api.MapGet("/occurrences/list/names", Names);
        foreach (var form in Enum.GetValues<ListForm>())
            api.MapGet($"/occurrences/list.{Ending(form)}",
                (Access access, OccurrenceList list, PublicAddresses addresses, IClock clock, [AsParameters] ListQuestion question) =>
                    File(form, question, access, list, addresses, clock));
        api.MapGet("/occurrences/sheet",
            async ([AsParameters] SheetQuestion question, OccurrenceSheet sheet) => TypedResults.Ok(await sheet.FindAsync(question.Asked)));
        api.MapGet("/year", Year);
        api.MapGet("/days", Days);
    }

    private static async Task<Ok<IEnumerable<OccurrenceResponse>>> List(
        QueryDay from, QueryDay to, Guid[]? calendar, Access access, OccurrenceView view)
    {
        var viewer = await access.ViewerAsync();
        var zone = (await access.HouseAsync()).Organisation.TimeZone;
        var found = await view.InAsync(viewer, from.Date, to.Date, calendar is { Length: > 0 } ? calendar.ToHashSet() : null);
        OccurrenceView.CheckCount(found.Count);
        return TypedResults.Ok(found.Select(seen => OccurrenceResponse.Of(seen, zone)));
    }

    private static async Task<Ok<ListResponse>> Page(
        [AsParameters] ListQuestion question, int? page, int? size, Access access, OccurrenceList list)
    {
        var found = await list.FindAsync(question.Asked);
        var zone = (await access.HouseAsync()).Organisation.TimeZone;
        var onOne = Math.Clamp(size ?? OnOnePage, 1, MostOnOnePage);
        var pages = Math.Max(1, (found.Count + onOne - 1) / onOne);
        var asked = Math.Clamp(page ?? 1, 1, pages);
        return TypedResults.Ok(new ListResponse(
            found.Count, asked, pages,
            [.. found.Skip((asked - 1) * onOne).Take(onOne).Select(one => OccurrenceResponse.Of(one, zone))],
            [.. found.SelectMany(one => one.Disclosed.Content.Tags).Distinct().Order(StringComparer.CurrentCultureIgnoreCase)
                .Take(MostTags)]));
    }

    /// <summary>All dates of a list that the person may change, by name: all that match can be chosen.</summary>
    private static async Task<Ok<IReadOnlyList<ChosenDateBody>>> Names(
        [AsParameters] ListQuestion question, Access access, OccurrenceList list)
    {
        var viewer = await access.ViewerAsync();
        ChosenDateBody[] names = [.. from one in await list.FindAsync(question.Asked)
                                     let found = one.Date.Event
                                     where viewer.May(CalendarAction.Contribute, found.HomeCalendarId)
                                     select new ChosenDateBody(
                                         found.Id, DateName.Of(one.Date.Occurrence.RecurrenceId, found.Series.Timing.AllDay))];
        return names.Length <= ChosenEvents.MostDates
            ? TypedResults.Ok<IReadOnlyList<ChosenDateBody>>(names)
            : throw new RuleException("dates", "chosen.howMany", ("count", names.Length), ("most", ChosenEvents.MostDates));
    }

    private static async Task<FileContentHttpResult> File(
        ListForm form, ListQuestion question, Access access, OccurrenceList list, PublicAddresses addresses, IClock clock)
    {
        var house = await access.HouseAsync();
        var organisation = house.Organisation;
        var found = await list.FindAsync(question.Asked);
        var now = Instant.FromUnixTimeSeconds(clock.GetCurrentInstant().ToUnixTimeSeconds());
        return TypedResults.File(
            OccurrenceFiles.Write(form, found, house, new Uri(addresses.Desk(access.At("/plan"))), now), OccurrenceFiles.TypeOf(form),
            $"{organisation.Slug}-{question.From.Date:uuuu-MM-dd}.{Ending(form)}");
    }

    private static string Ending(ListForm form) => form.ToString().ToLowerInvariant();

    /// <summary>How full each week of the organisation's year is: the year that holds a day.</summary>
    private static async Task<Ok<YearResponse>> Year(
        QueryDay day, Access access, OccurrenceView view)
    {
        var (viewer, house) = (await access.ViewerAsync(), await access.HouseAsync());
        var (organisation, school) = (house.Organisation, house.School);
        var asked = DayRange.Check("day", day.Date);
        var begins = YearSheet.FirstOf(asked, organisation.YearStartsIn);
        var from = begins.With(DateAdjusters.PreviousOrSame((IsoDayOfWeek)organisation.FirstDayOfWeek));
        var to = begins.PlusYears(1);
        var weeks = (Period.DaysBetween(from, to) + 6) / 7;
        var load = new int[weeks];
        var seenDates = await view.InAsync(viewer, DayRange.Nearest(from), DayRange.Nearest(from.PlusWeeks(weeks)), null);
        var overloads = (viewer.ContributesSomewhere ? ClashView.Overloads(seenDates, house) : [])
            .ToLookup(one => one.Week, one => one.Said);
        foreach (var seen in seenDates)
        {
            var week = Period.DaysBetween(from, seen.Date.Occurrence.LocalStart.Date) / 7;
            if (week >= 0 && week < weeks)
                load[week]++;
        }
        return TypedResults.Ok(new YearResponse(from, from.PlusWeeks(weeks), [.. load.Select((dates, week) =>
            Load(from.PlusWeeks(week), dates, school, overloads[from.PlusWeeks(week)]))]));
    }

    private static WeekLoad Load(LocalDate first, int dates, SchoolCalendar school, IEnumerable<string> overloads)
    {
        var days = Enumerable.Range(0, 7).Select(first.PlusDays).ToArray();
        return new WeekLoad(
            first,
            dates,
            days.Select(school.TermOn).FirstOrDefault(term => term is not null)?.Name,
            days.Select(school.BreakOn).FirstOrDefault(closed => closed is not null)?.Name,
            days.Count(school.IsClosed),
            [.. overloads]);
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
