-- Events kept as a pattern to start from, by the calendar whose makers start from them. The usual one of a calendar gives new events there
-- their place, length, category and reminder.
select set_config('valtro.organisation', 'all', true);

create table event_template (
    id uuid primary key,
    organisation_id uuid not null references organisation,
    calendar_id uuid not null,
    account_id uuid not null references account,
    name text not null check (name = btrim(name) and char_length(name) between 1 and 100),
    is_usual boolean not null,
    -- what a form says, in the form of proposals
    request jsonb not null,
    made_at timestamptz not null,
    foreign key (organisation_id, calendar_id) references calendar (organisation_id, id) on delete cascade
);

create unique index event_template_by_name on event_template (calendar_id, lower(name)) where not is_usual;
create unique index event_template_usual on event_template (calendar_id) where is_usual;

alter table event_template enable row level security;
alter table event_template force row level security;
create policy wall on event_template using ((select current_setting('valtro.organisation', true)) in ('all', organisation_id::text));
