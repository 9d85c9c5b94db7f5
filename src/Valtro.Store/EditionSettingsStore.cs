using System.Data.Common;
using System.Text.Json;
using System.Text.Json.Serialization;
using Dapper;
using NodaTime;
using NodaTime.Serialization.SystemTextJson;
using Valtro.Core;
using Valtro.Core.Calendars;
using Valtro.Core.Disclosure;
using Valtro.Core.Editions;

namespace Valtro.Store;

/// <summary>An edition as it is kept.</summary>
/// <param name="CalendarId">Of a standard edition; null for one that was composed.</param>
/// <param name="Name">Its own, or its calendar's.</param>
/// <param name="Draft">What somebody said of it; of a standard edition nobody may have said anything.</param>
/// <param name="Sources">Its calendars that are in use.</param>
public sealed record StoredEdition(
    Guid Id, Guid? CalendarId, string Slug, string Name, EditionDraft Draft, IReadOnlyList<Guid> Sources, int Version, Instant ChangedAt,
        Instant? RemovedAt, bool HasLink)
{
    public bool IsStandard => CalendarId is not null;

    /// <summary>Since when its readers can have it; null where it is in the making.</summary>
    public Instant? LetOutAt { get; init; }

    /// <summary>Its addresses answer as if nobody knew them.</summary>
    public bool IsInTheMaking => !IsStandard && LetOutAt is null;
}

/// <summary>What editions are made of, and how they look.</summary>
public sealed class EditionSettingsStore(Database database)
{
    public const int Most = 300;

    /// <summary>How long what somebody is still making can be looked at.</summary>
    private static readonly Duration DraftsLast = Duration.FromDays(1);

    private static readonly JsonSerializerOptions Json = new JsonSerializerOptions(JsonSerializerDefaults.Web)
    {
        Converters = { new JsonStringEnumConverter(JsonNamingPolicy.CamelCase, allowIntegerValues: false) },
        DefaultIgnoreCondition = JsonIgnoreCondition.WhenWritingNull,
    }.ConfigureForNodaTime(DateTimeZoneProviders.Tzdb);

    private sealed class Row
    {
        public Guid Id { get; init; }
        public Guid? CalendarId { get; init; }
        public string Slug { get; init; } = "";
        public string Name { get; init; } = "";
        public string? Audience { get; init; }
        public string? Settings { get; init; }
        public Guid[] Takes { get; init; } = [];
        public Guid[] Merged { get; init; } = [];
        public Guid[] Into { get; init; } = [];
        public Guid[] Gone { get; init; } = [];
        public int Version { get; init; }
        public Instant ChangedAt { get; init; }
        public Instant? RemovedAt { get; init; }
        public bool HasLink { get; init; }
        public Instant? LetOutAt { get; init; }

        public StoredEdition ToEdition()
        {
            // A calendar that is gone leaves its editions; for one that was merged the other stands.
            var merged = Merged.Zip(Into).ToDictionary();
            Guid[] sources = [.. Takes.Select(id => merged.GetValueOrDefault(id, id)).Except(Gone).Order()];
            return new(Id, CalendarId, Slug, Name, ToDraft(merged, sources), sources, Version, ChangedAt, RemovedAt, HasLink)
            {
                LetOutAt = LetOutAt,
            };
        }

        private EditionDraft ToDraft(Dictionary<Guid, Guid> merged, Guid[] sources)
        {
            var draft = Settings is null ? null : Read(Settings);
            if (CalendarId is { } calendar)
                return (draft ?? EditionDraft.Standard(calendar, Core.Disclosure.Audience.Everyone)) with
                {
                    Name = null,
                    Sources = [new SourceDraft(calendar, draft?.Sources.FirstOrDefault(source => source.CalendarId == calendar)?.Filter)]
                };
            var now = draft! with
            {
                Name = Name,
                Audience = Words.Read<Audience>(Audience!),
                Sources = [
                    .. draft.Sources.Select(
                        source => source with { CalendarId = merged.GetValueOrDefault(source.CalendarId, source.CalendarId) })
                            .Where(source => sources.Contains(source.CalendarId)).DistinctBy(source => source.CalendarId)],
            };
            return now.TakesAll ? now.Having(sources) : now;
        }
    }

    private const string Columns = """
        select e.id, e.calendar_id, e.slug, coalesce(e.name, c.name) as name, e.audience, e.settings::text as settings,
               array(select s.calendar_id from edition_source s where s.edition_id = e.id) as takes,
               array(select m.id from calendar m
                     where m.organisation_id = @organisationId and m.merged_into is not null order by m.id) as merged,
               array(select m.merged_into from calendar m
                     where m.organisation_id = @organisationId and m.merged_into is not null order by m.id) as "into",
               array(select g.id from calendar g where g.organisation_id = @organisationId and g.removed_at is not null) as gone,
               e.version, e.changed_at, e.removed_at, e.let_out_at,
               exists (select from secret_link l where l.edition_id = e.id and l.ended_at is null and l.account_id is null) as has_link
        from edition e
        left join calendar c on c.id = e.calendar_id

        """;

    internal const string InUse = $"""
        {Columns}
        where e.organisation_id = @organisationId and e.removed_at is null and c.removed_at is null and e.owner_id is null
        order by e.calendar_id is not null, lower(coalesce(e.name, c.name)), e.id
        limit 800
        """;

    internal static async Task<IReadOnlyList<StoredEdition>> ReadAsync(SqlMapper.GridReader results) =>
        [.. (await results.ReadAsync<Row>()).Select(row => row.ToEdition())];

    /// <summary>Those in use; composed ones first, by name.</summary>
    public async Task<IReadOnlyList<StoredEdition>> ListAsync(Guid organisationId) =>
        [.. (await database.ListAsync<Row>(InUse, new { organisationId })).Select(row => row.ToEdition())];

    /// <summary>One in use, or one that was removed.</summary>
    public async Task<StoredEdition?> FindAsync(Guid organisationId, Guid id) =>
        (await database.FirstAsync<Row>(
            Columns + "where e.organisation_id = @organisationId and e.id = @id and c.removed_at is null and e.owner_id is null", new { organisationId, id }))
            ?.ToEdition();

    /// <summary>Composed ones that were removed since <paramref name="since"/>, latest first.</summary>
    public async Task<IReadOnlyList<StoredEdition>> BinAsync(Guid organisationId, Instant since) =>
        [.. (await database.ListAsync<Row>(Columns + """
            where e.organisation_id = @organisationId and e.calendar_id is null and e.removed_at > @since
            order by e.removed_at desc
            limit 100
            """, new { organisationId, since })).Select(row => row.ToEdition())];

    /// <summary>Deletes what has rested in the bin long enough, and drafts that nobody looks at any more.</summary>
    public Task<int> EmptyBinAsync(Instant removedBefore, Instant now) => database.ExecuteAsync("""
        delete from edition_draft where made_at < @draftsBefore;
        delete from edition where calendar_id is null and removed_at < @removedBefore
        """, new { removedBefore, draftsBefore = now - DraftsLast });

    /// <param name="isOut">Its readers have it at once; else it is in the making until it is let out.</param>
    /// <exception cref="Core.RuleException">There are too many.</exception>
    public Task<Guid> AddAsync(Guid organisationId, EditionDraft draft, string name, Instant now, AuditLine audit,
        bool isOut = false) => database.InTransactionAsync(async transaction =>
    {
        var connection = transaction.Connection!;
        await connection.ExecuteAsync(
            "select from organisation where id = @organisationId for update", new { organisationId }, transaction);
        var taken = (await connection.QueryAsync<string>(
            "select slug from edition where organisation_id = @organisationId", new { organisationId }, transaction))
            .ToHashSet();
        if (await connection.QuerySingleAsync<int>(
            "select count(*) from edition where organisation_id = @organisationId and calendar_id is null and removed_at is null and owner_id is null",
                new { organisationId }, transaction) >= Most)
            throw new Core.RuleException("name", "edition.tooMany", ("most", Most));
        var id = Guid.CreateVersion7();
        await connection.ExecuteAsync("""
            insert into edition (id, organisation_id, slug, name, audience, takes_all, settings, changed_at, let_out_at)
            values (@id, @organisationId, @slug, @name, @audience, @TakesAll, @settings::jsonb, @now, @letOutAt)
            """, Parameters(organisationId, id, draft, name, now, slug: Slug.Propose(name, taken), letOutAt: isOut ? now : null), transaction);
        await ReplaceSourcesAsync(transaction, organisationId, id, draft);
        await AuditStore.WriteAsync(transaction, organisationId, audit);
        await GoingOut.EditionsChangedAsync(transaction, organisationId, [id], now, takesAway: false);
        return id;
    });

    /// <summary>The edition of what a member is responsible for; null where they never asked for it.</summary>
    public Task<Guid?> FindOwnAsync(Guid organisationId, Guid accountId) => database.FirstAsync<Guid?>(
        "select id from edition where organisation_id = @organisationId and owner_id = @accountId", new { organisationId, accountId });

    /// <summary>The same, made where it is not there yet.</summary>
    public Task<Guid> OwnAsync(Guid organisationId, Guid accountId, Instant now) => database.InTransactionAsync(async transaction =>
    {
        var connection = transaction.Connection!;
        var id = Guid.CreateVersion7();
        // What it is called and what it takes stands nowhere: it is the same for everybody.
        await connection.ExecuteAsync("""
            insert into edition (id, organisation_id, slug, name, audience, takes_all, settings, changed_at, owner_id)
            values (@id, @organisationId, @slug, 'Own', 'members', true, '{}', @now, @accountId)
            on conflict (organisation_id, owner_id) where owner_id is not null do nothing
            """, new { id, organisationId, accountId, now, slug = $"own-{id:N}" }, transaction);
        var own = await connection.QuerySingleAsync<Guid>(
            "select id from edition where organisation_id = @organisationId and owner_id = @accountId",
            new { organisationId, accountId }, transaction);
        await connection.ExecuteAsync("""
            insert into edition_source (organisation_id, edition_id, calendar_id)
            select organisation_id, @own, id from calendar where organisation_id = @organisationId
            on conflict do nothing
            """, new { organisationId, own }, transaction);
        return own;
    });

    /// <summary>Saves it. Its addresses stay as they are, so pages that hold it show it changed.</summary>
    /// <exception cref="ChangedMeanwhileException">The version is not the stored one any more.</exception>
    public Task<bool> SaveAsync(Guid organisationId, StoredEdition edition, int version, EditionDraft draft, string name, Instant now,
        AuditLine audit) => database.InTransactionAsync(async transaction =>
    {
        var connection = transaction.Connection!;
        var saved = await connection.ExecuteAsync("""
            update edition
            set name = case when calendar_id is null then @name end,
                audience = case when calendar_id is null then @audience end,
                takes_all = calendar_id is null and @TakesAll,
                settings = @settings::jsonb,
                version = version + 1,
                changed_at = @now
            where organisation_id = @organisationId and id = @id and version = @version and removed_at is null
            """, Parameters(organisationId, edition.Id, draft, name, now, version), transaction);
        if (saved == 0)
            throw new ChangedMeanwhileException();
        if (!edition.IsStandard)
            await ReplaceSourcesAsync(transaction, organisationId, edition.Id, draft);
        await GoingOut.EditionsChangedAsync(transaction, organisationId, [edition.Id], now, takesAway: !TellsTheSame(edition.Draft, draft));
        await AuditStore.WriteAsync(transaction, organisationId, audit);
        return true;
    });

    /// <summary>Lets an edition out that was in the making: from now on its addresses answer.</summary>
    /// <exception cref="NotFoundException">It is not there, or it is out already.</exception>
    public Task<bool> LetOutAsync(Guid organisationId, Guid id, Instant now, AuditLine audit) =>
        database.InTransactionAsync(async transaction =>
        {
            var done = await transaction.Connection!.ExecuteAsync("""
                update edition
                set let_out_at = @now, version = version + 1
                where organisation_id = @organisationId and id = @id and calendar_id is null and owner_id is null
                  and removed_at is null and let_out_at is null
                """, new { organisationId, id, now }, transaction);
            if (done == 0)
                throw new NotFoundException("edition");
            await GoingOut.EditionsChangedAsync(transaction, organisationId, [id], now, takesAway: false);
            await AuditStore.WriteAsync(transaction, organisationId, audit);
            return true;
        });

    /// <summary>Puts a composed edition away, or brings it back.</summary>
    /// <exception cref="NotFoundException">It is not there, or it is a calendar's own.</exception>
    public Task<bool> RemoveAsync(Guid organisationId, Guid id, bool isRemoved, Instant now,
        AuditLine audit) => database.InTransactionAsync(async transaction =>
    {
        var done = await transaction.Connection!.ExecuteAsync("""
            update edition
            set removed_at = case when @isRemoved then @now end, version = version + 1
            where organisation_id = @organisationId and id = @id and calendar_id is null and (removed_at is null) = @isRemoved
            """, new { organisationId, id, isRemoved, now }, transaction);
        if (done == 0)
            throw new NotFoundException("edition");
        await GoingOut.EditionsChangedAsync(transaction, organisationId, [id], now, takesAway: isRemoved);
        await AuditStore.WriteAsync(transaction, organisationId, audit);
        return true;
    });

    /// <summary>Keeps what somebody is making for a day, so that it can be looked at before it is saved.</summary>
    /// <param name="editionId">Which one it will be; null for a new one.</param>
    public async Task<Guid> KeepDraftAsync(Guid organisationId, Guid accountId, Guid? editionId, EditionDraft draft, Instant now)
    {
        var id = Guid.CreateVersion7();
        await database.ExecuteAsync("""
            delete from edition_draft where account_id = @accountId
                and (made_at < @before or id in (select id from edition_draft where account_id = @accountId
                    order by made_at desc offset 20));
            insert into edition_draft (id, organisation_id, account_id, edition_id, settings, made_at)
            values (@id, @organisationId, @accountId, @editionId, @settings::jsonb, @now)
            """, new { id, organisationId, accountId, editionId, settings = Write(draft), now, before = now - DraftsLast });
        return id;
    }

    private sealed record DraftRow(Guid? EditionId, string Settings);

    /// <summary>What somebody was making, for nobody but them.</summary>
    public async Task<(Guid? EditionId, EditionDraft Draft)?> FindDraftAsync(Guid organisationId, Guid accountId, Guid id) =>
        await database.FirstAsync<DraftRow>(
            """
            select edition_id, settings::text as settings
            from edition_draft
            where organisation_id = @organisationId and account_id = @accountId and id = @id
            """, new { organisationId, accountId, id }) is { } row
            ? (row.EditionId, Read(row.Settings))
            : null;

    private static object Parameters(
        Guid organisationId, Guid id, EditionDraft draft, string name, Instant now, int? version = null, string? slug = null,
        Instant? letOutAt = null) => new
        {
            id,
            organisationId,
            slug,
            version,
            name,
            audience = Words.Of(draft.Audience),
            draft.TakesAll,
            settings = Write(draft),
            now,
            letOutAt,
        };

    /// <summary>Whether the other tells its readers what the one does, and more: only how it looks, what it is called, or how soon it comes
    /// is another.</summary>
    private static bool TellsTheSame(EditionDraft one, EditionDraft other)
    {
        static string Told(EditionDraft draft) =>
            Write(draft with { Name = null, Look = null, RefreshMinutes = null, KeptSeconds = null });
        return Told(one) == Told(other);
    }

    /// <summary>It is rendered anew, though nothing of it is another.</summary>
    public Task<bool> RaiseAsync(Guid organisationId, Guid id, Instant now) => database.InTransactionAsync(async transaction =>
    {
        await GoingOut.EditionsChangedAsync(transaction, organisationId, [id], now, takesAway: false);
        return true;
    });

    private static Task ReplaceSourcesAsync(DbTransaction transaction, Guid organisationId, Guid id, EditionDraft draft) =>
        transaction.Connection!.ExecuteAsync("""
        delete from edition_source where edition_id = @id;
        insert into edition_source (organisation_id, edition_id, calendar_id)
        select organisation_id, @id, id from calendar
        where organisation_id = @organisationId and (id = any(@sources) or @TakesAll)
        """, new { organisationId, id, draft.TakesAll, sources = draft.Sources.Select(source => source.CalendarId).ToArray() }, transaction);

    private static string Write(EditionDraft draft) => JsonSerializer.Serialize(draft, Json);

    private static EditionDraft Read(string json) => JsonSerializer.Deserialize<EditionDraft>(json, Json)!;
}
