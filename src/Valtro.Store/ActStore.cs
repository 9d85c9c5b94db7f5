using System.Data.Common;
using Dapper;
using NodaTime;
using Valtro.Core;
using Valtro.Core.Acts;
using Valtro.Core.SignOff;

namespace Valtro.Store;

/// <summary>What an act wrote, in the order it was given; its id undoes it.</summary>
public sealed record ActDone(Guid ActId, IReadOnlyList<(Guid Id, int Version)> Events);

/// <summary>What somebody did to events.</summary>
/// <param name="Act">What was done to most of them.</param>
/// <param name="IsLast">All of them are on the calendars that were asked about, and as it left them.</param>
/// <param name="Titles">Of the first three of these calendars.</param>
public sealed record LateAct(Guid ActId, Instant MadeAt, string By, EventAct Act, int Events, bool IsLast, string[] Titles);

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

    /// <summary>What an act made one of two: the calendars that were emptied, and the names of entries of lists that were.</summary>
    public Task<(Guid[] Calendars, string[] Entries)> MergesAsync(Guid organisationId, Guid actId) =>
        database.FirstAsync<(Guid[], string[])>("""
        select array(select id from calendar where organisation_id = @organisationId and merged_by_act = @actId),
               array(select name from category where organisation_id = @organisationId and merged_by_act = @actId
                     union all
                     select name from place where organisation_id = @organisationId and merged_by_act = @actId)
        """, new { organisationId, actId });

    /// <summary>Acts since an instant of which some event is on one of these calendars, latest first.</summary>
    public async Task<IReadOnlyList<LateAct>> LatelyAsync(Guid organisationId, Guid[] calendars, Instant since, int most) =>
        [.. (await database.ListAsync<(Guid Id, Instant At, string By, string Act, int Events, bool IsLast, string[] Titles)>("""
        with lately as (
            select r.act_id, max(r.made_at) as made_at
            from revision r
            join event e on e.id = r.event_id
            where r.organisation_id = @organisationId and r.made_at > @since and e.home_calendar_id = any(@calendars) and r.act <> 'fetched'
            group by r.act_id
            order by max(r.made_at) desc, r.act_id desc
            limit @most
        )
        select l.act_id, l.made_at, min(a.name) as by, mode() within group (order by r.act) as act, count(*)::integer as events,
            bool_and(r.version = e.version and e.home_calendar_id = any(@calendars)) as is_last,
            (array_agg(e.content ->> 'title' order by r.event_id) filter (where e.home_calendar_id = any(@calendars)))[1:3] as titles
        from lately l
        join revision r on r.act_id = l.act_id
        join event e on e.id = r.event_id
        join account a on a.id = r.account_id
        group by l.act_id, l.made_at
        order by l.made_at desc, l.act_id desc
        """, new { organisationId, calendars, since, most })).Select(row => new LateAct(
            row.Id, row.At, row.By, Words.Read<EventAct>(row.Act), row.Events, row.IsLast, row.Titles))];

    /// <summary>Takes an act back, and what it made one of two.</summary>
    /// <param name="act">Its events as they were before.</param>
    /// <returns>The act that does so.</returns>
    /// <exception cref="ChangedMeanwhileException">An event was saved at the same time.</exception>
    /// <exception cref="RuleException">A plate, or a name, was given to another meanwhile.</exception>
    public Task<Guid> UndoAsync(
        Guid organisationId, Guid accountId, Instant now, Guid actId, Act act, IReadOnlyList<AuditLine> audit) =>
        database.InTransactionAsync(async transaction =>
        {
            var undoing = Guid.CreateVersion7();
            await CalendarStore.UndoAsync(transaction, organisationId, actId, now);
            await ListStore.UndoAsync(transaction, organisationId, actId, now);
            await IntakeStore.UndoAsync(transaction, organisationId, actId);
            await CommitAsync(transaction, organisationId, accountId, now, act, undoing);
            foreach (var line in audit)
                await AuditStore.WriteAsync(transaction, organisationId, line);
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
            : await EventWriting.WriteAsync(transaction, organisationId, act.Writes, accountId, now, actId);
        if (act.HandsIn.Count > 0)
            await AddAsync(transaction, organisationId,
                [.. act.HandsIn.Select(one => one.EventId == Guid.Empty ? one with { EventId = done!.Events[one.Write].Id } : one)],
                    accountId, now);
        // Drafts and what waits are for the desk alone.
        await Announcements.TellDesksAsync(transaction, organisationId);
        return done;
    }

    private static Task<int> AddAsync(
        DbTransaction transaction, Guid organisationId, NewSubmission[] added, Guid accountId, Instant now) =>
        transaction.Connection!.ExecuteAsync("""
        insert into submission (id, organisation_id, kind, event_id, calendar_id, title, proposer_id, made_at, request, base)
        select a.id, @organisationId, a.kind, a.event_id, a.calendar_id, a.title, @accountId, @now, a.request::jsonb, a.base::jsonb
        from unnest(@ids, @kinds, @events, @calendars, @titles, @requests, @bases)
            a (id, kind, event_id, calendar_id, title, request, base)
        on conflict do nothing
        """, new
        {
            organisationId,
            accountId,
            now,
            ids = added.Select(_ => Guid.CreateVersion7()).ToArray(),
            kinds = added.Select(one => Words.Of(one.Kind)).ToArray(),
            events = added.Select(one => one.EventId).ToArray(),
            calendars = added.Select(one => one.CalendarId).ToArray(),
            titles = added.Select(one => one.Title).ToArray(),
            requests = added.Select(one => one.Request is null ? null : ProposalDocument.Write(one.Request)).ToArray(),
            bases = added.Select(one => one.Before is null ? null : ProposalDocument.Write(one.Before)).ToArray(),
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
