using Dapper;
using NodaTime;
using Valtro.Core.Deliveries;
using Valtro.Core.Findings;

namespace Valtro.Store;

/// <summary>Somebody has seen a finding and lets it be.</summary>
/// <param name="By">Their name.</param>
public sealed record PutOff(string Reason, string By, Instant At);

/// <summary>What was found after the last change.</summary>
/// <param name="Since">When it was found first.</param>
public sealed record StoredFinding(Guid EditionId, Finding Finding, Instant Since, PutOff? PutOff);

/// <summary>Open findings of an edition that the same people may hear of.</summary>
/// <param name="KeptOn">Of which calendars they say something, as Finding.KeptOn.</param>
public sealed record CountedFindings(Guid EditionId, Severity Severity, IReadOnlyList<Guid> KeptOn, bool IsPlain, int Number);

/// <summary>What is around an edition that its own events do not say.</summary>
/// <param name="Sources">Followed sources that fail, or are held back.</param>
/// <param name="Waiting">Events that wait for a yes on calendars of it.</param>
/// <param name="Fetched">By programs, lately.</param>
/// <param name="WentOutAt">When what its readers get last changed; null where nothing is rendered.</param>
/// <param name="Links">What is known of links, by address.</param>
public sealed record AroundEdition(
    IReadOnlyList<FollowedSource> Sources, IReadOnlyList<(Guid EventId, Guid CalendarId)> Waiting,
        IReadOnlyList<CountedDay> Fetched, Instant? WentOutAt,
    IReadOnlyList<StoredFinding> Found, IReadOnlyDictionary<string, (LinkState State, Instant CheckedAt)> Links);

/// <summary>What is wrong with editions.</summary>
public sealed class FindingStore(Database database)
{
    /// <summary>For one of those whom they concern.</summary>
    private const int MostOpen = 1_000;

    private const int MostCounted = 50_000;

    private sealed record Ways(IReadOnlyList<Remedy> Remedies);

    private sealed class Row
    {
        public Guid EditionId { get; init; }
        public string Kind { get; init; } = "";
        public string About { get; init; } = "";
        public string Severity { get; init; } = "";
        public string Title { get; init; } = "";
        public string Sentence { get; init; } = "";
        public string Place { get; init; } = "";
        public string Remedies { get; init; } = "";
        public LocalDate? Week { get; init; }
        public Guid[] KeptOn { get; init; } = [];
        public bool IsPlain { get; init; }
        public Instant Since { get; init; }
        public string? PutOffReason { get; init; }
        public string? PutOffBy { get; init; }
        public Instant? PutOffAt { get; init; }

        public StoredFinding ToFinding() => new(
            EditionId,
            new Finding(Kind, Words.Read<Core.Findings.Severity>(Severity), About, StoredSaying.Read(Title)!, StoredSaying.Read(Sentence)!,
                StoredSaying.Read(Place), ProposalDocument.Read<Ways>(Remedies).Remedies)
            { Week = Week, KeptOn = [.. KeptOn], IsPlain = IsPlain },
            Since,
            PutOffAt is { } at ? new PutOff(PutOffReason ?? "", PutOffBy ?? "", at) : null);
    }

    private const string Columns = """
        select f.edition_id, f.kind, f.about, f.severity, f.title, f.sentence, f.place, f.remedies::text as remedies, f.week, f.kept_on,
            f.is_plain, f.since, f.put_off_reason, a.name as put_off_by, f.put_off_at
        from finding f
        left join account a on a.id = f.put_off_by

        """;

    /// <summary>In one round trip.</summary>
    /// <param name="from">From which day on programs count.</param>
    public Task<AroundEdition> AroundAsync(Guid organisationId, Guid editionId, Guid[] calendars, LocalDate from) =>
        database.ReadManyAsync($"""
            {SourceStore.NotRight};
            select event_id, calendar_id
            from submission
            where organisation_id = @organisationId and state = 'open' and kind = 'placement' and calendar_id = any(@calendars)
            order by made_at
            limit 50;
            select changed_at from artefact where edition_id = @editionId and key = 'feed' order by changed_at desc limit 1;
            {DeliveryStore.OfEdition};
            {Columns} where f.organisation_id = @organisationId and f.edition_id = @editionId;
            {LinkStore.Known}
            """, new { organisationId, editionId, calendars, from }, async results =>
        {
            var sources = await SourceStore.ReadAsync(results);
            var waiting = (await results.ReadAsync<(Guid, Guid)>()).AsList();
            var wentOut = (await results.ReadAsync<Instant>()).Select(at => (Instant?)at).FirstOrDefault();
            var fetched = await DeliveryStore.ReadAsync(results);
            var found = Read(await results.ReadAsync<Row>());
            return new AroundEdition(sources, waiting, fetched, wentOut, found, await LinkStore.ReadAsync(results));
        });

    /// <summary>What was not put off of some editions, the worst and the oldest first.</summary>
    public async Task<IReadOnlyList<StoredFinding>> OpenAsync(Guid organisationId, Guid[] editions) =>
        Read(await database.ListAsync<Row>(Columns + """
            where f.organisation_id = @organisationId and f.edition_id = any(@editions) and f.put_off_at is null
            order by case f.severity when 'keepsfromreaders' then 0 when 'tolookat' then 1 else 2 end, f.since, f.edition_id, f.kind,
                f.about
            limit @MostOpen
            """, new { organisationId, editions, MostOpen }));

    /// <summary>How much of it there is, and which editions were looked through.</summary>
    public Task<(IReadOnlyList<CountedFindings> Found, IReadOnlySet<Guid> LookedThrough)> CountAsync(Guid organisationId) =>
        database.ReadManyAsync<(IReadOnlyList<CountedFindings>, IReadOnlySet<Guid>)>("""
            select edition_id, severity, kept_on, is_plain, count(*)::integer as number
            from finding
            where organisation_id = @organisationId and put_off_at is null
            group by edition_id, severity, kept_on, is_plain
            limit @MostCounted;
            select edition_id from proof where organisation_id = @organisationId limit 2000
            """, new { organisationId, MostCounted },
            async results => (
                [.. (await results.ReadAsync<(Guid EditionId, string Severity, Guid[] KeptOn, bool IsPlain, int Number)>())
                    .Select(row => new CountedFindings(
                        row.EditionId, Words.Read<Core.Findings.Severity>(row.Severity), row.KeptOn, row.IsPlain, row.Number))],
                (await results.ReadAsync<Guid>()).ToHashSet()));

    private static IReadOnlyList<StoredFinding> Read(IEnumerable<Row> rows) => [.. rows.Select(row => row.ToFinding())];

    /// <summary>Keeps what there is now. What was there before keeps since when, and that somebody put it off; what is gone is
    /// forgotten.</summary>
    public Task KeepAsync(Guid organisationId, Guid editionId, IReadOnlyList<Finding> found, Instant now) =>
        database.InTransactionAsync(async transaction =>
        {
            await transaction.Connection!.ExecuteAsync("""
                insert into proof (edition_id, organisation_id, at)
                select id, organisation_id, @now from edition where organisation_id = @organisationId and id = @editionId
                on conflict (edition_id) do update set at = excluded.at;
                delete from finding f
                where f.organisation_id = @organisationId and f.edition_id = @editionId
                  and not exists (select from unnest(@kinds, @abouts) n (kind, about) where n.kind = f.kind and n.about = f.about);
                insert into finding (organisation_id, edition_id, kind, about, severity, title, sentence, place, remedies, week, kept_on,
                    is_plain, since)
                select @organisationId, @editionId, n.kind, n.about, n.severity, n.title, n.sentence, n.place, n.remedies::jsonb, n.week,
                    coalesce(string_to_array(nullif(n.kept_on, ''), ',')::uuid[], '{}'), n.is_plain, @now
                from unnest(@kinds, @abouts, @severities, @titles, @sentences, @places, @remedies, @weeks, @keptOn, @plain)
                    n (kind, about, severity, title, sentence, place, remedies, week, kept_on, is_plain)
                where exists (select from edition e where e.id = @editionId)
                order by n.kind, n.about
                on conflict (edition_id, kind, about) do update
                set severity = excluded.severity, title = excluded.title, sentence = excluded.sentence, place = excluded.place,
                    remedies = excluded.remedies, week = excluded.week, kept_on = excluded.kept_on, is_plain = excluded.is_plain
                """, new
            {
                organisationId,
                editionId,
                now,
                kinds = found.Select(one => one.Kind).ToArray(),
                abouts = found.Select(one => one.About).ToArray(),
                severities = found.Select(one => Words.Of(one.Severity)).ToArray(),
                titles = found.Select(one => StoredSaying.Write(one.Title)).ToArray(),
                sentences = found.Select(one => StoredSaying.Write(one.Text)).ToArray(),
                places = found.Select(one => StoredSaying.Write(one.Where)).ToArray(),
                remedies = found.Select(one => ProposalDocument.Write(new Ways(one.Remedies))).ToArray(),
                weeks = found.Select(one => one.Week).ToArray(),
                keptOn = found.Select(one => string.Join(',', one.KeptOn)).ToArray(),
                plain = found.Select(one => one.IsPlain).ToArray(),
            }, transaction);
            await Announcements.TellDesksAsync(transaction, organisationId);
            return true;
        });

    /// <summary>Lets a finding be, or takes it up again.</summary>
    /// <param name="reason">Null takes it up again.</param>
    /// <returns>False where it is not there.</returns>
    public async Task<bool> PutOffAsync(
        Guid organisationId, Guid editionId, string kind, string about, string? reason, Guid accountId, Instant now) =>
        await database.ExecuteAsync("""
            update finding
            set put_off_reason = @reason,
                put_off_by = case when @reason is null then null else @accountId end,
                put_off_at = case when @reason is null then null else @now end
            where organisation_id = @organisationId and edition_id = @editionId and kind = @kind and about = @about
            """, new { organisationId, editionId, kind, about, reason, accountId, now }) > 0;
}
