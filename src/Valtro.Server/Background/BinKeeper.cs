using NodaTime;
using Valtro.Store;

namespace Valtro.Server.Background;

/// <summary>Empties the bin of events and calendars that have rested there for 90 days, and sweeps out files that nothing names any more. Any number of nodes may do so at once.</summary>
internal sealed class BinKeeper(EventStore events, CalendarStore calendars, FileStore files, EditionStore editions, EditionSettingsStore settings, IClock clock, ILogger<BinKeeper> log) : BackgroundService
{
    private static readonly TimeSpan Every = TimeSpan.FromHours(1);

    protected override async Task ExecuteAsync(CancellationToken stopping)
    {
        using var timer = new PeriodicTimer(Every);
        do
        {
            try
            {
                using var everywhere = Wall.Everywhere();
                var now = clock.GetCurrentInstant();
                var gone = await events.EmptyBinAsync(now - EventStore.KeptInBin);
                await calendars.EmptyBinAsync(now - EventStore.KeptInBin);
                await settings.EmptyBinAsync(now - EventStore.KeptInBin, now);
                await files.SweepAsync(now - Duration.FromDays(1));
                await editions.ForgetFetchesAsync(now - Duration.FromDays(90));
                if (gone > 0)
                    log.LogInformation("{Count} events left the bin for good", gone);
            }
            catch (Exception away) when (Api.ProblemHandler.IsDatabaseAway(away))
            {
                log.LogWarning("The bin could not be emptied ({Reason}); trying again in an hour", away.Message);
            }
        }
        while (await WaitAsync(timer, stopping));
    }

    private static async Task<bool> WaitAsync(PeriodicTimer timer, CancellationToken stopping)
    {
        try
        {
            return await timer.WaitForNextTickAsync(stopping);
        }
        catch (OperationCanceledException)
        {
            return false;
        }
    }
}
