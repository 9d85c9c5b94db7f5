using Valtro.Application.Work;

namespace Valtro.Server;

/// <summary>Answers "come again" until the server is ready; but that it lives, it says at once.</summary>
internal static class StartupGate
{
    public static void UseStartupGate(this WebApplication app)
    {
        var startup = app.Services.GetRequiredService<Startup>();
        app.Use(async (context, next) =>
        {
            if (startup.IsReady
                || context.Request.Path.StartsWithSegments("/healthz")
                || context.Request.Path.StartsWithSegments("/readyz")
                || context.Request.Path.StartsWithSegments("/metrics"))
            {
                await next();
                return;
            }
            context.Response.Headers.RetryAfter = "5";
            context.Response.Headers.CacheControl = "no-store";
            await Problems.Of(Problem.Starting).ExecuteAsync(context);
        });
    }
}
