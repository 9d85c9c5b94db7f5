using System.Data.Common;
using Dapper;
using NodaTime;
using Valtro.Core;
using Valtro.Core.Acts;
using Valtro.Core.Events;

namespace Valtro.Store;

/// <summary>Writes events within the transaction of an act.</summary>
internal static class EventWriting
{
    /// <summary>Writes all events of one act: events, revisions, and the new version of their calendars. However many events there are, the
    /// statements are as many.</summary>
    /// <exception cref="NotFoundException">There is no such calendar, or no such event, in the organisation.</exception>
    /// <exception cref="ChangedMeanwhileException">A version is not the stored one any more.</exception>
    /// <exception cref="RuleException">The calendar is full.</exception>
    public static async Task<ActDone> WriteAsync(
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
        if (fullest > EventStore.MostEvents)
            throw new RuleException("calendarId", "event.calendarFull", ("most", EventStore.MostEvents));
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
