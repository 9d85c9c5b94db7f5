using NodaTime;
using Valtro.Core.Calendars;
using Valtro.Core.Deliveries;
using Valtro.Core.Disclosure;

namespace Valtro.Store.Tests;

/// <summary>Who fetched what is counted by day, and nothing is kept that leads to anybody.</summary>
public sealed class DeliveryStoreTests : SchoolAndClub
{
    private Calendar _calendar = null!;

    public override async Task InitializeAsync()
    {
        await base.InitializeAsync();
        _calendar = await Calendars.AddAsync(
            _school, new CalendarSettings("PW", Plate.Parse("PW"), Hue.Named("harbour"), Halifax, "", Disclosure.Open, []), Now);
    }

    private DeliveryStore Deliveries => new(_test.Database);

    private LocalDate Today => Now.InZone(Halifax).Date;

    private static string Etag(string of) => Convert.ToHexStringLower(System.Text.Encoding.ASCII.GetBytes(of.PadRight(16)));

    private Instant StartOf(LocalDate day) => Halifax.AtStartOfDay(day).ToInstant();

    /// <summary>A program has a name that depends on the day, as with salts.</summary>
    private static byte[] Named(int program, LocalDate day) => [(byte)(program / 256), (byte)program, (byte)day.Day];

    private FetcherNote Note(
        int program, LocalDate? day = null, Duration? after = null, int times = 1, string form = "feed", Instant? has = null,
        string? etag = null, ProgramKind kind = ProgramKind.Phone)
    {
        var on = day ?? Today;
        var at = StartOf(on) + (after ?? Duration.FromHours(6));
        return new FetcherNote(_school, _calendar.EditionId, Audience.Everyone, form, on, StartOf(on.PlusDays(1)), Named(program, on),
            Named(program, on.PlusDays(-1)), kind, new Asked(times, at, at, null, has ?? StartOf(on.PlusDays(-3))), etag);
    }

    private async Task<CountedDay> TodaysAsync() => Assert.Single((await Deliveries.OfAsync(_school, _calendar.EditionId, Today)).Feed);

    [Fact]
    public async Task A_program_that_asks_several_times_is_one_and_how_often_it_asks_is_known()
    {
        await Deliveries.KeepAsync([Note(1), Note(2), Note(1, form: "page", kind: ProgramKind.Browser)]);
        foreach (var hour in Enumerable.Range(7, 5))
            await Deliveries.KeepAsync([Note(1, after: Duration.FromHours(hour))]);
        var found = await Deliveries.OfAsync(_school, _calendar.EditionId, Today);
        Assert.Equal([(Rhythm.Hour, 1, 6), (Rhythm.Seldom, 1, 1)], found.Feed.Select(day => (day.Rhythm, day.Programs, day.Times)));
        Assert.Equal([(ProgramKind.Browser, 1)], found.Pages.Select(day => (day.Kind, day.Programs)));
        Assert.Equal(StartOf(Today) + Duration.FromHours(11), found.LastFetch);
        Assert.Equal([("feed", 2), ("page", 1)],
            (await Deliveries.BusiestAsync(_school, Today.PlusDays(-7))).Select(one => (one.Form, one.Programs)));
        Assert.Empty(await Deliveries.BusiestAsync(_club, Today.PlusDays(-7)));
        Assert.Empty((await Deliveries.OfAsync(_club, _calendar.EditionId, Today)).Feed);
    }

    [Fact]
    public async Task Who_came_the_day_before_is_known_to_and_nobody_longer()
    {
        await Deliveries.KeepAsync([Note(1, Today.PlusDays(-1)), Note(2, Today.PlusDays(-2))]);
        await Deliveries.KeepAsync([Note(1), Note(2)]);
        var found = await Deliveries.OfAsync(_school, _calendar.EditionId, Today);
        Assert.Equal([(Rhythm.Day, 1), (Rhythm.Seldom, 1)], found.Feed.Select(day => (day.Rhythm, day.Programs)));
    }

    [Fact]
    public async Task Which_version_a_program_had_tells_how_long_the_newest_took_to_reach_it()
    {
        var (old, newest) = (StartOf(Today.PlusDays(-5)), StartOf(Today) + Duration.FromHours(1));
        foreach (var (etag, at) in new[] { ("o", old), ("n", newest) })
            Assert.True(await Editions.KeepArtefactAsync(
                new Artefact(_calendar.EditionId, _school, Audience.Everyone, "feed", at.ToUnixTimeSeconds(), Etag(etag), [1], at, null),
                new([], [], [])));
        await Deliveries.KeepAsync([Note(1, has: newest, etag: Etag("o")), Note(2, has: newest, etag: Etag("n")), Note(3, has: old)]);
        var day = await TodaysAsync();
        Assert.Equal((3, 2), (day.Programs, day.WithNewest));
        // One of them waited five hours.
        Assert.Equal(360, WaitSteps.Half([day]));
        Assert.Equal(1, day.Waits.Sum());
        var (days, changed) = await Deliveries.FeedsAsync(_school, Today);
        Assert.Equal(newest, changed[_calendar.EditionId]);
        Assert.Equal(2, FeedReach.Of(days[_calendar.EditionId], Today, Today).Since);
    }

    [Fact]
    public async Task Days_that_are_over_are_counted_and_their_programs_forgotten()
    {
        await Deliveries.KeepAsync([.. Enumerable.Range(0, 30).SelectMany(program => new[]
        {
            Note(program, Today.PlusDays(-3)), Note(program, Today.PlusDays(-1)),
        })]);
        var before = await Deliveries.OfAsync(_school, _calendar.EditionId, Today.PlusDays(-9));
        var noon = StartOf(Today) + Duration.FromHours(12);
        await Deliveries.FoldAsync(noon);
        await Deliveries.FoldAsync(noon);
        var after = await Deliveries.OfAsync(_school, _calendar.EditionId, Today.PlusDays(-9));
        Assert.Equal(
            before.Feed.Select(day => (day.Day, day.Programs, day.WithNewest)), after.Feed.Select(day => (day.Day, day.Programs,
                day.WithNewest)));
        Assert.Equal(30, await _test.Database.FirstAsync<long>("select count(*) from fetcher"));
        await Deliveries.FoldAsync(noon + Duration.FromDays(100));
        Assert.Empty((await Deliveries.OfAsync(_school, _calendar.EditionId, Today.PlusDays(-9))).Feed);
        Assert.Equal(0, await _test.Database.FirstAsync<long>("select count(*) from fetcher"));
    }

    [Fact]
    public async Task A_salt_is_one_for_all_nodes_and_thrown_away()
    {
        var salt = await Deliveries.SaltAsync(Today);
        Assert.Equal(salt, await Deliveries.SaltAsync(Today));
        Assert.NotEqual(salt, await Deliveries.SaltAsync(Today.PlusDays(1)));
        await Deliveries.FoldAsync(StartOf(Today.PlusDays(5)));
        Assert.NotEqual(salt, await Deliveries.SaltAsync(Today));
    }

    [Fact]
    public async Task Two_nodes_that_count_the_same_programs_at_once_do_not_stand_in_each_other_s_way()
    {
        FetcherNote[] notes = [.. Enumerable.Range(0, 800).Select(program => Note(program))];
        await using var other = Database.At(_test.ConnectionString);
        // The one in one order, the other in the opposite: without an order of its own each would wait for the other.
        await Task.WhenAll(Enumerable.Range(0, 10)
            .SelectMany(_ => new[] { Deliveries.KeepAsync(notes), new DeliveryStore(other).KeepAsync([.. notes.Reverse()]) }));
        Assert.Equal(800, (await Deliveries.OfAsync(_school, _calendar.EditionId, Today)).Feed.Sum(day => day.Programs));
        Assert.Equal(0, await _test.Database.FirstAsync<long>("select deadlocks from pg_stat_database where datname = current_database()"));
    }

    [Fact]
    public async Task However_many_programs_somebody_makes_up_an_edition_counts_no_more_than_so_many_of_a_day()
    {
        await _test.Database.ExecuteAsync("""
            insert into fetcher (organisation_id, edition_id, audience, form, day, day_ends_at, program, kind, rhythm, times, first_at,
                last_at, has)
            select @school, @edition, 'everyone', 'feed', @day, @ends, int4send(n), 'other', 'seldom', 1, @Now, @Now, @Now
            from generate_series(1, @Most) n
            """, new
        {
            school = _school,
            edition = _calendar.EditionId,
            day = Today,
            ends = StartOf(Today.PlusDays(1)),
            Now,
            Most = DeliveryStore.MostPrograms
        });
        await Deliveries.KeepAsync([Note(1), Note(2)]);
        Assert.Equal(DeliveryStore.MostPrograms, await _test.Database.FirstAsync<long>("select count(*) from fetcher"));
    }

    [Fact]
    public async Task Sites_that_hold_a_frame_are_counted_and_are_only_so_many()
    {
        SiteNote Seen(string site, int views) => new(_school, _calendar.EditionId, Today, site, views);
        await Deliveries.KeepAsync([Seen("families.pinewick.example", 3), Seen("", 1)]);
        await Deliveries.KeepAsync([Seen("families.pinewick.example", 2)]);
        Assert.Equal([("families.pinewick.example", 5), ("", 1)],
            (await Deliveries.OfAsync(_school, _calendar.EditionId, Today)).Sites);
        await Deliveries.KeepAsync([.. Enumerable.Range(0, 98).Select(number => Seen($"s{number}.example", 1))]);
        await Deliveries.KeepAsync([Seen("more.example", 1), Seen("", 1)]);
        var sites = (await Deliveries.OfAsync(_school, _calendar.EditionId, Today)).Sites;
        Assert.Equal(DeliveryStore.MostSites, sites.Count);
        Assert.DoesNotContain("more.example", sites.Select(site => site.Site));
        Assert.Contains(("", 2), sites);
    }

    [Fact]
    public async Task What_was_late_says_since_when()
    {
        await Editions.KeepArtefactAsync(
            new Artefact(_calendar.EditionId, _school, Audience.Everyone, "feed", 1, Etag("a"), [1], Now, null), new([], [], []));
        var since = Now - Duration.FromMinutes(40);
        var work = Assert.Single(await Work.ClaimAsync(WorkKind.Render, 100, Now, Now));
        await Work.FailedAsync(work, FailureReason.Ours, "broken", since, null);
        await Deliveries.WasLateAsync(_calendar.EditionId);
        Assert.Equal([new FeedVersion(Now, Now - Duration.FromMinutes(40))],
            (await Deliveries.OfAsync(_school, _calendar.EditionId, Today)).Versions);
    }

    /// <summary>Nothing failed; it only waited for its turn.</summary>
    [Theory]
    [InlineData(59, false)]
    [InlineData(61, true)]
    public async Task What_waited_for_its_turn_was_late_too(int seconds, bool isLate)
    {
        var changed = Now + Duration.FromSeconds(seconds);
        await Editions.KeepArtefactAsync(
            new Artefact(_calendar.EditionId, _school, Audience.Everyone, "feed", 1, Etag("a"), [1], changed, null), new([], [], []));
        Assert.Equal(Now, Assert.Single(await Work.ClaimAsync(WorkKind.Render, 100, changed, changed)).DueAt);
        await Deliveries.WasLateAsync(_calendar.EditionId);
        Assert.Equal([new FeedVersion(changed, isLate ? Now : null)],
            (await Deliveries.OfAsync(_school, _calendar.EditionId, Today)).Versions);
    }
}
