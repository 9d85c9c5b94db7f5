-- What somebody asked to be done under a name of their own making (Idempotency-Key): asked again, it is not done again.
select set_config('valtro.organisation', 'all', true);

create table asked_once (
    account_id uuid not null references account on delete cascade,
    key text not null check (char_length(key) between 1 and 100),
    organisation_id uuid not null references organisation on delete cascade,
    -- of what was asked
    digest bytea not null check (octet_length(digest) = 32),
    made_at timestamptz not null,
    -- as it was answered; null until it was
    status integer,
    answer jsonb,
    primary key (account_id, key)
);

create index asked_once_by_age on asked_once (made_at);

alter table asked_once enable row level security;
alter table asked_once force row level security;
create policy wall on asked_once using ((select current_setting('valtro.organisation', true)) in ('all', organisation_id::text));
