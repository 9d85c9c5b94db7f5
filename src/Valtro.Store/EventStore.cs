using System.Data.Common;
using Dapper;
using NodaTime;
using Valtro.Core;
using Valtro.Core.Events;
using Valtro.Core.Recurrence;
using Valtro.Core.Time;

namespace Valtro.Store;

/// <summary>An event with what its editors need: the version checked on save, and who saved it last.</summary>
public sealed record StoredEvent(CalendarEvent Event, int Version, bool IsRemoved, string SavedBy);

public sealed class EventStore(Database database)
{
    /// <summary>A feed holds every event of its calendar; beyond this programs outside choke on it.</summary>
    public const int MostEvents = 20_000;

    private const string Columns = """
        select e.id, e.home_calendar_id, e.uid, e.title, e.place, e.description_html, e.description_text, e.state,
               e.all_day, e.start_local, e.end_local, e.zone, e.rrule, e.sequence, e.version,
               e.created_at, e.changed_at, e.removed_at
        from event e
        """;

    private sealed record Row(
        Guid Id, Guid HomeCalendarId, Guid Uid, string Title, string Place, string DescriptionHtml, string DescriptionText, string State,
        bool AllDay, LocalDateTime StartLocal, LocalDateTime EndLocal, string Zone, string? Rrule, int Sequence, int Version,
        Instant CreatedAt, Instant ChangedAt, Instant? RemovedAt)
    {
        public CalendarEvent ToEvent()
        {
            var zone = Zones.Named(Zone);
            var timing = AllDay
                ? Timing.WholeDays(StartLocal.Date, EndLocal.Date.PlusDays(-1), zone)
                : Timing.Timed(StartLocal, EndLocal, zone);
            var content = new EventContent(Title, new Series(timing, Rrule is null ? null : RuleText.Parse(Rrule)), Place, new RichText(DescriptionHtml, DescriptionText));
            return new CalendarEvent(Id, HomeCalendarId, Uid, content, Words.Read<EventState>(State), Sequence, CreatedAt, ChangedAt);
        }
    }

    /// <summary>Events of some calendars whose dates may fall in the window, removed ones not among them.</summary>
    public async Task<IReadOnlyList<CalendarEvent>> InWindowAsync(Guid organisationId, Guid[] calendars, Window window) =>
        [.. (await database.ListAsync<Row>(Columns + """

            where e.organisation_id = @organisationId
              and e.home_calendar_id = any(@calendars)
              and e.removed_at is null
              and e.reach && tstzrange(@from, @to)
            order by e.id
            """, new
        {
            organisationId,
            calendars,
            from = window.From - Duration.FromDays(1),
            to = window.To + Duration.FromDays(1),
        })).Select(row => row.ToEvent())];

    /// <summary>All events of a calendar, for its feed.</summary>
    public async Task<IReadOnlyList<CalendarEvent>> OfCalendarAsync(Guid organisationId, Guid calendarId) =>
        [.. (await database.ListAsync<Row>(Columns + """

            where e.organisation_id = @organisationId and e.home_calendar_id = @calendarId and e.removed_at is null
            order by e.id
            """, new { organisationId, calendarId })).Select(row => row.ToEvent())];

    public async Task<IReadOnlyDictionary<Guid, int>> CountsAsync(Guid organisationId) =>
        (await database.ListAsync<(Guid Id, int Count)>("""
            select home_calendar_id, count(*)::integer
            from event
            where organisation_id = @organisationId and removed_at is null and state in ('live', 'cancelled')
            group by home_calendar_id
            """, new { organisationId })).ToDictionary(row => row.Id, row => row.Count);

    public async Task<StoredEvent?> FindAsync(Guid organisationId, Guid id)
    {
        var row = await database.FirstAsync<Row>(Columns + " where e.organisation_id = @organisationId and e.id = @id", new { organisationId, id });
        if (row is null)
            return null;
        var savedBy = await database.FirstAsync<string>("""
            select a.name
            from revision r
            join account a on a.id = r.account_id
            where r.event_id = @id
            order by r.version desc
            limit 1
            """, new { id });
        return new StoredEvent(row.ToEvent(), row.Version, row.RemovedAt is not null, savedBy ?? "");
    }

    /// <exception cref="NotFoundException">There is no such calendar in the organisation.</exception>
    /// <exception cref="RuleException">The calendar is full.</exception>
    public Task<Guid> AddAsync(Guid organisationId, Guid calendarId, EventContent content, Guid accountId, Instant now) =>
        database.InTransactionAsync(async transaction =>
        {
            var id = Guid.CreateVersion7();
            var parameters = Parameters(organisationId, id, calendarId, content, now);
            var added = await transaction.Connection!.ExecuteAsync("""
                insert into event (id, organisation_id, home_calendar_id, title, place, description_html, description_text, state,
                                   all_day, start_local, end_local, zone, rrule, reach, created_at, changed_at)
                select @Id, @OrganisationId, c.id, @Title, @Place, @Html, @Text, 'live',
                       @AllDay, @Start, @End, @Zone, @Rrule, tstzrange(@ReachFrom, @ReachTo, '[]'), @Now, @Now
                from calendar c
                where c.organisation_id = @OrganisationId and c.id = @CalendarId
                """, parameters, transaction);
            if (added == 0)
                throw new NotFoundException("calendar");
            var count = await transaction.Connection!.ExecuteScalarAsync<int>(
                "select count(*)::integer from event where home_calendar_id = @calendarId and removed_at is null", new { calendarId }, transaction);
            if (count > MostEvents)
                throw new RuleException("calendarId", $"The calendar holds {MostEvents} events already, the most that are possible. Remove some, or begin another calendar.");
            await ReviseAsync(transaction, organisationId, id, "made", accountId, now);
            await CalendarStore.ContentChangedAsync(transaction, organisationId, [calendarId]);
            return id;
        });

    /// <summary>Saves new content; both the old and the new home calendar are told.</summary>
    /// <exception cref="ChangedMeanwhileException">The version is not the stored one any more, or the event was removed.</exception>
    public Task SaveAsync(Guid organisationId, Guid id, int version, Guid calendarId, EventContent content, Guid accountId, Instant now) =>
        database.InTransactionAsync(async transaction =>
        {
            var before = await LockAsync(transaction, organisationId, id, version);
            if (before.RemovedAt is not null)
                throw new ChangedMeanwhileException();
            await transaction.Connection!.ExecuteAsync("""
                update event
                set home_calendar_id = @CalendarId,
                    title = @Title,
                    place = @Place,
                    description_html = @Html,
                    description_text = @Text,
                    all_day = @AllDay,
                    start_local = @Start,
                    end_local = @End,
                    zone = @Zone,
                    rrule = @Rrule,
                    reach = tstzrange(@ReachFrom, @ReachTo, '[]'),
                    sequence = sequence + 1,
                    version = version + 1,
                    changed_at = greatest(@Now, changed_at)
                where id = @Id
                """, Parameters(organisationId, id, calendarId, content, now), transaction);
            await ReviseAsync(transaction, organisationId, id, "changed", accountId, now);
            await CalendarStore.ContentChangedAsync(transaction, organisationId, [before.HomeCalendarId, calendarId]);
            return true;
        });

    /// <summary>Takes an event away, or brings it back.</summary>
    /// <exception cref="ChangedMeanwhileException">The version is not the stored one any more.</exception>
    public Task<int> SetRemovedAsync(Guid organisationId, Guid id, int version, bool removed, Guid accountId, Instant now) =>
        database.InTransactionAsync(async transaction =>
        {
            var before = await LockAsync(transaction, organisationId, id, version);
            if (before.RemovedAt is not null == removed)
                return version;
            await transaction.Connection!.ExecuteAsync("""
                update event
                set removed_at = case when @removed then @now end,
                    sequence = sequence + 1,
                    version = version + 1,
                    changed_at = greatest(@now, changed_at)
                where id = @id
                """, new { id, removed, now }, transaction);
            await ReviseAsync(transaction, organisationId, id, removed ? "removed" : "restored", accountId, now);
            await CalendarStore.ContentChangedAsync(transaction, organisationId, [before.HomeCalendarId]);
            return version + 1;
        });

    private static async Task<Row> LockAsync(DbTransaction transaction, Guid organisationId, Guid id, int version)
    {
        var row = await transaction.Connection!.QueryFirstOrDefaultAsync<Row>(
            Columns + " where e.organisation_id = @organisationId and e.id = @id for update", new { organisationId, id }, transaction);
        if (row is null)
            throw new NotFoundException("event");
        return row.Version == version ? row : throw new ChangedMeanwhileException();
    }

    private static Task ReviseAsync(DbTransaction transaction, Guid organisationId, Guid id, string act, Guid accountId, Instant now) =>
        transaction.Connection!.ExecuteAsync("""
            insert into revision (organisation_id, event_id, version, act, account_id, made_at, content)
            select @organisationId, e.id, e.version, @act, @accountId, @now,
                   jsonb_build_object('calendar', e.home_calendar_id, 'title', e.title, 'place', e.place, 'description', e.description_html,
                                      'state', e.state, 'allDay', e.all_day, 'start', e.start_local, 'end', e.end_local, 'zone', e.zone, 'rrule', e.rrule)
            from event e
            where e.id = @id
            """, new { organisationId, id, act, accountId, now }, transaction);

    private static object Parameters(Guid organisationId, Guid id, Guid calendarId, EventContent content, Instant now)
    {
        var timing = content.Series.Timing;
        var (reachFrom, reachTo) = content.Series.Reach();
        return new
        {
            Id = id,
            OrganisationId = organisationId,
            CalendarId = calendarId,
            content.Title,
            content.Place,
            content.Description.Html,
            content.Description.Text,
            timing.AllDay,
            timing.Start,
            timing.End,
            Zone = timing.Zone.Id,
            Rrule = content.Series.Rule is { } rule ? RuleText.Format(rule) : null,
            ReachFrom = reachFrom,
            ReachTo = reachTo,
            Now = now,
        };
    }
}
