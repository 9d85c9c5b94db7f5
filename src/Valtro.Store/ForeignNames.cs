using System.Data.Common;
using Dapper;
using Valtro.Core.Events;
using Valtro.Core.Intake;

namespace Valtro.Store;

/// <summary>What others call events that came from them, and how they said them when they were taken last.</summary>
public sealed class ForeignNames(Database database, EventStore events)
{
    /// <summary>By which names of events in files are known.</summary>
    internal const string Files = "file";

    private const string Columns = """
        select f.uid, f.event_id, f.content::text as content
        from foreign_name f
        where f.organisation_id = @organisationId and f.source = @source and f.recurrence_id = ''

        """;

    private sealed record Row(string Uid, Guid? EventId, string? Content);

    /// <summary>Events that names of files stand for: by what was taken before, else by our own names.</summary>
    public async Task<IReadOnlyDictionary<string, KnownIncoming>> OfFilesAsync(Guid organisationId, IReadOnlyCollection<string> uids) =>
        (await ReadAsync(organisationId, Columns + """
            and f.uid = any(@uids)
            union all
            select e.uid, e.id, null
            from event e
            where e.organisation_id = @organisationId and e.uid = any(@uids)
            """, new { organisationId, source = Files, uids = uids.ToArray() })).Known;

    /// <summary>All that is known of a followed source's entries.</summary>
    public async Task<SourceKnown> OfSourceAsync(Guid organisationId, Guid sourceId)
    {
        var (known, rows) =
            await ReadAsync(organisationId, Columns + "limit 50000", new { organisationId, source = sourceId.ToString() });
        return new SourceKnown(
            known, rows.Where(row => row is { EventId: null, Content: not null }).Select(row => row.Uid).ToHashSet(StringComparer.Ordinal),
            await events.OfSourceAsync(organisationId, sourceId));
    }

    private async Task<(IReadOnlyDictionary<string, KnownIncoming> Known, List<Row> Rows)> ReadAsync(
        Guid organisationId, string sql, object parameters)
    {
        var (rows, named) = await database.ReadManyAsync($"{sql};\n{NamedLists.OfOrganisation}", parameters, async results =>
        {
            var rows = (await results.ReadAsync<Row>()).AsList();
            return (rows, Named.Nothing with { Lists = await NamedLists.ReadAsync(results) });
        });
        Guid[] ids = [.. rows.Select(row => row.EventId).OfType<Guid>().Distinct()];
        var stored = await events.StoredAsync(organisationId, ids);
        var known = rows.Where(row => row.EventId is { } id && stored.ContainsKey(id)).GroupBy(row => row.Uid, StringComparer.Ordinal)
            .ToDictionary(group => group.Key, group =>
            {
                var (_, id, content) = group.First();
                var one = stored[id!.Value];
                return new KnownIncoming(one, content is null ? null : RevisionDocument.Read(content, one.Event, named).Event);
            }, StringComparer.Ordinal);
        return (known, rows);
    }

    internal static Task PutAsync(DbTransaction transaction, Guid organisationId, string source,
        IReadOnlyList<(string Uid, Guid EventId, CalendarEvent Said)> names, Guid? actId) => names.Count == 0
        ? Task.CompletedTask
        : transaction.Connection!.ExecuteAsync("""
            insert into foreign_name (organisation_id, source, uid, recurrence_id, event_id, content, act_id)
            select @organisationId, @source, n.uid, '', n.event_id, n.content::jsonb, @actId
            from unnest(@uids, @events, @contents) n (uid, event_id, content)
            on conflict (organisation_id, source, uid, recurrence_id) do update
            set event_id = excluded.event_id, content_before = foreign_name.content, content = excluded.content, act_id = excluded.act_id
            """, new
        {
            organisationId,
            source,
            actId,
            uids = names.Select(one => one.Uid).ToArray(),
            events = names.Select(one => one.EventId).ToArray(),
            contents = names.Select(one => RevisionDocument.Write(one.Said, false)).ToArray(),
        }, transaction);

    /// <summary>A source does not say them any more; it may again.</summary>
    internal static Task UnsaidAsync(DbTransaction transaction, Guid organisationId, Guid sourceId, IReadOnlyList<string> uids) =>
        transaction.Connection!.ExecuteAsync("""
            update foreign_name set content = null
            where organisation_id = @organisationId and source = @source and uid = any(@uids)
            """, new { organisationId, source = sourceId.ToString(), uids = uids.ToArray() }, transaction);

    /// <summary>That an entry was removed here so long ago that its event is gone: it is brought again.</summary>
    internal static Task ForgetHiddenAsync(DbTransaction transaction, Guid organisationId, Guid sourceId, string uid) =>
        transaction.Connection!.ExecuteAsync(
            "delete from foreign_name where organisation_id = @organisationId and source = @source and uid = @uid and event_id is null",
            new { organisationId, source = sourceId.ToString(), uid }, transaction);

    internal static Task ForgetAsync(DbTransaction transaction, Guid organisationId, Guid sourceId) =>
        transaction.Connection!.ExecuteAsync(
            "delete from foreign_name where organisation_id = @organisationId and source = @source",
            new { organisationId, source = sourceId.ToString() }, transaction);

    /// <summary>An act that took something in is taken back: what files said before counts again.</summary>
    internal static Task UndoAsync(DbTransaction transaction, Guid organisationId, Guid actId) => transaction.Connection!.ExecuteAsync("""
        update foreign_name
        set content = content_before, content_before = null, act_id = null
        where organisation_id = @organisationId and act_id = @actId
        """, new { organisationId, actId }, transaction);
}
