using Microsoft.AspNetCore.Routing.Patterns;
using Microsoft.AspNetCore.Routing.Template;
using Microsoft.AspNetCore.StaticFiles;
using Valtro.Core.Speaking;

namespace Valtro.Server;

/// <summary>Serves the built web part: hashed files for ever, the desk's page always fresh.</summary>
internal static class Desk
{
    public static void UseDeskFiles(this WebApplication app)
    {
        var types = new FileExtensionContentTypeProvider();
        types.Mappings[".woff2"] = "font/woff2";
        app.UseStaticFiles(new StaticFileOptions
        {
            ContentTypeProvider = types,
            OnPrepareResponse = prepared =>
                prepared.Context.Response.Headers.CacheControl = prepared.Context.Request.Path.StartsWithSegments("/assets")
                ? "public, max-age=31536000, immutable"
                : "public, max-age=300",
        });
    }

    /// <summary>Every other address that a person can read is a screen of the desk.</summary>
    public static void MapDesk(this WebApplication app) => app.MapFallback("/{**screen}", AnswerAsync).ExcludeFromDescription();

    /// <summary>First segments of addresses that are for programs, or for those who read in public: there the desk answers
    /// nothing.</summary>
    private static readonly string[] Others =
        ["api", "c", "s", "dav", "metrics", "oembed", "openapi", "healthz", "readyz", "assets", ".well-known"];

    private static async Task<IResult> AnswerAsync(
        HttpContext context, IWebHostEnvironment environment, IEnumerable<EndpointDataSource> endpoints)
    {
        var path = context.Request.Path;
        var allowed = AllowedAt(path, endpoints);
        var first = path.Value!.TrimStart('/').Split('/')[0];
        var isKnown = allowed.Contains(context.Request.Method);
        var isOther = Others.Contains(first, StringComparer.OrdinalIgnoreCase) || Path.HasExtension(path);
        if (allowed.Length == 0 && !isOther)
            allowed = [HttpMethods.Get, HttpMethods.Head];
        if (allowed.Length > 0 && !allowed.Contains(context.Request.Method))
        {
            context.Response.Headers.Allow = string.Join(", ", allowed);
            return Problems.Of(Problem.WrongMethod,
                Saying.Of("request.methodNotPossible", ("method", context.Request.Method), ("allowed", string.Join(", ", allowed))));
        }
        // There is such an address, and it does not read what was sent.
        if (isKnown)
            return Problems.Of(Problem.WrongContentType);
        if (first is "c" or "s")
            return Public.PublicAnswers.NotHere(context);
        if (isOther)
            return Problems.Of(Problem.NotFound);
        var page = environment.WebRootFileProvider.GetFileInfo("desk/index.html");
        if (!page.Exists)
            return Results.Text("The web part has not been built. Run ./valtro demo, which builds it.", statusCode: 503);
        context.Response.Headers.CacheControl = "no-cache";
        context.Response.ContentType = "text/html; charset=utf-8";
        if (!HttpMethods.IsHead(context.Request.Method))
            await context.Response.SendFileAsync(page);
        return Results.Empty;
    }

    /// <summary>The methods that an address knows, in order; none where it is not known at all (RFC 9110 15.5.6).</summary>
    private static string[] AllowedAt(PathString path, IEnumerable<EndpointDataSource> sources) => [.. sources
        .SelectMany(source => source.Endpoints)
        .OfType<RouteEndpoint>()
        .Where(endpoint =>
            endpoint.Metadata.GetMetadata<HttpMethodMetadata>() is { HttpMethods.Count: > 0 } && Fits(endpoint.RoutePattern, path))
        .SelectMany(endpoint => endpoint.Metadata.GetMetadata<HttpMethodMetadata>()!.HttpMethods)
        .Distinct()
        .Order(StringComparer.Ordinal)];

    private static bool Fits(RoutePattern pattern, PathString path)
    {
        var values = new RouteValueDictionary();
        return new TemplateMatcher(new RouteTemplate(pattern), []).TryMatch(path, values)
            && pattern.Parameters.All(parameter => parameter.ParameterPolicies.All(policy => policy.Content switch
        {
            "guid" => Guid.TryParse(values[parameter.Name] as string, out _),
            "int" => int.TryParse(values[parameter.Name] as string, out _),
            _ => true,
        }));
    }
}
