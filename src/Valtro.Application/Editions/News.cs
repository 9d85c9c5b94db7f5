using System.Runtime.CompilerServices;
using System.Text;
using System.Text.Json;
using Valtro.Application.Work;
using Valtro.Store;

namespace Valtro.Application.Editions;

/// <summary>Tells open reading pages that their edition changed (server-sent events).</summary>
public sealed class News(Artefacts artefacts, Measures measures)
{
    /// <summary>Those who are told; whoever listens should look whether what they have is still right.</summary>
    public Listeners Listeners { get; } = new(most: 5_000);

    /// <summary>Says the version of the pages of some editions now, and again whenever what their readers get has changed.</summary>
    /// <param name="editions">Each with the word by which the stream tells of it; empty where it tells of one only.</param>
    /// <exception cref="OperationCanceledException">The reader left, or the server stops.</exception>
    public async IAsyncEnumerable<string> SayAsync(
        IReadOnlyList<(string Of, EditionName Name)> editions, Listener listener, [EnumeratorCancellation] CancellationToken ends)
    {
        using var listens = measures.Listening();
        var told = new string?[editions.Count];
        while (true)
        {
            var said = new StringBuilder();
            for (var index = 0; index < told.Length; index++)
            {
                var (of, name) = editions[index];
                if (await VersionAsync(name) is not { } version || version == told[index])
                    continue;
                told[index] = version;
                said.Append("event: edition\ndata: ")
                    .Append(of.Length == 0 ? version : JsonSerializer.Serialize(new { of, version }, Json.Options)).Append("\n\n");
            }
            yield return said.Length == 0 ? Listener.StillHere : said.ToString();
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
