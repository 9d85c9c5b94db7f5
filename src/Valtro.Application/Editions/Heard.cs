using System.Collections.Concurrent;
using NodaTime;

namespace Valtro.Application.Editions;

/// <summary>What a node has heard of an edition.</summary>
/// <param name="Version">Its content version.</param>
/// <param name="NotBefore">What was rendered from an older version is served no more.</param>
/// <param name="At">When it was heard.</param>
public readonly record struct HeardOf(long Version, long NotBefore, Instant At);

/// <summary>What this node has heard of editions, and whether it still hears: then it need not ask.</summary>
/// <remarks>
/// The listening connection is asked for a sign of life every second; whatever was committed before that sign has been heard before it.
/// So while it hears, what it knows of an edition is right, and when it hears no more, what it knew was right until the last sign.
/// </remarks>
public sealed class Heard(IClock clock)
{
    /// <summary>A sign of life is good for this long.</summary>
    private static readonly TimeSpan GoodFor = TimeSpan.FromSeconds(3);

    private readonly ConcurrentDictionary<Guid, HeardOf> _editions = new();
    private long _lastSign;
    private volatile bool _listens;
    private Instant _rightUntil;

    /// <summary>Announcements arrive, and none was missed.</summary>
    public bool Listens => _listens && TimeProvider.System.GetElapsedTime(Interlocked.Read(ref _lastSign)) < GoodFor;

    /// <summary>Until when what this node knows was certainly right.</summary>
    public Instant RightUntil => Listens ? clock.GetCurrentInstant() : _rightUntil;

    public HeardOf? Of(Guid editionId) => _editions.TryGetValue(editionId, out var heard) ? heard : null;

    /// <summary>An edition has another version.</summary>
    public void Note(Guid editionId, long version, long notBefore)
    {
        var now = clock.GetCurrentInstant();
        _editions.AddOrUpdate(editionId, _ => new HeardOf(version, notBefore, now),
            (_, before) => version > before.Version ? new HeardOf(version, Math.Max(notBefore, before.NotBefore), now) : before);
    }

    /// <summary>The connection lives, and nothing was missed.</summary>
    public void SignOfLife()
    {
        Interlocked.Exchange(ref _lastSign, TimeProvider.System.GetTimestamp());
        _rightUntil = clock.GetCurrentInstant();
        _listens = true;
    }

    /// <summary>The connection is gone.</summary>
    public void Lost() => _listens = false;
}
