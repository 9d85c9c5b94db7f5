using NodaTime;
using Valtro.Core.Disclosure;

namespace Valtro.Store;

/// <summary>A person who signs in.</summary>
public sealed class Account
{
    public Guid Id { get; set; } = Guid.CreateVersion7();
    public string Email { get; set; } = "";
    public string NormalizedEmail { get; set; } = "";
    public string Name { get; set; } = "";
    public string? PasswordHash { get; set; }
    public string SecurityStamp { get; set; } = "";
    public int FailedSignIns { get; set; }
    public Instant? LockedUntil { get; set; }
}

public sealed class AccountStore(Database database)
{
    public Task<Account?> FindAsync(Guid id) => database.FirstAsync<Account>("""
        select id, email, normalized_email, name, password_hash, security_stamp, failed_sign_ins, locked_until
        from account
        where id = @id
        """, new { id });

    public Task<Account?> FindByEmailAsync(string normalizedEmail) => database.FirstAsync<Account>("""
        select id, email, normalized_email, name, password_hash, security_stamp, failed_sign_ins, locked_until
        from account
        where normalized_email = @normalizedEmail
        """, new { normalizedEmail });

    public Task<int> AddAsync(Account account) => database.ExecuteAsync("""
        insert into account (id, email, normalized_email, name, password_hash, security_stamp)
        values (@Id, @Email, @NormalizedEmail, @Name, @PasswordHash, @SecurityStamp)
        """, account);

    /// <summary>Counts one more failed sign-in, in one statement, so that parallel guesses all count.</summary>
    /// <returns>The count after it.</returns>
    public Task<int> CountFailedSignInAsync(Guid id) => database.FirstAsync<int>("""
        update account
        set failed_sign_ins = failed_sign_ins + 1
        where id = @id
        returning failed_sign_ins
        """, new { id });

    public Task<int> SaveAsync(Account account) => database.ExecuteAsync("""
        update account
        set email = @Email,
            normalized_email = @NormalizedEmail,
            name = @Name,
            password_hash = @PasswordHash,
            security_stamp = @SecurityStamp,
            locked_until = @LockedUntil,
            failed_sign_ins = case when @FailedSignIns = 0 then 0 else failed_sign_ins end
        where id = @Id
        """, account);

    public Task<int> AddMemberAsync(Guid organisationId, Guid accountId, bool isAdministrator) => database.ExecuteAsync("""
        insert into membership (organisation_id, account_id, is_administrator)
        values (@organisationId, @accountId, @isAdministrator)
        """, new { organisationId, accountId, isAdministrator });

    public Task<int> GiveRoleAsync(Guid organisationId, Guid calendarId, Guid accountId, CalendarRole role) => database.ExecuteAsync("""
        insert into calendar_role (organisation_id, calendar_id, account_id, role)
        values (@organisationId, @calendarId, @accountId, @role)
        """, new { organisationId, calendarId, accountId, role = Words.Of(role) });

    /// <summary>Everything that decides what a person may see and do, or null when they are in no organisation.</summary>
    public async Task<Viewer?> ViewerAsync(Guid accountId)
    {
        var rows = await database.ListAsync<(Guid OrganisationId, bool IsAdministrator, Guid? CalendarId, string? Role)>("""
            select m.organisation_id, m.is_administrator, r.calendar_id, r.role
            from membership m
            left join calendar_role r using (organisation_id, account_id)
            where m.account_id = @accountId
            order by m.organisation_id
            """, new { accountId });
        if (rows.Count == 0)
            return null;
        var (organisationId, isAdministrator, _, _) = rows[0];
        var roles = rows
            .Where(row => row.OrganisationId == organisationId && row.CalendarId is not null)
            .ToDictionary(row => row.CalendarId!.Value, row => Words.Read<CalendarRole>(row.Role!));
        return new Viewer(accountId, organisationId, isAdministrator, roles);
    }
}
