using System.Data.Common;
using Dapper;
using NodaTime;
using Valtro.Core.Events;

namespace Valtro.Store;

public enum SubmissionKind
{
    /// <summary>A new event.</summary>
    Event,

    /// <summary>A change to a live one.</summary>
    Change,

    /// <summary>A live event, to be shown on one more calendar.</summary>
    Placement,
}

public enum SubmissionState
{
    Open,
    Approved,
    SentBack,
    Withdrawn,
}

/// <summary>Something that waits for, or got, a decision of those who keep a calendar.</summary>
/// <param name="CalendarId">Whose editors decide.</param>
/// <param name="Request">Of a change: what was asked for.</param>
/// <param name="Before">Of a change: what the form showed before it.</param>
public sealed record Submission(
    Guid Id, SubmissionKind Kind, Guid EventId, Guid CalendarId, string Title, Guid ProposerId, string Proposer, Instant MadeAt,
    ChangeRequest? Request, EventForm? Before, SubmissionState State, string Reason, string? DecidedBy, Instant? DecidedAt);

/// <summary>One more thing to be decided.</summary>
public sealed record NewSubmission(
    SubmissionKind Kind, Guid EventId, Guid CalendarId, string Title, ChangeRequest? Request = null, EventForm? Before = null);

/// <summary>A decision about one submission.</summary>
public sealed record Verdict(Guid Id, SubmissionState State, string Reason, AuditLine? Audit);

public sealed class SubmissionStore(Database database)
{
    private sealed record Row(
        Guid Id, string Kind, Guid EventId, Guid CalendarId, string Title, Guid ProposerId, string Proposer, Instant MadeAt,
        string? Request, string? Base, string State, string Reason, string? DecidedBy, Instant? DecidedAt)
    {
        public Submission ToSubmission() => new(
            Id, Words.Read<SubmissionKind>(Kind), EventId, CalendarId, Title, ProposerId, Proposer, MadeAt,
            Request is null ? null : ProposalDocument.Read<ChangeRequest>(Request),
            Base is null ? null : ProposalDocument.Read<EventForm>(Base),
            Words.Read<SubmissionState>(State), Reason, DecidedBy, DecidedAt);
    }

    private const string Columns = """
        select s.id, s.kind, s.event_id, s.calendar_id, s.title, s.proposer_id, a.name as proposer, s.made_at,
               s.request::text as request, s.base::text as base, s.state, s.reason, d.name as decided_by, s.decided_at
        from submission s
        join account a on a.id = s.proposer_id
        left join account d on d.id = s.decided_by

        """;

    /// <remarks>Oldest first.</remarks>
    private const string OfCalendars = """
        where s.organisation_id = @organisationId and s.state = 'open' and s.calendar_id = any(@calendars)
        order by s.made_at, s.id
        limit 500
        """;

    /// <remarks>Latest first.</remarks>
    private const string OfProposer = """
        where s.organisation_id = @organisationId and s.proposer_id = @proposerId
        order by s.made_at desc, s.id
        limit 100
        """;

    /// <summary>How many wait on some calendars.</summary>
    public Task<int> CountOpenAsync(Guid organisationId, Guid[] calendars) => database.FirstAsync<int>("""
        select count(*)::integer
        from submission
        where organisation_id = @organisationId and state = 'open' and calendar_id = any(@calendars)
        """, new { organisationId, calendars });

    /// <summary>What waits on some calendars, and what somebody handed in, in one round trip.</summary>
    public Task<(IReadOnlyList<Submission> Open, IReadOnlyList<Submission> Own)> OpenAndOwnAsync(Guid organisationId, Guid[] calendars,
        Guid proposerId) =>
        database.ReadManyAsync(
            $"{Columns}{OfCalendars};\n{Columns}{OfProposer}",
            new { organisationId, calendars, proposerId },
            async results => (Read(await results.ReadAsync<Row>()), Read(await results.ReadAsync<Row>())));

    private static IReadOnlyList<Submission> Read(IEnumerable<Row> rows) => [.. rows.Select(row => row.ToSubmission())];

    /// <summary>What is open, or was sent back last, about some events, by event.</summary>
    public async Task<ILookup<Guid, Submission>> AboutAsync(Guid organisationId, Guid[] events) => (await ListAsync("""
        where s.organisation_id = @organisationId and s.event_id = any(@events) and s.state in ('open', 'sentback')
        order by s.made_at desc, s.id
        limit @most
        """, new { organisationId, events, most = 50 * events.Length })).ToLookup(submission => submission.EventId);

    public async Task<Submission?> FindAsync(Guid organisationId, Guid id) =>
        (await ListAsync("where s.organisation_id = @organisationId and s.id = @id", new { organisationId, id })).FirstOrDefault();

    /// <summary>Hands in, and decides, together with what is written of events, in one transaction.</summary>
    /// <param name="writes">May be empty. An empty event id in <paramref name="added"/> stands for the first of them.</param>
    /// <exception cref="ChangedMeanwhileException">A submission was decided by somebody else meanwhile, or an event was saved.</exception>
    public Task<ActDone?> WriteAsync(
        Guid organisationId, Guid accountId, Instant now, IReadOnlyList<EventWrite> writes, IReadOnlyList<NewSubmission> added,
        IReadOnlyList<Verdict> verdicts,
        IReadOnlyList<Notice> notices) =>
        database.InTransactionAsync(async transaction =>
        {
            await AskedStore.NoteAsync(transaction, organisationId, now);
            foreach (var verdict in verdicts)
                await DecideAsync(transaction, organisationId, verdict, accountId, now);
            var done = writes.Count == 0 ? null : await EventStore.WriteAsync(transaction, organisationId, writes, accountId, now);
            foreach (var submission in added)
                await AddAsync(transaction, organisationId,
                    submission.EventId == Guid.Empty ? submission with { EventId = done!.Events[0].Id } : submission, accountId, now);
            await MailStore.NoteAsync(transaction, organisationId, notices, now);
            // Drafts and what waits are for the desk alone.
            await Announcements.TellDesksAsync(transaction, organisationId);
            return done;
        });

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
            """, new { organisationId, verdict.Id, verdict.Reason, state = Words.Of(verdict.State), accountId, now }, transaction);
        if (decided == 0)
            throw new ChangedMeanwhileException();
        if (verdict.Audit is { } audit)
            await AuditStore.WriteAsync(transaction, organisationId, audit);
    }

    private async Task<IReadOnlyList<Submission>> ListAsync(string condition, object parameters) =>
        Read(await database.ListAsync<Row>(Columns + condition, parameters));
}
