-- Whether a hold was followed by lengthening in its visit, so that progress can tell whether it
-- made a difference.
-- +goose Up
alter table hold add column lengthened boolean not null default false;

-- +goose Down
alter table hold drop column lengthened;
