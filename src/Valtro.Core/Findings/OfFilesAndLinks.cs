using Valtro.Core.Disclosure;
using Valtro.Core.Events;
using Valtro.Core.Speaking;

namespace Valtro.Core.Findings;

/// <summary>Its picture says nothing to those who do not see it.</summary>
internal sealed class PictureWithoutWords : FindingOfEvents
{
    public override Severity Severity => Severity.ToLookAt;

    protected override Finding? In(TellsOf told, ProofGround ground) =>
        told.Next.Event.Picture is not null && told.Content.Picture.Alternative.Length == 0 ? About(told, [Remedy.At(told)]) : null;
}

/// <summary>It has files that do not reach readers who know of it.</summary>
internal sealed class FilesHeldBack : FindingOfEvents
{
    public override Severity Severity => Severity.ToLookAt;

    protected override Finding? In(TellsOf told, ProofGround ground)
    {
        if (told.Detail < Detail.Headline || told.Content.Files is [])
            return null;
        var held = told.Content.Files.Where(file =>
            !told.Shown.Files.Contains(file) && file.Id != told.Next.Event.Picture?.Id).ToArray();
        return held.Length == 0
            ? null
            : About(told, Ways(told, ground), ("file", held[0].Name), ("count", held.Length),
                ("why", Saying.Of(told.Detail == Detail.Complete ? "finding.held.edition"
                    : told.Content.Cap != Cap.None ? "finding.held.event" : "finding.held.calendar")));
    }

    private static Remedy[] Ways(in TellsOf told, ProofGround ground) => told.Detail == Detail.Complete
        || ground.Edition.Cap < Detail.Complete
        ? [Remedy.Edition, Remedy.At(told)]
        : told.Content.Cap != Cap.None ? [Remedy.At(told)] : [Remedy.Open(told.Event.HomeCalendarId), Remedy.At(told)];
}

/// <summary>A link leads to a place that readers may not enter.</summary>
internal sealed class LinkClosed : FindingKind
{
    public override Severity Severity => Severity.KeepsFromReaders;

    public override IEnumerable<Finding> In(ProofGround ground) =>
        from told in ground.Told
        from link in Links.Of(told)
        let why = Why(link.Url, ground)
        where why is not null
        select About($"{told.Event.Id:N}{link.Url}", told.When, [Remedy.At(told)],
            ("link", link.Called()), ("title", told.Title), ("why", why)).Naming(told.Event);

    private static Saying? Why(string url, ProofGround ground)
    {
        if (ground.Around.Links.TryGetValue(url, out var known) && known.State == LinkState.AsksForSignIn)
            return Saying.Of("finding.closed.asks", ("day", known.CheckedOn));
        return LinkReach.Of(url, ground.Around.Ours) switch
        {
            Reach.Desk => Saying.Of("finding.closed.desk"),
            Reach.Inside => Saying.Of("finding.closed.inside"),
            // Somebody was asked, and let in.
            Reach.SignIn when known is null => Saying.Of("finding.closed.called"),
            _ => null,
        };
    }
}

/// <summary>A link leads nowhere any more.</summary>
internal sealed class LinkGone : FindingKind
{
    public override Severity Severity => Severity.KeepsFromReaders;

    public override IEnumerable<Finding> In(ProofGround ground) =>
        from told in ground.Told
        from link in Links.Of(told)
        where ground.Around.Links.TryGetValue(link.Url, out var known) && known.State == LinkState.Gone
        select About($"{told.Event.Id:N}{link.Url}", told.When, [Remedy.At(told)],
            ("link", link.Called()), ("title", told.Title), ("day", ground.Around.Links[link.Url].CheckedOn)).Naming(told.Event);
}

/// <summary>The links that readers get of an event.</summary>
public static class Links
{
    public static IEnumerable<EventLink> Of(TellsOf told) => told.Shown.Links
        .Concat(LinkReach.In(told.Shown.Description).Where(url => url.StartsWith("http", StringComparison.OrdinalIgnoreCase))
            .Select(url => new EventLink("", url)))
        .DistinctBy(link => link.Url);
}
