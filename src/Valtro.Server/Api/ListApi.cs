using Microsoft.AspNetCore.Http.HttpResults;
using Valtro.Core;
using Valtro.Core.Calendars;
using Valtro.Core.Disclosure;
using Valtro.Server.Accounts;
using Valtro.Store;

namespace Valtro.Server.Api;

public sealed record CategoryRequest(string? Name, string? Colour);

public sealed record PlaceRequest(string? Name);

public sealed record PlaceBody(Guid Id, string Name);

public sealed record ListsResponse(IReadOnlyList<CategoryBody> Categories, IReadOnlyList<PlaceBody> Places, bool MayEdit);

/// <summary>The organisation's own lists: categories, and places that can clash.</summary>
internal static class ListApi
{
    private const string KeepersOnly = "Only an administrator can change the organisation’s lists.";

    public static void MapLists(this RouteGroupBuilder api)
    {
        api.MapGet("/lists", List);
        api.MapPost("/lists/categories", AddCategory);
        api.MapDelete("/lists/categories/{id:guid}", RemoveCategory);
        api.MapPost("/lists/places", AddPlace);
        api.MapDelete("/lists/places/{id:guid}", RemovePlace);
    }

    private static async Task<Ok<ListsResponse>> List(Access access, ListStore lists)
    {
        var viewer = await access.ViewerAsync();
        return TypedResults.Ok(new ListsResponse(
            [.. (await lists.CategoriesAsync(viewer.OrganisationId)).Select(category => CategoryBody.Of(category)!)],
            [.. (await lists.PlacesAsync(viewer.OrganisationId)).Select(place => new PlaceBody(place.Id, place.Name))],
            viewer.May(OrganisationAction.ManageLists)));
    }

    private static async Task<Ok<CategoryBody>> AddCategory(CategoryRequest request, Access access, ListStore lists)
    {
        var viewer = await AllowedAsync(access);
        var refusals = new RefusalList();
        var name = refusals.Try(() => Texts.OneLine("name", "The name", request.Name, Texts.LongestName));
        var hue = refusals.Try(() => Hue.Named(request.Colour));
        refusals.ThrowIfAny();
        return TypedResults.Ok(CategoryBody.Of(await lists.AddCategoryAsync(viewer.OrganisationId, name!, hue!))!);
    }

    private static async Task<NoContent> RemoveCategory(Guid id, Access access, ListStore lists)
    {
        var viewer = await AllowedAsync(access);
        await lists.RemoveCategoryAsync(viewer.OrganisationId, id);
        return TypedResults.NoContent();
    }

    private static async Task<Ok<PlaceBody>> AddPlace(PlaceRequest request, Access access, ListStore lists)
    {
        var viewer = await AllowedAsync(access);
        var place = await lists.AddPlaceAsync(viewer.OrganisationId, Texts.OneLine("name", "The name", request.Name, Texts.LongestPlace));
        return TypedResults.Ok(new PlaceBody(place.Id, place.Name));
    }

    private static async Task<NoContent> RemovePlace(Guid id, Access access, ListStore lists)
    {
        var viewer = await AllowedAsync(access);
        await lists.RemovePlaceAsync(viewer.OrganisationId, id);
        return TypedResults.NoContent();
    }

    private static Task<Viewer> AllowedAsync(Access access) => access.RequireAsync(OrganisationAction.ManageLists, KeepersOnly);
}
