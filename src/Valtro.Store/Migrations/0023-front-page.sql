-- An edition may have all calendars, those to come too: a new calendar is then one of its sources.
select set_config('valtro.organisation', 'all', true);

alter table edition
    add column takes_all boolean not null default false;
