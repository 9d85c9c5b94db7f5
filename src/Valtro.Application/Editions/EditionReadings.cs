using NodaTime;
using Valtro.Core.Calendars;
using Valtro.Core.Disclosure;
using Valtro.Core.Editions;
using Valtro.Core.Events;
using Valtro.Core.YearPlans;
using Valtro.Store;

namespace Valtro.Application.Editions;

/// <summary>An edition ready to be composed.</summary>
/// <param name="Sources">Its calendars in use, with what they show now.</param>
/// <param name="Calendar">Of a standard edition.</param>
/// <param name="Named">What addresses of this edition called its calendars: slugs and plates, those of before too.</param>
public sealed record EditionReading(
    EditionAddress Address, CheckedEdition Checked, IReadOnlyList<Source> Sources, SchoolCalendar School, Calendar? Calendar,
    Guid OrganisationId, ILookup<Guid, string> Named,
    IReadOnlyList<KnownPlace> Places, int YearStartsIn)
{
    public Edition Edition => Checked.Edition;

    /// <summary>What readers call it.</summary>
    public string Title => Checked.Look.Title is { Length: > 0 } title ? title : Calendar?.Name ?? Checked.Name;

    public string Intro => Checked.Look.Intro is { Length: > 0 } intro ? intro : Calendar?.Description ?? "";

    public Guid[] Calendars => [.. Sources.Select(source => source.CalendarId)];

    public Composition CompositionAt(Instant now) => new(Edition, Sources, School, now);
}

/// <summary>Reads from the store what an edition is made of.</summary>
public sealed class EditionReadings(Houses houses, DeliveredStore delivered, AccountStore accounts)
{
    /// <returns>Null when it is gone, or a standard edition shows its audience nothing.</returns>
    public async Task<EditionReading?> FindAsync(EditionAddress address)
    {
        using var within = Wall.Within(address.OrganisationId);
        var house = await houses.LatestAsync(address.OrganisationId);
        var owner = address.OwnerId is { } own ? await OwnerAsync(own, address.OrganisationId) : null;
        if (address.OwnerId is not null && owner is null)
            return null;
        var draft = address.Draft
            ?? (owner is null
                ? house.Editions.FirstOrDefault(edition => edition.Id == address.Id)?.Draft
                : EditionDraft.Own(owner.AccountId, ReadingWords.For("", house.Organisation.Locale)["ownEvents"])
                    .Having(house.Calendars.Keys));
        if (draft is null)
            return null;
        var all = house.Calendars;
        var standard = address.CalendarId is { } id ? all.GetValueOrDefault(id) : null;
        if (address.CalendarId is not null && (standard is null || standard.Disclosure[address.Audience] == Detail.Nothing))
            return null;
        var (made, sources) = Made(draft, address.Audience, Core.Time.Zones.Named(address.Zone), house, owner);
        return new EditionReading(address, made, sources, house.School, standard, address.OrganisationId,
            (await delivered.CalendarsNamedAsync(address)).ToLookup(one => one.Value, one => one.Key),
            house.Places, house.Organisation.YearStartsIn);
    }

    private async Task<Viewer?> OwnerAsync(Guid accountId, Guid organisationId) =>
        (await accounts.MembershipsAsync(accountId)).FirstOrDefault(one => one.Viewer.OrganisationId == organisationId)?.Viewer;

    /// <summary>What an edition is made of for an audience: that which it is addressed to, or another that the desk looks at it
    /// as.</summary>
    /// <param name="owner">Whose own it is: they get each calendar as they see it themselves.</param>
    public static (CheckedEdition Checked, Source[] Sources) Made(EditionDraft draft, Audience audience, DateTimeZone zone, House house,
        Viewer? owner = null)
    {
        var (organisation, all, merged) = (house.Organisation, house.Calendars, house.Merged);
        // Drafts and what waits are for members.
        var stored = draft with { Audience = Audience.Members, WithUnfinished = draft.WithUnfinished && audience <= Audience.Members };
        var made = stored.Stored(zone, (IsoDayOfWeek)(draft.Look?.FirstDayOfWeek ?? organisation.FirstDayOfWeek));
        var words = ReadingWords.For(made.Look.Language, organisation.Locale);
        return (
            made with
            {
                Edition = made.Edition with
                {
                    Audience = audience,
                    At = draft.AtPlace is { } at ? PlacesAround(at, house) : null,
                    Busy = words["busy"],
                    Due = words.Fill("titleDue", "title", "{0}"),
                    PartNames = Enum.GetValues<Part>().ToDictionary(part => part, part => words[$"part{part}"]),
                },
            },
            [.. from one in made.Filters
                where all.ContainsKey(one.Key)
                let calendar = all[one.Key]
                let seenAs = owner?.AudienceOf(calendar.Id)
                where !draft.TakesAll || calendar.Disclosure[seenAs ?? audience] > Detail.Nothing
                select new Source(calendar.Id, calendar.Plate, calendar.Name, calendar.Hue, calendar.Disclosure,
                    one.Value is { } filter
                        ? filter with { Categories =
                            [.. filter.Categories.Concat(filter.Categories.SelectMany(id => merged[id])).Distinct()] }
                        : null, calendar.Slug) { SeenAs = seenAs }]);
    }

    /// <summary>A place, its parts, and the wholes of which it is one: whoever has one of these has it too.</summary>
    private static HashSet<Guid> PlacesAround(Guid place, House house) =>
        [place, .. house.Places.Select(one => one.Id).Where(id => house.PlaceTree.Share(place, id))];
}
