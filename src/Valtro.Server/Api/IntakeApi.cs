using Microsoft.AspNetCore.Http.HttpResults;
using Valtro.Application;
using Valtro.Application.Intake;
using Valtro.Core.Intake;
using Valtro.Store;

namespace Valtro.Server.Api;

/// <summary>Text that somebody copied from elsewhere: a calendar file, or cells of a sheet.</summary>
public sealed record PastedIntake(string Text, CalendarBy By, Guid? CalendarId);

/// <param name="Address">Of a calendar file or a sheet on the web: https or webcal.</param>
public sealed record AddressedIntake(string? Address, CalendarBy By, Guid? CalendarId);

/// <summary>Events from outside: files that somebody brings, read behind, looked at line by line, and taken by one save.</summary>
internal static class IntakeApi
{
    public static void MapIntake(this RouteGroupBuilder api)
    {
        api.MapGet("/intake", async (Intakes intakes) => TypedResults.Ok(await intakes.AllAsync()));
        api.MapPost("/intake", AddFile).WithMetadata(new LargeBody(IntakeStore.Largest));
        api.MapPost("/intake/text", async (PastedIntake pasted, Intakes intakes) => TypedResults.Ok(await intakes.AddAsync(
                Spoken.Now.Say("intake.pasted"),
                () => Task.FromResult<byte[]?>(System.Text.Encoding.UTF8.GetBytes(pasted.Text)), pasted.By, pasted.CalendarId)))
            .WithMetadata(new LargeBody(IntakeStore.Largest));
        api.MapPost("/intake/address", async (AddressedIntake asked, Intakes intakes) =>
            TypedResults.Ok(await intakes.AddAddressAsync(asked.Address, asked.By, asked.CalendarId)));
        api.MapGet("/intake/{id:guid}", async (Guid id, Intakes intakes) => TypedResults.Ok(await intakes.FindAsync(id)));
        api.MapGet("/intake/{id:guid}/lines", async (Guid id, QueryWord<IncomingState>? state, int? after, Intakes intakes) =>
            TypedResults.Ok(await intakes.LinesAsync(id, state?.Value, after)));
        api.MapGet("/intake/{id:guid}/foreseen", async (Guid id, Intakes intakes) => TypedResults.Ok(await intakes.ForeseeAsync(id)));
        api.MapPut("/intake/{id:guid}/answers", Answer);
        api.MapPut("/intake/{id:guid}/lines", Take).WithMetadata(new LargeBody());
        api.MapPost("/intake/{id:guid}/save", Save);
        api.MapDelete("/intake/{id:guid}", Remove);
    }

    /// <summary>The body is the file as it is; its name stands in the query.</summary>
    private static async Task<Ok<IntakeListed>> AddFile(
        string name, QueryWord<CalendarBy>? by, Guid? calendarId, HttpRequest request, Intakes intakes) =>
        TypedResults.Ok(await intakes.AddAsync(name, () => ReadAsync(request), by?.Value ?? CalendarBy.One, calendarId));

    private static async Task<byte[]?> ReadAsync(HttpRequest request)
    {
        if (request.ContentLength > IntakeStore.Largest)
            return null;
        using var content = new MemoryStream();
        await request.Body.CopyToAsync(content, request.HttpContext.RequestAborted);
        return content.ToArray();
    }

    private static async Task<NoContent> Answer(Guid id, IntakeAnswers answers, Intakes intakes)
    {
        await intakes.AnswerAsync(id, answers);
        return TypedResults.NoContent();
    }

    private static async Task<NoContent> Take(Guid id, IntakeTakeRequest request, Intakes intakes)
    {
        await intakes.TakeAsync(id, request);
        return TypedResults.NoContent();
    }

    private static async Task<NoContent> Save(Guid id, Intakes intakes)
    {
        await intakes.SaveAsync(id);
        return TypedResults.NoContent();
    }

    private static async Task<NoContent> Remove(Guid id, Intakes intakes)
    {
        await intakes.RemoveAsync(id);
        return TypedResults.NoContent();
    }
}
