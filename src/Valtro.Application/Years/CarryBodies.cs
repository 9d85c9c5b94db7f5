using NodaTime;

namespace Valtro.Application.Years;

/// <summary>An event of the year that is carried, with what somebody said of it.</summary>
/// <param name="Day">Where its first date goes; none for where the year plan puts it.</param>
/// <param name="Title">None for the one it has, with the years in it later.</param>
public sealed record CarryRowBody(Guid EventId, LocalDate? Day, string? Title);

/// <param name="Into">The year plan to which it is carried.</param>
/// <param name="Rows">What was corrected.</param>
/// <param name="Only">The events that are asked about; none for all.</param>
/// <param name="Chosen">Those that would be made; none for all that can be.</param>
public sealed record CarryRequest(Guid Into, IReadOnlyList<CarryRowBody> Rows, IReadOnlyList<Guid>? Only, IReadOnlyList<Guid>? Chosen);

/// <param name="Rows">The events to make.</param>
public sealed record CarrySaveRequest(Guid Into, IReadOnlyList<CarryRowBody> Rows, bool AsDrafts);

/// <summary>One event of the year, and what it would be in the next.</summary>
/// <param name="Term">The term or break in which it is now; empty where that is neither.</param>
/// <param name="IsBreak">It is in a break.</param>
/// <param name="Was">The first of its dates in the year, or its pattern, in words.</param>
/// <param name="Week">Of the term; 0 where it goes by its date.</param>
/// <param name="LastWeek">Of its last date; 0 where that goes by its date, or there is one only.</param>
/// <param name="LastTerm">In which that is.</param>
/// <param name="Day">Where its first date would be.</param>
/// <param name="Becomes">That day, or the pattern, in words.</param>
/// <param name="MayBeMade">False where it needs nothing, since it goes on by itself, was cancelled, or cannot be.</param>
/// <param name="IsThere">One of that name is on that day already.</param>
/// <param name="NeedsLook">Somebody should look at it before it is made.</param>
public sealed record CarriedRow(
    Guid EventId, Guid CalendarId, string? Category, string Title, string NewTitle, string Term, bool IsBreak, LocalDate From, string Was,
    int Week, int LastWeek, string LastTerm, LocalDate Day, string Becomes, bool Recurs, bool MayBeMade, bool IsThere, bool NeedsLook,
    IReadOnlyList<string> Remarks);

/// <param name="WhoSees">Each audience and how many of them it would see, made live; in words.</param>
public sealed record CarryResponse(string From, string Into, IReadOnlyList<CarriedRow> Rows, IReadOnlyList<string> WhoSees);
