using Dapper;
using NodaTime;
using Valtro.Core.Events;
using Valtro.Core.Time;

namespace Valtro.Store;

public sealed class EventStore(Database database)
{
    private readonly EventMemory _memory = new();

    /// <summary>A feed holds every event of its calendar; beyond this programs outside choke on it.</summary>
    public const int MostEvents = 20_000;

    public static readonly Duration KeptInBin = Duration.FromDays(90);

    private const string IsOnCalendarInUse =
        """
        and e.home_calendar_id <> all(array(
            select c.id from calendar c where c.organisation_id = @organisationId and c.removed_at is not null))
        """;

    /// <summary>Compares nothing before the wall but what leaks nothing: else no index would help behind it
    /// (docs/decisions/walls.md).</summary>
    internal const string IsInWindow =
        """
        e.organisation_id = @organisationId
          and e.removed_at is null
          and ((e.home_calendar_id = any(@calendars) and e.reach_to >= @from and e.reach_from < @to)
               or e.id = any(array(
                   select event_id from placement where calendar_id = any(@calendars) and reach_to >= @from and reach_from < @to)))
        """;

    /// <summary>Events of some calendars whose dates may fall in the window, removed ones not among them.</summary>
    public Task<IReadOnlyList<CalendarEvent>> InWindowAsync(Guid organisationId, Guid[] calendars, Window window) => ListAsync($"""
            where {IsInWindow}
              {IsOnCalendarInUse}
            order by e.id
            """, new
    {
        organisationId,
        calendars,
        from = window.From - Duration.FromDays(1),
        to = window.To + Duration.FromDays(1),
    });

    /// <summary>All events that are shown on a calendar: those at home there and those placed there.</summary>
    public Task<IReadOnlyList<CalendarEvent>> OfCalendarAsync(Guid organisationId, Guid calendarId) =>
        OfCalendarsAsync(organisationId, [calendarId]);

    /// <summary>All events that are shown on some calendars, each once.</summary>
    public Task<IReadOnlyList<CalendarEvent>> OfCalendarsAsync(Guid organisationId, Guid[] calendars) => ListAsync($"""
            where e.organisation_id = @organisationId
              and e.removed_at is null
              and (e.home_calendar_id = any(@calendars)
                or e.id = any(array(select event_id from placement where calendar_id = any(@calendars))))
              {IsOnCalendarInUse}
            order by e.id
            """, new { organisationId, calendars });

    /// <summary>All that stand on a calendar, at home or placed, those in the bin too, for whoever writes them.</summary>
    public Task<IReadOnlyList<StoredEvent>> StandingOnAsync(Guid organisationId, Guid calendarId) => StoredAsync("""
            where e.organisation_id = @organisationId
              and (e.home_calendar_id = @calendarId or e.id = any(array(select event_id from placement where calendar_id = @calendarId)))
            order by e.id
            """, new { organisationId, calendarId });

    /// <summary>Those of some that are not in the bin.</summary>
    public Task<IReadOnlyList<CalendarEvent>> SomeAsync(Guid organisationId, Guid[] ids) => ListAsync($"""
            where e.organisation_id = @organisationId and e.removed_at is null and e.id = any(@ids)
              {IsOnCalendarInUse}
            """, new { organisationId, ids });

    /// <summary>The event that programs outside know by a name, if it is not in the bin.</summary>
    public async Task<CalendarEvent?> WithUidAsync(Guid organisationId, Uid uid) => (await ListAsync($"""
            where e.organisation_id = @organisationId and e.removed_at is null and e.uid = @uid
              {IsOnCalendarInUse}
            """, new { organisationId, uid = uid.Text })).FirstOrDefault();

    /// <summary>The same, in the bin too.</summary>
    public async Task<(CalendarEvent Event, bool IsRemoved)?> WithUidInBinTooAsync(Guid organisationId, Uid uid)
    {
        var found = (await ListAsync(
            "where e.organisation_id = @organisationId and e.uid = @uid", new { organisationId, uid = uid.Text })).FirstOrDefault();
        return found is null ? null : (found, await WithUidAsync(organisationId, uid) is null);
    }

    /// <summary>Events that a followed source says, removed ones not among them.</summary>
    public Task<IReadOnlyList<StoredEvent>> OfSourceAsync(Guid organisationId, Guid sourceId, bool withBin = false) => StoredAsync("""
            where e.organisation_id = @organisationId and e.source_id = @sourceId and (e.removed_at is null or @withBin)
            order by e.id
            """, new { organisationId, sourceId, withBin });

    /// <summary>Events that hold a file, removed ones not among them.</summary>
    public Task<IReadOnlyList<CalendarEvent>> WithFileAsync(Guid organisationId, Guid fileId) => ListAsync("""
            where e.organisation_id = @organisationId and e.removed_at is null
              and exists (select from event_reference r where r.event_id = e.id and r.file_id = @fileId and r.ended_at is null)
            limit 100
            """, new { organisationId, fileId });

    /// <summary>Some events, those in the bin too.</summary>
    public async Task<IReadOnlyDictionary<Guid, CalendarEvent>> WithBinAsync(Guid organisationId, Guid[] ids) =>
        (await ListAsync("where e.organisation_id = @organisationId and e.id = any(@ids)", new { organisationId, ids }))
            .ToDictionary(found => found.Id);

    /// <summary>The series on whose dates the year plan has a say.</summary>
    public Task<IReadOnlyList<CalendarEvent>> FollowingYearPlanAsync(Guid organisationId) => ListAsync("""
            where e.organisation_id = @organisationId
              and e.removed_at is null
              and (e.content -> 'when' ? 'cycle' or (e.content -> 'when' ? 'inBreaks' and e.content -> 'when' ? 'rule'))
            order by e.id
            """, new { organisationId });

    /// <summary>What was removed since <paramref name="since"/>, latest first.</summary>
    public Task<IReadOnlyList<StoredEvent>> BinAsync(Guid organisationId, Instant since) => StoredAsync("""
            where e.organisation_id = @organisationId and e.removed_at > @since
            order by e.removed_at desc
            limit 500
            """, new { organisationId, since });

    /// <summary>Series of some calendars from which single dates were taken out.</summary>
    public Task<IReadOnlyList<CalendarEvent>> WithDatesTakenOutAsync(Guid organisationId, Guid[] calendars) => ListAsync("""
            where e.organisation_id = @organisationId and e.home_calendar_id = any(@calendars) and e.removed_at is null
              and e.content -> 'when' ? 'removed'
            order by e.id
            limit 2000
            """, new { organisationId, calendars });

    public async Task<IReadOnlyDictionary<Guid, int>> CountsAsync(Guid organisationId) =>
        (await database.ListAsync<(Guid Id, int Count)>("""
            select calendar_id, sum(events)::integer
            from (select home_calendar_id as calendar_id, count(*) as events
                  from event
                  where organisation_id = @organisationId and removed_at is null and state in ('live', 'cancelled')
                  group by home_calendar_id
                  union all
                  select p.calendar_id, count(*)
                  from placement p
                  join event e on e.id = p.event_id and e.removed_at is null and e.state in ('live', 'cancelled')
                  where p.organisation_id = @organisationId
                  group by p.calendar_id) counted
            group by calendar_id
            """, new { organisationId })).ToDictionary(row => row.Id, row => row.Count);

    public async Task<StoredEvent?> FindAsync(Guid organisationId, Guid id) =>
        (await StoredAsync(organisationId, [id])).GetValueOrDefault(id);

    /// <summary>Those that there are of some, in one round trip however many.</summary>
    public async Task<IReadOnlyDictionary<Guid, StoredEvent>> StoredAsync(Guid organisationId, Guid[] ids) => ids.Length == 0
        ? new Dictionary<Guid, StoredEvent>()
        : (await StoredAsync("where e.organisation_id = @organisationId and e.id = any(@ids)", new { organisationId, ids }))
            .ToDictionary(stored => stored.Event.Id);

    /// <summary>Those that name an entry of the organisation's lists, in the bin too.</summary>
    public Task<IReadOnlyList<StoredEvent>> NamingAsync(ListKind kind, Guid organisationId, Guid id) => StoredAsync($"""
            where e.organisation_id = @organisationId
              and exists (
                select from event_reference r where r.event_id = e.id and r.{Words.Of(kind)}_id = @id and r.ended_at is null)
            """, new { organisationId, id });

    /// <summary>Those that say in words that they are somewhere, or one of whose dates does, in the bin too.</summary>
    public Task<IReadOnlyList<StoredEvent>> SayingTheyAreAtAsync(Guid organisationId, string place) => StoredAsync("""
            where e.organisation_id = @organisationId
              and ((jsonb_typeof(e.content -> 'place') = 'string' and lower(e.content ->> 'place') = lower(@place))
                   or exists (
                        select from jsonb_array_elements(e.content -> 'exceptions') x
                        where jsonb_typeof(x #> '{own,place}') = 'string' and lower(x #>> '{own,place}') = lower(@place)))
            """, new { organisationId, place });

    private Task<IReadOnlyList<StoredEvent>> StoredAsync(string condition, object parameters) =>
        ReadAsync(EventRow.ColumnsWithSaver + condition, parameters, (row, lists) => row.ToStored(lists));

    /// <summary>First which events in which version, then of those that are not known yet what they say.</summary>
    private async Task<IReadOnlyList<CalendarEvent>> ListAsync(string condition, object parameters)
    {
        var (keys, lists) = await database.ReadManyAsync(
            $"select e.id, e.version, e.organisation_id from event e {condition};\n{NamedLists.OfOrganisation}", parameters,
            async results =>
                ((await results.ReadAsync<(Guid Id, int Version, Guid OrganisationId)>()).AsList(), await NamedLists.ReadAsync(results)));
        var found = new CalendarEvent?[keys.Count];
        var missing = new List<Guid>();
        for (var place = 0; place < found.Length; place++)
        {
            found[place] = _memory.Find(keys[place].Id, keys[place].Version, lists);
            if (found[place] is null)
                missing.Add(keys[place].Id);
        }
        if (missing.Count == 0)
            return found!;
        var read = (await ReadAsync(
            EventRow.Columns + "where e.organisation_id = @organisationId and e.id = any(@missing)",
            new { keys[0].OrganisationId, missing = missing.ToArray() },
            (row, named) => row.ToEvent(named))).ToDictionary(one => one.Id);
        foreach (var one in read.Values)
            _memory.Remember(one);
        // What was deleted between the two questions is left out.
        return [.. found.Select((known, place) => known ?? read.GetValueOrDefault(keys[place].Id)).OfType<CalendarEvent>()];
    }

    private Task<IReadOnlyList<T>> ReadAsync<T>(string sql, object parameters,
        Func<EventRow, NamedLists, T> make) =>
        database.ReadManyAsync<IReadOnlyList<T>>($"{sql};\n{NamedLists.OfOrganisation}", parameters, async results =>
        {
            var rows = (await results.ReadAsync<EventRow>()).AsList();
            var lists = await NamedLists.ReadAsync(results);
            return [.. rows.Select(row => make(row, lists))];
        });

    /// <summary>Empties the bin of what has rested there long enough.</summary>
    /// <returns>How many events are gone for good.</returns>
    public Task<int> EmptyBinAsync(Instant removedBefore) =>
        database.InTransactionAsync(transaction => transaction.Connection!.ExecuteAsync("""
        with old as (
            select id from event where removed_at < @removedBefore order by removed_at limit 1000 for update skip locked
        ), revisions as (
            delete from revision r using old where r.event_id = old.id
        ), names as (
            delete from foreign_name f using old where f.event_id = old.id and f.source = 'file'
        )
        delete from event e using old where e.id = old.id
        """, new { removedBefore }, transaction));

    /// <summary>Lets go what no event has named since, so that files may go that only old versions name.</summary>
    public Task<int> ForgetReferencesAsync(Instant endedBefore) =>
        database.ExecuteAsync("delete from event_reference where ended_at < @endedBefore", new { endedBefore });
}
