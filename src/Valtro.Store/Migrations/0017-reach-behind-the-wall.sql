-- Row-level security asks its policy first, so behind it an index helps only by comparisons that are known to leak nothing: those of
-- instants are, those of ranges are not. Windows therefore find their events by two instants; the range stays for what it checks.
alter table event
    add column reach_from timestamptz generated always as (lower(reach)) stored,
    add column reach_to timestamptz generated always as (coalesce(upper(reach), 'infinity')) stored;

alter table placement
    add column reach_from timestamptz generated always as (lower(reach)) stored,
    add column reach_to timestamptz generated always as (coalesce(upper(reach), 'infinity')) stored;

drop index event_by_calendar_and_reach;
drop index event_by_calendar;
drop index placement_by_calendar_and_reach;

-- What is over lies before it in the index, and most windows are about now.
create index event_by_calendar_and_reach on event (home_calendar_id, reach_to, reach_from) where removed_at is null;
create index placement_by_calendar_and_reach on placement (calendar_id, reach_to, reach_from);

-- How many events each calendar has is read from this alone.
create index event_counted on event (organisation_id, home_calendar_id) where removed_at is null and state in ('live', 'cancelled');
