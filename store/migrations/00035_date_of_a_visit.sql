-- +goose Up
-- A code may give the date of an appointment to the client's own calendar.
alter table link drop constraint link_purpose_check;
alter table link add constraint link_purpose_check check (purpose in ('intake', 'hand', 'after', 'date'));

-- +goose Down
delete from link where purpose = 'date';
alter table link drop constraint link_purpose_check;
alter table link add constraint link_purpose_check check (purpose in ('intake', 'hand', 'after'));
