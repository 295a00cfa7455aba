-- The posture readings of a visit, so that the next one shows them beside its own.
-- +goose Up
alter table visit add column posture jsonb;

-- +goose Down
alter table visit drop column posture;
