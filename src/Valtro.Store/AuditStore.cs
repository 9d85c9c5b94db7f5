using System.Data.Common;
using Dapper;
using NodaTime;
using Valtro.Core.Speaking;

namespace Valtro.Store;

/// <summary>What can be read in the audit list.</summary>
public enum AuditAct
{
    Opened,
    Closed,
    CalendarMade,
    CalendarArchived,
    CalendarRestored,
    CalendarRemoved,
    CalendarMerged,
    EditionMade,
    EditionChanged,
    EditionLetOut,
    EditionRemoved,
    EditionRestored,
    FileReplaced,
    LinkMade,
    LinkReplaced,
    LinkWithdrawn,
    Invited,
    InvitationWithdrawn,
    InvitationAccepted,
    RolesChanged,
    PersonRemoved,
    PasswordReset,
    SignedOutEverywhere,
    Approved,
    SentBack,
    ListChanged,
    SourceFollowed,
    SourceChanged,
    SourceLeft,
    WrittenElsewhere,
    ElsewhereChanged,
    ElsewhereLeft,
    ArchiveTaken,
}

/// <summary>One line to be written.</summary>
/// <param name="Subject">What or whom it concerns: a calendar's name, a person's address.</param>
/// <param name="Detail">What more there is to say; null for nothing.</param>
public sealed record AuditLine(Guid AccountId, AuditAct Act, string Subject, Saying? Detail, Instant At);

/// <summary>One line as it is read.</summary>
public sealed record AuditEntry(Guid Id, Instant At, string By, AuditAct Act, string Subject, Saying? Detail);

/// <summary>Who did what that concerns others, and when. Written with the act itself, never changed.</summary>
public sealed class AuditStore(Database database)
{
    private const int Page = 100;

    private sealed record Row(Guid Id, Instant At, string Name, string Act, string Subject, string Detail);

    /// <summary>The latest first.</summary>
    /// <param name="before">Only what is older than this line; null for the latest.</param>
    public async Task<IReadOnlyList<AuditEntry>> ListAsync(Guid organisationId, Guid? before, AuditAct? act) =>
        [.. (await database.ListAsync<Row>("""
            select l.id, l.at, a.name, l.act, l.subject, l.detail
            from audit l
            join account a on a.id = l.account_id
            where l.organisation_id = @organisationId
              and (@before::uuid is null or l.id < @before)
              and (@act::text is null or l.act = @act)
            order by l.id desc
            limit @Page
            """, new { organisationId, before, act = Words.OfOrNull(act), Page }))
                .Select(
                    row => new AuditEntry(
                        row.Id, row.At, row.Name, Words.Read<AuditAct>(row.Act), row.Subject, StoredSaying.Read(row.Detail)))];

    /// <summary>A line that belongs to nothing else that is written.</summary>
    public Task<bool> WriteAsync(Guid organisationId, AuditLine line) => database.InTransactionAsync(async transaction =>
    {
        await WriteAsync(transaction, organisationId, line);
        return true;
    });

    internal static Task WriteAsync(DbTransaction transaction, Guid organisationId, params AuditLine[] lines) =>
        transaction.Connection!.ExecuteAsync("""
        insert into audit (id, organisation_id, account_id, at, act, subject, detail)
        values (@id, @organisationId, @AccountId, @At, @act, @Subject, @detail)
        """,
            lines.Select(
                line => new
                {
                    id = Guid.CreateVersion7(),
                    organisationId,
                    line.AccountId,
                    line.At,
                    act = Words.Of(line.Act),
                    line.Subject,
                    detail = StoredSaying.Write(line.Detail)
                }), transaction);
}
