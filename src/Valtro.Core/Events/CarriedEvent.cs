using NodaTime;
using Valtro.Core.Disclosure;
using Valtro.Core.Recurrence;
using Valtro.Core.Speaking;
using Valtro.Core.Time;
using Valtro.Core.YearPlans;

namespace Valtro.Core.Events;

/// <summary>An event as it would be in another year or term. Pure; nothing is made yet.</summary>
/// <param name="Content">As it would be; null where it is not carried.</param>
/// <param name="From">The first of its dates that is carried, where it is now.</param>
/// <param name="To">Where that would be.</param>
/// <param name="Last">Of a series: its last date in the year, where that would be; null for what happens once.</param>
/// <param name="Remarks">What somebody should look at.</param>
/// <param name="IsPlain">Nothing needs a look.</param>
public sealed record CarriedEvent(
    EventContent? Content, LocalDate From, CarriedDay To, CarriedDay? Last, IReadOnlyList<Saying> Remarks, bool IsPlain)
{
    /// <param name="day">Where somebody put its first date; null for where the year plan puts it.</param>
    /// <param name="before">All year plans as they are.</param>
    /// <returns>Null where it has no date in the year that is carried.</returns>
    /// <exception cref="RuleException">It cannot be on that day.</exception>
    public static CarriedEvent? Of(CalendarEvent before, Carrying carrying, SchoolCalendar school, LocalDate? day = null)
    {
        var series = before.Series;
        var zone = series.Timing.Zone;
        var year = carrying.From;
        var dates = series.In(new Window(year.First, year.Last.PlusDays(1), zone), school)
            .Where(date => year.Holds(date.LocalStart.Date)).ToArray();
        if (dates.Length == 0)
            return null;
        var from = series.Recurs ? dates[0].RecurrenceId.Date : dates[0].LocalStart.Date;
        var remarks = new List<Saying>();
        var carried = Placed(series, from, carrying);
        if (carried.Remark is { } remark && day is null)
            remarks.Add(remark);
        var to = day is { } chosen ? carried with { Day = chosen } : carried;
        var end = series.Recurs ? carrying.To(dates[^1].RecurrenceId.Date, mayMove: false) : null;
        CarriedEvent Left(string code) => new(null, from, to, end, [Saying.Of(code)], IsPlain: true);
        if (before.State == EventState.Cancelled)
            return Left("carry.wasCancelled");
        if (series.IsEndless)
            return Left("carry.goesOn");
        if (series.Recurs && dates[^1].LocalStart.Date is var last && GoesBeyond(series, year, school, last))
            return Left("carry.goesBeyond");
        var later = series.Recurs
            ? Carried(series, dates, to.Day, carrying, school, remarks)
            : new Series(series.Timing.MovedTo(to.Day + series.Timing.Start.TimeOfDay));
        if (before.Exceptions.Count(one => year.Holds(one.RecurrenceId.Date)) is > 0 and var differing)
            remarks.Add(Saying.Of("carry.differing", ("count", differing)));
        var title = TitleYears.Later(before.Content.Title, carrying.Years);
        if (title != before.Content.Title)
            remarks.Add(Saying.Of("carry.yearInTitle"));
        var days = Period.DaysBetween(from, to.Day);
        var showing = before.Content.Showing;
        return new CarriedEvent(
            before.Content with
            {
                Title = title,
                Series = later,
                Showing = new ShowingSpan(showing.From?.PlusDays(days), showing.Until?.PlusDays(days)),
            },
            from, to, end, remarks, remarks.Count == 0);
    }

    /// <summary>By the week of its term; what comes by the month or the year, where its rule puts it in that month.</summary>
    private static CarriedDay Placed(Series series, LocalDate from, Carrying carrying)
    {
        if (series.Rule is not { Frequency: Frequency.Monthly or Frequency.Yearly } rule)
            return carrying.To(from, mayMove: !series.Recurs);
        var byWeek = carrying.To(from, mayMove: false);
        var first = (carrying.IsToOneTerm ? byWeek.Day : from.PlusYears(carrying.Years)).With(DateAdjusters.StartOfMonth);
        var open = rule.Ending(null, null);
        return Enumerable.Range(0, 31).Select(first.PlusDays)
            .Where(day => day.Month == first.Month
                && new Series(series.Timing.StartingAt(day + series.Timing.Start.TimeOfDay), open).RuleGivesItsStart)
            .Select(day => byWeek with { Day = day, Week = 0, Remark = null })
            .FirstOrDefault(byWeek);
    }

    /// <summary>A date later than the year, so that it reaches into the next by itself.</summary>
    private static bool GoesBeyond(Series series, YearPlan year, SchoolCalendar school, LocalDate last) =>
        series.From(last.PlusDays(1).AtMidnight(), school).FirstOrDefault(date => date.LocalStart.Date > year.Last).End != default;

    private static Series Carried(
        Series series, Occurrence[] dates, LocalDate to, Carrying carrying, SchoolCalendar school, List<Saying> remarks)
    {
        var timing = series.Timing.MovedTo(to + series.Timing.Start.TimeOfDay);
        LocalDateTime[] positions = [.. series.Pattern(carrying.From.First.AtMidnight(), school).TakeWhile(IsInYear)];
        var last = (positions.Length > 0 ? positions[^1] : dates[^1].RecurrenceId).Date;
        var rule = series.Rule switch
        {
            null => null,
            { Count: not null } counted => counted.Ending(Math.Max(1, series.Spent(positions, school)), null),
            var ended => ended.Ending(null, Until.Including(End(last) + timing.Start.TimeOfDay, timing)),
        };
        if (series.Removed.Count(IsInYear) is > 0 and var removed)
            remarks.Add(Saying.Of("carry.removed", ("count", removed)));
        if (rule is not null && !new Series(timing, rule).RuleGivesItsStart)
            remarks.Add(Saying.Of("carry.offPattern"));
        return series with
        {
            Timing = timing,
            Rule = rule,
            Cycle = series.Cycle is { Until: { } until } cycle ? cycle with { Until = End(until) } : series.Cycle,
            Extra = [.. series.Extra.Where(IsInYear).Select(date => carrying.To(date.Date).Day + date.TimeOfDay).Where(date =>
                date != timing.Start).Distinct().Order()],
            Removed = [],
        };

        bool IsInYear(LocalDateTime date) => carrying.From.Holds(date.Date);

        LocalDate End(LocalDate before) => LocalDate.Max(to, carrying.To(before, mayMove: false).Day);
    }
}
