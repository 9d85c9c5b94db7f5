-- In which language Valtro speaks to a person; empty for what their browser asks for.
alter table account add column language text not null default '';
