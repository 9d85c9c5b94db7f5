using Valtro.Core.Clashes;
using Valtro.Core.Events;
using Valtro.Core.YearPlans;

namespace Valtro.Core.Tests;

public class ClashTests
{
    private static readonly Place Hall = new(Guid.NewGuid(), "Hall");

    private static Place At(string typed) => Place.Typed(typed, [Hall]);

    private static IReadOnlyList<Clash> Find(string start, string place, CalendarEvent other, string[]? readers = null,
        string[]? othersReaders = null, int minutes = 60) => Among(other, othersReaders, 10).Find(
        Build.Series(start, minutes: minutes).All(), new EventContent(Build.Series(start)) { Place = At(place) }, readers ?? []);

    /// <summary>With some of the first dates of another event.</summary>
    private static ClashFinder Among(
        CalendarEvent other, string[]? readers = null, int dates = 1, Func<Guid, Guid, bool>? sharePlace = null) => new(
        [.. EventDates.All(other, SchoolCalendar.Empty).Take(dates)], _ => readers ?? [], sharePlace ?? ((one, there) => one == there));

    private static CalendarEvent Other(string start = "2026-11-24 14:30", string place = "Hall", EventState state = EventState.Live) =>
        There(Build.Event(Build.Series(start), "Choir", state), place);

    private static CalendarEvent There(CalendarEvent other, string place) =>
        other with { Content = other.Content with { Place = At(place) } };

    [Fact]
    public void The_same_known_place_at_the_same_time_is_a_clash()
    {
        var clash = Assert.Single(Find("2026-11-24 14:00", "hall", Other()));
        Assert.Equal((ClashKind.Place, "Choir"), (clash.Kind, clash.With.Title));
    }

    [Theory]
    [InlineData("2026-11-24 13:30")]
    [InlineData("2026-11-24 15:30")]
    public void One_that_ends_when_the_other_begins_is_none(string start) => Assert.Empty(Find(start, "Hall", Other()));

    [Fact]
    public void A_place_that_only_people_know_clashes_with_nothing() =>
        Assert.Empty(Find("2026-11-24 14:00", "at the old oak", Other(place: "at the old oak")));

    [Fact]
    public void What_is_cancelled_takes_no_place() => Assert.Empty(Find("2026-11-24 14:00", "Hall", Other(state: EventState.Cancelled)));

    [Fact]
    public void Calendars_that_the_same_people_read_clash_softly()
    {
        var clash = Assert.Single(Find("2026-11-24 14:00", "Loft", Other(), ["Junior families"], ["Crew families", "Junior families"]));
        Assert.Equal((ClashKind.Readership, "Junior families"), (clash.Kind, clash.What));
        Assert.Empty(Find("2026-11-24 14:00", "Loft", Other(), ["Junior families"], ["Crew families"]));
    }

    [Fact]
    public void A_long_one_that_began_earlier_is_found_behind_short_ones()
    {
        var others = new[] { There(Build.Event(Build.Series("2026-11-24 08:00", minutes: 600), "All day"), "Hall"),
            There(Build.Event(Build.Series("2026-11-24 09:00"), "Short"), "Hall") };
        var series = Build.Series("2026-11-24 17:00");
        var finder = new ClashFinder(
            [.. others.SelectMany(one => EventDates.All(one, SchoolCalendar.Empty))], _ => [], (one, there) => one == there);
        var clashes = finder.Find(series.All(), new EventContent(series) { Place = Hall }, []);
        Assert.Equal("All day", Assert.Single(clashes).With.Title);
    }

    [Fact]
    public void What_is_due_clashes_with_nothing_and_what_takes_no_time_with_no_readers()
    {
        var due = Other();
        due = due with { Content = due.Content with { Kind = EventKind.Deadline } };
        Assert.Empty(Find("2026-11-24 14:00", "Hall", due, ["Junior families"], ["Junior families"]));

        var free = Other();
        free = free with { Content = free.Content with { Transparency = Transparency.Free } };
        Assert.Equal(ClashKind.Place, Assert.Single(Find("2026-11-24 14:00", "Hall", free, ["Junior families"], ["Junior families"])).Kind);
        Assert.Empty(Find("2026-11-24 14:00", "Loft", free, ["Junior families"], ["Junior families"]));
    }

    private static readonly Guid Bo = Guid.NewGuid();

    private static IReadOnlyList<Clash> FindPerson(string start, Involved here, Involved there)
    {
        var other = Other(place: "Loft");
        other = other with { Content = other.Content with { People = [there] } };
        return Among(other).Find(Build.Series(start, minutes: 60).All(), new EventContent(other.Series) { People = [here] }, []);
    }

    [Fact]
    public void Somebody_in_two_places_at_once_is_a_clash_and_a_name_alone_is_nobody()
    {
        var bo = new Involved(Bo, "Bo");
        var clash = Assert.Single(FindPerson("2026-11-24 14:00", bo, bo));
        Assert.Equal((ClashKind.Person, "Bo"), (clash.Kind, clash.What));
        Assert.Empty(FindPerson("2026-11-24 14:00", bo, new Involved(Guid.NewGuid(), "Bo")));
        Assert.Empty(FindPerson("2026-11-24 14:00", new Involved(null, "Bo"), new Involved(null, "Bo")));
    }

    /// <summary>14:00 to 15:00 here, 14:30 to 15:30 there.</summary>
    [Theory]
    [InlineData(null, "14:30", null, null, false)]
    [InlineData(null, null, "15:00", null, false)]
    [InlineData(null, "14:45", null, null, true)]
    [InlineData("13:00", "14:00", "14:00", "14:15", false)]
    public void People_are_taken_for_their_own_times(string? from, string? to, string? thereFrom, string? thereTo, bool meets)
    {
        NodaTime.LocalTime? Time(string? text) =>
            text is null ? null : NodaTime.Text.LocalTimePattern.ExtendedIso.Parse($"{text}:00").Value;
        var found = FindPerson(
            "2026-11-24 14:00", new Involved(Bo, "Bo", From: Time(from), To: Time(to)),
            new Involved(Bo, "Bo", From: Time(thereFrom), To: Time(thereTo)));
        Assert.Equal(meets, found.Count == 1);
    }

    /// <summary>14:30 to 15:30 there, in the same hall and read by the same families.</summary>
    [Theory]
    [InlineData("2026-11-24 13:00", 0, 0, false)]
    [InlineData("2026-11-24 13:00", 31, 0, true)]
    [InlineData("2026-11-24 16:00", 0, 0, false)]
    [InlineData("2026-11-24 16:00", 0, 31, true)]
    public void Set_up_and_clear_away_take_the_place_and_not_the_readers(string start, int before, int after, bool meets)
    {
        var other = Other();
        other = other with { Content = other.Content with { StaffSpan = new StaffSpan(before, after) } };
        var found = Find(start, "Hall", other, ["Junior families"], ["Junior families"], minutes: 60);
        Assert.Equal(meets, found.Count == 1);
        Assert.Empty(Find(start, "Loft", other, ["Junior families"], ["Junior families"], minutes: 60));
        var own = Among(Other()).Find(
            Build.Series(start, minutes: 60).All(),
            new EventContent(other.Series) { Place = At("Hall"), StaffSpan = new StaffSpan(after, before) }, []);
        Assert.Equal(meets, own.Count == 1);
    }

    [Fact]
    public void A_place_and_a_part_of_it_cannot_be_taken_at_once()
    {
        var stage = new Place(Guid.NewGuid(), "Hall, stage");
        IReadOnlyList<Clash> OnStage(PlaceTree tree) => Among(Other(), sharePlace: tree.Share).Find(
            Build.Series("2026-11-24 14:00", minutes: 60).All(), new EventContent(Build.Series("2026-11-24 14:00")) { Place = stage }, []);

        Assert.Empty(OnStage(new PlaceTree([])));
        Assert.Equal(
            ClashKind.Place, Assert.Single(OnStage(new PlaceTree([KeyValuePair.Create(stage.Id!.Value, Hall.Id!.Value)]))).Kind);
    }

    /// <summary>14:30 to 15:30 there, 12:00 to 13:00 here.</summary>
    [Theory]
    [InlineData("14:45", true)]
    [InlineData("14:30", false)]
    public void Somebody_who_stays_longer_than_their_event_is_taken_beyond_it(string until, bool meets)
    {
        var to = NodaTime.Text.LocalTimePattern.ExtendedIso.Parse($"{until}:00").Value;
        Assert.Equal(
            meets, FindPerson("2026-11-24 12:00", new Involved(Bo, "Bo", To: to), new Involved(Bo, "Bo")).Count == 1);
    }

    [Fact]
    public void A_ring_of_parts_has_an_end()
    {
        var (one, other) = (Guid.NewGuid(), Guid.NewGuid());
        var ring = new PlaceTree([KeyValuePair.Create(one, other), KeyValuePair.Create(other, one)]);
        Assert.True(ring.Share(one, other));
        Assert.False(ring.IsPart(one, Guid.NewGuid()));
    }
}
