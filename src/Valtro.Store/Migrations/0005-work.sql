-- What is still to be done after a change or by the clock (docs/architecture.md, "Work").
select set_config('valtro.organisation', 'all', true);

create table work (
    kind text not null check (kind in ('render', 'mail', 'gather', 'sweep')),
    -- what it is about; with the kind it is there once, however often it is wished for
    key text not null check (key <> ''),
    -- null for what is nobody's in particular
    organisation_id uuid references organisation,
    due_at timestamptz not null,
    -- rises with every wish: who did the work takes it away only if nobody wished for it meanwhile
    wanted bigint not null default 1 check (wanted > 0),
    tries integer not null default 0 check (tries >= 0),
    claimed_until timestamptz,
    failed_since timestamptz,
    -- a word for people; the error itself is for the operator
    reason text check (reason in ('database', 'disk', 'mailserver', 'ours')),
    last_error text,
    -- since when it is not tried by itself any more
    set_aside_at timestamptz,
    primary key (kind, key),
    constraint failure_is_whole check ((failed_since is null) = (reason is null) and (failed_since is null) = (last_error is null) and (set_aside_at is null or failed_since is not null))
);

create index work_due on work (kind, due_at) where set_aside_at is null;
create index work_failing on work (organisation_id) where failed_since is not null;

alter table work enable row level security;
alter table work force row level security;
create policy wall on work using ((select current_setting('valtro.organisation', true)) in ('all', organisation_id::text));

-- An edition's own number rises with whatever changes for its readers. It stands in its row, so that changes of two of its
-- calendars come one after the other.
alter table edition
    add column content_version bigint not null default 1 check (content_version > 0),
    -- what was rendered from an older version is served no more: somebody was to see less from there on
    add column not_before bigint not null default 0;

update edition e set content_version = v.content_version from edition_version v where v.edition_id = e.id and v.content_version > 0;

drop view edition_version;
alter table edition drop column base_version;
alter table calendar drop column content_version;

-- When something that it shows must not be shown any more, whoever is asked or away by then.
alter table artefact add column closes_at timestamptz;

insert into work (kind, key, organisation_id, due_at)
select 'render', id::text, organisation_id, changed_at from edition;

insert into work (kind, key, organisation_id, due_at, tries)
select 'mail', id::text, organisation_id, due_at, tries from mail where sent_at is null;

insert into work (kind, key, organisation_id, due_at)
select 'gather', organisation_id || '/' || account_id, organisation_id, min(made_at) from notice where mailed_at is null group by organisation_id, account_id;

drop index mail_due;
alter table mail
    drop column due_at,
    drop column tries,
    drop column last_error;

-- The time comes from one clock, which is not the database's.
alter table account alter column created_at drop default;
alter table calendar
    alter column created_at drop default,
    drop column changed_at;
alter table edition alter column changed_at drop default;

-- Times have whole seconds: only those stand in feeds and addresses.
update event set start_local = date_trunc('second', start_local), end_local = date_trunc('second', end_local)
where start_local <> date_trunc('second', start_local) or end_local <> date_trunc('second', end_local);
update event_exception
set recurrence_id = date_trunc('second', recurrence_id), start_local = date_trunc('second', start_local), end_local = date_trunc('second', end_local)
where recurrence_id <> date_trunc('second', recurrence_id) or start_local <> date_trunc('second', start_local) or end_local <> date_trunc('second', end_local);

-- Showing spans lie from 1900 to 2199, like all that is typed. A day beyond once stopped a server.
update event set show_from = null where show_from < '1900-01-01';
update event set show_until = null where show_until > '2199-12-31';
update event set show_from = '2199-12-31' where show_from > '2199-12-31';
update event set show_until = '1900-01-01' where show_until < '1900-01-01';
