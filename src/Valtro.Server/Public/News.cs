using System.Collections.Concurrent;
using System.Text;
using System.Text.Json;
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

    /// <summary>Sends the version of the pages of some editions now, and again whenever what their readers get has changed.</summary>
    /// <param name="editions">Each with the word by which the stream tells of it; empty where it tells of one only.</param>
    public async Task StreamAsync(HttpContext context, IReadOnlyList<(string Of, Guid Id, EditionName Name)> editions)
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
        var ids = editions.Select(edition => edition.Id).Distinct().ToArray();
        foreach (var id in ids)
            _listeners.GetOrAdd(id, _ => new ConcurrentDictionary<Channel<bool>, bool>()).TryAdd(channel, true);
        measures.Listens(1);
        try
        {
            using var ends = CancellationTokenSource.CreateLinkedTokenSource(context.RequestAborted, lifetime.ApplicationStopping);
            await TellAsync(context.Response, channel.Reader, editions, ends.Token);
        }
        catch (OperationCanceledException)
        {
            // The reader left, or the server stops: both are the end of a stream.
        }
        finally
        {
            foreach (var id in ids)
                _listeners[id].TryRemove(channel, out _);
            Interlocked.Decrement(ref _count);
            measures.Listens(-1);
        }
    }

    private async Task TellAsync(HttpResponse response, ChannelReader<bool> news, IReadOnlyList<(string Of, Guid Id, EditionName Name)> editions, CancellationToken ends)
    {
        var told = new string?[editions.Count];
        while (true)
        {
            var said = new StringBuilder();
            for (var index = 0; index < told.Length; index++)
            {
                var (of, _, name) = editions[index];
                if (await VersionAsync(name) is not { } version || version == told[index])
                    continue;
                told[index] = version;
                said.Append("event: edition\ndata: ").Append(of.Length == 0 ? version : JsonSerializer.Serialize(new { of, version }, Json.Options)).Append("\n\n");
            }
            await response.WriteAsync(said.Length == 0 ? ": still here\n\n" : said.ToString(), ends);
            await response.Body.FlushAsync(ends);
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
