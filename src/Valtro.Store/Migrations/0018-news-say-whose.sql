-- Desks that hear that something is another hear by which request too: whoever made it has asked for what is there already.
create or replace function tell_desk(concerned uuid) returns void language sql as $$
    select pg_notify('valtro', case coalesce(current_setting('valtro.change', true), '')
        when '' then 'desk ' || concerned
        else 'desk-by ' || concerned || ' ' || current_setting('valtro.change')
    end)
$$;

create or replace function house_changed() returns trigger language plpgsql as $$
declare
    concerned uuid := (case when tg_op = 'DELETE' then to_jsonb(old) else to_jsonb(new) end) ->> tg_argv[0];
begin
    insert into house (organisation_id)
    select o.id from organisation o where o.id = concerned
    on conflict (organisation_id) do update set version = house.version + 1;
    perform tell_desk(concerned);
    return null;
end $$;
