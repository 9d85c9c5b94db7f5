using NodaTime;
using Valtro.Core.Speaking;

namespace Valtro.Core.Editions;

/// <summary>The steps of a composition, in the order in which they are taken.</summary>
/// <remarks>The window comes after what needs no dates: expanding a rule is the only step that costs.</remarks>
public enum ComposeStep
{
    State,
    Filter,
    Detail,
    Window,
    Merge,
    Title,
    Order,
    Limit,
}

/// <summary>What a step said of an occurrence.</summary>
public readonly record struct Verdict(ComposeStep Step, bool Passes, Saying Saying);

/// <summary>Why one occurrence is, or is not, in an edition: written down by the very steps that compose it.</summary>
/// <param name="recurrenceId">Which date: the start it would have by the rule.</param>
public sealed class Trace(Guid eventId, LocalDateTime recurrenceId)
{
    private (Guid EventId, LocalDateTime RecurrenceId) _of = (eventId, recurrenceId);
    private readonly List<Verdict> _verdicts = [];

    /// <summary>In the order of the steps; it ends with the one that decided.</summary>
    public IReadOnlyList<Verdict> Verdicts => _verdicts;

    public bool IsIn => _verdicts.Count > 0 && _verdicts.All(verdict => verdict.Passes);

    /// <summary>The step that kept it out; the last one when it is in.</summary>
    public Verdict Decided => _verdicts[^1];

    internal bool IsOf(Guid id) => id == _of.EventId;

    internal bool IsOf(Guid? id, LocalDateTime date) => id == _of.EventId && date == _of.RecurrenceId;

    /// <summary>Once it is one of others, what becomes of the entry that was kept becomes of it.</summary>
    internal void GoOnWith(in Dated kept) => _of = (kept.Told.Of!.Id, kept.Occurrence.RecurrenceId);

    internal void Note(ComposeStep step, bool passes, string code, params ReadOnlySpan<(string Name, object? Value)> values)
    {
        if (_verdicts.Count == 0 || (_verdicts[^1].Passes && _verdicts[^1].Step < step))
            _verdicts.Add(new Verdict(step, passes, Saying.Of(code, values)));
    }
}
