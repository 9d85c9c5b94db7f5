using Dapper;
using NodaTime;
using Valtro.Core.Digests;
using Valtro.Core.Disclosure;

namespace Valtro.Store;

/// <summary>Somebody who is told by mail what changed, or asked to be.</summary>
/// <param name="LinkDigest">Of the secret address by which they came.</param>
/// <param name="Only">Names of the calendars that concern them; null for all.</param>
/// <param name="EventId">One event alone.</param>
/// <param name="Token">By which they say yes, and end it.</param>
/// <param name="ToldUntil">What changed until then they know; null until they said yes.</param>
public sealed record Subscriber(
    Guid Id, Guid OrganisationId, Guid EditionId, Audience Audience, byte[]? LinkDigest, string Address, string Language,
    DigestRhythm Rhythm, IReadOnlyList<string>? Only, Guid? EventId, string Token, Instant AskedAt, Instant? ToldUntil, Instant? NextAt)
{
    public bool IsConfirmed => ToldUntil is not null;
}

/// <summary>Readers who are told by mail. Whoever leaves is erased, mails that wait for them too.</summary>
public sealed class SubscriberStore(Database database)
{
    /// <summary>So long somebody can say yes.</summary>
    public static readonly Duration AskedFor = Duration.FromDays(2);

    /// <summary>So often an address is asked within a day, whoever types it.</summary>
    private const int MostAsked = 5;

    /// <summary>Of an edition.</summary>
    private const int MostSubscribers = 20_000;

    /// <summary>Told in one transaction.</summary>
    public const int MostAtOnce = 500;

    private const string Columns = """
        select s.id, s.organisation_id, s.edition_id, s.audience, s.link_digest, s.address, s.language, s.rhythm, s.only_calendars,
            s.event_id, s.token, s.asked_at, s.told_until, s.next_at
        from subscriber s

        """;

    private sealed class Row
    {
        public Guid Id { get; init; }

        public Guid OrganisationId { get; init; }

        public Guid EditionId { get; init; }

        public string Audience { get; init; } = "";

        public byte[]? LinkDigest { get; init; }

        public string Address { get; init; } = "";

        public string Language { get; init; } = "";

        public string Rhythm { get; init; } = "";

        public string[]? OnlyCalendars { get; init; }

        public Guid? EventId { get; init; }

        public string Token { get; init; } = "";

        public Instant AskedAt { get; init; }

        public Instant? ToldUntil { get; init; }

        public Instant? NextAt { get; init; }

        public Subscriber ToSubscriber() => new(
            Id, OrganisationId, EditionId, Words.Read<Audience>(Audience), LinkDigest, Address, Language, Words.Read<DigestRhythm>(Rhythm),
            OnlyCalendars, EventId, Token, AskedAt, ToldUntil, NextAt);
    }

    /// <summary>Asks somebody by mail whether they want it. Nothing is asked where the same address was asked often enough, or there is no
    /// room: whoever types it is not told.</summary>
    public async Task AskAsync(Subscriber asked, MailLetter letter, Instant now)
    {
        using var within = Wall.Within(asked.OrganisationId);
        await database.InTransactionAsync(async transaction =>
        {
            var added = await transaction.Connection!.ExecuteAsync("""
                insert into subscriber (id, organisation_id, edition_id, audience, link_digest, address, language, rhythm, only_calendars,
                    event_id, token, asked_at)
                select @Id, @OrganisationId, @EditionId, @audience, @LinkDigest, @Address, @Language, @rhythm, @only, @EventId, @Token, @now
                where (select count(*) from subscriber where organisation_id = @OrganisationId and lower(address) = lower(@Address)
                        and asked_at > @since) < @MostAsked
                    and (select count(*) from subscriber where edition_id = @EditionId) < @MostSubscribers
                """, new
            {
                asked.Id,
                asked.OrganisationId,
                asked.EditionId,
                audience = Words.Of(asked.Audience),
                asked.LinkDigest,
                asked.Address,
                asked.Language,
                rhythm = Words.Of(asked.Rhythm),
                only = asked.Only?.ToArray(),
                asked.EventId,
                asked.Token,
                now,
                since = now - Duration.FromDays(1),
                MostAsked,
                MostSubscribers,
            }, transaction);
            if (added > 0)
                await MailStore.PostAsync(transaction, asked.OrganisationId, letter with { SubscriberId = asked.Id }, now);
            return added;
        });
    }

    public async Task<Subscriber?> FindAsync(string token)
    {
        using var everywhere = Wall.Everywhere();
        return (await database.FirstAsync<Row>(Columns + "where s.token = @token", new { token }))?.ToSubscriber();
    }

    /// <summary>They have said yes: what the same address had of the same before gives way.</summary>
    public async Task ConfirmAsync(Subscriber subscriber, Instant next, Instant now)
    {
        using var within = Wall.Within(subscriber.OrganisationId);
        await database.InTransactionAsync(async transaction =>
        {
            var confirmed = await transaction.Connection!.ExecuteAsync("""
                update subscriber set confirmed_at = @now, told_until = @now, next_at = @next where id = @Id and confirmed_at is null
                """, new { subscriber.Id, now, next }, transaction);
            if (confirmed == 0)
                return 0;
            await transaction.Connection!.ExecuteAsync("""
                delete from subscriber
                where edition_id = @EditionId and audience = @audience and lower(address) = lower(@Address)
                    and event_id is not distinct from @EventId and id <> @Id
                """, new { subscriber.Id, subscriber.EditionId, audience = Words.Of(subscriber.Audience), subscriber.Address, subscriber.EventId },
                transaction);
            await WorkStore.WantAsync(transaction, WorkKind.Digest, [(subscriber.EditionId.ToString(), subscriber.OrganisationId)], now);
            return confirmed;
        });
    }

    /// <summary>Erases somebody.</summary>
    public async Task EndAsync(Subscriber subscriber)
    {
        using var within = Wall.Within(subscriber.OrganisationId);
        await database.ExecuteAsync("delete from subscriber where id = @Id", new { subscriber.Id });
    }

    /// <summary>Those whose time has come, the longest waiting first; whoever came by a secret address that has ended is erased.</summary>
    public async Task<IReadOnlyList<Subscriber>> DueAsync(Guid organisationId, Guid editionId, Instant now)
    {
        using var within = Wall.Within(organisationId);
        await database.ExecuteAsync("""
            delete from subscriber s
            where s.edition_id = @editionId and s.link_digest is not null and not exists (
                select from secret_link l where l.digest = s.link_digest and l.ended_at is null)
            """, new { editionId });
        return [.. (await database.ListAsync<Row>(
            Columns + "where s.edition_id = @editionId and s.next_at <= @now order by s.next_at, s.id limit @MostAtOnce",
                new { editionId, now, MostAtOnce })).Select(row => row.ToSubscriber())];
    }

    /// <summary>When the next is to be told; null where there is nobody.</summary>
    public async Task<Instant?> NextAsync(Guid organisationId, Guid editionId)
    {
        using var within = Wall.Within(organisationId);
        return (await database.ListAsync<Instant>(
            "select next_at from subscriber where edition_id = @editionId and next_at is not null order by next_at limit 1",
            new { editionId })).Select(at => (Instant?)at).FirstOrDefault();
    }

    /// <summary>Posts letters, and notes until when each knows what changed, who gets none too.</summary>
    public async Task ToldAsync(
        Guid organisationId, IReadOnlyCollection<(Subscriber Subscriber, Instant Next, MailLetter? Letter)> told, Instant now)
    {
        using var within = Wall.Within(organisationId);
        await database.InTransactionAsync(async transaction =>
        {
            await transaction.Connection!.ExecuteAsync("""
                update subscriber s
                set told_until = @now, next_at = t.next_at
                from unnest(@ids, @nexts) t (id, next_at)
                where s.id = t.id
                """, new
            {
                now,
                ids = told.Select(one => one.Subscriber.Id).ToArray(),
                nexts = told.Select(one => one.Next).ToArray(),
            }, transaction);
            foreach (var (subscriber, _, letter) in told)
            {
                if (letter is not null)
                    await MailStore.PostAsync(transaction, organisationId, letter with { SubscriberId = subscriber.Id }, now);
            }
            return told.Count;
        });
    }

    /// <summary>How many are told of an edition.</summary>
    public Task<int> CountAsync(Guid organisationId, Guid editionId) => database.FirstAsync<int>("""
        select count(distinct lower(address))::integer
        from subscriber
        where organisation_id = @organisationId and edition_id = @editionId and confirmed_at is not null
        """, new { organisationId, editionId });

    /// <summary>Erases those who never said yes.</summary>
    public async Task SweepAsync(Instant now)
    {
        using var everywhere = Wall.Everywhere();
        await database.ExecuteAsync(
            "delete from subscriber where confirmed_at is null and asked_at < @before", new { before = now - AskedFor });
    }
}
