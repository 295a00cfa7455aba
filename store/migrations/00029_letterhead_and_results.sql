-- What a client needs to reach the practice, on everything that leaves it; and what a hold came
-- to in the words of its protocol's measure.
-- +goose Up
alter table practice
	add column address text not null default '',
	add column telephone text not null default '',
	add column opening_hours text not null default '',
	add column logo_text text not null default '';
grant update (name, address, telephone, opening_hours, logo_text) on practice to mokren_app;
alter table hold add column result text not null default '';

-- +goose Down
alter table hold drop column result;
revoke update (name) on practice from mokren_app;
alter table practice drop column address, drop column telephone, drop column opening_hours, drop column logo_text;
