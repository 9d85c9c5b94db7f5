using NodaTime;
using Valtro.Application.Outside;
using Valtro.Application.Work;
using Valtro.Core;
using Valtro.Core.Findings;
using Valtro.Store;

namespace Valtro.Application.Findings;

/// <summary>Asks what is behind links that readers get, as somebody without an account: one after the other, and none of a host
/// twice in a run.</summary>
internal sealed class LinkWorker(LinkStore links, IOutside outside, Settings settings, IClock clock) : IWorker
{
    private const int AtATime = 40;

    /// <summary>Until the next of the same host.</summary>
    private static readonly Duration Politely = Duration.FromSeconds(10);

    public WorkKind Kind => WorkKind.Links;

    public int AtOnce => 2;

    public Duration Claim => Duration.FromMinutes(30);

    public Duration? WaitAfter(int failures) => failures < 8 ? Duration.FromMinutes(Math.Pow(2, failures)) : null;

    public async Task<Instant?> DoAsync(Store.Work work, CancellationToken stopping)
    {
        var organisationId = work.OrganisationId!.Value;
        using var within = Wall.Within(organisationId);
        var due = await links.DueAsync(organisationId, AtATime, clock.GetCurrentInstant());
        foreach (var link in due.DistinctBy(link => new Uri(link.Url).Host))
        {
            stopping.ThrowIfCancellationRequested();
            await links.FoundAsync(organisationId, link, await AskAsync(link.Url, stopping), clock.GetCurrentInstant());
        }
        var now = clock.GetCurrentInstant();
        var next = await links.NextAsync(organisationId, now);
        return next is { } at && at < now + Politely ? now + Politely : next;
    }

    /// <returns>Null where nothing is known by it.</returns>
    private async Task<LinkState?> AskAsync(string url, CancellationToken stopping)
    {
        try
        {
            var address = outside.Check(url);
            var reply = await outside.CallAsync(
                new OutsideCall("GET", address, LinkJudge.Most) { Headers = [("Accept", "text/html, */*;q=0.5")] }, stopping);
            return LinkJudge.Of(address, reply.Address, reply.Status, reply.Content, settings.PublicUrl);
        }
        catch (RuleException refused)
        {
            // A file that is larger than what is read is there.
            return refused.Refusals[0].Saying.Code == "outside.tooLarge" ? LinkState.Open : null;
        }
    }
}
