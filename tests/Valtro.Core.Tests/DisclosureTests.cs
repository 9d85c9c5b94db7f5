using CsCheck;
using Valtro.Core.Disclosure;
using Valtro.Core.Events;
using Table = Valtro.Core.Disclosure.Disclosure;

namespace Valtro.Core.Tests;

public class DisclosureTests
{
    private static readonly Gen<Table> Tables =
        Gen.Enum<Detail>().Array[3].Select(levels => levels.OrderDescending().ToArray())
            .Select(levels => new Table(levels[0], levels[1], levels[2]));

    private static readonly Gen<Cap> Caps = Gen.Select(
        Gen.Enum<Detail>().Array[3].Select(levels => levels.OrderDescending().ToArray()), Gen.Bool.Array[3],
        (levels, said) => new Cap(said[0] ? levels[0] : null, said[1] ? levels[1] : null, said[2] ? levels[2] : null));

    [Fact]
    public void A_wider_audience_never_sees_more() =>
        Tables.Sample(table => Assert.True(
            table[Audience.Editors] >= table[Audience.Members]
                && table[Audience.Members] >= table[Audience.Link]
                && table[Audience.Link] >= table[Audience.Everyone]));

    [Fact]
    public void A_table_that_shows_the_wider_more_is_refused()
    {
        Assert.NotNull(Build.Refused("disclosure.everyone", () => _ = new Table(Detail.Complete, Detail.Nothing, Detail.Headline)));
        Assert.NotNull(Build.Refused("disclosure.link", () => _ = new Table(Detail.Times, Detail.Headline, Detail.Nothing)));
    }

    [Fact]
    public void A_cap_only_lowers() =>
        Gen.Select(Tables, Caps, Gen.Enum<Audience>()).Sample((table, cap, audience) =>
            Assert.True(table.For(audience, cap) <= table[audience] && table.For(audience, Cap.None) == table[audience]));

    [Fact]
    public void Editors_see_all_of_a_closed_calendar() => Assert.Equal(Detail.Complete, Table.Closed.For(Audience.Editors, Cap.None));

    private static CalendarEvent Secret(EventState state = EventState.Live) =>
        Build.Event(
            Build.Series("2026-11-24 14:00"), "marker-title", state, "marker-place", new RichText("<p>marker-html</p>", "marker-text"));

    [Fact]
    public void Times_give_away_nothing_but_the_times()
    {
        var calendarEvent = Secret();
        var seen = Disclosed.Of(calendarEvent, Detail.Times)!;
        Assert.DoesNotContain("marker", seen.ToString(), StringComparison.Ordinal);
        Assert.DoesNotContain(calendarEvent.Uid.ToString(), seen.ToString(), StringComparison.Ordinal);
        Assert.Equal(Disclosed.Busy, seen.Title);
    }

    [Fact]
    public void Times_keep_one_identity_so_that_programs_update_them()
    {
        var calendarEvent = Secret();
        Assert.Equal(Disclosed.Of(calendarEvent, Detail.Times)!.Identity, Disclosed.Of(calendarEvent, Detail.Times)!.Identity);
    }

    [Fact]
    public void A_headline_holds_no_description()
    {
        var seen = Disclosed.Of(Secret(), Detail.Headline)!;
        Assert.Equal(("marker-title", "marker-place", RichText.Empty), (seen.Title, seen.Content.Place.Name, seen.Content.Description));
    }

    [Fact]
    public void Nothing_is_nothing() => Assert.Null(Disclosed.Of(Secret(), Detail.Nothing));

    [Theory]
    [InlineData(EventState.Draft)]
    [InlineData(EventState.Waiting)]
    public void What_is_not_live_does_not_leave_the_house(EventState state) =>
        Assert.Null(Disclosed.ForReaders(Secret(state), Detail.Complete));

    [Fact]
    public void A_cancelled_event_is_not_busy_time() => Assert.Null(Disclosed.ForReaders(Secret(EventState.Cancelled), Detail.Times));
}
