-- The number that is called when somebody needs urgent medical care.
-- +goose Up
alter table practice add column emergency_number text not null default '112';
grant update (emergency_number) on practice to mokren_app;

-- +goose Down
alter table practice drop column emergency_number;
