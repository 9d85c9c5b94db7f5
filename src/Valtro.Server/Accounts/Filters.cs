using Microsoft.AspNetCore.Antiforgery;
using Valtro.Application.Accounts;
using Valtro.Store;

namespace Valtro.Server.Accounts;

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
        if (isOfNone && access.Chosen(await access.MembershipsAsync()) is null)
            return await next(context);
        using var within = Wall.Within((await access.ViewerAsync()).OrganisationId);
        Asking.Until(context.HttpContext.RequestAborted);
        return await next(context);
    }
}
