using Microsoft.Extensions.DependencyInjection;
using Microsoft.Extensions.Logging;
using NodaTime;
using Valtro.Application.Work;
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
        /// <summary>Let go each time that it begins.</summary>
        public SemaphoreSlim Begun { get; } = new(0);

        public TaskCompletionSource Ended { get; } = new(TaskCreationOptions.RunContinuationsAsynchronously);

        public WorkKind Kind => WorkKind.Sweep;

        public int AtOnce => 1;

        public Duration Claim => Duration.FromMinutes(1);

        public Duration? WaitAfter(int failures) => null;

        public async Task<Instant?> DoAsync(Store.Work work, CancellationToken stopping)
        {
            Begun.Release();
            await Ended.Task.WaitAsync(stopping);
            return null;
        }
    }

    /// <summary>Knows when something was written down as failed.</summary>
    private sealed class FailureLog : ILogger<Faults>
    {
        public TaskCompletionSource CouldNotBeSaid { get; } = new(TaskCreationOptions.RunContinuationsAsynchronously);

        public IDisposable? BeginScope<TState>(TState state) where TState : notnull => null;

        public bool IsEnabled(LogLevel level) => true;

        public void Log<TState>(LogLevel level, EventId id, TState state, Exception? exception, Func<TState, Exception?, string> format)
        {
            if (format(state, exception).StartsWith("writing down what failed", StringComparison.Ordinal))
                CouldNotBeSaid.TrySetResult();
        }
    }

    private readonly FailureLog _failures = new();

    private async Task<(LongWorker Worker, Task Loop)> BeginAsync(WorkStore store, CancellationToken stopping)
    {
        await store.PlanAsync(WorkKind.Sweep, "all", Now);
        var (worker, measures) = (new LongWorker(), _services.GetRequiredService<Measures>());
        var working = new Working(
            worker, store, new WorkSignal(), new Faults(measures, _failures), measures, OneClock.From($"{Now}*0", isProduction: false));
        var loop = KeepAsync(working, stopping);
        await worker.Begun.WaitAsync(CancellationToken.None);
        return (worker, loop);
    }

    /// <summary>As the supervisor does.</summary>
    private static async Task KeepAsync(Working working, CancellationToken stopping)
    {
        while (true)
        {
            try
            {
                await working.RunAsync(stopping);
            }
            catch (Exception) when (!stopping.IsCancellationRequested)
            {
                await Task.Yield();
            }
        }
    }

    [Fact]
    public async Task What_was_held_when_the_database_went_away_is_done_as_soon_as_it_is_back()
    {
        var store = new WorkStore(_test.Database);
        using var stop = new CancellationTokenSource();
        var (worker, loop) = await BeginAsync(store, stop.Token);
        await _test.StopAsync();
        worker.Ended.SetResult();
        await _failures.CouldNotBeSaid.Task;
        await _test.StartAsync();
        // The clock stands: no claim runs out.
        Assert.True(await worker.Begun.WaitAsync(TimeSpan.FromSeconds(20), CancellationToken.None));
        await stop.CancelAsync();
        await Assert.ThrowsAnyAsync<OperationCanceledException>(() => loop);
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
