using System.Globalization;
using System.Security.Cryptography;
using System.Text;
using NodaTime;
using Valtro.Application.Editions;
using Valtro.Core.Calendars;
using Valtro.Core.Disclosure;
using Valtro.Store;

namespace Valtro.Application.Dav;

/// <summary>A calendar, or an edition for members, as a member's program lists it.</summary>
/// <param name="Token">Of what it holds: where it is the same, nothing is another.</param>
public sealed record DavCollection(Guid EditionId, string Name, string Description, Hue Hue, string Token);

/// <summary>What a member's calendar program may read (RFC 4791): each calendar as they see it, and the editions for members.</summary>
public sealed class DavCalendars(
    AccountStore accounts, Houses houses, EditionStore editions, EditionObjects objects, IClock clock)
{
    private Instant Now => Instant.FromUnixTimeSeconds(clock.GetCurrentInstant().ToUnixTimeSeconds());

    /// <summary>Of all organisations that the account belongs to.</summary>
    public async Task<IReadOnlyList<DavCollection>> ListAsync(Guid accountId)
    {
        var all = new List<DavCollection>();
        foreach (var (viewer, house, isOfSeveral) in await HousesAsync(accountId))
        {
            using var within = Wall.Within(viewer.OrganisationId);
            var readable = house.Editions.Where(edition => MayRead(viewer, house, edition)).ToDictionary(edition => edition.Id);
            var versions = (await editions.VersionsAsync([.. readable.Keys])).ToDictionary(one => one.Id, one => one.ContentVersion);
            all.AddRange(readable.Values.Where(one => versions.ContainsKey(one.Id))
                .Select(one => Show(one, viewer, house, isOfSeveral, versions[one.Id])));
        }
        return all;
    }

    private async Task<IReadOnlyList<(Viewer Viewer, House House, bool IsOfSeveral)>> HousesAsync(Guid accountId)
    {
        var found = new List<(Viewer, House, bool)>();
        var memberships = await accounts.MembershipsAsync(accountId);
        foreach (var membership in memberships)
        {
            using var within = Wall.Within(membership.Viewer.OrganisationId);
            found.Add((membership.Viewer, await houses.OfAsync(membership.Viewer.OrganisationId, membership.HouseVersion),
                memberships.Count > 1));
        }
        return found;
    }

    private static bool MayRead(Viewer viewer, House house, StoredEdition edition) => edition.CalendarId is { } id
        ? house.Calendars.TryGetValue(id, out var calendar) && calendar.ArchivedAt is null
            && viewer.DetailOn(id, calendar.Disclosure) > Detail.Nothing
        : EditionDesk.MayRead(viewer, edition);

    private DavCollection Show(StoredEdition edition, Viewer viewer, House house, bool isOfSeveral, long version)
    {
        var calendar = edition.CalendarId is { } id ? house.Calendars[id] : null;
        var name = edition.Draft.Look?.Title is { Length: > 0 } title ? title : calendar?.Name ?? edition.Name;
        var first = calendar?.Hue
            ?? edition.Sources.Select(one => house.Calendars.GetValueOrDefault(one)?.Hue).FirstOrDefault(hue => hue is not null);
        return new DavCollection(
            edition.Id, isOfSeveral ? $"{name}, {house.Organisation.Name}" : name, calendar?.Description ?? "", first ?? Hue.All[0],
            TokenOf(edition, viewer, house, version));
    }

    /// <summary>Rises with what it holds, with what its reader may see, and by the clock: something may be shown for a time only.</summary>
    private string TokenOf(StoredEdition edition, Viewer viewer, House house, long version)
    {
        var seenAs = string.Concat(edition.Sources.Select(id => (int)viewer.AudienceOf(id)));
        var hour = Now.ToUnixTimeSeconds() / 3_600;
        return Digest(string.Create(CultureInfo.InvariantCulture, $"{version} {house.Version} {seenAs} {hour}"));
    }

    /// <returns>Null where there is none such of theirs.</returns>
    public async Task<(DavCollection Collection, Func<Task<IReadOnlyList<EditionObject>>> Objects)?> FindAsync(
        Guid accountId, Guid editionId)
    {
        foreach (var (viewer, house, isOfSeveral) in await HousesAsync(accountId))
        {
            if (house.Editions.FirstOrDefault(one => one.Id == editionId) is not { } edition || !MayRead(viewer, house, edition))
                continue;
            using var within = Wall.Within(viewer.OrganisationId);
            return await editions.VersionsAsync([editionId]) is [var (_, version, _)]
                ? (Show(edition, viewer, house, isOfSeveral, version), () => ObjectsAsync(edition, viewer, house))
                : null;
        }
        return null;
    }

    private async Task<IReadOnlyList<EditionObject>> ObjectsAsync(StoredEdition edition, Viewer viewer, House house)
    {
        using var within = Wall.Within(viewer.OrganisationId);
        if (await editions.FindAsync(edition.Id) is not { } found)
            return [];
        // An edition for members is what all of them get; a calendar is what this one sees of it.
        return await objects.OfAsync(found with { SeenAs = Audience.Members }, edition.Draft, house, edition.IsStandard ? viewer : null);
    }

    private static string Digest(string text) =>
        Convert.ToHexString(SHA256.HashData(Encoding.UTF8.GetBytes(text)))[..32].ToLowerInvariant();
}
