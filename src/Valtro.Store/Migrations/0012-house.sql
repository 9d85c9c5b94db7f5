-- What requests need to know of an organisation (HouseStore) is kept by each node until this number rises. It rises with the organisation
-- itself, its calendars, groups, lists, year plans, secret addresses and the settings of its editions; not with events.
select set_config('valtro.organisation', 'all', true);

create table house (
    organisation_id uuid primary key references organisation on delete cascade,
    version bigint not null default 1
);

insert into house (organisation_id) select id from organisation;

alter table house enable row level security;
alter table house force row level security;
create policy wall on house using ((select current_setting('valtro.organisation', true)) in ('all', organisation_id::text));

-- The database itself sees to it, so that no writer can forget.
create function house_changed() returns trigger language plpgsql as $$
declare
    concerned uuid := (case when tg_op = 'DELETE' then to_jsonb(old) else to_jsonb(new) end) ->> tg_argv[0];
begin
    insert into house (organisation_id)
    select o.id from organisation o where o.id = concerned
    on conflict (organisation_id) do update set version = house.version + 1;
    return null;
end $$;

-- At the end of the transaction, so that its row is the last that each takes, and nobody waits for another in a ring.
do $$
declare
    watched text;
begin
    foreach watched in array array['calendar', 'calendar_group', 'calendar_group_member', 'category', 'place', 'year_plan', 'edition_source', 'secret_link'] loop
        execute format('create constraint trigger house_changed after insert or update or delete on %I deferrable initially deferred for each row execute function house_changed(''organisation_id'')', watched);
    end loop;
end $$;

create constraint trigger house_changed after insert or update on organisation deferrable initially deferred for each row execute function house_changed('id');

create constraint trigger house_changed after insert or delete on edition deferrable initially deferred for each row execute function house_changed('organisation_id');

-- Not what of an edition rises with every event.
create constraint trigger house_changed_by_settings after update on edition deferrable initially deferred for each row
when ((old.slug, old.name, old.audience, old.settings, old.version, old.removed_at) is distinct from (new.slug, new.name, new.audience, new.settings, new.version, new.removed_at))
execute function house_changed('organisation_id');
