-- Beside the demo: 250 organisations with 40 calendars each, and so 10,000 editions, with 20 events each, one in four of them a weekly series.
set valtro.organisation = 'all';

insert into organisation (id, slug, name, zone, locale, first_day_of_week, year_starts_in)
select gen_random_uuid(), 'other-' || n, 'Other school ' || n, 'America/Halifax', 'en-GB', 1, 8 from generate_series(1, 250) n;

create temporary table made as
select gen_random_uuid() as id, o.id as organisation_id, row_number() over (partition by o.id) as number
from organisation o
cross join generate_series(1, 40) n
where o.slug like 'other-%';

insert into calendar (id, organisation_id, name, plate, colour, zone, members, link, everyone, created_at)
select id, organisation_id, 'Calendar ' || number, 'Q' || number, 'harbour', 'America/Halifax', 'complete', 'complete', 'complete', timestamptz '2026-09-01 12:00Z'
from made;

insert into edition (id, organisation_id, calendar_id, slug, changed_at) select id, organisation_id, id, 'calendar-' || number, timestamptz '2026-09-01 12:00Z' from made;
insert into edition_source (organisation_id, edition_id, calendar_id) select organisation_id, id, id from made;

with planned as (
    select m.organisation_id, m.id as calendar_id, n % 4 = 0 as is_weekly, n,
           date_trunc('hour', localtimestamp) + (n % 200) * interval '1 day' + (n % 9) * interval '1 hour' as start
    from made m
    cross join lateral generate_series(1, 20) n
)
insert into event (id, organisation_id, home_calendar_id, content, state, reach, created_at)
select gen_random_uuid(), organisation_id, calendar_id,
       jsonb_build_object(
           'v', 1, 'title', 'Lesson ' || n, 'place', 'Room ' || n % 40, 'tags', '["practical"]'::jsonb,
           'description', jsonb_build_object('html', '<p>Bring lamps.</p>', 'text', 'Bring lamps.'),
           'when', jsonb_strip_nulls(jsonb_build_object(
               'start', to_char(start, 'YYYY-MM-DD"T"HH24:MI:SS'), 'end', to_char(start + interval '90 minutes', 'YYYY-MM-DD"T"HH24:MI:SS'), 'zone', 'America/Halifax',
               'rule', case when is_weekly then 'FREQ=WEEKLY;COUNT=20' end))),
       'live',
       tstzrange(start at time zone 'America/Halifax', (start + interval '90 minutes' + case when is_weekly then interval '133 days' else '0' end) at time zone 'America/Halifax', '[]'),
       timestamptz '2026-09-01 12:00Z'
from planned;

vacuum (analyze);
