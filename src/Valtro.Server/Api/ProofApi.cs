using Microsoft.AspNetCore.Http.HttpResults;
using Valtro.Application.Editions;
using Valtro.Application.Findings;

namespace Valtro.Server.Api;

/// <summary>Proof and trace of editions, and what needs somebody.</summary>
internal static class ProofApi
{
    public static void MapProofs(this RouteGroupBuilder api)
    {
        api.MapGet("/editions/{id:guid}/proof", async (Guid id, QueryDay? from, Proofs proofs) =>
            TypedResults.Ok(await proofs.GetAsync(id, from?.Date)));
        api.MapGet("/editions/{id:guid}/proof/changed", async (Guid id, Proofs proofs) => TypedResults.Ok(await proofs.ChangedAsync(id)));
        api.MapPost("/editions/{id:guid}/proof/put-off", PutOff);
        api.MapPost("/editions/{id:guid}/proof/setting/preview", async (Guid id, SettingRequest request, Proofs proofs) =>
            TypedResults.Ok(await proofs.PreviewAsync(id, request))).ReadsOnly();
        api.MapPost("/editions/{id:guid}/proof/setting", async (Guid id, SettingRequest request, Proofs proofs) =>
            TypedResults.Ok(await proofs.SetAsync(id, request)));
        api.MapPost("/editions/{id:guid}/let-out", async (Guid id, EditionDesk desk) => TypedResults.Ok(await desk.LetOutAsync(id)));
        api.MapGet("/editions/{id:guid}/trace", async (Guid id, Guid @event, string? date, Traces traces) =>
            TypedResults.Ok(await traces.OfAsync(id, @event, date)));
        api.MapGet("/events/{id:guid}/trace", async (Guid id, string? date, Traces traces) =>
            TypedResults.Ok(await traces.WhereAsync(id, date)));
        api.MapGet("/needs", async (Proofs proofs) => TypedResults.Ok(await proofs.NeedsAsync()));
    }

    private static async Task<NoContent> PutOff(Guid id, PutOffRequest request, Proofs proofs)
    {
        await proofs.PutOffAsync(id, request);
        return TypedResults.NoContent();
    }
}
