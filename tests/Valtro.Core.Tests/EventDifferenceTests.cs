using Valtro.Core.Events;
using Valtro.Core.Recurrence;
using Valtro.Core.Time;
using Valtro.Core.YearPlans;

namespace Valtro.Core.Tests;

/// <summary>What history and conflicts say of two versions.</summary>
public class EventDifferenceTests
{
    private static readonly RuleWords English = RuleWords.For("en-GB");

    private static readonly CalendarEvent Lab = Build.Event(Build.Series("2026-11-24 14:00", "FREQ=WEEKLY;COUNT=6"));

    private static string[] Said(CalendarEvent after, CalendarEvent? before = null) =>
        [.. EventDifference.Between(before ?? Lab, after, English, id => id == Lab.HomeCalendarId ? "Port Watch" : "Starboard Watch")
            .Select(one => $"{one.Field}: {one.Was} → {one.Is}")];

    private static CalendarEvent With(Func<EventContent, EventContent> change) => Lab with { Content = change(Lab.Content) };

    private static CalendarEvent Timed(Func<Series, Series> change) => With(content => content with { Series = change(content.Series) });

    [Fact]
    public void The_same_twice_differs_in_nothing() => Assert.Empty(Said(Lab with { Uid = Uid.New() }));

    [Fact]
    public void Each_field_is_named_with_what_it_was_and_is()
    {
        Assert.Equal(["title: Boat lab → Knots"], Said(With(content => content with { Title = "Knots" })));
        Assert.Equal(["place: Slipway → "], Said(With(content => content with { Place = Place.Nowhere })));
        Assert.Equal(["description:  → Bring gloves"],
            Said(With(content => content with { Description = new RichText("<p>Bring gloves</p>", "Bring gloves") })));
        Assert.Equal(["category:  → Training"],
            Said(With(content => content with { Category = new Category(Guid.NewGuid(), "Training", Build.Harbour) })));
        Assert.Equal(["tags:  → outdoors, ropes"], Said(With(content => content with { Tags = ["outdoors", "ropes"] })));
        Assert.Equal(["state: live → cancelled"], Said(Lab with { State = EventState.Cancelled }));
        Assert.Equal(["calendarId: Port Watch → Starboard Watch"], Said(Lab with { HomeCalendarId = Guid.NewGuid() }));
    }

    [Fact]
    public void The_pattern_is_said_in_words() => Assert.Equal(
        ["when: Every Tuesday, 14:00 to 15:00, 6 dates → Every Tuesday, 14:00 to 15:00, 3 dates"],
        Said(Timed(series => series with { Rule = series.Rule!.Ending(3, null) })));

    [Fact]
    public void Dates_added_and_taken_out_are_counted()
    {
        var one = Timed(series => series with { Extra = [Build.Local("2026-11-27 14:00")], Removed = [Build.Local("2026-12-01 14:00")] });
        Assert.Equal(["extra: none → 1 date", "removed: none → 1 date"], Said(one));
        var two = Timed(series =>
            series with { Extra = [Build.Local("2026-11-27 14:00"), Build.Local("2026-11-28 14:00")], Removed = one.Series.Removed });
        Assert.Equal(["extra: 1 date → 2 dates"], Said(two, one));
    }

    [Fact]
    public void Another_zone_is_named() => Assert.Equal(
        ["zone: America/Halifax → Europe/Oslo"],
        Said(Timed(series => series with { Timing = Timing.Timed(series.Timing.Start, series.Timing.End, Zones.Named("Europe/Oslo")) })));

    [Fact]
    public void A_date_of_its_own_is_named_with_all_that_it_has()
    {
        var at = Build.Local("2026-12-01 14:00");
        var after = Lab with
        {
            Exceptions = [
                new EventException(at) { Start = Build.Local("2026-12-02 09:00"), End = Build.Local("2026-12-02 10:00"),
                    Own = OwnFields.None.With("title", "Mast").With("place", Place.Called(""))
                        .With("description", new RichText("<p>x</p>", "x")) }],
        };
        Assert.Equal(
            ["exception: Tuesday 1 December 2026 → moved to Wednesday 2 December 2026, 09:00 to 10:00, called “Mast”, without a place, with its own text"], Said(after));
        Assert.Equal(["exception: Tuesday 1 December 2026 → as the series"], Said(Lab, after));
        var cancelled =
            Lab with
            {
                Exceptions =
                [new EventException(at) { IsCancelled = true, Own = OwnFields.None.With("place", Place.Called("Loft")) }]
            };
        Assert.Equal(["exception: Tuesday 1 December 2026 → cancelled, in Loft"], Said(cancelled, after));
    }

    [Fact]
    public void What_was_typed_for_a_date_is_told_from_what_the_series_says()
    {
        var calendarEvent =
            Lab with
            {
                Exceptions =
                [new EventException(Build.Local("2026-12-01 14:00")) { Own = OwnFields.None.With("place", Place.Called("Loft")) }]
            };
        var seen = EventDates.Find(calendarEvent, Build.Local("2026-12-01 14:00"), SchoolCalendar.Empty)!.Value;
        var asShown = Lab.Content with { Place = Place.Called("Loft"), Series = Lab.Series with { Timing = seen.Timing } };
        Assert.Empty(EventDifference.Between(seen, Lab.Series, asShown, English));
        var typed = asShown with
        {
            Place = Place.Called("Slipway"),
            Series = asShown.Series with
            {
                Timing = Timing.Timed(seen.Timing.Start.PlusHours(1), seen.Timing.End.PlusHours(1), Zones.Named("Europe/Oslo")),
                Rule = RuleText.Parse("FREQ=DAILY"),
                Extra = [Build.Local("2026-12-05 14:00")],
                Removed = [Build.Local("2026-12-08 14:00")],
            },
        };
        Assert.Equal(
            ["place", "when", "repeat", "extra", "removed", "zone"],
            EventDifference.Between(seen, Lab.Series, typed, English).Select(one => one.Field));
    }

    [Fact]
    public void What_only_some_see_and_where_it_is_shown_differ_in_words_too()
    {
        var (home, other) = (Guid.NewGuid(), Guid.NewGuid());
        var before = Build.Event(Build.Series("2026-11-24 14:00")) with { HomeCalendarId = home };
        var after = before with
        {
            Placements = [other],
            Content = before.Content with
            {
                Links = [new EventLink("Map", "https://pinewick.example/map")],
                Files = [new EventFile(Guid.NewGuid(), "plan.pdf", "application/pdf", 1)],
                Contact = "Ada",
                Notes = "Wicks",
                Cap = new Core.Disclosure.Cap(null, null, Core.Disclosure.Detail.Times),
                Showing = new Core.Disclosure.ShowingSpan(Build.Day("2026-11-01"), Build.Day("2026-11-30")),
            },
        };
        var told = EventDifference.Between(
            before, after, Core.Recurrence.RuleWords.For("en-GB"), id => id == other ? "Whole school" : "Port Watch")
            .ToDictionary(one => one.Field, one => (one.Was, one.Is));
        Assert.Equal(("", "Whole school"), told["placements"]);
        Assert.Equal(("", "Map (https://pinewick.example/map)"), told["links"]);
        Assert.Equal(("", "plan.pdf"), told["files"]);
        Assert.Equal(("as the calendar says", "everyone: times"), told["cap"]);
        Assert.Equal(("always", "1 November 2026 to 30 November 2026"), told["showing"]);
        Assert.Equal(7, told.Count);
    }
}
