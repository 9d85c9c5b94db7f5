-- What an event says is one document with a version and names of its own (EventDocument), instead of forty columns. What it names by id stands
-- beside it in event_reference, with real foreign keys: nothing that an event names can vanish.
-- The old columns and event_exception stay for one release, unread and unwritten (docs/operations.md).
select set_config('valtro.organisation', 'all', true);

create function pg_temp.local(at timestamp) returns text language sql immutable as $$ select to_char(at, 'YYYY-MM-DD"T"HH24:MI:SS') $$;

create function pg_temp.locals(dates timestamp[]) returns jsonb language sql immutable as $$
    select jsonb_agg(pg_temp.local(date) order by date) from unnest(dates) date
$$;

create function pg_temp.filled(made jsonb) returns jsonb language sql immutable as $$ select nullif(jsonb_strip_nulls(made), '{}'::jsonb) $$;

alter table file add unique (organisation_id, id);

create table event_reference (
    organisation_id uuid not null,
    event_id uuid not null,
    kind text not null check (kind in ('category', 'file')),
    target uuid not null,
    -- since when only earlier versions of the event name it; it goes 90 days later
    ended_at timestamptz,
    category_id uuid generated always as (case when kind = 'category' then target end) stored,
    file_id uuid generated always as (case when kind = 'file' then target end) stored,
    primary key (event_id, kind, target),
    foreign key (organisation_id, event_id) references event (organisation_id, id) on delete cascade,
    foreign key (organisation_id, category_id) references category (organisation_id, id),
    foreign key (organisation_id, file_id) references file (organisation_id, id)
);

create index event_reference_to_category on event_reference (category_id) where category_id is not null;
create index event_reference_to_file on event_reference (file_id) where file_id is not null;
create index event_reference_ended on event_reference (ended_at) where ended_at is not null;

alter table event_reference enable row level security;
alter table event_reference force row level security;
create policy wall on event_reference using ((select current_setting('valtro.organisation', true)) in ('all', organisation_id::text));

alter table event add column content jsonb;

update event e
set content = jsonb_strip_nulls(jsonb_build_object(
    'v', 1,
    'title', e.title,
    'when', jsonb_build_object(
        'allDay', case when e.all_day then true end,
        'start', pg_temp.local(e.start_local),
        'end', pg_temp.local(e.end_local),
        'zone', e.zone,
        'rule', e.rrule,
        'extra', pg_temp.locals(e.extra),
        'removed', pg_temp.locals(e.removed_dates),
        'inBreaks', nullif(e.in_breaks, 'ignore'),
        'cycle', case when e.cycle_numbers is not null then jsonb_build_object(
            'numbers', to_jsonb(e.cycle_numbers), 'weekdays', to_jsonb(e.cycle_weekdays), 'until', e.cycle_until, 'count', e.cycle_count) end),
    'place', nullif(e.place, ''),
    'description', case when e.description_html <> '' or e.description_text <> '' then jsonb_build_object('html', e.description_html, 'text', e.description_text) end,
    'category', e.category_id,
    'tags', nullif(to_jsonb(e.tags), '[]'),
    'links', nullif(e.links, '[]'),
    'files', (select jsonb_agg(f.file -> 'id' order by f.place) from jsonb_array_elements(e.files) with ordinality f (file, place)),
    'contact', nullif(e.contact, ''),
    'notes', nullif(e.notes, ''),
    'cap', pg_temp.filled(jsonb_build_object('members', e.cap_members, 'link', e.cap_link, 'everyone', e.cap_everyone)),
    'showing', pg_temp.filled(jsonb_build_object('from', e.show_from, 'until', e.show_until)),
    'exceptions', (
        select jsonb_agg(jsonb_build_object(
                   'of', pg_temp.local(x.recurrence_id),
                   'cancelled', case when x.is_cancelled then true end,
                   'start', pg_temp.local(x.start_local),
                   'end', pg_temp.local(x.end_local),
                   'own', pg_temp.filled(jsonb_build_object(
                       'title', x.title,
                       'place', x.place,
                       'description', case when x.description_html is not null then jsonb_build_object('html', x.description_html, 'text', x.description_text) end)))
                   order by x.recurrence_id)
        from event_exception x
        where x.event_id = e.id)));

alter table event
    alter column content set not null,
    add constraint event_content_is_a_document check (
        coalesce((content ->> 'v')::integer > 0 and content ->> 'title' <> '' and jsonb_typeof(content -> 'when') = 'object', false)),
    alter column title drop not null,
    alter column place drop not null,
    alter column description_html drop not null,
    alter column description_text drop not null,
    alter column all_day drop not null,
    alter column start_local drop not null,
    alter column end_local drop not null,
    alter column zone drop not null,
    alter column extra drop not null,
    alter column removed_dates drop not null,
    alter column in_breaks drop not null,
    alter column tags drop not null,
    alter column links drop not null,
    alter column files drop not null,
    alter column contact drop not null,
    alter column notes drop not null;

insert into event_reference (organisation_id, event_id, kind, target)
select organisation_id, id, 'category', category_id from event where category_id is not null
union
select e.organisation_id, e.id, 'file', f.id
from event e
cross join lateral jsonb_array_elements(e.files) named
join file f on f.organisation_id = e.organisation_id and f.id = (named ->> 'id')::uuid;

-- What only earlier versions name.
insert into event_reference (organisation_id, event_id, kind, target, ended_at)
select r.organisation_id, r.event_id, 'file', f.id, max(r.made_at)
from revision r
cross join lateral jsonb_array_elements(case when jsonb_typeof(r.content -> 'files') = 'array' then r.content -> 'files' else '[]' end) named
join file f on f.organisation_id = r.organisation_id and f.id = (named ->> 'id')::uuid
group by r.organisation_id, r.event_id, f.id
on conflict do nothing;

-- A category of an event does not hold it any more: the reference does.
update event set category_id = null where category_id is not null;

alter table placement add column reach tstzrange;
update placement p set reach = e.reach from event e where e.id = p.event_id;
alter table placement alter column reach set not null;

-- Questions begin with the calendars that they are about.
drop index event_by_calendar_and_reach;
drop index event_by_file;
drop index event_by_category;
drop index event_by_place;
create index event_by_calendar_and_reach on event using gist (home_calendar_id, reach) where removed_at is null;
create index placement_by_calendar_and_reach on placement using gist (calendar_id, reach);
create index event_by_place on event (organisation_id, lower(content ->> 'place')) where content ? 'place';
