using NodaTime;

namespace Valtro.Store;

/// <summary>Where an edition is, without what is in it: cheap to read on every request.</summary>
public sealed record EditionAddress(
    Guid Id, Guid OrganisationId, string OrganisationSlug, string OrganisationName, string Locale, short FirstDayOfWeek,
    Guid CalendarId, string Zone, string Slug, Guid FeedUid, long ContentVersion)
{
    /// <summary>The month it is now where the calendar is kept.</summary>
    public YearMonth MonthAt(Instant now) => now.InZone(Valtro.Core.Time.Zones.Named(Zone)).Date.ToYearMonth();
}

/// <summary>What readers get, rendered.</summary>
/// <param name="ChangedAt">When what readers get last changed, not when it was rendered.</param>
public sealed record Artefact(Guid EditionId, string Key, long ContentVersion, string Etag, byte[] Content, Instant ChangedAt);

public sealed class EditionStore(Database database)
{
    private const string Columns = """
        select e.id, o.id as organisation_id, o.slug as organisation_slug, o.name as organisation_name, o.locale, o.first_day_of_week,
               e.calendar_id, c.zone, e.slug, e.feed_uid, c.content_version
        from edition e
        join calendar c on c.id = e.calendar_id
        join organisation o on o.id = e.organisation_id
        """;

    public Task<EditionAddress?> FindAsync(string organisation, string slug) =>
        database.FirstAsync<EditionAddress>(Columns + " where o.slug = @organisation and e.slug = @slug", new { organisation, slug });

    public Task<EditionAddress?> OfCalendarAsync(Guid calendarId) =>
        database.FirstAsync<EditionAddress>(Columns + " where e.calendar_id = @calendarId", new { calendarId });

    /// <summary>Open calendars of which what is kept for readers is not what is saved.</summary>
    public Task<IReadOnlyList<Guid>> CalendarsToRenderAsync() => database.ListAsync<Guid>("""
        select c.id
        from calendar c
        join edition e on e.calendar_id = c.id
        left join artefact a on a.edition_id = e.id and a.key = 'feed'
        where c.everyone <> 'nothing' and a.content_version is distinct from c.content_version
        order by c.changed_at
        limit 10000
        """);

    public Task<Artefact?> FindArtefactAsync(Guid editionId, string key) => database.FirstAsync<Artefact>("""
        select edition_id, key, content_version, etag, content, changed_at
        from artefact
        where edition_id = @editionId and key = @key
        """, new { editionId, key });

    /// <summary>Keeps an artefact unless a newer one is kept already; the same content keeps its time of change.</summary>
    public Task<int> KeepArtefactAsync(Artefact artefact) => database.ExecuteAsync("""
        insert into artefact (edition_id, key, content_version, etag, content, changed_at)
        values (@EditionId, @Key, @ContentVersion, @Etag, @Content, @ChangedAt)
        on conflict (edition_id, key) do update
        set content_version = excluded.content_version,
            etag = excluded.etag,
            content = excluded.content,
            changed_at = excluded.changed_at
        where artefact.content_version < excluded.content_version
        """, artefact);

    /// <summary>When what readers get of each calendar last changed, and whether that is what is kept now.</summary>
    public async Task<IReadOnlyDictionary<Guid, (bool IsCurrent, Instant ChangedAt)>> FeedsAsync(Guid organisationId) =>
        (await database.ListAsync<(Guid CalendarId, bool IsCurrent, Instant ChangedAt)>("""
            select c.id, a.content_version = c.content_version, a.changed_at
            from artefact a
            join edition e on e.id = a.edition_id
            join calendar c on c.id = e.calendar_id
            where c.organisation_id = @organisationId and a.key = 'feed'
            """, new { organisationId })).ToDictionary(row => row.CalendarId, row => (row.IsCurrent, row.ChangedAt));
}
