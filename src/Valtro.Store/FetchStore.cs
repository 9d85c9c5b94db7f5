using System.Data.Common;
using System.Security.Cryptography;
using Dapper;
using NodaTime;
using Valtro.Core;
using Valtro.Core.Acts;
using Valtro.Core.Intake;
using Valtro.Core.Speaking;

namespace Valtro.Store;

public enum FetchOutcome
{
    Changed,
    Same,
    Failed,
    Held,

    /// <summary>It was not asked: other rules were applied to what it had said.</summary>
    Ruled,
}

/// <summary>One time that it was asked.</summary>
/// <param name="News">What was another, or why it failed.</param>
public sealed record SourceFetch(
    Instant At, FetchOutcome Outcome, int Bytes, int Made, int Changed, int Removed, IReadOnlyList<Saying> News);

/// <summary>What was fetched, and by which it is known to be the same the next time.</summary>
public sealed record FetchedContent(byte[] Content, string? ETag, string? LastModified)
{
    public byte[] Hash() => SHA256.HashData(Content);
}

/// <summary>What became of asking followed sources.</summary>
public sealed class FetchStore(Database database)
{
    /// <summary>After so many failures, some hours, its follower is told.</summary>
    private const int FailuresTold = 6;

    /// <summary>How long it is kept how each fetch went.</summary>
    public static readonly Duration Remembered = Duration.FromDays(40);

    public async Task<bool> IsUnwantedAsync(FollowedSource source, FetchedContent fetched) => await database.FirstAsync<bool>(
        "select coalesce(unwanted_hash = @hash, false) from source where organisation_id = @OrganisationId and id = @Id",
        new { source.OrganisationId, source.Id, hash = fetched.Hash() });

    /// <summary>It said what it had said before.</summary>
    /// <param name="by">Null where it did not even send it again.</param>
    public Task SameAsync(FollowedSource source, FetchedContent? by, Instant now, Instant due) =>
        database.InTransactionAsync(async transaction =>
        {
            await transaction.Connection!.ExecuteAsync("""
                update source
                set right_at = @now, failed_since = null, failures = 0, problem = '', due_at = @due,
                    held = null, held_why = null, held_at = null, unwanted_hash = null,
                    etag = case when @isSent then @ETag else etag end, last_modified = case when @isSent then @LastModified else last_modified end
                where organisation_id = @OrganisationId and id = @Id
                """, new { source.OrganisationId, source.Id, now, due, isSent = by is not null, by?.ETag, by?.LastModified }, transaction);
            await NoteAsync(transaction, source, new SourceFetch(now, FetchOutcome.Same, by?.Content.Length ?? 0, 0, 0, 0, []));
            // Who looks at it sees when it was right; else nothing is another.
            if (source.FailedSince is not null || source.Held is not null)
                await Announcements.TellDesksAsync(transaction, source.OrganisationId);
            return true;
        });

    public Task FailedAsync(FollowedSource source, Saying problem, Instant now, Instant due) =>
        database.InTransactionAsync(async transaction =>
        {
            await transaction.Connection!.ExecuteAsync("""
                update source
                set failed_since = coalesce(failed_since, @now), failures = failures + 1, problem = @problem, due_at = @due
                where organisation_id = @OrganisationId and id = @Id
                """, new { source.OrganisationId, source.Id, now, due, problem = StoredSaying.Write(problem) }, transaction);
            await NoteAsync(transaction, source, new SourceFetch(now, FetchOutcome.Failed, 0, 0, 0, 0, [problem]));
            if (source.Failures + 1 == FailuresTold)
                await TellFollowerAsync(transaction, source, Saying.Of("news.sourceFails", ("name", source.Name), ("why", problem)), now);
            await Announcements.TellDesksAsync(transaction, source.OrganisationId);
            return true;
        });

    /// <summary>What it says is kept until somebody says what becomes of it.</summary>
    public Task HoldAsync(FollowedSource source, FetchedContent fetched, HeldBack why, Instant now, Instant due) =>
        database.InTransactionAsync(async transaction =>
        {
            await transaction.Connection!.ExecuteAsync("""
                update source
                set held = @Content, held_why = @why::jsonb, held_at = @now, failed_since = null, failures = 0, problem = '', due_at = @due,
                    etag = @ETag, last_modified = @LastModified
                where organisation_id = @OrganisationId and id = @Id
                """, new
            {
                source.OrganisationId,
                source.Id,
                fetched.Content,
                fetched.ETag,
                fetched.LastModified,
                why = ProposalDocument.Write(why),
                now,
                due,
            }, transaction);
            await NoteAsync(transaction, source, new SourceFetch(now, FetchOutcome.Held, fetched.Content.Length, 0, 0, 0, []));
            await TellFollowerAsync(transaction, source, Saying.Of("news.sourceHeld", ("name", source.Name)), now);
            await Announcements.TellDesksAsync(transaction, source.OrganisationId);
            return true;
        });

    /// <summary>It still says what was held back, or what is not wanted: it is asked no second time.</summary>
    public Task StillHeldAsync(FollowedSource source, FetchedContent? fetched, Instant now, Instant due) =>
        database.InTransactionAsync(async transaction =>
        {
            await transaction.Connection!.ExecuteAsync("""
                update source
                set failed_since = null, failures = 0, problem = '', due_at = @due
                where organisation_id = @OrganisationId and id = @Id
                """, new { source.OrganisationId, source.Id, due }, transaction);
            await NoteAsync(transaction, source, new SourceFetch(now, FetchOutcome.Held, fetched?.Content.Length ?? 0, 0, 0, 0, []));
            return true;
        });

    /// <summary>Writes all that follows from what it says, or from other rules: or nothing.</summary>
    /// <param name="fetched">Null where only the rules are others.</param>
    /// <exception cref="ChangedMeanwhileException">Its rules, or one of its events, were saved meanwhile.</exception>
    /// <exception cref="NotFoundException">A calendar is gone.</exception>
    public Task ApplyAsync(FollowedSource source, FetchedContent? fetched, SourcePlan plan, Instant now, Instant due) =>
        database.InTransactionAsync(async transaction =>
        {
            var (organisationId, actId) = (source.OrganisationId, Guid.CreateVersion7());
            if (await transaction.Connection!.ExecuteAsync("""
                update source
                set applied = version, due_at = @due,
                    content = coalesce(@content, content),
                    etag = case when @isFetched then @ETag else etag end,
                    last_modified = case when @isFetched then @LastModified else last_modified end,
                    right_at = case when @isFetched then @now else right_at end,
                    changed_at = case when @isFetched then @now else changed_at end,
                    failed_since = case when @isFetched then null else failed_since end,
                    failures = case when @isFetched then 0 else failures end,
                    problem = case when @isFetched then '' else problem end,
                    held = case when @isFetched then null else held end,
                    held_why = case when @isFetched then null else held_why end,
                    held_at = case when @isFetched then null else held_at end,
                    unwanted_hash = case when @isFetched then null else unwanted_hash end
                where organisation_id = @organisationId and id = @Id and version = @Version
                """, new
            {
                organisationId,
                source.Id,
                source.Version,
                content = fetched?.Content,
                isFetched = fetched is not null,
                fetched?.ETag,
                fetched?.LastModified,
                now,
                due,
            }, transaction) == 0)
                throw new ChangedMeanwhileException();
            var done = await ActStore.CommitAsync(
                transaction, organisationId, source.AccountId, SourceStore.WholeSecond(now), plan.Act, actId);
            await ForeignNames.PutAsync(transaction, organisationId, source.Id.ToString(),
                [.. plan.Names.Select(name => (name.Uid, name.EventId ?? done!.Events[name.Write].Id, name.Said))], actId: null);
            if (plan.Gone.Count > 0)
                await ForeignNames.UnsaidAsync(transaction, organisationId, source.Id, plan.Gone);
            await NoteAsync(transaction, source, new SourceFetch(
                now, fetched is null ? FetchOutcome.Ruled : FetchOutcome.Changed, fetched?.Content.Length ?? 0, plan.Made, plan.Changed,
                plan.Removed, plan.News));
            return true;
        });

    /// <summary>Whoever follows it hears of it by mail, with other news.</summary>
    private static Task TellFollowerAsync(DbTransaction transaction, FollowedSource source, Saying saying, Instant now) =>
        MailStore.NoteAsync(
            transaction, source.OrganisationId, [new Notice(source.AccountId, saying, $"/intake/sources/{source.Id}")], now);

    private static Task NoteAsync(DbTransaction transaction, FollowedSource source, SourceFetch fetch) =>
        transaction.Connection!.ExecuteAsync("""
        delete from source_fetch where source_id = @Id and at < @before;
        insert into source_fetch (organisation_id, source_id, at, outcome, bytes, made, changed, removed, news)
        values (@OrganisationId, @Id, @At, @outcome, @Bytes, @Made, @Changed, @Removed, @news::jsonb)
        on conflict (source_id, at) do nothing
        """, new
        {
            source.OrganisationId,
            source.Id,
            fetch.At,
            outcome = Words.Of(fetch.Outcome),
            fetch.Bytes,
            fetch.Made,
            fetch.Changed,
            fetch.Removed,
            news = StoredSaying.WriteAll(fetch.News),
            before = fetch.At - Remembered,
        }, transaction);

    /// <summary>How it went lately, latest first.</summary>
    public async Task<IReadOnlyList<SourceFetch>> LatelyAsync(Guid organisationId, Guid id, Instant since) =>
        [.. (await database.ListAsync<(Instant At, string Outcome, int Bytes, int Made, int Changed, int Removed, string News)>("""
            select at, outcome, bytes, made, changed, removed, news::text
            from source_fetch
            where organisation_id = @organisationId and source_id = @id and at > @since
            order by at desc
            limit 5000
            """, new { organisationId, id, since })).Select(row => new SourceFetch(
                row.At, Words.Read<FetchOutcome>(row.Outcome), row.Bytes, row.Made, row.Changed, row.Removed,
                StoredSaying.ReadAll(row.News)))];
}
