-- Desks that are open hear when what they show of their organisation is another (Announcements.Desk).
create or replace function house_changed() returns trigger language plpgsql as $$
declare
    concerned uuid := (case when tg_op = 'DELETE' then to_jsonb(old) else to_jsonb(new) end) ->> tg_argv[0];
begin
    insert into house (organisation_id)
    select o.id from organisation o where o.id = concerned
    on conflict (organisation_id) do update set version = house.version + 1;
    perform pg_notify('valtro', 'desk ' || concerned);
    return null;
end $$;
