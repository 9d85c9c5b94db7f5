using Valtro.Application.Intake;
using Valtro.Store;

namespace Valtro.Server.Api;

/// <param name="Address">Of a calendar file on the web: https or webcal.</param>
public sealed record AddressToCheck(string? Address);

/// <summary>What is wrong with a calendar file.</summary>
internal static class CheckApi
{
    public static void MapChecks(this RouteGroupBuilder api)
    {
        // The body is the file as it is.
        api.MapPost("/check/file", async (HttpRequest request, FileChecks checks) =>
                TypedResults.Ok(await checks.OfAsync(request.Body, request.HttpContext.RequestAborted)))
            .WithMetadata(new LargeBody(IntakeStore.Largest)).ReadsOnly();
        api.MapPost("/check/address", async (AddressToCheck asked, FileChecks checks, CancellationToken stopping) =>
            TypedResults.Ok(await checks.OfAddressAsync(asked.Address, stopping)));
    }
}
