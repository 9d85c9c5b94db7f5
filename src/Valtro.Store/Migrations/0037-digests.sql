-- Readers who are told by mail what changed. Their addresses stand here and nowhere else, and go when they leave.
select set_config('valtro.organisation', 'all', true);

create table subscriber (
    id uuid primary key,
    organisation_id uuid not null references organisation (id) on delete cascade,
    edition_id uuid not null references edition (id) on delete cascade,
    audience text not null check (audience in ('link', 'everyone')),
    -- of the secret address by which they came: when it ends, so does this
    link_digest bytea check ((link_digest is null) = (audience = 'everyone')),
    address text not null check (length(address) <= 254),
    language text not null,
    rhythm text not null check (rhythm in ('change', 'daily', 'weekly')),
    -- names of the calendars that concern them; null for all
    only_calendars text[],
    -- one event alone
    event_id uuid references event (id) on delete cascade,
    token text not null unique check (token ~ '^[A-Za-z0-9_-]{32}$'),
    asked_at timestamptz not null,
    -- null until they have said yes by what was mailed to them
    confirmed_at timestamptz,
    told_until timestamptz,
    next_at timestamptz,
    constraint confirmed_whole check ((confirmed_at is null) = (told_until is null) and (confirmed_at is null) = (next_at is null))
);
create index subscriber_of_edition on subscriber (edition_id, next_at);
create index subscriber_by_address on subscriber (organisation_id, lower(address), asked_at);
create index subscriber_unconfirmed on subscriber (asked_at) where confirmed_at is null;

alter table subscriber enable row level security;
alter table subscriber force row level security;
create policy wall on subscriber using ((select current_setting('valtro.organisation', true)) in ('all', organisation_id::text));

-- A mail may have a second form, and a way to end such mails (RFC 8058); what was for a subscriber is forgotten when it has gone.
alter table mail
    add column html text,
    add column end_address text,
    add column subscriber_id uuid references subscriber (id) on delete cascade;
create index mail_of_subscriber on mail (subscriber_id);

alter table work drop constraint work_kind_check,
    add constraint work_kind_check check (kind in ('render', 'mail', 'gather', 'reset', 'sweep', 'intake', 'follow', 'push', 'prove', 'links', 'digest'));
