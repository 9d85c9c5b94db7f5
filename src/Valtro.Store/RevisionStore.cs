using NodaTime;
using Valtro.Core.Events;

namespace Valtro.Store;

/// <summary>One save of an event.</summary>
/// <param name="Event">As it was after the save.</param>
public sealed record Revision(int Version, EventAct Act, Guid ActId, string By, Instant At, bool IsRemoved, CalendarEvent Event);

/// <summary>Who changed what, when. Nothing here is ever changed.</summary>
public sealed class RevisionStore(Database database, EventStore events, ListStore lists)
{
    private sealed record Row(Guid EventId, int Version, string Act, Guid ActId, string Name, Instant MadeAt, string Content);

    private const string Columns = """
        select r.event_id, r.version, r.act, r.act_id, a.name, r.made_at, r.content::text as content
        from revision r
        join account a on a.id = r.account_id

        """;

    /// <summary>The saves of an event, latest first.</summary>
    public async Task<IReadOnlyList<Revision>> OfEventAsync(Guid organisationId, CalendarEvent now)
    {
        var rows = await database.ListAsync<Row>(Columns + """
            where r.organisation_id = @organisationId and r.event_id = @Id
            order by r.version desc
            limit 200
            """, new { organisationId, now.Id });
        var categories = await lists.EveryCategoryAsync(organisationId);
        return [.. rows.Select(row => ToRevision(row, now, categories))];
    }

    public async Task<Revision?> FindAsync(Guid organisationId, CalendarEvent now, int version)
    {
        var row = await database.FirstAsync<Row>(Columns + "where r.organisation_id = @organisationId and r.event_id = @Id and r.version = @version", new { organisationId, now.Id, version });
        return row is null ? null : ToRevision(row, now, await lists.EveryCategoryAsync(organisationId));
    }

    /// <summary>What has to be written to undo an act: each of its events as it was before.</summary>
    /// <returns>Empty when there is no such act.</returns>
    /// <exception cref="ChangedMeanwhileException">One of the events was saved again since.</exception>
    public async Task<IReadOnlyList<EventWrite>> UndoingAsync(Guid organisationId, Guid actId)
    {
        var writes = new List<EventWrite>();
        foreach (var row in await database.ListAsync<Row>(Columns + "where r.organisation_id = @organisationId and r.act_id = @actId order by r.event_id", new { organisationId, actId }))
        {
            var stored = await events.FindAsync(organisationId, row.EventId) ?? throw new NotFoundException("event");
            if (stored.Version != row.Version)
                throw new ChangedMeanwhileException();
            writes.Add(row.Version == 1
                ? new EventWrite(stored.Event, row.Version, EventAct.Undone, IsRemoved: true)
                : await FindAsync(organisationId, stored.Event, row.Version - 1) is { } before
                    ? new EventWrite(before.Event, row.Version, EventAct.Undone, before.IsRemoved)
                    : throw new NotFoundException("revision"));
        }
        return writes;
    }

    /// <summary>Events that were changed since an instant, as their readers knew them before that.</summary>
    /// <remarks>What went out since then was first known as it stood an hour later: what is put right at once is no news.</remarks>
    /// <param name="events">As they are now.</param>
    /// <returns>Those that were saved again, each with what it was.</returns>
    public async Task<IReadOnlyList<(CalendarEvent Now, CalendarEvent Before)>> ChangedSinceAsync(Guid organisationId, IReadOnlyCollection<CalendarEvent> events, Instant since)
    {
        var changed = events.Where(happening => happening.Changed >= since).ToDictionary(happening => happening.Id);
        if (changed.Count == 0)
            return [];
        var rows = await database.ListAsync<Row>("""
            select * from (
                select distinct on (r.event_id) r.event_id, r.version, r.act, r.act_id, '' as name, r.made_at, r.content::text as content
                from revision r
                join (
                    select event_id, min(made_at) as out_at from revision
                    where organisation_id = @organisationId and event_id = any(@ids) and content ->> 'state' = 'live'
                    group by event_id
                ) first using (event_id)
                where r.organisation_id = @organisationId and r.made_at < greatest(@since, first.out_at + interval '1 hour')
                order by r.event_id, r.version desc
            ) known
            where exists (select from event e where e.organisation_id = @organisationId and e.id = known.event_id and e.version > known.version)
            """, new { organisationId, ids = changed.Keys.ToArray(), since });
        var categories = await lists.EveryCategoryAsync(organisationId);
        return [.. rows.Select(row => (changed[row.EventId], ToRevision(row, changed[row.EventId], categories))).Where(pair => !pair.Item2.IsRemoved).Select(pair => (pair.Item1, pair.Item2.Event))];
    }

    private static Revision ToRevision(Row row, CalendarEvent now, IReadOnlyList<Category> categories)
    {
        var snapshot = EventSnapshot.Read(row.Content);
        var act = Words.Read<EventAct>(row.Act);
        return new Revision(row.Version, act, row.ActId, row.Name, row.MadeAt, snapshot.InBin ?? act == EventAct.Removed, snapshot.Apply(now, categories));
    }
}
