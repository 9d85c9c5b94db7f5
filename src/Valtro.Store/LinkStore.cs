using Dapper;
using NodaTime;
using Valtro.Core.Findings;

namespace Valtro.Store;

/// <summary>A link whose time has come to be asked.</summary>
/// <param name="State">As it was found last; null where it never was.</param>
/// <param name="Failures">How often in a row nothing came back.</param>
public sealed record DueLink(string Url, LinkState? State, int Failures);

/// <summary>Links that readers get, and what is behind each for somebody without an account.</summary>
public sealed class LinkStore(Database database)
{
    /// <summary>Of one organisation.</summary>
    public const int Most = 3_000;

    /// <summary>A link that is well is asked again after so long.</summary>
    private static readonly Duration AskedEvery = Duration.FromDays(7);

    /// <summary>What no edition has named for so long is forgotten.</summary>
    private static readonly Duration Kept = Duration.FromDays(14);

    /// <remarks>What is known of links, by address.</remarks>
    internal const string Known = """
        select url, state, checked_at
        from link_check
        where organisation_id = @organisationId and state is not null
        limit 3000
        """;

    internal static async Task<IReadOnlyDictionary<string, (LinkState State, Instant CheckedAt)>> ReadAsync(SqlMapper.GridReader results) =>
        (await results.ReadAsync<(string Url, string State, Instant CheckedAt)>())
        .ToDictionary(row => row.Url, row => (Words.Read<LinkState>(row.State), row.CheckedAt));

    /// <summary>Says which links readers of some edition get; those that are new are asked by work.</summary>
    public async Task WantAsync(Guid organisationId, IReadOnlyCollection<string> urls, Instant now)
    {
        if (urls.Count == 0)
            return;
        await database.InTransactionAsync(async transaction =>
        {
            var asked = await transaction.Connection!.ExecuteScalarAsync<bool>("""
                insert into link_check (organisation_id, url, wanted_at, due_at)
                select @organisationId, u.url, @now, @now
                from (select distinct unnest(@urls) as url) u
                where (select count(*) from link_check where organisation_id = @organisationId) < @Most
                order by u.url
                on conflict (organisation_id, md5(url)) do update set wanted_at = excluded.wanted_at;
                select exists (select from link_check where organisation_id = @organisationId and due_at <= @now)
                """, new { organisationId, urls = urls.ToArray(), now, Most }, transaction);
            if (asked)
                await WorkStore.WantAsync(transaction, WorkKind.Links, [($"{organisationId}", organisationId)], now);
            return asked;
        });
    }

    /// <summary>Those that are to be asked now.</summary>
    public async Task<IReadOnlyList<DueLink>> DueAsync(Guid organisationId, int most, Instant now) =>
        [.. (await database.ListAsync<(string Url, string? State, int Failures)>("""
            select url, state, failures
            from link_check
            where organisation_id = @organisationId and due_at <= @now
            order by due_at, url
            limit @most
            """, new { organisationId, most, now })).Select(row => new DueLink(row.Url, Words.ReadOrNull<LinkState>(row.State), row.Failures))];

    /// <summary>Keeps what was found. Where something is another than before, all editions of the organisation are looked through
    /// anew.</summary>
    /// <param name="state">Null where nothing came back: what was known stands, and it is asked again sooner.</param>
    public Task FoundAsync(Guid organisationId, DueLink link, LinkState? state, Instant now) =>
        database.InTransactionAsync(async transaction =>
    {
        var failures = state is null ? link.Failures + 1 : 0;
        await transaction.Connection!.ExecuteAsync("""
            update link_check
            set state = coalesce(@state, state), checked_at = case when @state is null then checked_at else @now end, failures = @failures,
                due_at = @due
            where organisation_id = @organisationId and md5(url) = md5(@Url)
            """, new
        {
            organisationId,
            link.Url,
            now,
            failures,
            state = Words.OfOrNull(state),
            due = now + (state is null ? Duration.FromHours(Math.Min(48, Math.Pow(2, failures))) : AskedEvery),
        }, transaction);
        if (state is not null && state != (link.State ?? LinkState.Open))
            await transaction.Connection!.ExecuteAsync($"""
                insert into work (kind, key, organisation_id, due_at)
                select 'prove', id::text, organisation_id, @now
                from edition
                where organisation_id = @organisationId and owner_id is null and removed_at is null
                order by id::text
                {WorkStore.Again};
                notify {Announcements.Channel}, '{Announcements.Work}'
                """, new { organisationId, now }, transaction);
        return true;
    });

    /// <summary>When the next one is to be asked; null where there is none. Forgets those that nobody names any more.</summary>
    public Task<Instant?> NextAsync(Guid organisationId, Instant now) => database.InTransactionAsync(transaction =>
        transaction.Connection!.ExecuteScalarAsync<Instant?>("""
            delete from link_check where organisation_id = @organisationId and wanted_at < @before;
            select min(due_at) from link_check where organisation_id = @organisationId
            """, new { organisationId, before = now - Kept }, transaction));
}
