using NodaTime;
using Valtro.Core.Events;
using Valtro.Core.SignOff;

namespace Valtro.Store;

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

    private async Task<IReadOnlyList<Submission>> ListAsync(string condition, object parameters) =>
        Read(await database.ListAsync<Row>(Columns + condition, parameters));
}
