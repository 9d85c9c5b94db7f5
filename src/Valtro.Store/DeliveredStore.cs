using System.Data.Common;
using System.Globalization;
using Dapper;
using NodaTime;
using NodaTime.Text;
using Valtro.Core.Editions;
using Valtro.Core.Events;
using Valtro.Core.ICalendar;

namespace Valtro.Store;

/// <summary>What readers of an edition know of its feed.</summary>
/// <param name="Floor">The number at which new components begin.</param>
public sealed record FeedMemory(
    IReadOnlyDictionary<ComponentName, Stamp> Stamps, IReadOnlyDictionary<SourceDate, OutwardName> Names, int Floor)
{
    /// <summary>Since which content version each name is out.</summary>
    public long? OutSince(Uid uid) => _since.TryGetValue(uid, out var since) ? since : null;

    private readonly Dictionary<Uid, long> _since = Stamps.Values.Where(stamp => stamp.GoneAt is null).GroupBy(stamp => stamp.Name.Uid)
        .ToDictionary(group => group.Key, group => group.Min(stamp => stamp.FirstVersion));
}

/// <summary>What is noted with a feed that goes out: in the same transaction, or not at all.</summary>
/// <param name="Calendars">By which names addresses of narrowed feeds may call a calendar.</param>
public sealed record FeedNotes(
    IReadOnlyCollection<Stamp> Stamps, IReadOnlyList<OutwardName> Names, IReadOnlyList<(string Name, Guid CalendarId)> Calendars);

/// <summary>What was delivered last. Only the writer of a feed writes here; one at a time for an edition and audience
/// (<see cref="EditionStore.AloneAsync"/>).</summary>
public sealed class DeliveredStore(Database database)
{
    public static readonly Duration GoneIsKept = Duration.FromDays(90);

    private sealed class StampRow
    {
        public string Uid { get; init; } = "";
        public string RecurrenceId { get; init; } = "";
        public Guid? Digest { get; init; }
        public int Sequence { get; init; }
        public Instant ChangedAt { get; init; }
        public long FirstVersion { get; init; }
        public long SinceVersion { get; init; }
        public Guid[] Calendars { get; init; } = [];
        public Instant? GoneAt { get; init; }

        public Stamp ToStamp() =>
            new(new ComponentName(new Uid(Uid), RecurrenceId), Digest is { } digest ? Number(digest) : null, Sequence, ChangedAt,
                FirstVersion,
                SinceVersion, Calendars, GoneAt);
    }

    private sealed record NameRow(Guid EventId, string RecurrenceId, string? Own, string Uid)
    {
        public OutwardName ToName() =>
            new(new SourceDate(EventId, RecurrenceId.Length == 0 ? null : LocalDateTimePattern.GeneralIso.Parse(RecurrenceId).Value),
                Own is null ? null : new Uid(Own), new Uid(Uid));
    }

    private static UInt128 Number(Guid digest) => UInt128.Parse(digest.ToString("N"), NumberStyles.HexNumber, CultureInfo.InvariantCulture);

    private static Guid Digest(UInt128 number) => Guid.ParseExact(number.ToString("x32", CultureInfo.InvariantCulture), "N");

    private static string Text(LocalDateTime? date) => date is { } of ? LocalDateTimePattern.GeneralIso.Format(of) : "";

    public async Task<FeedMemory> OfAsync(EditionAddress edition)
    {
        using var within = Wall.Within(edition.OrganisationId);
        var key = new { edition.Id, audience = Words.Of(edition.Audience) };
        var stamps = await database.ListAsync<StampRow>("""
            select uid, recurrence_id, digest, sequence, changed_at, first_version, since_version, calendars, gone_at
            from delivered
            where edition_id = @Id and audience = @audience and variant = ''
            """, key);
        var names = await database.ListAsync<NameRow>(
            "select event_id, recurrence_id, own, uid from outward_name where edition_id = @Id and audience = @audience and variant = ''",
                key);
        return new FeedMemory(
            stamps.Select(row => row.ToStamp()).ToDictionary(stamp => stamp.Name),
            names.Select(row => row.ToName()).ToDictionary(name => name.Source),
            await database.FirstAsync<int>("select sequence_floor from edition where id = @Id", key));
    }

    internal static async Task NoteAsync(DbTransaction transaction, Artefact feed, FeedNotes notes)
    {
        var key = new { feed.EditionId, feed.OrganisationId, audience = Words.Of(feed.Audience) };
        if (notes.Stamps.Count > 0)
        {
            var stamps =
                notes.Stamps.OrderBy(stamp => stamp.Name.Uid).ThenBy(stamp => stamp.Name.RecurrenceId, StringComparer.Ordinal).ToArray();
            await transaction.Connection!.ExecuteAsync("""
                insert into delivered (edition_id, organisation_id, audience, uid, recurrence_id, digest, sequence, changed_at,
                    first_version, since_version, calendars, gone_at)
                select @EditionId, @OrganisationId, @audience, s.uid, s.recurrence_id, s.digest, s.sequence, s.changed_at, s.first_version,
                    s.since_version,
                       case when s.calendars = '' then '{}' else string_to_array(s.calendars, ' ')::uuid[] end, s.gone_at
                from unnest(@uids, @recurrences, @digests, @sequences, @changes, @firsts, @sinces, @calendars, @gone)
                     s (uid, recurrence_id, digest, sequence, changed_at, first_version, since_version, calendars, gone_at)
                on conflict (edition_id, audience, variant, uid, recurrence_id) do update
                set digest = excluded.digest,
                    sequence = greatest(delivered.sequence, excluded.sequence),
                    changed_at = greatest(delivered.changed_at, excluded.changed_at),
                    since_version = excluded.since_version,
                    calendars = excluded.calendars,
                    gone_at = excluded.gone_at
                """, new
            {
                key.EditionId,
                key.OrganisationId,
                key.audience,
                uids = stamps.Select(stamp => stamp.Name.Uid.Text).ToArray(),
                recurrences = stamps.Select(stamp => stamp.Name.RecurrenceId).ToArray(),
                digests = stamps.Select(stamp => stamp.Digest is { } digest ? Digest(digest) : (Guid?)null).ToArray(),
                sequences = stamps.Select(stamp => stamp.Sequence).ToArray(),
                changes = stamps.Select(stamp => stamp.ChangedAt).ToArray(),
                firsts = stamps.Select(stamp => stamp.FirstVersion).ToArray(),
                sinces = stamps.Select(stamp => stamp.SinceVersion).ToArray(),
                calendars = stamps.Select(stamp => string.Join(' ', stamp.Calendars)).ToArray(),
                gone = stamps.Select(stamp => stamp.GoneAt).ToArray(),
            }, transaction);
        }
        if (notes.Names.Count > 0)
        {
            await transaction.Connection!.ExecuteAsync("""
                insert into outward_name (edition_id, organisation_id, audience, event_id, recurrence_id, own, uid)
                select @EditionId, @OrganisationId, @audience, n.event_id, n.recurrence_id, n.own, n.uid
                from unnest(@events, @recurrences, @owns, @uids) n (event_id, recurrence_id, own, uid)
                where exists (select from event e where e.id = n.event_id)
                on conflict (edition_id, audience, variant, event_id, recurrence_id) do update set own = excluded.own, uid = excluded.uid
                """, new
            {
                key.EditionId,
                key.OrganisationId,
                key.audience,
                events = notes.Names.Select(name => name.Source.EventId).ToArray(),
                recurrences = notes.Names.Select(name => Text(name.Source.Date)).ToArray(),
                owns = notes.Names.Select(name => name.Own?.Text).ToArray(),
                uids = notes.Names.Select(name => name.Uid.Text).ToArray(),
            }, transaction);
        }
        await transaction.Connection!.ExecuteAsync("""
            insert into edition_calendar_name (edition_id, organisation_id, name, calendar_id)
            select @EditionId, @OrganisationId, n.name, n.calendar_id
            from unnest(@names, @calendars) n (name, calendar_id)
            where exists (select from calendar c where c.id = n.calendar_id)
            on conflict do nothing
            """, new
        {
            key.EditionId,
            key.OrganisationId,
            names = notes.Calendars.Select(one => one.Name).ToArray(),
            calendars = notes.Calendars.Select(one => one.CalendarId).ToArray(),
        }, transaction);
    }

    /// <summary>Which calendars addresses of an edition call by some names; one that was merged counts as what it became.</summary>
    public async Task<IReadOnlyDictionary<string, Guid>> CalendarsNamedAsync(EditionAddress edition)
    {
        using var within = Wall.Within(edition.OrganisationId);
        return (await database.ListAsync<(string Name, Guid Id)>("""
            select n.name, coalesce(c.merged_into, c.id)
            from edition_calendar_name n
            join calendar c on c.id = n.calendar_id
            where n.edition_id = @Id
            """, new { edition.Id })).ToDictionary(row => row.Name, row => row.Id, StringComparer.Ordinal);
    }

    /// <summary>The names of what goes out and concerns some calendars.</summary>
    public async Task<HashSet<Uid>> ConcerningAsync(EditionAddress edition, Guid[] calendars)
    {
        using var within = Wall.Within(edition.OrganisationId);
        return (await database.ListAsync<string>("""
            select distinct uid from delivered
            where edition_id = @Id and audience = @audience and variant = '' and gone_at is null and calendars && @calendars
            """, new { edition.Id, audience = Words.Of(edition.Audience), calendars })).Select(uid => new Uid(uid)).ToHashSet();
    }

    /// <summary>Whether readers of an edition ever got anything of an event by its own name, as far as that is not forgotten.</summary>
    public async Task<bool> WasDeliveredAsync(EditionAddress edition, CalendarEvent calendarEvent)
    {
        using var within = Wall.Within(edition.OrganisationId);
        return await database.FirstAsync<bool>("""
            select exists (select from delivered where edition_id = @Id and audience = @audience and uid = @uid and digest is not null)
                or exists (select from outward_name where edition_id = @Id and audience = @audience and event_id = @eventId)
            """, new { edition.Id, audience = Words.Of(edition.Audience), uid = calendarEvent.Uid.Text, eventId = calendarEvent.Id });
    }

    private sealed record DateRow(
        Guid OrganisationId, Guid EditionId, string Audience, string Variant, Guid EventId, string RecurrenceId, string? Own, string Uid);

    /// <summary>Lets the names of dates follow these to where an act has put them. What has no place any more keeps its name where it
    /// was.</summary>
    /// <param name="find">Where a date of an event has gone; null where no date is the same one.</param>
    internal static async Task FollowAsync(
        DbTransaction transaction, Guid[] events, Func<Guid, LocalDateTime, (Guid EventId, LocalDateTime Date)?> find)
    {
        var known = await transaction.Connection!.QueryAsync<DateRow>("""
            select organisation_id, edition_id, audience, variant, event_id, recurrence_id, own, uid
            from outward_name
            where event_id = any(@events) and recurrence_id <> ''
            order by edition_id, audience, event_id, recurrence_id
            for update
            """, new { events }, transaction);
        var places = new Dictionary<(Guid, string), (Guid EventId, string Date)>();
        var moved = new List<(DateRow Row, (Guid EventId, string Date) To)>();
        foreach (var row in known)
        {
            var from = (row.EventId, row.RecurrenceId);
            if (!places.TryGetValue(from, out var to))
                to = places[from] = find(row.EventId, LocalDateTimePattern.GeneralIso.Parse(row.RecurrenceId).Value) is { } found
                    ? (found.EventId, Text(found.Date))
                    : from;
            if (to != from)
                moved.Add((row, to));
        }
        if (moved.Count == 0)
            return;
        // All are taken up before any is put down: they may change places. What stands where one comes, and does not move itself, gives
        // way.
        var taken = moved.Select(one => (one.Row, Place: (one.Row.EventId, Date: one.Row.RecurrenceId)))
            .Concat(moved.Select(one => (one.Row, Place: one.To))).ToArray();
        await transaction.Connection!.ExecuteAsync("""
            delete from outward_name n
            using unnest(@editions, @audiences, @variants, @events, @dates) t (edition_id, audience, variant, event_id, recurrence_id)
            where n.edition_id = t.edition_id and n.audience = t.audience and n.variant = t.variant and n.event_id = t.event_id
                and n.recurrence_id = t.recurrence_id
            """, new
        {
            editions = taken.Select(one => one.Row.EditionId).ToArray(),
            audiences = taken.Select(one => one.Row.Audience).ToArray(),
            variants = taken.Select(one => one.Row.Variant).ToArray(),
            events = taken.Select(one => one.Place.EventId).ToArray(),
            dates = taken.Select(one => one.Place.Date).ToArray(),
        }, transaction);
        await transaction.Connection!.ExecuteAsync("""
            insert into outward_name (organisation_id, edition_id, audience, variant, event_id, recurrence_id, own, uid)
            select n.organisation_id, n.edition_id, n.audience, n.variant, n.event_id, n.recurrence_id, n.own, n.uid
            from unnest(@organisations, @editions, @audiences, @variants, @events, @dates, @owns, @uids)
                n (organisation_id, edition_id, audience, variant, event_id, recurrence_id, own, uid)
            on conflict do nothing
            """, new
        {
            organisations = moved.Select(one => one.Row.OrganisationId).ToArray(),
            editions = moved.Select(one => one.Row.EditionId).ToArray(),
            audiences = moved.Select(one => one.Row.Audience).ToArray(),
            variants = moved.Select(one => one.Row.Variant).ToArray(),
            events = moved.Select(one => one.To.EventId).ToArray(),
            dates = moved.Select(one => one.To.Date).ToArray(),
            owns = moved.Select(one => one.Row.Own).ToArray(),
            uids = moved.Select(one => one.Row.Uid).ToArray(),
        }, transaction);
    }

    /// <summary>Forgets what is gone for long: from then on all that is new begins above its numbers, so that nothing that returns falls
    /// back.</summary>
    /// <returns>How many components were forgotten.</returns>
    public Task<int> ForgetGoneAsync(Instant before) =>
        database.InTransactionAsync(async transaction => await transaction.Connection!.ExecuteScalarAsync<int>("""
        with gone as (
            delete from delivered
            where ctid = any(array(select ctid from delivered where gone_at < @before order by gone_at limit 10000))
            returning edition_id, audience, uid, sequence
        ), raised as (
            update edition e
            set sequence_floor = greatest(e.sequence_floor, g.most + 1)
            from (select edition_id, max(sequence) as most from gone group by edition_id order by edition_id) g
            where e.id = g.edition_id
        ), nameless as (
            delete from outward_name n
            using gone g
            where n.edition_id = g.edition_id and n.audience = g.audience and n.uid = g.uid and n.recurrence_id <> ''
        )
        select count(*)::integer from gone
        """, new { before }, transaction));
}
