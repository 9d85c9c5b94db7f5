using Valtro.Core.Disclosure;
using Valtro.Core.Editions;

namespace Valtro.Core.Events;

/// <summary>Declares a field of an event. What is done alike with all fields follows from it: see <see cref="EventField"/>.</summary>
/// <param name="name">Its name in stored documents and in what differs between two versions: for ever.</param>
/// <param name="seenFrom">From which level on it is told.</param>
[AttributeUsage(AttributeTargets.Property)]
public sealed class FieldAttribute(string name, FieldLevel seenFrom) : SeenFromAttribute(seenFrom)
{
    public string Name { get; } = name;

    /// <summary>What somebody needs besides the level.</summary>
    public Grants Needs { get; init; }

    /// <summary>A date may have its own, instead of that of its series.</summary>
    public bool OfOneDate { get; init; }

    /// <summary>Filters of editions and searches look for words in it.</summary>
    public bool IsSearched { get; init; }

    /// <summary>The fields of the form that say it, with spaces between; by default one of the same name.</summary>
    public string Form { get; init; } = name;

    /// <summary>By which of the fields that an edition can leave out it goes; without one it is always shown.</summary>
    public ShownField ShownWith
    {
        get => ShownWithOrNull ?? default;
        init => ShownWithOrNull = value;
    }

    internal ShownField? ShownWithOrNull { get; private init; }
}
