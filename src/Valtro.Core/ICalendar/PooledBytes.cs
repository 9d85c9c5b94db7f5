using System.Buffers;

namespace Valtro.Core.ICalendar;

/// <summary>Bytes that grow in room which is given back: a feed of thousands of events would otherwise leave megabytes behind.</summary>
internal sealed class PooledBytes : IBufferWriter<byte>, IDisposable
{
    private byte[] _room = ArrayPool<byte>.Shared.Rent(16 * 1024);

    public int Count { get; private set; }

    public ReadOnlySpan<byte> Written => _room.AsSpan(0, Count);

    public void Advance(int count) => Count += count;

    public Memory<byte> GetMemory(int sizeHint = 0)
    {
        Grow(sizeHint);
        return _room.AsMemory(Count);
    }

    public Span<byte> GetSpan(int sizeHint = 0)
    {
        Grow(sizeHint);
        return _room.AsSpan(Count);
    }

    private void Grow(int sizeHint)
    {
        var needed = Count + Math.Max(sizeHint, 1);
        if (needed <= _room.Length)
            return;
        var larger = ArrayPool<byte>.Shared.Rent(Math.Max(needed, _room.Length * 2));
        Written.CopyTo(larger);
        ArrayPool<byte>.Shared.Return(_room);
        _room = larger;
    }

    public void Dispose()
    {
        ArrayPool<byte>.Shared.Return(_room);
        (_room, Count) = ([], 0);
    }
}
