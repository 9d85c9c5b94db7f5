using System.Text.RegularExpressions;
using Microsoft.AspNetCore.Antiforgery;
using Microsoft.AspNetCore.Diagnostics;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Mvc;
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
    public static Problem Broken { get; } = new("/problems/broken", 500, "Our mistake", "Something went wrong on our side. Nothing was saved. It has been written to the log.");
}

internal static class Problems
{
    public static ProblemHttpResult Of(Problem problem, string? detail = null, IReadOnlyList<Refusal>? refusals = null, object? current = null)
    {
        var details = new ProblemDetails { Type = problem.Type, Status = problem.Status, Title = problem.Title, Detail = detail ?? problem.Detail };
        if (refusals is not null)
            details.Extensions["errors"] = refusals.GroupBy(refusal => refusal.Field).ToDictionary(group => group.Key, group => group.Select(refusal => refusal.Sentence).ToArray());
        if (current is not null)
            details.Extensions["current"] = current;
        return TypedResults.Problem(details);
    }
}

/// <summary>The one place where an exception becomes an answer.</summary>
internal sealed partial class ProblemHandler(ILogger<ProblemHandler> log) : IExceptionHandler
{
    public async ValueTask<bool> TryHandleAsync(HttpContext context, Exception exception, CancellationToken cancellation)
    {
        var result = exception switch
        {
            RuleException refused => Problems.Of(Problem.Refused, refused.Refusals[0].Sentence, refused.Refusals),
            NotFoundException => Problems.Of(Problem.NotFound),
            ChangedMeanwhileException => Problems.Of(Problem.ChangedMeanwhile),
            SignInNeededException => Problems.Of(Problem.SignInNeeded),
            ForbiddenException forbidden => Problems.Of(Problem.Forbidden, forbidden.Message),
            AntiforgeryValidationException => Problems.Of(Problem.Stale),
            BadHttpRequestException unreadable => Problems.Of(Problem.Unreadable, Explain(unreadable)),
            _ when DatabaseFailures.IsAway(exception) => Problems.Of(Problem.DatabaseAway),
            _ => Problems.Of(Problem.Broken),
        };
        if (result.StatusCode >= 500)
            log.LogError(exception, "{Method} {Path} failed", context.Request.Method, context.Request.Path);
        if (result.StatusCode == 503)
            context.Response.Headers.RetryAfter = "5";
        await result.ExecuteAsync(context);
        return true;
    }

    private static string Explain(BadHttpRequestException unreadable) => unreadable.InnerException is System.Text.Json.JsonException { Path: { Length: > 2 } path }
        ? $"The field “{path[2..]}” could not be read. Check its form: dates are 2026-11-24, times are 14:00:00."
        : unreadable.InnerException is System.Text.Json.JsonException { Message: var message } && MissingFields().Match(message) is { Success: true } missing
            ? $"The request lacks {missing.Groups[1].Value.Replace("'", "", StringComparison.Ordinal)}. Nothing was saved."
            : $"{Problem.Unreadable.Detail} {unreadable.Message}";

    [GeneratedRegex("required properties including: ([\\w', ]+)")]
    private static partial Regex MissingFields();
}
