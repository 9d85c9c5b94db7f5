using Microsoft.Extensions.Caching.Memory;
using Valtro.Core.Events;

namespace Valtro.Store;

/// <summary>Events as they were read lately: an event of the same version is the same event, so its document need not be fetched and read
/// again.</summary>
/// <remarks>Bounded by number. Whoever is about to write an event reads it anew (<see cref="EventStore.FindAsync"/>).</remarks>
internal sealed class EventMemory
{
    /// <summary>At about 1.5 kB each.</summary>
    private const int Most = 30_000;

    private readonly MemoryCache _known = new(new MemoryCacheOptions { SizeLimit = Most, CompactionPercentage = 0.2 });

    /// <param name="lists">As they are now: an entry that was renamed since makes the event another.</param>
    public CalendarEvent? Find(Guid id, int version, NamedLists lists) =>
        _known.TryGetValue(id, out CalendarEvent? known) && known!.Version == version && lists.Agree(known) ? known : null;

    public void Remember(CalendarEvent read) => _known.Set(read.Id, read, new MemoryCacheEntryOptions { Size = 1 });
}
