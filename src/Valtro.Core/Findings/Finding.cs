using NodaTime;
using Valtro.Core.Acts;
using Valtro.Core.Disclosure;
using Valtro.Core.Events;
using Valtro.Core.Speaking;

namespace Valtro.Core.Findings;

/// <summary>How much a finding matters, worst first.</summary>
public enum Severity
{
    /// <summary>Something does not reach its readers.</summary>
    KeepsFromReaders,

    ToLookAt,
    ForInformation,
}

/// <summary>How something is put right.</summary>
public enum RemedyWay
{
    /// <summary>Where the event is written.</summary>
    Event,

    /// <summary>By an act upon an event, whose consequences are shown first.</summary>
    Act,

    /// <summary>By another setting of the edition, whose consequences are shown first.</summary>
    Setting,

    /// <summary>By opening a calendar, which shows first what that reveals.</summary>
    Opening,

    /// <summary>On the page of a followed source.</summary>
    Source,
    SignOff,

    /// <summary>In the plan, at a day.</summary>
    Plan,
    YearPlan,

    /// <summary>Where the edition is made.</summary>
    Edition,
}

/// <summary>A way to put a finding right: a button.</summary>
public sealed record Remedy(RemedyWay Way)
{
    public Guid? EventId { get; init; }

    /// <summary>Which date of the event, by its rule position.</summary>
    public LocalDateTime? Date { get; init; }

    /// <summary>The calendar to open, or the one of which the edition takes something else.</summary>
    public Guid? CalendarId { get; init; }

    public Guid? SourceId { get; init; }

    /// <summary>The day to look at.</summary>
    public LocalDate? Day { get; init; }

    public ChosenAct? Act { get; init; }

    public EditionSetting? Setting { get; init; }

    public static Remedy Edition { get; } = new(RemedyWay.Edition);

    public static Remedy SignOff { get; } = new(RemedyWay.SignOff);

    public static Remedy YearPlan { get; } = new(RemedyWay.YearPlan);

    public static Remedy At(Guid eventId, LocalDateTime date) => new(RemedyWay.Event) { EventId = eventId, Date = date };

    public static Remedy At(in TellsOf told) => At(told.Event.Id, told.Date);

    public static Remedy Doing(ChosenAct act, Guid eventId, LocalDateTime date) =>
        new(RemedyWay.Act) { Act = act, EventId = eventId, Date = date };

    public static Remedy Doing(ChosenAct act, in TellsOf told) => Doing(act, told.Event.Id, told.Date);

    public static Remedy Set(EditionSetting setting, Guid? calendarId = null) =>
        new(RemedyWay.Setting) { Setting = setting, CalendarId = calendarId };

    public static Remedy Open(Guid calendarId) => new(RemedyWay.Opening) { CalendarId = calendarId };

    public static Remedy See(LocalDate day) => new(RemedyWay.Plan) { Day = day };
}

/// <summary>One thing that is wrong with an edition.</summary>
/// <param name="Kind">The code of its kind.</param>
/// <param name="About">Tells it from others of its kind, for as long as it is the same: an event, a calendar, a week; empty for the edition
/// as a whole.</param>
/// <param name="Title">In a few words.</param>
/// <param name="Text">A sentence or two: what it means for readers.</param>
/// <param name="Where">What it is about, where the title does not say; null where it does.</param>
public sealed record Finding(
    string Kind, Severity Severity, string About, Saying Title, Saying Text, Saying? Where, IReadOnlyList<Remedy> Remedies)
{
    /// <summary>Of a week that stands out on the ribbon: its first day.</summary>
    public LocalDate? Week { get; init; }

    /// <summary>The home calendars of the events that it names: whoever does not see all of these does not hear of it.</summary>
    public ValueList<Guid> KeptOn { get; init; } = [];

    /// <summary>It says no more than everybody who sees all of these calendars may know.</summary>
    public bool IsPlain { get; init; } = true;

    /// <summary>It names these events.</summary>
    public Finding Naming(params ReadOnlySpan<CalendarEvent> events)
    {
        var (kept, isPlain) = (new HashSet<Guid>(KeptOn), IsPlain);
        foreach (var one in events)
        {
            kept.Add(one.HomeCalendarId);
            isPlain &= one.Content.Cap == Cap.None && one.Content.Showing == ShowingSpan.Always && Visibility.LeavesTheHouse(one.State);
        }
        return this with { KeptOn = [.. kept.Order()], IsPlain = isPlain };
    }
}
