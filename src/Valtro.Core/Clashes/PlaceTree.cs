namespace Valtro.Core.Clashes;

/// <summary>Which places are parts of others: what is on in the one takes the other, too.</summary>
/// <param name="parts">Each place with the one whose part it is.</param>
public sealed class PlaceTree(IEnumerable<KeyValuePair<Guid, Guid>> parts)
{
    private readonly Dictionary<Guid, Guid> _wholeOf = new(parts);

    public bool Share(Guid one, Guid other) => one == other || IsPart(one, other) || IsPart(other, one);

    /// <summary>By however many between them; a ring, which nobody can make but two at once, is gone round once.</summary>
    public bool IsPart(Guid part, Guid of)
    {
        var at = part;
        for (var steps = 0; steps <= _wholeOf.Count && _wholeOf.TryGetValue(at, out at); steps++)
        {
            if (at == of)
                return true;
        }
        return false;
    }
}
