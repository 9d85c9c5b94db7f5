using Valtro.Core.Disclosure;
using Valtro.Core.Speaking;
using Valtro.Store;

namespace Valtro.Application.Accounts;

/// <summary>What a request says of who asks.</summary>
public interface IWhoAsks
{
    /// <summary>The account that is signed in; empty where nobody is.</summary>
    Guid AccountId { get; }

    /// <summary>The slug of the organisation that the address names; null where it names none.</summary>
    string? Organisation { get; }

    /// <summary>Of the machine that asks.</summary>
    string NetworkAddress { get; }

    /// <summary>As whom they look; null for as themselves.</summary>
    Audience? SeesAs { get; }

    /// <summary>Nothing is to be changed.</summary>
    bool OnlyReads { get; }

    /// <summary>What stands before every address of this request, such as "/at/pinewick".</summary>
    string Base { get; }
}

/// <summary>The signed-in person of this request. Whatever the API does is allowed or refused by <see cref="Viewer"/>.</summary>
public sealed class Access(IWhoAsks asker, AccountStore accounts, Houses houses)
{
    private Viewer? _viewer;
    private IReadOnlyList<Membership>? _known;
    private House? _house;

    /// <summary>Of whom the session of this request is, read with it.</summary>
    public void Know(IReadOnlyList<Membership> memberships) => _known = memberships;

    /// <summary>The organisation as it is when the request begins: what the request itself changes of it, it does not show.</summary>
    public async ValueTask<House> HouseAsync() =>
        _house ??= await houses.OfAsync((await ViewerAsync()).OrganisationId, (await MembershipAsync()).HouseVersion);

    /// <summary>Who is signed in; where the request says <c>as=everyone</c>, the same person looking as that audience, who may change
    /// nothing.</summary>
    /// <exception cref="SignInNeededException">Nobody is signed in, or the account is in no organisation any more.</exception>
    /// <exception cref="ChooseOrganisationException">They belong to several, and the address does not say which.</exception>
    /// <exception cref="ForbiddenException">They do not belong to that one, or look as somebody else and try to change
    /// something.</exception>
    public async Task<Viewer> ViewerAsync()
    {
        if (_viewer is not null)
            return _viewer;
        var viewer = (await MembershipAsync()).Viewer;
        if (asker.SeesAs is { } audience)
        {
            Require(asker.OnlyReads, "access.seesAsOthers");
            viewer = viewer.As(audience);
        }
        return _viewer = viewer;
    }

    /// <summary>The organisations that whoever is signed in belongs to; none where nobody is.</summary>
    public async Task<IReadOnlyList<Membership>> MembershipsAsync()
    {
        var account = asker.AccountId;
        // Who signs in with this very request is not the one its session was of.
        if (_known is null || (_known.Count > 0 && _known[0].Viewer.AccountId != account))
            _known = account == Guid.Empty ? [] : await accounts.MembershipsAsync(account);
        return _known;
    }

    /// <summary>The organisation that the address names; where it names none, the only one of the person.</summary>
    /// <returns>Null where there is none such, or the person has to choose.</returns>
    public Membership? Chosen(IReadOnlyList<Membership> memberships) => asker.Organisation is { } slug
        ? memberships.FirstOrDefault(one => one.Slug == slug)
        : memberships.Count == 1 ? memberships[0] : null;

    private async Task<Membership> MembershipAsync()
    {
        var memberships = await MembershipsAsync();
        if (memberships.Count == 0)
            throw new SignInNeededException();
        return Chosen(memberships)
            ?? throw (asker.Organisation is null
                ? new ChooseOrganisationException()
                : new ForbiddenException(Saying.Of("access.notYourOrganisation")));
    }

    /// <summary>An address as the request at hand has them, with the organisation where it says which.</summary>
    public string At(string path) => asker.Base + path;

    /// <exception cref="ForbiddenException">The person may not do this anywhere in the organisation.</exception>
    public async Task<Viewer> RequireAsync(OrganisationAction action, string code)
    {
        var viewer = await ViewerAsync();
        Require(viewer.May(action), code);
        return viewer;
    }

    /// <exception cref="ForbiddenException">It is not allowed.</exception>
    /// <param name="code">Of the message that says why not.</param>
    public static void Require(bool allowed, string code, params ReadOnlySpan<(string Name, object? Value)> values)
    {
        if (!allowed)
            throw new ForbiddenException(Saying.Of(code, values));
    }
}

public sealed class SignInNeededException() : Exception("Sign in first.");

/// <summary>Whoever belongs to several organisations says with the address which they mean.</summary>
public sealed class ChooseOrganisationException() : Exception("Say which organisation is meant.");

public sealed class ForbiddenException(Saying saying) : Exception(saying.ToString())
{
    public Saying Saying { get; } = saying;
}
