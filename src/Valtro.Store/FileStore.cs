using Dapper;
using NodaTime;
using Valtro.Core.Events;

namespace Valtro.Store;

/// <summary>A file with what is in it.</summary>
/// <param name="Version">Rises when another version takes its place.</param>
public sealed record StoredFile(Guid Id, string Name, string Type, byte[] Content, int Version);

/// <summary>Files of events. An event names the files it holds; a file that none names any more goes.</summary>
public sealed class FileStore(Database database)
{
    public const int Largest = 10 * 1024 * 1024;

    public async Task<EventFile> AddAsync(Guid organisationId, string name, string type, byte[] content, Guid accountId, Instant now)
    {
        var id = Guid.CreateVersion7();
        await database.ExecuteAsync("""
            insert into file (id, organisation_id, name, type, content, made_by, made_at)
            values (@id, @organisationId, @name, @type, @content, @accountId, @now)
            """, new { id, organisationId, name, type, content, accountId, now });
        return new EventFile(id, name, type, content.Length);
    }

    /// <summary>Some files, with who brought each.</summary>
    public async Task<IReadOnlyList<(EventFile File, Guid MadeBy)>> SomeAsync(Guid organisationId, Guid[] ids) =>
        [.. (await database.ListAsync<(Guid Id, string Name, string Type, long Size, Guid MadeBy)>("""
            select id, name, type, octet_length(content)::bigint, made_by
            from file
            where organisation_id = @organisationId and id = any(@ids)
            """, new { organisationId, ids })).Select(row => (new EventFile(row.Id, row.Name, row.Type, row.Size), row.MadeBy))];

    public Task<StoredFile?> FindAsync(Guid organisationId, Guid id) => database.FirstAsync<StoredFile>("""
        select id, name, type, content, version
        from file
        where organisation_id = @organisationId and id = @id
        """, new { organisationId, id });

    /// <summary>How many events hold a file, those in the bin among them, and all calendars on which they stand.</summary>
    public async Task<(int Events, IReadOnlyList<Guid> Calendars)> HoldingAsync(Guid organisationId, Guid fileId)
    {
        var held = await database.ListAsync<(Guid EventId, Guid CalendarId)>("""
            with held as (
                select e.id, e.home_calendar_id
                from event e
                where e.organisation_id = @organisationId
                  and exists (select from event_reference r where r.event_id = e.id and r.file_id = @fileId and r.ended_at is null)
            )
            select id, home_calendar_id from held
            union
            select p.event_id, p.calendar_id from placement p join held on held.id = p.event_id
            """, new { organisationId, fileId });
        return (held.DistinctBy(one => one.EventId).Count(), [.. held.Select(one => one.CalendarId).Distinct()]);
    }

    /// <summary>Puts another version in its place: its address stays. What was rendered with the old one is served no more.</summary>
    /// <param name="calendars">Of the events that hold it.</param>
    /// <returns>False where it is gone.</returns>
    public Task<bool> ReplaceAsync(Guid organisationId, Guid id, byte[] content, IReadOnlyCollection<Guid> calendars, Instant now,
        AuditLine audit) => database.InTransactionAsync(async transaction =>
    {
        var done = await transaction.Connection!.ExecuteAsync(
            "update file set content = @content, version = version + 1 where organisation_id = @organisationId and id = @id",
            new { organisationId, id, content }, transaction);
        if (done == 0)
            return false;
        await GoingOut.ChangedAsync(transaction, organisationId, calendars, now, takesAway: true);
        await AuditStore.WriteAsync(transaction, organisationId, audit);
        return true;
    });

    /// <summary>Deletes what was brought before <paramref name="before"/> and what no event, no version of the last 90 days, no proposal, no
    /// place and no template names.</summary>
    public Task<int> SweepAsync(Instant before) => database.ExecuteAsync("""
        delete from file f
        where f.made_at < @before
          and not exists (select from event_reference r where r.file_id = f.id)
          and not exists (select from submission s where s.organisation_id = f.organisation_id and s.state in ('open', 'sentback')
              and s.request::text like '%' || f.id || '%')
          and not exists (select from place p where p.picture_id = f.id)
          and not exists (select from event_template t where t.organisation_id = f.organisation_id
              and t.request::text like '%' || f.id || '%')
        """, new { before });
}
