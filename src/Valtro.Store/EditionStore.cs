using Dapper;
using NodaTime;
using Valtro.Core.Disclosure;

namespace Valtro.Store;

/// <summary>Where an edition is and for whom, without what is in it: cheap to read on every request.</summary>
/// <param name="Secret">For an edition of those who have the link; null for one that is open to everyone.</param>
/// <param name="CalendarId">Of a standard edition; null for one that was composed.</param>
/// <param name="ContentVersion">Rises with whatever changes for its readers.</param>
/// <param name="NotBefore">What was rendered from an older version is served no more: somebody sees less from there on.</param>
/// <param name="AddressedTo">Of a composed edition: its audience.</param>
/// <param name="AccountId">Whose own address this is, of an edition for members.</param>
/// <param name="KeptSeconds">How long caches on the way may keep what they have; null for what is usual.</param>
/// <param name="OwnerId">Of what a member is responsible for themselves: whose it is.</param>
public sealed record EditionAddress(
    Guid Id, Guid OrganisationId, string OrganisationSlug, string OrganisationName, string Locale, short FirstDayOfWeek,
    Guid? CalendarId, string Zone, string Slug, Guid FeedUid, long ContentVersion, long NotBefore, string? AddressedTo,
        string? Secret, Guid? AccountId, Guid? OwnerId, int? KeptSeconds = null)
{
    /// <summary>On the desk, where an edition is looked at as another audience; never kept.</summary>
    public Audience? SeenAs { get; init; }

    /// <summary>Where the desk shows it so.</summary>
    public string? PreviewPath { get; init; }

    /// <summary>What it will be when somebody who is making it saves it; never kept.</summary>
    public Core.Editions.EditionDraft? Draft { get; init; }

    public Audience Audience => SeenAs ?? Own;

    private Audience Own { get; } =
        AddressedTo is { } audience ? Words.Read<Audience>(audience) : Secret is null ? Audience.Everyone : Audience.Link;

    /// <summary>The day it is now where the edition is kept.</summary>
    public LocalDate TodayAt(Instant now) => now.InZone(Valtro.Core.Time.Zones.Named(Zone)).Date;

    public YearMonth MonthAt(Instant now) => TodayAt(now).ToYearMonth();
}

/// <summary>What an address led to.</summary>
/// <param name="MovedTo">The slug under which it goes on, after a merge.</param>
/// <param name="Ended">Why a secret address answers no more: "replaced", "withdrawn".</param>
public sealed record EditionFound(EditionAddress? Address, string? MovedTo = null, string? Ended = null)
{
    public static EditionFound Nothing { get; } = new((EditionAddress?)null);
}

/// <summary>What readers get, rendered.</summary>
/// <param name="ChangedAt">When what readers get last changed, not when it was rendered.</param>
/// <param name="ValidUntil">When an event appears or disappears by itself.</param>
/// <param name="ClosesAt">When something that it shows must not be shown any more.</param>
public sealed record Artefact(
    Guid EditionId, Guid OrganisationId, Audience Audience, string Key, long ContentVersion, string Etag, byte[] Content, Instant ChangedAt,
        Instant? ValidUntil, Instant? ClosesAt = null)
{
    /// <summary>How it is written; what an older or newer program wrote otherwise is written anew.</summary>
    public string Form { get; init; } = "";

    /// <summary>It is what readers get of the edition as it is now.</summary>
    public bool IsRight(EditionAddress edition, Instant now) => ContentVersion == edition.ContentVersion && !(ValidUntil <= now);

    /// <summary>It may be a little old, but shows nobody what they must not see.</summary>
    public bool MayBeShown(long notBefore, Instant now) => ContentVersion >= notBefore && !(ClosesAt <= now);
}

/// <summary>How an edition goes out.</summary>
/// <param name="IsCurrent">What is kept for readers is what was saved last.</param>
/// <param name="ChangedAt">When what they get last changed; null where nothing is rendered yet.</param>
/// <param name="FailedSince">Since when it does not succeed.</param>
/// <param name="IsSetAside">It is not tried by itself any more.</param>
public sealed record GoingOutState(bool IsCurrent, Instant? ChangedAt, Instant? FailedSince, FailureReason? Reason, bool IsSetAside);

/// <summary>Public addresses are anybody's, so finding one looks everywhere.</summary>
public sealed class EditionStore(Database database)
{
    private const string Columns = """
        select e.id, o.id as organisation_id, o.slug as organisation_slug, o.name as organisation_name, o.locale, o.first_day_of_week,
               e.calendar_id, coalesce(c.zone, o.zone) as zone, e.slug, coalesce(s.feed_uid, e.feed_uid) as feed_uid, e.content_version,
                   e.not_before, e.audience as addressed_to, s.secret, s.account_id, e.owner_id, (e.settings->>'keptSeconds')::integer as kept_seconds
        from edition e
        join organisation o on o.id = e.organisation_id
        left join calendar c on c.id = e.calendar_id

        """;

    private const string Open = Columns + "left join secret_link s on false ";

    private const string WithLink = Columns + "join secret_link s on s.edition_id = e.id ";

    /// <summary>Neither it nor its calendar is in the bin.</summary>
    private const string InUse = "e.removed_at is null and c.removed_at is null";

    /// <summary>And it is not in the making: those whom it concerns can know of it.</summary>
    private const string IsOut = $"{InUse} and (e.let_out_at is not null or e.calendar_id is not null or e.owner_id is not null)";

    /// <summary>A secret is good for what it was made for: a standard edition, one for those with the link, or, as a member's own, one for
    /// members.</summary>
    private const string SecretFits = """
        (case when s.account_id is null then coalesce(e.audience, 'link') = 'link'
              else e.audience = 'members' and coalesce(e.owner_id, s.account_id) = s.account_id and exists (
                  select from membership m
                  where m.account_id = s.account_id and m.organisation_id = e.organisation_id and m.ended_at is null)
         end)
        """;

    /// <summary>The edition that is open to everyone at an address.</summary>
    public async Task<EditionFound> FindAsync(string organisation, string slug)
    {
        using var everywhere = Wall.Everywhere();
        var address = await database.FirstAsync<EditionAddress>(Open
            + $"where o.slug = @organisation and e.slug = @slug and coalesce(e.audience, 'everyone') = 'everyone' and {IsOut}",
                new { organisation, slug });
        if (address is not null)
            return new EditionFound(address);
        return new EditionFound(null, await database.FirstAsync<string?>("""
            select target.slug
            from edition e
            join organisation o on o.id = e.organisation_id
            join calendar c on c.id = e.calendar_id and c.removed_at is not null
            join calendar into_calendar on into_calendar.id = c.merged_into and into_calendar.removed_at is null
            join edition target on target.calendar_id = into_calendar.id
            where o.slug = @organisation and e.slug = @slug
            """, new { organisation, slug }));
    }

    /// <summary>The editions that an organisation's front page lists: open to everyone, and wanted there.</summary>
    public async Task<IReadOnlyList<EditionAddress>> OnFrontPageAsync(string organisation)
    {
        using var everywhere = Wall.Everywhere();
        return await database.ListAsync<EditionAddress>(
            $"{Open} where o.slug = @organisation and {IsOnFrontPage} order by e.id limit 400", new { organisation });
    }

    /// <summary>Organisations that have a front page, by their slugs.</summary>
    public async Task<IReadOnlyList<string>> FrontPagesAsync()
    {
        using var everywhere = Wall.Everywhere();
        return await database.ListAsync<string>($"""
            select o.slug from organisation o
            where exists (select from edition e left join calendar c on c.id = e.calendar_id
                          where e.organisation_id = o.id and {IsOnFrontPage})
            order by o.slug
            limit 50000
            """);
    }

    private const string IsOnFrontPage = $"""
        coalesce(e.audience, 'everyone') = 'everyone' and {IsOut} and coalesce(c.everyone, '') <> 'nothing' and c.archived_at is null
        and coalesce((e.settings ->> 'onFrontPage')::boolean, true)
        """;

    private sealed record Secret(Guid EditionId, string? EndedHow);

    /// <summary>The edition of those who have a secret.</summary>
    public async Task<EditionFound> FindSecretAsync(string secret)
    {
        using var everywhere = Wall.Everywhere();
        var digest = Secrets.Digest(secret);
        var found =
            await database.FirstAsync<Secret>("select edition_id, ended_how from secret_link where digest = @digest", new { digest });
        if (found is null)
            return EditionFound.Nothing;
        return found.EndedHow is { } ended
            ? new EditionFound(null, Ended: ended)
            : new EditionFound(
                await database.FirstAsync<EditionAddress>(
                    WithLink + $"where s.digest = @digest and {IsOut} and {SecretFits}", new { digest }));
    }

    /// <summary>The standard edition of a calendar, whoever may get something of it, to be looked at on the desk.</summary>
    public Task<EditionAddress?> StandardAsync(Guid calendarId) =>
        database.FirstAsync<EditionAddress>(Open + "where e.calendar_id = @calendarId", new { calendarId });

    /// <summary>An edition by its id, in whose organisation the work is done.</summary>
    public Task<EditionAddress?> FindAsync(Guid id) =>
        database.FirstAsync<EditionAddress>(Open + $"where e.id = @id and {InUse}", new { id });

    private sealed record VersionRow(Guid Id, long ContentVersion, long NotBefore);

    /// <summary>Content version and "not before" of some editions, for a node that may have missed announcements; those that are gone are
    /// not among them.</summary>
    public async Task<IReadOnlyList<(Guid Id, long ContentVersion, long NotBefore)>> VersionsAsync(Guid[] editions)
    {
        using var everywhere = Wall.Everywhere();
        return [
            .. (await database.ListAsync<VersionRow>(
                "select id, content_version, not_before from edition where id = any(@editions)", new { editions }))
            .Select(row => (row.Id, row.ContentVersion, row.NotBefore))];
    }

    /// <summary>The addresses under which an edition goes out now. Members' own addresses show one thing, so one stands for all.</summary>
    public async Task<IReadOnlyList<EditionAddress>> GoingOutAsync(Guid edition)
    {
        using var everywhere = Wall.Everywhere();
        return await database.ListAsync<EditionAddress>($"""
            {Open} where e.id = @edition and {IsOut} and coalesce(e.audience, c.everyone::text) not in ('nothing', 'link', 'members')
            union all
            {WithLink} where e.id = @edition and {IsOut} and s.ended_at is null and s.account_id is null and {SecretFits} and coalesce(c.link::text, '') <> 'nothing'
            union all
            (select distinct on (id) * from (
                {WithLink}
                where e.id = @edition and {IsOut} and s.ended_at is null and s.account_id is not null and {SecretFits}) own)
            """, new { edition });
    }

    private sealed record ArtefactRow(
        Guid EditionId, Guid OrganisationId, string Audience, string Key, long ContentVersion, string Etag, byte[] Content,
            Instant ChangedAt, Instant? ValidUntil, Instant? ClosesAt, string Form);

    public async Task<Artefact?> FindArtefactAsync(EditionAddress address, string key)
    {
        using var within = Wall.Within(address.OrganisationId);
        var row = await database.FirstAsync<ArtefactRow>("""
            select edition_id, organisation_id, audience, key, content_version, etag, content, changed_at, valid_until, closes_at, form
            from artefact
            where edition_id = @Id and audience = @audience and key = @key
            """, new { address.Id, audience = Words.Of(address.Audience), key });
        return row is null
            ? null
            : new Artefact(row.EditionId, row.OrganisationId, Words.Read<Audience>(row.Audience), row.Key, row.ContentVersion, row.Etag,
                row.Content, row.ChangedAt, row.ValidUntil, row.ClosesAt)
            { Form = row.Form };
    }

    /// <summary>Tells all nodes that an edition's feed and first pages are rendered.</summary>
    public Task AnnounceRenderedAsync(Guid edition) =>
        database.ExecuteAsync(
            "select pg_notify(@channel, @news)", new { channel = Announcements.Channel, news = $"{Announcements.Rendered}{edition}" });

    /// <summary>Does something for an artefact that no other node does for it at the same time.</summary>
    public async Task<T> AloneAsync<T>(EditionAddress address, string key, Func<Task<T>> work)
    {
        using var within = Wall.Within(address.OrganisationId);
        return await database.InTransactionAsync(async transaction =>
        {
            await transaction.Connection!.ExecuteAsync("select pg_advisory_xact_lock(hashtextextended(@name, 0))",
                new { name = $"{address.Id} {Words.Of(address.Audience)} {key}" }, transaction);
            return await work();
        });
    }

    /// <summary>Keeps an artefact unless a newer one is kept already; the same content keeps its time of change.</summary>
    /// <param name="notes">Of a feed: kept with it, or not at all.</param>
    public async Task<bool> KeepArtefactAsync(Artefact artefact, FeedNotes? notes)
    {
        using var within = Wall.Within(artefact.OrganisationId);
        return await database.InTransactionAsync(async transaction =>
        {
            var kept = await transaction.Connection!.ExecuteAsync("""
                insert into artefact (edition_id, organisation_id, audience, key, content_version, etag, content, changed_at, valid_until,
                    closes_at, form)
                values (@EditionId, @OrganisationId, @audience, @Key, @ContentVersion, @Etag, @Content, @ChangedAt, @ValidUntil, @ClosesAt,
                    @Form)
                on conflict (edition_id, audience, key) do update
                set content_version = excluded.content_version,
                    etag = excluded.etag,
                    content = excluded.content,
                    changed_at = excluded.changed_at,
                    valid_until = excluded.valid_until,
                    closes_at = excluded.closes_at,
                    form = excluded.form
                where artefact.content_version < excluded.content_version
                   or (artefact.content_version = excluded.content_version
                       and (artefact.valid_until, artefact.form) is distinct from (excluded.valid_until, excluded.form))
                """, new
            {
                artefact.EditionId,
                artefact.OrganisationId,
                audience = Words.Of(artefact.Audience),
                artefact.Key,
                artefact.ContentVersion,
                artefact.Etag,
                artefact.Content,
                artefact.ChangedAt,
                artefact.ValidUntil,
                artefact.ClosesAt,
                artefact.Form,
            }, transaction) > 0;
            if (kept && notes is not null)
            {
                await DeliveredStore.NoteAsync(transaction, artefact, notes);
                await DeliveryStore.NoteAsync(transaction, artefact);
            }
            return kept;
        });
    }

    /// <summary>How each edition goes out, for the audiences that it goes out to; one of which nothing is rendered is among them only if
    /// that fails.</summary>
    /// <remarks>Three simple questions: put together by the database they took it, by a plan of when there was little, a hundred times as
    /// long.</remarks>
    public Task<IReadOnlyDictionary<Guid, GoingOutState>> StatesAsync(Guid organisationId) =>
        database.ReadManyAsync<IReadOnlyDictionary<Guid, GoingOutState>>("""
            select e.id, e.content_version, c.everyone, c.link,
                exists (select from secret_link s where s.edition_id = e.id and s.ended_at is null) as has_link
            from edition e
            left join calendar c on c.id = e.calendar_id
            where e.organisation_id = @organisationId and e.removed_at is null;
            select edition_id, audience, content_version, changed_at
            from artefact
            where key = 'feed' and edition_id = any(array(
                select id from edition where organisation_id = @organisationId and removed_at is null));
            select key, failed_since, reason, set_aside_at is not null as is_set_aside
            from work
            where organisation_id = @organisationId and kind = 'render' and failed_since is not null
            """, new { organisationId }, async results =>
        {
            var editions = (await results.ReadAsync<StandingRow>()).AsList();
            var feeds = (await results.ReadAsync<FeedRow>()).ToLookup(feed => feed.EditionId);
            var failing = (await results.ReadAsync<FailingRow>()).ToDictionary(failure => failure.Key);
            return editions.Select(edition => (edition.Id, State: StateOf(
                    edition, [.. feeds[edition.Id].Where(edition.GoesOutTo)], failing.GetValueOrDefault(edition.Id.ToString()))))
                .Where(one => one.State.ChangedAt is not null || one.State.FailedSince is not null)
                .ToDictionary(one => one.Id, one => one.State);
        });

    /// <param name="Everyone">What its calendar tells them; null where it has none.</param>
    private sealed record StandingRow(Guid Id, long ContentVersion, string? Everyone, string? Link, bool HasLink)
    {
        public bool GoesOutTo(FeedRow feed) => Everyone is null || (feed.Audience == "everyone" && Everyone != "nothing")
            || (feed.Audience == "link" && Link != "nothing" && HasLink);
    }

    private sealed record FeedRow(Guid EditionId, string Audience, long ContentVersion, Instant ChangedAt);

    private sealed record FailingRow(string Key, Instant FailedSince, string Reason, bool IsSetAside);

    private static GoingOutState StateOf(StandingRow edition, FeedRow[] feeds, FailingRow? failing) => new(
        feeds.Length > 0 && feeds.All(feed => feed.ContentVersion == edition.ContentVersion),
        feeds.Length > 0 ? feeds.Max(feed => feed.ChangedAt) : null,
        failing?.FailedSince, Words.ReadOrNull<FailureReason>(failing?.Reason), failing?.IsSetAside == true);
}
