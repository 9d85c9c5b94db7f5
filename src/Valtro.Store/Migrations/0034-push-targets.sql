-- Calendars elsewhere that are written by CalDAV (RFC 4791): what an edition says is put there, and what was put there is remembered,
-- so that nothing else is touched and nothing that somebody changed there is overwritten. What is needed to ask is sealed, as of followed sources.
select set_config('valtro.organisation', 'all', true);

create table push_target (
    id uuid primary key,
    organisation_id uuid not null references organisation (id) on delete cascade,
    edition_id uuid not null references edition (id) on delete cascade,
    -- whoever set it up, and hears of it
    account_id uuid not null references account (id),
    name text not null,
    shown text not null,
    access bytea not null,
    -- as whom those are seen who read it there
    audience text not null check (audience in ('members', 'link', 'everyone')),
    -- all of the edition, or what is chosen of it, within days
    takes text not null check (takes in ('all', 'chosen')),
    from_day date,
    until_day date,
    -- it is given up, and what was written there is taken away first
    leaving boolean not null default false,
    version integer not null default 1,
    right_at timestamptz,
    failed_since timestamptz,
    failures integer not null default 0,
    problem text not null default '',
    sync_token text,
    -- of what is being written now; null where nothing is
    done integer,
    total integer,
    made_at timestamptz not null,
    unique (organisation_id, id)
);
create index push_target_of_edition on push_target (edition_id);

create table push_choice (
    organisation_id uuid not null,
    target_id uuid not null,
    event_id uuid not null,
    primary key (target_id, event_id),
    foreign key (organisation_id, target_id) references push_target (organisation_id, id) on delete cascade,
    foreign key (organisation_id, event_id) references event (organisation_id, id) on delete cascade
);
create index push_choice_of_event on push_choice (event_id);

create table push_object (
    organisation_id uuid not null,
    target_id uuid not null,
    -- the last part of its address there
    name text not null,
    title text not null,
    -- as it was written last, and by which it was known there then
    sent bytea not null,
    etag text,
    put_at timestamptz,
    -- what somebody made of it there, beside what it is to be
    question text check (question in ('changed', 'gone', 'taken')),
    here bytea,
    there bytea,
    there_tag text,
    asked_at timestamptz,
    answer text not null default 'none' check (answer in ('none', 'ours', 'theirs')),
    -- why it is not taken there
    problem text not null default '',
    primary key (target_id, name),
    foreign key (organisation_id, target_id) references push_target (organisation_id, id) on delete cascade
);

alter table push_target enable row level security;
alter table push_target force row level security;
create policy wall on push_target using ((select current_setting('valtro.organisation', true)) in ('all', organisation_id::text));
alter table push_choice enable row level security;
alter table push_choice force row level security;
create policy wall on push_choice using ((select current_setting('valtro.organisation', true)) in ('all', organisation_id::text));
alter table push_object enable row level security;
alter table push_object force row level security;
create policy wall on push_object using ((select current_setting('valtro.organisation', true)) in ('all', organisation_id::text));

alter table work drop constraint work_kind_check,
    add constraint work_kind_check check (kind in ('render', 'mail', 'gather', 'reset', 'sweep', 'intake', 'follow', 'push'));
alter table work drop constraint work_reason_check,
    add constraint work_reason_check check (reason in ('database', 'disk', 'mailserver', 'elsewhere', 'ours'));
