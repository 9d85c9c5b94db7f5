using NodaTime;
using Valtro.Application.Editions;
using Valtro.Store;

namespace Valtro.Application.Work;

/// <summary>Renders an edition's feed and the months that pages show first, for every audience that it goes out to, so that no reader waits
/// for it.</summary>
internal sealed class RenderWorker(EditionStore editions, DeliveryStore deliveries, Artefacts artefacts, IClock clock) : IWorker
{
    public WorkKind Kind => WorkKind.Render;

    public int AtOnce => 2;

    public Duration Claim => Duration.FromMinutes(1);

    public Duration? WaitAfter(int failures) => failures < 10 ? Duration.FromSeconds(Math.Min(300, Math.Pow(2, failures - 1))) : null;

    public async Task<Instant?> DoAsync(Store.Work work, CancellationToken stopping)
    {
        var edition = Guid.Parse(work.Key);
        Instant? next = null;
        foreach (var address in await editions.GoingOutAsync(edition))
        {
            var month = address.MonthAt(clock.GetCurrentInstant());
            foreach (var key in new[] { ArtefactKey.Feed, ArtefactKey.Of(month), ArtefactKey.Of(month.PlusMonths(1)) })
            {
                stopping.ThrowIfCancellationRequested();
                var turn = await artefacts.RenewAsync(address, key);
                next = next is null || turn < next ? turn ?? next : next;
            }
        }
        if (work.Tries > 0 || clock.GetCurrentInstant() - work.DueAt >= DeliveryStore.LateAfter)
            await deliveries.WasLateAsync(edition);
        // Only now is it news: whoever asks at once gets what is rendered already. Those that were closed go out to nobody: whoever still
        // has
        // their page open is told so.
        await editions.AnnounceRenderedAsync(edition);
        return next;
    }
}
