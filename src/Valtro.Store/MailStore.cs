using System.Data.Common;
using Dapper;
using NodaTime;
using Valtro.Core.Acts;
using Valtro.Core.Speaking;

namespace Valtro.Store;

/// <summary>A mail that is ready to go.</summary>
/// <param name="Body">Plain text.</param>
/// <param name="Html">The same, for programs that show it; null where there is none.</param>
/// <param name="EndAddress">Where a press ends such mails (RFC 8058).</param>
public sealed record MailLetter(string Recipient, string Subject, string Body, string? Html = null, string? EndAddress = null)
{
    /// <summary>For whom it is; it goes with them.</summary>
    public Guid? SubscriberId { get; init; }
}

/// <summary>News of one person to be gathered into a mail.</summary>
/// <param name="Locale">Whose words it is written in: the person's language, else the organisation's.</param>
public sealed record Gathered(
    Guid OrganisationId, string OrganisationSlug, string OrganisationName, string Recipient, string Name, string Locale,
        IReadOnlyList<(Saying Saying, string Path)> News);

/// <summary>Mail: what is ready to go, and news that are gathered before they go. When is said by <see cref="WorkStore"/>.</summary>
public sealed class MailStore(Database database)
{
    public Task<bool> PostAsync(Guid organisationId, MailLetter letter, Instant now) => database.InTransactionAsync(async transaction =>
    {
        await PostAsync(transaction, organisationId, letter, now);
        return true;
    });

    internal static async Task PostAsync(DbTransaction transaction, Guid organisationId, MailLetter letter, Instant now)
    {
        var id = Guid.CreateVersion7();
        await transaction.Connection!.ExecuteAsync("""
            insert into mail (id, organisation_id, recipient, subject, body, html, end_address, subscriber_id)
            values (@id, @organisationId, @Recipient, @Subject, @Body, @Html, @EndAddress, @SubscriberId)
            """, new
        {
            id,
            organisationId,
            letter.Recipient,
            letter.Subject,
            letter.Body,
            letter.Html,
            letter.EndAddress,
            letter.SubscriberId,
        }, transaction);
        await WorkStore.WantAsync(transaction, WorkKind.Mail, [(id.ToString(), organisationId)], now);
    }

    internal static async Task NoteAsync(DbTransaction transaction, Guid organisationId, IReadOnlyCollection<Notice> notices, Instant now)
    {
        await transaction.Connection!.ExecuteAsync("""
            insert into notice (id, organisation_id, account_id, made_at, sentence, path)
            values (@id, @organisationId, @AccountId, @now, @sentence, @Path)
            """,
                notices.Select(
                    notice => new
                    {
                        id = Guid.CreateVersion7(),
                        organisationId,
                        notice.AccountId,
                        sentence = StoredSaying.Write(notice.Saying),
                        notice.Path,
                        now
                    }), transaction);
        await WorkStore.WantAsync(transaction, WorkKind.Gather,
            [.. notices.Select(notice => ($"{organisationId}/{notice.AccountId}", (Guid?)organisationId)).Distinct()], now);
    }

    private sealed record NoticeRow(
        Guid Id, string OrganisationSlug, string OrganisationName, string Locale, string Email, string Name, string Language,
            string Sentence, string Path, Instant MadeAt, bool IsMember);

    /// <summary>Makes one mail of all news of a person, once the oldest of them is older than <paramref name="wait"/>.</summary>
    /// <returns>When to come again; null when nothing is left.</returns>
    public async Task<Instant?> GatherAsync(
        Guid organisationId, Guid accountId, Duration wait, Instant now, Func<Gathered, MailLetter> write)
    {
        using var within = Wall.Within(organisationId);
        return await database.InTransactionAsync(async transaction =>
        {
            var news = (await transaction.Connection!.QueryAsync<NoticeRow>("""
                select n.id, o.slug as organisation_slug, o.name as organisation_name, o.locale, a.email, a.name, a.language, n.sentence,
                    n.path, n.made_at, m.ended_at is null as is_member
                from notice n
                join organisation o on o.id = n.organisation_id
                join membership m on m.account_id = n.account_id and m.organisation_id = n.organisation_id
                join account a on a.id = m.account_id
                where n.organisation_id = @organisationId and n.account_id = @accountId and n.mailed_at is null
                order by n.made_at, n.id
                limit 500
                for update of n
                """, new { organisationId, accountId }, transaction)).ToArray();
            if (news.Length == 0)
                return default(Instant?);
            if (news[0].MadeAt + wait > now)
                return news[0].MadeAt + wait;
            await transaction.Connection!.ExecuteAsync("update notice set mailed_at = @now where id = any(@ids)",
                new { now, ids = news.Select(one => one.Id).ToArray() }, transaction);
            if (news[0].IsMember)
                await PostAsync(transaction, organisationId, write(Of(organisationId, news)), now);
            return null;
        });
    }

    private static Gathered Of(Guid organisationId, NoticeRow[] news) => new(
        organisationId, news[0].OrganisationSlug, news[0].OrganisationName, news[0].Email, news[0].Name,
        Speech.LocaleOf(news[0].Language, news[0].Locale),
        [.. news.Select(one => (StoredSaying.Read(one.Sentence)!, one.Path))]);

    /// <summary>A mail that has not gone yet.</summary>
    public async Task<MailLetter?> FindAsync(Guid id)
    {
        using var everywhere = Wall.Everywhere();
        return await database.FirstAsync<MailLetter>(
            "select recipient, subject, body, html, end_address from mail where id = @id and sent_at is null", new { id });
    }

    /// <summary>It has gone. The body may have held a secret: it is not kept; nor is anything of what was for a subscriber.</summary>
    public async Task SentAsync(Guid id, Instant now)
    {
        using var everywhere = Wall.Everywhere();
        await database.ExecuteAsync("""
            delete from mail where id = @id and subscriber_id is not null;
            update mail set sent_at = @now, body = '', html = null where id = @id
            """, new { id, now });
    }
}
