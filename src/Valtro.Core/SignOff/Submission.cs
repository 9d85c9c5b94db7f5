using NodaTime;
using Valtro.Core.Events;

namespace Valtro.Core.SignOff;

public enum SubmissionKind
{
    /// <summary>A new event.</summary>
    Event,

    /// <summary>A change to a live one.</summary>
    Change,

    /// <summary>A live event, to be shown on one more calendar.</summary>
    Placement,
}

public enum SubmissionState
{
    Open,
    Approved,
    SentBack,
    Withdrawn,
}

/// <summary>Something that waits for, or got, a decision of those who keep a calendar.</summary>
/// <param name="CalendarId">Whose editors decide.</param>
/// <param name="Request">Of a change: what was asked for.</param>
/// <param name="Before">Of a change: what the form showed before it.</param>
public sealed record Submission(
    Guid Id, SubmissionKind Kind, Guid EventId, Guid CalendarId, string Title, Guid ProposerId, string Proposer, Instant MadeAt,
    ChangeRequest? Request, EventForm? Before, SubmissionState State, string Reason, string? DecidedBy, Instant? DecidedAt);

/// <summary>One more thing to be decided.</summary>
/// <param name="EventId">Empty for a new event that the same act writes.</param>
public sealed record NewSubmission(
    SubmissionKind Kind, Guid EventId, Guid CalendarId, string Title, ChangeRequest? Request = null, EventForm? Before = null)
{
    /// <summary>Of a new event: which of those that the act writes.</summary>
    public int Write { get; init; }
}

/// <summary>A decision about one submission.</summary>
/// <param name="Reason">Why it was sent back.</param>
public sealed record Verdict(Submission About, SubmissionState State, string Reason = "");
