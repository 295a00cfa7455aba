-- What waits for a pen: a note that nobody has signed, and a student's that a licensed
-- person has yet to countersign. Visits of before say so once their tables are new.
-- +goose Up
alter table visit add column awaits_counter boolean not null default false;
drop index visit_unsigned;
create index visit_unsigned on visit (practice_id, closed_at)
    where closed_at is not null and (signed_at is null or awaits_counter);

-- +goose Down
drop index visit_unsigned;
create index visit_unsigned on visit (practice_id, closed_at) where closed_at is not null and signed_at is null;
alter table visit drop column awaits_counter;
