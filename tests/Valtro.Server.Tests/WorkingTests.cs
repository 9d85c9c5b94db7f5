using Microsoft.Extensions.DependencyInjection;
using Microsoft.Extensions.Logging.Abstractions;
using NodaTime;
using Valtro.Server.Work;
using Valtro.Store;
using Valtro.Tests;

namespace Valtro.Server.Tests;

/// <summary>The loop that does the work of one kind.</summary>
public sealed class WorkingTests : IAsyncLifetime
{
    private static readonly Instant Now = Instant.FromUtc(2026, 11, 23, 12, 0);

    private readonly TestDatabase _test = new(DatabaseTemplate.Empty);
    private readonly ServiceProvider _services = new ServiceCollection().AddMetrics().AddSingleton<Measures>().BuildServiceProvider();

    public Task InitializeAsync() => _test.InitializeAsync();

    public async Task DisposeAsync()
    {
        await _test.DisposeAsync();
        await _services.DisposeAsync();
    }

    /// <summary>Takes as long as it is let.</summary>
    private sealed class LongWorker : IWorker
    {
        public TaskCompletionSource Begun { get; } = new(TaskCreationOptions.RunContinuationsAsynchronously);

        public TaskCompletionSource Ended { get; } = new(TaskCreationOptions.RunContinuationsAsynchronously);

        public WorkKind Kind => WorkKind.Sweep;

        public int AtOnce => 1;

        public Duration Claim => Duration.FromMinutes(1);

        public Duration? WaitAfter(int failures) => null;

        public async Task<Instant?> DoAsync(Store.Work work, CancellationToken stopping)
        {
            Begun.SetResult();
            await Ended.Task.WaitAsync(stopping);
            return null;
        }
    }

    private async Task<(LongWorker Worker, Task Loop)> BeginAsync(WorkStore store, CancellationToken stopping)
    {
        await store.PlanAsync(WorkKind.Sweep, "all", Now);
        var (worker, measures) = (new LongWorker(), _services.GetRequiredService<Measures>());
        var working = new Working(worker, store, new WorkSignal(), new Faults(measures, NullLogger<Faults>.Instance), measures, OneClock.From($"{Now}*0", isProduction: false));
        var loop = working.RunAsync(stopping);
        await worker.Begun.Task;
        return (worker, loop);
    }

    [Fact]
    public async Task What_was_begun_when_a_node_stops_is_given_back_at_once()
    {
        var store = new WorkStore(_test.Database);
        using var stop = new CancellationTokenSource();
        var (_, loop) = await BeginAsync(store, stop.Token);
        Assert.Empty(await store.ClaimAsync(WorkKind.Sweep, 1, Now, Now + Duration.FromMinutes(1)));
        await stop.CancelAsync();
        await Assert.ThrowsAnyAsync<OperationCanceledException>(() => loop);
        Assert.Single(await store.ClaimAsync(WorkKind.Sweep, 1, Now, Now + Duration.FromMinutes(1)));
    }

    [Fact]
    public async Task What_somebody_else_has_taken_meanwhile_stays_theirs()
    {
        var store = new WorkStore(_test.Database);
        using var stop = new CancellationTokenSource();
        var (_, loop) = await BeginAsync(store, stop.Token);
        var later = Now + Duration.FromMinutes(2);
        Assert.Single(await store.ClaimAsync(WorkKind.Sweep, 1, later, later + Duration.FromMinutes(1)));
        await stop.CancelAsync();
        await Assert.ThrowsAnyAsync<OperationCanceledException>(() => loop);
        Assert.Empty(await store.ClaimAsync(WorkKind.Sweep, 1, later, later + Duration.FromMinutes(1)));
    }
}
