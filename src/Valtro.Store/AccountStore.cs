using System.Data.Common;
using Dapper;
using NodaTime;
using Valtro.Core;
using Valtro.Core.Disclosure;

namespace Valtro.Store;

/// <summary>A person who signs in.</summary>
public sealed class Account
{
    public Guid Id { get; set; } = Guid.CreateVersion7();
    public string Email { get; set; } = "";
    public string NormalizedEmail { get; set; } = "";
    public string Name { get; set; } = "";

    /// <summary>In which Valtro speaks to them, such as "de"; empty for what their browser asks for.</summary>
    public string Language { get; set; } = "";

    public string? PasswordHash { get; set; }
    public string SecurityStamp { get; set; } = "";
    public Instant? LastSignInAt { get; set; }
    public Instant CreatedAt { get; set; }
    public Instant? ResetMailedAt { get; set; }
}

/// <summary>A person of an organisation, with what they may do there.</summary>
public sealed record Member(
    Guid AccountId, string Name, string Email, bool IsAdministrator, Instant? LastSignInAt, int Version,
        IReadOnlyDictionary<Guid, CalendarRole> Roles);

/// <summary>That a person belongs to an organisation, and as whom.</summary>
/// <param name="Slug">By which addresses name the organisation.</param>
/// <param name="HouseVersion">Which version of its house is the latest.</param>
public sealed record Membership(string Slug, string Name, long HouseVersion, Viewer Viewer);

/// <summary>Accounts, memberships and roles. What is asked before anybody is signed in looks everywhere; the rest stays within the
/// wall.</summary>
public sealed class AccountStore(Database database)
{
    /// <summary>Those who are members now.</summary>
    internal const string NamesOfMembers = """
        select m.account_id, a.name,
            case when count(*) over (partition by lower(a.name)) > 1 then a.name || ' (' || split_part(a.email, '@', 1) || ')' end as told_apart
        from membership m
        join account a on a.id = m.account_id
        where m.organisation_id = @organisationId and m.ended_at is null
        limit 5000
        """;

    private const string Columns = """
        select id, email, normalized_email, name, language, password_hash, security_stamp, last_sign_in_at, created_at, reset_mailed_at
        from account

        """;

    public async Task<Account?> FindAsync(Guid id)
    {
        using var everywhere = Wall.Everywhere();
        return await database.FirstAsync<Account>(Columns + "where id = @id", new { id });
    }

    public async Task<Account?> FindByEmailAsync(string normalizedEmail)
    {
        using var everywhere = Wall.Everywhere();
        return await database.FirstAsync<Account>(Columns + "where normalized_email = @normalizedEmail", new { normalizedEmail });
    }

    public async Task AddAsync(Account account)
    {
        using var everywhere = Wall.Everywhere();
        await database.InTransactionAsync(transaction => InsertAsync(transaction, account));
    }

    internal static Task<int> InsertAsync(DbTransaction transaction, Account account) => transaction.Connection!.ExecuteAsync("""
        insert into account (id, email, normalized_email, name, language, password_hash, security_stamp, created_at)
        values (@Id, @Email, @NormalizedEmail, @Name, @Language, @PasswordHash, @SecurityStamp, @CreatedAt)
        """, account, transaction);

    /// <summary>Wishes for a mail with which an account sets a new password; the same work is done where there is none.</summary>
    /// <param name="accountId">Null where nobody has the address.</param>
    public async Task WantResetAsync(Guid? organisationId, Guid? accountId, Instant now)
    {
        using var everywhere = Wall.Everywhere();
        await database.InTransactionAsync(async transaction =>
        {
            await WorkStore.WantAsync(transaction, WorkKind.Reset, [((accountId ?? Guid.Empty).ToString(), organisationId)], now);
            return true;
        });
    }

    /// <summary>Claims the right to mail an account a link for a new password: once in a while.</summary>
    /// <returns>When the last went out, where that was too lately.</returns>
    public async Task<Instant?> MayMailResetAsync(Guid id, Duration atMostEvery, Instant now)
    {
        using var everywhere = Wall.Everywhere();
        return await database.ExecuteAsync(
            "update account set reset_mailed_at = @now where id = @id and (reset_mailed_at is null or reset_mailed_at <= @before)",
                new { id, now, before = now - atMostEvery }) > 0
            ? null
            : (await FindAsync(id))?.ResetMailedAt ?? now;
    }

    public async Task SaveAsync(Account account)
    {
        using var everywhere = Wall.Everywhere();
        await database.InTransactionAsync(transaction => UpdateAsync(transaction, account));
    }

    internal static Task<int> UpdateAsync(DbTransaction transaction, Account account) => transaction.Connection!.ExecuteAsync("""
        update account
        set email = @Email,
            normalized_email = @NormalizedEmail,
            name = @Name,
            language = @Language,
            password_hash = @PasswordHash,
            security_stamp = @SecurityStamp
        where id = @Id
        """, account, transaction);

    public Task<int> AddMemberAsync(Guid organisationId, Guid accountId, bool isAdministrator) => database.ExecuteAsync("""
        insert into membership (organisation_id, account_id, is_administrator)
        values (@organisationId, @accountId, @isAdministrator)
        """, new { organisationId, accountId, isAdministrator });

    public Task<int> GiveRoleAsync(Guid organisationId, Guid calendarId, Guid accountId, CalendarRole role) => database.ExecuteAsync("""
        insert into calendar_role (organisation_id, calendar_id, account_id, role)
        values (@organisationId, @calendarId, @accountId, @role)
        """, new { organisationId, calendarId, accountId, role = Words.Of(role) });

    internal sealed record ViewerRow(
        Guid OrganisationId, string Slug, string Name, bool IsAdministrator, Guid? CalendarId, string? Role, bool RequiresSignOff,
            bool IsArchived, long HouseVersion);

    /// <summary>The organisations that a person belongs to, by name, with everything that decides what they may see and do there.</summary>
    public async Task<IReadOnlyList<Membership>> MembershipsAsync(Guid accountId)
    {
        using var everywhere = Wall.Everywhere();
        return MembershipsOf(accountId, await database.ListAsync<ViewerRow>(ViewerRows, new { accountId }));
    }

    internal const string ViewerRows = """
        select m.organisation_id, o.slug, o.name, m.is_administrator, c.id as calendar_id, r.role,
               coalesce(c.requires_sign_off, true) as requires_sign_off, c.archived_at is not null as is_archived,
               coalesce((select h.version from house h where h.organisation_id = m.organisation_id), 0) as house_version
        from membership m
        join organisation o on o.id = m.organisation_id
        left join calendar c on c.organisation_id = m.organisation_id and c.removed_at is null
        left join calendar_role r on r.calendar_id = c.id and r.account_id = m.account_id
        where m.account_id = @accountId and m.ended_at is null
        order by lower(o.name), o.id
        """;

    internal static IReadOnlyList<Membership> MembershipsOf(Guid accountId, IReadOnlyList<ViewerRow> rows) =>
        [.. rows.GroupBy(row => row.OrganisationId).Select(of => MembershipOf(accountId, [.. of]))];

    private static Membership MembershipOf(Guid accountId, ViewerRow[] rows)
    {
        return new Membership(rows[0].Slug, rows[0].Name, rows[0].HouseVersion, new Viewer(
            accountId, rows[0].OrganisationId, rows[0].IsAdministrator,
            rows.Where(row => row.Role is not null).ToDictionary(row => row.CalendarId!.Value, row => Words.Read<CalendarRole>(row.Role!)))
        {
            WithoutSignOff = Those(row => !row.RequiresSignOff),
            Archived = Those(row => row.IsArchived),
        });

        HashSet<Guid> Those(Func<ViewerRow, bool> are) =>
            [.. rows.Where(row => row.CalendarId is not null && are(row)).Select(row => row.CalendarId!.Value)];
    }

    private sealed record MemberRow(Guid AccountId, string Name, string Email, bool IsAdministrator, Instant? LastSignInAt, int Version);

    public async Task<IReadOnlyList<Member>> MembersAsync(Guid organisationId)
    {
        var rows = await database.ListAsync<MemberRow>("""
            select a.id as account_id, a.name, a.email, m.is_administrator, a.last_sign_in_at, m.version
            from membership m
            join account a on a.id = m.account_id
            where m.organisation_id = @organisationId and m.ended_at is null
            order by lower(a.name), a.id
            limit 2000
            """, new { organisationId });
        var roles = (await database.ListAsync<(Guid AccountId, Guid CalendarId, string Role)>("""
            select r.account_id, r.calendar_id, r.role
            from calendar_role r
            join calendar c on c.id = r.calendar_id
            where r.organisation_id = @organisationId and c.removed_at is null
            """, new { organisationId })).ToLookup(row => row.AccountId);
        return [.. rows.Select(row => new Member(
            row.AccountId, row.Name, row.Email, row.IsAdministrator, row.LastSignInAt, row.Version,
            roles[row.AccountId].ToDictionary(role => role.CalendarId, role => Words.Read<CalendarRole>(role.Role))))];
    }

    private sealed record KeeperRow(Guid CalendarId, string Name, string Role);

    /// <summary>Contributors and editors by calendar, by name.</summary>
    public async Task<ILookup<Guid, (string Name, CalendarRole Role)>> KeepersAsync(Guid organisationId) =>
        (await database.ListAsync<KeeperRow>("""
        select r.calendar_id, a.name, r.role::text as role
        from calendar_role r
        join account a on a.id = r.account_id
        where r.organisation_id = @organisationId and r.role <> 'reader'
        order by lower(a.name), a.id
        """, new { organisationId })).ToLookup(row => row.CalendarId, row => (row.Name, Words.Read<CalendarRole>(row.Role)));

    /// <summary>Those who decide about what is handed in for each of some calendars: its editors, or where there are none, the
    /// administrators.</summary>
    public async Task<ILookup<Guid, Guid>> DecidersAsync(Guid organisationId, Guid[] calendars) =>
        (await database.ListAsync<(Guid CalendarId, Guid AccountId)>("""
        with keepers as (
            select r.calendar_id, r.account_id
            from calendar_role r
            where r.organisation_id = @organisationId and r.calendar_id = any(@calendars) and r.role = 'editor'
        )
        select calendar_id, account_id from keepers
        union all
        select c.id, m.account_id
        from unnest(@calendars) c (id)
        join membership m on m.organisation_id = @organisationId and m.is_administrator and m.ended_at is null
        where not exists (select from keepers k where k.calendar_id = c.id)
        """, new { organisationId, calendars })).ToLookup(row => row.CalendarId, row => row.AccountId);

    /// <summary>Replaces what a member may do.</summary>
    /// <returns>The next version.</returns>
    /// <exception cref="ChangedMeanwhileException">The version is not the stored one any more, or the member has left.</exception>
    /// <exception cref="NotFoundException">There is no such calendar.</exception>
    /// <exception cref="RuleException">No administrator would remain.</exception>
    public Task<int> SetRolesAsync(Guid organisationId, Guid accountId, int version, bool isAdministrator,
        IReadOnlyDictionary<Guid, CalendarRole> roles, AuditLine audit) => database.InTransactionAsync(async transaction =>
    {
        await LockPeopleAsync(transaction, organisationId);
        if (await transaction.Connection!.ExecuteAsync("""
            update membership
            set is_administrator = @isAdministrator, version = version + 1
            where organisation_id = @organisationId and account_id = @accountId and version = @version and ended_at is null
            """, new { organisationId, accountId, version, isAdministrator }, transaction) == 0)
            throw new ChangedMeanwhileException();
        await RequireAdministratorAsync(transaction, organisationId);
        await ReplaceRolesAsync(transaction, organisationId, accountId, roles);
        await GoingOut.RolesChangedAsync(transaction, organisationId, accountId, audit.At);
        await AuditStore.WriteAsync(transaction, organisationId, audit);
        return version + 1;
    });

    internal static async Task ReplaceRolesAsync(
        DbTransaction transaction, Guid organisationId, Guid accountId, IReadOnlyDictionary<Guid, CalendarRole> roles)
    {
        await transaction.Connection!.ExecuteAsync(
            "delete from calendar_role where organisation_id = @organisationId and account_id = @accountId",
                new { organisationId, accountId }, transaction);
        var written = await transaction.Connection!.ExecuteAsync("""
            insert into calendar_role (organisation_id, calendar_id, account_id, role)
            select @organisationId, c.id, @accountId, @role
            from calendar c
            where c.organisation_id = @organisationId and c.id = @calendarId
            """, roles.Select(role => new { organisationId, accountId, calendarId = role.Key, role = Words.Of(role.Value) }), transaction);
        if (written != roles.Count)
            throw new NotFoundException("calendar");
    }

    /// <summary>Takes a person out of the organisation and signs them out. What they wrote stays, with their name.</summary>
    /// <exception cref="NotFoundException">There is no such member.</exception>
    /// <exception cref="RuleException">No administrator would remain.</exception>
    public Task<bool> RemoveMemberAsync(Guid organisationId, Guid accountId, Instant now,
        AuditLine audit) => database.InTransactionAsync(async transaction =>
    {
        await LockPeopleAsync(transaction, organisationId);
        if (await transaction.Connection!.ExecuteAsync("""
            update membership
            set ended_at = @now, is_administrator = false
            where organisation_id = @organisationId and account_id = @accountId and ended_at is null
            """, new { organisationId, accountId, now }, transaction) == 0)
            throw new NotFoundException("member");
        await RequireAdministratorAsync(transaction, organisationId);
        await transaction.Connection!.ExecuteAsync("""
            delete from calendar_role where organisation_id = @organisationId and account_id = @accountId;
            update account set security_stamp = @stamp where id = @accountId
            """, new { organisationId, accountId, stamp = Secrets.Make() }, transaction);
        await GoingOut.OwnAddressesChangedAsync(transaction, organisationId, accountId, now);
        await AuditStore.WriteAsync(transaction, organisationId, audit);
        return true;
    });

    private static Task LockPeopleAsync(DbTransaction transaction, Guid organisationId) =>
        transaction.Connection!.ExecuteAsync(
            "select from organisation where id = @organisationId for update", new { organisationId }, transaction);

    private static async Task RequireAdministratorAsync(DbTransaction transaction, Guid organisationId)
    {
        if (!await transaction.Connection!.ExecuteScalarAsync<bool>(
            "select exists (select from membership where organisation_id = @organisationId and is_administrator and ended_at is null)",
                new { organisationId }, transaction))
            throw new RuleException("isAdministrator", "person.oneAdministrator");
    }
}
