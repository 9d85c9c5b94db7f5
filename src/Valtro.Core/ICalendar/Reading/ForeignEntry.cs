using NodaTime;
using Valtro.Core.Recurrence;
using Valtro.Core.Speaking;

namespace Valtro.Core.ICalendar.Reading;

/// <summary>One date that a file says differently.</summary>
/// <param name="Date">Which: the start that the rule gives it.</param>
/// <param name="Start">Null where it was not moved.</param>
public sealed record ForeignDate(LocalDateTime Date, LocalDateTime? Start, LocalDateTime? End, ForeignEvent? Says, bool IsCancelled);

/// <summary>An event of somebody's file: when it is, what it says, and which of its dates differ; or why it cannot be taken.</summary>
/// <param name="Uid">By which it is known again: the file's, with more where that names several.</param>
/// <param name="Line">Of the file, on which it begins.</param>
/// <param name="Title">As far as there is one.</param>
public sealed record ForeignEntry(string Uid, int Line, string Title)
{
    public ForeignEvent? Says { get; init; }

    public Series? Series { get; init; }

    public IReadOnlyList<ForeignDate> Dates { get; init; } = [];

    public IReadOnlyList<Saying> Remarks { get; init; } = [];

    public IReadOnlyList<Refusal> Refusals { get; init; } = [];

    public static ForeignEntry Refused(string uid, int line, string title, RuleException refused) =>
        new(uid, line, title) { Refusals = refused.Refusals };
}
