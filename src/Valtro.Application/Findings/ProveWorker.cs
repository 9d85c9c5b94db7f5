using NodaTime;
using Valtro.Application.Work;
using Valtro.Core.Disclosure;
using Valtro.Core.Events;
using Valtro.Core.Findings;
using Valtro.Core.Time;
using Valtro.Store;

namespace Valtro.Application.Findings;

/// <summary>Looks an edition through for what is wrong with it: after a change, and each morning, since a draft's day comes by
/// itself.</summary>
internal sealed class ProveWorker(
    Houses houses, ProofGrounds grounds, FindingStore findings, LinkStore links, IClock clock) : IWorker
{
    public WorkKind Kind => WorkKind.Prove;

    public int AtOnce => 1;

    public Duration Claim => Duration.FromMinutes(5);

    public Duration? WaitAfter(int failures) => failures < 8 ? Duration.FromMinutes(Math.Pow(2, failures - 1)) : null;

    public async Task<Instant?> DoAsync(Store.Work work, CancellationToken stopping)
    {
        var (organisationId, id) = (work.OrganisationId!.Value, Guid.Parse(work.Key));
        using var within = Wall.Within(organisationId);
        var house = await houses.LatestAsync(organisationId);
        if (house.Editions.FirstOrDefault(one => one.Id == id) is not { } edition)
            return null;
        // Nobody outside has anything of a calendar that is closed: that is no mistake.
        if (edition.IsStandard && !ProofGrounds.GoesOut(edition, house))
        {
            await findings.KeepAsync(organisationId, id, [], clock.GetCurrentInstant());
            return null;
        }
        var ground = (await grounds.OfAsync(edition, house)).Ground;
        await findings.KeepAsync(organisationId, id, FindingKind.Of(ground), ground.Now);
        // Members may have an account where others have none.
        if (ground.Edition.Audience > Audience.Members)
            await links.WantAsync(organisationId, LinksOf(ground), ground.Now);
        // Not all at midnight.
        return LocalTimes.StartOf(ground.Today.PlusDays(1), ground.Edition.Zone)
            + Duration.FromSeconds((uint)id.GetHashCode() % (3 * 3_600));
    }

    /// <summary>Those that can be asked at all.</summary>
    private static string[] LinksOf(ProofGround ground) =>
        [.. ground.Told.SelectMany(Links.Of).Select(link => link.Url).Distinct()
            .Where(url => Uri.TryCreate(url, UriKind.Absolute, out var address) && (address.Scheme is "https" or "http")
                && LinkReach.Of(url, ground.Around.Ours) != Reach.Desk).Take(LinkStore.Most)];
}
