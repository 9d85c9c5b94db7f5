-- How long a text may be is counted as people count it, by whole characters, in one place (Valtro.Core.Texts). A character may be made of
-- several code points, a joined emoji of eleven; the database only keeps the outer bound.
alter domain short_name drop constraint short_name_check;
alter domain short_name add constraint short_name_check check (value = btrim(value) and char_length(value) between 1 and 960);

alter table event
    drop constraint event_title_check,
    add constraint event_title_check check (title = btrim(title) and char_length(title) between 1 and 2400),
    drop constraint event_place_check,
    add constraint event_place_check check (char_length(place) <= 2400),
    drop constraint event_description_html_check,
    add constraint event_description_html_check check (char_length(description_html) <= 240000),
    drop constraint event_contact_check,
    add constraint event_contact_check check (char_length(contact) <= 2400),
    drop constraint event_notes_check,
    add constraint event_notes_check check (char_length(notes) <= 60000);

alter table event_exception
    drop constraint event_exception_title_check,
    add constraint event_exception_title_check check (title = btrim(title) and char_length(title) between 1 and 2400),
    drop constraint event_exception_place_check,
    add constraint event_exception_place_check check (char_length(place) <= 2400),
    drop constraint event_exception_description_html_check,
    add constraint event_exception_description_html_check check (char_length(description_html) <= 240000);

alter table calendar
    drop constraint calendar_description_check,
    add constraint calendar_description_check check (char_length(description) <= 24000);

alter table place
    drop constraint place_name_check,
    add constraint place_name_check check (name = btrim(name) and char_length(name) between 1 and 2400);

alter table file
    drop constraint file_name_check,
    add constraint file_name_check check (char_length(name) between 1 and 2400);

alter table submission
    drop constraint submission_reason_check,
    add constraint submission_reason_check check (char_length(reason) <= 24000);
