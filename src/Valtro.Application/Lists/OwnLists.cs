using System.Globalization;
using NodaTime;
using Valtro.Application.Accounts;
using Valtro.Application.Events;
using Valtro.Core;
using Valtro.Core.Acts;
using Valtro.Core.Calendars;
using Valtro.Core.Disclosure;
using Valtro.Core.Events;
using Valtro.Core.Speaking;
using Valtro.Store;

namespace Valtro.Application.Lists;

/// <param name="MostInAWeek">More of it in one week is too much for the same readers; 1 to 50, or null.</param>
public sealed record CategoryRequest(string? Name, string? Colour, int? MostInAWeek = null);

/// <param name="Coordinates">Degrees north and east with a comma between, as maps write them; may be empty.</param>
/// <param name="MapLink">A web address of one's own map; may be empty.</param>
/// <param name="PictureId">A picture that was brought.</param>
public sealed record PlaceRequest(
    string? Name, string? Coordinates = null, string? Address = null, string? AccessNote = null, int? Capacity = null, Guid? PartOf = null,
    string? MapLink = null, Guid? PictureId = null);

/// <param name="Into">The entry that stays.</param>
public sealed record MergeListRequest(Guid Into);

/// <param name="Events">How many events have it; null for those who do not keep the lists.</param>
/// <param name="MostInAWeek">More of it in one week is too much for the same readers; for those who keep the lists.</param>
public sealed record ListedCategoryBody(Guid Id, string Name, string Colour, int? Events, int? MostInAWeek)
{
    internal static ListedCategoryBody Of(KnownCategory category, int? events) =>
        new(category.Id, category.Name, category.Hue.Name, events, category.MostInAWeek);

    internal static IReadOnlyList<ListedCategoryBody> Of(IEnumerable<Listed<KnownCategory>> listed) =>
        [.. listed.Select(one => Of(one.Entry, one.Events))];
}

/// <param name="Events">How many events are there; null for those who do not keep the lists.</param>
public sealed record PlaceBody(
    Guid Id, string Name, double? Latitude, double? Longitude, int? Events, string Address, string AccessNote, int? Capacity, Guid? PartOf,
    string MapLink, Guid? PictureId)
{
    internal static PlaceBody Of(KnownPlace place, int? events) => new(
        place.Id, place.Name, place.Latitude, place.Longitude, events, place.Address, place.AccessNote, place.Capacity, place.PartOf,
        place.MapLink, place.Picture?.Id);

    internal static IReadOnlyList<PlaceBody> Of(IEnumerable<Listed<KnownPlace>> listed) =>
        [.. listed.Select(one => Of(one.Entry, one.Events))];
}

/// <param name="Members">Who can be responsible for an event, by name; for those who make events.</param>
/// <param name="RetiredCategories">Not offered any more, kept by the events that have them; for those who keep the lists.</param>
public sealed record ListsResponse(
    IReadOnlyList<ListedCategoryBody> Categories, IReadOnlyList<PlaceBody> Places, IReadOnlyList<ListedCategoryBody> RetiredCategories,
    IReadOnlyList<PlaceBody> RetiredPlaces, bool MayEdit, IReadOnlyList<MemberBody> Members);

/// <summary>Somebody who can be responsible for an event.</summary>
public sealed record MemberBody(Guid Id, string Name);

/// <param name="ActId">By which the events are put back as they were.</param>
/// <param name="Events">How many were changed.</param>
public sealed record ListActResponse(Guid ActId, int Events);

/// <summary>The organisation's own lists: categories, and places that can clash.</summary>
public sealed class OwnLists(Access access, ListStore lists, EventStore events, FileStore files, IClock clock)
{
    private const int MostInWords = 100;

    internal const string KeepersOnly = "access.administratorsLists";

    public async Task<ListsResponse> AllAsync()
    {
        var viewer = await access.ViewerAsync();
        var house = await access.HouseAsync();
        MemberBody[] members = viewer.ContributesSomewhere
            ? [.. house.Members.Select(one => new MemberBody(one.Key, house.Namesakes.GetValueOrDefault(one.Key, one.Value)))
                .OrderBy(one => one.Name, StringComparer.CurrentCulture)]
            : [];
        if (!viewer.May(OrganisationAction.ManageLists))
        {
            return new ListsResponse(
                [.. house.Categories.Select(one => new ListedCategoryBody(one.Id, one.Name, one.Hue.Name, null, null))],
                [.. house.Places.Select(one => PlaceBody.Of(one, null))], [], [], false, members);
        }
        var (categories, places) = await lists.AllAsync(viewer.OrganisationId);
        return new ListsResponse(
            ListedCategoryBody.Of(categories.Where(one => one.RetiredAt is null)),
            PlaceBody.Of(places.Where(one => one.RetiredAt is null)),
            ListedCategoryBody.Of(categories.Where(one => one.RetiredAt is not null)),
            PlaceBody.Of(places.Where(one => one.RetiredAt is not null)),
            true, members);
    }

    /// <summary>Where events of the person's calendars say that they are, without its being on the list; most used first.</summary>
    public async Task<IReadOnlyList<string>> PlacesInWordsAsync()
    {
        var (viewer, house) = (await access.ViewerAsync(), await access.HouseAsync());
        return viewer.ContributesSomewhere
            ? await lists.PlacesInWordsAsync(viewer.OrganisationId,
                [.. house.Calendars.Keys.Where(id => viewer.May(CalendarAction.SeeUnfinished, id))], MostInWords)
            : [];
    }

    public async Task<ListedCategoryBody> AddAsync(CategoryRequest request)
    {
        var viewer = await AllowedAsync();
        return ListedCategoryBody.Of(await lists.AddCategoryAsync(viewer.OrganisationId, Check(default, request)), 0);
    }

    /// <summary>Events that say in words that they are there are there from now on.</summary>
    public async Task<PlaceBody> AddAsync(PlaceRequest request)
    {
        var viewer = await AllowedAsync();
        var place = await CheckAsync(default, request, viewer);
        var settled = await events.SayingTheyAreAtAsync(viewer.OrganisationId, place.Name);
        var (added, act) = await lists.AddPlaceAsync(
            viewer.OrganisationId, place, viewer.AccountId, clock.GetCurrentInstant(), known => Settling(settled, known));
        return PlaceBody.Of(added, act.Events);
    }

    public async Task SaveAsync(Guid id, CategoryRequest request)
    {
        var viewer = await AllowedAsync();
        var category = Check(id, request);
        var before = await NameAsync(ListKind.Category, id, viewer);
        await lists.SaveCategoryAsync(viewer.OrganisationId, category, clock.GetCurrentInstant(), Line(viewer, before,
            before == category.Name ? Saying.Of("audit.painted") : Saying.Of("audit.named", ("name", category.Name))));
    }

    public async Task<ListActResponse> SaveAsync(Guid id, PlaceRequest request)
    {
        var viewer = await AllowedAsync();
        var place = await CheckAsync(id, request, viewer);
        var before = await NameAsync(ListKind.Place, id, viewer);
        var isRenamed = before != place.Name;
        var settled = isRenamed ? await events.SayingTheyAreAtAsync(viewer.OrganisationId, place.Name) : [];
        var act = await lists.SavePlaceAsync(
            viewer.OrganisationId, place, viewer.AccountId, clock.GetCurrentInstant(), Settling(settled, place.Place),
            Line(viewer, before, isRenamed ? Saying.Of("audit.named", ("name", place.Name)) : Saying.Of("audit.movedOnMap")));
        return new ListActResponse(act.ActId, act.Events);
    }

    /// <summary>Takes an entry off the list, or puts it back. Events keep it.</summary>
    public async Task RetireAsync(ListKind kind, Guid id, bool isRetired)
    {
        var viewer = await AllowedAsync();
        var name = await NameAsync(kind, id, viewer);
        await lists.RetireAsync(kind, viewer.OrganisationId, id, isRetired, clock.GetCurrentInstant(),
            Line(viewer, name, Saying.Of(isRetired ? "audit.takenOff" : "audit.putBack")));
    }

    /// <summary>What making one entry of two would do to events.</summary>
    public async Task<ForeseenBody> PreviewMergeAsync(ListKind kind, Guid id, Guid into) =>
        ForeseenBody.Of((await MergingAsync(kind, id, into)).Act, (await access.HouseAsync()).Disclosures);

    public async Task<ListActResponse> MergeAsync(ListKind kind, Guid id, Guid into)
    {
        var (viewer, from, to, renaming) = await MergingAsync(kind, id, into);
        var act = await lists.MergeAsync(kind, viewer.OrganisationId, id, into, viewer.AccountId, clock.GetCurrentInstant(), renaming,
            Line(viewer, from, Saying.Of("audit.mergedInto", ("name", to))));
        return new ListActResponse(act.ActId, act.Events);
    }

    private async Task<(Viewer Viewer, string From, string Into, Act Act)> MergingAsync(ListKind kind, Guid id, Guid into)
    {
        var viewer = await AllowedAsync();
        if (id == into)
            throw new RuleException("into", "list.mergedIntoItself");
        var all = await lists.AllAsync(viewer.OrganisationId);
        var (from, to) = (Entry(kind, id, all), Entry(kind, into, all));
        var found = await events.NamingAsync(kind, viewer.OrganisationId, id);
        return (viewer, from.Name, to.Name, ActPlanner.Replacing(found, value => value is Category category && category.Id == id
            || value is Place place && place.Id == id ? to.Value : value));
    }

    /// <summary>Those that say in words that they are at a place are there.</summary>
    private static Act Settling(IReadOnlyList<StoredEvent> found, Place place) => ActPlanner.Replacing(found, value =>
        value is Place { Id: null } words && string.Equals(words.Name, place.Name, StringComparison.OrdinalIgnoreCase) ? place : value);

    private async Task<string> NameAsync(ListKind kind, Guid id, Viewer viewer) =>
        Entry(kind, id, await lists.AllAsync(viewer.OrganisationId)).Name;

    /// <summary>What an entry is called, and as events have it.</summary>
    private static (string Name, object Value) Entry(
        ListKind kind, Guid id, (IReadOnlyList<Listed<KnownCategory>> Categories, IReadOnlyList<Listed<KnownPlace>> Places) all)
    {
        if (kind == ListKind.Category && all.Categories.FirstOrDefault(one => one.Entry.Id == id) is { Entry: var category })
            return (category.Name, category.Category);
        if (kind == ListKind.Place && all.Places.FirstOrDefault(one => one.Entry.Id == id) is { Entry: var place })
            return (place.Name, place.Place);
        throw new NotFoundException("entry");
    }

    private AuditLine Line(Viewer viewer, string name, Saying detail) =>
        new(viewer.AccountId, AuditAct.ListChanged, name, detail, clock.GetCurrentInstant());

    private static KnownCategory Check(Guid id, CategoryRequest request)
    {
        var refusals = new RefusalList();
        var name = refusals.Try(() => Texts.OneLine("name", "what.name", request.Name, Texts.LongestName));
        var hue = refusals.Try(() => Hue.Named(request.Colour));
        if (request.MostInAWeek is < 1 or > 50)
            refusals.Add("mostInAWeek", "list.mostInAWeek");
        refusals.ThrowIfAny();
        return new KnownCategory(id, name!, hue!, request.MostInAWeek);
    }

    private async Task<KnownPlace> CheckAsync(Guid id, PlaceRequest request, Viewer viewer)
    {
        var house = await access.HouseAsync();
        var refusals = new RefusalList();
        var map = string.IsNullOrWhiteSpace(request.MapLink) ? "" : refusals.Try(() => WebAddress.Check("mapLink", request.MapLink));
        var picture = request.PictureId is { } asked ? (await files.SomeAsync(viewer.OrganisationId, [asked])).FirstOrDefault().File : null;
        if (request.PictureId is not null && picture?.IsPicture != true)
            refusals.Add("pictureId", "list.noPicture");
        var name = refusals.Try(() => Texts.OneLine("name", "what.name", request.Name, Texts.LongestPlace));
        var point = refusals.Try(() => Coordinates(request.Coordinates));
        var address = refusals.Try(() => Texts.OneLine("address", "what.address", request.Address, Texts.LongestPlace, required: false));
        var accessNote = refusals.Try(
            () => Texts.OneLine("accessNote", "what.accessNote", request.AccessNote, Texts.LongestPlace, required: false));
        if (request.Capacity is < 1 or > 100_000)
            refusals.Add("capacity", "list.capacity");
        if (request.PartOf is { } whole
            && (whole == id || house.PlaceTree.IsPart(whole, id) || house.Places.All(place => place.Id != whole)))
            refusals.Add("partOf", "list.partOfItself");
        refusals.ThrowIfAny();
        return new KnownPlace(id, name!, point?.Latitude, point?.Longitude, address!, accessNote!, request.Capacity, request.PartOf, map!,
            picture is null ? null : new PlacePicture(picture.Id, picture.Name));
    }

    private static (double Latitude, double Longitude)? Coordinates(string? text)
    {
        if (string.IsNullOrWhiteSpace(text))
            return null;
        var parts = text.Split(',', StringSplitOptions.TrimEntries);
        return parts.Length == 2
            && double.TryParse(parts[0], NumberStyles.Float, CultureInfo.InvariantCulture, out var latitude)
            && latitude is >= -90 and <= 90
            && double.TryParse(parts[1], NumberStyles.Float, CultureInfo.InvariantCulture, out var longitude)
            && longitude is >= -180 and <= 180
            ? (latitude, longitude)
            : throw new RuleException("coordinates", "list.noPoint", ("text", text));
    }

    private Task<Viewer> AllowedAsync() => access.RequireAsync(OrganisationAction.ManageLists, KeepersOnly);
}
