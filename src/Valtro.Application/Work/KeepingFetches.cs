using Valtro.Application.Editions;

namespace Valtro.Application.Work;

/// <summary>Keeps what <see cref="Fetches"/> noted, every few seconds and once more at the end.</summary>
internal sealed class KeepingFetches(Fetches fetches, Faults faults) : ILoop
{
    private static readonly TimeSpan Every = TimeSpan.FromSeconds(3);

    public string Name => "keeping who fetched what";

    public async Task RunAsync(CancellationToken stopping)
    {
        while (!stopping.IsCancellationRequested)
        {
            await Task.Delay(Every, stopping).ConfigureAwait(ConfigureAwaitOptions.SuppressThrowing);
            await fetches.KeepAsync();
            faults.Succeeded(Name);
        }
    }
}
