namespace Valtro.Core;

/// <summary>One thing that is wrong with what somebody asked for.</summary>
/// <param name="Field">The field it concerns, in the API's camelCase ("title", "repeat.count").</param>
/// <param name="Sentence">A sentence for people: what is wrong, and what would be right.</param>
public readonly record struct Refusal(string Field, string Sentence);

/// <summary>A rule of the job forbids what was asked. Nothing was changed.</summary>
public sealed class RuleException : Exception
{
    public IReadOnlyList<Refusal> Refusals { get; }

    public RuleException(string field, string sentence)
        : this([new Refusal(field, sentence)])
    {
    }

    /// <exception cref="ArgumentException">The list is empty.</exception>
    public RuleException(IReadOnlyList<Refusal> refusals)
        : base(string.Join(" ", refusals.Select(refusal => refusal.Sentence)))
    {
        if (refusals.Count == 0)
            throw new ArgumentException("At least one refusal is needed.", nameof(refusals));
        Refusals = refusals;
    }
}
