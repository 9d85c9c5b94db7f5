-- What a member is responsible for is an edition of their own: made when they ask for its address, in no list, with every calendar among
-- its sources, and open to nobody else.
select set_config('valtro.organisation', 'all', true);

alter table edition
    add column owner_id uuid,
    add foreign key (organisation_id, owner_id) references membership (organisation_id, account_id),
    add constraint edition_own_is_for_its_owner check (owner_id is null or (audience = 'members' and takes_all));

create unique index edition_own on edition (organisation_id, owner_id) where owner_id is not null;
