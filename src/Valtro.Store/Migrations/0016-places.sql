-- Places are entities: documents name one by its id, as they name a category, and event_reference keeps it there. Words that are no
-- place of the list stay words. What later issues need of a place has its column, empty.
-- An event's name for programs outside is a text, so that what came from outside can keep the one it has.
select set_config('valtro.organisation', 'all', true);

alter table place
    add unique (organisation_id, id),
    add column merged_into uuid,
    add column part_of uuid,
    add column address text not null default '',
    add column capacity integer check (capacity > 0),
    add column access_note text not null default '',
    add foreign key (organisation_id, merged_into) references place (organisation_id, id),
    add foreign key (organisation_id, part_of) references place (organisation_id, id);

alter table event_reference
    drop constraint event_reference_kind_check,
    add constraint event_reference_kind_check check (kind in ('category', 'file', 'place')),
    add column place_id uuid generated always as (case when kind = 'place' then target end) stored,
    add foreign key (organisation_id, place_id) references place (organisation_id, id);

-- By which act two became one: undoing it makes them two again.
alter table place add column merged_by_act uuid;
alter table category add column merged_by_act uuid;
alter table calendar add column merged_by_act uuid;

create index event_reference_to_place on event_reference (place_id) where place_id is not null;

-- {"id": …} of the place that is called so: one that is offered first.
create function pg_temp.placed(organisation uuid, called jsonb) returns jsonb language sql stable as $$
    select coalesce(
        (select jsonb_build_object('id', p.id)
         from place p
         where p.organisation_id = organisation and lower(p.name) = lower(called #>> '{}')
         order by p.retired_at desc nulls first
         limit 1),
        called)
$$;

-- A document with the places of its event and of its dates by their ids.
create function pg_temp.with_places(organisation uuid, document jsonb) returns jsonb language sql stable as $$
    select case when jsonb_typeof(document -> 'place') = 'string' and document ->> 'place' <> ''
            then document || jsonb_build_object('place', pg_temp.placed(organisation, document -> 'place')) else document end
        || case when document ? 'exceptions' then jsonb_build_object('exceptions', (
            select jsonb_agg(
                       case when jsonb_typeof(x.one #> '{own,place}') = 'string' and x.one #>> '{own,place}' <> ''
                           then jsonb_set(x.one, '{own,place}', pg_temp.placed(organisation, x.one #> '{own,place}')) else x.one end
                       order by x.at)
            from jsonb_array_elements(document -> 'exceptions') with ordinality x (one, at))) else '{}'::jsonb end
$$;

drop index event_by_place;

update event set content = pg_temp.with_places(organisation_id, content)
where content ? 'place' or jsonb_path_exists(content, '$.exceptions[*].own.place');

update revision set content = jsonb_set(content, '{event}', pg_temp.with_places(organisation_id, content -> 'event'))
where content -> 'event' ? 'place' or jsonb_path_exists(content, '$.event.exceptions[*].own.place');

insert into event_reference (organisation_id, event_id, kind, target)
select distinct e.organisation_id, e.id, 'place', (named.place ->> 'id')::uuid
from event e
cross join lateral (
    select e.content -> 'place' as place
    union
    select x -> 'own' -> 'place' from jsonb_array_elements(coalesce(e.content -> 'exceptions', '[]')) x
) named
where jsonb_typeof(named.place) = 'object';

insert into event_reference (organisation_id, event_id, kind, target, ended_at)
select r.organisation_id, r.event_id, 'place', (named.place ->> 'id')::uuid, max(r.made_at)
from revision r
cross join lateral (
    select r.content #> '{event,place}' as place
    union
    select x -> 'own' -> 'place' from jsonb_array_elements(coalesce(r.content #> '{event,exceptions}', '[]')) x
) named
where jsonb_typeof(named.place) = 'object'
group by r.organisation_id, r.event_id, named.place ->> 'id'
on conflict do nothing;

-- Words that may become a place.
create index event_by_place on event (organisation_id, lower(content ->> 'place')) where jsonb_typeof(content -> 'place') = 'string';

alter table event
    drop constraint event_uid_key,
    alter column uid set default gen_random_uuid()::text,
    alter column uid type text using uid::text,
    alter column continues type text using continues::text,
    add constraint event_uid_unique unique (organisation_id, uid),
    add constraint event_uid_is_a_name check (char_length(uid) between 1 and 1000);

alter table delivered alter column uid type text using uid::text;

alter table outward_name
    alter column uid type text using uid::text,
    alter column own type text using own::text;

-- What programs outside call what came from outside; empty until something does.
create table foreign_name (
    organisation_id uuid not null,
    source text not null check (source <> ''),
    uid text not null check (uid <> ''),
    -- the start that the rule gives a date which differs; empty for the event itself
    recurrence_id text not null default '',
    event_id uuid not null,
    primary key (organisation_id, source, uid, recurrence_id),
    foreign key (organisation_id, event_id) references event (organisation_id, id) on delete cascade
);

create index foreign_name_of_event on foreign_name (event_id);

alter table foreign_name enable row level security;
alter table foreign_name force row level security;
create policy wall on foreign_name using ((select current_setting('valtro.organisation', true)) in ('all', organisation_id::text));
