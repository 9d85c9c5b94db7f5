using Valtro.Store;

namespace Valtro.Application.Work;

/// <summary>Brings the database up to date before anything else is answered. Where it is not there yet, the server waits for it, and says
/// so.</summary>
public sealed class Startup(Settings settings, ILogger<Startup> log)
{
    private static readonly TimeSpan TryAgainAfter = TimeSpan.FromSeconds(1);

    private readonly TaskCompletionSource _ready = new(TaskCreationOptions.RunContinuationsAsynchronously);

    /// <summary>The database is there, and up to date.</summary>
    public bool IsReady => _ready.Task.IsCompletedSuccessfully;

    /// <summary>Why it is not ready yet, for the operator.</summary>
    public string Waiting { get; private set; } = "The server is starting.";

    /// <summary>Ends when <see cref="IsReady"/>.</summary>
    public Task Ready => _ready.Task;

    internal async Task RunAsync(CancellationToken stopping)
    {
        for (var waits = false; ; waits = true)
        {
            try
            {
                await Database.MigrateAsync(settings.Database);
                if (waits)
                    log.LogInformation("The database is there");
                _ready.SetResult();
                return;
            }
            catch (Exception away) when (DatabaseFailures.IsAway(away))
            {
                Waiting = $"The database is not there yet: {away.Message}";
                if (!waits)
                    log.LogWarning("The server waits for its database ({Reason})", away.Message);
            }
            catch (Exception failed)
            {
                // A migration that fails will not succeed by itself, but somebody may put things right without stopping the server.
                Waiting = $"The database could not be brought up to date: {failed.Message}";
                if (!waits)
                    log.LogError(failed, "The database could not be brought up to date; it is tried again");
            }
            await Task.Delay(TryAgainAfter, stopping);
        }
    }
}
