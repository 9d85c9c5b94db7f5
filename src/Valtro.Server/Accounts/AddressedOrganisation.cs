using Valtro.Application;

namespace Valtro.Server.Accounts;

/// <summary>
/// Which organisation an address is about: "/at/pinewick/plan" and "/at/pinewick/api/…" are of Pinewick; one without says nothing about it.
/// </summary>
internal static class AddressedOrganisation
{
    private static readonly object Key = new();

    /// <summary>Takes the organisation off the address, so that everything behind knows one form of each.</summary>
    public static void UseOrganisationAddresses(this WebApplication app) => app.Use((context, next) =>
    {
        var path = context.Request.Path.Value ?? "";
        if (path.StartsWith(OrganisationAddress.Prefix, StringComparison.Ordinal))
        {
            var named = path[OrganisationAddress.Prefix.Length..];
            var end = named.IndexOf('/', StringComparison.Ordinal);
            var (slug, rest) = end < 0 ? (named, "/") : (named[..end], named[end..]);
            if (slug.Length > 0 && !Public.PublicApi.IsPublic(rest))
            {
                context.Items[Key] = slug;
                context.Request.PathBase += OrganisationAddress.Prefix + slug;
                context.Request.Path = rest;
            }
        }
        return next(context);
    });

    /// <returns>Null where the address does not say.</returns>
    public static string? Of(HttpContext context) => context.Items[Key] as string;
}
