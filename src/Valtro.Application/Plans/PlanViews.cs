using Valtro.Application.Accounts;
using Valtro.Core;
using Valtro.Core.Disclosure;
using Valtro.Store;

namespace Valtro.Application.Plans;

/// <param name="Settings">What the plan's address says, without the day, and which groups of lanes are open.</param>
/// <param name="IsForAll">For all who edit; else one's own.</param>
public sealed record PlanViewRequest(string? Name, IReadOnlyDictionary<string, string> Settings, bool IsForAll);

/// <param name="MayRemove">Whoever made it, and administrators.</param>
public sealed record PlanViewResponse(
    Guid Id, string Name, IReadOnlyDictionary<string, string> Settings, bool IsForAll, bool MayRemove);

/// <summary>Ways to look at the plan, kept under a name: which calendars, in which view, narrowed to what.</summary>
public sealed class PlanViews(Access access, PlanViewStore store)
{
    private const string EditorsOnly = "access.editorsViews";
    private const int LongestSetting = 1000;

    /// <summary>All that an address of the plan may say but its day, and which groups of lanes are open.</summary>
    private static readonly HashSet<string> Known =
        ["view", "weeks", "span", "order", "category", "tag", "place", "group", "calendar", "words", "folds"];

    public async Task<IReadOnlyList<PlanViewResponse>> AllAsync()
    {
        var viewer = await access.ViewerAsync();
        var house = await access.HouseAsync();
        var seen = house.Calendars.Values.Where(one => viewer.DetailOn(one.Id, one.Disclosure) > Detail.Nothing)
            .Select(one => one.Plate.Code).ToHashSet(StringComparer.Ordinal);
        var edits = Edits(viewer, house);
        return [.. (await store.ListAsync(viewer.OrganisationId, viewer.AccountId)).Where(view => !view.IsForAll || edits)
            .Select(view => new PlanViewResponse(
                view.Id, view.Name, Told(view.Settings, seen), view.IsForAll, MayRemove(viewer, view)))];
    }

    public async Task<Guid> SaveAsync(PlanViewRequest request)
    {
        var (viewer, house) = (await access.ViewerAsync(), await access.HouseAsync());
        Access.Require(!request.IsForAll || Edits(viewer, house), EditorsOnly);
        var name = Texts.OneLine("name", "what.name", request.Name, Texts.LongestName);
        if (request.Settings.Any(one => !Known.Contains(one.Key) || one.Value is null || one.Value.Length > LongestSetting))
            throw new RuleException("settings", "planView.settings", ("most", LongestSetting));
        var same = (await store.ListAsync(viewer.OrganisationId, viewer.AccountId)).FirstOrDefault(view =>
            view.IsForAll == request.IsForAll && view.Name.Equals(name, StringComparison.OrdinalIgnoreCase));
        if (same is not null && !MayRemove(viewer, same))
            throw new RuleException("name", "planView.nameTaken", ("name", same.Name));
        return await store.SaveAsync(
            viewer.OrganisationId, new PlanView(Guid.CreateVersion7(), viewer.AccountId, request.IsForAll, name, request.Settings));
    }

    public async Task RemoveAsync(Guid id)
    {
        var viewer = await access.ViewerAsync();
        var view = (await store.ListAsync(viewer.OrganisationId, viewer.AccountId)).FirstOrDefault(one => one.Id == id)
            ?? throw new NotFoundException("plan view");
        Access.Require(MayRemove(viewer, view), EditorsOnly);
        await store.RemoveAsync(viewer.OrganisationId, id);
    }

    private static bool MayRemove(Viewer viewer, PlanView view) =>
        view.AccountId == viewer.AccountId || (view.IsForAll && viewer.May(OrganisationAction.ManageCalendars));

    private static bool Edits(Viewer viewer, House house) => house.Calendars.Keys.Any(id => viewer.May(CalendarAction.Edit, id));

    /// <summary>Plates of calendars that somebody sees nothing of are no names for them.</summary>
    private static Dictionary<string, string> Told(IReadOnlyDictionary<string, string> settings, HashSet<string> seen) =>
        settings.ToDictionary(
            one => one.Key,
            one => one.Key == "calendar" ? string.Join(',', one.Value.Split(',').Where(seen.Contains)) : one.Value);
}
