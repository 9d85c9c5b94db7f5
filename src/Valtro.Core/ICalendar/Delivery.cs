using NodaTime;
using Valtro.Core.Events;
using Valtro.Core.Recurrence;
using Valtro.Core.Time;
using Valtro.Core.YearPlans;

namespace Valtro.Core.ICalendar;

/// <summary>When an event happens in a form that every program outside reads alike: DTSTART, RRULE, EXDATE, RDATE.</summary>
/// <param name="Start">The first date. For a series without a rule outside, its first real one.</param>
/// <param name="Names">Where a date is known outside by another start than its rule position: dates that a break moved.</param>
/// <param name="Left">Rule positions that nobody outside hears of: they fell out.</param>
internal sealed record Delivery(
    LocalDateTime Start,
    RecurrenceRule? Rule,
    IReadOnlyList<LocalDateTime> Excluded,
    IReadOnlyList<LocalDateTime> Added,
    IReadOnlyDictionary<LocalDateTime, LocalDateTime> Names,
    IReadOnlySet<LocalDateTime> Left)
{
    /// <summary>Rule positions of dates that are not exactly as long as the others, since the clocks change meanwhile.</summary>
    public IReadOnlySet<LocalDateTime> Uneven { get; private init; } = NothingLeft;

    private static readonly Dictionary<LocalDateTime, LocalDateTime> NoNames = [];
    private static readonly HashSet<LocalDateTime> NothingLeft = [];

    /// <returns>Null when the event has no date left.</returns>
    /// <param name="horizon">Before which dates are listed that no rule outside can say, where the series has no end.</param>
    public static Delivery? Of(CalendarEvent calendarEvent, SchoolCalendar school, LocalDate horizon)
    {
        var series = calendarEvent.Series;
        var delivery = IsPlain(series) ? new Delivery(series.Timing.Start, series.Rule, [], [], NoNames, NothingLeft)
            : series.Rule is null ? Listed(series, school)
            : Ruled(calendarEvent, series.Rule, school, horizon);
        return delivery is { Rule: null, Added.Count: 0 } or null
            ? delivery
            : delivery with { Uneven = ClockChanges.UnevenDates(series, school, horizon) };
    }

    /// <summary>Most events: one date, or a rule that every program knows, and nothing more.</summary>
    private static bool IsPlain(Series series) =>
        series is { Extra.Count: 0, Removed.Count: 0, Cycle: null, InBreaks: InBreaks.Ignore }
        && (series.Rule is null
            || (series.Rule.Parts is { Skip: Skip.Omit } && series.RuleGivesItsStart && !GivesNothingMore(series.Timing, series.Rule)));

    /// <summary>One date, or dates that only a list can say: the day cycle.</summary>
    private static Delivery? Listed(Series series, SchoolCalendar school)
    {
        var dates = series.All(school).Select(occurrence => occurrence.RecurrenceId).ToArray();
        return dates.Length == 0
            ? null
            : new Delivery(dates[0], null, [], dates[1..], NoNames, NothingLeft);
    }

    private static Delivery Ruled(CalendarEvent calendarEvent, RecurrenceRule rule, SchoolCalendar school, LocalDate until)
    {
        var series = calendarEvent.Series;
        var outside = Outside(series, rule, school);
        var excluded = series.Removed.ToHashSet();
        var added = series.Extra.ToHashSet();
        // An extra date that the rule gives already happens once, and some programs would show it twice.
        if (series.Extra.Count > 0)
            added.ExceptWith(new Series(series.Timing, outside).Pattern(series.Extra[0], SchoolCalendar.Empty)
                .TakeWhile(date => date <= series.Extra[^1]));
        if ((!ReferenceEquals(outside, rule) && rule.Parts.Skip != Skip.Omit) || !series.RuleGivesItsStart)
            ListDifference(series, outside, excluded, added, until);
        var names = new Dictionary<LocalDateTime, LocalDateTime>();
        var left = new HashSet<LocalDateTime>();
        if (series.InBreaks != InBreaks.Ignore)
            ListBreaks(calendarEvent, school, excluded, added, names, left);
        return new Delivery(series.Timing.Start, GivesNothingMore(series.Timing, outside) ? null : outside, [.. excluded.Order()],
            [.. added.Except(excluded).Order()], names, left);
    }

    /// <summary>The rule as programs outside know rules.</summary>
    /// <remarks>
    /// They disagree on a start that its rule does not give (RFC 5545 3.8.5.3 leaves it undefined): some count it, some leave it
    /// out. It is listed as an RDATE too, and a COUNT, which they would spend differently, becomes the UNTIL of the last date.
    /// A count of what takes place becomes one too, since they count what is excluded (EXDATE) as well.
    /// SKIP (RFC 7529) few know: going backward is said with BYSETPOS, the rest by listing dates.
    /// </remarks>
    private static RecurrenceRule Outside(Series series, RecurrenceRule rule, SchoolCalendar school)
    {
        if (rule.Count is not null && (rule.Parts.Skip != Skip.Omit || !series.RuleGivesItsStart || series.CountsTaking))
        {
            var last = series.Pattern(LocalDate.MinIsoValue.AtMidnight(), school).Last();
            rule = rule.Ending(null, Until.Including(last, series.Timing));
        }
        var parts = rule.Parts;
        if (parts.Skip == Skip.Omit)
            return rule;
        int[] days = parts.MonthDays.Count > 0 ? [.. parts.MonthDays] : [series.Timing.Start.Day];
        return parts.Skip == Skip.Backward
            && days is [>= 28]
            && parts is
            {
                Weekdays.Count: 0, SetPositions.Count: 0, YearDays.Count: 0, WeekNumbers.Count: 0, Hours.Count: < 2,
                Minutes.Count: < 2, Seconds.Count: < 2, Months.Count: < 2
            }
            ? new RecurrenceRule(parts with
            {
                Skip = Skip.Omit,
                MonthDays = [.. Enumerable.Range(28, days[0] - 27)],
                Months = parts.Frequency == Frequency.Yearly && parts.Months.Count == 0 ? [series.Timing.Start.Month] : parts.Months,
                SetPositions = [-1],
            })
            : new RecurrenceRule(parts with { Skip = Skip.Omit });
    }

    /// <summary>
    /// Some programs never come back from a rule that matches no day; without it they lose nothing. Only parts that limit
    /// (RFC 5545 3.3.10) can leave nothing: every third month, but only in October.
    /// </summary>
    private static bool GivesNothingMore(Timing timing, RecurrenceRule rule) =>
        !AlwaysGives(rule.Parts) && !new Series(timing, rule).Pattern(timing.Start, SchoolCalendar.Empty).Skip(1).Any();

    private static bool AlwaysGives(RuleParts parts) =>
        parts is
        {
            Months.Count: 0, MonthDays.Count: 0, YearDays.Count: 0, WeekNumbers.Count: 0, SetPositions.Count: 0, Hours.Count: 0,
            Minutes.Count: 0, Seconds.Count: 0
        }
        && (parts.Weekdays.Count == 0 || parts.Frequency == Frequency.Weekly);

    private static void ListDifference(
        Series series, RecurrenceRule outside, HashSet<LocalDateTime> excluded, HashSet<LocalDateTime> added, LocalDate until)
    {
        var plain = new Series(series.Timing, series.Rule);
        var horizon = series.IsEndless
            ? LocalDateTime.Max(until.AtMidnight(), series.Timing.Start.PlusYears(1))
            : LocalDate.MaxIsoValue.AtMidnight();
        var isSame = series.Rule!.Parts.Skip == Skip.Omit || outside.Parts.SetPositions.Count > 0;
        added.Add(series.Timing.Start);
        if (isSame)
            return;
        var wanted = plain.Pattern(series.Timing.Start, SchoolCalendar.Empty).TakeWhile(date => date <= horizon).ToHashSet();
        var given = new Series(series.Timing, outside).Pattern(series.Timing.Start, SchoolCalendar.Empty).TakeWhile(date => date <= horizon)
            .ToHashSet();
        added.UnionWith(wanted.Except(given));
        excluded.UnionWith(given.Except(wanted));
    }

    private static void ListBreaks(
        CalendarEvent calendarEvent, SchoolCalendar school, HashSet<LocalDateTime> excluded, HashSet<LocalDateTime> added,
        Dictionary<LocalDateTime, LocalDateTime> names, HashSet<LocalDateTime> left)
    {
        var series = calendarEvent.Series;
        var placed = calendarEvent.Exceptions.Where(exception => exception.Start is not null).Select(exception => exception.RecurrenceId)
            .ToHashSet();
        foreach (var closed in school.Plans.SelectMany(plan => plan.Breaks))
        {
            // What really takes place of these dates, so that two that meet on one day are delivered once. A moved one stands among those
            // of its week.
            var taking = series.From(closed.First.AtMidnight(), school).TakeWhile(date => date.RecurrenceId.Date <= closed.Last.PlusDays(7))
                .ToDictionary(date => date.RecurrenceId, date => date.LocalStart);
            foreach (var id in series.Pattern(closed.First.AtMidnight(), school).TakeWhile(id => id.Date <= closed.Last))
            {
                if (placed.Contains(id) || series.Extra.Contains(id))
                    continue;
                excluded.Add(id);
                added.Remove(id);
                left.Add(id);
                if (!taking.TryGetValue(id, out var start))
                    continue;
                left.Remove(id);
                names[id] = start;
                added.Add(start);
            }
        }
    }
}
