-- +goose Up
-- What was not said stays unsaid; a spot knows what let it go, when it was
-- pressed last and what the client has answered; a visit knows what it leaves to
-- the next.
alter table charted_point
    alter column grade drop not null,
    add column worked     text   not null default '',
    add column treated_ms bigint not null default 0,
    add column answer     jsonb;
alter table visit add column left_off jsonb;

-- +goose Down
alter table visit drop column left_off;
delete from charted_point where grade is null;
alter table charted_point
    drop column worked,
    drop column treated_ms,
    drop column answer,
    alter column grade set not null;
