using System.Data.Common;
using Dapper;
using NodaTime;
using Valtro.Core;
using Valtro.Core.Events;
using Valtro.Core.Time;

namespace Valtro.Store;

/// <summary>An event with what its editors need: the version checked on save, and who saved it last.</summary>
/// <param name="MadeBy">Who made it, where that is known.</param>
public sealed record StoredEvent(CalendarEvent Event, int Version, Instant? RemovedAt, string SavedBy, Instant SavedAt, Guid? MadeBy)
{
    public bool IsRemoved => RemovedAt is not null;
}

/// <summary>What was done to an event.</summary>
public enum EventAct
{
    Made,
    Changed,
    Cancelled,
    Removed,
    Restored,
    Undone,
}

/// <summary>One event that an act writes.</summary>
/// <param name="Event">As it is afterwards. A new one has an empty id.</param>
/// <param name="Version">The version that the editor saw; null for a new event.</param>
public sealed record EventWrite(CalendarEvent Event, int? Version, EventAct Act, bool IsRemoved = false)
{
    /// <summary>Where a date has gone: to this event, or to one that the act writes so many places further on; and to which date. Null where no date is the same one.</summary>
    public Func<LocalDateTime, (int Index, LocalDateTime Date)?>? Follows { get; init; }

    /// <summary>Some audience sees less of it from now on, or may: what was rendered before is served no more.</summary>
    public bool TakesAway { get; init; } = Version is not null;
}

/// <summary>What an act wrote, in the order it was given; its id undoes it.</summary>
public sealed record ActDone(Guid ActId, IReadOnlyList<(Guid Id, int Version)> Events);

public sealed class EventStore(Database database)
{
    /// <summary>A feed holds every event of its calendar; beyond this programs outside choke on it.</summary>
    public const int MostEvents = 20_000;

    public static readonly Duration KeptInBin = Duration.FromDays(90);

    /// <summary>Events of some calendars whose dates may fall in the window, removed ones not among them.</summary>
    public Task<IReadOnlyList<CalendarEvent>> InWindowAsync(Guid organisationId, Guid[] calendars, Window window) => ListAsync("""
            where e.organisation_id = @organisationId
              and e.removed_at is null
              and (e.home_calendar_id = any(@calendars)
                   or exists (select from placement p where p.event_id = e.id and p.calendar_id = any(@calendars)))
              and exists (select from calendar c where c.id = e.home_calendar_id and c.removed_at is null)
              and e.reach && tstzrange(@from, @to)
            order by e.id
            """, new
    {
        organisationId,
        calendars,
        from = window.From - Duration.FromDays(1),
        to = window.To + Duration.FromDays(1),
    });

    /// <summary>All events that are shown on a calendar: those at home there and those placed there.</summary>
    public Task<IReadOnlyList<CalendarEvent>> OfCalendarAsync(Guid organisationId, Guid calendarId) => OfCalendarsAsync(organisationId, [calendarId]);

    /// <summary>All events that are shown on some calendars, each once.</summary>
    public Task<IReadOnlyList<CalendarEvent>> OfCalendarsAsync(Guid organisationId, Guid[] calendars) => ListAsync("""
            where e.organisation_id = @organisationId
              and e.removed_at is null
              and e.id in (select id from event where home_calendar_id = any(@calendars)
                           union all
                           select event_id from placement where calendar_id = any(@calendars))
              and exists (select from calendar c where c.id = e.home_calendar_id and c.removed_at is null)
            order by e.id
            """, new { organisationId, calendars });

    /// <summary>The event that programs outside know by a name, if it is not in the bin.</summary>
    public async Task<CalendarEvent?> WithUidAsync(Guid organisationId, Guid uid) => (await ListAsync("""
            where e.organisation_id = @organisationId and e.removed_at is null and e.uid = @uid
              and exists (select from calendar c where c.id = e.home_calendar_id and c.removed_at is null)
            """, new { organisationId, uid })).FirstOrDefault();

    /// <summary>The same, in the bin too.</summary>
    public async Task<(CalendarEvent Event, bool IsRemoved)?> WithUidInBinTooAsync(Guid organisationId, Guid uid)
    {
        var found = (await ListAsync("where e.organisation_id = @organisationId and e.uid = @uid", new { organisationId, uid })).FirstOrDefault();
        return found is null ? null : (found, await WithUidAsync(organisationId, uid) is null);
    }

    /// <summary>Events that hold a file, removed ones not among them.</summary>
    public Task<IReadOnlyList<CalendarEvent>> WithFileAsync(Guid organisationId, Guid fileId) => ListAsync("""
            where e.organisation_id = @organisationId and e.removed_at is null and e.files @> @holds::jsonb
            limit 100
            """, new { organisationId, holds = $$"""[{"id":"{{fileId}}"}]""" });

    /// <summary>Some events, those in the bin too.</summary>
    public async Task<IReadOnlyDictionary<Guid, CalendarEvent>> WithBinAsync(Guid organisationId, Guid[] ids) =>
        (await ListAsync("where e.organisation_id = @organisationId and e.id = any(@ids)", new { organisationId, ids })).ToDictionary(happening => happening.Id);

    /// <summary>The series on whose dates the year plan has a say.</summary>
    public Task<IReadOnlyList<CalendarEvent>> FollowingYearPlanAsync(Guid organisationId) => ListAsync("""
            where e.organisation_id = @organisationId
              and e.removed_at is null
              and (e.cycle_numbers is not null or (e.in_breaks <> 'ignore' and e.rrule is not null))
            order by e.id
            """, new { organisationId });

    /// <summary>What was removed since <paramref name="since"/>, latest first.</summary>
    public async Task<IReadOnlyList<StoredEvent>> BinAsync(Guid organisationId, Instant since)
    {
        var rows = await database.ListAsync<EventRow>(EventRow.Columns + """
            where e.organisation_id = @organisationId and e.removed_at > @since
            order by e.removed_at desc
            limit 500
            """, new { organisationId, since });
        var savers = await SaversAsync([.. rows.Select(row => row.Id)]);
        return [.. rows.Select(row => new StoredEvent(row.ToEvent([]), row.Version, row.RemovedAt, savers[row.Id].Name, savers[row.Id].At, row.MadeBy))];
    }

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
    public async Task<IReadOnlyDictionary<Guid, StoredEvent>> StoredAsync(Guid organisationId, Guid[] ids)
    {
        if (ids.Length == 0)
            return new Dictionary<Guid, StoredEvent>();
        var (rows, exceptions, savers) = await database.ReadManyAsync($"""
            {EventRow.Columns} where e.organisation_id = @organisationId and e.id = any(@events);
            {ExceptionRow.OfEvents};
            {Savers}
            """, new { organisationId, events = ids }, async results => (
                (await results.ReadAsync<EventRow>()).AsList(),
                (await results.ReadAsync<ExceptionRow>()).ToLookup(row => row.EventId, row => row.ToException()),
                (await results.ReadAsync<(Guid Id, string Name, Instant At)>()).ToDictionary(row => row.Id, row => (row.Name, row.At))));
        return rows.ToDictionary(row => row.Id, row =>
        {
            var (name, at) = savers.GetValueOrDefault(row.Id, ("", row.CreatedAt));
            return new StoredEvent(row.ToEvent([.. exceptions[row.Id]]), row.Version, row.RemovedAt, name, at, row.MadeBy);
        });
    }

    /// <summary>Writes all events of one act, or none: events, revisions, and the new version of their calendars.</summary>
    /// <exception cref="NotFoundException">There is no such calendar, or no such event, in the organisation.</exception>
    /// <exception cref="ChangedMeanwhileException">A version is not the stored one any more.</exception>
    /// <exception cref="RuleException">The calendar is full.</exception>
    public Task<ActDone> WriteAsync(Guid organisationId, IReadOnlyList<EventWrite> writes, Guid accountId, Instant now) =>
        database.InTransactionAsync(transaction => WriteAsync(transaction, organisationId, writes, accountId, now));

    /// <inheritdoc cref="WriteAsync(Guid, IReadOnlyList{EventWrite}, Guid, Instant)"/>
    /// <remarks>As part of something larger.</remarks>
    internal static async Task<ActDone> WriteAsync(DbTransaction transaction, Guid organisationId, IReadOnlyList<EventWrite> writes, Guid accountId, Instant now)
    {
        var actId = Guid.CreateVersion7();
        var written = new List<(Guid, int)>();
        var touched = new HashSet<Guid>();
        foreach (var write in writes)
        {
            var isNew = write.Version is null;
            var happening = isNew ? write.Event with { Id = Guid.CreateVersion7(), Uid = write.Event.Uid == Guid.Empty ? Guid.NewGuid() : write.Event.Uid } : write.Event;
            if (isNew)
                await InsertAsync(transaction, organisationId, happening, write, accountId, now);
            else
                touched.UnionWith(await UpdateAsync(transaction, organisationId, happening, write, accountId, now));
            await ReplaceExceptionsAsync(transaction, organisationId, happening);
            await ReplacePlacementsAsync(transaction, organisationId, happening);
            await ReviseAsync(transaction, organisationId, happening, write, actId, accountId, now);
            touched.UnionWith(happening.Calendars);
            written.Add((happening.Id, (write.Version ?? 0) + 1));
        }
        await LetNamesFollowAsync(transaction, writes, written);
        await CheckRoomAsync(transaction, [.. writes.Where(write => write.Version is null).Select(write => write.Event.HomeCalendarId).Distinct()]);
        await GoingOut.ChangedAsync(transaction, organisationId, touched, now, writes.Any(write => write.TakesAway));
        return new ActDone(actId, written);
    }

    private static Task LetNamesFollowAsync(DbTransaction transaction, IReadOnlyList<EventWrite> writes, List<(Guid Id, int Version)> written)
    {
        var following = writes.Select((write, place) => (write, place)).Where(one => one.write.Follows is not null).ToDictionary(one => one.write.Event.Id);
        return following.Count == 0 ? Task.CompletedTask : DeliveredStore.FollowAsync(
            transaction, [.. following.Keys], (id, date) => following[id].write.Follows!(date) is { } to ? (written[following[id].place + to.Index].Id, to.Date) : null);
    }

    /// <summary>Empties the bin of what has rested there long enough.</summary>
    /// <returns>How many events are gone for good.</returns>
    public Task<int> EmptyBinAsync(Instant removedBefore) => database.InTransactionAsync(transaction => transaction.Connection!.ExecuteAsync("""
        with old as (
            select id from event where removed_at < @removedBefore order by removed_at limit 1000 for update skip locked
        ), revisions as (
            delete from revision r using old where r.event_id = old.id
        )
        delete from event e using old where e.id = old.id
        """, new { removedBefore }, transaction));

    private async Task<IReadOnlyList<CalendarEvent>> ListAsync(string condition, object parameters)
    {
        var rows = await database.ListAsync<EventRow>(EventRow.Columns + condition, parameters);
        var exceptions = await ExceptionsAsync([.. rows.Where(row => row.Rrule is not null || row.CycleNumbers is not null || row.Extra.Length > 0).Select(row => row.Id)]);
        return [.. rows.Select(row => row.ToEvent([.. exceptions[row.Id]]))];
    }

    private async Task<ILookup<Guid, EventException>> ExceptionsAsync(Guid[] events)
    {
        var rows = events.Length == 0 ? [] : await database.ListAsync<ExceptionRow>(ExceptionRow.OfEvents, new { events });
        return rows.ToLookup(row => row.EventId, row => row.ToException());
    }

    private const string Savers = """
        select distinct on (r.event_id) r.event_id, a.name, r.made_at
        from revision r
        join account a on a.id = r.account_id
        where r.event_id = any(@events)
        order by r.event_id, r.version desc
        """;

    private async Task<Dictionary<Guid, (string Name, Instant At)>> SaversAsync(Guid[] events) =>
        (await database.ListAsync<(Guid Id, string Name, Instant At)>(Savers, new { events })).ToDictionary(row => row.Id, row => (row.Name, row.At));

    private static async Task InsertAsync(DbTransaction transaction, Guid organisationId, CalendarEvent happening, EventWrite write, Guid accountId, Instant now)
    {
        var added = await transaction.Connection!.ExecuteAsync("""
            insert into event (id, organisation_id, home_calendar_id, uid, title, place, description_html, description_text, state,
                               all_day, start_local, end_local, zone, rrule, extra, removed_dates, in_breaks,
                               cycle_numbers, cycle_weekdays, cycle_until, cycle_count, category_id, tags, continues,
                               links, files, contact, notes, cap_members, cap_link, cap_everyone, show_from, show_until, made_by,
                               reach, created_at)
            select @Id, @OrganisationId, c.id, @Uid, @Title, @Place, @Html, @Text, @State,
                   @AllDay, @Start, @End, @Zone, @Rrule, @Extra, @RemovedDates, @InBreaks,
                   @CycleNumbers, @CycleWeekdays, @CycleUntil, @CycleCount, @CategoryId, @Tags, @Continues,
                   @Links::jsonb, @Files::jsonb, @Contact, @Notes, @CapMembers, @CapLink, @CapEveryone, @ShowFrom, @ShowUntil, @AccountId,
                   tstzrange(@ReachFrom, @ReachTo, '[]'), @Now
            from calendar c
            where c.organisation_id = @OrganisationId and c.id = @CalendarId and c.removed_at is null
            """, EventRow.Parameters(organisationId, write, happening, accountId, now), transaction);
        if (added == 0)
            throw new NotFoundException("calendar");
    }

    /// <returns>The calendars that it was shown on before.</returns>
    private static async Task<Guid[]> UpdateAsync(DbTransaction transaction, Guid organisationId, CalendarEvent happening, EventWrite write, Guid accountId, Instant now)
    {
        var (version, calendars) = await transaction.Connection!.QueryFirstOrDefaultAsync<(int Version, Guid[] Calendars)>("""
            select version, array(select p.calendar_id from placement p where p.event_id = e.id) || home_calendar_id
            from event e
            where organisation_id = @organisationId and id = @Id
            for update
            """, new { organisationId, happening.Id }, transaction);
        if (version == 0)
            throw new NotFoundException("event");
        if (version != write.Version)
            throw new ChangedMeanwhileException();
        await transaction.Connection!.ExecuteAsync("""
            update event
            set home_calendar_id = @CalendarId,
                title = @Title,
                place = @Place,
                description_html = @Html,
                description_text = @Text,
                state = @State,
                all_day = @AllDay,
                start_local = @Start,
                end_local = @End,
                zone = @Zone,
                rrule = @Rrule,
                extra = @Extra,
                removed_dates = @RemovedDates,
                in_breaks = @InBreaks,
                cycle_numbers = @CycleNumbers,
                cycle_weekdays = @CycleWeekdays,
                cycle_until = @CycleUntil,
                cycle_count = @CycleCount,
                category_id = @CategoryId,
                tags = @Tags,
                reach = tstzrange(@ReachFrom, @ReachTo, '[]'),
                links = @Links::jsonb,
                files = @Files::jsonb,
                contact = @Contact,
                notes = @Notes,
                cap_members = @CapMembers,
                cap_link = @CapLink,
                cap_everyone = @CapEveryone,
                show_from = @ShowFrom,
                show_until = @ShowUntil,
                removed_at = case when @IsRemoved then coalesce(removed_at, @Now) end,
                version = version + 1
            where id = @Id
            """, EventRow.Parameters(organisationId, write, happening, accountId, now), transaction);
        return calendars;
    }

    private static async Task ReplaceExceptionsAsync(DbTransaction transaction, Guid organisationId, CalendarEvent happening)
    {
        await transaction.Connection!.ExecuteAsync("delete from event_exception where event_id = @Id", new { happening.Id }, transaction);
        await transaction.Connection!.ExecuteAsync("""
            insert into event_exception (organisation_id, event_id, recurrence_id, is_cancelled, start_local, end_local, title, place, description_html, description_text)
            values (@organisationId, @Id, @RecurrenceId, @IsCancelled, @Start, @End, @Title, @Place, @Html, @Text)
            """, happening.Exceptions.Select(exception => new
        {
            organisationId,
            happening.Id,
            exception.RecurrenceId,
            exception.IsCancelled,
            exception.Start,
            exception.End,
            exception.Title,
            exception.Place,
            exception.Description?.Html,
            exception.Description?.Text,
        }), transaction);
    }

    /// <exception cref="NotFoundException">There is no such calendar in the organisation.</exception>
    private static async Task ReplacePlacementsAsync(DbTransaction transaction, Guid organisationId, CalendarEvent happening)
    {
        var wanted = happening.Placements.Where(id => id != happening.HomeCalendarId).Distinct().ToArray();
        await transaction.Connection!.ExecuteAsync(
            "delete from placement where event_id = @Id and calendar_id <> all(@wanted)", new { happening.Id, wanted }, transaction);
        if (wanted.Length == 0)
            return;
        await transaction.Connection!.ExecuteAsync("""
            insert into placement (organisation_id, event_id, calendar_id)
            select @organisationId, @Id, c.id
            from calendar c
            where c.organisation_id = @organisationId and c.id = any(@wanted)
            on conflict do nothing
            """, new { organisationId, happening.Id, wanted }, transaction);
        if (await transaction.Connection!.ExecuteScalarAsync<long>("select count(*) from placement where event_id = @Id", new { happening.Id }, transaction) != wanted.Length)
            throw new NotFoundException("calendar");
    }

    private static async Task CheckRoomAsync(DbTransaction transaction, Guid[] calendars)
    {
        var fullest = await transaction.Connection!.ExecuteScalarAsync<int?>("""
            select max(count)::integer
            from (select count(*) from event where home_calendar_id = any(@calendars) and removed_at is null group by home_calendar_id) counts
            """, new { calendars }, transaction);
        if (fullest > MostEvents)
            throw new RuleException("calendarId", $"The calendar holds {MostEvents} events already, the most that are possible. Remove some, or begin another calendar.");
    }

    private static Task ReviseAsync(DbTransaction transaction, Guid organisationId, CalendarEvent happening, EventWrite write, Guid actId, Guid accountId, Instant now) =>
        transaction.Connection!.ExecuteAsync("""
            insert into revision (organisation_id, event_id, version, act, act_id, account_id, made_at, content)
            values (@organisationId, @Id, @version, @act, @actId, @accountId, @now, @content::jsonb)
            """, new
        {
            organisationId,
            happening.Id,
            version = (write.Version ?? 0) + 1,
            act = Words.Of(write.Act),
            actId,
            accountId,
            now,
            content = EventSnapshot.Write(happening, write.IsRemoved),
        }, transaction);
}
