-- For "no two of an organisation's years overlap", said by the database itself.
create extension if not exists btree_gist;

create table category (
    id uuid primary key,
    organisation_id uuid not null references organisation,
    name short_name not null,
    colour text not null check (colour in ('harbour', 'timber', 'heather', 'kelp', 'madder', 'moss', 'slate', 'fjord', 'plum', 'navy', 'peat', 'umber')),
    unique (organisation_id, id)
);

create unique index category_name_unique on category (organisation_id, lower(name));

-- Known places can clash. An event names one by its name; any other text is a place that only people know.
create table place (
    id uuid primary key,
    organisation_id uuid not null references organisation,
    name text not null check (name = btrim(name) and char_length(name) between 1 and 200)
);

create unique index place_name_unique on place (organisation_id, lower(name));

-- Who reads a calendar, by names that editors choose: calendars that share one can clash softly.
alter table calendar add column readerships text[] not null default '{}' check (cardinality(readerships) <= 20);

alter table event
    add column category_id uuid,
    add column tags text[] not null default '{}' check (cardinality(tags) <= 20),
    -- RDATE and EXDATE: local times in the event's zone
    add column extra timestamp[] not null default '{}' check (cardinality(extra) <= 1000),
    add column removed_dates timestamp[] not null default '{}' check (cardinality(removed_dates) <= 1000),
    add column in_breaks text not null default 'ignore' check (in_breaks in ('ignore', 'skip', 'move')),
    -- instead of a rule: numbers of the day cycle, and in a cycle of weeks the weekdays (1 Monday to 7 Sunday)
    add column cycle_numbers smallint[] check (cardinality(cycle_numbers) between 1 and 10),
    add column cycle_weekdays smallint[] check (cardinality(cycle_weekdays) <= 7),
    add column cycle_until date,
    add column cycle_count integer check (cycle_count > 0),
    -- the uid of the series that this one continues
    add column continues uuid,
    add foreign key (organisation_id, category_id) references category (organisation_id, id),
    add constraint event_recurs_one_way check (rrule is null or cycle_numbers is null),
    add constraint cycle_is_whole check ((cycle_numbers is null) = (cycle_weekdays is null)
        and (cycle_numbers is not null or (cycle_until is null and cycle_count is null))
        and (cycle_until is null or cycle_count is null));

alter table event drop constraint event_rrule_check;
alter table event add constraint event_rrule_check check (rrule ~ 'FREQ=' and char_length(rrule) <= 1000);

-- A date that differs from its series; a null is "as the series says".
create table event_exception (
    organisation_id uuid not null,
    event_id uuid not null,
    recurrence_id timestamp not null,
    is_cancelled boolean not null default false,
    start_local timestamp,
    end_local timestamp,
    title text check (title = btrim(title) and char_length(title) between 1 and 400),
    place text check (char_length(place) <= 400),
    description_html text check (char_length(description_html) <= 20000),
    description_text text,
    primary key (event_id, recurrence_id),
    foreign key (organisation_id, event_id) references event (organisation_id, id) on delete cascade,
    constraint exception_moves_both_ends check ((start_local is null) = (end_local is null) and end_local >= start_local),
    constraint exception_text_is_whole check ((description_html is null) = (description_text is null)),
    constraint exception_differs check (is_cancelled or start_local is not null or title is not null or place is not null or description_html is not null)
);

create table year_plan (
    id uuid primary key,
    organisation_id uuid not null references organisation,
    name short_name not null,
    first_day date not null,
    last_day date not null,
    cycle_unit text check (cycle_unit in ('days', 'weeks')),
    cycle_length smallint check (cycle_length between 1 and 10),
    cycle_restarts boolean not null default false,
    version integer not null default 1 check (version > 0),
    unique (organisation_id, id),
    constraint year_plan_ends_after_start check (last_day >= first_day),
    constraint year_plan_cycle_is_whole check ((cycle_unit is null) = (cycle_length is null)),
    constraint year_plans_do_not_overlap exclude using gist (organisation_id with =, daterange(first_day, last_day, '[]') with &&)
);

create table year_plan_span (
    year_plan_id uuid not null references year_plan on delete cascade,
    kind text not null check (kind in ('term', 'break')),
    name short_name not null,
    first_day date not null,
    last_day date not null,
    primary key (year_plan_id, kind, first_day),
    constraint span_ends_after_start check (last_day >= first_day),
    constraint spans_do_not_overlap exclude using gist (year_plan_id with =, kind with =, daterange(first_day, last_day, '[]') with &&)
);

-- What one press of a button changed belongs together: it is undone together.
alter table revision add column act_id uuid not null default gen_random_uuid();
alter table revision drop constraint revision_act_check;
alter table revision add constraint revision_act_check check (act in ('made', 'changed', 'cancelled', 'removed', 'restored', 'undone'));
create index revision_by_act on revision (act_id);

-- The bin, by when it is emptied.
create index event_in_bin on event (organisation_id, removed_at) where removed_at is not null;
