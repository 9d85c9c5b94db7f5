using NodaTime;
using Valtro.Application.Accounts;
using Valtro.Application.Calendars;
using Valtro.Application.Findings;
using Valtro.Core;
using Valtro.Core.Calendars;
using Valtro.Core.Disclosure;
using Valtro.Core.Editions;
using Valtro.Core.Time;
using Valtro.Store;

namespace Valtro.Application.Editions;

/// <summary>Editions as the signed-in person may see and compose them.</summary>
public sealed class EditionDesk(
    Access access, EditionSettingsStore settings, EditionStore editions, EditionReadings readings, EventStore events, SecretLinkStore links,
    FindingStore findings, PublicAddresses addresses, IClock clock)
{
    private Instant Now => Instant.FromUnixTimeSeconds(clock.GetCurrentInstant().ToUnixTimeSeconds());

    /// <summary>Composed editions that the person may compose or, as a member, read; and the standard ones of the calendars that they
    /// publish.</summary>
    public async Task<IReadOnlyList<EditionLine>> ListAsync()
    {
        var viewer = await access.ViewerAsync();
        var house = await access.HouseAsync();
        var (all, disclosures) = (house.Calendars, house.Disclosures);
        var fresh = await editions.StatesAsync(viewer.OrganisationId);
        var (open, lookedThrough) = await findings.CountAsync(viewer.OrganisationId);
        var found = open.Where(one => viewer.MayHear(one.KeptOn, one.IsPlain, disclosures)).ToLookup(
            one => one.EditionId, one => (one.Severity, one.Number));
        return [.. from edition in house.Editions
                   let mayEdit = viewer.MayCompose(edition.Sources, disclosures)
                   let mayRead = MayRead(viewer, edition)
                   where mayEdit || mayRead
                   select new EditionLine(
                       edition.Id, edition.Name, edition.Draft.Audience, SourcesOf(edition, all, viewer),
                       edition.Draft.Look?.View ?? EditionView.Month, edition.IsStandard, edition.CalendarId,
                       Freshness(edition, all, fresh), mayEdit, mayRead, edition.IsInTheMaking,
                       mayEdit && lookedThrough.Contains(edition.Id) ? FindingCounts.Of(found[edition.Id]) : null)];
    }

    /// <summary>As a member, they have a page of their own of it.</summary>
    public static bool MayRead(Viewer viewer, StoredEdition edition) =>
        !edition.IsStandard && !edition.IsInTheMaking && edition.Draft.Audience == Audience.Members
        && viewer.SeesAs is null or Audience.Members;

    /// <summary>Removed ones that the person may bring back.</summary>
    public async Task<IReadOnlyList<BinnedEdition>> BinAsync()
    {
        var viewer = await access.ViewerAsync();
        var all = (await access.HouseAsync()).Disclosures;
        return [.. (await settings.BinAsync(viewer.OrganisationId, Now - EventStore.KeptInBin))
            .Where(edition => viewer.MayCompose(edition.Sources, all))
            .Select(edition =>
                new BinnedEdition(edition.Id, edition.Name, edition.RemovedAt!.Value, edition.RemovedAt.Value + EventStore.KeptInBin))];
    }

    /// <exception cref="NotFoundException">There is none.</exception>
    /// <exception cref="ForbiddenException">The person may not compose it.</exception>
    public async Task<EditionResponse> GetAsync(Guid id)
    {
        var viewer = await access.ViewerAsync();
        return await ShowAsync(viewer, await FindAsync(viewer, id));
    }

    /// <param name="isOut">It goes out at once; else it is in the making until somebody lets it out.</param>
    public async Task<EditionResponse> AddAsync(EditionDraft draft, bool isOut)
    {
        var viewer = await access.ViewerAsync();
        var wanted = await WithAllAsync(viewer, draft);
        var made = await CheckAsync(viewer, wanted);
        var id = await settings.AddAsync(
            viewer.OrganisationId, wanted, made.Name, Now, Line(viewer, AuditAct.EditionMade, made.Name), isOut);
        await LinkIfNeededAsync(viewer, id, made);
        return await ShowAsync(viewer, await FindAsync(viewer, id));
    }

    /// <exception cref="ChangedMeanwhileException">The version is not the stored one any more.</exception>
    public async Task<EditionResponse> SaveAsync(Guid id, int version, EditionDraft draft)
    {
        var viewer = await access.ViewerAsync();
        var before = await FindAsync(viewer, id);
        // A calendar's own edition has its calendar, and goes to whoever the calendar is open to.
        var wanted = before.IsStandard
            ? draft with
            {
                Name = null,
                Sources = [
                    new SourceDraft(before.CalendarId!.Value,
                        draft.Sources.FirstOrDefault(source => source.CalendarId == before.CalendarId)?.Filter)],
                Audience = Audience.Everyone,
                TakesAll = false,
                WithUnfinished = false
            }
            : await WithAllAsync(viewer, draft);
        var made = await CheckAsync(viewer, wanted, before.IsStandard);
        await settings.SaveAsync(
            viewer.OrganisationId, before, version, wanted, made.Name, Now, Line(viewer, AuditAct.EditionChanged, before.Name));
        if (!before.IsStandard)
            await LinkIfNeededAsync(viewer, id, made);
        return await ShowAsync(viewer, await FindAsync(viewer, id));
    }

    /// <summary>From now on its readers have it.</summary>
    public async Task<EditionResponse> LetOutAsync(Guid id)
    {
        var viewer = await access.ViewerAsync();
        var edition = await FindAsync(viewer, id);
        await settings.LetOutAsync(viewer.OrganisationId, id, Now, Line(viewer, AuditAct.EditionLetOut, edition.Name));
        return await ShowAsync(viewer, await FindAsync(viewer, id));
    }

    public async Task RemoveAsync(Guid id, bool isRemoved)
    {
        var viewer = await access.ViewerAsync();
        var edition = await FindAsync(viewer, id, removedToo: true);
        await settings.RemoveAsync(viewer.OrganisationId, id, isRemoved, Now,
            Line(viewer, isRemoved ? AuditAct.EditionRemoved : AuditAct.EditionRestored, edition.Name));
    }

    /// <summary>Keeps what is being made so that its page can be looked at, and says what would be missing from it.</summary>
    public async Task<EditionPreview> PreviewAsync(Guid? id, EditionDraft draft)
    {
        var viewer = await access.ViewerAsync();
        var before = id is { } known ? await FindAsync(viewer, known) : null;
        var wanted = await WithAllAsync(
            viewer, draft with { Name = string.IsNullOrWhiteSpace(draft.Name) ? Spoken.Now.Say("edition.newName") : draft.Name });
        await CheckAsync(viewer, wanted, before?.IsStandard == true);
        var draftId = await settings.KeepDraftAsync(viewer.OrganisationId, viewer.AccountId, id, wanted, Now);
        var address = (id is { } saved ? await editions.FindAsync(saved) : null) ?? await AddressOfNewAsync();
        var reading = await readings.FindAsync(address with { Draft = wanted, SeenAs = wanted.Audience, CalendarId = null })
            ?? throw new NotFoundException("edition");
        var window = YearOf(reading);
        var found = await events.InWindowAsync(viewer.OrganisationId, reading.Calendars, window);
        var composition = reading.CompositionAt(Now);
        var composed = composition.Compose(found, window);
        var look = reading.Checked.Look;
        return new EditionPreview(
            access.At($"/api/editions/drafts/{draftId}/page"), composed.Entries.Count,
            composed.Entries.Sum(entry => entry.LookAlikes.Count),
            [.. ClosedSources.Of(reading.Edition, reading.Sources, reading.School, Now, found, window).Select(closed => new ClosedSource(
                closed.Source.CalendarId, closed.Source.Name, closed.Source.Plate.Code, closed.Source.Hue.Name, closed.Lost,
                viewer.May(OrganisationAction.ManageCalendars)))],
            Math.Floor(look.Light.Contrast * 10) / 10, Math.Floor(look.Dark.Contrast * 10) / 10,
                composed.Entries.Count > 0 ? composition.FullTitle(composed.Entries[0]) : null);
    }

    /// <summary>The secret address: of an edition for those with the link, or the person's own of one for members.</summary>
    public async Task<LinkResponse> LinkAsync(Guid id)
    {
        var (viewer, edition, owner) = await LinkedAsync(id);
        return addresses.Show(await links.FindAsync(viewer.OrganisationId, edition.Id, owner));
    }

    public async Task<LinkResponse> MakeLinkAsync(Guid id)
    {
        var (viewer, edition, owner) = await LinkedAsync(id);
        var link = await links.MakeAsync(viewer.OrganisationId, edition.Id, Now,
            isReplaced => Line(viewer, isReplaced ? AuditAct.LinkReplaced : AuditAct.LinkMade, edition.Name), owner);
        return addresses.Show(link);
    }

    public async Task<LinkResponse> WithdrawLinkAsync(Guid id)
    {
        var (viewer, edition, owner) = await LinkedAsync(id);
        await links.WithdrawAsync(viewer.OrganisationId, edition.Id, Now, Line(viewer, AuditAct.LinkWithdrawn, edition.Name), owner);
        return addresses.Show(null);
    }

    /// <exception cref="ForbiddenException">The person may not compose it.</exception>
    public async Task RequireComposeAsync(Viewer viewer, StoredEdition edition) =>
        Access.Require(viewer.MayCompose(edition.Sources, (await access.HouseAsync()).Disclosures), ComposersEditions.ComposersOnly);

    /// <summary>Of an edition that is not saved yet.</summary>
    public async Task<EditionAddress> AddressOfNewAsync()
    {
        var organisation = (await access.HouseAsync()).Organisation;
        return new EditionAddress(Guid.Empty, organisation.Id, organisation.Slug, organisation.Name, organisation.Locale,
            (short)organisation.FirstDayOfWeek, null, organisation.Zone, "", Guid.Empty, 0, 0, null, null, null, null);
    }

    private async Task<(Viewer Viewer, StoredEdition Edition, Guid? Owner)> LinkedAsync(Guid id)
    {
        var viewer = await access.ViewerAsync();
        var edition = await settings.FindAsync(viewer.OrganisationId, id) is { RemovedAt: null, IsStandard: false } found
            ? found
            : throw new NotFoundException("edition");
        if (edition.Draft.Audience == Audience.Members)
        {
            Access.Require(viewer.SeesAs is null, "access.nothingWhileAsOthers");
            return (viewer, edition, viewer.AccountId);
        }
        await RequireComposeAsync(viewer, edition);
        if (edition.Draft.Audience != Audience.Link)
            throw new RuleException("audience", "edition.addressIsNoSecret");
        return (viewer, edition, null);
    }

    private async Task<StoredEdition> FindAsync(Viewer viewer, Guid id, bool removedToo = false)
    {
        var edition = await settings.FindAsync(viewer.OrganisationId, id) is { } found && (removedToo || found.RemovedAt is null)
            ? found
            : throw new NotFoundException("edition");
        await RequireComposeAsync(viewer, edition);
        return edition;
    }

    /// <summary>With every calendar that the person sees, where it takes all.</summary>
    private async Task<EditionDraft> WithAllAsync(Viewer viewer, EditionDraft draft) => draft.TakesAll
        ? draft.Having((await access.HouseAsync()).Calendars.Values
            .Where(calendar => viewer.DetailOn(calendar.Id, calendar.Disclosure) > Detail.Nothing).Select(calendar => calendar.Id))
        : draft;

    private async Task<CheckedEdition> CheckAsync(Viewer viewer, EditionDraft draft, bool isStandard = false)
    {
        var organisation = (await access.HouseAsync()).Organisation;
        var all = (await access.HouseAsync()).Calendars;
        var made = draft.Check(Zones.Named(organisation.Zone), (IsoDayOfWeek)organisation.FirstDayOfWeek, isStandard);
        if (draft.Sources.FirstOrDefault(source => !all.TryGetValue(source.CalendarId, out var calendar)
            || viewer.DetailOn(source.CalendarId, calendar.Disclosure) == Detail.Nothing) is not null)
            throw new RuleException("sources", "edition.calendarGone");
        Access.Require(viewer.MayCompose([.. draft.Sources.Select(source => source.CalendarId)], (await access.HouseAsync()).Disclosures),
            ComposersEditions.ComposersOnly);
        return made;
    }

    private async Task LinkIfNeededAsync(Viewer viewer, Guid id, CheckedEdition made)
    {
        if (made.Edition.Audience == Audience.Link && await links.FindAsync(viewer.OrganisationId, id) is null)
            await links.MakeAsync(viewer.OrganisationId, id, Now, _ => Line(viewer, AuditAct.LinkMade, made.Name));
    }

    private AuditLine Line(Viewer viewer, AuditAct act, string name) => new(viewer.AccountId, act, name, null, Now);

    private async Task<EditionResponse> ShowAsync(Viewer viewer, StoredEdition edition)
    {
        var link = edition.Draft.Audience == Audience.Link && !edition.IsStandard
            ? await links.FindAsync(viewer.OrganisationId, edition.Id)
            : null;
        var organisation = (await access.HouseAsync()).Organisation;
        var address = edition.IsStandard || edition.Draft.Audience == Audience.Everyone
            ? addresses.Of(organisation.Slug, edition.Slug)
            : link is null
            ? null
            : addresses.OfSecret(link.Secret);
        var all = (await access.HouseAsync()).Calendars;
        return new EditionResponse(
            edition.Id, edition.Name, edition.Draft, edition.Version, edition.IsStandard, edition.CalendarId, edition.RemovedAt is not null,
            edition.IsInTheMaking,
            Freshness(edition, all, await editions.StatesAsync(viewer.OrganisationId)),
                address is null ? null : DeliveryOf(address, edition, all), link?.MadeAt);
    }

    private EditionDelivery DeliveryOf(EditionAddresses address, StoredEdition edition, IReadOnlyDictionary<Guid, Calendar> all) => new(
        edition.IsStandard ? all[edition.CalendarId!.Value].Disclosure.Everyone > Detail.Nothing : !edition.IsInTheMaking,
        address.Page, address.Embed, address.Feed, address.Webcal, address.Atom, addresses.OEmbed(address.Page),
        addresses.SnippetThatFits(address, edition.Name, edition.Draft.Look?.View ?? EditionView.Month, edition.Draft.Limit),
            PublicAddresses.SnippetFixed(address, edition.Name), PublicAddresses.SnippetLink(address, edition.Name));

    private static DeliveryBody Freshness(
        StoredEdition edition, IReadOnlyDictionary<Guid, Calendar> all, IReadOnlyDictionary<Guid, GoingOutState> fresh)
    {
        var goesOut = edition.IsStandard
            ? all.GetValueOrDefault(edition.CalendarId!.Value)?.GoesOut == true
            : !edition.IsInTheMaking && (edition.Draft.Audience != Audience.Link || edition.HasLink);
        if (!goesOut)
            return DeliveryBody.Closed;
        // Of one for members nothing is rendered before the first member asks.
        return edition.Draft.Audience == Audience.Members && !edition.IsStandard && !fresh.ContainsKey(edition.Id)
            ? DeliveryBody.UpToDate
            : DeliveryBody.Of(fresh.GetValueOrDefault(edition.Id));
    }

    private static SourceBody[] SourcesOf(StoredEdition edition, IReadOnlyDictionary<Guid, Calendar> all, Viewer viewer) =>
        [.. edition.Sources.Where(all.ContainsKey).Select(id => all[id])
            .Where(calendar => viewer.DetailOn(calendar.Id, calendar.Disclosure) > Detail.Nothing)
            .OrderBy(calendar => calendar.Plate.Code, StringComparer.Ordinal)
            .Select(calendar => new SourceBody(calendar.Plate.Code, calendar.Name, calendar.Hue.Name, true, calendar.Slug, []))];

    /// <summary>The edition's days, at most a year of them.</summary>
    private Window YearOf(EditionReading reading)
    {
        var span = reading.Edition.SpanAt(Now, reading.School);
        var today = Now.InZone(reading.Edition.Zone).Date;
        var first = span.First ?? today;
        var end = LocalDate.Min(span.End ?? LocalDate.MaxIsoValue, first.PlusYears(1));
        return new Window(first, LocalDate.Max(end, first.PlusDays(1)), reading.Edition.Zone);
    }
}
