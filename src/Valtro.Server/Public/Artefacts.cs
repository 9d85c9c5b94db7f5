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

    private readonly Lazy<MonthBody> _part = new(() => System.Text.Json.JsonSerializer.Deserialize<MonthBody>(artefact.Content, Json.Options)!);

    public Artefact Artefact { get; } = artefact;

    /// <summary>What is in a month, or in all of an edition with a limit.</summary>
    public MonthBody Part => _part.Value;

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
/// A copy in memory is right while the edition's content version is the one it was made from, and until an event appears or
/// disappears by itself. That version is asked of the database at most once in <see cref="TrustedFor"/>, and at once after a
/// notification. A notification that is lost therefore costs at most that long. While the database is away the last good
/// copy is served.
/// </remarks>
public sealed class Artefacts(EditionStore editions, Rendering rendering, IClock clock, ILogger<Artefacts> log) : IDisposable
{
    public static readonly Duration TrustedFor = Duration.FromSeconds(1);

    /// <summary>Months a year and a half around now are worth keeping in the database; others are rendered when asked for.</summary>
    private const int MonthsKept = 18;

    private sealed record Known(EditionFound Found, Instant CheckedAt, bool DatabaseIsAway = false);

    private readonly ConcurrentDictionary<EditionName, Known> _found = new();
    private readonly MemoryCache _memory = new(new MemoryCacheOptions { SizeLimit = 128 * 1024 * 1024 });

    /// <returns>Null when there is no such edition, or it shows its audience nothing: the caller cannot tell which.</returns>
    public async Task<Rendered?> FindAsync(EditionName name, ArtefactKey key)
    {
        var known = await KnownAsync(name);
        if (known.Found.Address is not { } address)
            return null;
        if (_memory.Get<Rendered>((address.Id, address.Audience, key)) is { } remembered
            && (known.DatabaseIsAway || IsRight(remembered.Artefact, address, clock.GetCurrentInstant())))
            return remembered;
        return await RenewAsync(address, key);
    }

    /// <summary>Where an address leads, without what is in it.</summary>
    public async Task<EditionFound> LocateAsync(EditionName name) => (await KnownAsync(name)).Found;

    /// <summary>Renders the feed and the months that pages show first, for every audience that some editions go out to, so that no reader waits for it.</summary>
    /// <returns>The editions whose readers should look again: those that go out.</returns>
    public async Task<IReadOnlyList<Guid>> RenewAsync(IReadOnlyList<Guid> concerned)
    {
        var asked = clock.GetCurrentInstant();
        var addresses = await editions.GoingOutAsync([.. concerned]);
        foreach (var address in addresses)
        {
            var month = address.MonthAt(clock.GetCurrentInstant());
            foreach (var key in new[] { ArtefactKey.Feed, ArtefactKey.Of(month), ArtefactKey.Of(month.PlusMonths(1)) })
                await RenewAsync(address, key);
        }
        // Only now is it news: whoever asks at once gets what is rendered already. A reader who asked the database meanwhile
        // knows better than this, and is left alone.
        foreach (var (name, known) in _found.Where(known => known.Value.CheckedAt <= asked && known.Value.Found.Address is { } address && concerned.Contains(address.Id)))
        {
            if (addresses.FirstOrDefault(address => address.Id == known.Found.Address!.Id && address.Secret == known.Found.Address.Secret) is { } address)
                _found.TryUpdate(name, new Known(new EditionFound(address), asked), known);
            else
                _found.TryRemove(KeyValuePair.Create(name, known));
        }
        return [.. addresses.Select(address => address.Id).Distinct()];
    }

    /// <summary>Nothing in memory is trusted until the database has confirmed it. A secret that was taken back is refused at once.</summary>
    public void DistrustAll() => _found.Clear();

    private static bool IsRight(Artefact artefact, EditionAddress address, Instant now) =>
        artefact.ContentVersion == address.ContentVersion && (artefact.ValidUntil is not { } until || now < until);

    private async Task<Known> KnownAsync(EditionName name)
    {
        var now = clock.GetCurrentInstant();
        if (_found.TryGetValue(name, out var known) && now - known.CheckedAt < TrustedFor)
            return known;
        try
        {
            var found = name.Secret is { } secret ? await editions.FindSecretAsync(secret) : await editions.FindAsync(name.Organisation, name.Slug);
            var fresh = new Known(found, now);
            // What leads nowhere is not remembered: anybody can make up any number of such addresses.
            if (found.Address is not null)
                _found[name] = fresh;
            else
                _found.TryRemove(name, out _);
            return fresh;
        }
        catch (Exception away) when (known is not null && ProblemHandler.IsDatabaseAway(away))
        {
            log.LogWarning("The database does not answer; {Edition} is served from memory", name);
            return known with { DatabaseIsAway = true };
        }
    }

    private async Task<Rendered?> RenewAsync(EditionAddress address, ArtefactKey key)
    {
        var now = clock.GetCurrentInstant();
        var kept = key.Only is null ? await editions.FindArtefactAsync(address, key.ToString()) : null;
        var artefact = kept is not null && IsRight(kept, address, now) ? kept : await rendering.RenderAsync(address, key, kept, now);
        var memory = (address.Id, address.Audience, key);
        if (artefact is null)
        {
            _memory.Remove(memory);
            return null;
        }
        // When another node or the background rendered it at the same moment, theirs is the one that all serve: one validator, one time of change.
        if (artefact != kept && IsWorthKeeping(address, key) && await editions.KeepArtefactAsync(artefact) == 0)
            artefact = await editions.FindArtefactAsync(address, key.ToString()) ?? artefact;
        // Twice the size, for the compressed forms.
        return _memory.Set(memory, new Rendered(artefact), new MemoryCacheEntryOptions { Size = 2 * artefact.Content.Length + 512 });
    }

    private bool IsWorthKeeping(EditionAddress address, ArtefactKey key)
    {
        // Readers can narrow a feed in more ways than are worth a row.
        if (key.Only is not null)
            return false;
        if (key.Month is not { } month)
            return true;
        var now = address.MonthAt(clock.GetCurrentInstant());
        return Math.Abs((month.Year - now.Year) * 12 + month.Month - now.Month) <= MonthsKept;
    }

    public void Dispose() => _memory.Dispose();
}
