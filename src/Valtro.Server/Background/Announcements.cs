using NodaTime;
using Npgsql;
using Valtro.Server.Public;
using Valtro.Store;

namespace Valtro.Server.Background;

/// <summary>Listens to what other transactions, on this node or another, announce; renders what changed; tells open pages.</summary>
/// <remarks>
/// Announcements only make things fast. Whoever asks for an artefact compares versions too, so a lost one delays a change
/// by <see cref="Artefacts.TrustedFor"/> for fetches and by a heartbeat for open pages.
/// </remarks>
internal sealed class Announcements(Database database, EditionStore editions, Artefacts artefacts, News news, IClock clock, ILogger<Announcements> log) : BackgroundService
{
    private static readonly TimeSpan RetryAfter = TimeSpan.FromSeconds(1);
    private static readonly TimeSpan LookAnywayAfter = TimeSpan.FromMinutes(1);

    protected override async Task ExecuteAsync(CancellationToken stopping)
    {
        while (!stopping.IsCancellationRequested)
        {
            try
            {
                await ListenAsync(stopping);
            }
            catch (Exception lost) when (!stopping.IsCancellationRequested && Api.ProblemHandler.IsDatabaseAway(lost))
            {
                log.LogWarning("Announcements of the database are lost ({Reason}); trying again", lost.Message);
                await Task.Delay(RetryAfter, stopping).ConfigureAwait(ConfigureAwaitOptions.SuppressThrowing);
            }
            catch (OperationCanceledException) when (stopping.IsCancellationRequested)
            {
                return;
            }
        }
    }

    private async Task ListenAsync(CancellationToken stopping)
    {
        await using var connection = await database.Source.OpenConnectionAsync(stopping);
        var changed = new Queue<Guid>();
        connection.Notification += (_, announcement) =>
        {
            if (Guid.TryParse(announcement.Payload, out var id) && !changed.Contains(id))
                changed.Enqueue(id);
        };
        await using (var listen = new NpgsqlCommand("listen valtro_calendar", connection))
            await listen.ExecuteNonQueryAsync(stopping);
        // Whatever was announced while nobody listened.
        artefacts.DistrustAll();
        news.AnnounceAll();
        while (true)
        {
            await RenewAsync(await editions.ToRenderAsync(clock.GetCurrentInstant()));
            while (await connection.WaitAsync(LookAnywayAfter, stopping))
            {
                while (changed.TryDequeue(out var id))
                    await RenewAsync(await editions.ConcernedAsync(id));
            }
        }
    }

    private async Task RenewAsync(IReadOnlyList<Guid> concerned)
    {
        var goingOut = await artefacts.RenewAsync(concerned);
        // Those that were closed go out to nobody: whoever still has their page open is told so.
        foreach (var editionId in concerned.Union(goingOut))
            news.Announce(editionId);
    }
}
