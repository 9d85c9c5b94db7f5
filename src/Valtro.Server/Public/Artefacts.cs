using System.Collections.Concurrent;
using System.IO.Compression;
using Microsoft.Extensions.Caching.Memory;
using NodaTime;
using Valtro.Server.Api;
using Valtro.Store;

namespace Valtro.Server.Public;

/// <summary>An artefact ready to be sent: compressed once, not for every reader.</summary>
public sealed class Rendered(Artefact artefact)
{
    private readonly Lazy<byte[]> _gzip = new(() => Compress(artefact.Content, output => new GZipStream(output, CompressionLevel.Optimal)));
    private readonly Lazy<byte[]> _brotli = new(() => Compress(artefact.Content, output => new BrotliStream(output, CompressionLevel.Optimal)));

    public Artefact Artefact { get; } = artefact;

    public byte[] Gzip => _gzip.Value;

    public byte[] Brotli => _brotli.Value;

    public static byte[] Compress(byte[] content, Func<Stream, Stream> wrap)
    {
        using var output = new MemoryStream();
        using (var compressing = wrap(output))
            compressing.Write(content);
        return output.ToArray();
    }
}

/// <summary>Editions as readers get them, by key: from memory, else from the database, else rendered now.</summary>
/// <remarks>
/// A copy in memory is right while the edition's content version is the one it was made from. That version is asked of the
/// database at most once in <see cref="TrustedFor"/>, and at once after a notification. A notification that is lost
/// therefore costs at most that long. While the database is away the last good copy is served.
/// </remarks>
public sealed class Artefacts(EditionStore editions, Rendering rendering, IClock clock, ILogger<Artefacts> log) : IDisposable
{
    public static readonly Duration TrustedFor = Duration.FromSeconds(1);

    /// <summary>Months a year and a half around now are worth keeping in the database; others are rendered when asked for.</summary>
    private const int MonthsKept = 18;

    private sealed record Known(EditionAddress Address, Instant CheckedAt);

    private readonly ConcurrentDictionary<(string Organisation, string Slug), Known> _addresses = new();
    private readonly MemoryCache _memory = new(new MemoryCacheOptions { SizeLimit = 128 * 1024 * 1024 });

    /// <returns>Null when there is no such edition, or it is not open to everyone: the caller cannot tell which.</returns>
    public async Task<Rendered?> FindAsync(string organisation, string slug, ArtefactKey key)
    {
        var (address, databaseIsAway) = await AddressAsync(organisation, slug);
        if (address is null)
            return null;
        if (_memory.Get<Rendered>((address.Id, key)) is { } remembered
            && (databaseIsAway || remembered.Artefact.ContentVersion == address.ContentVersion))
            return remembered;
        return await RenewAsync(address, key);
    }

    /// <summary>Where the edition is and which version it has, without what is in it.</summary>
    public async Task<EditionAddress?> AddressOfAsync(string organisation, string slug) => (await AddressAsync(organisation, slug)).Address;

    /// <summary>Renders the feed and the months that pages show first, so that no reader waits for it.</summary>
    public async Task RenewAsync(Guid calendarId)
    {
        if (await editions.OfCalendarAsync(calendarId) is not { } address)
            return;
        _addresses[(address.OrganisationSlug, address.Slug)] = new Known(address, clock.GetCurrentInstant());
        var month = address.MonthAt(clock.GetCurrentInstant());
        foreach (var key in new[] { ArtefactKey.Feed, ArtefactKey.Of(month), ArtefactKey.Of(month.PlusMonths(1)) })
            await RenewAsync(address, key);
    }

    /// <summary>Nothing in memory is trusted until the database has confirmed it.</summary>
    public void DistrustAll() => _addresses.Clear();

    private async Task<(EditionAddress? Address, bool DatabaseIsAway)> AddressAsync(string organisation, string slug)
    {
        var now = clock.GetCurrentInstant();
        if (_addresses.TryGetValue((organisation, slug), out var known) && now - known.CheckedAt < TrustedFor)
            return (known.Address, false);
        try
        {
            var address = await editions.FindAsync(organisation, slug);
            if (address is not null)
                _addresses[(organisation, slug)] = new Known(address, now);
            else
                _addresses.TryRemove((organisation, slug), out _);
            return (address, false);
        }
        catch (Exception away) when (known is not null && ProblemHandler.IsDatabaseAway(away))
        {
            log.LogWarning("The database does not answer; {Organisation}/{Slug} is served from memory", organisation, slug);
            return (known.Address, true);
        }
    }

    private async Task<Rendered?> RenewAsync(EditionAddress address, ArtefactKey key)
    {
        var kept = await editions.FindArtefactAsync(address.Id, key.ToString());
        var artefact = kept is not null && kept.ContentVersion == address.ContentVersion
            ? kept
            : await rendering.RenderAsync(address, key, kept, clock.GetCurrentInstant());
        if (artefact is null)
        {
            _memory.Remove((address.Id, key));
            return null;
        }
        // When another node or the background rendered it at the same moment, theirs is the one that all serve: one validator, one time of change.
        if (artefact != kept && IsWorthKeeping(address, key) && await editions.KeepArtefactAsync(artefact) == 0)
            artefact = await editions.FindArtefactAsync(address.Id, key.ToString()) ?? artefact;
        return Remember((address.Id, key), artefact);
    }

    private Rendered Remember((Guid, ArtefactKey) key, Artefact artefact) =>
        // Twice the size, for the compressed forms.
        _memory.Set(key, new Rendered(artefact), new MemoryCacheEntryOptions { Size = 2 * artefact.Content.Length + 512 });

    private bool IsWorthKeeping(EditionAddress address, ArtefactKey key)
    {
        if (key.Month is not { } month)
            return true;
        var now = address.MonthAt(clock.GetCurrentInstant());
        return Math.Abs((month.Year - now.Year) * 12 + month.Month - now.Month) <= MonthsKept;
    }

    public void Dispose() => _memory.Dispose();
}
