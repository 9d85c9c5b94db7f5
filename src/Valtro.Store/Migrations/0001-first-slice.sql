-- Names are those of docs/architecture.md. Keys are UUID v7, made by the application.
-- Rows of one organisation can only point at rows of the same organisation: the foreign keys carry its id.

create domain short_name as text check (value = btrim(value) and char_length(value) between 1 and 80);
create domain detail as text check (value in ('nothing', 'times', 'headline', 'complete'));

create function detail_rank(detail) returns integer immutable strict parallel safe language sql as $$
    select array_position(array['nothing', 'times', 'headline', 'complete'], $1::text)
$$;

create table organisation (
    id uuid primary key,
    slug text not null unique check (slug ~ '^[a-z0-9]+(-[a-z0-9]+)*$' and char_length(slug) <= 48),
    name short_name not null,
    zone text not null check (zone <> ''),
    locale text not null check (locale ~ '^[a-z]{2,3}(-[A-Za-z0-9]+)*$'),
    first_day_of_week smallint not null check (first_day_of_week between 1 and 7),
    -- the month in which its year begins, for the year ribbon
    year_starts_in smallint not null check (year_starts_in between 1 and 12)
);

create table account (
    id uuid primary key,
    email text not null check (email like '%_@_%' and char_length(email) <= 254),
    normalized_email text not null unique check (normalized_email = upper(normalized_email)),
    name short_name not null,
    password_hash text,
    security_stamp text not null,
    failed_sign_ins integer not null default 0 check (failed_sign_ins >= 0),
    locked_until timestamptz,
    created_at timestamptz not null default now()
);

create table membership (
    organisation_id uuid not null references organisation,
    account_id uuid not null references account,
    is_administrator boolean not null default false,
    primary key (organisation_id, account_id)
);

create table calendar (
    id uuid primary key,
    organisation_id uuid not null references organisation,
    name short_name not null,
    plate text not null check (plate = upper(plate) and char_length(plate) between 1 and 4 and plate !~ '[[:space:][:punct:]]'),
    colour text not null check (colour in ('harbour', 'timber', 'heather', 'kelp', 'madder', 'moss', 'slate', 'fjord', 'plum', 'navy', 'peat', 'umber')),
    zone text not null check (zone <> ''),
    description text not null default '' check (char_length(description) <= 2000),
    members detail not null,
    link detail not null,
    everyone detail not null,
    -- what people edit: rises when somebody saves the calendar's own settings
    version integer not null default 1 check (version > 0),
    -- what readers fetch: rises with every change to the calendar or to one of its events
    content_version bigint not null default 1 check (content_version > 0),
    created_at timestamptz not null default now(),
    changed_at timestamptz not null default now(),
    unique (organisation_id, id),
    constraint calendar_plate_unique unique (organisation_id, plate),
    constraint disclosure_is_monotone check (detail_rank(members) >= detail_rank(link) and detail_rank(link) >= detail_rank(everyone))
);

create table calendar_role (
    organisation_id uuid not null,
    calendar_id uuid not null,
    account_id uuid not null,
    role text not null check (role in ('reader', 'contributor', 'editor')),
    primary key (calendar_id, account_id),
    foreign key (organisation_id, calendar_id) references calendar (organisation_id, id),
    foreign key (organisation_id, account_id) references membership
);

-- Every calendar has one standard edition of its own.
create table edition (
    id uuid primary key,
    organisation_id uuid not null,
    calendar_id uuid not null,
    slug text not null check (slug ~ '^[a-z0-9]+(-[a-z0-9]+)*$' and char_length(slug) <= 60),
    -- the name programs outside know the feed by (RFC 7986 5.3): random, it says nothing of our keys
    feed_uid uuid not null default gen_random_uuid() unique,
    unique (organisation_id, slug),
    unique (calendar_id),
    foreign key (organisation_id, calendar_id) references calendar (organisation_id, id)
);

create table event (
    id uuid primary key,
    organisation_id uuid not null,
    home_calendar_id uuid not null,
    uid uuid not null default gen_random_uuid() unique,
    title text not null check (title = btrim(title) and char_length(title) between 1 and 400),
    place text not null default '' check (char_length(place) <= 400),
    description_html text not null default '' check (char_length(description_html) <= 20000),
    description_text text not null default '',
    state text not null check (state in ('draft', 'waiting', 'live', 'cancelled')),
    all_day boolean not null,
    -- local times in zone; for an all-day event the midnights that begin the first and end the last day
    start_local timestamp not null,
    end_local timestamp not null,
    zone text not null check (zone <> ''),
    rrule text check (rrule ~ '^FREQ=' and char_length(rrule) <= 1000),
    -- from the first start to the last end, computed by Valtro.Core; open when the series has no end
    reach tstzrange not null check (not isempty(reach) and lower(reach) is not null),
    sequence integer not null default 0 check (sequence >= 0),
    version integer not null default 1 check (version > 0),
    created_at timestamptz not null,
    changed_at timestamptz not null check (changed_at >= created_at),
    removed_at timestamptz,
    unique (organisation_id, id),
    foreign key (organisation_id, home_calendar_id) references calendar (organisation_id, id),
    constraint event_ends_after_start check (end_local >= start_local),
    constraint whole_days_are_midnights check (not all_day or (start_local = date_trunc('day', start_local) and end_local = date_trunc('day', end_local) and end_local > start_local))
);

create index event_by_calendar_and_reach on event using gist (reach) where removed_at is null;
create index event_by_calendar on event (home_calendar_id) where removed_at is null;

-- Who changed what, when; the content is as it was after the change.
create table revision (
    organisation_id uuid not null,
    event_id uuid not null,
    version integer not null check (version > 0),
    act text not null check (act in ('made', 'changed', 'removed', 'restored')),
    account_id uuid not null references account,
    made_at timestamptz not null,
    content jsonb not null check (jsonb_typeof(content) = 'object'),
    primary key (event_id, version),
    foreign key (organisation_id, event_id) references event (organisation_id, id)
);

-- What readers get, rendered: key is 'feed' or 'month:2026-11'.
create table artefact (
    edition_id uuid not null references edition,
    key text not null check (key = 'feed' or key ~ '^month:[0-9]{4}-[0-9]{2}$'),
    content_version bigint not null check (content_version > 0),
    etag text not null check (char_length(etag) between 8 and 64),
    content bytea not null,
    -- when what readers get last changed, not when it was last rendered
    changed_at timestamptz not null,
    primary key (edition_id, key)
);

-- Keys that protect cookies and antiforgery tokens, shared by all web nodes.
create table data_protection_key (
    friendly_name text primary key,
    xml text not null
);
