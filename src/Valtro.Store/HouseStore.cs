using Dapper;
using NodaTime;
using Valtro.Core.Calendars;
using Valtro.Core.Clashes;
using Valtro.Core.Events;
using Valtro.Core.YearPlans;

namespace Valtro.Store;

/// <summary>What a request needs to know of an organisation, all of it of one moment and nothing of it ever changed.</summary>
/// <param name="Version">Rises with any of it (not with events): the same number is the same house.</param>
/// <param name="Calendars">Those in use, archived ones too, in the order in which they were made.</param>
/// <param name="Categories">Those that are offered, by name.</param>
/// <param name="EveryCategory">Retired ones too: what events may have.</param>
/// <param name="MostInAWeek">Of which categories a week should hold only so many for the same readers.</param>
/// <param name="Merged">Categories that became others: whoever names one means the other as well.</param>
/// <param name="Places">Those that are offered, by name.</param>
/// <param name="Editions">Those in use; composed ones first, by name.</param>
/// <param name="Members">Names of those who are members now, by their accounts.</param>
public sealed record House(
    long Version, Organisation Organisation, IReadOnlyList<StoredYearPlan> Plans, IReadOnlyDictionary<Guid, Calendar> Calendars,
    IReadOnlyList<CalendarGroup> Groups,
    IReadOnlyList<Category> Categories, IReadOnlyDictionary<Guid, Category> EveryCategory, IReadOnlyDictionary<Guid, int> MostInAWeek,
    ILookup<Guid, Guid> Merged,
    IReadOnlyList<KnownPlace> Places,
    IReadOnlyList<StoredEdition> Editions,
    IReadOnlyDictionary<Guid, string> Members)
{
    /// <summary>Members of the same name, with what tells them apart for whoever chooses one: "Cy Marchbank (cy)".</summary>
    public IReadOnlyDictionary<Guid, string> Namesakes { get; init; } = new Dictionary<Guid, string>();

    /// <summary>All years together, as expansion asks them.</summary>
    public SchoolCalendar School { get; init; } = new(Plans.Select(stored => stored.Plan), (IsoDayOfWeek)Organisation.FirstDayOfWeek);

    public IReadOnlyList<Place> AllPlaces { get; } = [.. Places.Select(known => known.Place)];

    /// <summary>What each calendar shows whom.</summary>
    public IReadOnlyDictionary<Guid, Core.Disclosure.Disclosure> Disclosures { get; } =
        Calendars.ToDictionary(one => one.Key, one => one.Value.Disclosure);

    public PlaceTree PlaceTree { get; } =
        new(Places.Where(place => place.PartOf is not null).Select(place => KeyValuePair.Create(place.Id, place.PartOf!.Value)));

    /// <summary>Who reads a calendar, by name: its readerships, else those of this calendar alone.</summary>
    public IReadOnlyList<string> ReadersOf(Guid calendarId) =>
        Calendars.TryGetValue(calendarId, out var calendar) ? calendar.Readerships is [] ? [calendar.Name] : calendar.Readerships : [];

    /// <summary>What weeks hold of the categories of which only so many are wanted.</summary>
    public WeekLoads LoadsOf(IEnumerable<EventDate> dates) =>
        new(dates, MostInAWeek, ReadersOf, (IsoDayOfWeek)Organisation.FirstDayOfWeek);

    /// <summary>About how much of it there is, for whoever keeps many.</summary>
    public int Size => 10 + Calendars.Count + Editions.Count + EveryCategory.Count + Places.Count + Plans.Count + Members.Count;
}

public sealed class HouseStore(Database database)
{
    /// <returns>0 where there is no such organisation.</returns>
    public Task<long> VersionAsync(Guid organisationId) =>
        database.FirstAsync<long>("select version from house where organisation_id = @organisationId", new { organisationId });

    /// <summary>In one round trip, as of one moment.</summary>
    /// <exception cref="NotFoundException">There is no such organisation.</exception>
    public Task<House> ReadAsync(Guid organisationId) => database.ReadTogetherAsync($"""
        select coalesce((select version from house where organisation_id = @organisationId), 0);
        {OrganisationStore.ById.Replace("@id", "@organisationId", StringComparison.Ordinal)};
        {YearPlanStore.OfOrganisation};
        {CalendarStore.InUse};
        {GroupStore.OfOrganisation};
        {ListStore.CategoriesOfOrganisation};
        {ListStore.MergedOfOrganisation};
        {ListStore.PlacesOfOrganisation};
        {EditionSettingsStore.InUse};
        {AccountStore.NamesOfMembers}
        """, new { organisationId }, async results =>
        {
            var version = await results.ReadSingleAsync<long>();
            var organisation = await results.ReadFirstOrDefaultAsync<Organisation>() ?? throw new NotFoundException("organisation");
            var plans = await YearPlanStore.ReadAsync(results);
            var calendars = await CalendarStore.ReadAsync(results);
            var groups = await GroupStore.ReadAsync(results);
            var (offered, every, mostInAWeek) = await ListStore.ReadListAsync(results);
            var merged = await ListStore.ReadMergedAsync(results);
            var places = await ListStore.ReadPlacesAsync(results);
            var editions = await EditionSettingsStore.ReadAsync(results);
            var members = (await results.ReadAsync<(Guid Id, string Name, string? ToldApart)>()).AsList();
            return new House(
                version, organisation, plans, calendars.ToDictionary(calendar => calendar.Id), groups, offered,
                every.ToDictionary(category => category.Id), mostInAWeek, merged, places, editions,
                members.ToDictionary(row => row.Id, row => row.Name))
            {
                Namesakes = members.Where(row => row.ToldApart is not null).ToDictionary(row => row.Id, row => row.ToldApart!),
            };
        });
}
