using CsCheck;
using NodaTime;
using Valtro.Core.Disclosure;
using Valtro.Core.Events;
using Table = Valtro.Core.Disclosure.Disclosure;

namespace Valtro.Core.Tests.Disclosure;

public class VisibilityTests
{
    private static readonly Instant Now = Instant.FromUtc(2026, 11, 23, 12, 0);

    internal static readonly Gen<Table> Tables =
        Gen.Enum<Detail>().Array[3].Select(levels => levels.OrderDescending().ToArray())
            .Select(levels => new Table(levels[0], levels[1], levels[2]));

    internal static readonly Gen<Cap> Caps = Gen.Select(
        Gen.Enum<Detail>().Array[3].Select(levels => levels.OrderDescending().ToArray()), Gen.Bool.Array[3],
        (levels, said) => new Cap(said[0] ? levels[0] : null, said[1] ? levels[1] : null, said[2] ? levels[2] : null));

    private static readonly Gen<ShowingSpan> Spans =
        Gen.Select(Gen.Int[-3, 3], Gen.Int[0, 4], Gen.Int[0, 3]).Select(drawn => drawn.Item3 switch
    {
        0 => ShowingSpan.Always,
        1 => new ShowingSpan(Build.Day("2026-11-23").PlusDays(drawn.Item1), null),
        2 => new ShowingSpan(null, Build.Day("2026-11-23").PlusDays(drawn.Item1)),
        _ => new ShowingSpan(Build.Day("2026-11-23").PlusDays(drawn.Item1), Build.Day("2026-11-23").PlusDays(drawn.Item1 + drawn.Item2)),
    });

    private static readonly Gen<CalendarEvent> Events =
        Gen.Select(Caps, Spans, Gen.Enum<EventState>(), (cap, span, state) => Shown(cap, span, state));

    private static CalendarEvent Shown(Cap? cap = null, ShowingSpan? span = null, EventState state = EventState.Live) =>
        Build.Event(Build.Series("2026-11-24 14:00"), state: state) is var made
            ? made with { Content = made.Content with { Cap = cap ?? Cap.None, Showing = span ?? ShowingSpan.Always } }
            : throw new InvalidOperationException();

    [Fact]
    public void A_wider_audience_never_sees_more_whatever_table_cap_span_and_state() =>
        Gen.Select(Tables, Events, Gen.Bool).Sample((table, calendarEvent, unfinished) =>
        {
            var levels =
                Enum.GetValues<Audience>().Select(audience => Visibility.Of(calendarEvent, table, audience, Now, unfinished)).ToArray();
            Assert.Equal(levels.OrderDescending(), levels);
        });

    [Fact]
    public void Capping_never_gains() =>
        Gen.Select(Tables, Caps, Gen.Enum<Audience>()).Sample((table, cap, audience) =>
            Assert.True(Visibility.Of(Shown(cap), table, audience, Now) <= Visibility.Of(Shown(), table, audience, Now)));

    [Fact]
    public void Opening_a_table_never_takes_anything_from_anybody() =>
        Gen.Select(Tables, Tables, Events, Gen.Enum<Audience>()).Sample((table, other, calendarEvent, audience) =>
            Assert.True(
                Visibility.Of(calendarEvent, table.Or(other), audience, Now) >= Visibility.Of(calendarEvent, table, audience, Now)));

    [Fact]
    public void What_is_said_for_a_narrow_audience_holds_for_the_wider_ones_too()
    {
        var cap = new Cap(Detail.Times, null, null);
        Assert.Equal(
            [Detail.Complete, Detail.Times, Detail.Times, Detail.Times], Enum.GetValues<Audience>().Select(audience => cap[audience]));
        Assert.Equal(Detail.Headline, new Cap(null, Detail.Headline, null)[Audience.Everyone]);
    }

    [Theory]
    [InlineData(Detail.Times, Detail.Headline, null, "cap.link")]
    [InlineData(null, Detail.Times, Detail.Complete, "cap.everyone")]
    [InlineData(Detail.Nothing, null, Detail.Times, "cap.everyone")]
    public void A_cap_that_allows_the_wider_more_is_refused(Detail? members, Detail? link, Detail? everyone, string field) =>
        Assert.NotNull(Build.Refused(field, () => _ = new Cap(members, link, everyone)));

    [Theory]
    [InlineData("2026-11-24", null, false)]
    [InlineData("2026-11-23", null, true)]
    [InlineData(null, "2026-11-22", false)]
    [InlineData(null, "2026-11-23", true)]
    [InlineData("2026-11-20", "2026-11-25", true)]
    public void Outside_its_showing_span_only_editors_see_it(string? from, string? until, bool isShown)
    {
        var span = new ShowingSpan(from is null ? null : Build.Day(from), until is null ? null : Build.Day(until));
        var calendarEvent = Shown(span: span);
        Assert.Equal(isShown ? Detail.Complete : Detail.Nothing, Visibility.Of(calendarEvent, Table.Open, Audience.Everyone, Now));
        Assert.Equal(Detail.Complete, Visibility.Of(calendarEvent, Table.Open, Audience.Editors, Now));
    }

    [Fact]
    public void It_appears_and_disappears_at_midnight_of_its_own_zone()
    {
        var span = new ShowingSpan(Build.Day("2026-11-24"), Build.Day("2026-11-25"));
        var (appears, disappears) = (Instant.FromUtc(2026, 11, 24, 4, 0), Instant.FromUtc(2026, 11, 26, 4, 0));
        Assert.Equal(appears, span.NextTurn(Now, Build.Halifax));
        Assert.Equal(disappears, span.NextTurn(appears, Build.Halifax));
        Assert.Null(span.NextTurn(disappears, Build.Halifax));
        Assert.Equal((false, true, true, false),
            (span.Holds(appears - Duration.Epsilon, Build.Halifax), span.Holds(appears, Build.Halifax),
                span.Holds(disappears - Duration.Epsilon, Build.Halifax), span.Holds(disappears, Build.Halifax)));
        Assert.NotNull(Build.Refused("showUntil", () => _ = new ShowingSpan(Build.Day("2026-11-25"), Build.Day("2026-11-24"))));
    }

    [Theory]
    [InlineData(EventState.Draft)]
    [InlineData(EventState.Waiting)]
    public void What_is_unfinished_is_for_those_who_make_it(EventState state)
    {
        Assert.Equal(Detail.Nothing, Visibility.Of(Shown(state: state), Table.Open, Audience.Editors, Now));
        Assert.Equal(Detail.Complete, Visibility.Of(Shown(state: state), Table.Open, Audience.Editors, Now, seesUnfinished: true));
    }

    [Fact]
    public void On_several_calendars_a_person_sees_what_the_most_open_shows_and_does_not_learn_of_the_others()
    {
        var (hidden, times, open) = (Guid.NewGuid(), Guid.NewGuid(), Guid.NewGuid());
        var calendarEvent = Shown() with { HomeCalendarId = hidden, Placements = [times, open, Guid.NewGuid()] };
        var tables = new Dictionary<Guid, Table>
        {
            [hidden] = Table.Closed,
            [times] = new(Detail.Times, Detail.Nothing, Detail.Nothing),
            [open] = new(Detail.Headline, Detail.Nothing, Detail.Nothing)
        };
        var member = new Viewer(Guid.NewGuid(), Guid.NewGuid(), false, new Dictionary<Guid, CalendarRole>());
        var sight = member.Of(calendarEvent, tables, Now);
        Assert.Equal((Detail.Headline, Grants.Names), (sight.Detail, sight.Grants));
        Assert.Equal([times, open], sight.Calendars);
        Assert.Equal(Sight.Nothing, member.As(Audience.Everyone).Of(calendarEvent, tables, Now));
        var contributor = member with { Roles = new Dictionary<Guid, CalendarRole> { [hidden] = CalendarRole.Contributor } };
        Assert.Equal((Detail.Complete, Grants.Notes | Grants.Settings | Grants.Names | Grants.StaffSpan),
            (contributor.Of(calendarEvent, tables, Now).Detail, contributor.Of(calendarEvent, tables, Now).Grants));
        var elsewhere = member with { Roles = new Dictionary<Guid, CalendarRole> { [open] = CalendarRole.Editor } };
        Assert.Equal((Detail.Complete, Grants.Names),
            (elsewhere.Of(calendarEvent, tables, Now).Detail, elsewhere.Of(calendarEvent, tables, Now).Grants));
    }
}
