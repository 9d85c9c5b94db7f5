-- What a statement changes is found by sorting and not row by row: the plan that PostgreSQL keeps from saves of one event compared
-- each of 5,000 with every other (half a minute for taking back a table).
select set_config('valtro.organisation', 'all', true);

create or replace function events_searched() returns trigger language plpgsql as $$
declare
    said uuid[];
    moved uuid[];
begin
    if tg_op = 'INSERT' then
        perform events_are_searched(array(select id from written));
        return null;
    end if;
    said := array(select id from (select id, content from written except select id, content from before) changed);
    moved := array(select id
        from (select id, reach_from, reach_to from written except select id, reach_from, reach_to from before) changed
        where id <> all(said));
    delete from event_word where event_id = any(said);
    update event_word w
    set reach_from = e.reach_from, reach_to = e.reach_to
    from event e
    where w.event_id = any(moved) and e.id = w.event_id;
    perform events_are_searched(said);
    return null;
end $$;
