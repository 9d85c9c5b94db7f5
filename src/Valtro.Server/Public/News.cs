using System.Text;
using System.Text.Json;
using Valtro.Store;

namespace Valtro.Server.Public;

/// <summary>Tells open reading pages that their edition changed (server-sent events).</summary>
public sealed class News(Artefacts artefacts, IHostApplicationLifetime lifetime, Work.Measures measures)
{
    private readonly Listeners _listeners = new(most: 5_000);

    /// <summary>Somebody who listens should look whether what they have is still right.</summary>
    public void Announce(Guid editionId) => _listeners.Announce(editionId);

    public void AnnounceAll() => _listeners.AnnounceAll();

    /// <summary>Sends the version of the pages of some editions now, and again whenever what their readers get has changed.</summary>
    /// <param name="editions">Each with the word by which the stream tells of it; empty where it tells of one only.</param>
    public async Task StreamAsync(HttpContext context, IReadOnlyList<(string Of, Guid Id, EditionName Name)> editions)
    {
        using var listener = _listeners.Begin(context, [.. editions.Select(edition => edition.Id).Distinct()]);
        if (listener is null)
            return;
        measures.Listens(1);
        try
        {
            using var ends = CancellationTokenSource.CreateLinkedTokenSource(context.RequestAborted, lifetime.ApplicationStopping);
            await TellAsync(context.Response, listener, editions, ends.Token);
        }
        catch (OperationCanceledException)
        {
            // The reader left, or the server stops: both are the end of a stream.
        }
        finally
        {
            measures.Listens(-1);
        }
    }

    private async Task TellAsync(HttpResponse response, Listener listener, IReadOnlyList<(string Of, Guid Id, EditionName Name)> editions, CancellationToken ends)
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
            await listener.WaitAsync(ends);
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
