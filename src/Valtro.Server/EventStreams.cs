using Valtro.Application.Work;

namespace Valtro.Server;

/// <summary>Sends news to those who listen, for as long as they do (server-sent events, HTML 9.2).</summary>
public sealed class EventStreams(IHostApplicationLifetime lifetime)
{
    /// <param name="ids">What they listen to.</param>
    /// <param name="news">What is to be sent, one piece after the other, until it is told to end.</param>
    /// <param name="longest">Then it ends, and whoever listens comes again; null for never.</param>
    public async Task SendAsync(
        HttpContext context, Listeners listeners, IReadOnlyCollection<Guid> ids,
            Func<Listener, CancellationToken, IAsyncEnumerable<string>> news, TimeSpan? longest = null)
    {
        var response = context.Response;
        response.ContentType = "text/event-stream";
        response.Headers.CacheControl = "no-store";
        response.Headers["X-Accel-Buffering"] = "no";
        if (HttpMethods.IsHead(context.Request.Method))
            return;
        using var listener = listeners.Begin(ids);
        if (listener is null)
        {
            response.StatusCode = StatusCodes.Status503ServiceUnavailable;
            response.Headers.RetryAfter = "60";
            return;
        }
        using var ends = CancellationTokenSource.CreateLinkedTokenSource(context.RequestAborted, lifetime.ApplicationStopping);
        if (longest is { } time)
            ends.CancelAfter(time);
        try
        {
            await foreach (var said in news(listener, ends.Token))
            {
                await response.WriteAsync(said, ends.Token);
                await response.Body.FlushAsync(ends.Token);
            }
        }
        catch (OperationCanceledException)
        {
            // Whoever listened left, it was long enough, or the server stops: all are the end of a stream.
        }
    }
}
