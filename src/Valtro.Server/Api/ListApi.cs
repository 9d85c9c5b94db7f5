using System.Globalization;
using Microsoft.AspNetCore.Http.HttpResults;
using NodaTime;
using Valtro.Application.Accounts;
using Valtro.Core;
using Valtro.Core.Calendars;
using Valtro.Core.Disclosure;
using Valtro.Core.Events;
using Valtro.Core.Speaking;
using Valtro.Store;

namespace Valtro.Server.Api;

public sealed record CategoryRequest(string? Name, string? Colour);

/// <param name="Coordinates">Degrees north and east with a comma between, as maps write them; may be empty.</param>
public sealed record PlaceRequest(string? Name, string? Coordinates = null);

/// <param name="Into">The entry that stays.</param>
public sealed record MergeListRequest(Guid Into);

/// <param name="Events">How many events have it; null for those who do not keep the lists.</param>
public sealed record ListedCategoryBody(Guid Id, string Name, string Colour, int? Events);

/// <param name="Events">How many events are there; null for those who do not keep the lists.</param>
public sealed record PlaceBody(Guid Id, string Name, double? Latitude, double? Longitude, int? Events);

/// <param name="RetiredCategories">Not offered any more, kept by the events that have them; for those who keep the lists.</param>
public sealed record ListsResponse(
    IReadOnlyList<ListedCategoryBody> Categories, IReadOnlyList<PlaceBody> Places, IReadOnlyList<ListedCategoryBody> RetiredCategories,
        IReadOnlyList<PlaceBody> RetiredPlaces, bool MayEdit);

/// <param name="ActId">By which the events are put back as they were.</param>
/// <param name="Events">How many were changed.</param>
public sealed record ListActResponse(Guid ActId, int Events);

/// <summary>The organisation's own lists: categories, and places that can clash.</summary>
internal static class ListApi
{
    private const string KeepersOnly = "access.administratorsLists";

    public static void MapLists(this RouteGroupBuilder api)
    {
        api.MapGet("/lists", List);
        api.MapPost("/lists/categories", AddCategory);
        api.MapPut("/lists/categories/{id:guid}", SaveCategory);
        api.MapPost("/lists/places", AddPlace);
        api.MapPut("/lists/places/{id:guid}", SavePlace);
        foreach (var (kind, path) in new[] { (ListKind.Category, "/lists/categories/{id:guid}"),
            (ListKind.Place, "/lists/places/{id:guid}") })
        {
            api.MapPost($"{path}/retire",
                (Guid id, Access access, ListStore lists, IClock clock) => RetireAsync(kind, id, true, access, lists, clock));
            api.MapPost($"{path}/offer",
                (Guid id, Access access, ListStore lists, IClock clock) => RetireAsync(kind, id, false, access, lists, clock));
            api.MapPost($"{path}/merge",
                (Guid id, MergeListRequest request, Access access, ListStore lists, IClock clock) =>
                    MergeAsync(kind, id, request, access, lists, clock));
        }
    }

    private static async Task<Ok<ListsResponse>> List(Access access, ListStore lists)
    {
        var viewer = await access.ViewerAsync();
        if (!viewer.May(OrganisationAction.ManageLists))
        {
            var house = await access.HouseAsync();
            return TypedResults.Ok(
                new ListsResponse(
                    [.. house.Categories.Select(one => Body(one, null))], [.. house.Places.Select(one => Body(one, null))], [], [], false));
        }
        var (categories, places) = await lists.AllAsync(viewer.OrganisationId);
        return TypedResults.Ok(new ListsResponse(
            [.. categories.Where(one => one.RetiredAt is null).Select(one => Body(one.Entry, one.Events))],
            [.. places.Where(one => one.RetiredAt is null).Select(one => Body(one.Entry, one.Events))],
            [.. categories.Where(one => one.RetiredAt is not null).Select(one => Body(one.Entry, one.Events))],
            [.. places.Where(one => one.RetiredAt is not null).Select(one => Body(one.Entry, one.Events))],
            true));
    }

    private static ListedCategoryBody Body(Category category, int? events) => new(category.Id, category.Name, category.Hue.Name, events);

    private static PlaceBody Body(KnownPlace place, int? events) => new(place.Id, place.Name, place.Latitude, place.Longitude, events);

    private static async Task<Ok<ListedCategoryBody>> AddCategory(CategoryRequest request, Access access, ListStore lists)
    {
        var viewer = await AllowedAsync(access);
        var (name, hue) = Check(request);
        return TypedResults.Ok(Body(await lists.AddCategoryAsync(viewer.OrganisationId, name, hue), 0));
    }

    private static async Task<NoContent> SaveCategory(Guid id, CategoryRequest request, Access access, ListStore lists, IClock clock)
    {
        var viewer = await AllowedAsync(access);
        var (name, hue) = Check(request);
        var before = (await lists.EveryCategoryAsync(viewer.OrganisationId)).FirstOrDefault(one => one.Id == id)
            ?? throw new NotFoundException("category");
        await lists.SaveCategoryAsync(viewer.OrganisationId, id, name, hue, clock.GetCurrentInstant(),
            Line(viewer, before.Name, before.Name == name ? Saying.Of("audit.painted") : Saying.Of("audit.named", ("name", name)), clock));
        return TypedResults.NoContent();
    }

    private static async Task<Ok<PlaceBody>> AddPlace(PlaceRequest request, Access access, ListStore lists, IClock clock)
    {
        var viewer = await AllowedAsync(access);
        var (name, point) = Check(request);
        var (place, act) = await lists.AddPlaceAsync(
            viewer.OrganisationId, new KnownPlace(default, name, point?.Latitude, point?.Longitude), viewer.AccountId,
            clock.GetCurrentInstant());
        return TypedResults.Ok(Body(place, act.Events));
    }

    private static async Task<Ok<ListActResponse>> SavePlace(Guid id, PlaceRequest request, Access access, ListStore lists, IClock clock)
    {
        var viewer = await AllowedAsync(access);
        var (name, point) = Check(request);
        var before = await NameAsync(ListKind.Place, id, viewer, lists);
        var act = await lists.SavePlaceAsync(
            viewer.OrganisationId, new KnownPlace(id, name, point?.Latitude, point?.Longitude), viewer.AccountId, clock.GetCurrentInstant(),
            Line(viewer, before, before == name ? Saying.Of("audit.movedOnMap") : Saying.Of("audit.named", ("name", name)), clock));
        return TypedResults.Ok(new ListActResponse(act.ActId, act.Events));
    }

    private static async Task<NoContent> RetireAsync(ListKind kind, Guid id, bool isRetired, Access access, ListStore lists, IClock clock)
    {
        var viewer = await AllowedAsync(access);
        var name = await NameAsync(kind, id, viewer, lists);
        await lists.RetireAsync(kind, viewer.OrganisationId, id, isRetired, clock.GetCurrentInstant(),
            Line(viewer, name, Saying.Of(isRetired ? "audit.takenOff" : "audit.putBack"), clock));
        return TypedResults.NoContent();
    }

    private static async Task<Ok<ListActResponse>> MergeAsync(
        ListKind kind, Guid id, MergeListRequest request, Access access, ListStore lists, IClock clock)
    {
        var viewer = await AllowedAsync(access);
        if (id == request.Into)
            throw new RuleException("into", "list.mergedIntoItself");
        var (from, into) = (await NameAsync(kind, id, viewer, lists), await NameAsync(kind, request.Into, viewer, lists));
        var act = await lists.MergeAsync(kind, viewer.OrganisationId, id, request.Into, viewer.AccountId, clock.GetCurrentInstant(),
            Line(viewer, from, Saying.Of("audit.mergedInto", ("name", into)), clock));
        return TypedResults.Ok(new ListActResponse(act.ActId, act.Events));
    }

    private static async Task<string> NameAsync(ListKind kind, Guid id, Viewer viewer, ListStore lists)
    {
        var (categories, places) = await lists.AllAsync(viewer.OrganisationId);
        return (kind == ListKind.Category
            ? categories.FirstOrDefault(one => one.Entry.Id == id)?.Entry.Name
            : places.FirstOrDefault(one => one.Entry.Id == id)?.Entry.Name)
            ?? throw new NotFoundException("entry");
    }

    private static AuditLine Line(Viewer viewer, string name, Saying detail, IClock clock) =>
        new(viewer.AccountId, AuditAct.ListChanged, name, detail, clock.GetCurrentInstant());

    private static (string Name, Hue Hue) Check(CategoryRequest request)
    {
        var refusals = new RefusalList();
        var name = refusals.Try(() => Texts.OneLine("name", "what.name", request.Name, Texts.LongestName));
        var hue = refusals.Try(() => Hue.Named(request.Colour));
        refusals.ThrowIfAny();
        return (name!, hue!);
    }

    private static (string Name, (double Latitude, double Longitude)? Point) Check(PlaceRequest request)
    {
        var refusals = new RefusalList();
        var name = refusals.Try(() => Texts.OneLine("name", "what.name", request.Name, Texts.LongestPlace));
        var point = refusals.Try(() => Coordinates(request.Coordinates));
        refusals.ThrowIfAny();
        return (name!, point);
    }

    private static (double Latitude, double Longitude)? Coordinates(string? text)
    {
        if (string.IsNullOrWhiteSpace(text))
            return null;
        var parts = text.Split(',', StringSplitOptions.TrimEntries);
        return parts.Length == 2
            && double.TryParse(parts[0], NumberStyles.Float, CultureInfo.InvariantCulture, out var latitude) && latitude is >= -90 and <= 90
            && double.TryParse(parts[1], NumberStyles.Float, CultureInfo.InvariantCulture, out var longitude)
                && longitude is >= -180 and <= 180
                ? (latitude, longitude)
                : throw new RuleException("coordinates", "list.noPoint", ("text", text));
    }

    private static Task<Viewer> AllowedAsync(Access access) => access.RequireAsync(OrganisationAction.ManageLists, KeepersOnly);
}
