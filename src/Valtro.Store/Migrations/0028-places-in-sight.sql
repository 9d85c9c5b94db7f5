-- A place may have a map of its own and a picture, which goes to those who are told that something is there.
select set_config('valtro.organisation', 'all', true);

alter table place
    add column map_link text not null default '' check (char_length(map_link) <= 2000),
    add column picture_id uuid references file;

create index place_by_picture on place (picture_id) where picture_id is not null;
