using NodaTime;
using Valtro.Core.Recurrence;
using Valtro.Core.Time;

namespace Valtro.Core.Events;

/// <summary>How a draft ends its repetition.</summary>
public enum RepeatEnd
{
    Never,
    On,
    After,
}

/// <summary>The repetition as the event page's sentence says it.</summary>
/// <param name="Weekdays">1 Monday to 7 Sunday; for weekly ones.</param>
/// <param name="Until">The last possible day, inclusive, for <see cref="RepeatEnd.On"/>.</param>
public sealed record RepeatDraft(
    Frequency Frequency,
    int? Interval,
    IReadOnlyList<int>? Weekdays,
    RepeatEnd Ends,
    LocalDate? Until,
    int? Count)
{
    /// <summary>The sentence that gives this rule.</summary>
    public static RepeatDraft Of(RecurrenceRule rule, Timing timing) => new(
        rule.Frequency,
        rule.Interval,
        rule.Frequency == Frequency.Weekly ? [.. WeekdaysOf(rule, timing).Select(weekday => (int)weekday)] : null,
        rule.Until is not null ? RepeatEnd.On : rule.Count is not null ? RepeatEnd.After : RepeatEnd.Never,
        rule.Until switch
        {
            Core.Recurrence.Until.Day day => day.Date,
            Core.Recurrence.Until.Moment moment => moment.Instant.InZone(timing.Zone).Date,
            _ => null,
        },
        rule.Count);

    private static IReadOnlyList<IsoDayOfWeek> WeekdaysOf(RecurrenceRule rule, Timing timing) =>
        rule.Weekdays.Count > 0 ? rule.Weekdays : [timing.Start.DayOfWeek];
}

/// <summary>What an editor typed, before anything is checked.</summary>
/// <param name="EndDate">The last day; the first one when it is missing.</param>
/// <param name="From">Local start time; not needed all day.</param>
/// <param name="Zone">The event's own zone; the calendar's when it is missing.</param>
public sealed record EventDraft(
    string? Title,
    bool AllDay,
    LocalDate? Date,
    LocalDate? EndDate,
    LocalTime? From,
    LocalTime? To,
    string? Zone,
    string? Place,
    RepeatDraft? Repeat)
{
    /// <summary>Checks everything at once.</summary>
    /// <param name="description">Already sanitised.</param>
    /// <exception cref="RuleException">With a refusal for each field that is wrong.</exception>
    public EventContent Check(DateTimeZone calendarZone, RichText description)
    {
        var refusals = new RefusalList();
        var title = refusals.Try(() => Texts.OneLine("title", "The title", Title, Texts.LongestTitle));
        var place = refusals.Try(() => Texts.OneLine("place", "The place", Place, Texts.LongestPlace, required: false));
        if (description.Html.Length > Texts.LongestDescription)
            refusals.Add("description", $"The description is too long. At most {Texts.LongestDescription} characters with their markup are possible.");
        var series = CheckedSeries(calendarZone, refusals);
        refusals.ThrowIfAny();
        return new EventContent(title!, series!, place!, description);
    }

    /// <summary>Only when it happens, for showing consequences while the rest is still being typed.</summary>
    /// <exception cref="RuleException">With a refusal for each field that is wrong.</exception>
    public Series CheckSeries(DateTimeZone calendarZone)
    {
        var refusals = new RefusalList();
        var series = CheckedSeries(calendarZone, refusals);
        refusals.ThrowIfAny();
        return series!;
    }

    private Series? CheckedSeries(DateTimeZone calendarZone, RefusalList refusals)
    {
        var zone = string.IsNullOrEmpty(Zone) ? calendarZone : refusals.Try(() => Zones.Named(Zone));
        var timing = zone is null ? null : CheckedTiming(zone, refusals);
        if (Repeat is not null)
            CheckRepeat(Repeat, refusals);
        if (timing is null || !refusals.IsEmpty)
            return null;
        return new Series(timing, Repeat is null ? null : refusals.Try(() => RuleOf(Repeat, timing)));
    }

    private Timing? CheckedTiming(DateTimeZone zone, RefusalList refusals)
    {
        if (Date is not { } date)
        {
            refusals.Add("date", "The date is missing. Give a day such as 24 November 2026.");
            return null;
        }
        if (AllDay)
            return refusals.Try(() => Timing.WholeDays(date, EndDate ?? date, zone));
        if (From is null)
            refusals.Add("from", "The start time is missing. Give a time such as 14:00, or choose all day.");
        if (To is null)
            refusals.Add("to", "The end time is missing. Give a time such as 15:30, or choose all day.");
        return From is { } from && To is { } to
            ? refusals.Try(() => Timing.Timed(date + from, (EndDate ?? date) + to, zone))
            : null;
    }

    /// <summary>All that can be checked of a repetition without knowing when it starts.</summary>
    private static void CheckRepeat(RepeatDraft repeat, RefusalList refusals)
    {
        if (repeat.Frequency == Frequency.Weekly && repeat.Weekdays is not { Count: > 0 })
            refusals.Add("repeat.weekdays", "No weekday is chosen. Choose at least one.");
        if (repeat.Weekdays?.Any(weekday => weekday is < 1 or > 7) == true)
            refusals.Add("repeat.weekdays", "Weekdays are numbers from 1 (Monday) to 7 (Sunday).");
        if (repeat.Interval is < 1 or > RecurrenceRule.LargestInterval)
            refusals.Add("repeat.interval", $"“Every {repeat.Interval}” is not possible. Use a number from 1 to {RecurrenceRule.LargestInterval}.");
        if (repeat.Ends == RepeatEnd.After && repeat.Count is not (>= 1 and <= RecurrenceRule.LargestCount))
            refusals.Add("repeat.count", $"The number of dates has to be from 1 to {RecurrenceRule.LargestCount}.");
        if (repeat.Ends == RepeatEnd.On && repeat.Until is null)
            refusals.Add("repeat.until", "The last day is missing. Give a day such as 18 December 2026, or let it go on without end.");
    }

    private static RecurrenceRule RuleOf(RepeatDraft repeat, Timing timing) => new(
        repeat.Frequency,
        repeat.Interval ?? 1,
        repeat.Ends == RepeatEnd.After ? repeat.Count : null,
        repeat.Ends == RepeatEnd.On ? CheckedUntil(repeat.Until!.Value, timing) : null,
        repeat.Frequency == Frequency.Weekly ? repeat.Weekdays!.Select(weekday => (IsoDayOfWeek)weekday) : null);

    private static Until CheckedUntil(LocalDate day, Timing timing)
    {
        if (day < timing.Start.Date)
            throw new RuleException("repeat.until", "The series ends before its first date. Give a last day on or after the first.");
        if (day.Year > 2199)
            throw new RuleException("repeat.until", "The last day has to be before the year 2200. Give an earlier day, or let it go on without end.");
        return timing.AllDay
            ? new Until.Day(day)
            : new Until.Moment(LocalTimes.InZone(day + timing.Start.TimeOfDay, timing.Zone).ToInstant());
    }
}
