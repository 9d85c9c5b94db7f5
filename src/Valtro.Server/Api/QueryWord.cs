using System.Diagnostics.CodeAnalysis;

namespace Valtro.Server.Api;

/// <summary>One of some words in an address, written as JSON writes it.</summary>
public readonly record struct QueryWord<T>(T Value) : IParsable<QueryWord<T>>
    where T : struct, Enum
{
    public static QueryWord<T> Parse(string text, IFormatProvider? provider) => new(Enum.Parse<T>(text, ignoreCase: true));

    public static bool TryParse([NotNullWhen(true)] string? text, IFormatProvider? provider, out QueryWord<T> result)
    {
        // Numbers stand for no word.
        var isWord = Enum.TryParse<T>(text, ignoreCase: true, out var value) && Enum.IsDefined(value) && !char.IsAsciiDigit(text![0]);
        result = new(value);
        return isWord;
    }
}
