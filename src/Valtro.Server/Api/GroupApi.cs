using Microsoft.AspNetCore.Http.HttpResults;
using Valtro.Application.Calendars;

namespace Valtro.Server.Api;

/// <summary>Named sets of calendars, to choose several at once.</summary>
internal static class GroupApi
{
    public static void MapGroups(this RouteGroupBuilder api)
    {
        api.MapGet("/groups", async (Groups groups) => TypedResults.Ok(await groups.AllAsync()));
        api.MapPost("/groups", (GroupRequest request, Groups groups) => SaveAsync(null, request, groups));
        api.MapPut("/groups/{id:guid}", (Guid id, GroupRequest request, Groups groups) => SaveAsync(id, request, groups));
        api.MapDelete("/groups/{id:guid}", Remove);
    }

    private static async Task<Results<Ok<GroupResponse>, ProblemHttpResult>> SaveAsync(Guid? id, GroupRequest request, Groups groups)
    {
        var (group, isChangedMeanwhile) = await groups.SaveAsync(id, request);
        return isChangedMeanwhile ? Problems.Of(Problem.ChangedMeanwhile, current: group) : TypedResults.Ok(group);
    }

    private static async Task<NoContent> Remove(Guid id, Groups groups)
    {
        await groups.RemoveAsync(id);
        return TypedResults.NoContent();
    }
}
