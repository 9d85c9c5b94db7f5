-- Followed sources: addresses that are asked by the clock, whose entries land on calendars by rules. What is needed to ask an address, itself
-- among it, is sealed with a key of the operator's: a copy of the database alone does not tell it.
select set_config('valtro.organisation', 'all', true);

create table source (
    id uuid primary key,
    organisation_id uuid not null references organisation (id) on delete cascade,
    -- by whose rights it lands where it does
    account_id uuid not null references account (id),
    name text not null,
    -- as far as anybody who may see it is told: its host, and the end of its path
    shown text not null,
    access bytea not null,
    rules jsonb not null,
    every_minutes integer not null check (every_minutes between 15 and 10080),
    -- rises with the rules, and with what is said of single entries; what was applied last
    version integer not null default 1,
    applied integer not null default 0,
    due_at timestamptz not null,
    -- as it was right last
    content bytea,
    etag text,
    last_modified text,
    right_at timestamptz,
    changed_at timestamptz,
    failed_since timestamptz,
    failures integer not null default 0,
    problem text not null default '',
    -- as it is held back
    held bytea,
    held_why jsonb,
    held_at timestamptz,
    -- of what was held back, and is not wanted
    unwanted_hash bytea,
    made_at timestamptz not null,
    unique (organisation_id, id)
);

create table source_choice (
    organisation_id uuid not null,
    source_id uuid not null,
    uid text not null,
    landing jsonb not null,
    primary key (source_id, uid),
    foreign key (organisation_id, source_id) references source (organisation_id, id) on delete cascade
);

create table source_fetch (
    organisation_id uuid not null,
    source_id uuid not null,
    at timestamptz not null,
    outcome text not null check (outcome in ('changed', 'same', 'failed', 'held', 'ruled')),
    bytes integer not null default 0,
    made integer not null default 0,
    changed integer not null default 0,
    removed integer not null default 0,
    -- what was another, or why it failed
    news jsonb not null default '[]',
    primary key (source_id, at),
    foreign key (organisation_id, source_id) references source (organisation_id, id) on delete cascade
);

alter table source enable row level security;
alter table source force row level security;
create policy wall on source using ((select current_setting('valtro.organisation', true)) in ('all', organisation_id::text));
alter table source_choice enable row level security;
alter table source_choice force row level security;
create policy wall on source_choice using ((select current_setting('valtro.organisation', true)) in ('all', organisation_id::text));
alter table source_fetch enable row level security;
alter table source_fetch force row level security;
create policy wall on source_fetch using ((select current_setting('valtro.organisation', true)) in ('all', organisation_id::text));

alter table event add column source_id uuid references source (id);
create index event_of_source on event (source_id) where source_id is not null;

-- what a source fills, and nobody else
alter table calendar add column followed_source uuid references source (id) on delete set null;

-- Of what was removed here and rests in the bin no more, a source's name stays: it is not brought again.
alter table foreign_name
    alter column event_id drop not null,
    drop constraint foreign_name_organisation_id_event_id_fkey,
    add constraint foreign_name_event_fkey foreign key (organisation_id, event_id)
        references event (organisation_id, id) on delete set null (event_id);

alter table revision drop constraint revision_act_check,
    add constraint revision_act_check
        check (act in ('made', 'changed', 'cancelled', 'removed', 'restored', 'undone', 'fetched'));

alter table work drop constraint work_kind_check,
    add constraint work_kind_check check (kind in ('render', 'mail', 'gather', 'reset', 'sweep', 'intake', 'follow'));
