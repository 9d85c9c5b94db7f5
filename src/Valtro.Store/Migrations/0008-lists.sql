-- A category or place that is not offered any more stays what it is on the events that have it, and can be offered again.
select set_config('valtro.organisation', 'all', true);

alter table category
    add column retired_at timestamptz,
    -- whose name its events have now; who still names it means that one
    add column merged_into uuid,
    add foreign key (organisation_id, merged_into) references category (organisation_id, id);

alter table place
    add column retired_at timestamptz;

drop index category_name_unique;
create unique index category_name_unique on category (organisation_id, lower(name)) where retired_at is null;
drop index place_name_unique;
create unique index place_name_unique on place (organisation_id, lower(name)) where retired_at is null;

create index event_by_category on event (category_id) where category_id is not null;
create index event_by_place on event (organisation_id, lower(place)) where place <> '';
