namespace Valtro.Core.Events;

/// <summary>What one date has of its own instead of what its series says; only fields that are declared so.</summary>
/// <remarks>Equal when they say the same of the same fields. What is own stays so, even if the series comes to say the same.</remarks>
public sealed class OwnFields : IEquatable<OwnFields>
{
    private readonly KeyValuePair<EventField, object>[] _values;

    private OwnFields(IEnumerable<KeyValuePair<EventField, object>> values) => _values = [.. values.OrderBy(one => one.Key.Place)];

    public static OwnFields None { get; } = new([]);

    public bool IsNone => _values.Length == 0;

    public IReadOnlyList<KeyValuePair<EventField, object>> Values => _values;

    /// <summary>The value of its own, or null where the series has the say.</summary>
    public object? this[EventField field] => Array.Find(_values, one => one.Key == field).Value;

    /// <summary>What a date says otherwise than its series, when the form of the date says <paramref name="date"/>.</summary>
    public static OwnFields Between(EventContent series, EventContent date) =>
        Of(EventField.OfOneDate.Where(field => !field.IsSame(series, date)).Select(field => KeyValuePair.Create(field, field.Of(date)!)));

    public static OwnFields Of(IEnumerable<KeyValuePair<EventField, object>> values)
    {
        var all = new OwnFields(values);
        return all.IsNone ? None : all;
    }

    /// <exception cref="ArgumentException">No date can have that field of its own, or the value is of another type.</exception>
    public OwnFields With(string name, object value)
    {
        var field = EventField.Named(name);
        if (!field.IsOfOneDate || !field.Type.IsInstanceOfType(value))
            throw new ArgumentException($"No date has {name} of its own, or not as {value.GetType().Name}.", nameof(name));
        return new OwnFields(_values.Where(one => one.Key != field).Append(KeyValuePair.Create(field, value)));
    }

    /// <summary>Without the fields that are named so.</summary>
    public OwnFields Without(Func<EventField, bool> which) => IsNone ? this : Of(_values.Where(one => !which(one.Key)));

    /// <summary>What the date says: its own, and the rest as its series.</summary>
    public EventContent Over(EventContent series) => IsNone ? series : series.With(_values);

    public bool Equals(OwnFields? other) =>
        other is not null && _values.Length == other._values.Length
        && _values.Zip(other._values)
            .All(pair => pair.First.Key == pair.Second.Key && pair.First.Key.IsSameValue(pair.First.Value, pair.Second.Value));

    public override bool Equals(object? obj) => Equals(obj as OwnFields);

    public override int GetHashCode() => _values.Aggregate(0, (code, one) => HashCode.Combine(code, one.Key.Name, one.Value));
}
