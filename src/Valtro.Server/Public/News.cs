using System.Collections.Concurrent;
using System.Threading.Channels;
using Valtro.Store;

namespace Valtro.Server.Public;

/// <summary>Tells open reading pages that their edition changed (server-sent events).</summary>
public sealed class News(Artefacts artefacts, IHostApplicationLifetime lifetime, Work.Measures measures)
{
    private const int MostListeners = 5_000;

    private static readonly TimeSpan Heartbeat = TimeSpan.FromSeconds(20);

    private readonly ConcurrentDictionary<Guid, ConcurrentDictionary<Channel<bool>, bool>> _listeners = new();
    private int _count;

    /// <summary>Somebody who listens should look whether what they have is still right.</summary>
    public void Announce(Guid editionId)
    {
        if (!_listeners.TryGetValue(editionId, out var channels))
            return;
        foreach (var channel in channels.Keys)
            channel.Writer.TryWrite(true);
    }

    public void AnnounceAll()
    {
        foreach (var editionId in _listeners.Keys)
            Announce(editionId);
    }

    /// <summary>Sends the version of the edition's pages now, and again whenever what readers get has changed.</summary>
    public async Task StreamAsync(HttpContext context, Guid editionId, EditionName name)
    {
        context.Response.ContentType = "text/event-stream";
        context.Response.Headers.CacheControl = "no-store";
        context.Response.Headers["X-Accel-Buffering"] = "no";
        if (HttpMethods.IsHead(context.Request.Method))
            return;
        if (Interlocked.Increment(ref _count) > MostListeners)
        {
            Interlocked.Decrement(ref _count);
            context.Response.StatusCode = StatusCodes.Status503ServiceUnavailable;
            context.Response.Headers.RetryAfter = "60";
            return;
        }
        var channel = Channel.CreateBounded<bool>(new BoundedChannelOptions(1) { FullMode = BoundedChannelFullMode.DropWrite });
        var channels = _listeners.GetOrAdd(editionId, _ => new ConcurrentDictionary<Channel<bool>, bool>());
        channels.TryAdd(channel, true);
        measures.Listens(1);
        try
        {
            using var ends = CancellationTokenSource.CreateLinkedTokenSource(context.RequestAborted, lifetime.ApplicationStopping);
            await TellAsync(context.Response, channel.Reader, name, ends.Token);
        }
        catch (OperationCanceledException)
        {
            // The reader left, or the server stops: both are the end of a stream.
        }
        finally
        {
            channels.TryRemove(channel, out _);
            Interlocked.Decrement(ref _count);
            measures.Listens(-1);
        }
    }

    private async Task TellAsync(HttpResponse response, ChannelReader<bool> news, EditionName name, CancellationToken ends)
    {
        string? told = null;
        while (true)
        {
            var version = await VersionAsync(name) ?? told;
            await response.WriteAsync(version == told ? ": still here\n\n" : $"event: edition\ndata: {version}\n\n", ends);
            await response.Body.FlushAsync(ends);
            told = version;
            using var wait = CancellationTokenSource.CreateLinkedTokenSource(ends);
            wait.CancelAfter(Heartbeat);
            try
            {
                await news.WaitToReadAsync(wait.Token);
            }
            catch (OperationCanceledException) when (!ends.IsCancellationRequested)
            {
                // Nothing was announced. It is asked again all the same: an announcement may have been lost.
            }
            while (news.TryRead(out _))
            {
            }
        }
    }

    /// <returns>The version of what readers get now; null where that cannot be said at the moment.</returns>
    private async Task<string?> VersionAsync(EditionName name)
    {
        try
        {
            var located = await artefacts.LocateAsync(name, Asker.Ourselves);
            return located.Found.Address is null ? "closed" : (await artefacts.PageAsync(located, Asker.Ourselves))?.Version ?? "closed";
        }
        catch (Exception away) when (away is ComeAgainException || DatabaseFailures.IsAway(away))
        {
            return null;
        }
    }
}
