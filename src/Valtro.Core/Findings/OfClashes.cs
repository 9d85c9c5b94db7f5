using Valtro.Core.Clashes;
using Valtro.Core.Speaking;

namespace Valtro.Core.Findings;

/// <summary>Dates that should not be at one time, two events at a time.</summary>
internal abstract class FindingOfClashes(ClashKind kind) : FindingKind
{
    public override IEnumerable<Finding> In(ProofGround ground) =>
        from clash in ground.Clashes
        where clash.Kind == kind
        group clash by (One: clash.Of.Event.Id, Other: clash.With.Event.Id) into pair
        let both = new[] { pair.First().Of, pair.First().With }
            .OrderBy(date => date.Occurrence.Start).ThenBy(date => date.Title, StringComparer.Ordinal).ToArray()
        let day = both[1].Occurrence.LocalStart.Date
        select About($"{pair.Key.One:N}{pair.Key.Other:N}", Saying.Of("finding.on", ("day", day)),
            [.. both.Select(date => Remedy.At(date.Event.Id, date.Occurrence.RecurrenceId)), Remedy.See(day)],
            ("what", pair.First().What), ("title", both[0].Title), ("other", both[1].Title),
            ("calendar", ground.NameOf(both[0].Event.HomeCalendarId)), ("otherCalendar", ground.NameOf(both[1].Event.HomeCalendarId)),
            ("from", $"{both[1].Occurrence.LocalStart:HH:mm}"), ("count", pair.Count())).Naming(both[0].Event, both[1].Event);
}

/// <summary>A place is taken twice.</summary>
internal sealed class PlaceTakenTwice() : FindingOfClashes(ClashKind.Place)
{
    public override Severity Severity => Severity.ToLookAt;
}

/// <summary>Somebody would have to be in two places.</summary>
internal sealed class PersonNeededTwice() : FindingOfClashes(ClashKind.Person)
{
    public override Severity Severity => Severity.ToLookAt;

    protected override bool IsForKeepers => true;
}

/// <summary>Two things are on for the same readers.</summary>
internal sealed class ReadersDivided() : FindingOfClashes(ClashKind.Readership)
{
    public override Severity Severity => Severity.ForInformation;
}

/// <summary>A week holds more of a category than anybody wants for the same readers.</summary>
internal sealed class WeekTooFull : FindingKind
{
    public override Severity Severity => Severity.ToLookAt;

    public override IEnumerable<Finding> In(ProofGround ground) =>
        from load in new WeekLoads(ground.Dates, ground.Around.MostInAWeek, ground.Around.ReadersOf, ground.Edition.FirstDayOfWeek).Find()
        select About($"{load.Week:yyyyMMdd}{load.Category:N}{load.Readers}", null, [Remedy.See(load.Week)],
            ("category", ground.Around.CategoryName(load.Category)), ("count", load.Count), ("most", load.Most), ("readers", load.Readers),
            ("day", load.Week)) with
        { Week = load.Week };
}
