using Microsoft.AspNetCore.Http.HttpResults;
using Valtro.Application.SignOff;

namespace Valtro.Server.Api;

public sealed record SignOffCount(int ToDecide);

public sealed record ApprovalRequest(IReadOnlyList<ApprovalItem> Items);

public sealed record SendBackRequest(string? Reason);

/// <summary>The queue of those who keep calendars, and where things stand for those who handed them in.</summary>
internal static class SignOffApi
{
    public static void MapSignOff(this RouteGroupBuilder api)
    {
        api.MapGet("/sign-off", async (SignOffQueue queue) => TypedResults.Ok(await queue.ListAsync()));
        api.MapGet("/sign-off/count", async (SignOffQueue queue) => TypedResults.Ok(new SignOffCount(await queue.CountAsync())));
        api.MapGet("/sign-off/{id:guid}", async (Guid id, SignOffQueue queue) => TypedResults.Ok(await queue.ProposalAsync(id)));
        api.MapPost("/sign-off/approve",
            async (ApprovalRequest request, SignOffQueue queue) => TypedResults.Ok(await queue.ApproveAsync(request.Items)));
        api.MapPost("/sign-off/{id:guid}/send-back", SendBack);
        api.MapPost("/sign-off/{id:guid}/withdraw", Withdraw);
    }

    private static async Task<NoContent> SendBack(Guid id, SendBackRequest request, SignOffQueue queue)
    {
        await queue.SendBackAsync(id, request.Reason);
        return TypedResults.NoContent();
    }

    private static async Task<NoContent> Withdraw(Guid id, SignOffQueue queue)
    {
        await queue.WithdrawAsync(id);
        return TypedResults.NoContent();
    }
}
