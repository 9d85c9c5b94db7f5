namespace Valtro.Server.Accounts;

/// <summary>Which organisation an address is about: "/at/pinewick/plan" and "/at/pinewick/api/…" are of Pinewick; one without says nothing about it.</summary>
internal static class OrganisationAddress
{
    private const string Prefix = "/at/";

    private static readonly object Key = new();

    /// <summary>Takes the organisation off the address, so that everything behind knows one form of each.</summary>
    public static void UseOrganisationAddresses(this WebApplication app) => app.Use((context, next) =>
    {
        var path = context.Request.Path.Value ?? "";
        if (path.StartsWith(Prefix, StringComparison.Ordinal) && path.IndexOf('/', Prefix.Length) is var end && (end < 0 ? path.Length : end) > Prefix.Length)
        {
            var (slug, rest) = end < 0 ? (path[Prefix.Length..], "/") : (path[Prefix.Length..end], path[end..]);
            if (!Public.PublicApi.IsPublic(rest))
            {
                context.Items[Key] = slug;
                context.Request.PathBase += Prefix + slug;
                context.Request.Path = rest;
            }
        }
        return next(context);
    });

    /// <returns>Null where the address does not say.</returns>
    public static string? Of(HttpContext context) => context.Items[Key] as string;

    /// <summary>The address of a screen of an organisation.</summary>
    public static string At(string slug, string path) => $"{Prefix}{slug}{path}";
}
