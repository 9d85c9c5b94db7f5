-- Who is responsible for an event: members by their account, which the event names as it names a category. To whom their names are told is
-- the calendar's choice.
select set_config('valtro.organisation', 'all', true);

alter table calendar
    add column names text not null default 'members' check (names in ('editors', 'members', 'link', 'everyone'));

alter table event_reference
    drop constraint event_reference_kind_check,
    add constraint event_reference_kind_check check (kind in ('category', 'file', 'place', 'member')),
    add column member_id uuid generated always as (case when kind = 'member' then target end) stored,
    add foreign key (organisation_id, member_id) references membership (organisation_id, account_id);

create index event_reference_to_member on event_reference (member_id) where member_id is not null;

-- Requests know the members of their organisation by name.
create constraint trigger house_changed after insert or update or delete on membership deferrable initially deferred
for each row execute function house_changed('organisation_id');

create function member_renamed() returns trigger language plpgsql as $$
begin
    update house set version = version + 1
    where organisation_id in (select m.organisation_id from membership m where m.account_id = new.id);
    return null;
end $$;

create constraint trigger member_renamed after update on account deferrable initially deferred
for each row when (old.name is distinct from new.name) execute function member_renamed();
