namespace Valtro.StandIns.Subscriber;

/// <summary>Some programs that subscribe, under a clock of their own that can be run forward: what "up to a day later" looks like.</summary>
public sealed class Subscriber(HttpClient http, TimeProvider clock) : BackgroundService
{
    private const int Most = 12;
    private static readonly TimeSpan Looks = TimeSpan.FromSeconds(1);

    private readonly List<Subscription> _subscriptions = [];
    private readonly SemaphoreSlim _one = new(1);
    private TimeSpan _ahead;

    /// <summary>By the programs' clock.</summary>
    public DateTimeOffset Now => clock.GetUtcNow() + _ahead;

    public IReadOnlyList<Subscription> All
    {
        get
        {
            lock (_subscriptions)
                return [.. _subscriptions];
        }
    }

    public void Add(Subscription subscription)
    {
        lock (_subscriptions)
        {
            _subscriptions.Insert(0, subscription);
            if (_subscriptions.Count > Most)
                _subscriptions.RemoveAt(Most);
        }
    }

    /// <summary>So much time passes for them; whose turn came in it has asked when this is done.</summary>
    public async Task ForwardAsync(TimeSpan by, CancellationToken stopping)
    {
        _ahead += by;
        await AskAsync(stopping);
    }

    protected override async Task ExecuteAsync(CancellationToken stoppingToken)
    {
        while (!stoppingToken.IsCancellationRequested)
        {
            await AskAsync(stoppingToken);
            await Task.Delay(Looks, stoppingToken).ConfigureAwait(ConfigureAwaitOptions.SuppressThrowing);
        }
    }

    private async Task AskAsync(CancellationToken stopping)
    {
        await _one.WaitAsync(stopping);
        try
        {
            foreach (var due in All.Where(one => one.IsDue(Now)))
                await due.AskAsync(http, Now, stopping);
        }
        finally
        {
            _one.Release();
        }
    }
}
