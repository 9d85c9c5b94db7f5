using Valtro.Core.Speaking;

namespace Valtro.Core;

/// <summary>One thing that is wrong with what somebody asked for.</summary>
/// <param name="Field">The field it concerns, in the API's camelCase ("title", "repeat.count").</param>
/// <param name="Saying">What is wrong, and what would be right.</param>
public readonly record struct Refusal(string Field, Saying Saying);

/// <summary>A rule of the job forbids what was asked. Nothing was changed.</summary>
public sealed class RuleException : Exception
{
    public IReadOnlyList<Refusal> Refusals { get; }

    /// <param name="field">The field it concerns.</param>
    /// <param name="code">Of a message of the catalogues.</param>
    /// <param name="values">What belongs into it.</param>
    public RuleException(string field, string code, params ReadOnlySpan<(string Name, object? Value)> values)
        : this([new Refusal(field, Saying.Of(code, values))])
    {
    }

    /// <exception cref="ArgumentException">The list is empty.</exception>
    public RuleException(IReadOnlyList<Refusal> refusals)
        : base(string.Join("; ", refusals.Select(refusal => $"{refusal.Field}: {refusal.Saying}")))
    {
        if (refusals.Count == 0)
            throw new ArgumentException("At least one refusal is needed.", nameof(refusals));
        Refusals = refusals;
    }
}
