-- Passwords that members make for their calendar programs (CalDAV): each opens nothing but what they may read there, and can be withdrawn.
create table app_password (
    id uuid primary key,
    account_id uuid not null references account (id) on delete cascade,
    name text not null,
    digest bytea not null unique,
    -- the account's when it was made: whoever ends all sessions, or gets a new password, ends these too
    security_stamp text not null,
    made_at timestamptz not null,
    used_at timestamptz
);
create index app_password_of_account on app_password (account_id);

-- As a calendar was when a program asked for it, so that it can be told what is another since (RFC 6578).
create table dav_snapshot (
    account_id uuid not null references account (id) on delete cascade,
    edition_id uuid not null references edition (id) on delete cascade,
    token text not null,
    made_at timestamptz not null,
    etags jsonb not null,
    primary key (account_id, edition_id, token)
);

-- They are nobody's in particular: who looks after them looks everywhere.
alter table app_password enable row level security;
alter table app_password force row level security;
create policy wall on app_password using ((select current_setting('valtro.organisation', true)) = 'all');
alter table dav_snapshot enable row level security;
alter table dav_snapshot force row level security;
create policy wall on dav_snapshot using ((select current_setting('valtro.organisation', true)) = 'all');
