using NodaTime;
using Valtro.Application.Accounts;
using Valtro.Application.Editions;
using Valtro.Application.Findings;
using Valtro.Core.Deliveries;
using Valtro.Core.Disclosure;
using Valtro.Store;

namespace Valtro.Application.Deliveries;

/// <summary>Which days are looked at.</summary>
public enum DeliverySpan
{
    Fortnight,

    /// <summary>The term that is now, as far as it is kept.</summary>
    Term,
}

/// <summary>Who has which version, for those who compose an edition or keep a calendar.</summary>
public sealed class DeliveryDesk(Access access, ComposersEditions composed, DeliveryStore store, SubscriberStore subscribers, IClock clock)
{
    /// <summary>Of all editions that the person composes and all calendars that they keep.</summary>
    public async Task<ReachesResponse> ReachAsync()
    {
        var viewer = await access.ViewerAsync();
        var house = await access.HouseAsync();
        var now = clock.GetCurrentInstant();
        var first = now.InZone(house.Organisation.TimeZone).Date.PlusDays(-FeedReach.Days - 1);
        var (days, changed) = await store.FeedsAsync(viewer.OrganisationId, first);
        Instant? ChangedAt(StoredEdition edition) => changed.TryGetValue(edition.Id, out var at) ? at : null;
        var reaches = house.Editions.Where(edition => ProofGrounds.GoesOut(edition, house)).ToDictionary(
            edition => edition, edition => Of(days[edition.Id], ChangedAt(edition), ProofGrounds.ZoneOf(edition, house), now));
        return new ReachesResponse(
            [.. reaches.Where(one => viewer.MayCompose(one.Key.Sources, house.Disclosures))
                .Select(one => ReachBody.Of(one.Key.Id, one.Value, ChangedAt(one.Key)))],
            [.. from calendar in house.Calendars.Values
                where viewer.May(CalendarAction.See, calendar.Id)
                let carrying = reaches.Where(one => one.Key.Sources.Contains(calendar.Id)).ToArray()
                where carrying.Length > 0
                select ReachBody.Of(calendar.Id, FeedReach.Sum(carrying.Select(one => one.Value)), carrying.Max(one =>
                    ChangedAt(one.Key)))]);
    }

    /// <exception cref="NotFoundException">There is no such edition.</exception>
    /// <exception cref="ForbiddenException">The person may not compose it.</exception>
    public async Task<DeliveriesResponse> OfAsync(Guid id, DeliverySpan span)
    {
        var (viewer, house, edition) = await composed.FindAsync(id);
        var now = clock.GetCurrentInstant();
        var zone = ProofGrounds.ZoneOf(edition, house);
        var today = now.InZone(zone).Date;
        var term = house.School.TermOn(today) is { } current
            ? LocalDate.Max(current.First, (now - DeliveryStore.Kept).InZone(zone).Date)
            : (LocalDate?)null;
        var from = span == DeliverySpan.Term && term is { } begins ? begins : today.PlusDays(1 - FeedReach.Days);
        var found = await store.OfAsync(
            viewer.OrganisationId, id, LocalDate.Min(from, today.PlusDays(-FeedReach.Days)));
        Instant? changed = found.Versions.Count > 0 ? found.Versions[0].ChangedAt : null;
        var reach = Of(found.Feed, changed, zone, now);
        var feed = found.Feed.Where(day => day.Kind != ProgramKind.Browser).ToArray();
        var (programs, readers) = (feed.ToLookup(day => day.Day),
            found.Pages.Where(day => day.Kind == ProgramKind.Browser).ToLookup(day => day.Day));
        var late = found.Versions.Where(version => version.LateSince is not null)
            .ToLookup(version => version.ChangedAt.InZone(zone).Date, version => version.ChangedAt - version.LateSince!.Value);
        return new DeliveriesResponse(
            edition.Id, edition.Name, edition.CalendarId, ReachBody.Of(edition.Id, reach, changed),
            [.. reach.Rhythms.Select(one => new RhythmBody(one.Rhythm, one.Usual, one.Since, one.Share, one.Mostly))],
            [.. FeedReach.UsualKinds(feed, today).Select(one => new KindBody(one.Kind, one.Usual))],
            [.. Enumerable.Range(0, Period.DaysBetween(from, today) + 1).Select(from.PlusDays).Select(day => new DayBody(
                day, programs[day].Sum(one => one.Programs), programs[day].Sum(one => one.WithNewest), programs[day].Sum(one => one.Times),
                readers[day].Sum(one => one.Programs), readers[day].Sum(one => one.Times),
                (int)late[day].Select(minutes => minutes.TotalMinutes).DefaultIfEmpty().Max()))],
            [.. found.Sites.Select(site => new SiteBody(site.Site, site.Views))],
            WaitSteps.Half(feed), found.LastFetch, term, await subscribers.CountAsync(viewer.OrganisationId, id));
    }

    private static FeedReach Of(IEnumerable<CountedDay> days, Instant? changed, DateTimeZone zone, Instant now) =>
        FeedReach.Of(days, changed?.InZone(zone).Date, now.InZone(zone).Date);
}
