using System.Collections;
using System.Runtime.CompilerServices;

namespace Valtro.Core;

/// <summary>A list that equals another one with the same values in the same order.</summary>
[CollectionBuilder(typeof(ValueList), nameof(ValueList.Of))]
public sealed class ValueList<T> : IReadOnlyList<T>, IEquatable<ValueList<T>>
{
    private readonly T[] _values;

    internal ValueList(T[] values) => _values = values;

    public static ValueList<T> Empty { get; } = new([]);

    public int Count => _values.Length;

    public T this[int index] => _values[index];

    public bool Equals(ValueList<T>? other) =>
        other is not null && (ReferenceEquals(this, other) || _values.AsSpan().SequenceEqual(other._values));

    public override bool Equals(object? obj) => Equals(obj as ValueList<T>);

    public override int GetHashCode()
    {
        var code = default(HashCode);
        foreach (var value in _values)
            code.Add(value);
        return code.ToHashCode();
    }

    public IEnumerator<T> GetEnumerator() => ((IEnumerable<T>)_values).GetEnumerator();

    IEnumerator IEnumerable.GetEnumerator() => _values.GetEnumerator();
}

/// <summary>Makes lists of values from collection expressions.</summary>
public static class ValueList
{
    public static ValueList<T> Of<T>(ReadOnlySpan<T> values) => values.IsEmpty ? ValueList<T>.Empty : new(values.ToArray());
}
