using System.Runtime.CompilerServices;

namespace Valtro.Application.Work;

/// <summary>Tells open desks that something of their organisation is another, so that they need not ask by the clock. It does not say
/// what.</summary>
public sealed class DeskNews
{
    public Listeners Listeners { get; } = new(most: 2_000);

    /// <exception cref="OperationCanceledException">Whoever listened left, it was long enough, or the server stops.</exception>
    public static async IAsyncEnumerable<string> SayAsync(Listener listener, [EnumeratorCancellation] CancellationToken ends)
    {
        yield return Listener.StillHere;
        while (true)
            yield return await listener.WaitAsync(ends) ? "event: desk\ndata: changed\n\n" : Listener.StillHere;
    }
}
