using System.Collections.Concurrent;
using NodaTime;
using NodaTime.Text;
using Valtro.Core.Recurrence;

namespace Valtro.Store;

/// <summary>Local times as documents write them, "2026-11-24T14:00:00": thousands are read for one screen.</summary>
internal static class LocalText
{
    private static readonly LocalDateTimePattern Pattern = LocalDateTimePattern.CreateWithInvariantCulture("uuuu-MM-dd'T'HH:mm:ss");

    /// <exception cref="UnparsableValueException">It is none.</exception>
    public static LocalDateTime Read(ReadOnlySpan<char> text) =>
        text is [_, _, _, _, '-', _, _, '-', _, _, 'T', _, _, ':', _, _, ':', _, _]
        && Digits(text[..4]) is var year and > 0 && Digits(text[5..7]) is var month and > 0 && Digits(text[8..10]) is var day and > 0
        && Digits(text[11..13]) is var hour and >= 0
            && Digits(text[14..16]) is var minute and >= 0
            && Digits(text[17..]) is var second and >= 0
            ? new LocalDateTime(year, month, day, hour, minute, second)
            : Pattern.Parse(text.ToString()).GetValueOrThrow();

    private static int Digits(ReadOnlySpan<char> text)
    {
        var number = 0;
        foreach (var digit in text)
        {
            if (!char.IsAsciiDigit(digit))
                return -1;
            number = (10 * number) + digit - '0';
        }
        return number;
    }
}

/// <summary>Rules as documents write them: many series have the same.</summary>
internal static class Rules
{
    private const int Most = 10_000;

    private static readonly ConcurrentDictionary<string, RecurrenceRule> Known = new();

    /// <exception cref="Core.RuleException">It is none.</exception>
    public static RecurrenceRule Of(string text)
    {
        if (Known.TryGetValue(text, out var known))
            return known;
        if (Known.Count >= Most)
            Known.Clear();
        return Known[text] = RuleText.Parse(text);
    }
}
