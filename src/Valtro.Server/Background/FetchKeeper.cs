using Valtro.Server.Public;

namespace Valtro.Server.Background;

/// <summary>Keeps what <see cref="Fetches"/> noted, every few seconds and once more at the end.</summary>
internal sealed class FetchKeeper(Fetches fetches, ILogger<FetchKeeper> log) : BackgroundService
{
    private static readonly TimeSpan Every = TimeSpan.FromSeconds(3);

    protected override async Task ExecuteAsync(CancellationToken stopping)
    {
        while (!stopping.IsCancellationRequested)
        {
            await Task.Delay(Every, stopping).ConfigureAwait(ConfigureAwaitOptions.SuppressThrowing);
            try
            {
                await fetches.KeepAsync();
            }
            catch (Exception away) when (Api.ProblemHandler.IsDatabaseAway(away))
            {
                log.LogWarning("Fetches could not be kept ({Reason}); what was noted in these seconds is lost", away.Message);
            }
        }
    }
}
