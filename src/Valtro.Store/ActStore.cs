using System.Data.Common;
using Dapper;
using NodaTime;
using Valtro.Core;
using Valtro.Core.Acts;
using Valtro.Core.SignOff;

namespace Valtro.Store;

/// <summary>What an act wrote, in the order it was given; its id undoes it.</summary>
public sealed record ActDone(Guid ActId, IReadOnlyList<(Guid Id, int Version)> Events);

/// <summary>The one way by which events are written.</summary>
public sealed class ActStore(Database database)
{
    /// <summary>Writes all of an act, or nothing.</summary>
    /// <returns>Null when it writes no event.</returns>
    /// <exception cref="NotFoundException">There is no such calendar, or no such event, in the organisation.</exception>
    /// <exception cref="ChangedMeanwhileException">A submission was decided by somebody else meanwhile, or an event was saved.</exception>
    /// <exception cref="RuleException">The calendar is full.</exception>
    public Task<ActDone?> CommitAsync(
        Guid organisationId, Guid accountId, Instant now, Act act, IReadOnlyList<Notice>? notices = null,
        IReadOnlyList<AuditLine>? audit = null) => database.InTransactionAsync(async transaction =>
    {
        await AskedStore.NoteAsync(transaction, organisationId, now);
        var done = await CommitAsync(transaction, organisationId, accountId, now, act, Guid.CreateVersion7());
        await MailStore.NoteAsync(transaction, organisationId, notices ?? [], now);
        foreach (var line in audit ?? [])
            await AuditStore.WriteAsync(transaction, organisationId, line);
        return done;
    });

    /// <summary>What an act made one of two: the calendars that were emptied, and whether entries of lists were.</summary>
    public Task<(Guid[] Calendars, bool Lists)> MergesAsync(Guid organisationId, Guid actId) => database.FirstAsync<(Guid[], bool)>("""
        select array(select id from calendar where organisation_id = @organisationId and merged_by_act = @actId),
               exists (select from category where organisation_id = @organisationId and merged_by_act = @actId)
               or exists (select from place where organisation_id = @organisationId and merged_by_act = @actId)
        """, new { organisationId, actId });

    /// <summary>Takes an act back, and what it made one of two.</summary>
    /// <param name="act">Its events as they were before.</param>
    /// <returns>The act that does so.</returns>
    /// <exception cref="ChangedMeanwhileException">An event was saved at the same time.</exception>
    /// <exception cref="RuleException">A plate, or a name, was given to another meanwhile.</exception>
    public Task<Guid> UndoAsync(Guid organisationId, Guid accountId, Instant now, Guid actId, Act act) =>
        database.InTransactionAsync(async transaction =>
        {
            var undoing = Guid.CreateVersion7();
            await CalendarStore.UndoAsync(transaction, organisationId, actId, now);
            await ListStore.UndoAsync(transaction, organisationId, actId, now);
            await CommitAsync(transaction, organisationId, accountId, now, act, undoing);
            return undoing;
        });

    /// <summary>As part of something larger.</summary>
    internal static async Task<ActDone?> CommitAsync(
        DbTransaction transaction, Guid organisationId, Guid accountId, Instant now, Act act, Guid actId)
    {
        foreach (var verdict in act.Decides)
            await DecideAsync(transaction, organisationId, verdict, accountId, now);
        var done = act.Writes.Count == 0
            ? null
            : await EventStore.WriteAsync(transaction, organisationId, act.Writes, accountId, now, actId);
        foreach (var submission in act.HandsIn)
            await AddAsync(transaction, organisationId,
                submission.EventId == Guid.Empty ? submission with { EventId = done!.Events[^1].Id } : submission, accountId, now);
        // Drafts and what waits are for the desk alone.
        await Announcements.TellDesksAsync(transaction, organisationId);
        return done;
    }

    private static Task<int> AddAsync(DbTransaction transaction, Guid organisationId, NewSubmission submission, Guid accountId,
        Instant now) => transaction.Connection!.ExecuteAsync("""
        insert into submission (id, organisation_id, kind, event_id, calendar_id, title, proposer_id, made_at, request, base)
        values (@id, @organisationId, @kind, @EventId, @CalendarId, @Title, @accountId, @now, @request::jsonb, @base::jsonb)
        on conflict do nothing
        """, new
        {
            id = Guid.CreateVersion7(),
            organisationId,
            kind = Words.Of(submission.Kind),
            submission.EventId,
            submission.CalendarId,
            submission.Title,
            accountId,
            now,
            request = submission.Request is null ? null : ProposalDocument.Write(submission.Request),
            @base = submission.Before is null ? null : ProposalDocument.Write(submission.Before),
        }, transaction);

    private static async Task DecideAsync(DbTransaction transaction, Guid organisationId, Verdict verdict, Guid accountId, Instant now)
    {
        var decided = await transaction.Connection!.ExecuteAsync("""
            update submission
            set state = @state, reason = @Reason, decided_by = @accountId, decided_at = @now
            where organisation_id = @organisationId and id = @Id and (state = 'open' or (state = 'sentback' and @state = 'withdrawn'))
            """, new { organisationId, verdict.About.Id, verdict.Reason, state = Words.Of(verdict.State), accountId, now }, transaction);
        if (decided == 0)
            throw new ChangedMeanwhileException();
    }
}
