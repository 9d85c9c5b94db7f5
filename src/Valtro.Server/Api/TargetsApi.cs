using Microsoft.AspNetCore.Http.HttpResults;
using Valtro.Application.Push;
using Valtro.Application.Sources;

namespace Valtro.Server.Api;

/// <param name="EditionId">What is to be written there.</param>
public sealed record LookElsewhereRequest(Guid EditionId, SourceAddress Access);

/// <param name="CalendarId">On which new events are to stand; null for the calendar that is written there.</param>
public sealed record BringBackRequest(TargetDays Days, Guid? CalendarId);

public sealed record TargetResponse(Guid Id);

/// <summary>Calendars elsewhere that are written.</summary>
internal static class TargetsApi
{
    public static void MapTargets(this RouteGroupBuilder api)
    {
        api.MapGet("/targets", async (PushTargets targets) => TypedResults.Ok(await targets.AllAsync()));
        api.MapPost("/targets/look", async (LookElsewhereRequest request, PushTargets targets, CancellationToken stopping) =>
            TypedResults.Ok(await targets.LookAsync(request.EditionId, request.Access, stopping)));
        api.MapPost("/targets", async (TargetRequest request, PushTargets targets) =>
            TypedResults.Ok(new TargetResponse(await targets.AddAsync(request))));
        api.MapGet("/targets/{id:guid}", async (Guid id, PushTargets targets) => TypedResults.Ok(await targets.FindAsync(id)));
        api.MapPut("/targets/{id:guid}", (Guid id, TargetChange change, PushTargets targets) => Done(targets.SaveAsync(id, change)));
        api.MapDelete("/targets/{id:guid}", (Guid id, bool keepsThere, PushTargets targets) => Done(targets.LeaveAsync(id, keepsThere)));
        api.MapPost("/targets/{id:guid}/push", (Guid id, PushTargets targets) => Done(targets.PushNowAsync(id)));
        api.MapPut("/targets/{id:guid}/answers", (Guid id, TargetAnswer answer, PushTargets targets) =>
            Done(targets.AnswerAsync(id, answer)));
        api.MapPost("/targets/{id:guid}/choose", async (Guid id, TargetDays days, PushChoices choices) =>
            TypedResults.Ok(await choices.ChooseAsync(id, days)));
        api.MapPost("/targets/{id:guid}/bring", async (
            Guid id, BringBackRequest request, PushTargets targets, CancellationToken stopping) =>
            TypedResults.Ok(await targets.BringAsync(id, request.Days, request.CalendarId, stopping)));
        api.MapGet("/targets/of-calendars", async (Guid[] calendar, Guid? eventId, PushChoices choices) =>
            TypedResults.Ok(await choices.OfCalendarsAsync(calendar, eventId)));
        api.MapPut("/events/{id:guid}/targets", (Guid id, EventTargets said, PushChoices choices) =>
            Done(choices.ChooseForAsync(id, said)));
    }

    private static async Task<NoContent> Done(Task work)
    {
        await work;
        return TypedResults.NoContent();
    }
}
