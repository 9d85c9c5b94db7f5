using Dapper;
using NodaTime;

namespace Valtro.Store;

/// <summary>What a search looks for, and where somebody may look.</summary>
/// <param name="Text">As it was typed.</param>
/// <param name="Calendars">On which the person is told more than times.</param>
/// <param name="Complete">On which they are told all.</param>
/// <param name="Named">On which they are told all, and who is responsible.</param>
/// <param name="Unfinished">On which they know of drafts too.</param>
public sealed record SearchFor(
    Guid OrganisationId, string Text, Guid[] Calendars, Guid[] Complete, Guid[] Named, Guid[] Unfinished, Instant Now);

/// <param name="SeenFrom">Who is told as much finds it by these words: 1 headline, 2 complete, 3 complete with names, 4 notes.</param>
public sealed record EventFound(Guid Id, int SeenFrom);

/// <param name="Names">Of what else may be meant.</param>
/// <param name="WithPeople">The members of the organisation too.</param>
public sealed record NamesAsked(string[] Names, bool WithPeople);

public sealed record PersonFound(Guid Id, string Name);

/// <param name="Events">Those that come next, as many as there are up to a limit, and some that are over, the latest; in no order.</param>
/// <param name="Names">The positions of those that were meant.</param>
public sealed record Found(IReadOnlyList<EventFound> Events, IReadOnlyList<int> Names, IReadOnlyList<PersonFound> People);

/// <summary>Finds events, and whatever else has a name, by words.</summary>
public sealed class SearchStore(Database database)
{
    /// <summary>Of which the next ones are looked for.</summary>
    public const int MostFound = 200;

    /// <summary>Where as many come within two weeks, none is looked for that comes later: a word that every lesson says is found at once
    /// too.</summary>
    private const int MostSoon = 60;

    public const int MostTerms = 8;

    public const int MostNames = 24;

    /// <summary>The words that were typed, each with a bit of its own.</summary>
    private static readonly string Terms =
        $"term as materialized (select 1 << (row_number() over ())::integer as bit, word as said from words_of(@Text) word limit {MostTerms})";

    private static string Sql(bool forgiving) => $"""
        with {Meant(forgiving)}, soon as materialized (
            select e.id, e.seen_from
            from ({Candidates("reach_to >= @Now and reach_from < @Now + interval '14 days'")} order by greatest(min(reach_from), @Now)) c
            {Told}
            limit {MostSoon}
        ), later as (
            select * from ({Candidates("true")}) c where (select count(*) from soon) < {MostSoon}
        )
        select id, seen_from from soon
        union
        (select e.id, e.seen_from
         from (select * from later where reach_to >= @Now order by greatest(reach_from, @Now)) c
         {Told}
         limit {MostFound})
        union
        (select e.id, e.seen_from
         from (select * from later where reach_to < @Now order by reach_to desc) c
         {Told}
         limit {MostFound / 4});
        with {Terms}
        select n.place::integer - 1
        from unnest(@Names) with ordinality n (name, place)
        where {IsNamed("n.name", forgiving)}
        order by n.place
        limit {MostNames};
        with {Terms}
        select a.id, a.name
        from membership m
        join account a on a.id = m.account_id
        where @WithPeople and m.organisation_id = @OrganisationId and m.ended_at is null
          and {IsNamed("a.name || ' ' || a.email", forgiving)}
        order by lower(a.name), a.id
        limit {MostNames}
        """;

    /// <summary>Each word that was typed, and what it may mean: the words that events say, and names of places, categories, members and
    /// calendars. All have to be found; a calendar's name alone finds no event.</summary>
    /// <param name="forgiving">Words that are only alike count too.</param>
    private static string Meant(bool forgiving) => $"""
        {Terms}, vocabulary as (
            select word, 'word' as kind, null::uuid as target from search_word where organisation_id = @OrganisationId
            union all
            select word, 'place', id from place cross join words_of(name) word where organisation_id = @OrganisationId
            union all
            select word, 'member', a.id
            from membership m
            join account a on a.id = m.account_id
            cross join words_of(a.name) word
            where m.organisation_id = @OrganisationId and exists (select from event_reference r where r.member_id = m.account_id)
            union all
            select word, 'category', id from category cross join words_of(name) word where organisation_id = @OrganisationId
            union all
            select word, 'calendar', id from calendar cross join words_of(name || ' ' || plate) word where id = any(@Calendars)
        ), meant as materialized (
            select distinct t.bit, v.kind, v.word, v.target
            from term t
            join vocabulary v on {(forgiving ? Alike : Same)}
        ), narrowing as materialized (
            select bit, array_agg(target) as calendars from meant where kind = 'calendar' group by bit
        ), needed as materialized (
            select coalesce(bit_or(bit), 0) as bits from term where bit not in (select bit from narrowing)
        )
        """;

    /// <summary>Each word that was typed is one of a name.</summary>
    private static string IsNamed(string name, bool forgiving) => $"""
        exists (select from term)
          and not exists (
            select from term t
            where not exists (select from words_of({name}) v (word) where {(forgiving ? Alike : Same)}))
        """;

    /// <summary>Events that say all the words, of those whose dates fall into some time.</summary>
    private static string Candidates(string when) => $"""
        select event_id, bit_or(bit) as bits, coalesce(bit_or(bit) filter (where seen_from = 1), 0) as headline,
            coalesce(bit_or(bit) filter (where seen_from <= 2), 0) as complete,
            coalesce(bit_or(bit) filter (where seen_from <= 3), 0) as named, min(reach_from) as reach_from, min(reach_to) as reach_to
        from (
            select w.event_id, m.bit, w.seen_from, w.reach_from, w.reach_to
            from meant m
            join event_word w on w.organisation_id = @OrganisationId and w.word = m.word
            where m.kind = 'word'
            union all
            select e.id, m.bit, case m.kind when 'member' then 3 else 1 end, e.reach_from, e.reach_to
            from meant m
            join event_reference r on r.ended_at is null
                and (r.place_id = m.target and m.kind = 'place' or r.category_id = m.target and m.kind = 'category'
                    or r.member_id = m.target and m.kind = 'member')
            join event e on e.organisation_id = @OrganisationId and e.id = r.event_id
        ) hit
        where {when}
        group by event_id
        having bit_or(bit) & (select bits from needed) = (select bits from needed)
        """;

    /// <summary>What a candidate has to be so that somebody is told it. Asked of one after the other, until enough are.</summary>
    private static readonly string Told = $"""
        cross join lateral (
            select e.id, told.seen_from
            from event e
            cross join lateral (
                select min(level) as seen_from
                from (values (1, c.headline), (2, c.complete), (3, c.named), (4, c.bits)) said (level, bits)
                where said.bits & (select bits from needed) = (select bits from needed)
                  and not exists (
                    select from narrowing n
                    where n.bit & said.bits = 0
                      and not n.calendars && (e.home_calendar_id || array(select p.calendar_id from placement p where p.event_id = e.id)))
            ) told
            where e.organisation_id = @OrganisationId and e.id = c.event_id and e.removed_at is null and told.seen_from is not null
              and (e.state in ('live', 'cancelled') or {IsOn("@Unfinished")})
              and {IsOn("case told.seen_from when 1 then @Calendars when 3 then @Named else @Complete end")}
            limit 1
        ) e
        """;

    private static string IsOn(string calendars) => $"""
        (e.home_calendar_id = any({calendars})
         or exists (select from placement p where p.event_id = e.id and p.calendar_id = any({calendars})))
        """;

    /// <summary>One is the beginning of the other; longer ones may stand anywhere in it.</summary>
    private const string Same = "starts_with(v.word, t.said) or (char_length(t.said) >= 4 and strpos(v.word, t.said) > 0)";

    private const string Alike = $"{Same} or (char_length(t.said) >= 4 and similarity(v.word, t.said) >= 0.3)";

    private static readonly string Everything = $"""
        with {Meant(forgiving: false)}
        select e.id, e.seen_from from ({Candidates("true")}) c {Told}
        """;

    private static readonly string Exactly = Sql(forgiving: false);
    private static readonly string Forgivingly = Sql(forgiving: true);

    /// <summary>All events that say some words, however many and whenever they are, with who is told as much.</summary>
    public async Task<IReadOnlyDictionary<Guid, int>> AllAsync(SearchFor search) =>
        (await database.ListAsync<EventFound>(Everything, search)).ToDictionary(one => one.Id, one => one.SeenFrom);

    /// <summary>Lets go the words that no event says any more.</summary>
    public Task<int> ForgetWordsAsync() => database.ExecuteAsync("""
        delete from search_word known
        where not exists (select from event_word w where w.organisation_id = known.organisation_id and w.word = known.word)
        """);

    /// <summary>In one round trip.</summary>
    public Task<Found> FindAsync(SearchFor search, NamesAsked asked, bool forgiving) => database.ReadManyAsync(
        forgiving ? Forgivingly : Exactly,
        new
        {
            search.OrganisationId,
            search.Text,
            search.Calendars,
            search.Complete,
            search.Named,
            search.Unfinished,
            search.Now,
            asked.Names,
            asked.WithPeople,
        },
        async results => new Found(
            (await results.ReadAsync<EventFound>()).AsList(),
            (await results.ReadAsync<int>()).AsList(),
            (await results.ReadAsync<PersonFound>()).AsList()));
}
