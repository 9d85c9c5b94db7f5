-- Row-level security holds for the owner too: this sees all organisations.
select set_config('valtro.organisation', 'all', true);

-- Feeds are written with more than before (X-WR-CALNAME and others): what is kept has become another by itself, and is rendered anew.
update artefact set valid_until = changed_at where key = 'feed';

insert into work (kind, key, organisation_id, due_at)
select 'render', id::text, organisation_id, changed_at from edition order by id::text
on conflict (kind, key) do update set wanted = work.wanted + 1, due_at = least(work.due_at, excluded.due_at);
