-- Editions composed of several calendars, beside the standard one that every calendar has.
select set_config('valtro.organisation', 'all', true);

alter table edition
    alter column calendar_id drop not null,
    add column name short_name,
    add column audience text check (audience in ('members', 'link', 'everyone')),
    -- what somebody said of it (Valtro.Core.Editions.EditionDraft); null for a standard edition as it comes
    add column settings jsonb check (jsonb_typeof(settings) = 'object'),
    add column version integer not null default 1 check (version > 0),
    -- added to the versions of its calendars, so that what readers fetch has a version that only rises
    add column base_version bigint not null default 0,
    add column changed_at timestamptz not null default now(),
    add column removed_at timestamptz,
    add unique (organisation_id, id),
    add constraint edition_is_of_one_calendar_or_composed check (
        (calendar_id is null) = (name is not null) and (calendar_id is null) = (audience is not null) and (calendar_id is not null or settings is not null));

create table edition_source (
    organisation_id uuid not null,
    edition_id uuid not null,
    calendar_id uuid not null,
    primary key (edition_id, calendar_id),
    foreign key (organisation_id, edition_id) references edition (organisation_id, id) on delete cascade,
    foreign key (organisation_id, calendar_id) references calendar (organisation_id, id) on delete cascade
);

create index edition_source_by_calendar on edition_source (calendar_id);

insert into edition_source (organisation_id, edition_id, calendar_id)
select organisation_id, id, calendar_id from edition;

-- A secret address is of an edition. One of an edition for members is a member's own.
alter table secret_link
    add column edition_id uuid,
    add column account_id uuid references account;

update secret_link s set edition_id = e.id from edition e where e.calendar_id = s.calendar_id;

drop index secret_link_one_at_a_time;
alter table secret_link
    drop column calendar_id,
    alter column edition_id set not null,
    add foreign key (organisation_id, edition_id) references edition (organisation_id, id) on delete cascade;

create unique index secret_link_one_at_a_time on secret_link (edition_id, coalesce(account_id, '00000000-0000-0000-0000-000000000000'::uuid)) where ended_at is null;

alter table artefact
    drop constraint artefact_audience_check,
    add check (audience in ('members', 'link', 'everyone')),
    drop constraint artefact_key_check,
    add check (key in ('feed', 'all', 'changed') or key ~ '^month:[0-9]{4}-[0-9]{2}$');

alter table delivery
    drop constraint delivery_audience_check,
    add check (audience in ('members', 'link', 'everyone'));

-- An edition that somebody is still making, to be looked at.
create table edition_draft (
    id uuid primary key,
    organisation_id uuid not null references organisation,
    account_id uuid not null references account,
    edition_id uuid,
    settings jsonb not null check (jsonb_typeof(settings) = 'object'),
    made_at timestamptz not null
);

create index edition_draft_by_account on edition_draft (account_id, made_at);

do $$
declare
    walled text;
begin
    foreach walled in array array['edition_source', 'edition_draft']
    loop
        execute format('alter table %I enable row level security', walled);
        execute format('alter table %I force row level security', walled);
        execute format('create policy wall on %I using ((select current_setting(''valtro.organisation'', true)) in (''all'', organisation_id::text))', walled);
    end loop;
end $$;

-- Where a place is, for maps: degrees north and east.
alter table place
    add column latitude double precision check (latitude between -90 and 90),
    add column longitude double precision check (longitude between -180 and 180),
    add constraint place_is_somewhere_whole check ((latitude is null) = (longitude is null));

-- The version of what readers of an edition fetch. A calendar that was merged into another counts as both.
-- The view looks through the wall of whoever asks.
create view edition_version with (security_invoker = true) as
select e.id as edition_id,
       e.base_version + coalesce((
           select sum(c.content_version + coalesce(t.content_version, 0))
           from edition_source s
           join calendar c on c.id = s.calendar_id
           left join calendar t on t.id = c.merged_into
           where s.edition_id = e.id), 0)::bigint as content_version
from edition e;
