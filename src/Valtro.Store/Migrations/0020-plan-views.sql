-- Ways to look at the plan, under a name: one's own, or for all who edit.
select set_config('valtro.organisation', 'all', true);

create table plan_view (
    id uuid primary key,
    organisation_id uuid not null references organisation,
    account_id uuid not null references account on delete cascade,
    is_for_all boolean not null,
    name text not null check (name = btrim(name) and char_length(name) between 1 and 100),
    -- what the plan's address says, without the day
    settings jsonb not null check (octet_length(settings::text) <= 4000)
);

-- One's own by their names, and those for all by theirs.
create unique index plan_view_own on plan_view (organisation_id, account_id, lower(name)) where not is_for_all;
create unique index plan_view_for_all on plan_view (organisation_id, lower(name)) where is_for_all;

alter table plan_view enable row level security;
alter table plan_view force row level security;
create policy wall on plan_view using ((select current_setting('valtro.organisation', true)) in ('all', organisation_id::text));
