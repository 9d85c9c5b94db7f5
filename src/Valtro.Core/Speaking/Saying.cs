namespace Valtro.Core.Speaking;

/// <summary>Something to be said to people: a code, and what belongs into its sentence. A <see cref="Speech"/> says it in a
/// language.</summary>
/// <param name="Code">The name of a message of the catalogues (src/words), such as "event.endsBeforeStart".</param>
/// <param name="Values">Texts, whole numbers, days, further sayings, or lists of these, by the name that the message has for them; "count"
/// decides its plural.</param>
public sealed record Saying(string Code, ValueList<(string Name, object? Value)> Values)
{
    public static Saying Of(string code, params ReadOnlySpan<(string Name, object? Value)> values) => new(code, ValueList.Of(values));

    /// <summary>For logs: the code, and its values in brackets.</summary>
    public override string ToString() =>
        Values.Count == 0 ? Code : $"{Code} ({string.Join(", ", Values.Select(value => $"{value.Name}: {value.Value}"))})";
}
