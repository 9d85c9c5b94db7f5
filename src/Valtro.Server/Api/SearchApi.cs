using Valtro.Application.Searching;

namespace Valtro.Server.Api;

internal static class SearchApi
{
    public static void MapSearch(this RouteGroupBuilder api) =>
        api.MapGet("/search", async (string text, Search search) => TypedResults.Ok(await search.FindAsync(text)));
}
