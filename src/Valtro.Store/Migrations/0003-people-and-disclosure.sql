-- Calendars: sign-off, archive, bin.
alter table calendar
    add column requires_sign_off boolean not null default true,
    add column archived_at timestamptz,
    add column removed_at timestamptz,
    -- where its events went, so that its addresses lead there
    add column merged_into uuid,
    add foreign key (organisation_id, merged_into) references calendar (organisation_id, id);

-- What rests in the bin holds no plate.
alter table calendar drop constraint calendar_plate_unique;
create unique index calendar_plate_unique on calendar (organisation_id, plate) where removed_at is null;

create table calendar_group (
    id uuid primary key,
    organisation_id uuid not null references organisation,
    name short_name not null,
    unique (organisation_id, id)
);

create unique index calendar_group_name_unique on calendar_group (organisation_id, lower(name));

create table calendar_group_member (
    organisation_id uuid not null,
    group_id uuid not null,
    calendar_id uuid not null,
    primary key (group_id, calendar_id),
    foreign key (organisation_id, group_id) references calendar_group (organisation_id, id) on delete cascade,
    foreign key (organisation_id, calendar_id) references calendar (organisation_id, id) on delete cascade
);

-- Events: what only some see of them, and what changed as far as each level can see it.
alter table event
    add column links jsonb not null default '[]' check (jsonb_typeof(links) = 'array'),
    add column files jsonb not null default '[]' check (jsonb_typeof(files) = 'array'),
    add column contact text not null default '' check (char_length(contact) <= 400),
    add column notes text not null default '' check (char_length(notes) <= 5000),
    add column cap_members detail,
    add column cap_link detail,
    add column cap_everyone detail,
    add column show_from date,
    add column show_until date,
    add column made_by uuid references account,
    add column headline_sequence integer not null default 0 check (headline_sequence >= 0),
    add column headline_changed_at timestamptz,
    add column times_sequence integer not null default 0 check (times_sequence >= 0),
    add column times_changed_at timestamptz,
    add constraint cap_is_monotone check (
        coalesce(detail_rank(cap_link) <= detail_rank(cap_members), true)
        and coalesce(detail_rank(cap_everyone) <= detail_rank(cap_link), true)
        and coalesce(detail_rank(cap_everyone) <= detail_rank(cap_members), true)),
    add constraint showing_span_is_a_span check (show_until >= show_from);

update event e
set headline_sequence = sequence, headline_changed_at = changed_at, times_sequence = sequence, times_changed_at = changed_at,
    made_by = (select r.account_id from revision r where r.event_id = e.id and r.version = 1);

alter table event
    alter column headline_changed_at set not null,
    alter column times_changed_at set not null;

create index event_by_file on event using gin (files jsonb_path_ops);

-- An event shown on a calendar other than its home: one event, one truth.
create table placement (
    organisation_id uuid not null,
    event_id uuid not null,
    calendar_id uuid not null,
    primary key (event_id, calendar_id),
    foreign key (organisation_id, event_id) references event (organisation_id, id) on delete cascade,
    foreign key (organisation_id, calendar_id) references calendar (organisation_id, id) on delete cascade
);

create index placement_by_calendar on placement (calendar_id);

create table file (
    id uuid primary key,
    organisation_id uuid not null references organisation,
    name text not null check (char_length(name) between 1 and 200),
    type text not null check (type ~ '^[a-z0-9.+-]+/[a-z0-9.+-]+$'),
    content bytea not null check (octet_length(content) between 1 and 10485760),
    made_by uuid not null references account,
    made_at timestamptz not null
);

-- People.
alter table account add column last_sign_in_at timestamptz;
-- Who left keeps a row, so that what they wrote keeps its name.
alter table membership add column ended_at timestamptz;

create table invitation (
    id uuid primary key,
    organisation_id uuid not null references organisation,
    email text not null check (email like '%_@_%' and char_length(email) <= 254),
    normalized_email text not null,
    is_administrator boolean not null,
    -- of the secret in the mail; the secret itself is kept nowhere
    digest bytea not null unique check (octet_length(digest) = 32),
    invited_by uuid not null references account,
    invited_at timestamptz not null,
    expires_at timestamptz not null check (expires_at > invited_at),
    accepted_at timestamptz,
    withdrawn_at timestamptz,
    unique (organisation_id, id),
    constraint invitation_ends_one_way check (accepted_at is null or withdrawn_at is null)
);

create unique index invitation_open_once on invitation (organisation_id, normalized_email) where accepted_at is null and withdrawn_at is null;

create table invitation_role (
    organisation_id uuid not null,
    invitation_id uuid not null,
    calendar_id uuid not null,
    role text not null check (role in ('reader', 'contributor', 'editor')),
    primary key (invitation_id, calendar_id),
    foreign key (organisation_id, invitation_id) references invitation (organisation_id, id) on delete cascade,
    foreign key (organisation_id, calendar_id) references calendar (organisation_id, id) on delete cascade
);

-- The secret address of a calendar's standard edition. A former one is known by its digest alone, to be answered with 410.
create table secret_link (
    id uuid primary key,
    organisation_id uuid not null,
    calendar_id uuid not null,
    secret text check (secret ~ '^[A-Za-z0-9_-]{32}$'),
    digest bytea not null unique check (octet_length(digest) = 32),
    feed_uid uuid not null default gen_random_uuid(),
    made_at timestamptz not null,
    ended_at timestamptz,
    ended_how text check (ended_how in ('replaced', 'withdrawn')),
    foreign key (organisation_id, calendar_id) references calendar (organisation_id, id) on delete cascade,
    constraint secret_link_ends_whole check ((ended_at is null) = (ended_how is null) and (ended_at is null) = (secret is not null))
);

create unique index secret_link_one_at_a_time on secret_link (calendar_id) where ended_at is null;

-- What waits for, or got, a decision of those who keep a calendar.
create table submission (
    id uuid primary key,
    organisation_id uuid not null,
    kind text not null check (kind in ('event', 'change', 'placement')),
    event_id uuid not null,
    calendar_id uuid not null,
    title text not null,
    proposer_id uuid not null references account,
    made_at timestamptz not null,
    -- of a change: what was asked for, and what the form showed before
    request jsonb,
    base jsonb,
    state text not null default 'open' check (state in ('open', 'approved', 'sentback', 'withdrawn')),
    reason text not null default '' check (char_length(reason) <= 2000),
    decided_by uuid references account,
    decided_at timestamptz,
    foreign key (organisation_id, event_id) references event (organisation_id, id) on delete cascade,
    foreign key (organisation_id, calendar_id) references calendar (organisation_id, id) on delete cascade,
    constraint submission_of_a_change_has_it check ((kind = 'change') = (request is not null)),
    constraint submission_is_decided_whole check ((state = 'open') = (decided_at is null) and (decided_at is null) = (decided_by is null)),
    constraint sent_back_with_a_reason check (state <> 'sentback' or reason <> '')
);

create index submission_open on submission (organisation_id, calendar_id) where state = 'open';
create index submission_by_proposer on submission (proposer_id, made_at desc);
create unique index submission_of_an_event_once on submission (event_id) where kind = 'event' and state = 'open';
create unique index submission_of_a_placement_once on submission (event_id, calendar_id) where kind = 'placement' and state = 'open';

-- Mail that is ready to go. The body is emptied when it has gone: it may hold a secret.
create table mail (
    id uuid primary key,
    organisation_id uuid not null references organisation,
    recipient text not null,
    subject text not null,
    body text not null,
    due_at timestamptz not null,
    sent_at timestamptz,
    tries integer not null default 0,
    last_error text
);

create index mail_due on mail (due_at) where sent_at is null;

-- News for one person, gathered into one mail.
create table notice (
    id uuid primary key,
    organisation_id uuid not null references organisation,
    account_id uuid not null references account,
    made_at timestamptz not null,
    sentence text not null,
    path text not null,
    mailed_at timestamptz
);

create index notice_to_mail on notice (account_id, made_at) where mailed_at is null;

-- Who opened, closed, invited, approved and when. Nothing here is ever changed.
create table audit (
    id uuid primary key,
    organisation_id uuid not null references organisation,
    account_id uuid not null references account,
    at timestamptz not null,
    act text not null,
    subject text not null,
    detail text not null default ''
);

create index audit_by_time on audit (organisation_id, at desc);

-- Which programs fetched what of an edition, and when last. A program is known by a digest that only this edition's key can make.
alter table edition add column program_key uuid not null default gen_random_uuid();

create table delivery (
    organisation_id uuid not null references organisation,
    edition_id uuid not null references edition on delete cascade,
    audience text not null check (audience in ('everyone', 'link')),
    kind text not null check (kind in ('page', 'embed', 'feed')),
    program bytea not null,
    last_at timestamptz not null,
    primary key (edition_id, audience, kind, program)
);

-- Artefacts are made again: they are now of an audience, and may be right for a time only.
truncate artefact;
alter table artefact
    add column organisation_id uuid not null references organisation,
    add column audience text not null check (audience in ('everyone', 'link')),
    add column valid_until timestamptz,
    drop constraint artefact_pkey,
    add primary key (edition_id, audience, key),
    drop constraint artefact_edition_id_fkey,
    add foreign key (edition_id) references edition on delete cascade;

-- What belongs to a calendar goes with it when the bin is emptied.
alter table edition drop constraint edition_organisation_id_calendar_id_fkey,
    add foreign key (organisation_id, calendar_id) references calendar (organisation_id, id) on delete cascade;
alter table calendar_role drop constraint calendar_role_organisation_id_calendar_id_fkey,
    add foreign key (organisation_id, calendar_id) references calendar (organisation_id, id) on delete cascade;

-- The second wall. Every connection says for which organisation it works (Database.OpenAsync); a statement that forgets to
-- ask for one organisation's rows gets that one's all the same, and nothing where none was said. 'all' is for the work that is
-- not somebody's: signing in, finding an edition by its address, background work.
do $$
declare
    walled text;
begin
    for walled in
        select c.table_name
        from information_schema.columns c
        join information_schema.tables t using (table_schema, table_name)
        where c.table_schema = current_schema() and c.column_name = 'organisation_id' and t.table_type = 'BASE TABLE'
    loop
        execute format('alter table %I enable row level security', walled);
        execute format('alter table %I force row level security', walled);
        execute format('create policy wall on %I using ((select current_setting(''valtro.organisation'', true)) in (''all'', organisation_id::text))', walled);
    end loop;
end $$;

alter table organisation enable row level security;
alter table organisation force row level security;
create policy wall on organisation using ((select current_setting('valtro.organisation', true)) in ('all', id::text));

alter table account enable row level security;
alter table account force row level security;
create policy wall on account using (
    (select current_setting('valtro.organisation', true)) = 'all'
    or exists (select from membership m where m.account_id = account.id));

alter table year_plan_span enable row level security;
alter table year_plan_span force row level security;
create policy wall on year_plan_span using (
    (select current_setting('valtro.organisation', true)) = 'all'
    or exists (select from year_plan p where p.id = year_plan_span.year_plan_id));
