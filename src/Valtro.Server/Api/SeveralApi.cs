using Microsoft.AspNetCore.Http.HttpResults;
using NodaTime;
using Valtro.Application;
using Valtro.Application.Accounts;
using Valtro.Application.Events;
using Valtro.Core;
using Valtro.Core.Disclosure;
using Valtro.Core.Events;
using Valtro.Core.Recurrence;
using Valtro.Core.Speaking;
using Valtro.Core.Typing;
using Valtro.Store;
using CultureInfo = System.Globalization.CultureInfo;

namespace Valtro.Server.Api;

/// <param name="Day">Where "tomorrow" and weekdays count from.</param>
public sealed record LineRequest(string Text, LocalDate Day);

public sealed record LineResponse(EventForm Event, IReadOnlyList<Understood> Understood, IReadOnlyList<string> Unread);

/// <param name="CalendarId">For rows that name none.</param>
public sealed record SeveralRequest(IReadOnlyList<TableRow> Rows, Guid? CalendarId);

/// <param name="Words">What the row was read as; empty when something is wrong.</param>
/// <param name="Errors">By column.</param>
public sealed record RowResponse(bool IsEmpty, string Words, Guid? CalendarId, IReadOnlyDictionary<string, string> Errors);

public sealed record SeveralResponse(IReadOnlyList<RowResponse> Rows);

/// <summary>Events said quickly: one in a line of text, or many in a table.</summary>
internal static class SeveralApi
{
    public static void MapSeveral(this RouteGroupBuilder api)
    {
        api.MapPost("/events/line", Line).ReadsOnly();
        api.MapPost("/events/several/check", async (SeveralRequest request, Reader reader) => TypedResults.Ok(Shown(await reader.ReadAsync(request)))).ReadsOnly();
        api.MapPost("/events/several", Save).AddEndpointFilter<OnceFilter>();
    }

    private static async Task<Ok<LineResponse>> Line(LineRequest request, Access access)
    {
        var viewer = await access.ViewerAsync();
        var house = await access.HouseAsync();
        var reading = OneLine.Read(request.Text, CultureInfo.GetCultureInfo(Spoken.LocaleIn(house.Organisation)), request.Day);
        var calendar = reading.CalendarPlate is null
            ? null
            : house.Calendars.Values.FirstOrDefault(one => one.Plate.Code == reading.CalendarPlate && viewer.May(CalendarAction.Contribute, one.Id));
        var isUnknown = reading.CalendarPlate is not null && calendar is null;
        return TypedResults.Ok(new LineResponse(
            new EventForm(reading.Draft) { CalendarId = calendar?.Id ?? Guid.Empty },
            [.. reading.Understood.Where(one => !(isUnknown && one.Field == "calendarId")).Select(one => one.Field == "calendarId" ? one with { Means = calendar!.Name } : one)],
            isUnknown ? [.. reading.Unread, Spoken.Now.Say("line.noSuchPlate", ("plate", reading.CalendarPlate))] : reading.Unread));
    }

    private static async Task<Results<Ok<ActResponse>, ProblemHttpResult>> Save(SeveralRequest request, Reader reader, Access access, EventChanges changes)
    {
        var rows = await reader.ReadAsync(request);
        var refusals = rows.SelectMany((row, index) => row.Refusals.Select(refusal => new Refusal($"rows[{index}].{refusal.Field}", Saying.Of("row.line", ("index", index + 1), ("refusal", refusal.Saying))))).ToArray();
        if (refusals.Length > 0)
            throw new RuleException(refusals);
        var events = rows.Where(row => row.Content is not null).Select(row => (row.Calendar!.Id, row.Content!)).ToArray();
        if (events.Length == 0)
            throw new RuleException("rows", "row.tableEmpty");
        var done = await changes.AddSeveralAsync(await access.ViewerAsync(), events);
        return TypedResults.Ok(new ActResponse(done.ActId, events.Length));
    }

    private static SeveralResponse Shown(IReadOnlyList<ReadRow> rows) => new([.. rows.Select(row => new RowResponse(
        row.IsEmpty,
        row.Words,
        row.Calendar?.Id,
        row.Refusals.GroupBy(refusal => refusal.Field).ToDictionary(group => group.Key, group => string.Join(" ", group.Select(refusal => Spoken.Now.Say(refusal.Saying))))))]);

    /// <summary>A row as it was understood.</summary>
    public sealed record ReadRow(bool IsEmpty, Calendar? Calendar, EventContent? Content, string Words, IReadOnlyList<Refusal> Refusals);

    public sealed class Reader(Access access, EventDesk desk, IClock clock)
    {
        public async Task<IReadOnlyList<ReadRow>> ReadAsync(SeveralRequest request)
        {
            if (request.Rows.Count > TableRow.Most)
                throw new RuleException("rows", "row.tooMany", ("count", request.Rows.Count), ("most", TableRow.Most));
            var viewer = await access.ViewerAsync();
            var house = await access.HouseAsync();
            var organisation = house.Organisation;
            var mine = house.Calendars.Values.Where(calendar => viewer.May(CalendarAction.Edit, calendar.Id)).ToArray();
            var settings = new Dictionary<Guid, DraftSetting>();
            foreach (var calendar in mine)
                settings[calendar.Id] = settings.Count == 0 ? await desk.SettingAsync(calendar) : settings.Values.First() with { CalendarZone = calendar.Zone };
            var culture = CultureInfo.GetCultureInfo(Spoken.LocaleIn(organisation));
            var today = clock.GetCurrentInstant().InZone(organisation.TimeZone).Date;
            return [.. request.Rows.Select(row => Read(row, request.CalendarId, mine, settings, culture, today))];
        }

        private static ReadRow Read(TableRow row, Guid? usual, Calendar[] mine, Dictionary<Guid, DraftSetting> settings, CultureInfo culture, LocalDate today)
        {
            if (row.IsEmpty)
                return new ReadRow(true, null, null, "", []);
            var refusals = new RefusalList();
            var calendar = CalendarOf(row.Calendar, usual, mine, refusals);
            var draft = row.Read(culture, today, refusals);
            if (string.IsNullOrWhiteSpace(row.Title))
                refusals.Try(() => Texts.OneLine("title", "what.title", row.Title, Texts.LongestTitle));
            var content = refusals.IsEmpty ? refusals.Try(() => draft.Check(settings[calendar!.Id], RichText.Empty)) : null;
            return new ReadRow(false, calendar, content, content is null ? "" : RuleWords.For(culture.Name).Say(content.Series), refusals.All);
        }

        private static Calendar? CalendarOf(string? text, Guid? usual, Calendar[] mine, RefusalList refusals)
        {
            var name = (text ?? "").Trim();
            var found = name.Length == 0
                ? mine.FirstOrDefault(calendar => calendar.Id == usual)
                : mine.FirstOrDefault(calendar => calendar.Plate.Code.Equals(name, StringComparison.OrdinalIgnoreCase) || calendar.Name.Equals(name, StringComparison.CurrentCultureIgnoreCase));
            if (found is null)
                refusals.Add("calendar", name.Length == 0 ? "row.calendarMissing" : "row.noSuchCalendar", ("name", name), ("plate", mine.FirstOrDefault()?.Plate.Code));
            return found;
        }
    }
}
