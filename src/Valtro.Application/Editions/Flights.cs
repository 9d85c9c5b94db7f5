using System.Collections.Concurrent;

namespace Valtro.Application.Editions;

/// <summary>Work that several wait for at once and that is done once. It goes on when those who wait have left.</summary>
public sealed class Flights<TKey, T>
    where TKey : notnull
{
    private readonly ConcurrentDictionary<TKey, Lazy<Flight>> _inAir = new();

    /// <param name="Began">A timestamp of <see cref="TimeProvider.System"/>.</param>
    public sealed record Flight(Task<T> Task, long Began)
    {
        /// <summary>Waits for at most <paramref name="most"/> since it began: who comes late to a long flight does not wait at
        /// all.</summary>
        /// <exception cref="TimeoutException">It takes longer.</exception>
        public async Task<T> WithinAsync(TimeSpan most)
        {
            if (Task.IsCompleted)
                return await Task;
            var left = most - TimeProvider.System.GetElapsedTime(Began);
            return left > TimeSpan.Zero ? await Task.WaitAsync(left) : throw new TimeoutException();
        }
    }

    /// <summary>One that is in the air.</summary>
    public Flight? Find(TKey key) => _inAir.TryGetValue(key, out var flight) ? flight.Value : null;

    /// <summary>Joins the flight that is in the air, or begins one.</summary>
    public Flight Join(TKey key, Func<Task<T>> work)
    {
        var flight = _inAir.GetOrAdd(key, _ => new Lazy<Flight>(() => new Flight(RunAsync(key, work), TimeProvider.System.GetTimestamp())));
        return flight.Value;
    }

    /// <summary>Nothing of whoever began it goes along: neither their request nor for whom they worked.</summary>
    private Task<T> RunAsync(TKey key, Func<Task<T>> work)
    {
        using var alone = ExecutionContext.SuppressFlow();
        return Task.Run(async () =>
        {
            try
            {
                return await work();
            }
            finally
            {
                _inAir.TryRemove(key, out _);
            }
        });
    }
}
