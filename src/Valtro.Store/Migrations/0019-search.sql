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

create function event_searched() returns trigger language plpgsql as $$
begin
    if tg_op = 'UPDATE' then
        if new.content = old.content then
            update event_word set reach_from = new.reach_from, reach_to = new.reach_to
            where event_id = new.id and (reach_from, reach_to) is distinct from (new.reach_from, new.reach_to);
            return null;
        end if;
        delete from event_word where event_id = new.id;
    end if;
    insert into event_word (organisation_id, event_id, word, seen_from, reach_from, reach_to)
    select new.organisation_id, new.id, word, min(texts.seen_from), new.reach_from, new.reach_to
    from texts_of(new.content) texts
    cross join words_of(texts.said) word
    group by word;
    insert into search_word (organisation_id, word)
    select w.organisation_id, w.word
    from event_word w
    where w.event_id = new.id
      and not exists (select from search_word known where known.organisation_id = w.organisation_id and known.word = w.word);
    return null;
end $$;

create trigger searched after insert or update of content, reach on event for each row execute function event_searched();

insert into event_word (organisation_id, event_id, word, seen_from, reach_from, reach_to)
select e.organisation_id, e.id, word, min(texts.seen_from), e.reach_from, e.reach_to
from event e
cross join texts_of(e.content) texts
cross join words_of(texts.said) word
group by e.id, word;

insert into search_word (organisation_id, word) select distinct organisation_id, word from event_word;
