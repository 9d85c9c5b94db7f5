using Microsoft.AspNetCore.Http.HttpResults;
using Valtro.Application.Calendars;

namespace Valtro.Server.Api;

public sealed record MergeRequest(Guid Into);

/// <summary>Archiving, removing, restoring and merging calendars.</summary>
internal static class CalendarLifeApi
{
    public static void MapCalendarLife(this RouteGroupBuilder api)
    {
        api.MapPost("/calendars/{id:guid}/archive", (Guid id, CalendarLife life) => Done(life.ArchiveAsync(id, isArchived: true)));
        api.MapDelete("/calendars/{id:guid}/archive", (Guid id, CalendarLife life) => Done(life.ArchiveAsync(id, isArchived: false)));
        api.MapGet(
            "/calendars/{id:guid}/removal", async (Guid id, CalendarLife life) => TypedResults.Ok(await life.PreviewRemovalAsync(id)));
        api.MapDelete("/calendars/{id:guid}", (Guid id, CalendarLife life) => Done(life.RemoveAsync(id)));
        api.MapGet("/calendars/bin", async (CalendarLife life) => TypedResults.Ok(await life.BinAsync()));
        api.MapPost("/calendars/{id:guid}/restore", (Guid id, CalendarLife life) => Done(life.RestoreAsync(id)));
        api.MapGet("/calendars/{id:guid}/merge",
            async (Guid id, Guid into, CalendarLife life) => TypedResults.Ok(await life.PreviewMergeAsync(id, into)));
        api.MapPost("/calendars/{id:guid}/merge",
            async (Guid id, MergeRequest request, CalendarLife life) => TypedResults.Ok(await life.MergeAsync(id, request.Into)));
    }

    private static async Task<NoContent> Done(Task act)
    {
        await act;
        return TypedResults.NoContent();
    }
}
