using System.Data.Common;
using Dapper;
using NodaTime;

namespace Valtro.Store;

/// <summary>What transactions announce to all nodes when they commit (PostgreSQL's NOTIFY).</summary>
/// <remarks>Announcements only make things fast, but for one: that an edition shows less from now on reaches a node also when its questions
/// are not answered.</remarks>
public static class Announcements
{
    public const string Channel = "valtro";

    /// <summary>There is something to do.</summary>
    public const string Work = "work";

    /// <summary>Before the id of an edition whose feed and first pages are rendered anew.</summary>
    public const string Rendered = "rendered ";

    /// <summary>Before id, version and "not before" of an edition.</summary>
    public const string Changed = "changed ";

    /// <summary>Before the id of an organisation: something on its desks is not as it was. Of what, it does not say.</summary>
    public const string Desk = "desk ";

    /// <summary>The same, and after the id by which request (<see cref="Asking.Change"/>).</summary>
    public const string DeskBy = "desk-by ";

    internal static Task TellDesksAsync(DbTransaction transaction, Guid organisationId) =>
        transaction.Connection!.ExecuteAsync("select tell_desk(@organisationId)", new { organisationId }, transaction);
}

/// <summary>What every act does that readers may notice: the editions concerned get their next version, and are rendered.</summary>
internal static class GoingOut
{
    /// <summary>Says that events of some calendars, or these themselves, are not as they were: for all editions that draw on
    /// them.</summary>
    /// <remarks>Of what members are responsible for themselves only those of people who were ever named there: else each save would make
    /// work for everybody.</remarks>
    /// <param name="takesAway">Some audience sees less from now on: what was rendered before is served no more.</param>
    public static Task ChangedAsync(DbTransaction transaction, Guid organisationId, IReadOnlyCollection<Guid> calendars, Instant now,
        bool takesAway) => RaiseAsync(transaction, """
        select s.edition_id
        from edition_source s
        join calendar c on c.id = s.calendar_id
        join edition own on own.id = s.edition_id
        where s.organisation_id = @organisationId and (c.id = any(@calendars) or c.merged_into = any(@calendars))
          and (own.owner_id is null or exists (
              select from event_reference r
              join event e on e.id = r.event_id
              where r.member_id = own.owner_id and e.organisation_id = @organisationId
                and (e.home_calendar_id = any(@calendars) or exists (
                    select from placement p where p.event_id = e.id and p.calendar_id = any(@calendars)))))
        """, new { organisationId, calendars = calendars.ToArray(), now, takesAway });

    /// <summary>Says the same of editions themselves.</summary>
    public static Task EditionsChangedAsync(DbTransaction transaction, Guid organisationId, IReadOnlyCollection<Guid> editions, Instant now,
        bool takesAway) =>
        RaiseAsync(transaction, "select unnest(@editions)", new { organisationId, editions = editions.ToArray(), now, takesAway });

    /// <summary>Says the same of all editions: the year plan or a list is another.</summary>
    public static Task AllChangedAsync(DbTransaction transaction, Guid organisationId, Instant now, bool takesAway) =>
        RaiseAsync(transaction, "select id from edition where organisation_id = @organisationId", new { organisationId, now, takesAway });

    /// <summary>Says that a member sees more or less than before of what they are responsible for.</summary>
    public static Task RolesChangedAsync(DbTransaction transaction, Guid organisationId, Guid accountId, Instant now) =>
        RaiseAsync(transaction, "select id from edition where owner_id = @accountId",
            new { organisationId, accountId, now, takesAway = true });

    /// <summary>Says that a member's own addresses open more or less than before: they came or left.</summary>
    public static Task OwnAddressesChangedAsync(DbTransaction transaction, Guid organisationId, Guid accountId, Instant now) =>
        RaiseAsync(transaction, "select edition_id from secret_link where account_id = @accountId and ended_at is null",
            new { organisationId, accountId, now, takesAway = true });

    /// <remarks>Editions are locked in the order of their ids, and work is written in key order: transactions that meet wait, none for the
    /// other.</remarks>
    private static Task RaiseAsync(DbTransaction transaction, string concerned, object parameters) =>
        transaction.Connection!.ExecuteAsync($"""
        with locked as (
            select id from edition where organisation_id = @organisationId and id in ({concerned}) order by id for update
        ), raised as (
            update edition e
            set content_version = e.content_version + 1,
                not_before = case when @takesAway then e.content_version + 1 else e.not_before end
            from locked
            where e.id = locked.id
            returning e.id, e.organisation_id, e.content_version, e.not_before, e.owner_id
        ), wanted as (
            insert into work (kind, key, organisation_id, due_at)
            select 'render', id::text, organisation_id, @now
            from raised
            order by id::text
            {WorkStore.Again}
        ), pushed as (
            insert into work (kind, key, organisation_id, due_at)
            select 'push', t.id::text, t.organisation_id, @now
            from push_target t
            join raised r on r.id = t.edition_id
            order by t.id::text
            {WorkStore.Again}
        ), proved as (
            insert into work (kind, key, organisation_id, due_at)
            select 'prove', id::text, organisation_id, @now + interval '20 seconds'
            from raised
            where owner_id is null
            order by id::text
            {WorkStore.Again}
        )
        select pg_notify('{Announcements.Channel}', '{Announcements.Changed}' || id || ' ' || content_version || ' ' || not_before)
        from raised
        union all
        select tell_desk(organisation_id)
        from raised
        """, parameters, transaction);
}
