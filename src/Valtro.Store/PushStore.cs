using System.Data.Common;
using Dapper;
using NodaTime;
using Valtro.Core;
using Valtro.Core.Disclosure;
using Valtro.Core.Speaking;

namespace Valtro.Store;

/// <summary>How much of an edition is written elsewhere.</summary>
public enum PushTakes
{
    All,

    /// <summary>What somebody chose.</summary>
    Chosen,
}

/// <summary>A calendar elsewhere that is written.</summary>
/// <param name="AccountId">Whoever set it up last.</param>
/// <param name="Shown">Its address, as far as it is told.</param>
/// <param name="Access">What is needed to ask it, sealed.</param>
/// <param name="Audience">As whom those are seen who read it there.</param>
/// <param name="From">What has a date from this day on.</param>
/// <param name="IsLeaving">What was written there is taken away, then it is forgotten.</param>
/// <param name="RightAt">When it stood there last as it is here; null where it never did.</param>
/// <param name="Done">Of <paramref name="Total"/>, while it is written.</param>
public sealed record PushTarget(
    Guid Id, Guid OrganisationId, Guid EditionId, Guid AccountId, string Name, string Shown, byte[] Access, Audience Audience,
    PushTakes Takes, LocalDate? From, LocalDate? Until, bool IsLeaving, int Version, Instant? RightAt, Instant? FailedSince, int Failures,
    Saying? Problem, string? SyncToken, int? Done, int? Total, Instant MadeAt)
{
    public static PushTarget New(
        Guid id, Guid organisationId, Guid editionId, Guid accountId, string name, Uri address, byte[] access, Audience audience,
        PushTakes takes, LocalDate? from, LocalDate? until, Instant now) => new(
            id, organisationId, editionId, accountId, name, OutsideAccess.Shown(address), access, audience, takes, from, until, false, 1,
            null, null, 0, null, null, null, null, now);
}

/// <summary>Calendars elsewhere that are written (docs/decisions/push.md).</summary>
public sealed class PushStore(Database database)
{
    /// <summary>Of one organisation.</summary>
    public const int Most = 100;

    /// <summary>Events of one target.</summary>
    public const int MostObjects = 5_000;

    private sealed record Row(
        Guid Id, Guid OrganisationId, Guid EditionId, Guid AccountId, string Name, string Shown, byte[] Access, string Audience,
        string Takes, LocalDate? FromDay, LocalDate? UntilDay, bool Leaving, int Version, Instant? RightAt, Instant? FailedSince,
        int Failures, string Problem, string? SyncToken, int? Done, int? Total, Instant MadeAt)
    {
        public PushTarget ToTarget() => new(
            Id, OrganisationId, EditionId, AccountId, Name, Shown, Access, Words.Read<Audience>(Audience), Words.Read<PushTakes>(Takes),
            FromDay, UntilDay, Leaving, Version, RightAt, FailedSince, Failures, StoredSaying.Read(Problem), SyncToken, Done, Total,
            MadeAt);
    }

    private const string Columns = """
        select t.id, t.organisation_id, t.edition_id, t.account_id, t.name, t.shown, t.access, t.audience, t.takes, t.from_day, t.until_day,
            t.leaving, t.version, t.right_at, t.failed_since, t.failures, t.problem, t.sync_token, t.done, t.total, t.made_at
        from push_target t

        """;

    public async Task<IReadOnlyList<PushTarget>> ListAsync(Guid organisationId) =>
        [.. (await database.ListAsync<Row>(Columns + """
            where t.organisation_id = @organisationId
            order by lower(t.name), t.id
            limit @Most
            """, new { organisationId, Most })).Select(row => row.ToTarget())];

    public async Task<PushTarget?> FindAsync(Guid organisationId, Guid id) => (await database.FirstAsync<Row>(
        Columns + "where t.organisation_id = @organisationId and t.id = @id", new { organisationId, id }))?.ToTarget();

    /// <summary>It is written at once.</summary>
    /// <exception cref="RuleException">There are too many.</exception>
    public Task AddAsync(PushTarget target, AuditLine line) => database.InTransactionAsync(async transaction =>
    {
        var connection = transaction.Connection!;
        await connection.ExecuteAsync(
            "select from organisation where id = @OrganisationId for update", new { target.OrganisationId }, transaction);
        if (await connection.ExecuteScalarAsync<int>(
            "select count(*)::integer from push_target where organisation_id = @OrganisationId",
            new { target.OrganisationId }, transaction) >= Most)
            throw new RuleException("address", "push.tooMany", ("most", Most));
        await connection.ExecuteAsync("""
            insert into push_target (id, organisation_id, edition_id, account_id, name, shown, access, audience, takes, from_day,
                until_day, made_at)
            values (@Id, @OrganisationId, @EditionId, @AccountId, @Name, @Shown, @Access, @audience, @takes, @From, @Until, @MadeAt)
            """, Values(target), transaction);
        await AuditStore.WriteAsync(transaction, target.OrganisationId, line);
        await WantAsync(transaction, target.OrganisationId, [target.Id], line.At);
        return true;
    });

    private static object Values(PushTarget target) => new
    {
        target.Id,
        target.OrganisationId,
        target.EditionId,
        target.AccountId,
        target.Name,
        target.Shown,
        target.Access,
        target.From,
        target.Until,
        target.IsLeaving,
        target.Version,
        target.SyncToken,
        target.MadeAt,
        audience = Words.Of(target.Audience),
        takes = Words.Of(target.Takes),
    };

    internal static async Task WantAsync(DbTransaction transaction, Guid organisationId, IReadOnlyCollection<Guid> ids, Instant due)
    {
        var keys = ids.Select(id => id.ToString()).Order(StringComparer.Ordinal).Select(key => (key, (Guid?)organisationId));
        await WorkStore.WantAsync(transaction, WorkKind.Push, [.. keys], due);
        await Announcements.TellDesksAsync(transaction, organisationId);
    }

    /// <exception cref="ChangedMeanwhileException">Somebody else saved it first.</exception>
    public Task SaveAsync(PushTarget target, AuditLine line) => database.InTransactionAsync(async transaction =>
    {
        if (await transaction.Connection!.ExecuteAsync("""
            update push_target
            set name = @Name, shown = @Shown, access = @Access, audience = @audience, takes = @takes, from_day = @From, until_day = @Until,
                leaving = @IsLeaving, account_id = @AccountId, sync_token = @SyncToken, version = version + 1
            where organisation_id = @OrganisationId and id = @Id and version = @Version
            """, Values(target), transaction) == 0)
            throw new ChangedMeanwhileException();
        await AuditStore.WriteAsync(transaction, target.OrganisationId, line);
        await WantAsync(transaction, target.OrganisationId, [target.Id], line.At);
        return true;
    });

    /// <summary>It is looked at now, however long it would have waited.</summary>
    public Task PushNowAsync(PushTarget target, Instant now) => database.InTransactionAsync(async transaction =>
    {
        await WantAsync(transaction, target.OrganisationId, [target.Id], now);
        return true;
    });

    /// <summary>It is forgotten; what stands there stays.</summary>
    public Task ForgetAsync(PushTarget target, AuditLine? line) => database.InTransactionAsync(async transaction =>
    {
        await transaction.Connection!.ExecuteAsync("""
            delete from work where kind = 'push' and key = @key;
            delete from push_target where organisation_id = @OrganisationId and id = @Id
            """, new { target.OrganisationId, target.Id, key = target.Id.ToString() }, transaction);
        if (line is not null)
            await AuditStore.WriteAsync(transaction, target.OrganisationId, line);
        await Announcements.TellDesksAsync(transaction, target.OrganisationId);
        return true;
    });

    // ---- what is chosen

    public async Task<IReadOnlySet<Guid>> ChosenAsync(Guid organisationId, Guid id) => (await database.ListAsync<Guid>(
        "select event_id from push_choice where organisation_id = @organisationId and target_id = @id limit 50000",
        new { organisationId, id })).ToHashSet();

    /// <summary>Targets that somebody chose for an event.</summary>
    public async Task<IReadOnlySet<Guid>> ChosenForAsync(Guid organisationId, Guid eventId) => (await database.ListAsync<Guid>(
        "select target_id from push_choice where organisation_id = @organisationId and event_id = @eventId",
        new { organisationId, eventId })).ToHashSet();

    /// <summary>What goes on from a series goes where that was chosen to go.</summary>
    internal static Task ContinueAsync(DbTransaction transaction, Guid organisationId, IReadOnlyCollection<Guid> events) =>
        events.Count == 0 ? Task.CompletedTask
        : transaction.Connection!.ExecuteAsync("""
            insert into push_choice (organisation_id, target_id, event_id)
            select c.organisation_id, c.target_id, e.id
            from event e
            join event before on before.organisation_id = e.organisation_id and before.uid = e.continues
            join push_choice c on c.organisation_id = e.organisation_id and c.event_id = before.id
            where e.organisation_id = @organisationId and e.id = any(@events)
            on conflict do nothing
            """, new { organisationId, events = events.ToArray() }, transaction);

    /// <summary>Chooses events for some targets, and no more for others.</summary>
    public Task ChooseAsync(
        Guid organisationId, IReadOnlyList<Guid> events, IReadOnlyCollection<Guid> chosen, IReadOnlyCollection<Guid> notChosen,
        Instant now) =>
        database.InTransactionAsync(async transaction =>
        {
            var parameters = new { organisationId, events = events.ToArray(), chosen = chosen.ToArray(), notChosen = notChosen.ToArray() };
            await transaction.Connection!.ExecuteAsync("""
                insert into push_choice (organisation_id, target_id, event_id)
                select @organisationId, t, e.id
                from unnest(@chosen) t
                join event e on e.organisation_id = @organisationId and e.id = any(@events)
                order by t, e.id
                on conflict do nothing;
                delete from push_choice
                where organisation_id = @organisationId and event_id = any(@events) and target_id = any(@notChosen)
                """, parameters, transaction);
            await WantAsync(transaction, organisationId, [.. chosen.Concat(notChosen)], now);
            return true;
        });
}
