using NodaTime;
using Valtro.Core.Calendars;
using Valtro.Core.Clashes;
using Valtro.Core.Events;
using Valtro.Core.Recurrence;
using Valtro.Core.Time;
using Valtro.Core.YearPlans;

namespace Valtro.Core.Tests;

public class WeekLoadsTests
{
    private static readonly Category Assessment = new(Guid.CreateVersion7(), "Assessment", Hue.Named("madder"));
    private static readonly Category Training = new(Guid.CreateVersion7(), "Training", Hue.Named("kelp"));
    private static readonly Guid Port = Guid.CreateVersion7();
    private static readonly Guid Starboard = Guid.CreateVersion7();
    private static readonly Guid Crew = Guid.CreateVersion7();

    private static readonly Dictionary<Guid, string[]> Readers = new()
    {
        [Port] = ["Junior families"],
        [Starboard] = ["Junior families", "Rowers"],
        [Crew] = ["Senior Crew"],
    };

    private static CalendarEvent On(Guid calendar, LocalDate first, LocalDate last, Category? category = null)
    {
        var one = Build.Event(new Series(Timing.WholeDays(first, last, Build.Halifax)));
        return one with { HomeCalendarId = calendar, Content = one.Content with { Category = category ?? Assessment } };
    }

    private static CalendarEvent On(Guid calendar, LocalDate day) => On(calendar, day, day);

    private static IEnumerable<EventDate> DatesOf(CalendarEvent one) => EventDates.All(one, SchoolCalendar.Empty);

    private static WeekLoads Loads(int most, IsoDayOfWeek firstDay, params CalendarEvent[] events) => new(
        events.SelectMany(DatesOf), new Dictionary<Guid, int> { [Assessment.Id] = most }, id => Readers[id], firstDay);

    private static string Said(Overload one) => $"{one.Week:uuuu-MM-dd} {one.Readers} {one.Count}/{one.Most}";

    [Fact]
    public void What_the_same_readers_have_on_several_calendars_is_counted_together()
    {
        var loads = Loads(2, IsoDayOfWeek.Monday,
            On(Port, new(2026, 11, 23)), On(Starboard, new(2026, 11, 25)), On(Port, new(2026, 11, 29)),
            On(Crew, new(2026, 11, 24)), On(Port, new(2026, 11, 30)));
        Assert.Equal(["2026-11-23 Junior families 3/2"], loads.Find().Select(Said));
    }

    [Fact]
    public void A_week_begins_where_the_organisation_says()
    {
        CalendarEvent[] both = [On(Port, new(2026, 11, 28)), On(Port, new(2026, 11, 29))];
        Assert.Equal(["2026-11-23 Junior families 2/1"], Loads(1, IsoDayOfWeek.Monday, both).Find().Select(Said));
        Assert.Empty(Loads(1, IsoDayOfWeek.Sunday, both).Find());
    }

    [Fact]
    public void Deadlines_count_and_other_categories_and_what_was_cancelled_do_not()
    {
        var due = On(Port, new(2026, 11, 24));
        due = due with { Content = due.Content with { Kind = EventKind.Deadline } };
        var cancelled = On(Port, new(2026, 11, 25)) with { State = EventState.Cancelled };
        var other = On(Port, new(2026, 11, 26), new(2026, 11, 26), Training);
        Assert.Empty(Loads(1, IsoDayOfWeek.Monday, due, cancelled, other).Find());
        Assert.Single(Loads(1, IsoDayOfWeek.Monday, due, cancelled, other, On(Port, new(2026, 11, 27))).Find());
    }

    [Fact]
    public void What_lasts_over_a_weekend_counts_in_both_weeks()
    {
        var loads = Loads(1, IsoDayOfWeek.Monday,
            On(Crew, new(2026, 11, 27), new(2026, 11, 30)), On(Crew, new(2026, 11, 23)), On(Crew, new(2026, 12, 6)));
        Assert.Equal(["2026-11-23 Senior Crew 2/1", "2026-11-30 Senior Crew 2/1"], loads.Find().Select(Said));
    }

    [Fact]
    public void An_event_on_several_calendars_of_the_same_readers_counts_once_for_them()
    {
        var both = On(Port, new(2026, 11, 24)) with { Placements = [Starboard] };
        Assert.Empty(Loads(1, IsoDayOfWeek.Monday, both).Find());
        Assert.Equal(
            ["2026-11-23 Junior families 2/1", "2026-11-23 Rowers 2/1"],
            Loads(1, IsoDayOfWeek.Monday, both, On(Starboard, new(2026, 11, 26))).Find().Select(Said));
    }

    [Fact]
    public void Dates_that_are_asked_about_are_counted_with_the_rest_and_not_twice()
    {
        var kept = On(Port, new(2026, 11, 24));
        var loads = Loads(1, IsoDayOfWeek.Monday, kept, On(Starboard, new(2026, 12, 1)));
        var dates = DatesOf(On(Port, new(2026, 11, 26))).Concat(DatesOf(On(Port, new(2026, 12, 3)))).Select(date => date.Occurrence);
        Assert.Equal(
            ["2026-11-23 Junior families 2/1", "2026-11-30 Junior families 2/1"],
            loads.FindWith(dates, kept.Content, [Port]).Select(one => Said(one.Overload)));
        Assert.Equal(
            ["2026-11-30 Junior families 2/1"],
            loads.FindWith(dates, kept.Content, [Port], except: kept.Id).Select(one => Said(one.Overload)));
    }

    [Fact]
    public void A_series_is_told_at_its_first_date_of_a_week()
    {
        var monday = new LocalDate(2026, 11, 23);
        Occurrence[] dates = [.. Enumerable.Range(0, 5).SelectMany(day => DatesOf(On(Crew, monday.PlusDays(day))))
            .Select(date => date.Occurrence)];
        var (overload, first) = Assert.Single(Loads(3, IsoDayOfWeek.Monday).FindWith(dates, On(Crew, monday).Content, [Crew]));
        Assert.Equal(5, overload.Count);
        Assert.Empty(overload.Dates);
        Assert.Equal(monday, first.LocalStart.Date);
    }
}
