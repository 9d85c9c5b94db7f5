-- Who is signed in where: a row a session, so that signing out ends this one and no other.
select set_config('valtro.organisation', 'all', true);

create table session (
    id uuid primary key,
    account_id uuid not null references account on delete cascade,
    made_at timestamptz not null,
    seen_at timestamptz not null check (seen_at >= made_at),
    ended_at timestamptz
);

create index session_by_account on session (account_id) where ended_at is null;

-- Wrong passwords, by account and by the address that they came from, both as digests: a stranger cannot lock a teacher out.
create table failed_sign_in (
    account bytea not null check (octet_length(account) = 32),
    address bytea not null check (octet_length(address) = 32),
    failures integer not null check (failures > 0),
    last_at timestamptz not null,
    primary key (account, address)
);

alter table account
    drop column failed_sign_ins,
    drop column locked_until,
    add column reset_mailed_at timestamptz;

do $$
declare
    walled text;
begin
    foreach walled in array array['session', 'failed_sign_in']
    loop
        execute format('alter table %I enable row level security', walled);
        execute format('alter table %I force row level security', walled);
        execute format('create policy wall on %I using ((select current_setting(''valtro.organisation'', true)) = ''all'')', walled);
    end loop;
end $$;

alter table work drop constraint work_kind_check, add constraint work_kind_check check (kind in ('render', 'mail', 'gather', 'reset', 'sweep'));

-- Two who change the same at once: the second is told.
alter table membership add column version integer not null default 1 check (version > 0);
alter table calendar_group add column version integer not null default 1 check (version > 0);
