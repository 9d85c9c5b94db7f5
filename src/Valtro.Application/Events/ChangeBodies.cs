using NodaTime;
using Valtro.Core.Events;

namespace Valtro.Application.Events;

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
public sealed record ChangeResponse(
    Guid ActId, Guid EventId, int Version, string Title, LocalDate Date, bool IsRemoved, bool Waits, IReadOnlyList<string> AsksFor);

public sealed record ActResponse(Guid ActId, int Events);
