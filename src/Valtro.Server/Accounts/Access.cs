using System.Security.Claims;
using Microsoft.AspNetCore.Antiforgery;
using Valtro.Core.Disclosure;
using Valtro.Store;
using Valtro.Core.Speaking;

namespace Valtro.Server.Accounts;

/// <summary>The signed-in person of this request. Whatever the API does is allowed or refused by <see cref="Viewer"/>.</summary>
public sealed class Access(IHttpContextAccessor context, AccountStore accounts, Houses houses)
{
    private Viewer? _viewer;
    private IReadOnlyList<Membership>? _known;
    private House? _house;

    /// <summary>Of whom the session of this request is, read with it.</summary>
    internal void Know(IReadOnlyList<Membership> memberships) => _known = memberships;

    /// <summary>The organisation as it is when the request begins: what the request itself changes of it, it does not show.</summary>
    public async ValueTask<House> HouseAsync() => _house ??= await houses.OfAsync((await ViewerAsync()).OrganisationId, (await MembershipAsync()).HouseVersion);

    /// <summary>Who is signed in; where the request says <c>as=everyone</c>, the same person looking as that audience, who may change nothing.</summary>
    /// <exception cref="SignInNeededException">Nobody is signed in, or the account is in no organisation any more.</exception>
    /// <exception cref="ChooseOrganisationException">They belong to several, and the address does not say which.</exception>
    /// <exception cref="ForbiddenException">They do not belong to that one, or look as somebody else and try to change something.</exception>
    public async Task<Viewer> ViewerAsync()
    {
        if (_viewer is not null)
            return _viewer;
        var request = context.HttpContext!.Request;
        var viewer = (await MembershipAsync()).Viewer;
        if (SeenAs(request) is { } audience)
        {
            Require(HttpMethods.IsGet(request.Method) || HttpMethods.IsHead(request.Method), "access.seesAsOthers");
            viewer = viewer.As(audience);
        }
        return _viewer = viewer;
    }

    /// <summary>The organisations that whoever is signed in belongs to; none where nobody is.</summary>
    internal async Task<IReadOnlyList<Membership>> MembershipsAsync()
    {
        var account = AccountOf(context.HttpContext!.User);
        // Who signs in with this very request is not the one its session was of.
        if (_known is null || (_known.Count > 0 && _known[0].Viewer.AccountId != account))
            _known = account == Guid.Empty ? [] : await accounts.MembershipsAsync(account);
        return _known;
    }

    /// <summary>The organisation that the address names; where it names none, the only one of the person.</summary>
    /// <returns>Null where there is none such, or the person has to choose.</returns>
    internal static Membership? Chosen(HttpContext context, IReadOnlyList<Membership> memberships) => OrganisationAddress.Of(context) is { } slug
        ? memberships.FirstOrDefault(one => one.Slug == slug)
        : memberships.Count == 1 ? memberships[0] : null;

    private async Task<Membership> MembershipAsync()
    {
        var memberships = await MembershipsAsync();
        if (memberships.Count == 0)
            throw new SignInNeededException();
        return Chosen(context.HttpContext!, memberships)
            ?? throw (OrganisationAddress.Of(context.HttpContext!) is null ? new ChooseOrganisationException() : new ForbiddenException(Saying.Of("access.notYourOrganisation")));
    }

    /// <summary>An address as the request at hand has them, with the organisation where it says which.</summary>
    internal string At(string path) => context.HttpContext!.Request.PathBase + path;

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

    /// <summary>The account that a session is of; none where nobody is signed in.</summary>
    internal static Guid AccountOf(ClaimsPrincipal user) => Guid.TryParse(user.FindFirstValue(ClaimTypes.NameIdentifier), out var id) ? id : Guid.Empty;

    private static Audience? SeenAs(HttpRequest request) =>
        Enum.TryParse<Audience>(request.Query["as"], ignoreCase: true, out var audience) && audience is not Audience.Editors ? audience : null;
}

public sealed class SignInNeededException() : Exception("Sign in first.");

/// <summary>Whoever belongs to several organisations says with the address which they mean.</summary>
public sealed class ChooseOrganisationException() : Exception("Say which organisation is meant.");

public sealed class ForbiddenException(Saying saying) : Exception(saying.ToString())
{
    public Saying Saying { get; } = saying;
}

/// <summary>Refuses a change that does not carry the token of its session (cross-site request forgery).</summary>
internal sealed class AntiforgeryFilter(IAntiforgery antiforgery) : IEndpointFilter
{
    public async ValueTask<object?> InvokeAsync(EndpointFilterInvocationContext context, EndpointFilterDelegate next)
    {
        var request = context.HttpContext.Request;
        if (!HttpMethods.IsGet(request.Method) && !HttpMethods.IsHead(request.Method))
            await antiforgery.ValidateRequestAsync(context.HttpContext);
        return await next(context);
    }
}

/// <summary>Marks what is of no organisation in particular.</summary>
internal sealed class OfNoOrganisation;

/// <summary>Everything that a request of a signed-in person asks of the database stays within their organisation.</summary>
internal sealed class WallFilter : IEndpointFilter
{
    public async ValueTask<object?> InvokeAsync(EndpointFilterInvocationContext context, EndpointFilterDelegate next)
    {
        if (context.HttpContext.User.Identity?.IsAuthenticated != true)
            return await next(context);
        var access = context.HttpContext.RequestServices.GetRequiredService<Access>();
        // Who is signed in, and signing out, is asked and done wherever one is, also before one has chosen.
        var isOfNone = context.HttpContext.GetEndpoint()?.Metadata.GetMetadata<OfNoOrganisation>() is not null;
        if (isOfNone && Access.Chosen(context.HttpContext, await access.MembershipsAsync()) is null)
            return await next(context);
        using var within = Wall.Within((await access.ViewerAsync()).OrganisationId);
        Asking.Until(context.HttpContext.RequestAborted);
        return await next(context);
    }
}
