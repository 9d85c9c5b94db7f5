using System.Buffers;

namespace Valtro.Core.Editions;

/// <summary>The dates of a composition while it is made, in room that is used again: what is made anew each time would cost more than the
/// composing.</summary>
/// <remarks>What is compared over and over lies side by side: going to the events for it costs more than the comparison.</remarks>
internal sealed class Dates : IDisposable
{
    private Dated[] _dates = ArrayPool<Dated>.Shared.Rent(64);
    private int[] _order = [];
    private long[] _moments = [];
    private Tied[] _tied = [];
    private int _count;

    /// <summary>One of those that are at the same moment.</summary>
    private readonly record struct Tied(string Title, int Place);

    public ref Dated this[int place] => ref _dates[place];

    public void Add(in Dated date)
    {
        if (_count == _dates.Length)
        {
            var larger = ArrayPool<Dated>.Shared.Rent(2 * _count);
            Array.Copy(_dates, larger, _count);
            Return(_dates);
            _dates = larger;
        }
        _dates[_count++] = date;
    }

    /// <summary>The places of all, by day and moment; those of one moment by title. To be asked for once, when all are there.</summary>
    public Span<int> Order()
    {
        (_moments, _order, _tied) =
            (ArrayPool<long>.Shared.Rent(_count), ArrayPool<int>.Shared.Rent(_count), ArrayPool<Tied>.Shared.Rent(_count));
        var moments = _moments.AsSpan(0, _count);
        var order = _order.AsSpan(0, _count);
        for (var place = 0; place < _count; place++)
            (moments[place], order[place]) = (_dates[place].Order, place);
        moments.Sort(order);
        for (int first = 0, end; first < _count; first = end)
        {
            end = first + 1;
            while (end < _count && moments[end] == moments[first])
                end++;
            if (end > first + 1)
                ByTitle(order[first..end], _tied.AsSpan(first, end - first));
        }
        return order;
    }

    /// <summary>Whether what stands at two positions of the order is at one moment and under one title.</summary>
    public bool SortAlike(int position, int other) =>
        _moments[position] == _moments[other] && string.Equals(_tied[position].Title, _tied[other].Title, StringComparison.Ordinal);

    private void ByTitle(Span<int> order, Span<Tied> tied)
    {
        for (var index = 0; index < order.Length; index++)
            tied[index] = new Tied(_dates[order[index]].Title, order[index]);
        tied.Sort((one, other) => string.CompareOrdinal(one.Title, other.Title) is var byTitle && byTitle != 0
            ? byTitle
            : _dates[one.Place].Event.Uid.CompareTo(_dates[other.Place].Event.Uid));
        for (var index = 0; index < order.Length; index++)
            order[index] = tied[index].Place;
    }

    /// <summary>What they refer to must not outlive the composition.</summary>
    private void Return<T>(T[] rented)
    {
        rented.AsSpan(0, _count).Clear();
        ArrayPool<T>.Shared.Return(rented);
    }

    public void Dispose()
    {
        Return(_dates);
        if (_order.Length == 0)
            return;
        ArrayPool<int>.Shared.Return(_order);
        ArrayPool<long>.Shared.Return(_moments);
        Return(_tied);
    }
}
