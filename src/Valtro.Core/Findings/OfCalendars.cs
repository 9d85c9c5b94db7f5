using Valtro.Core.Disclosure;
using Valtro.Core.Editions;
using Valtro.Core.Speaking;

namespace Valtro.Core.Findings;

/// <summary>A calendar of the edition shows its audience nothing.</summary>
internal sealed class SourceClosed : FindingKind
{
    public override Severity Severity => Severity.KeepsFromReaders;

    public override IEnumerable<Finding> In(ProofGround ground) =>
        from closed in ClosedSources.Of(ground.Edition, ground.Sources, ground.School, ground.Now, ground.Events, ground.Year)
        let source = closed.Source
        select About(source.CalendarId.ToString("N"), null,
            ground.Sources.Count > 1
                ? [Remedy.Open(source.CalendarId), Remedy.Set(EditionSetting.LeaveOut, source.CalendarId)]
                : [Remedy.Open(source.CalendarId)],
            ("calendar", source.Name), ("audience", ground.Audience), ("count", closed.Lost));
}

/// <summary>What is wanted of a calendar leaves nothing of it.</summary>
internal sealed class FilterMatchesNothing : FindingKind
{
    public override Severity Severity => Severity.KeepsFromReaders;

    public override IEnumerable<Finding> In(ProofGround ground) =>
        from source in ground.Open
        where source.Filter is not null
        let filter = source.Filter!
        let there = ground.Events.Where(one => Visibility.LeavesTheHouse(one.State) && one.Calendars.Contains(source.CalendarId)).ToArray()
        where there.Length > 0 && !there.Any(filter.Passes)
        select About(source.CalendarId.ToString("N"), null,
            [Remedy.Set(EditionSetting.TakeAllOfIt, source.CalendarId), Remedy.Edition],
            ("calendar", source.Name), ("count", there.Length));
}

/// <summary>A calendar that is filled from outside is not right any more.</summary>
internal sealed class SourceLate : FindingKind
{
    public override Severity Severity => Severity.ToLookAt;

    public override IEnumerable<Finding> In(ProofGround ground) =>
        from late in ground.Around.LateSources
        where ground.Sources.Any(source => source.CalendarId == late.CalendarId)
        select About(late.Id.ToString("N"), null, [new Remedy(RemedyWay.Source) { SourceId = late.Id }],
            ("source", late.Name),
            ("since", late.RightOn is { } day ? Saying.Of("finding.rightOn", ("day", day)) : Saying.Of("finding.neverRight")),
            ("why", late.Why)) with
        { KeptOn = [late.CalendarId], IsPlain = false };
}

/// <summary>An event is to stand on a calendar of the edition, and nobody has said yes.</summary>
internal sealed class PlacementWaits : FindingKind
{
    public override Severity Severity => Severity.ToLookAt;

    public override IEnumerable<Finding> In(ProofGround ground) =>
        from one in ground.Around.Waiting
        where ground.NameOf(one.CalendarId).Length > 0
        select About($"{one.Event.Id:N}{one.CalendarId:N}", null, [Remedy.SignOff],
            ("title", one.Event.Content.Title), ("calendar", ground.NameOf(one.CalendarId))).Naming(one.Event);
}

/// <summary>Another edition tells a wider audience more of the same.</summary>
internal sealed class LessThanWider : FindingKind
{
    public override Severity Severity => Severity.ToLookAt;

    public override IEnumerable<Finding> In(ProofGround ground) =>
        from other in ground.Around.Others
        where other.Audience > ground.Edition.Audience
        let more = ground.Told.Where(told => other.Composition.DetailOf(told.Event) > told.Detail).ToArray()
        where more.Length > 0
        select About(other.Name, null, [Remedy.Edition],
            ("other", other.Name), ("audience", Saying.Of($"audience.{other.Audience.ToString().ToLowerInvariant()}")),
            ("title", more[0].Title), ("count", more.Length)).Naming(more[0].Event);
}

/// <summary>Its days are over.</summary>
internal sealed class DaysAreOver : FindingKind
{
    public override Severity Severity => Severity.KeepsFromReaders;

    public override IEnumerable<Finding> In(ProofGround ground) =>
        ground.Edition.SpanAt(ground.Now, ground.School).End is { } end && end <= ground.Today
            ? [About("", null, [Remedy.Set(EditionSetting.OpenEnd), Remedy.Edition], ("day", end.PlusDays(-1)))]
            : [];
}

/// <summary>Nothing is on, though its days go on.</summary>
internal sealed class NoEntries : FindingKind
{
    public override Severity Severity => Severity.KeepsFromReaders;

    public override IEnumerable<Finding> In(ProofGround ground) =>
        ground.Ahead.Count > 0 || ground.Edition.SpanAt(ground.Now, ground.School).End <= ground.Today
            ? []
            : [About("", null, [Remedy.Edition])];
}

/// <summary>More is on than it delivers.</summary>
internal sealed class LimitCuts : FindingKind
{
    public override Severity Severity => Severity.ForInformation;

    public override IEnumerable<Finding> In(ProofGround ground) =>
        ground.Composed.Found - ground.Composed.Entries.Count is > 0 and var more
            ? [About("", null, [Remedy.Set(EditionSetting.NoLimit), Remedy.Edition], ("most", ground.Edition.Limit), ("count", more))]
            : [];
}

/// <summary>Calendars are mixed, and titles do not say whose an entry is.</summary>
internal sealed class CalendarsUntold : FindingKind
{
    public override Severity Severity => Severity.ToLookAt;

    public override IEnumerable<Finding> In(ProofGround ground) =>
        ground.Open.Count() is > 1 and var mixed && ground.Edition.TitlePattern is { } pattern
            && !pattern.Has(Piece.Plate) && !pattern.Has(Piece.Calendar)
            ? [About("", null, [Remedy.Set(EditionSetting.PlatesBeforeTitles), Remedy.Edition], ("count", mixed))]
            : [];
}

/// <summary>Its text is small, and in colours that are no more than readable.</summary>
internal sealed class SmallAndFaint : FindingKind
{
    /// <summary>WCAG 2.2, 1.4.6, level AAA.</summary>
    private const double Clear = 7;

    public override Severity Severity => Severity.ForInformation;

    public override IEnumerable<Finding> In(ProofGround ground)
    {
        var look = ground.Made.Look;
        var shown = look.Scheme switch
        {
            Scheme.Light => look.Light.Contrast,
            Scheme.Dark => look.Dark.Contrast,
            _ => Math.Min(look.Light.Contrast, look.Dark.Contrast),
        };
        return look.Size == TextSize.Small && shown < Clear
            ? [About("", null, [Remedy.Set(EditionSetting.LargerText), Remedy.Edition], ("ratio", $"{Math.Floor(shown * 10) / 10:0.0}"))]
            : [];
    }
}
