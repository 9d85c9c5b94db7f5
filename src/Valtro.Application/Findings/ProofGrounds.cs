using NodaTime;
using Valtro.Application.Editions;
using Valtro.Core.Deliveries;
using Valtro.Core.Disclosure;
using Valtro.Core.Editions;
using Valtro.Core.Findings;
using Valtro.Core.Speaking;
using Valtro.Store;

namespace Valtro.Application.Findings;

/// <summary>An edition ready to be looked through, and what was found of it before.</summary>
/// <param name="Otherwise">The same edition set otherwise, or in a house with another year, from what was read; sources may be fewer, not
/// others.</param>
public sealed record Proving(ProofGround Ground, AroundEdition Around, Func<StoredEdition, House, ProofGround> Otherwise);

/// <summary>Reads from the store what an edition is looked through by.</summary>
public sealed class ProofGrounds(EventStore eventStore, FindingStore findings, Settings settings, IClock clock)
{
    /// <summary>A source that fails is late after so many of its turns, and not before.</summary>
    private const int TurnsUntilLate = 3;

    private const int MostOthers = 20;

    /// <summary>As whom a calendar's own edition is looked at: as everyone, unless only those with its link get something.</summary>
    public static Audience AudienceOf(StoredEdition edition, House house) =>
        edition.CalendarId is not { } id || !house.Calendars.TryGetValue(id, out var calendar) ? edition.Draft.Audience
        : calendar.Disclosure.Everyone == Detail.Nothing && calendar.GoesOut ? Audience.Link
        : Audience.Everyone;

    /// <summary>Somebody can fetch it.</summary>
    public static bool GoesOut(StoredEdition edition, House house) => edition.CalendarId is { } id
        ? house.Calendars.GetValueOrDefault(id)?.GoesOut == true
        : !edition.IsInTheMaking;

    public static (CheckedEdition Checked, Source[] Sources) Made(StoredEdition edition, House house) => EditionReadings.Made(
        edition.Draft, AudienceOf(edition, house), ZoneOf(edition, house), house);

    /// <summary>Where it is kept: where its calendar is, else where the organisation is.</summary>
    public static DateTimeZone ZoneOf(StoredEdition edition, House house) =>
        edition.CalendarId is { } own && house.Calendars.TryGetValue(own, out var calendar)
            ? calendar.Zone
            : house.Organisation.TimeZone;

    public async Task<Proving> OfAsync(StoredEdition edition, House house)
    {
        var now = clock.GetCurrentInstant();
        var read = Made(edition, house);
        Guid[] calendars = [.. read.Sources.Select(source => source.CalendarId)];
        var events = await eventStore.InWindowAsync(
            house.Organisation.Id, calendars, ProofGround.YearFrom(read.Checked.Edition, now));
        var around = await findings.AroundAsync(house.Organisation.Id, edition.Id, calendars,
            now.InZone(read.Checked.Edition.Zone).Date.PlusDays(-FeedReach.Days));
        var waiting = around.Waiting.Count == 0
            ? []
            : (await eventStore.SomeAsync(house.Organisation.Id, [.. around.Waiting.Select(one => one.EventId)]))
                .ToDictionary(one => one.Id);
        return new Proving(GroundOf(edition, house), around, GroundOf);

        ProofGround GroundOf(StoredEdition edition, House house)
        {
            var (made, sources) = Made(edition, house);
            var zone = made.Edition.Zone;
            var chosen = sources.Select(source => source.CalendarId).ToHashSet();
            return new ProofGround(
                made, sources, house.School, now, [.. events.Where(one => one.Calendars.Any(chosen.Contains))], new ProofSurroundings
                {
                    SharePlace = house.PlaceTree.Share,
                    ReadershipsOf = id => house.Calendars.GetValueOrDefault(id)?.Readerships ?? [],
                    ReadersOf = house.ReadersOf,
                    MostInAWeek = house.MostInAWeek,
                    CategoryName = id => house.EveryCategory.GetValueOrDefault(id)?.Name ?? "",
                    Ours = settings.PublicUrl,
                    Others = edition.IsStandard ? [] : [.. Others(edition, house, now)],
                    LateSources = [.. around.Sources.SelectMany(source => Late(source, now, zone))
                        .Where(late => chosen.Contains(late.CalendarId))],
                    Waiting = [.. around.Waiting.Where(one => waiting.ContainsKey(one.EventId) && chosen.Contains(one.CalendarId))
                        .Select(one => (waiting[one.EventId], one.CalendarId))],
                    Links = around.Links.ToDictionary(
                        one => one.Key, one => new CheckedLink(one.Value.State, one.Value.CheckedAt.InZone(zone).Date)),
                    Fetched = GoesOut(edition, house) && AudienceOf(edition, house) > Audience.Members
                        ? new LatelyFetched(edition.LetOutAt ?? edition.ChangedAt, FeedReach.Busiest(around.Fetched),
                            FeedReach.Of(around.Fetched, around.WentOutAt?.InZone(zone).Date, now.InZone(zone).Date),
                            around.WentOutAt)
                        : null,
                });
        }
    }

    private static IEnumerable<OtherEdition> Others(StoredEdition edition, House house, Instant now) =>
        from other in house.Editions.Where(other => other.Id != edition.Id && !other.IsStandard && !other.IsInTheMaking
            && other.Draft.Audience > edition.Draft.Audience && other.Sources.Intersect(edition.Sources).Any()).Take(MostOthers)
        let made = Made(other, house)
        select new OtherEdition(
            other.Name, other.Draft.Audience, new Composition(made.Checked.Edition, made.Sources, house.School, now));

    private static IEnumerable<LateSource> Late(FollowedSource source, Instant now, DateTimeZone zone)
    {
        var patience = Duration.Max(Duration.FromHours(6), Duration.FromMinutes(TurnsUntilLate * source.EveryMinutes));
        if (source.Held is null && now - (source.RightAt ?? source.MadeAt) < patience)
            return [];
        var why = source.Held is not null
            ? Saying.Of("finding.sourceHeld")
            : source.Problem ?? Saying.Of("finding.sourceSilent");
        return source.Rules.Calendars().Select(calendar =>
            new LateSource(source.Id, source.Name, calendar, source.RightAt?.InZone(zone).Date, why));
    }
}
