using Valtro.Application.Editions;
using Valtro.Application.Work;
using Valtro.Store;

namespace Valtro.Server.Public;

/// <summary>Public requests use the readers' connections; what cannot be had now is said in a sentence.</summary>
public sealed class ForReaders(Measures measures) : IEndpointFilter
{
    public async ValueTask<object?> InvokeAsync(EndpointFilterInvocationContext context, EndpointFilterDelegate next)
    {
        using var lane = Lanes.In(Lane.Readers);
        var response = context.HttpContext.Response;
        try
        {
            return await next(context);
        }
        catch (Exception away) when ((away is ComeAgainException || DatabaseFailures.IsAway(away)) && !response.HasStarted)
        {
            measures.ComeAgain();
            SayWhen(response, "5");
            await PublicAnswers.SayAsync(context.HttpContext, StatusCodes.Status503ServiceUnavailable, "page.comeAgain");
        }
        catch (TooOftenException) when (!response.HasStarted)
        {
            SayWhen(response, "60");
            await PublicAnswers.SayAsync(context.HttpContext, StatusCodes.Status429TooManyRequests, "page.tooOften");
        }
        return Results.Empty;
    }

    /// <summary>Programs heed the one, browsers the other: a page comes by itself.</summary>
    private static void SayWhen(HttpResponse response, string seconds) =>
        (response.Headers.RetryAfter, response.Headers["Refresh"]) = (seconds, seconds);
}
