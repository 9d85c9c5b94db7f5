using System.Data.Common;
using Dapper;
using NodaTime;
using Valtro.Core;
using Valtro.Core.Acts;
using Valtro.Core.Intake;
using Valtro.Core.Speaking;

namespace Valtro.Store;

/// <summary>A followed source, without what it says.</summary>
/// <param name="AccountId">By whose rights it lands where it does.</param>
/// <param name="Shown">Its address, as far as it is told.</param>
/// <param name="Access">What is needed to ask it, sealed.</param>
/// <param name="Version">Of its rules, and of what is said of single entries.</param>
/// <param name="Applied">The version that what stands here is of.</param>
/// <param name="RightAt">When it was fetched last, and right; null where it never was.</param>
/// <param name="ChangedAt">When it said something else last.</param>
/// <param name="Held">What it says now waits for somebody's word.</param>
public sealed record FollowedSource(
    Guid Id, Guid OrganisationId, Guid AccountId, string Name, string Shown, byte[] Access, SourceRules Rules, int EveryMinutes,
    int Version, int Applied, Instant DueAt, string? ETag, string? LastModified, Instant? RightAt, Instant? ChangedAt, Instant? FailedSince,
    int Failures, Saying? Problem, HeldBack? Held, Instant? HeldAt, int Bytes, Guid? OwnCalendar, Instant MadeAt)
{
    /// <summary>One that is to be followed from now on, and asked at once.</summary>
    public static FollowedSource New(
        Guid id, Guid organisationId, Guid accountId, string name, Uri address, byte[] access, SourceRules rules, int everyMinutes,
        Instant now) => new(
            id, organisationId, accountId, name, OutsideAccess.Shown(address), access, rules, everyMinutes, 1, 0, now, null, null, null,
            null, null, 0, null, null, null, 0, null, now);

    /// <summary>What is asked next is asked by the rules as they are.</summary>
    public bool IsApplied => Version == Applied;
}

/// <summary>Followed sources (docs/decisions/sources.md).</summary>
public sealed class SourceStore(Database database)
{
    /// <summary>Of one organisation.</summary>
    public const int Most = 200;

    /// <summary>Entries of one source.</summary>
    public const int MostEntries = 5_000;

    public const int Largest = 8 * 1024 * 1024;

    private sealed record Row(
        Guid Id, Guid OrganisationId, Guid AccountId, string Name, string Shown, byte[] Access, string Rules, int EveryMinutes, int Version,
        int Applied, Instant DueAt, string? Etag, string? LastModified, Instant? RightAt, Instant? ChangedAt, Instant? FailedSince,
        int Failures, string Problem, string? HeldWhy, Instant? HeldAt, int Bytes, Guid? OwnCalendar, Instant MadeAt)
    {
        public FollowedSource ToSource() => new(
            Id, OrganisationId, AccountId, Name, Shown, Access, ProposalDocument.Read<SourceRules>(Rules), EveryMinutes, Version, Applied,
            DueAt, Etag, LastModified, RightAt, ChangedAt, FailedSince, Failures, StoredSaying.Read(Problem),
            HeldWhy is null ? null : ProposalDocument.Read<HeldBack>(HeldWhy), HeldAt, Bytes, OwnCalendar, MadeAt);
    }

    private const string Columns = """
        select s.id, s.organisation_id, s.account_id, s.name, s.shown, s.access, s.rules::text as rules, s.every_minutes, s.version, s.applied,
            s.due_at, s.etag, s.last_modified, s.right_at, s.changed_at, s.failed_since, s.failures, s.problem, s.held_why::text as held_why, s.held_at,
            coalesce(octet_length(s.content), 0) as bytes,
            (select c.id from calendar c where c.followed_source = s.id and c.removed_at is null limit 1) as own_calendar, s.made_at
        from source s

        """;

    public async Task<IReadOnlyList<FollowedSource>> ListAsync(Guid organisationId) =>
        [.. (await database.ListAsync<Row>(Columns + """
            where s.organisation_id = @organisationId
            order by lower(s.name), s.id
            limit @Most
            """, new { organisationId, Most })).Select(row => row.ToSource())];

    /// <summary>Those that fail or are held back.</summary>
    internal const string NotRight = Columns + """
        where s.organisation_id = @organisationId and (s.failed_since is not null or s.held_at is not null)
        order by s.id
        limit 100
        """;

    internal static async Task<IReadOnlyList<FollowedSource>> ReadAsync(SqlMapper.GridReader results) =>
        [.. (await results.ReadAsync<Row>()).Select(row => row.ToSource())];

    public async Task<FollowedSource?> FindAsync(Guid organisationId, Guid id) => (await database.FirstAsync<Row>(
        Columns + "where s.organisation_id = @organisationId and s.id = @id", new { organisationId, id }))?.ToSource();

    /// <summary>Follows a source: it is asked at once.</summary>
    /// <param name="own">Of a calendar that is made for it, and that it fills alone: all that its rules say nothing else of goes
    /// there.</param>
    /// <exception cref="RuleException">There are too many, or the plate is taken.</exception>
    public async Task AddAsync(FollowedSource source, CalendarSettings? own, AuditLine line)
    {
        var calendar = own is null ? default(Guid?) : Guid.CreateVersion7();
        if (calendar is { } id)
            source = source with { Rules = source.Rules with { Else = new Landing(LandingTo.Calendar, id) } };
        Task<bool> Add() => database.InTransactionAsync(transaction => AddAsync(transaction, source, own, calendar, line));
        if (own is null)
            await Add();
        else
            await CalendarStore.Refusing(own.Plate, Add);
    }

    private static async Task<bool> AddAsync(
        DbTransaction transaction, FollowedSource source, CalendarSettings? own, Guid? calendar, AuditLine line)
    {
        var connection = transaction.Connection!;
        await connection.ExecuteAsync("select from organisation where id = @OrganisationId for update", new { source.OrganisationId }, transaction);
        if (await connection.ExecuteScalarAsync<int>(
            "select count(*)::integer from source where organisation_id = @OrganisationId",
            new { source.OrganisationId }, transaction) >= Most)
            throw new RuleException("address", "source.tooMany", ("most", Most));
        await connection.ExecuteAsync("""
            insert into source (id, organisation_id, account_id, name, shown, access, rules, every_minutes, due_at, made_at)
            values (@Id, @OrganisationId, @AccountId, @Name, @Shown, @Access, @rules::jsonb, @EveryMinutes, @DueAt, @MadeAt)
            """, new
        {
            source.Id,
            source.OrganisationId,
            source.AccountId,
            source.Name,
            source.Shown,
            source.Access,
            rules = ProposalDocument.Write(source.Rules),
            source.EveryMinutes,
            source.DueAt,
            source.MadeAt,
        }, transaction);
        if (calendar is { } id)
        {
            await CalendarStore.InsertAsync(transaction, source.OrganisationId, id, own!, source.MadeAt, like: null,
                [new AuditLine(source.AccountId, AuditAct.CalendarMade, own!.Name, null, source.MadeAt)]);
            await connection.ExecuteAsync("update calendar set followed_source = @sourceId where organisation_id = @OrganisationId and id = @id",
                new { sourceId = source.Id, source.OrganisationId, id }, transaction);
        }
        await AuditStore.WriteAsync(transaction, source.OrganisationId, line);
        await WantAsync(transaction, source.OrganisationId, source.Id, source.DueAt);
        return true;
    }

    private static async Task WantAsync(DbTransaction transaction, Guid organisationId, Guid id, Instant due)
    {
        await WorkStore.WantAsync(transaction, WorkKind.Follow, [(id.ToString(), organisationId)], due);
        await Announcements.TellDesksAsync(transaction, organisationId);
    }

    /// <summary>Other rules, or another name or rhythm; they are applied behind, by the rights of whoever says so.</summary>
    /// <exception cref="ChangedMeanwhileException">Somebody else saved others first.</exception>
    public Task SaveAsync(FollowedSource source, Guid accountId, Instant now, AuditLine line) =>
        database.InTransactionAsync(async transaction =>
        {
            if (await transaction.Connection!.ExecuteAsync("""
                update source
                set name = @Name, shown = @Shown, access = @Access, rules = @rules::jsonb, every_minutes = @EveryMinutes, account_id = @accountId,
                    version = version + 1, due_at = least(due_at, @latest)
                where organisation_id = @OrganisationId and id = @Id and version = @Version
                """, new
            {
                source.Id,
                source.OrganisationId,
                source.Name,
                source.Shown,
                source.Access,
                source.EveryMinutes,
                source.Version,
                accountId,
                rules = ProposalDocument.Write(source.Rules),
                latest = now + Duration.FromMinutes(source.EveryMinutes),
            }, transaction) == 0)
                throw new ChangedMeanwhileException();
            await AuditStore.WriteAsync(transaction, source.OrganisationId, line);
            await WantAsync(transaction, source.OrganisationId, source.Id, now);
            return true;
        });

    /// <summary>Says of one entry what becomes of it, whatever the rules say.</summary>
    /// <param name="landing">Null for what the rules say.</param>
    public Task ChooseAsync(FollowedSource source, string uid, Landing? landing, Guid accountId, Instant now) =>
        database.InTransactionAsync(async transaction =>
        {
            await transaction.Connection!.ExecuteAsync(landing is null
                ? "delete from source_choice where source_id = @Id and uid = @uid"
                : """
                insert into source_choice (organisation_id, source_id, uid, landing)
                values (@OrganisationId, @Id, @uid, @landing::jsonb)
                on conflict (source_id, uid) do update set landing = excluded.landing
                """, new { source.OrganisationId, source.Id, uid, landing = landing is null ? null : ProposalDocument.Write(landing) },
                transaction);
            await RaiseAsync(transaction, source, accountId);
            await WantAsync(transaction, source.OrganisationId, source.Id, now);
            return true;
        });

    private static Task RaiseAsync(DbTransaction transaction, FollowedSource source, Guid accountId) =>
        transaction.Connection!.ExecuteAsync(
        "update source set version = version + 1, account_id = @accountId where organisation_id = @OrganisationId and id = @Id",
        new { source.OrganisationId, source.Id, accountId }, transaction);

    public async Task<IReadOnlyDictionary<string, Landing>> ChoicesAsync(Guid organisationId, Guid id) =>
        (await database.ListAsync<(string Uid, string Landing)>("""
            select uid, landing::text from source_choice where organisation_id = @organisationId and source_id = @id limit 50000
            """, new { organisationId, id })).ToDictionary(row => row.Uid, row => ProposalDocument.Read<Landing>(row.Landing));

    /// <summary>It is asked now, however long it would have waited.</summary>
    public Task FetchNowAsync(FollowedSource source, Instant now) => database.InTransactionAsync(async transaction =>
    {
        await transaction.Connection!.ExecuteAsync(
            "update source set due_at = @now where organisation_id = @OrganisationId and id = @Id",
            new { source.OrganisationId, source.Id, now }, transaction);
        await WantAsync(transaction, source.OrganisationId, source.Id, now);
        return true;
    });

    /// <summary>As it was right last; null where it never was.</summary>
    public Task<byte[]?> ContentAsync(Guid organisationId, Guid id) => database.FirstAsync<byte[]>(
        "select content from source where organisation_id = @organisationId and id = @id", new { organisationId, id });

    /// <summary>What was held back is taken, or is not and never will be.</summary>
    /// <returns>False where nothing is held back any more.</returns>
    public Task<bool> DecideAsync(FollowedSource source, bool isTaken, Guid accountId, Instant now) =>
        database.InTransactionAsync(async transaction =>
        {
            var done = await transaction.Connection!.ExecuteAsync("""
                update source
                set content = case when @isTaken then held else content end,
                    unwanted_hash = case when @isTaken then null else sha256(held) end,
                    right_at = case when @isTaken then held_at else right_at end,
                    changed_at = case when @isTaken then held_at else changed_at end,
                    etag = null, last_modified = null, held = null, held_why = null, held_at = null
                where organisation_id = @OrganisationId and id = @Id and held is not null
                """, new { source.OrganisationId, source.Id, isTaken }, transaction);
            if (done == 0)
                return false;
            await RaiseAsync(transaction, source, accountId);
            await WantAsync(transaction, source.OrganisationId, source.Id, now);
            return true;
        });

    /// <summary>An entry that was hidden is shown again: from the bin, or brought anew where it is there no more.</summary>
    /// <param name="act">Takes its event out of the bin, where it is there.</param>
    public Task ShowAgainAsync(FollowedSource source, string uid, Act act, Guid accountId, Instant now) =>
        database.InTransactionAsync(async transaction =>
        {
            await ForeignNames.ForgetHiddenAsync(transaction, source.OrganisationId, source.Id, uid);
            await ActStore.CommitAsync(
                transaction, source.OrganisationId, accountId, WholeSecond(now), act, Guid.CreateVersion7());
            await RaiseAsync(transaction, source, accountId);
            await WantAsync(transaction, source.OrganisationId, source.Id, now);
            return true;
        });

    /// <summary>It is followed no more.</summary>
    /// <param name="act">Makes ours what stands here of it, those in the bin too.</param>
    public Task<Guid> LeaveAsync(FollowedSource source, Act act, Guid accountId, Instant now, AuditLine line) =>
        database.InTransactionAsync(async transaction =>
        {
            var actId = Guid.CreateVersion7();
            await ActStore.CommitAsync(transaction, source.OrganisationId, accountId, WholeSecond(now), act, actId);
            await ForeignNames.ForgetAsync(transaction, source.OrganisationId, source.Id);
            await transaction.Connection!.ExecuteAsync("""
                delete from work where kind = 'follow' and key = @key;
                delete from source where organisation_id = @OrganisationId and id = @Id
                """, new { source.OrganisationId, source.Id, key = source.Id.ToString() }, transaction);
            await AuditStore.WriteAsync(transaction, source.OrganisationId, line);
            await Announcements.TellDesksAsync(transaction, source.OrganisationId);
            return actId;
        });

    internal static Instant WholeSecond(Instant at) => Instant.FromUnixTimeSeconds(at.ToUnixTimeSeconds());
}
