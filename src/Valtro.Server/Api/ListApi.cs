using System.Globalization;
using Microsoft.AspNetCore.Http.HttpResults;
using Valtro.Core;
using Valtro.Core.Calendars;
using Valtro.Core.Disclosure;
using Valtro.Server.Accounts;
using Valtro.Store;

namespace Valtro.Server.Api;

public sealed record CategoryRequest(string? Name, string? Colour);

/// <param name="Coordinates">Degrees north and east with a comma between, as maps write them; may be empty.</param>
public sealed record PlaceRequest(string? Name, string? Coordinates = null);

public sealed record PlaceBody(Guid Id, string Name, double? Latitude, double? Longitude)
{
    public static PlaceBody Of(KnownPlace place) => new(place.Id, place.Name, place.Latitude, place.Longitude);
}

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
            [.. (await lists.PlacesAsync(viewer.OrganisationId)).Select(PlaceBody.Of)],
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

    private static async Task<NoContent> RemoveCategory(Guid id, Access access, ListStore lists, NodaTime.IClock clock)
    {
        var viewer = await AllowedAsync(access);
        await lists.RemoveCategoryAsync(viewer.OrganisationId, id, clock.GetCurrentInstant());
        return TypedResults.NoContent();
    }

    private static async Task<Ok<PlaceBody>> AddPlace(PlaceRequest request, Access access, ListStore lists)
    {
        var viewer = await AllowedAsync(access);
        var refusals = new RefusalList();
        var name = refusals.Try(() => Texts.OneLine("name", "The name", request.Name, Texts.LongestPlace));
        var point = refusals.Try(() => Coordinates(request.Coordinates));
        refusals.ThrowIfAny();
        return TypedResults.Ok(PlaceBody.Of(await lists.AddPlaceAsync(viewer.OrganisationId, name!, point?.Latitude, point?.Longitude)));
    }

    private static async Task<NoContent> RemovePlace(Guid id, Access access, ListStore lists)
    {
        var viewer = await AllowedAsync(access);
        await lists.RemovePlaceAsync(viewer.OrganisationId, id);
        return TypedResults.NoContent();
    }

    private static (double Latitude, double Longitude)? Coordinates(string? text)
    {
        if (string.IsNullOrWhiteSpace(text))
            return null;
        var parts = text.Split(',', StringSplitOptions.TrimEntries);
        return parts.Length == 2
            && double.TryParse(parts[0], NumberStyles.Float, CultureInfo.InvariantCulture, out var latitude) && latitude is >= -90 and <= 90
            && double.TryParse(parts[1], NumberStyles.Float, CultureInfo.InvariantCulture, out var longitude) && longitude is >= -180 and <= 180
                ? (latitude, longitude)
                : throw new RuleException("coordinates", $"“{text}” is no point on a map. Write degrees north and east with a comma between, like 44.6476, -63.5728.");
    }

    private static Task<Viewer> AllowedAsync(Access access) => access.RequireAsync(OrganisationAction.ManageLists, KeepersOnly);
}
