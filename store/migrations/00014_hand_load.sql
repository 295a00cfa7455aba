-- +goose Up
-- Whose hand pressed, and with what: a therapist's own load by day and week.
alter table hold
    add column contact   text not null default '',
    add column hand_ms   bigint not null default 0,
    add column author_id uuid;
create index hold_of_a_hand on hold (practice_id, author_id, started_at);

-- +goose Down
drop index hold_of_a_hand;
alter table hold
    drop column contact,
    drop column hand_ms,
    drop column author_id;
