using Valtro.Core.Acts;

namespace Valtro.Application.Events;

/// <summary>One date of an event.</summary>
public sealed record ChosenDateBody(Guid EventId, string RecurrenceId);

/// <summary>What is to be done to all that was chosen. Each act reads what it needs.</summary>
/// <param name="Days">Of a move; fewer than none is earlier.</param>
/// <param name="CategoryId">None takes the category away.</param>
/// <param name="YearPlanId">Of a copy: the year in which the term is.</param>
/// <param name="Term">Of a copy: the term's name.</param>
public sealed record ChosenActBody(
    ChosenAct Act, int? Days, Guid? CalendarId, Guid? CategoryId, string? Tag, string? Place, Guid? YearPlanId, string? Term);

/// <param name="Scope">Where dates of series were chosen: these dates, or all of their series.</param>
/// <param name="Seen">What the preview said it was made of; what changed since is refused.</param>
public sealed record ChosenRequest(
    IReadOnlyList<ChosenDateBody> Dates, ChosenScope? Scope, ChosenActBody Change, string? Seen);

/// <summary>One date that is concerned.</summary>
/// <param name="Was">In words; empty for a copy.</param>
/// <param name="Becomes">In words; empty where it goes, or stays when it is.</param>
/// <param name="Remark">What to look at; empty where there is nothing.</param>
public sealed record ChosenLine(Guid CalendarId, string Title, string Was, string Becomes, string Remark);

/// <param name="Why">In words.</param>
public sealed record LeftOutBody(Guid EventId, Guid CalendarId, string Title, string Why);

/// <param name="Dates">How many are chosen.</param>
/// <param name="Events">Of how many events.</param>
/// <param name="HasSeries">Some are dates of series, so that there is a choice.</param>
/// <param name="OfSeries">Series of which all dates are concerned.</param>
/// <param name="Lines">The first dates; those that need a look first.</param>
/// <param name="MoreLines">How many there are beyond.</param>
/// <param name="LeftOut">The first events that stay as they are.</param>
/// <param name="LeftOutCount">How many these are.</param>
/// <param name="InBreaks">Dates that would be in a break.</param>
/// <param name="Clashing">Dates that would be while something else is.</param>
/// <param name="AsksFor">Calendars whose editors are asked whether it may be shown there.</param>
/// <param name="Seen">Names what this was made of; a save sends it back.</param>
public sealed record ChosenPreview(
    int Dates, int Events, bool HasSeries, int OfSeries, ForeseenBody Foreseen, IReadOnlyList<ChosenLine> Lines, int MoreLines,
    IReadOnlyList<LeftOutBody> LeftOut, int LeftOutCount, int InBreaks, int Clashing, IReadOnlyList<string> AsksFor, string Seen);
