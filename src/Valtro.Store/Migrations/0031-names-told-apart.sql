-- Eighty families of emoji are a name, and more than an index holds: names are told apart by their digest.
select set_config('valtro.organisation', 'all', true);

drop index plan_view_own;
create unique index plan_view_own on plan_view (organisation_id, account_id, md5(lower(name))) where not is_for_all;
drop index plan_view_for_all;
create unique index plan_view_for_all on plan_view (organisation_id, md5(lower(name))) where is_for_all;
drop index category_name_unique;
create unique index category_name_unique on category (organisation_id, md5(lower(name))) where retired_at is null;
drop index place_name_unique;
create unique index place_name_unique on place (organisation_id, md5(lower(name))) where retired_at is null;
drop index calendar_group_name_unique;
create unique index calendar_group_name_unique on calendar_group (organisation_id, md5(lower(name)));
drop index event_template_by_name;
create unique index event_template_by_name on event_template (calendar_id, md5(lower(name))) where not is_usual;

-- As many characters as anywhere, each of up to twelve code points.
alter table plan_view drop constraint plan_view_name_check,
    add constraint plan_view_name_check check (name = btrim(name) and char_length(name) between 1 and 960);
alter table event_template drop constraint event_template_name_check,
    add constraint event_template_name_check check (name = btrim(name) and char_length(name) between 1 and 960);
