using Valtro.Application.Work;
using Valtro.Server.Public;

namespace Valtro.Server;

/// <summary>Answers "come again" until the server is ready; but that it lives, it says at once, and the desk's page says the rest.</summary>
internal static class StartupGate
{
    /// <summary>First segments of what cannot be answered without the database.</summary>
    private static readonly string[] Gated = ["/api", "/c", "/s", "/dav", "/oembed"];

    public static void UseStartupGate(this WebApplication app)
    {
        var startup = app.Services.GetRequiredService<Startup>();
        app.Use(async (context, next) =>
        {
            var path = context.Request.Path;
            if (startup.IsReady || !Gated.Any(first => path.StartsWithSegments(first)))
            {
                await next();
                return;
            }
            context.Response.Headers.RetryAfter = "5";
            context.Response.Headers.CacheControl = "no-store";
            // Readers are people: they get a sentence.
            if (PublicApi.IsPublic(path))
                await PublicAnswers.SayAsync(context, Problem.Starting.Status, Problem.Starting.Detail.Code);
            else
                await Problems.Of(Problem.Starting).ExecuteAsync(context);
        });
    }
}
