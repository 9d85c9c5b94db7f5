using Valtro.Application.Accounts;
using Valtro.Core.Disclosure;
using Valtro.Store;

namespace Valtro.Application.Editions;

/// <summary>Finds an edition for whoever composes it, with their house.</summary>
public sealed class ComposersEditions(Access access)
{
    internal const string ComposersOnly = "access.composers";

    /// <exception cref="NotFoundException">There is none.</exception>
    /// <exception cref="ForbiddenException">The person may not compose it.</exception>
    public async Task<(Viewer Viewer, House House, StoredEdition Edition)> FindAsync(Guid id)
    {
        var (viewer, house) = (await access.ViewerAsync(), await access.HouseAsync());
        var edition = house.Editions.FirstOrDefault(one => one.Id == id) ?? throw new NotFoundException("edition");
        Access.Require(viewer.MayCompose(edition.Sources, house.Disclosures), ComposersOnly);
        return (viewer, house, edition);
    }
}
