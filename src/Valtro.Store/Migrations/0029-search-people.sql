-- Who is responsible for an event is looked for too: members by their names as they are now, others by what was typed. Names are told from
-- all of it on to whom the calendar tells them, notes only to those who keep it.
select set_config('valtro.organisation', 'all', true);

alter table event_word drop constraint event_word_seen_from_check;
update event_word set seen_from = 4 where seen_from = 3;
-- from which level on somebody is told it: 1 headline, 2 complete, 3 complete with names, 4 notes
alter table event_word add constraint event_word_seen_from_check check (seen_from between 1 and 4);

create or replace function texts_of(document jsonb) returns table (seen_from integer, said text) language sql immutable as $$
    select field.seen_from, said.text
    from (
        select document as part
        union all
        select own -> 'own' from jsonb_array_elements(document -> 'exceptions') own where own ? 'own'
    ) parts
    cross join lateral (
        values (1, part -> 'title'), (1, part -> 'subtitle'), (1, case jsonb_typeof(part -> 'place') when 'string' then part -> 'place' end),
            (2, part #> '{description,text}'), (2, part -> 'contact'), (2, part -> 'tags'), (2, part -> 'links'), (3, part -> 'people'),
            (4, part -> 'notes')
    ) field (seen_from, value)
    cross join lateral (
        select field.value #>> '{}' as text where jsonb_typeof(field.value) = 'string'
        union all
        select coalesce(one ->> 'label', one ->> 'name', one #>> '{}')
        from jsonb_array_elements(case jsonb_typeof(field.value) when 'array' then field.value end) one
        where jsonb_typeof(one) <> 'object' or not one ? 'member'
    ) said
$$;

delete from event_word w using event e where e.id = w.event_id and e.content::text like '%"people"%';
select events_are_searched(array(select id from event where content::text like '%"people"%'));
