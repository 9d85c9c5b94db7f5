using System.Data.Common;
using System.Security.Cryptography;
using Dapper;
using NodaTime;
using Valtro.Core.Deliveries;
using Valtro.Core.Disclosure;

namespace Valtro.Store;

/// <summary>One program on one day, and what it asked for since it was counted last.</summary>
/// <param name="Program">What it is called on that day.</param>
/// <param name="Yesterday">What it was called the day before.</param>
/// <param name="DayEnds">When that day ends where the edition is kept.</param>
/// <param name="HadEtag">Of the version that it said it has.</param>
public sealed record FetcherNote(
    Guid OrganisationId, Guid EditionId, Audience Audience, string Form, LocalDate Day, Instant DayEnds, byte[] Program, byte[] Yesterday,
    ProgramKind Kind, Asked Asked, string? HadEtag);

/// <summary>How often a page of some site showed an edition in a frame.</summary>
/// <param name="Site">Its host; empty where the browser did not say it.</param>
public sealed record SiteNote(Guid OrganisationId, Guid EditionId, LocalDate Day, string Site, int Views);

/// <summary>What of an edition was fetched, and by how many programs on the busiest day.</summary>
public sealed record FetchCount(Guid EditionId, Guid? CalendarId, Audience Audience, string Form, int Programs);

/// <summary>A version of what readers get.</summary>
/// <param name="LateSince">Since when its time had come, where rendering failed at first or took its time.</param>
public sealed record FeedVersion(Instant ChangedAt, Instant? LateSince);

/// <summary>All that is counted of an edition.</summary>
/// <param name="Feed">By programs.</param>
/// <param name="Pages">By readers, pages and frames together.</param>
/// <param name="Versions">The newest first.</param>
public sealed record StoredDeliveries(
    IReadOnlyList<CountedDay> Feed, IReadOnlyList<CountedDay> Pages, IReadOnlyList<(string Site, int Views)> Sites,
    IReadOnlyList<FeedVersion> Versions, Instant? LastFetch);

/// <summary>Who fetched what, counted: nothing that is kept leads to anybody.</summary>
public sealed class DeliveryStore(Database database)
{
    public const string Feed = "feed";

    /// <summary>How long it is kept how many came.</summary>
    public static readonly Duration Kept = Duration.FromDays(90);

    /// <summary>What goes out so long after its time had come is late.</summary>
    public static readonly Duration LateAfter = Duration.FromMinutes(1);

    /// <summary>Of an edition, on one day; what comes beyond is not counted.</summary>
    public const int MostPrograms = 20_000;
    public const int MostSites = 100;

    /// <summary>Written at once.</summary>
    private const int MostAtOnce = 1_000;

    /// <summary>Programs are known by the same name until the day after is over everywhere.</summary>
    private static readonly Duration SaltKept = Duration.FromDays(3);

    /// <summary>Days of editions that are counted in one transaction.</summary>
    private const int MostFolded = 200;

    private static string Waits => string.Join(", ", Enumerable.Range(0, WaitSteps.All.Count + 1).Select(step =>
        $"count(*) filter (where f.waited_minutes > {(step == 0 ? -1 : WaitSteps.All[step - 1])}"
        + $"{(step == WaitSteps.All.Count ? "" : $" and f.waited_minutes <= {WaitSteps.All[step]}")})::integer"));

    /// <summary>Programs of today and yesterday, counted as those of earlier days are.</summary>
    private static string Counted(string where) => $"""
        select f.organisation_id, f.edition_id, f.audience, f.form, f.day, f.kind, f.rhythm, count(*)::integer as programs,
            sum(f.times)::integer as times, (count(*) filter (where f.has >= coalesce(v.newest, f.has)))::integer as with_newest,
            array[{Waits}] as waits
        from fetcher f
        join (
            select e.*, (
                select max(v.changed_at)
                from feed_version v
                where v.edition_id = e.edition_id and v.audience = e.audience and v.changed_at < e.ends_at) as newest
            from (
                select f.edition_id, f.audience, f.day, max(f.day_ends_at) as ends_at
                from fetcher f
                where {where}
                group by f.edition_id, f.audience, f.day) e) v using (edition_id, audience, day)
        where {where}
        group by f.organisation_id, f.edition_id, f.audience, f.form, f.day, f.kind, f.rhythm
        """;

    /// <param name="where">With the name of the table that it is about.</param>
    private static string All(Func<string, string> where) => $"""
        select d.organisation_id, d.edition_id, d.audience, d.form, d.day, d.kind, d.rhythm, d.programs, d.times, d.with_newest, d.waits
        from delivery_day d
        where {where("d")}
        union all
        {Counted(where("f"))}
        """;

    /// <summary>With which programs are told apart on a day, by all nodes alike.</summary>
    public async Task<byte[]> SaltAsync(LocalDate day)
    {
        using var everywhere = Wall.Everywhere();
        return (await database.ReturningAsync<byte[]>("""
            insert into delivery_salt (day, salt) values (@day, @salt)
            on conflict (day) do update set day = excluded.day
            returning salt
            """, new { day, salt = RandomNumberGenerator.GetBytes(32) }))[0];
    }

    private sealed record Row(
        int Number, string Kind, string? Before, int Times, Instant FirstAt, Instant LastAt, Instant Has, int? WaitedMinutes)
    {
        public Fetcher ToFetcher() => new(Words.Read<ProgramKind>(Kind), Words.ReadOrNull<Rhythm>(Before), Times, FirstAt, LastAt, Has,
            WaitedMinutes is { } minutes ? Duration.FromMinutes(minutes) : null);
    }

    /// <summary>Counts what was asked for, in key order: nodes that do so at one moment wait, none for the other.</summary>
    public async Task KeepAsync(IReadOnlyCollection<FetcherNote> notes)
    {
        using var everywhere = Wall.Everywhere();
        foreach (var some in notes.OrderBy(note => note.EditionId).ThenBy(note => note.Day).ThenBy(note => note.Audience)
            .ThenBy(note => note.Form).ThenBy(note => Convert.ToHexString(note.Program), StringComparer.Ordinal).Chunk(MostAtOnce))
            await database.InTransactionAsync(async transaction =>
            {
                await KeepAsync(transaction, some);
                return some.Length;
            });
    }

    private static async Task KeepAsync(DbTransaction transaction, FetcherNote[] notes)
    {
        var keys = new
        {
            organisations = notes.Select(note => note.OrganisationId).ToArray(),
            editions = notes.Select(note => note.EditionId).ToArray(),
            audiences = notes.Select(note => Words.Of(note.Audience)).ToArray(),
            forms = notes.Select(note => note.Form).ToArray(),
            days = notes.Select(note => note.Day).ToArray(),
            programs = notes.Select(note => note.Program).ToArray(),
            yesterdays = notes.Select(note => note.Yesterday).ToArray(),
            etags = notes.Select(note => note.HadEtag).ToArray(),
        };
        const string Asked = """
            unnest(@editions, @audiences, @forms, @days, @programs, @yesterdays, @etags) with ordinality
                a (edition_id, audience, form, day, program, yesterday, etag, number)
            """;
        const string Columns =
            "a.number::integer as number, f.kind, f.before, f.times, f.first_at, f.last_at, f.has, f.waited_minutes";
        using var results = await transaction.Connection!.QueryMultipleAsync($"""
            select {Columns}
            from {Asked}
            join fetcher f using (edition_id, audience, form, day, program)
            order by f.edition_id, f.day, f.audience, f.form, f.program
            for update of f;
            select a.number::integer as number, f.kind, f.rhythm as before, f.times, f.first_at, f.last_at, f.has, f.waited_minutes
            from {Asked}
            join fetcher f on f.edition_id = a.edition_id and f.audience = a.audience and f.form = a.form and f.day = a.day - 1
                and f.program = a.yesterday;
            select a.number::integer as number, max(v.changed_at) as changed_at
            from {Asked}
            join feed_version v on v.edition_id = a.edition_id and v.audience = a.audience and v.etag = a.etag
            group by a.number
            """, keys, transaction);
        var today = (await results.ReadAsync<Row>()).ToDictionary(row => row.Number, row => row.ToFetcher());
        var before = (await results.ReadAsync<Row>()).ToDictionary(row => row.Number);
        var had = (await results.ReadAsync<(int Number, Instant ChangedAt)>()).ToDictionary(row => row.Number, row => row.ChangedAt);
        Fetcher[] now = [.. notes.Select((note, index) => Fetcher.Asking(
            note.Kind, today.GetValueOrDefault(index + 1),
            // Of yesterday only is known how often it asked, and what it had.
            before.TryGetValue(index + 1, out var row) ? Yesterday(row) : null,
            had.TryGetValue(index + 1, out var version) ? note.Asked with { Had = version } : note.Asked))];
        await transaction.Connection!.ExecuteAsync("""
            with asked as (
                select a.*
                from unnest(@organisations, @editions, @audiences, @forms, @days, @ends, @programs, @kinds, @befores, @rhythms, @times,
                        @firsts, @lasts, @has, @waits)
                    a (organisation_id, edition_id, audience, form, day, day_ends_at, program, kind, before, rhythm, times, first_at,
                        last_at, has, waited_minutes)
                where exists (select from edition e where e.id = a.edition_id)
            ), full_days as (
                select k.edition_id, k.day
                from (select distinct edition_id, day from asked) k
                where (select count(*) from fetcher f where f.edition_id = k.edition_id and f.day = k.day) >= @MostPrograms
            )
            insert into fetcher (organisation_id, edition_id, audience, form, day, day_ends_at, program, kind, before, rhythm, times,
                first_at, last_at, has, waited_minutes)
            select a.*
            from asked a
            where not exists (select from full_days d where d.edition_id = a.edition_id and d.day = a.day)
                or exists (select from fetcher f where f.edition_id = a.edition_id and f.day = a.day and f.audience = a.audience
                    and f.form = a.form and f.program = a.program)
            order by a.edition_id, a.day, a.audience, a.form, a.program
            on conflict (edition_id, day, audience, form, program) do update
            set rhythm = excluded.rhythm, times = greatest(fetcher.times, excluded.times),
                first_at = least(fetcher.first_at, excluded.first_at), last_at = greatest(fetcher.last_at, excluded.last_at),
                has = greatest(fetcher.has, excluded.has), waited_minutes = coalesce(excluded.waited_minutes, fetcher.waited_minutes)
            """, new
        {
            keys.organisations,
            keys.editions,
            keys.audiences,
            keys.forms,
            keys.days,
            keys.programs,
            ends = notes.Select(note => note.DayEnds).ToArray(),
            kinds = now.Select(one => Words.Of(one.Kind)).ToArray(),
            befores = now.Select(one => Words.OfOrNull(one.Before)).ToArray(),
            rhythms = now.Select(one => Words.Of(one.Rhythm)).ToArray(),
            times = now.Select(one => one.Times).ToArray(),
            firsts = now.Select(one => one.First).ToArray(),
            lasts = now.Select(one => one.Last).ToArray(),
            has = now.Select(one => one.Has).ToArray(),
            waits = now.Select(one => one.Waited is { } waited ? (int?)Math.Min(int.MaxValue, waited.TotalMinutes) : null).ToArray(),
            MostPrograms,
        }, transaction);

        static Fetcher Yesterday(Row row) => row.ToFetcher() with { Times = 1, Last = row.FirstAt };
    }

    /// <summary>Counts in which sites an edition was seen.</summary>
    public async Task KeepAsync(IReadOnlyCollection<SiteNote> sites)
    {
        if (sites.Count == 0)
            return;
        using var everywhere = Wall.Everywhere();
        await database.ExecuteAsync("""
            insert into delivery_site (organisation_id, edition_id, day, site, views)
            select s.*
            from unnest(@organisations, @editions, @days, @names, @views) s (organisation_id, edition_id, day, site, views)
            where exists (select from edition e where e.id = s.edition_id)
                and ((select count(*) from delivery_site d where d.edition_id = s.edition_id and d.day = s.day) < @MostSites
                    or exists (select from delivery_site d where d.edition_id = s.edition_id and d.day = s.day and d.site = s.site))
            order by s.edition_id, s.day, s.site
            on conflict (edition_id, day, site) do update set views = delivery_site.views + excluded.views
            """, new
        {
            organisations = sites.Select(site => site.OrganisationId).ToArray(),
            editions = sites.Select(site => site.EditionId).ToArray(),
            days = sites.Select(site => site.Day).ToArray(),
            names = sites.Select(site => site.Site).ToArray(),
            views = sites.Select(site => site.Views).ToArray(),
            MostSites,
        });
    }

    /// <summary>Notes a version of a feed, in the transaction that keeps it.</summary>
    internal static Task NoteAsync(DbTransaction transaction, Artefact feed) => transaction.Connection!.ExecuteAsync("""
        insert into feed_version (organisation_id, edition_id, audience, etag, changed_at)
        values (@OrganisationId, @EditionId, @audience, @Etag, @ChangedAt)
        on conflict (edition_id, audience, changed_at) do update set etag = excluded.etag
        """, new { feed.OrganisationId, feed.EditionId, audience = Words.Of(feed.Audience), feed.Etag, feed.ChangedAt }, transaction);

    /// <summary>What could not be rendered at first, or waited for its turn, and is rendered now, says since when it was late.</summary>
    public Task WasLateAsync(Guid editionId) => database.ExecuteAsync("""
        update feed_version v
        set late_since = coalesce(w.failed_since, w.due_at)
        from work w
        where w.kind = 'render' and w.key = @editionId::text and v.edition_id = @editionId and v.late_since is null
            and (v.changed_at >= w.failed_since or v.changed_at >= w.due_at + make_interval(secs => @seconds))
        """, new { editionId, seconds = LateAfter.TotalSeconds });

    /// <summary>Counts the programs of days that are over, and forgets them; and what was counted long ago.</summary>
    public async Task FoldAsync(Instant now)
    {
        using var everywhere = Wall.Everywhere();
        while (await FoldSomeAsync(now - Duration.FromDays(1)) == MostFolded)
        {
        }
        await database.ExecuteAsync("""
            delete from delivery_day where day < @day;
            delete from delivery_site where day < @day;
            delete from feed_version v
            where v.changed_at < @kept and exists (
                select from feed_version w where w.edition_id = v.edition_id and w.audience = v.audience and w.changed_at > v.changed_at);
            delete from delivery_salt where day < @salts
            """, new { day = (now - Kept).InUtc().Date, kept = now - Kept, salts = (now - SaltKept).InUtc().Date });
    }

    private Task<int> FoldSomeAsync(Instant endedBefore) => database.InTransactionAsync(async transaction =>
    {
        var ended = (await transaction.Connection!.QueryAsync<(Guid EditionId, LocalDate Day)>("""
            select distinct edition_id, day
            from fetcher
            where day_ends_at <= @endedBefore
            order by edition_id, day
            limit @MostFolded
            """, new { endedBefore, MostFolded }, transaction)).AsList();
        if (ended.Count == 0)
            return 0;
        const string Ended = "(f.edition_id, f.day) in (select * from unnest(@editions, @days))";
        await transaction.Connection!.ExecuteAsync($"""
            insert into delivery_day (organisation_id, edition_id, audience, form, day, kind, rhythm, programs, times, with_newest, waits)
            {Counted(Ended)}
            order by f.edition_id, f.day, f.audience, f.form, f.kind, f.rhythm
            on conflict (edition_id, day, audience, form, kind, rhythm) do nothing;
            delete from fetcher f where {Ended}
            """, new { editions = ended.Select(one => one.EditionId).ToArray(), days = ended.Select(one => one.Day).ToArray() }, transaction);
        return ended.Count;
    });

    private sealed class CountedRow
    {
        public Guid EditionId { get; init; }

        public string Form { get; init; } = "";

        public LocalDate Day { get; init; }

        public string Kind { get; init; } = "";

        public string Rhythm { get; init; } = "";

        public int Programs { get; init; }

        public int Times { get; init; }

        public int WithNewest { get; init; }

        public int[] Waits { get; init; } = [];

        public CountedDay ToDay() =>
            new(Day, Words.Read<ProgramKind>(Kind), Words.Read<Rhythm>(Rhythm), Programs, Times, WithNewest, Waits);
    }

    /// <summary>What is counted of one edition from a day on.</summary>
    public Task<StoredDeliveries> OfAsync(Guid organisationId, Guid editionId, LocalDate from) => database.ReadManyAsync($"""
        select c.edition_id, c.form, c.day, c.kind, c.rhythm, c.programs, c.times, c.with_newest, c.waits
        from ({All(of => $"{of}.edition_id = @editionId and {of}.organisation_id = @organisationId and {of}.day >= @from")}) c
        order by c.day, c.form, c.kind, c.rhythm
        limit 20000;
        select site, sum(views)::integer as views
        from delivery_site
        where edition_id = @editionId and organisation_id = @organisationId and day >= @from
        group by site
        order by views desc, site
        limit @MostSites;
        select changed_at, max(late_since) as late_since
        from feed_version
        where edition_id = @editionId and organisation_id = @organisationId
        group by changed_at
        order by changed_at desc
        limit 1000;
        select last_at
        from fetcher
        where edition_id = @editionId and organisation_id = @organisationId and form = '{Feed}' and kind <> 'browser'
        order by last_at desc
        limit 1
        """, new { organisationId, editionId, from, MostSites }, async results =>
    {
        var counted = (await results.ReadAsync<CountedRow>()).ToLookup(row => row.Form, row => row.ToDay());
        var sites = (await results.ReadAsync<(string, int)>()).AsList();
        var versions = (await results.ReadAsync<FeedVersion>()).AsList();
        return new StoredDeliveries(
            [.. counted[Feed]], [.. counted["page"], .. counted["embed"]], sites, versions,
            (await results.ReadAsync<Instant>()).Select(at => (Instant?)at).FirstOrDefault());
    });

    /// <remarks>What programs fetched of one edition's feed, from a day on.</remarks>
    internal static string OfEdition => $"""
        select c.form, c.day, c.kind, c.rhythm, c.programs, c.times, c.with_newest, c.waits
        from ({All(of =>
            $"{of}.edition_id = @editionId and {of}.form = '{Feed}' and {of}.kind <> 'browser' and {of}.day >= @from")}) c
        """;

    internal static async Task<IReadOnlyList<CountedDay>> ReadAsync(SqlMapper.GridReader results) =>
        [.. (await results.ReadAsync<CountedRow>()).Select(row => row.ToDay())];

    /// <summary>What programs fetched of each edition's feed from a day on; and when it last changed for its readers.</summary>
    public Task<(ILookup<Guid, CountedDay> Days, IReadOnlyDictionary<Guid, Instant> Changed)> FeedsAsync(
        Guid organisationId, LocalDate from) => database.ReadManyAsync<(ILookup<Guid, CountedDay>, IReadOnlyDictionary<Guid, Instant>)>($"""
        select c.edition_id, c.form, c.day, c.kind, c.rhythm, sum(c.programs)::integer as programs, sum(c.times)::integer as times,
            sum(c.with_newest)::integer as with_newest, array[]::integer[] as waits
        from ({All(of =>
            $"{of}.organisation_id = @organisationId and {of}.form = '{Feed}' and {of}.kind <> 'browser' and {of}.day >= @from")}) c
        group by c.edition_id, c.form, c.day, c.kind, c.rhythm;
        select edition_id, max(changed_at) from artefact where organisation_id = @organisationId and key = 'feed' group by edition_id
        """, new { organisationId, from }, async results => (
            (await results.ReadAsync<CountedRow>()).ToLookup(row => row.EditionId, row => row.ToDay()),
            (await results.ReadAsync<(Guid Id, Instant At)>()).ToDictionary(row => row.Id, row => row.At)));

    /// <summary>How many programs, or readers, fetched what of each edition on the busiest day since.</summary>
    public async Task<IReadOnlyList<FetchCount>> BusiestAsync(Guid organisationId, LocalDate from) =>
        [.. (await database.ListAsync<(Guid EditionId, Guid? CalendarId, string Audience, string Form, int Programs)>($"""
            select b.edition_id, e.calendar_id, b.audience, b.form, max(b.programs)
            from (
                select c.edition_id, c.audience, c.form, c.day, sum(c.programs)::integer as programs
                from ({All(of => $"{of}.organisation_id = @organisationId and {of}.day >= @from")}) c
                where (c.kind = 'browser') = (c.form in ('page', 'embed'))
                group by c.edition_id, c.audience, c.form, c.day) b
            join edition e on e.id = b.edition_id
            group by b.edition_id, e.calendar_id, b.audience, b.form
            order by b.audience, b.form
            """, new { organisationId, from }))
                .Select(row => new FetchCount(row.EditionId, row.CalendarId, Words.Read<Audience>(row.Audience), row.Form, row.Programs))];
}
