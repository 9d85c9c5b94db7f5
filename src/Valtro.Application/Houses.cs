using Microsoft.Extensions.Caching.Memory;
using Valtro.Store;

namespace Valtro.Application;

/// <summary>The houses that this node knows, each until its version rises; bounded by how much they hold.</summary>
public sealed class Houses(HouseStore store) : IDisposable
{
    /// <summary>About so many calendars, editions and entries of lists together.</summary>
    private const int Most = 200_000;

    private readonly MemoryCache _known = new(new MemoryCacheOptions { SizeLimit = Most });

    /// <param name="version">The latest that whoever asks knows of; they get that one, or as it is by now.</param>
    public async ValueTask<House> OfAsync(Guid organisationId, long version)
    {
        if (_known.Get<House>(organisationId) is { } known && known.Version == version)
            return known;
        var read = await store.ReadAsync(organisationId);
        _known.Set(organisationId, read, new MemoryCacheEntryOptions { Size = read.Size });
        return read;
    }

    /// <summary>As it is by now, for whoever comes without a session.</summary>
    public async ValueTask<House> LatestAsync(Guid organisationId) =>
        await OfAsync(organisationId, await store.VersionAsync(organisationId));

    public void Dispose() => _known.Dispose();
}
