-- An edition may have all calendars, those to come too: a new calendar is then one of its sources.
select set_config('valtro.organisation', 'all', true);

alter table edition
    add column takes_all boolean not null default false;

-- What was rendered by another program is told from what this one renders.
alter table artefact
    add column form text not null default '';
