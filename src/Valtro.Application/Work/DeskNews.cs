using System.Runtime.CompilerServices;

namespace Valtro.Application.Work;

/// <summary>Tells open desks that something of their organisation is another, so that they need not ask by the clock. It does not say
/// what, but by which requests, where all are known: whoever made one has asked already.</summary>
public sealed class DeskNews
{
    public Listeners Listeners { get; } = new(most: 2_000);

    /// <exception cref="OperationCanceledException">Whoever listened left, it was long enough, or the server stops.</exception>
    public static async IAsyncEnumerable<string> SayAsync(Listener listener, [EnumeratorCancellation] CancellationToken ends)
    {
        yield return Listener.StillHere;
        while (true)
        {
            var by = await listener.WaitAsync(ends);
            yield return by.Count == 0
                ? Listener.StillHere
                : $"event: desk\ndata: {(by.Contains("") ? "" : string.Join(' ', by))}\n\n";
        }
    }
}
