using Microsoft.AspNetCore.Http.HttpResults;
using Valtro.Application.Lists;
using Valtro.Store;

namespace Valtro.Server.Api;

/// <summary>The organisation's own lists: categories, and places that can clash.</summary>
internal static class ListApi
{
    public static void MapLists(this RouteGroupBuilder api)
    {
        api.MapGet("/lists/places/words", async (OwnLists lists) => TypedResults.Ok(await lists.PlacesInWordsAsync()));
        api.MapGet("/lists", async (OwnLists lists) => TypedResults.Ok(await lists.AllAsync()));
        api.MapPost("/lists/categories",
            async (CategoryRequest request, OwnLists lists) => TypedResults.Ok(await lists.AddAsync(request)));
        api.MapPut("/lists/categories/{id:guid}", SaveCategory);
        api.MapPost("/lists/places", async (PlaceRequest request, OwnLists lists) => TypedResults.Ok(await lists.AddAsync(request)));
        api.MapPut("/lists/places/{id:guid}",
            async (Guid id, PlaceRequest request, OwnLists lists) => TypedResults.Ok(await lists.SaveAsync(id, request)));
        foreach (var (kind, path) in new[] { (ListKind.Category, "/lists/categories/{id:guid}"),
            (ListKind.Place, "/lists/places/{id:guid}") })
        {
            api.MapPost($"{path}/retire", (Guid id, OwnLists lists) => RetireAsync(kind, id, true, lists));
            api.MapPost($"{path}/offer", (Guid id, OwnLists lists) => RetireAsync(kind, id, false, lists));
            api.MapGet($"{path}/merge",
                async (Guid id, Guid into, OwnLists lists) => TypedResults.Ok(await lists.PreviewMergeAsync(kind, id, into)));
            api.MapPost($"{path}/merge",
                async (Guid id, MergeListRequest request, OwnLists lists) =>
                    TypedResults.Ok(await lists.MergeAsync(kind, id, request.Into)));
        }
    }

    private static async Task<NoContent> SaveCategory(Guid id, CategoryRequest request, OwnLists lists)
    {
        await lists.SaveAsync(id, request);
        return TypedResults.NoContent();
    }

    private static async Task<NoContent> RetireAsync(ListKind kind, Guid id, bool isRetired, OwnLists lists)
    {
        await lists.RetireAsync(kind, id, isRetired);
        return TypedResults.NoContent();
    }
}
