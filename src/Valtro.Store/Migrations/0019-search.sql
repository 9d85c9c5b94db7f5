-- What events say, by its words, so that a search finds them behind the wall: comparisons of texts leak nothing, `@@` of a vector does
-- (docs/decisions/search.md). PostgreSQL's full text splits the texts, pg_trgm forgives typing errors.
select set_config('valtro.organisation', 'all', true);

create extension if not exists pg_trgm;
create extension if not exists unaccent;

create table event_word (
    organisation_id uuid not null,
    event_id uuid not null,
    word text collate "C" not null,
    -- from which level on somebody is told it: 1 headline, 2 complete, 3 notes
    seen_from smallint not null check (seen_from between 1 and 3),
    -- as the event has them, so that what comes next is found without reading all events that say a word
    reach_from timestamptz not null,
    reach_to timestamptz not null,
    primary key (organisation_id, word, event_id) include (seen_from, reach_from, reach_to),
    foreign key (organisation_id, event_id) references event (organisation_id, id) on delete cascade
);

create index event_word_of_event on event_word (event_id);

alter table event_word enable row level security;
alter table event_word force row level security;
create policy wall on event_word using ((select current_setting('valtro.organisation', true)) in ('all', organisation_id::text));

-- Each word of an organisation, nearly once: two transactions that bring the same one need not wait for each other.
create table search_word (
    organisation_id uuid not null references organisation,
    word text collate "C" not null
);

create index search_word_by_word on search_word (organisation_id, word);

alter table search_word enable row level security;
alter table search_word force row level security;
create policy wall on search_word using ((select current_setting('valtro.organisation', true)) in ('all', organisation_id::text));

-- The words of a text as they are looked up: small letters without accents.
create function words_of(said text) returns setof text language sql stable as $$
    select distinct left(lexeme, 100) from unnest(to_tsvector('simple', unaccent(left(said, 100000))))
$$;

-- What an event's document says in words, its dates' own words too, and from which level on. Categories and places of the list have
-- names of their own.
create function texts_of(document jsonb) returns table (seen_from integer, said text) language sql immutable as $$
    select field.seen_from, said.text
    from (
        select document as part
        union all
        select own -> 'own' from jsonb_array_elements(document -> 'exceptions') own where own ? 'own'
    ) parts
    cross join lateral (
        values (1, part -> 'title'), (1, part -> 'subtitle'), (1, case jsonb_typeof(part -> 'place') when 'string' then part -> 'place' end),
            (2, part #> '{description,text}'), (2, part -> 'contact'), (2, part -> 'tags'), (2, part -> 'links'), (3, part -> 'notes')
    ) field (seen_from, value)
    cross join lateral (
        select field.value #>> '{}' as text where jsonb_typeof(field.value) = 'string'
        union all
        select coalesce(one ->> 'label', one #>> '{}')
        from jsonb_array_elements(case jsonb_typeof(field.value) when 'array' then field.value end) one
    ) said
$$;

-- Once for all events of a statement: for each by itself, a table of thousands would be planned as if there were none yet.
create function events_searched() returns trigger language plpgsql as $$
begin
    if tg_op = 'UPDATE' then
        delete from event_word w
        using written n
        join before o on o.id = n.id
        where w.event_id = n.id and n.content <> o.content;
        update event_word w
        set reach_from = n.reach_from, reach_to = n.reach_to
        from written n
        join before o on o.id = n.id
        where w.event_id = n.id and n.content = o.content and (n.reach_from, n.reach_to) is distinct from (o.reach_from, o.reach_to);
        perform events_are_searched(array(
            select n.id from written n join before o on o.id = n.id where n.content <> o.content));
    else
        perform events_are_searched(array(select id from written));
    end if;
    return null;
end $$;

-- Writes the words of some events that have none.
create function events_are_searched(those uuid[]) returns void language sql as $$
    with said as (
        insert into event_word (organisation_id, event_id, word, seen_from, reach_from, reach_to)
        select e.organisation_id, e.id, word, min(texts.seen_from), e.reach_from, e.reach_to
        from unnest(those) one (id)
        join event e on e.id = one.id
        cross join texts_of(e.content) texts
        cross join words_of(texts.said) word
        group by e.id, word
        returning organisation_id, word
    )
    insert into search_word (organisation_id, word)
    select distinct organisation_id, word
    from said
    where not exists (select from search_word known where known.organisation_id = said.organisation_id and known.word = said.word)
$$;

create trigger searched after insert on event
    referencing new table as written for each statement execute function events_searched();
create trigger searched_anew after update on event
    referencing old table as before new table as written for each statement execute function events_searched();

select events_are_searched(array(select id from event));
