using System.Collections.Concurrent;
using System.Security.Cryptography;
using System.Text;
using NodaTime;
using Valtro.Core.Deliveries;
using Valtro.Core.Disclosure;
using Valtro.Core.Time;
using Valtro.Store;

namespace Valtro.Application.Editions;

/// <summary>Who asked.</summary>
/// <param name="Address">On the network.</param>
/// <param name="Name">What the program calls itself; may be empty.</param>
/// <param name="IsBrowser">It asked as browsers ask for what somebody looks at.</param>
public readonly record struct AskingProgram(string Address, string Name, bool IsBrowser);

/// <summary>Notes which program fetched which version of which edition, off the path of the answer: what is asked for alike is one note,
/// and many notes are kept at once, a little later.</summary>
/// <remarks>A program is a digest of its address and its name for itself, with a salt that is another every day and thrown away: it can be
/// counted, not traced. Its address is in memory for a few seconds only.</remarks>
public sealed class Fetches(DeliveryStore store, IClock clock)
{
    /// <summary>Between two times of keeping; what comes beyond is not counted.</summary>
    private const int Most = 20_000;

    /// <summary>Programs that one address can be in that time: whoever makes up names is not many.</summary>
    private const int MostOfAddress = 40;

    private readonly record struct Key(Guid EditionId, Audience Audience, string Form, AskingProgram Program);

    private sealed class Note(EditionAddress edition, Instant first, Instant has)
    {
        public EditionAddress Edition { get; } = edition;

        // Nobody waits for another who notes the same: the last of both is noted, or the one before.
        private long _last = first.ToUnixTimeTicks();
        private long _has = has.ToUnixTimeTicks();
        private int _times;

        public Instant First { get; } = first;

        /// <summary>As the first of them said it.</summary>
        public string? Had { get; init; }

        public Instant? HadSince { get; init; }

        public void Again(Instant now, Instant has)
        {
            Volatile.Write(ref _last, now.ToUnixTimeTicks());
            Volatile.Write(ref _has, has.ToUnixTimeTicks());
            Interlocked.Increment(ref _times);
        }

        public Asked Asked() => new(Volatile.Read(ref _times), First, At(ref _last), HadSince, At(ref _has));

        private static Instant At(ref long ticks) => Instant.FromUnixTimeTicks(Volatile.Read(ref ticks));
    }

    private sealed class Noted
    {
        // To ask a concurrent dictionary how much it holds stops all who write to it.
        private int _held;

        public bool HasRoom() => Interlocked.Increment(ref _held) <= Most;

        public bool HasRoomFor(AskingProgram program) =>
            OfAddress.AddOrUpdate(program.Address, 1, static (_, count) => count + 1) <= MostOfAddress && HasRoom();

        public ConcurrentDictionary<Key, Note> Programs { get; } = new();

        private ConcurrentDictionary<string, int> OfAddress { get; } = new();

        public ConcurrentDictionary<(Guid EditionId, LocalDate Day, string Site), SiteNote> Sites { get; } = new();
    }

    private readonly ConcurrentDictionary<LocalDate, byte[]> _salts = new();
    private readonly SemaphoreSlim _one = new(1);
    private Noted _noted = new();

    /// <param name="form">"feed", "page", "embed" and others.</param>
    /// <param name="has">When the version came to be that it gets.</param>
    /// <param name="had">What it said that it has, in If-None-Match.</param>
    /// <param name="hadSince">The same in If-Modified-Since.</param>
    public void Add(AskingProgram program, EditionAddress edition, string form, Instant has, string? had, Instant? hadSince,
        Instant now)
    {
        var noted = _noted;
        var key = new Key(edition.Id, edition.Audience, form, program);
        if (!noted.Programs.TryGetValue(key, out var note) && noted.HasRoomFor(program))
            note = noted.Programs.GetOrAdd(key, new Note(edition, now, has) { Had = had, HadSince = hadSince });
        note?.Again(now, has);
    }

    /// <param name="site">The host of the page that holds the frame; empty where it is not known.</param>
    public void AddSite(EditionAddress edition, string site)
    {
        var noted = _noted;
        var day = edition.TodayAt(clock.GetCurrentInstant());
        var key = (edition.Id, day, site);
        if (noted.Sites.ContainsKey(key) || noted.HasRoom())
            noted.Sites.AddOrUpdate(key, _ => new SiteNote(edition.OrganisationId, edition.Id, day, site, 1),
                (_, note) => note with { Views = note.Views + 1 });
    }

    /// <summary>Keeps what was noted since the last time. What cannot be kept is not counted: it would only grow.</summary>
    public async Task KeepAsync()
    {
        await _one.WaitAsync();
        try
        {
            var noted = Interlocked.Exchange(ref _noted, new Noted());
            if (!noted.Sites.IsEmpty)
                await store.KeepAsync([.. noted.Sites.Values]);
            if (noted.Programs.IsEmpty)
                return;
            var notes = new List<FetcherNote>(noted.Programs.Count);
            foreach (var (key, note) in noted.Programs)
                notes.Add(await NoteOfAsync(key, note));
            // Machines of one service are one program; so are those whose names are read alike.
            await store.KeepAsync([.. notes.GroupBy(note => (note.EditionId, note.Audience, note.Form, note.Day,
                Convert.ToHexString(note.Program)))
                .Select(same => same.Aggregate(Together))]);
        }
        finally
        {
            _one.Release();
        }
    }

    private static FetcherNote Together(FetcherNote one, FetcherNote other) => one with
    {
        HadEtag = one.HadEtag ?? other.HadEtag,
        Asked = new Asked(one.Asked.Times + other.Asked.Times, Instant.Min(one.Asked.First, other.Asked.First),
            Instant.Max(one.Asked.Last, other.Asked.Last), one.Asked.Had ?? other.Asked.Had, Instant.Max(one.Asked.Has, other.Asked.Has)),
    };

    private async Task<FetcherNote> NoteOfAsync(Key key, Note note)
    {
        var edition = note.Edition;
        var asked = note.Asked();
        var day = edition.TodayAt(note.First);
        var kind = ProgramKinds.Of(key.Program.Name, key.Program.IsBrowser);
        // Own addresses say whose they are: two of them are never one.
        var who = $"{edition.Id} {edition.AccountId} {(kind == ProgramKind.Web ? "" : key.Program.Address)} {key.Program.Name}";
        var ends = LocalTimes.StartOf(day.PlusDays(1), Zones.Named(edition.Zone));
        return new FetcherNote(edition.OrganisationId, edition.Id, key.Audience, key.Form, day, ends, await DigestAsync(day, who),
            await DigestAsync(day.PlusDays(-1), who), kind, asked, EtagIn(note.Had));
    }

    private async Task<byte[]> DigestAsync(LocalDate day, string who)
    {
        if (!_salts.TryGetValue(day, out var salt))
        {
            foreach (var old in _salts.Keys.Where(old => old < day.PlusDays(-3)))
                _salts.TryRemove(old, out _);
            salt = _salts[day] = await store.SaltAsync(day);
        }
        return HMACSHA256.HashData(salt, Encoding.UTF8.GetBytes(who))[..16];
    }

    /// <summary>The first of its tags, without what names its compression.</summary>
    private static string? EtagIn(string? tags)
    {
        const int Digits = 32;
        var start = (tags?.IndexOf('"') ?? -1) + 1;
        return start > 0 && tags!.Length >= start + Digits && tags.AsSpan(start, Digits).IndexOfAnyExcept("0123456789abcdef") < 0
            ? tags[start..(start + Digits)]
            : null;
    }
}
