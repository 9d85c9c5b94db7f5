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
    House House, IReadOnlyList<FrontLine> Lines, EditionAddress? All, IReadOnlyList<NamedDays> Past,
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

    /// <returns>Null where the organisation has nothing that is open, or there is none.</returns>
    /// <exception cref="ComeAgainException">Nothing of it can be told at the moment.</exception>
    public async Task<Rendered?> FindAsync(string organisation, FrontAsked asked, Asker asker)
    {
        if (await ReadAsync(organisation, asked.Term, asker) is not { } front)
            return null;
        var content = Encoding.UTF8.GetBytes(new FrontPage(front, addresses, assets, asked, clock.GetCurrentInstant()).Write());
        var tag = Rendered.EtagOf(content);
        return _memory.Get<Rendered>(tag) ?? Keep(Plain(content, clock.GetCurrentInstant()));

        Rendered Keep(Rendered page) => _memory.Set(tag, page, new MemoryCacheEntryOptions { Size = page.Size });
    }

    /// <summary>Bytes that are of no edition, ready to be sent.</summary>
    public static Rendered Plain(byte[] content, Instant now) =>
        new(new Artefact(Guid.Empty, Guid.Empty, Audience.Everyone, "", 0, Rendered.EtagOf(content), content, now, null));

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

    private async Task<Front?> ReadAsync(string organisation, LocalDate? term, Asker asker)
    {
        var open = await editions.OnFrontPageAsync(organisation);
        if (open.Count == 0)
            return null;
        var house = await HouseOfAsync(open[0]);
        var stored = house.Editions.ToDictionary(edition => edition.Id);
        var lines = new List<FrontLine>(open.Count);
        foreach (var some in open.Where(address => stored.ContainsKey(address.Id)).Chunk(AtOnce))
            lines.AddRange((await Task.WhenAll(some.Select(address => LineAsync(address, stored[address.Id], house, asker))))
                .OfType<FrontLine>());
        if (lines.Count > 0 && lines.All(line => line.Body is null))
            throw new ComeAgainException("Nothing of the front page can be told.");
        if (lines.Count == 0)
            return null;
        var all = TakesAll(house, open);
        IReadOnlyList<NamedDays> past = all is not null && stored[all.Id].Draft.WithBreaks ? PastOf(house) : [];
        var asked = past.FirstOrDefault(one => one.First == term);
        return asked is null && term is not null
            ? null
            : new Front(house, lines, all, past, asked is null ? null : (asked, await OfTermAsync(all!, asked, asker)));
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
        var located = new Located(EditionName.Of(all.OrganisationSlug, all.Slug), new EditionFound(all), false);
        var entries = new List<EntryBody>();
        for (var month = term.First.ToYearMonth(); month.CompareTo(term.Last.ToYearMonth()) <= 0; month = month.PlusMonths(1))
        {
            if (await artefacts.FindAsync(located, ArtefactKey.Of(month), asker) is { } part)
                entries.AddRange(part.Rendered.Part.Entries);
        }
        return [.. entries.DistinctBy(entry => entry.Id)
            .Where(entry => ReadingDates.FirstDayOf(entry) <= term.Last && ReadingDates.EndOf(entry, all.Zone)
                > Core.Time.LocalTimes.StartOf(term.First, Core.Time.Zones.Named(all.Zone)))
            .OrderBy(entry => entry.Start, StringComparer.Ordinal)];
    }

    /// <returns>Null where it shows nobody anything by now.</returns>
    private async Task<FrontLine?> LineAsync(EditionAddress address, StoredEdition stored, House house, Asker asker)
    {
        var located = new Located(EditionName.Of(address.OrganisationSlug, address.Slug), new EditionFound(address), false);
        var now = clock.GetCurrentInstant();
        var month = address.MonthAt(now);
        try
        {
            if (await artefacts.FindAsync(located, ArtefactKey.Of(month), asker) is not { } first
                || await artefacts.FindAsync(located, ArtefactKey.Of(month.PlusMonths(1)), asker) is not { } second)
                return null;
            var body = first.Rendered.Part.Edition;
            var told = body.Sources.Select(source => source.Slug).ToHashSet();
            return new FrontLine(address, stored, body, [.. house.Calendars.Values.Where(calendar => told.Contains(calendar.Slug))],
                [.. first.Rendered.Part.Entries.Concat(second.Rendered.Part.Entries).DistinctBy(entry => entry.Id)
                    .Where(entry => !entry.IsBreak && ReadingDates.EndOf(entry, address.Zone) > now)]);
        }
        catch (ComeAgainException)
        {
            return new FrontLine(address, stored, null, [], []);
        }
    }

    public void Dispose() => _memory.Dispose();
}
