using Valtro.Application.Files;
using NodaTime;
using Valtro.Application.Events;

namespace Valtro.Server.Api;

/// <param name="Near">A day without a year is the one nearest to this; where it is missing, to today.</param>
public sealed record TypedDayRequest(string Text, LocalDate? Near);

/// <param name="Days">The day; two where it could be either, none where it is no day.</param>
public sealed record TypedDayResponse(IReadOnlyList<LocalDate> Days);

public sealed record TypedTimeRequest(string Text);

/// <param name="Time">Null where it is no time.</param>
public sealed record TypedTimeResponse(LocalTime? Time);

/// <summary>What is typed into a field for a day or a time, read as lines are.</summary>
/// <param name="Html">A description as it is typed.</param>
public sealed record TypedTextRequest(string Html);

/// <param name="Text">The plain form, which feeds carry for programs that show no HTML.</param>
public sealed record TypedPlainResponse(string Text);

internal static class TypedApi
{
    public static void MapTyped(this RouteGroupBuilder api)
    {
        api.MapPost("/typed/day", async (TypedDayRequest request, LineReader reader) =>
            TypedResults.Ok(new TypedDayResponse(await reader.DaysAsync(request.Text, request.Near)))).ReadsOnly();
        api.MapPost("/typed/time", async (TypedTimeRequest request, LineReader reader) =>
            TypedResults.Ok(new TypedTimeResponse(await reader.TimeAsync(request.Text)))).ReadsOnly();
        api.MapPost("/typed/plain", (TypedTextRequest request, RichTexts texts) =>
            TypedResults.Ok(new TypedPlainResponse(texts.Sanitise(request.Html).Text))).ReadsOnly();
    }
}
