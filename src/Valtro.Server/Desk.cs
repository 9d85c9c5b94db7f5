using Microsoft.AspNetCore.StaticFiles;

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
            OnPrepareResponse = prepared => prepared.Context.Response.Headers.CacheControl = prepared.Context.Request.Path.StartsWithSegments("/assets")
                ? "public, max-age=31536000, immutable"
                : "public, max-age=300",
        });
    }

    /// <summary>Every other address is a screen of the desk.</summary>
    public static void MapDesk(this WebApplication app) => app.MapFallback("/{**screen}", async (HttpContext context, IWebHostEnvironment environment) =>
    {
        if (Path.HasExtension(context.Request.Path))
            return Results.NotFound();
        var page = environment.WebRootFileProvider.GetFileInfo("desk/index.html");
        if (!page.Exists)
            return Results.Text("The web part has not been built. Run ./valtro demo, which builds it.", statusCode: 503);
        context.Response.Headers.CacheControl = "no-cache";
        context.Response.ContentType = "text/html; charset=utf-8";
        await context.Response.SendFileAsync(page);
        return Results.Empty;
    }).ExcludeFromDescription();
}
