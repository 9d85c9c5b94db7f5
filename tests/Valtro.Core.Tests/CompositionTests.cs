using NodaTime;
using Valtro.Core.Calendars;
using Valtro.Core.Disclosure;
using Valtro.Core.Editions;
using Valtro.Core.Events;
using Valtro.Core.YearPlans;
using Table = Valtro.Core.Disclosure.Disclosure;

namespace Valtro.Core.Tests;

public class CompositionTests
{
    private static readonly Instant Now = Instant.FromUtc(2026, 11, 23, 12, 0);

    private static Source Calendar(Table disclosure, params CalendarEvent[] events) =>
        new(Guid.NewGuid(), Plate.Parse("PW"), "Port Watch", Build.Harbour, disclosure, events);

    private static IReadOnlyList<Entry> Compose(params Source[] sources) =>
        Composition.Compose(sources, Audience.Everyone, Build.Window("2026-11-23", "2026-11-30"), SchoolCalendar.Empty, Now);

    [Fact]
    public void A_closed_calendar_gives_nothing() => Assert.Empty(Compose(Calendar(Table.ForMembers, Build.Event(Build.Series("2026-11-24 14:00")))));

    [Fact]
    public void Drafts_stay_inside() => Assert.Empty(Compose(Calendar(Table.Open, Build.Event(Build.Series("2026-11-24 14:00"), state: EventState.Draft))));

    [Fact]
    public void Whole_days_come_first_then_times_ascend_whatever_the_order_of_sources()
    {
        var boats = Calendar(Table.Open, Build.Event(Build.Series("2026-11-24 14:00", "FREQ=DAILY;COUNT=2"), "Boats"));
        var school = Calendar(Table.Open, Build.Event(Build.DaySeries("2026-11-24", "2026-11-24"), "Drill"), Build.Event(Build.Series("2026-11-24 09:00"), "Knots"));
        string[] expected = ["Drill", "Knots", "Boats", "Boats"];
        Assert.Equal(expected, Compose(boats, school).Select(entry => entry.Event.Title));
        Assert.Equal(expected, Compose(school, boats).Select(entry => entry.Event.Title));
    }

    [Fact]
    public void A_feed_gets_whole_events_as_far_as_its_readers_may_know_them()
    {
        var calendar = Calendar(Table.ForMembers, Build.Event(Build.Series("2026-11-24 14:00"), "Boats"), Build.Event(Build.Series("2026-11-25 14:00"), "Draft", EventState.Draft));
        Assert.Empty(Composition.Disclose(calendar, Audience.Everyone, Now));
        var (happening, disclosed) = Assert.Single(Composition.Disclose(calendar, Audience.Members, Now));
        Assert.Equal(("Boats", "Boats"), (happening.Content.Title, disclosed.Title));
    }

    [Fact]
    public void An_event_outside_its_showing_span_waits_and_the_edition_knows_until_when_it_is_right()
    {
        var made = Build.Event(Build.Series("2026-11-25 14:00"), "Lantern supper");
        var later = made with { Content = made.Content with { Showing = new ShowingSpan(Build.Day("2026-11-24"), null) } };
        var calendar = Calendar(Table.Open, later, Build.Event(Build.Series("2026-11-24 14:00"), "Boats"));
        Assert.Equal(["Boats"], Compose(calendar).Select(entry => entry.Event.Title));
        var turn = Composition.NextTurn([calendar], Audience.Everyone, Now);
        Assert.Equal(Instant.FromUtc(2026, 11, 24, 4, 0), turn);
        Assert.Equal(2, Composition.Compose([calendar], Audience.Everyone, Build.Window("2026-11-23", "2026-11-30"), SchoolCalendar.Empty, turn!.Value).Count);
        Assert.Null(Composition.NextTurn([calendar with { Disclosure = Table.ForMembers }], Audience.Everyone, Now));
    }

    [Fact]
    public void An_event_s_own_cap_lowers_what_the_audience_gets()
    {
        var made = Build.Event(Build.Series("2026-11-25 14:00"), "Radio exam");
        var capped = made with { Content = made.Content with { Cap = new Cap(null, null, Detail.Times) } };
        var entry = Assert.Single(Compose(Calendar(Table.Open, capped)));
        Assert.Equal((Disclosed.Busy, Detail.Times), (entry.Event.Title, entry.Event.Detail));
    }

    /// <summary>How much is told of an event changes nothing about when it is, but that a cancelled date is only known from the headline on.</summary>
    [Theory]
    [InlineData(Detail.Times, new[] { "Busy 24", "Busy 26" })]
    [InlineData(Detail.Headline, new[] { "Boats 24", "Boats 25 cancelled", "Regatta 26" })]
    [InlineData(Detail.Complete, new[] { "Boats 24", "Boats 25 cancelled", "Regatta 26" })]
    public void Every_level_has_the_same_dates_with_what_it_may_know_of_them(Detail level, string[] expected)
    {
        var series = Build.Event(Build.Series("2026-11-24 14:00", "FREQ=DAILY;COUNT=3"), "Boats") with
        {
            Exceptions = [new EventException(Build.Local("2026-11-25 14:00")) { IsCancelled = true }, new EventException(Build.Local("2026-11-26 14:00")) { Title = "Regatta" }],
        };
        var entries = Compose(Calendar(new Table(level, level, level), series));
        Assert.Equal(expected, entries.Select(entry =>
            $"{entry.Event.Title} {entry.Occurrence.LocalStart.Day}{(entry.Event.State == EventState.Cancelled ? " cancelled" : "")}"));
    }

    [Fact]
    public void An_event_on_two_calendars_stands_once_on_each_and_is_told_as_each_says()
    {
        var shared = Build.Event(Build.Series("2026-11-24 14:00"), "Open evening");
        var entries = Compose(Calendar(Table.Open, shared), Calendar(new Table(Detail.Complete, Detail.Times, Detail.Times), shared), Calendar(Table.ForMembers, shared));
        Assert.Equal([("Busy", Detail.Times), ("Open evening", Detail.Complete)], entries.Select(entry => (entry.Event.Title, entry.Event.Detail)));
        Assert.NotEqual(entries[0].Event.Identity, entries[1].Event.Identity);
    }

    [Fact]
    public void A_cancelled_event_is_told_from_the_headline_on_and_its_times_are_free_again()
    {
        var off = Build.Event(Build.Series("2026-11-24 14:00"), "Boats", EventState.Cancelled);
        Assert.Equal(EventState.Cancelled, Assert.Single(Compose(Calendar(new Table(Detail.Headline, Detail.Headline, Detail.Headline), off))).Event.State);
        Assert.Empty(Compose(Calendar(new Table(Detail.Times, Detail.Times, Detail.Times), off)));
    }

    [Fact]
    public void The_next_turn_is_the_first_of_all_events_that_the_audience_will_see()
    {
        CalendarEvent From(string day, EventState state = EventState.Live) =>
            Build.Event(Build.Series("2026-12-20 14:00"), state: state) is var made ? made with { Content = made.Content with { Showing = new ShowingSpan(Build.Day(day), null) } } : made;
        var turn = Composition.NextTurn([Calendar(Table.Open, From("2026-12-03"), From("2026-12-01")), Calendar(Table.Open, From("2026-11-30", EventState.Draft))], Audience.Everyone, Now);
        Assert.Equal(Instant.FromUtc(2026, 12, 1, 4, 0), turn);
    }
}
