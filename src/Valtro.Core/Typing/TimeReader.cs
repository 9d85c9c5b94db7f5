using System.Globalization;
using System.Text.RegularExpressions;
using NodaTime;

namespace Valtro.Core.Typing;

/// <summary>Times as a line says them.</summary>
/// <param name="IsOfEitherHalf">Nothing says whether it is before noon or after, and people may mean either.</param>
/// <param name="IsPlain">Nothing but numbers, which could be anything: "9–10".</param>
internal sealed record TimesFound(LocalTime From, LocalTime? To, bool IsOfEitherHalf, bool IsPlain)
{
    /// <summary>The same twelve hours later, the end with it where that is of either half too.</summary>
    public TimesFound Later() => this with
    {
        From = From.PlusHours(12),
        To = To is { } to && to.Hour < 12 && to.PlusHours(12) > From.PlusHours(12) ? to.PlusHours(12) : To,
    };
}

/// <summary>Reads times: "14:00", "7:30 pm", "2–3.30pm", "from 9 to 10", "half past nine", "noon".</summary>
internal sealed partial class TimeReader(LineWords words, Grammar grammar)
{
    /// <param name="IsClock">It can be nothing but a time.</param>
    /// <param name="Half">0 before noon, 12 after; null where nothing says it.</param>
    /// <param name="HasMinutes">Written as "8:00".</param>
    private sealed record Clock(LocalTime Time, bool IsClock, int? Half, bool HasMinutes = false, bool IsInWords = false);

    /// <summary>One time or two.</summary>
    /// <returns>Null when there is none; then nothing was gone over.</returns>
    public TimesFound? Read()
    {
        var start = words.At;
        var isIntroduced = grammar.Skips("from", words);
        if (ReadClock(isIntroduced) is not { } from)
            return Nothing(start);
        var end = words.At;
        var to = grammar.Skips("to", words) || grammar.Skips("until", words) ? ReadClock(isIntroduced: true) : null;
        // "16:00 until 18 Dec": the day until which it is.
        if (to is { IsClock: false } && !words.IsAtEnd && grammar.Month(words.Current) is not null)
            to = null;
        if (to is null)
            words.At = end;
        if (!isIntroduced && !from.IsClock && to is null)
            return Nothing(start);
        return Found(from, to, isPlain: !isIntroduced && !from.IsClock && to is not { IsClock: true });
    }

    /// <summary>One time that can be nothing else.</summary>
    /// <returns>With whether it is sure of which half of the day. Null when there is none; then it does not matter what was gone
    /// over.</returns>
    public (LocalTime Time, bool IsSure)? ReadOne()
    {
        var isIntroduced = grammar.Skips("at", words);
        return ReadClock(isIntroduced) is { } clock && (clock.IsClock || isIntroduced)
            ? (clock.Time, clock.Half is not null || !IsOfEitherHalf(clock, isAlone: true))
            : null;
    }

    /// <summary>All of a text, as a cell says it.</summary>
    public LocalTime? ReadAlone() => ReadClock(isIntroduced: false) is { } time && words.IsAtEnd ? time.Time : null;

    private TimesFound? Nothing(int start)
    {
        words.At = start;
        return null;
    }

    private TimesFound Found(Clock from, Clock? to, bool isPlain)
    {
        var (begins, ends) = (from.Time, to?.Time);
        var isSure = from.Half is not null || !IsOfEitherHalf(from, isAlone: to is null);
        if (from.Half is null && to is { Half: 12 } && begins.Hour < 12)
        {
            // "2 to 3 pm" says it once; "9 to 3 pm" begins in the morning.
            if (begins.PlusHours(12) <= ends)
                begins = begins.PlusHours(12);
            isSure = true;
        }
        else if (from.Half is null && to is { Half: 0 })
        {
            isSure = true;
        }
        // "2 pm to 3", and "9–3": the next such time.
        if (to is { Half: null } && ends <= begins && ends.Value.Hour < 12 && ends.Value.PlusHours(12) > begins)
            ends = ends.Value.PlusHours(12);
        else if (to is { Half: null } && from.Half is null && ends?.Hour > 12)
            isSure |= begins.Hour < 12 && ends.Value.Hour - 12 <= begins.Hour;
        return new TimesFound(begins, ends, !isSure, isPlain);
    }

    /// <summary>In a language whose clocks have twelve hours: "at 9" more likely than "9–10" or "9:00".</summary>
    private bool IsOfEitherHalf(Clock clock, bool isAlone) => grammar.Is(
        clock.IsInWords ? "eitherHalfWords" : clock.HasMinutes ? "eitherHalfMinutes" : isAlone && !clock.IsClock ? "eitherHalfAlone" : "eitherHalfOther",
        clock.Time.Hour.ToString(CultureInfo.InvariantCulture));

    /// <param name="isIntroduced">By "at" or the like: then a number in words is an hour.</param>
    private Clock? ReadClock(bool isIntroduced)
    {
        if (grammar.Skips("noon", words))
            return new Clock(LocalTime.Noon, IsClock: true, 12);
        if (grammar.Skips("midnight", words))
            return new Clock(LocalTime.Midnight, IsClock: true, 0);
        foreach (var (part, minutes) in new[] { ("halfPast", 30), ("halfBefore", -30), ("quarterPast", 15), ("quarterBefore", -15) })
        {
            var start = words.At;
            if (!grammar.Skips(part, words))
                continue;
            if (ReadHour() is { } hour)
                return ReadHalf(new LocalTime(hour, 0).PlusMinutes(minutes), isClock: true, isExact: false) with { IsInWords = true };
            words.At = start;
            return null;
        }
        var match = ClockForm().Match(words.Current);
        if (!match.Success)
            return ReadHourInWords(isIntroduced);
        var (hours, minute) = (Number(match, "hour"), match.Groups["minute"].Success ? Number(match, "minute") : 0);
        var half = match.Groups["half"].Value;
        if (hours > 23 || minute > 59 || (half.Length > 0 && hours is < 1 or > 12))
            return null;
        words.Skip();
        var isClock = match.Groups["colon"].Success || half.Length > 0;
        var time = new LocalTime(hours, minute);
        return half.Length > 0
            ? Half(time, half[0] is 'p' or 'P' ? 12 : 0)
            : ReadHalf(time, isClock, isExact: match.Value[0] == '0' || hours > 12) with { HasMinutes = match.Groups["minute"].Success };
    }

    private int? ReadHour()
    {
        var hour = int.TryParse(words.Current, NumberStyles.None, CultureInfo.InvariantCulture, out var number)
            ? number
            : grammar.Number(words.Current);
        if (hour is not (>= 1 and <= 12))
            return null;
        words.Skip();
        return hour % 12 == 0 ? 12 : hour;
    }

    /// <summary>"nine o’clock", "neun Uhr".</summary>
    private Clock? ReadHourInWords(bool isIntroduced)
    {
        var isClock = grammar.Is("oClock", words.Ahead(1));
        if (grammar.Number(words.Current) is not (>= 1 and <= 12) || !(isClock || isIntroduced))
            return null;
        return ReadHalf(new LocalTime(ReadHour()!.Value, 0), isClock, isExact: false);
    }

    /// <summary>What may stand after it: "o’clock", "pm", "in the evening", in German also minutes.</summary>
    private Clock ReadHalf(LocalTime time, bool isClock, bool isExact)
    {
        if (grammar.Skips("oClock", words))
        {
            isClock = true;
            if (words.Current.Length == 2 && time.Minute == 0
                && int.TryParse(words.Current, NumberStyles.None, CultureInfo.InvariantCulture, out var minutes) && minutes is > 0 and < 60)
            {
                words.Skip();
                time = time.PlusMinutes(minutes);
            }
        }
        if (time.Hour is >= 1 and <= 12)
        {
            if (grammar.Skips("am", words))
                return Half(time, 0);
            if (grammar.Skips("pm", words))
                return Half(time, 12);
        }
        return new Clock(time, isClock, isExact ? time.Hour / 12 * 12 : null);
    }

    private static Clock Half(LocalTime time, int half) => new(new LocalTime(time.Hour % 12 + half, time.Minute), IsClock: true, half);

    private static int Number(Match match, string group) => int.Parse(match.Groups[group].ValueSpan, CultureInfo.InvariantCulture);

    [GeneratedRegex(@"^(?<hour>\d{1,2})(?:(?<colon>[:.h])(?<minute>\d{2})|(?<minute>\d{2}))?(?<half>am|pm|a\.m\.?|p\.m\.?)?$",
        RegexOptions.IgnoreCase | RegexOptions.CultureInvariant)]
    private static partial Regex ClockForm();
}
