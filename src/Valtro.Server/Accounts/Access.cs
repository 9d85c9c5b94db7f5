using System.Security.Claims;
using Microsoft.AspNetCore.Antiforgery;
using Valtro.Core.Disclosure;
using Valtro.Store;

namespace Valtro.Server.Accounts;

/// <summary>The signed-in person of this request. Whatever the API does is allowed or refused by <see cref="Viewer"/>.</summary>
public sealed class Access(IHttpContextAccessor context, AccountStore accounts, Houses houses)
{
    private Viewer? _viewer;
    private Viewer? _known;
    private long _houseVersion;
    private House? _house;

    /// <summary>Who the session of this request is of and how far the organisation is, read with it.</summary>
    internal void Know(Viewer? viewer, long houseVersion) => (_known, _houseVersion) = (viewer, houseVersion);

    /// <summary>The organisation as it is when the request begins: what the request itself changes of it, it does not show.</summary>
    public async ValueTask<House> HouseAsync() => _house ??= await houses.OfAsync((await ViewerAsync()).OrganisationId, _houseVersion);

    /// <summary>Who is signed in; where the request says <c>as=everyone</c>, the same person looking as that audience, who may change nothing.</summary>
    /// <exception cref="SignInNeededException">Nobody is signed in, or the account is in no organisation any more.</exception>
    /// <exception cref="ForbiddenException">They look as somebody else and try to change something.</exception>
    public async Task<Viewer> ViewerAsync()
    {
        if (_viewer is not null)
            return _viewer;
        var request = context.HttpContext!.Request;
        var account = AccountOf(context.HttpContext.User);
        // Who signs in with this very request is not the one its session was of.
        var found = account == Guid.Empty ? null : account == _known?.AccountId ? _known : await accounts.ViewerAsync(account);
        var viewer = found ?? throw new SignInNeededException();
        if (SeenAs(request) is { } audience)
        {
            Require(HttpMethods.IsGet(request.Method) || HttpMethods.IsHead(request.Method), "You look at this as others see it. Go back to your own view to change something.");
            viewer = viewer.As(audience);
        }
        return _viewer = viewer;
    }

    /// <exception cref="ForbiddenException">The person may not do this anywhere in the organisation.</exception>
    public async Task<Viewer> RequireAsync(OrganisationAction action, string sentence)
    {
        var viewer = await ViewerAsync();
        Require(viewer.May(action), sentence);
        return viewer;
    }

    /// <exception cref="ForbiddenException">It is not allowed.</exception>
    public static void Require(bool allowed, string sentence)
    {
        if (!allowed)
            throw new ForbiddenException(sentence);
    }

    /// <summary>The account that a session is of; none where nobody is signed in.</summary>
    internal static Guid AccountOf(ClaimsPrincipal user) => Guid.TryParse(user.FindFirstValue(ClaimTypes.NameIdentifier), out var id) ? id : Guid.Empty;

    private static Audience? SeenAs(HttpRequest request) =>
        Enum.TryParse<Audience>(request.Query["as"], ignoreCase: true, out var audience) && audience is not Audience.Editors ? audience : null;
}

public sealed class SignInNeededException() : Exception("Sign in first.");

public sealed class ForbiddenException(string sentence) : Exception(sentence);

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

/// <summary>Everything that a request of a signed-in person asks of the database stays within their organisation.</summary>
internal sealed class WallFilter : IEndpointFilter
{
    public async ValueTask<object?> InvokeAsync(EndpointFilterInvocationContext context, EndpointFilterDelegate next)
    {
        if (context.HttpContext.User.Identity?.IsAuthenticated != true)
            return await next(context);
        var viewer = await context.HttpContext.RequestServices.GetRequiredService<Access>().ViewerAsync();
        using var within = Wall.Within(viewer.OrganisationId);
        return await next(context);
    }
}
