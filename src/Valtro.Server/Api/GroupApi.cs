using Microsoft.AspNetCore.Http.HttpResults;
using Valtro.Application.Accounts;
using Valtro.Core;
using Valtro.Core.Disclosure;
using Valtro.Store;

namespace Valtro.Server.Api;

/// <param name="Version">That was edited; not needed for a new group.</param>
public sealed record GroupRequest(string? Name, IReadOnlyList<Guid> Calendars, int? Version = null);

/// <param name="Calendars">Of its calendars, those that the person sees.</param>
public sealed record GroupResponse(Guid Id, string Name, IReadOnlyList<Guid> Calendars, int Version);

/// <summary>Named sets of calendars, to choose several at once.</summary>
internal static class GroupApi
{
    public static void MapGroups(this RouteGroupBuilder api)
    {
        api.MapGet("/groups", List);
        api.MapPost("/groups", (GroupRequest request, Access access, GroupStore groups) => SaveAsync(null, request, access, groups));
        api.MapPut("/groups/{id:guid}",
            (Guid id, GroupRequest request, Access access, GroupStore groups) => SaveAsync(id, request, access, groups));
        api.MapDelete("/groups/{id:guid}", Remove);
    }

    /// <summary>A group of which somebody sees no calendar is none for them: its name alone could tell.</summary>
    private static async Task<Ok<IReadOnlyList<GroupResponse>>> List(Access access)
    {
        var viewer = await access.ViewerAsync();
        var house = await access.HouseAsync();
        var shown = house.Groups.Select(group => new GroupResponse(
            group.Id, group.Name,
                [.. group.Calendars.Where(id => house.Calendars.TryGetValue(id, out var calendar)
                    && viewer.DetailOn(id, calendar.Disclosure) > Detail.Nothing)], group.Version));
        return TypedResults.Ok<IReadOnlyList<GroupResponse>>(
            [.. shown.Where(group => group.Calendars.Count > 0 || viewer.May(OrganisationAction.ManageCalendars))]);
    }

    private static async Task<Results<Ok<GroupResponse>, ProblemHttpResult>> SaveAsync(
        Guid? id, GroupRequest request, Access access, GroupStore groups)
    {
        var viewer = await access.RequireAsync(OrganisationAction.ManageCalendars, "access.administratorsGroup");
        var name = Texts.OneLine("name", "what.name", request.Name, Texts.LongestName);
        if (id is not null && request.Version is null)
            throw new RuleException("version", "request.versionMissing");
        try
        {
            var (saved, version) = await groups.SaveAsync(viewer.OrganisationId, id, request.Version, name, [.. request.Calendars]);
            return TypedResults.Ok(new GroupResponse(saved, name, request.Calendars, version));
        }
        catch (ChangedMeanwhileException)
        {
            var now = (await groups.ListAsync(viewer.OrganisationId)).FirstOrDefault(group => group.Id == id)
                ?? throw new NotFoundException("group");
            return Problems.Of(Problem.ChangedMeanwhile, current: new GroupResponse(now.Id, now.Name, now.Calendars, now.Version));
        }
    }

    private static async Task<NoContent> Remove(Guid id, Access access, GroupStore groups)
    {
        var viewer = await access.RequireAsync(OrganisationAction.ManageCalendars, "access.administratorsGroup");
        await groups.RemoveAsync(viewer.OrganisationId, id);
        return TypedResults.NoContent();
    }
}
