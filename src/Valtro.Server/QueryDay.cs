using System.Diagnostics.CodeAnalysis;
using NodaTime;
using NodaTime.Text;

namespace Valtro.Server;

/// <summary>A day in an address, such as 2026-11-24.</summary>
public readonly record struct QueryDay(LocalDate Date) : IParsable<QueryDay>
{
    public static QueryDay Parse(string text, IFormatProvider? provider) => new(LocalDatePattern.Iso.Parse(text).GetValueOrThrow());

    public static bool TryParse([NotNullWhen(true)] string? text, IFormatProvider? provider, out QueryDay result)
    {
        var parsed = LocalDatePattern.Iso.Parse(text ?? "");
        result = parsed.Success ? new QueryDay(parsed.Value) : default;
        return parsed.Success;
    }
}
