using Valtro.Core.Disclosure;
using Valtro.Server.Accounts;

namespace Valtro.Server.Api;

/// <summary>Tells open desks that something of their organisation is another, so that they need not ask by the clock.</summary>
/// <remarks>
/// It does not say what, and only those hear it who make events somewhere: when a calendar that somebody may not see changes
/// is nothing for others. They go on asking.
/// </remarks>
public sealed class DeskNews(IHostApplicationLifetime lifetime)
{
    /// <summary>Then a stream ends, and whoever listens comes again: with a session that is still good.</summary>
    private static readonly TimeSpan Longest = TimeSpan.FromMinutes(10);

    private readonly Listeners _listeners = new(most: 2_000);

    public void Announce(Guid organisationId) => _listeners.Announce(organisationId);

    public void AnnounceAll() => _listeners.AnnounceAll();

    internal async Task StreamAsync(HttpContext context, Viewer viewer)
    {
        Access.Require(viewer.ContributesSomewhere, "access.newsForMakers");
        using var listener = _listeners.Begin(context, [viewer.OrganisationId]);
        if (listener is null)
            return;
        try
        {
            using var ends = CancellationTokenSource.CreateLinkedTokenSource(context.RequestAborted, lifetime.ApplicationStopping);
            ends.CancelAfter(Longest);
            for (var said = ": still here\n\n"; ;)
            {
                await context.Response.WriteAsync(said, ends.Token);
                await context.Response.Body.FlushAsync(ends.Token);
                said = await listener.WaitAsync(ends.Token) ? "event: desk\ndata: changed\n\n" : ": still here\n\n";
            }
        }
        catch (OperationCanceledException)
        {
            // Whoever listened left, it was long enough, or the server stops.
        }
    }
}

internal static class DeskNewsApi
{
    public static void MapDeskNews(this RouteGroupBuilder api) =>
        api.MapGet("/changes", async (HttpContext context, Access access, DeskNews news) => await news.StreamAsync(context, await access.ViewerAsync())).ExcludeFromDescription();
}
