-- What is wrong with editions, as it was found after the last change; and editions that nobody has let out yet.
select set_config('valtro.organisation', 'all', true);

-- Null while it is in the making. A calendar's own edition and a member's own are never.
alter table edition add column let_out_at timestamptz;
update edition set let_out_at = changed_at;

create table finding (
    organisation_id uuid not null references organisation (id) on delete cascade,
    edition_id uuid not null references edition (id) on delete cascade,
    kind text not null,
    -- tells it from others of its kind
    about text not null,
    severity text not null check (severity in ('keepsfromreaders', 'tolookat', 'forinformation')),
    title text not null,
    sentence text not null,
    place text not null default '',
    remedies jsonb not null,
    week date,
    -- the home calendars of the events that it names
    kept_on uuid[] not null,
    is_plain boolean not null,
    since timestamptz not null,
    -- somebody has seen it and lets it be
    put_off_reason text,
    put_off_by uuid references account (id),
    put_off_at timestamptz,
    primary key (edition_id, kind, about)
);
-- Editions that were looked through, and when last.
create table proof (
    edition_id uuid primary key references edition (id) on delete cascade,
    organisation_id uuid not null references organisation (id) on delete cascade,
    at timestamptz not null
);
create index proof_of_organisation on proof (organisation_id);
alter table proof enable row level security;
alter table proof force row level security;
create policy wall on proof using ((select current_setting('valtro.organisation', true)) in ('all', organisation_id::text));

create index finding_of_organisation on finding (organisation_id, edition_id);

alter table finding enable row level security;
alter table finding force row level security;
create policy wall on finding using ((select current_setting('valtro.organisation', true)) in ('all', organisation_id::text));

-- Links that readers get, and what somebody without an account finds behind each.
create table link_check (
    organisation_id uuid not null references organisation (id) on delete cascade,
    url text not null,
    state text check (state in ('open', 'asksforsignin', 'gone')),
    checked_at timestamptz,
    failures integer not null default 0,
    -- when an edition named it last
    wanted_at timestamptz not null,
    due_at timestamptz not null
);
create unique index link_check_of_url on link_check (organisation_id, md5(url));
create index link_check_due on link_check (organisation_id, due_at);

alter table link_check enable row level security;
alter table link_check force row level security;
create policy wall on link_check using ((select current_setting('valtro.organisation', true)) in ('all', organisation_id::text));

alter table work drop constraint work_kind_check,
    add constraint work_kind_check check (kind in ('render', 'mail', 'gather', 'reset', 'sweep', 'intake', 'follow', 'push', 'prove', 'links'));
