using System.Threading.RateLimiting;
using Valtro.Server.Api;

namespace Valtro.Server;

/// <summary>How often one address outside may ask.</summary>
internal static class Limits
{
    public const string SignIn = "sign-in";
    public const string Public = "public";

    public static void AddLimits(this IServiceCollection services, Settings settings) =>
        services.AddRateLimiter(options =>
        {
            options.AddPolicy(SignIn, context => PerMinute(context, settings.SignInsPerMinute));
            options.AddPolicy(Public, context => PerMinute(context, settings.PublicReadsPerMinute));
            options.OnRejected = async (rejected, _) =>
            {
                rejected.HttpContext.Response.Headers.RetryAfter = "60";
                await Problems.Of(Problem.TooOften).ExecuteAsync(rejected.HttpContext);
            };
        });

    private static RateLimitPartition<string> PerMinute(HttpContext context, int permits) =>
        RateLimitPartition.GetSlidingWindowLimiter(
            context.Connection.RemoteIpAddress?.ToString() ?? "",
            _ => new SlidingWindowRateLimiterOptions { PermitLimit = permits, Window = TimeSpan.FromMinutes(1), SegmentsPerWindow = 6 });
}
