using System.Collections.Concurrent;
using Microsoft.Extensions.Caching.Memory;
using NodaTime;
using Valtro.Application.Work;
using Valtro.Store;

namespace Valtro.Application.Editions;

/// <summary>Nothing can be served at the moment that may be: whoever asked is told to come again.</summary>
public sealed class ComeAgainException(string why) : Exception(why);

/// <summary>Whoever asked has caused too much in this minute.</summary>
public sealed class TooOftenException() : Exception("Too many questions of the same address.");

/// <summary>Where an address led.</summary>
/// <param name="IsOld">The database could not be asked; it is what was known last.</param>
public readonly record struct Located(EditionName Name, EditionFound Found, bool IsOld);

/// <summary>Editions as readers get them, by key: from memory, else from the database, else rendered now.</summary>
/// <remarks>
/// A copy in memory is right while the edition's content version is the one it was made from, and until something appears or disappears
/// by itself. The version is known from announcements (<see cref="Heard"/>). What has to be asked or rendered is asked or rendered once,
/// however many wait for it (on all nodes, where it is for all), and nobody waits longer than <see cref="Wait"/>: then they get the last
/// good
/// copy with its age, unless it is older than 24 hours, or somebody is to see less since. Then they are told to come again.
/// </remarks>
public sealed class Artefacts(EditionStore editions, DeliveredStore delivered, Rendering rendering, Takings takings, Heard heard,
    Faults faults,
    Measures measures, IClock clock) : IDisposable
{
    /// <summary>How long a reader waits for the database, or for a rendering.</summary>
    public static readonly TimeSpan Wait = TimeSpan.FromSeconds(Lanes.ReadersWaitSeconds);

    /// <summary>How long the last good copy is good enough while the database is away.</summary>
    public static readonly Duration KeptWhileAway = Duration.FromHours(24);

    /// <summary>Without announcements, what is known is asked again after this time.</summary>
    private static readonly Duration TrustedFor = Duration.FromSeconds(1);

    /// <summary>Even with them it is asked again now and then: nothing that an address depends on can be forgotten for good.</summary>
    private static readonly Duration AskedAgainAfter = Duration.FromMinutes(1);

    /// <summary>After a failure nothing is begun anew for this time: those who ask get an answer at once.</summary>
    private static readonly TimeSpan RestAfterFailure = TimeSpan.FromSeconds(3);

    /// <summary>So long a failure is remembered: nobody who can have the last good copy waits for what may fail again.</summary>
    private static readonly TimeSpan FailuresRemembered = TimeSpan.FromMinutes(1);

    /// <summary>Months a year and a half around now are worth keeping in the database; others are rendered when asked for.</summary>
    private const int MonthsKept = 18;

    private const int RenderingsAtOnce = 3;

    /// <param name="AskedAt">When the database was asked.</param>
    /// <param name="Asking">Which time of asking again it was.</param>
    private sealed record Known(EditionFound Found, Instant AskedAt, int Asking);

    /// <param name="Secret">Where it names its own address: members have one each.</param>
    private readonly record struct Place(Guid EditionId, Core.Disclosure.Audience Audience, ArtefactKey Key, string? Secret)
    {
        public static Place Of(EditionAddress address, ArtefactKey key) =>
            new(address.Id, address.Audience, key, key.IsForAll ? null : address.Secret);
    }

    private readonly ConcurrentDictionary<EditionName, Known> _known = new();
    private readonly MemoryCache _memory = new(new MemoryCacheOptions { SizeLimit = 72 * 1024 * 1024 });
    private readonly MemoryCache _failed = new(new MemoryCacheOptions { SizeLimit = 10_000 });
    private readonly Flights<EditionName, EditionFound> _locating = new();
    private readonly Flights<(Place Place, long Version), Rendered?> _refreshing = new();
    private readonly SemaphoreSlim _room = new(RenderingsAtOnce);
    private int _asking;

    /// <summary>Editions of which this node knows an address.</summary>
    public IReadOnlyCollection<Guid> KnownEditions => [.. _known.Values.Select(known => known.Found.Address!.Id).Distinct()];

    /// <summary>Where an address leads, without what is in it.</summary>
    /// <exception cref="ComeAgainException">The database does not answer, and it is not known whether the address still leads
    /// there.</exception>
    /// <exception cref="TooOftenException">The address is not known, and whoever asks made up too many.</exception>
    public async Task<Located> LocateAsync(EditionName name, Asker asker)
    {
        var trust = _known.TryGetValue(name, out var known) ? TrustIn(known, clock.GetCurrentInstant()) : Trust.None;
        if (trust == Trust.Whole)
            return new Located(name, known!.Found, false);
        if (trust is Trust.Enough or Trust.Old)
        {
            // Nobody waits for this: either it is right, or nothing better can be had.
            if (_failed.Get(name) is null)
                _ = _locating.Join(name, () => AskAsync(name));
            return new Located(name, known!.Found, trust == Trust.Old);
        }
        if (known is null && asker.HasCausedTooMuch)
            throw new TooOftenException();
        try
        {
            if (_failed.Get(name) is Exception before)
                throw before;
            var found = await _locating.Join(name, () => AskAsync(name)).WithinAsync(Wait);
            if (found.Address is null)
                asker.Caused();
            return new Located(name, found, false);
        }
        catch (Exception away) when (DatabaseFailures.IsAway(away))
        {
            return known is not null && MayStay(known.Found.Address!)
                ? new Located(name, known.Found, true)
                : throw new ComeAgainException("The address cannot be looked up.");
        }
    }

    /// <summary>A part of an edition that is right as it stands in memory.</summary>
    /// <returns>Null where anything has to be asked or made first.</returns>
    public (Located Located, Copy Copy)? InMemory(EditionName name, ArtefactKey key, Instant now) =>
        _known.TryGetValue(name, out var known) && TrustIn(known, now) == Trust.Whole
        && _memory.Get<Rendered>(Place.Of(known.Found.Address!, key)) is { } copy
        && copy.Artefact.IsRight(known.Found.Address!, now)
            ? (new Located(name, known.Found, false), new Copy(copy, Duration.Zero))
            : null;

    /// <summary>A part of an edition as readers get it now.</summary>
    /// <returns>Null when it shows its audience nothing, or there is no such part: the caller cannot tell which.</returns>
    /// <exception cref="ComeAgainException">It cannot be rendered at the moment, and what was rendered before may not be shown.</exception>
    /// <exception cref="TooOftenException">It is not there, and whoever asks caused too much already.</exception>
    public async Task<Copy?> FindAsync(Located located, ArtefactKey key, Asker asker)
    {
        var address = located.Found.Address!;
        var place = Place.Of(address, key);
        var now = clock.GetCurrentInstant();
        var copy = _memory.Get<Rendered>(place);
        if (copy is not null && !located.IsOld && copy.Artefact.IsRight(address, now))
            return new Copy(copy, Duration.Zero);
        if (located.IsOld)
            return Old(copy, address, now) ?? throw new ComeAgainException("There is no copy that may be shown.");
        var flight = (place, address.ContentVersion);
        var failure = _failed.Get<Failure>(place);
        if (failure is not null && Old(copy, address, now) is { } old)
        {
            // It failed lately: it is tried again, but nobody waits for it.
            if (failure.IsOver)
                _ = _refreshing.Join(flight, () => RefreshAsync(address, place));
            return old;
        }
        if (failure?.IsOver == false)
            throw new ComeAgainException("It failed a moment ago.");
        if (!key.IsForAll && _refreshing.Find(flight) is null && !asker.TryCause())
            return Old(copy, address, now) ?? throw new TooOftenException();
        try
        {
            var made = await _refreshing.Join(flight, () => RefreshAsync(address, place)).WithinAsync(Wait);
            // While it was made, somebody took something away: then it is not what readers get.
            return heard.Of(address.Id)?.NotBefore > address.ContentVersion
                ? await FindAsync(await LocateAsync(located.Name, asker), key, asker)
                : made is null ? null : new Copy(made, Duration.Zero);
        }
        catch (Exception failed) when (failed is not (ComeAgainException or TooOftenException))
        {
            return Old(copy, address, now) ?? throw new ComeAgainException("It cannot be rendered at the moment.");
        }
    }

    /// <summary>Several parts, sought at once: after a change none waits for another.</summary>
    /// <returns>Null when one of them is not there.</returns>
    /// <inheritdoc cref="FindAsync(Located, ArtefactKey, Asker)"/>
    public async Task<Copy[]?> FindAsync(Located located, ArtefactKey[] keys, Asker asker)
    {
        var found = await Task.WhenAll(keys.Select(key => FindAsync(located, key, asker)));
        return found.All(one => one is not null) ? [.. found.Select(one => one!.Value)] : null;
    }

    /// <summary>The version of what open pages of an edition show, whatever part of it that is: entries, settings, look. What readers
    /// cannot see does not show in it.</summary>
    /// <returns>With what it was made from; null when the edition shows its audience nothing.</returns>
    /// <inheritdoc cref="FindAsync(Located, ArtefactKey, Asker)"/>
    public async Task<(string Version, Copy Feed, Copy Month)?> PageAsync(Located located, Asker asker)
    {
        var month = ArtefactKey.Of(located.Found.Address!.MonthAt(clock.GetCurrentInstant()));
        // One after the other: what the feed notes of what went out stands in the month too.
        return await FindAsync(located, ArtefactKey.Feed, asker) is { } feed && await FindAsync(located, month, asker) is { } part
            ? ($"{feed.Rendered.Artefact.Etag[..16]}{part.Rendered.Artefact.Etag[..16]}", feed, part)
            : null;
    }

    /// <summary>Whether addresses of an edition once called calendars so.</summary>
    /// <exception cref="TooOftenException">Whoever asks made up too many names.</exception>
    public async Task<bool> HadCalendarsAsync(Located located, IReadOnlyCollection<string> names, Asker asker)
    {
        if (!asker.TryCause())
            throw new TooOftenException();
        var known = (await delivered.CalendarsNamedAsync(located.Found.Address!)).Keys.ToHashSet(StringComparer.OrdinalIgnoreCase);
        return names.All(known.Contains);
    }

    /// <summary>Sees to it that a part is rendered as the edition is now; for the work after a change, which fails where it
    /// fails.</summary>
    /// <returns>Until when it is right; null while nobody changes anything.</returns>
    public async Task<Instant?> RenewAsync(EditionAddress address, ArtefactKey key)
    {
        var place = Place.Of(address, key);
        return (await _refreshing.Join((place, address.ContentVersion), () => RefreshAsync(address, place)).Task)?.Artefact.ValidUntil;
    }

    /// <summary>All addresses are asked again: this node has written something itself, and need not wait to hear of it.</summary>
    public void AskAgain() => Interlocked.Increment(ref _asking);

    /// <summary>An edition that is gone.</summary>
    public void Forget(Guid editionId)
    {
        foreach (var (name, known) in _known.Where(known => known.Value.Found.Address!.Id == editionId))
            _known.TryRemove(KeyValuePair.Create(name, known));
    }

    private enum Trust
    {
        /// <summary>It has to be asked.</summary>
        None,

        /// <summary>It is what is known last, and nothing better can be had at the moment.</summary>
        Old,

        /// <summary>It is right, and asked again all the same.</summary>
        Enough,
        Whole,
    }

    private Trust TrustIn(Known known, Instant now)
    {
        var address = known.Found.Address!;
        var since = now - known.AskedAt;
        if (known.Asking != Volatile.Read(ref _asking) || heard.Of(address.Id)?.Version > address.ContentVersion)
            return heard.Listens || !MayStay(address) ? Trust.None : Trust.Old;
        if (heard.Listens)
            return since < AskedAgainAfter ? Trust.Whole : Trust.Enough;
        return since < TrustedFor ? Trust.Whole : MayStay(address) ? Trust.Old : Trust.None;
    }

    /// <summary>What was known last is good enough for a while, unless somebody is to see less since.</summary>
    private bool MayStay(EditionAddress address) =>
        clock.GetCurrentInstant() - heard.RightUntil < KeptWhileAway && !(heard.Of(address.Id)?.NotBefore > address.ContentVersion);

    private Copy? Old(Rendered? copy, EditionAddress address, Instant now)
    {
        var of = heard.Of(address.Id);
        if (copy is null || !MayStay(address) || !copy.Artefact.MayBeShown(Math.Max(of?.NotBefore ?? 0, address.NotBefore), now))
            return null;
        measures.OldCopy();
        var changed = of is { } newer && newer.Version > copy.Artefact.ContentVersion ? newer.At : now;
        var rightUntil =
            Instant.Min(Instant.Min(heard.RightUntil, changed), copy.Artefact.ValidUntil is { } until && until < now ? until : now);
        return new Copy(copy, Duration.Max(Duration.FromSeconds(1), now - rightUntil));
    }

    private async Task<EditionFound> AskAsync(EditionName name)
    {
        using var lane = Lanes.In(Lane.Readers);
        var asking = Volatile.Read(ref _asking);
        var now = clock.GetCurrentInstant();
        try
        {
            var found = name.Secret is { } secret
                ? await editions.FindSecretAsync(secret)
                : await editions.FindAsync(name.Organisation, name.Slug);
            // What leads nowhere is not remembered: anybody can make up any number of such addresses.
            if (found.Address is not null)
                _known[name] = new Known(found, now, asking);
            else
                _known.TryRemove(name, out _);
            faults.Succeeded(Locating);
            return found;
        }
        catch (Exception failed)
        {
            faults.Failed(Locating, failed);
            _failed.Set(name, failed, new MemoryCacheEntryOptions { AbsoluteExpirationRelativeToNow = RestAfterFailure, Size = 1 });
            throw;
        }
    }

    private const string Locating = "finding an edition by its address";

    private sealed record Failure(long At)
    {
        public bool IsOver => TimeProvider.System.GetElapsedTime(At) > RestAfterFailure;
    }

    private async Task<Rendered?> RefreshAsync(EditionAddress address, Place place)
    {
        var what = $"rendering {place.Key.Kind.ToString().ToLowerInvariant()} of edition {address.Id}";
        try
        {
            var rendered = place.Key.IsForAll ? await ForAllAsync(address, place.Key) : await ForSomeAsync(address, place.Key);
            faults.Succeeded(what);
            _failed.Remove(place);
            if (rendered is null)
                _memory.Remove(place);
            else
                _memory.Set(place, rendered, new MemoryCacheEntryOptions { Size = rendered.Size });
            return rendered;
        }
        catch (Exception failed)
        {
            faults.Failed(what, failed, "rendering");
            _failed.Set(place, new Failure(TimeProvider.System.GetTimestamp()),
                new MemoryCacheEntryOptions { AbsoluteExpirationRelativeToNow = FailuresRemembered, Size = 1 });
            throw;
        }
    }

    /// <summary>What is kept for all is looked for first, and rendered on one node at a time.</summary>
    private async Task<Rendered?> ForAllAsync(EditionAddress address, ArtefactKey key)
    {
        Artefact? kept;
        using (Lanes.In(Lane.Readers))
            kept = await editions.FindArtefactAsync(address, key.ToString());
        if (IsRight(kept))
            return new Rendered(kept!);
        using var lane = Lanes.In(Lane.Work);
        await _room.WaitAsync();
        try
        {
            var artefact = await editions.AloneAsync(address, key.ToString(), async () =>
            {
                var before = await editions.FindArtefactAsync(address, key.ToString());
                if (IsRight(before))
                    return before;
                var made = await rendering.RenderAsync(address, key, before, clock.GetCurrentInstant());
                if (made is not null
                    && IsWorthKeeping(address, key)
                    && !await editions.KeepArtefactAsync(made.Artefact, made.Notes)
                    && made.Notes is not null)
                    // Another node has written a newer feed meanwhile: what was not noted must not go out.
                    return await editions.FindArtefactAsync(address, key.ToString());
                return made?.Artefact;
            });
            return artefact is null ? null : new Rendered(artefact);
        }
        finally
        {
            _room.Release();
        }

        bool IsRight(Artefact? known) => known?.IsRight(address, clock.GetCurrentInstant()) == true && known.Form == key.Form;
    }

    private async Task<Rendered?> ForSomeAsync(EditionAddress address, ArtefactKey key)
    {
        var taking = key.Taking;
        // Files say what the feed says, so that has to be noted first.
        var feed = key.Narrowing is not null || taking is not null || key.Kind == ArtefactKind.EntryFile ? await FeedAsync() : null;
        if (key.Narrowing is not null)
            return feed is null ? null : await rendering.NarrowAsync(address, key, feed.Artefact, clock.GetCurrentInstant());
        using var lane = Lanes.In(Lane.Work);
        await _room.WaitAsync();
        try
        {
            var now = clock.GetCurrentInstant();
            return taking is null ? await rendering.RenderForSomeAsync(address, key, now)
                : feed is null ? null
                : await takings.RenderAsync(address, taking, feed.Artefact, now);
        }
        finally
        {
            _room.Release();
        }

        async Task<Rendered?> FeedAsync() =>
            _memory.Get<Rendered>(Place.Of(address, ArtefactKey.Feed)) is { } copy
                && copy.Artefact.IsRight(address, clock.GetCurrentInstant())
            ? copy
            : await ForAllAsync(address, ArtefactKey.Feed);
    }

    private bool IsWorthKeeping(EditionAddress address, ArtefactKey key)
    {
        if (key.Month is not { } month)
            return true;
        var now = address.MonthAt(clock.GetCurrentInstant());
        return Math.Abs((month.Year - now.Year) * 12 + month.Month - now.Month) <= MonthsKept;
    }

    public void Dispose()
    {
        _memory.Dispose();
        _failed.Dispose();
        _room.Dispose();
    }
}
