using Microsoft.AspNetCore.Http.HttpResults;
using Valtro.Application;
using Valtro.Application.Accounts;
using Valtro.Application.Events;
using Valtro.Core;
using Valtro.Core.Events;
using Valtro.Core.Speaking;
using Valtro.Core.Typing;

namespace Valtro.Server.Api;

public sealed record LineRequest(string Text);

public sealed record TogetherRequest(IReadOnlyList<EventForm> Events);

/// <param name="Waits">They wait for sign-off.</param>
public sealed record TogetherResponse(Guid ActId, int Events, bool Waits);

/// <param name="CalendarId">For rows that name none.</param>
public sealed record SeveralRequest(IReadOnlyList<TableRow> Rows, Guid? CalendarId);

/// <param name="Words">What the row was read as; empty when something is wrong.</param>
/// <param name="Errors">By column.</param>
/// <param name="IsThere">One of that name is on that calendar and day already.</param>
public sealed record RowResponse(bool IsEmpty, string Words, Guid? CalendarId, IReadOnlyDictionary<string, string> Errors, bool IsThere);

public sealed record CopiedCells(string Text);

/// <param name="WhoSees">Each audience and how many of the rows that are right it will see, in words.</param>
public sealed record SeveralResponse(IReadOnlyList<RowResponse> Rows, IReadOnlyList<string> WhoSees);

/// <summary>Events said quickly: one in a line of text, or many in a table.</summary>
internal static class SeveralApi
{
    public static void MapSeveral(this RouteGroupBuilder api)
    {
        api.MapPost("/events/line", async (LineRequest request, LineReader reader) => TypedResults.Ok(await reader.ReadAsync(request.Text)))
            .ReadsOnly();
        api.MapPost("/events/together", SaveTogether).AddEndpointFilter<OnceFilter>();
        api.MapPost("/events/several/check", Check).ReadsOnly().WithMetadata(new LargeBody());
        api.MapPost("/events/several", Save).AddEndpointFilter<OnceFilter>().WithMetadata(new LargeBody());
        api.MapPost("/events/several/cells", (CopiedCells cells) => TypedResults.Ok(TableFiles.ReadCopied(cells.Text)))
            .ReadsOnly().WithMetadata(new LargeBody());
        api.MapPost("/events/several/file", ReadFile).ReadsOnly().WithMetadata(new LargeBody());
    }

    /// <summary>The body is the file as it is; its name stands in the query.</summary>
    private static async Task<Ok<TableFileResponse>> ReadFile(string name, HttpRequest request)
    {
        using var content = new MemoryStream();
        await request.Body.CopyToAsync(content, request.HttpContext.RequestAborted);
        return TypedResults.Ok(TableFiles.Read(name, content.ToArray()));
    }

    private static async Task<Ok<SeveralResponse>> Check(SeveralRequest request, TableReader reader, Access access, EventChanges changes)
    {
        var rows = await reader.ReadAsync(request.Rows, request.CalendarId);
        return TypedResults.Ok(
            new SeveralResponse([.. rows.Select(Shown)], await changes.WhoWillSeeAsync(await access.ViewerAsync(), EventsOf(rows))));
    }

    /// <summary>Several events as forms say them: one save, one undo.</summary>
    private static async Task<Ok<TogetherResponse>> SaveTogether(TogetherRequest request, Access access, EventChanges changes)
    {
        var (done, waits) = await changes.AddTogetherAsync(await access.ViewerAsync(), request.Events);
        return TypedResults.Ok(new TogetherResponse(done.ActId, done.Events.Count, waits));
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
            .ToDictionary(group => group.Key, group => string.Join(" ", group.Select(refusal => Spoken.Now.Say(refusal.Saying)))),
        row.IsThere);
}
