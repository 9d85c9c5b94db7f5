using System.Threading.RateLimiting;
using Valtro.Server.Api;

namespace Valtro.Server;

/// <summary>How often one address outside may ask.</summary>
internal static class Limits
{
    public const string SignIn = "sign-in";
    public const string Public = "public";

    public static void AddLimits(this IServiceCollection services, Settings settings)
    {
        services.AddSingleton(new WrongSecrets(settings.WrongSecretsPerMinute));
        services.AddRateLimiter(options =>
        {
            options.AddPolicy(SignIn, context => RateLimitPartition.GetSlidingWindowLimiter(AddressOf(context), _ => PerMinute(settings.SignInsPerMinute)));
            options.AddPolicy(Public, context => RateLimitPartition.GetSlidingWindowLimiter(AddressOf(context), _ => PerMinute(settings.PublicReadsPerMinute)));
            options.OnRejected = (rejected, _) => RejectAsync(rejected.HttpContext);
        });
    }

    public static string AddressOf(HttpContext context) => context.Connection.RemoteIpAddress?.ToString() ?? "";

    public static SlidingWindowRateLimiterOptions PerMinute(int permits) => new() { PermitLimit = permits, Window = TimeSpan.FromMinutes(1), SegmentsPerWindow = 6 };

    public static async ValueTask RejectAsync(HttpContext context)
    {
        context.Response.Headers.RetryAfter = "60";
        await Problems.Of(Problem.TooOften).ExecuteAsync(context);
    }
}

/// <summary>Counts secrets that opened nothing, by the address that tried them. Too many, and that address gets nothing at all for a while.</summary>
public sealed class WrongSecrets(int perMinute) : IDisposable
{
    private readonly PartitionedRateLimiter<string> _limiter = PartitionedRateLimiter.Create<string, string>(
        address => RateLimitPartition.GetSlidingWindowLimiter(address, _ => Limits.PerMinute(perMinute)));

    /// <summary>Whether the address has tried too many already. Asking costs nothing.</summary>
    public bool HasTriedTooMany(HttpContext context)
    {
        using var lease = _limiter.AttemptAcquire(Limits.AddressOf(context), 0);
        return !lease.IsAcquired;
    }

    public void Count(HttpContext context)
    {
        using var lease = _limiter.AttemptAcquire(Limits.AddressOf(context));
    }

    public void Dispose() => _limiter.Dispose();
}
