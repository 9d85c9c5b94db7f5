using Valtro.Application.Editions;
using Valtro.Store;

namespace Valtro.Server.Api;

/// <summary>Marks a request that changes nothing, though it is not a GET: what it asks about does not fit into an address.</summary>
internal sealed record ReadsOnly
{
    public static bool Is(HttpContext context) =>
        HttpMethods.IsGet(context.Request.Method)
            || HttpMethods.IsHead(context.Request.Method)
            || context.GetEndpoint()?.Metadata.GetMetadata<ReadsOnly>() is not null;
}

internal static class ReadsOnlyExtensions
{
    public static RouteHandlerBuilder ReadsOnly(this RouteHandlerBuilder endpoint) => endpoint.WithMetadata(new ReadsOnly());
}

/// <summary>After a change this node asks the database what readers get, instead of waiting to hear of it: whoever made the change sees it
/// at once. And it says how news will call the change.</summary>
internal sealed class WritesFilter(Artefacts artefacts) : IEndpointFilter
{
    /// <summary>How news call what the request changes.</summary>
    private const string ChangeHeader = "Valtro-Change";

    public async ValueTask<object?> InvokeAsync(EndpointFilterInvocationContext context, EndpointFilterDelegate next)
    {
        if (ReadsOnly.Is(context.HttpContext))
            return await next(context);
        context.HttpContext.Response.Headers[ChangeHeader] = Asking.Named();
        try
        {
            return await next(context);
        }
        finally
        {
            artefacts.AskAgain();
        }
    }
}
