using NodaTime;
using Valtro.Core.Events;
using Valtro.Core.Time;

namespace Valtro.Core.YearPlans;

/// <summary>What a changed year plan does to one series.</summary>
/// <param name="Gone">Dates that fall out.</param>
/// <param name="New">Dates that come in.</param>
/// <param name="Moved">Dates that go to another day.</param>
/// <param name="Exceptions">Of the dates that fall out, those that differ from their series: what was said of them goes too.</param>
public sealed record PlanImpact(CalendarEvent Event, IReadOnlyList<LocalDate> Gone, IReadOnlyList<LocalDate> New,
    IReadOnlyList<LocalDate> Moved, IReadOnlyList<LocalDate> Exceptions)
{
    public int Count => Gone.Count + New.Count + Moved.Count;

    /// <summary>The series whose dates change, of those that follow the year plan.</summary>
    public static IReadOnlyList<PlanImpact> Of(IEnumerable<CalendarEvent> following, SchoolCalendar before, SchoolCalendar after)
    {
        var plans = before.Plans.Concat(after.Plans).ToArray();
        if (plans.Length == 0)
            return [];
        var (first, last) = (plans.Min(plan => plan.First), plans.Max(plan => plan.Last));
        return [.. from calendarEvent in following
                   let impact = Of(calendarEvent, new Window(first, last.PlusDays(1), calendarEvent.Series.Timing.Zone), before, after)
                   where impact.Count > 0
                   select impact];
    }

    private static PlanImpact Of(CalendarEvent calendarEvent, Window window, SchoolCalendar before, SchoolCalendar after)
    {
        var was = EventDates.In(calendarEvent, window, before).ToDictionary(date => date.Occurrence.RecurrenceId);
        var becomes = EventDates.In(calendarEvent, window, after)
            .ToDictionary(date => date.Occurrence.RecurrenceId, date => date.Occurrence.LocalStart.Date);
        var gone = was.Values.Where(date => !becomes.ContainsKey(date.Occurrence.RecurrenceId)).ToArray();
        return new PlanImpact(
            calendarEvent,
            [.. gone.Select(date => date.Occurrence.LocalStart.Date)],
            [.. becomes.Where(one => !was.ContainsKey(one.Key)).Select(one => one.Value).Order()],
            [.. was.Values.Where(date =>
                becomes.TryGetValue(date.Occurrence.RecurrenceId, out var day) && day != date.Occurrence.LocalStart.Date)
                .Select(date => date.Occurrence.LocalStart.Date)],
            [.. gone.Where(date => date.IsException).Select(date => date.Occurrence.LocalStart.Date)]);
    }
}
