using System.Security.Claims;
using Microsoft.AspNetCore.Antiforgery;
using Valtro.Core.Disclosure;
using Valtro.Store;

namespace Valtro.Server.Accounts;

/// <summary>The signed-in person of this request. Whatever the API does is allowed or refused by <see cref="Viewer"/>.</summary>
public sealed class Access(IHttpContextAccessor context, AccountStore accounts)
{
    private Viewer? _viewer;

    /// <exception cref="SignInNeededException">Nobody is signed in, or the account is in no organisation any more.</exception>
    public async Task<Viewer> ViewerAsync()
    {
        if (_viewer is not null)
            return _viewer;
        var claim = context.HttpContext?.User.FindFirstValue(ClaimTypes.NameIdentifier);
        var viewer = Guid.TryParse(claim, out var id) ? await accounts.ViewerAsync(id) : null;
        return _viewer = viewer ?? throw new SignInNeededException();
    }

    /// <exception cref="ForbiddenException">The person may not change events of that calendar.</exception>
    public static void Require(bool allowed, string sentence)
    {
        if (!allowed)
            throw new ForbiddenException(sentence);
    }
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
