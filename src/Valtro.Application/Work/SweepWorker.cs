using NodaTime;
using Valtro.Store;

namespace Valtro.Application.Work;

/// <summary>By the clock: counts who fetched what on days that are over, empties the bin of what has rested there for 90 days, and sweeps
/// out files that nothing names, and what readers were told of things long gone.</summary>
internal sealed class SweepWorker(EventStore events, CalendarStore calendars, EditionSettingsStore settings, FileStore files,
    DeliveryStore deliveries, SubscriberStore subscribers, DeliveredStore delivered, SessionStore sessions,
    AskedStore asked, SearchStore search, IntakeStore intakes,
    IClock clock, ILogger<SweepWorker> log)
        : IWorker
{
    public const string Key = "hourly";

    private static readonly Duration Every = Duration.FromHours(1);

    public WorkKind Kind => WorkKind.Sweep;

    public int AtOnce => 1;

    public Duration Claim => Duration.FromMinutes(10);

    public Duration? WaitAfter(int failures) => Duration.FromMinutes(Math.Min(60, Math.Pow(2, failures)));

    public async Task<Instant?> DoAsync(Store.Work work, CancellationToken stopping)
    {
        using var everywhere = Wall.Everywhere();
        var now = clock.GetCurrentInstant();
        var gone = await events.EmptyBinAsync(now - EventStore.KeptInBin);
        await calendars.EmptyBinAsync(now - EventStore.KeptInBin);
        await settings.EmptyBinAsync(now - EventStore.KeptInBin, now);
        await events.ForgetReferencesAsync(now - EventStore.KeptInBin);
        await files.SweepAsync(now - Duration.FromDays(1));
        await deliveries.FoldAsync(now);
        await subscribers.SweepAsync(now);
        await delivered.ForgetGoneAsync(now - DeliveredStore.GoneIsKept);
        await sessions.SweepAsync(now);
        await asked.ForgetAsync(now - AskedStore.Kept);
        await search.ForgetWordsAsync();
        await intakes.SweepAsync(now);
        if (gone > 0)
            log.LogInformation("{Count} events left the bin for good", gone);
        return now + Every;
    }
}

/// <summary>Sees to it that what is done by the clock is planned.</summary>
internal sealed class Planning(WorkStore store, IClock clock) : ILoop
{
    public string Name => "planning what is done by the clock";

    public Task RunAsync(CancellationToken stopping) => store.PlanAsync(WorkKind.Sweep, SweepWorker.Key, clock.GetCurrentInstant());
}
