using Microsoft.AspNetCore.Http.HttpResults;
using NodaTime;
using Valtro.Application;
using Valtro.Application.Accounts;
using Valtro.Application.Events;
using Valtro.Core;
using Valtro.Core.Disclosure;
using Valtro.Core.Events;
using Valtro.Core.Speaking;
using Valtro.Core.Typing;
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

/// <param name="WhoSees">Each audience and how many of the rows that are right it will see, in words.</param>
public sealed record SeveralResponse(IReadOnlyList<RowResponse> Rows, IReadOnlyList<string> WhoSees);

/// <summary>Events said quickly: one in a line of text, or many in a table.</summary>
internal static class SeveralApi
{
    public static void MapSeveral(this RouteGroupBuilder api)
    {
        api.MapPost("/events/line", Line).ReadsOnly();
        api.MapPost("/events/several/check", Check).ReadsOnly();
        api.MapPost("/events/several", Save).AddEndpointFilter<OnceFilter>();
    }

    private static async Task<Ok<LineResponse>> Line(LineRequest request, Access access)
    {
        var viewer = await access.ViewerAsync();
        var house = await access.HouseAsync();
        var reading = OneLine.Read(request.Text, CultureInfo.GetCultureInfo(Spoken.LocaleIn(house.Organisation)), request.Day);
        var calendar = reading.CalendarPlate is null
            ? null
            : house.Calendars.Values.FirstOrDefault(one =>
                one.Plate.Code == reading.CalendarPlate && viewer.May(CalendarAction.Contribute, one.Id));
        var isUnknown = reading.CalendarPlate is not null && calendar is null;
        return TypedResults.Ok(new LineResponse(
            new EventForm(reading.Draft) { CalendarId = calendar?.Id ?? Guid.Empty },
            [.. reading.Understood.Where(one => !(isUnknown && one.Field == "calendarId"))
                .Select(one => one.Field == "calendarId" ? one with { Means = calendar!.Name } : one)],
            isUnknown ? [.. reading.Unread, Spoken.Now.Say("line.noSuchPlate", ("plate", reading.CalendarPlate))] : reading.Unread));
    }

    private static async Task<Ok<SeveralResponse>> Check(SeveralRequest request, TableReader reader, Access access, EventChanges changes)
    {
        var rows = await reader.ReadAsync(request.Rows, request.CalendarId);
        return TypedResults.Ok(
            new SeveralResponse([.. rows.Select(Shown)], await changes.WhoWillSeeAsync(await access.ViewerAsync(), EventsOf(rows))));
    }

    private static async Task<Results<Ok<ActResponse>, ProblemHttpResult>> Save(
        SeveralRequest request, TableReader reader, Access access, EventChanges changes)
    {
        var rows = await reader.ReadAsync(request.Rows, request.CalendarId);
        var refusals = rows.SelectMany(
            (row,
                index) => row.Refusals.Select(
                    refusal => new Refusal(
                        $"rows[{index}].{refusal.Field}", Saying.Of("row.line", ("index", index + 1), ("refusal", refusal.Saying)))))
            .ToArray();
        if (refusals.Length > 0)
            throw new RuleException(refusals);
        var events = EventsOf(rows);
        if (events.Length == 0)
            throw new RuleException("rows", "row.tableEmpty");
        var done = await changes.AddSeveralAsync(await access.ViewerAsync(), events);
        return TypedResults.Ok(new ActResponse(done.ActId, events.Length));
    }

    private static (Guid CalendarId, EventContent Content)[] EventsOf(IReadOnlyList<ReadRow> rows) =>
        [.. rows.Where(row => row.Content is not null).Select(row => (row.Calendar!.Id, row.Content!))];

    private static RowResponse Shown(ReadRow row) => new(
        row.IsEmpty,
        row.Words,
        row.Calendar?.Id,
        row.Refusals.GroupBy(refusal => refusal.Field)
            .ToDictionary(group => group.Key, group => string.Join(" ", group.Select(refusal => Spoken.Now.Say(refusal.Saying)))));
}
