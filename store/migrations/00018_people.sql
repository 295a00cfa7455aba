-- Activity as judged within the visit. Whatever is added to a table that is
-- written from the log may be null: an older copy beside a newer one writes none.
-- +goose Up
alter table charted_point add column activity text;

-- +goose Down
alter table charted_point drop column activity;
