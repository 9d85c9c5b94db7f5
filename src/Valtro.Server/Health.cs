using NodaTime.Text;
using Valtro.Application;
using Valtro.Application.Work;
using Valtro.Store;

namespace Valtro.Server;

/// <param name="Status">"ready", or what is missing.</param>
/// <param name="Work">What does not succeed, longest first; only for the operator.</param>
public sealed record ReadyBody(string Status, IReadOnlyList<FailingBody>? Work);

/// <param name="Key">Of an edition, a mail or a person; with the kind it names the row in the table "work".</param>
/// <param name="IsSetAside">It is not tried by itself any more.</param>
public sealed record FailingBody(
    WorkKind Kind, string Key, NodaTime.Instant Since, FailureReason Reason, string Error, int Tries, bool IsSetAside);

/// <summary>Alive, and ready, for whatever starts and watches the server.</summary>
internal static class Health
{
    public static void MapHealth(this WebApplication app)
    {
        app.MapGet("/healthz", () => Results.Text("alive")).ExcludeFromDescription();
        app.MapGet("/readyz", AnswerAsync).ExcludeFromDescription();
        // Where the clock is set, a browser under test lives at the same time.
        if (app.Services.GetRequiredService<OneClock>() is { IsSet: true } clock)
            app.MapGet("/clock", () => Results.Text(InstantPattern.ExtendedIso.Format(clock.GetCurrentInstant()))).ExcludeFromDescription();
    }

    private static async Task<IResult> AnswerAsync(HttpContext context, Startup startup, WorkStore work, Settings settings)
    {
        var isOperator = Operators.MayAsk(context, settings);
        if (!startup.IsReady)
            return Answer(isOperator ? startup.Waiting : "not ready", null, 503);
        try
        {
            var failing = await work.FailingAsync(null);
            return Answer("ready",
                isOperator
                    ? [
                        .. failing.Select(one =>
                            new FailingBody(one.Kind, one.Key, one.Since, one.Reason, one.Error, one.Tries, one.IsSetAside))]
                    : null, 200);
        }
        catch (Exception away) when (DatabaseFailures.IsAway(away))
        {
            return Answer("the database does not answer", null, 503);
        }
    }

    private static IResult Answer(string status, IReadOnlyList<FailingBody>? work, int code) =>
        Results.Json(new ReadyBody(status, work), Json.Options, statusCode: code);
}

/// <summary>Those who run the server, by the address that they ask from.</summary>
internal static class Operators
{
    public static bool MayAsk(HttpContext context, Settings settings) =>
        // Who comes by way of a proxy that nobody named is not this machine, though it looks so.
        !context.Request.Headers.ContainsKey("X-Forwarded-For")
            && (context.Connection.RemoteIpAddress is not { } address
                || System.Net.IPAddress.IsLoopback(address)
                || settings.MetricsFrom.Any(network => network.Contains(address.IsIPv4MappedToIPv6 ? address.MapToIPv4() : address)));
}
