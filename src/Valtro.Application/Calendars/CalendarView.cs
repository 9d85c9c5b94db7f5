using NodaTime;
using Valtro.Application.Accounts;
using Valtro.Core;
using Valtro.Core.Calendars;
using Valtro.Core.Disclosure;
using Valtro.Store;

namespace Valtro.Application.Calendars;

/// <summary>Calendars as one person may see them.</summary>
public sealed class CalendarView(
    CalendarStore calendars, EventStore events, EditionStore editions, OrganisationStore organisations, AccountStore accounts)
{
    public const string KeepersOnly = "access.administratorsCalendars";

    /// <summary>Those of which the person sees anything at all.</summary>
    public async Task<IReadOnlyList<CalendarResponse>> ShowAsync(Viewer viewer, IEnumerable<Calendar> all)
    {
        var counts = await events.CountsAsync(viewer.OrganisationId);
        var feeds = await editions.StatesAsync(viewer.OrganisationId);
        var keepers = await accounts.KeepersAsync(viewer.OrganisationId);
        return [.. from calendar in all
                   let detail = viewer.DetailOn(calendar.Id, calendar.Disclosure)
                   where detail > Detail.Nothing
                   select Show(viewer, calendar, detail, counts.GetValueOrDefault(calendar.Id), feeds,
                       keepers[calendar.Id].Select(keeper => new KeeperBody(keeper.Name, keeper.Role)))];
    }

    /// <exception cref="NotFoundException">There is none, or the person sees nothing of it.</exception>
    public async Task<CalendarResponse> FindAsync(Viewer viewer, Guid id) => (await FindBothAsync(viewer, id)).Shown;

    /// <summary>A calendar that the person keeps, with what publishing it needs.</summary>
    /// <exception cref="ForbiddenException">They see it but do not keep it.</exception>
    public async Task<(Calendar Calendar, CalendarResponse Shown, Organisation Organisation)> KeptAsync(Viewer viewer, Guid id)
    {
        var (calendar, shown) = await FindBothAsync(viewer, id);
        Access.Require(viewer.May(CalendarAction.Publish, id), "access.keepersPublish");
        return (calendar, shown, (await organisations.FindAsync(viewer.OrganisationId))!);
    }

    /// <summary>Saves its settings, and writes down whom it was opened to or closed for.</summary>
    /// <exception cref="ChangedMeanwhileException">The version is not the stored one any more.</exception>
    public async Task<CalendarResponse> SaveAsync(Viewer viewer, Guid id, int version, CalendarSettings settings, Instant now)
    {
        var before = await calendars.FindAsync(viewer.OrganisationId, id) ?? throw new NotFoundException("calendar");
        var calendar = await calendars.SaveAsync(viewer.OrganisationId, id, version, settings, now,
            DisclosureChange.Audit(viewer, settings.Name, before.Disclosure, settings.Disclosure, now));
        return (await ShowAsync(viewer, [calendar]))[0];
    }

    private async Task<(Calendar Calendar, CalendarResponse Shown)> FindBothAsync(Viewer viewer, Guid id)
    {
        var calendar = await calendars.FindAsync(viewer.OrganisationId, id) ?? throw new NotFoundException("calendar");
        var shown = await ShowAsync(viewer, [calendar]);
        return shown.Count == 0 ? throw new NotFoundException("calendar") : (calendar, shown[0]);
    }

    private static CalendarResponse Show(
        Viewer viewer, Calendar calendar, Detail detail, int count, IReadOnlyDictionary<Guid, GoingOutState> feeds,
            IEnumerable<KeeperBody> keepers)
    {
        var keeps = viewer.May(CalendarAction.See, calendar.Id);
        return new CalendarResponse(
            calendar.Id, calendar.Name, calendar.Plate.Code, calendar.Hue.Name, calendar.Zone.Id, calendar.Description,
            keeps ? DisclosureBody.Of(calendar.Disclosure) : Known(calendar.Disclosure, viewer), detail,
            viewer.May(CalendarAction.Contribute, calendar.Id) && !calendar.IsFollowed, viewer.May(CalendarAction.Edit, calendar.Id),
            viewer.May(CalendarAction.Publish, calendar.Id),
            viewer.May(OrganisationAction.ManageCalendars), keeps ? count : null,
            calendar.Version, Delivery(calendar, feeds, keeps), keeps ? calendar.Readerships : [], calendar.RequiresSignOff,
            calendar.ArchivedAt is not null, calendar.IsFollowed,
            keeps && calendar.HasSecretLink, keeps ? [.. keepers] : []);
    }

    /// <summary>What somebody who does not keep it may know of its table: their own audience and the wider ones.</summary>
    private static DisclosureBody Known(Disclosure disclosure, Viewer viewer) => viewer.SeesAs switch
    {
        Audience.Everyone => new DisclosureBody(disclosure.Everyone, disclosure.Everyone, disclosure.Everyone),
        Audience.Link => new DisclosureBody(disclosure.Link, disclosure.Link, disclosure.Everyone),
        _ => DisclosureBody.Of(disclosure),
    };

    /// <summary>That something waits to go out is only told to those who keep it: others would learn that something changed which they
    /// cannot see.</summary>
    private static DeliveryBody Delivery(Calendar calendar, IReadOnlyDictionary<Guid, GoingOutState> feeds, bool keeps)
    {
        if (!calendar.GoesOut)
            return DeliveryBody.Closed;
        if (!keeps)
            return calendar.Disclosure.Everyone > Detail.Nothing ? DeliveryBody.UpToDate : DeliveryBody.Closed;
        return DeliveryBody.Of(feeds.GetValueOrDefault(calendar.EditionId));
    }
}
