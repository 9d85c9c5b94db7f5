using NodaTime;
using Valtro.Application.Accounts;
using Valtro.Application.Events;
using Valtro.Core;
using Valtro.Core.Acts;
using Valtro.Core.Disclosure;
using Valtro.Core.Events;
using Valtro.Core.Recurrence;
using Valtro.Core.Time;
using Valtro.Core.YearPlans;
using Valtro.Store;

namespace Valtro.Application.Years;

/// <summary>A year's events carried to the next, by term and week: looked at as a table, then made by one act.</summary>
public sealed class CarriedYears(Access access, EventStore events, ClashView clashes, Commits commits)
{
    /// <summary>As many events are carried at once.</summary>
    public const int MostRows = 5_000;

    /// <summary>All that one carrying is made of.</summary>
    private sealed record Ground(
        Viewer Viewer, House House, Carrying Carrying, IReadOnlyList<CalendarEvent> Events, ILookup<(Guid, string, LocalDate), Guid> There)
    {
        public SchoolCalendar School => House.School;

        public RuleWords Words => RuleWords.For(Spoken.LocaleIn(House.Organisation));
    }

    /// <summary>An event as it would be; <paramref name="Refused"/> where it cannot be.</summary>
    private sealed record Row(CalendarEvent Before, CarriedEvent? Carried, EventContent? Content, Refusal? Refused);

    public async Task<CarryResponse> PreviewAsync(Guid fromId, CarryRequest request)
    {
        var ground = await GroundAsync(fromId, request.Into);
        var corrected = Corrections(request.Rows);
        var only = request.Only?.ToHashSet();
        Row[] rows = [.. ground.Events.Where(one => only is null || only.Contains(one.Id) || request.Chosen is not null)
            .Select(one => Read(ground, one, corrected.GetValueOrDefault(one.Id))).OfType<Row>()];
        Row[] shown = [.. rows.Where(row => only is null || only.Contains(row.Before.Id))];
        var taken = await TakenAsync(ground, shown);
        var chosen = request.Chosen?.ToHashSet();
        var made = rows.Where(row => row.Content is not null && (chosen?.Contains(row.Before.Id) ?? !IsThere(ground, row)));
        return new CarryResponse(
            ground.Carrying.From.Name,
            ground.Carrying.Into.Name,
            [.. shown.Select(row => Show(ground, row, taken))
                .OrderBy(row => row.From).ThenBy(row => row.Title, StringComparer.CurrentCulture)],
            ForeseenBody.WhoWillSee(Making(ground, made, asDrafts: false), ground.House.Disclosures));
    }

    /// <exception cref="RuleException">One of the rows cannot be made; the field names it.</exception>
    public async Task<ActResponse> SaveAsync(Guid fromId, CarrySaveRequest request)
    {
        if (request.Rows.Count is 0 or > MostRows)
            throw new RuleException("rows", "carry.howMany", ("count", request.Rows.Count), ("most", MostRows));
        var ground = await GroundAsync(fromId, request.Into);
        var known = ground.Events.ToDictionary(one => one.Id);
        var refusals = new RefusalList();
        var rows = new List<Row>();
        foreach (var (asked, index) in Corrections(request.Rows).Values.Select((asked, index) => (asked, index)))
        {
            var row = known.TryGetValue(asked.EventId, out var before) ? Read(ground, before, asked) : null;
            if (row?.Refused is { } refused)
                refusals.Add(refused with { Field = $"rows[{index}].{refused.Field}" });
            else if (row?.Content is null)
                refusals.Add($"rows[{index}]", "carry.notCarried", ("title", row?.Before.Content.Title ?? ""));
            else
                rows.Add(row);
        }
        refusals.ThrowIfAny();
        var act = Making(ground, rows, request.AsDrafts);
        var done = await commits.CommitAsync(act);
        return new ActResponse(done!.ActId, act.Writes.Count);
    }

    /// <summary>What an editor may carry: the events of their calendars that have a date in the year.</summary>
    private async Task<Ground> GroundAsync(Guid fromId, Guid intoId)
    {
        var (viewer, house) = (await access.ViewerAsync(), await access.HouseAsync());
        YearPlan Plan(string field, Guid id) => house.Plans.FirstOrDefault(one => one.Id == id)?.Plan
            ?? throw new RuleException(field, "chosen.noSuchYear");
        var (from, into) = (Plan("from", fromId), Plan("into", intoId));
        if (into.First <= from.First)
            throw new RuleException("into", "carry.notLater", ("year", into.Name), ("from", from.Name));
        Guid[] calendars = [.. house.Calendars.Keys.Where(id => viewer.May(CalendarAction.Edit, id))];
        Access.Require(calendars.Length > 0, "access.editorsCarry");
        var zone = house.Organisation.TimeZone;
        var found = await events.InWindowAsync(viewer.OrganisationId, calendars, new Window(from.First, from.Last.PlusDays(1), zone));
        var there = await events.InWindowAsync(viewer.OrganisationId, calendars, new Window(into.First, into.Last.PlusDays(1), zone));
        var mine = calendars.ToHashSet();
        // What a followed source says, it says next year too, if it does.
        CalendarEvent[] own = [.. found.Where(one => one.Source is null && mine.Contains(one.HomeCalendarId))];
        return own.Length <= MostRows
            ? new Ground(viewer, house, new Carrying(from, into, house.School.FirstDayOfWeek), own,
                there.ToLookup(one => Named(one.HomeCalendarId, one.Content), one => one.Id))
            : throw new RuleException("calendars", "carry.tooMany", ("count", own.Length), ("most", MostRows));
    }

    private static Dictionary<Guid, CarryRowBody> Corrections(IReadOnlyList<CarryRowBody> rows) =>
        rows.Count <= MostRows
            ? rows.GroupBy(row => row.EventId).ToDictionary(group => group.Key, group => group.Last())
            : throw new RuleException("rows", "carry.howMany", ("count", rows.Count), ("most", MostRows));

    private static (Guid, string, LocalDate) Named(Guid calendar, EventContent content) =>
        (calendar, content.Title.ToUpperInvariant(), content.Series.Timing.Start.Date);

    private static bool IsThere(Ground ground, Row row) =>
        row.Content is { } content && ground.There[Named(row.Before.HomeCalendarId, content)].Any(id => id != row.Before.Id);

    /// <returns>Null where it has no date in the year.</returns>
    private static Row? Read(Ground ground, CalendarEvent before, CarryRowBody? asked)
    {
        try
        {
            if (asked?.Day is { } day)
                DayRange.Check("day", day);
            if (CarriedEvent.Of(before, ground.Carrying, ground.School, asked?.Day) is not { } carried)
                return null;
            var title = asked?.Title is { } typed ? Texts.OneLine("title", "what.title", typed, Texts.LongestTitle) : null;
            var content = carried.Content is { } plain && title is not null ? plain with { Title = title } : carried.Content;
            return new Row(before, carried, content, null);
        }
        catch (RuleException refused)
        {
            return new Row(before, CarriedEvent.Of(before, ground.Carrying, ground.School), null, refused.Refusals[0]);
        }
    }

    private static Act Making(Ground ground, IEnumerable<Row> rows, bool asDrafts)
    {
        var planner = new ActPlanner(ground.Viewer, ground.House.Calendars, ground.School);
        return Act.All([.. rows.Select(row => planner.Making(row.Content!, new Standing(
            row.Before.HomeCalendarId,
            [.. row.Before.Placements.Where(id =>
                ground.House.Calendars.TryGetValue(id, out var calendar) && calendar.ArchivedAt is null
                && ground.Viewer.DetailOn(id, calendar.Disclosure) > Detail.Nothing)],
            asDrafts)))]);
    }

    /// <summary>Rows of which a place is taken, with the first thing that takes it.</summary>
    private async Task<IReadOnlyDictionary<Guid, string>> TakenAsync(Ground ground, Row[] rows)
    {
        var placed = rows.Where(row => row.Content?.Place.Id is not null)
            .Select(row => row.Before with { Content = row.Content!, Exceptions = [], State = EventState.Live }).ToArray();
        EventDate[] dates = [.. placed.SelectMany(one => EventDates.All(one, ground.School).Take(ChosenPlanner.DatesShown))];
        var around = await clashes.AmongAsync(ground.Viewer, dates, new HashSet<Guid>());
        var taken = new Dictionary<Guid, string>();
        foreach (var own in dates.GroupBy(date => date.Event.Id))
        {
            var sketch = own.First().Event;
            var said = around.SayPlaces([.. own.Select(date => date.Occurrence)], sketch.Content, own.Key);
            if (said is not null)
                taken[own.Key] = said;
        }
        return taken;
    }

    private static CarriedRow Show(Ground ground, Row row, IReadOnlyDictionary<Guid, string> taken)
    {
        var (before, carried, words) = (row.Before, row.Carried!, ground.Words);
        var remarks = carried.Remarks.Select(Spoken.Now.Say).ToList();
        var needsLook = !carried.IsPlain;
        var isThere = IsThere(ground, row);
        if (row.Refused is { } refused)
            remarks.Insert(0, Spoken.Now.Say(refused.Saying));
        if (isThere)
            remarks.Insert(0, Spoken.Now.Say("carry.there"));
        if (taken.TryGetValue(before.Id, out var by))
            remarks.Add(by);
        if (row.Content is { Series.Recurs: true } content)
            needsLook |= AddBreaks(ground, content.Series, remarks);
        var closed = ground.Carrying.From.Breaks.FirstOrDefault(span => span.Holds(carried.From));
        var recurs = before.Series.Recurs;
        return new CarriedRow(
            before.Id, before.HomeCalendarId, before.Content.Category?.Name,
            before.Content.Title, row.Content?.Title ?? before.Content.Title,
            closed?.Name ?? carried.To.Term?.Name ?? "", closed is not null, carried.From,
            recurs ? words.Say(before.Series) : words.Day(carried.From, withWeekday: true),
            carried.To.Week, carried.Last?.Week ?? 0, carried.Last?.Term?.Name ?? "", carried.To.Day,
            row.Content is { } made && recurs ? words.Say(made.Series) : words.Day(carried.To.Day, withWeekday: true),
            recurs, row.Content is not null, isThere,
            (needsLook || taken.ContainsKey(before.Id)) && row.Content is not null && !isThere || row.Refused is not null, remarks);
    }

    /// <returns>Whether somebody should look at it.</returns>
    private static bool AddBreaks(Ground ground, Series series, List<string> remarks)
    {
        LocalDate[] closed = [.. series.Pattern(series.Timing.Start, ground.School).Take(ChosenPlanner.DatesShown * 5)
            .Select(date => date.Date).Where(ground.School.IsClosed)];
        if (closed.Length == 0)
            return false;
        var stays = series.InBreaks == InBreaks.Ignore && series.Rule is not null;
        remarks.Add(Spoken.Now.Say(stays ? "carry.inBreaks" : "carry.leftOut",
            ("count", closed.Length), ("break", ground.School.BreakOn(closed[0])!.Name)));
        return stays;
    }
}
