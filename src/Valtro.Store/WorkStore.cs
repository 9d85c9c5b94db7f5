using System.Data.Common;
using Dapper;
using NodaTime;

namespace Valtro.Store;

/// <summary>What can be to do.</summary>
public enum WorkKind
{
    /// <summary>An edition's feed and first pages; the key is the edition.</summary>
    Render,

    /// <summary>A mail to be handed over; the key is the mail.</summary>
    Mail,

    /// <summary>News of one person to be gathered into a mail; the key is organisation/account.</summary>
    Gather,

    /// <summary>A link for a new password to be mailed; the key is the account.</summary>
    Reset,

    /// <summary>Emptying the bin, files that nothing names, programs that came no more; by the clock.</summary>
    Sweep,

    /// <summary>A file of events that somebody brought, to be read or to be taken; the key is the intake.</summary>
    Intake,

    /// <summary>Readers of an edition to be told by mail what changed; the key is the edition.</summary>
    Digest,

    /// <summary>A followed source to be asked, or its rules to be applied; the key is the source.</summary>
    Follow,

    /// <summary>A calendar elsewhere to be written; the key is the target.</summary>
    Push,

    /// <summary>An edition to be looked through for what is wrong with it; the key is the edition.</summary>
    Prove,

    /// <summary>Links of events to be asked; the key is the organisation.</summary>
    Links,
}

/// <summary>Why something failed, as far as people can do something about it.</summary>
public enum FailureReason
{
    /// <summary>The database did not answer, or took too long.</summary>
    Database,

    /// <summary>There is no room left on the disk.</summary>
    Disk,

    /// <summary>The mail server did not take it.</summary>
    MailServer,

    /// <summary>A calendar of others did not take it.</summary>
    Elsewhere,

    /// <summary>A mistake of ours.</summary>
    Ours,
}

/// <summary>Something that this node has taken upon itself.</summary>
/// <param name="Key">With the kind it is there once.</param>
/// <param name="OrganisationId">Null for what is nobody's in particular.</param>
/// <param name="Wanted">How often it had been wished for when it was taken.</param>
/// <param name="Tries">How often it failed since it last succeeded.</param>
/// <param name="ClaimedUntil">Until then nobody else gets it.</param>
/// <param name="DueAt">When its time had come, since it last failed.</param>
public sealed record Work(
    WorkKind Kind, string Key, Guid? OrganisationId, long Wanted, int Tries, Instant ClaimedUntil, Instant DueAt);

/// <summary>Something that does not succeed.</summary>
/// <param name="IsSetAside">It is not tried by itself any more.</param>
/// <param name="NextTryAt">Null when it is set aside.</param>
/// <param name="Error">For the operator.</param>
public sealed record FailingWork(WorkKind Kind, string Key, Guid? OrganisationId, Instant Since, FailureReason Reason, string Error,
    int Tries, bool IsSetAside, Instant? NextTryAt);

/// <summary>How much there is to do of a kind.</summary>
/// <param name="Due">Of which the time has come.</param>
/// <param name="OldestDueAt">Since when the oldest of these waits.</param>
public sealed record WorkCount(WorkKind Kind, int Due, int Failing, int SetAside, Instant? OldestDueAt);

/// <summary>What is still to be done after a change, or by the clock: rows that the change itself writes, and that any node
/// takes.</summary>
/// <remarks>docs/architecture.md, "Work"; docs/decisions/work.md says why this is no package.</remarks>
public sealed class WorkStore(Database database)
{
    private const int LongestError = 2_000;

    /// <summary>Wishes for work, within the transaction that makes it necessary. What is there already is wished for once more, and tried
    /// again if it was set aside.</summary>
    /// <param name="keys">With the organisation of each.</param>
    internal static Task WantAsync(DbTransaction transaction, WorkKind kind, IReadOnlyCollection<(string Key, Guid? OrganisationId)> keys,
        Instant due) => keys.Count == 0
        ? Task.CompletedTask
        : transaction.Connection!.ExecuteAsync($"""
            insert into work (kind, key, organisation_id, due_at)
            select @kind, w.key, w.organisation_id, @due
            from unnest(@keys, @organisations) w (key, organisation_id)
            order by w.key
            {Again};
            notify {Announcements.Channel}, '{Announcements.Work}'
            """,
                new
                {
                    kind = Words.Of(kind),
                    due,
                    keys = keys.Select(one => one.Key).ToArray(),
                    organisations = keys.Select(one => one.OrganisationId).ToArray()
                }, transaction);

    /// <summary>In key order everywhere, so that no two transactions wait for one another.</summary>
    /// <remarks>What is being done is due anew when it is wished for anew: it has not waited since it was first.</remarks>
    internal const string Again = """
        on conflict (kind, key) do update
        set wanted = work.wanted + 1,
            due_at = case when work.claimed_until is null then least(work.due_at, excluded.due_at) else excluded.due_at end,
            tries = 0,
            set_aside_at = null
        """;

    /// <summary>Makes sure that what is done by the clock is there.</summary>
    public async Task PlanAsync(WorkKind kind, string key, Instant due)
    {
        using var everywhere = Wall.Everywhere();
        await database.ExecuteAsync("""
            insert into work (kind, key, due_at)
            values (@kind, @key, @due)
            on conflict do nothing
            """, new { kind = Words.Of(kind), key, due });
    }

    private sealed record ClaimedRow(
        string Kind, string Key, Guid? OrganisationId, long Wanted, int Tries, Instant ClaimedUntil, Instant DueAt);

    /// <summary>Takes what is due, longest due first. Nobody else gets it until <paramref name="until"/>.</summary>
    public async Task<IReadOnlyList<Work>> ClaimAsync(WorkKind kind, int most, Instant now, Instant until)
    {
        using var everywhere = Wall.Everywhere();
        var rows = await database.ReturningAsync<ClaimedRow>("""
            with due as (
                select kind, key
                from work
                where kind = @kind and set_aside_at is null and due_at <= @now and (claimed_until is null or claimed_until <= @now)
                order by due_at
                limit @most
                for update skip locked
            )
            update work w
            set claimed_until = @until
            from due
            where w.kind = due.kind and w.key = due.key
            returning w.kind, w.key, w.organisation_id, w.wanted, w.tries, w.claimed_until, w.due_at
            """, new { kind = Words.Of(kind), most, now, until });
        return [
            .. rows.Select(row =>
                new Work(Words.Read<WorkKind>(row.Kind), row.Key, row.OrganisationId, row.Wanted, row.Tries, row.ClaimedUntil, row.DueAt))];
    }

    /// <summary>When the next of a kind is due, or its claim runs out; null when there is none.</summary>
    public async Task<Instant?> NextDueAsync(WorkKind kind)
    {
        using var everywhere = Wall.Everywhere();
        var due = await database.ListAsync<Instant>("""
            select greatest(due_at, claimed_until)
            from work
            where kind = @kind and set_aside_at is null
            order by 1
            limit 1
            """, new { kind = Words.Of(kind) });
        return due.Count == 0 ? null : due[0];
    }

    /// <summary>Keys of what is due, or being done.</summary>
    public async Task<IReadOnlySet<string>> DueAsync(Guid organisationId, WorkKind kind, Instant now)
    {
        var keys = await database.ListAsync<string>("""
            select key
            from work
            where organisation_id = @organisationId and kind = @kind and set_aside_at is null and (due_at <= @now or claimed_until > @now)
            limit 1000
            """, new { organisationId, kind = Words.Of(kind), now });
        return keys.ToHashSet(StringComparer.Ordinal);
    }

    /// <summary>It is done, unless somebody wished for it meanwhile.</summary>
    /// <param name="next">When it is to be done again by itself; null for never.</param>
    public async Task DoneAsync(Work work, Instant? next)
    {
        using var everywhere = Wall.Everywhere();
        await database.InTransactionAsync(async transaction =>
        {
            var parameters = new { kind = Words.Of(work.Kind), work.Key, work.Wanted, next };
            var connection = transaction.Connection!;
            if (next is null
                && await connection.ExecuteAsync(
                    "delete from work where kind = @kind and key = @Key and wanted = @Wanted", parameters, transaction) > 0)
                return true;
            await connection.ExecuteAsync("""
                update work
                set claimed_until = null, tries = 0, failed_since = null, reason = null, last_error = null,
                    due_at = case when wanted = @Wanted then @next else due_at end
                where kind = @kind and key = @Key
                """, parameters, transaction);
            return true;
        });
    }

    /// <summary>It was begun and is not done: whoever looks next gets it.</summary>
    public async Task ReleaseAsync(Work work)
    {
        using var everywhere = Wall.Everywhere();
        await database.ExecuteAsync($"""
            update work
            set claimed_until = null
            where kind = @kind and key = @Key and claimed_until = @ClaimedUntil;
            notify {Announcements.Channel}, '{Announcements.Work}'
            """, new { kind = Words.Of(work.Kind), work.Key, work.ClaimedUntil });
    }

    /// <summary>It failed. It is tried again, or set aside.</summary>
    /// <param name="next">Null to set it aside.</param>
    public async Task FailedAsync(Work work, FailureReason reason, string error, Instant now, Instant? next)
    {
        using var everywhere = Wall.Everywhere();
        await database.ExecuteAsync($"""
            with failed as (
                update work
                set claimed_until = null,
                    tries = tries + 1,
                    failed_since = coalesce(failed_since, @now),
                    reason = @reason,
                    last_error = @error,
                    due_at = case when wanted = @Wanted and @next::timestamptz is not null then @next else due_at end,
                    set_aside_at = case when wanted = @Wanted and @next::timestamptz is null then @now end
                where kind = @kind and key = @Key
                returning organisation_id
            )
            select tell_desk(organisation_id) from failed
                where organisation_id is not null
            """,
                new
                {
                    kind = Words.Of(work.Kind),
                    work.Key,
                    work.Wanted,
                    reason = Words.Of(reason),
                    error = error[..Math.Min(error.Length, LongestError)],
                    now,
                    next
                });
    }

    private sealed record FailingRow(string Kind, string Key, Guid? OrganisationId, Instant FailedSince, string Reason, string LastError,
        int Tries, Instant? SetAsideAt, Instant DueAt);

    /// <summary>What does not succeed: of an organisation, with what is nobody's in particular; or everything. Longest failing
    /// first.</summary>
    public async Task<IReadOnlyList<FailingWork>> FailingAsync(Guid? organisationId)
    {
        using var everywhere = Wall.Everywhere();
        return [.. (await database.ListAsync<FailingRow>("""
            select kind, key, organisation_id, failed_since, reason, last_error, tries, set_aside_at, due_at
            from work
            where failed_since is not null and (@organisationId::uuid is null or organisation_id is null
                or organisation_id = @organisationId)
            order by failed_since, kind, key
            limit 200
            """, new { organisationId })).Select(row => new FailingWork(
                Words.Read<WorkKind>(row.Kind), row.Key, row.OrganisationId, row.FailedSince, Words.Read<FailureReason>(row.Reason),
                row.LastError, row.Tries,
                row.SetAsideAt is not null, row.SetAsideAt is null ? row.DueAt : null))];
    }

    private sealed record CountRow(string Kind, int Due, int Failing, int SetAside, Instant? OldestDueAt);

    public async Task<IReadOnlyList<WorkCount>> CountAsync(Instant now)
    {
        using var everywhere = Wall.Everywhere();
        return [.. (await database.ListAsync<CountRow>("""
            select kind,
                   count(*) filter (where due_at <= @now and set_aside_at is null)::integer as due,
                   count(failed_since)::integer as failing,
                   count(set_aside_at)::integer as set_aside,
                   min(due_at) filter (where due_at <= @now and set_aside_at is null) as oldest_due_at
            from work
            group by kind
            """, new { now }))
                .Select(row => new WorkCount(Words.Read<WorkKind>(row.Kind), row.Due, row.Failing, row.SetAside, row.OldestDueAt))];
    }

    /// <summary>Tries something again at once that failed or was set aside.</summary>
    /// <exception cref="NotFoundException">It is not there any more: it succeeded.</exception>
    public async Task TryAgainAsync(Guid organisationId, WorkKind kind, string key, Instant now)
    {
        using var everywhere = Wall.Everywhere();
        await database.InTransactionAsync(async transaction =>
        {
            if (await transaction.Connection!.ExecuteAsync("""
                update work
                set due_at = @now, tries = 0, set_aside_at = null, wanted = wanted + 1
                where kind = @kind and key = @key and (organisation_id is null or organisation_id = @organisationId)
                """, new { organisationId, kind = Words.Of(kind), key, now }, transaction) == 0)
                throw new NotFoundException("work");
            await transaction.Connection!.ExecuteAsync($"notify {Announcements.Channel}, '{Announcements.Work}'", transaction: transaction);
            return true;
        });
    }
}
