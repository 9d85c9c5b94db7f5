using Dapper;
using NodaTime;
using Npgsql;
using Valtro.Core;
using Valtro.Core.Disclosure;

namespace Valtro.Store;

/// <summary>An invitation that can still be accepted, or could have been.</summary>
/// <param name="IsKnown">Whoever is invited has an account and belongs to another organisation: they join with it.</param>
public sealed record Invitation(
    Guid Id, Guid OrganisationId, string OrganisationName, string Email, bool IsAdministrator, string InvitedBy, Instant InvitedAt,
    Instant ExpiresAt,
    bool IsKnown, IReadOnlyDictionary<Guid, CalendarRole> Roles);

/// <summary>Invitations by e-mail address. The secret in the mail is kept nowhere; only its digest is.</summary>
public sealed class InvitationStore(Database database)
{
    public static readonly Duration GoodFor = Duration.FromDays(14);

    private sealed record Row(Guid Id, Guid OrganisationId, string OrganisationName, string Email, bool IsAdministrator, string InvitedBy,
        Instant InvitedAt, Instant ExpiresAt, bool IsKnown);

    private const string Columns = """
        select i.id, i.organisation_id, o.name as organisation_name, i.email, i.is_administrator, a.name as invited_by, i.invited_at,
            i.expires_at,
               exists (select from account k join membership m on m.account_id = k.id and m.ended_at is null
                   where k.normalized_email = i.normalized_email) as is_known
        from invitation i
        join organisation o on o.id = i.organisation_id
        join account a on a.id = i.invited_by

        """;

    /// <summary>Those that are neither accepted nor withdrawn, expired ones too.</summary>
    public async Task<IReadOnlyList<Invitation>> OpenAsync(Guid organisationId)
    {
        var rows = await database.ListAsync<Row>(Columns + """
            where i.organisation_id = @organisationId and i.accepted_at is null and i.withdrawn_at is null
            order by i.invited_at desc
            limit 500
            """, new { organisationId });
        return await WithRolesAsync(rows);
    }

    /// <summary>The invitation that a secret opens; null when there is none, or it was accepted, withdrawn or is too old.</summary>
    public async Task<Invitation?> FindAsync(string secret, Instant now)
    {
        using var everywhere = Wall.Everywhere();
        var row = await database.FirstAsync<Row>(Columns + """
            where i.digest = @digest and i.accepted_at is null and i.withdrawn_at is null and i.expires_at > @now
            """, new { digest = Secrets.Digest(secret), now });
        return row is null ? null : (await WithRolesAsync([row]))[0];
    }

    /// <summary>Invites somebody. The mail goes with it.</summary>
    /// <exception cref="RuleException">That address is invited already, or belongs to a member.</exception>
    /// <exception cref="NotFoundException">There is no such calendar.</exception>
    public async Task<Guid> AddAsync(
        Guid organisationId, string email, string normalizedEmail, bool isAdministrator, IReadOnlyDictionary<Guid, CalendarRole> roles,
        string secret, Guid invitedBy, Instant now, MailLetter letter, AuditLine audit)
    {
        try
        {
            return await database.InTransactionAsync(async transaction =>
            {
                var connection = transaction.Connection!;
                var id = Guid.CreateVersion7();
                if (await connection.ExecuteScalarAsync<bool>("""
                    select exists (select from membership m join account a on a.id = m.account_id
                                   where m.organisation_id = @organisationId and m.ended_at is null
                                       and a.normalized_email = @normalizedEmail)
                    """, new { organisationId, normalizedEmail }, transaction))
                    throw new RuleException("email", "person.isMember", ("email", email));
                await connection.ExecuteAsync("""
                    insert into invitation (id, organisation_id, email, normalized_email, is_administrator, digest, invited_by, invited_at,
                        expires_at)
                    values (@id, @organisationId, @email, @normalizedEmail, @isAdministrator, @digest, @invitedBy, @now, @expires)
                    """,
                        new
                        {
                            id,
                            organisationId,
                            email,
                            normalizedEmail,
                            isAdministrator,
                            digest = Secrets.Digest(secret),
                            invitedBy,
                            now,
                            expires = now + GoodFor
                        }, transaction);
                var written = await connection.ExecuteAsync("""
                    insert into invitation_role (organisation_id, invitation_id, calendar_id, role)
                    select @organisationId, @id, c.id, @role
                    from calendar c
                    where c.organisation_id = @organisationId and c.id = @calendarId and c.removed_at is null
                    """, roles.Select(role => new { organisationId, id, calendarId = role.Key, role = Words.Of(role.Value) }), transaction);
                if (written != roles.Count)
                    throw new NotFoundException("calendar");
                await MailStore.PostAsync(transaction, organisationId, letter, now);
                await AuditStore.WriteAsync(transaction, organisationId, audit);
                return id;
            });
        }
        catch (PostgresException again) when (again.ConstraintName == "invitation_open_once")
        {
            throw new RuleException("email", "person.isInvited", ("email", email));
        }
    }

    /// <exception cref="NotFoundException">There is none that is open.</exception>
    public Task<bool> WithdrawAsync(Guid organisationId, Guid id, Instant now,
        Func<string, AuditLine> audit) => database.InTransactionAsync(async transaction =>
    {
        var email = await transaction.Connection!.QueryFirstOrDefaultAsync<string>("""
            update invitation
            set withdrawn_at = @now
            where organisation_id = @organisationId and id = @id and accepted_at is null and withdrawn_at is null
            returning email
            """, new { organisationId, id, now }, transaction) ?? throw new NotFoundException("invitation");
        await AuditStore.WriteAsync(transaction, organisationId, audit(email));
        return true;
    });

    /// <summary>A new secret for an open invitation, and the mail with it; the old one opens nothing any more.</summary>
    /// <exception cref="NotFoundException">There is none that is open.</exception>
    public Task<bool> RenewAsync(Guid organisationId, Guid id, string secret, Instant now,
        Func<string, MailLetter> letter) => database.InTransactionAsync(async transaction =>
    {
        var email = await transaction.Connection!.QueryFirstOrDefaultAsync<string>("""
            update invitation
            set digest = @digest, invited_at = @now, expires_at = @expires
            where organisation_id = @organisationId and id = @id and accepted_at is null and withdrawn_at is null
            returning email
            """, new { organisationId, id, digest = Secrets.Digest(secret), now, expires = now + GoodFor }, transaction)
                ?? throw new NotFoundException("invitation");
        await MailStore.PostAsync(transaction, organisationId, letter(email), now);
        return true;
    });

    /// <summary>Takes the invitation up, once: makes the account, brings one back whose owner had left, or lets the member of another
    /// organisation join.</summary>
    /// <param name="account">With name, password and stamp as they shall be; of whoever is known, the account as it is.</param>
    /// <exception cref="NotFoundException">Somebody was faster, or it was withdrawn meanwhile.</exception>
    public async Task<Guid> AcceptAsync(Invitation invitation, Account account, Instant now)
    {
        using var everywhere = Wall.Everywhere();
        return await database.InTransactionAsync(async transaction =>
        {
            var connection = transaction.Connection!;
            if (await connection.ExecuteAsync("""
                update invitation
                set accepted_at = @now
                where id = @Id and accepted_at is null and withdrawn_at is null and expires_at > @now
                """, new { invitation.Id, now }, transaction) == 0)
                throw new NotFoundException("invitation");
            var known = await connection.QueryFirstOrDefaultAsync<(Guid Id, bool IsMember)>("""
                select a.id, exists (select from membership m where m.account_id = a.id and m.ended_at is null)
                from account a
                where a.normalized_email = @NormalizedEmail
                for update
                """, account, transaction);
            // Who belongs to another organisation joins as who they are: name and password stay.
            if (known.IsMember)
                account.Id = known.Id == account.Id ? known.Id : throw new NotFoundException("invitation");
            else if (known.Id != Guid.Empty)
            {
                account.Id = known.Id;
                await AccountStore.UpdateAsync(transaction, account);
            }
            else
            {
                account.CreatedAt = now;
                await AccountStore.InsertAsync(transaction, account);
            }
            await connection.ExecuteAsync("""
                insert into membership (organisation_id, account_id, is_administrator)
                values (@OrganisationId, @accountId, @IsAdministrator)
                on conflict (organisation_id, account_id) do update
                set is_administrator = excluded.is_administrator, ended_at = null
                """, new { invitation.OrganisationId, accountId = account.Id, invitation.IsAdministrator }, transaction);
            await AccountStore.ReplaceRolesAsync(transaction, invitation.OrganisationId, account.Id, invitation.Roles);
            await GoingOut.OwnAddressesChangedAsync(transaction, invitation.OrganisationId, account.Id, now);
            await AuditStore.WriteAsync(transaction, invitation.OrganisationId,
                new AuditLine(account.Id, AuditAct.InvitationAccepted, invitation.Email, null, now));
            return account.Id;
        });
    }

    private async Task<IReadOnlyList<Invitation>> WithRolesAsync(IReadOnlyList<Row> rows)
    {
        var roles = rows.Count == 0 ? [] : await database.ListAsync<(Guid InvitationId, Guid CalendarId, string Role)>("""
            select r.invitation_id, r.calendar_id, r.role
            from invitation_role r
            join calendar c on c.id = r.calendar_id
            where r.invitation_id = any(@ids) and c.removed_at is null
            """, new { ids = rows.Select(row => row.Id).ToArray() });
        var byInvitation = roles.ToLookup(role => role.InvitationId);
        return [.. rows.Select(row => new Invitation(
            row.Id, row.OrganisationId, row.OrganisationName, row.Email, row.IsAdministrator, row.InvitedBy, row.InvitedAt, row.ExpiresAt,
            row.IsKnown,
            byInvitation[row.Id].ToDictionary(role => role.CalendarId, role => Words.Read<CalendarRole>(role.Role))))];
    }
}
