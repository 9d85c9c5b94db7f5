using Microsoft.AspNetCore.Cors.Infrastructure;
using Valtro.Application.Editions;
using Valtro.Application.Files;
using Valtro.Core.Events;

namespace Valtro.Server.Public;

/// <summary>What anybody may fetch: reading pages, embeds, feeds, months as JSON, files, and news of changes.</summary>
/// <remarks>An address that leads nowhere, one that is closed and one that never was are answered alike.</remarks>
internal static class PublicApi
{
    /// <summary>The policy for scripts of other sites. It is no default: nobody else's address may have it.</summary>
    private const string Anybody = "anybody";

    private static readonly string[] Read = [HttpMethods.Get, HttpMethods.Head];

    public static bool IsPublic(PathString path) => path.StartsWithSegments("/c") || path.StartsWithSegments("/s");

    /// <summary>What a script of another site may read, errors too: nothing here depends on who asks.</summary>
    public static bool IsOpenToScripts(PathString path) =>
        IsPublic(path) || path.StartsWithSegments("/oembed") || path.StartsWithSegments("/assets") || path.StartsWithSegments("/embed.js");

    /// <summary>What a browser is told when it asks beforehand. That anybody may read is said with each answer
    /// (<see cref="SecurityHeaders"/>).</summary>
    public static void ForScripts(CorsOptions cors) =>
        cors.AddPolicy(
            Anybody, policy => policy.AllowAnyOrigin().WithMethods(Read).AllowAnyHeader().SetPreflightMaxAge(TimeSpan.FromDays(1)));

    public static void MapPublic(this WebApplication app)
    {
        app.MapRead("/robots.txt", (FrontAnswers answers) => answers.SendRobotsAsync());
        app.MapRead("/sitemap.xml", (FrontAnswers answers) => answers.SendMapAsync());
        app.MapRead("/c/{organisation}/sitemap.xml",
            (string organisation, FrontAnswers answers) => answers.SendMapOfAsync(organisation));
        app.MapRead("/c/{organisation}/icon.svg", (string organisation, FrontAnswers answers) => answers.SendIconAsync(organisation));
        app.MapRead("/c/{organisation}/icon-{width:int}.png",
            (string organisation, int width, FrontAnswers answers) => answers.SendIconAsync(organisation, width));
        app.MapRead("/c/{organisation}/app.webmanifest",
            (string organisation, FrontAnswers answers) => answers.SendManifestAsync(organisation));
        app.MapRead("/c/{organisation}/{edition}/app.webmanifest",
            (EditionPath path, EditionAnswers answers) => answers.SendManifestAsync(path.Name));
        app.MapRead("/c/{organisation}", (string organisation, string? find, string? term, string[]? only,
            FrontAnswers answers) => answers.SendPageAsync(organisation, find, term, only ?? []));
        app.MapRead("/c/changes", (string[]? of, EditionAnswers answers) => answers.SendChangesOfAsync(of ?? []));
        // Whose it is says the token alone. Mail programs press for many people from one address: wrong tokens count, and nothing else.
        app.MapOwn(HttpMethods.Get, "/mail/{token}", (string token, MailAnswers answers) => answers.SendOwnAsync(token, endsOnly: false));
        app.MapOwn(HttpMethods.Get, "/mail/{token}/end", (string token, MailAnswers answers) => answers.SendOwnAsync(token, endsOnly: true));
        app.MapOwn(HttpMethods.Post, "/mail/{token}", (string token, MailAnswers answers) => answers.ConfirmAsync(token));
        app.MapOwn(HttpMethods.Post, "/mail/{token}/end", (string token, MailAnswers answers) => answers.EndAsync(token));
        foreach (var edition in new[] { "/c/{organisation}/{edition}", "/s/{secret}" })
        {
            app.MapRead(edition, (EditionPath path, EditionAnswers answers) => answers.SendPageAsync(path.Name, embedded: false));
            app.MapRead(edition + "/embed", (EditionPath path, EditionAnswers answers) => answers.SendPageAsync(path.Name, embedded: true));
            app.MapRead(
                edition + ".ics", (EditionPath path, string? only, string[]? about, EditionAnswers answers) =>
                    answers.SendFeedAsync(path.Name, only, about ?? []));
            app.MapRead(
                edition + ".json", (EditionPath path, string? month, EditionAnswers answers) => answers.SendMonthAsync(path.Name, month));
            foreach (var form in Enum.GetValues<TakenForm>())
                app.MapRead(edition + EditionAnswers.EndingOf(form),
                    (EditionPath path, QueryDay? from, QueryDay? to, string? only, string[]? about, EditionAnswers answers) =>
                        answers.SendTakenAsync(path.Name, form, from?.Date, to?.Date, only, about ?? []));
            app.MapRead(edition + ".atom", (EditionPath path, EditionAnswers answers) => answers.SendAtomAsync(path.Name));
            app.MapRead(edition + "/changed.json", (EditionPath path, EditionAnswers answers) => answers.SendChangedAsync(path.Name));
            app.MapRead(edition + "/entries/{id}/{date}",
                (EditionPath path, string id, string date, EditionAnswers answers) =>
                    answers.SendEntryAsync(path.Name, Uid.OfAddress(id), date));
            app.MapRead(edition + "/entries/{id}.ics",
                (EditionPath path, string id, EditionAnswers answers) => answers.SendEntryFileAsync(path.Name, Uid.OfAddress(id), null));
            app.MapRead(edition + "/entries/{id}/{date}.ics",
                (EditionPath path, string id, string date, EditionAnswers answers) =>
                    answers.SendEntryFileAsync(path.Name, Uid.OfAddress(id), date));
            app.MapRead(edition + "/files/{id:guid}/{name}",
                (EditionPath path, Guid id, string name, int? width, string? form, EditionAnswers answers) =>
                    answers.SendFileAsync(path.Name, id, name, PictureSize.Of(width, form)));
            app.MapRead(edition + "/mail", (EditionPath path, string? only, string? entry, MailAnswers answers) =>
                answers.SendFormAsync(path.Name, only, entry));
            app.MapOwn(HttpMethods.Post, edition + "/mail", (EditionPath path, string? only, string? entry, MailAnswers answers) =>
                answers.AskAsync(path.Name, only, entry)).RequireRateLimiting(Limits.SignIn);
            app.MapRead(edition + "/changes", (EditionPath path, EditionAnswers answers) => answers.SendChangesAsync(path.Name));
        }
    }

    /// <summary>Maps what a reader does for themselves, without an account: no script of another site reads it.</summary>
    private static RouteHandlerBuilder MapOwn(this WebApplication app, string method, string pattern, Delegate handler) =>
        app.MapMethods(pattern, [method], handler).AddEndpointFilter<ForReaders>().ExcludeFromDescription();

    /// <summary>Maps what anybody may read, scripts of other sites too.</summary>
    public static void MapRead(this WebApplication app, string pattern, Delegate handler) =>
        app.MapMethods(pattern, Read, handler).AddEndpointFilter<ForReaders>().RequireCors(Anybody).ExcludeFromDescription();
}
