-- Of some categories (say assessments) a week should hold only so many for the same readers.
select set_config('valtro.organisation', 'all', true);

alter table category
    add column most_in_a_week integer check (most_in_a_week between 1 and 50);
