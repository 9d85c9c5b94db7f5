using NodaTime;
using Valtro.Core.Disclosure;
using Valtro.Core.Events;
using Valtro.Core.Typing;
using Valtro.Store;

namespace Valtro.Server.Api;

public sealed record CategoryBody(Guid Id, string Name, string Colour)
{
    public static CategoryBody? Of(Category? category) => category is null ? null : new(category.Id, category.Name, category.Hue.Name);
}

/// <param name="Size">Bytes.</param>
public sealed record EventFileBody(Guid Id, string Name, string Type, long Size)
{
    public static EventFileBody Of(EventFile file) => new(file.Id, file.Name, file.Type, file.Size);
}

/// <param name="Was">What they see of it now.</param>
public sealed record WhoSeesBody(Audience Audience, Detail Detail, Detail Was, string Sentence)
{
    public static WhoSeesBody Of(WhoSees who) => new(who.Audience, who.Detail, who.Was, who.Sentence);
}

/// <summary>What somebody handed in about an event, shown with it.</summary>
/// <param name="IsYours">The person who asks handed it in.</param>
public sealed record AboutBody(Guid Id, SubmissionKind Kind, SubmissionState State, Guid CalendarId, string Proposer, bool IsYours, Instant MadeAt, string Reason, string? DecidedBy);

/// <summary>The same date on another clock.</summary>
public sealed record ElsewhereBody(string Zone, string Start, string End)
{
    /// <summary>An event's date on the clock of a calendar.</summary>
    /// <returns>Null where both clocks show the same.</returns>
    public static ElsewhereBody? Of(Core.Time.Timing timing, Core.Recurrence.Occurrence occurrence, DateTimeZone zone) =>
        timing.AllDay ? null : On(zone, timing.Zone, occurrence);

    /// <summary>An event's date, shown in some zone, on the event's own clock.</summary>
    /// <returns>Null where both clocks show the same.</returns>
    public static ElsewhereBody? OnItsOwn(Core.Time.Timing timing, Core.Recurrence.Occurrence occurrence, DateTimeZone shown) =>
        timing.AllDay ? null : On(timing.Zone, shown, occurrence);

    private static ElsewhereBody? On(DateTimeZone clock, DateTimeZone other, Core.Recurrence.Occurrence occurrence) =>
        clock.Id == other.Id || clock.GetUtcOffset(occurrence.Start) == other.GetUtcOffset(occurrence.Start)
            ? null
            : new ElsewhereBody(clock.Id, OccurrenceTimes.At(occurrence.Start, clock), OccurrenceTimes.At(occurrence.End, clock));
}

/// <summary>An event seen from one of its dates: what the form says of it, and all that goes with it.</summary>
public sealed record EventResponse : EventDraft
{
    public EventResponse(EventDraft form)
        : base(form)
    {
    }

    public required Guid Id { get; init; }

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

/// <param name="EventId">The event that is being changed; null for a new one.</param>
/// <param name="RecurrenceId">The date that it is seen from.</param>
public sealed record ConsequencesRequest(EventForm Event, Guid? EventId, string? RecurrenceId);

/// <param name="Remarks">What is special about the date, in words.</param>
public sealed record ConsequenceDateBody(string RecurrenceId, string Start, string End, DateKind Kind, IReadOnlyList<string> Remarks);

/// <param name="Count">Null when there is no end.</param>
/// <param name="Days">The days of the first year on which it takes place.</param>
/// <param name="Rule">The pattern as RRULE, where there is one.</param>
public sealed record ConsequencesResponse(
    string Words, int? Count, bool AllDay, IReadOnlyList<ConsequenceDateBody> Dates, ConsequenceDateBody? Last, IReadOnlyList<LocalDate> Days,
    IReadOnlyList<string> Remarks, string? Rule, ElsewhereBody? OnCalendarClock, IReadOnlyList<WhoSeesBody> WhoSees);

public sealed record LostBody(string RecurrenceId, string Words);

/// <param name="Reason">Why it is not possible, when it is not.</param>
/// <param name="Count">How many dates it concerns; null without end.</param>
/// <param name="Dates">The first of these dates as they become, in words.</param>
/// <param name="Kept">Dates that differ and stay where they are, in words.</param>
/// <param name="Moved">Dates that differ and move along, in words.</param>
/// <param name="Lost">Dates that differ and lose their place.</param>
public sealed record ScopeBody(
    ChangeScope Scope, string? Reason, int? Count, IReadOnlyList<string> Dates,
    IReadOnlyList<string> Kept, IReadOnlyList<string> Moved, IReadOnlyList<LostBody> Lost);

/// <param name="Seen">The date on which the change was made, in words.</param>
/// <param name="HasChoice">False when there is only one scope, and nothing is lost.</param>
/// <param name="Waits">It will wait for sign-off.</param>
/// <param name="NewlySees">Who will see more of it than before, in words.</param>
/// <param name="AsksFor">Calendars whose editors are asked whether it may be shown there.</param>
public sealed record ChangePreview(
    string Title, string Seen, IReadOnlyList<EventDifference> Differences, bool HasChoice, IReadOnlyList<ScopeBody> Scopes,
    bool Waits, IReadOnlyList<string> NewlySees, IReadOnlyList<string> AsksFor);

/// <param name="ActId">Undoes it.</param>
/// <param name="Date">The day to show the plan at.</param>
/// <param name="Waits">It waits for sign-off.</param>
/// <param name="AsksFor">Calendars whose editors were asked.</param>
public sealed record ChangeResponse(Guid ActId, Guid EventId, int Version, string Title, LocalDate Date, bool IsRemoved, bool Waits, IReadOnlyList<string> AsksFor);

public sealed record ActResponse(Guid ActId, int Events);

public sealed record RevisionResponse(int Version, EventAct Act, string By, Instant At, bool MayRestore, IReadOnlyList<EventDifference> Differences);

public sealed record BinResponse(Guid Id, Guid CalendarId, string Title, string Words, string By, Instant RemovedAt, Instant GoneAt, int Version);

/// <param name="Day">Where "tomorrow" and weekdays count from.</param>
public sealed record LineRequest(string Text, LocalDate Day);

public sealed record LineResponse(EventForm Event, IReadOnlyList<Understood> Understood, IReadOnlyList<string> Unread);

/// <param name="CalendarId">For rows that name none.</param>
public sealed record SeveralRequest(IReadOnlyList<TableRow> Rows, Guid? CalendarId);

/// <param name="Words">What the row was read as; empty when something is wrong.</param>
/// <param name="Errors">By column.</param>
public sealed record RowResponse(bool IsEmpty, string Words, Guid? CalendarId, IReadOnlyDictionary<string, string> Errors);

public sealed record SeveralResponse(IReadOnlyList<RowResponse> Rows);
