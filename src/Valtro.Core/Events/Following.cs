using NodaTime;
using Valtro.Core.Recurrence;
using Valtro.Core.YearPlans;

namespace Valtro.Core.Events;

/// <summary>Which date is which after a series was changed: the one that moved as the series did, else the one at the same place of the
/// rule.</summary>
/// <remarks>The same rule by which exceptions follow their dates (<see cref="SeriesEdit"/>), for whatever else is said of a date.</remarks>
public static class Following
{
    /// <summary>Where a date has gone.</summary>
    /// <param name="after">What the series became; what goes on from a date when it was split comes after what is left of it.</param>
    /// <returns>Which of them, and the rule position there; null where no date is the same one.</returns>
    public static (int Index, LocalDateTime Date)? Find(CalendarEvent before, IReadOnlyList<CalendarEvent> after, LocalDateTime date,
        SchoolCalendar school)
    {
        var skipped = 0;
        for (var index = 0; index < after.Count; index++)
        {
            var from = index == 0 ? before.Series.Timing.Start : SplitAt(before.Series, skipped, school);
            // What begins with a later date of the old series has nothing of the earlier ones.
            if (from is { } first
                && (index == 0 || date >= first)
                && In(before.Series, after[index].Series, first, date, skipped, isLast: index == after.Count - 1, school) is { } found)
                return (index, found);
            if (index < after.Count - 1)
                skipped += Count(after[index].Series, school);
        }
        return null;
    }

    /// <summary>Where a date of what was split off goes when the split is undone.</summary>
    /// <param name="ended">What was left before it.</param>
    /// <param name="whole">What they both were.</param>
    public static LocalDateTime? Back(
        CalendarEvent successor, CalendarEvent ended, CalendarEvent whole, LocalDateTime date, SchoolCalendar school)
    {
        if (successor.Series.Extra.Contains(date))
            return whole.Series.Gives(date, school) ? date : null;
        var place = Count(ended.Series, school)
            + successor.Series.Pattern(LocalDate.MinIsoValue.AtMidnight(), school).TakeWhile(other => other < date).Count();
        return SplitAt(whole.Series, place, school);
    }

    private static int Count(Series series, SchoolCalendar school) =>
        series.Pattern(LocalDate.MinIsoValue.AtMidnight(), school).Take(Series.MostInWindow).Count();

    private static LocalDateTime? SplitAt(Series series, int skipped, SchoolCalendar school) =>
        series.Pattern(LocalDate.MinIsoValue.AtMidnight(), school).Skip(skipped).Select(date => (LocalDateTime?)date).FirstOrDefault();

    private static LocalDateTime? In(
        Series before, Series after, LocalDateTime first, LocalDateTime date, int skipped, bool isLast, SchoolCalendar school)
    {
        if (!before.Recurs)
            return after.Recurs ? after.Gives(date, school) ? date : null : after.Timing.Start;
        var days = Period.DaysBetween(first.Date, after.Timing.Start.Date);
        if (SeriesEdit.Moved(date, days, before, after.Timing) is var moved && after.Gives(moved, school))
            return moved;
        if (after.Gives(date, school))
            return date;
        // A rule of another kind has no place that would be the same.
        if (!isLast
            || before.Rule?.Parts.Frequency != after.Rule?.Parts.Frequency
            || before.Rule?.Parts.Interval != after.Rule?.Parts.Interval
            || before.Rule is null
            || before.Extra.Contains(date))
            return null;
        var position = before.Pattern(LocalDate.MinIsoValue.AtMidnight(), school).TakeWhile(other => other < date).Count() - skipped;
        return position < 0
            ? null
            : after.Pattern(LocalDate.MinIsoValue.AtMidnight(), school).Skip(position).Select(other => (LocalDateTime?)other)
                .FirstOrDefault();
    }
}
