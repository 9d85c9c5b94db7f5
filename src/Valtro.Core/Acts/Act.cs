using Valtro.Core.SignOff;
using Valtro.Core.Speaking;

namespace Valtro.Core.Acts;

/// <summary>What somebody does, worked out before it is done: all of it is written in one transaction, or nothing.</summary>
public sealed record Act
{
    public static Act Nothing { get; } = new();

    /// <summary>May be none: what is handed in waits beside its event.</summary>
    public IReadOnlyList<EventWrite> Writes { get; init; } = [];

    public IReadOnlyList<NewSubmission> HandsIn { get; init; } = [];

    public IReadOnlyList<Verdict> Decides { get; init; } = [];

    public bool IsNothing => Writes.Count == 0 && HandsIn.Count == 0 && Decides.Count == 0;

    /// <summary>Calendars whose editors are asked whether an event may be shown there.</summary>
    public IEnumerable<Guid> Asked => HandsIn.Where(one => one.Kind == SubmissionKind.Placement).Select(one => one.CalendarId);

    public static Act Writing(params IReadOnlyList<EventWrite> writes) => writes.Count == 0 ? Nothing : new() { Writes = writes };

    /// <summary>Both at once; this first.</summary>
    public Act And(Act other) => All([this, other]);

    /// <summary>Several at once, in their order.</summary>
    public static Act All(IReadOnlyList<Act> acts)
    {
        var (writes, handsIn) = (new List<EventWrite>(), new List<NewSubmission>());
        foreach (var act in acts)
        {
            handsIn.AddRange(act.HandsIn.Select(one => one with { Write = one.Write + writes.Count }));
            writes.AddRange(act.Writes);
        }
        return new Act { Writes = writes, HandsIn = handsIn, Decides = [.. acts.SelectMany(act => act.Decides)] };
    }
}

/// <summary>Something that one person should hear of.</summary>
/// <param name="Path">The screen that it is about.</param>
public sealed record Notice(Guid AccountId, Saying Saying, string Path);
