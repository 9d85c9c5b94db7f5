using System.Text.Json;
using System.Text.RegularExpressions;
using Microsoft.AspNetCore.Antiforgery;
using Microsoft.AspNetCore.Diagnostics;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Mvc;
using Serilog;
using Valtro.Core;
using Valtro.Server.Accounts;
using Valtro.Store;

namespace Valtro.Server.Api;

/// <summary>A kind of refusal (RFC 9457): a stable type, and a sentence for people.</summary>
public sealed record Problem(string Type, int Status, string Title, string Detail)
{
    public static Problem Refused { get; } = new("/problems/refused", 400, "Not possible", "Something is not right yet. Nothing was saved.");
    public static Problem Unreadable { get; } = new("/problems/unreadable", 400, "Unreadable request", "The request could not be read. Nothing was saved.");
    public static Problem WrongSignIn { get; } = new("/problems/wrong-sign-in", 401, "Not signed in", "The e-mail address or the password is not right. After five wrong tries an account rests for 15 minutes.");
    public static Problem SignInNeeded { get; } = new("/problems/sign-in-needed", 401, "Not signed in", "You are not signed in, or not any more. Sign in and try again.");
    public static Problem Stale { get; } = new("/problems/stale-session", 400, "Session changed", "The session changed in another window. Nothing was saved. Try again.");
    public static Problem Forbidden { get; } = new("/problems/forbidden", 403, "Not allowed", "You may not do this.");
    public static Problem NotFound { get; } = new("/problems/not-found", 404, "Not found", "There is nothing here. It may have been removed, or it is not for you.");
    public static Problem ChangedMeanwhile { get; } = new("/problems/changed-meanwhile", 409, "Changed meanwhile", "Somebody else saved this while you were working on it. Nothing of yours was saved yet.");
    public static Problem TooOften { get; } = new("/problems/too-often", 429, "Too often", "Too many requests came from your address. Wait a minute and try again.");
    public static Problem DatabaseAway { get; } = new("/problems/database-away", 503, "Database not reachable", "The database does not answer. Nothing was saved, and what you typed is still here. Try again in a moment.");
    public static Problem Starting { get; } = new("/problems/starting", 503, "Not ready yet", "The server is starting and waits for its database. Try again in a few seconds.");
    public static Problem WrongMethod { get; } = new("/problems/wrong-method", 405, "Not possible here", "This cannot be done with this address.");
    public static Problem WrongContentType { get; } = new("/problems/wrong-content-type", 415, "Not JSON", "The body has to be JSON. Send it with the header Content-Type: application/json.");
    public static Problem ChooseOrganisation { get; } = new("/problems/choose-organisation", 409, "Which organisation", "You belong to several organisations. Say in the address which is meant, as in /at/pinewick/api/events.");
    public static Problem AskedAlready { get; } = new("/problems/asked-already", 409, "Asked already", "This was asked already and is being done, or was done. Look at the plan before you ask again.");
    public static Problem AskedOtherwise { get; } = new("/problems/asked-otherwise", 422, "Asked otherwise", "It was saved already, as it was before you changed it here. Look at the plan, and change it there.");
    public static Problem TooLarge { get; } = new("/problems/too-large", 413, "Too large", "The request is too large. A request has at most 1 MB, a file 10 MB.");
    public static Problem Broken { get; } = new("/problems/broken", 500, "Our mistake", "Something went wrong on our side. Nothing was saved. It stands in the log under");
}

internal static class Problems
{
    public static ProblemHttpResult Of(Problem problem, string? detail = null, IReadOnlyList<Refusal>? refusals = null, object? current = null, IReadOnlyList<Core.Events.MergeField>? differing = null)
    {
        var details = new ProblemDetails { Type = problem.Type, Status = problem.Status, Title = problem.Title, Detail = detail ?? problem.Detail };
        if (refusals is not null)
            details.Extensions["errors"] = refusals.GroupBy(refusal => refusal.Field).ToDictionary(group => group.Key, group => group.Select(refusal => refusal.Sentence).ToArray());
        if (current is not null)
            details.Extensions["current"] = current;
        if (differing is not null)
            details.Extensions["differing"] = differing;
        return TypedResults.Problem(details);
    }
}

/// <summary>The one place where an exception becomes an answer. Every refusal names a field.</summary>
internal sealed partial class ProblemHandler(IDiagnosticContext line, Work.Measures measures) : IExceptionHandler
{
    public async ValueTask<bool> TryHandleAsync(HttpContext context, Exception exception, CancellationToken cancellation)
    {
        if (exception is OperationCanceledException && context.RequestAborted.IsCancellationRequested)
        {
            context.Response.StatusCode = StatusCodes.Status499ClientClosedRequest;
            return true;
        }
        var result = exception switch
        {
            RuleException refused => Problems.Of(Problem.Refused, refused.Refusals[0].Sentence, refused.Refusals),
            NotFoundException => Problems.Of(Problem.NotFound),
            ChangedMeanwhileException => Problems.Of(Problem.ChangedMeanwhile),
            SignInNeededException => Problems.Of(Problem.SignInNeeded),
            ChooseOrganisationException => Problems.Of(Problem.ChooseOrganisation),
            ForbiddenException forbidden => Problems.Of(Problem.Forbidden, forbidden.Message),
            AntiforgeryValidationException => Problems.Of(Problem.Stale, refusals: [new Refusal("X-Valtro-Token", Problem.Stale.Detail)]),
            BadHttpRequestException unreadable => Unreadable(unreadable),
            _ when DatabaseFailures.IsAway(exception) => Problems.Of(Problem.DatabaseAway),
            _ => Problems.Of(Problem.Broken, $"{Problem.Broken.Detail} {Watching.TraceId}."),
        };
        // It stands in the line of the request, and nowhere else.
        if (result.StatusCode == 500)
            line.SetException(exception);
        if (result.StatusCode == 503)
        {
            context.Response.Headers.RetryAfter = "5";
            line.Set("Reason", exception.Message);
            measures.ComeAgain();
        }
        await result.ExecuteAsync(context);
        return true;
    }

    private static ProblemHttpResult Unreadable(BadHttpRequestException unreadable) => unreadable.StatusCode switch
    {
        StatusCodes.Status415UnsupportedMediaType => Problems.Of(Problem.WrongContentType),
        StatusCodes.Status413PayloadTooLarge => Problems.Of(Problem.TooLarge),
        _ => Explain(unreadable) is var (field, sentence) ? Problems.Of(Problem.Unreadable, sentence, [new Refusal(field, sentence)]) : Problems.Of(Problem.Unreadable),
    };

    /// <summary>What could not be read, by its name, and what would be right.</summary>
    private static (string Field, string Sentence) Explain(BadHttpRequestException unreadable)
    {
        if (unreadable.InnerException is JsonException json)
        {
            if (MissingFields().Match(json.Message) is { Success: true } missing)
                return (missing.Groups[1].Value.Split('\'')[1], $"The request lacks {missing.Groups[1].Value.Replace("'", "", StringComparison.Ordinal)}. Nothing was saved.");
            return json.Path is { Length: > 2 } path
                ? (path[2..], $"The field “{path[2..]}” could not be read. Check its form: dates are 2026-11-24, times are 14:00:00, and nothing that is needed may be missing.")
                : ("body", $"The request is no JSON that can be read{(json.LineNumber is { } line ? $", line {line + 1}" : "")}. Send an object such as {{\"name\": \"Port Watch\"}}.");
        }
        if (Parameter().Match(unreadable.Message) is { Success: true } parameter)
        {
            var name = parameter.Groups[1].Value;
            return (name, parameter.Groups[2].Success
                ? $"“{name}” could not be read from “{parameter.Groups[2].Value}”. Check its form: days are 2026-11-24, numbers have digits only."
                : $"“{name}” is missing. Add it to the address: days are 2026-11-24, numbers have digits only.");
        }
        return ("body", "The request has no body, or one that cannot be read. Send JSON.");
    }

    [GeneratedRegex("required properties including: ([\\w', ]+)")]
    private static partial Regex MissingFields();

    [GeneratedRegex("parameter \"[^\"]*?(\\w+)\" (?:from \"(.*)\"|was not provided)")]
    private static partial Regex Parameter();
}

/// <summary>Addresses as they may stand in a log: without secrets.</summary>
internal static class SafePath
{
    public static string Of(HttpContext context) => context.Request.Path.StartsWithSegments("/s", out var rest) && rest.HasValue
        ? $"/s/…{Ending(rest.Value!)}"
        : context.Request.Path.Value ?? "";

    /// <summary>What stands behind the secret: ".ics", "/embed".</summary>
    private static string Ending(string rest)
    {
        var end = rest.AsSpan(1).IndexOfAny('/', '.');
        return end < 0 ? "" : rest[(end + 1)..];
    }
}
