using NodaTime;
using Valtro.Core.Events;
using Valtro.Core.Intake;
using Valtro.Core.YearPlans;

namespace Valtro.Core.Tests;

/// <summary>What comes from outside, beside what is here of it.</summary>
public sealed class IncomingTests
{
    private static readonly Guid Port = Guid.CreateVersion7();
    private static readonly Guid Starboard = Guid.CreateVersion7();

    private static readonly CalendarEvent First = Build.Event(Build.Series("2026-12-04 18:00", "FREQ=WEEKLY;COUNT=4"), "Knots") with
    {
        HomeCalendarId = Port,
    };

    private static Incoming From(CalendarEvent said) => new("a@x", 1, said with { Id = Guid.Empty, Uid = default }, []);

    private static KnownIncoming Known(CalendarEvent now, CalendarEvent? said, bool isRemoved = false) =>
        new(new StoredEvent(now, 3, isRemoved ? Instant.FromUtc(2026, 11, 1, 0, 0) : null, "", default, null), said);

    private static IncomingOutcome Of(CalendarEvent said, KnownIncoming? known) =>
        IncomingOutcome.Of(From(said), known, SchoolCalendar.Empty);

    private static CalendarEvent With(CalendarEvent one, Func<EventContent, EventContent> change) =>
        one with { Content = change(one.Content) };

    [Fact]
    public void What_nobody_knows_is_new() => Assert.Equal(IncomingState.New, Of(First, null).State);

    [Fact]
    public void What_says_nothing_new_is_the_same_whatever_was_changed_here()
    {
        var here = With(First, content => content with { Title = "Knots and bends", Notes = "rope", Tags = ["x"] });
        var outcome = Of(First, Known(here, First));
        Assert.Equal((IncomingState.Same, null), (outcome.State, outcome.After));
    }

    [Fact]
    public void Only_what_the_source_changed_is_taken()
    {
        var here = With(First, content => content with { Title = "Knots and bends", Notes = "rope" });
        var outcome = Of(With(First, content => content with { Place = Place.Called("Loft") }), Known(here, First));
        Assert.Equal(IncomingState.Changed, outcome.State);
        Assert.Equal(("Knots and bends", "rope", "Loft"),
            (outcome.After!.Content.Title, outcome.After.Content.Notes, outcome.After.Content.Place.Name));
        Assert.Empty(outcome.ChangedHere);
    }

    [Fact]
    public void Where_both_changed_a_field_the_source_counts_and_it_is_said()
    {
        var here = With(First, content => content with { Title = "Ours" });
        var outcome = Of(With(First, content => content with { Title = "Theirs" }), Known(here, First));
        Assert.Equal("Theirs", outcome.After!.Content.Title);
        Assert.Equal(["title"], outcome.ChangedHere.Select(field => field.Name));
        // They agree by now: nothing to take.
        Assert.Equal(IncomingState.Same, Of(With(First, content => content with { Title = "Ours" }), Known(here, First)).State);
    }

    [Fact]
    public void On_another_calendar_it_is_placed_and_its_home_stays()
    {
        var outcome = Of(First with { HomeCalendarId = Starboard }, Known(First, First));
        Assert.Equal((IncomingState.Changed, Port), (outcome.State, outcome.After!.HomeCalendarId));
        Assert.Equal([Starboard], outcome.After.Placements);
        Assert.Equal(IncomingState.Same, Of(First with { HomeCalendarId = Starboard }, Known(outcome.After, First)).State);
    }

    [Fact]
    public void What_rests_in_the_bin_comes_back_as_it_is_said_now()
    {
        var outcome = Of(With(First, content => content with { Title = "Bends" }), Known(First, null, isRemoved: true));
        Assert.Equal((IncomingState.New, First.Id, "Bends"), (outcome.State, outcome.After!.Id, outcome.After.Content.Title));
    }

    [Fact]
    public void Of_what_was_made_here_a_file_takes_nothing_away_that_it_does_not_say()
    {
        var here = With(First, content => content with { Notes = "rope", Contact = "office" });
        Assert.Equal(IncomingState.Same, Of(First, Known(here, null)).State);
    }

    [Fact]
    public void A_date_changed_here_stays_while_the_series_has_it_and_is_named_when_it_does_not()
    {
        var second = Build.Local("2026-12-11 18:00");
        var here = First with { Exceptions = [new EventException(second) { IsCancelled = true }] };
        var titled = Of(With(First, content => content with { Title = "Bends" }), Known(here, First));
        Assert.Equal(second, Assert.Single(titled.After!.Exceptions).RecurrenceId);
        var moved = Of(
            With(First, content => content with { Series = Build.Series("2026-12-05 18:00", "FREQ=WEEKLY;COUNT=4") }), Known(here, First));
        Assert.Empty(moved.After!.Exceptions);
        Assert.Equal([second], moved.Dropped);
    }

    [Fact]
    public void A_source_that_cancels_cancels_and_what_was_cancelled_here_stays_so()
    {
        Assert.Equal(EventState.Cancelled, Of(First with { State = EventState.Cancelled }, Known(First, First)).After!.State);
        var cancelled = First with { State = EventState.Cancelled };
        var outcome = Of(With(First, content => content with { Title = "Bends" }), Known(cancelled, First));
        Assert.Equal(EventState.Cancelled, outcome.After!.State);
    }
}
