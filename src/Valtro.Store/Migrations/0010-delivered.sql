-- What readers of an edition were told last of each component of its feed: from this alone follow SEQUENCE and LAST-MODIFIED
-- (docs/architecture.md, "Stamps"). Events keep only the version that their editors check.
select set_config('valtro.organisation', 'all', true);

alter table edition add column sequence_floor integer not null default 0 check (sequence_floor >= 0);

create table delivered (
    edition_id uuid not null,
    organisation_id uuid not null,
    audience text not null,
    -- empty for the edition itself
    variant text not null default '',
    uid uuid not null,
    -- the start that the rule gives a date which differs; empty for the event itself
    recurrence_id text not null,
    -- null where it was never noted: what goes out next is what went out last
    digest uuid,
    sequence integer not null check (sequence >= 0),
    changed_at timestamptz not null,
    first_version bigint not null,
    since_version bigint not null,
    calendars uuid[] not null,
    gone_at timestamptz,
    primary key (edition_id, audience, variant, uid, recurrence_id),
    foreign key (organisation_id, edition_id) references edition (organisation_id, id) on delete cascade
);

create index delivered_gone on delivered (gone_at) where gone_at is not null;

-- By which name readers know an event, or one of its dates, where that is not the event's own.
create table outward_name (
    edition_id uuid not null,
    organisation_id uuid not null,
    audience text not null,
    variant text not null default '',
    event_id uuid not null,
    -- empty for the event as a whole
    recurrence_id text not null,
    own uuid,
    uid uuid not null,
    primary key (edition_id, audience, variant, event_id, recurrence_id),
    foreign key (organisation_id, edition_id) references edition (organisation_id, id) on delete cascade,
    foreign key (organisation_id, event_id) references event (organisation_id, id) on delete cascade
);

create index outward_name_by_event on outward_name (event_id);

-- What addresses of narrowed feeds may say: slugs and plates of calendars, each for the first that had it in the edition.
create table edition_calendar_name (
    edition_id uuid not null,
    organisation_id uuid not null,
    name text not null check (name <> ''),
    calendar_id uuid not null,
    primary key (edition_id, name),
    foreign key (organisation_id, edition_id) references edition (organisation_id, id) on delete cascade,
    foreign key (organisation_id, calendar_id) references calendar (organisation_id, id) on delete cascade
);

-- What was saved lately, for the news of an edition.
create index revision_by_time on revision (organisation_id, made_at);

do $$
declare
    walled text;
begin
    foreach walled in array array['delivered', 'outward_name', 'edition_calendar_name']
    loop
        execute format('alter table %I enable row level security', walled);
        execute format('alter table %I force row level security', walled);
        execute format('create policy wall on %I using ((select current_setting(''valtro.organisation'', true)) in (''all'', organisation_id::text))', walled);
    end loop;
end $$;

-- The name under which an event is known where only its times are told (Disclosed.Unlinkable): the first 16 bytes of HMAC-SHA256 (RFC 2104)
-- of "times" under the event's UID; both as .NET writes a UUID, its first three parts backwards.
create function pg_temp.backwards(bytes bytea) returns bytea language sql immutable as $$
    select substr(bytes, 4, 1) || substr(bytes, 3, 1) || substr(bytes, 2, 1) || substr(bytes, 1, 1) || substr(bytes, 6, 1) || substr(bytes, 5, 1)
        || substr(bytes, 8, 1) || substr(bytes, 7, 1) || substr(bytes, 9)
$$;

create function pg_temp.times_name(uid uuid) returns uuid language plpgsql immutable as $$
declare
    key bytea := pg_temp.backwards(uuid_send(uid)) || decode(repeat('00', 48), 'hex');
    inside bytea := key;
    outside bytea := key;
begin
    for place in 0..63 loop
        inside := set_byte(inside, place, get_byte(key, place) # 54);
        outside := set_byte(outside, place, get_byte(key, place) # 92);
    end loop;
    return encode(pg_temp.backwards(substr(sha256(outside || sha256(inside || 'times'::bytea)), 1, 16)), 'hex')::uuid;
end $$;

-- Numbers begin where they were.
insert into delivered (edition_id, organisation_id, audience, uid, recurrence_id, sequence, changed_at, first_version, since_version, calendars)
select distinct on (known.edition_id, known.audience, known.uid) known.*
from (
    select e.id as edition_id, e.organisation_id, a.audience,
           case when told.busy then pg_temp.times_name(v.uid) else v.uid end as uid, '' as recurrence_id,
           case when told.busy then v.times_sequence else greatest(v.sequence, v.headline_sequence) end as sequence,
           case when told.busy then v.times_changed_at else greatest(v.changed_at, v.headline_changed_at) end as changed_at,
           e.content_version as first_version, e.content_version as since_version, '{}'::uuid[] as calendars
    from edition e
    cross join lateral unnest(case when e.calendar_id is null then array[e.audience] else array['everyone', 'link'] end) a (audience)
    join edition_source s on s.edition_id = e.id
    join calendar c on c.id = s.calendar_id
    join event v on v.organisation_id = e.organisation_id and v.removed_at is null
        and (v.home_calendar_id = c.id or exists (select from placement p where p.event_id = v.id and p.calendar_id = c.id))
    cross join lateral (select coalesce(e.settings ->> 'cap', '') = 'times' or case a.audience
        when 'everyone' then c.everyone::text = 'times' or coalesce(v.cap_everyone::text, '') = 'times'
        when 'link' then c.link::text = 'times' or coalesce(v.cap_link::text, '') = 'times'
        else c.members::text = 'times' or coalesce(v.cap_members::text, '') = 'times' end) told (busy)
) known
order by known.edition_id, known.audience, known.uid, known.sequence desc;

insert into edition_calendar_name (edition_id, organisation_id, name, calendar_id)
select s.edition_id, s.organisation_id, named.name, s.calendar_id
from edition_source s
join calendar c on c.id = s.calendar_id
join edition standard on standard.calendar_id = c.id
cross join lateral (values (standard.slug), (c.plate::text)) named (name)
order by s.edition_id, c.created_at
on conflict do nothing;

alter table event
    drop column sequence,
    drop column changed_at,
    drop column headline_sequence,
    drop column headline_changed_at,
    drop column times_sequence,
    drop column times_changed_at;

-- What is kept is written anew, by these rules.
update artefact set valid_until = changed_at;

insert into work (kind, key, organisation_id, due_at)
select 'render', id::text, organisation_id, changed_at from edition order by id::text
on conflict (kind, key) do update set wanted = work.wanted + 1, due_at = least(work.due_at, excluded.due_at);
