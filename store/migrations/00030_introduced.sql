-- Whether a person was offered the trial visit. Who is here already knows the program.
-- +goose Up
alter table person add column introduced_at timestamptz;
update person set introduced_at = now();
grant update (introduced_at) on person to mokren_app;

-- +goose Down
alter table person drop column introduced_at;
