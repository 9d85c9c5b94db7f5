using NodaTime;
using Valtro.Core.Acts;
using Valtro.Core.Editions;
using Valtro.Core.Events;

namespace Valtro.Store;

/// <summary>Who changed what, when. Nothing here is ever changed.</summary>
public sealed class RevisionStore(Database database, EventStore events, FileStore files)
{
    private sealed record Row(Guid EventId, int Version, string Act, Guid ActId, string Name, Instant MadeAt, string Content);

    private const string Columns = """
        select r.event_id, r.version, r.act, r.act_id, a.name, r.made_at, r.content::text as content
        from revision r
        join account a on a.id = r.account_id

        """;

    /// <summary>When events were saved last.</summary>
    public async Task<IReadOnlyDictionary<Guid, Instant>> SavedAtAsync(Guid organisationId, Guid[] ids) =>
        (await database.ListAsync<(Guid Id, Instant At)>("""
            select e.id, r.made_at
            from event e
            join revision r on r.event_id = e.id and r.version = e.version
            where e.organisation_id = @organisationId and e.id = any(@ids)
            """, new { organisationId, ids })).ToDictionary(row => row.Id, row => row.At);

    /// <summary>The saves of an event, latest first.</summary>
    public async Task<IReadOnlyList<Revision>> OfEventAsync(Guid organisationId, CalendarEvent now)
    {
        var rows = await database.ListAsync<Row>(Columns + """
            where r.organisation_id = @organisationId and r.event_id = @Id
            order by r.version desc
            limit 200
            """, new { organisationId, now.Id });
        var named = await NamedAsync(organisationId, rows.Select(row => row.Content));
        return [.. rows.Select(row => ToRevision(row, now, named))];
    }

    public async Task<Revision?> FindAsync(Guid organisationId, CalendarEvent now, int version)
    {
        var row = await database.FirstAsync<Row>(Columns
            + "where r.organisation_id = @organisationId and r.event_id = @Id and r.version = @version",
                new { organisationId, now.Id, version });
        return row is null ? null : ToRevision(row, now, await NamedAsync(organisationId, [row.Content]));
    }

    /// <summary>The events of an act as they are, each with the version that it gave them, and as they were before; null where it made
    /// them.</summary>
    /// <returns>None when there is no such act.</returns>
    public async Task<IReadOnlyList<(StoredEvent Now, int Version, Revision? Before)>> OfActAsync(Guid organisationId, Guid actId)
    {
        var rows = await database.ListAsync<Row>(Columns + """
            join revision undone on undone.event_id = r.event_id and undone.act_id = @actId
                and r.version between undone.version - 1 and undone.version
            where r.organisation_id = @organisationId
            order by r.event_id, r.version desc
            """, new { organisationId, actId });
        var all = await events.StoredAsync(organisationId, [.. rows.Select(row => row.EventId).Distinct()]);
        var named = await NamedAsync(organisationId, rows.Where(row => row.ActId != actId).Select(row => row.Content));
        return [.. from saves in rows.GroupBy(row => row.EventId)
            let now = all.GetValueOrDefault(saves.Key) ?? throw new NotFoundException("event")
            let last = saves.First()
            let before = saves.Skip(1).FirstOrDefault()
            select (now, last.Version, before is not null ? ToRevision(before, now.Event, named)
                : last.Version == 1 ? null
                : throw new NotFoundException("revision"))];
    }

    /// <summary>What an act let go on from a later date of an event, as it was made.</summary>
    public async Task<CalendarEvent?> SuccessorAsync(Guid organisationId, CalendarEvent before, Guid actId)
    {
        var row = await database.FirstAsync<Row>(Columns + """
            join event e on e.id = r.event_id and e.continues = @uid
            where r.organisation_id = @organisationId and r.act_id = @actId and r.version = 1
            """, new { organisationId, uid = before.Uid.Text, actId });
        return row is not null && (await events.WithBinAsync(organisationId, [row.EventId])).GetValueOrDefault(row.EventId) is { } now
            ? ToRevision(row, now, await NamedAsync(organisationId, [row.Content])).Event
            : null;
    }

    private sealed record NewsRow(
        Guid EventId, int? Version, string? Act, Guid? ActId, Instant? MadeAt, string? Content, Instant SavedAt, bool IsNew, bool InBin);

    private const int MostNews = 2_000;

    /// <summary>Events of some calendars that were saved since an instant, as they are, and as their readers knew them before
    /// that.</summary>
    /// <remarks>What went out since then was first known as it stood an hour later: what is put right at once is no news.</remarks>
    public async Task<IReadOnlyList<EventNews>> SinceAsync(Guid organisationId, Guid[] calendars, Instant since)
    {
        var rows = await database.ListAsync<NewsRow>($"""
            select s.event_id, known.version, known.act, known.act_id, known.made_at, known.content, s.saved_at,
                coalesce(first.out_at > @since, true) as is_new, e.removed_at is not null as in_bin
            from (
                select r.event_id, max(r.made_at) as saved_at
                from revision r
                where r.organisation_id = @organisationId and r.made_at >= @since
                group by r.event_id
            ) s
            join event e on e.id = s.event_id
            left join lateral (
                select min(r.made_at) as out_at from revision r where r.event_id = s.event_id and r.content ->> 'state' = 'live'
            ) first on true
            left join lateral (
                select r.version, r.act, r.act_id, r.made_at, r.content::text as content
                from revision r
                where r.event_id = s.event_id and r.made_at < greatest(@since, first.out_at + interval '1 hour')
                order by r.version desc
                limit 1
            ) known on true
            where e.organisation_id = @organisationId
              and exists (select from calendar c where c.id = e.home_calendar_id and c.removed_at is null)
              and (e.home_calendar_id = any(@calendars) or exists (select from placement p where p.event_id = e.id
                  and p.calendar_id = any(@calendars)))
            order by s.saved_at desc
            limit {MostNews}
            """, new { organisationId, calendars, since });
        if (rows.Count == 0)
            return [];
        var stored = await events.WithBinAsync(organisationId, [.. rows.Select(row => row.EventId)]);
        var named = await NamedAsync(organisationId, rows.Select(row => row.Content).OfType<string>());
        return [.. from row in rows
                   let now = stored.GetValueOrDefault(row.EventId)
                   where now is not null
                   let before = row.Content is null
                       ? null
                       : ToRevision(
                           new Row(row.EventId, row.Version!.Value, row.Act!, row.ActId!.Value, "", row.MadeAt!.Value, row.Content),
                               now, named)
                   select new EventNews(
                       row.InBin ? null : now, before is null or { IsRemoved: true } ? null : before.Event, row.SavedAt, row.IsNew)];
    }

    /// <summary>What some stored versions name by id.</summary>
    private async Task<Named> NamedAsync(Guid organisationId, IEnumerable<string> stored)
    {
        var wanted = RevisionDocument.FilesOf(stored);
        return new Named(
            await database.ReadManyAsync(NamedLists.OfOrganisation, new { organisationId }, NamedLists.ReadAsync),
            wanted.Length == 0
                ? Named.Nothing.Files
                : (await files.SomeAsync(organisationId, wanted)).ToDictionary(one => one.File.Id, one => one.File));
    }

    private static Revision ToRevision(Row row, CalendarEvent now, Named named)
    {
        var (then, isRemoved) = RevisionDocument.Read(row.Content, now, named);
        return new Revision(row.Version, Words.Read<EventAct>(row.Act), row.ActId, row.Name, row.MadeAt, isRemoved, then);
    }
}
