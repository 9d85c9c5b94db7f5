using System.Threading.RateLimiting;
using Valtro.Application;
using Valtro.Application.Editions;
using Valtro.Server.Api;

namespace Valtro.Server;

/// <summary>How often one address outside, or one person, may cause what costs.</summary>
internal static class Limits
{
    public const string SignIn = "sign-in";
    public const string Write = "write";

    public static void AddLimits(this IServiceCollection services, Settings settings)
    {
        services.AddSingleton(new WrongSecrets(settings.WrongSecretsPerMinute)).AddSingleton(new PublicWork(settings.PublicWorkPerMinute));
        services.AddRateLimiter(options =>
        {
            options.AddPolicy(SignIn,
                context => RateLimitPartition.GetSlidingWindowLimiter(AddressOf(context), _ => PerMinute(settings.SignInsPerMinute)));
            options.AddPolicy(Write, context => ReadsOnly.Is(context)
                ? RateLimitPartition.GetNoLimiter("")
                : RateLimitPartition.GetSlidingWindowLimiter(context.User.Identity?.IsAuthenticated == true
                    ? Accounts.WhoAsks.AccountOf(context.User).ToString()
                    : AddressOf(context), _ => PerMinute(settings.WritesPerMinute)));
            options.OnRejected = (rejected, _) => RejectAsync(rejected.HttpContext);
        });
    }

    public static string AddressOf(HttpContext context) => context.Connection.RemoteIpAddress?.ToString() ?? "";

    /// <summary>By what one program can be told from others.</summary>
    /// <remarks>Browsers say how a page came to ask (Fetch Metadata), or that they take HTML.</remarks>
    public static AskingProgram ProgramOf(HttpContext context)
    {
        var headers = context.Request.Headers;
        return new AskingProgram(AddressOf(context), headers.UserAgent.ToString(),
            headers.ContainsKey("Sec-Fetch-Mode") || headers.Accept.ToString().Contains("text/html", StringComparison.OrdinalIgnoreCase));
    }

    public static SlidingWindowRateLimiterOptions PerMinute(int permits) =>
        new() { PermitLimit = permits, Window = TimeSpan.FromMinutes(1), SegmentsPerWindow = 6 };

    public static async ValueTask RejectAsync(HttpContext context)
    {
        context.Response.Headers.RetryAfter = "60";
        await Problems.Of(Problem.TooOften).ExecuteAsync(context);
    }
}

/// <summary>What an address outside may cause in a minute. Beyond it that address gets nothing more of the kind for a while; what costs
/// nothing is not counted.</summary>
public abstract class Allowance(int perMinute) : IDisposable
{
    private readonly PartitionedRateLimiter<string> _limiter = PartitionedRateLimiter.Create<string, string>(
        address => RateLimitPartition.GetSlidingWindowLimiter(address, _ => Limits.PerMinute(perMinute)));

    /// <summary>Whether nothing is left of it. Asking costs nothing.</summary>
    public bool IsSpent(HttpContext context)
    {
        using var lease = _limiter.AttemptAcquire(Limits.AddressOf(context), 0);
        return !lease.IsAcquired;
    }

    /// <returns>False when nothing was left.</returns>
    public bool Spend(HttpContext context)
    {
        using var lease = _limiter.AttemptAcquire(Limits.AddressOf(context));
        return lease.IsAcquired;
    }

    public void Dispose()
    {
        _limiter.Dispose();
        GC.SuppressFinalize(this);
    }
}

/// <summary>Secrets that opened nothing.</summary>
public sealed class WrongSecrets(int perMinute) : Allowance(perMinute);

/// <summary>Work that public requests cause: questions to the database for addresses that nobody knows, and renderings of what only some
/// ask for.</summary>
public sealed class PublicWork(int perMinute) : Allowance(perMinute);
