using System.Data.Common;
using Dapper;
using NodaTime;
using Valtro.Core.Acts;
using Valtro.Core.Push;
using Valtro.Core.Speaking;

namespace Valtro.Store;

/// <summary>How many events of a target stand there, are asked about, were left as they are there, are not taken.</summary>
public sealed record PushCounts(int There, int Asking, int Left, int Refused);

/// <summary>One that is asked about, was left, or is not taken.</summary>
/// <param name="Here">As it is to stand there; null where it is to stand there no more.</param>
/// <param name="There">As it stands there; null where it is gone.</param>
public sealed record PushOpen(
    string Name, string Title, byte[]? Here, PushQuestion? Question, byte[]? There, Instant? AskedAt, PushAnswer Answer, Saying? Problem);

/// <summary>What was written in calendars elsewhere, and what somebody made of it there.</summary>
public sealed class PushedStore(Database database)
{
    private const int MostOpen = 100;

    /// <summary>After so many failures, some hours, whoever set it up is told.</summary>
    private const int FailuresTold = 6;

    /// <param name="id">Of one target; null for all.</param>
    public async Task<IReadOnlyDictionary<Guid, PushCounts>> CountsAsync(Guid organisationId, Guid? id) =>
        (await database.ListAsync<(Guid Id, int There, int Asking, int Left, int Refused)>("""
            select target_id, count(*) filter (where etag is not null and question is null)::integer,
                count(*) filter (where question is not null and answer <> 'theirs')::integer,
                count(*) filter (where answer = 'theirs')::integer,
                count(*) filter (where problem <> '')::integer
            from push_object
            where organisation_id = @organisationId and (@id::uuid is null or target_id = @id)
            group by target_id
            """, new { organisationId, id })).ToDictionary(row => row.Id, row => new PushCounts(row.There, row.Asking, row.Left, row.Refused));

    /// <summary>Those that somebody has to look at: asked about, left as they are there, not taken.</summary>
    public async Task<IReadOnlyList<PushOpen>> OpenAsync(Guid organisationId, Guid id) =>
        [.. (await database.ListAsync<(string Name, string Title, byte[]? Here, string? Question, byte[]? There, Instant? AskedAt,
            string Answer, string Problem)>("""
            select name, title, here, question, there, asked_at, answer, problem
            from push_object
            where organisation_id = @organisationId and target_id = @id and (question is not null or answer = 'theirs' or problem <> '')
            order by answer, asked_at, lower(title), name
            limit @MostOpen
            """, new { organisationId, id, MostOpen })).Select(row => new PushOpen(
                row.Name, row.Title, row.Here, Words.ReadOrNull<PushQuestion>(row.Question), row.There, row.AskedAt,
                Words.Read<PushAnswer>(row.Answer), StoredSaying.Read(row.Problem)))];

    public async Task<IReadOnlyList<PushKnown>> KnownAsync(Guid organisationId, Guid id) =>
        [.. (await database.ListAsync<(string Name, string Title, byte[] Sent, string? ETag, string? Question, string? ThereTag,
            string Answer, byte[]? Here)>("""
            select name, title, sent, etag, question, there_tag, answer, here
            from push_object
            where organisation_id = @organisationId and target_id = @id
            limit 50000
            """, new { organisationId, id })).Select(row => new PushKnown(
                row.Name, row.Title, row.Sent, row.ETag, Words.ReadOrNull<PushQuestion>(row.Question), row.ThereTag,
                Words.Read<PushAnswer>(row.Answer)) { Here = row.Here })];

    /// <summary>It stands there as it was sent.</summary>
    public Task WrittenAsync(PushTarget target, PushWish wish, string etag, Instant now) => database.ExecuteAsync("""
        insert into push_object (organisation_id, target_id, name, title, sent, etag, put_at)
        values (@OrganisationId, @targetId, @Name, @Title, @Content, @etag, @now)
        on conflict (target_id, name) do update
        set title = excluded.title, sent = excluded.sent, etag = excluded.etag, put_at = excluded.put_at,
            question = null, here = null, there = null, there_tag = null, asked_at = null, answer = 'none', problem = ''
        """, new { target.OrganisationId, targetId = target.Id, wish.Name, wish.Title, wish.Content, etag, now });

    /// <summary>Somebody is to say what becomes of it.</summary>
    /// <param name="here">As it is to stand there; null where it is to stand there no more.</param>
    /// <param name="there">As it stands there; null where it is gone.</param>
    public Task AskAsync(
        PushTarget target, string name, string title, PushQuestion question, byte[]? here, (byte[] Content, string Tag)? there,
        Instant now) => database.ExecuteAsync("""
            insert into push_object (organisation_id, target_id, name, title, sent, question, here, there, there_tag, asked_at)
            values (@OrganisationId, @targetId, @name, @title, '', @question, @here, @there, @tag, @now)
            on conflict (target_id, name) do update
            set title = excluded.title, question = excluded.question, here = excluded.here, there = excluded.there, there_tag = excluded.there_tag,
                asked_at = coalesce(push_object.asked_at, excluded.asked_at), answer = 'none', problem = ''
            """, new
        {
            target.OrganisationId,
            targetId = target.Id,
            name,
            title,
            question = Words.Of(question),
            here,
            there = there?.Content,
            tag = there?.Tag,
            now,
        });

    /// <summary>It is not taken there.</summary>
    public Task RefusedAsync(PushTarget target, string name, string title, Saying problem) => database.ExecuteAsync("""
        insert into push_object (organisation_id, target_id, name, title, sent, problem)
        values (@OrganisationId, @targetId, @name, @title, '', @problem)
        on conflict (target_id, name) do update set title = excluded.title, problem = excluded.problem
        """, new { target.OrganisationId, targetId = target.Id, name, title, problem = StoredSaying.Write(problem) });

    public Task ForgetAsync(PushTarget target, IReadOnlyCollection<string> names) => database.ExecuteAsync(
        "delete from push_object where organisation_id = @OrganisationId and target_id = @Id and name = any(@names)",
        new { target.OrganisationId, target.Id, names = names.ToArray() });

    /// <returns>False where nothing is asked about it any more.</returns>
    public Task<bool> AnswerAsync(PushTarget target, string name, PushAnswer answer, Instant now) =>
        database.InTransactionAsync(async transaction =>
        {
            var done = await transaction.Connection!.ExecuteAsync("""
                update push_object set answer = @answer
                where organisation_id = @OrganisationId and target_id = @Id and name = @name and (question is not null or answer = 'theirs')
                """, new { target.OrganisationId, target.Id, name, answer = Words.Of(answer) }, transaction);
            await PushStore.WantAsync(transaction, target.OrganisationId, [target.Id], now);
            return done > 0;
        });

    /// <summary>So many of them are written.</summary>
    public Task ProgressAsync(PushTarget target, int done, int total) => database.InTransactionAsync(async transaction =>
    {
        await transaction.Connection!.ExecuteAsync(
            "update push_target set done = @done, total = @total where organisation_id = @OrganisationId and id = @Id",
            new { target.OrganisationId, target.Id, done, total }, transaction);
        await Announcements.TellDesksAsync(transaction, target.OrganisationId);
        return true;
    });

    /// <summary>All that could be written was.</summary>
    /// <param name="asked">So many more are asked about than before.</param>
    public Task RightAsync(PushTarget target, string? syncToken, int asked, Instant now) => database.InTransactionAsync(async transaction =>
    {
        await transaction.Connection!.ExecuteAsync("""
            update push_target
            set right_at = @now, failed_since = null, failures = 0, problem = '', sync_token = @syncToken, done = null, total = null
            where organisation_id = @OrganisationId and id = @Id
            """, new { target.OrganisationId, target.Id, now, syncToken }, transaction);
        if (asked > 0)
            await TellAsync(transaction, target, Saying.Of("news.pushAsks", ("name", target.Name), ("count", asked)), now);
        await Announcements.TellDesksAsync(transaction, target.OrganisationId);
        return true;
    });

    public Task FailedAsync(PushTarget target, Saying problem, Instant now) => database.InTransactionAsync(async transaction =>
    {
        await transaction.Connection!.ExecuteAsync("""
            update push_target
            set failed_since = coalesce(failed_since, @now), failures = failures + 1, problem = @problem, done = null, total = null
            where organisation_id = @OrganisationId and id = @Id
            """, new { target.OrganisationId, target.Id, now, problem = StoredSaying.Write(problem) }, transaction);
        if (target.Failures + 1 == FailuresTold)
            await TellAsync(transaction, target, Saying.Of("news.pushFails", ("name", target.Name), ("why", problem)), now);
        await Announcements.TellDesksAsync(transaction, target.OrganisationId);
        return true;
    });

    private static Task TellAsync(DbTransaction transaction, PushTarget target, Saying saying, Instant now) => MailStore.NoteAsync(
        transaction, target.OrganisationId, [new Notice(target.AccountId, saying, $"/elsewhere/{target.Id}")], now);
}
