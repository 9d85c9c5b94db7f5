using System.Data.Common;
using System.Text.Json;
using Dapper;
using NodaTime;
using Valtro.Core;
using Valtro.Core.Acts;
using Valtro.Core.Events;
using Valtro.Core.Intake;
using Valtro.Core.Speaking;

namespace Valtro.Store;

public enum IntakeForm
{
    /// <summary>iCalendar (RFC 5545).</summary>
    Calendar,

    /// <summary>A sheet, or values with separators.</summary>
    Table,
}

public enum IntakeState
{
    Reading,
    Ready,
    Saving,
    Done,

    /// <summary>It was taken, and taken back.</summary>
    Undone,
    Refused,
}

/// <summary>A file that somebody brought.</summary>
/// <param name="Turn">Rises with every answer.</param>
/// <param name="Done">Of <paramref name="Total"/>, while it is read or saved.</param>
/// <param name="Problem">Why it was refused.</param>
public sealed record BroughtIntake(
    Guid Id, Guid AccountId, string Name, IntakeForm Form, IntakeState State, int Turn, int Done, int Total, Saying? Problem,
    IntakeAnswers Answers, IntakeFound? Found, Guid? ActId, int Taken, Instant MadeAt, string? Address);

/// <summary>One event of it.</summary>
/// <param name="Incoming">Null where it is refused.</param>
/// <param name="EventId">Which is here already.</param>
/// <param name="Version">Of that one, when it was compared.</param>
public sealed record IntakeLine(
    int Place, int Line, string Uid, IncomingState State, string Title, LocalDate? Day, bool IsTaken, Guid? EventId, int? Version,
    Incoming? Incoming, IReadOnlyList<Refusal> Refusals);

/// <summary>Somebody gave another answer meanwhile, or threw the file away: what was read is for nothing.</summary>
public sealed class IntakeStoppedException : Exception;

/// <summary>Files of events that people bring (docs/decisions/intake.md).</summary>
public sealed class IntakeStore(Database database)
{
    public const int Largest = 32 * 1024 * 1024;

    /// <summary>Events of one file that are looked at and taken at once.</summary>
    public const int MostLines = 20_000;

    /// <summary>Files of one person that are kept.</summary>
    public const int MostKept = 30;

    /// <summary>How long a file that was not taken is kept.</summary>
    public static readonly Duration Kept = Duration.FromDays(7);

    private sealed record Row(Guid Id, Guid AccountId, string Name, string Form, string State, int Turn, int Done, int Total,
        string Problem, string Answers, string? Found, Guid? ActId, int Taken, Instant MadeAt,
        string? Address)
    {
        public BroughtIntake ToIntake() => new(
            Id, AccountId, Name, Words.Read<IntakeForm>(Form), Words.Read<IntakeState>(State), Turn, Done, Total,
            StoredSaying.Read(Problem), ProposalDocument.Read<IntakeAnswers>(Answers),
            Found is null ? null : ProposalDocument.Read<IntakeFound>(Found), ActId, Taken, MadeAt, Address);
    }

    private const string Columns = """
        select id, account_id, name, form, state, turn, done, total, problem, answers::text as answers, found::text as found, act_id, taken,
            made_at, address
        from intake

        """;

    /// <summary>Keeps a file, and wishes for it to be read. The oldest of the person's go where there are too many.</summary>
    /// <param name="address">Where it is got from; then the content is missing.</param>
    public Task<Guid> AddAsync(Guid organisationId, Guid accountId, string name, IntakeForm form, byte[]? content, string? address,
        IntakeAnswers answers, Instant now) => database.InTransactionAsync(async transaction =>
    {
        var id = Guid.CreateVersion7();
        await transaction.Connection!.ExecuteAsync("""
            delete from intake
            where organisation_id = @organisationId and account_id = @accountId and state not in ('reading', 'saving')
              and id not in (select id from intake where organisation_id = @organisationId and account_id = @accountId
                             order by made_at desc limit @most);
            insert into intake (id, organisation_id, account_id, name, form, content, address, answers, state, made_at)
            values (@id, @organisationId, @accountId, @name, @form, @content, @address, @answers::jsonb, 'reading', @now)
            """, new
        {
            id,
            organisationId,
            accountId,
            name,
            form = Words.Of(form),
            content,
            address,
            answers = ProposalDocument.Write(answers),
            now,
            most = MostKept - 1,
        }, transaction);
        await WantAsync(transaction, organisationId, id, now);
        return id;
    });

    private static Task WantAsync(DbTransaction transaction, Guid organisationId, Guid id, Instant now) =>
        WorkStore.WantAsync(transaction, WorkKind.Intake, [(id.ToString(), organisationId)], now);

    /// <summary>A person's files, latest first.</summary>
    public async Task<IReadOnlyList<BroughtIntake>> OfAccountAsync(Guid organisationId, Guid accountId) =>
        [.. (await database.ListAsync<Row>(Columns + """
            where organisation_id = @organisationId and account_id = @accountId
            order by made_at desc
            limit @most
            """, new { organisationId, accountId, most = MostKept })).Select(row => row.ToIntake())];

    public async Task<BroughtIntake?> FindAsync(Guid organisationId, Guid id) => (await database.FirstAsync<Row>(
        Columns + "where organisation_id = @organisationId and id = @id", new { organisationId, id }))?.ToIntake();

    /// <summary>What was got from its address.</summary>
    /// <exception cref="IntakeStoppedException">It is not wanted any more.</exception>
    public async Task GotAsync(BroughtIntake intake, byte[] content, string name, IntakeForm form)
    {
        if (await database.ExecuteAsync("""
            update intake set content = @content, name = @name, form = @form
            where id = @Id and turn = @Turn and state = 'reading'
            """, new { intake.Id, intake.Turn, content, name, form = Words.Of(form) }) == 0)
            throw new IntakeStoppedException();
    }

    public Task<byte[]?> ContentAsync(Guid organisationId, Guid id) => database.FirstAsync<byte[]>(
        "select content from intake where organisation_id = @organisationId and id = @id", new { organisationId, id });

    /// <summary>How many of each state there are, and how many of those are to be taken.</summary>
    public async Task<IReadOnlyDictionary<IncomingState, (int All, int Taken)>> CountsAsync(Guid organisationId, Guid id) =>
        (await database.ListAsync<(string State, int Count, int Taken)>("""
            select state, count(*)::integer, count(*) filter (where is_taken)::integer
            from intake_line
            where organisation_id = @organisationId and intake_id = @id
            group by state
            """, new { organisationId, id })).ToDictionary(row => Words.Read<IncomingState>(row.State), row => (row.Count, row.Taken));

    /// <summary>Other answers: it is read anew.</summary>
    /// <returns>False where it is not to be read any more.</returns>
    public Task<bool> AnswerAsync(Guid organisationId, Guid id, IntakeAnswers answers, Instant now) =>
        database.InTransactionAsync(async transaction =>
        {
            var done = await transaction.Connection!.ExecuteAsync("""
                update intake
                set answers = @answers::jsonb, state = 'reading', turn = turn + 1, done = 0, problem = ''
                where organisation_id = @organisationId and id = @id and content is not null and state in ('reading', 'ready', 'refused')
                """, new { organisationId, id, answers = ProposalDocument.Write(answers) }, transaction);
            if (done > 0)
                await WantAsync(transaction, organisationId, id, now);
            return done > 0;
        });

    /// <exception cref="IntakeStoppedException">It is not wanted any more.</exception>
    public async Task ProgressAsync(BroughtIntake intake, int done, int total)
    {
        if (await database.ExecuteAsync(
            "update intake set done = @done, total = @total where id = @Id and turn = @Turn and state in ('reading', 'saving')",
            new { intake.Id, intake.Turn, done, total }) == 0)
            throw new IntakeStoppedException();
    }

    /// <summary>What was read: all of its lines, and what is asked about them; or why it cannot be read.</summary>
    /// <remarks>Which lines are to be taken stays as it was said before, where such a line is of the same state.</remarks>
    /// <exception cref="IntakeStoppedException">It is not wanted any more.</exception>
    public Task ReadAsync(
        Guid organisationId, BroughtIntake intake, IntakeFound? found, IReadOnlyList<IntakeLine> lines, Saying? problem) =>
        database.InTransactionAsync(async transaction =>
        {
            var connection = transaction.Connection!;
            if (await connection.ExecuteAsync("""
                update intake
                set state = @state, found = @found::jsonb, problem = @problem, done = total
                where organisation_id = @organisationId and id = @Id and turn = @Turn and state = 'reading'
                """, new
            {
                organisationId,
                intake.Id,
                intake.Turn,
                state = Words.Of(problem is null ? IntakeState.Ready : IntakeState.Refused),
                found = found is null ? null : ProposalDocument.Write(found),
                problem = StoredSaying.Write(problem),
            }, transaction) == 0)
                throw new IntakeStoppedException();
            var chosen = await connection.ExecuteScalarAsync<string>("""
                update intake i
                set chosen = i.chosen || coalesce((
                    select jsonb_object_agg(l.state || ' ' || l.uid, l.is_taken) from intake_line l where l.intake_id = i.id and l.is_chosen), '{}')
                where i.organisation_id = @organisationId and i.id = @Id
                returning chosen::text
                """, new { organisationId, intake.Id }, transaction);
            var before = JsonSerializer.Deserialize<Dictionary<string, bool>>(chosen!)!;
            await connection.ExecuteAsync("delete from intake_line where organisation_id = @organisationId and intake_id = @Id",
                new { organisationId, intake.Id }, transaction);
            foreach (var some in lines.Chunk(1_000))
                await InsertAsync(transaction, organisationId, intake.Id, some, before);
            await Announcements.TellDesksAsync(transaction, organisationId);
            return true;
        });

    private static Task<int> InsertAsync(
        DbTransaction transaction, Guid organisationId, Guid id, IntakeLine[] lines, Dictionary<string, bool> before) =>
        transaction.Connection!.ExecuteAsync("""
            insert into intake_line (organisation_id, intake_id, place, line, uid, state, title, first_day, is_taken, is_chosen, event_id,
                version, content, remarks, refusals)
            select @organisationId, @id, l.place, l.line, l.uid, l.state, l.title, l.day, l.taken, l.chosen, l.event_id, l.version,
                l.content::jsonb, l.remarks::jsonb, l.refusals::jsonb
            from unnest(@places, @numbers, @uids, @states, @titles, @days, @taken, @chosen, @events, @versions, @contents, @remarks, @refusals)
                l (place, line, uid, state, title, day, taken, chosen, event_id, version, content, remarks, refusals)
            """, new
        {
            organisationId,
            id,
            places = lines.Select(line => line.Place).ToArray(),
            numbers = lines.Select(line => line.Line).ToArray(),
            uids = lines.Select(line => line.Uid).ToArray(),
            states = lines.Select(line => Words.Of(line.State)).ToArray(),
            titles = lines.Select(line => line.Title).ToArray(),
            days = lines.Select(line => line.Day).ToArray(),
            taken = lines.Select(line => before.GetValueOrDefault($"{Words.Of(line.State)} {line.Uid}", line.IsTaken)).ToArray(),
            chosen = lines.Select(line => before.ContainsKey($"{Words.Of(line.State)} {line.Uid}")).ToArray(),
            events = lines.Select(line => line.EventId).ToArray(),
            versions = lines.Select(line => line.Version).ToArray(),
            contents = lines.Select(line => line.Incoming is { } one ? RevisionDocument.Write(one.Event, false) : null).ToArray(),
            remarks = lines.Select(line => StoredSaying.WriteAll(line.Incoming?.Remarks ?? [])).ToArray(),
            refusals = lines.Select(line => StoredSaying.WriteAll([.. line.Refusals.Select(one => one.Saying)])).ToArray(),
        }, transaction);

    private sealed record LineRow(int Place, int Line, string Uid, string State, string Title, LocalDate? FirstDay, bool IsTaken,
        Guid? EventId, int? Version, string? Content, string Remarks, string Refusals)
    {
        public IntakeLine ToLine(Named named) => new(
            Place, Line, Uid, Words.Read<IncomingState>(State), Title, FirstDay, IsTaken, EventId, Version,
            Content is null
                ? null
                : new Incoming(Uid, Line, RevisionDocument.Read(Content, Blank, named).Event, StoredSaying.ReadAll(Remarks)),
            [.. StoredSaying.ReadAll(Refusals).Select(saying => new Refusal("line", saying))]);
    }

    private static CalendarEvent Blank { get; } = new(Guid.Empty, Guid.Empty, default,
        new EventContent(new Core.Recurrence.Series(Core.Time.Timing.WholeDays(Core.Time.DayRange.First, Core.Time.DayRange.First,
            DateTimeZone.Utc))), EventState.Live, default);

    /// <summary>Lines of some states in their order, those after a place.</summary>
    /// <param name="onlyTaken">Those that are to be taken.</param>
    public Task<IReadOnlyList<IntakeLine>> LinesAsync(
        Guid organisationId, Guid id, IReadOnlyList<IncomingState> states, int after, int most, bool onlyTaken = false) =>
        database.ReadManyAsync<IReadOnlyList<IntakeLine>>($"""
            select place, line, uid, state, title, first_day, is_taken, event_id, version, content::text as content, remarks::text as remarks,
                refusals::text as refusals
            from intake_line
            where organisation_id = @organisationId and intake_id = @id and state = any(@states) and place > @after
              and (is_taken or not @onlyTaken)
            order by place
            limit @most;
            {NamedLists.OfOrganisation}
            """, new { organisationId, id, states = states.Select(state => Words.Of(state)).ToArray(), after, most, onlyTaken },
            async results =>
            {
                var rows = (await results.ReadAsync<LineRow>()).AsList();
                var named = Named.Nothing with { Lists = await NamedLists.ReadAsync(results) };
                return [.. rows.Select(row => row.ToLine(named))];
            });

    /// <summary>Which lines are to be taken.</summary>
    /// <param name="places">Null for all of these states.</param>
    public Task TakeAsync(Guid organisationId, Guid id, IReadOnlyList<int>? places, IReadOnlyList<IncomingState> states, bool isTaken) =>
        database.ExecuteAsync("""
            update intake_line l
            set is_taken = @isTaken, is_chosen = true
            from intake i
            where i.organisation_id = @organisationId and i.id = @id and i.state = 'ready' and l.intake_id = i.id
              and l.state in ('new', 'changed', 'there') and l.state = any(@states) and (@places::integer[] is null or l.place = any(@places))
            """, new { organisationId, id, places = places?.ToArray(), states = states.Select(state => Words.Of(state)).ToArray(), isTaken });

    /// <summary>What is to be taken, is taken.</summary>
    /// <returns>False where there is nothing to be taken by now.</returns>
    public Task<bool> WishToSaveAsync(Guid organisationId, Guid id, Instant now) => database.InTransactionAsync(async transaction =>
    {
        var done = await transaction.Connection!.ExecuteAsync("""
            update intake set state = 'saving', done = 0, problem = ''
            where organisation_id = @organisationId and id = @id and state = 'ready'
              and exists (select from intake_line where intake_id = @id and is_taken)
            """, new { organisationId, id }, transaction);
        if (done > 0)
            await WantAsync(transaction, organisationId, id, now);
        return done > 0;
    });

    /// <summary>Saving did not do: it can be looked at again.</summary>
    public Task NotSavedAsync(Guid organisationId, Guid id, Saying problem) => database.ExecuteAsync("""
        update intake set state = 'ready', problem = @problem
        where organisation_id = @organisationId and id = @id and state = 'saving'
        """, new { organisationId, id, problem = StoredSaying.Write(problem) });

    /// <summary>Throws it away; what was taken of it stays.</summary>
    public Task RemoveAsync(Guid organisationId, Guid id) => database.ExecuteAsync(
        "delete from intake where organisation_id = @organisationId and id = @id", new { organisationId, id });

    /// <summary>Takes what was chosen: all of it, or nothing.</summary>
    /// <param name="names">What the source calls each of the act's events, in their order, and how it says them.</param>
    /// <exception cref="IntakeStoppedException">It is not wanted any more.</exception>
    /// <inheritdoc cref="ActStore.CommitAsync(Guid, Guid, Instant, Act, IReadOnlyList{Notice}?, IReadOnlyList{AuditLine}?)"/>
    public Task<Guid> SaveAsync(Guid organisationId, BroughtIntake intake, Act act, IReadOnlyList<Incoming> names, Instant now) =>
        database.InTransactionAsync(async transaction =>
        {
            var actId = Guid.CreateVersion7();
            if (await transaction.Connection!.ExecuteAsync("""
                update intake
                set state = 'done', act_id = @actId, taken = @taken, content = null, done = total
                where organisation_id = @organisationId and id = @Id and turn = @Turn and state = 'saving';
                """, new { organisationId, intake.Id, intake.Turn, actId, taken = act.Writes.Count }, transaction) == 0)
                throw new IntakeStoppedException();
            var done = await ActStore.CommitAsync(transaction, organisationId, intake.AccountId, now, act, actId);
            await ForeignNames.PutAsync(transaction, organisationId, ForeignNames.Files,
                [.. names.Zip(done!.Events, (one, written) => (one.Uid, written.Id, one.Event))], actId);
            if (intake.Found is { Make.Length: > 0 } found)
                await transaction.Connection!.ExecuteAsync("""
                    insert into intake_guess (organisation_id, make, answers, saved_at)
                    values (@organisationId, @Make, @answers::jsonb, @now)
                    on conflict (organisation_id, make) do update set answers = excluded.answers, saved_at = excluded.saved_at
                    """, new { organisationId, found.Make, answers = ProposalDocument.Write(intake.Answers), now }, transaction);
            return actId;
        });

    /// <summary>What was answered for a file of the same make; null where there was none.</summary>
    public async Task<IntakeAnswers?> GuessAsync(Guid organisationId, string make) =>
        await database.FirstAsync<string>(
            "select answers::text from intake_guess where organisation_id = @organisationId and make = @make",
            new { organisationId, make }) is { } answers ? ProposalDocument.Read<IntakeAnswers>(answers) : null;

    /// <summary>An act that took something in is taken back.</summary>
    internal static async Task UndoAsync(DbTransaction transaction, Guid organisationId, Guid actId)
    {
        await ForeignNames.UndoAsync(transaction, organisationId, actId);
        await transaction.Connection!.ExecuteAsync(
            "update intake set state = 'undone' where organisation_id = @organisationId and act_id = @actId",
            new { organisationId, actId }, transaction);
    }

    /// <summary>Forgets files that were brought long ago.</summary>
    public Task<int> SweepAsync(Instant now) => database.ExecuteAsync("""
        delete from intake where made_at < @before and state not in ('done', 'undone') or made_at < @longBefore
        """, new { before = now - Kept, longBefore = now - EventStore.KeptInBin });
}
