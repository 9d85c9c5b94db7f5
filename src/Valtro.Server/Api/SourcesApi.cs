using Microsoft.AspNetCore.Http.HttpResults;
using Valtro.Application.Sources;
using Valtro.Core.Intake;

namespace Valtro.Server.Api;

/// <param name="Own">A calendar that is made for it, and that it fills alone; null where its rules say where all goes.</param>
public sealed record FollowRequest(SourceRequest Source, CalendarRequest? Own);

/// <param name="Rules">Null for those that it has.</param>
public sealed record PreviewRulesRequest(SourceRules? Rules);

public sealed record FollowedResponse(Guid Id);

/// <summary>Events from outside that stay their source's: addresses that are followed.</summary>
internal static class SourcesApi
{
    public static void MapSources(this RouteGroupBuilder api)
    {
        api.MapGet("/sources", async (FollowedSources sources) => TypedResults.Ok(await sources.AllAsync()));
        api.MapPost("/sources/look", async (SourceAddress address, FollowedSources sources, CancellationToken stopping) =>
            TypedResults.Ok(await sources.LookAsync(address, stopping)));
        api.MapPost("/sources", async (FollowRequest request, FollowedSources sources) => TypedResults.Ok(new FollowedResponse(
            await sources.AddAsync(request.Source, request.Own is null ? null : CalendarApi.Check(request.Own)))));
        api.MapGet("/sources/{id:guid}", async (Guid id, FollowedSources sources) => TypedResults.Ok(await sources.FindAsync(id)));
        api.MapPut("/sources/{id:guid}", (Guid id, SourceChange change, FollowedSources sources) => Done(sources.SaveAsync(id, change)));
        api.MapDelete("/sources/{id:guid}", async (Guid id, bool keepsEvents, FollowedSources sources) =>
            TypedResults.Ok(await sources.LeaveAsync(id, keepsEvents)));
        api.MapPost("/sources/{id:guid}/preview", async (Guid id, PreviewRulesRequest request, FollowedSources sources) =>
            TypedResults.Ok(await sources.PreviewAsync(id, request.Rules)));
        api.MapPost("/sources/{id:guid}/fetch", (Guid id, FollowedSources sources) => Done(sources.FetchNowAsync(id)));
        api.MapPut("/sources/{id:guid}/held", (Guid id, HeldDecision decision, FollowedSources sources) =>
            Done(sources.DecideAsync(id, decision)));
        api.MapPut("/sources/{id:guid}/entries", (Guid id, SourceChoice choice, FollowedSources sources) =>
            Done(sources.ChooseAsync(id, choice)));
        api.MapPost("/sources/{id:guid}/entries/shown", (Guid id, SourceChoice choice, FollowedSources sources) =>
            Done(sources.ShowAgainAsync(id, choice)));
        api.MapGet("/events/{id:guid}/source", async (Guid id, FollowedSources sources) => TypedResults.Ok(await sources.OfEventAsync(id)));
        api.MapDelete("/events/{id:guid}/source", async (Guid id, FollowedSources sources) =>
            TypedResults.Ok(await sources.TakeOverAsync(id)));
    }

    private static async Task<NoContent> Done(Task work)
    {
        await work;
        return TypedResults.NoContent();
    }
}
