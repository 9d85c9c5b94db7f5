-- Beside the demo: so many more organisations (:schools), forty calendars more for each and for the demo's school, and so many events in
-- each of these (:events), one in four of them a weekly series. With 9 and 500: 400 calendars and 200,000 events.
set valtro.organisation = 'all';

insert into organisation (id, slug, name, zone, locale, first_day_of_week, year_starts_in)
select gen_random_uuid(), 'other-' || n, 'Other school ' || n, 'America/Halifax', 'en-GB', 1, 8 from generate_series(1, :schools) n;

create temporary table made as
select gen_random_uuid() as id, o.id as organisation_id, o.slug = 'pinewick' as is_school, row_number() over (partition by o.id) as number
from organisation o
cross join generate_series(1, 40) n;

insert into calendar (id, organisation_id, name, plate, colour, zone, members, link, everyone, created_at)
select id, organisation_id, 'Calendar ' || number, 'Q' || number, 'harbour', 'America/Halifax', 'complete', 'complete', case when number % 2 = 0 then 'complete' else 'headline' end::detail, timestamptz '2026-09-01 12:00Z'
from made;

insert into edition (id, organisation_id, calendar_id, slug, changed_at) select id, organisation_id, id, 'calendar-' || number, timestamptz '2026-09-01 12:00Z' from made;
insert into edition_source (organisation_id, edition_id, calendar_id) select organisation_id, id, id from made;

with planned as (
    select m.organisation_id, m.id as calendar_id, n % 4 = 0 as is_weekly, n,
           timestamp '2026-08-31 08:00' + (n % 260) * interval '1 day' + (n % 9) * interval '1 hour' as start
    from made m
    cross join lateral generate_series(1, :events) n
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

-- As autovacuum leaves a database that nobody fills at the moment.
vacuum (analyze);
