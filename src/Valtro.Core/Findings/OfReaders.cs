using NodaTime;
using Valtro.Core.Acts;
using Valtro.Core.Disclosure;
using Valtro.Core.Editions;
using Valtro.Core.Events;
using Valtro.Core.Time;

namespace Valtro.Core.Findings;

/// <summary>A draft's day has come, and it has not gone out.</summary>
internal sealed class DraftDue : FindingKind
{
    private const int DaysBefore = 2;

    public override Severity Severity => Severity.KeepsFromReaders;

    public override IEnumerable<Finding> In(ProofGround ground)
    {
        var soon = new Window(ground.Today, ground.Today.PlusDays(DaysBefore), ground.Edition.Zone);
        return from one in ground.Events
               where !Visibility.LeavesTheHouse(one.State)
                   && ground.Composition.DetailOf(one with { State = EventState.Live }) > Detail.Nothing
               let date = EventDates.In(one, soon, ground.School).Select(date => (EventDate?)date).FirstOrDefault()
               where date is not null
               let id = date.Value.Occurrence.RecurrenceId
               select About(one.Id.ToString("N"), null,
                   one.State == EventState.Waiting
                       ? [Remedy.SignOff, Remedy.At(one.Id, id)]
                       : [Remedy.Doing(ChosenAct.LetOut, one.Id, id), Remedy.At(one.Id, id)],
                   ("title", one.Content.Title), ("day", date.Value.Occurrence.LocalStart.Date)).Naming(one);
    }
}

/// <summary>It is shown only when it is over, or no more when it is.</summary>
internal sealed class ShownAtOtherTime : FindingKind
{
    public override Severity Severity => Severity.KeepsFromReaders;

    public override IEnumerable<Finding> In(ProofGround ground) =>
        from one in ground.Events
        let showing = one.Content.Showing
        where one.State == EventState.Live && !one.Series.Recurs && one.Series.Timing.End.Date >= ground.Today
            && ((showing.Until is { } until && until < one.Series.Timing.Start.Date)
                || (showing.From is { } first && first > one.Series.Timing.End.Date))
        select About(one.Id.ToString("N"), null, [Remedy.At(one.Id, one.Series.Timing.Start)],
            ("title", one.Content.Title), ("day", one.Series.Timing.Start.Date)).Naming(one);
}

/// <summary>It is not certain yet, and is about to begin.</summary>
internal sealed class StillTentative : FindingOfEvents
{
    private const int DaysBefore = 3;

    public override Severity Severity => Severity.ToLookAt;

    protected override Finding? In(TellsOf told, ProofGround ground) =>
        told.Shown.Certainty == Certainty.Tentative && told.Next.Event.State == EventState.Live
            && told.Day < ground.Today.PlusDays(DaysBefore)
            ? About(told, [Remedy.At(told)], ("day", told.Day))
            : null;
}

/// <summary>It can be fetched, and nobody does.</summary>
internal sealed class NobodyFetches : FindingKind
{
    private static readonly Duration Settling = Duration.FromDays(14);

    public override Severity Severity => Severity.ForInformation;

    public override IEnumerable<Finding> In(ProofGround ground) =>
        ground.Around.Fetched is { Programs: 0 } fetched && fetched.OutSince < ground.Now - Settling
            ? [About("", null, [Remedy.Edition])]
            : [];
}

/// <summary>Programs fetch it, and there is nothing new for them.</summary>
internal sealed class ReadButEmptyAhead : FindingKind
{
    private const int Weeks = 8;

    public override Severity Severity => Severity.ToLookAt;

    public override IEnumerable<Finding> In(ProofGround ground) =>
        ground.Around.Fetched is { Programs: > 0 } fetched
            && !ground.Ahead.Any(entry => entry.Occurrence.LocalStart.Date < ground.Today.PlusWeeks(Weeks))
            ? [About("", null, [Remedy.Edition], ("count", fetched.Programs), ("weeks", Weeks))]
            : [];
}

/// <summary>What changed days ago has not come to most of those that usually fetch it.</summary>
internal sealed class ProgramsStayOld : FindingKind
{
    /// <summary>Fewer tell nothing.</summary>
    private const int Enough = 4;

    /// <summary>By then the slow ones have asked too.</summary>
    private static readonly Duration Patience = Duration.FromDays(2);

    public override Severity Severity => Severity.ToLookAt;

    public override IEnumerable<Finding> In(ProofGround ground) =>
        ground.Around.Fetched is { ChangedAt: { } changed, Reach: { Usual: >= Enough } reach }
            && ground.Now - changed > Patience && reach.Since * 2 < reach.Usual
            ? [About("", null, [Remedy.Edition], ("usual", reach.Usual), ("count", reach.Since),
                ("day", changed.InZone(ground.Edition.Zone).Date))]
            : [];
}

/// <summary>Events say of what they remind, and its feed does not.</summary>
internal sealed class RemindersUntold : FindingKind
{
    public override Severity Severity => Severity.ForInformation;

    public override IEnumerable<Finding> In(ProofGround ground) =>
        ground.Edition.Reminding == Reminding.Nothing
            && ground.Told.Count(told => told.Detail == Detail.Complete && told.Content.Reminder is not null) is > 0 and var count
            ? [About("", null, [Remedy.Set(EditionSetting.DeliverReminders)], ("count", count))]
            : [];
}

/// <summary>What is cancelled goes from it without a word.</summary>
internal sealed class CancelledUntold : FindingKind
{
    public override Severity Severity => Severity.ToLookAt;

    public override IEnumerable<Finding> In(ProofGround ground)
    {
        if (ground.Edition.WithCancelled)
            return [];
        var gone = (from one in ground.Events
                    where ground.Sources.Any(source => one.Calendars.Contains(source.CalendarId))
                    from date in EventDates.In(one, ground.Year, ground.School)
                    where date.State == EventState.Cancelled && date.Occurrence.End > ground.Now
                    orderby date.Occurrence.Start
                    select date).Take(100).ToArray();
        return gone.Length == 0
            ? []
            : [About("", null, [Remedy.Set(EditionSetting.DeliverCancelled)],
                ("title", gone[0].Title), ("day", gone[0].Occurrence.LocalStart.Date), ("count", gone.Length)).Naming(gone[0].Event)];
    }
}
