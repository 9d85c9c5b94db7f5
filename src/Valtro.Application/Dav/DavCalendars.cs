using System.Buffers;
using System.Globalization;
using System.Security.Cryptography;
using System.Text;
using NodaTime;
using Valtro.Application.Editions;
using Valtro.Core.Calendars;
using Valtro.Core.Disclosure;
using Valtro.Core.Editions;
using Valtro.Core.Events;
using Valtro.Core.ICalendar;
using Valtro.Core.Time;
using Valtro.Store;

namespace Valtro.Application.Dav;

/// <summary>A calendar, or an edition for members, as a member's program lists it.</summary>
/// <param name="Token">Of what it holds: where it is the same, nothing is another.</param>
public sealed record DavCollection(Guid EditionId, string Name, string Description, Hue Hue, string Token);

/// <summary>One event of it.</summary>
/// <param name="Name">The last part of its address.</param>
/// <param name="Dates">Its dates within some days, as whoever asks sees them.</param>
public sealed record DavObject(string Name, byte[] Content, string ETag, Instant ChangedAt, Func<Window, IEnumerable<DavDate>> Dates);

/// <param name="TakesTime">Whoever has it is busy for it.</param>
public readonly record struct DavDate(Instant Start, Instant End, bool TakesTime, bool IsCertain);

/// <summary>What a member's calendar program may read (RFC 4791): each calendar as they see it, and the editions for members.</summary>
public sealed class DavCalendars(
    AccountStore accounts, Houses houses, EditionStore editions, EventStore events, RevisionStore revisions, PublicAddresses addresses,
    IClock clock)
{
    private const int BusyYears = 3;

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
        return Digest(Encoding.UTF8.GetBytes(string.Create(CultureInfo.InvariantCulture, $"{version} {house.Version} {seenAs} {hour}")));
    }

    /// <returns>Null where there is none such of theirs.</returns>
    public async Task<(DavCollection Collection, Func<Task<IReadOnlyList<DavObject>>> Objects)?> FindAsync(Guid accountId, Guid editionId)
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

    private async Task<IReadOnlyList<DavObject>> ObjectsAsync(StoredEdition edition, Viewer viewer, House house)
    {
        using var within = Wall.Within(viewer.OrganisationId);
        if (await editions.FindAsync(edition.Id) is not { } found)
            return [];
        var address = found with { SeenAs = Audience.Members };
        // An edition for members is what all of them get; a calendar is what this one sees of it.
        var (made, sources) = EditionReadings.Made(
            edition.Draft, Audience.Members, Zones.Named(address.Zone), house, edition.IsStandard ? viewer : null);
        // One object has one name, which a task of several dates has not.
        var shaped = made with { Edition = made.Edition with { Deadlines = DeadlineForm.Events } };
        var reading = new EditionReading(address, shaped, sources, house.School,
            edition.CalendarId is { } id ? house.Calendars[id] : null, viewer.OrganisationId,
            Array.Empty<(Guid, string)>().ToLookup(one => one.Item1, one => one.Item2), house.Places, house.Organisation.YearStartsIn);
        return await ObjectsAsync(reading);
    }

    private async Task<IReadOnlyList<DavObject>> ObjectsAsync(EditionReading reading)
    {
        var now = Now;
        var composition = reading.CompositionAt(now);
        var all = await events.OfCalendarsAsync(reading.OrganisationId, reading.Calendars);
        var savedAt = await revisions.SavedAtAsync(reading.OrganisationId, [.. all.Select(one => one.Id)]);
        var horizon = Components.HorizonAt(now, reading.Edition.Zone);
        var files = addresses.InFeed(reading.Address).Files;
        var places = reading.Places.ToDictionary(place => place.Id, place => place.Told);
        Components New() => new(reading.School, files, places, horizon, reading.Edition);
        var objects = new List<DavObject>();

        void Add(Action<Components> write, Uid uid, CalendarEvent? of, Func<Window, IEnumerable<DavDate>> dates)
        {
            using var components = New();
            write(components);
            if (components.Written.Count == 0)
                return;
            // Breaks are not saved one by one.
            var at = of is null ? NodaConstants.UnixEpoch : savedAt.GetValueOrDefault(of.Id, of.Created);
            var known = components.Written.Select(one => one.Name).Distinct()
                .ToDictionary(name => name, name => new Stamp(name, null, of?.Version ?? 0, at, 0, 0, []));
            var output = new ArrayBufferWriter<byte>(2_048);
            FeedWriter.WriteObject(output, components, new Stamps(components.Written, known, 0, 0, at));
            var content = output.WrittenSpan.ToArray();
            objects.Add(new DavObject(NameOf(uid), content, Digest(content), at, dates));
        }

        var year = now.InUtc().Year;
        var window = new Window(new LocalDate(year - 1, 1, 1), new LocalDate(year + BusyYears, 1, 1), reading.Edition.Zone);
        foreach (var one in composition.Deliver(all))
        {
            if (one.Disclosed.Detail > Detail.Times)
            {
                Add(components => components.AddSeries(one, one.Disclosed.Uid), one.Disclosed.Uid, one.Event,
                    days => composition.Dates(one.Event, days).Select(DateOf));
                continue;
            }
            // A rule would say which of the busy dates belong together; so would names of which one could be told from another.
            foreach (var entry in composition.Dates(one.Event, window))
            {
                var uid = Uid.Of(new Guid(SHA256.HashData(Encoding.UTF8.GetBytes(
                    $"{one.Event.Id} {NodaTime.Text.LocalDateTimePattern.GeneralIso.Format(entry.Occurrence.RecurrenceId)}"))[..16]));
                Add(components => components.AddDate(entry, composition.FullTitle(entry), uid), uid, one.Event,
                    days => entry.Occurrence.Overlaps(days, one.Event.Series.Timing.AllDay) ? [DateOf(entry)] : []);
            }
        }
        foreach (var closed in composition.Breaks(horizon))
        {
            var uid = OutwardNames.OfDate(Uid.Of(reading.Address.Id), closed.Occurrence.LocalStart);
            Add(components => components.AddDate(closed, closed.Title, uid), uid, null,
                days => closed.Occurrence.Overlaps(days, allDay: true) ? [DateOf(closed) with { TakesTime = false }] : []);
        }
        return objects;
    }

    private static DavDate DateOf(Entry entry) => new(
        entry.Occurrence.Start, entry.Occurrence.End,
        entry.Event.State != EventState.Cancelled && !entry.Timing.AllDay && !entry.Event.Content.TakesNoTime,
        entry.Event.Content.Certainty == Certainty.Certain);

    private static string NameOf(Uid uid) =>
        uid.Text.Length <= 100 && uid.Text.All(one => char.IsAsciiLetterOrDigit(one) || one is '-' or '_' or '@')
            ? uid.Text
            : Digest(Encoding.UTF8.GetBytes(uid.Text));

    private static string Digest(byte[] content) => Convert.ToHexString(SHA256.HashData(content))[..32].ToLowerInvariant();
}
