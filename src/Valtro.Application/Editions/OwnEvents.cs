using NodaTime;
using Valtro.Application.Accounts;
using Valtro.Core.Disclosure;
using Valtro.Core.Speaking;
using Valtro.Store;

namespace Valtro.Application.Editions;

/// <summary>What a member is responsible for, at an address of their own: for their calendar program, and to read.</summary>
public sealed class OwnEvents(
    Access access, EditionSettingsStore settings, SecretLinkStore links, PublicAddresses addresses, IClock clock)
{
    private Instant Now => Instant.FromUnixTimeSeconds(clock.GetCurrentInstant().ToUnixTimeSeconds());

    public async Task<LinkResponse> LinkAsync()
    {
        var viewer = await OneselfAsync();
        return await settings.FindOwnAsync(viewer.OrganisationId, viewer.AccountId) is { } own
            ? addresses.Show(await links.FindAsync(viewer.OrganisationId, own, viewer.AccountId))
            : addresses.Show(null);
    }

    /// <summary>Makes the address; one that was there ends.</summary>
    public async Task<LinkResponse> MakeAsync()
    {
        var viewer = await OneselfAsync();
        var own = await settings.OwnAsync(viewer.OrganisationId, viewer.AccountId, Now);
        var house = await access.HouseAsync();
        return addresses.Show(await links.MakeAsync(viewer.OrganisationId, own, Now, isReplaced =>
            Line(viewer, house, isReplaced ? AuditAct.LinkReplaced : AuditAct.LinkMade), viewer.AccountId));
    }

    /// <exception cref="NotFoundException">There is none to withdraw.</exception>
    public async Task<LinkResponse> WithdrawAsync()
    {
        var viewer = await OneselfAsync();
        var own = await settings.FindOwnAsync(viewer.OrganisationId, viewer.AccountId) ?? throw new NotFoundException("link");
        var line = Line(viewer, await access.HouseAsync(), AuditAct.LinkWithdrawn);
        await links.WithdrawAsync(viewer.OrganisationId, own, Now, line, viewer.AccountId);
        return addresses.Show(null);
    }

    private async Task<Viewer> OneselfAsync()
    {
        var viewer = await access.ViewerAsync();
        Access.Require(viewer.SeesAs is null, "access.nothingWhileAsOthers");
        return viewer;
    }

    private AuditLine Line(Viewer viewer, House house, AuditAct act) =>
        new(viewer.AccountId, act, house.Members[viewer.AccountId], Saying.Of("audit.ownEvents"), Now);
}
