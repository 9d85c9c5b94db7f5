using System.Globalization;
using System.Text.RegularExpressions;
using Valtro.Core.Events;

namespace Valtro.Core.Typing;

/// <summary>Reads what comes after "every": the pattern of <see cref="OneLine"/>'s grammar.</summary>
internal sealed partial class PatternReader(LineWords words, CultureInfo culture)
{
    private static readonly string[] Ordinals = ["first", "second", "third", "fourth", "fifth"];

    /// <returns>The pattern, without its end and with its day left open where the line does not say it; null when it is none.</returns>
    public RepeatDraft? Read()
    {
        if (!words.Skip())
            return null;
        var start = words.At;
        // "every second Tuesday of the month" counts in the month; "every second Tuesday" counts weeks.
        if (ReadPosition(needsMonth: true) is { } inMonth)
            return inMonth;
        words.At = start;
        var interval = ReadInterval();
        if (ReadWeekdays() is { Count: > 0 } weekdays)
            return new RepeatDraft(RepeatPattern.Weekly, interval ?? 1, weekdays);
        if (ReadUnit(interval ?? 1) is { } unit)
            return unit;
        words.At = start;
        return ReadPosition(needsMonth: false);
    }

    private int? ReadInterval()
    {
        if (words.Skips("second") || words.Skips("other"))
            return 2;
        if (words.IsAtEnd || !int.TryParse(words.Current, NumberStyles.None, culture, out var number))
            return null;
        words.Skip();
        return number;
    }

    private List<int> ReadWeekdays()
    {
        var weekdays = new List<int>();
        if (words.Skips("weekday") || words.Skips("weekdays"))
            return [1, 2, 3, 4, 5];
        while (!words.IsAtEnd)
        {
            var several = words.Current.TrimEnd(',').Split(',', '/');
            if (several.All(one => Typed.Weekday(one, culture) is not null))
            {
                weekdays.AddRange(several.Select(one => (int)Typed.Weekday(one, culture)!.Value));
                words.Skip();
            }
            else if (weekdays.Count == 0 || Typed.Weekday(words.Ahead(1), culture) is null || !(words.Skips("and") || words.Skips("&")))
                break;
        }
        return weekdays;
    }

    private RepeatDraft? ReadUnit(int every)
    {
        if (words.Skips("day") || words.Skips("days"))
            return new RepeatDraft(RepeatPattern.Daily, every);
        if (words.Skips("week") || words.Skips("weeks"))
            return new RepeatDraft(RepeatPattern.Weekly, every, OnWeekdays());
        if (words.Skips("year") || words.Skips("years"))
            return new RepeatDraft(RepeatPattern.Yearly, every, By: MonthPosition.Day);
        if (!words.Skips("month") && !words.Skips("months"))
            return null;
        return words.Skips("on", "the") && ReadPosition(needsMonth: false) is { } position
            ? position with { Interval = every }
            : new RepeatDraft(RepeatPattern.Monthly, every, By: MonthPosition.Day);
    }

    private List<int> OnWeekdays()
    {
        var start = words.At;
        words.Skips("on");
        var weekdays = ReadWeekdays();
        if (weekdays.Count == 0)
            words.At = start;
        return weekdays;
    }

    /// <summary>"24th", "second Tuesday", "last weekday", "last day".</summary>
    private RepeatDraft? ReadPosition(bool needsMonth)
    {
        if (words.IsAtEnd)
            return null;
        var first = words.Current.ToLowerInvariant();
        var ordinal = first == "last" ? -1 : Array.IndexOf(Ordinals, first) + 1;
        var what = words.Ahead(1).ToLowerInvariant();
        var (position, length) = NthForm().Match(first) is { Success: true } nth
            ? (OnDay(int.Parse(nth.Groups[1].ValueSpan, CultureInfo.InvariantCulture)), 1)
            : (ordinal == 0 ? null : what switch
            {
                "weekday" => new RepeatDraft(RepeatPattern.Monthly, 1, By: MonthPosition.Workday, Ordinal: ordinal),
                "day" => OnDay(ordinal),
                _ when Typed.Weekday(what, culture) is { } weekday => new RepeatDraft(RepeatPattern.Monthly, 1, By: MonthPosition.Weekday, Ordinal: ordinal, Weekday: (int)weekday),
                _ => null,
            }, 2);
        if (position is null)
            return null;
        words.Skip(length);
        return words.Skips("of", "the", "month") || !needsMonth ? position : null;
    }

    private static RepeatDraft OnDay(int day) => new(RepeatPattern.Monthly, 1, By: MonthPosition.Day, MonthDay: day);

    [GeneratedRegex(@"^(\d{1,2})(?:st|nd|rd|th)$")]
    private static partial Regex NthForm();
}
