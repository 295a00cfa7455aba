-- +goose Up
-- A code may open a visit's aftercare sheet on the client's own device.
alter table link drop constraint link_purpose_check;
alter table link add constraint link_purpose_check check (purpose in ('intake', 'hand', 'after'));

-- +goose Down
delete from link where purpose = 'after';
alter table link drop constraint link_purpose_check;
alter table link add constraint link_purpose_check check (purpose in ('intake', 'hand'));
