using System.Data.Common;
using Dapper;
using NodaTime;
using Npgsql;
using Valtro.Core;
using Valtro.Core.Acts;
using Valtro.Core.Calendars;
using Valtro.Core.Disclosure;
using Valtro.Core.Time;

namespace Valtro.Store;

/// <summary>What people edit of a calendar.</summary>
/// <param name="Readerships">Names of those who read it: calendars that share one can clash softly.</param>
public sealed record CalendarSettings(
    string Name, Plate Plate, Hue Hue, DateTimeZone Zone, string Description, Disclosure Disclosure, IReadOnlyList<string> Readerships)
{
    public const int MostReaderships = 20;

    public bool RequiresSignOff { get; init; } = true;
}

public sealed class CalendarStore(Database database)
{
    private const string Columns = """
        select c.id, c.organisation_id, c.name, c.plate, c.colour, c.zone, c.description,
               c.members::text as members, c.link::text as link, c.everyone::text as everyone, c.names,
               c.version, e.content_version, e.id as edition_id, e.slug,
               array_to_string(c.readerships, chr(10)) as readerships,
               c.requires_sign_off, c.archived_at, c.removed_at, c.followed_source is not null as is_followed,
               exists (select from secret_link s where s.edition_id = e.id and s.ended_at is null) as has_secret_link
        from calendar c
        join edition e on e.calendar_id = c.id
        """;

    private sealed record Row(
        Guid Id, Guid OrganisationId, string Name, string Plate, string Colour, string Zone, string Description,
        string Members, string Link, string Everyone, string Names, int Version, long ContentVersion, Guid EditionId, string Slug,
        string Readerships,
        bool RequiresSignOff, Instant? ArchivedAt, Instant? RemovedAt, bool IsFollowed, bool HasSecretLink)
    {
        public Calendar ToCalendar() => new(
            Id, OrganisationId, Name, Core.Calendars.Plate.Parse(Plate), Hue.Named(Colour), Zones.Named(Zone), Description,
            new Disclosure(Words.Read<Detail>(Members), Words.Read<Detail>(Link), Words.Read<Detail>(Everyone))
            {
                Names = Words.Read<Audience>(Names),
            },
            Version, ContentVersion, EditionId, Slug, Readerships.Split('\n', StringSplitOptions.RemoveEmptyEntries))
        {
            RequiresSignOff = RequiresSignOff,
            ArchivedAt = ArchivedAt,
            RemovedAt = RemovedAt,
            IsFollowed = IsFollowed,
            HasSecretLink = HasSecretLink,
        };
    }

    internal const string InUse = $"""
        {Columns}
        where c.organisation_id = @organisationId and c.removed_at is null
        order by c.created_at, c.id
        limit 500
        """;

    internal static async Task<IReadOnlyList<Calendar>> ReadAsync(SqlMapper.GridReader results) =>
        [.. (await results.ReadAsync<Row>()).Select(row => row.ToCalendar())];

    /// <summary>Those in use, archived ones too; not those in the bin.</summary>
    public async Task<IReadOnlyList<Calendar>> ListAsync(Guid organisationId) =>
        [.. (await database.ListAsync<Row>(InUse, new { organisationId })).Select(row => row.ToCalendar())];

    /// <summary>What rests in the bin, latest first.</summary>
    public async Task<IReadOnlyList<Calendar>> BinAsync(Guid organisationId) =>
        [.. (await database.ListAsync<Row>(Columns + """

            where c.organisation_id = @organisationId and c.removed_at is not null
            order by c.removed_at desc
            limit 100
            """, new { organisationId })).Select(row => row.ToCalendar())];

    /// <summary>One in use; not one in the bin.</summary>
    public async Task<Calendar?> FindAsync(Guid organisationId, Guid id) =>
        await FindAnyAsync(organisationId, id) is { RemovedAt: null } found ? found : null;

    /// <summary>One in use or in the bin.</summary>
    public async Task<Calendar?> FindAnyAsync(Guid organisationId, Guid id) =>
        (await database.FirstAsync<Row>(Columns + """

            where c.organisation_id = @organisationId and c.id = @id
            """, new { organisationId, id }))?.ToCalendar();

    /// <summary>Makes a calendar and its standard edition.</summary>
    /// <exception cref="RuleException">The plate is taken.</exception>
    /// <param name="like">A calendar whose roles and groups it gets too.</param>
    public async Task<Calendar> AddAsync(
        Guid organisationId, CalendarSettings settings, Instant now, Guid? like = null, AuditLine[]? audit = null)
    {
        var id = Guid.CreateVersion7();
        await Refusing(settings.Plate, () => database.InTransactionAsync(async transaction =>
        {
            await InsertAsync(transaction, organisationId, id, settings, now, like, audit);
            return true;
        }));
        return (await FindAsync(organisationId, id))!;
    }

    /// <summary>As part of something larger, within <see cref="Refusing"/>.</summary>
    internal static async Task InsertAsync(DbTransaction transaction, Guid organisationId, Guid id, CalendarSettings settings, Instant now,
        Guid? like, AuditLine[]? audit)
    {
        var connection = transaction.Connection!;
        // Calendars of one organisation are made one after the other, so that addresses do not collide.
        await connection.ExecuteAsync(
            "select from organisation where id = @organisationId for update", new { organisationId }, transaction);
        await connection.ExecuteAsync("""
            insert into calendar (id, organisation_id, name, plate, colour, zone, description, members, link, everyone, names, readerships,
                requires_sign_off, created_at)
            values (@Id, @OrganisationId, @Name, @Plate, @Colour, @Zone, @Description, @Members, @Link, @Everyone, @Names, @Readerships,
                @RequiresSignOff, @Now)
            """, Parameters(organisationId, id, settings, now), transaction);
        var taken = (await connection.QueryAsync<string>(
            "select slug from edition where organisation_id = @organisationId", new { organisationId }, transaction))
            .ToHashSet();
        await connection.ExecuteAsync("""
            insert into edition (id, organisation_id, calendar_id, slug, changed_at)
            values (@editionId, @organisationId, @id, @slug, @now);
            insert into edition_source (organisation_id, edition_id, calendar_id)
            select @organisationId, e.id, @id from edition e where e.organisation_id = @organisationId
                and (e.id = @editionId or e.takes_all)
            """, new { editionId = Guid.CreateVersion7(), organisationId, id, slug = Slug.Propose(settings.Name, taken), now },
                transaction);
        await connection.ExecuteAsync("""
            insert into calendar_role (organisation_id, calendar_id, account_id, role)
            select organisation_id, @id, account_id, role from calendar_role where organisation_id = @organisationId
                and calendar_id = @like;
            insert into calendar_group_member (organisation_id, group_id, calendar_id)
            select organisation_id, group_id, @id from calendar_group_member where organisation_id = @organisationId
                and calendar_id = @like
            """, new { organisationId, id, like }, transaction);
        await GoingOut.ChangedAsync(transaction, organisationId, [id], now, takesAway: false);
        await AuditStore.WriteAsync(transaction, organisationId, audit ?? []);
    }

    /// <exception cref="ChangedMeanwhileException">The version is not the stored one any more.</exception>
    /// <exception cref="RuleException">The plate is taken.</exception>
    public async Task<Calendar> SaveAsync(
        Guid organisationId, Guid id, int version, CalendarSettings settings, Instant now, params AuditLine[] audit)
    {
        await Refusing(settings.Plate, () => database.InTransactionAsync(async transaction =>
        {
            var before = await transaction.Connection!.QueryFirstOrDefaultAsync<
                (string Members, string Link, string Everyone, string Names)>(
                """
                select members::text, link::text, everyone::text, names
                from calendar
                where organisation_id = @organisationId and id = @id
                for update
                """, new { organisationId, id }, transaction);
            var parameters = Parameters(organisationId, id, settings, now);
            parameters.Add("Version", version);
            var saved = await transaction.Connection!.ExecuteAsync("""
                update calendar
                set name = @Name,
                    plate = @Plate,
                    colour = @Colour,
                    zone = @Zone,
                    description = @Description,
                    members = @Members,
                    link = @Link,
                    everyone = @Everyone,
                    names = @Names,
                    readerships = @Readerships,
                    requires_sign_off = @RequiresSignOff,
                    version = version + 1
                where organisation_id = @OrganisationId and id = @Id and version = @Version and removed_at is null
                """, parameters, transaction);
            if (saved == 0)
                throw new ChangedMeanwhileException();
            var after = settings.Disclosure;
            await GoingOut.ChangedAsync(transaction, organisationId, [id], now,
                IsLess(before.Members, after.Members) || IsLess(before.Link, after.Link) || IsLess(before.Everyone, after.Everyone)
                    || after.Names < Words.Read<Audience>(before.Names));
            await AuditStore.WriteAsync(transaction, organisationId, audit);
            return true;
        }));
        return (await FindAsync(organisationId, id))!;
    }

    private static bool IsLess(string before, Detail after) => after < Words.Read<Detail>(before);

    /// <summary>Archives it or takes it out of the archive. What readers get stays as it is.</summary>
    /// <exception cref="NotFoundException">There is none in use.</exception>
    public Task<bool> ArchiveAsync(Guid organisationId, Guid id, bool isArchived, Instant now,
        AuditLine audit) => database.InTransactionAsync(async transaction =>
    {
        await UpdateOneAsync(transaction, """
            update calendar
            set archived_at = case when @isArchived then coalesce(archived_at, @now) end, version = version + 1
            where organisation_id = @organisationId and id = @id and removed_at is null
            """, new { organisationId, id, isArchived, now });
        await AuditStore.WriteAsync(transaction, organisationId, audit);
        return true;
    });

    /// <summary>Puts it into the bin: nobody gets anything of it any more.</summary>
    /// <exception cref="NotFoundException">There is none in use.</exception>
    public Task<bool> RemoveAsync(Guid organisationId, Guid id, Instant now,
        AuditLine audit) => database.InTransactionAsync(async transaction =>
    {
        await RemoveAsync(transaction, organisationId, id, null, now);
        await AuditStore.WriteAsync(transaction, organisationId, audit);
        return true;
    });

    private static async Task RemoveAsync(DbTransaction transaction, Guid organisationId, Guid id, Guid? mergedInto, Instant now)
    {
        await UpdateOneAsync(transaction, """
            update calendar
            set removed_at = @now, merged_into = @mergedInto, version = version + 1
            where organisation_id = @organisationId and id = @id and removed_at is null
            """, new { organisationId, id, mergedInto, now });
        await GoingOut.ChangedAsync(transaction, organisationId, [id, .. await NeighboursAsync(transaction, id)], now, takesAway: true);
    }

    /// <summary>Takes it out of the bin.</summary>
    /// <exception cref="NotFoundException">It is not there.</exception>
    /// <exception cref="RuleException">Its plate was given to another calendar meanwhile.</exception>
    public Task<bool> RestoreAsync(Guid organisationId, Guid id, Instant now, AuditLine audit) =>
        database.InTransactionAsync(async transaction =>
        {
            await RestoreAsync(transaction, organisationId, id, now);
            await AuditStore.WriteAsync(transaction, organisationId, audit);
            return true;
        });

    private static async Task RestoreAsync(DbTransaction transaction, Guid organisationId, Guid id, Instant now)
    {
        try
        {
            await UpdateOneAsync(transaction, """
                update calendar
                set removed_at = null, merged_into = null, merged_by_act = null, version = version + 1
                where organisation_id = @organisationId and id = @id and removed_at is not null
                """, new { organisationId, id });
        }
        catch (PostgresException taken) when (taken.ConstraintName == "calendar_plate_unique")
        {
            throw new RuleException("plate", "calendar.plateTakenMeanwhile");
        }
        await GoingOut.ChangedAsync(
            transaction, organisationId, [id, .. await NeighboursAsync(transaction, id)], now, takesAway: true);
    }

    /// <summary>Makes one calendar of two: the emptied one goes to the bin and its addresses lead to the other.</summary>
    /// <param name="moving">Puts all that is shown on the one on the other.</param>
    /// <returns>The act.</returns>
    /// <exception cref="ChangedMeanwhileException">Something was saved at the same time.</exception>
    public Task<Guid> MergeAsync(Guid organisationId, Guid from, Guid into, Guid accountId, Instant now, Act moving,
        AuditLine audit) => database.InTransactionAsync(async transaction =>
    {
        var actId = Guid.CreateVersion7();
        await transaction.Connection!.ExecuteAsync(
            "select from calendar where organisation_id = @organisationId and id in (@from, @into) order by id for update",
            new { organisationId, from, into }, transaction);
        await ActStore.CommitAsync(transaction, organisationId, accountId, now, moving, actId);
        var isLeft = await transaction.Connection!.ExecuteScalarAsync<bool>("""
            select exists (select from event where home_calendar_id = @from) or exists (select from placement where calendar_id = @from)
            """, new { from }, transaction);
        if (isLeft)
            throw new ChangedMeanwhileException();
        await RemoveAsync(transaction, organisationId, from, into, now);
        await transaction.Connection!.ExecuteAsync(
            "update calendar set merged_by_act = @actId where id = @from", new { actId, from }, transaction);
        await GoingOut.ChangedAsync(transaction, organisationId, [into], now, takesAway: true);
        await AuditStore.WriteAsync(transaction, organisationId, audit);
        return actId;
    });

    /// <summary>With an act that made one calendar of two, they are two again.</summary>
    internal static async Task UndoAsync(DbTransaction transaction, Guid organisationId, Guid actId, Instant now)
    {
        foreach (var id in await transaction.Connection!.QueryAsync<Guid>(
            "select id from calendar where organisation_id = @organisationId and merged_by_act = @actId",
            new { organisationId, actId }, transaction))
            await RestoreAsync(transaction, organisationId, id, now);
    }

    /// <summary>Deletes what has rested in the bin long enough, with its events and all that belongs to them.</summary>
    public Task<int> EmptyBinAsync(Instant removedBefore) =>
        database.InTransactionAsync(transaction => transaction.Connection!.ExecuteAsync("""
        create temporary table gone on commit drop as
        select id from calendar where removed_at < @removedBefore order by removed_at limit 20 for update skip locked;

        update calendar set merged_into = null, merged_by_act = null where merged_into in (select id from gone);
        delete from revision r using event e where e.id = r.event_id and e.home_calendar_id in (select id from gone);
        delete from event where home_calendar_id in (select id from gone);
        delete from calendar where id in (select id from gone)
        """, new { removedBefore }, transaction));

    /// <summary>Other calendars on which its events are placed.</summary>
    private static async Task<Guid[]> NeighboursAsync(DbTransaction transaction, Guid id) =>
        [.. await transaction.Connection!.QueryAsync<Guid>("""
        select distinct p.calendar_id
        from event e
        join placement p on p.event_id = e.id
        where e.home_calendar_id = @id
        """, new { id }, transaction)];

    private static async Task UpdateOneAsync(DbTransaction transaction, string sql, object parameters)
    {
        if (await transaction.Connection!.ExecuteAsync(sql, parameters, transaction) == 0)
            throw new NotFoundException("calendar");
    }

    private static DynamicParameters Parameters(Guid organisationId, Guid id, CalendarSettings settings, Instant now) => new(new
    {
        Now = now,
        Id = id,
        OrganisationId = organisationId,
        settings.Name,
        Plate = settings.Plate.Code,
        Colour = settings.Hue.Name,
        Zone = settings.Zone.Id,
        settings.Description,
        Members = Words.Of(settings.Disclosure.Members),
        Link = Words.Of(settings.Disclosure.Link),
        Everyone = Words.Of(settings.Disclosure.Everyone),
        Names = Words.Of(settings.Disclosure.Names),
        Readerships = settings.Readerships.ToArray(),
        settings.RequiresSignOff,
    });

    internal static async Task Refusing(Plate plate, Func<Task<bool>> write)
    {
        try
        {
            await write();
        }
        catch (PostgresException taken) when (taken.ConstraintName == "calendar_plate_unique")
        {
            throw new RuleException("plate", "calendar.plateTaken", ("plate", plate.Code));
        }
    }
}
