-- Events from outside. A file that somebody brings is kept with what they say of it, read by work, and looked at line by line before anything
-- of it is taken; what a source said is kept with its name for an event, so that what was changed here is told from what is new there.
select set_config('valtro.organisation', 'all', true);

create table intake (
    id uuid primary key,
    organisation_id uuid not null references organisation (id) on delete cascade,
    account_id uuid not null references account (id),
    name text not null,
    form text not null check (form in ('calendar', 'table')),
    -- where the file is got from, if nobody brought it
    address text,
    -- the file, while something may be read of it anew
    content bytea,
    answers jsonb not null,
    found jsonb,
    -- which events were ticked or not by somebody, by state and uid: also those that are narrowed away just now
    chosen jsonb not null default '{}',
    state text not null check (state in ('reading', 'ready', 'saving', 'done', 'undone', 'refused')),
    -- rises with every answer: what was read for an earlier one is not kept
    turn integer not null default 1,
    done integer not null default 0,
    total integer not null default 0,
    problem text not null default '',
    act_id uuid,
    taken integer not null default 0,
    made_at timestamptz not null,
    unique (organisation_id, id)
);
create index intake_of_account on intake (organisation_id, account_id, made_at desc);
create index intake_of_act on intake (act_id) where act_id is not null;

create table intake_line (
    organisation_id uuid not null,
    intake_id uuid not null,
    place integer not null,
    line integer not null,
    uid text not null,
    state text not null check (state in ('new', 'changed', 'same', 'there', 'refused')),
    title text not null,
    first_day date,
    is_taken boolean not null,
    -- somebody said so
    is_chosen boolean not null default false,
    event_id uuid,
    version integer,
    content jsonb,
    remarks jsonb not null,
    refusals jsonb not null,
    primary key (intake_id, place),
    foreign key (organisation_id, intake_id) references intake (organisation_id, id) on delete cascade
);

-- What was answered for a file of the same make.
create table intake_guess (
    organisation_id uuid not null references organisation (id) on delete cascade,
    make text not null,
    answers jsonb not null,
    saved_at timestamptz not null,
    primary key (organisation_id, make)
);

alter table intake enable row level security;
alter table intake force row level security;
create policy wall on intake using ((select current_setting('valtro.organisation', true)) in ('all', organisation_id::text));
alter table intake_line enable row level security;
alter table intake_line force row level security;
create policy wall on intake_line using ((select current_setting('valtro.organisation', true)) in ('all', organisation_id::text));
alter table intake_guess enable row level security;
alter table intake_guess force row level security;
create policy wall on intake_guess using ((select current_setting('valtro.organisation', true)) in ('all', organisation_id::text));

-- as it was said when it was taken last, and before that; by which act
alter table foreign_name
    add column content jsonb,
    add column content_before jsonb,
    add column act_id uuid;
create index foreign_name_of_act on foreign_name (act_id) where act_id is not null;

alter table work drop constraint work_kind_check,
    add constraint work_kind_check check (kind in ('render', 'mail', 'gather', 'reset', 'sweep', 'intake'));

-- Words stand with events of the same statement: to ask for each of 260,000 whether its event is there took a fifth of saving a large file.
alter table event_word drop constraint event_word_organisation_id_event_id_fkey;

create function events_unsearched() returns trigger language plpgsql as $$
begin
    delete from event_word where event_id = any(array(select id from gone));
    return null;
end $$;

create trigger unsearched after delete on event referencing old table as gone for each statement execute function events_unsearched();

-- Nothing of it is met twice, and it is done before a program for it would be made.
alter function events_are_searched(uuid[]) set jit = off;
alter function events_are_searched(uuid[]) set enable_memoize = off;
