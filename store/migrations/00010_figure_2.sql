-- +goose Up
-- A practice's own site says on which drawing of the figure it was placed, as
-- points do; one of an earlier figure is carried to today's when it is read.
alter table atlas_site add column figure text not null default 'figure-1';
alter table atlas_site alter column figure drop default;

-- +goose Down
alter table atlas_site drop column figure;
