using System.Collections.Concurrent;
using System.Threading.Channels;

namespace Valtro.Server.Public;

/// <summary>Tells open reading pages that their edition changed (server-sent events).</summary>
public sealed class News(Artefacts artefacts, IHostApplicationLifetime lifetime, ILogger<News> log)
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

    /// <summary>Sends the edition's validator now, and again whenever what readers get has changed.</summary>
    public async Task StreamAsync(HttpContext context, Guid editionId, EditionName name)
    {
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
        try
        {
            context.Response.ContentType = "text/event-stream";
            context.Response.Headers.CacheControl = "no-store";
            context.Response.Headers["X-Accel-Buffering"] = "no";
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
        }
    }

    private async Task TellAsync(HttpResponse response, ChannelReader<bool> news, EditionName name, CancellationToken ends)
    {
        string? told = null;
        while (true)
        {
            var feed = await artefacts.FindAsync(name, ArtefactKey.Feed);
            var etag = feed?.Artefact.Etag ?? "closed";
            await response.WriteAsync(etag == told ? ": still here\n\n" : $"event: edition\ndata: {etag}\n\n", ends);
            await response.Body.FlushAsync(ends);
            told = etag;
            using var wait = CancellationTokenSource.CreateLinkedTokenSource(ends);
            wait.CancelAfter(Heartbeat);
            try
            {
                await news.ReadAsync(wait.Token);
            }
            catch (OperationCanceledException) when (!ends.IsCancellationRequested)
            {
                // Nothing was announced. The loop asks again all the same: an announcement may have been lost.
                log.LogTrace("Heartbeat for {Edition}", name);
            }
        }
    }
}
