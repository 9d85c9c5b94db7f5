using NodaTime;
using Valtro.Core.Disclosure;
using Valtro.Core.Events;
using Valtro.Core.SignOff;

namespace Valtro.Application.Events;

/// <param name="Size">Bytes.</param>
public sealed record EventFileBody(Guid Id, string Name, string Type, long Size)
{
    public static EventFileBody Of(EventFile file) => new(file.Id, file.Name, file.Type, file.Size);
}

/// <summary>What somebody handed in about an event, shown with it.</summary>
/// <param name="IsYours">The person who asks handed it in.</param>
public sealed record AboutBody(Guid Id, SubmissionKind Kind, SubmissionState State, Guid CalendarId, string Proposer, bool IsYours,
    Instant MadeAt, string Reason, string? DecidedBy);

/// <summary>An event seen from one of its dates: what the form says of it, and all that goes with it.</summary>
public sealed record EventResponse : EventDraft
{
    public EventResponse(EventDraft form)
        : base(form)
    {
    }

    public required Guid Id { get; init; }

    /// <summary>Undoes its making; null where it was not just made.</summary>
    public Guid? ActId { get; init; }

    public required Guid CalendarId { get; init; }

    public required Detail Detail { get; init; }

    /// <summary>Names the date that is shown.</summary>
    public required string RecurrenceId { get; init; }

    public required ElsewhereBody? OnCalendarClock { get; init; }

    public required CategoryBody? Category { get; init; }

    /// <summary>What its files are.</summary>
    public required IReadOnlyList<EventFileBody> Attached { get; init; }

    public required bool Recurs { get; init; }

    /// <summary>The first day of the series.</summary>
    public required LocalDate SeriesStart { get; init; }

    /// <summary>The pattern in words.</summary>
    public required string Words { get; init; }

    public required EventState State { get; init; }

    /// <summary>What of this date differs from its series, in words; empty when it does not.</summary>
    public required string Differs { get; init; }

    /// <summary>This date is cancelled, not the series.</summary>
    public required bool IsCancelledAlone { get; init; }

    /// <summary>They may change it, at once or by way of sign-off.</summary>
    public required bool MayEdit { get; init; }

    /// <summary>Null for those who may not change it.</summary>
    public required int? Version { get; init; }

    public required bool IsRemoved { get; init; }

    /// <summary>A followed source says it: what it says is not changed here. For those who may change it.</summary>
    public required bool IsFollowed { get; init; }

    public required string? SavedBy { get; init; }

    public required Instant? SavedAt { get; init; }

    /// <summary>What the person changes has to wait for sign-off.</summary>
    public required bool Waits { get; init; }

    /// <summary>Further calendars on which they see it.</summary>
    public required IReadOnlyList<Guid> Placements { get; init; }

    /// <summary>When it was just made: calendars whose editors were asked whether it may be shown there.</summary>
    public required IReadOnlyList<string> AsksFor { get; init; }

    /// <summary>What waits or was sent back about it, for those who may change it.</summary>
    public required IReadOnlyList<AboutBody> About { get; init; }
}
