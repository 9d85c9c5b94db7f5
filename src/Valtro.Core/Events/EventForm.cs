using NodaTime;
using Valtro.Core.Time;

namespace Valtro.Core.Events;

/// <summary>An event as a form says it: what it is, and where it stands.</summary>
public sealed record EventForm : EventDraft
{
    public EventForm()
    {
    }

    public EventForm(EventDraft draft)
        : base(draft)
    {
    }

    public Guid CalendarId { get; init; }

    /// <summary>Further calendars it is shown on. Missing: as they are. Those that the person cannot see stay whatever is said.</summary>
    public IReadOnlyList<Guid>? Placements { get; init; }

    /// <summary>It stays a draft, for those who make it.</summary>
    public bool IsDraft { get; init; }
}

/// <summary>Where a slip was dropped.</summary>
/// <param name="From">The new start time; the old one when it is missing.</param>
/// <param name="Minutes">How long it is to last; as long as before when it is missing.</param>
public sealed record EventMove(LocalDate Date, LocalTime? From, int? Minutes = null)
{
    /// <summary>The date where it was dropped, or as long as it was drawn.</summary>
    /// <exception cref="RuleException">It cannot last so long.</exception>
    public Timing Of(Timing timing)
    {
        var start = Date + (timing.AllDay ? LocalTime.Midnight : From ?? timing.Start.TimeOfDay);
        if (Minutes is not { } minutes)
            return timing.MovedTo(start);
        return !timing.AllDay && minutes is > 0 and <= Timing.LongestDays * 24 * 60
            ? timing.Between(start, start.PlusMinutes(minutes))
            : throw new RuleException("move.minutes", "event.minutes", ("most", Timing.LongestDays));
    }
}

/// <summary>What somebody asks to be done with an event.</summary>
/// <param name="RecurrenceId">Names the date on which the change was made (<see cref="Recurrence.DateName"/>).</param>
/// <param name="Version">Of the event as they saw it.</param>
/// <param name="Event">For an edit: all that the form says.</param>
/// <param name="Move">For an edit by dragging, instead of <paramref name="Event"/>.</param>
/// <param name="Scope">Not needed for a preview, nor for an event without more dates.</param>
/// <param name="Keep">Of the dates that lose their place, those to keep as extra dates, by their names.</param>
public sealed record ChangeRequest(
    ChangeAct Act, string RecurrenceId, int Version, EventForm? Event = null, EventMove? Move = null, ChangeScope? Scope = null,
        IReadOnlyList<string>? Keep = null)
{
    /// <summary>What was handed in, and is settled by this change: approved with it by who may, replaced by it by who handed it
    /// in.</summary>
    public Guid? SubmissionId { get; init; }
}
