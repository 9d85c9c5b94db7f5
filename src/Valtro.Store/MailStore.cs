using System.Data.Common;
using Dapper;
using NodaTime;

namespace Valtro.Store;

/// <summary>A mail that is ready to go; plain text.</summary>
public sealed record MailLetter(string Recipient, string Subject, string Body);

/// <summary>A mail that waits to be sent.</summary>
public sealed record WaitingMail(Guid Id, string Recipient, string Subject, string Body, int Tries);

/// <summary>Something that one person should hear of.</summary>
/// <param name="Path">The screen that it is about.</param>
public sealed record Notice(Guid AccountId, string Sentence, string Path);

/// <summary>News of one person that are due to be gathered into a mail.</summary>
public sealed record Gathered(Guid OrganisationId, string OrganisationName, string Recipient, string Name, IReadOnlyList<(string Sentence, string Path)> News);

/// <summary>Mail: what is ready to go, and news that are gathered before they go.</summary>
public sealed class MailStore(Database database)
{
    private const int MostTries = 8;

    public Task<bool> PostAsync(Guid organisationId, MailLetter letter, Instant now) => database.InTransactionAsync(async transaction =>
    {
        await PostAsync(transaction, organisationId, letter, now);
        return true;
    });

    internal static Task PostAsync(DbTransaction transaction, Guid organisationId, MailLetter letter, Instant now) => transaction.Connection!.ExecuteAsync("""
        insert into mail (id, organisation_id, recipient, subject, body, due_at)
        values (@id, @organisationId, @Recipient, @Subject, @Body, @now)
        """, new { id = Guid.CreateVersion7(), organisationId, letter.Recipient, letter.Subject, letter.Body, now }, transaction);

    internal static Task NoteAsync(DbTransaction transaction, Guid organisationId, IEnumerable<Notice> notices, Instant now) => transaction.Connection!.ExecuteAsync("""
        insert into notice (id, organisation_id, account_id, made_at, sentence, path)
        values (@id, @organisationId, @AccountId, @now, @Sentence, @Path)
        """, notices.Select(notice => new { id = Guid.CreateVersion7(), organisationId, notice.AccountId, notice.Sentence, notice.Path, now }), transaction);

    private sealed record NoticeRow(Guid OrganisationId, string OrganisationName, string Email, string Name, string Sentence, string Path);

    /// <summary>Makes one mail of all news of each person whose oldest is older than <paramref name="since"/>.</summary>
    /// <returns>How many mails.</returns>
    public async Task<int> GatherAsync(Instant since, Instant now, Func<Gathered, MailLetter> write)
    {
        using var everywhere = Wall.Everywhere();
        return await database.InTransactionAsync(async transaction =>
        {
            // Nobody's news is taken by two nodes at once.
            var rows = await transaction.Connection!.QueryAsync<NoticeRow>("""
                with due as (
                    select n.id
                    from notice n
                    where n.mailed_at is null
                      and n.account_id in (select account_id from notice where mailed_at is null and made_at <= @since order by made_at limit 200)
                    for update skip locked
                ), taken as (
                    update notice n set mailed_at = @now from due where n.id = due.id returning n.*
                )
                select t.organisation_id, o.name as organisation_name, a.email, a.name, t.sentence, t.path
                from taken t
                join organisation o on o.id = t.organisation_id
                join account a on a.id = t.account_id
                join membership m on m.account_id = a.id and m.organisation_id = t.organisation_id and m.ended_at is null
                order by t.made_at, t.id
                """, new { since, now }, transaction);
            var mails = rows.GroupBy(row => (row.OrganisationId, row.OrganisationName, row.Email, row.Name)).ToArray();
            foreach (var mail in mails)
            {
                var letter = write(new Gathered(mail.Key.OrganisationId, mail.Key.OrganisationName, mail.Key.Email, mail.Key.Name, [.. mail.Select(row => (row.Sentence, row.Path))]));
                await PostAsync(transaction, mail.Key.OrganisationId, letter, now);
            }
            return mails.Length;
        });
    }

    /// <summary>Sends what is due, one after the other; what fails is tried again later and later, at most eight times.</summary>
    /// <param name="send">Throws when it could not be sent.</param>
    /// <returns>How many were sent, and why the last one failed if one did.</returns>
    public async Task<(int Sent, string? Failure)> SendDueAsync(Instant now, Func<WaitingMail, Task> send)
    {
        using var everywhere = Wall.Everywhere();
        var (sent, failure) = (0, default(string?));
        while (failure is null && await SendOneAsync(now, send) is { } outcome)
        {
            if (outcome.Length == 0)
                sent++;
            else
                failure = outcome;
        }
        return (sent, failure);
    }

    /// <returns>Null when nothing is due, empty when it went, else why not.</returns>
    private Task<string?> SendOneAsync(Instant now, Func<WaitingMail, Task> send) => database.InTransactionAsync<string?>(async transaction =>
    {
        var mail = await transaction.Connection!.QueryFirstOrDefaultAsync<WaitingMail>("""
            select id, recipient, subject, body, tries
            from mail
            where sent_at is null and due_at <= @now and tries < @MostTries
            order by due_at
            limit 1
            for update skip locked
            """, new { now, MostTries }, transaction);
        if (mail is null)
            return null;
        try
        {
            await send(mail);
        }
        catch (Exception failed) when (failed is not OperationCanceledException)
        {
            await transaction.Connection!.ExecuteAsync("""
                update mail
                set tries = tries + 1, due_at = @later, last_error = @error
                where id = @Id
                """, new { mail.Id, later = now + Duration.FromMinutes(Math.Pow(2, mail.Tries)), error = failed.Message }, transaction);
            return failed.Message;
        }
        // The body may hold a secret: it is not kept.
        await transaction.Connection!.ExecuteAsync("update mail set sent_at = @now, body = '', last_error = null where id = @Id", new { mail.Id, now }, transaction);
        return "";
    });
}
