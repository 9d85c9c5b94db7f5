using NodaTime;
using Valtro.Core.Deliveries;

namespace Valtro.Core.Tests;

/// <summary>How often programs ask, which of them have the newest version, and what can be promised of the next.</summary>
public sealed class DeliveriesTests
{
    private static readonly Instant Morning = Instant.FromUtc(2026, 11, 27, 6, 0);
    private static readonly LocalDate Today = new(2026, 11, 27);

    [Theory]
    [InlineData("", ProgramKind.Other)]
    [InlineData("curl/8.1", ProgramKind.Other)]
    [InlineData("iOS/18.1 (22B83) remindd/1.0", ProgramKind.Phone)]
    [InlineData("Tidebook/3.2 (Linux; Android 15)", ProgramKind.Phone)]
    [InlineData("macOS/15.1 (24B83) CalendarAgent/1", ProgramKind.Desktop)]
    [InlineData("Sternpost/9 (Windows NT 10.0; Win64)", ProgramKind.Desktop)]
    [InlineData("Mozilla/5.0 (compatible; Harbourfeed; +https://harbourfeed.example/about)", ProgramKind.Web)]
    [InlineData("Harbour-Bot", ProgramKind.Web)]
    public void Where_a_program_runs_is_read_from_its_name(string name, ProgramKind kind)
    {
        Assert.Equal(kind, ProgramKinds.Of(name, isBrowser: false));
        Assert.Equal(ProgramKind.Browser, ProgramKinds.Of(name, isBrowser: true));
    }

    private static Fetcher Asking(Fetcher? today, Fetcher? yesterday, double hour, double? had = null, double has = -100, int times = 1) =>
        Fetcher.Asking(ProgramKind.Phone, today, yesterday, new Asked(times, Morning + Duration.FromHours(hour),
            Morning + Duration.FromHours(hour), had is { } of ? Morning + Duration.FromHours(of) : null,
                Morning + Duration.FromHours(has)));

    private static Fetcher Every(double hours, int times) => Enumerable.Range(0, times)
        .Aggregate((Fetcher?)null, (before, time) => Asking(before, null, time * hours))!;

    [Theory]
    [InlineData(0.25, 9, Rhythm.HalfHour)]
    [InlineData(0.5, 20, Rhythm.HalfHour)]
    [InlineData(1, 2, Rhythm.Hour)]
    [InlineData(1.5, 8, Rhythm.Hour)]
    [InlineData(3, 4, Rhythm.FewHours)]
    [InlineData(12, 2, Rhythm.FewHours)]
    [InlineData(16, 2, Rhythm.Day)]
    public void How_often_it_asks_is_how_far_apart_it_asked(double hours, int times, Rhythm rhythm) =>
        Assert.Equal(rhythm, Every(hours, times).Rhythm);

    [Fact]
    public void Who_asked_once_asks_as_they_did_yesterday()
    {
        Assert.Equal(Rhythm.Seldom, Asking(null, null, 0).Rhythm);
        Assert.Equal(Rhythm.Day, Asking(null, Asking(null, null, -24), 0).Rhythm);
        Assert.Equal(Rhythm.Hour, Asking(null, Every(1, 5), 24).Rhythm);
        // Two at one moment, of one program with two windows, say nothing of a rhythm.
        Assert.Equal(Rhythm.Seldom, Asking(null, null, 0, times: 2).Rhythm);
    }

    [Fact]
    public void What_was_new_to_it_is_known_by_what_it_said_it_had_else_by_what_it_got_last()
    {
        Assert.Null(Asking(null, null, 5, has: 2).Waited);
        Assert.Equal(Duration.FromHours(3), Asking(null, null, 5, had: 1, has: 2).Waited);
        Assert.Null(Asking(null, null, 5, had: 2, has: 2).Waited);
        var first = Asking(null, null, 1, has: 0);
        Assert.Equal(Duration.FromHours(4), Asking(first, null, 6, has: 2).Waited);
        Assert.Equal(Duration.FromHours(4), Asking(null, first, 6, has: 2).Waited);
        var again = Asking(Asking(first, null, 6, has: 2), null, 8, has: 2);
        Assert.Equal((3, Duration.FromHours(4), Morning + Duration.FromHours(2)), (again.Times, again.Waited, again.Has));
    }

    private static CountedDay Day(int ago, Rhythm rhythm, int programs, int newest = 0, ProgramKind kind = ProgramKind.Phone) =>
        new(Today.PlusDays(-ago), kind, rhythm, programs, programs, newest, []);

    [Fact]
    public void A_usual_day_is_the_mean_of_the_full_days_and_today_is_none()
    {
        var reach = FeedReach.Of(
            [Day(2, Rhythm.Hour, 10), Day(1, Rhythm.Hour, 14), Day(0, Rhythm.Hour, 3, 3), Day(1, Rhythm.Hour, 90,
                kind: ProgramKind.Browser),
                Day(40, Rhythm.Hour, 900)], Today, Today);
        Assert.Equal((12, 3, ReachState.Some), (reach.Usual, reach.Since, reach.State));
        // On the first day it is the usual one.
        Assert.Equal((2, 1, ReachState.Some), FeedReach.Of([Day(0, Rhythm.Seldom, 2, 1)], Today, Today) is var first
            ? (first.Usual, first.Since, first.State) : default);
        Assert.Equal([(ProgramKind.Phone, 2.0)], FeedReach.UsualKinds([Day(0, Rhythm.Seldom, 2, 1)], Today));
        Assert.Equal([(ProgramKind.Phone, 12.0), (ProgramKind.Web, 1.0)], FeedReach.UsualKinds(
            [Day(2, Rhythm.Hour, 10), Day(1, Rhythm.Hour, 14), Day(1, Rhythm.Day, 2, kind: ProgramKind.Web), Day(0, Rhythm.Hour, 3)],
            Today));
        // Fetched for three days only, on one of which nobody came.
        Assert.Equal(4, FeedReach.Of([Day(3, Rhythm.Day, 12)], Today, Today).Usual);
    }

    [Fact]
    public void Of_several_days_the_busiest_counts_and_of_those_who_come_seldom_each()
    {
        var days = new[]
        {
            Day(3, Rhythm.Day, 20), Day(2, Rhythm.Day, 20, 12), Day(1, Rhythm.Day, 20, 18), Day(0, Rhythm.Day, 2, 2),
            Day(3, Rhythm.Seldom, 3), Day(2, Rhythm.Seldom, 2, 2), Day(1, Rhythm.Seldom, 1, 1),
        };
        var reach = FeedReach.Of(days, Today.PlusDays(-2), Today);
        Assert.Equal([(Rhythm.Day, 18), (Rhythm.Seldom, 3)], reach.Rhythms.Select(one => (one.Rhythm, one.Since)));
        Assert.Equal([0.9, 1], reach.Rhythms.Select(one => one.Share));
    }

    [Theory]
    [InlineData(0, 0, ReachState.Nobody)]
    [InlineData(40, 0, ReachState.None)]
    [InlineData(40, 1, ReachState.Some)]
    [InlineData(40, 37, ReachState.Some)]
    [InlineData(40, 38, ReachState.All)]
    [InlineData(40, 55, ReachState.All)]
    [InlineData(0, 2, ReachState.All)]
    public void All_some_or_none(int usual, int since, ReachState state) => Assert.Equal(state,
        new FeedReach([new ReachByRhythm(Rhythm.Day, usual, since, ProgramKind.Phone)]).State);

    [Fact]
    public void What_can_be_promised_is_how_often_most_and_nearly_all_ask()
    {
        ReachByRhythm Of(Rhythm rhythm, double usual) => new(rhythm, usual, 0, ProgramKind.Phone);
        var reach = new FeedReach([Of(Rhythm.HalfHour, 19), Of(Rhythm.Hour, 105), Of(Rhythm.FewHours, 62), Of(Rhythm.Day, 48),
            Of(Rhythm.Seldom, 6)]);
        Assert.Equal((Rhythm.Hour, Rhythm.Day), (reach.Most, reach.Last));
        Assert.Equal((null, null), (FeedReach.Nothing.Most, FeedReach.Nothing.Last));
        var both = FeedReach.Sum([reach, reach]);
        Assert.Equal((480, Rhythm.Hour), (both.Usual, both.Most));
    }

    [Fact]
    public void Half_of_what_was_new_was_fetched_within_a_step()
    {
        CountedDay Waiting(params int[] waits) => Day(1, Rhythm.Hour, 9) with { Waits = waits };
        Assert.Null(WaitSteps.Half([Waiting(), Waiting(0, 0, 0)]));
        Assert.Equal(30, WaitSteps.Half([Waiting(1)]));
        Assert.Equal(60, WaitSteps.Half([Waiting(1, 3), Waiting(2, 0, 2)]));
        Assert.Equal(2880, WaitSteps.Half([Waiting(0, 0, 0, 0, 0, 0, 1, 4)]));
    }
}
