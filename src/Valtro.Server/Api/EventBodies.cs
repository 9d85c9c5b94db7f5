using NodaTime;
using Valtro.Core.Disclosure;
using Valtro.Core.Events;
using Valtro.Core.Recurrence;
using Valtro.Core.Typing;
using Valtro.Store;

namespace Valtro.Server.Api;

/// <param name="EndDate">The last day, inclusive; the first one when it is missing.</param>
/// <param name="Description">HTML; sanitised on the server.</param>
/// <param name="Extra">Further days, with the start's time.</param>
/// <param name="Removed">Names of dates that fall away.</param>
public sealed record EventRequest(
    Guid CalendarId, string? Title, bool AllDay, LocalDate? Date, LocalDate? EndDate, LocalTime? From, LocalTime? To,
    string? Zone, string? Place, string? Description, RepeatDraft? Repeat, InBreaks? InBreaks = null,
    IReadOnlyList<LocalDate>? Extra = null, IReadOnlyList<string>? Removed = null, Guid? CategoryId = null, IReadOnlyList<string>? Tags = null)
{
    /// <summary>Further calendars it is shown on. Missing: as they are. Those that the person cannot see stay whatever is said.</summary>
    public IReadOnlyList<Guid>? Placements { get; init; }

    public IReadOnlyList<EventLink>? Links { get; init; }

    /// <summary>Files that were brought before, by their ids.</summary>
    public IReadOnlyList<Guid>? Files { get; init; }

    public string? Contact { get; init; }

    public string? Notes { get; init; }

    public CapBody? Cap { get; init; }

    public LocalDate? ShowFrom { get; init; }

    /// <summary>The last day on which it is shown.</summary>
    public LocalDate? ShowUntil { get; init; }

    /// <summary>It stays a draft, for those who make it.</summary>
    public bool IsDraft { get; init; }

    public EventDraft ToDraft() => new(Title, AllDay, Date, EndDate, From, To, Zone, Place, Repeat)
    {
        InBreaks = InBreaks ?? default,
        Extra = Extra ?? [],
        Removed = [.. (Removed ?? []).Select(name => OccurrenceTimes.ReadName(name, "removed"))],
        CategoryId = CategoryId,
        Tags = Tags ?? [],
        Links = Links ?? [],
        Contact = Contact,
        Notes = Notes,
        CapMembers = Cap?.Members,
        CapLink = Cap?.Link,
        CapEveryone = Cap?.Everyone,
        ShowFrom = ShowFrom,
        ShowUntil = ShowUntil,
    };

    /// <summary>What the form would send if nothing in it were changed.</summary>
    public static EventRequest Of(EventResponse shown) => new(
        shown.CalendarId, shown.Title, shown.AllDay, shown.Date, shown.EndDate, shown.From, shown.To, shown.Zone, shown.Place, shown.Description, shown.Repeat,
        shown.InBreaks, shown.Extra, shown.Removed, shown.Category?.Id, shown.Tags)
    {
        Placements = shown.Placements,
        Links = shown.Links,
        Files = [.. shown.Files.Select(file => file.Id)],
        Contact = shown.Contact,
        Notes = shown.Notes,
        Cap = shown.Cap,
        ShowFrom = shown.ShowFrom,
        ShowUntil = shown.ShowUntil,
        IsDraft = shown.State == EventState.Draft,
    };

    /// <param name="calendarId">The calendar, or an empty id where the draft does not know.</param>
    public static EventRequest Of(EventDraft draft, Guid calendarId) => new(
        calendarId, draft.Title, draft.AllDay, draft.Date, draft.EndDate, draft.From, draft.To, draft.Zone, draft.Place, "", draft.Repeat,
        draft.InBreaks, draft.Extra, [], draft.CategoryId, draft.Tags);
}

public sealed record CategoryBody(Guid Id, string Name, string Colour)
{
    public static CategoryBody? Of(Category? category) => category is null ? null : new(category.Id, category.Name, category.Hue.Name);
}

/// <summary>What an event itself allows at most; null is "as the calendar says".</summary>
public sealed record CapBody(Detail? Members, Detail? Link, Detail? Everyone)
{
    public static CapBody Of(Cap cap) => new(cap.Members, cap.Link, cap.Everyone);
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

/// <summary>The same date on the calendar's clock, where the event has its own time zone.</summary>
public sealed record ElsewhereBody(string Zone, string Start, string End);

/// <summary>An event seen from one of its dates.</summary>
/// <param name="RecurrenceId">Names the date that is shown.</param>
/// <param name="SeriesStart">The first day of the series.</param>
/// <param name="Words">The pattern in words.</param>
/// <param name="Differs">What of this date differs from its series, in words; empty when it does not.</param>
/// <param name="IsCancelledAlone">This date is cancelled, not the series.</param>
/// <param name="MayEdit">They may change it, at once or by way of sign-off.</param>
/// <param name="Version">Null for those who may not change it.</param>
public sealed record EventResponse(
    Guid Id, Guid CalendarId, Detail Detail, string RecurrenceId, string Title, bool AllDay, LocalDate Date, LocalDate EndDate, LocalTime? From, LocalTime? To,
    string Zone, ElsewhereBody? OnCalendarClock, string Place, string Description, CategoryBody? Category, IReadOnlyList<string> Tags,
    bool Recurs, LocalDate SeriesStart, RepeatDraft? Repeat, InBreaks InBreaks, IReadOnlyList<LocalDate> Extra, IReadOnlyList<string> Removed,
    string Words, EventState State, string Differs, bool IsCancelledAlone, bool MayEdit, int? Version, bool IsRemoved, string? SavedBy, Instant? SavedAt)
{
    /// <summary>What the person changes has to wait for sign-off.</summary>
    public required bool Waits { get; init; }

    /// <summary>Further calendars on which they see it.</summary>
    public required IReadOnlyList<Guid> Placements { get; init; }

    public required IReadOnlyList<EventLink> Links { get; init; }

    public required IReadOnlyList<EventFileBody> Files { get; init; }

    public required string Contact { get; init; }

    public required string Notes { get; init; }

    public required CapBody? Cap { get; init; }

    public required LocalDate? ShowFrom { get; init; }

    public required LocalDate? ShowUntil { get; init; }

    /// <summary>When it was just made: calendars whose editors were asked whether it may be shown there.</summary>
    public required IReadOnlyList<string> AsksFor { get; init; }

    /// <summary>What waits or was sent back about it, for those who may change it.</summary>
    public required IReadOnlyList<AboutBody> About { get; init; }
}

/// <param name="EventId">The event that is being changed; null for a new one.</param>
/// <param name="RecurrenceId">The date that it is seen from.</param>
public sealed record ConsequencesRequest(EventRequest Event, Guid? EventId, string? RecurrenceId);

/// <param name="Remarks">What is special about the date, in words.</param>
public sealed record ConsequenceDateBody(string RecurrenceId, string Start, string End, DateKind Kind, IReadOnlyList<string> Remarks);

/// <param name="Count">Null when there is no end.</param>
/// <param name="Days">The days of the first year on which it takes place.</param>
/// <param name="Rule">The pattern as RRULE, where there is one.</param>
public sealed record ConsequencesResponse(
    string Words, int? Count, bool AllDay, IReadOnlyList<ConsequenceDateBody> Dates, ConsequenceDateBody? Last, IReadOnlyList<LocalDate> Days,
    IReadOnlyList<string> Remarks, string? Rule, ElsewhereBody? OnCalendarClock, IReadOnlyList<WhoSeesBody> WhoSees);

/// <summary>Where a slip was dropped.</summary>
/// <param name="From">The new start time; the old one when it is missing.</param>
public sealed record MoveBody(LocalDate Date, LocalTime? From);

/// <param name="RecurrenceId">The date on which the change was made.</param>
/// <param name="Event">For an edit: all that the form says.</param>
/// <param name="Move">For an edit by dragging, instead of <paramref name="Event"/>.</param>
/// <param name="Scope">Not needed for a preview, nor for an event without more dates.</param>
/// <param name="Keep">Of the dates that lose their place, those to keep as extra dates.</param>
public sealed record ChangeRequest(
    ChangeAct Act, string RecurrenceId, int Version, EventRequest? Event, MoveBody? Move, ChangeScope? Scope, IReadOnlyList<string>? Keep)
{
    /// <summary>What was handed in, and is settled by this change: approved with it by who may, replaced by it by who handed it in.</summary>
    public Guid? SubmissionId { get; init; }
}

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

public sealed record LineResponse(EventRequest Event, IReadOnlyList<Understood> Understood, IReadOnlyList<string> Unread);

/// <param name="CalendarId">For rows that name none.</param>
public sealed record SeveralRequest(IReadOnlyList<TableRow> Rows, Guid? CalendarId);

/// <param name="Words">What the row was read as; empty when something is wrong.</param>
/// <param name="Errors">By column.</param>
public sealed record RowResponse(bool IsEmpty, string Words, Guid? CalendarId, IReadOnlyDictionary<string, string> Errors);

public sealed record SeveralResponse(IReadOnlyList<RowResponse> Rows);
