using Valtro.Application.Accounts;
using Valtro.Application.Work;

namespace Valtro.Server.Api;

/// <summary>News of the organisation for an open desk.</summary>
/// <remarks>Only those hear it who make events somewhere: when a calendar that somebody may not see changes is nothing for others. They go
/// on asking.</remarks>
internal static class DeskNewsApi
{
    /// <summary>Then a stream ends, and whoever listens comes again: with a session that is still good.</summary>
    private static readonly TimeSpan Longest = TimeSpan.FromMinutes(10);

    public static void MapDeskNews(this RouteGroupBuilder api) => api.MapGet("/changes", StreamAsync).ExcludeFromDescription();

    private static async Task StreamAsync(HttpContext context, Access access, DeskNews news, EventStreams streams)
    {
        var viewer = await access.ViewerAsync();
        Access.Require(viewer.ContributesSomewhere, "access.newsForMakers");
        await streams.SendAsync(context, news.Listeners, [viewer.OrganisationId], DeskNews.SayAsync, Longest);
    }
}
