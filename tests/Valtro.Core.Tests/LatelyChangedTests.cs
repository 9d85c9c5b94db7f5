using NodaTime;
using Valtro.Core.Calendars;
using Valtro.Core.Disclosure;
using Valtro.Core.Editions;
using Valtro.Core.Events;
using Valtro.Core.YearPlans;
using Table = Valtro.Core.Disclosure.Disclosure;

namespace Valtro.Core.Tests;

public class LatelyChangedTests
{
    private static readonly Source Port = new(Guid.NewGuid(), Plate.Parse("PW"), "Port Watch", Build.Harbour, Table.Open);

    private static readonly CalendarEvent Lab =
        Build.Event(Build.Series("2026-11-24 14:00", "FREQ=WEEKLY;COUNT=4")) with { HomeCalendarId = Port.CalendarId };

    private static IReadOnlyList<ChangedEntry> Changed(CalendarEvent now, CalendarEvent before, Source? source = null) => LatelyChanged.Of(
        new Composition(new Edition(Audience.Everyone, Build.Halifax, IsoDayOfWeek.Monday), [source ?? Port], SchoolCalendar.Empty,
            Instant.FromUtc(2026, 11, 23, 12, 0)),
        [new EventNews(now, before, SavedAt)], Build.Window("2026-11-09", "2027-11-09")).Entries;

    private static readonly Instant SavedAt = Instant.FromUtc(2026, 11, 20, 9, 0);

    private static ChangedEntries News(EventNews news, Source? source = null) => LatelyChanged.Of(
        new Composition(new Edition(Audience.Everyone, Build.Halifax, IsoDayOfWeek.Monday), [source ?? Port], SchoolCalendar.Empty,
            Instant.FromUtc(2026, 11, 23, 12, 0)),
        [news], Build.Window("2026-11-09", "2027-11-09"));

    private static CalendarEvent With(Func<EventException, EventException> differs) =>
        Lab with { Exceptions = [differs(new EventException(Build.Local("2026-12-01 14:00")))] };

    [Fact]
    public void A_date_that_was_moved_is_told_with_when_it_was()
    {
        var one = Assert.Single(
            Changed(With(date => date with { Start = Build.Local("2026-12-02 15:30"), End = Build.Local("2026-12-02 16:30") }), Lab));
        Assert.Equal((EntryChange.Moved, Build.Local("2026-12-02 15:30"), Build.Local("2026-12-01 14:00"), 0),
            (one.Change, one.Entry.Occurrence.LocalStart, one.Before.Occurrence.LocalStart, one.More));
        Assert.Equal(SavedAt, one.At);
    }

    [Fact]
    public void A_cancelled_date_and_one_that_takes_place_after_all()
    {
        var off = With(date => date with { IsCancelled = true });
        Assert.Equal(EntryChange.Cancelled, Assert.Single(Changed(off, Lab)).Change);
        Assert.Equal(EntryChange.TakesPlace, Assert.Single(Changed(Lab, off)).Change);
        Assert.Empty(Changed(off, off));
    }

    [Fact]
    public void A_series_that_moved_is_one_change_with_the_number_of_its_later_dates()
    {
        var later = Lab with { Content = Lab.Content with { Series = Build.Series("2026-11-24 15:00", "FREQ=WEEKLY;COUNT=4") } };
        var one = Assert.Single(Changed(later, Lab));
        Assert.Equal((EntryChange.Moved, Build.Local("2026-11-24 15:00"), 3), (one.Change, one.Entry.Occurrence.LocalStart, one.More));
    }

    [Fact]
    public void An_event_of_one_date_and_a_series_that_went_to_another_weekday_are_known_again()
    {
        CalendarEvent At(string start, string? rule) => Lab with { Content = Lab.Content with { Series = Build.Series(start, rule) } };
        Assert.Equal(EntryChange.Moved, Assert.Single(Changed(At("2026-12-17 14:00", null), At("2026-12-10 14:00", null))).Change);
        var week = Assert.Single(Changed(At("2026-11-25 14:00", "FREQ=WEEKLY;COUNT=4"), Lab));
        Assert.Equal((Build.Local("2026-11-24 14:00"), Build.Local("2026-11-25 14:00"), 3),
            (week.Before.Occurrence.LocalStart, week.Entry.Occurrence.LocalStart, week.More));
    }

    [Fact]
    public void Another_place_is_told_and_another_title_is_not()
    {
        Assert.Equal(EntryChange.Relocated,
            Assert.Single(Changed(With(date => date with { Own = OwnFields.None.With("place", Place.Called("Loft")) }), Lab)).Change);
        Assert.Empty(Changed(With(date => date with { Own = OwnFields.None.With("title", "Boat theory") }), Lab));
    }

    [Fact]
    public void Nothing_is_told_of_what_is_told_as_times_only_but_that_there_is_something()
    {
        var moved = With(date => date with { Start = Build.Local("2026-12-02 15:30"), End = Build.Local("2026-12-02 16:30") });
        var times =
            News(new EventNews(moved, Lab, SavedAt), Port with { Disclosure = new Table(Detail.Complete, Detail.Times, Detail.Times) });
        Assert.Equal((0, true), (times.Entries.Count, times.HoldsBack));
        var wasHidden = Lab with { Content = Lab.Content with { Cap = new Cap(null, null, Detail.Times) } };
        Assert.Empty(Changed(moved, wasHidden));
        // Nor of the title of what was hidden since.
        Assert.Empty(Changed(wasHidden, Lab));
        Assert.Empty(Changed(Lab with { Content = Lab.Content with { Cap = new Cap(null, null, Detail.Nothing) } }, Lab));
    }

    [Fact]
    public void What_is_new_is_told_once_for_all_its_dates()
    {
        foreach (var news in new[] { new EventNews(Lab, null, SavedAt, IsNew: true),
            new EventNews(Lab, Lab with { State = EventState.Draft }, SavedAt, IsNew: true),
                new EventNews(Lab, Lab, SavedAt, IsNew: true) })
        {
            var one = Assert.Single(News(news).Entries);
            Assert.Equal((EntryChange.New, 3, Build.Local("2026-11-24 14:00")), (one.Change, one.More, one.Entry.Occurrence.LocalStart));
        }
        // Of one that is new, a date that moved after its readers knew it is told as moved.
        var moved = With(date => date with { Start = Build.Local("2026-12-02 15:30"), End = Build.Local("2026-12-02 16:30") });
        Assert.Equal(
            [EntryChange.New, EntryChange.Moved], News(new EventNews(moved, Lab, SavedAt, IsNew: true)).Entries.Select(one => one.Change));
    }

    [Fact]
    public void What_was_removed_is_told_as_it_was_whole_or_one_date()
    {
        var gone = Assert.Single(News(new EventNews(null, Lab, SavedAt)).Entries);
        Assert.Equal((EntryChange.Removed, 3, "Boat lab"), (gone.Change, gone.More, gone.Entry.Title));
        var without = Lab with { Content = Lab.Content with { Series = Lab.Series with { Removed = [Build.Local("2026-12-01 14:00")] } } };
        var one = Assert.Single(Changed(without, Lab));
        Assert.Equal((EntryChange.Removed, 0, Build.Local("2026-12-01 14:00")), (one.Change, one.More, one.Entry.Occurrence.LocalStart));
        Assert.Equal(EntryChange.New, Assert.Single(Changed(Lab, without)).Change);
        // What was cancelled before it went is no news.
        Assert.Empty(News(new EventNews(null, Lab with { State = EventState.Cancelled }, SavedAt)).Entries);
        Assert.Empty(News(new EventNews(null, null, SavedAt)).Entries);
    }
}
