using Valtro.Application.Accounts;
using Valtro.Core;
using Valtro.Core.Disclosure;
using Valtro.Store;

namespace Valtro.Application.Calendars;

/// <param name="Version">That was edited; not needed for a new group.</param>
public sealed record GroupRequest(string? Name, IReadOnlyList<Guid> Calendars, int? Version = null);

/// <param name="Calendars">Of its calendars, those that the person sees.</param>
public sealed record GroupResponse(Guid Id, string Name, IReadOnlyList<Guid> Calendars, int Version);

/// <summary>Named sets of calendars, to choose several at once.</summary>
public sealed class Groups(Access access, GroupStore groups)
{
    /// <summary>A group of which somebody sees no calendar is none for them: its name alone could tell.</summary>
    public async Task<IReadOnlyList<GroupResponse>> AllAsync()
    {
        var viewer = await access.ViewerAsync();
        var house = await access.HouseAsync();
        var shown = house.Groups.Select(group => new GroupResponse(
            group.Id, group.Name,
            [.. group.Calendars.Where(id => house.Calendars.TryGetValue(id, out var calendar)
                && viewer.DetailOn(id, calendar.Disclosure) > Detail.Nothing)], group.Version));
        return [.. shown.Where(group => group.Calendars.Count > 0 || viewer.May(OrganisationAction.ManageCalendars))];
    }

    /// <returns>The group; or as it is, where somebody else saved it since.</returns>
    public async Task<(GroupResponse Group, bool IsChangedMeanwhile)> SaveAsync(Guid? id, GroupRequest request)
    {
        var viewer = await AllowedAsync();
        var name = Texts.OneLine("name", "what.name", request.Name, Texts.LongestName);
        if (id is not null && request.Version is null)
            throw new RuleException("version", "request.versionMissing");
        try
        {
            var (saved, version) = await groups.SaveAsync(viewer.OrganisationId, id, request.Version, name, [.. request.Calendars]);
            return (new GroupResponse(saved, name, request.Calendars, version), false);
        }
        catch (ChangedMeanwhileException)
        {
            var now = (await groups.ListAsync(viewer.OrganisationId)).FirstOrDefault(group => group.Id == id)
                ?? throw new NotFoundException("group");
            return (new GroupResponse(now.Id, now.Name, now.Calendars, now.Version), true);
        }
    }

    public async Task RemoveAsync(Guid id) => await groups.RemoveAsync((await AllowedAsync()).OrganisationId, id);

    private Task<Viewer> AllowedAsync() => access.RequireAsync(OrganisationAction.ManageCalendars, "access.administratorsGroup");
}
