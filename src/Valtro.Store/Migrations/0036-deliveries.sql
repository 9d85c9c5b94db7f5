-- Who fetched which version of what, and how often they ask. A program has another name every day: a digest with a salt that is thrown
-- away when the next day is over, so that nothing that is kept leads to anybody.
select set_config('valtro.organisation', 'all', true);

drop table delivery;
alter table edition drop column program_key;

create table delivery_salt (
    day date primary key,
    salt bytea not null check (length(salt) = 32)
);

-- When what readers get of a feed came to be, and by which ETag it is known.
create table feed_version (
    organisation_id uuid not null references organisation (id) on delete cascade,
    edition_id uuid not null references edition (id) on delete cascade,
    audience text not null check (audience in ('members', 'link', 'everyone')),
    etag text not null,
    changed_at timestamptz not null,
    -- since when it could not be rendered, where that failed at first
    late_since timestamptz,
    primary key (edition_id, audience, changed_at)
);
create index feed_version_by_etag on feed_version (edition_id, audience, etag);
create index feed_version_by_time on feed_version (changed_at);

insert into feed_version (organisation_id, edition_id, audience, etag, changed_at)
select organisation_id, edition_id, audience, etag, changed_at from artefact where key = 'feed';

-- Programs of today and yesterday; then they are counted, and forgotten.
create table fetcher (
    organisation_id uuid not null references organisation (id) on delete cascade,
    edition_id uuid not null references edition (id) on delete cascade,
    audience text not null check (audience in ('members', 'link', 'everyone')),
    form text not null,
    day date not null,
    day_ends_at timestamptz not null,
    program bytea not null,
    kind text not null check (kind in ('phone', 'web', 'desktop', 'other', 'browser')),
    before text,
    rhythm text not null,
    times integer not null,
    first_at timestamptz not null,
    last_at timestamptz not null,
    has timestamptz not null,
    waited_minutes integer,
    primary key (edition_id, day, audience, form, program)
);
create index fetcher_of_organisation on fetcher (organisation_id, form, edition_id, day);
create index fetcher_by_end on fetcher (day_ends_at);

create table delivery_day (
    organisation_id uuid not null references organisation (id) on delete cascade,
    edition_id uuid not null references edition (id) on delete cascade,
    audience text not null,
    form text not null,
    day date not null,
    kind text not null,
    rhythm text not null,
    programs integer not null,
    times integer not null,
    with_newest integer not null,
    -- of those that got something new, how many waited how long (Valtro.Core.Deliveries.Wait)
    waits integer[] not null,
    primary key (edition_id, day, audience, form, kind, rhythm)
);
create index delivery_day_of_organisation on delivery_day (organisation_id, form, day);
create index delivery_day_by_day on delivery_day (day);

-- Sites whose pages hold it in a frame; empty where the browser does not say which.
create table delivery_site (
    organisation_id uuid not null references organisation (id) on delete cascade,
    edition_id uuid not null references edition (id) on delete cascade,
    day date not null,
    site text not null,
    views integer not null,
    primary key (edition_id, day, site)
);
create index delivery_site_by_day on delivery_site (day);

do $$
declare
    walled text;
begin
    foreach walled in array array['feed_version', 'fetcher', 'delivery_day', 'delivery_site']
    loop
        execute format('alter table %I enable row level security', walled);
        execute format('alter table %I force row level security', walled);
        execute format('create policy wall on %I using ((select current_setting(''valtro.organisation'', true)) in (''all'', organisation_id::text))', walled);
    end loop;
end $$;
