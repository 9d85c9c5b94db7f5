using Valtro.Store;

namespace Valtro.Application.Work;

/// <summary>Something that runs as long as the server does.</summary>
public interface ILoop
{
    /// <summary>In words: "listening to the database".</summary>
    string Name { get; }

    /// <summary>Runs until it is stopped, or fails: then it is begun again.</summary>
    Task RunAsync(CancellationToken stopping);
}

/// <summary>Runs all that goes on behind requests. Nothing that happens there reaches the host: it is written down once, counted, and begun
/// again.</summary>
internal sealed class Supervisor(Startup startup, IEnumerable<ILoop> loops, Faults faults) : BackgroundService
{
    private static readonly TimeSpan ShortestRest = TimeSpan.FromMilliseconds(500);
    private static readonly TimeSpan LongestRest = TimeSpan.FromSeconds(10);

    protected override async Task ExecuteAsync(CancellationToken stopping)
    {
        // The host waits for this method until it first has to wait itself.
        await Task.Yield();
        try
        {
            await startup.RunAsync(stopping);
            await Task.WhenAll(loops.Select(loop => KeepAsync(loop, stopping)));
        }
        catch (OperationCanceledException) when (stopping.IsCancellationRequested)
        {
            // The server stops.
        }
    }

    private async Task KeepAsync(ILoop loop, CancellationToken stopping)
    {
        using var lane = Lanes.In(Lane.Work);
        using var everywhere = Wall.Everywhere();
        var rest = ShortestRest;
        while (!stopping.IsCancellationRequested)
        {
            var began = TimeProvider.System.GetTimestamp();
            try
            {
                await loop.RunAsync(stopping);
                return;
            }
            catch (Exception) when (stopping.IsCancellationRequested)
            {
                return;
            }
            catch (Exception failed)
            {
                faults.Failed(loop.Name, failed);
            }
            if (TimeProvider.System.GetElapsedTime(began) > LongestRest)
                rest = ShortestRest;
            await Task.Delay(rest * (0.8 + 0.4 * Random.Shared.NextDouble()), stopping)
                .ConfigureAwait(ConfigureAwaitOptions.SuppressThrowing);
            rest = rest * 2 < LongestRest ? rest * 2 : LongestRest;
        }
    }
}
