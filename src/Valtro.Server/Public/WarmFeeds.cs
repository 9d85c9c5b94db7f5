using NodaTime;
using Valtro.Application;
using Valtro.Application.Editions;
using Valtro.Application.Work;

namespace Valtro.Server.Public;

/// <summary>What programs fetch by the thousand, the whole feed of an open edition, is sent before anything else is thought of, where it
/// stands in memory as it is right.</summary>
/// <remarks>Nothing is asked, nothing is made, and nothing of the person heeded, since nothing depends on them. It has no line in the log:
/// it is counted, among the measures by itself, and among the deliveries. Everything else goes its usual way, with the same
/// answer.</remarks>
internal static class WarmFeeds
{
    private const string Ending = ".ics";

    public static void UseWarmFeeds(this WebApplication app, Settings settings)
    {
        var (artefacts, answers) = (app.Services.GetRequiredService<Artefacts>(), app.Services.GetRequiredService<EditionAnswers>());
        var clock = app.Services.GetRequiredService<IClock>();
        var measures = app.Services.GetRequiredService<Measures>();
        app.Use((context, next) =>
        {
            if (NameOf(context.Request) is not { } name)
                return next(context);
            var now = clock.GetCurrentInstant();
            if (artefacts.InMemory(name, ArtefactKey.Feed, now) is not { } feed)
                return next(context);
            measures.WarmFeed();
            SecurityHeaders.Say(context, settings);
            return answers.SendFeedAsync(context, feed.Located, feed.Copy, now);
        });
    }

    /// <summary>Which edition's feed is asked for; null where it is anything else, or less than all of it.</summary>
    private static EditionName? NameOf(HttpRequest request) =>
        request.Path.Value is { } path && path.EndsWith(Ending, StringComparison.Ordinal) && path.StartsWith("/c/", StringComparison.Ordinal)
        && !request.QueryString.HasValue && HttpMethods.IsGet(request.Method)
        && EditionName.OfPath(path.AsSpan(..^Ending.Length)) is { IsImpossible: false } name
            ? name
            : null;
}
