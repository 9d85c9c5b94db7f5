using NodaTime;
using Valtro.Core.Acts;
using Valtro.Core.Editions;
using Valtro.Core.Events;
using Valtro.Core.Recurrence;
using Valtro.Core.Speaking;
using Valtro.Core.Time;

namespace Valtro.Core.Findings;

/// <summary>A series goes on for ever.</summary>
internal sealed class EndlessSeries : FindingOfEvents
{
    public override Severity Severity => Severity.ToLookAt;

    protected override Finding? In(TellsOf told, ProofGround ground) => !told.Series.IsEndless || told.Event.Source is not null
        ? null
        : ground.Plan is { } plan
        ? About(told, [Remedy.Doing(ChosenAct.EndWithPlan, told), Remedy.At(told)],
            ("plan", Saying.Of("finding.planEndsOn", ("day", plan.Last))))
        : About(told, [Remedy.At(told)], ("plan", ""));
}

/// <summary>A series has dates after the last year that anybody has planned.</summary>
internal sealed class RunsBeyondPlan : FindingOfEvents
{
    public override Severity Severity => Severity.ToLookAt;

    protected override Finding? In(TellsOf told, ProofGround ground)
    {
        if (ground.School.Plans.Count == 0 || !told.Series.Recurs || told.Series.IsEndless || told.Event.Source is not null)
            return null;
        var last = ground.School.Plans[^1].Last;
        return EventDates.In(told.Event, new Window(last.PlusDays(1), last.PlusYears(2), ground.Edition.Zone), ground.School).Any()
            ? About(told, [Remedy.Doing(ChosenAct.EndWithPlan, told), Remedy.At(told)], ("day", last))
            : null;
    }
}

/// <summary>A series takes place in breaks as if there were none.</summary>
internal sealed class RunsThroughBreaks : FindingOfEvents
{
    public override Severity Severity => Severity.ToLookAt;

    protected override Finding? In(TellsOf told, ProofGround ground)
    {
        if (told.Series is not { Rule: not null, InBreaks: InBreaks.Ignore } || told.Event.Source is not null)
            return null;
        LocalDate[] closed = [.. ground.EntriesOf(told.Event.Id)
            .Where(entry => entry.Event.State != EventState.Cancelled)
            .Select(entry => entry.Occurrence.LocalStart.Date).Where(ground.School.IsClosed)];
        return closed.Length == 0 ? null : About(told, [Remedy.Doing(ChosenAct.SkipBreaks, told), Remedy.At(told)],
            ("count", closed.Length), ("break", ground.School.BreakOn(closed[0])!.Name), ("day", closed[0]));
    }
}

/// <summary>A single event is on while everything is closed.</summary>
internal sealed class InBreak : FindingOfEvents
{
    public override Severity Severity => Severity.ForInformation;

    protected override Finding? In(TellsOf told, ProofGround ground) =>
        !told.Series.Recurs && told.Next.Event.State != EventState.Cancelled && ground.School.BreakOn(told.Day) is { } closed
            ? About(told, [Remedy.At(told)], ("break", closed.Name))
            : null;
}

/// <summary>One of its dates is still going on when the next begins.</summary>
internal sealed class OverlapsItself : FindingOfEvents
{
    public override Severity Severity => Severity.ToLookAt;

    protected override Finding? In(TellsOf told, ProofGround ground)
    {
        if (!told.Series.Recurs)
            return null;
        Instant? end = null;
        foreach (var entry in ground.EntriesOf(told.Event.Id).Where(entry => entry.Event.State != EventState.Cancelled))
        {
            if (entry.Occurrence.Start < end)
                return About(told, [Remedy.At(told)], ("day", entry.Occurrence.LocalStart.Date));
            end = entry.Occurrence.End;
        }
        return null;
    }
}

/// <summary>Nobody has said when it ends.</summary>
internal sealed class WithoutEnd : FindingOfEvents
{
    public override Severity Severity => Severity.ForInformation;

    protected override Finding? In(TellsOf told, ProofGround ground) =>
        told.Content.IsDeadline || told.Series.Timing.AllDay || told.Series.Timing.Duration > Duration.Zero
            ? null
            : About(told, [Remedy.At(told)]);
}

/// <summary>It lasts so long that somebody may have typed another month.</summary>
internal sealed class LastsLong : FindingOfEvents
{
    private const int LongestTimed = 14;
    private const int LongestDays = 100;

    public override Severity Severity => Severity.ToLookAt;

    protected override Finding? In(TellsOf told, ProofGround ground)
    {
        var timing = told.Series.Timing;
        var days = timing.AllDay ? timing.Days : Period.DaysBetween(timing.Start.Date, timing.End.Date);
        return days > (timing.AllDay ? LongestDays : LongestTimed) ? About(told, [Remedy.At(told)], ("count", days)) : null;
    }
}

/// <summary>It goes from midnight to midnight: programs draw it as a full day of hours, not as a whole day.</summary>
internal sealed class WholeDayAsTimes : FindingOfEvents
{
    public override Severity Severity => Severity.ToLookAt;

    protected override Finding? In(TellsOf told, ProofGround ground) =>
        told.Series.Timing is { AllDay: false } timing && timing.Start.TimeOfDay == LocalTime.Midnight
            && timing.Duration >= Duration.FromMinutes(24 * 60 - 1) && (timing.End.TimeOfDay == LocalTime.Midnight
                || timing.End.TimeOfDay >= new LocalTime(23, 59))
            ? About(told, [Remedy.At(told)])
            : null;
}

/// <summary>Its clock is not the one by which readers of the edition tell the time.</summary>
internal sealed class OtherZone : FindingOfEvents
{
    public override Severity Severity => Severity.ToLookAt;

    protected override Finding? In(TellsOf told, ProofGround ground)
    {
        var (timing, at) = (told.Series.Timing, told.Next.Occurrence.Start);
        return timing.AllDay || timing.Zone.GetUtcOffset(at) == ground.Edition.Zone.GetUtcOffset(at)
            ? null
            : About(told, [Remedy.At(told)], ("zone", timing.Zone.Id), ("ours", ground.Edition.Zone.Id),
                ("time", $"{told.Next.Occurrence.LocalStart:HH:mm}"), ("told", $"{at.InZone(ground.Edition.Zone):HH:mm}"));
    }
}

/// <summary>Programs do not agree on what its rule says.</summary>
internal sealed class MisreadRule : FindingOfEvents
{
    public override Severity Severity => Severity.ForInformation;

    protected override Finding? In(TellsOf told, ProofGround ground) =>
        ground.Edition.Feed == FeedForm.Series && Why(told, ground) is { } why
            ? About(told, [Remedy.Set(EditionSetting.DatesFeed), Remedy.At(told)], ("why", why))
            : null;

    private static Saying? Why(TellsOf told, ProofGround ground)
    {
        var series = told.Series;
        if (series.Rule is { Parts.SetPositions.Count: > 0 })
            return Saying.Of("finding.misread.positions");
        if (series is { Rule: null, Recurs: true })
            return Saying.Of("finding.misread.dates");
        if (series.Rule is { Parts.Skip: not Skip.Omit })
            return Saying.Of("finding.misread.skip");
        // One date goes out when it really is.
        if (series.Timing.AllDay || !series.Recurs)
            return null;
        return ground.EntriesOf(told.Event.Id).Select(entry => LocalTimes.EffectOf(entry.Occurrence.RecurrenceId, series.Timing.Zone))
            .FirstOrDefault(effect => effect != ClockEffect.None) switch
        {
            ClockEffect.Repeated => Saying.Of("finding.misread.clocks"),
            ClockEffect.Skipped => Saying.Of("finding.misread.gap"),
            _ => null,
        };
    }
}

/// <summary>The year plan ends soon, and series follow it.</summary>
internal sealed class PlanEnds : FindingKind
{
    private const int Soon = 45;

    public override Severity Severity => Severity.ToLookAt;

    public override IEnumerable<Finding> In(ProofGround ground) =>
        ground.School.Plans is [.., var last] && last.Last >= ground.Today && last.Last < ground.Today.PlusDays(Soon)
            && ground.Told.Count(told => told.Series.FollowsYearPlan) is > 0 and var following
            ? [About("", null, [Remedy.YearPlan], ("plan", last.Name), ("day", last.Last), ("count", following))]
            : [];
}
