using NodaTime;
using Valtro.Core.Events;
using Valtro.Core.Speaking;
using Valtro.Core.YearPlans;

namespace Valtro.Core.Acts;

/// <summary>What can be done to many at once.</summary>
public enum ChosenAct
{
    /// <summary>By days.</summary>
    Move,

    /// <summary>To another calendar.</summary>
    Calendar,

    /// <summary>Shown on one more calendar.</summary>
    PlaceOn,

    /// <summary>Not shown any more on a calendar that is not its own.</summary>
    TakeOff,

    Category,
    AddTag,
    TakeTag,
    Place,

    /// <summary>What has not gone out stays in the house.</summary>
    Draft,

    /// <summary>Drafts, and what waits, go out.</summary>
    LetOut,

    Cancel,
    Restore,
    Remove,

    /// <summary>The same once more in another term: the same weekday of the same week.</summary>
    Copy,

    /// <summary>A series ends when the year plan does in which the chosen date is.</summary>
    EndWithPlan,

    /// <summary>A series leaves out the breaks of the year plan.</summary>
    SkipBreaks,
}

/// <summary>How much of a series is meant, where one of its dates was chosen.</summary>
public enum ChosenScope
{
    Dates,
    Series,
}

/// <summary>What is done, with what it needs.</summary>
public sealed record ChosenChange(ChosenAct Act)
{
    /// <summary>Of a move; fewer than none is earlier.</summary>
    public int Days { get; init; }

    /// <summary>A calendar, where it is about one.</summary>
    public Guid CalendarId { get; init; }

    public Category? Category { get; init; }

    /// <summary>A tag.</summary>
    public string Tag { get; init; } = "";

    public Place Place { get; init; } = Place.Nowhere;

    /// <summary>Where copies go: a year, and a term of it.</summary>
    public (YearPlan Year, NamedDays Term)? Into { get; init; }

    /// <summary>It is about the event as a whole, whichever of its dates was chosen.</summary>
    public bool IsOfWholeEvent =>
        Act is not (ChosenAct.Move or ChosenAct.Place or ChosenAct.Cancel or ChosenAct.Restore or ChosenAct.Remove);
}

/// <summary>An event of which dates were chosen.</summary>
/// <param name="Dates">Rule positions, ascending.</param>
/// <param name="MayChange">Whoever chose it may change it at once.</param>
public sealed record ChosenEvent(
    StoredEvent Stored, IReadOnlyList<LocalDateTime> Dates, IReadOnlyList<SignOff.Submission> About, bool MayChange = true);

/// <summary>An event that stays as it is.</summary>
public sealed record LeftOut(StoredEvent Stored, Saying Why);

/// <summary>A date that is concerned: as it is, and as it would be.</summary>
/// <param name="Was">Null for a copy.</param>
/// <param name="Becomes">Null where it goes.</param>
/// <param name="MeetsOwn">Another date of the same event would be at that time.</param>
public sealed record ChosenDate(EventDate? Was, EventDate? Becomes, bool MeetsOwn = false);

/// <summary>What would become of all that was chosen.</summary>
/// <param name="Dates">The first dates of each event; one alone where its dates stay when they are.</param>
/// <param name="OfSeries">Events of which more dates are concerned than were chosen.</param>
public sealed record ChosenOutcome(Act Act, IReadOnlyList<LeftOut> LeftOut, IReadOnlyList<ChosenDate> Dates, int OfSeries);
