using System.Collections.Concurrent;
using System.Threading.Channels;

namespace Valtro.Application.Work;

/// <summary>Those who listen to news of some things, each over a stream of their own (server-sent events).</summary>
/// <param name="most">So many at once; more are told to come again.</param>
public sealed class Listeners(int most)
{
    private readonly ConcurrentDictionary<Guid, ConcurrentDictionary<Listener, bool>> _of = new();
    private int _count;

    /// <summary>Whoever listens should look whether what they have is still right.</summary>
    /// <param name="by">Which request made it; empty where nobody knows.</param>
    public void Announce(Guid id, string by = "")
    {
        if (_of.TryGetValue(id, out var listeners))
        {
            foreach (var listener in listeners.Keys)
                listener.Raise(by);
        }
    }

    public void AnnounceAll()
    {
        foreach (var id in _of.Keys)
            Announce(id);
    }

    /// <summary>Somebody listens from now on, until what is given back is disposed.</summary>
    /// <returns>Null where there are too many.</returns>
    public Listener? Begin(IReadOnlyCollection<Guid> ids)
    {
        if (Interlocked.Increment(ref _count) > most)
        {
            Interlocked.Decrement(ref _count);
            return null;
        }
        var listener = new Listener(leaving =>
        {
            foreach (var id in ids)
                _of[id].TryRemove(leaving, out _);
            Interlocked.Decrement(ref _count);
        });
        foreach (var id in ids)
            _of.GetOrAdd(id, _ => new ConcurrentDictionary<Listener, bool>()).TryAdd(listener, true);
        return listener;
    }
}

/// <summary>One of them.</summary>
public sealed class Listener(Action<Listener> leave) : IDisposable
{
    /// <summary>A sign of life, as a stream of events writes one.</summary>
    public const string StillHere = ": still here\n\n";

    private static readonly TimeSpan Heartbeat = TimeSpan.FromSeconds(20);

    /// <summary>So many requests are told apart; where there are more, nobody knows.</summary>
    private const int MostKnown = 50;

    private readonly Channel<string> _channel =
        Channel.CreateBounded<string>(new BoundedChannelOptions(MostKnown) { FullMode = BoundedChannelFullMode.DropWrite });

    private int _isOverfull;

    internal void Raise(string by)
    {
        // One place is kept free, so that the last that is written is seen not to be the last that there was.
        if (_channel.Reader.Count >= MostKnown - 1)
            Volatile.Write(ref _isOverfull, 1);
        _channel.Writer.TryWrite(by);
    }

    /// <returns>By which requests what was announced was made, each once, empty where nobody knows of one; none where it is time for a sign
    /// of life. It may be asked again all the same: an announcement may have been lost.</returns>
    /// <exception cref="OperationCanceledException">The reader left, or the server stops: both are the end of a stream.</exception>
    public async Task<IReadOnlyCollection<string>> WaitAsync(CancellationToken ends)
    {
        using var wait = CancellationTokenSource.CreateLinkedTokenSource(ends);
        wait.CancelAfter(Heartbeat);
        try
        {
            await _channel.Reader.WaitToReadAsync(wait.Token);
        }
        catch (OperationCanceledException) when (!ends.IsCancellationRequested)
        {
        }
        var by = new HashSet<string>();
        if (Interlocked.Exchange(ref _isOverfull, 0) == 1)
            by.Add("");
        while (_channel.Reader.TryRead(out var one))
            by.Add(one);
        return by;
    }

    public void Dispose() => leave(this);
}
