using Valtro.Core.Speaking;

namespace Valtro.Core;

/// <summary>Collects everything that is wrong, so that a person hears it once and not one by one.</summary>
public sealed class RefusalList
{
    private readonly List<Refusal> _refusals = [];

    public IReadOnlyList<Refusal> All => _refusals;

    public bool IsEmpty => _refusals.Count == 0;

    /// <param name="code">Of a message of the catalogues.</param>
    public void Add(string field, string code, params ReadOnlySpan<(string Name, object? Value)> values) =>
        Add(new Refusal(field, Saying.Of(code, values)));

    public void Add(Refusal refusal) => _refusals.Add(refusal);

    /// <summary>Runs <paramref name="make"/>; what it refuses is kept, with <c>default</c> as the answer.</summary>
    public T? Try<T>(Func<T> make)
    {
        try
        {
            return make();
        }
        catch (RuleException refused)
        {
            _refusals.AddRange(refused.Refusals);
            return default;
        }
    }

    /// <exception cref="RuleException">Anything was refused.</exception>
    public void ThrowIfAny()
    {
        if (!IsEmpty)
            throw new RuleException(_refusals);
    }
}
