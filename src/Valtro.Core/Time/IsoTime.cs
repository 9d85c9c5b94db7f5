using NodaTime;
using NodaTime.Text;

namespace Valtro.Core.Time;

/// <summary>Local times and moments as ISO 8601 writes them, to the second. A screen of dates holds thousands of them, and a pattern takes
/// ten times as long.</summary>
public static class IsoTime
{
    private const int LengthOfLocal = 19;
    private const int LengthWithOffset = 25;

    private static readonly OffsetDateTimePattern Any =
        OffsetDateTimePattern.CreateWithInvariantCulture("uuuu-MM-dd'T'HH:mm:sso<+HH:mm>");

    /// <summary>"2026-11-24T14:00:00".</summary>
    public static string Of(LocalDateTime local) => HasFourDigits(local)
        ? string.Create(LengthOfLocal, local, static (text, at) => Write(text, at))
        : Any.Format(local.WithOffset(Offset.Zero))[..^6];

    /// <summary>"2026-11-24T14:00:00-04:00".</summary>
    public static string Of(OffsetDateTime moment) => HasFourDigits(moment.LocalDateTime)
        ? string.Create(LengthWithOffset, moment, static (text, at) =>
        {
            Write(text, at.LocalDateTime);
            var minutes = Math.Abs(at.Offset.Seconds) / 60;
            text[LengthOfLocal] = at.Offset.Seconds < 0 ? '-' : '+';
            WriteTwo(text[20..], minutes / 60);
            text[22] = ':';
            WriteTwo(text[23..], minutes % 60);
        })
        : Any.Format(moment);

    private static bool HasFourDigits(LocalDateTime local) => local.Year is >= 1000 and <= 9999;

    private static void Write(Span<char> text, LocalDateTime local)
    {
        local.Deconstruct(out var date, out var time);
        WriteTwo(text, date.Year / 100);
        WriteTwo(text[2..], date.Year % 100);
        text[4] = text[7] = '-';
        WriteTwo(text[5..], date.Month);
        WriteTwo(text[8..], date.Day);
        text[10] = 'T';
        WriteTwo(text[11..], time.Hour);
        text[13] = text[16] = ':';
        WriteTwo(text[14..], time.Minute);
        WriteTwo(text[17..], time.Second);
    }

    private static void WriteTwo(Span<char> text, int number)
    {
        text[0] = (char)('0' + number / 10);
        text[1] = (char)('0' + number % 10);
    }
}
