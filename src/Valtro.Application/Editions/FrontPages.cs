using System.Text;
using Microsoft.Extensions.Caching.Memory;
using NodaTime;
using Valtro.Core.Disclosure;
using Valtro.Core.YearPlans;
using Valtro.Store;

namespace Valtro.Application.Editions;

/// <summary>What an address asks of a front page.</summary>
/// <param name="Find">Words that somebody looks for; empty for none.</param>
/// <param name="Term">The first day of a term that is over, of which everything is to be shown.</param>
/// <param name="Languages">The reader's, the best first.</param>
public sealed record FrontAsked(string Find, LocalDate? Term, IEnumerable<string> Languages);

/// <summary>An edition as the front page lists it.</summary>
/// <param name="Body">Null where it cannot be told at the moment; then its name is all there is.</param>
/// <param name="Calendars">Those of which it tells everybody something.</param>
/// <param name="Coming">Entries that are not over, of this month and the next, the next first.</param>
internal sealed record FrontLine(
    EditionAddress Address, StoredEdition Stored, EditionBody? Body, IReadOnlyList<Core.Calendars.Calendar> Calendars,
    IReadOnlyList<EntryBody> Coming)
{
    public string Name => Body?.Name ?? Stored.Name;
}

/// <summary>What there is to be listed.</summary>
/// <param name="All">The edition that takes all calendars; null where none does.</param>
/// <param name="Past">Terms that are over, the last one first; none where readers are told nothing of the year plan.</param>
/// <param name="Archive">What was on in one of them.</param>
internal sealed record Front(
    House House, IReadOnlyList<FrontLine> Lines, FrontLine? All, IReadOnlyList<NamedDays> Past,
    (NamedDays Term, IReadOnlyList<EntryBody> Entries)? Archive);

/// <summary>Writes the front page of an organisation: its editions that are open to everyone, to find, to look at, to print and to
/// subscribe to. It needs no script.</summary>
/// <remarks>It is put together from the editions' own artefacts, so that it tells nobody what they do not.</remarks>
public sealed class FrontPages(
    EditionStore editions, Houses houses, Artefacts artefacts, WebAssets assets, PublicAddresses addresses, IClock clock) : IDisposable
{
    private const int AtOnce = 6;
    private const int MostTerms = 12;

    private readonly MemoryCache _memory = new(new MemoryCacheOptions { SizeLimit = 16 * 1024 * 1024 });

    public PageStyle[] Styles => [assets.Entry("reader/front.ts").Style];

    /// <summary>What of an edition the front page looks at: this month and the next, where they can be had at the moment.</summary>
    private sealed record Looked(EditionAddress Address, StoredEdition Stored, Rendered? First, Rendered? Second);

    /// <returns>Null where the organisation has nothing that is open, or there is none.</returns>
    /// <exception cref="ComeAgainException">Nothing of it can be told at the moment.</exception>
    public async Task<Rendered?> FindAsync(string organisation, FrontAsked asked, Asker asker)
    {
        var open = await editions.OnFrontPageAsync(organisation);
        if (open.Count == 0)
            return null;
        var house = await HouseOfAsync(open[0]);
        var stored = house.Editions.ToDictionary(edition => edition.Id);
        var looked = new List<Looked>(open.Count);
        foreach (var some in open.Where(address => stored.ContainsKey(address.Id)).Chunk(AtOnce))
            looked.AddRange((await Task.WhenAll(some.Select(address => LookAsync(address, stored[address.Id], asker)))).OfType<Looked>());
        if (looked.Count == 0)
            return null;
        if (looked.All(one => one.First is null))
            throw new ComeAgainException("Nothing of the front page can be told.");
        var now = clock.GetCurrentInstant();
        // Who looks for something, or into the past, gets a page of their own.
        var key = asked is { Find.Length: 0, Term: null }
            ? (house.Organisation.Id, house.Version, Minute: now.ToUnixTimeSeconds() / 60, FrontPage.LanguageOf(asked),
                string.Join(' ', looked.SelectMany(one => new[] { one.First, one.Second }).Select(part => part?.Artefact.Etag)))
            : default;
        if (key != default && _memory.Get<Rendered>(key) is { } known)
            return known;
        if (await ReadAsync(house, [.. looked.Select(one => LineOf(one, house, now))], asked.Term, asker) is not { } front)
            return null;
        var page = Plain(Encoding.UTF8.GetBytes(new FrontPage(front, addresses, assets, asked, now).Write()), now);
        return key == default ? page : _memory.Set(key, page, new MemoryCacheEntryOptions { Size = page.Size });
    }

    /// <summary>Bytes that are of no edition, ready to be sent.</summary>
    public static Rendered Plain(byte[] content, Instant now, bool compresses = true) => new(
        new Artefact(Guid.Empty, Guid.Empty, Audience.Everyone, "", 0, Rendered.EtagOf(content), content, now, null), compresses);

    /// <summary>Where the calendars that somebody chose stand on one page: of the edition that takes all.</summary>
    /// <returns>Null where no edition does.</returns>
    public async Task<string?> ChosenAsync(string organisation, IReadOnlyCollection<string> slugs)
    {
        var open = await editions.OnFrontPageAsync(organisation);
        if (open.Count == 0 || TakesAll(await HouseOfAsync(open[0]), open) is not { } all)
            return null;
        var path = new Uri(addresses.Of(all).Page).AbsolutePath;
        return slugs.Count == 0 ? path : $"{path}?only={string.Join(',', slugs.Select(Uri.EscapeDataString))}";
    }

    private async Task<House> HouseOfAsync(EditionAddress address)
    {
        using var within = Wall.Within(address.OrganisationId);
        return await houses.LatestAsync(address.OrganisationId);
    }

    private static EditionAddress? TakesAll(House house, IReadOnlyList<EditionAddress> open) =>
        open.FirstOrDefault(address => house.Editions.Any(edition => edition.Id == address.Id && edition.Draft.TakesAll));

    /// <returns>Null where somebody asks for a term that there is not.</returns>
    private async Task<Front?> ReadAsync(
        House house, IReadOnlyList<FrontLine> lines, LocalDate? term, Asker asker)
    {
        var all = lines.FirstOrDefault(line => line.Stored.Draft.TakesAll);
        IReadOnlyList<NamedDays> past = all?.Stored.Draft.WithBreaks == true ? PastOf(house) : [];
        var asked = past.FirstOrDefault(one => one.First == term);
        return asked is null && term is not null
            ? null
            : new Front(house, lines, all, past, asked is null ? null : (asked, await OfTermAsync(all!.Address, asked, asker)));
    }

    private NamedDays[] PastOf(House house)
    {
        var today = clock.GetCurrentInstant().InZone(house.Organisation.TimeZone).Date;
        return [.. house.Plans.Select(stored => stored.Plan)
            .SelectMany(plan => plan.Terms.Count > 0 ? plan.Terms : [new NamedDays(plan.Name, plan.First, plan.Last)])
            .Where(term => term.Last < today).OrderByDescending(term => term.First).Take(MostTerms)];
    }

    /// <exception cref="TooOftenException">Whoever asks caused too much already.</exception>
    private async Task<IReadOnlyList<EntryBody>> OfTermAsync(EditionAddress all, NamedDays term, Asker asker)
    {
        if (!asker.TryCause())
            throw new TooOftenException();
        var entries = new List<EntryBody>();
        for (var month = term.First.ToYearMonth(); month.CompareTo(term.Last.ToYearMonth()) <= 0; month = month.PlusMonths(1))
        {
            if (await artefacts.FindAsync(LocatedAt(all), ArtefactKey.Of(month), asker) is { } part)
                entries.AddRange(part.Rendered.ReadPart().Entries);
        }
        // Of what was no more than "Busy" nobody looks anything up.
        return [.. entries.DistinctBy(entry => entry.Id).Where(entry => entry.HasPage || entry.IsBreak)
            .Where(entry => ReadingDates.FirstDayOf(entry) <= term.Last && ReadingDates.EndOf(entry, all.Zone)
                > Core.Time.LocalTimes.StartOf(term.First, Core.Time.Zones.Named(all.Zone)))
            .OrderBy(entry => entry.Start, StringComparer.Ordinal)];
    }

    /// <returns>Null where it shows nobody anything by now.</returns>
    private async Task<Looked?> LookAsync(EditionAddress address, StoredEdition stored, Asker asker)
    {
        var month = address.MonthAt(clock.GetCurrentInstant());
        try
        {
            return await artefacts.FindAsync(LocatedAt(address), ArtefactKey.Of(month), asker) is { } first
                && await artefacts.FindAsync(LocatedAt(address), ArtefactKey.Of(month.PlusMonths(1)), asker) is { } second
                    ? new Looked(address, stored, first.Rendered, second.Rendered)
                    : null;
        }
        catch (ComeAgainException)
        {
            return new Looked(address, stored, null, null);
        }
    }

    private static Located LocatedAt(EditionAddress address) =>
        new(EditionName.Of(address.OrganisationSlug, address.Slug), new EditionFound(address), false);

    private static FrontLine LineOf(Looked looked, House house, Instant now)
    {
        if (looked is not { First: { } first, Second: { } second })
            return new FrontLine(looked.Address, looked.Stored, null, [], []);
        var told = first.Edition.Sources.Select(source => source.Slug).ToHashSet();
        return new FrontLine(looked.Address, looked.Stored, first.Edition,
            [.. house.Calendars.Values.Where(calendar => told.Contains(calendar.Slug))],
            [.. first.ReadPart().Entries.Concat(second.ReadPart().Entries).DistinctBy(entry => entry.Id)
                .Where(entry => !entry.IsBreak && ReadingDates.EndOf(entry, looked.Address.Zone) > now)]);
    }

    public void Dispose() => _memory.Dispose();
}
