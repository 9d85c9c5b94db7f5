using System.Text.Json;
using System.Text.RegularExpressions;
using Microsoft.AspNetCore.Antiforgery;
using Microsoft.AspNetCore.Diagnostics;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Mvc;
using Serilog;
using Valtro.Application;
using Valtro.Application.Accounts;
using Valtro.Application.Work;
using Valtro.Core;
using Valtro.Core.Speaking;
using Valtro.Store;

namespace Valtro.Server;

/// <summary>A kind of refusal (RFC 9457): a stable type, whose words stand in the catalogues (problems.json) under its name.</summary>
public sealed record Problem(string Name, int Status)
{
    public static Problem Refused { get; } = new("refused", 400);
    public static Problem Unreadable { get; } = new("unreadable", 400);
    public static Problem WrongSignIn { get; } = new("wrong-sign-in", 401);
    public static Problem SignInNeeded { get; } = new("sign-in-needed", 401);
    public static Problem Stale { get; } = new("stale-session", 400);
    public static Problem Forbidden { get; } = new("forbidden", 403);
    public static Problem NotFound { get; } = new("not-found", 404);
    public static Problem ChangedMeanwhile { get; } = new("changed-meanwhile", 409);
    public static Problem TooOften { get; } = new("too-often", 429);
    public static Problem DatabaseAway { get; } = new("database-away", 503);
    public static Problem Starting { get; } = new("starting", 503);
    public static Problem WrongMethod { get; } = new("wrong-method", 405);
    public static Problem WrongContentType { get; } = new("wrong-content-type", 415);
    public static Problem ChooseOrganisation { get; } = new("choose-organisation", 409);
    public static Problem AskedAlready { get; } = new("asked-already", 409);
    public static Problem AskedOtherwise { get; } = new("asked-otherwise", 422);
    public static Problem TooLarge { get; } = new("too-large", 413);
    public static Problem Broken { get; } = new("broken", 500);

    public string Type => $"/problems/{Name}";

    public Saying Title => Saying.Of($"problem.{Name}.title");

    public Saying Detail => Saying.Of($"problem.{Name}.detail");
}

internal static class Problems
{
    public static ProblemHttpResult Of(
        Problem problem, Saying? detail = null, IReadOnlyList<Refusal>? refusals = null, object? current = null,
            IReadOnlyList<Core.Events.MergeField>? differing = null)
    {
        var speech = Spoken.Now;
        var details = new ProblemDetails
        {
            Type = problem.Type,
            Status = problem.Status,
            Title = speech.Say(problem.Title),
            Detail = speech.Say(detail ?? problem.Detail)
        };
        if (refusals is not null)
            details.Extensions["errors"] = refusals.GroupBy(refusal => refusal.Field)
                .ToDictionary(group => group.Key, group => group.Select(refusal => speech.Say(refusal.Saying)).ToArray());
        if (current is not null)
            details.Extensions["current"] = current;
        if (differing is not null)
            details.Extensions["differing"] = differing;
        return TypedResults.Problem(details);
    }
}

/// <summary>The one place where an exception becomes an answer. Every refusal names a field.</summary>
internal sealed partial class ProblemHandler(IDiagnosticContext line, Measures measures) : IExceptionHandler
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
            RuleException refused => Problems.Of(Problem.Refused, refused.Refusals[0].Saying, refused.Refusals),
            NotFoundException => Problems.Of(Problem.NotFound),
            ChangedMeanwhileException => Problems.Of(Problem.ChangedMeanwhile),
            SignInNeededException => Problems.Of(Problem.SignInNeeded),
            ChooseOrganisationException => Problems.Of(Problem.ChooseOrganisation),
            ForbiddenException forbidden => Problems.Of(Problem.Forbidden, forbidden.Saying),
            AntiforgeryValidationException => Problems.Of(Problem.Stale, refusals: [new Refusal("X-Valtro-Token", Problem.Stale.Detail)]),
            BadHttpRequestException unreadable => Unreadable(unreadable),
            _ when DatabaseFailures.IsAway(exception) => Problems.Of(Problem.DatabaseAway),
            _ => Problems.Of(Problem.Broken, Saying.Of("problem.broken.logged", ("number", Watching.TraceId))),
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

    private static ProblemHttpResult Unreadable(BadHttpRequestException unreadable)
    {
        if (unreadable.StatusCode is StatusCodes.Status415UnsupportedMediaType or StatusCodes.Status413PayloadTooLarge)
            return Problems.Of(unreadable.StatusCode == StatusCodes.Status413PayloadTooLarge ? Problem.TooLarge : Problem.WrongContentType);
        var refusal = Explain(unreadable);
        return Problems.Of(Problem.Unreadable, refusal.Saying, [refusal]);
    }

    /// <summary>What could not be read, by its name, and what would be right.</summary>
    private static Refusal Explain(BadHttpRequestException unreadable)
    {
        if (unreadable.InnerException is JsonException json)
        {
            if (MissingFields().Match(json.Message) is { Success: true } missing)
                return new Refusal(
                    missing.Groups[1].Value.Split('\'')[1],
                        Saying.Of("request.lacks", ("fields", missing.Groups[1].Value.Replace("'", "", StringComparison.Ordinal))));
            if (json.Path is { Length: > 2 } path)
                return new Refusal(path[2..], Saying.Of("request.fieldUnreadable", ("field", path[2..])));
            return new Refusal(
                "body", json.LineNumber is { } line ? Saying.Of("request.noJsonInLine", ("line", line + 1)) : Saying.Of("request.noJson"));
        }
        if (Parameter().Match(unreadable.Message) is not { Success: true } parameter)
            return new Refusal("body", Saying.Of("request.noBody"));
        var name = parameter.Groups[1].Value;
        return new Refusal(name, parameter.Groups[2].Success
            ? Saying.Of("request.parameterUnreadable", ("name", name), ("text", parameter.Groups[2].Value))
            : Saying.Of("request.parameterMissing", ("name", name)));
    }

    [GeneratedRegex("required properties including: ([\\w', ]+)")]
    private static partial Regex MissingFields();

    [GeneratedRegex("parameter \"[^\"]*?(\\w+)\" (?:from \"(.*)\"|was not provided)")]
    private static partial Regex Parameter();
}

/// <summary>Addresses as they may stand in a log: without secrets.</summary>
internal static class SafePath
{
    /// <summary>What such a part is followed by is a secret: the address of an edition, or of what somebody is mailed.</summary>
    private static readonly string[] Before = ["/s", "/mail"];

    public static string Of(HttpContext context)
    {
        foreach (var part in Before)
        {
            if (context.Request.Path.StartsWithSegments(part, out var rest) && rest.HasValue)
                return $"{part}/…{Ending(rest.Value!)}";
        }
        return context.Request.Path.Value ?? "";
    }

    /// <summary>What stands behind the secret: ".ics", "/embed".</summary>
    private static string Ending(string rest)
    {
        var end = rest.AsSpan(1).IndexOfAny('/', '.');
        return end < 0 ? "" : rest[(end + 1)..];
    }
}
