-- A file may be replaced by another version of it, at the same address.
alter table file
    add column version integer not null default 1;
