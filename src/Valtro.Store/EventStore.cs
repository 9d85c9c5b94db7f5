using System.Data.Common;
using Dapper;
using NodaTime;
using Valtro.Core;
using Valtro.Core.Acts;
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

    /// <summary>Writes all events of one act: events, revisions, and the new version of their calendars. However many events there are, the
    /// statements are as many.</summary>
    /// <exception cref="NotFoundException">There is no such calendar, or no such event, in the organisation.</exception>
    /// <exception cref="ChangedMeanwhileException">A version is not the stored one any more.</exception>
    /// <exception cref="RuleException">The calendar is full.</exception>
    internal static async Task<ActDone> WriteAsync(
        DbTransaction transaction, Guid organisationId, IReadOnlyList<EventWrite> writes, Guid accountId, Instant now, Guid actId)
    {
        var events = writes.Select(write => (Event: write.Version is null ? Made(write.Event) : write.Event, Write: write)).ToArray();
        var (news, known) =
            (events.Where(one => one.Write.Version is null).ToArray(), events.Where(one => one.Write.Version is not null).ToArray());
        var touched = events.SelectMany(one => one.Event.Calendars).ToHashSet();
        if (known.Length > 0)
            touched.UnionWith(await UpdateAsync(transaction, organisationId, known, now));
        if (news.Length > 0)
            await InsertAsync(transaction, organisationId, news, accountId, now);
        await RecordAsync(transaction, organisationId, events, actId, accountId, now);
        var written = events.Select(one => (one.Event.Id, (one.Write.Version ?? 0) + 1)).ToList();
        await LetNamesFollowAsync(transaction, writes, written);
        await GoingOut.ChangedAsync(transaction, organisationId, touched, now, writes.Any(write => write.TakesAway));
        return new ActDone(actId, written);
    }

    private static CalendarEvent Made(CalendarEvent asked) =>
        asked with { Id = Guid.CreateVersion7(), Uid = asked.Uid.IsNone ? Uid.New() : asked.Uid };

    private static Task LetNamesFollowAsync(
        DbTransaction transaction, IReadOnlyList<EventWrite> writes, List<(Guid Id, int Version)> written)
    {
        var following = writes.Select((write, place) => (write, place)).Where(one => one.write.Follows is not null)
            .ToDictionary(one => one.write.Event.Id);
        return following.Count == 0 ? Task.CompletedTask : DeliveredStore.FollowAsync(
            transaction, [.. following.Keys],
                (id, date) => following[id].write.Follows!(date) is { } to ? (written[following[id].place + to.Index].Id, to.Date) : null);
    }

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

    private static async Task InsertAsync(
        DbTransaction transaction, Guid organisationId, IReadOnlyList<(CalendarEvent Event, EventWrite Write)> news, Guid accountId,
            Instant now)
    {
        var columns = new EventColumns(news);
        var (added, fullest) = await transaction.Connection!.QuerySingleAsync<(int Added, int Fullest)>("""
            with added as (
                insert into event (id, organisation_id, home_calendar_id, uid, state, content, continues, made_by, reach, created_at, source_id)
                select w.id, @organisationId, c.id, w.uid, w.state, w.content::jsonb, w.continues, @accountId, w.reach::tstzrange,
                    @now, w.source
                from unnest(@Ids, @Homes, @Uids, @States, @Contents, @Continued, @Reaches, @Sources) w (id, home, uid, state, content,
                    continues, reach, source)
                join calendar c on c.organisation_id = @organisationId and c.id = w.home and c.removed_at is null
                returning home_calendar_id
            )
            select (select count(*) from added)::integer as added,
                   coalesce((select max(h.count + h.added)
                             from (select (select count(*) from event e where e.home_calendar_id = a.home_calendar_id
                                 and e.removed_at is null) as count, count(*) as added
                                   from added a
                                   group by a.home_calendar_id) h), 0)::integer as fullest
            """, Parameters(columns, new { organisationId, accountId, now }), transaction);
        if (added != news.Count)
            throw new NotFoundException("calendar");
        if (fullest > MostEvents)
            throw new RuleException("calendarId", "event.calendarFull", ("most", MostEvents));
        await PushStore.ContinueAsync(
            transaction, organisationId, [.. news.Where(one => one.Event.Continues is not null).Select(one => one.Event.Id)]);
    }

    /// <returns>The calendars that they were shown on before.</returns>
    private static async Task<IReadOnlyCollection<Guid>> UpdateAsync(
        DbTransaction transaction, Guid organisationId, IReadOnlyList<(CalendarEvent Event, EventWrite Write)> known, Instant now)
    {
        var columns = new EventColumns(known);
        var before = (await transaction.Connection!.QueryAsync<(Guid Id, int Version, Guid[] Calendars)>("""
            select id, version, array(select p.calendar_id from placement p where p.event_id = e.id) || home_calendar_id
            from event e
            where organisation_id = @organisationId and id = any(@Ids)
            order by id
            for update
            """, Parameters(columns, new { organisationId }), transaction)).ToDictionary(row => row.Id);
        foreach (var (written, write) in known)
        {
            if (!before.TryGetValue(written.Id, out var stored))
                throw new NotFoundException("event");
            if (stored.Version != write.Version)
                throw new ChangedMeanwhileException();
        }
        await transaction.Connection!.ExecuteAsync("""
            update event e
            set home_calendar_id = w.home,
                state = w.state,
                content = w.content::jsonb,
                reach = w.reach::tstzrange,
                removed_at = case when w.removed then coalesce(e.removed_at, @now) end,
                -- one that is not followed any more is none
                source_id = (select s.id from source s where s.organisation_id = e.organisation_id and s.id = w.source),
                version = e.version + 1
            from unnest(@Ids, @Homes, @States, @Contents, @Reaches, @Removed, @Sources) w (id, home, state, content, reach, removed, source)
            where e.id = w.id
            """, Parameters(columns, new { now }), transaction);
        return [.. before.Values.SelectMany(row => row.Calendars).Distinct()];
    }

    /// <summary>What belongs to events and follows from them: where they are placed, what their documents name, and a revision
    /// each.</summary>
    /// <exception cref="NotFoundException">There is no such calendar in the organisation.</exception>
    private static async Task RecordAsync(
        DbTransaction transaction, Guid organisationId, IReadOnlyList<(CalendarEvent Event, EventWrite Write)> events, Guid actId,
            Guid accountId, Instant now)
    {
        var columns = new EventColumns(events);
        var placed = events.SelectMany(one =>
            one.Event.Placements.Where(id => id != one.Event.HomeCalendarId).Distinct().Select(id => (one.Event.Id, Calendar: id)))
            .ToArray();
        var named = events.SelectMany(one => References(one.Event)).Distinct().ToArray();
        var there = await transaction.Connection!.ExecuteScalarAsync<int>("""
            with written as (
                select * from unnest(@Ids, @Versions, @Acts, @Revisions, @Reaches) w (id, version, act, content, reach)
            ), wanted as (
                select * from unnest(@placedEvents, @placedOn) w (event_id, calendar_id)
            ), taken_off as (
                delete from placement p
                where p.event_id = any(@Ids) and not exists (select from wanted w where w.event_id = p.event_id
                    and w.calendar_id = p.calendar_id)
            ), placed as (
                insert into placement (organisation_id, event_id, calendar_id, reach)
                select @organisationId, w.event_id, c.id, e.reach::tstzrange
                from wanted w
                join written e on e.id = w.event_id
                join calendar c on c.organisation_id = @organisationId and c.id = w.calendar_id
                on conflict (event_id, calendar_id) do update set reach = excluded.reach
                returning event_id
            ), named as (
                select * from unnest(@namingEvents, @namedKinds, @namedIds) n (event_id, kind, target)
            ), ended as (
                update event_reference r
                set ended_at = @now
                where r.event_id = any(@Ids) and r.ended_at is null
                  and not exists (select from named n where n.event_id = r.event_id and n.kind = r.kind and n.target = r.target)
            ), references_made as (
                insert into event_reference (organisation_id, event_id, kind, target)
                select @organisationId, event_id, kind, target from named
                on conflict (event_id, kind, target) do update set ended_at = null
            ), revised as (
                insert into revision (organisation_id, event_id, version, act, act_id, account_id, made_at, content)
                select @organisationId, id, version, act, @actId, @accountId, @now, content::jsonb from written
            )
            select count(*)::integer from placed
            """, Parameters(columns, new
        {
            organisationId,
            actId,
            accountId,
            now,
            placedEvents = placed.Select(one => one.Id).ToArray(),
            placedOn = placed.Select(one => one.Calendar).ToArray(),
            namingEvents = named.Select(one => one.Event).ToArray(),
            namedKinds = named.Select(one => one.Kind).ToArray(),
            namedIds = named.Select(one => one.Target).ToArray(),
        }), transaction);
        if (there != placed.Length)
            throw new NotFoundException("calendar");
    }

    /// <summary>What a document names by id, and must not vanish while it does.</summary>
    private static IEnumerable<(Guid Event, string Kind, Guid Target)> References(CalendarEvent written) =>
        EventField.All.Select(field => field.Of(written.Content))
            .Concat(written.Exceptions.SelectMany(exception => exception.Own.Values.Select(own => own.Value)))
            .SelectMany(value => value switch
            {
                Category category => [(written.Id, "category", category.Id)],
                Place { Id: { } id } => [(written.Id, "place", id)],
                IEnumerable<EventFile> files => files.Select(file => (written.Id, "file", file.Id)),
                IEnumerable<Involved> people => people.Where(one => one.MemberId is not null).Select(
                    one => (written.Id, "member", one.MemberId!.Value)),
                _ => Enumerable.Empty<(Guid, string, Guid)>(),
            });

    private static DynamicParameters Parameters(EventColumns columns, object more)
    {
        var parameters = new DynamicParameters(columns);
        parameters.AddDynamicParams(more);
        return parameters;
    }
}
